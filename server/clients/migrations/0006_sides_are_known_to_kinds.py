from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("clients", "0005_low_back_has_no_side"),
        ("practices", "0001_initial"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.RemoveConstraint(
            model_name="entry",
            name="entry_side_fits_kind",
        ),
        migrations.AddConstraint(
            model_name="entry",
            constraint=models.CheckConstraint(
                condition=models.Q(("side__isnull", True), ("side__in", ["left", "right"]), _connector="OR"),
                name="entry_side_is_one",
            ),
        ),
    ]
