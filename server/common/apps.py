from __future__ import annotations

from typing import Any

from django.apps import AppConfig, apps
from django.conf import settings
from django.db import connections
from django.db.models.signals import post_migrate


def grant_to_application(using: str, **_: Any) -> None:
    """After every migration, give the application's role what it needs and nothing on history."""
    connection = connections[using]
    role = settings.APP_DB_ROLE
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1 FROM pg_roles WHERE rolname = %s", [role])
        if cursor.fetchone() is None or connection.settings_dict["USER"] == role:
            return
        cursor.execute(f"GRANT USAGE ON SCHEMA public TO {role}")
        cursor.execute(f"GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {role}")
        cursor.execute(f"GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO {role}")
        # Migrating an app back to nothing takes its tables away before this runs.
        there = set(connection.introspection.table_names(cursor))
        for model in apps.get_models():
            if getattr(model, "append_only", False) and model._meta.db_table in there:
                cursor.execute(f"REVOKE UPDATE, DELETE ON {model._meta.db_table} FROM {role}")


class CommonConfig(AppConfig):
    name = "common"

    def ready(self) -> None:
        from common import checks  # noqa: F401, PLC0415 — registering needs loaded apps

        # Sent once per app with models, after every migration has run: one of them is enough.
        post_migrate.connect(grant_to_application, sender=apps.get_app_config("accounts"))
