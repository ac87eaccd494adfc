"""Who a client is moves into a table of its own, which can be erased while what happened stays."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from common import clock
from common.database import PracticeTable

_MOVE = """
INSERT INTO clients_person (id, created_at, name, birth_date, occupation, notes, client_id, created_by_id, practice_id)
SELECT gen_random_uuid(), created_at, name, birth_date, occupation, '{}', id, created_by_id, practice_id FROM clients_client;
"""
_MOVE_BACK = """
UPDATE clients_client c SET name = p.name, birth_date = p.birth_date, occupation = p.occupation
FROM clients_person p WHERE p.client_id = c.id;
"""


class Migration(migrations.Migration):
    # Tables are altered after rows were changed: one step at a time.
    atomic = False
    dependencies = [
        ("practices", "0001_initial"),
        ("clients", "0006_sides_are_known_to_kinds"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="Person",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=clock.now, editable=False)),
                ("name", models.CharField(max_length=120)),
                ("birth_date", models.DateField(blank=True, null=True)),
                ("occupation", models.CharField(blank=True, max_length=120)),
                ("notes", models.JSONField(default=dict)),
                (
                    "client",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.PROTECT, related_name="person", to="clients.client"
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
                "constraints": [
                    models.CheckConstraint(condition=models.Q(("name", ""), _negated=True), name="person_has_a_name")
                ],
            },
        ),
        migrations.RunSQL(_MOVE, _MOVE_BACK),
        migrations.RemoveConstraint("client", "client_has_a_name"),
        migrations.AlterModelOptions("client", {"ordering": ["person__name", "id"]}),
        migrations.RemoveField("client", "name"),
        migrations.RemoveField("client", "birth_date"),
        migrations.RemoveField("client", "occupation"),
        PracticeTable("client"),
        PracticeTable("person"),
        PracticeTable("entry", history=True),
        PracticeTable("clearance", history=True),
        PracticeTable("dailyanswer", history=True),
    ]
