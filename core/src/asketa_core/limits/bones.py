"""Bones: which row a record enters on a date, from density and fractures."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache

from asketa_core.clientfile import Bones, BonesFacts, ClientFile, Scope, TriState
from asketa_core.clinical import clinical, days
from asketa_core.limits.knee import YesNo
from asketa_core.limits.model import Meaning, RowFile, rows_of

LOW_T = clinical("bones.low_density", "t_score")
NORMAL_T = clinical("bones.normal_density", "t_score")
FRACTURE_FRESH_DAYS = days("bones.fracture_fresh")
HEIGHT_LOST_CM = clinical("bones.height_lost", "cm")
HEIGHT_MEASURED_CM = clinical("bones.height_measured", "cm")
STEADY_S = clinical("bones.steady_stand", "seconds")


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/bones.yaml`` may ask about. ``row`` 0 is normal density."""

    row: int
    fresh_spine: YesNo
    unsteady: TriState
    head_to_wall: YesNo
    symptoms: YesNo


@cache
def rows() -> RowFile:
    return rows_of("bones", Context, BonesFacts)


def cleared(entry: Bones, scope: Scope, date: dt.date) -> bool:
    """Whether a doctor's word on exactly this has been given by a date."""
    return any(c.date <= date and scope in c.scope for c in entry.clearances)


def rows_possible(facts: BonesFacts) -> tuple[int, ...]:
    """The rows of the rules a record may enter, from the least strict that is certain to the strictest: 0 (normal
    density, nothing broken), then 3, 2, 1. A T-score of exactly -1 is normal; a broken vertebra enters row 1 by
    itself."""
    fractures = facts.fractures or ()
    low = [f for f in fractures if f.low_energy != "no"]
    if any(f.bone == "vertebra" for f in fractures) or any(f.bone == "hip" for f in low):
        return (1,)
    by_density: tuple[int, ...] = (0, 3, 2)
    if facts.t_score is not None:
        thin = facts.t_score < NORMAL_T and any(f.bone in ("upper_arm", "pelvis", "wrist") for f in low)
        by_density = (2,) if facts.t_score <= LOW_T or thin else (3,) if facts.t_score < NORMAL_T else (0,)
        if by_density == (3,) and facts.fractures is None:
            by_density = (3, 2)
    return by_density if facts.fractures is not None else (*by_density, 1)


def row_of(facts: BonesFacts) -> int | None:
    """The row that is certain, ``None`` while several are possible."""
    possible = rows_possible(facts)
    return possible[0] if len(possible) == 1 else None


STRICTER: dict[int, int] = {0: 3, 3: 2, 2: 1}


def height_lost(facts: BonesFacts) -> bool:
    """Whether so much height went that pictures are asked for: less where it was measured than where it is recalled."""
    enough = HEIGHT_MEASURED_CM if facts.height_lost_how == "measured" else HEIGHT_LOST_CM
    return facts.height_lost_cm is not None and facts.height_lost_cm >= enough


def meanings(entry: Bones, client: ClientFile, date: dt.date) -> tuple[Meaning, ...]:
    """What a record means on a date. The least strict row that is possible holds; every stricter one that a missing
    fact may bring, and the next one while steroids or lost height wait for a doctor's word, may."""
    facts = entry.facts
    possible = rows_possible(facts)
    found = [Meaning(_context(entry, client, possible[0], date))]
    unknown = tuple(
        name for name, known in (("density", facts.t_score), ("fractures", facts.fractures)) if known is None
    )
    found += [Meaning(_context(entry, client, row, date), unknown) for row in possible[1:]]
    waiting = tuple(
        name
        for name, holds, scope in (
            ("steroids", facts.steroids == "yes", "steroids"),
            ("imaging", height_lost(facts), "imaging"),
        )
        if holds and not cleared(entry, scope, date)  # type: ignore[arg-type]
    )
    if waiting and (next_row := STRICTER.get(possible[-1])) is not None:
        found.append(Meaning(_context(entry, client, next_row, date), waiting))
    return tuple(found)


def steady_stand_s(facts: BonesFacts, client: ClientFile, date: dt.date) -> float | None:
    """Seconds on the less steady leg: as measured last, else as recorded with the bones."""
    measured = client.latest_measure("one_leg_stand", date)
    return facts.one_leg_stand_s if measured is None else measured


def _context(entry: Bones, client: ClientFile, row: int, date: dt.date) -> Context:
    facts = entry.facts
    stand = steady_stand_s(facts, client, date)
    spine = [f for f in facts.fractures or () if f.bone == "vertebra"]
    fresh = any(f.date is None or (date - f.date).days < FRACTURE_FRESH_DAYS for f in spine)
    unsteady: TriState = "no"
    if facts.fell_last_year == "yes" or (stand is not None and stand < STEADY_S):
        unsteady = "yes"
    elif facts.fell_last_year == "unknown" or stand is None:
        unsteady = "unknown"
    return Context(
        row=row,
        fresh_spine="yes" if fresh else "no",
        unsteady=unsteady,
        head_to_wall="yes" if facts.wall_to_head_cm is not None and facts.wall_to_head_cm > 0 else "no",
        symptoms=facts.alarming,
    )
