"""A sore neck: weight on it, the head carried without support, turned far or let hang."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from asketa_core.answers import TriState
from asketa_core.clinical import clinical
from asketa_core.datafiles import Record
from asketa_core.records.asked import sore_from
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known

SORE_PAIN = clinical("neck.sore_pain", "of_10")


class Facts(Record):
    arm_tingling: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    sore: TriState
    tingling: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(sore_from(entry.id, client, date, SORE_PAIN), entry.facts.arm_tingling)


KIND = Kind(
    code="neck",
    rank=15,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 33),
    questions=(asked("arm_tingling"),),
    asked_today=lambda facts, date: True,
)
