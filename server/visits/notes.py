"""What a therapist writes about a visit as a whole."""

from __future__ import annotations

from django.db import transaction

from accounts.models import User
from audit.models import record
from clients.models import Client
from common.errors import Stale
from engine.answers import Today
from visits.models import VisitNote
from visits.schemas import VisitNoteIn, VisitNoteOut
from visits.services import visit_of


def notes_of(client: Client) -> list[VisitNoteOut]:
    """What stands written of each visit, the latest first."""
    found: dict[object, VisitNoteOut] = {}
    rows = VisitNote.objects.filter(visit__client=client).select_related("visit", "created_by")
    for row in rows:
        found[row.visit_id] = VisitNoteOut(
            id=row.pk,
            date=row.visit.date,
            text=client.person.note_of(row.pk),
            by=row.created_by.full_name if row.created_by else "",
        )
    return sorted((note for note in found.values() if note.text), key=lambda note: note.date, reverse=True)


@transaction.atomic
def write_note(today: Today, user: User, data: VisitNoteIn) -> list[VisitNoteOut]:
    """Write of today's visit, or write it anew. Raises ``Stale`` with what stands where somebody wrote in between."""
    visit = visit_of(today, user)
    type(visit).objects.select_for_update().get(pk=visit.pk)
    standing = VisitNote.objects.filter(visit=visit).last()
    if (standing.pk if standing is not None else None) != data.replaces:
        text = today.client.person.note_of(standing.pk) if standing is not None else ""
        raise Stale({"id": str(standing.pk) if standing is not None else None, "text": text})
    row = VisitNote.objects.create(practice_id=visit.practice_id, created_by=user, visit=visit)
    today.client.person.keep_note(row.pk, data.text.strip())
    record(row, "visit.noted", user)
    return notes_of(today.client)
