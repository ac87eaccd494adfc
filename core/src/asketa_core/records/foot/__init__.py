"""A sore foot or ankle, per side: kneeling on a pointed foot, and standing on it alone."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any

from asketa_core.clinical import clinical
from asketa_core.records.asked import sore_from
from asketa_core.records.entry import Entry
from asketa_core.records.facts import NoFacts, TriState
from asketa_core.records.kind import Kind, certain
from asketa_core.records.known import Known

SORE_PAIN = clinical("foot.sore_pain", "of_10")


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    sore: TriState


def context(entry: Entry[Any], client: Known, date: dt.date) -> Context:
    return Context(sore_from(entry.id, client, date, SORE_PAIN))


KIND = Kind(
    code="foot",
    rank=16,
    sides="sided",
    facts=NoFacts,
    context=Context,
    means=certain(context),
    place=(42, 201),
    asked_today=lambda facts, date: True,
)
