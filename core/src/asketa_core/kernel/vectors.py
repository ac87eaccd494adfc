"""Vectors and axes in the world: x forward, y to the client's left, z up."""

from __future__ import annotations

import math

from numba import float64

from asketa_core.kernel.compiled import compiled, entry, type_of
from asketa_core.kernel.space import FORWARD, UPRIGHT, Axes, Vec

TINY = 1e-300
"""Divides a zero vector without changing it."""


@compiled
def cosd(angle_deg: float) -> float:
    return math.cos(math.radians(angle_deg))


@compiled
def sind(angle_deg: float) -> float:
    return math.sin(math.radians(angle_deg))


@compiled
def acosd(ratio: float) -> float:
    """Inverse cosine in degrees; the argument is clipped to [-1, 1] against rounding only."""
    return math.degrees(math.acos(min(max(ratio, -1.0), 1.0)))


@compiled
def asind(ratio: float) -> float:
    """Inverse sine in degrees; the argument is clipped to [-1, 1] against rounding only."""
    return math.degrees(math.asin(min(max(ratio, -1.0), 1.0)))


@compiled
def atan2d(y: float, x: float) -> float:
    return math.degrees(math.atan2(y, x))


@compiled
def root(square: float) -> float:
    """Square root of what is a length squared; nothing where rounding or reach took it below zero."""
    return math.sqrt(max(square, 0.0))


@compiled
def clip(value: float, low: float, high: float) -> float:
    return min(max(value, low), high)


@compiled
def plus(a: Vec, b: Vec) -> Vec:
    return Vec(a.x + b.x, a.y + b.y, a.z + b.z)


@compiled
def minus(a: Vec, b: Vec) -> Vec:
    return Vec(a.x - b.x, a.y - b.y, a.z - b.z)


@compiled
def times(a: Vec, factor: float) -> Vec:
    return Vec(a.x * factor, a.y * factor, a.z * factor)


@compiled
def along(start: Vec, direction: Vec, distance: float) -> Vec:
    """The point a distance from a start in a direction."""
    return Vec(start.x + distance * direction.x, start.y + distance * direction.y, start.z + distance * direction.z)


@compiled
def between(start: Vec, end: Vec, share: float) -> Vec:
    """The point a share of the way from one point to another."""
    return Vec(
        start.x + share * (end.x - start.x), start.y + share * (end.y - start.y), start.z + share * (end.z - start.z)
    )


@compiled
def dot(a: Vec, b: Vec) -> float:
    return a.x * b.x + a.y * b.y + a.z * b.z


@compiled
def cross(a: Vec, b: Vec) -> Vec:
    return Vec(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)


@compiled
def norm(a: Vec) -> float:
    return math.sqrt(dot(a, a))


@compiled
def unit(a: Vec) -> Vec:
    """The same direction with length 1; a zero vector stays zero."""
    return times(a, 1.0 / max(norm(a), TINY))


@compiled
def level_direction(angle_deg: float, side_sign: float, ahead: float) -> Vec:
    """A level direction turned out to a side from straight ahead (``ahead`` 1) or straight behind (-1)."""
    return Vec(ahead * cosd(angle_deg), side_sign * sind(angle_deg), 0.0)


VEC, AXES = type_of(FORWARD), type_of(UPRIGHT)


@entry((float64, float64, float64))
def rotated(pitch_deg: float, roll_deg: float, yaw_deg: float) -> Axes:
    """Axes turned by ``Rz(yaw) · Rx(roll) · Ry(pitch)``.

    Pitch positive tips forward, roll positive lowers the client's right. Because pitch is the innermost rotation, tipping
    the pelvis by p adds exactly p to hip flexion and leaves abduction and rotation alone, whatever yaw and roll.
    """
    cp, sp = cosd(pitch_deg), sind(pitch_deg)
    cr, sr = cosd(roll_deg), sind(roll_deg)
    cy, sy = cosd(yaw_deg), sind(yaw_deg)
    return Axes(
        Vec(cy * cp - sy * sr * sp, sy * cp + cy * sr * sp, -cr * sp),
        Vec(-sy * cr, cy * cr, sr),
        Vec(cy * sp + sy * sr * cp, sy * sp - cy * sr * cp, cr * cp),
    )
