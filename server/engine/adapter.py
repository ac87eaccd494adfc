"""Rows → the core's client file and room. The number of queries does not depend on how much there is.

What can no longer be read does not keep the rest from being read: a record that cannot becomes one that asks about
everything, any other row is left out; both are told as troubles beside their client.
"""

from __future__ import annotations

import datetime as dt
import uuid
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

from django.apps import apps
from django.db import connection
from django.db.models import Max, Model

from asketa_core import TEST_RESULTS, Action, ClientFile, InputError, Otherwise, Phrase, Recent, Room, Side, parse
from clients.models import Clearance, Client, DailyAnswer, Entry, Instruction
from clients.values import entry_raw, instruction_raw, read_entry
from common.speech import own
from measures.models import BODY_QUANTITIES, SEEN, TEST, Measure
from room.models import RoomProp
from visits.models import AcceptedCaution, LoggedItem, LoggedItemQuerySet, OwnDecision, Trial


@dataclass(frozen=True)
class Reading:
    """Everything recorded about one client as far as it can be read, and what cannot."""

    file: ClientFile
    troubles: tuple[Phrase, ...] = ()


_readings: Recent[Reading] = Recent(most=64)


def client_file(client: Client) -> ClientFile:
    """Everything recorded about one client, in the core's terms. Kept as long as nothing new is recorded."""
    return client_reading(client).file


def client_reading(client: Client) -> Reading:
    practice = client.practice
    about = (
        client.pk,
        client.version,
        client.person.name,
        client.person.birth_date,
        client.discomfort_allowed,
        client.breath_s,
    )
    return _readings.get((*about, practice.first_weeks_after_hip, _stamp(client)), lambda: _read(client))


@cache
def _histories() -> tuple[tuple[type[Model], str], ...]:
    """Every table whose rows are only ever added and that leads to a client, with the way there."""
    models = (model for model in apps.get_models() if getattr(model, "append_only", False))
    ways = ((model, _way_to_client(model)) for model in models)
    return tuple((model, way) for model, way in ways if way is not None)


def _way_to_client(model: type[Model], behind: tuple[type[Model], ...] = ()) -> str | None:
    """The shortest chain of relations from a table to its client, as a lookup; ``None`` where there is none."""
    found = []
    for field in model._meta.concrete_fields:
        target = field.related_model
        if not isinstance(target, type) or target in (*behind, model):
            continue
        further = "" if target is Client else _way_to_client(target, (*behind, model))
        if further is not None:
            found.append(f"{field.name}__{further}".rstrip("_"))
    return min(found, key=lambda way: way.count("__"), default=None)


def _stamp(client: Client) -> str | None:
    """What tells one state of a client's records from another: their rows are only ever added, so the ids there are say
    everything."""
    statement, tables = _stamping()
    with connection.cursor() as cursor:
        cursor.execute(statement, [client.pk] * tables)
        row: tuple[str | None] = cursor.fetchone()
    return row[0]


@cache
def _stamping() -> tuple[str, int]:
    """The statement for a stamp, and how often it names the client. Written once: that takes ten times as long as it takes
    the database to answer. Which practice's rows it reads is the connection's affair."""
    nobody = uuid.UUID(int=0)
    first, *rest = (model._base_manager.filter(**{way: nobody}).order_by().values("id") for model, way in _histories())
    recorded, values = first.union(*rest, all=True).query.sql_with_params()
    assert set(values) == {nobody}, "a history is found by its client alone"
    return f"SELECT md5(string_agg(id::text, '' ORDER BY id)) FROM ({recorded}) recorded", len(values)


def _read(client: Client) -> Reading:
    raw = _recorded([client])[client.pk] | {
        "responses": [response_value(item) for item in logged_items(client)],
        "trials": [trial_value(trial) for trial in Trial.objects.filter(visit__client=client).select_related("visit")],
    }
    return _reading_of(raw)


def _reading_of(raw: dict[str, Any]) -> Reading:
    try:
        return Reading(parse(ClientFile, raw))
    except InputError:
        return _read_in_parts(raw)


def record_files(clients: Sequence[Client]) -> dict[uuid.UUID, ClientFile]:
    """What is recorded and measured of many clients, without what happened on the mat: enough for what the calendar
    changes. As many queries for one as for hundreds. The clients of one practice, with it and their persons beside them."""
    return {pk: _reading_of(raw).file for pk, raw in _recorded(clients).items()}


def _recorded(clients: Sequence[Client]) -> dict[uuid.UUID, dict[str, Any]]:
    """Records, answers and measures by client, in the client file's terms."""
    entries, measures = _entries(clients), _measures(clients)
    daily = _daily(clients, {entry["id"] for of_one in entries.values() for entry in of_one})
    return {
        client.pk: {
            "format": "asketa-client",
            "version": 1,
            "client": {"id": str(client.pk), "name": client.person.name, "birth_date": client.person.birth_date},
            "entries": entries[client.pk],
            "daily": daily[client.pk],
            **measures[client.pk],
            "settings": {
                "discomfort_allowed": client.discomfort_allowed,
                "breath_s": client.breath_s,
                "first_weeks_after_hip": client.practice.first_weeks_after_hip,
            },
        }
        for client in clients
    }


PARTS = ("daily", "ranges", "body", "tests", "seen", "responses", "trials")
"""Parts of a client's file that are read row by row where something in them cannot be."""


def _read_in_parts(raw: dict[str, Any]) -> Reading:
    """Row by row: slower, and only where something among the rows cannot be read."""
    troubles: list[Phrase] = []
    bare = {"format": raw["format"], "version": raw["version"], "client": {"id": raw["client"]["id"]}}
    whole: dict[str, Any] = {**bare, "settings": raw["settings"]}
    for key in ("name", "birth_date"):
        about = {**whole["client"], key: raw["client"][key]}
        if _reads({**bare, "client": about}):
            whole["client"] = about
        else:
            troubles.append(own("unread", key))
    whole["entries"] = [read_entry(entry) for entry in raw["entries"]]
    ids = {"entries": whole["entries"]}
    for part in (part for part in PARTS if part in raw):
        whole[part] = [each for each in raw[part] if _reads({**bare, **ids, part: [each]})]
        if missing := len(raw[part]) - len(whole[part]):
            once = own("unread", part)
            troubles.append(once if missing == 1 else own("unread", "often", words=once, count=missing))
    return Reading(parse(ClientFile, whole), tuple(troubles))


def _reads(raw: dict[str, Any]) -> bool:
    try:
        parse(ClientFile, raw)
    except InputError:
        return False
    return True


def logged_items(client: Client) -> list[LoggedItem]:
    """Standing items with their visit and morning answers, oldest first."""
    return _with_notes(client, _holds(client).order_by("visit__date", "logged_at", "id"))


def items_by_id(client: Client, ids: Sequence[str]) -> dict[str, LoggedItem]:
    """Some standing items, with the same beside them."""
    return {str(row.pk): row for row in _with_notes(client, _holds(client).filter(pk__in=ids))}


def _holds(client: Client) -> LoggedItemQuerySet:
    found: LoggedItemQuerySet = LoggedItem.objects.standing().filter(visit__client=client)
    return found.select_related("visit").prefetch_related("mornings")


def _with_notes(client: Client, rows: Iterable[LoggedItem]) -> list[LoggedItem]:
    found = list(rows)
    for row in found:
        row.note = client.person.note_of(row.pk)
    return found


def _entries(clients: Sequence[Client]) -> dict[uuid.UUID, list[dict[str, Any]]]:
    """Records in their standing version by client, each with the clearances and words given to any of its versions."""
    persons = {client.pk: client.person for client in clients}
    cleared: dict[object, list[dict[str, Any]]] = defaultdict(list)
    for clearance in Clearance.objects.filter(entry__client__in=persons).select_related("entry").order_by("date"):
        cleared[clearance.entry.root].append({"who": clearance.who, "date": clearance.date, "scope": clearance.scope})
    told: dict[object, list[dict[str, Any]]] = defaultdict(list)
    for row in Instruction.objects.standing().filter(entry__client__in=persons).select_related("entry"):
        told[row.entry.root].append(instruction_raw(row, persons[row.entry.client_id].note_of(row.pk)))
    found: dict[uuid.UUID, list[dict[str, Any]]] = defaultdict(list)
    for entry in Entry.objects.standing().filter(client__in=persons):
        found[entry.client_id].append(entry_raw(entry, cleared[entry.root], told[entry.root]))
    return found


def _daily(clients: Sequence[Client], standing: set[str]) -> dict[uuid.UUID, list[dict[str, Any]]]:
    """Answers at arrival about records that stand, by client; the last one of a day counts, and leaves standing what was
    said that day of whether it lasts."""
    by_day: dict[tuple[object, object], tuple[uuid.UUID, dict[str, Any]]] = {}
    of_these = DailyAnswer.objects.filter(entry__client__in=[client.pk for client in clients])
    for answer in of_these.select_related("entry"):
        day = (answer.entry.root, answer.date)
        lasts = answer.irritable
        if lasts == "unknown" and day in by_day:
            lasts = by_day[day][1]["irritable"]
        said = {
            "entry_id": str(answer.entry.root),
            "date": answer.date,
            "pain_today": answer.pain_today,
            "irritable": lasts,
        }
        by_day[day] = (answer.entry.client_id, said)
    found: dict[uuid.UUID, list[dict[str, Any]]] = defaultdict(list)
    for client_id, said in by_day.values():
        if said["entry_id"] in standing:
            found[client_id].append(said)
    return found


def _see(seen: list[dict[str, Any]], measure: Measure) -> None:
    """One more look at a bound: seen from that day, or from that day no more."""
    bound = {"bound": measure.quantity.removeprefix(SEEN), "side": measure.side}
    standing = [each for each in seen if bound.items() <= each.items() and "until" not in each]
    if measure.value == 1 and not standing:
        seen.append({**bound, "date": measure.date})
    elif measure.value == 0:
        for each in standing:
            each["until"] = measure.date
            if each["until"] <= each["date"]:
                seen.remove(each)


def _measures(clients: Sequence[Client]) -> dict[uuid.UUID, dict[str, list[dict[str, Any]]]]:
    """Measures by client, sorted into what they are of."""
    found: dict[uuid.UUID, dict[str, list[dict[str, Any]]]] = {
        client.pk: {"body": [], "ranges": [], "tests": [], "seen": []} for client in clients
    }
    for measure in Measure.objects.filter(client__in=list(found)):
        _sort_in(found[measure.client_id], measure)
    return found


def _sort_in(found: dict[str, list[dict[str, Any]]], measure: Measure) -> None:
    if measure.quantity in BODY_QUANTITIES:
        found["body"].append(
            {
                "quantity": measure.quantity,
                "value": measure.value,
                "date": measure.date,
                "note": measure.note,
            }
        )
    elif measure.quantity.startswith(TEST):
        found["tests"].append(
            {
                "test": measure.quantity.removeprefix(TEST),
                "side": measure.side,
                "result": TEST_RESULTS[int(measure.value)],
                "date": measure.date,
            }
        )
    elif measure.quantity.startswith(SEEN):
        _see(found["seen"], measure)
    else:
        found["ranges"].append(
            {
                "quantity": measure.quantity,
                "side": measure.side,
                "value_deg": measure.value,
                "method": measure.method,
                "error_deg": measure.error,
                "date": measure.date,
                "pelvis_held": measure.pelvis_held,
                "conditions": measure.conditions,
            }
        )


def own_decisions(client: Client) -> dict[tuple[str, Side], Otherwise]:
    """What was decided for each side of a ladder and still counts: nothing was logged there since."""
    found = {(row.family, Side(row.side)): row for row in OwnDecision.objects.filter(client=client)}
    if not found:
        return {}
    logged: dict[tuple[str, Side], dt.datetime] = {}
    holds = LoggedItem.objects.standing().filter(visit__client=client).order_by()
    for variation, side, at in holds.values_list("variation", "side").annotate(at=Max("logged_at")):
        lane = (variation.partition(".")[0], Side(side))
        logged[lane] = max(at, logged.get(lane, at))
    return {
        lane: Otherwise(Action(row.action), client.person.note_of(row.pk))
        for lane, row in found.items()
        if row.action != "as_computed" and (lane not in logged or logged[lane] < row.created_at)
    }


@dataclass(frozen=True)
class Accepted:
    """A caution somebody took on: which, why, who and when."""

    family: str
    side: str | None
    codes: frozenset[str]
    reason: str
    by: str
    at: dt.datetime


def accepted_cautions(client: Client) -> list[Accepted]:
    """Cautions that are taken on today: the last word on each counts."""
    last: dict[tuple[str, str | None, frozenset[str]], AcceptedCaution] = {}
    for row in AcceptedCaution.objects.filter(client=client).select_related("created_by"):
        last[(row.family, row.side, frozenset(row.codes))] = row
    return [
        Accepted(
            *about, client.person.note_of(row.pk), row.created_by.full_name if row.created_by else "", row.created_at
        )
        for about, row in last.items()
        if not row.withdrawn
    ]


def response_value(item: LoggedItem) -> dict[str, Any]:
    settled = {None: "unknown", True: "yes", False: "no"}[item.settled]
    return {
        "id": str(item.pk),
        "date": item.visit.date,
        "variation": item.variation,
        "side": item.side,
        "setup": item.setup_used,
        "dose_s": item.dose_s,
        "held_s": item.held_s,
        "before": item.before,
        "during": item.during,
        "after": item.after,
        "kind": item.kind,
        "place": item.place,
        "signs": item.signs,
        "settled_next_morning": settled,
        "morning_asked": item.asked,
        "note": item.note,
    }


def trial_value(trial: Trial) -> dict[str, Any]:
    fields = ("variation", "side", "slot", "a", "b", "felt_a", "felt_b", "kept")
    return {"id": str(trial.pk), "date": trial.visit.date, **{name: getattr(trial, name) for name in fields}}


def room_value() -> Room:
    """The opened practice's stock."""
    return parse(
        Room,
        {
            "props": [
                {"id": prop.pk.hex[:8], "kind": prop.kind, "count": prop.count, "name": prop.name, **prop.sizes}
                for prop in RoomProp.objects.all()
            ]
        },
    )
