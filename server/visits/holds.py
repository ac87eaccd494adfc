"""Logged holds as both the mat and the responses show them."""

from __future__ import annotations

from typing import Any

from asketa_core import SlotValue, Variation, dose_words, heights_words
from visits.models import LoggedItem


def setup_used(item: LoggedItem) -> dict[str, SlotValue]:
    return {name: SlotValue.model_validate(value) for name, value in item.setup_used.items()}


def hold_fields(rung: Variation, item: LoggedItem, tolerance: str) -> dict[str, Any]:
    """The fields of ``schemas.LoggedHold``."""
    own = ("dose_s", "held_s", "before", "during", "after", "kind", "place", "signs", "note", "settled", "asked")
    return {
        "id": item.pk,
        "date": item.visit.date,
        "variation": rung.id,
        "short": rung.short,
        "setup_words": heights_words(rung, setup_used(item)),
        "dose": dose_words(rung.hold, item.dose_s),
        "tolerance": tolerance,
        **{name: getattr(item, name) for name in own},
    }
