"""The scene in three dimensions: body parts and props as simple solids, ready to be projected."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.figure.arms import CHAIR_BACK_CM
from asketa_core.figure.flesh import Head, Part, flesh_of
from asketa_core.figure.furniture import POST_CM, Bed, Chair, bed_pieces, chair_pieces
from asketa_core.figure.skeleton import Skeleton
from asketa_core.figure.solids import Bar, Box, Material, Solid
from asketa_core.poses.recipe import Wall
from asketa_core.props.kinds import ChairSize, Room, kinds
from asketa_core.props.stacks import Layer, Stack
from asketa_core.units import SIDES, Array, Side

CHAIR_BACK_BEHIND_HIP_CM = 17.0

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
}


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
    solids: tuple[Solid, ...]
    bars: tuple[Bar, ...]
    marks: tuple[HeightMark, ...]
    lying: bool = False
    on_side: bool = False
    bed: Bed | None = None


@dataclass(frozen=True, slots=True)
class Furniture:
    """What stands around a body besides stacks."""

    lying: bool = False
    on_side: bool = False
    recline_deg: float | None = None
    chair_in_front: bool = False
    chair_back_in_front: bool = False
    chair_tipped: bool = False
    chair_beside: bool = False
    chair_at_side: bool = False
    wall_in_front: bool = False
    walls: tuple[Wall, ...] = ()
    bed: Bed | None = None
    bars: tuple[Bar, ...] = ()
    boxes: tuple[Box, ...] = ()
    chair_ahead_cm: float | None = None
    """Where the seat of a chair begins that is to be held."""


class _Props:
    """Props as they are put down."""

    def __init__(self) -> None:
        self.boxes: list[Box] = []
        self.solids: list[Solid] = []
        self.bars: list[Bar] = []
        self.marks: list[HeightMark] = []

    def put(self, chair: Chair) -> None:
        bars, solids = chair_pieces(chair)
        self.bars += bars
        self.solids += solids


def build_scene(
    skeleton: Skeleton,
    body: Body,
    worked: Side,
    supports: Iterable[Support],
    room: Room,
    furniture: Furniture,
    *,
    both_worked: bool = False,
) -> Scene:
    """Body and props of one set-up; each leg in its own lane's colour where ``both_worked``."""
    props = _Props()
    for support in supports:
        if not support.stack.layers:
            continue
        if support.stack.layers[0].kind == "chair":
            _put_chair_stack(props, support, room)
        elif support.rest is Rest.SEAT:
            _put_floor_seat(props, support.stack, support.under)
        else:
            _put_support(props, support)
    if furniture.recline_deg:
        _put_slope(props, skeleton, body, furniture.recline_deg)
    wrists = np.stack([skeleton.arms[side].end for side in SIDES])
    reach = float(wrists[:, 0].mean())
    props.boxes += furniture.boxes
    if furniture.chair_ahead_cm is not None:
        props.put(Chair(FRONT_CHAIR, furniture.chair_ahead_cm + FRONT_CHAIR.depth_cm, ahead=-1))
    if furniture.chair_in_front:
        props.put(Chair(FRONT_CHAIR, reach + 32.0, ahead=-1))
    if furniture.chair_back_in_front:
        _put_chair_back_at(props, reach, furniture.chair_tipped)
    if furniture.chair_beside:
        _put_chair_at_hand(props, skeleton.arms[worked.other].end)
    if furniture.chair_at_side:
        _put_chair_at_hand(props, min((skeleton.arms[side].end for side in SIDES), key=lambda at: float(at[2])))
    if furniture.wall_in_front:
        x = float(wrists[:, 0].max()) + PALM_ON_WALL_CM
        props.boxes.append(_wall_of(x, x + 3.0, -45.0, 45.0, float(skeleton.spine[:, 2].max()) + 20.0))
    for wall in furniture.walls:
        props.boxes.append(_wall(wall, skeleton, body, worked, props.boxes))
    parts, skull = flesh_of(skeleton, body, SIDES if both_worked else [worked])
    if furniture.bed is not None:
        legs, boxes = bed_pieces(furniture.bed, skeleton.points)
        props.bars, props.boxes = [*legs, *props.bars], [*boxes, *props.boxes]
    return Scene(
        tuple(parts), skull, tuple(props.boxes), tuple(props.solids), (*props.bars, *furniture.bars),
        tuple(props.marks), furniture.lying, furniture.on_side, furniture.bed,
    )  # fmt: skip


def _wall(where: Wall, skeleton: Skeleton, body: Body, worked: Side, boxes: Iterable[Box]) -> Box:
    """A wall that back, heel, feet or shin touch."""
    top = float(skeleton.spine[:, 2].max()) + 20.0
    feet = np.stack([point for side in SIDES for point in (skeleton.legs[side].tip, skeleton.heels[side])])
    if where == "beside":
        outmost = [worked.sign * feet[:, 1], *(worked.sign * np.array([box.low[1], box.high[1]]) for box in boxes)]
        y = worked.sign * (float(np.concatenate(outmost).max()) + WALL_BESIDE_CM)
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


WALL_BESIDE_CM = 1.0

FRONT_CHAIR = ChairSize(height_cm=45, depth_cm=40, width_cm=40, back_top_cm=CHAIR_BACK_CM, back="open", arms=False)
"""A generic chair to lean on."""

HAND_BEHIND_EDGE_CM = 1.0

PALM_ON_WALL_CM = 3.0
"""A wrist stands this far from the wall its palm lies on."""

HANDS_FROM_EDGE_CM = 8.0
"""Hands lie on the near part of a seat in front."""

STOOL = ChairSize(height_cm=45, depth_cm=40, width_cm=40, back_top_cm=45, back="none", arms=False)
"""The same without its back, where that would only hide the body."""

SITS_AHEAD = 0.4
"""Part of a floor seat's depth in front of the hips: one sits on its front."""

SLOPE_THICKNESS_CM = 13.0

HANGS_OVER_CM = 1.5


def _put_chair_back_at(props: _Props, reach: float, tipped: bool) -> None:
    """A chair whose back-rest is under the hands; tipped, its far side leans on a wall."""
    chair = Chair(FRONT_CHAIR, 0.0, tipped=tipped)
    chair = replace(chair, back_x=reach + HAND_BEHIND_EDGE_CM - float(chair.back_top[0]))
    props.put(chair)
    if tipped:
        x = float(chair.back_top[0]) + POST_CM / 2
        props.boxes.append(_wall_of(x, x + 3.0, -45.0, 45.0, FRONT_CHAIR.back_top_cm + 50.0))


def _put_chair_at_hand(props: _Props, wrist: Array) -> None:
    """A chair whose seat, or whose back where that is out of reach, lies under one hand."""
    by_the_back = wrist[2] > STOOL.height_cm + STOOL.depth_cm / 2
    behind, size = (1.0, FRONT_CHAIR) if by_the_back else (STOOL.depth_cm / 2, STOOL)
    props.put(Chair(size, float(wrist[0]) - behind, y=float(wrist[1])))


def _layer(layer: Layer, low: Array, high: Array, held: bool = False) -> Box:
    folds = int(layer.way) * layer.pieces if layer.piled else 0
    return Box(low, high, MATERIALS[layer.kind], kind=layer.kind, folds=folds, held=held)


def _put_chair_stack(props: _Props, support: Support, room: Room) -> None:
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
    props.put(Chair(chair, back, y=y))
    z = chair_layer.height_cm
    for layer in support.stack.layers[1:]:
        low, high = np.array([back + 2, y - half + 1, z]), np.array([front + 1, y + half - 1, z + layer.height_cm])
        props.boxes.append(_layer(layer, low, high))
        z += layer.height_cm
    props.marks.append(HeightMark(np.array([back, y - half, z]), support.stack.height_cm, beside=True))


def _put_floor_seat(props: _Props, seat: Stack, under: Array) -> None:
    z = back = 0.0
    lower = 40.0
    for layer in seat.layers:
        # What lies on something narrower hangs over its edges.
        depth, breadth = min(*layer.footprint_cm, lower + 2 * HANGS_OVER_CM), min(max(layer.footprint_cm), 60.0)
        lower = min(depth, lower)
        back = float(under[0]) - (1 - SITS_AHEAD) * lower - (depth - lower) / 2
        low = np.array([back, -breadth / 2, z])
        props.boxes.append(_layer(layer, low, low + np.array([depth, breadth, layer.height_cm])))
        z += layer.height_cm
    props.marks.append(HeightMark(np.array([back, 0.0, z / 2]), seat.height_cm, beside=True))


def _put_support(props: _Props, support: Support) -> None:
    z, at = support.stands_on_cm, support.under
    for layer in support.stack.layers:
        across, along = layer.footprint_cm
        if support.rest is Rest.TRUNK or (
            layer.kind in ("block", "slim_block") and kinds()[layer.kind].faces[layer.way].upright
        ):
            across, along = along, across
        along, across = min(along, 60.0 if support.rest is Rest.TRUNK else 30.0), min(across, 40.0)
        low = np.array([at[0] - along / 2, at[1] - across / 2, z])
        high = low + np.array([along, across, layer.height_cm])
        props.boxes.append(_layer(layer, low, high, held=support.stands_on_cm > 0))
        z += layer.height_cm
    middle = (support.stands_on_cm + z) / 2
    props.marks.append(HeightMark(np.array([at[0], at[1], middle]), support.stack.height_cm, beside=False, half_cm=8.0))


def _put_slope(props: _Props, skeleton: Skeleton, body: Body, recline_deg: float) -> None:
    """The raised back: a bolster on the slope of the back, its head end on a block."""
    up = np.array([-np.cos(np.radians(recline_deg)), np.sin(np.radians(recline_deg))])
    below = np.array([-up[1], up[0]]) * np.sign(up[0]) * -1.0
    below = below if below[1] < 0 else -below
    start = skeleton.spine[1][[0, 2]] + below * 0.05 * body.stature_cm
    end = skeleton.spine[4][[0, 2]] + below * 0.05 * body.stature_cm + up * 4.0
    thick = below * SLOPE_THICKNESS_CM
    corners = np.stack([start, end, end + thick, start + thick * 0.4])
    corners[:, 1] = np.maximum(corners[:, 1], 0.0)
    faces = [np.column_stack([corners[:, 0], np.full(4, y), corners[:, 1]]) for y in (-15.0, 15.0)]
    props.solids.append(Solid(np.concatenate(faces), "cotton"))
    top = float((end + thick)[1])
    if top > 4.0:
        x = float((end + thick)[0])
        block = Box(np.array([x + 4, -11.5, 0.0]), np.array([x + 19, 11.5, top]), "wood", kind="block")
        props.boxes.append(block)
