"""A clot in the past: movement is good, a swollen calf is not."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import Day, Ticks, TriState, YesNo
from asketa_core.clinical import days
from asketa_core.records.entry import Entry
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import About, Kind, Note, asked, certain, what_binds
from asketa_core.records.known import Known

FRESH_DAYS = days("clots.fresh")

Symptom = Literal["none", "calf_pain_or_swelling", "chest_pain_or_breathless"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    on: Day | None = None


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    symptoms: YesNo
    fresh: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    on = entry.facts.on
    fresh: TriState = "unknown" if on is None else "yes" if (date - on).days < FRESH_DAYS else "no"
    return Context(entry.facts.alarming, fresh)


def _mind(about: About) -> Iterable[Note]:
    yield from what_binds(about)
    yield about.said("move", "limit")


KIND = Kind(
    code="past_clots",
    rank=31,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 54),
    questions=(asked("on"), asked("symptoms_now")),
    scopes=("activity",),
    mind=_mind,
)
