"""Invariants the database keeps by itself."""

from django.db import migrations

from common.database import append_only


class Migration(migrations.Migration):
    dependencies = [("audit", "0001_initial")]

    operations = [
        append_only("audit_auditevent"),
    ]
