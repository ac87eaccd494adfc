"""Very mobile joints: recorded, never inferred from large ranges. Strength and support before range."""

from __future__ import annotations

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.kind import Kind, asked


class Facts(Record):
    slips_out: TriState = "unknown"
    """Whether joints slip out of place."""


KIND = Kind(
    code="mobile_joints",
    rank=18,
    sides="middle",
    facts=Facts,
    place=(50, 68),
    questions=(asked("slips_out"),),
    keeps_range=lambda facts, date: True,
)
