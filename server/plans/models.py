"""Templates a practice plans sessions from."""

from __future__ import annotations

from typing import Any, ClassVar

from django.db import models

from practices.tenancy import PracticeRow, rows_by


class TemplateQuerySet(models.QuerySet["Template"]):
    def offered(self) -> TemplateQuerySet:
        """Those not put away, by name."""
        return self.filter(put_away=False).order_by("name", "id")


class Template(PracticeRow):
    """An order of families without a body: which rung and set-up each side gets is worked out for whoever comes. ``poses``
    lists families with how often each is held and whether its place is fixed."""

    name = models.CharField(max_length=80)
    poses: Any = models.JSONField()
    put_away = models.BooleanField(default=False)

    objects: ClassVar[Any] = rows_by(TemplateQuerySet)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["practice", "name"], condition=models.Q(put_away=False), name="one_template_of_a_name"
            ),
            models.CheckConstraint(condition=~models.Q(name=""), name="template_has_a_name"),
        ]
