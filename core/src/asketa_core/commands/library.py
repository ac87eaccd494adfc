"""The ``library`` command: every family and variation, in order."""

from __future__ import annotations

from typing import Any

from asketa_core.commands.speech import ENGLISH
from asketa_core.poses.library import standard_library


def run_library() -> dict[str, Any]:
    """Families with their variations from most supported to most demanding; slots and recipe as in the files."""
    return {
        "families": [
            {
                "id": family.family,
                "name": ENGLISH(family.name),
                "purposes": list(family.purposes),
                "side_means": family.side_means,
                "variations": [
                    rung.model_dump(mode="json", by_alias=True, context={"words": ENGLISH})
                    for rung in family.variations
                ],
            }
            for family in standard_library().families.values()
        ]
    }
