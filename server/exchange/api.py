"""Client files out and in."""

from __future__ import annotations

import json
import uuid
from typing import Any

from django.http import HttpResponse
from ninja import Body, Router, Status

from clients.queries import client_out, get_client
from clients.schemas import ClientOut
from common import clock
from common.permissions import Permission
from exchange import services
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["exchange"])


@router.get("/clients/{client_id}/file", operation_id="exportClient", include_in_schema=False)
@in_practice(Permission.CLIENTS_READ)
def export_client(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> HttpResponse:
    """The client file. Its file name says nothing about whose it is."""
    text = json.dumps(services.exported(get_client(client_id)), ensure_ascii=False, indent=2)
    answer = HttpResponse(text, content_type="application/json; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="client.asketa.json"'
    return answer


@router.post("/clients/import", response={201: ClientOut}, operation_id="importClient")
@in_practice(Permission.CLIENTS_WRITE)
def import_client(
    request: PracticeRequest, practice_id: PracticeId, payload: Body[dict[str, Any]]
) -> Status[ClientOut]:
    """A new client from a client file; all of it or, with any problem, nothing."""
    client = services.imported(request.practice, request.user, payload)
    return Status(201, client_out(client, clock.today(request.practice.time_zone)))
