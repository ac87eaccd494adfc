"""Pain or tingling down a leg, per side: rounding with a straight knee, and what may not wait."""

from __future__ import annotations

from typing import Literal

from asketa_core.answers import Ticks, TriState
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import Kind, asked

Symptom = Literal["none", "saddle_numb", "bladder_or_bowel", "both_legs", "leg_weak"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    below_knee: TriState = "unknown"
    """Whether it goes below the knee: then the nerve itself is more likely meant than a muscle."""
    worse_bending: TriState = "unknown"


KIND = Kind(
    code="sciatica",
    rank=17,
    sides="sided",
    facts=Facts,
    place=(39, 112),
    questions=(asked("below_knee"), asked("worse_bending"), asked("symptoms_now")),
)
