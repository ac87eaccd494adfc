"""Feet that feel little: shoes or soft ground, and a hand on something when they carry alone."""

from __future__ import annotations

from collections.abc import Iterable

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.kind import About, Kind, Note, asked, what_binds


class Facts(Record):
    feel_little: TriState = "unknown"
    open_wound: TriState = "unknown"


def _mind(about: About) -> Iterable[Note]:
    yield from what_binds(about)
    yield about.said("look", "limit")


KIND = Kind(
    code="diabetic_feet",
    rank=32,
    sides="middle",
    facts=Facts,
    place=(50, 208),
    questions=(asked("feel_little"), asked("open_wound")),
    mind=_mind,
)
