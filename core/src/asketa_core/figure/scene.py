"""The scene in three dimensions: body parts and props as simple solids, ready to be projected."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.figure.arms import CHAIR_BACK_CM
from asketa_core.figure.flesh import Head, Part, flesh_of
from asketa_core.figure.skeleton import Skeleton
from asketa_core.poses.recipe import Wall
from asketa_core.props.kinds import ChairSize, Room, kinds
from asketa_core.props.stacks import Layer, Stack
from asketa_core.units import SIDES, Array, Side

CHAIR_BACK_BEHIND_HIP_CM = 17.0
CHAIR_LEG_CM = 3.0

Material = Literal["wood", "felt", "cotton"]
MATERIALS: Mapping[str, Material] = {
    "chair": "wood",
    "block": "wood",
    "slim_block": "wood",
    "blanket": "felt",
    "bolster": "cotton",
    "round_bolster": "cotton",
    "cushion": "cotton",
    "towel_roll": "felt",
    "pillow": "cotton",
    "strap": "felt",
    "stick": "wood",
}


@dataclass(frozen=True, slots=True)
class Box:
    """An upright box, corners low and high (3,): a prop of a ``kind``, a piece of a chair, or a ``wall``. ``folds`` are the
    layers of a blanket, ``see_through`` lets the body show behind it."""

    low: Array
    high: Array
    material: Material
    kind: str = ""
    folds: int = 0
    see_through: bool = False
    wall: bool = False


@dataclass(frozen=True, slots=True)
class Prism:
    """A slanted solid: its outline in the plane of the trunk (k, 2) as forward and up, and its breadth."""

    profile: Array
    half_breadth_cm: float
    material: Material


@dataclass(frozen=True, slots=True)
class HeightMark:
    """A height to be written: inside a prop, or beside it where ``beside`` says so."""

    at: Array
    height_cm: float
    beside: bool
    half_cm: float = 0.0
    """Half the breadth of what it is the height of."""


class Rest(StrEnum):
    """What rests on a stack, which decides where its props are drawn."""

    SEAT = "seat"
    LIMB = "limb"
    HANDS = "hands"
    TRUNK = "trunk"
    """Lengthwise under the trunk."""


@dataclass(frozen=True, slots=True)
class Support:
    """A stack and the point of the body that rests on it, (3,)."""

    stack: Stack
    under: Array
    rest: Rest = Rest.LIMB
    stands_on_cm: float = 0.0
    """Height of what the stack itself stands on."""


@dataclass(frozen=True, slots=True)
class Scene:
    parts: tuple[Part, ...]
    skull: Head
    boxes: tuple[Box, ...]
    prisms: tuple[Prism, ...]
    marks: tuple[HeightMark, ...]
    lying: bool = False


@dataclass(frozen=True, slots=True)
class Furniture:
    """What stands around a body besides stacks."""

    lying: bool = False
    recline_deg: float | None = None
    chair_in_front: bool = False
    chair_back_in_front: bool = False
    chair_beside: bool = False
    chair_at_side: bool = False
    wall_in_front: bool = False
    walls: tuple[Wall, ...] = ()


def build_scene(
    skeleton: Skeleton, body: Body, worked: Side, supports: Iterable[Support], room: Room, furniture: Furniture
) -> Scene:
    """Body and props of one set-up."""
    boxes: list[Box] = []
    prisms: list[Prism] = []
    marks: list[HeightMark] = []
    for support in supports:
        if not support.stack.layers:
            continue
        if support.stack.layers[0].kind == "chair":
            _add_chair_stack(boxes, marks, support, room)
        elif support.rest is Rest.SEAT:
            _add_floor_seat(boxes, marks, support.stack, support.under)
        else:
            _add_support(boxes, marks, support)
    if furniture.recline_deg:
        _add_slope(boxes, prisms, skeleton, body, furniture.recline_deg)
    wrists = np.stack([skeleton.arms[side].end for side in SIDES])
    if furniture.chair_in_front:
        reach = float(wrists[:, 0].mean())
        _add_chair(boxes, reach - 8.0, reach + 32.0, FRONT_CHAIR, back_at_far_end=True)
    if furniture.chair_back_in_front:
        reach = float(wrists[:, 0].mean())
        _add_chair(boxes, reach - 1.0, reach + 39.0, FRONT_CHAIR)
    if furniture.chair_beside:
        _add_chair_at_hand(boxes, skeleton.arms[worked.other].end)
    if furniture.chair_at_side:
        _add_chair_at_hand(boxes, min((skeleton.arms[side].end for side in SIDES), key=lambda at: float(at[2])))
    if furniture.wall_in_front:
        x = float(wrists[:, 0].max()) + PALM_ON_WALL_CM
        boxes.append(_wall_of(x, x + 3.0, -45.0, 45.0, float(skeleton.spine[:, 2].max()) + 20.0))
    for wall in furniture.walls:
        boxes.append(_wall(wall, skeleton, body, worked))
    parts, skull = flesh_of(skeleton, body, worked)
    return Scene(tuple(parts), skull, tuple(boxes), tuple(prisms), tuple(marks), furniture.lying)


def _wall(where: Wall, skeleton: Skeleton, body: Body, worked: Side) -> Box:
    """A wall that back, heel, feet or shin touch."""
    top = float(skeleton.spine[:, 2].max()) + 20.0
    feet = np.stack([point for side in SIDES for point in (skeleton.legs[side].tip, skeleton.heels[side])])
    if where == "beside":
        y = worked.sign * (float(np.abs(feet[:, 1]).max()) + WALL_BESIDE_CM)
        low, high = sorted((y, y + worked.sign * 3.0))
        return _wall_of(float(feet[:, 0].min()), float(feet[:, 0].max()), low, high, top)
    if where == "at_feet":
        x = float(feet[:, 0].max()) + 1.0
        return _wall_of(x, x + 3.0, -45.0, 45.0, max(top, float(feet[:, 2].max()) + 20.0))
    behind = (
        float(feet[:, 0].min()) - 1.0
        if where == "at_heel"
        else float(skeleton.spine[:4, 0].min()) - 0.075 * body.stature_cm
    )
    return _wall_of(behind - 3.0, behind, -45.0, 45.0, top)


def _wall_of(x0: float, x1: float, y0: float, y1: float, top: float) -> Box:
    return Box(np.array([x0, y0, 0.0]), np.array([x1, y1, top]), "wood", wall=True)


WALL_BESIDE_CM = 12.0

FRONT_CHAIR = ChairSize(height_cm=45, depth_cm=40, width_cm=40, back_top_cm=CHAIR_BACK_CM, back="open", arms=False)
"""A generic chair to lean on."""

PALM_ON_WALL_CM = 3.0
"""A wrist stands this far from the wall its palm lies on."""

HANDS_FROM_EDGE_CM = 8.0
"""Hands lie on the near part of a seat in front."""

STOOL = ChairSize(height_cm=45, depth_cm=40, width_cm=40, back_top_cm=45, back="none", arms=False)
"""The same without its back, where that would only hide the body."""

SITS_AHEAD = 0.4
"""Part of a floor seat's depth in front of the hips: one sits on its front."""

SLOPE_THICKNESS_CM = 13.0


def _wood(x0: float, x1: float, y0: float, y1: float, z0: float, z1: float, see_through: bool = False) -> Box:
    return Box(np.array([x0, y0, z0]), np.array([x1, y1, z1]), "wood", see_through=see_through)


def _add_chair(
    boxes: list[Box],
    near: float,
    far: float,
    chair: ChairSize,
    back_at_far_end: bool = False,
    centre_y: float = 0.0,
) -> None:
    """A chair between two distances along x; its back stands at the near end unless said otherwise."""
    half, leg = chair.width_cm / 2, CHAIR_LEG_CM
    low, high = centre_y - half, centre_y + half
    top = chair.back_top_cm if chair.back != "none" else chair.height_cm
    back_x, front_x = (far - leg, near) if back_at_far_end else (near, far - leg)
    for y in (low, high - leg):
        boxes.append(_wood(back_x, back_x + leg, y, y + leg, 0, top))
        boxes.append(_wood(front_x, front_x + leg, y, y + leg, 0, chair.height_cm))
    boxes.append(_wood(near, far, low, high, chair.height_cm - 3, chair.height_cm))
    if chair.back != "none":
        bottom = chair.height_cm + (0 if chair.back == "solid" else 22)
        x = far - 2 if back_at_far_end else near
        boxes.append(_wood(x, x + 2, low, high, bottom, chair.back_top_cm))
    if chair.arms:
        for y in (low, high - leg):
            boxes.append(_wood(near, far - 8, y, y + leg, chair.height_cm + 20, chair.height_cm + 22, True))
            boxes.append(_wood(far - 10, far - 8, y, y + leg, chair.height_cm, chair.height_cm + 20, True))


def _add_chair_at_hand(boxes: list[Box], wrist: Array) -> None:
    """A chair whose seat, or whose back where that is out of reach, lies under one hand."""
    by_the_back = wrist[2] > STOOL.height_cm + STOOL.depth_cm / 2
    behind, chair = (1.0, FRONT_CHAIR) if by_the_back else (STOOL.depth_cm / 2, STOOL)
    start = float(wrist[0]) - behind
    _add_chair(boxes, start, start + chair.depth_cm, chair, centre_y=float(wrist[1]))


def _layer(layer: Layer, low: Array, high: Array) -> Box:
    folds = int(layer.way) * layer.pieces if layer.piled else 0
    return Box(low, high, MATERIALS[layer.kind], kind=layer.kind, folds=folds)


def _add_chair_stack(boxes: list[Box], marks: list[HeightMark], support: Support, room: Room) -> None:
    """A chair with what lies on it: sat on with its back behind, else centred under what rests on it."""
    chair_layer = support.stack.layers[0]
    chair = next(prop for prop in room.stock if prop.id == chair_layer.prop_id).chair
    at, y = float(support.under[0]), 0.0
    if support.rest is Rest.SEAT:
        back = at - CHAIR_BACK_BEHIND_HIP_CM
    elif support.rest is Rest.HANDS:
        back = at - HANDS_FROM_EDGE_CM
        chair = chair.model_copy(update={"back": "none", "arms": False})
    else:
        back, y = at - chair.depth_cm / 2, float(support.under[1])
        chair = chair.model_copy(update={"back": "none", "arms": False})
    front, half = back + chair.depth_cm, chair.width_cm / 2
    _add_chair(boxes, back, front, chair, centre_y=y)
    z = chair_layer.height_cm
    for layer in support.stack.layers[1:]:
        low, high = np.array([back + 2, y - half + 1, z]), np.array([front + 1, y + half - 1, z + layer.height_cm])
        boxes.append(_layer(layer, low, high))
        z += layer.height_cm
    marks.append(HeightMark(np.array([back, y - half, z]), support.stack.height_cm, beside=True))


def _add_floor_seat(boxes: list[Box], marks: list[HeightMark], seat: Stack, under: Array) -> None:
    z = back = 0.0
    for layer in seat.layers:
        depth, breadth = min(*layer.footprint_cm, 40.0), min(max(layer.footprint_cm), 60.0)
        back = float(under[0]) - (1 - SITS_AHEAD) * depth
        low = np.array([back, -breadth / 2, z])
        boxes.append(_layer(layer, low, low + np.array([depth, breadth, layer.height_cm])))
        z += layer.height_cm
    marks.append(HeightMark(np.array([back, 0.0, z / 2]), seat.height_cm, beside=True))


def _add_support(boxes: list[Box], marks: list[HeightMark], support: Support) -> None:
    z, at = support.stands_on_cm, support.under
    for layer in support.stack.layers:
        across, along = layer.footprint_cm
        if support.rest is Rest.TRUNK or (
            layer.kind in ("block", "slim_block") and kinds()[layer.kind].faces[layer.way].upright
        ):
            across, along = along, across
        along, across = min(along, 60.0 if support.rest is Rest.TRUNK else 30.0), min(across, 40.0)
        low = np.array([at[0] - along / 2, at[1] - across / 2, z])
        boxes.append(_layer(layer, low, low + np.array([along, across, layer.height_cm])))
        z += layer.height_cm
    middle = (support.stands_on_cm + z) / 2
    marks.append(HeightMark(np.array([at[0], at[1], middle]), support.stack.height_cm, beside=False, half_cm=8.0))


def _add_slope(boxes: list[Box], prisms: list[Prism], skeleton: Skeleton, body: Body, recline_deg: float) -> None:
    """The raised back: a bolster on the slope of the back, its head end on a block."""
    up = np.array([-np.cos(np.radians(recline_deg)), np.sin(np.radians(recline_deg))])
    below = np.array([-up[1], up[0]]) * np.sign(up[0]) * -1.0
    below = below if below[1] < 0 else -below
    start = skeleton.spine[1][[0, 2]] + below * 0.05 * body.stature_cm
    end = skeleton.spine[4][[0, 2]] + below * 0.05 * body.stature_cm + up * 4.0
    thick = below * SLOPE_THICKNESS_CM
    corners = np.stack([start, end, end + thick, start + thick * 0.4])
    corners[:, 1] = np.maximum(corners[:, 1], 0.0)
    prisms.append(Prism(corners, 15.0, "cotton"))
    top = float((end + thick)[1])
    if top > 4.0:
        x = float((end + thick)[0])
        boxes.append(_wood(x + 4, x + 19, -11.5, 11.5, 0, top))
