"""The opened practice's library: what ships with the product, and the practice's own variations."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from typing import Any

from asketa_core import InputError, Library, OwnVariation, Recent, read_own, standard_library, with_own
from library.models import OwnRung


@dataclass(frozen=True)
class Unreadable:
    """A stored variation, and what keeps it from being read any more."""

    name: str
    number: int
    message: str


@dataclass(frozen=True)
class Shelf:
    """A practice's library. ``fingerprint`` names its own part; ``own`` and ``troubles`` are by variation, those put
    away among them."""

    library: Library
    own: dict[str, OwnVariation]
    troubles: dict[str, Unreadable]
    fingerprint: str


_shelves: Recent[Shelf] = Recent(most=32)


def practice_library() -> Shelf:
    """One query. Rows never change, so a shelf is known by the rows it was built from."""
    rows = list(OwnRung.objects.standing())
    key = tuple(str(row.pk) for row in rows)
    return _shelves.get(key, lambda: _built(rows, key))


def name_in(content: Any) -> str:
    """What a stored variation is called, however it was stored."""
    name = content["variation"]["name"]
    return str(name["en"] if isinstance(name, dict) else name)


def _built(rows: list[OwnRung], key: tuple[str, ...]) -> Shelf:
    library, own, troubles = standard_library(), {}, {}
    # A later version of one may come after what was made from it: what finds nothing to stand below waits a round.
    waiting, read_any = rows, True
    while waiting and read_any:
        read_any, left = False, []
        for row in waiting:
            try:
                read = read_own(row.content, library, row.key, stored=True)
            except InputError as error:
                name = name_in(row.content)
                message = f"{error.field}: {error.reason} {error.remedy}"
                troubles[row.variation_id] = Unreadable(name, row.number, message)
                left.append(row)
                continue
            read_any = True
            troubles.pop(row.variation_id, None)
            own[read.rung.id] = read
            library = with_own(library, [], [read.rung]) if row.retired else with_own(library, [read])
        waiting = left
    return Shelf(library, own, troubles, hashlib.sha256("".join(key).encode()).hexdigest()[:24] if key else "")
