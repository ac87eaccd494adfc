"""What every record has, whatever its kind."""

from __future__ import annotations

from typing import Annotated, Generic, TypeVar

from pydantic import Field

from asketa_core.answers import Day, Professional
from asketa_core.datafiles import Record
from asketa_core.plain_text import Key
from asketa_core.records.instructions import Instruction
from asketa_core.units import Side

Scope = Annotated[str, Field(pattern=r"^[a-z][a-z_]{0,39}$")]
"""What a clearance may be about; each kind of record has its own list."""


class Clearance(Record):
    """A treating professional's dated word that something is allowed again."""

    who: Professional
    date: Day
    scope: tuple[Scope, ...] = Field(min_length=1, max_length=12)


Facts = TypeVar("Facts", bound=Record)


class Entry(Record, Generic[Facts]):
    """One record: its id, its kind, since when and until when it counts, and its facts. ``side`` is ``None`` for what has
    no side."""

    id: Key
    kind: str
    side: Side | None = None
    from_date: Day | None = None
    until_date: Day | None = None
    clearances: tuple[Clearance, ...] = Field(default=(), max_length=60)
    instructions: tuple[Instruction, ...] = Field(default=(), max_length=60)
    facts: Facts
