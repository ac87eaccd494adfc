"""What earlier versions stored and wrote stays readable: a database and one file of each kind from every released state."""

from __future__ import annotations

import gzip
import io
import json
from pathlib import Path
from typing import Any

import psycopg
from django.core.management import call_command
from django.db import connection
from django.test import Client as Browser
from django.test import SimpleTestCase
from django_scopes import scopes_disabled

from asketa_core import ClientFile, parse, read_own, standard_library
from clients.models import Client
from common.speech import words
from exchange import services
from library.models import OwnRung
from practices.models import Membership, Practice
from practices.tenancy import opened
from tests.base import ApiTest
from visits.models import LoggedItem, Visit

STATES = Path(__file__).parent / "data"
DATABASES = sorted(STATES.glob("*/database.sql.gz"))


class Databases(SimpleTestCase):
    """Each stored database is restored under a name of its own, brought up to date, and read through every view."""

    databases = "__all__"

    def restored(self, dump: Path) -> str:
        name = f"test_released_{dump.parent.name.replace('.', '_')}"
        with connection.cursor() as cursor:
            cursor.execute(f"DROP DATABASE IF EXISTS {name}")
            cursor.execute(f"CREATE DATABASE {name}")
        at = connection.settings_dict
        with psycopg.connect(
            host=at["HOST"], port=at["PORT"], user=at["USER"], password=at["PASSWORD"], dbname=name, autocommit=True
        ) as fresh:
            fresh.execute(gzip.decompress(dump.read_bytes()).decode())
        return name

    def setUp(self) -> None:
        self.usual = connection.settings_dict["NAME"]

    def use(self, name: str) -> None:
        connection.close()
        connection.settings_dict["NAME"] = name

    def tearDown(self) -> None:
        used = connection.settings_dict["NAME"]
        self.use(self.usual)
        if used != self.usual:
            with connection.cursor() as cursor:
                # Waits for whatever cleans up by itself; force would need the right to end it.
                cursor.execute(f"DROP DATABASE IF EXISTS {used}")

    def test_every_state_there_was_is_kept(self) -> None:
        self.assertIn("0.1.0", [dump.parent.name for dump in DATABASES])

    def test_each_is_brought_up_to_date_and_read(self) -> None:
        for dump in DATABASES:
            with self.subTest(dump.parent.name):
                self.use(self.restored(dump))
                call_command("migrate", verbosity=0, stdout=io.StringIO())
                with scopes_disabled():
                    practices = list(Practice.objects.all())
                    self.assertGreater(LoggedItem.objects.count(), 10)
                    self.assertTrue(all(isinstance(visit.plan, list) for visit in Visit.objects.all()))
                    self.assertTrue(any(len(visit.plan) > 1 for visit in Visit.objects.all()))
                    self.assertTrue(OwnRung.objects.exists())
                for practice in practices:
                    self.read_through(practice)

    def read_through(self, practice: Practice) -> None:
        browser = Browser()
        member = Membership.objects.filter(practice=practice).select_related("user").first()
        assert member is not None
        browser.force_login(member.user, backend="django.contrib.auth.backends.ModelBackend")
        at = f"/api/practices/{practice.pk}"
        library = self.answer(browser, f"{at}/library")
        self.assertEqual(library["troubles"], [])
        with opened(practice):
            clients = list(Client.objects.all())
        for client in clients:
            base = f"{at}/clients/{client.pk}"
            head = self.answer(browser, base)
            self.assertNotIn("cannot be read", json.dumps(head["notes"]))
            for view in (
                "/entries",
                "/measures",
                "/families",
                "/responses",
                "/mat",
                "/items",
                "/file",
                "/responses.csv",
            ):
                self.answer(browser, base + view)
            for family in self.answer(browser, f"{base}/responses"):
                for side in ("left", "right"):
                    for point in family[side]["points"]:
                        self.assertIsNotNone(point["before"], "what was stored stays said")

    def answer(self, browser: Browser, url: str) -> Any:
        response = browser.get(url)
        self.assertEqual(response.status_code, 200, url)
        return response.json() if "json" in response.headers["Content-Type"] else response.content


class Files(ApiTest):
    def test_client_files_come_in(self) -> None:
        paths = sorted(STATES.glob("*/client-*.json"))
        self.assertGreater(len(paths), 3)
        for path in paths:
            with self.subTest(path.name), opened(self.house.practice):
                raw = json.loads(path.read_text(encoding="utf-8"))
                file = parse(ClientFile, raw)
                response = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", raw)
                self.assertEqual(response.status_code, 201, response.content)
                again = services.exported(
                    Client.objects.known().select_related("practice").get(pk=response.json()["id"])
                )
                self.assertEqual(len(again["responses"]), len(file.responses))
                self.assertEqual([e["kind"] for e in again["entries"]], [e.kind for e in file.entries])

    def test_variation_files_come_in(self) -> None:
        paths = sorted(STATES.glob("*/variation.json"))
        self.assertTrue(paths)
        for path in paths:
            raw = json.loads(path.read_text(encoding="utf-8"))
            own = read_own(raw, standard_library(), "own_test")
            self.assertEqual(words()(own.rung.short), raw["variation"]["short"])
            self.assertEqual(own.file(words())["version"], 5)
