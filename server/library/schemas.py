"""What the Library takes and gives."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any, Literal

from ninja import Field, Schema

from asketa_core import Side, Verdict, View
from common.schemas import Input, Whole


class RungLine(Schema):
    """One rung in the list. ``props`` names the kinds it may use, for the search."""

    id: str
    name: str
    short: str
    own: bool
    props: list[str]


class ShelfFamily(Schema):
    family: str
    name: str
    sanskrit: str
    about: str
    purposes: list[str]
    rungs: list[RungLine]


class OwnTrouble(Schema):
    """A stored variation the product can no longer read, and why."""

    variation: str
    name: str
    number: int
    message: str


class RetiredLine(Schema):
    variation: str
    name: str


class ShelfOut(Schema):
    families: list[ShelfFamily]
    troubles: list[OwnTrouble]
    retired: list[RetiredLine]


class RungCard(Schema):
    """One rung as it looks for a body. Verdict and reason only where the body is a client's."""

    id: str
    name: str
    short: str
    own: bool
    figure: str | None
    verdict: Verdict | None
    reason: str


class FamilyCards(Schema):
    family: str
    name: str
    sanskrit: str
    about: str
    shared: bool
    stature_cm: float
    rungs: list[RungCard]


class RecipeLine(Schema):
    about: str
    words: str


class SlotLine(Schema):
    name: str
    label: str
    words: str
    less_support: str


class CodeWords(Schema):
    """A code of the catalogue and what it says."""

    code: str
    words: str


class StepName(Schema):
    id: str
    short: str


class Drawing(Schema):
    view: View
    figure: str


class OwnMark(Schema):
    """Which version of a practice's own variation this is."""

    number: int
    after: str
    saved_on: dt.date
    saved_by: str
    retired: bool


class VariationOut(Schema):
    """One variation in full, drawn for a body."""

    id: str
    family: str
    family_name: str
    name: str
    sanskrit: str
    short: str
    shared: bool
    side: Side
    seen_from: Literal["side", "behind", "above"]
    hold: str
    recipe: list[RecipeLine]
    slots: list[SlotLine]
    cues: list[str]
    watch: list[str]
    tests: list[str]
    counter: list[str]
    step_back: StepName | None
    step_forward: StepName | None
    line: str
    fetch: list[str]
    no_stack: str | None
    figure_words: str
    drawings: list[Drawing]
    verdict: Verdict | None
    reasons: list[str]
    own: OwnMark | None
    file: dict[str, Any]


class CloserOut(Schema):
    """What one often-met record does to a variation."""

    name: str
    leg: Literal["", "worked", "other"]
    verdict: Verdict
    reason: str


class WordsOut(Schema):
    """The catalogue a variation's words are chosen from."""

    cues: list[CodeWords]
    watch: list[CodeWords]


class VersionOut(Schema):
    id: uuid.UUID
    number: int
    saved_on: dt.date
    saved_by: str
    retired: bool
    file: dict[str, Any]


class ChangeIn(Input):
    """An edit made on version ``number``."""

    number: Whole = Field(ge=1)
    file: dict[str, Any]


class RetireIn(Input):
    number: Whole = Field(ge=1)


class SavedOut(Schema):
    id: str
    number: int
