"""A practice's own way of writing things, and whose it is to change."""

from __future__ import annotations

import datetime as dt
from unittest.mock import patch

from django.test import TestCase

from accounts.models import User
from audit.models import AuditEvent
from common import clock
from practices.models import Membership, Practice
from practices.tenancy import opened
from tests.base import PASSWORD, House

CHANGED = {
    "name": "The Weir Room",
    "units": "imperial",
    "date_format": "month_day_year",
    "first_day_of_week": 0,
    "time_zone": "Pacific/Auckland",
}


class Settings(TestCase):
    def setUp(self) -> None:
        self.house = House("Weir", "owner@weir.example")
        self.url = f"/api/practices/{self.house.practice.pk}/settings"

    def member(self, role: str) -> None:
        user = User.objects.create_user(f"{role}@weir.example", PASSWORD, full_name=role)
        Membership.objects.create(practice=self.house.practice, user=user, role=role)
        self.client.force_login(user)

    def put(self, **changes: object) -> tuple[int, dict[str, object]]:
        answer = self.client.put(self.url, {**CHANGED, **changes}, content_type="application/json")
        return answer.status_code, answer.json()

    def test_the_owner_changes_them_and_everybody_is_told(self) -> None:
        self.client.force_login(self.house.user)
        status, told = self.put()
        self.assertEqual(status, 200)
        self.assertLessEqual(CHANGED.items(), told.items())
        self.member("reader")
        self.assertEqual(self.client.get(self.url).json(), told)
        mine = self.client.get("/api/auth/me").json()["practices"]
        self.assertEqual(mine[0]["settings"], told)
        with opened(self.house.practice):
            event = AuditEvent.objects.get(action="practice.settings")
        self.assertEqual(event.created_by, self.house.user)

    def test_therapists_and_readers_look(self) -> None:
        for role in ("therapist", "reader"):
            self.member(role)
            self.assertEqual(self.client.get(self.url).status_code, 200)
            self.assertEqual(self.put()[0], 403, role)
        self.assertEqual(Practice.objects.get(pk=self.house.practice.pk).units, "metric")

    def test_what_is_unknown_is_refused_by_its_field(self) -> None:
        self.client.force_login(self.house.user)
        for name, value in (
            ("units", "stones"),
            ("date_format", "backwards"),
            ("first_day_of_week", 3),
            ("time_zone", "Larkwater/Weir"),
            ("name", ""),
        ):
            status, problem = self.put(**{name: value})
            self.assertEqual(status, 422, name)
            self.assertEqual([field["field"] for field in problem["fields"]], [name])  # type: ignore[attr-defined]

    def test_today_is_the_practices_day(self) -> None:
        self.client.force_login(self.house.user)
        with patch.object(clock, "now", return_value=dt.datetime(2026, 11, 27, 23, 30, tzinfo=dt.UTC)):
            self.assertEqual(self.client.get(self.url).json()["today"], "2026-11-27")
            self.assertEqual(self.put()[1]["today"], "2026-11-28")
            head = self.client.get(f"/api/practices/{self.house.practice.pk}/clients/{self.house.client.pk}").json()
        self.assertEqual(head["today"], "2026-11-28")

    def test_every_time_zone_offered_can_be_chosen(self) -> None:
        self.client.force_login(self.house.user)
        zones = self.client.get(self.url.replace("settings", "time-zones")).json()
        self.assertIn("Europe/London", zones)
        self.assertGreater(len(zones), 300)
        for zone in (zones[0], zones[-1]):
            self.assertEqual(self.put(time_zone=zone)[0], 200, zone)
