"""A low back that minds: sore, weak, a disc, a narrow canal, a slipped vertebra."""

from __future__ import annotations

from typing import Literal

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.kind import Kind, When, asked

What = Literal["sore", "weak", "disc", "narrow_canal", "slipped_vertebra", "unknown"]


class Facts(Record):
    what: What = "unknown"
    sore: TriState = "unknown"


KIND = Kind(
    code="low_back",
    rank=12,
    sides="middle",
    facts=Facts,
    place=(50, 80),
    questions=(asked("what"), asked("sore", When("what", ("disc",)))),
    params=lambda entry, date: {"what": entry.facts.what},
    named_by="what",
)
