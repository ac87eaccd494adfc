"""Parts of the body as outlines on the page: hulls joined, inner corners rounded, seams where one lies over another.

Everything is worked out for all parts at once: there is little to do for each, and calling is what would take time.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely
from shapely import LineString, MultiPoint, Polygon
from shapely.geometry.base import BaseGeometry

from asketa_core.figure.flesh import GROWS_FROM, Head, Name, Part, ball_points
from asketa_core.figure.views import Eye
from asketa_core.units import Array

ARC_POINTS = 7
"""Points on the part of a circle that a hull keeps."""
INNER_CM: dict[Name, float] = {"thigh": 5.0, "arm": 3.5, "head": 4.0, "shin": 2.0}
"""Inner corners where a part meets what bears it are rounded by this much; elbows need none."""
FILLET_SHARE, JOIN_SHARE = 1.9, 1.65
"""How far around a root the flesh is filled in, and how far no seam shows, as shares of where the limb blends."""
SIMPLE_CM = 0.1
HAIR_CM = 0.8
"""How far hair stands out from the skull."""

Areas = npt.NDArray[np.object_]
"""Areas or lines on the page, one for each part or each piece."""

ABOVE_FLOOR = shapely.box(-1000.0, -1000.0, 1000.0, 0.0)
NOWHERE = Polygon()


@dataclass(frozen=True, slots=True)
class Shape:
    """A part on the page. ``flesh`` fills the corners between it and what bears it, and lies under it."""

    part: Part
    area: BaseGeometry
    flesh: BaseGeometry
    nearness: float
    edge: BaseGeometry
    """Its outline but for where it and other parts grow into each other: no seam there."""


def shapes_of(parts: Sequence[Part], eye: Eye) -> list[Shape]:
    """Every part as an outline, flat where it lies on the floor."""
    areas = _areas(parts, eye)
    rooted = [at for at, part in enumerate(parts) if part.root is not None]
    roots = eye.flat(np.stack([_root(parts[at]) for at in rooted]))
    flesh = np.full(len(parts), NOWHERE)
    filled = [k for k, at in enumerate(rooted) if parts[at].name in INNER_CM]
    fleshed = [rooted[k] for k in filled]
    flesh[fleshed] = _flesh(parts, areas, fleshed, roots[filled], eye)
    edges = shapely.difference(shapely.boundary(areas), _joins(parts, areas, rooted, roots))
    nearness = _nearness(parts, eye)
    return [Shape(part, areas[at], flesh[at], nearness[at], edges[at]) for at, part in enumerate(parts)]


def _root(part: Part) -> Array:
    assert part.root is not None, part.name
    return part.root


def _areas(parts: Sequence[Part], eye: Eye) -> Areas:
    """The outline of each part, (parts,)."""
    owners, hulls = _hulls(parts, eye)
    areas = _united(owners, hulls, len(parts))
    cornered = [at for at, part in enumerate(parts) if part.round_cm > 0]
    areas[cornered] = closed(areas[cornered], np.array([parts[at].round_cm for at in cornered]))
    return _plain(_on_floor(areas, eye))


def _plain(areas: Areas) -> Areas:
    """The same with no more points than it takes."""
    return np.asarray(shapely.simplify(areas, SIMPLE_CM, preserve_topology=False))


def _hulls(parts: Sequence[Part], eye: Eye) -> tuple[list[int], Areas]:
    """What the parts are joined from: the part each belongs to, and the areas."""
    owners, pairs = [], []
    for at, part in enumerate(parts):
        for chain in part.chains:
            found = list(itertools.pairwise(chain)) or [(chain[0], chain[0])]
            owners += [at] * len(found)
            pairs += found
    centres = eye.flat(np.array([[one.centre, other.centre] for one, other in pairs]))
    capsules = _capsules(centres, np.array([[one.radius_cm, other.radius_cm] for one, other in pairs]))
    clouds = [(at, cloud) for at, part in enumerate(parts) for cloud in part.clouds]
    if not clouds:
        return owners, capsules
    which = np.repeat(np.arange(len(clouds)), [len(cloud) for _, cloud in clouds])
    lines = shapely.linestrings(eye.flat(np.concatenate([cloud for _, cloud in clouds])), indices=which)
    hulls = shapely.convex_hull(lines)
    return owners + [at for at, _ in clouds], np.concatenate([capsules, hulls])


def _capsules(centres: Array, radii: Array) -> Areas:
    """The hulls of pairs of circles, centres (n, 2, 2) and radii (n, 2): (n,) areas."""
    line = centres[:, 1] - centres[:, 0]
    length = np.hypot(line[:, 0], line[:, 1])
    toward = np.arctan2(line[:, 1], line[:, 0])
    # From the line to where both circles have a tangent in common; one within the other has the whole outline.
    narrows = np.clip((radii[:, 0] - radii[:, 1]) / np.maximum(length, 1e-9), -1.0, 1.0)
    tangent = np.arccos(narrows)
    share = np.linspace(0.0, 1.0, ARC_POINTS)
    round_one = tangent[:, None] + share * (2 * np.pi - 2 * tangent)[:, None]
    round_other = -tangent[:, None] + share * (2 * tangent)[:, None]
    angles = toward[:, None] + np.concatenate([round_one, round_other], axis=1)
    own = np.repeat([0, 1], ARC_POINTS)
    circle = np.stack([np.cos(angles), np.sin(angles)], axis=-1)
    return np.asarray(shapely.polygons(centres[:, own] + radii[:, own, None] * circle))


def _united(owners: Sequence[int], areas: Areas, count: int) -> Areas:
    """The union of what belongs to each owner, (count,)."""
    place = np.zeros(count, dtype=int)
    table = np.full((count, int(np.bincount(owners).max())), None)
    for owner, area in zip(owners, areas, strict=True):
        table[owner, place[owner]] = area
        place[owner] += 1
    return np.asarray(shapely.union_all(table, axis=1))


def _on_floor(areas: Areas, eye: Eye) -> Areas:
    """Cut off at the floor what would sink into it."""
    sinking = shapely.bounds(areas)[:, 3] > 0
    if eye.from_above or not sinking.any():
        return areas
    areas[sinking] = shapely.intersection(areas[sinking], ABOVE_FLOOR)
    return areas


def closed(areas: Areas, by_cm: Array) -> Areas:
    """Inner corners rounded: grown, and shrunk again."""
    return np.asarray(shapely.buffer(shapely.buffer(_plain(areas), by_cm, quad_segs=2), -by_cm, quad_segs=2))


def _discs(centres: Array, radii: Array) -> Areas:
    return _capsules(np.repeat(centres[:, None], 2, axis=1), np.repeat(radii[:, None], 2, axis=1))


def _blends(parts: Sequence[Part], rooted: Sequence[int]) -> Array:
    return np.array([parts[at].blend_cm for at in rooted])


def _flesh(parts: Sequence[Part], areas: Areas, rooted: Sequence[int], roots: Array, eye: Eye) -> Areas:
    """Each limb and what bears it around its root, the inner corners between them filled."""
    bearers = [_bearer(parts, at) for at in rooted]
    around = _discs(roots, FILLET_SHARE * _blends(parts, rooted))
    near_root = shapely.union(shapely.intersection(areas[rooted], around), shapely.intersection(areas[bearers], around))
    rounded = closed(near_root, np.array([INNER_CM[parts[at].name] for at in rooted]))
    return _plain(_on_floor(rounded, eye))


def _bearer(parts: Sequence[Part], at: int) -> int:
    """The part another grows from."""
    name = GROWS_FROM[parts[at].name]
    return next(k for k, part in enumerate(parts) if part.name == name and part.side in (None, parts[at].side))


def _joins(parts: Sequence[Part], areas: Areas, rooted: Sequence[int], roots: Array) -> Areas:
    """Where each part lies within one it grows from, or within one that grows from it, around the root; all of that one
    where the two go on straight. (parts,)"""
    bearers = [_bearer(parts, at) for at in rooted]
    bent = np.array([not parts[at].straight for at in rooted])
    around = _discs(roots[bent], JOIN_SHARE * _blends(parts, rooted)[bent])
    within = np.stack([areas[bearers], areas[rooted]])
    within[:, bent] = shapely.intersection(within[:, bent], around)
    return _united([*rooted, *bearers], within.ravel(), len(parts))


AWAY_CM = 200.0
"""What belongs to the side turned away is drawn before the trunk, however it is placed."""


def _nearness(parts: Sequence[Part], eye: Eye) -> list[float]:
    middles = []
    for part in parts:
        points = [ball.centre for chain in part.chains for ball in chain]
        points += [cloud.mean(axis=0) for cloud in part.clouds]
        middles.append(np.mean(points, axis=0))
    near = eye.near(np.stack(middles))
    away = [AWAY_CM if eye.far_side is not None and part.side is eye.far_side else 0.0 for part in parts]
    return [float(value) for value in near - away]


def seam(shape: Shape, below: BaseGeometry) -> list[LineString]:
    """Where a part's edge lies over what was drawn of the body before, away from where they join."""
    return lines_of(shapely.intersection(shape.edge, below))


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
