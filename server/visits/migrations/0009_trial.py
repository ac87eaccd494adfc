"""Two ways tried one after the other, and the calmer kept."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [
        ("practices", "0002_settings"),
        ("visits", "0008_own_decision"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="Trial",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("variation", models.CharField(max_length=80)),
                ("side", models.CharField(choices=[("left", "left"), ("right", "right")], max_length=5)),
                ("slot", models.CharField(max_length=80)),
                ("setup", models.JSONField()),
                ("a", models.JSONField()),
                ("b", models.JSONField()),
                ("felt_a", models.PositiveSmallIntegerField()),
                ("felt_b", models.PositiveSmallIntegerField()),
                ("kept", models.CharField(choices=[("a", "a"), ("b", "b")], max_length=1)),
                ("snapshot", models.JSONField()),
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
                        on_delete=django.db.models.deletion.PROTECT, related_name="trials", to="visits.visit"
                    ),
                ),
            ],
            options={
                "ordering": ["visit__date", "created_at", "id"],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("side__in", ["left", "right"])), name="trial_side_known"
                    ),
                    models.CheckConstraint(
                        condition=models.Q(("felt_a__lte", 10), ("felt_b__lte", 10)), name="trial_felt_0_to_10"
                    ),
                    models.CheckConstraint(condition=models.Q(("kept__in", ("a", "b"))), name="trial_kept_known"),
                ],
            },
        ),
        PracticeTable("trial", history=True),
    ]
