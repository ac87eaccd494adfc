"""Appointments and the day they make."""

from __future__ import annotations

import datetime as dt
import uuid

from ninja import Router, Status

from appointments import queries, services
from appointments.schemas import AppointmentOut, BookIn, CancelIn, MoveIn, OutlookOut, TodayOut
from clients.queries import get_client
from common import clock
from common.permissions import Permission
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["appointments"])


def _today(request: PracticeRequest) -> dt.date:
    return clock.today(request.practice.time_zone)


def _asked(request: PracticeRequest, date: dt.date | None) -> dt.date:
    """The day asked about, or the day it is at the practice."""
    today = _today(request)
    services.refuse_far_off(date or today, today)
    return date or today


@router.get("/today", response=TodayOut, operation_id="today")
@in_practice(Permission.CLIENTS_READ)
def today(request: PracticeRequest, practice_id: PracticeId, date: dt.date | None = None) -> TodayOut:
    """The appointments of a day in their order; of the day it is at the practice when none is named."""
    return queries.day(request.practice, _asked(request, date))


@router.get("/clients/{client_id}/outlook", response=OutlookOut, operation_id="outlook")
@in_practice(Permission.CLIENTS_READ)
def outlook(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, date: dt.date | None = None
) -> OutlookOut:
    """What changed since the last visit and what the next weeks change, seen from a day. Slow the first time."""
    return queries.outlook(get_client(client_id), _asked(request, date))


@router.post("/appointments", response={201: AppointmentOut}, operation_id="bookAppointment")
@in_practice(Permission.CLIENTS_WRITE)
def book(request: PracticeRequest, practice_id: PracticeId, payload: BookIn) -> Status[AppointmentOut]:
    booked = services.book(get_client(payload.client_id), request.user, payload, _today(request))
    return Status(201, queries.appointment_out(booked))


@router.put("/appointments/{appointment_id}", response=AppointmentOut, operation_id="moveAppointment")
@in_practice(Permission.CLIENTS_WRITE)
def move(
    request: PracticeRequest, practice_id: PracticeId, appointment_id: uuid.UUID, payload: MoveIn
) -> AppointmentOut:
    one = services.get_appointment(appointment_id)
    return queries.appointment_out(services.move(one, request.user, payload, _today(request)))


@router.post("/appointments/{appointment_id}/cancel", response=AppointmentOut, operation_id="cancelAppointment")
@in_practice(Permission.CLIENTS_WRITE)
def cancel(
    request: PracticeRequest, practice_id: PracticeId, appointment_id: uuid.UUID, payload: CancelIn
) -> AppointmentOut:
    return queries.appointment_out(services.cancel(services.get_appointment(appointment_id), request.user, payload))


@router.post("/appointments/{appointment_id}/restore", response=AppointmentOut, operation_id="restoreAppointment")
@in_practice(Permission.CLIENTS_WRITE)
def restore(
    request: PracticeRequest, practice_id: PracticeId, appointment_id: uuid.UUID, payload: CancelIn
) -> AppointmentOut:
    return queries.appointment_out(services.restore(services.get_appointment(appointment_id), request.user, payload))
