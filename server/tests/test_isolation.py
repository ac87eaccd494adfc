"""Nobody reads or writes another practice's rows, by any address and not through the database either."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterator
from unittest.mock import patch

from django.apps import apps
from django.db import IntegrityError, InternalError, connection, transaction
from django.test import TestCase
from django_scopes import scope, scopes_disabled
from django_scopes.exceptions import ScopeError

from clients.models import Client, Entry
from common import permissions
from common.permissions import Permission, Role
from config.api import api
from measures.models import Measure
from practices.tenancy import PracticeRow
from tests.base import ApiTest, House
from visits.models import Visit

OPEN_TO_STRANGERS = {"me", "signIn"}
WITHOUT_PRACTICE = OPEN_TO_STRANGERS | {"signOut"}


def operations() -> list[tuple[str, str, object]]:
    """Every endpoint as (method, path with placeholders, operation)."""
    found = []
    for prefix, router in api._routers:
        for path, view in router.path_operations.items():
            for operation in view.operations:
                for method in operation.methods:
                    found.append((method, prefix + path, operation))
    return found


def filled(path: str, practice: House, entry: object, item: object, rows: House | None = None) -> str:
    """An address with every placeholder filled, ``rows`` telling whose."""
    ids = {
        "{uuid:practice_id}": practice.practice.pk, "{practice_id}": practice.practice.pk,
        "{client_id}": (rows or practice).client.pk, "{entry_id}": entry, "{item_id}": item,
        "{family_id}": "figure_four", "{variation_id}": "figure_four.block_flat", "{side}": "left",
    }  # fmt: skip
    for placeholder, value in ids.items():
        path = path.replace(placeholder, str(value))
    assert "{" not in path, path
    return f"/api{path}"


class EveryRoute(ApiTest):
    def test_declares_what_it_needs(self) -> None:
        for method, path, operation in operations():
            if operation.operation_id not in WITHOUT_PRACTICE:
                self.assertTrue(getattr(operation.view_func, "permission", None), f"{method} {path}")
                self.assertIn("practice_id", path)

    def filled(self, path: str, practice: House, rows: House) -> str:
        return filled(path, practice, self.entry.pk, self.item_id, rows)

    def test_a_stranger_to_the_practice_gets_404_everywhere(self) -> None:
        other = House("Loft", "owner@loft.example")
        self.entry = other.record_hip()
        self.item_id = uuid.uuid4()
        seen = 0
        for method, path, operation in operations():
            if operation.operation_id in WITHOUT_PRACTICE:
                continue
            body = BODIES.get(operation.operation_id, {})
            # Both by the other practice's address and by one's own address with the other's rows.
            for practice in (other, self.house):
                if practice is self.house and "{client_id}" not in path:
                    continue
                url = self.filled(path, practice, other)
                response = self.client.generic(method, url, json.dumps(body), content_type="application/json")
                self.assertEqual(response.status_code, 404, f"{method} {url}: {response.content[:200]!r}")
                seen += 1
        self.assertGreater(seen, 20)

    def test_signed_out_gets_401_everywhere(self) -> None:
        self.entry, self.item_id = self.house.record_hip(), uuid.uuid4()
        self.client.logout()
        for method, path, operation in operations():
            if operation.operation_id not in OPEN_TO_STRANGERS:
                url = self.filled(path, self.house, self.house)
                response = self.client.generic(method, url, "{}", content_type="application/json")
                self.assertEqual(response.status_code, 401, f"{method} {url}")


ENTRY = {"entry": {"kind": "knee_pain", "side": "left", "facts": {"site": "front"}}}
SETUP = {"setup": {}}
ITEM = {
    "id": str(uuid.uuid4()), "variation": "figure_four.block_flat", "side": "left", "setup_used": {}, "dose_s": 30,
    "before": 0, "during": 0, "after": 0,
}  # fmt: skip
BODIES = {
    "createClient": {"name": "x"},
    "importClient": {"format": "asketa-client", "version": 1, "client": {"id": "x"}},
    "updateClient": {"name": "x", "version": 1},
    "previewEntry": ENTRY,
    "recordEntry": ENTRY,
    "correctEntry": ENTRY,
    "giveClearance": {"who": "surgeon", "date": "2026-01-01", "scope": ["all"]},
    "storeMeasures": {"readings": [{"quantity": "stature", "value": 170}]},
    "turnTape": {"side": "left", "knee_height_cm": 20, "foot_distance_cm": 30, "seat_height_cm": 5},
    "setupDetail": SETUP,
    "takeToTheMat": {"variation": "figure_four.block_flat", "side": "left", "setup": {}, "dose_s": 30},
    "logItem": ITEM,
    "correctItem": {"id": str(uuid.uuid4()), "during": 1},
    "answerMorning": {"settled": True},
    "addVariation": {"format": "asketa-variation"},
    "changeVariation": {"number": 1, "file": {}},
    "retireVariation": {"number": 1},
}


class Roles(ApiTest):
    """Every address with its permission taken away, and everything a reader may ask for."""

    def setUp(self) -> None:
        super().setUp()
        self.entry, self.item_id = self.house.record_hip(), uuid.uuid4()

    def asked(self) -> Iterator[tuple[Permission, str, int]]:
        """Every address of a practice: what it asks for, its name, and what it answers."""
        for method, path, operation in operations():
            name = str(operation.operation_id)
            if name in WITHOUT_PRACTICE:
                continue
            url = filled(path, self.house, self.entry.pk, self.item_id)
            body = json.dumps(BODIES.get(name, {}))
            with transaction.atomic():
                response = self.client.generic(method, url, body, content_type="application/json")
                transaction.set_rollback(True)
            yield operation.view_func.permission, name, response.status_code

    def test_each_permission_is_refused_where_it_is_asked_for_and_nowhere_else(self) -> None:
        for taken in Permission:
            grants = {**permissions._GRANTS, Role.OWNER: frozenset(Permission) - {taken}}
            with patch.object(permissions, "_GRANTS", grants):
                for wanted, name, status in self.asked():
                    self.assertEqual(status == 403, wanted is taken, f"{name} without {taken}: {status}")

    def test_a_reader_reads_and_writes_nothing(self) -> None:
        self.house.practice.memberships.update(role="reader")
        before = self.rows()
        for wanted, name, status in self.asked():
            self.assertEqual(status == 403, wanted.value.endswith(".write"), f"{name}: {status}")
        self.assertEqual(self.rows(), before)

    def rows(self) -> dict[str, int]:
        with scopes_disabled():
            tables = (model for model in apps.get_models() if issubclass(model, PracticeRow))
            return {model._meta.label: model.objects.count() for model in tables}


class Managers(TestCase):
    def test_forgetting_the_practice_is_an_error(self) -> None:
        House("Mill", "owner@mill.example")
        with self.assertRaises(ScopeError):
            list(Client.objects.all())

    def test_an_opened_practice_shows_only_its_own(self) -> None:
        one, two = House("Mill", "a@mill.example"), House("Loft", "b@loft.example")
        with scope(practice=one.practice):
            self.assertEqual([c.pk for c in Client.objects.all()], [one.client.pk])
            self.assertFalse(Client.objects.filter(pk=two.client.pk).exists())


class Database(TestCase):
    """What must always hold, held by the database itself."""

    def setUp(self) -> None:
        self.one, self.two = House("Mill", "a@mill.example"), House("Loft", "b@loft.example")

    def test_no_row_points_into_another_practice(self) -> None:
        with scopes_disabled(), self.assertRaises(IntegrityError), transaction.atomic():
            Visit.objects.create(practice=self.one.practice, client=self.two.client, date=self.one.today)
            connection.check_constraints()
            with connection.cursor() as cursor:
                cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")

    def test_history_is_neither_changed_nor_deleted(self) -> None:
        entry = self.one.record_hip()
        for change in ("UPDATE clients_entry SET withdrawn = true", "DELETE FROM clients_entry"):
            with (
                self.assertRaises((IntegrityError, InternalError)),
                transaction.atomic(),
                connection.cursor() as cursor,
            ):
                cursor.execute(f"{change} WHERE id = %s", [entry.pk])

    def test_the_application_may_not_even_try(self) -> None:
        with connection.cursor() as cursor:
            cursor.execute("SELECT rolsuper FROM pg_roles WHERE rolname = 'asketa_app'")
            self.assertEqual(cursor.fetchone(), (False,))
            for table in (
                "clients_entry",
                "visits_loggeditem",
                "measures_measure",
                "library_ownrung",
                "audit_auditevent",
            ):
                for action, allowed in (("SELECT", True), ("INSERT", True), ("UPDATE", False), ("DELETE", False)):
                    cursor.execute("SELECT has_table_privilege('asketa_app', %s, %s)", [table, action])
                    self.assertEqual(cursor.fetchone(), (allowed,), f"{action} {table}")

    def test_values_outside_their_range_are_refused(self) -> None:
        with scope(practice=self.one.practice), self.assertRaises(IntegrityError), transaction.atomic():
            Measure.objects.create(
                practice=self.one.practice,
                client=self.one.client,
                quantity="hip_flexion",
                value=100,
                date=self.one.today,
            )

    def test_a_record_is_corrected_once(self) -> None:
        first = self.one.record_hip()
        with scope(practice=self.one.practice):
            common = {
                "practice": self.one.practice, "client": self.one.client, "root": first.pk, "replaces": first,
                "kind": first.kind, "side": first.side, "facts": first.facts,
            }  # fmt: skip
            Entry.objects.create(**common)
            with self.assertRaises(IntegrityError), transaction.atomic():
                Entry.objects.create(**common)
