"""What is asked at arrival, and what a client's therapist has set."""

from __future__ import annotations

from pydantic import Field

from asketa_core.answers import Day, TriState
from asketa_core.datafiles import Record
from asketa_core.plain_text import Key


class DailyFact(Record):
    """Something asked at arrival; older than 14 days it counts as unknown."""

    entry_id: Key
    date: Day
    pain_today: int | None = Field(default=None, ge=0, le=10)
    irritable: TriState = "unknown"
    """Once stirred up it stays so until the next day."""


class Settings(Record):
    first_weeks_after_hip: int = Field(default=12, ge=6, le=26)
    discomfort_allowed: int = Field(default=2, ge=0, le=5)
    breath_s: int = Field(default=6, ge=2, le=20)
    """How long one calm breath of this client takes, in and out."""
