"""Clients who are put away."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("clients", "0008_breath")]

    operations = [migrations.AddField("client", "archived", models.BooleanField(default=False))]
