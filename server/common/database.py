"""SQL that migrations share: invariants the database keeps whatever the code does."""

from __future__ import annotations

from django.db.migrations.operations import RunSQL

_FUNCTION = """
CREATE OR REPLACE FUNCTION asketa_refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'rows of % are history: add a correction instead', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
"""


def append_only(table: str) -> RunSQL:
    """Refuse every UPDATE and DELETE on a table, for every role."""
    return RunSQL(
        f"{_FUNCTION} CREATE TRIGGER {table}_append_only BEFORE UPDATE OR DELETE ON {table} "
        "FOR EACH ROW EXECUTE FUNCTION asketa_refuse_change();",
        f"DROP TRIGGER {table}_append_only ON {table};",
    )


def practice_key(table: str) -> RunSQL:
    """Make (id, practice) of a table something other tables can refer to."""
    return RunSQL(
        f"ALTER TABLE {table} ADD CONSTRAINT {table}_in_practice UNIQUE (id, practice_id);",
        f"ALTER TABLE {table} DROP CONSTRAINT {table}_in_practice;",
    )


def same_practice(table: str, column: str, target: str) -> RunSQL:
    """A row may only point at a row of its own practice. ``target`` needs ``practice_key``."""
    name = f"{table}_{column}_same_practice"
    return RunSQL(
        f"ALTER TABLE {table} ADD CONSTRAINT {name} FOREIGN KEY ({column}, practice_id) "
        f"REFERENCES {target} (id, practice_id) DEFERRABLE INITIALLY DEFERRED;",
        f"ALTER TABLE {table} DROP CONSTRAINT {name};",
    )
