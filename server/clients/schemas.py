"""What the clients API takes and gives. Facts are the core's own models."""

from __future__ import annotations

import datetime as dt
import uuid
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal, Protocol

from ninja import Field, Schema
from pydantic import BaseModel, create_model, field_validator

from asketa_core import (
    KINDS,
    Day,
    FreeText,
    Kind,
    Name,
    Professional,
    Scope,
    Side,
    TriState,
    facts_field,
)
from common.schemas import Input, Whole
from common.speech import Text


class ClientIn(Input):
    name: Name
    birth_date: Day | None = None
    occupation: FreeText = Field(default="", max_length=120)
    discomfort_allowed: Whole = Field(default=2, ge=0, le=5)


class ClientUpdate(ClientIn):
    version: Whole


class ClientOut(Schema):
    id: uuid.UUID
    name: str
    birth_date: dt.date | None
    occupation: str
    discomfort_allowed: int
    archived: bool
    version: int
    age: int | None


class ClientLine(Schema):
    """One line of the client list: who, what they bring, when they were last here and when they come next. ``trouble`` is what of their
    records cannot be read."""

    id: uuid.UUID
    name: str
    occupation: str
    age: int | None
    left: list[Text]
    middle: list[Text]
    right: list[Text]
    last_visit: dt.date | None
    next_visit: dt.date | None
    trouble: Text


class SearchIn(Input):
    """Whom to list: by name or occupation, of those who come or of those who are put away."""

    text: FreeText = Field(default="", max_length=120)
    archived: Annotated[bool, Field(strict=True)] = False


class ArchiveIn(Input):
    archived: Annotated[bool, Field(strict=True)]


class _WholeBody(Input):
    """What concerns the body as a whole carries no side."""

    side: Side | None = None

    @field_validator("side")
    @classmethod
    def no_side(cls, side: Side | None) -> Side | None:
        if side is not None:
            raise ValueError("This concerns the body as a whole. Leave the side out.")
        return side


class _OnASide(Input):
    side: Side


class _Anywhere(Input):
    side: Side | None = None


_BASES: dict[str, type[Input]] = {"sided": _OnASide, "middle": _WholeBody, "either": _Anywhere}


def _taken_in(kind: Kind) -> type[Input]:
    """What one kind of record is sent as."""
    name = "".join(part.capitalize() for part in kind.code.split("_")) + "In"
    fields: Any = {"kind": (Literal[kind.code], ...), "facts": facts_field(kind)}
    return create_model(name, __base__=_BASES[kind.sides], __module__=__name__, **fields)


class Recorded(Protocol):
    """What every record that is sent has."""

    kind: str
    side: Side | None
    facts: BaseModel


if TYPE_CHECKING:
    EntryIn = Recorded
else:
    EntryIn = Annotated[
        reduce(or_, (_taken_in(kind) for kind in KINDS.values() if kind.can_be_recorded)),
        Field(discriminator="kind"),
    ]


class EntryEnvelope(Input):
    entry: EntryIn


class ClearanceIn(Input):
    who: Professional
    date: Day
    scope: tuple[Scope, ...] = Field(min_length=1, max_length=12)


class DailyIn(Input):
    pain_today: Whole | None = Field(default=None, ge=0, le=10)
    irritable: TriState = "unknown"
