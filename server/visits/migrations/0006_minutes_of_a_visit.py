"""How long a day is meant to take."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("visits", "0005_no_names_in_history")]

    operations = [
        migrations.AddField("visit", "minutes", models.PositiveSmallIntegerField(null=True)),
        migrations.AddConstraint(
            "visit",
            models.CheckConstraint(
                condition=models.Q(
                    ("minutes__isnull", True), models.Q(("minutes__gte", 5), ("minutes__lte", 480)), _connector="OR"
                ),
                name="visit_length_plausible",
            ),
        ),
    ]
