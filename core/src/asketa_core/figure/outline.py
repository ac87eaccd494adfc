"""Parts of the body as outlines on the page: hulls joined, inner corners rounded, seams where one lies over another.

Circles and hulls are worked out for all parts at once: there is little to do for each, and calling is what would take time.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from operator import itemgetter
from typing import NamedTuple

import numpy as np

from asketa_core.figure.areas import (
    Area,
    Bounds,
    Line,
    bounds_of,
    closed,
    grown,
    hull_at,
    hulls_at,
    inside,
    joined,
    lines_at,
    meet,
    outside,
    shared,
    simple,
    wider,
)
from asketa_core.figure.flesh import GROWS_FROM, Head, Name, Part, ball_points
from asketa_core.figure.views import Eye
from asketa_core.recent import Itself
from asketa_core.units import Array

ARC_POINTS = 7
"""Points on the part of a circle that a hull keeps."""
INNER_CM: dict[Name, float] = {"thigh": 5.0, "arm": 3.5, "head": 4.0, "shin": 2.0}
"""Inner corners where a part meets what bears it are rounded by this much; elbows need none."""
FILLET_SHARE, JOIN_SHARE = 1.9, 1.65
"""How far around a root the flesh is filled in, and how far no seam shows, as shares of where the limb blends."""
SIMPLE_CM = 0.1
HAIR_CM, HAIR_ROUND_CM = 0.8, 0.3
"""How far hair stands out from the skull, and how round the cap is at its edges."""

ABOVE_FLOOR: Area = lines_at(np.array([[[-1e3, -1e3], [1e3, -1e3], [1e3, 0.0], [-1e3, 0.0]]]))


class _Join(NamedTuple):
    """Where a part grows into another: within that one's area and a disc around the root, everywhere along the two where they go
    on straight."""

    other: Area
    around: Line | None

    def within(self, box: Bounds) -> Area:
        """The part of it that may lie in a box: all of it or nothing."""
        if self.around is None:
            return self.other
        return shared(self.other, [self.around]) if meet(bounds_of([self.around]), box) else []


@dataclass(frozen=True, slots=True)
class Shape:
    """A part on the page. ``flesh`` fills the corners between it and what bears it, and lies under it."""

    part: Part
    area: Area
    bounds: Bounds
    flesh: Area
    nearness: float
    joins: tuple[_Join, ...]
    """Where it and other parts grow into each other: its outline shows no seam there."""


def shapes_of(parts: Sequence[Part], eye: Eye) -> list[Shape]:
    """Every part as an outline, flat where it lies on the floor; what is wholly below it is not seen."""
    areas = _areas(parts, eye)
    flesh: list[Area] = [[] for _ in parts]
    filled: dict[tuple[Itself, Itself], Area] = {}  # once for twins
    joins: list[tuple[_Join, ...]] = [() for _ in parts]
    rooted = [at for at, part in enumerate(parts) if part.root is not None]
    roots = eye.flat(np.stack([part.root for part in parts if part.root is not None]))
    blends = np.array([parts[at].blend_cm for at in rooted])
    wide, close = _discs(roots, FILLET_SHARE * blends), _discs(roots, JOIN_SHARE * blends)
    for at, around, joining in zip(rooted, wide, close, strict=True):
        part, bearer = parts[at], _bearer(parts, at)
        if part.name in INNER_CM:
            pair = Itself(areas[at]), Itself(areas[bearer])
            if pair not in filled:
                filled[pair] = _flesh(areas[at], areas[bearer], around, INNER_CM[part.name], eye)
            flesh[at] = filled[pair]
        near = None if part.straight else joining
        joins[at] += (_Join(areas[bearer], near),)
        joins[bearer] += (_Join(areas[at], near),)
    nearness = _nearness(parts, eye)
    return [
        Shape(part, areas[at], bounds_of(areas[at]), flesh[at], nearness[at], joins[at])
        for at, part in enumerate(parts)
        if areas[at]
    ]


def _bearer(parts: Sequence[Part], at: int) -> int:
    """The part another grows from."""
    name = GROWS_FROM[parts[at].name]
    return next(k for k, part in enumerate(parts) if part.name == name and part.side in (None, parts[at].side))


def _areas(parts: Sequence[Part], eye: Eye) -> list[Area]:
    """The outline of each part; twins that lie over each other share one."""
    hulls = _hulls(parts, eye)
    areas: list[Area] = []
    for at, part in enumerate(parts):
        twin = next((k for k in range(at) if hulls[k] == hulls[at] and parts[k].round_cm == part.round_cm), None)
        areas.append(_area(hulls[at], part.round_cm, eye) if twin is None else areas[twin])
    return areas


def _area(hulls: Area, round_cm: float, eye: Eye) -> Area:
    """Hulls joined and shrunk again, which leaves their inner corners round."""
    area = joined([hulls])
    if round_cm > 0:
        area = grown(simple(area, SIMPLE_CM), -round_cm)
    return simple(_on_floor(area, eye), SIMPLE_CM)


def _hulls(parts: Sequence[Part], eye: Eye) -> list[Area]:
    """What each part is joined from, wider all around by how round its inner corners are to be."""
    chains = [(at, chain) for at, part in enumerate(parts) for chain in part.chains]
    centres = eye.flat(np.concatenate([chain.centres for _, chain in chains]))
    radii = np.concatenate([chain.radii + parts[at].round_cm for at, chain in chains])
    owners: list[int] = []
    ends: list[tuple[int, int]] = []
    first = 0
    for at, chain in chains:
        last = first + len(chain.radii) - 1
        # A ball of its own is joined to itself.
        pairs = list(itertools.pairwise(range(first, last + 1))) or [(first, first)]
        owners += [at] * len(pairs)
        ends += pairs
        first = last + 1
    of = np.array(ends)
    hulls: list[Area] = [[] for _ in parts]
    for at, capsule in zip(owners, _capsules(centres[of], radii[of]), strict=True):
        hulls[at].append(capsule)
    clouds = [(at, cloud) for at, part in enumerate(parts) for cloud in part.clouds]
    if clouds:
        points = eye.flat(np.concatenate([cloud for _, cloud in clouds]))
        which = np.repeat(np.arange(len(clouds)), [len(cloud) for _, cloud in clouds])
        filled = zip((at for at, _ in clouds), hulls_at(points, which), strict=True)
        for at, of_part in itertools.groupby(filled, key=itemgetter(0)):
            hulls[at] += grown([hull for _, hull in of_part if hull], parts[at].round_cm)
    return hulls


def _capsules(centres: Array, radii: Array) -> list[Line]:
    """The hulls of pairs of circles, centres (n, 2, 2) and radii (n, 2)."""
    line = centres[:, 1] - centres[:, 0]
    length = np.hypot(line[:, 0], line[:, 1])
    toward = np.arctan2(line[:, 1], line[:, 0])
    # From the line to where both circles have a tangent in common; one within the other has the whole outline.
    narrows = np.clip((radii[:, 0] - radii[:, 1]) / np.maximum(length, 1e-9), -1.0, 1.0)
    tangent = np.arccos(narrows)
    round_one = tangent[:, None] + _SHARES * (2 * np.pi - 2 * tangent)[:, None]
    round_other = -tangent[:, None] + _SHARES * (2 * tangent)[:, None]
    angles = toward[:, None] + np.concatenate([round_one, round_other], axis=1)
    circle = np.stack([np.cos(angles), np.sin(angles)], axis=-1)
    return lines_at(centres[:, _OWN] + radii[:, _OWN, None] * circle)


_SHARES = np.linspace(0.0, 1.0, ARC_POINTS)
_OWN = np.repeat([0, 1], ARC_POINTS)
"""Which of the two circles each point of a capsule is on."""
_TURN = np.linspace(0.0, 2 * np.pi, 2 * (ARC_POINTS - 1), endpoint=False)
_CIRCLE = np.column_stack([np.cos(_TURN), np.sin(_TURN)])


def _discs(centres: Array, radii: Array) -> list[Line]:
    return lines_at(centres[:, None] + radii[:, None, None] * _CIRCLE)


def _on_floor(area: Area, eye: Eye) -> Area:
    """Cut off at the floor what would sink into it."""
    if eye.from_above or not any(y > 0 for ring in area for _, y in ring):
        return area
    return shared(area, ABOVE_FLOOR)


def _flesh(area: Area, bearer: Area, around: Line, inner_cm: float, eye: Eye) -> Area:
    """A limb and what bears it around its root, the inner corners between them filled."""
    near_root = shared([*area, *bearer], [around])
    return simple(_on_floor(closed(simple(near_root, SIMPLE_CM), inner_cm), eye), SIMPLE_CM)


AWAY_CM = 200.0
"""What belongs to the side turned away is drawn before the trunk, however it is placed."""


def _nearness(parts: Sequence[Part], eye: Eye) -> list[float]:
    found = []
    for part in parts:
        near = [value for chain in part.chains for value in eye.near(chain.centres).tolist()]
        near += [float(eye.near(cloud).mean()) for cloud in part.clouds]
        away = AWAY_CM if eye.far_side is not None and part.side is eye.far_side else 0.0
        found.append(sum(near) / len(near) - away)
    return found


def seam(shape: Shape, before: Iterable[Shape]) -> list[Line]:
    """Where a part's edge lies over what was drawn of the body before, away from where they join. No edge is known better than
    outlines are simplified: what runs along another's edge, as twins do and all that lies on the floor, is not over it."""
    below = [ring for other in before if meet(shape.bounds, other.bounds) for ring in other.area]
    if not below:
        return []
    over = inside([[*ring, ring[0]] for ring in wider(shape.area, SIMPLE_CM)], below)
    if not over:
        return []
    box = bounds_of(over)
    return end_to_end(outside(over, [ring for join in shape.joins for ring in join.within(box)]))


def end_to_end(pieces: Sequence[Line]) -> list[Line]:
    """Lines that meet at their ends as one, whichever way they run."""
    found: list[Line] = []
    for piece in pieces:
        line = piece
        while (other := next((each for each in found if _meeting(each, line)), None)) is not None:
            found.remove(other)
            line = _meeting(other, line)
        found.append(line)
    return found


def _meeting(one: Line, other: Line) -> Line:
    """Two lines as one; nothing where no end of theirs is the same."""
    if one[-1] == other[0]:
        return one + other[1:]
    if other[-1] == one[0]:
        return other + one[1:]
    if one[-1] == other[-1]:
        return one + other[-2::-1]
    return one[::-1] + other[1:] if one[0] == other[0] else []


def hair(skull: Head, eye: Eye) -> Area:
    """The cap of hair as it is seen from there: from the brow behind the ears to the nape."""
    toward = skull.axes @ eye.toward
    outward = _HAIR @ toward
    seen = _HAIR[outward > -BEHIND_RIM * math.hypot(*toward)]
    if len(seen) < 3:
        return []
    spread = skull.centre + seen @ (skull.axes * (1 + HAIR_CM / np.linalg.norm(skull.axes, axis=1))[:, None])
    hull = hull_at(eye.flat(spread))
    return grown([hull], HAIR_ROUND_CM) if hull else []


BEHIND_RIM = 0.02
"""How far behind what of the skull is seen hair still shows, as a share of how far the skull comes toward the eye."""


def _where_hair_grows() -> Array:
    """Points on a ball of radius 1, (points, 3)."""
    points = ball_points(280)
    ahead, up = points[:, 0], points[:, 2]
    return points[(0.75 * ahead - up < 0.05) & (up > -0.62) & ~((ahead > 0.55) & (up < 0.72))]


_HAIR = _where_hair_grows()
