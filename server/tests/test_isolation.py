"""Nobody reads or writes another practice's rows, by any address and not through the database either."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterator
from unittest.mock import patch

from django.apps import apps
from django.db import IntegrityError, InternalError, ProgrammingError, connection, transaction
from django.test import TestCase
from django_scopes import scopes_disabled
from django_scopes.exceptions import ScopeError

from clients.models import Client, Entry, Person
from common import permissions
from common.database import related
from common.permissions import Permission, Role
from config.api import api
from measures.models import Measure
from practices.tenancy import PracticeRow, opened
from tests.base import ApiTest, House, as_application
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
        "{client_id}": (rows or practice).client.pk, "{entry_id}": entry, "{appointment_id}": uuid.uuid4(), "{template_id}": uuid.uuid4(), "{item_id}": item,
        "{instruction_id}": uuid.uuid4(), "{family_id}": "figure_four", "{variation_id}": "figure_four.block_flat", "{side}": "left",
    }  # fmt: skip
    for placeholder, value in ids.items():
        path = path.replace(placeholder, str(value))
    if path.endswith("/ladders"):
        path += "?family=figure_four"
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
WHEN = {"date": "2099-01-01", "time": "10:15", "minutes": 45}
BODIES = {
    "changePracticeSettings": {
        "name": "x",
        "units": "metric",
        "date_format": "day_month_year",
        "first_day_of_week": 1,
        "time_zone": "Europe/London",
    },
    "bookAppointment": {"client_id": str(uuid.uuid4()), **WHEN},
    "moveAppointment": {"version": 1, **WHEN},
    "cancelAppointment": {"version": 1},
    "restoreAppointment": {"version": 1},
    "savePlan": {"version": 0, "poses": []},
    "planAgain": {"version": 0},
    "addToPlan": {"version": 0, "family": "breath"},
    "setBreath": {"seconds": 6},
    "keepTemplate": {"name": "x", "client_id": str(uuid.uuid4())},
    "createClient": {"name": "x"},
    "importClient": {"format": "asketa-client", "version": 1, "client": {"id": "x"}},
    "archiveClient": {"archived": True},
    "updateClient": {"name": "x", "version": 1},
    "previewEntry": ENTRY,
    "recordEntry": ENTRY,
    "correctEntry": ENTRY,
    "giveInstruction": {"who": "surgeon", "date": "2026-01-01", "text": "x"},
    "answerSigns": {"signs": ["none"]},
    "recordSeen": {"who": "doctor", "date": "2026-01-01"},
    "writeVisitNote": {"text": "x"},
    "takeOnCaution": {"family": "figure_four", "codes": ["x"], "reason": "because"},
    "giveClearance": {"who": "surgeon", "date": "2026-01-01", "scope": ["all"]},
    "storeMeasures": {"readings": [{"quantity": "stature", "value": 170}]},
    "turnTape": {"side": "left", "knee_height_cm": 20, "foot_distance_cm": 30, "seat_height_cm": 5},
    "setupDetail": SETUP,
    "setupWay": {"setup": {}},
    "setupWays": {"setup": {}},
    "takeToTheMat": {"variation": "figure_four.block_flat", "side": "left", "setup": {}, "dose_s": 30},
    "logItem": ITEM,
    "correctItem": {"id": str(uuid.uuid4()), "during": 1},
    "decide": {"family": "figure_four", "side": "left", "action": "stay", "reason": "travelling"},
    "keepTrial": {
        "id": str(uuid.uuid4()),
        "variation": "figure_four.block_flat",
        "side": "left",
        "slot": "foot",
        "setup": {"foot": {"choice": "at_rest"}},
        "other": {"choice": "drawn_up"},
        "felt_a": 2,
        "felt_b": 1,
        "kept": "b",
    },
    "noteIncident": {"id": str(uuid.uuid4()), "text": "slipped"},
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


class Tables(TestCase):
    """Every table of a practice, those of later on as well."""

    def models(self) -> list[type[PracticeRow]]:
        found = [model for model in apps.get_models() if issubclass(model, PracticeRow)]
        self.assertGreater(len(found), 8)
        return found

    def test_managers_know_the_opened_practice_alone(self) -> None:
        for model in self.models():
            with self.subTest(model._meta.label), self.assertRaises(ScopeError):
                model._default_manager.count()

    def test_relations_are_bound_to_the_practice(self) -> None:
        there = self.asked("SELECT conname FROM pg_constraint")
        for model in self.models():
            table = model._meta.db_table
            for column, target in related(model).items():
                self.assertIn(f"{table}_{column}_same_practice", there)
                self.assertIn(f"{target}_in_practice", there)

    def test_rows_are_shown_by_policy(self) -> None:
        kept = self.asked("SELECT relname FROM pg_class WHERE relrowsecurity")
        policies = self.asked("SELECT policyname FROM pg_policies")
        for model in self.models():
            self.assertIn(model._meta.db_table, kept)
            self.assertIn(f"{model._meta.db_table}_own_practice", policies)

    def test_history_is_kept_by_triggers(self) -> None:
        there = self.asked("SELECT tgname FROM pg_trigger")
        for model in self.models():
            table = model._meta.db_table
            self.assertEqual(f"{table}_append_only" in there, getattr(model, "append_only", False), table)

    def asked(self, sql: str) -> set[str]:
        with connection.cursor() as cursor:
            cursor.execute(sql)
            return {row[0] for row in cursor.fetchall()}


class Policies(TestCase):
    """What the database shows to the application when its code asks for everything."""

    def setUp(self) -> None:
        self.one, self.two = House("Mill", "a@mill.example"), House("Loft", "b@loft.example")
        self.entry = self.two.record_hip()
        as_application()

    def all_clients(self) -> set[object]:
        with scopes_disabled():
            return set(Client.objects.values_list("pk", flat=True))

    def test_without_a_practice_there_are_no_rows(self) -> None:
        self.assertEqual(self.all_clients(), set())

    def test_an_opened_practice_shows_its_own_and_closes_again(self) -> None:
        with opened(self.one.practice):
            self.assertEqual(self.all_clients(), {self.one.client.pk})
            with opened(self.two.practice):
                self.assertEqual(self.all_clients(), {self.two.client.pk})
            self.assertEqual(self.all_clients(), {self.one.client.pk})
        self.assertEqual(self.all_clients(), set())

    def test_an_error_closes_it_as_well(self) -> None:
        with self.assertRaises(ZeroDivisionError), opened(self.one.practice):
            1 / 0  # noqa: B018
        self.assertEqual(self.all_clients(), set())

    def test_nothing_is_written_for_another_practice(self) -> None:
        with opened(self.one.practice), scopes_disabled():
            with self.assertRaises(ProgrammingError), transaction.atomic():
                Client.objects.create(practice=self.two.practice)
            self.assertEqual(Client.objects.filter(pk=self.two.client.pk).update(version=9), 0)


class Erasing(ApiTest):
    """Deleting the one row that says who somebody is leaves no trace of them, and the history stands."""

    def test_nothing_that_names_anybody_is_left(self) -> None:
        self.put(
            self.url(), {"name": "Ada Quern", "occupation": "millwright", "birth_date": "1961-02-03", "version": 1}
        )
        self.house.record_knee()
        item = self.house.item(note="her sister Bree drove her")
        self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        words = ("Ada Quern", "millwright", "1961-02-03", "Bree")
        self.assertTrue(all(word in self.everything() for word in words))
        with opened(self.house.practice):
            Person.objects.filter(client=self.house.client).delete()
        self.assertEqual([word for word in words if word in self.everything()], [])
        self.assertIn(str(item.id), self.everything())
        self.assertEqual(self.client.get(self.url()).status_code, 404)
        listed = self.post(f"/api/practices/{self.house.practice.pk}/clients/search", {"text": ""})
        self.assertEqual(listed.json(), [])

    def everything(self) -> str:
        """Every row of every table of the practice, as text."""
        tables = [model._meta.db_table for model in apps.get_models() if issubclass(model, PracticeRow)]
        with opened(self.house.practice), connection.cursor() as cursor:
            found = []
            for table in tables:
                cursor.execute(f"SELECT row_to_json(t)::text FROM {table} t")
                found += [row[0] for row in cursor.fetchall()]
        return "\n".join(found)


class Managers(TestCase):
    def test_forgetting_the_practice_is_an_error(self) -> None:
        House("Mill", "owner@mill.example")
        with self.assertRaises(ScopeError):
            list(Client.objects.all())

    def test_an_opened_practice_shows_only_its_own(self) -> None:
        one, two = House("Mill", "a@mill.example"), House("Loft", "b@loft.example")
        with opened(one.practice):
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
        with opened(self.one.practice), self.assertRaises(IntegrityError), transaction.atomic():
            Measure.objects.create(
                practice=self.one.practice,
                client=self.one.client,
                quantity="hip_flexion",
                value=100,
                date=self.one.today,
            )

    def test_a_record_is_corrected_once(self) -> None:
        first = self.one.record_hip()
        with opened(self.one.practice):
            common = {
                "practice": self.one.practice, "client": self.one.client, "root": first.pk, "replaces": first,
                "kind": first.kind, "side": first.side, "facts": first.facts,
            }  # fmt: skip
            Entry.objects.create(**common)
            with self.assertRaises(IntegrityError), transaction.atomic():
                Entry.objects.create(**common)
