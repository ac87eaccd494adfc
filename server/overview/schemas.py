"""What is told of a client as a whole."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any, Literal

from asketa_core import Clearance, Professional, Readout, Side, TriState
from clients.schemas import ClientOut
from common.schemas import Output
from common.speech import Text


class EntryShown(Output):
    """A record as it stands: its facts by name, those not known left out. ``unreadable`` ones say why."""

    kind: str
    side: Side | None = None
    facts: dict[str, Any]


class LimitOut(Output):
    """A limit an entry turns into: what it is in few words, why, how hard, and on which authority."""

    code: str
    short: Text
    reason: Text
    severity: str
    source: Text


class PlaceOut(Output):
    """A place on the body seen from behind, of 100 × 212; the left of it, the right is mirrored."""

    x: float
    y: float


class FormOut(Output):
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


class FigureOut(Output):
    """A figure of a limit that holds today: of which rule, which way it binds, how hard, and whose word it is where it is
    not the rule's own."""

    rule: str
    readout: Readout
    words: Text
    above: bool
    value: float
    unit: str
    severity: str
    said_by: Text


class SaidFigure(Output):
    """A figure as it was said; ``holds`` where it is the one in force today."""

    words: Text
    holds: bool


class InstructionOut(Output):
    """What a treating professional said of a record, and whether it counts today."""

    id: uuid.UUID
    who: Professional
    date: dt.date
    until: dt.date | None
    text: str
    figures: list[SaidFigure]
    counts: bool


class CheckOut(Output):
    """The signs of one record that belong to a doctor, by code, which were said to be there, and when they were last gone
    through."""

    entry_id: uuid.UUID
    label: Text
    side: Side | None
    signs: dict[str, Text]
    answered: list[str]
    asked_on: dt.date | None


class CallOut(Output):
    entry_id: uuid.UUID
    label: Text
    side: Side | None
    urgency: Literal["emergency", "now", "today", "soon"]
    whom: Text
    signs: list[Text]


class DoctorOut(Output):
    """What to do where a sign that belongs to a doctor was recorded: whom to call, and what may be done meanwhile."""

    headline: Text
    calls: list[CallOut]
    meanwhile: Text
    records: list[Text]
    """Everything that is recorded, for whoever is called."""


class EntryOut(Output):
    """A record in its standing version. ``id`` names this version, ``root`` the record for good; ``operated_on`` is the
    day of an operation, ``asked_today`` whether how it is today is asked at every arrival, ``irritable`` the last answer
    that still counts, ``None`` where it is not asked."""

    id: uuid.UUID
    root: uuid.UUID
    label: Text
    operated_on: dt.date | None
    asked_today: bool
    entry: EntryShown
    clearances: list[Clearance]
    pain_today: int | None
    irritable: TriState | None
    daily_date: dt.date | None
    recorded_at: dt.datetime
    limits: list[LimitOut]
    figures: list[FigureOut]
    instructions: list[InstructionOut]
    corrected: bool
    """Whether it replaced an earlier version."""


class NoteOut(Output):
    side: Side | None
    text: Text
    weight: Literal["fact", "limit", "ask", "promise"]
    entry_id: str | None


class ChangeOut(Output):
    date: dt.date
    lines: list[Text]


class StopOut(Output):
    """One stop of the working order: what is done, missing or stale there."""

    stop: Literal["limits", "measures", "choose", "set_up", "plan", "on_the_mat", "responses"]
    state: Literal["done", "attention", "open"]
    note: Text


class AskedOut(Output):
    """A record about which one asks at arrival how it is, and what was said today. ``irritable`` is the last answer that
    still counts, ``None`` where it is not asked."""

    entry_id: uuid.UUID
    label: Text
    side: Side | None
    pain_today: int | None
    irritable: TriState | None


class ClientHead(Output):
    """Everything around a client's views: who, the band, what to mind, and what is asked on the day."""

    client: ClientOut
    stature_cm: float | None
    today: dt.date
    band: list[StopOut]
    notes: list[NoteOut]
    asked: list[AskedOut]
    doctor: DoctorOut | None
    next_change: ChangeOut | None
    disclaimer: Text


class CalendarChange(ChangeOut):
    """One coming change; ``tightens`` where anything new binds from then on, ``rungs`` what it lets in or puts out of the
    ladders worked on, since the change before."""

    tightens: bool
    rungs: list[Text]


class CalendarOut(Output):
    """Every change of limits from ``today`` to ``until``, both days in it."""

    today: dt.date
    until: dt.date
    changes: list[CalendarChange]


class ComingOut(Output):
    """Which rungs the next change lets in or puts out, in sentences."""

    lines: list[Text]


class PracticeChange(ChangeOut):
    """A coming change of one client's limits."""

    client_id: uuid.UUID
    name: str
    tightens: bool


class WaitingOut(Output):
    """What waits for a treating professional's word, client by client."""

    client_id: uuid.UUID
    name: str
    lines: list[Text]


class PracticeCalendarOut(Output):
    """Every change of limits of every client from ``today`` to ``until``, both days in it, in the order of their dates, and
    whose word is waited for."""

    today: dt.date
    until: dt.date
    changes: list[PracticeChange]
    waiting: list[WaitingOut]
