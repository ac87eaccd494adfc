"""Variations a practice made its own."""

from __future__ import annotations

from typing import Any, ClassVar

from django.db import models

from practices.tenancy import PracticeRow, rows_by


class OwnRungQuerySet(models.QuerySet["OwnRung"]):
    def standing(self) -> OwnRungQuerySet:
        """The latest version of every variation, retired ones among them."""
        return self.filter(replaced_by__isnull=True)


class OwnRung(PracticeRow):
    """One version of one variation. ``content`` is the file as the core writes it; ``key`` and the family in the
    file make the variation's id, which never changes."""

    append_only = True

    key = models.CharField(max_length=20)
    number = models.PositiveSmallIntegerField(default=1)
    replaces = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="replaced_by")
    content: Any = models.JSONField()
    retired = models.BooleanField(default=False)

    objects: ClassVar[Any] = rows_by(OwnRungQuerySet)

    class Meta:
        ordering = ["created_at", "id"]
        constraints = [
            models.UniqueConstraint(fields=["practice", "key", "number"], name="one_of_each_version"),
            models.CheckConstraint(
                condition=models.Q(number=1, replaces__isnull=True) | models.Q(number__gt=1, replaces__isnull=False),
                name="first_version_replaces_nothing",
            ),
        ]

    @property
    def variation_id(self) -> str:
        return f"{self.content['family']}.{self.key}"
