"""How much the hamstrings give back when the knee bends."""

from __future__ import annotations

HAMSTRING_COUPLING = 0.65
"""Degrees of hip flexion given back per degree of knee bend (judgement; 0.3–0.8 when measured)."""


def coupling_from_ninety_ninety(straight_leg_raise_deg: float, knee_extension_lack_deg: float) -> float:
    """A client's own hamstring coupling from the 90/90 test, clipped to 0.3–0.8.

    The default is kept where the test says nothing: a straight-leg raise of 85° or more, or a lack
    of knee extension under 10°.
    """
    if straight_leg_raise_deg >= 85 or knee_extension_lack_deg < 10:
        return HAMSTRING_COUPLING
    return min(max((90 - straight_leg_raise_deg) / knee_extension_lack_deg, 0.3), 0.8)
