"""Changes to clients and their records. Every function runs in one transaction and writes its audit row."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import IntegrityError, transaction

from accounts.models import User
from audit.models import record
from clients.models import Clearance, Client, DailyAnswer, Entry
from clients.schemas import BonesIn, ClearanceIn, ClientIn, DailyIn, EntryIn, PregnancyIn
from common.errors import BadInput, FieldProblem, Stale
from practices.models import Practice

EARLIEST = dt.date(1900, 1, 1)


def _check_dates(dates: dict[str, dt.date | None], today: dt.date) -> None:
    """Refuse dates that cannot be: in the future, or before anyone alive."""
    problems = []
    for field, date in dates.items():
        if date is not None and date > today:
            problems.append(
                FieldProblem(field=field, message="This date lies in the future. Enter the day it happened.")
            )
        elif date is not None and date < EARLIEST:
            problems.append(FieldProblem(field=field, message="This date lies before 1900. Check the year."))
    if problems:
        raise BadInput(problems)


@transaction.atomic
def create_client(practice: Practice, user: User, data: ClientIn, today: dt.date) -> Client:
    _check_dates({"birth_date": data.birth_date}, today)
    client = Client.objects.create(practice=practice, created_by=user, **data.model_dump())
    record(client, "client.created")
    return client


@transaction.atomic
def update_client(client: Client, user: User, version: int, data: ClientIn, today: dt.date) -> Client:
    """Save an edit made on ``version``; raises ``Stale`` when somebody saved in between."""
    _check_dates({"birth_date": data.birth_date}, today)
    changed = Client.objects.filter(pk=client.pk, version=version).update(**data.model_dump(), version=version + 1)
    if not changed:
        now = Client.objects.get(pk=client.pk)
        raise Stale(
            ClientIn.model_validate(now, from_attributes=True).model_dump(mode="json") | {"version": now.version}
        )
    client.refresh_from_db()
    record(client, "client.updated")
    return client


COMING = {"due_date"}
"""Dates of a record that may lie ahead."""


def _entry_dates(data: EntryIn) -> dict[str, dt.date | None]:
    """Every date among an entry's facts that must not lie in the future, by field."""
    dates = {
        f"facts.{name}": value
        for name, value in data.facts
        if name not in COMING and (value is None or isinstance(value, dt.date))
    }
    if isinstance(data, BonesIn):
        dates |= {f"facts.fractures.{k}.date": f.date for k, f in enumerate(data.facts.fractures or ())}
    return dates


LONGEST_PREGNANCY = dt.timedelta(days=300)


def _check_due(data: EntryIn, today: dt.date) -> None:
    if not isinstance(data, PregnancyIn) or data.facts.due_date is None:
        return
    if not today - LONGEST_PREGNANCY <= data.facts.due_date <= today + LONGEST_PREGNANCY:
        message = "A due date lies within ten months of today. Check it."
        raise BadInput([FieldProblem(field="facts.due_date", message=message)])


@transaction.atomic
def record_entry(client: Client, user: User, data: EntryIn, today: dt.date) -> Entry:
    _check_dates(_entry_dates(data), today)
    _check_due(data, today)
    new = uuid.uuid4()
    entry = Entry.objects.create(
        id=new, root=new, practice_id=client.practice_id, created_by=user, client=client, **_entry_fields(data)
    )
    record(entry, "entry.recorded")
    return entry


def _entry_fields(data: EntryIn) -> dict[str, Any]:
    return {
        "kind": data.kind,
        "side": data.side.value if data.side is not None else None,
        "facts": data.facts.model_dump(mode="json"),
    }


@transaction.atomic
def correct_entry(entry: Entry, user: User, data: EntryIn | None, today: dt.date) -> Entry:
    """Replace the standing version of a record, or withdraw it (``data`` is ``None``).

    Raises ``Stale`` when ``entry`` is no longer the standing version.
    """
    fields: dict[str, Any] = {"kind": entry.kind, "side": entry.side, "facts": entry.facts, "withdrawn": True}
    stands = {"from_date": entry.from_date, "until_date": entry.until_date}
    if data is not None:
        _check_dates(_entry_dates(data), today)
        _check_due(data, today)
        fields = _entry_fields(data)
    try:
        with transaction.atomic():
            new = Entry.objects.create(
                practice_id=entry.practice_id, created_by=user, client_id=entry.client_id, root=entry.root,
                replaces=entry, **stands, **fields,
            )  # fmt: skip
    except IntegrityError as error:
        standing = Entry.objects.standing().filter(root=entry.root).first()
        raise Stale({"id": str(standing.pk), "facts": standing.facts} if standing else {"withdrawn": True}) from error
    record(new, "entry.withdrawn" if data is None else "entry.corrected")
    return new


@transaction.atomic
def give_clearance(entry: Entry, user: User, data: ClearanceIn, today: dt.date) -> Clearance:
    _check_dates({"date": data.date}, today)
    clearance = Clearance.objects.create(
        practice_id=entry.practice_id,
        created_by=user,
        entry=entry,
        who=data.who,
        date=data.date,
        scope=list(data.scope),
    )
    record(clearance, "clearance.recorded")
    return clearance


@transaction.atomic
def answer_daily(entry: Entry, user: User, data: DailyIn, today: dt.date) -> DailyAnswer:
    answer = DailyAnswer.objects.create(
        practice_id=entry.practice_id, created_by=user, entry=entry, date=today, **data.model_dump()
    )
    record(answer, "daily.answered")
    return answer
