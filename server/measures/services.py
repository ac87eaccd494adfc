"""Storing measures: all readings of one go, or none, with every problem named."""

from __future__ import annotations

import datetime as dt

from django.db import transaction

from accounts.models import User
from asketa_core import PLAUSIBLE_BODY, TEST_RESULTS, Quantity, check_plausible, past_date
from audit.models import record
from clients.models import Client
from common.errors import BadInput, FieldProblem
from common.speech import own
from measures.models import SEEN, TEST, Measure
from measures.schemas import ReadingIn


def _problem(reading: ReadingIn) -> FieldProblem | None:
    if reading.quantity in PLAUSIBLE_BODY:
        low, high = PLAUSIBLE_BODY[reading.quantity]
        if low <= reading.value <= high:
            return None
        said = {
            "weight": own("field", "outside", "weight", low=low, high=high),
            "one_leg_stand": own("field", "outside", "seconds", low=low, high=high),
        }
        message = said.get(reading.quantity, own("field", "outside", "length", low=low, high=high))
        return FieldProblem(field=reading.quantity, message=message)
    if reading.quantity.startswith((TEST, SEEN)):
        if reading.side is None:
            return FieldProblem(field=reading.quantity, message=own("field", "seen_side"))
        known = range(len(TEST_RESULTS)) if reading.quantity.startswith(TEST) else (0, 1)
        if reading.value in known:
            return None
        return FieldProblem(field=f"{reading.quantity}.{reading.side.value}", message=own("field", "test_result"))
    quantity = Quantity(reading.quantity)
    if reading.side is None:
        return FieldProblem(field=quantity.value, message=own("field", "measured_side"))
    field = f"{quantity.value}.{reading.side.value}"
    if not reading.method:
        return FieldProblem(field=field, message=own("field", "method"))
    reason = check_plausible(quantity, reading.value)
    return FieldProblem(field=field, message=reason) if reason else None


@transaction.atomic
def store_readings(
    client: Client, user: User, readings: list[ReadingIn], date: dt.date, today: dt.date
) -> list[Measure]:
    problems = [problem for reading in readings if (problem := _problem(reading)) is not None]
    problems += [FieldProblem(field=each.field, message=each.message) for each in past_date("date", date, today)]
    if problems:
        raise BadInput(problems)
    stored = []
    for reading in readings:
        body = reading.quantity in PLAUSIBLE_BODY
        measure = Measure.objects.create(
            practice_id=client.practice_id,
            created_by=user,
            client=client,
            quantity=str(reading.quantity),
            side=None if body or reading.side is None else reading.side.value,
            value=reading.value,
            method=reading.method,
            error=reading.error,
            pelvis_held=reading.pelvis_held,
            conditions=reading.conditions,
            note=reading.note,
            date=date,
        )
        record(measure, "measure.stored", user)
        stored.append(measure)
    return stored
