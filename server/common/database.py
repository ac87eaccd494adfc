"""What migrations share: invariants the database keeps whatever the code does.

``PracticeTable`` is all a new table of a practice needs. The single statements below it are what the first migrations were
written with.
"""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.apps.registry import Apps
from django.db import connection, models
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.operations import RunSQL
from django.db.migrations.operations.base import Operation
from django.db.migrations.state import ProjectState
from psycopg.pq import TransactionStatus

OPENED = "asketa.practice"
"""The setting of a connection that names the practice whose rows it may see."""

_FUNCTION = """
CREATE OR REPLACE FUNCTION asketa_refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'rows of % are history: add a correction instead', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
"""


class PracticeTable(Operation):
    """Keep a table's rows inside their practices: a key of (id, practice) that others may point at, every relation to
    another such table bound to the same practice, and a policy by which the application's role sees and writes the rows of
    the opened practice only. ``history`` refuses every change and deletion besides.

    May be repeated: what is there already stays, so that a relation added later only needs it once more.
    """

    reversible = True

    def __init__(self, name: str, history: bool = False) -> None:
        self.name = name
        self.history = history

    def state_forwards(self, app_label: str, state: ProjectState) -> None:
        """Nothing of it is known to models."""

    def database_forwards(
        self,
        app_label: str,
        schema_editor: BaseDatabaseSchemaEditor,
        from_state: ProjectState,
        to_state: ProjectState,
    ) -> None:
        apps = to_state.apps
        assert apps is not None
        for statement in _missing(self._table(app_label, apps), related(apps.get_model(app_label, self.name))):
            schema_editor.execute(statement, None)
        if self.history:
            table = self._table(app_label, apps)
            schema_editor.execute(f"DROP TRIGGER IF EXISTS {table}_append_only ON {table}")
            schema_editor.execute(_FUNCTION, None)
            schema_editor.execute(_append_only(table))

    def database_backwards(
        self,
        app_label: str,
        schema_editor: BaseDatabaseSchemaEditor,
        from_state: ProjectState,
        to_state: ProjectState,
    ) -> None:
        """Keys and triggers go with their table, or stay as what an earlier migration made."""
        apps = from_state.apps
        assert apps is not None
        table = self._table(app_label, apps)
        schema_editor.execute(f"DROP POLICY IF EXISTS {table}_own_practice ON {table}")
        schema_editor.execute(f"ALTER TABLE {table} DISABLE ROW LEVEL SECURITY")

    def _table(self, app_label: str, apps: Apps) -> str:
        return str(apps.get_model(app_label, self.name)._meta.db_table)

    def describe(self) -> str:
        return f"Keep the rows of {self.name} inside their practices"

    def deconstruct(self) -> tuple[str, list[Any], dict[str, Any]]:
        return self.__class__.__qualname__, [self.name], {"history": True} if self.history else {}


def related(model: type[models.Model]) -> dict[str, str]:
    """The columns by which a table points at rows of a practice, and at which table."""
    return {
        str(field.column): field.related_model._meta.db_table
        for field in model._meta.concrete_fields
        if isinstance(field.related_model, type)
        and any(each.name == "practice" for each in field.related_model._meta.concrete_fields)
    }


def _missing(table: str, points_at: dict[str, str]) -> Iterator[str]:
    for target in dict.fromkeys([table, *points_at.values()]):
        yield _unless_there(
            f"{target}_in_practice",
            f"ALTER TABLE {target} ADD CONSTRAINT {target}_in_practice UNIQUE (id, practice_id)",
        )
    for column, target in points_at.items():
        name = f"{table}_{column}_same_practice"
        yield _unless_there(
            name,
            f"ALTER TABLE {table} ADD CONSTRAINT {name} FOREIGN KEY ({column}, practice_id) "
            f"REFERENCES {target} (id, practice_id) DEFERRABLE INITIALLY DEFERRED",
        )
    yield f"DROP POLICY IF EXISTS {table}_own_practice ON {table}"
    # Nothing opened is an empty setting, and no row's practice.
    yield (
        f"CREATE POLICY {table}_own_practice ON {table} "
        f"USING (practice_id = NULLIF(current_setting('{OPENED}', true), '')::uuid)"
    )
    yield f"ALTER TABLE {table} ENABLE ROW LEVEL SECURITY"


def _unless_there(constraint: str, statement: str) -> str:
    return (
        f"DO $$ BEGIN IF NOT EXISTS (SELECT 1 FROM pg_constraint WHERE conname = '{constraint}') "
        f"THEN {statement}; END IF; END $$"
    )


@contextmanager
def rows_of_practice(practice_id: uuid.UUID) -> Iterator[None]:
    """Let the connection see one practice's rows while the block runs, and what it saw before afterwards."""
    before = _see_rows_of(str(practice_id))
    try:
        yield
    finally:
        # In a transaction that failed nothing can be said any more; undoing it takes this back as well.
        if not _failed():
            _see_rows_of(before)


def _failed() -> bool:
    wire = connection.connection
    return wire is None or wire.info.transaction_status is TransactionStatus.INERROR


def _see_rows_of(practice_id: str) -> str:
    with connection.cursor() as cursor:
        cursor.execute("SELECT current_setting(%s, true), set_config(%s, %s, false)", [OPENED, OPENED, practice_id])
        row: tuple[str | None, str] = cursor.fetchone()
    return row[0] or ""


def _append_only(table: str) -> str:
    return (
        f"CREATE TRIGGER {table}_append_only BEFORE UPDATE OR DELETE ON {table} "
        "FOR EACH ROW EXECUTE FUNCTION asketa_refuse_change()"
    )


def append_only(table: str) -> RunSQL:
    """Refuse every UPDATE and DELETE on a table, for every role."""
    return RunSQL(
        f"{_FUNCTION} {_append_only(table)};",
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
