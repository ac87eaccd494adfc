"""Changes to a practice itself."""

from __future__ import annotations

import uuid

from django.db import transaction

from accounts.models import User
from audit.models import AuditEvent
from practices.models import Practice
from practices.schemas import SettingsIn


@transaction.atomic
def change_settings(practice: Practice, user: User, settings: SettingsIn) -> Practice:
    """Put a practice's settings in the place of what they were."""
    for name, value in settings.model_dump(mode="json").items():
        setattr(practice, name, value)
    practice.save()
    AuditEvent.objects.create(
        id=uuid.uuid4(), practice=practice, created_by=user, action="practice.settings", row_id=practice.pk
    )
    return practice
