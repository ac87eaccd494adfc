"""Rows → the core's client file and room. The number of queries does not depend on how much there is."""

from __future__ import annotations

from collections import defaultdict
from typing import Any

from django.db import connection

from asketa_core import ClientFile, Room, parse
from clients.models import Clearance, Client, DailyAnswer, Entry
from common.recent import Recent
from measures.models import BODY_QUANTITIES, Measure
from room.models import RoomProp
from visits.models import LoggedItem

_files: Recent[ClientFile] = Recent(most=64)


def client_file(client: Client) -> ClientFile:
    """Everything recorded about one client, in the core's terms. Kept as long as nothing new is recorded."""
    practice = client.practice
    about = (client.pk, client.version, client.name, client.birth_date, client.discomfort_allowed)
    return _files.get((*about, practice.first_weeks_after_hip, _stamp(client)), lambda: _read(client))


_STAMP = """
SELECT md5(string_agg(id::text, '' ORDER BY id)) FROM (
  SELECT id FROM clients_entry WHERE client_id = %(client)s
  UNION ALL SELECT c.id FROM clients_clearance c JOIN clients_entry e ON e.id = c.entry_id WHERE e.client_id = %(client)s
  UNION ALL SELECT d.id FROM clients_dailyanswer d JOIN clients_entry e ON e.id = d.entry_id WHERE e.client_id = %(client)s
  UNION ALL SELECT id FROM measures_measure WHERE client_id = %(client)s
  UNION ALL SELECT i.id FROM visits_loggeditem i JOIN visits_visit v ON v.id = i.visit_id WHERE v.client_id = %(client)s
  UNION ALL SELECT m.id FROM visits_morninganswer m JOIN visits_loggeditem i ON i.id = m.item_id
    JOIN visits_visit v ON v.id = i.visit_id WHERE v.client_id = %(client)s
) recorded
"""


def _stamp(client: Client) -> str | None:
    """What tells one state of a client's records from another: rows of all these tables are only ever added, so the
    ids there are say everything."""
    with connection.cursor() as cursor:
        cursor.execute(_STAMP, {"client": client.pk})
        row: tuple[str | None] = cursor.fetchone()
    return row[0]


def _read(client: Client) -> ClientFile:
    entries = _entries(client)
    return parse(
        ClientFile,
        {
            "format": "asketa-client",
            "version": 1,
            "client": {"id": str(client.pk), "name": client.name, "birth_date": client.birth_date},
            "entries": entries,
            "daily": _daily(client, {entry["id"] for entry in entries}),
            **_measures(client),
            "responses": [response_value(item) for item in logged_items(client)],
            "settings": {
                "discomfort_allowed": client.discomfort_allowed,
                "first_weeks_after_hip": client.practice.first_weeks_after_hip,
            },
        },
    )


def logged_items(client: Client) -> list[LoggedItem]:
    """Standing items with their visit and morning answers, oldest first."""
    return list(
        LoggedItem.objects.standing()
        .filter(visit__client=client)
        .select_related("visit")
        .prefetch_related("mornings")
        .order_by("visit__date", "created_at")
    )


def _entries(client: Client) -> list[dict[str, Any]]:
    """Records in their standing version, each with the clearances given to any of its versions."""
    cleared: dict[object, list[dict[str, Any]]] = defaultdict(list)
    for clearance in Clearance.objects.filter(entry__client=client).select_related("entry").order_by("date"):
        cleared[clearance.entry.root].append({"who": clearance.who, "date": clearance.date, "scope": clearance.scope})
    return [
        {
            "id": str(entry.root),
            "kind": entry.kind,
            "side": entry.side,
            "facts": entry.facts,
            "from_date": entry.from_date,
            "until_date": entry.until_date,
            "clearances": cleared[entry.root],
        }
        for entry in Entry.objects.standing().filter(client=client)
    ]


def _daily(client: Client, standing: set[str]) -> list[dict[str, Any]]:
    """Answers at arrival about records that stand; the last one of a day counts."""
    by_day: dict[tuple[object, object], dict[str, Any]] = {}
    for answer in DailyAnswer.objects.filter(entry__client=client).select_related("entry"):
        by_day[(answer.entry.root, answer.date)] = {
            "entry_id": str(answer.entry.root),
            "date": answer.date,
            "pain_today": answer.pain_today,
            "irritable": answer.irritable,
        }
    return [answer for answer in by_day.values() if answer["entry_id"] in standing]


def _measures(client: Client) -> dict[str, list[dict[str, Any]]]:
    body, ranges = [], []
    for measure in Measure.objects.filter(client=client):
        if measure.quantity in BODY_QUANTITIES:
            body.append(
                {
                    "quantity": measure.quantity,
                    "value": measure.value,
                    "date": measure.date,
                    "note": measure.note,
                }
            )
        else:
            ranges.append(
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
    return {"body": body, "ranges": ranges}


def response_value(item: LoggedItem) -> dict[str, Any]:
    settled = {None: "unknown", True: "yes", False: "no"}[item.settled]
    return {
        "id": str(item.pk),
        "date": item.visit.date,
        "variation": item.variation,
        "side": item.side,
        "setup": item.setup_used,
        "dose_s": item.dose_s,
        "before": item.before,
        "during": item.during,
        "after": item.after,
        "kind": item.kind,
        "place": item.place,
        "signs": item.signs,
        "settled_next_morning": settled,
        "note": item.note,
    }


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
