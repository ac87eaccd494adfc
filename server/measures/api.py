"""Measures of a client."""

from __future__ import annotations

import uuid

from ninja import Router, Status

from clients.queries import get_client
from common import clock
from common.permissions import Permission
from measures import queries, services
from measures.schemas import MeasuresOut, ReadingsIn, TapeIn, TapeOut
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["measures"])


@router.get("/clients/{client_id}/measures", response=MeasuresOut, operation_id="listMeasures")
@in_practice(Permission.CLIENTS_READ)
def list_measures(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> MeasuresOut:
    return queries.measures_out(get_client(client_id))


@router.post("/clients/{client_id}/measures", response={201: MeasuresOut}, operation_id="storeMeasures")
@in_practice(Permission.CLIENTS_WRITE)
def store_measures(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: ReadingsIn
) -> Status[MeasuresOut]:
    """Store readings of one go; all of them or, with a problem in any, none."""
    client = get_client(client_id)
    today = clock.today(request.practice.time_zone)
    services.store_readings(client, request.user, payload.readings, payload.date or today, today)
    return Status(201, queries.measures_out(client))


@router.post("/clients/{client_id}/measures/soles-together", response=TapeOut, operation_id="turnTape")
@in_practice(Permission.CLIENTS_READ)
def turn_tape(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: TapeIn) -> TapeOut:
    """A tape reading turned into degrees; nothing is stored."""
    return queries.turned_out(get_client(client_id), payload)
