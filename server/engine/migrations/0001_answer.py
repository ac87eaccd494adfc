"""Answers all processes share, in a table that is not logged. Who erases a person erases what was answered about them."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import common.clock
from common.database import PracticeTable

FORGET = """
CREATE FUNCTION asketa_forget_answers() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  DELETE FROM engine_answer WHERE practice_id = OLD.practice_id;
  RETURN NULL;
END $$;
CREATE TRIGGER clients_person_forgotten AFTER DELETE ON clients_person
  FOR EACH ROW EXECUTE FUNCTION asketa_forget_answers();
"""

KEEP = """
DROP TRIGGER clients_person_forgotten ON clients_person;
DROP FUNCTION asketa_forget_answers();
"""


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("clients", "0010_words_of_professionals"),
        ("practices", "0002_settings"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="Answer",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("created_at", models.DateTimeField(default=common.clock.now, editable=False)),
                ("about", models.UUIDField()),
                ("body", models.BinaryField()),
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
                "indexes": [
                    models.Index(fields=["about"], name="answer_about"),
                    models.Index(fields=["created_at"], name="answer_age"),
                ],
            },
        ),
        migrations.RunSQL("ALTER TABLE engine_answer SET UNLOGGED", "ALTER TABLE engine_answer SET LOGGED"),
        PracticeTable("answer"),
        migrations.RunSQL(FORGET, KEEP),
    ]
