"""Sentences before they are said: a code of the catalogue and its parameters. ``Words`` says them in a language.

Nothing here is in any language but ``Own``, which somebody typed. Phrases are values: two that say the same are equal.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, TypeAlias

from asketa_core.texts.catalogue import parameters

Style = Literal["and", "or", "blank", "comma", "semicolon"]
Shape = Literal["sentence", "inside"]


class Phrase:
    """Something to be said; false where there is nothing to say."""

    __slots__: tuple[str, ...] = ()

    def __reduce__(self) -> tuple[type[Phrase], tuple[object, ...]]:
        # Answers are full of phrases: packed as what they are made from, they open in a third of the time.
        return type(self), tuple([getattr(self, name) for name in self.__slots__])

    @property
    def sentence(self) -> Phrase:
        """As a sentence begins."""
        return Shaped(self, "sentence")

    @property
    def inside(self) -> Phrase:
        """As it stands inside a sentence."""
        return Shaped(self, "inside")


Param: TypeAlias = "Phrase | int | float | dt.date | tuple[Phrase, ...]"
"""What a sentence is filled with. Numbers, dates and lists are written as the language writes them."""


@dataclass(frozen=True, slots=True)
class Said(Phrase):
    """An item of the catalogue with what fills it, by name."""

    path: tuple[str, ...]
    params: tuple[tuple[str, Param], ...] = ()

    def given(self, **more: Param) -> Said:
        """The same with more of its parameters."""
        return Said(self.path, (*self.params, *more.items()))


@dataclass(frozen=True, slots=True)
class Own(Phrase):
    """What somebody typed: the same in every language."""

    text: str

    def __bool__(self) -> bool:
        return bool(self.text)


@dataclass(frozen=True, slots=True)
class Listed(Phrase):
    """Several things as one: 'a, b and c'."""

    parts: tuple[Phrase, ...]
    style: Style = "comma"

    def __bool__(self) -> bool:
        return any(self.parts)


@dataclass(frozen=True, slots=True)
class Shaped(Phrase):
    phrase: Phrase
    shape: Shape

    def __bool__(self) -> bool:
        return bool(self.phrase)


NOTHING = Own("")


def say(*path: str, **params: Param) -> Said:
    """A sentence of the catalogue by its sections and code. ``DataError`` for a code nobody wrote words for: never an
    empty sentence. What the sentence does not ask for is left out, so that what reads alike is alike."""
    asked = parameters(*path)
    return Said(path, tuple((name, value) for name, value in params.items() if name in asked))


def listed(parts: Iterable[Phrase], style: Style = "comma") -> Phrase:
    """Some things as one; one thing is itself."""
    found = tuple(part for part in parts if part)
    return found[0] if len(found) == 1 else Listed(found, style)
