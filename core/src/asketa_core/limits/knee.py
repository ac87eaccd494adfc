"""Knee pain: what a record means on a date."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal

from asketa_core.body.ranges import Quantity
from asketa_core.clientfile import (
    ClientFile,
    DailyFact,
    KneeDiagnosis,
    KneeFacts,
    KneePain,
    KneeSite,
    Scope,
    TriState,
)
from asketa_core.clinical import clinical, days
from asketa_core.limits.model import RowFile, rows_of

YesNo = Literal["yes", "no"]
Forced = Literal["leave", "open", "unknown"]

DAILY_FACT_DAYS = days("daily.counts")
OPERATION_FRESH_DAYS = days("knee.operation_fresh")
REPAIR_FRESH_DAYS = days("knee.repair_fresh")
LIGAMENT_FRESH_DAYS = days("knee.ligament_fresh")
INJURY_FRESH_DAYS = days("knee.injury_fresh")
SORE_PAIN = clinical("knee.sore_pain", "of_10")
VERY_SORE_PAIN = clinical("knee.very_sore_pain", "of_10")


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/knee.yaml`` may ask about."""

    diagnosis: KneeDiagnosis
    replaced: YesNo
    """Known to be replaced: rest is closed for no knee of which nobody said so."""
    site: KneeSite
    operation_fresh: TriState
    repair_fresh: TriState
    ligament_fresh: TriState
    red_flag: YesNo
    symptoms: YesNo
    painful: TriState
    sore: TriState
    forced: Forced
    very_sore: TriState
    measured: YesNo


@cache
def rows() -> RowFile:
    return rows_of("knee", Context, KneeFacts)


def daily_fact(entry_id: str, client: ClientFile, date: dt.date) -> DailyFact | None:
    """The last answers given for an entry up to ``date`` that still count."""
    known = [f for f in client.daily if f.entry_id == entry_id and f.date <= date]
    latest = max(known, key=lambda f: f.date, default=None)
    if latest is None or (date - latest.date).days > DAILY_FACT_DAYS:
        return None
    return latest


def _within(start: dt.date | None, date: dt.date, span_days: int) -> TriState:
    if start is None:
        return "unknown"
    return "yes" if (date - start).days < span_days else "no"


def cleared(entry: KneePain, scope: Scope, date: dt.date) -> bool:
    """Whether a clearance for a scope has been given by a date."""
    return any(c.date <= date and (scope in c.scope or "all" in c.scope) for c in entry.clearances)


def _at_least(pain: int | None, threshold: float, irritable: TriState) -> TriState:
    """Sore by either: this much pain today, or stirred up until the next day."""
    if irritable == "yes" or (pain is not None and pain >= threshold):
        return "yes"
    return "unknown" if pain is None or irritable == "unknown" else "no"


LIGAMENTS = frozenset({"acl", "pcl", "mcl", "lcl"})
"""For these the day since which it hurts is the day of the injury; other knees count from an operation only."""


def _forced(entry: KneePain, client: ClientFile, date: dt.date, operation_fresh: TriState, sore: TriState) -> Forced:
    """Whether a knee may rest turned out and bent under load."""
    felt = [r for r in client.responses if r.side == entry.side and r.date <= date and max(r.during, r.after or 0) > 0]
    last_day = max((r.date for r in felt), default=None)
    in_the_knee = any(r.place == "knee" for r in felt if r.date == last_day)
    injury_fresh: TriState = "no"
    if entry.facts.diagnosis in LIGAMENTS:
        injury_fresh = _within(entry.facts.since, date, INJURY_FRESH_DAYS)
    if in_the_knee or "yes" in (sore, injury_fresh, operation_fresh):
        return "leave"
    return "unknown" if "unknown" in (sore, injury_fresh, operation_fresh) else "open"


def context(entry: KneePain, client: ClientFile, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    daily = daily_fact(entry.id, client, date)
    pain = daily.pain_today if daily is not None else None
    irritable = daily.irritable if daily is not None else "unknown"
    # A replaced knee and a repaired meniscus were operated, whatever the tick beside it says.
    operated = "yes" if facts.diagnosis in ("replacement", "meniscus_repaired") else facts.operated
    operation_fresh: TriState = "no"
    if operated != "no":
        operation_fresh = _within(facts.operation_date if operated == "yes" else None, date, OPERATION_FRESH_DAYS)
    repair_fresh: TriState = "no"
    if facts.diagnosis == "meniscus_repaired":
        repair_fresh = _within(facts.operation_date, date, REPAIR_FRESH_DAYS)
    sore = _at_least(pain, SORE_PAIN, irritable)
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
        forced=_forced(entry, client, date, operation_fresh, sore),
        very_sore=_at_least(pain, VERY_SORE_PAIN, irritable),
        measured="yes" if measured else "no",
    )
