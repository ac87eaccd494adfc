"""What the Library takes and gives."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any, Literal

from ninja import Field

from asketa_core import Side, Verdict, View
from common.schemas import Input, Output, Whole
from common.speech import Text


class RungLine(Output):
    """One rung in the list. ``props`` names the kinds it may use, for the search."""

    id: str
    name: Text
    short: Text
    own: bool
    props: list[Text]


class ShelfFamily(Output):
    family: str
    name: Text
    sanskrit: str
    about: Text
    found_by: Text
    purposes: list[str]
    rungs: list[RungLine]


class OwnTrouble(Output):
    """A stored variation the product can no longer read, and why."""

    variation: str
    name: Text
    number: int
    message: Text


class RetiredLine(Output):
    variation: str
    name: Text


class ShelfOut(Output):
    families: list[ShelfFamily]
    troubles: list[OwnTrouble]
    retired: list[RetiredLine]


class RungCard(Output):
    """One rung as it looks for a body. Verdict and reason only where the body is a client's."""

    id: str
    name: Text
    short: Text
    own: bool
    figure: str | None
    verdict: Verdict | None
    reason: Text


class FamilyCards(Output):
    family: str
    name: Text
    sanskrit: str
    about: Text
    shared: bool
    stature_cm: float
    rungs: list[RungCard]


class RecipeLine(Output):
    about: Text
    words: Text


class SlotLine(Output):
    name: Text
    label: Text
    words: Text
    less_support: Text


class CodeWords(Output):
    """A code of the catalogue and what it says."""

    code: str
    words: Text


class StepName(Output):
    id: str
    short: Text


class Drawing(Output):
    view: View
    figure: str


class OwnMark(Output):
    """Which version of a practice's own variation this is."""

    number: int
    after: str
    saved_on: dt.date
    saved_by: str
    retired: bool


class VariationOut(Output):
    """One variation in full, drawn for a body."""

    id: str
    family: str
    family_name: Text
    name: Text
    sanskrit: str
    short: Text
    shared: bool
    side: Side
    seen_from: Literal["side", "front", "behind", "above"]
    hold: Text
    recipe: list[RecipeLine]
    slots: list[SlotLine]
    cues: list[Text]
    watch: list[Text]
    tests: list[Text]
    counter: list[Text]
    step_back: StepName | None
    step_forward: StepName | None
    line: Text
    fetch: list[Text]
    home: list[Text]
    """The props as one finds them at home."""
    no_stack: Text | None
    figure_words: Text
    drawings: list[Drawing]
    verdict: Verdict | None
    reasons: list[Text]
    own: OwnMark | None
    file: dict[str, Any]


class CloserOut(Output):
    """What one often-met record does to a variation."""

    name: Text
    leg: Literal["", "worked", "other"]
    verdict: Verdict
    reason: Text


class WordsOut(Output):
    """The catalogue a variation's words are chosen from."""

    cues: list[CodeWords]
    watch: list[CodeWords]


class VersionOut(Output):
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


class SavedOut(Output):
    id: str
    number: int
