"""Practices and who belongs to them."""

from __future__ import annotations

import uuid
from enum import IntEnum, StrEnum
from zoneinfo import available_timezones

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import models

from asketa_core import Manner
from common.permissions import Role


def known_time_zone(value: str) -> None:
    if value not in available_timezones():
        raise ValidationError("This is no time zone this machine knows.")


class Units(StrEnum):
    """What lengths and weights are shown in. Both are understood wherever a number is typed."""

    METRIC = "metric"
    IMPERIAL = "imperial"


class DateFormat(StrEnum):
    """How dates are written, and in which order they are typed."""

    DAY_MONTH_YEAR = "day_month_year"
    MONTH_DAY_YEAR = "month_day_year"
    YEAR_MONTH_DAY = "year_month_day"


class FirstDay(IntEnum):
    """The day a week begins with in calendars, counted from Sunday."""

    SUNDAY = 0
    MONDAY = 1
    SATURDAY = 6


class Practice(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120)
    units = models.CharField(max_length=10, default=Units.METRIC)
    date_format = models.CharField(max_length=20, default=DateFormat.DAY_MONTH_YEAR)
    first_day_of_week = models.PositiveSmallIntegerField(default=FirstDay.MONDAY)
    time_zone = models.CharField(max_length=60, default="Europe/London", validators=[known_time_zone])
    first_weeks_after_hip = models.PositiveSmallIntegerField(default=12)

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=models.Q(first_weeks_after_hip__gte=6, first_weeks_after_hip__lte=26),
                name="practice_first_weeks_6_to_26",
            ),
            models.CheckConstraint(condition=models.Q(units__in=list(Units)), name="practice_units_known"),
            models.CheckConstraint(condition=models.Q(date_format__in=list(DateFormat)), name="practice_dates_known"),
            models.CheckConstraint(
                condition=models.Q(first_day_of_week__in=list(FirstDay)), name="practice_week_known"
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def manner(self) -> Manner:
        """How everything said in this practice writes lengths and dates."""
        return Manner(Units(self.units).value, DateFormat(self.date_format).value)


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
