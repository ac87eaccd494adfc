"""Where a figure is seen from, and what that does to points in space."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from asketa_core.units import Array, Side


class View(StrEnum):
    """Where the figure is seen from. ``SIDE_LEFT`` looks from the client's left, who then faces left."""

    SIDE_LEFT = "side_left"
    SIDE_RIGHT = "side_right"
    FRONT = "front"
    BEHIND = "behind"
    ABOVE = "above"


Project = Callable[[Array], Array]
"""Points in space as points on the page, (…, 2), or as how near they are, (…)."""


@dataclass(frozen=True, slots=True)
class Eye:
    """Somebody looking at a figure: right and down on the page are in ``flat``, toward the eye in ``near``."""

    view: View
    flat: Project
    near: Project
    tilted: bool = False
    """Whether it looks down on the floor from in front."""

    @property
    def from_above(self) -> bool:
        return self.view is View.ABOVE or self.tilted

    @property
    def far_side(self) -> Side | None:
        """The side of the body that is turned away."""
        return None if self.tilted else {View.SIDE_LEFT: Side.RIGHT, View.SIDE_RIGHT: Side.LEFT}.get(self.view)


_EYES = {
    View.SIDE_LEFT: Eye(View.SIDE_LEFT, lambda p: np.stack([-p[..., 0], -p[..., 2]], -1), lambda p: p[..., 1]),
    View.SIDE_RIGHT: Eye(View.SIDE_RIGHT, lambda p: np.stack([p[..., 0], -p[..., 2]], -1), lambda p: -p[..., 1]),
    View.FRONT: Eye(View.FRONT, lambda p: np.stack([p[..., 1], -p[..., 2]], -1), lambda p: p[..., 0]),
    View.BEHIND: Eye(View.BEHIND, lambda p: np.stack([-p[..., 1], -p[..., 2]], -1), lambda p: -p[..., 0]),
    View.ABOVE: Eye(View.ABOVE, lambda p: np.stack([-p[..., 1], -p[..., 0]], -1), lambda p: p[..., 2]),
}
_OVER_A_MAT = Eye(View.ABOVE, lambda p: np.stack([p[..., 0], -p[..., 1]], -1), lambda p: p[..., 2])


TILT_DEG = 38.0


def _tilted(view: View) -> Eye:
    """A view somewhat from above, so that what lies behind the nearest edge of the floor is seen."""
    level, cos, sin = _EYES[view], np.cos(np.radians(TILT_DEG)), np.sin(np.radians(TILT_DEG))

    def flat(points: Array) -> Array:
        return np.stack([level.flat(points)[..., 0], -cos * points[..., 2] + sin * level.near(points)], -1)

    return Eye(view, flat, lambda points: cos * level.near(points) + sin * points[..., 2], tilted=True)


_TILTED = {view: _tilted(view) for view in (View.SIDE_LEFT, View.SIDE_RIGHT)}


def eye_of(view: View, lying: bool, on_side: bool = False) -> Eye:
    """From above a lying body is seen along the page, its head on the left; one on its side is looked down on from where
    its face is."""
    if on_side and view in _TILTED:
        return _TILTED[view]
    return _OVER_A_MAT if lying and view is View.ABOVE else _EYES[view]
