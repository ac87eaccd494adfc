"""Joint angles of one leg from the positions of hip, knee and ankle.

Axes follow the joint-coordinate-system order for the hip (flexion about the pelvis's own side axis, then abduction, then
rotation about the thigh; Grood & Suntay 1983, adopted by the ISB). Clinical zero is upright standing with the feet
straight ahead.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from numba import float64

from asketa_core.kernel.compiled import compiled, entry
from asketa_core.kernel.space import Axes, Vec
from asketa_core.kernel.vectors import (
    AXES,
    VEC,
    acosd,
    along,
    asind,
    atan2d,
    cosd,
    cross,
    dot,
    minus,
    norm,
    sind,
    times,
    unit,
)

NEAR_SINGULAR_DEG = 80.0
"""Beyond this |abduction| only the sum or difference of flexion and rotation is determined."""


class HipAngles(NamedTuple):
    """Flexion (extension negative), abduction (adduction negative), external rotation (internal negative), in degrees;
    ``near_singular`` marks where flexion and rotation cannot be told apart."""

    flexion_deg: float
    abduction_deg: float
    external_rotation_deg: float
    near_singular: bool


@entry((VEC, VEC, VEC))
def knee_flexion(hip: Vec, knee: Vec, ankle: Vec) -> float:
    """Knee flexion in degrees, 0 = straight."""
    thigh, shin = minus(hip, knee), minus(ankle, knee)
    # atan2 keeps full precision near a straight knee, where acos loses half its digits.
    return 180.0 - atan2d(norm(cross(thigh, shin)), dot(thigh, shin))


@entry((VEC, VEC, VEC, VEC, float64))
def femur_axes(hip: Vec, knee: Vec, ankle: Vec, toes: Vec, straight_below_deg: float) -> Axes:
    """Axes of the thigh: its side axis is the knee's hinge.

    With a straight knee the hinge cannot be read from the shin, so it is taken from where the toes point.
    """
    up = unit(minus(hip, knee))
    if knee_flexion(hip, knee, ankle) < straight_below_deg:
        side_axis = cross(up, unit(minus(toes, times(up, dot(toes, up)))))
    else:
        side_axis = unit(cross(minus(knee, hip), minus(ankle, knee)))
    return Axes(cross(side_axis, up), side_axis, up)


@compiled
def femur_at(pelvis: Axes, flexion_deg: float, abduction_deg: float, rotation_deg: float, side_sign: float) -> Axes:
    """The thigh of a hip bent, opened and turned by so much: ``pelvis · Ry(-F) · Rx(m·A) · Rz(m·E)``."""
    cf, sf = cosd(flexion_deg), sind(flexion_deg)
    ca, sa = cosd(abduction_deg), side_sign * sind(abduction_deg)
    ce, se = cosd(rotation_deg), side_sign * sind(rotation_deg)
    forward = Vec(cf * ce - sf * sa * se, ca * se, sf * ce + cf * sa * se)
    left = Vec(-cf * se - sf * sa * ce, ca * ce, -sf * se + cf * sa * ce)
    up = Vec(-sf * ca, -sa, cf * ca)
    return Axes(within(pelvis, forward), within(pelvis, left), within(pelvis, up))


@compiled
def within(axes: Axes, local: Vec) -> Vec:
    """A direction given in a part's own axes, in the world."""
    origin = times(axes.forward, local.x)
    return along(along(origin, axes.left, local.y), axes.up, local.z)


@entry((AXES, AXES, float64))
def hip_angles(pelvis: Axes, femur: Axes, side_sign: float) -> HipAngles:
    """Hip angles from ``pelvisᵀ · femur = Ry(-F) · Rx(m·A) · Rz(m·E)`` with m the side's sign."""
    flexion = -atan2d(dot(pelvis.forward, femur.up), dot(pelvis.up, femur.up))
    abduction = side_sign * asind(-dot(pelvis.left, femur.up))
    rotation = side_sign * atan2d(dot(pelvis.left, femur.forward), dot(pelvis.left, femur.left))
    return HipAngles(flexion, abduction, rotation, abs(abduction) > NEAR_SINGULAR_DEG)


@entry((float64, float64))
def hip_closing(flexion_deg: float, abduction_deg: float) -> float:
    """Angle in degrees between the thigh and the pelvis's downward axis.

    Flexion alone inflates when the thigh is out to the side: flexion 126 at abduction 62 closes the hip by only 106. With
    the trunk in place of the pelvis the same formula gives the trunk–thigh angle.
    """
    return acosd(cosd(flexion_deg) * cosd(abduction_deg))


@entry((float64, float64))
def flexion_allowed_at(closing_range_deg: float, abduction_deg: float) -> float:
    """Largest flexion whose hip closing stays within ``closing_range_deg`` at this abduction.

    Infinite where the thigh is so far out that no flexion can use the range up; zero where the abduction alone already
    exceeds it.
    """
    ratio = cosd(closing_range_deg) / max(cosd(abduction_deg), 1e-12)
    return math.inf if ratio <= -1.0 else acosd(ratio)
