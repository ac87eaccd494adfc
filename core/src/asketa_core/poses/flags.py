"""What a posture counts as. Flags limits speak of are named in a pose's file only where nothing shows them; what the
geometry implies is worked out here, so that no author can forget it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from asketa_core.clinical import clinical
from asketa_core.poses.recipe import (
    LYING,
    Crosses,
    DroppedLeg,
    Flag,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    KneelingLeg,
    LegRule,
    LongLeg,
    Position,
    Recipe,
    StandBase,
    StrideBase,
    StrideLeg,
)
from asketa_core.units import SIDES, Side

PRESSED_ON = frozenset({"floor_in_front", "blocks_in_front", "seat_in_front", "floor_behind"})
"""Surfaces below the shoulders, which hands press on rather than hold."""
ON_THE_GROUND = frozenset({"floor_in_front", "blocks_in_front"})


def leg_flags(rule: LegRule) -> tuple[Flag, ...]:
    """What a leg placed by a rule always counts as."""
    found: list[Flag] = []
    if isinstance(rule, ForcedLeg):
        found.append("forced_knee")
    if on_its_knee(rule):
        found.append("kneeling")
    if isinstance(rule, LongLeg | FreeLeg | DroppedLeg) and _bent_over_something(rule):
        found.append("knee_propped")
    if crosses(rule) == "ankle":
        found.append("ankle_lies_over")
    return tuple(found)


def _bent_over_something(rule: LongLeg | FreeLeg | DroppedLeg) -> bool:
    """Whether the knee rests bent over a support, or the lower leg hangs over one."""
    return rule.knee_rests_on is not None if isinstance(rule, LongLeg) else (
        isinstance(rule, FreeLeg) and rule.rests_on is not None
    )  # fmt: skip


def crosses(rule: LegRule) -> Crosses | None:
    """What of a leg lies across the other one."""
    if isinstance(rule, DroppedLeg) and rule.over_thigh is not None:
        return "ankle"
    return rule.crosses if isinstance(rule, ForcedLeg | FreeLeg) else None


def crossing_flags(recipe: Recipe) -> tuple[Flag, ...]:
    """A crossing concerns both legs: the one that lies across, and the one that lies beneath."""
    found = {crosses(rule) for rule in (recipe.worked_rule, recipe.other_rule)}
    named: dict[Crosses, Flag] = {"ankle": "crossed_ankle_over_knee", "knee": "crossed_knee_over_knee"}
    return tuple(flag for which, flag in named.items() if which in found)


def carrying_alone(recipe: Recipe, worked: Side) -> tuple[Side, ...]:
    """The legs that carry the body alone for a moment: the one stood on, the one that steps up, and in a lunge either."""
    if "lunge" in recipe.flags.overall:
        return SIDES
    if isinstance(recipe.stands_on, StandBase) and recipe.stands_on.steps_up:
        return (worked,)
    return (worked.other,) if "one_leg" in recipe.flags.overall else ()


def on_its_knee(rule: LegRule) -> bool:
    return isinstance(rule, KneelingLeg | FoldedLeg) or (isinstance(rule, StrideLeg) and rule.rule == "knee_behind")


def whole_flags(recipe: Recipe, position: Position) -> tuple[Flag, ...]:
    """What a recipe counts as whatever its set-up: arms, hands, how it stands and lies."""
    hands = recipe.hands
    loaded = hands.on in PRESSED_ON and hands.carry >= clinical("shape.hands_loaded", "share") and not recipe.head_rests
    rising = recipe.rising
    on_feet = isinstance(recipe.stands_on, StandBase | StrideBase) and not any(
        on_its_knee(rule) for rule in (recipe.worked_rule, recipe.other_rule)
    )
    found: dict[Flag, bool] = {
        "arms_overhead": hands.raised_deg > clinical("shape.arms_overhead", "deg"),
        "hands_loaded": loaded,
        "standing": on_feet and not rising and not (loaded and hands.on in ON_THE_GROUND),
        "lying": position in LYING,
        "sits_on_floor": position == "floor_sitting",
        "prone": position == "lying" and recipe.recline_deg is None,
        "not_rising": not rising,
        "trunk_free": position not in LYING and recipe.chest_on is None,
    }
    return tuple(flag for flag, holds in found.items() if holds)


def static_flags(recipe: Recipe, position: Position, worked: Side) -> Iterator[tuple[Flag, Side | None]]:
    """Everything a recipe counts as in every set-up, with whom it concerns: what it names and what it implies."""
    named, on_worked, on_other = recipe.flags, leg_flags(recipe.worked_rule), leg_flags(recipe.other_rule)
    yield from ((flag, None) for flag in (*named.overall, *whole_flags(recipe, position)))
    yield from ((flag, worked) for flag in (*named.worked, *on_worked))
    yield from ((flag, worked.other) for flag in (*named.other, *on_other))
    yield from ((flag, side) for flag in (*named.both, *crossing_flags(recipe)) for side in SIDES)
    yield from (("stands_alone", side) for side in carrying_alone(recipe, worked))
    if position == "side_lying" and recipe.both_legs is None:
        # The worked leg is on top; shapes without one lie on either side.
        yield "lies_on", worked.other
    sliding = worked if "active_slide" in named.worked else None
    yield from (("held_or_loaded", side) for side in SIDES if side is not sliding)


EASY_LEAN_DEG = 15.0
"""Sitting with no more lean than this is how a pinching groin sits."""


@dataclass(frozen=True, slots=True)
class Marks:
    """Named and implied flags by whom they concern, set-ups aside."""

    worked: frozenset[Flag]
    other: frozenset[Flag]
    overall: frozenset[Flag]


def marks_of(recipe: Recipe, position: Position) -> Marks:
    named = recipe.flags
    return Marks(
        frozenset((*named.worked, *named.both, *leg_flags(recipe.worked_rule), *crossing_flags(recipe))),
        frozenset((*named.other, *named.both, *leg_flags(recipe.other_rule), *crossing_flags(recipe))),
        frozenset((*named.overall, *whole_flags(recipe, position))),
    )
