"""What was written about a hold in free words moves to the person it is about, and what was known at the time says how old
they were instead of when they were born: both can be erased without touching history."""

from django.db import migrations

from common.database import PracticeTable

_NOTES_OUT = """
UPDATE clients_person person SET notes = kept.notes
FROM (
    SELECT visit.client_id, jsonb_object_agg(item.id::text, item.note) AS notes
    FROM visits_loggeditem item JOIN visits_visit visit ON visit.id = item.visit_id
    WHERE item.note <> '' GROUP BY visit.client_id
) kept
WHERE kept.client_id = person.client_id;
"""
_NOTES_BACK = """
ALTER TABLE visits_loggeditem DISABLE TRIGGER visits_loggeditem_append_only;
UPDATE visits_loggeditem item SET note = person.notes ->> item.id::text
FROM visits_visit visit JOIN clients_person person ON person.client_id = visit.client_id
WHERE visit.id = item.visit_id AND person.notes ? item.id::text;
ALTER TABLE visits_loggeditem ENABLE TRIGGER visits_loggeditem_append_only;
"""
_AGES = """
ALTER TABLE visits_loggeditem DISABLE TRIGGER visits_loggeditem_append_only;
UPDATE visits_loggeditem item SET snapshot = CASE
    WHEN item.snapshot #>> '{records,client,birth_date}' IS NULL THEN item.snapshot #- '{records,client,birth_date}'
    ELSE jsonb_set(
        item.snapshot #- '{records,client,birth_date}', '{records,client,age_years}',
        to_jsonb(date_part('year', age(visit.date, (item.snapshot #>> '{records,client,birth_date}')::date))::int)
    ) END
FROM visits_visit visit WHERE visit.id = item.visit_id AND item.snapshot #> '{records,client}' ? 'birth_date';
ALTER TABLE visits_loggeditem ENABLE TRIGGER visits_loggeditem_append_only;
"""


class Migration(migrations.Migration):
    # The table is altered after rows were changed: one step at a time.
    atomic = False
    dependencies = [("visits", "0004_holds_in_their_order"), ("clients", "0007_person")]

    operations = [
        migrations.RunSQL(_NOTES_OUT, _NOTES_BACK),
        migrations.RunSQL(_AGES, migrations.RunSQL.noop),
        migrations.RemoveField("loggeditem", "note"),
        PracticeTable("visit"),
        PracticeTable("loggeditem", history=True),
        PracticeTable("morninganswer", history=True),
    ]
