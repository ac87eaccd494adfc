"""The database shows the application the rows of the opened practice only."""

from django.db import migrations

from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [("audit", "0002_invariants")]

    operations = [PracticeTable("auditevent", history=True)]
