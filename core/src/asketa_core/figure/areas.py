"""Areas and lines on the page: joined, cut by each other, grown and simplified.

They stand in whole numbers, thousandths of a centimetre, so that what ends where another begins ends there exactly. Outer rings run
one way round and holes the other; what a ring runs around is inside, however often it does.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt
import pyclipper
import shapely

from asketa_core.units import Array

PER_CM = 1000

Whole = npt.NDArray[np.int64]

Line = list[list[int]]
"""Points one after another; a ring returns to its first."""
Area = list[Line]
"""Rings, none where there is nothing."""

ARC_OFF = 1 - math.cos(math.pi / 8)
"""How far the corners of a grown outline may be off the arc they stand for, as a share of its radius: eight go round."""


def line_at(points: Array) -> Line:
    """Points on the page in centimetres, (points, 2)."""
    found: Line = _whole(points)
    return found


def lines_at(points: Array) -> list[Line]:
    """Many lines of as many points each, (lines, points, 2), in centimetres."""
    found: list[Line] = _whole(points)
    return found


def _whole(points: Array) -> Any:
    return _rounded(points).tolist()


def _rounded(points: Array) -> Whole:
    return np.rint(points * PER_CM).astype(np.int64)


def hulls_at(points: Array, of: Whole) -> list[Line]:
    """The rings around groups of points in centimetres, (points, 2), ``of`` (points,) counting the groups; empty around what lies
    on one line."""
    hulls = shapely.convex_hull(shapely.linestrings(points, indices=of))
    corners: Line = _rounded(shapely.get_coordinates(hulls)).tolist()
    counts: list[int] = np.asarray(shapely.get_num_coordinates(hulls)).tolist()
    ends = itertools.accumulate(counts)
    # The first comes again at the end, and they run the other way.
    return [corners[end - 1 : end - count : -1] if count > 3 else [] for count, end in zip(counts, ends, strict=True)]


def hull_at(points: Array) -> Line:
    """The ring around points, (points, 2), in centimetres; empty where they lie on one line."""
    (ring,) = hulls_at(points, np.zeros(len(points), dtype=np.int64))
    return ring


Bounds = tuple[float, float, float, float]
"""Least x and y, greatest x and y, in centimetres."""


def bounds_of(area: Area) -> Bounds:
    across = [point[0] for ring in area for point in ring]
    down = [point[1] for ring in area for point in ring]
    return min(across) / PER_CM, min(down) / PER_CM, max(across) / PER_CM, max(down) / PER_CM


def meet(one: Bounds, other: Bounds) -> bool:
    """Whether two boxes have anything in common."""
    return one[0] <= other[2] and other[0] <= one[2] and one[1] <= other[3] and other[1] <= one[3]


def length_cm(line: Line) -> float:
    return sum(math.dist(one, other) for one, other in itertools.pairwise(line)) / PER_CM


def joined(areas: Iterable[Area]) -> Area:
    """Everything that lies in at least one."""
    return _cut(pyclipper.CT_UNION, [ring for area in areas for ring in area], [])


def shared(area: Area, other: Area) -> Area:
    """What lies in both."""
    return _cut(pyclipper.CT_INTERSECTION, area, other) if area and other else []


def _cut(how: int, area: Area, by: Area) -> Area:
    clipper = pyclipper.Pyclipper()
    if not _add(clipper, area, pyclipper.PT_SUBJECT):
        return []
    _add(clipper, by, pyclipper.PT_CLIP)
    found: Area = clipper.Execute(how, pyclipper.PFT_NONZERO, pyclipper.PFT_NONZERO)
    return found


def _add(clipper: Any, lines: Sequence[Line], role: int, closed: bool = True) -> bool:
    """Whether anything was there to be added: rings with nothing inside are not."""
    if not lines:
        return False
    try:
        clipper.AddPaths(lines, role, closed)
    except pyclipper.ClipperException:
        return False
    return True


def inside(lines: Sequence[Line], area: Area) -> list[Line]:
    """The pieces of lines that lie in an area; what runs along its edge may count as either."""
    return _cut_lines(pyclipper.CT_INTERSECTION, lines, area) if area else []


def outside(lines: Sequence[Line], area: Area) -> list[Line]:
    """The pieces of lines that do not lie in an area."""
    return _cut_lines(pyclipper.CT_DIFFERENCE, lines, area) if area else list(lines)


def _cut_lines(how: int, lines: Sequence[Line], area: Area) -> list[Line]:
    # The library loses level pieces of lines. Cut sloped, nothing on a page is level, and x comes back as it is, y to its unit.
    slope = SLOPE if any(_has_level_piece(line) for line in lines) else 0
    clipper = pyclipper.Pyclipper()
    if not _add(clipper, _sloped(lines, slope), pyclipper.PT_SUBJECT, closed=False):
        return []
    _add(clipper, _sloped(area, slope), pyclipper.PT_CLIP)
    tree = clipper.Execute2(how, pyclipper.PFT_NONZERO, pyclipper.PFT_NONZERO)
    found: list[Line] = pyclipper.OpenPathsFromPolyTree(tree)
    level = ([[x, round((y - x) / slope)] for x, y in line] for line in found) if slope else found
    return [line for line in level if length_cm(line) > CRUMB_CM]


SLOPE = 1009
CRUMB_CM = 2 / PER_CM
"""What is no longer is left over where ends were rounded."""


def _has_level_piece(line: Line) -> bool:
    return any(one[1] == other[1] for one, other in itertools.pairwise(line))


def _sloped(lines: Sequence[Line], slope: int) -> Sequence[Line]:
    return [[[x, y * slope + x] for x, y in line] for line in lines] if slope else lines


def grown(area: Area, by_cm: float) -> Area:
    """An area and all around it, its outer corners round; shrunk where ``by_cm`` is below zero."""
    if not area:
        return []
    return _offset(area, by_cm, pyclipper.JT_ROUND)


def wider(area: Area, by_cm: float) -> Area:
    """An area and all around it, with the corners it has."""
    return _offset(area, by_cm, pyclipper.JT_MITER) if area else []


def _offset(area: Area, by_cm: float, corners: int) -> Area:
    offset = pyclipper.PyclipperOffset(arc_tolerance=ARC_OFF * abs(by_cm) * PER_CM)
    offset.AddPaths(area, corners, pyclipper.ET_CLOSEDPOLYGON)
    found: Area = offset.Execute(by_cm * PER_CM)
    return found


def closed(area: Area, by_cm: float) -> Area:
    """Inner corners rounded: grown, and shrunk again."""
    return grown(grown(area, by_cm), -by_cm)


def simple(area: Area, off_cm: float) -> Area:
    """The same with no more points than it takes to be off by no more than that."""
    return [ring for ring in pyclipper.CleanPolygons(area, off_cm * PER_CM) if len(ring) > 2]


def rectangle(box: Bounds) -> Line:
    x0, y0, x1, y1 = box
    return line_at(np.array([[x0, y0], [x1, y0], [x1, y1], [x0, y1]]))


def covered_cm2(area: Area, boxes: Sequence[Bounds]) -> list[float]:
    """How much of each box an area covers; what lies on each other in it counts each time."""
    if not area:
        return [0.0] * len(boxes)
    points = np.concatenate([np.array(ring) for ring in area]) / PER_CM
    of = np.repeat(np.arange(len(area)), [len(ring) for ring in area])
    rings = shapely.linearrings(points, indices=of)
    filled, sign = shapely.polygons(rings), np.where(shapely.is_ccw(rings), 1.0, -1.0)
    return [float(sign @ shapely.area(shapely.clip_by_rect(filled, *box))) for box in boxes]
