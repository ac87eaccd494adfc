"""What the clients API takes and gives. Facts are the core's own models."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Annotated, Any, Literal

from ninja import Field, Schema
from pydantic import field_validator

from asketa_core import Side
from asketa_core.clientfile import (
    BonesFacts,
    Clearance,
    Day,
    GroinPinchFacts,
    HamstringsFacts,
    HipReplacementFacts,
    KneeFacts,
    LowBackFacts,
    Name,
    PregnancyFacts,
    Professional,
    Scope,
    TriState,
    Words,
    WristFacts,
)
from common.schemas import Input, Whole


class ClientIn(Input):
    name: Name
    birth_date: Day | None = None
    occupation: Words = Field(default="", max_length=120)
    discomfort_allowed: Whole = Field(default=2, ge=0, le=5)


class ClientUpdate(ClientIn):
    version: Whole


class ClientOut(Schema):
    id: uuid.UUID
    name: str
    birth_date: dt.date | None
    occupation: str
    discomfort_allowed: int
    version: int
    age: int | None


class ClientLine(Schema):
    """One line of the client list: who, what they bring, and when they were last here. ``trouble`` is what of their
    records cannot be read."""

    id: uuid.UUID
    name: str
    occupation: str
    age: int | None
    left: list[str]
    middle: list[str]
    right: list[str]
    last_visit: dt.date | None
    trouble: str


class SearchIn(Input):
    text: Words = Field(default="", max_length=120)


class HipReplacementIn(Input):
    kind: Literal["hip_replacement"]
    side: Side
    facts: HipReplacementFacts


class KneePainIn(Input):
    kind: Literal["knee_pain"]
    side: Side
    facts: KneeFacts


class GroinPinchIn(Input):
    kind: Literal["groin_pinch"]
    side: Side
    facts: GroinPinchFacts


class HamstringsIn(Input):
    kind: Literal["hamstrings"]
    side: Side
    facts: HamstringsFacts


class WristIn(Input):
    kind: Literal["wrist"]
    side: Side
    facts: WristFacts


class _WholeBody(Input):
    """What concerns the body as a whole carries no side."""

    side: Side | None = None

    @field_validator("side")
    @classmethod
    def no_side(cls, side: Side | None) -> Side | None:
        if side is not None:
            raise ValueError("This concerns the body as a whole. Leave the side out.")
        return side


class PregnancyIn(_WholeBody):
    kind: Literal["pregnancy"]
    facts: PregnancyFacts


class BonesIn(_WholeBody):
    kind: Literal["bones"]
    facts: BonesFacts


class LowBackIn(_WholeBody):
    kind: Literal["low_back"]
    facts: LowBackFacts


EntryIn = Annotated[
    HipReplacementIn | KneePainIn | GroinPinchIn | HamstringsIn | WristIn | PregnancyIn | BonesIn | LowBackIn,
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


class EntryShown(Schema):
    """A record as it stands: its facts by name, those not known left out. ``unreadable`` ones say why."""

    kind: Literal[
        "hip_replacement", "knee_pain", "groin_pinch", "hamstrings", "wrist", "pregnancy", "bones", "low_back", "unreadable"
    ]  # fmt: skip
    side: Side | None = None
    facts: dict[str, Any]


class LimitOut(Schema):
    """A limit an entry turns into: what it is in few words, why, how hard, and on which authority."""

    code: str
    short: str
    reason: str
    severity: str
    source: str


class EntryOut(Schema):
    """A record in its standing version. ``id`` names this version, ``root`` the record for good."""

    id: uuid.UUID
    root: uuid.UUID
    label: str
    entry: EntryShown
    clearances: list[Clearance]
    pain_today: int | None
    irritable: TriState
    daily_date: dt.date | None
    recorded_at: dt.datetime
    limits: list[LimitOut]


class NoteOut(Schema):
    side: Side | None
    text: str
    weight: Literal["fact", "limit", "ask", "promise"]
    entry_id: str | None


class ChangeOut(Schema):
    date: dt.date
    lines: list[str]


class StopOut(Schema):
    """One stop of the working order: what is done, missing or stale there."""

    stop: Literal["limits", "measures", "choose", "set_up", "on_the_mat", "responses"]
    state: Literal["done", "attention", "open"]
    note: str


class ClientHead(Schema):
    """Everything around a client's views: who, the band, and what to mind."""

    client: ClientOut
    stature_cm: float | None
    today: dt.date
    band: list[StopOut]
    notes: list[NoteOut]
    next_change: ChangeOut | None
    disclaimer: str


class ComingOut(Schema):
    """Which rungs the next change lets in or puts out, in sentences."""

    lines: list[str]
