"""Responses over time and as a file."""

from __future__ import annotations

import csv
import datetime as dt
import io
from typing import Any

from common import clock
from tests.base import ApiTest, House


class OverTime(ApiTest):
    def setUp(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=30)):
            super().setUp()

    def log(self, days_ago: int, settled: bool | None = True, **changes: Any) -> None:
        moment = clock.now() - dt.timedelta(days=days_ago)
        with clock.set_to(moment):
            item = self.house.item(**changes)
            self.assertEqual(self.post(self.url("/items"), item).status_code, 201)
        if settled is not None:
            with clock.set_to(moment + dt.timedelta(days=1)):
                self.post(self.url(f"/items/{item.id}/morning"), {"settled": settled})

    def family(self) -> dict[str, Any]:
        (family,) = self.client.get(self.url("/responses")).json()
        return family

    def test_nothing_logged_is_an_empty_list(self) -> None:
        self.assertEqual(self.client.get(self.url("/responses")).json(), [])

    def test_holds_stand_in_order_with_what_they_came_to(self) -> None:
        self.log(20, during=1)
        self.log(13, during=2, before=0)
        self.log(6, kind="sharp", settled=False)
        family = self.family()
        points = family["left"]["points"]
        self.assertEqual([p["tolerance"] for p in points], ["calm", "watch", "flare"])
        self.assertEqual([p["date"] for p in points], sorted(p["date"] for p in points))
        self.assertEqual(points[1]["why"], "rose by 2")
        self.assertEqual(points[2]["settled"], False)
        self.assertEqual(family["right"]["points"], [])

    def test_support_and_rung_are_there_for_the_staircase(self) -> None:
        self.log(8)
        (point,) = self.family()["left"]["points"]
        self.assertEqual((point["rung"], point["support_cm"], point["less_support"]), (1, 10, "up"))
        self.assertGreaterEqual(point["seat_cm"], 45)
        self.assertIn("foot block 10", point["setup_words"])

    def test_counts_and_the_furthest_calm_step_are_each_sides_own(self) -> None:
        for days in (30, 20, 10):
            self.log(days)
        self.log(5, kind="sharp", side="right")
        left, right = (self.family()[side]["trend"] for side in ("left", "right"))
        self.assertEqual((left["sessions"], left["calm_in_a_row"], left["flares"]), (3, 3, 0))
        self.assertIn("block flat", left["furthest"])
        self.assertIn("Too few sessions", left["slope"])
        self.assertEqual((right["calm_in_a_row"], right["flares"], right["furthest"]), (0, 1, ""))

    def test_they_count_what_is_not_shown_as_well(self) -> None:
        for days in (30, 20, 10):
            self.log(days)
        (family,) = self.client.get(self.url("/responses") + "?most=1").json()
        self.assertEqual((len(family["left"]["points"]), family["left"]["trend"]["sessions"]), (1, 3))

    def test_the_decision_says_what_would_change_it(self) -> None:
        self.log(8)
        lane = self.family()["left"]
        self.assertEqual(lane["decision"]["action"], "stay")
        self.assertIn("Calm", lane["change"])

    def test_an_open_morning_shows_in_the_band(self) -> None:
        self.log(8, settled=None)
        band = {stop["stop"]: stop for stop in self.client.get(self.url()).json()["band"]}
        self.assertEqual(
            (band["responses"]["state"], band["responses"]["note"]), ("attention", "1 morning to ask about")
        )
        self.assertEqual(band["limits"]["state"], "open")

    def rows(self) -> list[dict[str, str]]:
        answer = self.client.get(self.url("/responses.csv"))
        self.assertEqual(answer["Content-Type"], "text/csv; charset=utf-8")
        self.assertNotIn("Client of", answer["Content-Disposition"])
        return list(csv.DictReader(io.StringIO(answer.content.decode())))

    def test_the_file_has_one_row_a_hold(self) -> None:
        self.log(14)
        self.log(7, signs=["wobble", "grimace"], note="first, calm; then not")
        first, second = self.rows()
        self.assertEqual((first["side"], first["variation"], first["during"]), ("left", "figure_four.block_flat", "1"))
        self.assertEqual((second["signs"], second["tolerance"]), ("wobble grimace", "watch"))
        self.assertEqual(second["note"], "first, calm; then not")
        self.assertEqual(second["settled_next_morning"], "yes")

    def test_a_note_is_no_formula(self) -> None:
        self.log(7, note="=SUM(A1)")
        self.assertEqual(self.rows()[0]["note"], "'=SUM(A1)")

    def test_the_file_of_another_practice_is_nothing(self) -> None:
        other = House("Loft", "owner@loft.example")
        self.assertEqual(self.client.get(self.url("/responses.csv", house=other)).status_code, 404)
