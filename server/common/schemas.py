"""What every request body and every answer has in common."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator
from pydantic_core import InitErrorDetails, PydanticCustomError

Whole = Annotated[int, Field(strict=True)]
"""A whole number given as one: no text, no truth value, nothing after the point."""

SAY_NULL = frozenset(("side", "setup", "setup_used", "other"))
"""Where null says something: no side, and what a slot of a set-up does not have."""

NULL = PydanticCustomError("null", "Nothing arrived here. Say it, or leave the field out.")


def _nulls(raw: Any, path: tuple[int | str, ...] = ()) -> Iterator[tuple[int | str, ...]]:
    if raw is None:
        yield path
    elif isinstance(raw, dict):
        for key, value in raw.items():
            if key not in SAY_NULL:
                yield from _nulls(value, (*path, str(key)))
    elif isinstance(raw, list):
        for place, value in enumerate(raw):
            yield from _nulls(value, (*path, place))


def refuse_nulls(raw: Any) -> Any:
    """``raw`` as it is; null anywhere in it is refused by its path.

    Null is what a form makes of something typed that it could not read. Taken as 'not known' it would quietly put a
    laxer rule in the place of what was said.
    """
    found = list(_nulls(raw)) if isinstance(raw, dict | list) else []
    if found:
        details = [InitErrorDetails(type=NULL, loc=path, input=None) for path in found]
        raise ValidationError.from_exception_data("request", details)
    return raw


class Output(BaseModel):
    """An answer, or a part of one. What a view has put together is not looked through again."""


class Input(BaseModel):
    """A request body: unknown fields are refused, and null is no value but where ``SAY_NULL`` has it."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def nothing_typed_is_lost(cls, raw: Any) -> Any:
        return refuse_nulls(raw)
