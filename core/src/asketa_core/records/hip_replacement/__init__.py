"""Hip replacement, per side: what a record means on a date.

Precautions end only by a dated clearance for their scope; after a revision or a dislocation only the
surgeon's counts. The week setting ends the fixed list of the first weeks and nothing else.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Literal

from pydantic import Field

from asketa_core.answers import Day, Ticks, TriState, YesNo
from asketa_core.clinical import clinical
from asketa_core.limits.dates import weeks_between
from asketa_core.poses.posture import Readout
from asketa_core.records.entry import Clearance, Entry, Scope
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.implausible import Implausible
from asketa_core.records.instructions import figures_on
from asketa_core.records.kind import About, Fact, Kind, Note, Opened, Operation, When, asked, certain, if_any, together
from asketa_core.records.known import Known
from asketa_core.texts import Phrase, say

FLOOR_STOP_WEEKS = clinical("hip.floor_stop", "weeks")

Approach = Literal["posterior", "direct_anterior", "anterolateral", "lateral", "unknown"]
WeightBearing = Literal["full", "partial", "touch", "unknown"]
Symptom = Literal[
    "none", "sudden_groin_pain", "leg_shorter_or_turned", "cannot_take_weight", "clunk_or_giving_way", "hot_wound_or_fever",
    "calf_pain_or_swelling", "chest_pain_or_breathless",
]  # fmt: skip
"""What happens now and has to be seen by a doctor first; ``none`` is the explicit answer that nothing does."""


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    date: Day | None = None
    approach: Approach = "unknown"
    prosthesis: Literal["total", "half", "resurfacing", "revision", "unknown"] = "unknown"
    half_because: Literal["fall", "arthritis", "other", "unknown"] = "unknown"
    """Why only half a joint was replaced; after a fall the bones are asked about."""
    dislocated: TriState = "unknown"
    abductor_repair: TriState = "unknown"
    weight_bearing: WeightBearing = "unknown"
    trouble_since: TriState = "unknown"
    """A fall, new pain or a dislocation since the precautions ended."""
    trouble_on: Day | None = None
    """When that was; a clearance given later answers it."""
    surgeon_bend_deg: float | None = Field(default=None, ge=30, le=140)
    leg_length_difference_cm: float | None = Field(default=None, ge=-8, le=8)
    school: Literal["until_cleared", "for_life"] = "until_cleared"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    weeks: int | Literal["unknown"]
    period: Literal["before_6", "6_to_end", "after", "unknown"]
    approach: Approach
    surgeon_bend: YesNo
    """Whether the surgeon set a bend of their own, which then holds whatever the approach."""
    abductor_repair: TriState
    weight_bearing: WeightBearing
    precautions: Literal["run", "ended"]
    measured_since: YesNo
    symptoms: YesNo


@cache
def precaution_scopes(approach: Approach) -> tuple[Scope, ...]:
    """What an approach restricts until it is cleared: the scopes of its own rows."""
    until_cleared = (row for row in KIND.rows.rows if row.scope is not None and row.when.get("surgeon_bend") != "yes")
    found = [row.scope for row in until_cleared if approach == "unknown" or _names(row.when.get("approach"), approach)]
    return tuple(dict.fromkeys(scope for scope in found if scope is not None))


def _names(wanted: object, approach: Approach) -> bool:
    return wanted is None or wanted == approach or (isinstance(wanted, tuple) and approach in wanted)


def counting_clearances(entry: Entry[Facts], date: dt.date) -> list[Clearance]:
    """Clearances given by ``date`` that count for this joint."""
    if entry.facts.school == "for_life":
        return []
    surgeon_only = entry.facts.prosthesis == "revision" or entry.facts.dislocated != "no"
    return [c for c in entry.clearances if c.date <= date and (c.who == "surgeon" or not surgeon_only)]


def cleared(entry: Entry[Facts], scope: Scope, date: dt.date) -> bool:
    return any(scope in c.scope or "all" in c.scope for c in counting_clearances(entry, date))


def asks_again(entry: Entry[Facts], client: Known, date: dt.date) -> tuple[str, ...]:
    """What makes ended precautions a question again: a fall, new pain or dislocation, told here or as news, until a
    clearance given after it. What nobody asked about asks nothing."""
    facts = entry.facts
    told = [facts.trouble_on] if facts.trouble_since == "yes" else []
    told += [news.date for news in client.news(date) if news.concerns("hip", entry.side)]
    happened = [on for on in told if on is None or on <= date]
    answers = [c.date for c in counting_clearances(entry, date)]
    answered = all(on is not None and any(given > on for given in answers) for on in happened)
    return () if answered else ("word_since",)


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    """What a record means on a date."""
    facts = entry.facts
    weeks = weeks_between(facts.date, date) if facts.date is not None else None
    period: Literal["before_6", "6_to_end", "after", "unknown"] = "after"
    if weeks is None:
        period = "unknown"
    elif weeks < FLOOR_STOP_WEEKS:
        period = "before_6"
    elif weeks < client.settings.first_weeks_after_hip:
        period = "6_to_end"
    still_running = [scope for scope in precaution_scopes(facts.approach) if not cleared(entry, scope, date)]
    said_otherwise = ("hip.bend", Readout.HIP_BEND) in figures_on(entry.instructions, date)
    measured = facts.date is not None and any(
        m.side == entry.side and m.quantity.value.startswith(("hip_", "open_")) and facts.date <= m.date <= date
        for m in client.ranges
    )
    return Context(
        weeks=weeks if weeks is not None else "unknown",
        period=period,
        approach=facts.approach,
        surgeon_bend="yes" if facts.surgeon_bend_deg is not None or said_otherwise else "no",
        abductor_repair=facts.abductor_repair,
        # After the first weeks a leg takes the weight unless something else was written down.
        weight_bearing="full" if facts.weight_bearing == "unknown" and period == "after" else facts.weight_bearing,
        precautions="run" if still_running else "ended",
        measured_since="yes" if measured else "no",
        symptoms=facts.alarming,
    )


def _params(entry: Entry[Facts], date: dt.date) -> Mapping[str, Fact]:
    weeks = weeks_between(entry.facts.date, date) if entry.facts.date is not None else None
    return {"approach": entry.facts.approach, "week": weeks}


def _label(params: Mapping[str, Fact]) -> Phrase:
    approach, week = KIND.fact_words("approach", str(params["approach"])), params["week"]
    if not isinstance(week, int):
        return say("entries", KIND.code, "undated", approach=approach)
    return say("entries", KIND.code, "therapist", approach=approach, week=week)


def _mind(about: About) -> Iterable[Note]:
    entry, facts, date = about.entry, about.entry.facts, about.date
    yield about.head()
    yield from about.stops()
    now = context(entry, about.client, date)
    if now.precautions == "ended":
        given = max(clearance.date for clearance in counting_clearances(entry, date))
        yield about.said("cleared", date=given)
    elif now.period == "after":
        yield about.waits_for("clearance_due", weeks=about.client.settings.first_weeks_after_hip)
    else:
        yield about.said("no_clearance")
    seat = about.lowest_seat_cm() if now.precautions == "run" else None
    if seat is not None:
        yield about.said("seat", height=round(seat))
    if facts.leg_length_difference_cm:
        words = KIND.say("mind", "leg_length", value=facts.leg_length_difference_cm)
        yield about.note(words, middle=True)
    yield from about.asks()


def _opens(facts: Facts) -> Iterable[Opened]:
    """Half a hip after a fall asks about the bones."""
    if facts.prosthesis == "half" and facts.half_because == "fall":
        yield Opened("bones", {"fractures": [{"bone": "hip", "date": facts.date, "low_energy": "yes"}]})


def _beside(entry: Entry[Facts], other: Entry[Facts]) -> Iterator[Implausible]:
    if entry.side is other.side:
        yield Implausible("side", KIND.say("implausible", "replaced_already"))


KIND = Kind(
    code="hip_replacement",
    rank=1,
    sides="sided",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(40, 99),
    questions=(
        *together(
            "operation",
            asked("date"),
            asked("approach"),
            asked("prosthesis"),
            asked("half_because", When("prosthesis", ("half",))),
        ),
        *together(
            "since_then",
            asked("weight_bearing"),
            asked("dislocated"),
            asked("abductor_repair"),
            asked("trouble_since"),
            asked("trouble_on", When("trouble_since", ("yes",))),
            if_any("leg_length_difference_cm"),
        ),
        *together(
            "said",
            if_any("surgeon_bend_deg"),
            asked("school"),
        ),
        asked("symptoms_now"),
    ),
    scopes=("all", "bend", "midline", "turning_in", "turning_out", "extension", "abductors", "loading"),
    cleared=cleared,
    asks_again=asks_again,
    params=_params,
    label=_label,
    mind=_mind,
    beside=_beside,
    operation=lambda facts: Operation(facts.date),
    opens=_opens,
)
