"""What is told of a client as a whole."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any, Literal

from ninja import Schema

from asketa_core import Clearance, Side, TriState
from clients.schemas import ClientOut
from common.speech import Text


class EntryShown(Schema):
    """A record as it stands: its facts by name, those not known left out. ``unreadable`` ones say why."""

    kind: str
    side: Side | None = None
    facts: dict[str, Any]


class LimitOut(Schema):
    """A limit an entry turns into: what it is in few words, why, how hard, and on which authority."""

    code: str
    short: Text
    reason: Text
    severity: str
    source: Text


class PlaceOut(Schema):
    """A place on the body seen from behind, of 100 × 212; the left of it, the right is mirrored."""

    x: float
    y: float


class FormOut(Schema):
    """One kind of record: where it belongs, what is asked as JSON Schema, and what a clearance may be about."""

    code: str
    name: Text
    sides: Literal["sided", "middle", "either"]
    place: PlaceOut
    doctor: Text
    scopes: dict[str, Text]
    offered_scopes: list[str]
    facts: dict[str, Any]
    """JSON Schema of the facts; ``x-order``, ``x-when`` and ``x-unit`` say how they are asked."""


class EntryOut(Schema):
    """A record in its standing version. ``id`` names this version, ``root`` the record for good; ``operated_on`` is the
    day of an operation, ``asked_today`` whether how it is today is asked at every arrival."""

    id: uuid.UUID
    root: uuid.UUID
    label: Text
    operated_on: dt.date | None
    asked_today: bool
    entry: EntryShown
    clearances: list[Clearance]
    pain_today: int | None
    irritable: TriState
    daily_date: dt.date | None
    recorded_at: dt.datetime
    limits: list[LimitOut]


class NoteOut(Schema):
    side: Side | None
    text: Text
    weight: Literal["fact", "limit", "ask", "promise"]
    entry_id: str | None


class ChangeOut(Schema):
    date: dt.date
    lines: list[Text]


class StopOut(Schema):
    """One stop of the working order: what is done, missing or stale there."""

    stop: Literal["limits", "measures", "choose", "set_up", "plan", "on_the_mat", "responses"]
    state: Literal["done", "attention", "open"]
    note: Text


class AskedOut(Schema):
    """A record about which one asks at arrival how it is, and what was said today."""

    entry_id: uuid.UUID
    label: Text
    side: Side | None
    pain_today: int | None
    irritable: TriState


class ClientHead(Schema):
    """Everything around a client's views: who, the band, what to mind, and what is asked on the day."""

    client: ClientOut
    stature_cm: float | None
    today: dt.date
    band: list[StopOut]
    notes: list[NoteOut]
    asked: list[AskedOut]
    next_change: ChangeOut | None
    disclaimer: Text


class CalendarChange(ChangeOut):
    """One coming change; ``tightens`` where anything new binds from then on, ``rungs`` what it lets in or puts out of the
    ladders worked on, since the change before."""

    tightens: bool
    rungs: list[Text]


class CalendarOut(Schema):
    """Every change of limits from ``today`` to ``until``, both days in it."""

    today: dt.date
    until: dt.date
    changes: list[CalendarChange]


class ComingOut(Schema):
    """Which rungs the next change lets in or puts out, in sentences."""

    lines: list[Text]
