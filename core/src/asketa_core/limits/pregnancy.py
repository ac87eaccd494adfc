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
from asketa_core.limits.model import Between, RowFile, rows_of

TWINS_EARLIER_WEEKS = round(clinical("pregnancy.twins_earlier", "weeks"))
TWINS_ASK_FROM_WEEK = clinical("pregnancy.twins_ask", "weeks")
LOW_PLACENTA_FROM_WEEK = clinical("pregnancy.low_placenta", "weeks")
GO_AHEAD_DAYS = days("pregnancy.go_ahead")
STOP_TICKS = group("pregnancy.stop_ticks", get_args(PregnancyTick))


SYSTOLIC_HIGH = clinical("pregnancy.systolic_high", "mm_hg")
DIASTOLIC_HIGH = clinical("pregnancy.diastolic_high", "mm_hg")
SYSTOLIC_ALARM = clinical("pregnancy.systolic_alarm", "mm_hg")
DIASTOLIC_ALARM = clinical("pregnancy.diastolic_alarm", "mm_hg")

Pressure = Literal["fine", "high", "alarm", "unknown"]
GoAhead = Literal["none", "valid", "lapsed"]


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rows of ``data/limits/pregnancy.yaml`` may ask about. With twins ``week`` counts ahead; while the
    number of babies is unknown it may be either."""

    state: Literal["expecting", "born"]
    week: int | Between | Literal["unknown"]
    past_due: YesNo
    symptoms: YesNo
    ticks: Literal["not_asked", "stop", "ask", "clean"]
    go_ahead: GoAhead
    twins_late: TriState
    belly_size: Literal["known", "unknown"]
    lies_well: TriState
    girdle_pain: TriState
    girdle_gap: Literal["known", "not_measured"]
    girdle_sore: TriState
    unwell_lying_flat: Literal["yes", "no"]
    pressure: Pressure
    birth_go_ahead: YesNo
    caesarean: TriState


@cache
def rows() -> RowFile:
    return rows_of("pregnancy", Context, PregnancyFacts)


GENERAL: tuple[Scope, ...] = ("activity", "after_birth")
"""What a word on everything answers; the position of baby and placenta and lying flat are questions of their own."""


def _given(entry: Pregnancy, scope: Scope, date: dt.date) -> list[dt.date]:
    return [
        c.date
        for c in entry.clearances
        if c.date <= date and (scope in c.scope or (scope in GENERAL and {"all", "activity"} & set(c.scope)))
    ]


def cleared(entry: Pregnancy, scope: Scope, date: dt.date) -> bool:
    """Whether the word for a scope still counts on a date: in pregnancy through its last day, after the birth where it
    was given since."""
    given = _given(entry, scope, date)
    if scope == "after_birth":
        born = entry.facts.born_on
        return any(scope in c.scope and c.date <= date for c in entry.clearances) or any(
            born is not None and day >= born for day in given
        )
    return bool(given) and date <= max(given) + dt.timedelta(days=GO_AHEAD_DAYS)


def go_ahead(entry: Pregnancy, date: dt.date) -> GoAhead:
    """The general go-ahead: never given, counting, or run out."""
    if not _given(entry, "activity", date):
        return "none"
    return "valid" if cleared(entry, "activity", date) else "lapsed"


def go_ahead_until(entry: Pregnancy, date: dt.date) -> dt.date | None:
    """The last day on which the latest general go-ahead counts."""
    given = _given(entry, "activity", date)
    return max(given) + dt.timedelta(days=GO_AHEAD_DAYS) if given else None


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
    counted: int | Between | Literal["unknown"] = "unknown"
    twins_late: TriState = "no"
    if week is not None:
        ahead = week + TWINS_EARLIER_WEEKS
        counted = week if facts.babies == "one" else ahead if facts.babies == "twins" else Between(week, ahead)
    if facts.babies != "one" and (week is None or week >= TWINS_ASK_FROM_WEEK):
        twins_late = "yes" if facts.babies == "twins" and week is not None else "unknown"
    return Context(
        state="born" if born else "expecting",
        week=counted,
        past_due="yes" if due is not None and date > due and not born else "no",
        symptoms="yes" if facts.alarming == "yes" or _pressure(facts) == "alarm" else "no",
        ticks=_ticks(facts, week),
        go_ahead=go_ahead(entry, date),
        twins_late=twins_late,
        belly_size="known" if week is not None and facts.babies != "unknown" else "unknown",
        lies_well=_lies_well(facts),
        girdle_pain=facts.girdle_pain,
        girdle_gap="known" if facts.pain_free_gap_cm is not None else "not_measured",
        girdle_sore=sore,
        unwell_lying_flat="yes" if facts.unwell_lying_flat == "yes" else "no",
        pressure=_pressure(facts),
        birth_go_ahead="yes" if cleared(entry, "after_birth", date) else "no",
        caesarean=facts.caesarean,
    )


def _pressure(facts: PregnancyFacts) -> Pressure:
    """What the blood pressure comes to: by its figures where there are any, else by what was told."""
    upper, lower = facts.systolic, facts.diastolic
    if upper is None and lower is None:
        told: dict[TriState, Pressure] = {"yes": "high", "no": "fine", "unknown": "unknown"}
        return told[facts.blood_pressure_high]
    if (upper or 0) >= SYSTOLIC_ALARM or (lower or 0) >= DIASTOLIC_ALARM:
        return "alarm"
    if (upper or 0) >= SYSTOLIC_HIGH or (lower or 0) >= DIASTOLIC_HIGH:
        return "high"
    return "unknown" if upper is None or lower is None else "fine"


def _lies_well(facts: PregnancyFacts) -> TriState:
    """Whether baby and placenta lie so that a deep squat needs no word of its own."""
    if facts.placenta == "low" or facts.baby_position in ("bottom_down", "across"):
        return "no"
    return "yes" if facts.placenta == "clear" and facts.baby_position == "head_down" else "unknown"


def _ticks(facts: PregnancyFacts, week: int | None) -> Literal["not_asked", "stop", "ask", "clean"]:
    """What the list asked beforehand comes to."""
    low_late = week is None or week >= LOW_PLACENTA_FROM_WEEK
    if STOP_TICKS & set(facts.ticks) or (("low_placenta" in facts.ticks or facts.placenta == "low") and low_late):
        return "stop"
    if not facts.ticks:
        return "not_asked"
    return "clean" if facts.ticks == ("none",) else "ask"
