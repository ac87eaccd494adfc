"""Reads about clients: one of them, and the list with what each side brings."""

from __future__ import annotations

import datetime as dt
import uuid
from collections import defaultdict
from collections.abc import Iterable

from django.db import models
from django.db.models import Max, Min, Q
from django.http import Http404

from asketa_core import (
    entry_words,
)
from clients.models import Client, Entry, Instruction
from clients.schemas import (
    ClientLine,
    ClientOut,
)
from clients.values import entry_raw, read_entry
from common import clock
from common.speech import Text, own
from practices.models import Practice


def get_client(client_id: uuid.UUID) -> Client:
    """A client of the opened practice; 404 otherwise."""
    client = Client.objects.known().select_related("practice").filter(pk=client_id).first()
    if client is None:
        raise Http404
    return client


def get_entry(client: Client, entry_id: uuid.UUID) -> Entry:
    return _own(client, Entry.objects.filter(pk=entry_id))


def _own(client: Client, found: models.QuerySet[Entry]) -> Entry:
    """A client's record with that very client beside it, so that words kept with the person are read at once."""
    entry = found.filter(client=client).first()
    if entry is None:
        raise Http404
    entry.client = client
    return entry


def get_standing(client: Client, root: uuid.UUID) -> Entry:
    """The standing version of a record, by the id it keeps for good; 404 where it was taken back."""
    return _own(client, Entry.objects.standing().filter(root=root))


def get_instruction(entry: Entry, instruction_id: uuid.UUID) -> Instruction:
    """A standing word about a record, given to any of its versions."""
    found = Instruction.objects.standing().filter(pk=instruction_id, entry__root=entry.root).first()
    if found is None:
        raise Http404
    return found


def age_on(birth_date: dt.date | None, date: dt.date) -> int | None:
    if birth_date is None or birth_date > date:
        return None
    return date.year - birth_date.year - ((date.month, date.day) < (birth_date.month, birth_date.day))


def client_out(client: Client, date: dt.date) -> ClientOut:
    return ClientOut(
        id=client.pk,
        name=client.person.name,
        birth_date=client.person.birth_date,
        occupation=client.person.occupation,
        goals=client.person.goals,
        contacts=client.person.contacts,
        discomfort_allowed=client.discomfort_allowed,
        archived=client.archived,
        version=client.version,
        age=age_on(client.person.birth_date, date),
    )


def client_lines(practice: Practice, text: str = "", archived: bool = False) -> list[ClientLine]:
    """Every client of the opened practice in four queries, with what each side brings: those who come today first. Those who
    are put away make a list of their own."""
    date = clock.today(practice.time_zone)
    # A visit that is only planned is none yet. Counting visits groups the rows, which drops the model's own order.
    last_visit = Max("visits__date", filter=Q(visits__items__isnull=False))
    listed = Client.objects.matching(text).filter(archived=archived)
    clients = list(listed.annotate(last_visit=last_visit).order_by("person__name", "id"))
    coming = Q(appointments__cancelled=False, appointments__date__gte=date)
    next_visits = dict(
        Client.objects.filter(coming).order_by().annotate(next=Min("appointments__date")).values_list("pk", "next")
    )
    clients.sort(key=lambda client: next_visits.get(client.pk) != date)
    troubled: set[uuid.UUID] = set()
    labels = records_of([client.pk for client in clients], date, troubled)
    return [
        ClientLine(
            id=client.pk,
            name=client.person.name,
            occupation=client.person.occupation,
            age=age_on(client.person.birth_date, date),
            left=labels[(client.pk, "left")],
            middle=labels[(client.pk, None)],
            right=labels[(client.pk, "right")],
            last_visit=client.last_visit,
            next_visit=next_visits.get(client.pk),
            trouble=own("trouble_in_limits") if client.pk in troubled else "",
        )
        for client in clients
    ]


def records_of(
    clients: Iterable[uuid.UUID], date: dt.date, troubled: set[uuid.UUID] | None = None
) -> dict[tuple[uuid.UUID, str | None], list[Text]]:
    """What clients' standing records are called, by client and side, in one query. Clients with a record that cannot be
    read are added to ``troubled``."""
    labels: dict[tuple[uuid.UUID, str | None], list[Text]] = defaultdict(list)
    for entry in Entry.objects.standing().filter(client__in=clients):
        value = read_entry(entry_raw(entry))
        labels[(entry.client_id, entry.side)].append(entry_words(value, date))
        if value.kind == "unreadable" and troubled is not None:
            troubled.add(entry.client_id)
    return labels
