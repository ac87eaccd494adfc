"""Where a figure is seen from, and what that does to points in space."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from asketa_core.units import FORWARD, LEFT, UP, Array, Side


class View(StrEnum):
    """Where the figure is seen from. ``SIDE_LEFT`` looks from the client's left, who then faces left."""

    SIDE_LEFT = "side_left"
    SIDE_RIGHT = "side_right"
    FRONT = "front"
    BEHIND = "behind"
    ABOVE = "above"


@dataclass(frozen=True, slots=True, eq=False)
class Eye:
    """Somebody looking at a figure. ``page`` (2, 3) are the directions in space that are right and down on the page, ``toward`` (3,)
    is the one toward the eye."""

    view: View
    page: Array
    toward: Array
    tilted: bool = False
    """Whether it looks down on the floor from in front."""

    def flat(self, points: Array) -> Array:
        """Points in space, (…, 3), as points on the page, (…, 2)."""
        return points @ self.page.T

    def near(self, points: Array) -> Array:
        """How near to the eye points are, (…)."""
        return points @ self.toward

    @property
    def from_above(self) -> bool:
        return self.view is View.ABOVE or self.tilted

    @property
    def far_side(self) -> Side | None:
        """The side of the body that is turned away."""
        return None if self.tilted else {View.SIDE_LEFT: Side.RIGHT, View.SIDE_RIGHT: Side.LEFT}.get(self.view)


def _eye(view: View, right: Array, down: Array, toward: Array, tilted: bool = False) -> Eye:
    return Eye(view, np.stack([right, down]), toward, tilted)


_EYES = {
    eye.view: eye
    for eye in (
        _eye(View.SIDE_LEFT, -FORWARD, -UP, LEFT),
        _eye(View.SIDE_RIGHT, FORWARD, -UP, -LEFT),
        _eye(View.FRONT, LEFT, -UP, FORWARD),
        _eye(View.BEHIND, -LEFT, -UP, -FORWARD),
        _eye(View.ABOVE, -LEFT, -FORWARD, UP),
    )
}
_OVER_A_MAT = _eye(View.ABOVE, FORWARD, -LEFT, UP)


TILT_DEG = 38.0


def _tilted(view: View) -> Eye:
    """A view somewhat from above, so that what lies behind the nearest edge of the floor is seen."""
    level, cos, sin = _EYES[view], np.cos(np.radians(TILT_DEG)), np.sin(np.radians(TILT_DEG))
    right, toward = level.page[0], level.toward
    return _eye(view, right, sin * toward - cos * UP, cos * toward + sin * UP, tilted=True)


_TILTED = {view: _tilted(view) for view in (View.SIDE_LEFT, View.SIDE_RIGHT)}


def eye_of(view: View, lying: bool, on_side: bool = False) -> Eye:
    """From above a lying body is seen along the page, its head on the left; one on its side is looked down on from where
    its face is."""
    if on_side and view in _TILTED:
        return _TILTED[view]
    return _OVER_A_MAT if lying and view is View.ABOVE else _EYES[view]
