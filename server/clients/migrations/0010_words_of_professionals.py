"""What treating professionals said, signs gone through, goals and contacts."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [
        ("clients", "0009_archived"),
        ("practices", "0002_settings"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AddField(
            model_name="person",
            name="contacts",
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name="person",
            name="goals",
            field=models.TextField(blank=True),
        ),
        migrations.CreateModel(
            name="SignsAnswer",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("date", models.DateField()),
                ("signs", models.JSONField()),
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
                    "entry",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="signs_answers", to="clients.entry"
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
                "ordering": ["date", "created_at"],
            },
        ),
        migrations.CreateModel(
            name="Instruction",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("withdrawn", models.BooleanField(default=False)),
                ("who", models.CharField(max_length=20)),
                ("date", models.DateField()),
                ("until", models.DateField(null=True)),
                ("figures", models.JSONField()),
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
                    "entry",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="instructions", to="clients.entry"
                    ),
                ),
                (
                    "practice",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to="practices.practice"
                    ),
                ),
                (
                    "replaces",
                    models.OneToOneField(
                        null=True,
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="replaced_by",
                        to="clients.instruction",
                    ),
                ),
            ],
            options={
                "ordering": ["date", "created_at", "id"],
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("until__isnull", True), ("until__gte", models.F("date")), _connector="OR"),
                        name="instruction_ends_after_it_begins",
                    )
                ],
            },
        ),
        PracticeTable("instruction", history=True),
        PracticeTable("signsanswer", history=True),
    ]
