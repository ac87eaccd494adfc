"""Measures: plausible readings are stored together, implausible ones are refused with the reason."""

from __future__ import annotations

import datetime as dt
import json
from typing import Any, ClassVar

from common import clock
from engine.adapter import client_file
from measures.models import Measure
from practices.tenancy import opened
from tests.base import ApiTest


def reading(quantity: str, value: float, side: str | None = None) -> dict[str, Any]:
    return {"quantity": quantity, "value": value, "side": side, "method": "goniometer" if side else ""}


class Storing(ApiTest):
    def store(self, *readings: dict[str, Any], **more: Any) -> Any:
        return self.post(self.url("/measures"), {"readings": list(readings), **more})

    def test_the_newest_reading_leads_and_older_ones_stay(self) -> None:
        self.store(reading("hip_flexion", 105, "left"))
        answer = self.store(reading("hip_flexion", 110, "left")).json()
        flexion = next(r for r in answer["ranges"] if r["quantity"] == "hip_flexion")
        self.assertEqual([r["value"] for r in flexion["left"]["readings"]], [110, 105])
        self.assertEqual((flexion["left"]["value"], flexion["left"]["measured"]), (110, True))
        self.assertFalse(flexion["right"]["measured"])

    def test_stature_of_seventeen(self) -> None:
        problems = self.fields(self.store(reading("stature", 17)))
        self.assertIn("90–230 cm", problems["stature"])

    def test_every_problem_is_named_and_nothing_is_stored(self) -> None:
        with opened(self.house.practice):
            before = Measure.objects.count()
        problems = self.fields(
            self.store(
                reading("weight", 400), reading("knee_flexion", 300, "right"), reading("hip_flexion", 100, "left")
            )
        )
        self.assertEqual(set(problems), {"weight", "knee_flexion.right"})
        with opened(self.house.practice):
            self.assertEqual(Measure.objects.count(), before)

    def test_a_range_needs_its_side(self) -> None:
        self.assertIn("hip_flexion", self.fields(self.store(reading("hip_flexion", 100))))

    def test_a_date_in_the_future(self) -> None:
        tomorrow = str(self.house.today + dt.timedelta(days=1))
        self.assertIn("date", self.fields(self.store(reading("stature", 170), date=tomorrow)))


class SeenOnTheMat(ApiTest):
    """A bound seen otherwise is lifted from today on, and comes back the day it is taken back."""

    RUNG = "hero.one_block"

    def setUp(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=5)):
            super().setUp()
            stiff = [reading("knee_flexion", 100, side) for side in ("left", "right")]
            self.post(self.url("/measures"), {"readings": stiff})

    def see(self, bound: str, value: int, side: str | None = "left") -> Any:
        look = {"quantity": f"seen.{bound}", "value": value, "side": side}
        return self.post(self.url("/measures"), {"readings": [look]})

    def unmet(self) -> list[dict[str, Any]]:
        detail = self.client.get(self.url(f"/setups/{self.RUNG}/left")).json()["options"][0]["detail"]
        return [each for each in detail["unmet"] if each["bound"] == "knee_range"]

    def test_lifts_the_bound_on_its_side_until_it_is_taken_back(self) -> None:
        self.assertEqual([each["sides"] for each in self.unmet()], [["left"], ["right"]])
        with clock.set_to(clock.now() - dt.timedelta(days=2)):
            self.assertEqual(self.see("knee_range", 1).status_code, 201)
        self.assertEqual([each["sides"] for each in self.unmet()], [["right"]])
        latest = self.client.get(self.url("/measures")).json()["seen"]["seen.knee_range"]["left"][0]
        self.assertEqual(latest["value"], 1)
        self.assertEqual(self.see("knee_range", 0).status_code, 201)
        self.assertEqual(len(self.unmet()), 2)
        with opened(self.house.practice):
            (seen,) = client_file(self.house.client).seen
        today = self.house.today + dt.timedelta(days=5)
        self.assertEqual((seen.until, seen.holds(today), seen.holds(self.house.today)), (today, False, False))

    def test_taken_back_the_same_day_it_never_was(self) -> None:
        self.see("knee_range", 1)
        self.see("knee_range", 0)
        with opened(self.house.practice):
            self.assertEqual(client_file(self.house.client).seen, ())

    def test_travels_with_the_client_file(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=2)):
            self.see("knee_range", 1)
            self.see("back_rounds", 1)
        self.see("knee_range", 0)
        file = json.loads(self.client.get(self.url("/file")).content)
        copy = self.post(f"/api/practices/{self.house.practice.pk}/clients/import", file).json()["id"]
        again = json.loads(self.client.get(self.url("/file", client=copy)).content)
        self.assertEqual(len(file["seen"]), 2)
        self.assertEqual(again["seen"], file["seen"])

    def test_needs_a_side_and_a_known_bound(self) -> None:
        self.assertIn("seen.knee_range", self.fields(self.see("knee_range", 1, side=None)))
        self.assertEqual(self.see("gravity", 1).status_code, 422)
        self.assertEqual(self.see("knee_range", 3).status_code, 422)


class Tape(ApiTest):
    LENGTHS: ClassVar[dict[str, Any]] = {
        "side": "left", "knee_height_cm": 22, "foot_distance_cm": 38, "seat_height_cm": 8,
    }  # fmt: skip

    def turned(self, **changes: Any) -> Any:
        return self.post(self.url("/measures/soles-together"), {**self.LENGTHS, **changes})

    def test_a_knee_that_drops_lower_turns_out_more(self) -> None:
        high, low = (self.turned(knee_height_cm=cm).json() for cm in (24, 20))
        self.assertGreater(low["value_deg"], high["value_deg"])
        self.assertGreater(high["error_deg"], 1)

    def test_a_knee_that_cannot_be_there_is_refused_with_where_it_could_be(self) -> None:
        answer = self.turned(knee_height_cm=75)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("would lie between", answer.content.decode())

    def test_is_stored_as_degrees_with_its_own_error_and_lengths(self) -> None:
        self.post(
            self.url("/measures"),
            {
                "readings": [
                    {
                        "quantity": "open_external_rotation", "side": "left", "value": 51, "method": "tape",
                        "error": 2.6, "conditions": {"seat_height_cm": 8.0}, "pelvis_held": "yes",
                    }
                ]
            },
        )  # fmt: skip
        with opened(self.house.practice):
            file = client_file(self.house.client)
        taken = file.ranges[-1]
        self.assertEqual((taken.error_deg, taken.conditions, taken.pelvis_held), (2.6, {"seat_height_cm": 8.0}, "yes"))


class Sitting(ApiTest):
    def test_the_look_is_kept_beside_the_seat(self) -> None:
        answer = self.post(
            self.url("/measures"),
            {"readings": [{"quantity": "sitting_seat", "value": 10, "note": "rounded"}]},
        ).json()
        self.assertEqual(answer["body"]["sitting_seat"][0]["note"], "rounded")

    def test_an_own_chair_of_four_centimetres(self) -> None:
        problems = self.fields(
            self.post(self.url("/measures"), {"readings": [{"quantity": "chair_height", "value": 4}]})
        )
        self.assertIn("20–80 cm", problems["chair_height"])
