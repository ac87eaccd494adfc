"""Changes to clients and their records. Every function runs in one transaction and writes its audit row."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import IntegrityError, transaction

from accounts.models import User
from asketa_core import Instruction as Word
from asketa_core import (
    Own,
    implausible_beside,
    implausible_clearance,
    implausible_entry,
    implausible_instruction,
    kind_of,
    parse,
    past_date,
)
from audit.models import record
from clients.models import Clearance, Client, DailyAnswer, Entry, Instruction, Person, SignsAnswer
from clients.schemas import ClearanceIn, ClientIn, DailyIn, EntryIn, SeenIn, WordIn
from clients.values import entry_raw, instruction_raw, read_entry
from common import clock
from common.errors import Stale, bad_field, refuse_implausible
from common.speech import own
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
def give_instruction(entry: Entry, user: User, data: WordIn, today: dt.date) -> Instruction:
    """Keep what a treating professional said of a record. ``InputError`` where a figure is of no rule there is."""
    row = Instruction(
        practice_id=entry.practice_id, created_by=user, entry=entry, who=data.who, date=data.date, until=data.until,
        figures=[figure.model_dump(mode="json") for figure in data.figures],
    )  # fmt: skip
    word = parse(Word, instruction_raw(row, data.text))
    refuse_implausible(implausible_instruction(read_entry(entry_raw(entry)), word, today))
    row.save(force_insert=True)
    if data.text.strip():
        entry.client.person.keep_note(row.pk, data.text.strip())
    record(row, "instruction.recorded", user)
    return row


@transaction.atomic
def withdraw_instruction(row: Instruction, user: User) -> Instruction:
    """Take a word back; it stays in the history. Raises ``Stale`` where somebody did so before."""
    kept = {name: getattr(row, name) for name in ("practice_id", "entry_id", "who", "date", "until", "figures")}
    try:
        with transaction.atomic():
            taken = Instruction.objects.create(created_by=user, replaces=row, withdrawn=True, **kept)
    except IntegrityError as error:
        raise Stale({"withdrawn": True}) from error
    record(taken, "instruction.withdrawn", user)
    return taken


@transaction.atomic
def answer_signs(entry: Entry, user: User, signs: list[str], today: dt.date) -> SignsAnswer:
    """Keep that a record's signs were gone through today, and let the record say which are there."""
    asked = kind_of(read_entry(entry_raw(entry))).signs
    if asked is None:
        raise bad_field("signs", own("field", "asks_no_signs"))
    if stray := [each for each in signs if each not in (*asked.signs, "none")]:
        raise bad_field("signs", own("field", "no_such_sign", sign=Own(stray[0])))
    if "none" in signs and len(signs) > 1:
        raise bad_field("signs", own("field", "none_stands_alone"))
    if set(entry.facts.get(asked.fact) or ()) != set(signs):
        facts = {**entry.facts, asked.fact: signs}
        entry = _next_version(entry, user, withdrawn=False, kind=entry.kind, side=entry.side, facts=facts)
        record(entry, "entry.corrected", user)
    answer: SignsAnswer = SignsAnswer.objects.create(
        practice_id=entry.practice_id, created_by=user, entry=entry, date=today, signs=signs
    )
    record(answer, "signs.answered", user)
    return answer


def _told_on(entry: Entry) -> dt.date:
    """The day on which a record's signs were last said to be there: at arrival, else when the record was written."""
    answers = SignsAnswer.objects.filter(entry__root=entry.root)
    told = next((answer.date for answer in answers.reverse() if answer.signs != ["none"]), None)
    return told or clock.day_of(entry.created_at, entry.client.practice.time_zone)


@transaction.atomic
def record_seen(entry: Entry, user: User, data: SeenIn, today: dt.date) -> None:
    """Keep that a doctor has seen what was recorded: where the record knows a clearance for that, it is given; else the
    signs are over. What was said stands with the record."""
    kind = kind_of(read_entry(entry_raw(entry)))
    if kind.signs is None:
        raise bad_field("signs", own("field", "asks_no_signs"))
    if data.date < _told_on(entry):
        # A word from before the sign says nothing about it.
        raise bad_field("date", own("field", "before_the_sign"))
    if data.text.strip():
        give_instruction(entry, user, WordIn(who=data.who, date=data.date, text=data.text), today)
    if "seen" in kind.scopes:
        give_clearance(entry, user, ClearanceIn(who=data.who, date=data.date, scope=("seen",)), today)
    else:
        refuse_implausible(implausible_clearance(read_entry(entry_raw(entry)), data.date, today))
        answer_signs(entry, user, ["none"], today)


@transaction.atomic
def answer_daily(entry: Entry, user: User, data: DailyIn, today: dt.date) -> DailyAnswer:
    answer = DailyAnswer.objects.create(
        practice_id=entry.practice_id, created_by=user, entry=entry, date=today, **data.model_dump()
    )
    record(answer, "daily.answered", user)
    return answer
