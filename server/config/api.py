"""The one API object. Signed-in people only, unless an endpoint says otherwise."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from ninja.security import django_auth

from accounts.api import router as accounts
from appointments.api import router as appointments
from asketa_core import read_json
from clients.api import router as clients
from common.errors import Problem, install_handlers
from exchange.api import router as exchange
from library.api import router as library
from measures.api import router as measures
from plans.api import router as plans
from practices.api import router as practices
from room.api import router as room
from visits.api import router as visits


class CheckedParser(Parser):
    """Bodies as JSON that can be kept: see the core's ``plain_text``."""

    def parse_body(self, request: HttpRequest) -> Any:
        return read_json(request.body)


api = NinjaAPI(title="Asketa", version="1", auth=django_auth, docs_url=None, parser=CheckedParser())
install_handlers(api)

api.add_router("/auth", accounts)
for router in (appointments, exchange, clients, measures, library, plans, practices, room, visits):
    api.add_router("/practices/{uuid:practice_id}", router)

__all__ = ["Problem", "api"]
