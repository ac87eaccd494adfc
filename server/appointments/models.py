"""Appointments: a client on a day at a time."""

from __future__ import annotations

from typing import Any, ClassVar

from django.db import models

from clients.models import Client
from practices.tenancy import PracticeRow, rows_by

LEAST_MINUTES, MOST_MINUTES = 5, 480


class AppointmentQuerySet(models.QuerySet["Appointment"]):
    def of_known(self) -> AppointmentQuerySet:
        """Appointments of clients whose person is there, with both beside them."""
        return self.filter(client__person__isnull=False).select_related("client__person", "client__practice")


class Appointment(PracticeRow):
    """One client at one time of the practice's own clock. What was booked as a weekly series is one row a week that share
    ``series``: each is moved and cancelled by itself or with those that follow. ``version`` grows with every change."""

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="appointments")
    date = models.DateField()
    time = models.TimeField()
    minutes = models.PositiveSmallIntegerField()
    series = models.UUIDField(null=True)
    cancelled = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=1)

    objects: ClassVar[Any] = rows_by(AppointmentQuerySet)

    class Meta:
        ordering = ["date", "time", "id"]
        indexes = [models.Index(fields=["practice", "date"], name="appointments_by_day")]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(minutes__gte=LEAST_MINUTES, minutes__lte=MOST_MINUTES),
                name="appointment_length_plausible",
            ),
        ]

    @property
    def place(self) -> str:
        """Where it is, in free words: kept with the person, since it may be where they live."""
        return self.client.person.note_of(self.pk)
