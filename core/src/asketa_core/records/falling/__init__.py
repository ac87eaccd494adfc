"""Fear of falling, or a fall, in somebody whose bones are not known to be thin."""

from __future__ import annotations

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.kind import Kind, asked


class Facts(Record):
    fell_last_year: TriState = "unknown"


KIND = Kind(
    code="falling",
    rank=23,
    sides="middle",
    facts=Facts,
    place=(50, 170),
    questions=(asked("fell_last_year"),),
)
