"""A limb as points."""

from __future__ import annotations

from dataclasses import dataclass

from asketa_core.units import Array


@dataclass(frozen=True, slots=True)
class Limb:
    """Three joint centres and an end: hip–knee–ankle–toe or shoulder–elbow–wrist–fingertip, (3,) each."""

    root: Array
    middle: Array
    end: Array
    tip: Array
