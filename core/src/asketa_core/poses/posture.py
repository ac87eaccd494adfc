"""A settled posture: where the joints are and every read-out limits may speak of.

Read-outs are columns: the client's ranges at their low, middle and high end along the first axis
(length 1 where they make no difference), distinct cases k along the second, and ``rows`` that says
which case each of the n set-ups is. What one leg does depends on few slots, so k is often far
smaller than n.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

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
    HIP_USE_PERCENT = "hip_use_percent"
    OPENING_USED_PERCENT = "opening_used_percent"
    HAMSTRING_USED_PERCENT = "hamstring_used_percent"
    GROIN_ROOM = "groin_room"
    HIP_ABOVE_KNEE_CM = "hip_above_knee_cm"
    THIGH_DOWN = "thigh_down"
    KNEE_FLEXION = "knee_flexion"
    KNEE_TWIST = "knee_twist"
    KNEE_LOAD_SHARE = "knee_load_share"
    KNEE_MOMENT_RATIO = "knee_moment_ratio"
    KNEECAP_SHARE = "kneecap_share"
    KNEE_PADDING_CM = "knee_padding_cm"
    DORSIFLEXION = "dorsiflexion"
    SHIN_SLOPE = "shin_slope"
    LUMBAR_FLEXION = "lumbar_flexion"
    THORACIC_FLEXION = "thoracic_flexion"
    SPINE_FLEXION = "spine_flexion"
    SPINE_EXTENSION = "spine_extension"
    SPINE_ROTATION = "spine_rotation"
    SIDE_BEND = "side_bend"
    TRUNK_LEAN = "trunk_lean"
    SPINE_MOMENT_RATIO = "spine_moment_ratio"
    BALANCE_MARGIN_CM = "balance_margin_cm"
    SHOULDER_ELEVATION = "shoulder_elevation"
    HANDS_SHARE = "hands_share"
    SUPINE_MINUTES = "supine_minutes"
    STANDING_MINUTES = "standing_minutes"
    HOLD_MINUTES = "hold_minutes"
    BELLY_CLEARANCE_CM = "belly_clearance_cm"
    KNEE_GAP_CM = "knee_gap_cm"
    NECK_BEND = "neck_bend"
    HEAD_MISSES_CM = "head_misses_cm"


LEAST_ERROR: Mapping[str, float] = {
    "cm": 1.0,
    "deg": 5.0,
    "percent": 5.0,
    "share": 0.02,
    "leg_share": 0.02,
    "upper_share": 0.02,
    "ratio": 0.1,
    "minutes": 0.01,
}
"""No read-out is trusted more closely than this."""


_OWN_UNITS: Mapping[Readout, str] = {Readout.KNEECAP_SHARE: "leg_share", Readout.HANDS_SHARE: "upper_share"}
"""Shares of something else than body weight: of a kneeling leg's load, of what is above the hands."""


def unit_of(readout: Readout) -> str:
    if readout in _OWN_UNITS:
        return _OWN_UNITS[readout]
    for suffix, unit in (
        ("_cm", "cm"),
        ("_percent", "percent"),
        ("_share", "share"),
        ("_ratio", "ratio"),
        ("_minutes", "minutes"),
    ):
        if readout.value.endswith(suffix):
            return unit
    return "deg"


NOT_MODELLED = ("knee_drift", "knee_locked_back", "breath")
"""What no posture can show; limits on these become things to watch."""

Indices = NDArray[np.int32]
Key = tuple[Readout, Side | None]
FlagKey = tuple[str, Side | None]


class Trouble(StrEnum):
    """Why a set-up cannot be taken up by this body at all."""

    REACH = "reach"
    FOLD = "fold"
    KNEE_RANGE = "knee_range"
    ANKLE_RANGE = "ankle_range"
    HIP_RANGE = "hip_range"
    BALANCE = "balance"
    SEAT_TOO_HIGH = "seat_too_high"
    BACK_HOLLOWS = "back_hollows"
    BACK_ROUNDS = "back_rounds"
    KNEE_TWIST = "knee_twist"
    HIP_EXTENSION = "hip_extension"
    HIP_USE = "hip_use"
    SHIN_STEEP = "shin_steep"
    AIM = "aim"
    TRUNK_ON_THIGH = "trunk_on_thigh"
    SUPPORT_MISSES = "support_misses"
    HAND_MISSES = "hand_misses"
    HEAD_UNSUPPORTED = "head_unsupported"
    IDLE_SUPPORT = "idle_support"
    ROLL_IN_KNEE = "roll_in_knee"
    UNDETERMINED = "undetermined"


@dataclass(frozen=True, slots=True)
class LegPoints:
    """Joint centres of one leg, and the direction its toes point (all (…, k, 3))."""

    hip: Array
    knee: Array
    ankle: Array
    toes: Array


@dataclass(frozen=True, slots=True)
class Column:
    """Values (levels, k) and the case of each set-up, ``rows`` (n,)."""

    values: Array
    rows: Indices

    def over_setups(self) -> Array:
        """(levels, n)."""
        return self.values[:, self.rows]

    def at(self, setup: int) -> Array:
        """All levels at one set-up."""
        return np.asarray(self.values[:, self.rows[setup]])


def lowest(values: Array) -> Array:
    """Lowest value over the ranges, (levels, k) → (k,)."""
    # Level by level: over one or three rows a reduction costs more in set-up than in work.
    least: Array = values[0]
    for level in values[1:]:
        least = np.minimum(least, level)
    return least


def highest(values: Array) -> Array:
    """Highest value over the ranges, (levels, k) → (k,)."""
    most: Array = values[0]
    for level in values[1:]:
        most = np.maximum(most, level)
    return most


VARIES_BEYOND: Mapping[str, float] = {"cm": 1.0, "deg": 1.0, "percent": 1.0}
"""A read-out whose ends lie further apart than this differs between the levels; of other units, at all."""


@dataclass(frozen=True, slots=True)
class Extremes:
    """Lowest, highest and middle value over the client's ranges, the error (half the distance of the first two, never
    under ``LEAST_ERROR``), and whether the value differs between the levels; each (k,)."""

    low: Array
    high: Array
    middle: Array
    error: Array
    varies: Mask


@dataclass(frozen=True, slots=True)
class Posture:
    """``legs`` points are (levels, k, 3) with ``leg_rows`` (n,) into them. ``pelvis`` (levels, k, 2) is
    its centre as forward and up. ``troubles`` (n,) marks what this body cannot meet in some set-up at the middle of its
    ranges, ``perhaps`` what it cannot at their worst end only, ``flags`` (n,) what the posture counts as,
    ``exempt_from_band`` a named technique."""

    size: int
    legs: Mapping[Side, LegPoints]
    leg_rows: Mapping[Side, Indices]
    pitch_deg: Array
    spine_flexion_deg: Array
    lean_deg: Array
    readouts: Mapping[Key, Column]
    flags: Mapping[FlagKey, Mask]
    troubles: Mapping[tuple[Trouble, Side], Mask]
    trouble_amounts: Mapping[tuple[Trouble, Side], Array]
    stopped_by: Mapping[Side, Array]
    perhaps: Mapping[tuple[Trouble, Side], Mask] = field(default_factory=dict)
    seen: frozenset[tuple[str, Side]] = frozenset()
    """Bounds that were seen otherwise on this body: beyond them is to be minded, however far."""
    exempt_from_band: bool = False
    own_rows: Indices = field(init=False, repr=False)
    """One case for each set-up: 0 … n − 1."""
    _extremes: dict[Key, Extremes] = field(default_factory=dict, repr=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "own_rows", np.arange(self.size, dtype=np.int32))

    def key(self, readout: Readout, side: Side | None) -> Key | None:
        """Where a read-out of a side stands: its own column, else the middle's; ``None`` when there is none."""
        if (readout, side) in self.readouts:
            return (readout, side)
        return (readout, None) if (readout, None) in self.readouts else None

    def extremes(self, key: Key) -> Extremes:
        found = self._extremes.get(key)
        if found is None:
            values = self.readouts[key].values
            low, high, unit = lowest(values), highest(values), unit_of(key[0])
            found = Extremes(
                low, high, values[min(1, len(values) - 1)], np.maximum((high - low) / 2, LEAST_ERROR[unit]),
                high - low > VARIES_BEYOND.get(unit, 1e-9),
            )  # fmt: skip
            self._extremes[key] = found
        return found

    def middle(self, readout: Readout, side: Side | None, setup: int) -> float:
        """One read-out at the middle of the client's ranges for one set-up."""
        levels = self.readouts[(readout, side)].at(setup)
        return float(levels[min(1, len(levels) - 1)])

    def spread_at(self, readout: Readout, side: Side | None, setup: int) -> tuple[float, float, float]:
        """Lowest and highest value over the ranges and the error, for one set-up."""
        found = self.extremes((readout, side))
        at = self.readouts[(readout, side)].rows[setup]
        return float(found.low[at]), float(found.high[at]), float(found.error[at])
