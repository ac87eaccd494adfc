"""Cautions that a therapist takes on, with a reason, or no longer."""

from __future__ import annotations

from django.db import transaction

from accounts.models import User
from asketa_core import Library
from audit.models import record
from clients.models import Client
from common.errors import bad_field
from common.speech import own
from visits.models import AcceptedCaution
from visits.schemas import CautionIn
from visits.services import LEAST_REASON


@transaction.atomic
def take_on(client: Client, library: Library, user: User, data: CautionIn) -> AcceptedCaution:
    """Keep that a caution is taken on, and why, or that it no longer is. It changes no verdict."""
    if data.family not in library.families:
        raise bad_field("family", own("field", "no_family"))
    reason = data.reason.strip()
    if data.accepted and len(reason) < LEAST_REASON:
        raise bad_field("reason", own("field", "say_why"))
    row: AcceptedCaution = AcceptedCaution.objects.create(
        practice_id=client.practice_id, created_by=user, client=client, family=data.family,
        side=data.side.value if data.side is not None else None, codes=sorted(set(data.codes)),
        withdrawn=not data.accepted,
    )  # fmt: skip
    if reason:
        client.person.keep_note(row.pk, reason)
    record(row, "caution.accepted" if data.accepted else "caution.reopened", user)
    return row
