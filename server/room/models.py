"""The props of a practice's room."""

from __future__ import annotations

from typing import Any

from django.db import models

from practices.tenancy import PracticeRow


class RoomProp(PracticeRow):
    """One line of the stock; ``sizes`` holds what differs from the generic size of its kind."""

    kind = models.CharField(max_length=20)
    name = models.CharField(max_length=80, blank=True)
    count = models.PositiveSmallIntegerField()
    sizes: Any = models.JSONField(default=dict)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["position", "id"]
        constraints = [models.CheckConstraint(condition=models.Q(count__lte=200), name="prop_count_plausible")]
