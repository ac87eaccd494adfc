"""What the coming weeks change, for every client of the practice."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from asketa_core import AHEAD_DAYS, ClientFile, Phrase, change_note, changes_ahead, waiting_on
from clients.models import Client
from common import clock
from engine.adapter import record_files
from engine.answers import cached, digest
from overview.schemas import PracticeCalendarOut, PracticeChange, WaitingOut
from practices.models import Practice


@dataclass(frozen=True)
class _Ahead:
    """One client's coming changes, and what waits for a treating professional's word."""

    changes: tuple[tuple[dt.date, tuple[Phrase, ...], bool], ...]
    waiting: tuple[Phrase, ...]


def practice_calendar(practice: Practice) -> PracticeCalendarOut:
    """Every change in the weeks ahead, in the order of dates. As many queries for one client as for hundreds; what one
    client's records come to is worked out once a day."""
    date = clock.today(practice.time_zone)
    clients = list(Client.objects.known().select_related("practice").filter(archived=False))
    files = record_files(clients)
    changes, waiting = [], []
    for client in clients:
        ahead = _ahead_of(files[client.pk], date)
        who = {"client_id": client.pk, "name": client.person.name}
        changes += [
            PracticeChange(date=day, lines=list(lines), tightens=tightens, **who)
            for day, lines, tightens in ahead.changes
        ]
        if ahead.waiting:
            waiting.append(WaitingOut(lines=list(ahead.waiting), **who))
    changes.sort(key=lambda change: change.date)
    return PracticeCalendarOut(today=date, until=date + dt.timedelta(days=AHEAD_DAYS), changes=changes, waiting=waiting)


def _ahead_of(file: ClientFile, date: dt.date) -> _Ahead:
    if not file.entries:
        return _Ahead((), ())
    # What the calendar changes hangs on records and measures, and on nobody's name.
    known = file.model_dump_json(exclude={"client": {"id", "name"}})

    def compute() -> _Ahead:
        changes = ((change, change_note(change)) for change in changes_ahead(file, date))
        return _Ahead(
            tuple((note.date, note.lines, change.tightens) for change, note in changes),
            tuple(note.text for note in waiting_on(file, date)),
        )

    return cached("practice_calendar", date, digest(known), compute=compute)
