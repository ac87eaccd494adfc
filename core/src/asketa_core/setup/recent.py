"""Grids built last, kept in the process: what a room can build for a body is the same whatever its limits are."""

from __future__ import annotations

import itertools
from functools import lru_cache
from typing import NamedTuple

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.props.kinds import Room
from asketa_core.recent import Recent
from asketa_core.setup.grid import Grid, NoGrid
from asketa_core.setup.screened import PoseGrid

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


def _size(found: Found) -> int:
    return 1 if isinstance(found, NoGrid) else found[0].size


recent_grids: Recent[Found] = Recent(SETUPS_KEPT, _size)
