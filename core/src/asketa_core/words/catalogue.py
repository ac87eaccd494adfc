"""The text catalogue: every sentence by code, in two voices."""

from __future__ import annotations

from typing import Any

from asketa_core.errors import DataError
from asketa_core.texts import texts


def lookup(section: str, code: str, *parts: str) -> Any:
    """A catalogue item; a code nobody wrote words for is a ``DataError``, never an empty sentence."""
    try:
        found = texts()[section][code]
        for part in parts:
            found = found[part]
    except (KeyError, TypeError) as error:
        raise DataError("en.yaml", ".".join((section, code, *parts)), "there are no words for this code") from error
    return found


def say(section: str, code: str, *parts: str, **params: object) -> str:
    """A sentence with its parameters filled in."""
    template = str(lookup(section, code, *parts))
    try:
        return template.format(**params)
    except KeyError as error:
        raise DataError("en.yaml", f"{section}.{code}", f"the sentence needs {error}") from error


def catalogue_words(section: str) -> dict[str, str]:
    """Every sentence of a plain section by its code."""
    return {code: str(words) for code, words in texts()[section].items()}


def sentence_case(text: str) -> str:
    return text[:1].upper() + text[1:]


def listing(items: list[str]) -> str:
    """'a', 'a and b', 'a, b and c'."""
    return items[0] if len(items) == 1 else ", ".join(items[:-1]) + " and " + items[-1] if items else ""
