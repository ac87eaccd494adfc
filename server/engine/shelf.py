"""The opened practice's library: what ships with the product, and the practice's own variations."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass

from asketa_core import InputError, Library, OwnVariation, read_own, standard_library, with_own
from common.recent import Recent
from library.models import OwnRung


@dataclass(frozen=True)
class Shelf:
    """A practice's library. ``fingerprint`` names its own part; ``troubles`` says, by variation, what keeps a stored
    one from being read any more."""

    library: Library
    own: dict[str, OwnVariation]
    troubles: dict[str, str]
    fingerprint: str


_shelves: Recent[Shelf] = Recent(most=32)


def practice_library() -> Shelf:
    """One query. Rows never change, so a shelf is known by the rows it was built from."""
    rows = list(OwnRung.objects.standing())
    key = tuple(str(row.pk) for row in rows)
    return _shelves.get(key, lambda: _built(rows, key))


def _built(rows: list[OwnRung], key: tuple[str, ...]) -> Shelf:
    library, own, troubles = standard_library(), {}, {}
    for row in rows:
        try:
            # Its figures settled when it was stored; what may have changed since is the library around it.
            read = read_own(row.content, library, row.key, settles=False)
        except InputError as error:
            troubles[row.variation_id] = f"{error.field}: {error.reason} {error.remedy}"
            continue
        own[read.rung.id] = read
        offered, put_away = ([], [read.rung]) if row.retired else ([read], [])
        # One by one, so that a copy of a copy finds what it was copied from.
        library = with_own(library, offered, put_away)
    return Shelf(library, own, troubles, hashlib.sha256("".join(key).encode()).hexdigest()[:24] if key else "")
