"""Fear of falling, or a fall, in somebody whose bones are not known to be thin."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known


class Facts(Record):
    fell_last_year: TriState = "unknown"
    afraid: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    fell: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.fell_last_year)


KIND = Kind(
    code="falling",
    rank=23,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 170),
    questions=(asked("fell_last_year"), asked("afraid")),
)
