"""A sore wrist, per side: weight on the hand. How much it hurts is asked at arrival."""

from __future__ import annotations

from asketa_core.clinical import clinical
from asketa_core.records.facts import NoFacts
from asketa_core.records.kind import Kind, certain
from asketa_core.records.sore import Sore, sore_above

SORE_PAIN = clinical("wrist.sore_pain", "of_10")

KIND = Kind(
    code="wrist",
    rank=13,
    sides="sided",
    facts=NoFacts,
    context=Sore,
    means=certain(sore_above(SORE_PAIN)),
    place=(16, 105),
    asked_today=lambda facts, date: True,
)
