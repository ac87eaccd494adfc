"""Measures: plausible readings are stored together, implausible ones are refused with the reason."""

from __future__ import annotations

import datetime as dt
from typing import Any

from django_scopes import scope

from measures.models import Measure
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
        self.assertIn("120–220 cm", problems["stature"])

    def test_every_problem_is_named_and_nothing_is_stored(self) -> None:
        with scope(practice=self.house.practice):
            before = Measure.objects.count()
        problems = self.fields(
            self.store(
                reading("weight", 400), reading("knee_flexion", 300, "right"), reading("hip_flexion", 100, "left")
            )
        )
        self.assertEqual(set(problems), {"weight", "knee_flexion.right"})
        with scope(practice=self.house.practice):
            self.assertEqual(Measure.objects.count(), before)

    def test_a_range_needs_its_side(self) -> None:
        self.assertIn("hip_flexion", self.fields(self.store(reading("hip_flexion", 100))))

    def test_a_date_in_the_future(self) -> None:
        tomorrow = str(self.house.today + dt.timedelta(days=1))
        self.assertIn("date", self.fields(self.store(reading("stature", 170), date=tomorrow)))
