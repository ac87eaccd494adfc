"""In which language an answer is written.

The core hands over phrases; they become sentences here, where an answer takes its shape: fields of a schema that are
``Text`` take a phrase and hold what it says in the language of the request.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import yaml
from django.conf import settings
from pydantic import BeforeValidator

from asketa_core import PSEUDO, REFERENCE, USUAL, Manner, Param, Phrase, Said, Words, languages

TEXTS = Path(__file__).parent / "texts"
OWN = "server"
"""The section of the catalogue that is the server's own."""

_language: ContextVar[str] = ContextVar("language", default=REFERENCE)
_manner: ContextVar[Manner] = ContextVar("manner", default=USUAL)


def offered_languages() -> tuple[str, ...]:
    """Languages an answer may be asked for in; the made-up one only where it is switched on."""
    return (*languages(), PSEUDO) if settings.PSEUDO_LANGUAGE else languages()


def words_of(language: str, manner: Manner = USUAL) -> Words:
    """The core's words and the server's own in a language."""
    return _words(language, manner)


@cache
def _words(language: str, manner: Manner) -> Words:
    return Words(language, {OWN: _own_texts(REFERENCE if language == PSEUDO else language)}, manner)


def _own_texts(language: str) -> Any:
    return yaml.safe_load((TEXTS / f"{language}.yaml").read_text(encoding="utf-8"))


def own_codes(language: str) -> list[tuple[str, ...]]:
    """Where everything the server says itself stands in a language's file."""

    def walk(texts: Any, path: tuple[str, ...]) -> Iterator[tuple[str, ...]]:
        if isinstance(texts, dict):
            for code, each in texts.items():
                yield from walk(each, (*path, str(code)))
        else:
            yield path

    return list(walk(_own_texts(language), ()))


def words() -> Words:
    """The words of the request that is answered."""
    return words_of(_language.get(), _manner.get())


@contextmanager
def speaking(language: str) -> Iterator[None]:
    """Answer in a language while the block runs, in the usual manner unless ``write_in`` says another."""
    before, manner = _language.set(language), _manner.set(USUAL)
    try:
        yield
    finally:
        _language.reset(before)
        _manner.reset(manner)


def write_in(manner: Manner) -> None:
    """Write lengths and dates in a manner until ``speaking`` ends: an answer takes its shape after its view is done."""
    _manner.set(manner)


def own(*path: str, **params: Param) -> Said:
    """A sentence of the server's own."""
    return Said((OWN, *path), tuple(params.items()))


def _written(value: Any) -> Any:
    return words()(value) if isinstance(value, Phrase) else value


if TYPE_CHECKING:
    Text = str | Phrase
else:
    Text = Annotated[str, BeforeValidator(_written)]
"""A field that holds what a phrase says, or what somebody typed."""
