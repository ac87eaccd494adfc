"""How long one calm breath of a client takes."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("clients", "0007_person")]

    operations = [
        migrations.AddField("client", "breath_s", models.PositiveSmallIntegerField(default=6)),
        migrations.AddConstraint(
            "client",
            models.CheckConstraint(
                condition=models.Q(("breath_s__gte", 2), ("breath_s__lte", 20)), name="breath_plausible"
            ),
        ),
    ]
