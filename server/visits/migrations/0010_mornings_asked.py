"""A morning may have been asked about without an answer."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("visits", "0009_trial")]

    operations = [
        migrations.AlterField(model_name="morninganswer", name="settled", field=models.BooleanField(null=True)),
    ]
