"""Knee pain, per side: what a record means on a date."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import ClassVar, Literal

from asketa_core.answers import Day, Ticks, TriState, YesNo
from asketa_core.body.ranges import Quantity
from asketa_core.clinical import clinical, days
from asketa_core.records.asked import irritable_on, pain_today
from asketa_core.records.entry import Entry
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import About, Kind, Note, Operation, When, asked, certain, if_any, together
from asketa_core.records.known import Known

OPERATION_FRESH_DAYS = days("knee.operation_fresh")
REPAIR_FRESH_DAYS = days("knee.repair_fresh")
LIGAMENT_FRESH_DAYS = days("knee.ligament_fresh")
INJURY_FRESH_DAYS = days("knee.injury_fresh")
SORE_PAIN = clinical("knee.sore_pain", "of_10")
VERY_SORE_PAIN = clinical("knee.very_sore_pain", "of_10")

Forced = Literal["leave", "open", "unknown"]
Site = Literal["front", "inner_line", "outer_line", "back", "all_over", "below_kneecap", "unknown"]
Diagnosis = Literal[
    "kneecap", "bursitis", "inner_meniscus", "outer_meniscus", "meniscus_repaired", "arthritis",
    "acl", "pcl", "mcl", "lcl", "replacement", "over_straightens", "unknown",
]  # fmt: skip
Symptom = Literal["none", "locked", "hot_or_fever", "injury_with_pop", "calf_pain_or_swelling"]
Stirs = Literal["stairs", "squatting", "kneeling", "turning", "long_sitting", "standing", "walking"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    site: Site = "unknown"
    diagnosis: Diagnosis = "unknown"
    since: Day | None = None
    operated: TriState = "unknown"
    operation_date: Day | None = None
    swelling: TriState = "unknown"
    locks_or_gives_way: TriState = "unknown"
    stirred_up_by: Ticks[Stirs] = ()


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    diagnosis: Diagnosis
    replaced: YesNo
    """Known to be replaced: rest is closed for no knee of which nobody said so."""
    site: Site
    operation_fresh: TriState
    repair_fresh: TriState
    ligament_fresh: TriState
    red_flag: YesNo
    symptoms: YesNo
    painful: TriState
    sore: TriState
    forced: Forced
    very_sore: TriState
    pain_today: Literal["known", "unknown"]
    irritable: TriState
    injury_fresh: TriState
    measured: YesNo

    WORKED_OUT_OF: ClassVar[Mapping[str, tuple[str, ...]]] = {
        "painful": ("pain_today",),
        "sore": ("pain_today", "irritable"),
        "very_sore": ("pain_today", "irritable"),
        "forced": ("pain_today", "irritable", "injury_fresh", "operation_fresh"),
    }


def _within(start: dt.date | None, date: dt.date, span_days: int) -> TriState:
    if start is None:
        return "unknown"
    return "yes" if (date - start).days < span_days else "no"


def _at_least(pain: int | None, threshold: float, irritable: TriState) -> TriState:
    """Sore by either: this much pain today, or stirred up until the next day."""
    if irritable == "yes" or (pain is not None and pain >= threshold):
        return "yes"
    return "unknown" if pain is None or irritable == "unknown" else "no"


LIGAMENTS = frozenset({"acl", "pcl", "mcl", "lcl"})
"""For these the day since which it hurts is the day of the injury; other knees count from an operation only."""


def _forced(
    entry: Entry[Facts], client: Known, date: dt.date, operation_fresh: TriState, injury_fresh: TriState, sore: TriState
) -> Forced:
    """Whether a knee may rest turned out and bent under load."""
    felt = [r for r in client.responses if r.side == entry.side and r.date <= date and max(r.during, r.after or 0) > 0]
    last_day = max((r.date for r in felt), default=None)
    in_the_knee = any(r.place == "knee" for r in felt if r.date == last_day)
    if in_the_knee or "yes" in (sore, injury_fresh, operation_fresh):
        return "leave"
    return "unknown" if "unknown" in (sore, injury_fresh, operation_fresh) else "open"


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    pain = pain_today(entry.id, client, date)
    lasting = irritable_on(entry.id, client, date)
    # A replaced knee and a repaired meniscus were operated, whatever the tick beside it says.
    operated = "yes" if facts.diagnosis in ("replacement", "meniscus_repaired") else facts.operated
    operation_fresh: TriState = "no"
    if operated != "no":
        operation_fresh = _within(facts.operation_date if operated == "yes" else None, date, OPERATION_FRESH_DAYS)
    repair_fresh: TriState = "no"
    if facts.diagnosis == "meniscus_repaired":
        repair_fresh = _within(facts.operation_date, date, REPAIR_FRESH_DAYS)
    injury_fresh: TriState = "no"
    if facts.diagnosis in LIGAMENTS:
        injury_fresh = _within(facts.since, date, INJURY_FRESH_DAYS)
    sore = _at_least(pain, SORE_PAIN, lasting)
    measured = any(
        m.quantity is Quantity.KNEE_FLEXION and m.side == entry.side and m.date <= date for m in client.ranges
    )
    return Context(
        diagnosis=facts.diagnosis,
        replaced="yes" if facts.diagnosis == "replacement" else "no",
        site=facts.site,
        operation_fresh=operation_fresh,
        repair_fresh=repair_fresh,
        ligament_fresh=_within(facts.operation_date or facts.since, date, LIGAMENT_FRESH_DAYS),
        red_flag="yes" if facts.locks_or_gives_way == "yes" and facts.swelling == "yes" else "no",
        symptoms=facts.alarming,
        painful="unknown" if pain is None else ("yes" if pain > 0 else "no"),
        sore=sore,
        forced=_forced(entry, client, date, operation_fresh, injury_fresh, sore),
        very_sore=_at_least(pain, VERY_SORE_PAIN, lasting),
        pain_today="unknown" if pain is None else "known",
        irritable=lasting,
        injury_fresh=injury_fresh,
        measured="yes" if measured else "no",
    )


def asks_again(entry: Entry[Facts], client: Known, date: dt.date) -> tuple[str, ...]:
    """A fall or new pain at an operated knee makes what was cleared a question again, until a clearance given after it."""
    told = [news.date for news in client.news(date) if news.concerns("knee", entry.side)]
    answers = [c.date for c in entry.clearances if c.date <= date]
    answered = all(on is not None and any(given > on for given in answers) for on in told)
    return () if answered or KIND.operation(entry.facts) is None else ("word_since",)


SAID_OF_EVERY_KNEE = ("knee.three_factors", "knee.twist_far", "knee.twist")


def _mind(about: About) -> Iterable[Note]:
    yield about.head()
    yield about.pain()
    if stirs := about.entry.facts.stirred_up_by:
        yield about.said("stirred_up_by", what=tuple(KIND.answer_words("stirred_up_by", each) for each in stirs))
    yield from about.binding(SAID_OF_EVERY_KNEE)
    yield from about.asks()


KIND = Kind(
    code="knee_pain",
    rank=2,
    sides="sided",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(38, 148),
    questions=(
        *together(
            "what",
            asked("site"),
            asked("diagnosis"),
            asked("since"),
        ),
        *together(
            "operation",
            asked("operated"),
            asked("operation_date", When("operated", ("yes",))),
        ),
        *together(
            "course",
            asked("swelling"),
            asked("locks_or_gives_way"),
            if_any("stirred_up_by"),
        ),
        asked("symptoms_now"),
    ),
    scopes=("all", "loading", "kneeling"),
    asks_again=asks_again,
    params=lambda entry, date: {"diagnosis": entry.facts.diagnosis, "site": entry.facts.site},
    named_by="diagnosis",
    mind=_mind,
    asked_today=lambda facts, date: True,
    irritable_asked=True,
    operation=lambda facts: Operation(facts.operation_date) if facts.operated != "no" else None,
    starting_choices=lambda facts: {"foot": "drawn_up"} if facts.diagnosis == "inner_meniscus" else {},
)
