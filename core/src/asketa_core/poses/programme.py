"""A recipe in a position as numbers: rules as codes, values as slot times factor plus offset.

A programme depends on the library alone: the same one serves every body.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np

from asketa_core.clinical import clinical
from asketa_core.kernel.codes import Base, Carried, Lean, LegIs, Motion, Upright
from asketa_core.kernel.records import PROGRAMME, VALUE, Record, many
from asketa_core.poses.flags import EASY_LEAN_DEG, static_flags
from asketa_core.poses.numbered import FLAG_OF, READ_OF, who
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import (
    LYING,
    PELVIS_FOLLOWS,
    DroppedLeg,
    Flag,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    GroundLeg,
    Hands,
    KneelBase,
    KneelingLeg,
    LegRule,
    LongLeg,
    PlantedLeg,
    Position,
    PropPlace,
    Recipe,
    Scaled,
    SitBase,
    StandBase,
    StandingLeg,
    StrideBase,
    StrideLeg,
    TurnedInLeg,
    Value,
    side_slot,
    slot_names,
)
from asketa_core.units import SIDES, Side

NONE = -1

FORCED_SHARE = clinical("shape.forced_share", "share")
FOLDED_SHARE = clinical("shape.folded_share", "share")

HELD_ON_TO = frozenset({"chair_back_in_front", "chair_in_front", "chair_beside", "wall", "side_chair", "thigh_chair"})

ONE_HAND_DOWN = frozenset({"side_chair", "thigh_chair", "side_leg", "side_block"})
"""Hands of which one goes down on the side the trunk comes over to, while the other arm reaches straight up."""

HANDS_FREE = frozenset({"thighs", "shins", "hips", "forward", "overhead", "out", "under_thigh", "side_leg", "side_block",
                        "by_raised_foot", "blocks_in_front"})  # fmt: skip
"""Hands that hold nothing, or no more than a block: they steady nobody."""

PADS: tuple[PropPlace, ...] = ("under_shins", "under_back_knee")
"""Where a prop lies under kneeling knees without lifting them."""


@dataclass(frozen=True)
class Slots:
    """Names of the slots a set-up gives numbers for, in the order of its numbers."""

    names: tuple[str, ...]

    def place(self, name: str, side: Side | None) -> int:
        """Where a slot's number stands, the side's own before the shared one; -1 for what is no number."""
        own = side_slot(name, side) if side is not None else name
        found = own if own in self.names else name
        return self.names.index(found) if found in self.names else NONE

    def write(self, into: Record, value: Value | None, side: Side | None = None) -> None:
        """A recipe's length or angle into a record."""
        into.slot, into.times, into.plus, into.plus_slot = NONE, 0.0, 0.0, NONE
        if value is None or value == "floor":
            return
        if isinstance(value, str):
            value = Scaled(slot=value)
        if not isinstance(value, Scaled):
            into.plus = float(value)
            return
        if value.slot != "floor":
            into.slot, into.times = self.place(value.slot, side), value.times
        if isinstance(value.plus, str):
            if value.plus != "floor":
                into.plus_slot = self.place(value.plus, side)
        else:
            into.plus = float(value.plus)


@dataclass(frozen=True)
class Above:
    """What is known of a posture beside its recipe: how it is held, and what is asked of it."""

    minutes: float = 0.0
    repeated: bool = False
    long_fold: bool = False


NO_MORE = Above()


def programme_of(
    recipe: Recipe, position: Position, worked: Side, slots: Slots, above: Above = NO_MORE, shared: bool = False
) -> Record:
    """A recipe in a position with one side worked."""
    found = blank(worked, position)
    _base(found, recipe, slots)
    _trunk(found, recipe, slots)
    _upper(found, recipe, worked, above)
    for side in SIDES:
        rule = recipe.worked_rule if side is worked else recipe.other_rule
        leg = found.leg[who(side)]
        leg_programme(leg, rule, side, slots)
        leg.follows_pelvis, leg.on_chair = recipe.pelvis_follows != "still", position == "chair"
        if isinstance(recipe.stands_on, StandBase) and recipe.stands_on.heels_free and leg.rule == LegIs.STANDING:
            leg.sole_down = 0
    found.both_feet_down = all(found.leg[who(side)].sole_down for side in SIDES)
    found.shared, found.reads_shin, found.bounds_slide = shared, 1, 1
    _counts_as(found, recipe, position, worked, above)
    _works(found, recipe)
    return found


@cache
def _nothing_said() -> Any:
    """A programme without a value: no slot is read."""
    found = many(1, PROGRAMME)
    for record in (found[0], *found[0].leg):
        for name, (kind, *_) in record.dtype.fields.items():
            if kind == VALUE:
                record[name].slot = record[name].plus_slot = NONE
    return found


def blank(worked: Side, position: Position) -> Record:
    """A programme in which nothing is said yet: nothing rests, nothing leans, nothing is asked."""
    found = _nothing_said().copy()[0]
    for side in SIDES:
        found.leg[who(side)].foot_held = 1
    found.worked, found.side_sign = who(worked), worked.sign
    found.one_leg = found.steps_up = NONE
    found.lying, found.on_chair = position in LYING, position == "chair"
    found.stands_by, found.upright = Base.SIT, Upright.SEAT
    found.flat_below = clinical("shape.flat_back", "deg")
    mark(found, ["spine_unloaded" if found.lying else "spine_loaded"], [None])
    return found


def mark(programme: Record, flags: Iterable[Flag], sides: Iterable[Side | None]) -> None:
    """Flags that hold in every set-up, for some sides."""
    for side in sides:
        for flag in flags:
            programme.marks[FLAG_OF[flag], who(side)] = 1


def _base(found: Record, recipe: Recipe, slots: Slots) -> None:
    base = recipe.stands_on
    match base:
        case SitBase():
            found.stands_by, found.upright = Base.SIT, Upright.SEAT
            slots.write(found.rests_on, base.rests_on)
            slots.write(found.raised, base.raised_cm)
        case StandBase():
            by_knees = base.knee_deg is not None
            found.stands_by, found.upright = Base.STAND_KNEES if by_knees else Base.STAND_HEIGHT, Upright.FEET
            if base.balance == "lean":
                found.stands_by = Base.STAND_LEANING
            found.balances_hips = base.balance == "hips"
            found.seat_carries = base.seat_carries
            found.shins_bounded = base.shins_deg is not None
            slots.write(found.knee, base.knee_deg)
            slots.write(found.hips_on, base.hips_on)
            slots.write(found.ankle_x, base.ankle_x_cm)
            slots.write(found.apart, base.apart_cm)
            slots.write(found.toes_out, base.toes_out_deg)
            slots.write(found.heels_on, base.heels_on)
            slots.write(found.shins, base.shins_deg)
        case StrideBase():
            found.upright = Upright.FEET
            slots.write(found.stance, base.stance_cm)
            slots.write(found.thigh_on, base.thigh_on)
            slots.write(found.thigh_down, base.thigh_down_deg)
            slots.write(found.pad, base.pad)
            on_thigh = Base.STRIDE_THIGH_ON if base.thigh_on is not None else Base.STRIDE_THIGH_DOWN
            found.stands_by = Base.STRIDE_STANCE if base.stance_cm is not None else on_thigh
        case KneelBase():
            found.stands_by, found.upright = Base.KNEEL, Upright.KNEES
            slots.write(found.pad, base.pad)
            slots.write(found.thigh_forward, base.thigh_forward_deg)


def _trunk(found: Record, recipe: Recipe, slots: Slots) -> None:
    found.lean = Lean.GIVEN
    if recipe.lean != "given" and recipe.chest_on != "thighs":
        found.lean = Lean.TO_SUPPORT
        on_hands = {"hands": Carried.HANDS_HANG, "reach": Carried.HANDS_REACH, "forearms": Carried.FOREARMS}
        found.carried = Carried.CHEST if recipe.chest_on is not None else on_hands[recipe.lean]
    if recipe.chest_on == "thighs":
        found.lean = Lean.ON_THIGHS
    if found.stands_by == Base.SIT and recipe.recline_deg is not None:
        found.lean = Lean.RECLINED
    slots.write(found.support, recipe.chest_on if recipe.chest_on is not None else recipe.hands_on)
    slots.write(found.lean_at, recipe.lean_deg)
    slots.write(found.recline, recipe.recline_deg)
    slots.write(found.roll, recipe.roll_deg)
    slots.write(found.turn, recipe.turn_deg)
    slots.write(found.side_bend, recipe.side_bend_deg)
    slots.write(found.head_on, recipe.head_on)
    found.follows, found.hollow = PELVIS_FOLLOWS[recipe.pelvis_follows], recipe.hollow_deg
    found.has_pad = 1
    pads = [recipe.props[place] for place in PADS if place in recipe.props]
    for into, pad in zip((found.padding_a, found.padding_b), pads, strict=False):
        slots.write(into, pad)


def _upper(found: Record, recipe: Recipe, worked: Side, above: Above) -> None:
    base, hands = recipe.stands_on, recipe.hands
    found.carry, found.raised_arms, found.minutes = hands.carry, hands.raised_deg, above.minutes
    found.head_rests, found.rising, found.long_fold = recipe.head_rests, recipe.rising, above.long_fold
    found.head_supported = recipe.head_on is not None
    found.head_on_arms = recipe.head_on is not None and recipe.head_on == recipe.hands_on
    found.holds_on, found.one_hand_down = hands.on in HELD_ON_TO, hands.on in ONE_HAND_DOWN
    found.hand_beside = hands.on == "side_block"
    if isinstance(base, StandBase):
        found.one_leg = who(worked.other) if base.one_leg else NONE
        found.steps_up = who(worked) if base.steps_up else NONE
    found.check_seat_height = isinstance(base, SitBase) and not found.lying
    found.exempt_from_band = recipe.rising
    if recipe.shares is not None:
        shares_given(found, {side: recipe.shares.of(side is worked) for side in SIDES})
    found.shin_near_level = recipe.shin_near_level_deg is not None
    if hands_are_free(hands, found.upright == Upright.FEET):
        mark(found, ["hands_free"], [None])


def hands_are_free(hands: Hands, on_feet: bool) -> bool:
    """Beside a seat the hands press on it; beside a standing body they hang."""
    return hands.on in HANDS_FREE or (hands.on == "beside" and on_feet)


def shares_given(found: Record, shares: Mapping[Side, float]) -> None:
    """Shares of body weight that go through each leg, where the shape says more than a lever does."""
    found.shares_given, found.share_left, found.share_right = 1, shares[Side.LEFT], shares[Side.RIGHT]


def _counts_as(found: Record, recipe: Recipe, position: Position, worked: Side, above: Above) -> None:
    for flag, side in static_flags(recipe, position, worked):
        mark(found, [flag], [side])
    if above.repeated:
        mark(found, ["repeated"], [None])
    found.stands = found.marks[FLAG_OF["standing"], who(None)]
    found.flat_when_low = position == "lying" and recipe.recline_deg is not None
    found.easy_when_upright = 1
    found.easy_lean = EASY_LEAN_DEG if recipe.lean == "given" else float("-inf")
    for side in SIDES:
        rule = recipe.worked_rule if side is worked else recipe.other_rule
        on_chair = position == "chair" and isinstance(recipe.stands_on, SitBase)
        found.easy[who(side)] = on_chair and isinstance(rule, PlantedLeg) and rule.rests_on == "floor"


def _works(found: Record, recipe: Recipe) -> None:
    found.works, found.aims = len(recipe.works), len(recipe.aims)
    for into, work in zip(found.work, recipe.works, strict=False):
        into.effort, into.on_other = work.quantity == "effort", work.leg == "other"
        into.read = NONE if into.effort else READ_OF[Readout(work.quantity)]
        into.motion = NONE if work.range is None else Motion[work.range.name].value
        into.of_deg = work.of_deg or 0.0
    for into, aim in zip(found.aim, recipe.aims, strict=False):
        into.read = READ_OF[aim.quantity]
        into.worked, into.other = aim.legs in ("worked", "both"), aim.legs in ("other", "both")
        into.at_least = float("-inf") if aim.at_least is None else aim.at_least
        into.at_most = float("inf") if aim.at_most is None else aim.at_most


def leg_programme(found: Record, rule: LegRule, side: Side, slots: Slots) -> None:
    """How one leg is placed."""

    def write(into: Record, value: Value | None) -> None:
        slots.write(into, value, side)

    match rule:
        case PlantedLeg():
            found.rule, found.sole_down, found.slides = LegIs.PLANTED, 1, 1
            write(found.surface, rule.rests_on)
            write(found.ahead, rule.ahead_of_level_cm)
            write(found.apart, rule.apart_deg)
        case LongLeg():
            found.rule, found.slides, found.knee_supported = LegIs.LONG, 1, rule.knee_rests_on is not None
            write(found.surface, rule.rests_on)
            write(found.knee_support, rule.knee_rests_on)
            write(found.apart, rule.apart_deg)
            write(found.bend, rule.bend_deg)
        case StandingLeg():
            found.rule, found.sole_down = LegIs.STANDING, 1
        case GroundLeg():
            found.rule = LegIs.GROUND
            write(found.surface, rule.rests_on)
            write(found.ahead, rule.ahead)
            write(found.apart, rule.apart_cm)
        case FreeLeg():
            found.rule, found.foot_held, found.pointed = LegIs.FREE, rule.crosses is not None, rule.pointed
            found.off_wall, found.sole_on_wall = rule.wall_cm is not None, rule.sole_on_wall
            write(found.flexion, rule.flexion)
            write(found.abduction, rule.abduction)
            write(found.rotation, rule.rotation)
            write(found.bend, rule.knee)
            write(found.wall, rule.wall_cm)
        case ForcedLeg():
            found.rule, found.stacked, found.ankle_up = LegIs.FORCED, rule.stacked, rule.ankle_up_cm
            found.least_share = FORCED_SHARE
            write(found.apart, rule.thigh_out)
            write(found.bend, rule.shin)
            write(found.knee_support, rule.knee_rests_on)
            write(found.ankle_support, rule.ankle_rests_on)
        case _:
            _leg_on_the_ground(found, rule, write)


def _leg_on_the_ground(found: Record, rule: LegRule, write: Callable[[Record, Value | None], None]) -> None:
    """Legs that kneel, fold, stride or are let out."""
    match rule:
        case KneelingLeg():
            found.rule, found.on_knee = LegIs.KNEELING, 1
        case FoldedLeg():
            found.rule, found.rolled, found.least_share = LegIs.FOLDED, rule.behind_knee is not None, FOLDED_SHARE
            write(found.apart, rule.apart_deg)
            write(found.roll_behind, rule.behind_knee)
        case TurnedInLeg():
            found.rule = LegIs.TURNED_IN
            write(found.apart, rule.thigh_out)
            write(found.bend, rule.shin_back)
        case StrideLeg():
            _striding(found, rule)
            write(found.apart, rule.plan_deg)
            write(found.bend, rule.knee_deg)
        case DroppedLeg():
            over = rule.over_thigh is not None
            found.rule = LegIs.DROPPED_OVER_THIGH if over else LegIs.DROPPED
            found.thigh_share, found.rests_at = rule.over_thigh or 0.0, rule.rests_at
            found.let_out, found.knee_supported = rule.let_out_deg is not None, rule.knee_rests_on is not None
            found.across_given, found.across = rule.across is not None, rule.across or 0.0
            write(found.surface, rule.rests_on)
            write(found.ahead, rule.ahead)
            write(found.let_out_to, rule.let_out_deg)
            write(found.knee_support, rule.knee_rests_on)


def _striding(found: Record, rule: StrideLeg) -> None:
    found.toes_out = rule.toes_out_deg
    if rule.rule == "knee_behind":
        found.rule, found.on_knee, found.shin_lifted = LegIs.STRIDE_KNEE_BEHIND, 1, rule.shin_lifted
    elif rule.rule == "front":
        found.rule, found.sole_down, found.ahead_sign = LegIs.STRIDE_STRAIGHT, 1, 1
        if not rule.straight:
            found.rule = LegIs.STRIDE_FRONT
    else:
        found.rule, found.ahead_sign = LegIs.STRIDE_STRAIGHT, -1
        found.sole_down = not rule.heel_lifted and rule.knee_deg == 0.0


def numbers_of(value: Record, xs: Any) -> Any:
    """A recipe's length or angle in every set-up of a batch, (n,)."""
    found = np.full(len(xs), float(value.plus))
    if value.slot >= 0:
        found += xs[:, value.slot] * value.times
    if value.plus_slot >= 0:
        found += xs[:, value.plus_slot]
    return found


def moves_leg(recipe: Recipe, rule: LegRule, other: LegRule) -> Sequence[str]:
    """The slots where a leg is depends on. Lean, turn, bend and what is carried do not move it, but for legs held against
    the pelvis, hips that keep the weight over the feet, and a pelvis that follows the turn."""
    base = recipe.stands_on
    named: list[Value] = [*base.slots(), recipe.roll_deg, *rule.slots()]
    if recipe.pelvis_follows != "still":
        named.append(recipe.turn_deg)
    balances = isinstance(base, StandBase) and base.balance == "hips"
    if balances or isinstance(rule, FreeLeg) or isinstance(other, FreeLeg):
        named += recipe.base_values()
    if isinstance(rule, DroppedLeg) and rule.over_thigh is not None:
        named += other.slots()
    return tuple(dict.fromkeys(slot_names(named)))
