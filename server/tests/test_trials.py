"""Both ways tried one after the other: the calmer is kept for its side, gone on with, and told of."""

from __future__ import annotations

import datetime as dt
import json
import uuid
from typing import Any

from common import clock
from practices.tenancy import opened
from tests.base import ApiTest, House
from visits.models import Trial

FLAT = "figure_four.block_flat"
REST, DRAWN = {"choice": "at_rest"}, {"choice": "drawn_up"}


class Trying(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.house.measured_before(60)

    def ways(self, side: str = "left", setup: Any = None, rung: str = FLAT) -> Any:
        return self.post(self.url(f"/setups/{rung}/{side}/ways"), {"setup": setup or {}})

    def on_the_mat(self, side: str = "left") -> dict[str, Any]:
        (family,) = self.client.get(self.url("/mat")).json()["families"]
        found: dict[str, Any] = family[side]
        return found

    def take(self, side: str = "left", **setup: Any) -> None:
        here = self.ways(side).json()["here"]["setup"]
        body = {"variation": FLAT, "side": side, "setup": {**here, **setup}, "dose_s": 30}
        self.assertEqual(self.post(self.url("/mat"), body).status_code, 200)

    def try_both(self, side: str = "left", **changes: Any) -> Any:
        here = self.ways(side).json()["here"]["setup"]
        body = {
            "id": str(uuid.uuid4()), "variation": FLAT, "side": side, "slot": "foot", "setup": {**here, "foot": REST},
            "other": DRAWN, "felt_a": 3, "felt_b": 1, "kept": "b", **changes,
        }  # fmt: skip
        return self.post(self.url("/trials"), body)

    def test_a_set_up_is_told_with_its_other_ways(self) -> None:
        found = self.ways().json()
        (foot,) = found["ways"]
        # What is answered may be sent back as it is.
        self.assertEqual(self.try_both(setup=found["here"]["setup"], other=foot["setup"]["foot"]).status_code, 201)
        self.assertEqual((foot["slot"], foot["now"], foot["then"]), ("foot", "at rest", "drawn up"))
        self.assertIn("<svg", foot["figure"])
        self.assertNotEqual(foot["figure"], found["here"]["figure"])

    def test_the_calmer_way_is_planned_on_its_side_alone(self) -> None:
        self.take()
        self.take("right")
        answer = self.try_both()
        self.assertEqual(answer.status_code, 201)
        left, right = self.on_the_mat(), self.on_the_mat("right")
        self.assertEqual((left["setup"]["foot"]["choice"], right["setup"]["foot"]["choice"]), ("drawn_up", "at_rest"))
        self.assertEqual(left["dose_s"], 30)
        (told,) = left["trials"]
        self.assertEqual((told["last"]["kept"], told["last"]["felt_kept"], told["again"]), ("drawn up", 1, False))
        self.assertEqual([each["last"] for each in right["trials"]], [None])

    def test_it_begins_every_rung_of_the_ladder_and_the_next_plan(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.post(self.url("/items"), self.house.item(variation=FLAT, setup_used={"foot": REST}))
        self.try_both()
        self.assertEqual(self.ways(rung="figure_four.block_side").json()["here"]["setup"]["foot"]["choice"], "drawn_up")
        self.assertEqual(
            self.ways("right", rung="figure_four.block_side").json()["here"]["setup"]["foot"]["choice"], "at_rest"
        )
        with clock.set_to(clock.now() + dt.timedelta(days=2)):
            (pose,) = self.post(self.url("/plan/again"), {}).json()["poses"]
            self.assertIn("kept when both were tried", pose["left"]["why"])

    def test_it_is_to_be_tried_again_after_a_flare(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=9)):
            self.try_both()
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.post(self.url("/items"), self.house.item(variation=FLAT, kind="sharp"))
        self.take()
        self.assertTrue(self.on_the_mat()["trials"][0]["again"])
        self.try_both(kept="a", felt_a=0)
        self.assertFalse(self.on_the_mat()["trials"][0]["again"])

    def test_the_history_tells_of_it_latest_first(self) -> None:
        with clock.set_to(clock.now() - dt.timedelta(days=9)):
            self.try_both()
        self.try_both(kept="a", felt_a=0)
        self.post(self.url("/items"), self.house.item(variation=FLAT))
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual([each["kept"] for each in family["left"]["trials"]], ["at rest", "drawn up"])
        self.assertEqual(family["left"]["trials"][1]["label"], "Foot")
        self.assertEqual(family["right"]["trials"], [])

    def test_it_is_told_of_where_nothing_was_logged_yet(self) -> None:
        self.try_both()
        (family,) = self.client.get(self.url("/responses")).json()
        self.assertEqual((len(family["left"]["trials"]), family["left"]["points"]), (1, []))

    def test_a_plan_without_the_rung_stays_as_it_is(self) -> None:
        self.take()
        before = self.client.get(self.url("/plan")).json()["version"]
        self.try_both("right")
        self.assertEqual(self.client.get(self.url("/plan")).json()["version"], before)

    def test_the_plan_says_what_is_held_otherwise_than_usual(self) -> None:
        self.take()
        self.try_both()
        (pose,) = self.client.get(self.url("/plan")).json()["poses"]
        self.assertIn("foot drawn up", pose["left"]["line"])

    def test_sent_twice_it_is_stored_once(self) -> None:
        same = str(uuid.uuid4())
        self.assertEqual([self.try_both(id=same).status_code for _ in range(2)], [201, 201])
        with opened(self.house.practice):
            row = Trial.objects.get()
        self.assertEqual(set(row.snapshot), {"a", "b"})
        self.assertIn("engine", row.snapshot["a"]["hashes"])
        self.assertNotIn(self.house.client.person.name, json.dumps(row.snapshot))

    def test_what_cannot_be_tried_is_refused_in_words(self) -> None:
        for changes, field in (
            ({"slot": "seat"}, "slot"),
            ({"slot": "nose"}, "slot"),
            ({"other": {"choice": "curled"}}, "other.foot"),
            ({"setup": {}}, "setup"),
        ):
            with self.subTest(**changes):
                answer = self.try_both(**changes)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(field, self.fields(answer))
        with opened(self.house.practice):
            self.assertFalse(Trial.objects.exists())

    def test_a_closed_shape_has_no_ways_and_keeps_none(self) -> None:
        self.house.record_hip(20, side="left")
        self.assertEqual(self.ways().json()["ways"], [])
        answer = self.try_both()
        self.assertEqual((answer.status_code, "setup" in self.fields(answer)), (422, True))

    def test_another_practices_trial_is_not_there(self) -> None:
        other, same = House("Loft", "owner@loft.example"), str(uuid.uuid4())
        other.measured_before(60)
        self.try_both(id=same)
        self.sign_in(other)
        with opened(other.practice):
            self.house, own = other, self.house
        self.assertEqual(self.try_both(id=same).status_code, 404)
        with opened(own.practice):
            self.assertEqual(Trial.objects.count(), 1)
