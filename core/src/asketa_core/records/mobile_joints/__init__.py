"""Very mobile joints: recorded, never inferred from large ranges. Strength and support before range."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known


class Facts(Record):
    slips_out: TriState = "unknown"
    """Whether joints slip out of place."""


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    slips_out: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.slips_out)


KIND = Kind(
    code="mobile_joints",
    rank=18,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 68),
    questions=(asked("slips_out"),),
    keeps_range=lambda facts, date: True,
)
