"""A hold keeps what was said and nothing else: figures and words nobody gave stay empty, and the seconds really held stand
beside those planned. A plan is a list, in the order poses were taken to the mat."""

from typing import Any

from django.db import migrations, models


def plans_as_lists(apps: Any, schema_editor: Any) -> None:
    """Plans were objects by family, whose order the database did not keep: it is the one they were shown in."""
    visits = apps.get_model("visits", "Visit")
    for visit in visits._base_manager.all().iterator():
        if isinstance(visit.plan, dict):
            visit.plan = [{"family": family, **sides} for family, sides in visit.plan.items()]
            visit.save(update_fields=["plan"])


def plans_as_objects(apps: Any, schema_editor: Any) -> None:
    visits = apps.get_model("visits", "Visit")
    for visit in visits._base_manager.all().iterator():
        if isinstance(visit.plan, list):
            visit.plan = {
                planned["family"]: {side: value for side, value in planned.items() if side != "family"}
                for planned in visit.plan
            }
            visit.save(update_fields=["plan"])


class Migration(migrations.Migration):
    dependencies = [("visits", "0002_invariants")]

    operations = [
        migrations.AddField("loggeditem", "held_s", models.PositiveSmallIntegerField(null=True)),
        migrations.AlterField("loggeditem", "before", models.PositiveSmallIntegerField(null=True)),
        migrations.AlterField("loggeditem", "after", models.PositiveSmallIntegerField(null=True)),
        migrations.AlterField("loggeditem", "kind", models.CharField(max_length=20, null=True)),
        migrations.AlterField("loggeditem", "place", models.CharField(max_length=20, null=True)),
        migrations.AlterField("loggeditem", "signs", models.JSONField(null=True)),
        migrations.AlterField("visit", "plan", models.JSONField(default=list)),
        migrations.RunPython(plans_as_lists, plans_as_objects),
    ]
