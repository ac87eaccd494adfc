"""What the body does before, in and after a pose, as programmes for the engine: the pose itself, taking and leaving seats and
beds, the way to the floor, and resting.

A programme depends on the library alone; bodies, ranges and rooms come to it later.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from asketa_core.kernel.codes import Base, Lean, LegIs
from asketa_core.kernel.records import PROGRAMME, Record, many
from asketa_core.poses.library import Variation
from asketa_core.poses.numbered import who
from asketa_core.poses.programme import (
    Above,
    Slots,
    blank,
    hands_are_free,
    leg_programme,
    mark,
    moves_leg,
    programme_of,
    shares_given,
)
from asketa_core.poses.recipe import (
    LYING,
    FreeLeg,
    Hands,
    LongLeg,
    NumberSlot,
    PlantedLeg,
    Position,
    Recipe,
    StackSlot,
    StandBase,
    StandingLeg,
    Value,
    Work,
)
from asketa_core.poses.transfers import Station, Technique, transfers
from asketa_core.recent import Itself, Recent
from asketa_core.units import SIDES, Side

LEGS_LONG_APART_DEG = 10.0


STILL: Mapping[Side, tuple[str, ...]] = dict.fromkeys(SIDES, ())


@dataclass(frozen=True)
class Programme:
    """A programme for the engine, by itself in an array (1,), the slots it reads in the order of their numbers, and the
    slots that move each leg."""

    records: Any
    names: tuple[str, ...]
    moves: Mapping[Side, tuple[str, ...]]

    @staticmethod
    def of(record: Record, names: tuple[str, ...] = (), moves: Mapping[Side, tuple[str, ...]] = STILL) -> Programme:
        records = many(1, PROGRAMME)
        records[0] = record
        return Programme(records, names, moves)

    @property
    def record(self) -> Record:
        return self.records[0]


_programmes: Recent[Programme] = Recent(most=8192)
"""Programmes by variation, and what of it they are of: to compare what variations say would take longer than turning one into
numbers."""


def pose_programme(variation: Variation, side: Side) -> Programme:
    """A variation with ``side`` as its worked leg."""
    return _programmes.get((Itself(variation), side), lambda: programme_over(variation, side, slots_read(variation)))


def programme_over(variation: Variation, side: Side, names: tuple[str, ...]) -> Programme:
    """A variation with ``side`` as its worked leg whose set-ups give numbers for some slots. What is set per side may be
    named by side even where the variation sets both alike."""
    recipe = variation.recipe
    above = Above(variation.hold.start_s / 60.0, variation.hold.style == "reps", variation.long_quiet_fold)
    record = programme_of(recipe, variation.position, side, Slots(names), above, variation.shared)
    rules = {side: recipe.worked_rule, side.other: recipe.other_rule}
    return Programme.of(
        record, names, {each: tuple(moves_leg(recipe, rules[each], rules[each.other])) for each in SIDES}
    )


def slots_read(variation: Variation) -> tuple[str, ...]:
    """The slots of a variation that are numbers."""
    return tuple(name for name, slot in variation.setup_slots.items() if isinstance(slot, StackSlot | NumberSlot))


NO_SLOTS = Slots(())


@cache
def standing_quietly() -> Programme:
    """Upright on both feet."""
    recipe = Recipe(
        base=StandBase(rule="stand", knee_deg=0.0),
        both_legs=StandingLeg(rule="standing"),
        works=(Work(quantity="effort"),),
    )
    return Programme.of(programme_of(recipe, "standing", Side.LEFT, NO_SLOTS))


@cache
def rolling() -> Programme:
    """Rolling to the side before rising from a bed or plinth: knees drawn up a little, before the legs go over the edge and the
    hands push up."""
    recipe = Recipe(
        seat="floor",
        recline_deg=0.0,
        both_legs=FreeLeg(rule="free", flexion=50.0, knee=80.0),
        hands=Hands(on="forward"),
        works=(Work(quantity="effort"),),
    )
    return Programme.of(programme_of(recipe, "side_lying", Side.LEFT, NO_SLOTS))


def _resting(position: Position, names: tuple[str, ...], seat: Value, hands: Hands, lean: Value = 0.0) -> Record:
    """A body that sits on something and does nothing with its legs yet."""
    found = blank(Side.LEFT, position)
    slots = Slots(names)
    slots.write(found.rests_on, seat)
    slots.write(found.lean_at, lean)
    found.raised_arms, found.carry = hands.raised_deg, hands.carry
    if hands_are_free(hands, on_feet=False):
        mark(found, ["hands_free"], [None])
    return found


def _on_feet(found: Record, names: tuple[str, ...], surface: str, ahead: Mapping[Side, float]) -> None:
    """Both soles on a surface, so far ahead of where the thighs would be level."""
    for side in SIDES:
        rule = PlantedLeg(rule="planted", rests_on=surface, ahead_of_level_cm=ahead.get(side, 0.0))
        leg_programme(found.leg[who(side)], rule, side, Slots(names))
    found.both_feet_down = 1


def _legs_long(found: Record, side: Side) -> None:
    rule = LongLeg(rule="long", apart_deg=LEGS_LONG_APART_DEG)
    leg_programme(found.leg[who(side)], rule, side, NO_SLOTS)


SEAT = ("seat",)
"""The one number of taking and leaving a seat: its height."""


@cache
def taking_a_seat(technique: str, looked_for: bool = False) -> Programme:
    """The body at the moment a seat is taken or left, feet on the floor. Seats that are ``looked_for`` are not judged by a
    technique: the measuring error is kept."""
    return _taking(_technique(technique), looked_for)


def _technique(name: str) -> Technique:
    return next(each for each in transfers().chair if each.id == name)


def _taking(technique: Technique, looked_for: bool) -> Programme:
    found = _resting("chair", SEAT, "seat", Hands(on="thighs"), technique.lean_deg)
    _on_feet(found, SEAT, "floor", technique.feet)
    shares_given(found, technique.carries)
    found.rising, found.takes_arms = 1, technique.needs_arms
    found.exempt_from_band = technique.gentle and not looked_for
    mark(found, ["held_or_loaded"], SIDES)
    return Programme.of(found, SEAT)


@cache
def station_programme(way: str, at: int) -> Programme:
    """One moment on a way to the floor and up: half kneeling, kneeling, low sitting, sitting on the floor."""
    chosen = next(each for each in transfers().floor if each.id == way)
    return _station(chosen.stations[at], chosen.chair)


def _station(station: Station, by_chair: bool) -> Programme:
    kneels = [
        side
        for side in SIDES
        if station.posture == "kneeling" or (station.posture == "half_kneeling" and side is station.knee_down)
    ]
    hands = Hands(on="thighs", carry=station.hands)
    found = _resting("kneeling" if kneels else "floor_sitting", (), station.seat_cm, hands, station.lean_deg)
    if kneels:
        found.stands_by = Base.KNEEL
    for side in SIDES:
        if side in kneels:
            found.leg[who(side)].rule = LegIs.HALF_KNEELING
        elif station.posture == "floor_sitting":
            _legs_long(found, side)
        else:
            rule = PlantedLeg(rule="planted", rests_on="floor", ahead_of_level_cm=station.feet_ahead_cm.get(side, 0.0))
            leg_programme(found.leg[who(side)], rule, side, NO_SLOTS)
    shares_given(found, station.carries)
    found.rising, found.exempt_from_band = 1, station.posture == "low_sitting"
    mark(found, ["kneeling"], kneels)
    mark(found, ["floor"], [None])
    mark(found, ["held_or_loaded", "beyond_easy_seat"], SIDES)
    if not by_chair:
        mark(found, ["without_chair"], [None])
    return Programme.of(found)


def quiet_sitting(variation: Variation) -> Programme:
    """Sitting upright on the seat with both feet down: where the pose starts from and ends."""
    return _programmes.get((Itself(variation), "quiet sitting"), lambda: _quiet_sitting(variation))


def _quiet_sitting(variation: Variation) -> Programme:
    rule, names = variation.recipe.other_rule, slots_read(variation)
    found = _resting("chair", names, variation.recipe.seat_slot or "floor", Hands(on="thighs"))
    _on_feet(found, names, rule.rests_on if isinstance(rule, PlantedLeg) else "floor", {})
    mark(found, ["held_or_loaded", "not_rising"], SIDES)
    return Programme.of(found, names)


def legs_long(variation: Variation) -> Programme:
    """Legs long and still on the same seat, leaning back on the hands; lying, simply stretched out with the back raised as
    it was."""
    return _programmes.get((Itself(variation), "legs long"), lambda: _legs_long_on(variation))


def _legs_long_on(variation: Variation) -> Programme:
    names, recline = slots_read(variation), variation.recipe.recline_deg
    seat, hands = variation.recipe.seat_slot or "floor", Hands(on="floor_behind", carry=0.2)
    found = _resting(variation.position, names, seat, hands)
    found.lean = Lean.BACK_ON_HANDS
    if variation.position in LYING:
        found.lean = Lean.RECLINED
        Slots(names).write(found.recline, 0.0 if recline is None else recline)
    found.flat_when_low = variation.position == "lying" and recline is not None
    for side in SIDES:
        _legs_long(found, side)
    mark(found, ["held_or_loaded", "not_rising"], SIDES)
    return Programme.of(found, names)
