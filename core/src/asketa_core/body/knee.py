"""What a bent, turned-out leg leaves for the knee."""

from __future__ import annotations

from enum import StrEnum

import numpy as np

from asketa_core.units import Array

BEND_FACTOR_DEG = 60.0
TWIST_FACTOR_DEG = 5.0
LOAD_FACTOR_SHARE = 0.15
"""The three factors: knee flexion, twist left for the knee, share of body weight through shin or foot."""


class KneeRule(StrEnum):
    FINE = "fine"
    CAUTION = "caution"
    STOP = "stop"


def twist_left(rotation_required_deg: Array | float, rotation_available_deg: Array | float) -> Array:
    """Turning out the shape asks for and the hip does not give, in degrees, never negative."""
    missing = np.asarray(rotation_required_deg, float) - np.asarray(rotation_available_deg, float)
    return np.asarray(np.maximum(0.0, missing))


def three_factor_rule(knee_flexion_deg: float, twist_deg: float, load_share: float) -> KneeRule:
    """Bend, twist and load together endanger a knee; twist with either other deserves the eye."""
    bent, twisted, loaded = (
        knee_flexion_deg > BEND_FACTOR_DEG,
        twist_deg > TWIST_FACTOR_DEG,
        load_share > LOAD_FACTOR_SHARE,
    )
    if bent and twisted and loaded:
        return KneeRule.STOP
    if twisted and (bent or loaded):
        return KneeRule.CAUTION
    return KneeRule.FINE
