"""Settling a posture: from a recipe, a body, its ranges and a batch of set-ups to every read-out.

Surfaces carry what rests on them, legs are placed by their rules, and the wanted lean is shared
between pelvis and spine with the stiffer side deciding. Everything is computed for the whole batch of
set-ups and for the low, middle and high end of the client's ranges at once.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.spine import HAMSTRING_COUPLING, hip_room, share_fold
from asketa_core.poses.bases import hands_down, settle_base
from asketa_core.poses.flags import flags_of, marked
from asketa_core.poses.legs import (
    Leg,
    half_kneeling,
    hip_centre,
    long,
    place,
    planted,
)
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Column, FlagKey, Indices, Key, Posture, Readout, Trouble, highest
from asketa_core.poses.reach import lean_to_hands
from asketa_core.poses.readings import Upper, read_hip, read_leg, read_trunk, read_upper
from asketa_core.poses.recipe import (
    LYING,
    Hands,
    KneelBase,
    PlantedLeg,
    Position,
    Recipe,
    SitBase,
    StandBase,
    StandingLeg,
    Work,
    slot_names,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import FloorTechnique, Technique
from asketa_core.units import SIDES, Array, Mask, Side

SEAT_TOO_HIGH_DEG = 25.0
"""Thighs sloping down more than this slide off the seat: not offered (judgement)."""

SPINE_FLEXION_MOST_DEG = 45.0
"""A seated back rounds no further than this (judgement): shapes that ask for more are not offered."""

TRUNK_MEETS_THIGH_DEG = 150.0
"""Beyond this trunk–thigh angle the thigh would have to pass into the trunk (judgement)."""

UPRIGHT_ENOUGH_DEG = 10.0
"""Chair sitting with no more lean than this counts as upright."""

REACH_TOLERANCE_CM = 0.5
HANDS_FREE = frozenset({"thighs", "shins", "hips", "forward", "overhead", "out", "under_thigh", "side_leg"})
"""Hands that hold nothing outside the body: they steady nobody."""


def _assemble(
    body: Body,
    ranges: Ranges,
    legs: Mapping[Side, Leg],
    upper: Upper,
    carries: Mapping[Side, float] | None,
    flags: dict[FlagKey, Mask],
    worked: Side | None,
    check_seat_height: bool,
    exempt_from_band: bool,
    base_troubles: Mapping[Trouble, Array] | None = None,
) -> Posture:
    """Share the lean between pelvis and spine and read everything off."""
    n = np.atleast_2d(upper.lean_deg).shape[-1]
    every: Indices = np.arange(n, dtype=np.int32)
    rooms: dict[Side, tuple[Array, Array]] = {side: _hip_room(ranges, side, leg) for side, leg in legs.items()}
    spare = [(rooms[side][0] - leg.angles.flexion_deg)[:, leg.rows] for side, leg in legs.items()]
    behind = [
        (-ranges.levels(Quantity.HIP_EXTENSION, side) - leg.angles.flexion_deg)[:, leg.rows]
        for side, leg in legs.items()
    ]
    room, least = np.minimum(*spare), np.maximum(*behind)
    upper = _down_to_the_hands(body, legs, upper, room, least)
    lean = np.atleast_2d(upper.lean_deg)
    share = share_fold(lean, room, 0.0, least_pitch_deg=least)
    pitch, flexion = share.pitch_deg, share.spine_flexion_deg
    readouts = read_upper(upper, share, flags, every)
    troubles: dict[tuple[Trouble, Side], Mask] = {}
    amounts: dict[tuple[Trouble, Side], Array] = {}

    def trouble(which: Trouble, side: Side, amount: Array, rows: Indices, beyond: float) -> None:
        worst = highest(np.atleast_2d(amount))
        if (found := worst > beyond).any():
            amounts[(which, side)] = worst[rows]
            troubles[(which, side)] = found[rows]

    for which, amount in (base_troubles or {}).items():
        trouble(which, Side.LEFT, amount, every, 0.5)
    for side, leg in legs.items():
        read_leg(body, ranges, side, leg, carries, side is worked, upper, readouts)
        # Whatever kneels without padding of its own kneels on the bare floor.
        if ("kneeling", side) in flags and upper.pad_cm is not None:
            readouts[(Readout.KNEE_PADDING_CM, side)] = Column(upper.pad_cm[None, :], every)
        read_hip(ranges, side, leg, pitch, lean, rooms[side][1], readouts, every)
        for which, amount, rows, beyond in _leg_troubles(ranges, side, leg, readouts, check_seat_height):
            trouble(which, side, amount, rows, beyond)
        trouble(Trouble.BACK_ROUNDS, side, flexion[1:2] - SPINE_FLEXION_MOST_DEG, every, 0.0)
        trouble(Trouble.BACK_HOLLOWS, side, -flexion[1:2] - SPINE_EXTENSION_MOST_DEG, every, 0.0)
        trouble(
            Trouble.TRUNK_ON_THIGH,
            side,
            readouts[(Readout.TRUNK_THIGH, side)].values - TRUNK_MEETS_THIGH_DEG,
            every,
            0.0,
        )
    read_trunk(body, legs, upper, pitch, share.lumbar_flexion_deg, readouts, every)
    return Posture(
        size=n,
        legs={side: leg.points for side, leg in legs.items()},
        leg_rows={side: leg.rows for side, leg in legs.items()},
        pitch_deg=np.broadcast_to(pitch, (3, n)),
        spine_flexion_deg=np.broadcast_to(flexion, (3, n)),
        lean_deg=lean[min(1, len(lean) - 1)],
        readouts=readouts,
        flags={**flags, **_worked_out_flags(upper, n)},
        troubles=troubles,
        trouble_amounts=amounts,
        stopped_by={side: leg.stopped_by[:, leg.rows] for side, leg in legs.items() if leg.stopped_by is not None},
        exempt_from_band=exempt_from_band,
    )


def _down_to_the_hands(body: Body, legs: Mapping[Side, Leg], upper: Upper, room: Array, least: Array) -> Upper:
    """As deep a lean as the hands on their support ask of this back."""
    if upper.down_to is None:
        return upper
    left, right = (leg.points.hip[:, leg.rows, 2] for leg in legs.values())
    lean = lean_to_hands(body, (left + right) / 2, upper.down_to, upper.lean_deg, room, least)
    return replace(upper, lean_deg=lean)


KNEE_RANGE_SLACK_DEG = 5.0
HIP_RANGE_SLACK_DEG = 10.0
ANKLE_RANGE_SLACK_DEG = 3.0
"""How far beyond the middle of a range a shape may ask before it is not offered; ranges are known to about this."""

SPINE_EXTENSION_MOST_DEG = 40.0
"""A back hollows no further than this (judgement)."""


def _leg_troubles(
    ranges: Ranges, side: Side, leg: Leg, readouts: Mapping[Key, Column], check_seat_height: bool
) -> Iterator[tuple[Trouble, Array, Indices, float]]:
    """What one leg cannot meet: which, by how much, for which cases, and from where on it counts."""
    yield Trouble.REACH, leg.reach_shortfall_cm, leg.rows, REACH_TOLERANCE_CM
    yield Trouble.FOLD, leg.fold_shortfall_cm, leg.rows, 0.0
    knee_range = ranges.levels(Quantity.KNEE_FLEXION, side)[1]
    yield Trouble.KNEE_RANGE, leg.knee_flexion_deg - knee_range, leg.rows, KNEE_RANGE_SLACK_DEG
    yield Trouble.HIP_RANGE, _beyond_range(ranges, side, leg), leg.rows, HIP_RANGE_SLACK_DEG
    if check_seat_height and (Readout.THIGH_DOWN, side) in readouts:
        column = readouts[(Readout.THIGH_DOWN, side)]
        yield Trouble.SEAT_TOO_HIGH, column.values - SEAT_TOO_HIGH_DEG, column.rows, 0.0
    yield Trouble.UNDETERMINED, leg.angles.near_singular.astype(float), leg.rows, 0.5
    if (Readout.DORSIFLEXION, side) in readouts:
        column = readouts[(Readout.DORSIFLEXION, side)]
        limit = ranges.levels(Quantity.PLANTED_DORSIFLEXION, side)[1]
        yield Trouble.ANKLE_RANGE, column.values - limit, column.rows, ANKLE_RANGE_SLACK_DEG


def _beyond_range(ranges: Ranges, side: Side, leg: Leg) -> Array:
    """By how much a leg asks more opening, crossing or turning in than the client's middle range, degrees.

    Turning out beyond the range is left to the knee (twist left), flexion to the pelvis.
    """
    angles = leg.angles
    sure = ~angles.near_singular
    return np.where(
        sure,
        np.maximum.reduce(
            [
                angles.abduction_deg - ranges.get(Quantity.OPEN_ABDUCTION, side).value_deg,
                -angles.abduction_deg - ranges.get(Quantity.HIP_ADDUCTION, side).value_deg,
                -angles.external_rotation_deg - ranges.get(Quantity.HIP_INTERNAL_ROTATION, side).value_deg,
            ]
        ),
        0.0,
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


def _worked_out_flags(upper: Upper, n: int) -> dict[FlagKey, Mask]:
    lying = np.full(n, upper.position in LYING)
    upright = (np.atleast_2d(upper.lean_deg).max(axis=0) <= UPRIGHT_ENOUGH_DEG) & (upper.position == "chair")
    # Beside a seat the hands press on it; beside a standing body they hang.
    free = upper.hands.on in HANDS_FREE or (upper.hands.on == "beside" and upper.upright == "feet")
    return {
        ("spine_loaded", None): ~lying,
        ("spine_unloaded", None): lying,
        ("not_upright_on_chair", None): ~upright,
        ("hands_free", None): np.full(n, free),
    }


def _seat_flags(setup: SetupBatch, needs_arms: bool) -> dict[FlagKey, Mask]:
    flags: dict[FlagKey, Mask] = {("soft_seat", None): setup.soft_seat}
    if needs_arms:
        flags[("seat_without_arms", None)] = ~setup.arms
    return flags


def settle_pose(
    variation: Variation, side: Side, body: Body, ranges: Ranges, setup: SetupBatch, lift_cm: float = 0.0
) -> Posture:
    """The variation with ``side`` as its worked leg, for every set-up of the batch.

    ``lift_cm`` raises the worked foot above its place: the moment before it is put down. In shared
    shapes both legs are worked and ``side`` only names the one the figure is coloured for.
    """
    minutes = variation.hold.start_s / 60.0
    return settle_recipe(variation.recipe, variation.position, side, body, ranges, setup, minutes, lift_cm)


def settle_recipe(
    recipe: Recipe,
    position: Position,
    side: Side,
    body: Body,
    ranges: Ranges,
    setup: SetupBatch,
    minutes: float = 0.0,
    lift_cm: float = 0.0,
) -> Posture:
    """Any recipe in a position, held for some minutes, with ``side`` as its worked leg."""
    on_chair, lying = position == "chair", position in LYING
    legs = {s: place(recipe, s, side, body, ranges, setup, on_chair, lift_cm if s is side else 0.0) for s in SIDES}
    own, rows = setup.reduced(slot_names(recipe.base_values()), side)
    pelvis = settle_base(recipe, side, body, ranges, own)
    bend, roll = setup.number(recipe.side_bend_deg), np.abs(setup.number(recipe.roll_deg))
    base = recipe.stands_on
    upper = Upper(
        pelvis.lean_deg[:, rows],
        recipe.hands,
        recipe.head_rests,
        position,
        turn_deg=np.abs(setup.number(recipe.turn_deg)),
        side_bend_deg=bend if lying else np.maximum(bend, roll),
        upright="knees" if isinstance(base, KneelBase) else ("seat" if isinstance(base, SitBase) else "feet"),
        one_leg=side.other if isinstance(base, StandBase) and base.one_leg else None,
        pad_cm=pelvis.pad_cm[rows],
        heel_lift_cm=pelvis.heel_lift_cm[rows],
        minutes=minutes,
        down_to=hands_down(recipe, body, setup) if recipe.lean != "given" else None,
    )
    return _assemble(
        body,
        ranges,
        legs,
        upper,
        None,
        flags_of(recipe, position, side, setup),
        worked=side,
        check_seat_height=isinstance(base, SitBase) and not lying,
        exempt_from_band=False,
        base_troubles={which: amount[..., rows] for which, amount in pelvis.troubles.items()},
    )


NO_SETUP = SetupBatch({}, np.zeros(1, dtype=bool), np.ones(1, dtype=bool))
"""For postures that no set-up changes: one case without numbers."""

STANDING_QUIETLY = Recipe(
    base=StandBase(rule="stand", knee_deg=0.0),
    both_legs=StandingLeg(rule="standing"),
    works=(Work(quantity="effort"),),
)


def settle_standing_quietly(body: Body, ranges: Ranges) -> Posture:
    """Upright on both feet. One posture, whatever the set-up."""
    return settle_recipe(STANDING_QUIETLY, "standing", Side.LEFT, body, ranges, NO_SETUP)


def settle_transfer(
    technique: Technique, variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch
) -> Posture:
    """The body at the moment the seat is taken or left, feet on the floor."""
    seat, floor = setup.number(variation.recipe.seat_slot or "floor"), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: planted(body, side, hip_centre(body, side, seat), floor, floor + technique.feet[side], every)
        for side in SIDES
    }
    return _assemble(
        body,
        ranges,
        legs,
        Upper(floor + technique.lean_deg),
        dict(technique.carries),
        _seat_flags(setup, technique.needs_arms),
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
        down: half_kneeling(body, down, hip_centre(body, down, hip_z), one),
        down.other: planted(
            body, down.other, hip_centre(body, down.other, hip_z), np.zeros(1), np.array([technique.foot_ahead_cm]), one
        ),
    }
    flags = marked(["kneeling"], [down], 1) | marked(["floor"], [None], 1)
    if not technique.chair:
        flags |= marked(["without_chair"], [None], 1)
    return _assemble(
        body,
        ranges,
        legs,
        Upper(np.array([technique.lean_deg]), Hands(on="thighs", carry=0.2 if technique.chair else 0.0), False,
               "kneeling"),
        dict(technique.carries),
        flags,
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )  # fmt: skip


def settle_quiet_sitting(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Sitting upright on the seat with both feet down: where the pose starts from and ends."""
    rule = variation.recipe.other_rule
    rests_on = rule.rests_on if isinstance(rule, PlantedLeg) else "floor"
    seat, zero = setup.number(variation.recipe.seat_slot or "floor"), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: planted(body, side, hip_centre(body, side, seat), setup.number(rests_on, side), zero, every)
        for side in SIDES
    }
    return _assemble(
        body,
        ranges,
        legs,
        Upper(zero),
        None,
        _seat_flags(setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )


LEGS_LONG_LEAN_DEG = -15.0
"""Resting with the legs long one leans back on the hands a little."""

LEGS_LONG_APART_DEG = 10.0


def settle_legs_long(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Legs long and still on the same seat, leaning back on the hands; lying, simply stretched out."""
    seat, zero = setup.number(variation.recipe.seat_slot or "floor"), np.zeros(setup.size)
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
        Upper(zero + (-90.0 if lying else LEGS_LONG_LEAN_DEG), Hands(on="floor_behind", carry=0.2), False,
               variation.position),
        None,
        marked(["supine"] if lying else [], [None], setup.size) | _seat_flags(setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )  # fmt: skip
