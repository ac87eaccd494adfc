"""What cannot be true, as a value."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from dataclasses import dataclass

from asketa_core.texts import Phrase, say

EARLIEST = dt.date(1900, 1, 1)


@dataclass(frozen=True, slots=True)
class Implausible:
    """One thing that cannot be: a dotted path to it, and why, with what to do."""

    field: str
    message: Phrase


def past_date(field: str, date: dt.date | None, today: dt.date) -> Iterator[Implausible]:
    """A date that has happened: not ahead, and not before anyone alive."""
    if date is not None and date > today:
        yield Implausible(field, say("implausible", "future"))
    elif date is not None and date < EARLIEST:
        yield Implausible(field, say("implausible", "before_1900"))
