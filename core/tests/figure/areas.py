"""Areas on the page, measured by another library than the one that cuts them."""

from __future__ import annotations

import shapely

from asketa_core.figure.areas import PER_CM, Area, Line


def as_shape(area: Area) -> shapely.Geometry:
    """In centimetres; holes are what runs the other way."""
    whole = shapely.union_all([_polygon(ring) for ring in area if _polygon(ring).exterior.is_ccw])
    return shapely.difference(
        whole, shapely.union_all([_polygon(ring) for ring in area if not _polygon(ring).exterior.is_ccw])
    )


def _polygon(ring: Line) -> shapely.Polygon:
    return shapely.Polygon([(x / PER_CM, y / PER_CM) for x, y in ring])


def as_lines(lines: list[Line]) -> shapely.Geometry:
    return shapely.union_all([shapely.LineString([(x / PER_CM, y / PER_CM) for x, y in line]) for line in lines])


def area_cm2(area: Area) -> float:
    return float(as_shape(area).area)
