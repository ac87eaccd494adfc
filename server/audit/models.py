"""Who did what to which row. Written in the transaction of the change itself."""

from __future__ import annotations

import uuid

from django.db import models

from accounts.models import User
from practices.tenancy import PracticeRow


class AuditEvent(PracticeRow):
    """One change. No contents: those are in the row's own history."""

    append_only = True

    action = models.CharField(max_length=60)
    row_id = models.UUIDField()

    class Meta:
        indexes = [models.Index(fields=["practice", "row_id"], name="audit_by_row")]


def record(row: PracticeRow, action: str, actor: User) -> None:
    """Note a change and who made it; call inside the transaction that makes it. Who made the row may be somebody else:
    the actor is always said."""
    AuditEvent.objects.create(
        id=uuid.uuid4(), practice_id=row.practice_id, created_by=actor, action=action, row_id=row.pk
    )
