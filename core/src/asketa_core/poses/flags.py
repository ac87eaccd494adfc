"""What a posture counts as. Flags limits speak of are named in a pose's file only where nothing shows them; what the
geometry implies is worked out here, so that no author can forget it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from asketa_core.clinical import clinical
from asketa_core.poses.posture import FlagKey
from asketa_core.poses.recipe import (
    LYING,
    DroppedLeg,
    Flag,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    KneelingLeg,
    LegRule,
    Position,
    Recipe,
    StandBase,
    StrideBase,
    StrideLeg,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import SIDES, Mask, Side

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
    crosses = "ankle" if isinstance(rule, DroppedLeg) and rule.over_thigh is not None else None
    if isinstance(rule, ForcedLeg | FreeLeg):
        crosses = rule.crosses
    if crosses is not None:
        found.append("crossed_ankle_over_knee" if crosses == "ankle" else "crossed_knee_over_knee")
    return tuple(found)


def on_its_knee(rule: LegRule) -> bool:
    return isinstance(rule, KneelingLeg | FoldedLeg) or (isinstance(rule, StrideLeg) and rule.rule == "knee_behind")


def whole_flags(recipe: Recipe, position: Position) -> tuple[Flag, ...]:
    """What a recipe counts as whatever its set-up: arms, hands, how it stands and lies."""
    hands = recipe.hands
    loaded = hands.on in PRESSED_ON and hands.carry >= clinical("shape.hands_loaded", "share") and not recipe.head_rests
    on_feet = isinstance(recipe.stands_on, StandBase | StrideBase) and not any(
        on_its_knee(rule) for rule in (recipe.worked_rule, recipe.other_rule)
    )
    found: dict[Flag, bool] = {
        "arms_overhead": hands.raised_deg > clinical("shape.arms_overhead", "deg"),
        "hands_loaded": loaded,
        "standing": on_feet and not (loaded and hands.on in ON_THE_GROUND),
        "lying": position in LYING,
        "prone": position == "lying" and recipe.recline_deg is None,
    }
    return tuple(flag for flag, holds in found.items() if holds)


def flat_on_the_back(recipe: Recipe, position: Position, setup: SetupBatch) -> Mask:
    """In which set-ups the trunk is raised so little that it lies flat, (n,)."""
    if position != "lying" or recipe.recline_deg is None:
        return np.zeros(setup.size, dtype=bool)
    return np.asarray(setup.number(recipe.recline_deg) < clinical("shape.flat_back", "deg"))


def marked(flags: Iterable[Flag], sides: Iterable[Side | None], size: int) -> dict[FlagKey, Mask]:
    """Flags that hold in every set-up, for some sides."""
    yes = np.ones(size, dtype=bool)
    return {(flag, side): yes for flag in flags for side in sides}


def flags_of(recipe: Recipe, position: Position, worked: Side, setup: SetupBatch) -> dict[FlagKey, Mask]:
    """Everything a recipe counts as in each set-up: what it names and what it implies."""
    n, named = setup.size, recipe.flags
    flags: dict[FlagKey, Mask] = {("soft_seat", None): setup.soft_seat}
    flags |= marked([*named.overall, *whole_flags(recipe, position)], [None], n)
    flags |= marked([*named.worked, *leg_flags(recipe.worked_rule)], [worked], n)
    flags |= marked([*named.other, *leg_flags(recipe.other_rule)], [worked.other], n)
    flags |= marked(named.both, SIDES, n)
    flat = flat_on_the_back(recipe, position, setup)
    if flat.any():
        flags[("supine", None)] = flat
    return flags


@dataclass(frozen=True, slots=True)
class Marks:
    """Named and implied flags by whom they concern, set-ups aside."""

    worked: frozenset[Flag]
    other: frozenset[Flag]
    overall: frozenset[Flag]


def marks_of(recipe: Recipe, position: Position) -> Marks:
    named = recipe.flags
    return Marks(
        frozenset((*named.worked, *named.both, *leg_flags(recipe.worked_rule))),
        frozenset((*named.other, *named.both, *leg_flags(recipe.other_rule))),
        frozenset((*named.overall, *whole_flags(recipe, position))),
    )
