"""Pregnancy: what a record means on a date. Weeks are completed weeks from the due date."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping

from asketa_core.clientfile import ClientFile, Pregnancy, due_date, pregnancy_week
from asketa_core.limits.knee import daily_fact

TWINS_EARLIER_WEEKS = 4
"""With twins every week of the rules comes this much earlier."""

STOP_TICKS = frozenset(
    ("bleeding", "leaking_fluid", "preterm_contractions", "pre_eclampsia", "short_cervix", "growth_restriction",
     "triplets", "thyroid_or_diabetes_uncontrolled", "heart_or_lung_serious", "anaemia_severe")
)  # fmt: skip
LOW_PLACENTA_FROM_WEEK = 26
GO_AHEAD_WEEKS = 8
"""A midwife's or doctor's go-ahead is asked for again after this long."""


def cleared(entry: Pregnancy, scope: str, date: dt.date) -> bool:
    """Whether a go-ahead for a scope still counts on a date."""
    fresh = dt.timedelta(weeks=GO_AHEAD_WEEKS)
    return any(
        c.date <= date and (scope == "after_birth" or date < c.date + fresh) and (scope in c.scope or "all" in c.scope)
        for c in entry.clearances
    )


def context(entry: Pregnancy, client: ClientFile, date: dt.date) -> Mapping[str, object]:
    """Everything the rows of ``data/limits/pregnancy.yaml`` ask about."""
    facts = entry.facts
    week = pregnancy_week(facts, date)
    born = facts.born_on is not None and facts.born_on <= date
    due = due_date(facts)
    stop = bool(STOP_TICKS & set(facts.ticks)) or (
        "low_placenta" in facts.ticks and (week is None or week >= LOW_PLACENTA_FROM_WEEK)
    )
    asks = [tick for tick in facts.ticks if tick not in STOP_TICKS and tick != "none"]
    daily = daily_fact(entry.id, client, date)
    sore = "unknown"
    if daily is not None and daily.pain_today is not None:
        sore = "yes" if daily.pain_today > 0 else "no"
    ahead = TWINS_EARLIER_WEEKS if facts.babies == "twins" else 0
    return {
        "state": "born" if born else "expecting",
        "week_known": "yes" if week is not None else "no",
        "week": "unknown" if week is None else week + ahead,
        "past_due": "yes" if due is not None and date > due and not born else "no",
        "ticks": "unknown" if not facts.ticks else ("stop" if stop else ("ask" if asks else "clean")),
        "go_ahead": "yes" if cleared(entry, "activity", date) else "no",
        "twins_late": "yes" if facts.babies == "twins" and (week is None or week >= 28) else "no",
        "girdle_pain": facts.girdle_pain,
        "girdle_gap": "known" if facts.pain_free_gap_cm is not None else "unknown",
        "girdle_sore": "no" if facts.girdle_pain == "no" else sore,
        "unwell_lying_flat": facts.unwell_lying_flat,
        "blood_pressure_high": facts.blood_pressure_high,
        "birth_go_ahead": "yes" if cleared(entry, "after_birth", date) else "no",
        "caesarean": facts.caesarean,
    }
