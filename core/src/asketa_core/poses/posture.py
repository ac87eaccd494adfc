"""A settled posture: where the joints are and every read-out limits may speak of.

All arrays carry the batch of set-ups as their last axis n, and the client's ranges at their low,
middle and high end as the axis before it, so (3, n); points are (3, n, 3). Axes of length 1 stand
for "the same at every level" or "the same for every set-up".
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from asketa_core.units import Array, Mask, Side


class Readout(StrEnum):
    """Everything the engine reads off a posture. Units: degrees, cm, per cent or share as named."""

    HIP_FLEXION = "hip_flexion"
    HIP_EXTENSION = "hip_extension"
    HIP_ABDUCTION = "hip_abduction"
    HIP_EXTERNAL_ROTATION = "hip_external_rotation"
    HIP_CLOSING = "hip_closing"
    TRUNK_THIGH = "trunk_thigh"
    HIP_BEND = "hip_bend"
    HIP_RANGE_USED_PERCENT = "hip_range_used_percent"
    HIP_ABOVE_KNEE_CM = "hip_above_knee_cm"
    THIGH_DOWN = "thigh_down"
    KNEE_FLEXION = "knee_flexion"
    KNEE_TWIST = "knee_twist"
    KNEE_LOAD_SHARE = "knee_load_share"
    SHIN_SLOPE = "shin_slope"
    LUMBAR_FLEXION = "lumbar_flexion"
    THORACIC_FLEXION = "thoracic_flexion"
    SPINE_FLEXION = "spine_flexion"
    TRUNK_LEAN = "trunk_lean"


LEAST_ERROR: Mapping[str, float] = {"cm": 1.0, "deg": 5.0, "percent": 5.0, "share": 0.02}
"""No read-out is trusted more closely than this."""


def unit_of(readout: Readout) -> str:
    for suffix, unit in (("_cm", "cm"), ("_percent", "percent"), ("_share", "share")):
        if readout.value.endswith(suffix):
            return unit
    return "deg"


NOT_MODELLED = ("knee_drift", "knee_locked_back", "breath")
"""What no posture can show; limits on these become things to watch."""

Key = tuple[Readout, Side | None]
FlagKey = tuple[str, Side | None]


class Trouble(StrEnum):
    """Why a set-up cannot be taken up by this body at all."""

    REACH = "reach"
    FOLD = "fold"
    KNEE_RANGE = "knee_range"
    SEAT_TOO_HIGH = "seat_too_high"
    BACK_ROUNDS = "back_rounds"
    TRUNK_ON_THIGH = "trunk_on_thigh"
    UNDETERMINED = "undetermined"


@dataclass(frozen=True, slots=True)
class LegPoints:
    """Joint centres of one leg, and the direction its toes point (all (…, n, 3))."""

    hip: Array
    knee: Array
    ankle: Array
    toes: Array


@dataclass(frozen=True, slots=True)
class Posture:
    """See the module's docstring for shapes. ``troubles`` (3, n) marks what cannot be met, ``flags``
    (n,) what the posture counts as, ``exempt_from_band`` a named technique."""

    legs: Mapping[Side, LegPoints]
    pelvis_centre: Array
    pitch_deg: Array
    spine_flexion_deg: Array
    lean_deg: Array
    readouts: Mapping[Key, Array]
    flags: Mapping[FlagKey, Mask]
    troubles: Mapping[tuple[Trouble, Side], Mask]
    trouble_amounts: Mapping[tuple[Trouble, Side], Array]
    stopped_by: Array | None = None
    exempt_from_band: bool = False

    def middle(self, readout: Readout, side: Side | None, index: int) -> float:
        """One read-out at the middle of the client's ranges for one set-up."""
        values = self.readouts[(readout, side)]
        row = values[min(1, values.shape[0] - 1)]
        return float(row[min(index, row.shape[0] - 1)])

    def spread(self, readout: Readout, side: Side | None) -> tuple[Array, Array, Array]:
        """Lowest and highest value over the levels, and the error: half their distance, never under
        ``LEAST_ERROR``; each (n,)."""
        values = self.readouts[(readout, side)]
        low, high = values.min(axis=0), values.max(axis=0)
        return low, high, np.maximum((high - low) / 2, LEAST_ERROR[unit_of(readout)])
