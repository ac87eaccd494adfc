"""What a settled posture shows: the read-outs limits may speak of, and the bounds a body cannot meet."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum

from asketa_core.units import Side


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

Key = tuple[Readout, Side | None]


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


VARIES_BEYOND: Mapping[str, float] = {"cm": 1.0, "deg": 1.0, "percent": 1.0}
"""A read-out whose ends lie further apart than this differs between the levels; of other units, at all."""
