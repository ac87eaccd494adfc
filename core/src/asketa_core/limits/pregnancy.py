"""Pregnancy: what a record means on a date. Weeks are completed weeks from the due date."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal, get_args

from asketa_core.clientfile import (
    ClientFile,
    Pregnancy,
    PregnancyFacts,
    PregnancyTick,
    Scope,
    TriState,
    due_date,
    pregnancy_week,
)
from asketa_core.clinical import clinical, days, group
from asketa_core.limits.knee import YesNo, daily_fact
from asketa_core.limits.model import RowFile, rows_of

TWINS_EARLIER_WEEKS = round(clinical("pregnancy.twins_earlier", "weeks"))
TWINS_ASK_FROM_WEEK = clinical("pregnancy.twins_ask", "weeks")
LOW_PLACENTA_FROM_WEEK = clinical("pregnancy.low_placenta", "weeks")
GO_AHEAD_DAYS = days("pregnancy.go_ahead")
STOP_TICKS = group("pregnancy.stop_ticks", get_args(PregnancyTick))


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/pregnancy.yaml`` may ask about. With twins ``week`` counts ahead."""

    state: Literal["expecting", "born"]
    week_known: YesNo
    week: int | Literal["unknown"]
    past_due: YesNo
    ticks: Literal["unknown", "stop", "ask", "clean"]
    go_ahead: YesNo
    twins_late: YesNo
    girdle_pain: TriState
    girdle_gap: Literal["known", "unknown"]
    girdle_sore: TriState
    unwell_lying_flat: TriState
    blood_pressure_high: TriState
    birth_go_ahead: YesNo
    caesarean: TriState


@cache
def rows() -> RowFile:
    return rows_of("pregnancy", Context, PregnancyFacts)


def cleared(entry: Pregnancy, scope: Scope, date: dt.date) -> bool:
    """Whether a go-ahead for a scope still counts on a date: through its last day."""
    fresh = dt.timedelta(days=GO_AHEAD_DAYS)
    return any(
        c.date <= date and (scope == "after_birth" or date <= c.date + fresh) and (scope in c.scope or "all" in c.scope)
        for c in entry.clearances
    )


def context(entry: Pregnancy, client: ClientFile, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    week, due = pregnancy_week(facts, date), due_date(facts)
    born = facts.born_on is not None and facts.born_on <= date
    daily = daily_fact(entry.id, client, date)
    sore: TriState = "unknown"
    if facts.girdle_pain == "no":
        sore = "no"
    elif daily is not None and daily.pain_today is not None:
        sore = "yes" if daily.pain_today > 0 else "no"
    ahead = TWINS_EARLIER_WEEKS if facts.babies == "twins" else 0
    return Context(
        state="born" if born else "expecting",
        week_known="yes" if week is not None else "no",
        week="unknown" if week is None else week + ahead,
        past_due="yes" if due is not None and date > due and not born else "no",
        ticks=_ticks(facts, week),
        go_ahead="yes" if cleared(entry, "activity", date) else "no",
        twins_late="yes" if facts.babies == "twins" and (week is None or week >= TWINS_ASK_FROM_WEEK) else "no",
        girdle_pain=facts.girdle_pain,
        girdle_gap="known" if facts.pain_free_gap_cm is not None else "unknown",
        girdle_sore=sore,
        unwell_lying_flat=facts.unwell_lying_flat,
        blood_pressure_high=facts.blood_pressure_high,
        birth_go_ahead="yes" if cleared(entry, "after_birth", date) else "no",
        caesarean=facts.caesarean,
    )


def _ticks(facts: PregnancyFacts, week: int | None) -> Literal["unknown", "stop", "ask", "clean"]:
    """What the list asked beforehand comes to."""
    if not facts.ticks:
        return "unknown"
    if STOP_TICKS & set(facts.ticks):
        return "stop"
    if "low_placenta" in facts.ticks and (week is None or week >= LOW_PLACENTA_FROM_WEEK):
        return "stop"
    return "clean" if facts.ticks == ("none",) else "ask"
