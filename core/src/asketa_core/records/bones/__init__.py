"""Bones: which row of the rules a record enters on a date, from density and fractures."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from asketa_core.answers import Day, Ticks, TriState, YesNo
from asketa_core.clinical import clinical, days
from asketa_core.datafiles import Record
from asketa_core.limits.model import Meaning
from asketa_core.records.entry import Entry, Scope
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.implausible import Implausible, past_date
from asketa_core.records.kind import About, Fact, Kind, Note, When, asked, if_any, together
from asketa_core.records.known import Known
from asketa_core.texts import Phrase, say

LOW_T = clinical("bones.low_density", "t_score")
NORMAL_T = clinical("bones.normal_density", "t_score")
LOWEST_T, HIGHEST_T = -6.0, 4.0
FRACTURE_FRESH_DAYS = days("bones.fracture_fresh")
FALL_COUNTS_DAYS = 365
HEIGHT_LOST_CM = clinical("bones.height_lost", "cm")
HEIGHT_MEASURED_CM = clinical("bones.height_measured", "cm")
STEADY_S = clinical("bones.steady_stand", "seconds")

Symptom = Literal[
    "none", "sudden_back_pain", "new_loss_of_height", "leg_weak_or_numb", "bladder_or_bowel", "thigh_ache"
]


class Fracture(Record):
    """A broken bone. Low energy: from standing height or less."""

    bone: Literal["vertebra", "hip", "upper_arm", "pelvis", "wrist", "other"]
    date: Day | None = None
    low_energy: TriState = "unknown"


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    t_score: float | None = Field(default=None, ge=-7, le=5)
    t_score_date: Day | None = None
    fractures: tuple[Fracture, ...] | None = Field(default=None, max_length=40)
    """``None`` while nobody has asked; an empty list when there was none."""
    height_lost_cm: float | None = Field(default=None, ge=0, le=30)
    height_lost_how: Literal["recalled", "measured", "unknown"] = "unknown"
    """Where nobody said, it counts as recalled."""
    steroids: TriState = "unknown"
    fell_last_year: TriState = "unknown"
    one_leg_stand_s: float | None = Field(default=None, ge=0, le=120)
    wall_to_head_cm: float | None = Field(default=None, ge=0, le=30)


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about. ``row`` 0 is normal density."""

    row: int
    fresh_spine: YesNo
    unsteady: TriState
    head_to_wall: YesNo
    symptoms: YesNo


def cleared(entry: Entry[Facts], scope: Scope, date: dt.date) -> bool:
    """Whether a doctor's word on exactly this has been given by a date."""
    return any(c.date <= date and scope in c.scope for c in entry.clearances)


def rows_possible(facts: Facts) -> tuple[int, ...]:
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


def row_of(facts: Facts) -> int | None:
    """The row that is certain, ``None`` while several are possible."""
    possible = rows_possible(facts)
    return possible[0] if len(possible) == 1 else None


STRICTER: dict[int, int] = {0: 3, 3: 2, 2: 1}


def height_lost(facts: Facts) -> bool:
    """Whether so much height went that pictures are asked for: less where it was measured than where it is recalled."""
    enough = HEIGHT_MEASURED_CM if facts.height_lost_how == "measured" else HEIGHT_LOST_CM
    return facts.height_lost_cm is not None and facts.height_lost_cm >= enough


def meanings(entry: Entry[Facts], client: Known, date: dt.date) -> tuple[Meaning, ...]:
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
        for name, holds in (("steroids", facts.steroids == "yes"), ("imaging", height_lost(facts)))
        if holds and not cleared(entry, name, date)
    )
    if waiting and (next_row := STRICTER.get(possible[-1])) is not None:
        found.append(Meaning(_context(entry, client, next_row, date), waiting))
    return tuple(found)


def steady_stand_s(facts: Facts, client: Known, date: dt.date) -> float | None:
    """Seconds on the less steady leg: as measured last, else as recorded with the bones."""
    measured = client.latest_measure("one_leg_stand", date)
    return facts.one_leg_stand_s if measured is None else measured


def _fell(facts: Facts, client: Known, date: dt.date) -> TriState:
    """Whether there was a fall in the last year, told here or as news."""
    falls = [news.date for news in client.news(date) if news.what == "fall"]
    recent = any(on is None or 0 <= (date - on).days <= FALL_COUNTS_DAYS for on in falls)
    return "yes" if recent else facts.fell_last_year


def _context(entry: Entry[Facts], client: Known, row: int, date: dt.date) -> Context:
    facts = entry.facts
    stand, fell = steady_stand_s(facts, client, date), _fell(facts, client, date)
    spine = [f for f in facts.fractures or () if f.bone == "vertebra"]
    fresh = any(f.date is None or (date - f.date).days < FRACTURE_FRESH_DAYS for f in spine)
    unsteady: TriState = "no"
    if fell == "yes" or (stand is not None and stand < STEADY_S):
        unsteady = "yes"
    elif fell == "unknown" or stand is None:
        unsteady = "unknown"
    return Context(
        row=row,
        fresh_spine="yes" if fresh else "no",
        unsteady=unsteady,
        head_to_wall="yes" if facts.wall_to_head_cm is not None and facts.wall_to_head_cm > 0 else "no",
        symptoms=facts.alarming,
    )


def _label(params: Mapping[str, Fact]) -> Phrase:
    row = params["row"]
    return say("entries", KIND.code, "therapist", row=KIND.fact_words("row", "unknown" if row is None else str(row)))


def _mind(about: About) -> Iterable[Note]:
    facts = about.entry.facts
    yield about.head()
    if facts.t_score is not None:
        score, on = facts.t_score, facts.t_score_date
        yield about.said("t_score", t=score) if on is None else about.said("t_score_dated", t=score, date=on)
    yield from about.stops()
    if set(rows_possible(facts)) & {1, 2}:
        yield about.said("roll_to_sit", "limit")
    yield from about.asks()


def _implausible(facts: Facts, today: dt.date) -> Iterator[Implausible]:
    if facts.t_score is not None and not LOWEST_T <= facts.t_score <= HIGHEST_T:
        yield Implausible("facts.t_score", KIND.say("implausible", "t_score", low=LOWEST_T, high=HIGHEST_T))
    for place, fracture in enumerate(facts.fractures or ()):
        yield from past_date(f"facts.fractures.{place}.date", fracture.date, today)


def _beside(entry: Entry[Facts], other: Entry[Facts]) -> Iterator[Implausible]:
    yield Implausible("kind", KIND.say("implausible", "recorded_already"))


KIND = Kind(
    code="bones",
    rank=4,
    sides="middle",
    facts=Facts,
    context=Context,
    means=meanings,
    place=(50, 58),
    rounded_cm=lambda facts: facts.wall_to_head_cm or 0.0,
    questions=(
        *together(
            "density",
            asked("t_score"),
            asked("t_score_date", When("t_score")),
        ),
        *together(
            "height",
            if_any("height_lost_cm"),
            asked("height_lost_how", When("height_lost_cm")),
            if_any("wall_to_head_cm"),
        ),
        *together(
            "falls",
            asked("steroids"),
            asked("fell_last_year"),
            asked("one_leg_stand_s"),
        ),
        asked("fractures"),
        asked("symptoms_now"),
    ),
    scopes=("activity", "imaging", "steroids", "fracture"),
    read_only_scopes=("all",),
    cleared=cleared,
    params=lambda entry, date: {"row": row_of(entry.facts), "t_score": entry.facts.t_score},
    label=_label,
    mind=_mind,
    implausible=_implausible,
    beside=_beside,
    keeps_range=lambda facts, date: row_of(facts) in (1, None),
)
