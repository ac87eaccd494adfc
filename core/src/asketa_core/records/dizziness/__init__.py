"""Dizziness: slow rises, a hand on something."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import Ticks, TriState, YesNo
from asketa_core.records.entry import Entry
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import About, Kind, Note, asked, certain, what_binds
from asketa_core.records.known import Known

Symptom = Literal["none", "fainted", "speech_or_sight", "one_sided_weakness", "chest_pain", "worst_headache"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    on_rising: TriState = "unknown"
    head_moving: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    symptoms: YesNo
    on_rising: TriState
    head_moving: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.alarming, entry.facts.on_rising, entry.facts.head_moving)


def _mind(about: About) -> Iterable[Note]:
    yield from what_binds(about)
    yield about.said("rise_slowly", "limit")


KIND = Kind(
    code="dizziness",
    rank=22,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 6),
    questions=(asked("on_rising"), asked("head_moving"), asked("symptoms_now")),
    mind=_mind,
)
