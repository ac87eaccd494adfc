"""Points and axes in the world: x forward, y to the client's left, z up."""

from __future__ import annotations

from typing import NamedTuple


class Vec(NamedTuple):
    """A point in cm or a direction."""

    x: float
    y: float
    z: float


class Axes(NamedTuple):
    """Three unit vectors of a body part: forward, to the client's left, and up along it."""

    forward: Vec
    left: Vec
    up: Vec


FORWARD = Vec(1.0, 0.0, 0.0)
BACKWARD = Vec(-1.0, 0.0, 0.0)
UP = Vec(0.0, 0.0, 1.0)
DOWN = Vec(0.0, 0.0, -1.0)
UPRIGHT = Axes(Vec(1.0, 0.0, 0.0), Vec(0.0, 1.0, 0.0), Vec(0.0, 0.0, 1.0))
