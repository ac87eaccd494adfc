"""Changes to appointments. Every function runs in one transaction and writes its audit rows."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Sequence

from django.db import models, transaction
from django.http import Http404

from accounts.models import User
from appointments.models import Appointment
from appointments.schemas import AppointmentIn, BookIn, CancelIn, MoveIn
from audit.models import record
from clients.models import Client
from common.errors import Stale, bad_field
from common.speech import own

WEEK = dt.timedelta(days=7)
MOST_DAYS_OFF = 800
"""How far from today a day may be asked about or booked."""


def get_appointment(appointment_id: uuid.UUID) -> Appointment:
    """An appointment of the opened practice; 404 otherwise."""
    found: Appointment | None = Appointment.objects.of_known().filter(pk=appointment_id).first()
    if found is None:
        raise Http404
    return found


@transaction.atomic
def book(client: Client, user: User, data: BookIn, today: dt.date) -> Appointment:
    """Book an appointment, or one a week; the first is returned."""
    _refuse_the_past(data, today)
    series = uuid.uuid4() if data.weeks > 1 else None
    booked: list[Appointment] = [
        Appointment.objects.create(
            practice_id=client.practice_id, created_by=user, client=client, series=series,
            date=data.date + week * WEEK, time=data.time, minutes=data.minutes,
        )
        for week in range(data.weeks)
    ]  # fmt: skip
    for each in booked:
        _at(client, each, data.place)
        record(each, "appointment.booked", user)
    return booked[0]


@transaction.atomic
def move(appointment: Appointment, user: User, data: MoveIn, today: dt.date) -> Appointment:
    """Change day, time, length or place. Raises ``Stale`` when somebody changed it in between."""
    if data.date != appointment.date:
        _refuse_the_past(data, today)
    by = data.date - appointment.date
    for each in _meant(appointment, data.version, data.following):
        each.date, each.time, each.minutes = each.date + by, data.time, data.minutes
        _save(each, user, "appointment.moved", "date", "time", "minutes")
        _at(appointment.client, each, data.place)
    return get_appointment(appointment.pk)


@transaction.atomic
def cancel(appointment: Appointment, user: User, data: CancelIn) -> Appointment:
    """Take an appointment off the list; it can be brought back. Raises ``Stale`` like a move."""
    for each in _meant(appointment, data.version, data.following):
        each.cancelled = True
        _save(each, user, "appointment.cancelled", "cancelled")
    return get_appointment(appointment.pk)


@transaction.atomic
def restore(appointment: Appointment, user: User, data: CancelIn) -> Appointment:
    """Undo a cancellation. Raises ``Stale`` like a move."""
    for each in _meant(appointment, data.version, data.following, cancelled=True):
        each.cancelled = False
        _save(each, user, "appointment.restored", "cancelled")
    return get_appointment(appointment.pk)


def _refuse_the_past(data: AppointmentIn, today: dt.date) -> None:
    if data.date < today:
        raise bad_field("date", own("field", "in_the_past"))
    refuse_far_off(data.date, today)


def refuse_far_off(date: dt.date, today: dt.date) -> None:
    """Raise ``BadInput`` for a day that no appointment is on: what the calendar does is not worked out for years ahead."""
    if abs((date - today).days) > MOST_DAYS_OFF:
        raise bad_field("date", own("field", "far_off", days=MOST_DAYS_OFF))


def _meant(appointment: Appointment, version: int, following: bool, cancelled: bool = False) -> Sequence[Appointment]:
    """The appointment, locked at the version somebody saw, and where they are meant those of its series that follow it and
    are in the same state."""
    one = Appointment.objects.select_for_update().filter(pk=appointment.pk, version=version).first()
    if one is None:
        now = get_appointment(appointment.pk)
        raise Stale(
            {
                "date": now.date.isoformat(),
                "time": now.time.isoformat("minutes"),
                "minutes": now.minutes,
                "place": now.place,
                "cancelled": now.cancelled,
                "version": now.version,
            }
        )
    if not following or one.series is None:
        return [one]
    later = models.Q(date__gt=one.date) | models.Q(date=one.date, time__gt=one.time)
    return [one, *Appointment.objects.select_for_update().filter(later, series=one.series, cancelled=cancelled)]


def _save(appointment: Appointment, user: User, action: str, *fields: str) -> None:
    appointment.version += 1
    appointment.save(update_fields=[*fields, "version"])
    record(appointment, action, user)


def _at(client: Client, appointment: Appointment, place: str) -> None:
    if place != client.person.note_of(appointment.pk):
        client.person.keep_note(appointment.pk, place)
