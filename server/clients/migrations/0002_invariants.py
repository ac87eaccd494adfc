"""Invariants the database keeps by itself."""

from django.db import migrations

from common.database import append_only, practice_key, same_practice


class Migration(migrations.Migration):
    dependencies = [("clients", "0001_initial")]

    operations = [
        practice_key("clients_client"),
        practice_key("clients_entry"),
        same_practice("clients_entry", "client_id", "clients_client"),
        same_practice("clients_entry", "replaces_id", "clients_entry"),
        same_practice("clients_clearance", "entry_id", "clients_entry"),
        same_practice("clients_dailyanswer", "entry_id", "clients_entry"),
        append_only("clients_entry"),
        append_only("clients_clearance"),
        append_only("clients_dailyanswer"),
    ]
