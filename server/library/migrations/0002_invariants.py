"""Invariants the database keeps by itself."""

from django.db import migrations

from common.database import append_only, practice_key, same_practice


class Migration(migrations.Migration):
    dependencies = [("library", "0001_initial")]

    operations = [
        practice_key("library_ownrung"),
        same_practice("library_ownrung", "replaces_id", "library_ownrung"),
        append_only("library_ownrung"),
    ]
