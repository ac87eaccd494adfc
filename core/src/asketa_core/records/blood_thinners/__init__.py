"""Blood thinners: bruises come easily, so knees are padded and edges covered."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from asketa_core.records.entry import Entry
from asketa_core.records.facts import NoFacts
from asketa_core.records.kind import About, Kind, Note, certain
from asketa_core.records.known import Known


@dataclass(frozen=True, slots=True)
class Context:
    """The rules ask nothing."""


def context(entry: Entry[Any], client: Known, date: dt.date) -> Context:
    return Context()


def _mind(about: About) -> Iterable[Note]:
    return [about.head(), about.said("pad", "limit")]


KIND = Kind(
    code="blood_thinners",
    rank=30,
    sides="middle",
    facts=NoFacts,
    context=Context,
    means=certain(context),
    place=(50, 42),
    mind=_mind,
)
