"""High blood pressure: whether it is under control decides whether the head may come below the heart."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from asketa_core.answers import Ticks, TriState, YesNo
from asketa_core.clinical import clinical
from asketa_core.records.entry import Entry
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known

SYSTOLIC_HIGH = clinical("pressure.systolic_high", "mm_hg")
DIASTOLIC_HIGH = clinical("pressure.diastolic_high", "mm_hg")
SYSTOLIC_ALARM = clinical("pressure.systolic_alarm", "mm_hg")
DIASTOLIC_ALARM = clinical("pressure.diastolic_alarm", "mm_hg")

Symptom = Literal["none", "chest_pain", "headache_with_sight", "breathless_at_rest", "one_sided_weakness"]


class Facts(WithSymptoms):
    """In mm Hg. One good reading does not make up for being told that it is not under control."""

    symptoms_now: Ticks[Symptom] = ()
    controlled: TriState = "unknown"
    systolic: int | None = Field(default=None, ge=60, le=260)
    diastolic: int | None = Field(default=None, ge=30, le=160)


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    symptoms: YesNo
    controlled: TriState


def controlled(facts: Facts) -> TriState:
    """Not under control where it was told so or a figure says so; where both figures are known by them, else as told."""
    if facts.controlled == "no" or (facts.systolic is None and facts.diastolic is None):
        return facts.controlled
    if (facts.systolic or 0) >= SYSTOLIC_HIGH or (facts.diastolic or 0) >= DIASTOLIC_HIGH:
        return "no"
    return "unknown" if facts.systolic is None or facts.diastolic is None else "yes"


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    facts = entry.facts
    alarm = (facts.systolic or 0) >= SYSTOLIC_ALARM or (facts.diastolic or 0) >= DIASTOLIC_ALARM
    return Context("yes" if alarm else facts.alarming, controlled(facts))


KIND = Kind(
    code="blood_pressure",
    rank=20,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 48),
    questions=(
        asked("controlled"),
        asked("systolic"),
        asked("diastolic"),
        asked("symptoms_now"),
    ),
)
