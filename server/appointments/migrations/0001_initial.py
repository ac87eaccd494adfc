"""Appointments."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("clients", "0007_person"),
        ("practices", "0002_settings"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="Appointment",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("date", models.DateField()),
                ("time", models.TimeField()),
                ("minutes", models.PositiveSmallIntegerField()),
                ("series", models.UUIDField(null=True)),
                ("cancelled", models.BooleanField(default=False)),
                ("version", models.PositiveIntegerField(default=1)),
                (
                    "client",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="appointments", to="clients.client"
                    ),
                ),
                (
                    "created_by",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
                (
                    "practice",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to="practices.practice"
                    ),
                ),
            ],
            options={
                "ordering": ["date", "time", "id"],
                "indexes": [models.Index(fields=["practice", "date"], name="appointments_by_day")],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("minutes__gte", 5), ("minutes__lte", 480)),
                        name="appointment_length_plausible",
                    )
                ],
            },
        ),
        PracticeTable("appointment"),
    ]
