"""Pain or tingling down a leg, per side: rounding with a straight knee, and what may not wait."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import Ticks, TriState, YesNo
from asketa_core.records.entry import Entry
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known

Symptom = Literal["none", "saddle_numb", "bladder_or_bowel", "both_legs", "leg_weak"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    below_knee: TriState = "unknown"
    """Whether it goes below the knee: then the nerve itself is more likely meant than a muscle."""
    worse_bending: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    symptoms: YesNo
    below_knee: TriState
    worse_bending: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.alarming, entry.facts.below_knee, entry.facts.worse_bending)


KIND = Kind(
    code="sciatica",
    rank=17,
    sides="sided",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(42, 118),
    questions=(asked("below_knee"), asked("worse_bending"), asked("symptoms_now")),
)
