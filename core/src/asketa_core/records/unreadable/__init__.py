"""A stored record that can no longer be read. Nobody knows what it limits, so it asks about everything."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any

from pydantic import Field

from asketa_core.datafiles import Record
from asketa_core.records.kind import About, Kind, Note
from asketa_core.texts import Own


class Facts(Record):
    """What is left of a record that cannot be read: its kind, the fact at fault, and what was stored."""

    kind: Annotated[str, Field(max_length=60)] = ""
    fact: Annotated[str, Field(max_length=400)] = ""
    stored: dict[str, Any] = {}


def _mind(about: About) -> Iterable[Note]:
    return [about.note(KIND.say("mind", "entry", fact=Own(about.entry.facts.fact)), "ask", middle=True)]


KIND = Kind(
    code="unreadable",
    rank=1000,
    sides="either",
    facts=Facts,
    place=(50, 20),
    can_be_recorded=False,
    mind=_mind,
)
