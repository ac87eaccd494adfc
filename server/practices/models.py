"""Practices and who belongs to them."""

from __future__ import annotations

import uuid
from zoneinfo import available_timezones

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import models

from common.permissions import Role


def known_time_zone(value: str) -> None:
    if value not in available_timezones():
        raise ValidationError("This is no time zone this machine knows.")


class Practice(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120)
    time_zone = models.CharField(max_length=60, default="Europe/London", validators=[known_time_zone])
    first_weeks_after_hip = models.PositiveSmallIntegerField(default=12)

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=models.Q(first_weeks_after_hip__gte=6, first_weeks_after_hip__lte=26),
                name="practice_first_weeks_6_to_26",
            )
        ]

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=20, choices=[(role.value, role.value) for role in Role])

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["practice", "user"], name="member_once"),
            models.CheckConstraint(condition=models.Q(role__in=[r.value for r in Role]), name="member_role_known"),
        ]

    def __str__(self) -> str:
        return f"{self.role} of {self.practice_id}"
