"""What may come in at all: text that can be stored and read, numbers with an end, values of a sane size.

Everything a person or a program sends (a request, an imported file, a command's JSON) passes ``check_json`` before it
is looked at; single lines a person types are ``Line`` or ``FreeText``.
"""

from __future__ import annotations

import json
import math
import unicodedata
from typing import Annotated, Any

from pydantic import AfterValidator, Field

from asketa_core.errors import InputError

MOST_DEEP = 40
MOST_CHARACTERS = 20_000
MOST_VALUES = 400_000
"""Bounds of one document: nesting, characters of one text, values in all."""

_BREAKS = {"\n", "\r", "\t"}


def unwanted(text: str) -> str | None:
    """Why a text cannot be kept, or ``None``: characters that no database or screen takes."""
    for character in text:
        if character in _BREAKS:
            continue
        category = unicodedata.category(character)
        if category in ("Cc", "Cs"):
            return "it holds a character that cannot be stored (a control character or half of a pair)."
    return None


def check_json(raw: Any) -> Any:
    """``raw`` as it is; ``InputError`` names the first place with text, numbers or sizes that cannot be kept."""
    left = [MOST_VALUES]

    def walk(value: Any, path: tuple[str, ...]) -> None:
        left[0] -= 1
        where = ".".join(path) or "(top level)"
        if left[0] < 0:
            raise InputError(where, "there is too much in this.", "Split it and send the parts one by one.")
        if len(path) > MOST_DEEP:
            raise InputError(where, "this is nested too deep.", "Send it as the schema says.")
        if isinstance(value, str):
            _check_text(value, where)
        elif isinstance(value, float) and not math.isfinite(value):
            raise InputError(where, "this number has no end.", "Give a finite number.")
        elif isinstance(value, dict):
            for key, each in value.items():
                _check_text(str(key), where)
                walk(each, (*path, str(key)[:60]))
        elif isinstance(value, list):
            for place, each in enumerate(value):
                walk(each, (*path, str(place)))

    walk(raw, ())
    return raw


def _check_text(text: str, where: str) -> None:
    if len(text) > MOST_CHARACTERS:
        raise InputError(where, f"this text is longer than {MOST_CHARACTERS} characters.", "Shorten it.")
    if (reason := unwanted(text)) is not None:
        raise InputError(where, reason, "Type it again; a copied text may bring such characters along.")


def read_json(text: str | bytes) -> Any:
    """JSON checked by ``check_json``; ``InputError`` says where it is no JSON."""
    try:
        raw = json.loads(text)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        raise InputError(place, f"this is not JSON: {error.msg}.", "Correct it there.") from error
    except (UnicodeDecodeError, RecursionError) as error:
        raise InputError("(file)", "this is not JSON in UTF-8.", "Save it as UTF-8 and send it again.") from error
    return check_json(raw)


def _one_line(text: str) -> str:
    """A line trimmed at its ends; refused when nothing in it can be seen, or when it breaks."""
    text = text.strip()
    if not any(unicodedata.category(character)[0] not in "ZC" for character in text):
        raise ValueError("this is blank: write something that can be read")
    if unwanted(text) is not None or _BREAKS & set(text):
        raise ValueError("write this on one line, without control characters")
    return text


def _kept(text: str) -> str:
    reason = unwanted(text)
    if reason is not None:
        raise ValueError(reason)
    return text


Line = Annotated[str, AfterValidator(_one_line)]
"""A name or label: one line with something to read in it."""

FreeText = Annotated[str, AfterValidator(_kept)]
"""Free text, empty or of several lines."""

Name = Annotated[Line, Field(min_length=1, max_length=120)]
Label = Annotated[Line, Field(min_length=1, max_length=60)]
Key = Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[^\s\x00]+$")]
"""An id: opaque, without blanks."""
