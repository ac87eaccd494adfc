"""Changes to clients and their records. Every function runs in one transaction and writes its audit row."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import IntegrityError, transaction

from accounts.models import User
from asketa_core import implausible_beside, implausible_clearance, implausible_entry, past_date
from audit.models import record
from clients.models import Clearance, Client, DailyAnswer, Entry, Person
from clients.schemas import ClearanceIn, ClientIn, DailyIn, EntryIn
from clients.values import entry_raw, read_entry
from common.errors import Stale, refuse_implausible
from practices.models import Practice


@transaction.atomic
def create_client(practice: Practice, user: User, data: ClientIn, today: dt.date) -> Client:
    refuse_implausible(past_date("birth_date", data.birth_date, today))
    client = Client.objects.create(practice=practice, created_by=user, discomfort_allowed=data.discomfort_allowed)
    Person.objects.create(practice=practice, created_by=user, client=client, **_who(data))
    record(client, "client.created", user)
    return client


def _who(data: ClientIn) -> dict[str, Any]:
    """What of a client's fields says who they are."""
    return data.model_dump(exclude={"discomfort_allowed"})


@transaction.atomic
def update_client(client: Client, user: User, version: int, data: ClientIn, today: dt.date) -> Client:
    """Save an edit made on ``version``; raises ``Stale`` when somebody saved in between."""
    refuse_implausible(past_date("birth_date", data.birth_date, today))
    changed = Client.objects.filter(pk=client.pk, version=version).update(
        discomfort_allowed=data.discomfort_allowed, version=version + 1
    )
    now = Client.objects.known().select_related("practice").get(pk=client.pk)
    if not changed:
        said = {name: getattr(now.person, name) for name in _who(data)}
        birth = now.person.birth_date.isoformat() if now.person.birth_date is not None else None
        raise Stale({**said, "birth_date": birth, "discomfort_allowed": now.discomfort_allowed, "version": now.version})
    Person.objects.filter(client=now).update(**_who(data))
    for name, value in _who(data).items():
        setattr(now.person, name, value)
    record(now, "client.updated", user)
    return now


@transaction.atomic
def set_archived(client: Client, user: User, archived: bool) -> Client:
    """Put a client away or bring them back; told once, however often it is asked for."""
    if Client.objects.filter(pk=client.pk, archived=not archived).update(archived=archived):
        record(client, "client.archived" if archived else "client.restored", user)
    client.archived = archived
    return client


def _check_entry(client: Client, data: EntryIn, today: dt.date, replaces: Entry | None = None) -> None:
    """Refuse what cannot be: by itself, and beside what stands."""
    value = read_entry({**_entry_fields(data), "id": str(replaces.root if replaces else "new")})
    standing = {
        str(row.root): read_entry(entry_raw(row))
        for row in Entry.objects.standing().filter(client=client)
        if replaces is None or row.root != replaces.root
    }
    refuse_implausible(
        [*implausible_entry(value, today, client.person.birth_date), *implausible_beside(value, standing)]
    )


@transaction.atomic
def record_entry(client: Client, user: User, data: EntryIn, today: dt.date) -> Entry:
    _check_entry(client, data, today)
    new = uuid.uuid4()
    entry = Entry.objects.create(
        id=new, root=new, practice_id=client.practice_id, created_by=user, client=client, **_entry_fields(data)
    )
    record(entry, "entry.recorded", user)
    return entry


def _entry_fields(data: EntryIn) -> dict[str, Any]:
    return {
        "kind": data.kind,
        "side": data.side.value if data.side is not None else None,
        "facts": data.facts.model_dump(mode="json"),
    }


@transaction.atomic
def correct_entry(entry: Entry, user: User, data: EntryIn, today: dt.date) -> Entry:
    """Replace the standing version of a record. Raises ``Stale`` when ``entry`` is no longer the standing version."""
    _check_entry(entry.client, data, today, replaces=entry)
    new = _next_version(entry, user, withdrawn=False, **_entry_fields(data))
    record(new, "entry.corrected", user)
    return new


@transaction.atomic
def withdraw_entry(entry: Entry, user: User) -> Entry:
    """Take a record back; it stays in the history. Raises ``Stale`` like a correction."""
    new = _next_version(entry, user, withdrawn=True, kind=entry.kind, side=entry.side, facts=entry.facts)
    record(new, "entry.withdrawn", user)
    return new


@transaction.atomic
def restore_entry(entry: Entry, user: User) -> Entry:
    """Undo a withdrawal: the version that was taken back stands again. ``entry`` is that version; raises ``Stale`` when
    it was not the last to be taken back."""
    taken_back = Entry.objects.filter(replaces=entry, withdrawn=True, replaced_by__isnull=True).first()
    if taken_back is None:
        raise _stale(entry)
    new = _next_version(taken_back, user, withdrawn=False, kind=entry.kind, side=entry.side, facts=entry.facts)
    record(new, "entry.restored", user)
    return new


def _next_version(entry: Entry, user: User, **fields: Any) -> Entry:
    stands = {"from_date": entry.from_date, "until_date": entry.until_date}
    try:
        with transaction.atomic():
            return Entry.objects.create(
                practice_id=entry.practice_id, created_by=user, client_id=entry.client_id, root=entry.root,
                replaces=entry, **stands, **fields,
            )  # fmt: skip
    except IntegrityError as error:
        raise _stale(entry) from error


def _stale(entry: Entry) -> Stale:
    standing = Entry.objects.standing().filter(root=entry.root).first()
    return Stale({"id": str(standing.pk), "facts": standing.facts} if standing else {"withdrawn": True})


@transaction.atomic
def give_clearance(entry: Entry, user: User, data: ClearanceIn, today: dt.date) -> Clearance:
    refuse_implausible(implausible_clearance(read_entry(entry_raw(entry)), data.date, today, data.scope))
    clearance = Clearance.objects.create(
        practice_id=entry.practice_id,
        created_by=user,
        entry=entry,
        who=data.who,
        date=data.date,
        scope=list(data.scope),
    )
    record(clearance, "clearance.recorded", user)
    return clearance


@transaction.atomic
def answer_daily(entry: Entry, user: User, data: DailyIn, today: dt.date) -> DailyAnswer:
    answer = DailyAnswer.objects.create(
        practice_id=entry.practice_id, created_by=user, entry=entry, date=today, **data.model_dump()
    )
    record(answer, "daily.answered", user)
    return answer
