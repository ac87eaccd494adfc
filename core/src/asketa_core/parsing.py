"""Checking what comes in against a model, with errors that say what to do."""

from __future__ import annotations

from typing import Any, TypeVar

from pydantic import BaseModel, TypeAdapter, ValidationError

from asketa_core.datafiles import place_of
from asketa_core.errors import InputError

Model = TypeVar("Model", bound=BaseModel)

_REMEDIES = {
    "missing": "Give this field.",
    "extra_forbidden": "Remove it or correct its name.",
    "literal_error": "Use one of the values the schema lists.",
    "date_from_datetime_parsing": "Write dates as YYYY-MM-DD.",
}


def parse(model: type[Model], raw: Any) -> Model:
    """Check ``raw`` against ``model``; the first problem becomes an ``InputError`` with its path."""
    try:
        return TypeAdapter(model).validate_python(raw)
    except ValidationError as error:
        first = error.errors(include_input=False, include_url=False)[0]
        raise InputError(
            place_of(first["loc"]), first["msg"] + ".", _REMEDIES.get(first["type"], "Correct it as the schema says.")
        ) from error
