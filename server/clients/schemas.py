"""What the clients API takes and gives. Facts are the core's own models."""

from __future__ import annotations

import datetime as dt
import uuid
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal, Protocol

from ninja import Field
from pydantic import BaseModel, create_model, field_validator, model_validator

from asketa_core import (
    KINDS,
    Day,
    FreeText,
    Key,
    Kind,
    Name,
    Professional,
    Readout,
    Scope,
    Side,
    TriState,
    facts_field,
)
from common.schemas import Input, Output, Whole
from common.speech import Text

Role = Literal["surgeon", "doctor", "physiotherapist", "midwife", "emergency", "other"]
"""What somebody is to a client: who treats them, whom to call."""


class Contact(Input):
    """Somebody around a client. ``consent`` says whether the client agreed to being spoken about with them."""

    role: Role
    name: FreeText = Field(default="", max_length=120)
    phone: FreeText = Field(default="", max_length=40)
    email: FreeText = Field(default="", max_length=254)
    consent: TriState = "unknown"

    @model_validator(mode="after")
    def can_be_reached(self) -> Contact:
        if not (self.name.strip() or self.phone.strip() or self.email.strip()):
            raise ValueError("Give a name, a telephone number or an e-mail address, or take this contact out.")
        return self


class ClientIn(Input):
    name: Name
    birth_date: Day | None = None
    occupation: FreeText = Field(default="", max_length=120)
    goals: FreeText = Field(default="", max_length=2000)
    contacts: list[Contact] = Field(default=[], max_length=20)
    discomfort_allowed: Whole = Field(default=2, ge=0, le=5)


class ClientUpdate(ClientIn):
    version: Whole


class ClientOut(Output):
    id: uuid.UUID
    name: str
    birth_date: dt.date | None
    occupation: str
    goals: str
    contacts: list[Contact]
    discomfort_allowed: int
    archived: bool
    version: int
    age: int | None


class ClientLine(Output):
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


class FigureIn(Input):
    """One figure of a rule, set for this client."""

    rule: Key
    readout: Readout
    value: float = Field(ge=-400, le=400)


class WordIn(Input):
    """What a treating professional said: in free words, as figures, or both."""

    who: Professional
    date: Day
    until: Day | None = None
    text: FreeText = Field(default="", max_length=2000)
    figures: list[FigureIn] = Field(default=[], max_length=40)


class SignsIn(Input):
    """Which signs that belong to a doctor are there; ``none`` where none is."""

    signs: list[Key] = Field(min_length=1, max_length=20)


class SeenIn(Input):
    """That a doctor has seen a sign, and what was said."""

    who: Professional
    date: Day
    text: FreeText = Field(default="", max_length=2000)


class DailyIn(Input):
    pain_today: Whole | None = Field(default=None, ge=0, le=10)
    irritable: TriState = "unknown"
