"""A joint of which nothing is recorded but that it is sore: how much it hurts is asked at arrival and decides."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from asketa_core.answers import TriState
from asketa_core.records.asked import sore_from
from asketa_core.records.entry import Entry
from asketa_core.records.known import Known


@dataclass(frozen=True, slots=True)
class Sore:
    """Everything the rules may ask about."""

    sore: TriState


def sore_above(pain: float) -> Callable[[Entry[Any], Known, dt.date], Sore]:
    """What such a record means on a date: sore from so much pain on, of 10."""
    return lambda entry, client, date: Sore(sore_from(entry.id, client, date, pain))
