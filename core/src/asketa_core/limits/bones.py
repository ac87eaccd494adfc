"""Bones: which row a record enters on a date, from density and fractures."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal

from asketa_core.clientfile import Bones, BonesFacts, ClientFile, TriState
from asketa_core.clinical import clinical, days
from asketa_core.limits.knee import YesNo
from asketa_core.limits.model import RowFile, rows_of

LOW_T = clinical("bones.low_density", "t_score")
NORMAL_T = clinical("bones.normal_density", "t_score")
FRACTURE_FRESH_DAYS = days("bones.fracture_fresh")
HEIGHT_LOST_CM = clinical("bones.height_lost", "cm")
STEADY_S = clinical("bones.steady_stand", "seconds")


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/bones.yaml`` may ask about."""

    row: int | Literal["unknown"]
    fractures_asked: YesNo
    fresh_spine: YesNo
    height_lost: YesNo
    steroids: TriState
    unsteady: TriState
    head_to_wall: YesNo
    cleared: YesNo


@cache
def rows() -> RowFile:
    return rows_of("bones", Context, BonesFacts)


def row_of(facts: BonesFacts) -> int | None:
    """Row 1, 2 or 3 of the rules, 0 when density is normal and nothing broke; ``None`` while too little is
    known. A T-score of exactly -1 is normal; height lost asks for pictures and counts as row 1 meanwhile."""
    fractures = facts.fractures or ()
    low = [f for f in fractures if f.low_energy != "no"]
    if any(f.bone == "vertebra" for f in fractures) or any(f.bone == "hip" for f in low):
        return 1
    if facts.height_lost_cm is not None and facts.height_lost_cm >= HEIGHT_LOST_CM:
        return 1
    if facts.t_score is None:
        return None
    if facts.t_score <= LOW_T:
        return 2
    if facts.t_score < NORMAL_T:
        return 2 if any(f.bone in ("upper_arm", "pelvis", "wrist") for f in low) else 3
    return 0


def context(entry: Bones, client: ClientFile, date: dt.date) -> Context:
    """What a record means on a date. While too little is known the strictest row holds and the missing fact is asked
    for."""
    facts = entry.facts
    row = row_of(facts)
    spine = [f for f in facts.fractures or () if f.bone == "vertebra"]
    fresh = any(f.date is None or (date - f.date).days < FRACTURE_FRESH_DAYS for f in spine)
    unsteady: TriState = "unknown" if facts.fell_last_year == "unknown" else "no"
    if facts.fell_last_year == "yes" or (facts.one_leg_stand_s is not None and facts.one_leg_stand_s < STEADY_S):
        unsteady = "yes"
    return Context(
        row="unknown" if row is None else row,
        fractures_asked="yes" if facts.fractures is not None else "no",
        fresh_spine="yes" if fresh else "no",
        height_lost="yes" if facts.height_lost_cm is not None and facts.height_lost_cm >= HEIGHT_LOST_CM else "no",
        steroids=facts.steroids,
        unsteady=unsteady,
        head_to_wall="yes" if facts.wall_to_head_cm is not None and facts.wall_to_head_cm > 0 else "no",
        cleared="yes" if any(c.date <= date for c in entry.clearances) else "no",
    )
