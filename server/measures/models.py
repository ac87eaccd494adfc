"""Measures of a client: body and ranges of motion, each with its method, error and date."""

from __future__ import annotations

from typing import Any

from django.db import models

from asketa_core import PLAUSIBLE_BODY
from clients.models import SIDE_CHOICES, SIDE_KNOWN, Client
from practices.tenancy import PracticeRow

BODY_QUANTITIES = tuple(PLAUSIBLE_BODY)
TEST, SEEN = "test.", "seen."


class Measure(PracticeRow):
    """One reading; later readings stand beside earlier ones. Body measures have no side.

    A test that no range shows is a reading as well, ``test.`` and its name, whose value counts ``TEST_RESULTS``; so is a
    shape seen on the mat beyond what the model takes for possible, ``seen.`` and the bound, with the value 1, or 0 where that was
    taken back.
    """

    append_only = True

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="measures")
    quantity = models.CharField(max_length=40)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES, null=True)
    value = models.FloatField()
    method = models.CharField(max_length=20, blank=True)
    error = models.FloatField(null=True)
    """Own error of this reading; the method's where there is none."""
    date = models.DateField()
    pelvis_held = models.CharField(max_length=7, default="unknown")
    conditions: Any = models.JSONField(default=dict)
    """What a tape reading was turned into degrees with."""
    note = models.CharField(max_length=20, blank=True)

    class Meta:
        ordering = ["date", "created_at"]
        indexes = [models.Index(fields=["client", "quantity", "side"], name="measure_by_quantity")]
        constraints = [
            models.CheckConstraint(
                condition=(models.Q(quantity__in=BODY_QUANTITIES) & models.Q(side__isnull=True))
                | (~models.Q(quantity__in=BODY_QUANTITIES) & models.Q(side__isnull=False) & SIDE_KNOWN),
                name="measure_side_fits_quantity",
            )
        ]
