"""Pregnancy: what a record means on a date. Weeks are completed weeks from the due date."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Literal, get_args

from pydantic import Field

from asketa_core.answers import Day, Ticks, TriState, YesNo
from asketa_core.body.measures import Pregnancy as GrowingBelly
from asketa_core.clinical import clinical, days, group
from asketa_core.limits.dates import AHEAD_DAYS
from asketa_core.limits.model import Between
from asketa_core.records.asked import pain_today
from asketa_core.records.entry import Entry, Scope
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.implausible import Implausible
from asketa_core.records.kind import About, Fact, Kind, Note, When, asked, certain, if_any, together
from asketa_core.records.known import Known
from asketa_core.texts import Phrase, say

TWINS_EARLIER_WEEKS = round(clinical("pregnancy.twins_earlier", "weeks"))
TWINS_ASK_FROM_WEEK = clinical("pregnancy.twins_ask", "weeks")
LOW_PLACENTA_FROM_WEEK = clinical("pregnancy.low_placenta", "weeks")
GO_AHEAD_DAYS = days("pregnancy.go_ahead")
DUE_AHEAD_DAYS = days("pregnancy.due_ahead")
DUE_PAST_DAYS = days("pregnancy.due_past")
SYSTOLIC_HIGH = clinical("pregnancy.systolic_high", "mm_hg")
DIASTOLIC_HIGH = clinical("pregnancy.diastolic_high", "mm_hg")
SYSTOLIC_ALARM = clinical("pregnancy.systolic_alarm", "mm_hg")
DIASTOLIC_ALARM = clinical("pregnancy.diastolic_alarm", "mm_hg")

PREGNANCY_DAYS = 280
LAST_WEEK = 42

Symptom = Literal[
    "none", "bleeding", "leaking_fluid", "regular_contractions", "dizzy_or_weak", "chest_pain", "breathless_before_effort",
    "headache_with_sight", "sudden_swelling", "upper_belly_pain", "severe_itching", "calf_pain", "baby_moving_less",
]  # fmt: skip
Tick = Literal[
    "none", "bleeding", "leaking_fluid", "preterm_contractions", "low_placenta", "pre_eclampsia", "short_cervix",
    "growth_restriction", "triplets", "thyroid_or_diabetes_uncontrolled", "heart_or_lung_serious", "anaemia_severe",
    "earlier_preterm_or_losses", "gestational_hypertension", "heart_or_lung_mild", "malnutrition", "eating_disorder",
]  # fmt: skip
"""What is asked before working in pregnancy; ``none`` is the explicit answer that nothing applies."""

STOP_TICKS = group("pregnancy.stop_ticks", get_args(Tick))

Pressure = Literal["fine", "high", "alarm", "unknown"]
GoAhead = Literal["none", "valid", "lapsed"]


class Facts(WithSymptoms):
    """The week comes from the due date, else from the last period, else from weeks known on a date. The blood pressure
    in mm Hg; where it is given it decides, and ``blood_pressure_high`` only where it is not."""

    symptoms_now: Ticks[Symptom] = ()
    due_date: Day | None = None
    last_period: Day | None = None
    weeks_known: int | None = Field(default=None, ge=1, le=42)
    weeks_known_on: Day | None = None
    babies: Literal["one", "twins", "unknown"] = "unknown"
    ticks: Ticks[Tick] = ()
    girdle_pain: TriState = "unknown"
    pain_free_gap_cm: float | None = Field(default=None, ge=0, le=80)
    unwell_lying_flat: TriState = "unknown"
    blood_pressure_high: TriState = "unknown"
    systolic: int | None = Field(default=None, ge=60, le=260)
    diastolic: int | None = Field(default=None, ge=30, le=160)
    baby_position: Literal["head_down", "bottom_down", "across", "unknown"] = "unknown"
    placenta: Literal["clear", "low", "unknown"] = "unknown"
    born_on: Day | None = None
    caesarean: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about. With twins ``week`` counts ahead; while the number of babies is unknown it may
    be either."""

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
    unwell_lying_flat: YesNo
    pressure: Pressure
    birth_go_ahead: YesNo
    caesarean: TriState


def due_date(facts: Facts) -> dt.date | None:
    """The due date, from whatever is known."""
    if facts.due_date is not None:
        return facts.due_date
    if facts.last_period is not None:
        return facts.last_period + dt.timedelta(days=PREGNANCY_DAYS)
    if facts.weeks_known is not None and facts.weeks_known_on is not None:
        return facts.weeks_known_on + dt.timedelta(days=PREGNANCY_DAYS - 7 * facts.weeks_known)
    return None


def pregnancy_week(facts: Facts, date: dt.date) -> int | None:
    """Completed weeks of pregnancy on a date; ``None`` while no date is known."""
    due = due_date(facts)
    return None if due is None else (PREGNANCY_DAYS - (due - date).days) // 7


def is_expecting(facts: Facts, date: dt.date) -> bool:
    """Whether no birth is recorded by this date."""
    return facts.born_on is None or date < facts.born_on


def belly(facts: Facts, date: dt.date) -> GrowingBelly | None:
    """How large the belly is to be taken on a date; ``None`` when nobody is pregnant. While the week or the number
    of babies is unknown it is taken as large as it may be: the rules then ask rather than stop."""
    week = pregnancy_week(facts, date)
    if not is_expecting(facts, date) or (week is not None and week < 0):
        return None
    return GrowingBelly(float(LAST_WEEK if week is None else min(week, LAST_WEEK)), twins=facts.babies != "one")


GENERAL: tuple[Scope, ...] = ("activity", "after_birth")
"""What a word on everything answers; the position of baby and placenta and lying flat are questions of their own."""


def _given(entry: Entry[Facts], scope: Scope, date: dt.date) -> list[dt.date]:
    return [
        c.date
        for c in entry.clearances
        if c.date <= date and (scope in c.scope or (scope in GENERAL and {"all", "activity"} & set(c.scope)))
    ]


def cleared(entry: Entry[Facts], scope: Scope, date: dt.date) -> bool:
    """Whether the word for a scope still counts on a date: in pregnancy through its last day, after the birth where it
    was given since."""
    given = _given(entry, scope, date)
    if scope == "after_birth":
        born = entry.facts.born_on
        return any(scope in c.scope and c.date <= date for c in entry.clearances) or any(
            born is not None and day >= born for day in given
        )
    return bool(given) and date <= max(given) + dt.timedelta(days=GO_AHEAD_DAYS)


def go_ahead(entry: Entry[Facts], date: dt.date) -> GoAhead:
    """The general go-ahead: never given, counting, or run out."""
    if not _given(entry, "activity", date):
        return "none"
    return "valid" if cleared(entry, "activity", date) else "lapsed"


def go_ahead_until(entry: Entry[Facts], date: dt.date) -> dt.date | None:
    """The last day on which the latest general go-ahead counts."""
    given = _given(entry, "activity", date)
    return max(given) + dt.timedelta(days=GO_AHEAD_DAYS) if given else None


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    week, due = pregnancy_week(facts, date), due_date(facts)
    born = not is_expecting(facts, date)
    return Context(
        state="born" if born else "expecting",
        week=_counted(facts, week),
        past_due="yes" if due is not None and date > due and not born else "no",
        symptoms="yes" if facts.alarming == "yes" or _pressure(facts) == "alarm" else "no",
        ticks=_ticks(facts, week),
        go_ahead=go_ahead(entry, date),
        twins_late=_twins_late(facts, week),
        belly_size="known" if week is not None and facts.babies != "unknown" else "unknown",
        lies_well=_lies_well(facts),
        girdle_pain=facts.girdle_pain,
        girdle_gap="known" if facts.pain_free_gap_cm is not None else "not_measured",
        girdle_sore=_girdle_sore(facts, pain_today(entry.id, client, date)),
        unwell_lying_flat="yes" if facts.unwell_lying_flat == "yes" else "no",
        pressure=_pressure(facts),
        birth_go_ahead="yes" if cleared(entry, "after_birth", date) else "no",
        caesarean=facts.caesarean,
    )


def _counted(facts: Facts, week: int | None) -> int | Between | Literal["unknown"]:
    if week is None:
        return "unknown"
    ahead = week + TWINS_EARLIER_WEEKS
    return week if facts.babies == "one" else ahead if facts.babies == "twins" else Between(week, ahead)


def _twins_late(facts: Facts, week: int | None) -> TriState:
    if facts.babies == "one" or (week is not None and week < TWINS_ASK_FROM_WEEK):
        return "no"
    return "yes" if facts.babies == "twins" and week is not None else "unknown"


def _girdle_sore(facts: Facts, pain: int | None) -> TriState:
    if facts.girdle_pain == "no":
        return "no"
    return "unknown" if pain is None else "yes" if pain > 0 else "no"


def _pressure(facts: Facts) -> Pressure:
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


def _lies_well(facts: Facts) -> TriState:
    """Whether baby and placenta lie so that a deep squat needs no word of its own."""
    if facts.placenta == "low" or facts.baby_position in ("bottom_down", "across"):
        return "no"
    return "yes" if facts.placenta == "clear" and facts.baby_position == "head_down" else "unknown"


def _ticks(facts: Facts, week: int | None) -> Literal["not_asked", "stop", "ask", "clean"]:
    """What the list asked beforehand comes to."""
    low_late = week is None or week >= LOW_PLACENTA_FROM_WEEK
    if STOP_TICKS & set(facts.ticks) or (("low_placenta" in facts.ticks or facts.placenta == "low") and low_late):
        return "stop"
    if not facts.ticks:
        return "not_asked"
    return "clean" if facts.ticks == ("none",) else "ask"


def _params(entry: Entry[Facts], date: dt.date) -> Mapping[str, Fact]:
    return {"week": pregnancy_week(entry.facts, date), "born": not is_expecting(entry.facts, date)}


def _label(params: Mapping[str, Fact]) -> Phrase:
    if params["born"]:
        return say("entries", KIND.code, "born")
    week = params["week"]
    if not isinstance(week, int):
        return say("entries", KIND.code, "undated")
    return say("entries", KIND.code, "therapist", week=week)


def _mind(about: About) -> Iterable[Note]:
    facts, date = about.entry.facts, about.date
    if not is_expecting(facts, date):
        yield about.said("born", date=facts.born_on)
        yield from about.asks()
        return
    week, due = pregnancy_week(facts, date), due_date(facts)
    if week is None or due is None:
        yield about.said("undated")
    else:
        yield about.said("entry", week=week, date=due)
    if facts.ticks == ("none",):
        yield about.said("ticks_clean")
    until = go_ahead_until(about.entry, date)
    if until is not None:
        runs_out = (until - date).days <= AHEAD_DAYS
        if until >= date:
            yield replace(about.said("go_ahead_until", date=until), waits=runs_out)
        else:
            yield about.waits_for("go_ahead_lapsed", date=until)
    if facts.girdle_pain == "yes":
        if facts.pain_free_gap_cm is not None:
            yield about.said("girdle", "limit", gap=facts.pain_free_gap_cm)
        yield about.pain("girdle_today", "girdle_unknown")
    yield from about.stops()
    yield about.said("stop_and_call", "limit")
    yield from about.asks()


def _implausible(facts: Facts, today: dt.date) -> Iterator[Implausible]:
    given = next(
        (name for name in ("due_date", "last_period", "weeks_known") if getattr(facts, name) is not None), None
    )
    due = due_date(facts)
    if due is None or given is None:
        return
    field = f"facts.{given}"
    if (due - today).days > DUE_AHEAD_DAYS:
        yield Implausible(field, KIND.say("implausible", "far_ahead", weeks=DUE_AHEAD_DAYS // 7))
    elif facts.born_on is None and (today - due).days > DUE_PAST_DAYS:
        yield Implausible(field, KIND.say("implausible", "long_ago", weeks=DUE_PAST_DAYS // 7))


def _beside(entry: Entry[Facts], other: Entry[Facts]) -> Iterator[Implausible]:
    if entry.facts.born_on is None and other.facts.born_on is None:
        yield Implausible("kind", KIND.say("implausible", "recorded_already"))


KIND = Kind(
    code="pregnancy",
    rank=3,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 88),
    questions=(
        *together(
            "dates",
            asked("due_date"),
            if_any("last_period", When("due_date", answered=False)),
            asked("babies"),
        ),
        *together(
            "course",
            asked("girdle_pain"),
            asked("pain_free_gap_cm", When("girdle_pain", ("yes",))),
            asked("unwell_lying_flat"),
        ),
        *together(
            "pressure",
            if_any("systolic"),
            if_any("diastolic"),
            asked("blood_pressure_high", When("systolic", answered=False), When("diastolic", answered=False)),
        ),
        *together(
            "baby",
            asked("baby_position"),
            asked("placenta"),
        ),
        *together(
            "birth",
            if_any("born_on"),
            asked("caesarean", When("born_on")),
        ),
        asked("ticks"),
        asked("symptoms_now"),
    ),
    scopes=("activity", "lying_flat", "deep_squat", "after_birth"),
    read_only_scopes=("all",),
    ahead=frozenset({"due_date"}),
    cleared=cleared,
    params=_params,
    label=_label,
    mind=_mind,
    asked_today=lambda facts, date: facts.girdle_pain != "no",
    list_not_asked=lambda facts: not facts.ticks and facts.born_on is None,
    implausible=_implausible,
    beside=_beside,
    belly=belly,
    keeps_range=is_expecting,
    allows_no_discomfort=is_expecting,
)
