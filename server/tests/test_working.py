"""Choosing, setting up, logging and the next visit, through the API."""

from __future__ import annotations

import datetime as dt
import json
import uuid
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from common import clock
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import LoggedItem
from visits.schemas import HANDFUL

FLAT, OVER = "figure_four.block_flat", "figure_four.over_thigh"


class Choosing(ApiTest):
    def lane(self, side: str = "right") -> dict[str, Any]:
        ladder = self.client.get(self.url("/ladders/figure_four")).json()
        return {rung["variation"]: rung for rung in ladder[side]["rungs"]}

    def test_verdicts_follow_the_records(self) -> None:
        self.assertEqual(self.lane()[FLAT]["verdict"], "clear")
        self.house.record_hip()
        lane = self.lane()
        self.assertEqual(lane[FLAT]["verdict"], "with_setup")
        self.assertEqual(lane[OVER]["verdict"], "leave_out")
        self.assertIn("hip replaced, posterior, week 9", lane[OVER]["reasons"][0])
        self.assertTrue(lane[FLAT]["drawn"])

    def test_a_handful_of_ladders_comes_in_one_answer_each_as_by_itself(self) -> None:
        self.house.record_hip()
        asked = ["low_lunge", "figure_four", "low_lunge", "no_such_family"]
        several = self.client.get(self.url("/ladders"), {"family": asked}).json()
        alone = [self.client.get(self.url(f"/ladders/{family}")).json() for family in asked[:2]]
        self.assertEqual(several, alone)

    def test_no_more_than_a_handful_is_judged_at_once(self) -> None:
        for asked in ([], ["figure_four"] * (HANDFUL + 1)):
            self.assertEqual(self.client.get(self.url("/ladders"), {"family": asked}).status_code, 422)

    def test_of_a_closed_rung_few_words_say_what_closes_it(self) -> None:
        self.house.record_hip()
        self.assertIn("hip bend", self.lane()[OVER]["brief"])
        self.assertEqual(self.lane("left")[FLAT]["brief"], "")

    def test_why_not_names_what_closes_and_what_would_open(self) -> None:
        self.house.record_hip()
        why = self.client.get(self.url(f"/why-not/{OVER}/right")).json()
        self.assertEqual(why["verdict"], "leave_out")
        self.assertIn("hip replaced, posterior, week 9", why["closed_by"][0]["words"])
        self.assertEqual([opener["by"] for opener in why["openers"]], ["together"])
        self.assertEqual(self.client.get(self.url(f"/why-not/{FLAT}/left")).json()["closed_by"], [])
        self.assertEqual(self.client.get(self.url("/why-not/figure_four.no_such/left")).status_code, 404)

    def test_what_is_asked_today_stands_in_the_head_until_it_is_answered(self) -> None:
        self.house.record_knee()
        asked = self.client.get(self.url("")).json()["asked"]
        self.assertEqual([(each["side"], each["pain_today"]) for each in asked], [("left", None)])
        self.post(self.url(f"/entries/{asked[0]['entry_id']}/daily"), {"pain_today": 3})
        self.assertEqual(self.client.get(self.url("")).json()["asked"][0]["pain_today"], 3)

    def test_what_lasts_until_the_next_day_is_not_asked_at_every_visit(self) -> None:
        self.house.record_knee()
        address = self.url(f"/entries/{self.client.get(self.url('')).json()['asked'][0]['entry_id']}/daily")
        self.assertEqual(self.client.get(self.url("")).json()["asked"][0]["irritable"], "unknown")
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.post(address, {"pain_today": 3, "irritable": "no"})
        (asked,) = self.client.get(self.url("")).json()["asked"]
        self.assertEqual((asked["pain_today"], asked["irritable"]), (None, "no"))
        self.post(address, {"pain_today": 2})
        self.assertEqual(self.client.get(self.url("")).json()["asked"][0]["irritable"], "no")
        # A score given since does not make the older answer younger.
        with clock.set_to(clock.now() + dt.timedelta(days=8)):
            self.assertEqual(self.client.get(self.url("")).json()["asked"][0]["irritable"], "unknown")

    def test_a_family_says_when_it_was_last_worked_on(self) -> None:
        def last() -> Any:
            lines = self.client.get(self.url("/families")).json()
            return next(line["last"] for line in lines if line["family"] == "figure_four")

        self.assertIsNone(last())
        self.post(self.url("/items"), self.house.item())
        self.assertIsNotNone(last())

    def test_the_calendar_has_every_change_of_six_weeks_with_what_it_lets_in(self) -> None:
        self.house.record_hip()
        self.post(self.url("/items"), self.house.item())
        calendar = self.client.get(self.url("/calendar")).json()
        today = dt.date.fromisoformat(calendar["today"])
        self.assertEqual(dt.date.fromisoformat(calendar["until"]), today + dt.timedelta(days=42))
        dates = [dt.date.fromisoformat(change["date"]) for change in calendar["changes"]]
        self.assertEqual(dates, sorted(dates))
        self.assertTrue(all(today < date <= today + dt.timedelta(days=42) for date in dates))
        coming = self.client.get(self.url("/coming")).json()
        first = calendar["changes"][0]
        self.assertEqual(first["rungs"], coming["lines"])
        self.assertFalse(first["tightens"])

    def test_the_calendar_needs_no_stature(self) -> None:
        fresh = uuid.UUID(self.post(f"/api/practices/{self.house.practice.pk}/clients", {"name": "New"}).json()["id"])
        self.assertEqual(self.client.get(self.url("/calendar", client=fresh)).json()["changes"], [])

    def test_a_client_without_stature_is_told_what_is_missing(self) -> None:
        url = f"/api/practices/{self.house.practice.pk}/clients"
        fresh = uuid.UUID(self.post(url, {"name": "New"}).json()["id"])
        self.assertIn("body", self.fields(self.client.get(self.url("/ladders/figure_four", client=fresh))))
        self.assertEqual(self.client.get(self.url("", client=fresh)).status_code, 200)


class SettingUp(ApiTest):
    def setup_of(self, rung: str = FLAT, side: str = "right") -> dict[str, Any]:
        return self.client.get(self.url(f"/setups/{rung}/{side}")).json()

    def test_the_grid_is_whole_and_agrees_with_the_details(self) -> None:
        self.house.record_hip()
        setup = self.setup_of()
        grid, size = setup["grid"], 1
        for length in grid["shape"]:
            size *= length
        self.assertEqual(len(grid["verdicts"]), size)
        for figures in (grid["purpose"], *grid["columns"].values()):
            self.assertEqual(len(figures["at"]) % size, 0)
        detail = setup["options"][0]["detail"]
        position = 0
        for length, index in zip(grid["shape"], detail["index"], strict=True):
            position = position * length + min(index, length - 1)
        self.assertEqual(grid["verdicts"][position], "s")
        ruler = next(r for r in detail["rulers"]["right"] if r["readout"] == "hip_bend")
        figures = grid["columns"]["hip_bend.right"]
        self.assertEqual(len(figures["at"]), size)
        shown = figures["values"][grid["figure_letters"].index(figures["at"][position])]
        self.assertEqual(shown, round(ruler["shown"]))
        self.assertEqual((ruler["boundary"], ruler["boundary_kind"]), (90, "limit"))

    def test_any_set_up_of_the_grid_can_be_asked_for(self) -> None:
        setup = self.setup_of()
        wanted = {axis["name"]: axis["choices"][-1]["value"] for axis in setup["axes"]}
        answer = self.post(self.url(f"/setups/{FLAT}/right"), {"setup": wanted, "view": "behind"})
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer.json()["setup"]["foot"]["choice"], "drawn_up")

    def test_only_heights_this_room_can_build_are_offered(self) -> None:
        seats = next(axis for axis in self.setup_of()["axes"] if axis["name"] == "seat")
        self.assertTrue(all(choice["number"] >= 45 for choice in seats["choices"]))

    def test_an_unknown_rung_is_nothing(self) -> None:
        self.assertEqual(self.client.get(self.url("/setups/figure_four.flying/left")).status_code, 404)


class TakingToTheMat(ApiTest):
    def plan(self, side: str = "left", rung: str = FLAT, **more: Any) -> Any:
        option = self.client.get(self.url(f"/setups/{rung}/{side}")).json()["options"][0]["detail"]
        body = {"variation": rung, "side": side, "setup": option["setup"], "dose_s": 40, **more}
        return self.post(self.url("/mat"), body)

    def test_both_sides_stand_on_one_plan_with_the_step_back_ready(self) -> None:
        self.house.record_hip()
        self.plan("left", "figure_four.block_side")
        (family,) = self.plan("right").json()["families"]
        self.assertEqual(family["left"]["short"], "on its side")
        self.assertEqual(family["right"]["step_back"]["variation"], "figure_four.foot_on_floor")
        self.assertTrue(family["right"]["step_back"]["figure"].startswith("<svg"))

    def test_a_closed_set_up_is_refused(self) -> None:
        self.house.record_hip()
        self.assertIn("setup", self.fields(self.plan("right", OVER)))

    def test_what_is_planned_is_what_was_judged(self) -> None:
        """A seat this room cannot build becomes the nearest it can."""
        option = self.client.get(self.url(f"/setups/{FLAT}/left")).json()["options"][0]["detail"]
        setup = {**option["setup"], "seat": {"stack": "sofa:soft", "number": 46.0}}
        body = {"variation": FLAT, "side": "left", "setup": setup, "dose_s": 40}
        (family,) = self.post(self.url("/mat"), body).json()["families"]
        self.assertNotIn("sofa", family["left"]["setup"]["seat"]["stack"])

    def test_a_slot_the_rung_does_not_have_is_refused(self) -> None:
        body = {"variation": FLAT, "side": "left", "setup": {"sofa": {"number": 40}}, "dose_s": 40}
        self.assertIn("setup.sofa", self.fields(self.post(self.url("/mat"), body)))


class Logging(ApiTest):
    def test_what_happened_is_kept_with_what_was_known(self) -> None:
        self.house.record_hip()
        item = self.house.item()
        self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        with opened(self.house.practice):
            stored = LoggedItem.objects.get()
        self.assertEqual(stored.snapshot["verdict"], "with_setup")
        self.assertEqual(stored.snapshot["records"]["entries"][0]["kind"], "hip_replacement")
        self.assertEqual(set(stored.snapshot["hashes"]), {"poses", "limits", "engine", "variation"})
        self.assertTrue(stored.snapshot["margins"]["left"])
        self.assertEqual(set(stored.snapshot["versions"]), {"engine", "library"})
        self.assertNotIn(str(self.house.client.pk), json.dumps(stored.snapshot))

    def test_sending_twice_stores_once(self) -> None:
        item = self.house.item()
        for _ in range(2):
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        self.assertEqual(len(self.client.get(self.url("/items")).json()), 1)

    def test_a_correction_points_at_what_it_replaces(self) -> None:
        item = self.house.item()
        self.post(self.url("/items"), item)
        fixed = {"id": str(uuid.uuid4()), "during": 3}
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), fixed).status_code, 200)
        (standing,) = self.client.get(self.url("/items")).json()
        self.assertEqual((standing["id"], standing["during"]), (fixed["id"], 3))
        second = {"id": str(uuid.uuid4()), "during": 4}
        self.assertEqual(self.put(self.url(f"/items/{item.id}"), second).status_code, 409)

    def test_another_clients_item_is_nothing(self) -> None:
        other = House("Loft", "owner@loft.example")
        item = other.item()
        self.sign_in(other)
        self.post(self.url("/items", house=other), item)
        self.sign_in(self.house)
        self.assertEqual(self.post(self.url(f"/items/{item.id}/morning"), {"settled": True}).status_code, 404)


class NextVisit(ApiTest):
    def log(self, days_ago: int, settled: bool | None = True, **changes: Any) -> None:
        moment = clock.now() - dt.timedelta(days=days_ago)
        with clock.set_to(moment):
            item = self.house.item(**changes)
            self.post(self.url("/items"), item)
        if settled is not None:
            with clock.set_to(moment + dt.timedelta(days=1)):
                self.post(self.url(f"/items/{item.id}/morning"), {"settled": settled})

    def decision(self) -> dict[str, Any]:
        ladder = self.client.get(self.url("/ladders/figure_four")).json()
        return ladder["left"]["decision"]

    def setUp(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=30)):
            super().setUp()

    def test_calm_twice_offers_more_seconds(self) -> None:
        self.log(14)
        self.log(7)
        decision = self.decision()
        self.assertEqual((decision["action"], decision["step"]["dose_s"]), ("offer", 50))
        notes = self.client.get(self.url()).json()["notes"]
        self.assertIn(
            f"Figure-four: {decision['reason']}", {note["text"] for note in notes if note["weight"] == "promise"}
        )

    def test_a_flare_offers_the_step_back_with_its_reason(self) -> None:
        self.log(7, kind="sharp")
        decision = self.decision()
        self.assertEqual(
            (decision["action"], decision["step"]["variation"]), ("step_back", "figure_four.foot_on_floor")
        )
        self.assertIn("sharp", decision["reason"])

    def test_a_morning_asked_about_in_vain_is_watched_and_one_nobody_asked_about_is_not(self) -> None:
        def held(days_ago: int, asked: bool) -> None:
            item = self.house.item()
            with clock.set_to(clock.now() - dt.timedelta(days=days_ago)):
                self.post(self.url("/items"), item)
            if asked:
                with clock.set_to(clock.now() - dt.timedelta(days=days_ago - 1)):
                    answer = self.post(self.url(f"/items/{item.id}/morning"), {})
                    self.assertEqual([each["asked"] for each in answer.json()["morning_open"]], [True])

        self.house.measured_before(60)
        held(30, asked=True)
        (first,) = self.client.get(self.url("/items")).json()
        self.assertEqual((first["tolerance"], first["settled"], first["asked"]), ("watch", None, True))
        # Asked in vain it is not asked about for ever.
        self.assertEqual(self.client.get(self.url("/mat")).json()["morning_open"], [])
        held(20, asked=False)
        _, second = self.client.get(self.url("/items")).json()
        self.assertEqual((second["tolerance"], second["asked"]), ("pending", False))
        (still,) = self.client.get(self.url("/mat")).json()["morning_open"]
        self.assertEqual(still["id"], second["id"])
        # An answer that comes late counts.
        self.post(self.url(f"/items/{first['id']}/morning"), {"settled": True})
        self.assertEqual(self.client.get(self.url("/items")).json()[0]["tolerance"], "calm")

    def test_an_open_morning_is_asked_at_the_next_visit(self) -> None:
        self.log(7, settled=None)
        (open_item,) = self.client.get(self.url("/mat")).json()["morning_open"]
        self.assertEqual(open_item["tolerance"], "pending")
        answer = self.post(self.url(f"/items/{open_item['id']}/morning"), {"settled": True})
        self.assertEqual(answer.json()["morning_open"], [])

    def test_every_screen_begins_with_the_recommended_set_up(self) -> None:
        def shown() -> tuple[str, str]:
            ladder = self.client.get(self.url("/ladders/figure_four")).json()
            lane = next(rung for rung in ladder["left"]["rungs"] if rung["variation"] == FLAT)
            options = self.client.get(self.url(f"/setups/{FLAT}/left")).json()["options"]
            self.assertEqual(options[0]["trade"], "Recommended")
            return lane["line"], options[0]["words"]

        first = shown()
        self.assertEqual(*first)
        options = self.client.get(self.url(f"/setups/{FLAT}/left")).json()["options"]
        other = {name: dict(value) for name, value in options[0]["detail"]["setup"].items()}
        other["knee_out"]["number"] -= 15
        self.log(7, setup_used=other)
        self.assertEqual(*shown())
        options = self.client.get(self.url(f"/setups/{FLAT}/left")).json()["options"]
        again = next(option for option in options if option["trade"] == "As last time")
        self.assertEqual(again["detail"]["setup"]["knee_out"], other["knee_out"])


class QueryCounts(ApiTest):
    def queries(self, url: str) -> int:
        with CaptureQueriesContext(
            connection,
        ) as captured:
            self.assertEqual(self.client.get(url).status_code, 200)
        return len(captured)

    def test_do_not_grow_with_the_history(self) -> None:
        urls = [self.url(path) for path in ("", "/families", "/ladders/figure_four", "/items", "/entries", "/measures")]
        self.house.record_hip()
        self.post(self.url("/items"), self.house.item())
        for url in urls:
            self.queries(url)
        before = [self.queries(url) for url in urls]
        self.house.record_knee()
        for _ in range(3):
            self.post(self.url("/items"), self.house.item())
        for url in urls:
            self.queries(url)
        self.assertEqual([self.queries(url) for url in urls], before)
