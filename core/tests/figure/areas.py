"""Areas on the page, measured by another library than the one that cuts them."""

from __future__ import annotations

import shapely

from asketa_core.figure.areas import PER_CM, Area, Line


def as_shape(area: Area) -> shapely.Geometry:
    """In centimetres; holes are what runs the other way."""
    rings = [_polygon(ring) for ring in area]
    outer, holes = ([ring for ring in rings if ring.exterior.is_ccw is outer] for outer in (True, False))
    return shapely.difference(shapely.union_all(outer), shapely.union_all(holes))


def _polygon(ring: Line) -> shapely.Polygon:
    return shapely.Polygon([(x / PER_CM, y / PER_CM) for x, y in ring])


def as_lines(lines: list[Line]) -> shapely.Geometry:
    return shapely.union_all([shapely.LineString([(x / PER_CM, y / PER_CM) for x, y in line]) for line in lines])


def area_cm2(area: Area) -> float:
    return float(as_shape(area).area)
