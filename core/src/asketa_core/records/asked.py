"""What is asked at arrival, and how long it counts."""

from __future__ import annotations

import datetime as dt

from asketa_core.answers import TriState
from asketa_core.client.daily import DailyFact
from asketa_core.clinical import days
from asketa_core.records.known import Known

DAILY_FACT_DAYS = days("daily.counts")


def daily_fact(entry_id: str, client: Known, date: dt.date) -> DailyFact | None:
    """The last answers given for an entry up to ``date`` that still count."""
    known = [f for f in client.daily if f.entry_id == entry_id and f.date <= date]
    latest = max(known, key=lambda f: f.date, default=None)
    if latest is None or (date - latest.date).days > DAILY_FACT_DAYS:
        return None
    return latest


def pain_today(entry_id: str, client: Known, date: dt.date) -> int | None:
    """How much it hurts, 0–10, as asked at arrival; ``None`` where nobody asked."""
    daily = daily_fact(entry_id, client, date)
    return None if daily is None else daily.pain_today


def irritable_on(entry_id: str, client: Known, date: dt.date) -> TriState:
    """Whether it stays sore until the next day, as last told; a score given since without it does not renew it."""
    told = [
        f for f in client.daily
        if f.entry_id == entry_id and f.irritable != "unknown" and 0 <= (date - f.date).days <= DAILY_FACT_DAYS
    ]  # fmt: skip
    latest = max(told, key=lambda f: f.date, default=None)
    return "unknown" if latest is None else latest.irritable


def sore_from(entry_id: str, client: Known, date: dt.date, pain: float) -> TriState:
    """Whether it hurts by so much or more today; ``unknown`` where nobody asked."""
    now = pain_today(entry_id, client, date)
    return "unknown" if now is None else "yes" if now >= pain else "no"
