"""Knee pain: what a record means on a date."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal

from asketa_core.body.ranges import Quantity
from asketa_core.clientfile import ClientFile, DailyFact, KneeDiagnosis, KneeFacts, KneePain, KneeSite, TriState
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
    site: KneeSite
    operation_fresh: TriState
    repair_fresh: TriState
    ligament_fresh: TriState
    cleared: YesNo
    red_flag: YesNo
    pain_known: YesNo
    painful: TriState
    sore: YesNo
    forced: Forced
    very_sore: YesNo
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


def _forced(
    entry: KneePain, client: ClientFile, date: dt.date, operation_fresh: TriState, sore: YesNo, pain_known: YesNo
) -> Forced:
    """Whether a knee may rest turned out and bent under load."""
    felt = [r for r in client.responses if r.side == entry.side and r.date <= date and max(r.during, r.after or 0) > 0]
    last_day = max((r.date for r in felt), default=None)
    in_the_knee = any(r.place == "knee" for r in felt if r.date == last_day)
    injury_fresh = _within(entry.facts.since, date, INJURY_FRESH_DAYS)
    if sore == "yes" or in_the_knee or "yes" in (injury_fresh, operation_fresh):
        return "leave"
    known = pain_known == "yes" and "unknown" not in (injury_fresh, operation_fresh)
    return "open" if known else "unknown"


def context(entry: KneePain, client: ClientFile, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    daily = daily_fact(entry.id, client, date)
    pain = daily.pain_today if daily is not None else None
    irritable = daily.irritable if daily is not None else "unknown"
    operation_fresh: TriState = "no"
    if facts.operated != "no":
        known = facts.operation_date if facts.operated == "yes" else None
        operation_fresh = _within(known, date, OPERATION_FRESH_DAYS)
    repair_fresh: TriState = "no"
    if facts.diagnosis == "meniscus_repaired":
        repair_fresh = _within(facts.operation_date, date, REPAIR_FRESH_DAYS)
    pain_known: YesNo = "yes" if pain is not None and irritable != "unknown" else "no"
    sore: YesNo = "yes" if (pain is not None and pain >= SORE_PAIN) or irritable == "yes" else "no"
    measured = any(
        m.quantity is Quantity.KNEE_FLEXION and m.side == entry.side and m.date <= date for m in client.ranges
    )
    return Context(
        diagnosis=facts.diagnosis,
        site=facts.site,
        operation_fresh=operation_fresh,
        repair_fresh=repair_fresh,
        ligament_fresh=_within(facts.operation_date or facts.since, date, LIGAMENT_FRESH_DAYS),
        cleared="yes" if any(c.date <= date for c in entry.clearances) else "no",
        red_flag="yes" if facts.locks_or_gives_way == "yes" and facts.swelling == "yes" else "no",
        pain_known=pain_known,
        painful="unknown" if pain is None else ("yes" if pain > 0 else "no"),
        sore=sore,
        forced=_forced(entry, client, date, operation_fresh, sore, pain_known),
        very_sore="yes" if (pain is not None and pain >= VERY_SORE_PAIN) or irritable == "yes" else "no",
        measured="yes" if measured else "no",
    )
