"""The client file out of and into a practice.

What goes out is what stands: records in their latest version, every measure, every response. What comes
in becomes a new client with new ids, dated as the file says.
"""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import transaction

from accounts.models import User
from asketa_core import ClientFile, Response, parse
from audit.models import record
from clients.models import Clearance, Client, DailyAnswer, Entry
from common import clock
from common.errors import bad_field
from engine.adapter import client_file
from engine.shelf import practice_library
from measures.models import Measure
from practices.models import Practice
from visits.models import LoggedItem, MorningAnswer, Visit

NAMELESS = "Client from a file"


def exported(client: Client) -> dict[str, Any]:
    """The client file as JSON-ready values; absent facts are left out rather than null."""
    return client_file(client).model_dump(mode="json", exclude_none=True)


@transaction.atomic
def imported(practice: Practice, user: User, raw: Any) -> Client:
    """A new client from a file. ``InputError`` names the path of the first problem; nothing is stored then."""
    file = parse(ClientFile, raw)
    _check_dates(file, clock.today(practice.time_zone))
    library = practice_library().library
    for response in file.responses:
        library.variation(response.variation)
    client = Client.objects.create(
        practice=practice,
        created_by=user,
        name=file.client.name or NAMELESS,
        birth_date=file.client.birth_date,
        discomfort_allowed=file.settings.discomfort_allowed,
    )
    own = {"practice": practice, "created_by": user}
    _store_entries(file, client, own)
    _store_measures(file, client, own)
    _store_responses(file, client, own)
    record(client, "client.imported")
    return client


def _check_dates(file: ClientFile, today: dt.date) -> None:
    dated = {
        **{f"body.{k}.date": m.date for k, m in enumerate(file.body)},
        **{f"ranges.{k}.date": m.date for k, m in enumerate(file.ranges)},
        **{f"daily.{k}.date": f.date for k, f in enumerate(file.daily)},
        **{f"responses.{k}.date": r.date for k, r in enumerate(file.responses)},
    }
    for field, date in dated.items():
        if date > today:
            raise bad_field(field, "This date lies in the future. Correct it in the file.")


def _store_entries(file: ClientFile, client: Client, own: dict[str, Any]) -> None:
    rows = {}
    for entry in file.entries:
        new = uuid.uuid4()
        rows[entry.id] = Entry.objects.create(
            id=new, root=new, client=client, kind=entry.kind, side=entry.side.value if entry.side is not None else None,
            facts=entry.facts.model_dump(mode="json"), from_date=entry.from_date, until_date=entry.until_date, **own,
        )  # fmt: skip
        for given in entry.clearances:
            Clearance.objects.create(
                entry=rows[entry.id], who=given.who, date=given.date, scope=list(given.scope), **own
            )
    for fact in file.daily:
        DailyAnswer.objects.create(
            entry=rows[fact.entry_id], date=fact.date, pain_today=fact.pain_today, irritable=fact.irritable, **own
        )


def _store_measures(file: ClientFile, client: Client, own: dict[str, Any]) -> None:
    for body in file.body:
        Measure.objects.create(
            client=client, quantity=body.quantity, value=body.value, date=body.date, note=body.note, **own
        )
    for reading in file.ranges:
        Measure.objects.create(
            client=client, quantity=reading.quantity.value, side=reading.side.value, value=reading.value_deg,
            method=reading.method, error=reading.error_deg, date=reading.date, pelvis_held=reading.pelvis_held,
            conditions=reading.conditions, **own,
        )  # fmt: skip


def _store_responses(file: ClientFile, client: Client, own: dict[str, Any]) -> None:
    visits: dict[dt.date, Visit] = {}
    for response in file.responses:
        if response.date not in visits:
            visits[response.date] = Visit.objects.create(client=client, date=response.date, **own)
        item = _item(response, visits[response.date], own)
        if response.settled_next_morning != "unknown":
            MorningAnswer.objects.create(item=item, settled=response.settled_next_morning == "yes", **own)


def _item(response: Response, visit: Visit, own: dict[str, Any]) -> LoggedItem:
    fields = response.model_dump(
        mode="json", exclude={"id", "date", "setup", "settled_next_morning"}, exclude_none=True
    )
    setup = {name: value.model_dump(exclude_none=True) for name, value in response.setup.items()}
    # What was judged elsewhere at the time is not known here, and not made up.
    return LoggedItem.objects.create(visit=visit, setup_used=setup, snapshot={"imported": True}, **fields, **own)
