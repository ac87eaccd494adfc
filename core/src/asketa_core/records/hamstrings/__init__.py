"""Stiff hamstrings, per side, and the low back that pays for them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import About, Kind, Note, asked, certain
from asketa_core.records.known import Known

LowBack = Literal["fine", "weak", "sore", "unknown"]


class Facts(Record):
    low_back: LowBack = "unknown"
    leg_tingling: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    low_back: LowBack
    tingling: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.low_back, entry.facts.leg_tingling)


def _mind(about: About) -> Iterable[Note]:
    yield about.said("entry", low_back=KIND.fact_words("low_back", about.entry.facts.low_back))
    yield from about.asks()


KIND = Kind(
    code="hamstrings",
    rank=11,
    sides="sided",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(41, 128),
    questions=(asked("low_back"), asked("leg_tingling")),
    mind=_mind,
)
