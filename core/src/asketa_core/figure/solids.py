"""Simple solids that props are made of, in space; cm throughout."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from asketa_core.units import Array

Material = Literal["wood", "felt", "cotton", "strap"]


@dataclass(frozen=True, slots=True)
class Box:
    """An upright box, corners low and high (3,): a prop of a ``kind`` or a ``wall``. ``folds`` are the layers of a blanket;
    what stands ``behind`` never hides the body; what is ``held`` lies between limbs."""

    low: Array
    high: Array
    material: Material
    kind: str = ""
    folds: int = 0
    wall: bool = False
    behind: bool = False
    held: bool = False


@dataclass(frozen=True, slots=True)
class Solid:
    """A convex solid by its corners, (k, 3)."""

    points: Array
    material: Material


@dataclass(frozen=True, slots=True)
class Bar:
    """Something long and thin along its points (k, 3). What lies beyond the middle ``belongs_at`` of what it is part of
    is drawn pale."""

    points: Array
    thick_cm: float
    material: Material
    belongs_at: Array | None = None
    behind: bool = False
