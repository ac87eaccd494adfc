"""Stiff hamstrings, per side, and the low back that pays for them."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.kind import About, Kind, Note, asked

LowBack = Literal["fine", "weak", "sore", "unknown"]


class Facts(Record):
    low_back: LowBack = "unknown"
    leg_tingling: TriState = "unknown"


def _mind(about: About) -> Iterable[Note]:
    yield about.said("entry", low_back=KIND.fact_words("low_back", about.entry.facts.low_back))
    yield from about.asks()


KIND = Kind(
    code="hamstrings",
    rank=11,
    sides="sided",
    facts=Facts,
    place=(39, 124),
    questions=(asked("low_back"), asked("leg_tingling")),
    mind=_mind,
)
