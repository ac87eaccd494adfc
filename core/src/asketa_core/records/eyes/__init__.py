"""Glaucoma or a weak retina: no head below the heart until the eye doctor says so."""

from __future__ import annotations

from typing import Literal

from asketa_core.datafiles import Record
from asketa_core.records.kind import Kind, asked

What = Literal["glaucoma", "retina", "operated", "unknown"]


class Facts(Record):
    what: What = "unknown"


KIND = Kind(
    code="eyes",
    rank=21,
    sides="middle",
    facts=Facts,
    place=(50, 16),
    questions=(asked("what"),),
    scopes=("head_down",),
    params=lambda entry, date: {"what": entry.facts.what},
    named_by="what",
)
