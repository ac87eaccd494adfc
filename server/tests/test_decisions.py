"""What a therapist decides otherwise is kept with its reason and goes before what follows from the sessions."""

from __future__ import annotations

import datetime as dt
from typing import Any

from clients.models import Person
from common import clock
from practices.tenancy import opened
from tests.base import ApiTest
from visits.models import OwnDecision

FLAT = "figure_four.block_flat"


class Deciding(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.house.measured_before(60)

    def held(self, days_ago: int, **changes: Any) -> None:
        item = self.house.item(variation=FLAT, dose_s=60, **changes)
        with clock.set_to(clock.now() - dt.timedelta(days=days_ago)):
            self.post(self.url("/items"), item)
        self.post(self.url(f"/items/{item.id}/morning"), {"settled": True})

    def decide(self, action: str, reason: str = "She travels.", **more: Any) -> Any:
        body = {"family": "figure_four", "side": "left", "action": action, "reason": reason, **more}
        return self.post(self.url("/decisions"), body)

    def decision(self, side: str = "left") -> dict[str, Any]:
        (family,) = self.client.get(self.url("/responses")).json()
        found: dict[str, Any] = family[side]["decision"]
        return found

    def test_it_goes_before_what_follows_on_its_side_and_says_why(self) -> None:
        for days in (14, 7):
            self.held(days)
            self.held(days, side="right")
        self.assertEqual(self.decision()["action"], "offer")
        answer = self.decide("stay")
        self.assertEqual(answer.status_code, 201)
        self.assertEqual(answer.json()[0]["left"]["decision"]["action"], "stay")
        left = self.decision()
        self.assertEqual((left["action"], left["own"]), ("stay", True))
        self.assertIn("She travels.", left["reason"])
        self.assertEqual((self.decision("right")["action"], self.decision("right")["own"]), ("offer", False))

    def test_it_is_respected_by_the_next_plan(self) -> None:
        for days in (14, 7):
            self.held(days)
        self.decide("leave_out", "Her knee first.")
        plan = self.post(self.url("/plan/again"), {}).json()
        self.assertEqual(plan["poses"], [])

    def test_it_counts_until_the_side_is_worked_on_again(self) -> None:
        self.held(7)
        self.decide("step_back")
        self.assertEqual(self.decision()["action"], "step_back")
        self.post(self.url("/items"), self.house.item(variation=FLAT, dose_s=60))
        self.assertFalse(self.decision()["own"])

    def test_it_can_be_taken_back_and_made_anew(self) -> None:
        for days in (14, 7):
            self.held(days)
        self.decide("stay")
        self.decide("as_computed", "")
        self.assertEqual((self.decision()["action"], self.decision()["own"]), ("offer", False))
        self.decide("leave_out")
        self.assertEqual(self.decision()["action"], "leave_out")

    def test_why_is_asked_for_and_kept_with_the_person(self) -> None:
        self.held(7)
        self.assertIn("reason", self.fields(self.decide("stay", "  x ")))
        self.assertIn("family", self.fields(self.decide("stay", family="nowhere")))
        self.decide("stay")
        with opened(self.house.practice):
            row = OwnDecision.objects.get()
            self.assertEqual(Person.objects.get().note_of(row.pk), "She travels.")

    def test_of_a_shape_both_legs_share_it_is_one(self) -> None:
        item = self.house.item(variation="hip_hinge.wall", dose_s=24)
        with clock.set_to(clock.now() - dt.timedelta(days=7)):
            self.post(self.url("/items"), item)
        self.decide("leave_out", family="hip_hinge")
        self.assertEqual({self.decision(side)["action"] for side in ("left", "right")}, {"leave_out"})
