"""Sides, and the one place where degrees become radians.

Every public boundary of the core speaks centimetres, degrees, kilograms and seconds; names carry
the unit. The world frame is right-handed: x forward (the way the client faces), y to the client's
left, z up, floor at z = 0.
"""

from __future__ import annotations

import math
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]

FORWARD, LEFT, UP = np.eye(3)
"""The axes of space, (3,) each."""


class Side(StrEnum):
    """A side of the client's own body."""

    LEFT = "left"
    RIGHT = "right"

    @property
    def sign(self) -> float:
        """+1 for left, -1 for right: the sign of this side on the y axis."""
        return 1.0 if self is Side.LEFT else -1.0

    @property
    def other(self) -> Side:
        return Side.RIGHT if self is Side.LEFT else Side.LEFT


SIDES: tuple[Side, Side] = (Side.LEFT, Side.RIGHT)


def cosd(angle_deg: Array | float) -> Array:
    return np.asarray(np.cos(np.radians(angle_deg)), dtype=np.float64)


def sind(angle_deg: Array | float) -> Array:
    return np.asarray(np.sin(np.radians(angle_deg)), dtype=np.float64)


def acosd(ratio: Array | float) -> Array:
    """Inverse cosine in degrees; the argument is clipped to [-1, 1] against rounding only."""
    return np.asarray(np.degrees(np.arccos(np.clip(ratio, -1.0, 1.0))), dtype=np.float64)


def asind(ratio: Array | float) -> Array:
    """Inverse sine in degrees; the argument is clipped to [-1, 1] against rounding only."""
    return np.asarray(np.degrees(np.arcsin(np.clip(ratio, -1.0, 1.0))), dtype=np.float64)


def dot(a: Array, b: Array) -> Array:
    """Row-wise dot product over the last axis, shape (..., 3) → (...)."""
    # Written out: over three components this is several times faster than a general contraction.
    return np.asarray(a[..., 0] * b[..., 0] + a[..., 1] * b[..., 1] + a[..., 2] * b[..., 2], dtype=np.float64)


def cross(a: Array, b: Array) -> Array:
    """Row-wise cross product over the last axis, shape (..., 3)."""
    return stack3(
        a[..., 1] * b[..., 2] - a[..., 2] * b[..., 1],
        a[..., 2] * b[..., 0] - a[..., 0] * b[..., 2],
        a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0],
    )


def stack3(x: Array, y: Array, z: Array) -> Array:
    """Three coordinates that broadcast against each other as points, shape (..., 3)."""
    # Filling in is much cheaper than broadcasting first and stacking then, and there are thousands of small calls.
    found = np.empty((*np.broadcast(x, y, z).shape, 3))
    found[..., 0], found[..., 1], found[..., 2] = x, y, z
    return found


def norm(a: Array) -> Array:
    """Length over the last axis, shape (..., 3) → (...)."""
    return np.sqrt(dot(a, a))


TINY = 1e-300
"""Divides a zero vector without changing it."""


def unit(a: Array) -> Array:
    """Unit vector over the last axis; a zero vector stays zero instead of becoming nan."""
    if a.ndim == 1:
        # Of one vector plain numbers make short work.
        x, y, z = a.tolist()
        return a / max(math.sqrt(x * x + y * y + z * z), TINY)
    return np.asarray(a / np.maximum(norm(a), TINY)[..., None])
