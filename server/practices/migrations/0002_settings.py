from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("practices", "0001_initial")]

    operations = [
        migrations.AddField(
            model_name="practice",
            name="units",
            field=models.CharField(default="metric", max_length=10),
        ),
        migrations.AddField(
            model_name="practice",
            name="date_format",
            field=models.CharField(default="day_month_year", max_length=20),
        ),
        migrations.AddField(
            model_name="practice",
            name="first_day_of_week",
            field=models.PositiveSmallIntegerField(default=1),
        ),
        migrations.AddConstraint(
            model_name="practice",
            constraint=models.CheckConstraint(
                condition=models.Q(units__in=["metric", "imperial"]), name="practice_units_known"
            ),
        ),
        migrations.AddConstraint(
            model_name="practice",
            constraint=models.CheckConstraint(
                condition=models.Q(date_format__in=["day_month_year", "month_day_year", "year_month_day"]),
                name="practice_dates_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="practice",
            constraint=models.CheckConstraint(
                condition=models.Q(first_day_of_week__in=[0, 1, 6]), name="practice_week_known"
            ),
        ),
    ]
