"""A corrected hold keeps its place among the holds of its day: what came last decides what is next."""

from django.db import migrations, models

from common import clock

_BACKFILL = """
ALTER TABLE visits_loggeditem DISABLE TRIGGER visits_loggeditem_append_only;
WITH RECURSIVE chain AS (
    SELECT id, created_at AS logged_at FROM visits_loggeditem WHERE replaces_id IS NULL
    UNION ALL
    SELECT later.id, chain.logged_at FROM visits_loggeditem later JOIN chain ON later.replaces_id = chain.id
)
UPDATE visits_loggeditem item SET logged_at = chain.logged_at FROM chain WHERE chain.id = item.id;
ALTER TABLE visits_loggeditem ENABLE TRIGGER visits_loggeditem_append_only;
"""


class Migration(migrations.Migration):
    # The table is altered after rows were changed: one step at a time.
    atomic = False
    dependencies = [("visits", "0003_holds_as_said")]

    operations = [
        migrations.AddField("loggeditem", "logged_at", models.DateTimeField(null=True)),
        migrations.RunSQL(_BACKFILL, migrations.RunSQL.noop),
        migrations.AlterField("loggeditem", "logged_at", models.DateTimeField(default=clock.now, editable=False)),
        migrations.AlterModelOptions("loggeditem", {"ordering": ["logged_at", "id"]}),
    ]
