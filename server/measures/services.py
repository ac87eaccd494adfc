"""Storing measures: all readings of one go, or none, with every problem named."""

from __future__ import annotations

import datetime as dt

from django.db import transaction

from accounts.models import User
from asketa_core import STATURE_CM, WEIGHT_KG, InputError, Quantity, check_plausible, check_range
from audit.models import record
from clients.models import Client
from common.errors import BadInput, FieldProblem
from measures.models import Measure
from measures.schemas import ReadingIn

BODY_RANGE = {"stature": (STATURE_CM, "cm"), "weight": (WEIGHT_KG, "kg")}


def _problem(reading: ReadingIn) -> FieldProblem | None:
    if reading.quantity in ("stature", "weight"):
        plausible, unit = BODY_RANGE[reading.quantity]
        try:
            check_range(reading.quantity, reading.value, plausible, unit)
        except InputError as error:
            return FieldProblem(field=reading.quantity, message=f"{error.reason.capitalize()} {error.remedy}")
        return None
    quantity = Quantity(reading.quantity)
    if reading.side is None:
        return FieldProblem(field=quantity.value, message="Say which side this was measured on.")
    field = f"{quantity.value}.{reading.side.value}"
    if not reading.method:
        return FieldProblem(field=field, message="Say how it was measured.")
    reason = check_plausible(quantity, reading.value)
    return FieldProblem(field=field, message=reason) if reason else None


@transaction.atomic
def store_readings(
    client: Client, user: User, readings: list[ReadingIn], date: dt.date, today: dt.date
) -> list[Measure]:
    problems = [problem for reading in readings if (problem := _problem(reading)) is not None]
    if date > today:
        problems.append(
            FieldProblem(field="date", message="This date lies in the future. Enter the day it was measured.")
        )
    if problems:
        raise BadInput(problems)
    stored = []
    for reading in readings:
        body = reading.quantity in BODY_RANGE
        measure = Measure.objects.create(
            practice_id=client.practice_id,
            created_by=user,
            client=client,
            quantity=str(reading.quantity),
            side=None if body or reading.side is None else reading.side.value,
            value=reading.value,
            method=reading.method,
            date=date,
        )
        record(measure, "measure.stored")
        stored.append(measure)
    return stored
