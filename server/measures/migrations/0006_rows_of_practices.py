"""The database shows the application the rows of the opened practice only."""

from django.db import migrations

from common.database import PracticeTable


class Migration(migrations.Migration):
    dependencies = [("measures", "0005_one_leg_stand")]

    operations = [PracticeTable("measure", history=True)]
