"""Feet that feel little: shoes or soft ground, and a hand on something when they carry alone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import About, Kind, Note, asked, certain, what_binds
from asketa_core.records.known import Known


class Facts(Record):
    feel_little: TriState = "unknown"
    open_wound: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    feel_little: TriState
    open_wound: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.feel_little, entry.facts.open_wound)


def _mind(about: About) -> Iterable[Note]:
    yield from what_binds(about)
    yield about.said("look", "limit")


KIND = Kind(
    code="diabetic_feet",
    rank=32,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 208),
    questions=(asked("feel_little"), asked("open_wound")),
    mind=_mind,
)
