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
from asketa_core.poses.bases import chest_down, comes_down, settle_base
from asketa_core.poses.flags import flags_of, flat_on_the_back, marked
from asketa_core.poses.legs.kneeling import half_kneeling
from asketa_core.poses.legs.leg import Leg, hip_centre
from asketa_core.poses.legs.place import place
from asketa_core.poses.legs.seated import long, planted
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Column, FlagKey, Indices, Key, Posture, Readout, Trouble, highest
from asketa_core.poses.reach import hand_misses_cm, lean_down, trunk_cm
from asketa_core.poses.readings import SideHand, Upper, read_hip, read_leg, read_sliding, read_trunk, read_upper
from asketa_core.poses.recipe import (
    LYING,
    FreeLeg,
    Hands,
    KneelBase,
    PlantedLeg,
    Position,
    PropPlace,
    Recipe,
    SitBase,
    StandBase,
    StandingLeg,
    Work,
    slot_names,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import FloorWay, Station, Technique
from asketa_core.units import SIDES, Array, Mask, Side

# What no body does: beyond these, at the middle of a client's ranges, a set-up is not this shape for this body. What
# only the worst end of the ranges passes is a caution.
SEAT_TOO_HIGH_DEG = 25.0
"""Both thighs sloping down more than this slide off the seat (judgement)."""

SPINE_FLEXION_MOST_DEG = 40.0
LONG_FOLD_FLEXION_MOST_DEG = 50.0
"""A loaded back rounds no further than this; in long quiet folds some schools let it (judgement)."""

KNEE_TWIST_MOST_DEG = 20.0
SHIN_STEEPEST_DEG = 35.0
ANKLE_SPARE_DEG = 2.0
"""So little beyond what an ankle bends refuses nobody a stand (judgement)."""

HIP_USE_MOST_PERCENT = 110.0

TRUNK_MEETS_THIGH_DEG = 150.0
"""Beyond this trunk–thigh angle the thigh would have to pass into the trunk (judgement)."""
TRUNK_SINKS_DEG = 15.0
THIGHS_WIDE_DEG = 40.0
SINKS_UNTIL_DEG = 45.0
"""Between thighs this wide a resting trunk comes so much lower, until the back may round so far (judgement)."""

ONE_HAND_DOWN = frozenset({"side_chair", "thigh_chair", "side_leg", "side_block"})
"""Hands of which one goes down on the side the trunk comes over to, while the other arm reaches straight up."""

HEAD_CARRIED_FROM_DEG = 60.0
"""A trunk that leans so far leaves the head to the neck, unless it rests (judgement)."""

UPRIGHT_ENOUGH_DEG = 10.0
"""Sitting on a chair, both feet down, with no more lean than this counts as upright."""

REACH_TOLERANCE_CM = 0.5
HANDS_FREE = frozenset({"thighs", "shins", "hips", "forward", "overhead", "out", "under_thigh", "side_leg", "side_block",
                        "by_raised_foot", "blocks_in_front"})  # fmt: skip
"""Hands that hold nothing, or no more than a block: they steady nobody."""


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
    loaded = upper.position not in LYING
    rooms: dict[Side, tuple[Array, Array]] = {side: _hip_room(ranges, side, leg) for side, leg in legs.items()}
    spare = [(rooms[side][0] - leg.angles.flexion_deg)[:, leg.rows] for side, leg in legs.items()]
    behind = [
        (-ranges.levels(Quantity.HIP_EXTENSION, side) - leg.angles.flexion_deg)[:, leg.rows]
        for side, leg in legs.items()
    ]
    room, least = np.minimum(*spare), np.maximum(*behind)
    upper = _come_down(body, legs, upper, room, least)
    lean = np.atleast_2d(upper.lean_deg)
    share = share_fold(lean, room, 0.0, least_pitch_deg=least, hollow_deg=upper.hollow_deg)
    pitch, flexion = share.pitch_deg, share.spine_flexion_deg
    readouts = read_upper(upper, share, flags, every)
    troubles: dict[tuple[Trouble, Side], Mask] = {}
    perhaps: dict[tuple[Trouble, Side], Mask] = {}
    amounts: dict[tuple[Trouble, Side], Array] = {}

    def trouble(which: Trouble, side: Side, amount: Array, rows: Indices, beyond: float) -> None:
        levels = np.atleast_2d(amount)
        worst, middle = highest(levels), levels[min(1, len(levels) - 1)]
        sure = (middle > beyond) & ((which.value, side) not in ranges.seen)
        if sure.any():
            amounts[(which, side)] = middle[rows]
            troubles[(which, side)] = sure[rows]
        if len(levels) > 1 and (only_worst := (worst > beyond) & ~sure).any():
            perhaps[(which, side)] = only_worst[rows]

    for which, amount in (base_troubles or {}).items():
        trouble(which, Side.LEFT, amount, every, 0.5)
    for side, leg in legs.items():
        read_leg(body, ranges, side, leg, carries, side is worked, upper, readouts)
        # Whatever kneels without padding of its own kneels on the bare floor.
        if ("kneeling", side) in flags and upper.pad_cm is not None:
            readouts[(Readout.KNEE_PADDING_CM, side)] = Column(upper.pad_cm[None, :], every)
        read_hip(ranges, side, leg, pitch, lean, rooms[side][1], readouts, every)
    read_sliding(readouts)
    for side, leg in legs.items():
        slides = ("held_or_loaded", side) not in flags and worked is not None
        for which, amount, rows, beyond in _leg_troubles(ranges, side, leg, readouts, check_seat_height, slides):
            trouble(which, side, amount, rows, beyond)
        if loaded:
            most = LONG_FOLD_FLEXION_MOST_DEG if upper.long_fold else SPINE_FLEXION_MOST_DEG
            trouble(Trouble.BACK_ROUNDS, side, flexion - most, every, 0.0)
            trouble(Trouble.BACK_HOLLOWS, side, -flexion - SPINE_EXTENSION_MOST_DEG, every, 0.0)
        trouble(
            Trouble.TRUNK_ON_THIGH,
            side,
            readouts[(Readout.TRUNK_THIGH, side)].values - TRUNK_MEETS_THIGH_DEG,
            every,
            0.0,
        )
    read_trunk(body, legs, upper, pitch, share.lumbar_flexion_deg, readouts, every)
    if upper.misses_cm is not None:
        trouble(Trouble.SUPPORT_MISSES, Side.LEFT, _middle_level(upper.misses_cm), every, RESTS_WITHIN_CM)
    if upper.side_hand is not None:
        left, right = (leg.points.hip[:, leg.rows, 2] for leg in legs.values())
        hips = (left + right) / 2
        trouble(
            Trouble.HAND_MISSES,
            Side.LEFT,
            hand_misses_cm(body, hips, upper.side_hand.support_cm, upper.side_hand.over_deg),
            every,
            RESTS_WITHIN_CM,
        )
    if upper.head_on_cm is not None:
        misses = readouts[(Readout.HEAD_MISSES_CM, None)].values
        trouble(Trouble.HEAD_UNSUPPORTED, Side.LEFT, _middle_level(misses), every, RESTS_WITHIN_CM)
    return Posture(
        size=n,
        legs={side: leg.points for side, leg in legs.items()},
        leg_rows={side: leg.rows for side, leg in legs.items()},
        pitch_deg=np.broadcast_to(pitch, (3, n)),
        spine_flexion_deg=np.broadcast_to(flexion, (3, n)),
        lean_deg=lean[min(1, len(lean) - 1)],
        readouts=readouts,
        flags={**flags, **_worked_out_flags(legs, upper, n)},
        troubles=troubles,
        trouble_amounts=amounts,
        perhaps=perhaps,
        seen=ranges.seen,
        stopped_by={side: leg.stopped_by[:, leg.rows] for side, leg in legs.items() if leg.stopped_by is not None},
        exempt_from_band=exempt_from_band,
    )


def _come_down(body: Body, legs: Mapping[Side, Leg], upper: Upper, room: Array, least: Array) -> Upper:
    """As deep a lean as what is carried on its support asks of this back."""
    left, right = (leg.points.hip[:, leg.rows, 2] for leg in legs.values())
    hip_z = (left + right) / 2
    if upper.on_thighs:
        # The thigh that stands higher is met first; between thighs apart the trunk sinks on, as far as the back lets it.
        raised = np.maximum(*(leg.angles.flexion_deg[:, leg.rows] for leg in legs.values()))
        apart = np.minimum(*(leg.angles.abduction_deg[:, leg.rows] for leg in legs.values()))
        met = TRUNK_MEETS_THIGH_DEG - raised
        sinks = TRUNK_SINKS_DEG * np.clip(apart / THIGHS_WIDE_DEG, 0.0, 1.0)
        on_the_mat = chest_down(body, np.zeros(1)).straight(trunk_cm(body), hip_z)
        lean = met + np.clip(SINKS_UNTIL_DEG - (met - room.min(axis=0)), 0.0, sinks)
        return replace(upper, lean_deg=np.maximum(met, np.minimum(lean, on_the_mat)))
    if upper.down_to is None:
        return upper
    lean, misses = lean_down(body, hip_z, upper.down_to, upper.lean_deg, room, least)
    return replace(upper, lean_deg=lean, misses_cm=misses)


RESTS_WITHIN_CM = 2.0
"""What lies on a support touches it within so much: the rest is pressed or pushed into place (judgement)."""

KNEE_RANGE_SLACK_DEG = 5.0
HIP_EXTENSION_SLACK_DEG = 5.0
HIP_RANGE_SLACK_DEG = 10.0
"""How far beyond the middle of a range a shape may ask before it is not offered; ranges are known to about this."""

SPINE_EXTENSION_MOST_DEG = 20.0
"""A loaded back hollows no further than this (judgement)."""


def _middle_level(values: Array) -> Array:
    """The middle of the levels of ranges, (1, k): what touches a support is pushed there at whatever level."""
    return values[len(values) // 2 :][:1]


def _leg_troubles(
    ranges: Ranges, side: Side, leg: Leg, readouts: Mapping[Key, Column], check_seat_height: bool, slides: bool
) -> Iterator[tuple[Trouble, Array, Indices, float]]:
    """What one leg cannot meet: which, by how much, for which cases, and from where on it counts. A knee that slides
    actively and unloaded is meant to gain bend: it has no end."""
    yield Trouble.REACH, leg.reach_shortfall_cm, leg.rows, REACH_TOLERANCE_CM
    yield Trouble.FOLD, leg.fold_shortfall_cm, leg.rows, 0.0
    if leg.idle_cm is not None:
        yield Trouble.IDLE_SUPPORT, _middle_level(leg.idle_cm), leg.rows, RESTS_WITHIN_CM
    if leg.roll_in_way_deg is not None:
        yield Trouble.ROLL_IN_KNEE, leg.roll_in_way_deg, leg.rows, KNEE_RANGE_SLACK_DEG
    if not slides:
        knee_range = ranges.levels(Quantity.KNEE_FLEXION, side)
        yield Trouble.KNEE_RANGE, leg.knee_flexion_deg - knee_range, leg.rows, KNEE_RANGE_SLACK_DEG
    yield Trouble.HIP_RANGE, _beyond_range(ranges, side, leg), leg.rows, HIP_RANGE_SLACK_DEG
    used = readouts[(Readout.HIP_USE_PERCENT, side)]
    yield Trouble.HIP_USE, used.values - HIP_USE_MOST_PERCENT, used.rows, 0.0
    behind = readouts[(Readout.HIP_EXTENSION, side)]
    extension = ranges.levels(Quantity.HIP_EXTENSION, side)
    yield Trouble.HIP_EXTENSION, behind.values - extension, behind.rows, HIP_EXTENSION_SLACK_DEG
    twist = readouts[(Readout.KNEE_TWIST, side)]
    yield Trouble.KNEE_TWIST, twist.values - KNEE_TWIST_MOST_DEG, twist.rows, 0.0
    if check_seat_height and (Readout.THIGH_DOWN, side) in readouts:
        column = readouts[(Readout.THIGH_DOWN, side)]
        yield Trouble.SEAT_TOO_HIGH, column.values - SEAT_TOO_HIGH_DEG, column.rows, 0.0
    yield Trouble.UNDETERMINED, leg.angles.near_singular.astype(float), leg.rows, 0.5
    if (Readout.DORSIFLEXION, side) in readouts:
        column = readouts[(Readout.DORSIFLEXION, side)]
        yield (
            Trouble.ANKLE_RANGE,
            column.values - ranges.levels(Quantity.PLANTED_DORSIFLEXION, side),
            column.rows,
            ANKLE_SPARE_DEG,
        )


def _beyond_range(ranges: Ranges, side: Side, leg: Leg) -> Array:
    """By how much a leg asks more crossing or turning in than the client has, degrees.

    Turning out beyond the range is left to the knee (twist left), flexion to the pelvis, opening to the share of its
    range that is used.
    """
    angles = leg.angles
    return np.where(
        ~angles.near_singular,
        np.maximum(
            -angles.abduction_deg - ranges.levels(Quantity.HIP_ADDUCTION, side),
            -angles.external_rotation_deg - ranges.levels(Quantity.HIP_INTERNAL_ROTATION, side),
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
        np.inf if pinch is None else pinch.flexion_at(leg.angles.abduction_deg, leg.angles.external_rotation_deg),
    )
    middle = raised[1:2] + coupling * leg.knee_flexion_deg
    return np.broadcast_to(room, (3, room.shape[-1])), np.maximum(middle, 1.0)


def _worked_out_flags(legs: Mapping[Side, Leg], upper: Upper, n: int) -> dict[FlagKey, Mask]:
    lying = np.full(n, upper.position in LYING)
    both_feet_down = all(leg.sole_down for leg in legs.values())
    upright = np.atleast_2d(upper.lean_deg).max(axis=0) <= UPRIGHT_ENOUGH_DEG
    upright = upright & (upper.position == "chair" and both_feet_down)
    # Beside a seat the hands press on it; beside a standing body they hang.
    free = upper.hands.on in HANDS_FREE or (upper.hands.on == "beside" and upper.upright == "feet")
    leans = np.broadcast_to(np.atleast_2d(upper.lean_deg).max(axis=0) > HEAD_CARRIED_FROM_DEG, (n,))
    return {
        ("head_carried", None): leans & ~lying & (not upper.head_rests),
        ("spine_loaded", None): ~lying,
        ("spine_unloaded", None): lying,
        ("not_upright_on_chair", None): ~upright,
        ("hands_free", None): np.full(n, free),
    }


def _seat_flags(setup: SetupBatch) -> dict[FlagKey, Mask]:
    return {("soft_seat", None): setup.soft_seat, **marked(["held_or_loaded", "not_rising"], SIDES, setup.size)}


def settle_pose(
    variation: Variation, side: Side, body: Body, ranges: Ranges, setup: SetupBatch, lift_cm: float = 0.0
) -> Posture:
    """The variation with ``side`` as its worked leg, for every set-up of the batch.

    ``lift_cm`` raises the worked foot above its place: the moment before it is put down. In shared
    shapes both legs are worked and ``side`` only names the one the figure is coloured for.
    """
    posture = settle_recipe(
        variation.recipe, variation.position, side, body, ranges, setup, variation.hold.start_s / 60.0, lift_cm,
        variation.long_quiet_fold,
    )  # fmt: skip
    if variation.hold.style != "reps":
        return posture
    return replace(posture, flags={**posture.flags, **marked(["repeated"], [None], posture.size)})


def settle_recipe(
    recipe: Recipe,
    position: Position,
    side: Side,
    body: Body,
    ranges: Ranges,
    setup: SetupBatch,
    minutes: float = 0.0,
    lift_cm: float = 0.0,
    lets_the_back_round: bool = False,
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
        hollow_deg=recipe.hollow_deg,
        upright="knees" if isinstance(base, KneelBase) else ("seat" if isinstance(base, SitBase) else "feet"),
        one_leg=side.other if isinstance(base, StandBase) and base.one_leg else None,
        pad_cm=np.maximum(pelvis.pad_cm[rows], _padding(recipe, setup)),
        heel_lift_cm=pelvis.heel_lift_cm[rows],
        minutes=minutes,
        down_to=comes_down(recipe, body, setup),
        on_thighs=recipe.chest_on == "thighs",
        head_on_cm=None if recipe.head_on is None else setup.number(recipe.head_on),
        head_on_arms=recipe.head_on is not None and recipe.head_on == recipe.hands_on,
        rising=recipe.rising,
        steps_up=side if isinstance(base, StandBase) and base.steps_up else None,
        seat_carries=base.seat_carries if isinstance(base, StandBase) else 0.0,
        long_fold=lets_the_back_round,
    )
    over = setup.number(recipe.side_bend_deg) + setup.number(recipe.roll_deg)
    if recipe.hands.on in ONE_HAND_DOWN:
        upper = replace(upper, hand_down=side, over_deg=over)
    if recipe.hands.on == "side_block":
        assert recipe.hands_on is not None
        upper = replace(upper, side_hand=SideHand(setup.number(recipe.hands_on), over))
    shares = recipe.shares
    posture = _assemble(
        body,
        ranges,
        legs,
        upper,
        None if shares is None else {s: shares.of(s is side) for s in SIDES},
        flags_of(recipe, position, side, setup),
        worked=side,
        check_seat_height=isinstance(base, SitBase) and not lying,
        exempt_from_band=recipe.rising,
        base_troubles={which: amount[..., rows] for which, amount in pelvis.troubles.items()},
    )
    return _aimed(posture, recipe, side, ranges) if recipe.aims or recipe.shin_near_level_deg is not None else posture


PADS: tuple[PropPlace, ...] = ("under_shins", "under_back_knee")


def _padding(recipe: Recipe, setup: SetupBatch) -> Array:
    """What lies under kneeling knees without lifting them, (n,)."""
    pads = [setup.number(recipe.props[place]) for place in PADS if place in recipe.props]
    return np.asarray(np.max(np.stack([np.zeros(setup.size), *pads]), axis=0))


def _aimed(posture: Posture, recipe: Recipe, worked: Side, ranges: Ranges) -> Posture:
    """The posture with what misses the rung's own aims marked as another shape."""
    missed, perhaps, amounts = dict(posture.troubles), dict(posture.perhaps), dict(posture.trouble_amounts)
    if recipe.shin_near_level_deg is not None:
        slope = posture.readouts[(Readout.SHIN_SLOPE, worked)]
        levels = np.abs(slope.over_setups()) - SHIN_STEEPEST_DEG
        middle = levels[min(1, len(levels) - 1)]
        steep = (middle > 0) & ((Trouble.SHIN_STEEP.value, worked) not in ranges.seen)
        missed[(Trouble.SHIN_STEEP, worked)] = steep
        perhaps[(Trouble.SHIN_STEEP, worked)] = (highest(levels) > 0) & ~steep
        amounts[(Trouble.SHIN_STEEP, worked)] = middle
    for aim in recipe.aims:
        legs = {"worked": (worked,), "other": (worked.other,), "both": SIDES}[aim.legs]
        for side in legs:
            key = posture.key(aim.quantity, side)
            if key is None:
                continue
            middle = posture.extremes(key).middle[posture.readouts[key].rows]
            low = -np.inf if aim.at_least is None else aim.at_least
            high = np.inf if aim.at_most is None else aim.at_most
            off = (middle < low - AIM_TOLERANCE) | (middle > high + AIM_TOLERANCE)
            if off.any():
                missed[(Trouble.AIM, side)] = missed.get((Trouble.AIM, side), np.zeros(posture.size, dtype=bool)) | off
                missing = np.maximum(np.maximum(low - middle, middle - high), 0.0)
                amounts[(Trouble.AIM, side)] = amounts.get((Trouble.AIM, side), 0.0) + missing
    return replace(posture, troubles=missed, perhaps=perhaps, trouble_amounts=amounts)


AIM_TOLERANCE = 1e-6


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
    seat = setup.number(variation.recipe.seat_slot or "floor")
    return _leaving(technique, seat, body, ranges, setup.soft_seat, setup.arms)


def settle_seats(technique: Technique, heights_cm: Array, body: Body, ranges: Ranges) -> Posture:
    """The body at the moment firm seats of some heights, (k,), with something to push on are taken or left. They are
    looked for, not judged: the measuring error is kept."""
    yes = np.ones(len(heights_cm), dtype=bool)
    return replace(_leaving(technique, heights_cm, body, ranges, ~yes, yes), exempt_from_band=False)


def _leaving(technique: Technique, seat_cm: Array, body: Body, ranges: Ranges, soft_seat: Mask, arms: Mask) -> Posture:
    """The moment seats of some heights, (k,), are taken or left."""
    floor = np.zeros(len(seat_cm))
    every: Indices = np.arange(len(seat_cm), dtype=np.int32)
    legs = {
        side: planted(body, side, hip_centre(body, side, seat_cm), floor, floor + technique.feet[side], every)
        for side in SIDES
    }
    flags: dict[FlagKey, Mask] = {("soft_seat", None): soft_seat, **marked(["held_or_loaded"], SIDES, len(seat_cm))}
    if technique.needs_arms:
        flags[("seat_without_arms", None)] = ~arms
    return _assemble(
        body,
        ranges,
        legs,
        Upper(floor + technique.lean_deg, rising=True),
        dict(technique.carries),
        flags,
        worked=None,
        check_seat_height=False,
        exempt_from_band=technique.gentle,
    )


def settle_station(station: Station, way: FloorWay, body: Body, ranges: Ranges) -> Posture:
    """One moment on the way to the floor and up: half kneeling, kneeling, low sitting, sitting on the floor. One
    posture."""
    one: Indices = np.zeros(1, dtype=np.int32)
    zero = np.zeros(1)
    upright = body.length_cm("thigh") + body.length_cm("knee_above_rest") - body.length_cm("hip_above_seat")
    hip_z = np.array([upright if station.posture in ("half_kneeling", "kneeling") else station.seat_cm])
    legs: dict[Side, Leg] = {}
    kneels: list[Side] = []
    for side in SIDES:
        hip = hip_centre(body, side, hip_z)
        if station.posture == "kneeling" or (station.posture == "half_kneeling" and side is station.knee_down):
            legs[side] = half_kneeling(body, side, hip, one)
            kneels.append(side)
        elif station.posture == "floor_sitting":
            legs[side] = long(body, side, hip, zero, None, zero + LEGS_LONG_APART_DEG, one)
        else:
            legs[side] = planted(body, side, hip, zero, zero + station.feet_ahead_cm.get(side, 0.0), one)
    flags = marked(["kneeling"], kneels, 1) | marked(["floor"], [None], 1) | marked(["held_or_loaded"], SIDES, 1)
    if not way.chair:
        flags |= marked(["without_chair"], [None], 1)
    flags |= marked(["beyond_easy_seat"], SIDES, 1)
    return _assemble(
        body,
        ranges,
        legs,
        Upper(np.array([station.lean_deg]), Hands(on="thighs", carry=station.hands), False,
               "kneeling" if kneels else "floor_sitting", rising=True),
        dict(station.carries),
        flags,
        worked=None,
        check_seat_height=False,
        exempt_from_band=station.posture == "low_sitting",
    )  # fmt: skip


ROLLING = Recipe(
    seat="floor",
    recline_deg=0.0,
    both_legs=FreeLeg(rule="free", flexion=50.0, knee=80.0),
    hands=Hands(on="forward"),
    works=(Work(quantity="effort"),),
)
"""On the side with the knees drawn up a little, before the legs go over the edge and the hands push up."""


def settle_bed_transfer(technique: Technique, height_cm: float, body: Body, ranges: Ranges) -> tuple[Posture, Posture]:
    """Sitting down on a bed or plinth and rising from it, and rolling to the side. One posture each."""
    rolled = settle_recipe(ROLLING, "side_lying", Side.LEFT, body, ranges, NO_SETUP)
    return _leaving(
        technique, np.array([height_cm]), body, ranges, np.zeros(1, dtype=bool), np.zeros(1, dtype=bool)
    ), rolled


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
        _seat_flags(setup),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )


LEGS_LONG_LEAN_DEG = -15.0
LEGS_LONG_LEAN_MOST_DEG = -35.0
"""Resting with the legs long one leans back on the hands a little, and further where the hamstrings ask for it."""

LEGS_LONG_APART_DEG = 10.0


def settle_legs_long(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Legs long and still on the same seat, leaning back on the hands; lying, simply stretched out with the back raised
    as it was."""
    seat, zero = setup.number(variation.recipe.seat_slot or "floor"), np.zeros(setup.size)
    every: Indices = np.arange(setup.size, dtype=np.int32)
    legs = {
        side: long(body, side, hip_centre(body, side, seat), zero, None, zero + LEGS_LONG_APART_DEG, every)
        for side in SIDES
    }
    lying = variation.position in LYING
    recline = variation.recipe.recline_deg
    spare = [(_hip_room(ranges, side, leg)[0] - leg.angles.flexion_deg)[:, leg.rows] for side, leg in legs.items()]
    lean = np.clip(np.minimum(*spare).min(axis=0), LEGS_LONG_LEAN_MOST_DEG, LEGS_LONG_LEAN_DEG)
    if lying:
        lean = (zero if recline is None else setup.number(recline)) - 90.0
    flat = flat_on_the_back(variation.recipe, variation.position, setup)
    return _assemble(
        body,
        ranges,
        legs,
        Upper(lean, Hands(on="floor_behind", carry=0.2), False, variation.position),
        None,
        ({("supine", None): flat} if flat.any() else {}) | _seat_flags(setup),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )  # fmt: skip
