"""Parts of the body as outlines on the page: hulls joined, inner corners rounded, seams where one lies over another."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np
import shapely
from shapely import LineString, MultiPoint, Point, Polygon
from shapely.geometry.base import BaseGeometry

from asketa_core.figure.flesh import GROWS_FROM, Ball, Head, Name, Part, ball_points
from asketa_core.figure.views import Eye, Project
from asketa_core.units import Array, Side

ARC_POINTS = 16
ROUND_CM = 1.6
"""Inner corners within a part are rounded by this much, where limbs meet the trunk by more."""
INNER_CM: Mapping[Name, float] = {"thigh": 5.0, "arm": 3.5, "head": 4.0, "shin": 2.0}
TRUNK_ROUND_CM = 5.0
FILLET_SHARE, JOIN_SHARE, STRAIGHT_SHARE = 1.9, 1.65, 3.6
"""How far around a root the flesh is filled in, and how far no seam shows, as shares of where the limb blends."""
SIMPLE_CM = 0.1
HAIR_CM = 0.8
"""How far hair stands out from the skull."""

ABOVE_FLOOR = shapely.box(-1000.0, -1000.0, 1000.0, 0.0)

_ARC = np.linspace(0, 2 * np.pi, ARC_POINTS, endpoint=False)
_CIRCLE = np.column_stack([np.cos(_ARC), np.sin(_ARC)])


@dataclass(frozen=True, slots=True)
class Shape:
    """A part on the page. ``flesh`` fills the corners between it and what bears it, and lies under it."""

    part: Part
    area: BaseGeometry
    flesh: BaseGeometry
    nearness: float
    joins: BaseGeometry
    """Where it and other parts grow into each other: no seam there."""


def shapes_of(parts: Iterable[Part], eye: Eye) -> list[Shape]:
    """Every part as an outline, flat where it lies on the floor."""
    parts = list(parts)
    areas = {(part.name, part.side): _area(part, eye) for part in parts}
    joins = {(part.name, part.side): _join(part, eye.flat) for part in parts}
    found = []
    for part in parts:
        area = areas[part.name, part.side]
        flesh: BaseGeometry = Polygon()
        if part.root is not None:
            bearer = GROWS_FROM[part.name]
            flesh = _flesh(area, areas[bearer, part.side if bearer == "thigh" else None], part, eye)
        found.append(Shape(part, area, flesh, _nearness(part, eye), _joins(part, joins)))
    return found


def _joins(part: Part, joins: Mapping[tuple[Name, Side | None], BaseGeometry]) -> BaseGeometry:
    """Where a part grows out of what bears it, and where what it bears grows out of it."""
    borne = [
        join for (name, side), join in joins.items() if GROWS_FROM.get(name) == part.name and part.side in (None, side)
    ]
    return shapely.union_all([joins[part.name, part.side], *borne])


def _join(part: Part, flat: Project) -> BaseGeometry:
    if part.root is None:
        return Polygon()
    share = STRAIGHT_SHARE if part.straight else JOIN_SHARE
    return Point(flat(part.root)).buffer(share * part.blend_cm, quad_segs=6)


AWAY_CM = 200.0
"""What belongs to the side turned away is drawn before the trunk, however it is placed."""


def _nearness(part: Part, eye: Eye) -> float:
    points = [ball.centre for chain in part.chains for ball in chain]
    points += [cloud.mean(axis=0) for cloud in part.clouds]
    away = AWAY_CM if eye.far_side is not None and part.side is eye.far_side else 0.0
    return float(eye.near(np.stack(points)).mean()) - away


def _area(part: Part, eye: Eye) -> BaseGeometry:
    points = [piece for chain in part.chains for piece in _circles(chain, eye.flat)]
    points += [eye.flat(cloud) for cloud in part.clouds]
    which = np.repeat(np.arange(len(points)), [len(each) for each in points])
    every = np.asarray(shapely.points(np.concatenate(points)))
    hulls = shapely.convex_hull(shapely.multipoints(every, indices=which))
    whole = shapely.union_all(hulls)
    if part.name != "thigh":
        # A thigh is one straight run: it has no inner corners.
        whole = closed(whole, TRUNK_ROUND_CM if part.name == "trunk" else ROUND_CM)
    return _on_floor(whole, eye)


def _on_floor(area: BaseGeometry, eye: Eye) -> BaseGeometry:
    sinks = not eye.from_above and area.bounds[3] > 0
    return shapely.intersection(area, ABOVE_FLOOR) if sinks else area


def closed(area: BaseGeometry, by_cm: float) -> BaseGeometry:
    """Inner corners rounded: grown, and shrunk again."""
    return area.buffer(by_cm, quad_segs=2).buffer(-by_cm, quad_segs=2)


def _circles(chain: tuple[Ball, ...], flat: Project) -> Iterator[Array]:
    """The circles of each pair of neighbours as points."""
    circles = [flat(ball.centre) + ball.radius_cm * _CIRCLE for ball in chain]
    if len(circles) == 1:
        yield circles[0]
    for one, other in itertools.pairwise(circles):
        yield np.concatenate([one, other])


def _flesh(area: BaseGeometry, bearer: BaseGeometry, part: Part, eye: Eye) -> BaseGeometry:
    """A limb and what bears it around its root, the inner corners between them filled."""
    assert part.root is not None
    around = Point(eye.flat(part.root)).buffer(FILLET_SHARE * part.blend_cm, quad_segs=4)
    near_root = shapely.union(shapely.intersection(area, around), shapely.intersection(bearer, around))
    return _on_floor(closed(near_root, INNER_CM[part.name]), eye)


def seam(shape: Shape, below: BaseGeometry) -> list[LineString]:
    """Where a part's edge lies over what was drawn of the body before, away from where they join."""
    edge: BaseGeometry = shapely.boundary(shape.area)
    if not shapely.intersects(edge, below):
        return []
    over = lines_of(shapely.intersection(edge, below))
    return lines_of(shapely.difference(shapely.MultiLineString(over), shape.joins)) if over else []


def lines_of(found: BaseGeometry) -> list[LineString]:
    """The lines of a result, joined end to end; where areas only touch there are points beside them."""
    parts = [each for each in getattr(found, "geoms", [found]) if isinstance(each, LineString) and not each.is_empty]
    merged = shapely.line_merge(shapely.MultiLineString(parts)) if len(parts) > 1 else None
    return parts if merged is None else list(getattr(merged, "geoms", [merged]))


def hair(skull: Head, eye: Eye) -> BaseGeometry:
    """The cap of hair as it is seen from there: from the brow behind the ears to the nape."""
    points = _SKULL
    ahead, up = points[:, 0], points[:, 2]
    grows = (0.75 * ahead - up < 0.05) & (up > -0.62) & ~((ahead > 0.55) & (up < 0.72))
    inside = skull.centre + points @ skull.axes
    outward = eye.near(inside) - eye.near(skull.centre[None, :])
    seen = grows & (outward > -0.02 * np.abs(outward).max())
    if seen.sum() < 3:
        return Polygon()
    spread = skull.centre + points[seen] @ (skull.axes * (1 + HAIR_CM / np.linalg.norm(skull.axes, axis=1))[:, None])
    return MultiPoint(eye.flat(spread)).convex_hull.buffer(0.3)


_SKULL = ball_points(280)
