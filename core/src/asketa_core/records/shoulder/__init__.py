"""A sore shoulder, per side: arms raised high, and weight on the hand. How much it hurts is asked at arrival."""

from __future__ import annotations

from asketa_core.clinical import clinical
from asketa_core.records.facts import NoFacts
from asketa_core.records.kind import Kind, certain
from asketa_core.records.sore import Sore, sore_above

SORE_PAIN = clinical("shoulder.sore_pain", "of_10")

KIND = Kind(
    code="shoulder",
    rank=14,
    sides="sided",
    facts=NoFacts,
    context=Sore,
    means=certain(sore_above(SORE_PAIN)),
    place=(29, 42),
    asked_today=lambda facts, date: True,
)
