"""What the mat is told besides the poses: how long, what to ask on arrival, who to call, what went wrong."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from tests.base import ApiTest, House


class Beside(ApiTest):
    def mat(self) -> dict[str, Any]:
        found: dict[str, Any] = self.client.get(self.url("/mat")).json()
        return found

    def plan(self, family: str) -> None:
        self.assertEqual(self.post(self.url("/plan/poses"), {"family": family}).status_code, 200)

    def test_each_dose_in_its_own_unit_and_on_the_clock(self) -> None:
        for family in ("figure_four", "breath", "heel_raise"):
            self.plan(family)
        self.client.put(self.url("/breath"), {"seconds": 5}, content_type="application/json")
        four, breath, heels = self.mat()["families"]
        self.assertEqual((four["left"]["style"], four["left"]["amount"], four["left"]["seconds"]), ("seconds", 30, 30))
        left = breath["left"]
        self.assertEqual((left["style"], left["seconds"]), ("breaths", left["amount"] * 5))
        self.assertEqual((heels["left"]["style"], heels["left"]["sets"]), ("reps", 3))
        self.assertGreater(four["seconds"], 60)

    def test_a_sore_joint_is_asked_about_on_arrival_and_its_answer_stays(self) -> None:
        knee = self.house.record_knee()
        (asked,) = self.mat()["asked"]
        self.assertEqual((asked["entry_id"], asked["side"], asked["pain_today"]), (str(knee.pk), "left", None))
        answer = self.post(self.url(f"/entries/{asked['entry_id']}/daily"), {"pain_today": 3})
        self.assertEqual(answer.status_code, 201)
        self.assertEqual(self.mat()["asked"][0]["pain_today"], 3)

    def test_the_card_says_what_is_recorded_and_when_it_is_one_for_a_doctor(self) -> None:
        self.house.record_hip()
        (line,) = self.mat()["card"]
        self.assertEqual(line["side"], "right")
        self.assertIn("Hip replaced", line["label"])
        self.assertTrue(line["doctor"])

    def test_what_went_wrong_is_kept_once_in_the_persons_own_words(self) -> None:
        note = {"id": str(uuid.uuid4()), "text": "Slipped off the block, no harm."}
        for _ in range(2):
            self.assertEqual(self.post(self.url("/incidents"), note).status_code, 201)
        (incident,) = self.mat()["incidents"]
        self.assertEqual(incident["text"], note["text"])
        self.assertEqual(self.post(self.url("/incidents"), {**note, "text": "x"}).status_code, 422)

    def test_another_practices_incident_is_nobodys_here(self) -> None:
        other = House("Loft", "owner@loft.example")
        note = {"id": str(uuid.uuid4()), "text": "Theirs."}
        self.sign_in(other)
        self.assertEqual(self.post(self.url("/incidents", house=other), note).status_code, 201)
        self.sign_in(self.house)
        self.assertEqual(self.post(self.url("/incidents"), note).status_code, 404)
        self.assertEqual(self.mat()["incidents"], [])

    def test_queries_do_not_grow_with_what_is_planned(self) -> None:
        self.plan("breath")
        self.mat()
        with CaptureQueriesContext(connection) as few:
            self.mat()
        for family in ("figure_four", "squat", "rest"):
            self.plan(family)
        self.mat()
        with CaptureQueriesContext(connection) as many:
            self.mat()
        self.assertEqual(len(few), len(many))
