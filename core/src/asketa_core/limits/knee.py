"""Knee pain: what a record means on a date."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping

from asketa_core.body.ranges import Quantity
from asketa_core.clientfile import ClientFile, DailyFact, KneePain
from asketa_core.limits.dates import weeks_between

DAILY_FACT_DAYS = 14
"""A fact asked at arrival counts this long; after that it is unknown again."""

OPERATION_FRESH_WEEKS = 12
REPAIR_FRESH_DAYS = 182
LIGAMENT_FRESH_DAYS = 365
INJURY_FRESH_DAYS = 84


def daily_fact(entry_id: str, client: ClientFile, date: dt.date) -> DailyFact | None:
    """The last answers given for an entry up to ``date`` that still count."""
    known = [f for f in client.daily if f.entry_id == entry_id and f.date <= date]
    latest = max(known, key=lambda f: f.date, default=None)
    if latest is None or (date - latest.date).days > DAILY_FACT_DAYS:
        return None
    return latest


def _within(start: dt.date | None, date: dt.date, days: int) -> str:
    if start is None:
        return "unknown"
    return "yes" if (date - start).days < days else "no"


def _forced(
    entry: KneePain, client: ClientFile, date: dt.date, operation_fresh: str, sore: str, pain_known: str
) -> str:
    """Whether a knee may rest turned out and bent under load: ``leave``, ``open``, or ``unknown``."""
    felt = [r for r in client.responses if r.side == entry.side and r.date <= date and max(r.during, r.after) > 0]
    last_day = max((r.date for r in felt), default=None)
    in_the_knee = any(r.place == "knee" for r in felt if r.date == last_day)
    injury_fresh = _within(entry.facts.since, date, INJURY_FRESH_DAYS)
    if sore == "yes" or in_the_knee or "yes" in (injury_fresh, operation_fresh):
        return "leave"
    known = pain_known == "yes" and "unknown" not in (injury_fresh, operation_fresh)
    return "open" if known else "unknown"


def context(entry: KneePain, client: ClientFile, date: dt.date) -> Mapping[str, object]:
    """Everything the rows of ``data/limits/knee.yaml`` ask about."""
    facts = entry.facts
    daily = daily_fact(entry.id, client, date)
    pain = daily.pain_today if daily is not None else None
    irritable = daily.irritable if daily is not None else "unknown"
    if facts.operated == "no":
        operation_fresh = "no"
    elif facts.operated == "unknown" or facts.operation_date is None:
        operation_fresh = "unknown"
    else:
        operation_fresh = "yes" if weeks_between(facts.operation_date, date) < OPERATION_FRESH_WEEKS else "no"
    repair_fresh = "no"
    if facts.diagnosis == "meniscus_repaired":
        repair_fresh = _within(facts.operation_date, date, REPAIR_FRESH_DAYS)
    pain_known = "yes" if pain is not None and irritable != "unknown" else "no"
    sore = "yes" if (pain is not None and pain >= 4) or irritable == "yes" else "no"
    return {
        "diagnosis": facts.diagnosis,
        "site": facts.site,
        "operation_fresh": operation_fresh,
        "repair_fresh": repair_fresh,
        "ligament_fresh": _within(facts.operation_date or facts.since, date, LIGAMENT_FRESH_DAYS),
        "cleared": "yes" if any(c.date <= date for c in entry.clearances) else "no",
        "red_flag": "yes" if facts.locks_or_gives_way == "yes" and facts.swelling == "yes" else "no",
        "pain_known": pain_known,
        "painful": "unknown" if pain is None else ("yes" if pain > 0 else "no"),
        "sore": sore,
        "forced": _forced(entry, client, date, operation_fresh, sore, pain_known),
        "very_sore": "yes" if (pain is not None and pain >= 5) or irritable == "yes" else "no",
        "measured": "yes"
        if any(m.quantity is Quantity.KNEE_FLEXION and m.side == entry.side and m.date <= date for m in client.ranges)
        else "no",
    }
