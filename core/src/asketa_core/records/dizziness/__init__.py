"""Dizziness: slow rises, a hand on something."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from asketa_core.answers import Ticks, TriState
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.kind import About, Kind, Note, asked, what_binds

Symptom = Literal["none", "fainted", "speech_or_sight", "one_sided_weakness", "chest_pain", "worst_headache"]


class Facts(WithSymptoms):
    symptoms_now: Ticks[Symptom] = ()
    on_rising: TriState = "unknown"
    head_moving: TriState = "unknown"


def _mind(about: About) -> Iterable[Note]:
    yield from what_binds(about)
    yield about.said("rise_slowly", "limit")


KIND = Kind(
    code="dizziness",
    rank=22,
    sides="middle",
    facts=Facts,
    place=(50, 10),
    questions=(asked("on_rising"), asked("head_moving"), asked("symptoms_now")),
    mind=_mind,
)
