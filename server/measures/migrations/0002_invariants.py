"""Invariants the database keeps by itself."""

from django.db import migrations

from common.database import append_only, same_practice


class Migration(migrations.Migration):
    dependencies = [("measures", "0001_initial"), ("clients", "0002_invariants")]

    operations = [
        same_practice("measures_measure", "client_id", "clients_client"),
        append_only("measures_measure"),
    ]
