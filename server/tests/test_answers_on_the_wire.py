"""What goes over the wire is small, and what never changes is asked for once."""

from __future__ import annotations

import gzip
import json
import os
import re
from unittest.mock import patch

from django.conf import settings
from django.db import connection
from django.test import TransactionTestCase

from common.apps import grant_to_application
from tests.base import ApiTest


class Compressed(ApiTest):
    def test_answers_of_the_engine_come_compressed_to_whoever_takes_it(self) -> None:
        address = self.url("/setups/figure_four.block_flat/left")
        packed = self.client.get(address, headers={"accept-encoding": "gzip"})
        self.assertEqual(packed.headers["Content-Encoding"], "gzip")
        plain = self.client.get(address)
        self.assertNotIn("Content-Encoding", plain.headers)
        self.assertEqual(json.loads(gzip.decompress(packed.content)), plain.json())
        self.assertLess(len(packed.content), len(plain.content) / 8)

    def test_files_named_by_their_content_come_precompressed_and_for_good(self) -> None:
        page = b"".join(self.client.get("/").streaming_content)
        script = re.search(rb'src="(/assets/[^"]+\.js)"', page)
        assert script is not None
        answer = self.client.get(script.group(1).decode(), headers={"accept-encoding": "gzip, br"})
        self.assertIn(answer.headers["Content-Encoding"], ("gzip", "br"))
        self.assertIn("immutable", answer.headers["Cache-Control"])
        self.assertNotIn("immutable", self.client.get("/").headers.get("Cache-Control", ""))

    def test_the_mark_of_a_server_names_nothing_else(self) -> None:
        with patch.dict(os.environ, {"ASKETA_MARK": "mine"}):
            self.assertEqual(self.client.get("/api/mark").json(), {"mark": "mine"})


class Grants(TransactionTestCase):
    def test_an_app_migrated_back_to_nothing_stops_no_grant(self) -> None:
        """Its tables are gone when the rights are given; those of the others are given all the same."""
        with connection.cursor() as cursor:
            cursor.execute("ALTER TABLE library_ownrung RENAME TO elsewhere")
            try:
                grant_to_application("default")
                cursor.execute("SELECT has_table_privilege(%s, 'measures_measure', 'UPDATE')", [settings.APP_DB_ROLE])
                self.assertEqual(cursor.fetchone(), (False,))
            finally:
                cursor.execute("ALTER TABLE elsewhere RENAME TO library_ownrung")
