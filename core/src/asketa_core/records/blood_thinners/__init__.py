"""Blood thinners: bruises come easily, so knees are padded and edges covered."""

from __future__ import annotations

from collections.abc import Iterable

from asketa_core.records.facts import NoFacts
from asketa_core.records.kind import About, Kind, Note


def _mind(about: About) -> Iterable[Note]:
    return [about.head(), about.said("pad", "limit")]


KIND = Kind(
    code="blood_thinners",
    rank=30,
    sides="middle",
    facts=NoFacts,
    place=(50, 42),
    mind=_mind,
)
