"""Whether what a rung's name and cues speak of is in its recipe."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import cache

from asketa_core.datafiles import DATA, Record, load
from asketa_core.poses.recipe import Recipe, StackSlot
from asketa_core.props.kinds import PropKind

CHAIR_UNDER_HANDS = frozenset({"back_rest", "thigh_chair"})
"""Hands on the chair that is sat on or lies under the thigh."""


class PropWord(Record):
    """How a prop is spoken of, and what serves: one of some kinds, a wall, or anything at all."""

    says: tuple[str, ...]
    kinds: tuple[PropKind, ...] = ()
    offers: tuple[PropKind, ...] = ()
    wall: bool = False
    any: bool = False


@cache
def prop_words() -> dict[str, PropWord]:
    """The table of ``data/props/words.yaml``."""
    return load(DATA / "props" / "words.yaml", dict[str, PropWord])


@cache
def _spoken(word: str) -> re.Pattern[str]:
    said = "|".join(re.escape(each) for each in prop_words()[word].says)
    return re.compile(rf"(?<![\w-])(?:{said})(?![\w-])", re.IGNORECASE)


def spoken_of(text: str) -> Iterator[str]:
    """The props a text names, by their key in the table."""
    return (word for word in prop_words() if _spoken(word).search(text))


def always_there(slot: StackSlot) -> bool:
    """Whether nothing is no choice of a stack."""
    above = slot.between_cm is not None and slot.between_cm[0] > 0
    return slot.required or bool(slot.includes) or slot.base == "chair" or above


def serves(recipe: Recipe, slots: dict[str, StackSlot], word: PropWord) -> bool:
    """Whether a recipe has what a word names, in every set-up it allows."""
    used = set(recipe.slots())
    there = [slot for name, slot in slots.items() if name in used and always_there(slot)]
    if word.wall:
        return recipe.hands.on == "wall" or bool(recipe.walls)
    if word.any:
        return bool(there) or recipe.helping_chair
    if "chair" in word.kinds:
        return (
            any(slot.base == "chair" for slot in there) or recipe.helping_chair or recipe.hands.on in CHAIR_UNDER_HANDS
        )
    kinds, offers = set(word.kinds), set(word.offers or word.kinds)
    return any(
        kinds & set(slot.includes) or (not slot.includes and kinds >= set(slot.kinds) and offers & set(slot.kinds))
        for slot in there
    )


def missing_props(recipe: Recipe, slots: dict[str, StackSlot], texts: Iterator[str]) -> Iterator[tuple[str, str]]:
    """Every prop some texts name that the recipe lacks, with the text."""
    for text in texts:
        for word in spoken_of(text):
            if not serves(recipe, slots, prop_words()[word]):
                yield word, text
