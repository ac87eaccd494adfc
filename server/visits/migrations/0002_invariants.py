"""Invariants the database keeps by itself."""

from django.db import migrations

from common.database import append_only, practice_key, same_practice


class Migration(migrations.Migration):
    dependencies = [("visits", "0001_initial"), ("clients", "0002_invariants")]

    operations = [
        practice_key("visits_visit"),
        practice_key("visits_loggeditem"),
        same_practice("visits_visit", "client_id", "clients_client"),
        same_practice("visits_loggeditem", "visit_id", "visits_visit"),
        same_practice("visits_loggeditem", "replaces_id", "visits_loggeditem"),
        same_practice("visits_morninganswer", "item_id", "visits_loggeditem"),
        append_only("visits_loggeditem"),
        append_only("visits_morninganswer"),
    ]
