"""Logs say what happened and where in the code, and nothing of anybody's records."""

from __future__ import annotations

import io
import logging
import logging.config
from typing import Any

from django.conf import settings
from django.db import DatabaseError, connection, transaction
from django.test import SimpleTestCase

from clients.models import Client, Person
from common.logs import NoValues, Scrubbed
from practices.tenancy import opened
from tests.base import ApiTest


class Formatting(SimpleTestCase):
    def written(self, log: Any) -> str:
        out = io.StringIO()
        handler = logging.StreamHandler(out)
        handler.setFormatter(Scrubbed("%(name)s %(message)s"))
        handler.addFilter(NoValues())
        logger = logging.getLogger("django.db.backends.written")
        logger.addHandler(handler)
        logger.propagate = False
        try:
            log(logger)
        finally:
            logger.removeHandler(handler)
        return out.getvalue()

    def test_an_error_is_its_kind_and_its_places(self) -> None:
        def fail(logger: logging.Logger) -> None:
            try:
                try:
                    raise ValueError("Ottoline Farrow, born 1950")
                except ValueError as error:
                    raise RuntimeError("note: sore since Monday") from error
            except RuntimeError:
                logger.exception("failed")

        text = self.written(fail)
        self.assertIn("builtins.RuntimeError", text)
        self.assertIn("builtins.ValueError", text)
        self.assertIn("test_logs.py:", text)
        for secret in ("Farrow", "1950", "Monday"):
            self.assertNotIn(secret, text)

    def test_the_database_layers_messages_lose_their_values(self) -> None:
        text = self.written(lambda logger: logger.warning("(%s) INSERT … VALUES %s", 0.01, "Ottoline Farrow"))
        self.assertNotIn("Farrow", text)
        self.assertIn("the database layer reports WARNING", text)

    def test_every_handler_is_scrubbed(self) -> None:
        for name, handler in settings.LOGGING["handlers"].items():
            self.assertEqual(handler["formatter"], "scrubbed", name)
            self.assertIn("no_values", handler["filters"], name)


class OfTheDatabase(ApiTest):
    def test_a_refused_row_leaves_no_value_in_its_log(self) -> None:
        """Statements go without values, and a refusal says which constraint, not which row."""
        secret = "Ottilie-Marker-of-this-test"
        with opened(self.house.practice), self.assertRaises(DatabaseError), transaction.atomic():
            client = Client.objects.create(practice=self.house.practice)
            Person.objects.create(practice=self.house.practice, client=client, name="", occupation=secret)
        with self.assertRaises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("SELECT %s::int", [secret])
        log = settings.DATABASE_LOG
        if log is None or not log.exists():
            self.skipTest("the database's log is not on this machine")
        self.assertNotIn(secret, log.read_text(encoding="utf-8", errors="replace"))
