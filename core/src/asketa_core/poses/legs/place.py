"""Placing one leg: a rule of the recipe, a hip and the surfaces give joint positions and hip angles."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.poses.bases import settle_base
from asketa_core.poses.legs.kneeling import folded, kneeling
from asketa_core.poses.legs.leg import Leg
from asketa_core.poses.legs.seated import dropped, forced, free, ground, long, planted, turned_in
from asketa_core.poses.legs.standing import standing, stride
from asketa_core.poses.posture import Indices
from asketa_core.poses.recipe import (
    DroppedLeg,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    GroundLeg,
    KneelingLeg,
    LegRule,
    LongLeg,
    PlantedLeg,
    Recipe,
    StandBase,
    StandingLeg,
    StrideLeg,
    TurnedInLeg,
    slot_names,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Side


def place(
    recipe: Recipe,
    side: Side,
    worked: Side,
    body: Body,
    ranges: Ranges,
    setup: SetupBatch,
    on_chair: bool = False,
    lift_cm: float = 0.0,
) -> Leg:
    """One leg by its rule, solved over the distinct values it and the pelvis depend on."""
    rule = recipe.worked_rule if side is worked else recipe.other_rule
    crossed = isinstance(rule, DroppedLeg) and rule.over_thigh is not None
    named = [*recipe.base_values(), *rule.slots(), *(recipe.other_rule.slots() if crossed else ())]
    own, rows = setup.reduced(slot_names(named), side)
    return _placed(rule, recipe, side, worked, body, ranges, own, rows, on_chair, lift_cm)


def _placed(
    rule: LegRule,
    recipe: Recipe,
    side: Side,
    worked: Side,
    body: Body,
    ranges: Ranges,
    own: SetupBatch,
    rows: Indices,
    on_chair: bool,
    lift_cm: float,
) -> Leg:
    pelvis = settle_base(recipe, worked, body, ranges, own)
    hip = pelvis.hip(body, side)
    match rule:
        case PlantedLeg():
            ahead = own.number(rule.ahead_of_level_cm, side)
            follows = None if recipe.pelvis_follows == "still" else pelvis
            apart = own.number(rule.apart_deg, side) if rule.apart_deg != 0.0 else None
            return planted(body, side, hip, own.number(rule.rests_on, side), ahead, rows, follows, apart)
        case LongLeg():
            support = None if rule.knee_rests_on is None else own.number(rule.knee_rests_on, side)
            apart = own.number(rule.apart_deg, side)
            bend = own.number(rule.bend_deg, side)
            return long(body, side, hip, own.number(rule.rests_on, side), support, apart, rows, bend)
        case StandingLeg():
            base = recipe.stands_on
            leg = standing(body, side, hip, pelvis, rows)
            return replace(leg, sole_down=not (isinstance(base, StandBase) and base.heels_free))
        case GroundLeg():
            return ground(body, side, hip, rule, own, pelvis, rows)
        case FreeLeg():
            return free(body, side, hip, rule, own, pelvis, rows)
        case ForcedLeg():
            return forced(body, side, hip, rule, own, pelvis, rows)
        case KneelingLeg():
            return kneeling(body, side, hip, pelvis, rows)
        case FoldedLeg():
            return folded(body, side, hip, rule, own, pelvis, rows)
        case TurnedInLeg():
            return turned_in(body, side, hip, rule, own, pelvis, rows)
        case StrideLeg():
            return stride(body, side, hip, rule, own, pelvis, rows)
    other = None
    if rule.over_thigh is not None:
        every = np.arange(own.size, dtype=np.int32)
        other = _placed(recipe.other_rule, recipe, side.other, worked, body, ranges, own, every, on_chair, 0.0)
    return dropped(body, ranges, side, hip, rule, own, rows, other, on_chair, lift_cm, pelvis.rotation)
