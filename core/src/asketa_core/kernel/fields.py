"""Reading and writing the fields of records."""

from __future__ import annotations

from typing import Any

from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.records import Record
from asketa_core.kernel.space import Vec


@compiled
def number(value: Record, x: Any) -> float:
    """A recipe's length or angle in a set-up; ``x`` holds the numbers of the slots."""
    found = value.plus
    if value.slot >= 0:
        found += x[value.slot] * value.times
    if value.plus_slot >= 0:
        found += x[value.plus_slot]
    return float(found)


@compiled
def vec(point: Record) -> Vec:
    return Vec(point.x, point.y, point.z)


@compiled
def put(point: Record, at: Vec) -> None:
    point.x, point.y, point.z = at.x, at.y, at.z
