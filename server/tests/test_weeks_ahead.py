"""The calendar of the whole practice, corrections looked back on, notes of visits, who is around a client."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from clients.schemas import ClientIn
from clients.services import create_client
from common import clock
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import VisitNote

FLAT = "figure_four.block_flat"


class PracticeCalendar(ApiTest):
    def calendar(self) -> Any:
        return self.client.get(f"/api/practices/{self.house.practice.pk}/calendar").json()

    def more_clients(self, count: int) -> None:
        for number in range(count):
            with opened(self.house.practice):
                self.house.client = create_client(
                    self.house.practice, self.house.user, ClientIn(name=f"More {number}"), self.house.today
                )
            self.house.record_hip(days_ago=40 + number)

    def test_every_clients_changes_stand_in_the_order_of_their_dates(self) -> None:
        self.house.record_hip(days_ago=63)
        self.more_clients(2)
        found = self.calendar()
        dates = [change["date"] for change in found["changes"]]
        self.assertEqual(dates, sorted(dates))
        self.assertEqual({change["name"] for change in found["changes"]}, {"Client of Mill", "More 0", "More 1"})
        week_twelve = str(self.house.today + dt.timedelta(days=21))
        self.assertIn(week_twelve, [c["date"] for c in found["changes"] if c["name"] == "Client of Mill"])

    def test_it_says_the_same_as_each_clients_own(self) -> None:
        self.house.record_hip(days_ago=63)
        own = self.client.get(self.url("/calendar")).json()["changes"]
        told = self.calendar()["changes"]
        self.assertEqual(
            [(c["date"], c["lines"], c["tightens"]) for c in told],
            [(c["date"], c["lines"], c["tightens"]) for c in own],
        )

    def test_who_waits_for_a_word_is_named(self) -> None:
        self.house.record_hip(days_ago=100)
        (waiting,) = self.calendar()["waiting"]
        self.assertEqual(waiting["name"], "Client of Mill")
        self.assertIn("clearance is due", " ".join(waiting["lines"]))

    def test_it_takes_as_many_queries_for_many_as_for_few(self) -> None:
        def queries() -> int:
            with CaptureQueriesContext(
                connection,
            ) as captured:
                self.calendar()
            return len(captured)

        self.house.record_hip()
        few = queries()
        self.more_clients(5)
        self.assertEqual(queries(), few)

    def test_another_practices_clients_and_those_put_away_are_not_in_it(self) -> None:
        self.house.record_hip()
        with opened(self.house.practice):
            self.house.client.__class__.objects.filter(pk=self.house.client.pk).update(archived=True)
        self.assertEqual(self.calendar()["changes"], [])

    def test_the_day_is_the_practices_own(self) -> None:
        """At 23:30 in London it is the next day already in Auckland."""
        self.house.record_hip(days_ago=63)
        late = dt.datetime.combine(self.house.today, dt.time(23, 30), dt.UTC)
        with clock.set_to(late):
            here = self.calendar()["today"]
            self.house.practice.time_zone = "Pacific/Auckland"
            self.house.practice.save(update_fields=["time_zone"])
            there = self.calendar()["today"]
        self.assertEqual(dt.date.fromisoformat(there) - dt.date.fromisoformat(here), dt.timedelta(days=1))


class LookedBackOn(ApiTest):
    def correct(self, entry: Any, **facts: Any) -> Any:
        known = {name: value for name, value in {**entry.facts, **facts}.items() if value is not None}
        body = {
            "entry": {
                "kind": entry.kind,
                "side": facts.pop("side", entry.side),
                "facts": {k: v for k, v in known.items() if k != "side"},
            }
        }
        return self.put(self.url(f"/entries/{entry.pk}"), body).json()

    def differences(self, entry_id: str) -> Any:
        return self.client.get(self.url(f"/entries/{entry_id}/differences")).json()

    def test_a_corrected_side_says_what_would_have_been_otherwise(self) -> None:
        entry = self.house.record_hip(side="right")
        self.post(self.url("/items"), self.house.item(variation="figure_four.over_thigh"))
        (now,) = self.correct(entry, side="left")
        self.assertTrue(now["corrected"])
        found = self.differences(now["id"])
        self.assertEqual((found["looked_at"], found["left"]), (1, 0))
        (difference,) = found["differences"]
        self.assertEqual((difference["would_be"], difference["side"]), ("leave_out", "left"))
        self.assertNotEqual(difference["was"], "leave_out")
        self.assertTrue(difference["why"])

    def test_a_correction_that_changes_nothing_says_so(self) -> None:
        entry = self.house.record_hip()
        self.post(self.url("/items"), self.house.item())
        (now,) = self.correct(entry, prosthesis="resurfacing")
        self.assertEqual(self.differences(now["id"])["differences"], [])

    def test_what_was_logged_before_the_record_was_there_is_not_its_matter(self) -> None:
        self.post(self.url("/items"), self.house.item(variation="figure_four.over_thigh"))
        entry = self.house.record_hip(side="right")
        (now,) = self.correct(entry, side="left")
        self.assertEqual(self.differences(now["id"])["looked_at"], 0)


class Notes(ApiTest):
    def write(self, text: str, replaces: str | None = None) -> Any:
        return self.post(self.url("/visit-notes"), {"text": text, **({"replaces": replaces} if replaces else {})})

    def test_the_last_words_stand_and_the_earlier_rows_stay(self) -> None:
        first = self.write("Slept badly.").json()[0]
        (now,) = self.write("Slept badly; better after the chair.", first["id"]).json()
        self.assertEqual((now["text"], now["by"]), ("Slept badly; better after the chair.", "Owner of Mill"))
        self.assertEqual(self.client.get(self.url("/mat")).json()["notes"], [now])
        with opened(self.house.practice):
            self.assertEqual(VisitNote.objects.count(), 2)

    def test_written_on_what_no_longer_stands_both_are_kept_in_sight(self) -> None:
        first = self.write("One.").json()[0]
        self.write("Two.", first["id"])
        stale = self.write("Three.", first["id"])
        self.assertEqual(stale.status_code, 409)
        self.assertEqual(stale.json()["current"]["text"], "Two.")


class Around(ApiTest):
    def test_goals_and_contacts_are_part_of_the_client_and_of_what_a_stale_edit_shows(self) -> None:
        contacts = [{"role": "surgeon", "name": "Dr Reed", "phone": "0200 1", "consent": "yes"}]
        body = {"name": "Client", "goals": "Garden again.", "contacts": contacts, "version": 1}
        now = self.put(self.url(), body).json()
        self.assertEqual((now["goals"], now["contacts"][0]["name"]), ("Garden again.", "Dr Reed"))
        self.assertEqual(now["contacts"][0]["email"], "")
        stale = self.put(self.url(), {**body, "goals": "Walk."})
        self.assertEqual((stale.status_code, stale.json()["current"]["goals"]), (409, "Garden again."))

    def test_a_contact_nobody_can_reach_is_refused_by_its_place(self) -> None:
        body = {"name": "Client", "contacts": [{"role": "doctor"}], "version": 1}
        self.assertTrue(any("contacts" in field for field in self.fields(self.put(self.url(), body))))

    def test_another_practice_sees_none_of_it(self) -> None:
        other = House("Elsewhere", f"{uuid.uuid4()}@elsewhere.example")
        self.sign_in(other)
        for path in ("", "/visit-notes", f"/entries/{uuid.uuid4()}/differences"):
            self.assertEqual(self.client.get(self.url(path)).status_code, 404)
