"""What people may type for a ladder: its other names, what it is for, and what they ask for when they mean that."""

from __future__ import annotations

from asketa_core.poses.library import Family
from asketa_core.texts import Own, Phrase, listed, say


def found_by(family: Family) -> Phrase:
    """Everything a search finds a family under beside its name and what it is about."""
    return listed(
        [
            family.also,
            Own(family.sanskrit or ""),
            *(say("purposes", purpose) for purpose in family.purposes),
            *(say("purposes_also", purpose) for purpose in family.purposes),
        ]
    )
