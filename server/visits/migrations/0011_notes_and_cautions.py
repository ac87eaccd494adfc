"""The therapist's notes of a visit, and cautions taken on."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [
        ("clients", "0010_words_of_professionals"),
        ("practices", "0002_settings"),
        ("visits", "0010_mornings_asked"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="VisitNote",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
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
                (
                    "visit",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="note_rows", to="visits.visit"
                    ),
                ),
            ],
            options={
                "ordering": ["created_at", "id"],
            },
        ),
        migrations.CreateModel(
            name="AcceptedCaution",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("family", models.CharField(max_length=80)),
                ("side", models.CharField(choices=[("left", "left"), ("right", "right")], max_length=5, null=True)),
                ("codes", models.JSONField()),
                ("withdrawn", models.BooleanField(default=False)),
                (
                    "client",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="accepted_cautions",
                        to="clients.client",
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
                "ordering": ["created_at", "id"],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("side__isnull", True), ("side__in", ["left", "right"]), _connector="OR"),
                        name="accepted_side_known",
                    )
                ],
            },
        ),
        PracticeTable("visitnote", history=True),
        PracticeTable("acceptedcaution", history=True),
    ]
