"""What is kept between requests: never older than the records, never another client's."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from typing import Any

from django.db import connection, transaction
from django.test import SimpleTestCase
from django.test.utils import CaptureQueriesContext

from asketa_core import ClientFile, Side
from clients.models import Client
from clients.schemas import ClearanceIn, ClientIn, DailyIn
from clients.services import answer_daily, give_clearance, update_client, withdraw_entry
from common import clock
from engine.adapter import _histories, client_file
from engine.answers import Today
from measures.schemas import ReadingIn
from measures.services import store_readings
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.services import answer_morning, log_item


class RecordsKept(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.entry = self.house.record_hip()
        self.knee = self.house.record_knee(side="left")

    def fresh(self, house: House | None = None) -> Client:
        at = house or self.house
        return Client.objects.known().select_related("practice").get(pk=at.client.pk)

    def file(self, house: House | None = None) -> ClientFile:
        with opened((house or self.house).practice):
            return client_file(self.fresh(house))

    def test_nothing_new_is_read_once_and_costs_one_query(self) -> None:
        before = self.file()
        with opened(self.house.practice):
            client = self.fresh()
            with CaptureQueriesContext(connection) as queries:
                self.assertIs(client_file(client), before)
        self.assertEqual(len(queries), 1)

    def test_whatever_is_recorded_is_seen_at_once(self) -> None:
        today, user = self.house.today, self.house.user
        item = self.house.item()

        def measure(client: Client) -> None:
            store_readings(
                client,
                user,
                [ReadingIn(quantity="hip_flexion", side="left", value=111, method="goniometer")],
                today,
                today,
            )

        def rename(client: Client) -> None:
            update_client(client, user, client.version, ClientIn(name="Somebody else", discomfort_allowed=3), today)

        steps: dict[str, Callable[[Client], Any]] = {
            "a clearance": lambda _: give_clearance(
                self.entry, user, ClearanceIn(who="surgeon", date=today, scope=["bend"]), today
            ),
            "how it is today": lambda _: answer_daily(self.knee, user, DailyIn(pain_today=3, irritable="no"), today),
            "a measure": measure,
            "a hold": lambda client: log_item(Today.of(client), user, item),
            "the next morning": lambda client: answer_morning(client, user, item.id, True),
            "the client's own line": rename,
            "a record taken back": lambda _: withdraw_entry(self.knee, user),
        }
        before = self.file()
        for what, record in steps.items():
            with opened(self.house.practice):
                record(self.fresh())
            after = self.file()
            self.assertNotEqual(after.model_dump(), before.model_dump(), what)
            before = after

    def test_a_rule_of_the_house_is_seen_at_once(self) -> None:
        before = self.file()
        self.house.practice.first_weeks_after_hip = 16
        self.house.practice.save()
        weeks = [file.settings.first_weeks_after_hip for file in (before, self.file())]
        self.assertEqual(weeks, [12, 16])

    def test_what_was_rolled_back_is_forgotten(self) -> None:
        before = self.file()
        with opened(self.house.practice):
            try:
                with transaction.atomic():
                    answer_daily(self.knee, self.house.user, DailyIn(pain_today=9, irritable="yes"), self.house.today)
                    self.assertEqual(client_file(self.fresh()).daily[-1].pain_today, 9)
                    raise InterruptedError
            except InterruptedError:
                pass
            self.assertEqual(client_file(self.fresh()), before)
            answer_daily(self.knee, self.house.user, DailyIn(pain_today=1, irritable="no"), self.house.today)
            self.assertEqual(client_file(self.fresh()).daily[-1].pain_today, 1)

    def test_a_record_taken_back_takes_its_daily_answers_along(self) -> None:
        with opened(self.house.practice):
            answer_daily(self.knee, self.house.user, DailyIn(pain_today=3, irritable="no"), self.house.today)
        taken_back = self.client.delete(self.url(f"/entries/{self.knee.pk}"))
        self.assertEqual(taken_back.status_code, 200, taken_back.content)
        self.assertEqual(self.file().daily, ())
        self.assertEqual(self.client.get(self.url()).status_code, 200)

    def test_another_practice_has_its_own(self) -> None:
        other = House("Loft", "owner@loft.example")
        self.assertEqual(self.file(other).entries, ())
        self.assertEqual({entry.kind for entry in self.file().entries}, {"hip_replacement", "knee_pain"})

    def test_a_situation_lasts_a_day_and_no_longer(self) -> None:
        with opened(self.house.practice):
            client = self.fresh()
            noon = clock.local_now("Europe/London").replace(hour=12)
            with clock.set_to(noon):
                today = Today.of(client)
                self.assertIs(Today.of(client).situation, today.situation)
            with clock.set_to(noon + dt.timedelta(days=1)):
                tomorrow = Today.of(client)
            self.assertIsNot(tomorrow.situation, today.situation)
            self.assertEqual((tomorrow.situation.date - today.situation.date).days, 1)
            self.assertEqual(tomorrow.key, today.key)

    def test_a_verdict_changes_with_the_record_it_rests_on(self) -> None:
        """Nothing judged before a clearance is served after it."""

        def verdict() -> str:
            rungs = self.client.get(self.url("/ladders/figure_four")).json()["right"]["rungs"]
            return next(rung["verdict"] for rung in rungs if rung["variation"] == "figure_four.over_thigh")

        self.assertEqual(verdict(), "leave_out")
        with opened(self.house.practice):
            data = ClearanceIn(who="surgeon", date=self.house.today, scope=["all"])
            give_clearance(self.entry, self.house.user, data, self.house.today)
        self.assertNotEqual(verdict(), "leave_out")

    def test_both_sides_are_asked_apart(self) -> None:
        with opened(self.house.practice):
            today = Today.of(self.fresh())
            rung = today.library.variation("figure_four.over_thigh")
            left, right = (today.lane(rung, side).verdict for side in Side)
        self.assertNotEqual(left, right)


class Histories(SimpleTestCase):
    def test_every_history_that_leads_to_a_client_tells_when_answers_grow_old(self) -> None:
        found = {model._meta.db_table: way for model, way in _histories()}
        self.assertEqual(
            found,
            {
                "clients_entry": "client",
                "clients_clearance": "entry__client",
                "clients_dailyanswer": "entry__client",
                "clients_instruction": "entry__client",
                "clients_signsanswer": "entry__client",
                "measures_measure": "client",
                "visits_loggeditem": "visit__client",
                "visits_morninganswer": "item__visit__client",
                "visits_incident": "visit__client",
                "visits_owndecision": "client",
                "visits_trial": "visit__client",
                "visits_visitnote": "visit__client",
                "visits_acceptedcaution": "client",
            },
        )
