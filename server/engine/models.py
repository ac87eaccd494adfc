"""Answers of the core that all processes of a server share."""

from __future__ import annotations

from django.db import models

from practices.tenancy import PracticeRow


class Answer(PracticeRow):
    """One answer under the fingerprint of everything it depends on, so that none is ever stale and none says whose it is.
    ``about`` is the fingerprint of what is looked up together: a client's day, the drawings of a ladder. The table is not logged: what a crash
    takes is worked out again."""

    about = models.UUIDField()
    body = models.BinaryField()

    class Meta:
        indexes = [
            models.Index(fields=["about"], name="answer_about"),
            models.Index(fields=["created_at"], name="answer_age"),
        ]
