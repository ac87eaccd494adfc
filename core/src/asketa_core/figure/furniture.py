"""What stands around a body, piece by piece: chairs on four legs or two, beds, straps and sticks."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from asketa_core.figure.limbs import Limb
from asketa_core.figure.solids import Bar, Box, Solid
from asketa_core.props.kinds import ChairSize
from asketa_core.units import SIDES, Array, Side, unit

POST_CM, RAIL_CM, SEAT_CM = 2.7, 1.8, 3.0
SPLAY_CM, LEAN_CM = 2.0, 5.0
"""How far out the feet of a chair stand, and how far back the top of its back-rest leans."""
STRETCHER_SHARE = 0.4
ARM_ABOVE_SEAT_CM, ARM_ENDS_BEFORE_CM = 21.0, 9.0
TIPPED_DEG = 45.0
"""On its front legs a chair of usual size has its back at the height it had on four, and as far beyond them as before."""


@dataclass(frozen=True, slots=True)
class Chair:
    """A chair with its back-rest at ``back_x`` and the front of its seat toward ``ahead`` (1 or -1)."""

    size: ChairSize
    back_x: float
    ahead: int = 1
    y: float = 0.0
    tipped: bool = False

    def at(self, points: Array) -> Array:
        """Points of the chair in space, (…, 3): out of its own depth from the back, breadth, and height."""
        points = np.asarray(points, dtype=float)
        depth, height = points[..., 0], points[..., 2]
        if self.tipped:
            turn = np.radians(TIPPED_DEG)
            from_feet = depth - self.size.depth_cm
            depth = self.size.depth_cm + np.cos(turn) * from_feet + np.sin(turn) * height
            height = np.cos(turn) * height - np.sin(turn) * from_feet
        x = self.back_x + self.ahead * depth
        return np.stack([x, self.y + points[..., 1], height], axis=-1)

    @property
    def back_top(self) -> Array:
        """The middle of the upper edge of its back-rest, (3,)."""
        return self.at(np.array([-LEAN_CM, 0.0, self.size.back_top_cm]))


def chair_pieces(chair: Chair) -> tuple[list[Bar], list[Solid]]:
    """Posts, rails and the seat."""
    size, half = chair.size, chair.size.width_cm / 2 - POST_CM
    centre = chair.at(np.array([size.depth_cm / 2, 0.0, size.height_cm / 2]))

    def bar(points: list[list[float]], thick_cm: float) -> Bar:
        return Bar(chair.at(np.array(points)), thick_cm, "wood", belongs_at=centre)

    low, seat, top, back = STRETCHER_SHARE * size.height_cm, size.height_cm, size.back_top_cm, size.back != "none"
    bars, solids = [], [_slab(chair, seat)]
    for v in (-half, half):
        upper = [[-LEAN_CM, v, top]] if back else []
        bars.append(bar([[-SPLAY_CM, v, 0.0], [0.0, v, seat - 1], *upper], POST_CM))
        bars.append(bar([[size.depth_cm + SPLAY_CM, v, 0.0], [size.depth_cm - 1, v, seat - 1]], POST_CM))
        bars.append(bar([[-1.0, v, low], [size.depth_cm + 1, v, low]], RAIL_CM))
        if size.arms:
            level, ends = seat + ARM_ABOVE_SEAT_CM, size.depth_cm - ARM_ENDS_BEFORE_CM
            lean = LEAN_CM * ARM_ABOVE_SEAT_CM / (top - seat) if top > seat else 0.0
            bars.append(bar([[-lean, v, level], [ends, v, level], [ends + 2, v, seat]], RAIL_CM))
    if size.back == "open":
        for share in (0.55, 0.95):
            at = [-LEAN_CM * share, seat + share * (top - seat)]
            bars.append(bar([[at[0], -half, at[1]], [at[0], half, at[1]]], RAIL_CM))
    elif back:
        lower, upper_edge = 0.45, 1.0
        corners = [
            [-LEAN_CM * share + thick, v, seat + share * (top - seat)]
            for share in (lower, upper_edge)
            for v in (-half, half)
            for thick in (-0.8, 0.8)
        ]
        solids.append(Solid(chair.at(np.array(corners)), "wood"))
    return bars, solids


def _slab(chair: Chair, height_cm: float) -> Solid:
    half, depth = chair.size.width_cm / 2, chair.size.depth_cm
    corners = [[u, v, z] for u in (-1.0, depth + 1.0) for v in (-half, half) for z in (height_cm - SEAT_CM, height_cm)]
    return Solid(chair.at(np.array(corners)), "wood")


BED_HEIGHT_CM, BED_HALF_CM, PLINTH_HALF_CM, BED_BEYOND_CM = 50.0, 45.0, 33.0, 14.0
Bed = Literal["bed", "plinth"]
MATTRESS_CM: Mapping[Bed, float] = {"bed": 16.0, "plinth": 6.0}


def bed_pieces(kind: Bed, points: Array) -> tuple[list[Bar], list[Box]]:
    """A bed or plinth under a body whose points (k, 3) lie at height 0: its floor is ``BED_HEIGHT_CM`` below."""
    half, thick = (BED_HALF_CM if kind == "bed" else PLINTH_HALF_CM), MATTRESS_CM[kind]
    x0, x1 = float(points[:, 0].min()) - BED_BEYOND_CM, float(points[:, 0].max()) + BED_BEYOND_CM
    mattress = Box(np.array([x0, -half, -thick]), np.array([x1, half, 0.0]), "felt", kind="mattress", behind=True)
    frame = Box(np.array([x0, -half, -thick - 6.0]), np.array([x1, half, -thick]), "wood", behind=True)
    legs = [
        Bar(np.array([[x, y, -thick - 6.0], [x, y, -BED_HEIGHT_CM]]), 4.0, "wood", behind=True)
        for x in (x0 + 6.0, x1 - 6.0)
        for y in (-half + 5.0, half - 5.0)
    ]
    return legs, [frame, mattress]


BED_DEPTH_CM, BED_LENGTH_CM = 80.0, 180.0


def bed_from_its_end(bed: Bed, height_cm: float, hips_at_cm: float) -> tuple[Box, ...]:
    """A bed seen from its end, its edge in front of the hips sitting on it."""
    front, half, mattress = hips_at_cm + 12.0, BED_LENGTH_CM / 2, height_cm - MATTRESS_CM[bed]
    back = front - BED_DEPTH_CM
    legs = [Box(np.array([x, -half, 0.0]), np.array([x + 5, half, mattress]), "wood") for x in (back + 3, front - 8)]
    frame = Box(np.array([back, -half, mattress - 5]), np.array([front, half, mattress]), "wood")
    top = Box(np.array([back, -half, mattress]), np.array([front, half, height_cm]), "felt", kind="mattress")
    return (*legs, frame, top)


STRAP_CM, STICK_CM, STICK_LENGTH_CM = 1.1, 2.2, 120.0
BALL_OF_FOOT, UNDER_SOLE_CM = 0.72, 2.5
APART_CM = 50.0
"""Feet further apart than this hold a strap that the hands hold in the middle."""


def strap(feet: Mapping[Side, tuple[Limb, Array]], hands: Mapping[Side, Limb]) -> Bar:
    """A strap from the hands around the balls of the feet, one or two, each given with its heel (3,)."""
    around = [_under_ball(leg, heel) for leg, heel in feet.values()]
    left, right = (hands[side].tip for side in SIDES)
    wide = len(around) > 1 and float(np.linalg.norm(around[0] - around[-1])) > APART_CM
    points = [around[0], left, right, around[-1]] if wide else [left, *around, right]
    return Bar(np.stack(points), STRAP_CM, "strap")


def _under_ball(leg: Limb, heel: Array) -> Array:
    """Where a strap lies under the ball of a foot, (3,)."""
    toes = unit(leg.tip - heel)
    up = leg.end - heel - float((leg.end - heel) @ toes) * toes
    length = float(np.linalg.norm(up))
    away = up / length if length > 1e-6 else np.array([0.0, 0.0, 1.0])
    return np.asarray(heel + BALL_OF_FOOT * (leg.tip - heel) - UNDER_SOLE_CM * away)


def stick(sacrum: Array, head: Array) -> Bar:
    """A stick along a back from the sacrum past the head, (3,) each."""
    way, middle = unit(head - sacrum), (sacrum + head) / 2
    ends = [middle - STICK_LENGTH_CM / 2 * way, middle + STICK_LENGTH_CM / 2 * way]
    return Bar(np.stack(ends), STICK_CM, "wood")
