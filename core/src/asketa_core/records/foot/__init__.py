"""A sore foot or ankle, per side: kneeling on a pointed foot, and standing on it alone."""

from __future__ import annotations

from asketa_core.clinical import clinical
from asketa_core.records.facts import NoFacts
from asketa_core.records.kind import Kind, certain
from asketa_core.records.sore import Sore, sore_above

SORE_PAIN = clinical("foot.sore_pain", "of_10")

KIND = Kind(
    code="foot",
    rank=16,
    sides="sided",
    facts=NoFacts,
    context=Sore,
    means=certain(sore_above(SORE_PAIN)),
    place=(35, 203),
    asked_today=lambda facts, date: True,
)
