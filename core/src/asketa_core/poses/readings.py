"""Reading a settled posture off: what trunk, legs and hips show, as columns limits may speak of."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from asketa_core.body.angles import hip_closing
from asketa_core.body.belly import belly_clearance_cm, floor_clearance_cm
from asketa_core.body.knee import twist_left
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.spine import LUMBAR_SHARE, TrunkShare
from asketa_core.body.statics import kneecap_share, margin_inside
from asketa_core.body.trunk import GRAVITY, TrunkPoints, moment_nm, reference_moment_nm, trunk_points
from asketa_core.poses.bases import WEDGE_SPAN
from asketa_core.poses.legs.leg import Leg, centre_of_mass, sole_corners, weight_through
from asketa_core.poses.posture import Column, FlagKey, Indices, Key, Readout
from asketa_core.poses.reach import ComesDown, nod_to
from asketa_core.poses.recipe import (
    LYING,
    Hands,
    Position,
)
from asketa_core.units import SIDES, Array, Mask, Side, asind, dot

KNEE_REFERENCE_M = 0.05
"""Knee moments are shown against body weight at a lever of 5 cm."""

FREE_HANDS = Hands(on="thighs")

STEPPING_SHARE = 0.9
"""Share of the weight on the leg that steps up, at the moment the other leaves the floor (judgement)."""

SMALLEST_RANGE_DEG = 1.0
"""A range of less counts as this where a share of it is read: any use of it then reads as far too much."""


def _percent_of(demand_deg: Array, ranges: Ranges, quantity: Quantity, side: Side) -> Array:
    """A demand as per cent of a range, each level against that level's own, (3, k)."""
    return np.asarray(100.0 * demand_deg / np.maximum(ranges.levels(quantity, side), SMALLEST_RANGE_DEG))


TWIST_FROM_KNEE_DEG = 25.0
"""A straighter knee takes no twist: the whole leg turns as one."""


@dataclass(frozen=True, slots=True)
class SideHand:
    """One hand down to a support at the side: its height and how far the trunk leans over to it, (n,)."""

    support_cm: Array
    over_deg: Array


@dataclass(frozen=True, slots=True)
class Upper:
    """What happens above the legs: ``lean_deg`` (levels, n), the turn and side bend (n,), hands, head, how the body
    lies, and which contacts carry it."""

    lean_deg: Array
    hands: Hands = FREE_HANDS
    head_rests: bool = False
    position: Position = "chair"
    turn_deg: Array | None = None
    side_bend_deg: Array | None = None
    hollow_deg: float = 0.0
    upright: Literal["seat", "feet", "knees"] = "seat"
    one_leg: Side | None = None
    pad_cm: Array | None = None
    heel_lift_cm: Array | None = None
    minutes: float = 0.0
    down_to: ComesDown | None = None
    misses_cm: Array | None = None
    """By how much what is carried stays off its support at that lean, (levels, n)."""
    on_thighs: bool = False
    """The chest comes down on the thighs."""
    side_hand: SideHand | None = None
    head_on_cm: Array | None = None
    """What the forehead of a leaning body rests on, (n,)."""
    head_on_arms: bool = False
    """The arms lie there too, and the hands under the forehead."""
    rising: bool = False
    """At the moment a seat is left: the back is read at the middle of the ranges."""
    steps_up: Side | None = None
    seat_carries: float = 0.0
    long_fold: bool = False
    """A long quiet fold, in which the back may round further."""
    hand_down: Side | None = None
    """The side on which one hand goes down to something while the other reaches straight up."""
    over_deg: Array | None = None
    """How far the trunk comes over to that side, (n,)."""


def _arms(upper: Upper, zero: Array, nobody: Indices, every: Indices) -> dict[Key, Column]:
    """How far each arm is raised against the trunk; the one that reaches up beside a trunk that comes over is raised the
    less the further it comes."""
    if upper.hand_down is None or upper.over_deg is None:
        return {(Readout.SHOULDER_ELEVATION, None): Column(zero + upper.hands.raised_deg, nobody)}
    return {
        (Readout.SHOULDER_ELEVATION, upper.hand_down): Column(upper.over_deg[None, :], every),
        (Readout.SHOULDER_ELEVATION, upper.hand_down.other): Column(180.0 - upper.over_deg[None, :], every),
    }


def read_upper(upper: Upper, share: TrunkShare, flags: Mapping[FlagKey, Mask], every: Indices) -> dict[Key, Column]:
    """What the trunk and arms show on their own."""
    flexion = share.spine_flexion_deg
    if upper.rising:
        flexion = flexion[1:2] if len(flexion) > 1 else flexion
    nobody: Indices = np.zeros(len(every), dtype=np.int32)
    zero = np.zeros((1, 1))

    def across(values: Array | None) -> Column:
        return Column(zero, nobody) if values is None else Column(values[None, :], every)

    readouts: dict[Key, Column] = {
        (Readout.SPINE_FLEXION, None): Column(flexion, every),
        (Readout.SPINE_EXTENSION, None): Column(-flexion, every),
        (Readout.LUMBAR_FLEXION, None): Column(share.lumbar_flexion_deg, every),
        (Readout.THORACIC_FLEXION, None): Column(share.thoracic_flexion_deg, every),
        (Readout.TRUNK_LEAN, None): Column(np.atleast_2d(upper.lean_deg), every),
        (Readout.SPINE_ROTATION, None): across(upper.turn_deg),
        (Readout.SIDE_BEND, None): across(upper.side_bend_deg),
        **_arms(upper, zero, nobody, every),
        (Readout.HANDS_SHARE, None): Column(zero + upper.hands.carry, nobody),
        (Readout.HOLD_MINUTES, None): Column(zero + upper.minutes, nobody),
    }
    for position, minutes in (("supine", Readout.SUPINE_MINUTES), ("standing", Readout.STANDING_MINUTES)):
        if (position, None) in flags:
            readouts[(minutes, None)] = Column(
                np.asarray(upper.minutes * flags[(position, None)][None, :], float), every
            )
    return readouts


def read_leg(
    body: Body,
    ranges: Ranges,
    side: Side,
    leg: Leg,
    carries: Mapping[Side, float] | None,
    worked: bool,
    upper: Upper,
    readouts: dict[Key, Column],
) -> None:
    """Everything one leg shows on its own, whatever the trunk does."""
    points, angles = leg.points, leg.angles
    fall_cm = points.hip[..., 2] - points.knee[..., 2]
    # Only a thigh ahead of the hip can slide a sitting body forward.
    ahead = points.knee[..., 0] > points.hip[..., 0]
    thigh_down = np.where(ahead, asind(fall_cm / body.length_cm("thigh")), -90.0)
    if carries is None:
        carried = np.maximum(weight_through(body, leg), leg.least_share)
    else:
        carried = np.full_like(fall_cm, carries[side])
    opening = np.maximum(
        _percent_of(angles.external_rotation_deg, ranges, Quantity.OPEN_EXTERNAL_ROTATION, side),
        _percent_of(angles.abduction_deg, ranges, Quantity.OPEN_ABDUCTION, side),
    )
    twist = twist_left(angles.external_rotation_deg, ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side))
    takes_twist = (leg.knee_flexion_deg > TWIST_FROM_KNEE_DEG) & leg.foot_held
    by_name = {
        Readout.HIP_ABDUCTION: angles.abduction_deg,
        Readout.HIP_EXTERNAL_ROTATION: angles.external_rotation_deg,
        Readout.OPENING_USED_PERCENT: opening,
        Readout.HIP_RANGE_USED_PERCENT: opening,
        Readout.HIP_USE_PERCENT: _percent_of(angles.abduction_deg, ranges, Quantity.OPEN_ABDUCTION, side),
        Readout.HIP_ABOVE_KNEE_CM: fall_cm,
        Readout.KNEE_FLEXION: leg.knee_flexion_deg,
        Readout.KNEE_TWIST: np.where(takes_twist, twist, 0.0),
        Readout.KNEE_LOAD_SHARE: carried,
    }
    if worked:
        by_name[Readout.SHIN_SLOPE] = asind((points.knee[..., 2] - points.ankle[..., 2]) / body.length_cm("lower_leg"))
    if leg.slides and upper.upright == "seat" and upper.position not in LYING:
        by_name[Readout.THIGH_DOWN] = thigh_down
    for name, value in by_name.items():
        readouts[(name, side)] = Column(np.atleast_2d(value), leg.rows)
    if leg.sole_down and upper.position not in LYING:
        along = dot(points.knee - points.ankle, points.toes) / body.length_cm("lower_leg")
        readouts[(Readout.DORSIFLEXION, side)] = Column(np.atleast_2d(asind(along)), leg.rows)
        if upper.heel_lift_cm is not None:
            wedge = asind(np.minimum(upper.heel_lift_cm / (WEDGE_SPAN * body.length_cm("foot")), 1.0))
            every: Indices = np.arange(len(wedge), dtype=np.int32)
            readouts[(Readout.DORSIFLEXION, side)] = Column(asind(along)[:, leg.rows] - wedge, every)
    if leg.on_knee:
        lean = asind((points.hip[..., 0] - points.knee[..., 0]) / body.length_cm("thigh"))
        readouts[(Readout.KNEECAP_SHARE, side)] = Column(np.atleast_2d(kneecap_share(lean)), leg.rows)


def read_sliding(readouts: dict[Key, Column]) -> None:
    """A body slides off its seat only where both thighs hang from it: the less steep one holds."""
    keys = [(Readout.THIGH_DOWN, side) for side in SIDES]
    if not all(key in readouts for key in keys):
        for key in keys:
            readouts.pop(key, None)
        return
    left, right = (readouts[key] for key in keys)
    least = np.minimum(left.over_setups(), right.over_setups())
    every: Indices = np.arange(least.shape[-1], dtype=np.int32)
    for key in keys:
        readouts[key] = Column(least, every)


def read_hip(
    ranges: Ranges,
    side: Side,
    leg: Leg,
    pitch: Array,
    lean: Array,
    hamstrings: Array,
    readouts: dict[Key, Column],
    every: Indices,
) -> None:
    """What one hip closes by, with the pelvis tipped and the trunk over it; ``hamstrings`` is the flexion they allow."""
    turned = leg.angles.flexion_deg[:, leg.rows]
    out = leg.angles.abduction_deg[:, leg.rows]
    hip_flexion = turned + pitch
    closing, trunk_thigh = hip_closing(hip_flexion, out), hip_closing(turned + lean, out)
    readouts[(Readout.HIP_FLEXION, side)] = Column(hip_flexion, every)
    readouts[(Readout.HIP_EXTENSION, side)] = Column(-hip_flexion, every)
    readouts[(Readout.HIP_CLOSING, side)] = Column(closing, every)
    readouts[(Readout.TRUNK_THIGH, side)] = Column(trunk_thigh, every)
    # A leg behind the body opens the hip: what closes it is flexion, of the pelvis or of the trunk.
    bending = (hip_flexion > 0) | (turned + lean > 0)
    readouts[(Readout.HIP_BEND, side)] = Column(np.where(bending, np.maximum(closing, trunk_thigh), 0.0), every)
    readouts[(Readout.HAMSTRING_USED_PERCENT, side)] = Column(
        100.0 * np.maximum(hip_flexion, 0.0) / hamstrings[:, leg.rows], every
    )
    used = np.where(hip_flexion > 0, _percent_of(closing, ranges, Quantity.HIP_FLEXION, side), 0.0)
    for name in (Readout.HIP_RANGE_USED_PERCENT, Readout.HIP_USE_PERCENT):
        readouts[(name, side)] = Column(np.maximum(used, readouts[(name, side)].over_setups()), every)
    if side in ranges.groin_pinch:
        rotation = leg.angles.external_rotation_deg[:, leg.rows]
        pinch = ranges.groin_pinch[side].flexion_at(out, rotation)
        readouts[(Readout.GROIN_ROOM, side)] = Column(pinch - hip_flexion, every)


def read_trunk(
    body: Body,
    legs: Mapping[Side, Leg],
    upper: Upper,
    pitch: Array,
    lumbar_flexion: Array,
    readouts: dict[Key, Column],
    every: Indices,
) -> None:
    """What needs both legs and the trunk: bending moment, belly clearance, the gap between the knees."""
    left, right = legs[Side.LEFT], legs[Side.RIGHT]
    knees = [leg.points.knee[:, leg.rows] for leg in (left, right)]
    # Sideways only: one knee ahead of the other spreads nothing.
    gap = np.abs(knees[0][..., 1] - knees[1][..., 1]) - 2 * body.length_cm("thigh_radius_knee")
    readouts[(Readout.KNEE_GAP_CM, None)] = Column(gap, every)
    hip = (left.points.hip[:, left.rows] + right.points.hip[:, right.rows]) / 2
    pelvis = np.stack([hip[..., 0], hip[..., 2]], axis=-1)
    lean = np.atleast_2d(upper.lean_deg)
    chain = trunk_points(body, pelvis, pitch, lumbar_flexion, lean)
    if upper.position not in LYING:
        moment = moment_nm(body, chain, lean, upper.hands.carry, upper.head_rests)
        if upper.rising and len(moment) > 1:
            moment = moment[1:2]
        readouts[(Readout.SPINE_MOMENT_RATIO, None)] = Column(
            np.maximum(moment, 0.0) / reference_moment_nm(body), every
        )
    if upper.head_on_cm is not None:
        nod, misses = nod_to(body, chain.c7[..., 1], lean, upper.head_on_cm, upper.head_on_arms)
        readouts[(Readout.NECK_BEND, None)] = Column(nod, every)
        readouts[(Readout.HEAD_MISSES_CM, None)] = Column(misses, every)
    if upper.upright != "seat":
        _read_weight(body, legs, upper, chain, readouts, every)
    if body.pregnancy is not None:
        lumbar_lean = pitch + LUMBAR_SHARE * lumbar_flexion
        below = floor_clearance_cm(body, chain, lumbar_lean) if upper.position not in LYING else np.inf
        for side, leg in legs.items():
            clearance = belly_clearance_cm(
                body, chain, lumbar_lean, leg.points.hip[:, leg.rows], leg.points.knee[:, leg.rows]
            )
            clearance = np.minimum(clearance, below)
            readouts[(Readout.BELLY_CLEARANCE_CM, side)] = Column(np.atleast_2d(clearance), every)


def _read_weight(
    body: Body,
    legs: Mapping[Side, Leg],
    upper: Upper,
    chain: TrunkPoints,
    readouts: dict[Key, Column],
    every: Indices,
) -> None:
    """How standing or kneeling weight is shared, where it falls, and what the knees hold against it."""
    carried = min(upper.hands.carry + upper.seat_carries, 1.0)
    com = centre_of_mass(body, legs, chain)
    feet = {side: leg.support_point()[:, leg.rows] for side, leg in legs.items()}
    left, right = feet[Side.LEFT], feet[Side.RIGHT]
    line = left - right
    span = np.maximum(np.sum(line[..., :2] ** 2, axis=-1), 1e-6)
    toward_left = np.clip(np.sum((com - right[..., :2]) * line[..., :2], axis=-1) / span, 0.0, 1.0)
    if upper.one_leg is not None:
        toward_left = np.full_like(toward_left, 1.0 if upper.one_leg is Side.LEFT else 0.0)
    if upper.steps_up is not None:
        toward_left = np.full_like(toward_left, STEPPING_SHARE if upper.steps_up is Side.LEFT else 1 - STEPPING_SHARE)
    shares = {Side.LEFT: (1 - carried) * toward_left, Side.RIGHT: (1 - carried) * (1 - toward_left)}
    for side, leg in legs.items():
        readouts[(Readout.KNEE_LOAD_SHARE, side)] = Column(shares[side], every)
        lever = np.abs(leg.points.knee[:, leg.rows, 0] - feet[side][..., 0]) / 100
        moment = shares[side] * body.weight_kg * GRAVITY * lever
        readouts[(Readout.KNEE_MOMENT_RATIO, side)] = Column(
            moment / (body.weight_kg * GRAVITY * KNEE_REFERENCE_M), every
        )
    if upper.upright == "feet" and carried == 0.0:
        standing = [legs[upper.one_leg]] if upper.one_leg is not None else list(legs.values())
        if all(leg.sole_down for leg in standing):
            soles = [sole_corners(body, leg)[:, leg.rows] for leg in standing]
            widest = max(len(sole) for sole in soles)
            corners = np.concatenate([np.broadcast_to(s, (widest, *s.shape[1:])) for s in soles], axis=-2)
            readouts[(Readout.BALANCE_MARGIN_CM, None)] = Column(margin_inside(corners, com), every)
