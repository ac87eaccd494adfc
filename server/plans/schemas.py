"""What planning a session takes and gives."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Field

from asketa_core import MOST_POSES, Key, Level, Name, Side, Verdict
from common.schemas import Input, Output, Whole
from common.speech import Text
from visits.schemas import DoseOut

MOST_ROUNDS = 9
Minutes = Annotated[Whole, Field(ge=5, le=480)]


class SideIn(Input):
    """How much of a planned side: its rung and set-up stay what they are."""

    dose_s: Whole = Field(ge=1, le=1200)
    rounds: Whole = Field(default=1, ge=1, le=MOST_ROUNDS)


class PoseIn(Input):
    """A planned ladder at its place; a side that is not named is taken out."""

    family: Key
    fixed: bool = False
    left: SideIn | None = None
    right: SideIn | None = None


class PlanSave(Input):
    """The plan in its new order. ``version`` is the one it was made from; poses that are not named are taken out."""

    version: Whole
    minutes: Minutes | None = None
    poses: list[PoseIn] = Field(max_length=MOST_POSES)


class AgainIn(Input):
    """Plan the same as last time, or as a template has it, beside what is planned. Without a ``version`` whatever stands is
    added to."""

    version: Whole | None = None
    template_id: uuid.UUID | None = None


class AddIn(Input):
    """Put a ladder into the plan, or the sides of it that are missing: each with its next step, or as it was last time.
    ``after`` names the one it comes after; at the end otherwise. Without a ``version`` whatever stands is added to."""

    version: Whole | None = None
    family: Key
    after: Key | None = None
    as_last_time: bool = False


class BreathIn(Input):
    seconds: Whole = Field(ge=2, le=20)


class TemplateIn(Input):
    """Keep a client's plan of a day as a template: its order, not its bodies."""

    name: Name = Field(max_length=80)
    client_id: uuid.UUID


class TemplateOut(Output):
    id: uuid.UUID
    name: str
    families: list[Text]


class PlannedPart(Output):
    """One planned side. ``since`` is what differs from last time, ``why`` the reason of that; ``reasons`` close it or are
    to be minded."""

    variation: str
    name: Text
    short: Text
    line: Text
    dose_s: int
    dose: Text
    doses: list[DoseOut]
    rounds: int
    verdict: Verdict
    allowed: bool
    reasons: list[Text]
    figure: str
    figure_words: Text
    since: Text
    changed: bool
    why: Text


class PlannedPose(Output):
    """One ladder of the plan; ``shared`` shapes have one set-up for both sides. ``left_missing`` and ``right_missing`` say
    why a side is not there; empty where it can be added."""

    family: str
    name: Text
    shared: bool
    fixed: bool
    seconds: int
    left: PlannedPart | None
    right: PlannedPart | None
    left_missing: Text
    right_missing: Text


class PieceOut(Output):
    """A stretch of the session, in seconds from its beginning; ``pose`` is a place in the plan."""

    kind: Literal["hold", "change"]
    start_s: int
    end_s: int
    level: Level
    pose: int | None
    side: Side | None
    came_from: Level | None


class LevelOut(Output):
    level: Level
    words: Text


class ConcernOut(Output):
    code: str
    poses: list[int]
    words: Text


class ReasonOut(Output):
    code: str
    poses: list[int]
    words: Text


class LeftOut(Output):
    """A ladder of last time that is not in the plan, and why; ``open`` ones can be put back."""

    family: str
    name: Text
    reason: Text
    open: bool


class CounterOut(Output):
    """A counter-pose for a planned ladder that wants one and has none: the rung that is open and nearest."""

    after: str
    family: str
    name: Text
    short: Text


class PlanOut(Output):
    """A day's plan with everything told about it. ``version`` is 0 while nothing is stored."""

    date: dt.date
    today: dt.date
    version: int
    time: dt.time | None
    minutes: int
    breath_s: int
    last_visit: dt.date | None
    last_ladders: int
    started: bool
    seconds: int
    poses: list[PlannedPose]
    pieces: list[PieceOut]
    levels: list[LevelOut]
    concerns: list[ConcernOut]
    reasons: list[ReasonOut]
    left_out: list[LeftOut]
    counters: list[CounterOut]


class OrderOut(Output):
    """The order suggested, and what each place is for; ``poses`` in ``reasons`` are places in it. Nothing is stored."""

    families: list[str]
    reasons: list[ReasonOut]
    changes: bool
