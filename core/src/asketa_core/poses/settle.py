"""Settling a posture: from a recipe, a body, its ranges and a batch of set-ups to every read-out.

Surfaces carry what rests on them, legs are placed by their rules, and the wanted lean is shared
between pelvis and spine with the stiffer side deciding. Everything is computed for the whole batch of
set-ups and for the low, middle and high end of the client's ranges at once.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.angles import hip_closing
from asketa_core.body.belly import belly_clearance_cm
from asketa_core.body.knee import twist_left
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.spine import HAMSTRING_COUPLING, LUMBAR_SHARE, hip_room, share_fold
from asketa_core.body.trunk import moment_nm, reference_moment_nm, trunk_points
from asketa_core.poses.legs import Leg, hip_centre, kneeling, long, place, planted, weight_through
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Column, FlagKey, Indices, Key, Posture, Readout, Trouble
from asketa_core.poses.recipe import LYING, Flags, Hands, LongLeg, PlantedLeg, Position
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import FloorTechnique, Technique
from asketa_core.units import SIDES, Array, Mask, Side, asind, norm

SEAT_TOO_HIGH_DEG = 25.0
"""Thighs sloping down more than this slide off the seat: not offered (judgement)."""

SPINE_FLEXION_MOST_DEG = 45.0
"""A seated back rounds no further than this (judgement): shapes that ask for more are not offered."""

TRUNK_MEETS_THIGH_DEG = 140.0
"""Beyond this trunk–thigh angle the thigh would have to pass into the trunk (judgement)."""

UPRIGHT_ENOUGH_DEG = 10.0
"""Chair sitting with no more lean than this counts as upright."""

REACH_TOLERANCE_CM = 0.5
FREE_HANDS = Hands(on="thighs")


@dataclass(frozen=True, slots=True)
class _Upper:
    """What the trunk does above the legs: ``lean_deg`` (n,), hands, head, and how the body lies."""

    lean_deg: Array
    hands: Hands = FREE_HANDS
    head_rests: bool = False
    position: Position = "chair"


def _assemble(
    body: Body,
    ranges: Ranges,
    legs: Mapping[Side, Leg],
    upper: _Upper,
    carries: Mapping[Side, float] | None,
    flags: dict[FlagKey, Mask],
    worked: Side | None,
    check_seat_height: bool,
    exempt_from_band: bool,
) -> Posture:
    """Share the lean between pelvis and spine and read everything off."""
    lean = upper.lean_deg
    n = len(lean)
    every: Indices = np.arange(n, dtype=np.int32)
    rooms: dict[Side, tuple[Array, Array]] = {side: _hip_room(ranges, side, leg) for side, leg in legs.items()}
    spare = [(rooms[side][0] - leg.angles.flexion_deg)[:, leg.rows] for side, leg in legs.items()]
    share = share_fold(lean, np.minimum(*spare), 0.0)
    pitch, flexion = share.pitch_deg, share.spine_flexion_deg
    zero = np.zeros((1, 1))
    nobody: Indices = np.zeros(n, dtype=np.int32)
    readouts: dict[Key, Column] = {
        (Readout.SPINE_FLEXION, None): Column(flexion, every),
        (Readout.SPINE_EXTENSION, None): Column(-flexion, every),
        (Readout.LUMBAR_FLEXION, None): Column(share.lumbar_flexion_deg, every),
        (Readout.THORACIC_FLEXION, None): Column(share.thoracic_flexion_deg, every),
        (Readout.TRUNK_LEAN, None): Column(lean[None, :], every),
        # Square recipes neither turn nor bend the trunk sideways.
        (Readout.SPINE_ROTATION, None): Column(zero, nobody),
        (Readout.SIDE_BEND, None): Column(zero, nobody),
    }
    troubles: dict[tuple[Trouble, Side], Mask] = {}
    amounts: dict[tuple[Trouble, Side], Array] = {}
    for side, leg in legs.items():
        _read_leg(body, ranges, side, leg, carries, side is worked, readouts)
        turned = leg.angles.flexion_deg[:, leg.rows]
        out = leg.angles.abduction_deg[:, leg.rows]
        hip_flexion = turned + pitch
        closing, trunk_thigh = hip_closing(hip_flexion, out), hip_closing(turned + lean, out)
        readouts[(Readout.HIP_FLEXION, side)] = Column(hip_flexion, every)
        readouts[(Readout.HIP_EXTENSION, side)] = Column(-hip_flexion, every)
        readouts[(Readout.HIP_CLOSING, side)] = Column(closing, every)
        readouts[(Readout.TRUNK_THIGH, side)] = Column(trunk_thigh, every)
        readouts[(Readout.HIP_BEND, side)] = Column(np.maximum(closing, trunk_thigh), every)
        hamstrings = rooms[side][1][:, leg.rows]
        readouts[(Readout.HAMSTRING_USED_PERCENT, side)] = Column(
            100.0 * np.maximum(hip_flexion, 0.0) / hamstrings, every
        )
        used = 100.0 * closing / ranges.get(Quantity.HIP_FLEXION, side).value_deg
        leg_used = readouts[(Readout.HIP_RANGE_USED_PERCENT, side)].over_setups()
        readouts[(Readout.HIP_RANGE_USED_PERCENT, side)] = Column(np.maximum(used, leg_used), every)
        if side in ranges.groin_pinch:
            pinch = ranges.groin_pinch[side].flexion_at(out)
            readouts[(Readout.GROIN_ROOM, side)] = Column(pinch - hip_flexion, every)
        thigh_down = readouts[(Readout.THIGH_DOWN, side)].values
        for trouble, amount, rows, beyond in (
            (Trouble.REACH, leg.reach_shortfall_cm, leg.rows, REACH_TOLERANCE_CM),
            (Trouble.FOLD, leg.fold_shortfall_cm, leg.rows, 0.0),
            (Trouble.KNEE_RANGE, leg.knee_flexion_deg - ranges.levels(Quantity.KNEE_FLEXION, side)[1], leg.rows, 0.0),
            (Trouble.SEAT_TOO_HIGH, thigh_down - SEAT_TOO_HIGH_DEG, leg.rows, 0.0 if check_seat_height else np.inf),
            (Trouble.BACK_ROUNDS, flexion[1:2] - SPINE_FLEXION_MOST_DEG, every, 0.0),
            (Trouble.TRUNK_ON_THIGH, trunk_thigh - TRUNK_MEETS_THIGH_DEG, every, 0.0),
            (Trouble.UNDETERMINED, leg.angles.near_singular.astype(float), leg.rows, 0.5),
        ):
            worst = np.atleast_2d(amount).max(axis=0)
            amounts[(trouble, side)] = worst[rows]
            troubles[(trouble, side)] = (worst > beyond)[rows]
    _read_trunk(body, legs, upper, pitch, share.lumbar_flexion_deg, readouts, every)
    flags.update(_worked_out_flags(upper, n))
    return Posture(
        size=n,
        legs={side: leg.points for side, leg in legs.items()},
        leg_rows={side: leg.rows for side, leg in legs.items()},
        pitch_deg=np.broadcast_to(pitch, (3, n)),
        spine_flexion_deg=np.broadcast_to(flexion, (3, n)),
        lean_deg=lean,
        readouts=readouts,
        flags=flags,
        troubles=troubles,
        trouble_amounts=amounts,
        stopped_by={side: leg.stopped_by[:, leg.rows] for side, leg in legs.items() if leg.stopped_by is not None},
        exempt_from_band=exempt_from_band,
    )


def _hip_room(ranges: Ranges, side: Side, leg: Leg) -> tuple[Array, Array]:
    """Largest flexion one hip allows with the knee as it is, and how much of it the hamstrings allow."""
    raised = ranges.levels(Quantity.STRAIGHT_LEG_RAISE, side)
    coupling = ranges.coupling.get(side, HAMSTRING_COUPLING)
    pinch = ranges.groin_pinch.get(side)
    room = hip_room(
        ranges.levels(Quantity.HIP_FLEXION, side),
        raised,
        leg.knee_flexion_deg,
        leg.angles.abduction_deg,
        coupling,
        np.inf if pinch is None else pinch.flexion_at(leg.angles.abduction_deg),
    )
    middle = raised[1:2] + coupling * leg.knee_flexion_deg
    return np.broadcast_to(room, (3, room.shape[-1])), np.maximum(middle, 1.0)


def _read_leg(
    body: Body,
    ranges: Ranges,
    side: Side,
    leg: Leg,
    carries: Mapping[Side, float] | None,
    worked: bool,
    readouts: dict[Key, Column],
) -> None:
    """Everything one leg shows on its own, whatever the trunk does."""
    points, angles = leg.points, leg.angles
    fall_cm = points.hip[..., 2] - points.knee[..., 2]
    thigh_down = asind(fall_cm / body.length_cm("thigh"))
    carried = weight_through(body, leg) if carries is None else np.full_like(fall_cm, carries[side])
    open_range = ranges.get(Quantity.OPEN_EXTERNAL_ROTATION, side).value_deg
    used = np.maximum(
        100.0 * angles.external_rotation_deg / open_range,
        100.0 * angles.abduction_deg / ranges.get(Quantity.OPEN_ABDUCTION, side).value_deg,
    )
    by_name = {
        Readout.HIP_ABDUCTION: angles.abduction_deg,
        Readout.HIP_EXTERNAL_ROTATION: angles.external_rotation_deg,
        Readout.HIP_RANGE_USED_PERCENT: used,
        Readout.HIP_ABOVE_KNEE_CM: fall_cm,
        Readout.THIGH_DOWN: thigh_down,
        Readout.KNEE_FLEXION: leg.knee_flexion_deg,
        Readout.KNEE_TWIST: twist_left(
            angles.external_rotation_deg, ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side)
        ),
        Readout.KNEE_LOAD_SHARE: carried,
    }
    if worked:
        by_name[Readout.SHIN_SLOPE] = asind((points.knee[..., 2] - points.ankle[..., 2]) / body.length_cm("lower_leg"))
    for name, value in by_name.items():
        readouts[(name, side)] = Column(np.atleast_2d(value), leg.rows)


def _read_trunk(
    body: Body,
    legs: Mapping[Side, Leg],
    upper: _Upper,
    pitch: Array,
    lumbar_flexion: Array,
    readouts: dict[Key, Column],
    every: Indices,
) -> None:
    """What needs both legs and the trunk: bending moment, belly clearance, the gap between the knees."""
    left, right = legs[Side.LEFT], legs[Side.RIGHT]
    knees = [leg.points.knee[:, leg.rows] for leg in (left, right)]
    gap = norm(knees[0] - knees[1]) - 2 * body.length_cm("thigh_radius_knee")
    readouts[(Readout.KNEE_GAP_CM, None)] = Column(gap, every)
    hip = left.points.hip[:, left.rows]
    pelvis = np.stack([hip[..., 0], hip[..., 2]], axis=-1)
    lean = upper.lean_deg[None, :]
    chain = trunk_points(body, pelvis, pitch, lumbar_flexion, lean)
    if upper.position not in LYING:
        moment = moment_nm(body, chain, lean, upper.hands.carry, upper.head_rests)
        readouts[(Readout.SPINE_MOMENT_RATIO, None)] = Column(
            np.maximum(moment, 0.0) / reference_moment_nm(body), every
        )
    if body.pregnancy is not None:
        lumbar_lean = pitch + LUMBAR_SHARE * lumbar_flexion
        for side, leg in legs.items():
            clearance = belly_clearance_cm(
                body, chain, lumbar_lean, leg.points.hip[:, leg.rows], leg.points.knee[:, leg.rows]
            )
            readouts[(Readout.BELLY_CLEARANCE_CM, side)] = Column(np.atleast_2d(clearance), every)


def _worked_out_flags(upper: _Upper, n: int) -> dict[FlagKey, Mask]:
    lying = np.full(n, upper.position in LYING)
    upright = (upper.lean_deg <= UPRIGHT_ENOUGH_DEG) & (upper.position == "chair")
    return {
        ("spine_loaded", None): ~lying,
        ("spine_unloaded", None): lying,
        ("not_upright_on_chair", None): ~upright,
    }


def _flags(named: Flags, worked: Side | None, setup: SetupBatch, needs_arms: bool) -> dict[FlagKey, Mask]:
    yes = np.ones(setup.size, dtype=bool)
    flags: dict[FlagKey, Mask] = {("soft_seat", None): setup.soft_seat}
    if needs_arms:
        flags[("seat_without_arms", None)] = ~setup.arms
    flags.update({(name, None): yes for name in named.overall})
    flags.update({(name, worked): yes for name in named.worked})
    flags.update({(name, side): yes for name in named.both for side in SIDES})
    return flags


def settle_pose(
    variation: Variation, side: Side, body: Body, ranges: Ranges, setup: SetupBatch, lift_cm: float = 0.0
) -> Posture:
    """The variation with ``side`` as its worked leg, for every set-up of the batch.

    ``lift_cm`` raises the worked foot above its place: the moment before it is put down. In shared
    shapes both legs are worked and ``side`` only names the one the figure is coloured for.
    """
    recipe = variation.recipe
    on_chair = variation.position == "chair"
    other = place(recipe.other_rule, body, ranges, side.other, recipe.seat, setup, on_chair=on_chair)
    worked = place(recipe.worked_rule, body, ranges, side, recipe.seat, setup, recipe.other_rule, on_chair, lift_cm)
    lean = setup.number(recipe.lean_deg)
    if recipe.recline_deg is not None:
        lean = setup.number(recipe.recline_deg) - 90.0
    return _assemble(
        body,
        ranges,
        {side: worked, side.other: other},
        _Upper(lean, recipe.hands, recipe.head_rests, variation.position),
        None,
        _flags(recipe.flags, side, setup, needs_arms=False),
        worked=side,
        check_seat_height=variation.position not in LYING,
        exempt_from_band=False,
    )


def settle_transfer(
    technique: Technique, variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch
) -> Posture:
    """The body at the moment the seat is taken or left, feet on the floor."""
    seat, floor = setup.number(variation.recipe.seat), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: planted(body, side, hip_centre(body, side, seat), floor, floor + technique.feet[side], every)
        for side in SIDES
    }
    return _assemble(
        body,
        ranges,
        legs,
        _Upper(floor + technique.lean_deg),
        dict(technique.carries),
        _flags(Flags(), None, setup, technique.needs_arms),
        worked=None,
        check_seat_height=False,
        exempt_from_band=technique.gentle,
    )


def settle_floor_transfer(technique: FloorTechnique, body: Body, ranges: Ranges) -> Posture:
    """Half kneeling on the way to the floor and up: one knee down, the other foot ahead. One posture."""
    one: Indices = np.zeros(1, dtype=np.int32)
    down = technique.knee_down
    hip_z = np.array([body.length_cm("thigh") + body.length_cm("knee_above_rest") - body.length_cm("hip_above_seat")])
    legs = {
        down: kneeling(body, down, hip_centre(body, down, hip_z), one),
        down.other: planted(
            body, down.other, hip_centre(body, down.other, hip_z), np.zeros(1), np.array([technique.foot_ahead_cm]), one
        ),
    }
    setup = SetupBatch({}, np.zeros(1, dtype=bool), np.ones(1, dtype=bool))
    named = Flags(worked=("kneeling",), overall=("floor",) if technique.chair else ("floor", "without_chair"))
    return _assemble(
        body,
        ranges,
        legs,
        _Upper(np.array([technique.lean_deg]), Hands(on="thighs", carry=0.2 if technique.chair else 0.0), False,
               "kneeling"),
        dict(technique.carries),
        _flags(named, down, setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )  # fmt: skip


def settle_quiet_sitting(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Sitting upright on the seat with both feet down: where the pose starts from and ends."""
    rule = variation.recipe.other_rule
    rests_on = rule.rests_on if isinstance(rule, PlantedLeg) else "floor"
    seat, zero = setup.number(variation.recipe.seat), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: planted(body, side, hip_centre(body, side, seat), setup.number(rests_on, side), zero, every)
        for side in SIDES
    }
    return _assemble(
        body,
        ranges,
        legs,
        _Upper(zero),
        None,
        _flags(Flags(), None, setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )


LEGS_LONG_LEAN_DEG = -15.0
"""Resting with the legs long one leans back on the hands a little."""

LEGS_LONG_APART_DEG = 10.0
COUNTER_LEG = LongLeg(rule="long")


def settle_legs_long(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Legs long and still on the same seat, leaning back on the hands; lying, simply stretched out."""
    seat, zero = setup.number(variation.recipe.seat), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: long(body, side, hip_centre(body, side, seat), zero, None, zero + LEGS_LONG_APART_DEG, every)
        for side in SIDES
    }
    lying = variation.position in LYING
    return _assemble(
        body,
        ranges,
        legs,
        _Upper(zero + (-90.0 if lying else LEGS_LONG_LEAN_DEG), Hands(on="floor_behind", carry=0.2), False,
               variation.position),
        None,
        _flags(Flags(overall=("supine",) if lying else ()), None, setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )  # fmt: skip
