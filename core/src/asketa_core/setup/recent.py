"""Grids built last, kept in the process: what a room can build for a body is the same whatever its limits are."""

from __future__ import annotations

import itertools
from collections import OrderedDict
from collections.abc import Callable, Mapping
from functools import lru_cache
from threading import Lock
from typing import NamedTuple

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.poses.library import Variation
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid, NoGrid
from asketa_core.setup.screened import PoseGrid
from asketa_core.units import Side

SETUPS_KEPT = 300_000
"""About the whole library for one client, some 40 MB."""

Found = tuple[Grid, PoseGrid] | NoGrid


class Geometry(NamedTuple):
    """All of a client and a room that says which set-ups there are."""

    room: Room
    level_seat_cm: float
    ankle_cm: float
    ranges_deg: tuple[tuple[str, str, float], ...]

    @staticmethod
    def of(body: Body, ranges: Ranges, room: Room) -> Geometry:
        ends = sorted((motion.value, side.value, found.value_deg) for (motion, side), found in ranges.by_side.items())
        return Geometry(room, body.level_seat_cm, body.length_cm("ankle_above_sole"), tuple(ends))


_numbers = itertools.count()


@lru_cache(maxsize=1024)
def number_of(geometry: Geometry) -> int:
    """A number that stands for a geometry. One that was forgotten gets a new one: none is used twice."""
    return next(_numbers)


class RecentGrids:
    """The last grids up to so many set-ups. Variations are told apart by which they are, not by what they say."""

    def __init__(self, most: int = SETUPS_KEPT) -> None:
        self._most, self._size, self._lock = most, 0, Lock()
        self._kept: OrderedDict[tuple[object, ...], tuple[Variation, Found]] = OrderedDict()

    def get(
        self, variation: Variation, side: Side, geometry: int, choices: Mapping[str, str], make: Callable[[], Found]
    ) -> Found:
        key = (id(variation), side, geometry, *sorted(choices.items()))
        with self._lock:
            known = self._kept.get(key)
            if known is not None and known[0] is variation:
                self._kept.move_to_end(key)
                return known[1]
        found = make()
        with self._lock:
            self._forget(self._kept.pop(key, None))
            self._kept[key] = (variation, found)
            self._size += _size(found)
            while self._size > self._most and len(self._kept) > 1:
                self._forget(self._kept.popitem(last=False)[1])
        return found

    def _forget(self, known: tuple[Variation, Found] | None) -> None:
        if known is not None:
            self._size -= _size(known[1])


def _size(found: Found) -> int:
    return 1 if isinstance(found, NoGrid) else found[0].size
