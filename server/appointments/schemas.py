"""What the appointments API takes and gives."""

from __future__ import annotations

import datetime as dt
import uuid

from ninja import Field

from appointments.models import LEAST_MINUTES, MOST_MINUTES
from asketa_core import Day, FreeText, Side
from common.schemas import Input, Output, Whole
from common.speech import Text

MOST_WEEKS = 52


class AppointmentIn(Input):
    """``time`` is of the practice's own clock."""

    date: Day
    time: dt.time
    minutes: Whole = Field(ge=LEAST_MINUTES, le=MOST_MINUTES)
    place: FreeText = Field(default="", max_length=80)


class BookIn(AppointmentIn):
    """``weeks`` counts the appointments of a weekly series, the first included."""

    client_id: uuid.UUID
    weeks: Whole = Field(default=1, ge=1, le=MOST_WEEKS)


class MoveIn(AppointmentIn):
    """``following`` moves the later ones of the series along, by as many days."""

    version: Whole
    following: bool = False


class CancelIn(Input):
    version: Whole
    following: bool = False


class AppointmentOut(Output):
    """``following`` counts the later appointments of the same series that stand."""

    id: uuid.UUID
    client_id: uuid.UUID
    date: dt.date
    time: dt.time
    minutes: int
    place: str
    cancelled: bool
    version: int
    following: int


class OpenMorning(Output):
    """A hold whose next morning nobody has told of yet."""

    item_id: uuid.UUID
    date: dt.date
    side: Side | None
    name: Text
    during: int
    asked: bool


class SessionOut(AppointmentOut):
    """An appointment with whom it is about and how far its day is prepared: ``planned`` and ``logged`` count ladders."""

    name: str
    age: int | None
    occupation: str
    left: list[Text]
    middle: list[Text]
    right: list[Text]
    last_visit: dt.date | None
    planned: int
    logged: int


class TodayOut(Output):
    """One day of the practice; ``today`` is the day it is there now."""

    date: dt.date
    today: dt.date
    sessions: list[SessionOut]


class AheadOut(Output):
    date: dt.date
    lines: list[Text]


class OutlookOut(Output):
    """What to know before somebody comes: what changed since the last visit (``since``), what the next weeks change, and
    mornings nobody has told of."""

    since: dt.date | None
    changed: list[Text]
    ahead: list[AheadOut]
    mornings: list[OpenMorning]
    needs_stature: bool
