"""What a therapist decided for next time."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [
        ("visits", "0007_incident"),
        ("clients", "0008_breath"),
        ("practices", "0002_settings"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="OwnDecision",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("family", models.CharField(max_length=80)),
                ("side", models.CharField(choices=[("left", "left"), ("right", "right")], max_length=5)),
                (
                    "action",
                    models.CharField(
                        choices=[
                            ("stay", "stay"),
                            ("offer", "offer"),
                            ("step_back", "step_back"),
                            ("leave_out", "leave_out"),
                            ("as_computed", "as_computed"),
                        ],
                        max_length=12,
                    ),
                ),
                (
                    "client",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="own_decisions", to="clients.client"
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
                        condition=models.Q(("side__in", ["left", "right"])), name="decision_side_known"
                    ),
                    models.CheckConstraint(
                        condition=models.Q(("action__in", ("stay", "offer", "step_back", "leave_out", "as_computed"))),
                        name="decision_known",
                    ),
                ],
            },
        ),
        PracticeTable("owndecision", history=True),
    ]
