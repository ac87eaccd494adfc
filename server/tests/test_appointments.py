"""Who comes when, and what is told before they do."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from appointments.models import Appointment
from audit.models import AuditEvent
from clients.schemas import ClientIn, DailyIn
from clients.services import answer_daily, create_client
from common import clock
from practices.models import Practice
from practices.tenancy import opened
from room.models import RoomProp
from tests.base import ApiTest, House

WEEK = dt.timedelta(days=7)


class AppointmentTest(ApiTest):
    def at(self, path: str, house: House | None = None) -> str:
        return f"/api/practices/{(house or self.house).practice.pk}{path}"

    def book(self, days_ahead: int = 0, time: str = "10:15", **more: Any) -> dict[str, Any]:
        day = self.house.today + dt.timedelta(days=days_ahead)
        body = {"client_id": str(self.house.client.pk), "date": day.isoformat(), "time": time, "minutes": 45, **more}
        answer = self.post(self.at("/appointments"), body)
        self.assertEqual(answer.status_code, 201, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def move(self, one: dict[str, Any], **changes: Any) -> Any:
        body = {name: one[name] for name in ("date", "time", "minutes", "place", "version")}
        return self.put(self.at(f"/appointments/{one['id']}"), body | changes)

    def day(self, days_ahead: int | None = None) -> list[dict[str, Any]]:
        query = {} if days_ahead is None else {"date": (self.house.today + dt.timedelta(days=days_ahead)).isoformat()}
        found: list[dict[str, Any]] = self.client.get(self.at("/today"), query).json()["sessions"]
        return found


class Booking(AppointmentTest):
    def test_the_day_is_in_the_order_of_its_hours(self) -> None:
        for time in ("14:00", "09:30", "10:15"):
            self.book(time=time)
        self.book(days_ahead=1, time="08:00")
        self.assertEqual([each["time"][:5] for each in self.day()], ["09:30", "10:15", "14:00"])
        self.assertEqual(len(self.day(1)), 1)

    def test_a_series_is_one_a_week(self) -> None:
        first = self.book(weeks=3, place="at the mill")
        self.assertEqual(first["following"], 2)
        for week in range(3):
            (session,) = self.day(7 * week)
            self.assertEqual((session["following"], session["place"]), (2 - week, "at the mill"))
        self.assertEqual(self.day(21), [])
        self.assertEqual(self.book(days_ahead=1)["following"], 0)

    def test_moving_one_leaves_the_others_and_moving_on_takes_them_along(self) -> None:
        first = self.book(weeks=3)
        moved = self.move(first, date=(self.house.today + dt.timedelta(days=1)).isoformat())
        self.assertEqual(moved.status_code, 200)
        self.assertEqual([len(self.day(day)) for day in (0, 1, 7, 8, 14)], [0, 1, 1, 0, 1])
        (second,) = self.day(7)
        later = (self.house.today + dt.timedelta(days=9)).isoformat()
        self.assertEqual(self.move(second, date=later, time="16:00", following=True).status_code, 200)
        self.assertEqual([len(self.day(day)) for day in (1, 7, 9, 14, 16)], [1, 0, 1, 0, 1])
        self.assertEqual([self.day(day)[0]["time"][:5] for day in (1, 9, 16)], ["10:15", "16:00", "16:00"])

    def test_what_is_cancelled_can_be_brought_back_alone_or_with_those_that_follow(self) -> None:
        first = self.book(weeks=3)
        cancel, restore = (self.at(f"/appointments/{first['id']}/{what}") for what in ("cancel", "restore"))
        gone = self.post(cancel, {"version": first["version"], "following": True}).json()
        self.assertTrue(gone["cancelled"])
        self.assertEqual([len(self.day(day)) for day in (0, 7, 14)], [0, 0, 0])
        self.post(restore, {"version": gone["version"]})
        self.assertEqual([len(self.day(day)) for day in (0, 7, 14)], [1, 0, 0])

    def test_a_change_on_an_older_version_is_refused_with_what_stands(self) -> None:
        one = self.book()
        self.assertEqual(self.move(one, time="11:00").status_code, 200)
        stale = self.move(one, time="12:00")
        self.assertEqual(stale.status_code, 409)
        self.assertEqual(stale.json()["current"]["time"], "11:00")
        (session,) = self.day()
        self.assertEqual(session["time"], "11:00:00")

    def test_what_cannot_be_is_refused_by_its_field(self) -> None:
        day = self.house.today
        good = {"client_id": str(self.house.client.pk), "date": day.isoformat(), "time": "10:00", "minutes": 45}
        for field, value in (
            ("date", (day - dt.timedelta(days=1)).isoformat()), ("time", "25:00"), ("minutes", 4), ("minutes", 481),
            ("weeks", 0), ("weeks", 53), ("date", "9999-12-31"), ("date", "0001-01-01"),
        ):  # fmt: skip
            with self.subTest(field=field, value=value):
                self.assertIn(field, self.fields(self.post(self.at("/appointments"), good | {field: value})))
        self.assertEqual(self.day(), [])

    def test_a_time_of_a_day_that_is_over_can_still_be_corrected(self) -> None:
        one = self.book()
        with opened(self.house.practice):
            Appointment.objects.update(date=self.house.today - WEEK)
        self.assertEqual(
            self.move(one | {"date": (self.house.today - WEEK).isoformat()}, time="11:00").status_code, 200
        )

    def test_every_change_says_who_made_it(self) -> None:
        one = self.book(weeks=2)
        self.move(one, time="11:00")
        with opened(self.house.practice):
            events = AuditEvent.objects.filter(action__startswith="appointment.").values_list("action", flat=True)
            self.assertEqual(sorted(events), ["appointment.booked", "appointment.booked", "appointment.moved"])

    def test_nobody_books_for_or_sees_another_practices_people(self) -> None:
        other = House("Loft", "owner@loft.example")
        body = {"date": other.today.isoformat(), "time": "10:00", "minutes": 30}
        foreign = self.post(self.at("/appointments"), {**body, "client_id": str(other.client.pk)})
        self.assertEqual(foreign.status_code, 404)
        self.sign_in(other)
        theirs = self.post(self.at("/appointments", other), {**body, "client_id": str(other.client.pk)}).json()
        self.sign_in(self.house)
        self.assertEqual(self.day(), [])
        for method, path in (("put", ""), ("post", "/cancel"), ("post", "/restore")):
            answer = getattr(self, method)(
                self.at(f"/appointments/{theirs['id']}{path}"),
                {"version": 1, **(body if method == "put" else {})},
            )
            self.assertEqual(answer.status_code, 404, path)

    def test_days_far_off_are_refused_and_not_worked_out(self) -> None:
        for day in ("9999-12-31", "0001-01-01"):
            for address in (self.at("/today"), self.url("/outlook")):
                self.assertIn("date", self.fields(self.client.get(address, {"date": day})))

    def test_who_comes_today_is_first_among_the_clients(self) -> None:
        with opened(self.house.practice):
            first = create_client(self.house.practice, self.house.user, ClientIn(name="Aa"), self.house.today)

        def lines() -> list[tuple[str, str | None]]:
            found = self.post(self.at("/clients/search"), {"text": ""}).json()
            return [(each["name"], each["next_visit"]) for each in found]

        mine = "Client of Mill"
        self.assertEqual(lines(), [("Aa", None), (mine, None)])
        self.book(days_ahead=3)
        later = (self.house.today + dt.timedelta(days=3)).isoformat()
        self.assertEqual(lines(), [("Aa", None), (mine, later)])
        gone = self.book()
        self.book(days_ahead=1, client_id=str(first.pk))
        self.assertEqual(lines()[0], (mine, self.house.today.isoformat()))
        self.post(self.at(f"/appointments/{gone['id']}/cancel"), {"version": gone["version"]})
        tomorrow = (self.house.today + dt.timedelta(days=1)).isoformat()
        self.assertEqual(lines(), [("Aa", tomorrow), (mine, later)])

    def test_as_many_queries_for_a_full_day_as_for_one(self) -> None:
        def asked() -> int:
            with CaptureQueriesContext(
                connection,
            ) as queries:
                self.day()
            return len(queries)

        self.book(weeks=2)
        few = asked()
        with opened(self.house.practice):
            others = [
                create_client(self.house.practice, self.house.user, ClientIn(name=f"Client {k}"), self.house.today)
                for k in range(5)
            ]
        for client in others:
            self.book(client_id=str(client.pk), weeks=2)
        self.assertEqual(len(self.day()), 6)
        self.assertEqual(asked(), few)


class Outlook(AppointmentTest):
    def outlook(self, days_ahead: int = 0, **more: Any) -> dict[str, Any]:
        day = self.house.today + dt.timedelta(days=days_ahead)
        found: dict[str, Any] = self.client.get(self.url("/outlook"), {"date": day.isoformat()}).json()
        return found

    def held(self, days_ago: int, **changes: Any) -> None:
        """A hold logged on a day in the past."""
        self.house.measured_before()
        with clock.set_to(clock.now() - dt.timedelta(days=days_ago)):
            item = self.house.item(**changes)
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)

    def test_nothing_is_told_of_a_visit_that_never_was(self) -> None:
        told = self.outlook()
        self.assertEqual((told["since"], told["changed"], told["ahead"], told["mornings"]), (None, [], [], []))

    def test_records_after_the_last_visit_are_new_and_those_before_are_not(self) -> None:
        self.held(5)
        with clock.set_to(clock.now() - dt.timedelta(days=6)):
            self.house.record_knee()
        self.assertEqual([line for line in self.outlook()["changed"] if "New" in line], [])
        entry = self.house.record_hip()
        told = self.outlook()
        self.assertEqual(told["since"], (self.house.today - dt.timedelta(days=5)).isoformat())
        self.assertTrue(any(line.startswith("New: Hip replaced") for line in told["changed"]), told["changed"])
        self.assertEqual(self.client.delete(self.url(f"/entries/{entry.pk}")).status_code, 200)
        # Recorded and taken back in between: nothing is left of it.
        self.assertFalse(any("Hip replaced" in line for line in self.outlook()["changed"]))

    def test_a_set_up_that_a_new_record_closes_is_named(self) -> None:
        self.held(5, variation="figure_four.over_thigh")
        self.assertFalse(any("was" in line for line in self.outlook()["changed"]))
        self.house.record_hip(side="left", days_ago=20)
        self.assertRegex(self.of_rung(), "left: was .*, now leave out")

    def of_rung(self) -> str:
        """The one line about the rung that was used."""
        (line,) = [line for line in self.outlook()["changed"] if line.startswith("Figure-four")]
        return line

    def test_a_set_up_the_room_no_longer_builds_is_noticed(self) -> None:
        self.held(5, variation="figure_four.block_flat")
        with opened(self.house.practice):
            RoomProp.objects.filter(kind="chair").update(sizes={"seat_height_cm": 50})
        self.assertIn("left: was clear, now with this set-up", self.of_rung())
        with opened(self.house.practice):
            RoomProp.objects.filter(kind__in=["chair", "block"]).delete()
        self.assertIn("left: cannot be built", self.of_rung())

    def test_questions_that_are_asked_at_every_arrival_are_no_change(self) -> None:
        entry = self.house.record_knee()
        self.held(5)
        with opened(self.house.practice), clock.set_to(clock.now() - dt.timedelta(days=5)):
            answered = DailyIn(pain_today=1, irritable="no")
            answer_daily(entry, self.house.user, answered, self.house.today - dt.timedelta(days=5))
        told = self.outlook()["changed"]
        self.assertEqual([line for line in told if line.startswith(("Ends", "Begins"))], [], told)

    def test_several_things_are_told_once_each(self) -> None:
        self.held(5)
        entry = self.house.record_hip()
        for scope in ("midline", "bend"):
            given = {"who": "surgeon", "date": self.house.today.isoformat(), "scope": [scope]}
            self.assertEqual(self.post(self.url(f"/entries/{entry.pk}/clearances"), given).status_code, 201)
        told = self.outlook()["changed"]
        self.assertEqual(len([line for line in told if line.startswith("Cleared")]), 1, told)
        self.assertEqual(len(told), len(set(told)))

    def test_what_comes_is_told_seen_from_the_day_of_the_appointment(self) -> None:
        self.house.record_hip(days_ago=63)
        days = [each["date"] for each in self.outlook()["ahead"]]
        self.assertTrue(days)
        first = dt.date.fromisoformat(days[0])
        ahead = (first - self.house.today).days
        # On the day itself it has happened; the day before it still comes.
        self.assertNotIn(days[0], [each["date"] for each in self.outlook(ahead)["ahead"]])
        self.assertIn(days[0], [each["date"] for each in self.outlook(ahead - 1)["ahead"]])
        self.assertLessEqual(dt.date.fromisoformat(days[-1]), self.house.today + dt.timedelta(days=42))

    def test_what_changed_by_the_calendar_since_the_last_visit_is_told(self) -> None:
        self.held(5)
        day_six_weeks = 42
        with clock.set_to(clock.now() - dt.timedelta(days=6)):
            self.house.record_hip(days_ago=day_six_weeks - 2)
        self.assertTrue(any("Right" in line for line in self.outlook()["changed"]), self.outlook()["changed"])

    def test_a_morning_nobody_told_of_is_open_until_it_is_answered(self) -> None:
        self.held(1)
        (open_,) = self.outlook()["mornings"]
        self.assertEqual((open_["side"], open_["name"]), ("left", "Figure-four, foot on a block lying flat"))
        self.post(self.url(f"/items/{open_['item_id']}/morning"), {"settled": True})
        self.assertEqual(self.outlook()["mornings"], [])

    def test_without_a_stature_records_are_told_all_the_same(self) -> None:
        with opened(self.house.practice):
            client = create_client(self.house.practice, self.house.user, ClientIn(name="New"), self.house.today)
        told = self.client.get(self.url("/outlook", client=client.pk)).json()
        self.assertTrue(told["needs_stature"])

    def test_today_is_the_day_at_the_practice(self) -> None:
        Practice.objects.filter(pk=self.house.practice.pk).update(time_zone="Pacific/Auckland")
        with clock.set_to(dt.datetime(2026, 11, 28, 12, 30, tzinfo=dt.UTC)):
            told = self.client.get(self.at("/today")).json()
        self.assertEqual((told["date"], told["today"]), ("2026-11-29", "2026-11-29"))
        self.assertEqual(self.client.get(self.url("/outlook", client=uuid.uuid4())).status_code, 404)
