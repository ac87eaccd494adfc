"""Invariants the database keeps by itself."""

from common.database import append_only
from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("audit", "0001_initial")]

    operations = [
        append_only("audit_auditevent"),
    ]
