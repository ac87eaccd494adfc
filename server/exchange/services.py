"""The client file out of and into a practice.

What goes out is what stands: records in their latest version, every measure, every response. What comes
in becomes a new client with new ids, dated as the file says.
"""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import transaction
from pydantic import ValidationError

from accounts.models import User
from asketa_core import TEST_RESULTS, ClientFile, Response, implausible_file, parse
from asketa_core import Instruction as Word
from asketa_core import Trial as TrialValue
from audit.models import record
from clients.models import Clearance, Client, DailyAnswer, Entry, Instruction, Person
from common import clock
from common.errors import BadInput, FieldProblem, refuse_implausible
from common.schemas import refuse_nulls
from engine.adapter import client_file
from engine.shelf import practice_library
from measures.models import SEEN, TEST, Measure
from practices.models import Practice
from visits.models import LoggedItem, MorningAnswer, Trial, Visit

NAMELESS = "Client from a file"
BATCH = 500
SETTLED = {"yes": True, "no": False, "unknown": None}


def exported(client: Client) -> dict[str, Any]:
    """The client file as JSON-ready values; absent facts are left out rather than null."""
    return client_file(client).model_dump(mode="json", exclude_none=True)


@transaction.atomic
def imported(practice: Practice, user: User, raw: Any) -> Client:
    """A new client from a file. Everything in it passes what is asked of records entered by hand; with any problem nothing
    is stored, and the path of what is wrong is named."""
    try:
        file = parse(ClientFile, refuse_nulls(raw))
    except ValidationError as error:
        raise BadInput(
            [FieldProblem(field=".".join(map(str, e["loc"])), message=e["msg"]) for e in error.errors()]
        ) from error
    refuse_implausible(implausible_file(file, practice_library().library, clock.today(practice.time_zone)))
    own = {"practice": practice, "created_by": user}
    settings = {name: getattr(file.settings, name) for name in ("discomfort_allowed", "breath_s")}
    client = Client.objects.create(**settings, **own)
    person = Person(client=client, name=file.client.name or NAMELESS, birth_date=file.client.birth_date, **own)
    _store_entries(file, client, own, person)
    _store_measures(file, client, own)
    _store_visits(file, client, own, person)
    person.save(force_insert=True)
    record(client, "client.imported", user)
    return client


def _store_entries(file: ClientFile, client: Client, own: dict[str, Any], person: Person) -> None:
    rows = {entry.id: uuid.uuid4() for entry in file.entries}
    Entry.objects.bulk_create(
        Entry(
            id=rows[entry.id], root=rows[entry.id], client=client, kind=entry.kind,
            side=entry.side.value if entry.side is not None else None,
            facts=entry.facts.model_dump(mode="json"), from_date=entry.from_date, until_date=entry.until_date, **own,
        )
        for entry in file.entries
    )  # fmt: skip
    Clearance.objects.bulk_create(
        Clearance(entry_id=rows[entry.id], who=given.who, date=given.date, scope=list(given.scope), **own)
        for entry in file.entries
        for given in entry.clearances
    )
    words = [
        (said.text.strip(), _instruction(said, rows[entry.id], own))
        for entry in file.entries
        for said in entry.instructions
    ]
    Instruction.objects.bulk_create(row for _, row in words)
    person.notes = {str(row.pk): text for text, row in words if text}
    DailyAnswer.objects.bulk_create(
        (
            DailyAnswer(
                entry_id=rows[fact.entry_id],
                date=fact.date,
                pain_today=fact.pain_today,
                irritable=fact.irritable,
                **own,
            )
            for fact in file.daily
        ),
        batch_size=BATCH,
    )


def _instruction(said: Word, entry_id: uuid.UUID, own: dict[str, Any]) -> Instruction:
    figures = [figure.model_dump(mode="json") for figure in said.figures]
    return Instruction(entry_id=entry_id, who=said.who, date=said.date, until=said.until, figures=figures, **own)


def _store_measures(file: ClientFile, client: Client, own: dict[str, Any]) -> None:
    Measure.objects.bulk_create(
        (
            Measure(client=client, quantity=body.quantity, value=body.value, date=body.date, note=body.note, **own)
            for body in file.body
        ),
        batch_size=BATCH,
    )
    Measure.objects.bulk_create(
        (
            Measure(
                client=client, quantity=reading.quantity.value, side=reading.side.value, value=reading.value_deg,
                method=reading.method, error=reading.error_deg, date=reading.date, pelvis_held=reading.pelvis_held,
                conditions=reading.conditions, **own,
            )
            for reading in file.ranges
        ),
        batch_size=BATCH,
    )  # fmt: skip

    Measure.objects.bulk_create(
        (
            Measure(
                client=client, quantity=f"{TEST}{each.test}", side=each.side.value,
                value=TEST_RESULTS.index(each.result), date=each.date, **own,
            )
            for each in file.tests
        ),
        batch_size=BATCH,
    )  # fmt: skip
    Measure.objects.bulk_create(
        (
            Measure(client=client, quantity=f"{SEEN}{each.bound}", side=each.side.value, value=value, date=date, **own)
            for each in file.seen
            for value, date in ((1, each.date), (0, each.until))
            if date is not None
        ),
        batch_size=BATCH,
    )


def _store_visits(file: ClientFile, client: Client, own: dict[str, Any], person: Person) -> None:
    days = dict.fromkeys([*(each.date for each in file.responses), *(each.date for each in file.trials)])
    visits = {day: Visit(client=client, date=day, **own) for day in days}
    Visit.objects.bulk_create(visits.values(), batch_size=BATCH)
    Trial.objects.bulk_create(
        (_trial(trial, visits[trial.date], place, own) for place, trial in enumerate(file.trials)), batch_size=BATCH
    )
    items = [_item(response, visits[response.date], place, own) for place, response in enumerate(file.responses)]
    LoggedItem.objects.bulk_create(items, batch_size=BATCH)
    person.notes |= {str(item.pk): item.note for item in items if item.note}
    MorningAnswer.objects.bulk_create(
        (
            MorningAnswer(item=item, settled=SETTLED[response.settled_next_morning], **own)
            for response, item in zip(file.responses, items, strict=True)
            if response.morning_asked or response.settled_next_morning != "unknown"
        ),
        batch_size=BATCH,
    )


def _item(response: Response, visit: Visit, place: int, own: dict[str, Any]) -> LoggedItem:
    fields = response.model_dump(
        mode="json", exclude={"id", "date", "setup", "settled_next_morning", "morning_asked", "note"}
    )
    setup = {name: value.model_dump(exclude_none=True) for name, value in response.setup.items()}
    # What was judged elsewhere at the time is not known here, and not made up. The file's order is kept by the clock.
    item = LoggedItem(
        visit=visit, setup_used=setup, snapshot={"imported": True},
        logged_at=clock.now() + dt.timedelta(microseconds=place), **fields, **own,
    )  # fmt: skip
    item.note = response.note
    return item


def _trial(trial: TrialValue, visit: Visit, place: int, own: dict[str, Any]) -> Trial:
    fields = trial.model_dump(mode="json", exclude={"id", "date", "a", "b"})
    a, b = (value.model_dump(exclude_none=True) for value in (trial.a, trial.b))
    # The rest of the set-up is not in the file; the file's order is kept by the clock.
    return Trial(
        visit=visit, a=a, b=b, setup={trial.slot: a}, snapshot={"imported": True},
        **{**own, "created_at": clock.now() + dt.timedelta(microseconds=place)}, **fields,
    )  # fmt: skip
