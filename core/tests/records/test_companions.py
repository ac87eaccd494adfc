"""Kinds of record that come with the main ones: their boundary days and figures, and what they make others ask."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from asketa_core import ClientFile, Situation, implausible_clearance, keeps_range, limits_on, mind_of
from tests.speech import english
from tests.strategies import ROOM, TODAY, bones, client, hip, knee, pain


def record(kind: str, side: str | None = None, entry_id: str = "it", **facts: Any) -> dict[str, Any]:
    clearances = facts.pop("clearances", [])
    return {
        "id": entry_id, "kind": kind, "facts": facts, "clearances": clearances, **({} if side is None else {"side": side})
    }  # fmt: skip


def severities(file: ClientFile, *codes: str, date: dt.date = TODAY) -> set[tuple[str, str]]:
    return {(limit.code, limit.severity.code) for limit in limits_on(file, date) if limit.code.startswith(codes)}


def ago(days: int) -> dt.date:
    return TODAY - dt.timedelta(days=days)


class SoreJoints(TestCase):
    def test_weight_is_minded_below_four_of_ten_and_closed_from_there(self) -> None:
        for kind, code in (
            ("shoulder", "shoulder.weight_sore"),
            ("wrist", "wrist.weight_sore"),
            ("foot", "foot.alone_sore"),
        ):
            for score, severity in ((0, None), (3, None), (4, "stop"), (10, "stop")):
                with self.subTest(kind=kind, pain=score):
                    file = client([record(kind, "left")], daily=[pain(score, "it")])
                    expected = set() if severity is None else {(code, severity)}
                    self.assertEqual(severities(file, code), expected)

    def test_what_nobody_asked_today_asks(self) -> None:
        for kind, code in (("shoulder", "shoulder.weight_sore"), ("foot", "foot.alone_sore")):
            self.assertEqual(severities(client([record(kind, "left")]), code), {(code, "ask")})

    def test_an_answer_counts_for_fourteen_days(self) -> None:
        for days, severity in ((14, "stop"), (15, "ask")):
            file = client([record("shoulder", "left")], daily=[pain(6, "it", days_ago=days)])
            self.assertEqual(severities(file, "shoulder.weight_sore"), {("shoulder.weight_sore", severity)})


class Neck(TestCase):
    def test_tingling_makes_a_turn_a_stop_and_not_knowing_asks(self) -> None:
        for tingling, found in (("yes", {("neck.turned_tingling", "stop")}), ("no", set()),
                                ("unknown", {("neck.turned_tingling", "ask")})):  # fmt: skip
            file = client([record("neck", arm_tingling=tingling)])
            self.assertEqual(severities(file, "neck.turned_tingling"), found)


class Pressure(TestCase):
    def test_the_worst_of_figures_and_words_counts(self) -> None:
        for facts, severity in (
            ({"systolic": 159, "diastolic": 99, "controlled": "no"}, "stop"),
            ({"systolic": 159, "diastolic": 99}, None),
            ({"systolic": 159, "controlled": "yes"}, "ask"),
            ({"systolic": 120, "controlled": "no"}, "stop"),
            ({"systolic": 160, "diastolic": 80, "controlled": "yes"}, "stop"),
            ({"systolic": 120, "diastolic": 100}, "stop"),
            ({"systolic": 120}, "ask"),
            ({"controlled": "yes"}, None),
            ({}, "ask"),
        ):
            with self.subTest(facts=facts):
                file = client([record("blood_pressure", symptoms_now=["none"], **facts)])
                found = severities(file, "pressure.head_down")
                self.assertEqual(found, set() if severity is None else {("pressure.head_down", severity)})

    def test_far_too_high_stops_everything(self) -> None:
        for systolic, diastolic, alarm in ((179, 109, False), (180, 90, True), (150, 110, True)):
            file = client([record("blood_pressure", systolic=systolic, diastolic=diastolic, symptoms_now=["none"])])
            self.assertEqual(bool(severities(file, "pressure.symptom")), alarm, (systolic, diastolic))


class Eyes(TestCase):
    def test_only_a_word_on_the_head_lets_it_down(self) -> None:
        word = {"who": "doctor", "date": ago(1), "scope": ["head_down"]}
        for clearances, closed in (
            ([], True),
            ([word], False),
            ([{**word, "date": TODAY + dt.timedelta(days=1)}], True),
        ):
            file = client([record("eyes", what="glaucoma", clearances=clearances)])
            self.assertEqual(bool(severities(file, "eyes.head_down")), closed)
            self.assertTrue(severities(file, "eyes.neck_weight"))

    def test_a_clearance_about_something_else_is_refused(self) -> None:
        (entry,) = client([record("eyes", what="glaucoma")]).entries
        self.assertEqual([p.field for p in implausible_clearance(entry, TODAY, TODAY, ("bend",))], ["scope"])
        self.assertEqual(list(implausible_clearance(entry, TODAY, TODAY, ("head_down",))), [])


class Clots(TestCase):
    def test_twelve_weeks_wait_for_the_doctor(self) -> None:
        for days, asks in ((83, True), (84, False)):
            file = client([record("past_clots", on=ago(days), symptoms_now=["none"])])
            self.assertEqual(bool(severities(file, "clots.fresh")), asks, days)


class MobileJoints(TestCase):
    def test_steps_go_toward_strength_only(self) -> None:
        self.assertTrue(keeps_range(client([record("mobile_joints")]), TODAY))
        self.assertFalse(keeps_range(client([record("falling")]), TODAY))


class WarningSigns(TestCase):
    def test_close_until_a_doctor_has_seen_them_and_leave_what_is_gentle(self) -> None:
        word = {"who": "doctor", "date": ago(1), "scope": ["seen"]}
        for signs, clearances, closed in ((["night_pain"], [], True), (["night_pain"], [word], False), (["none"], [], False),
                                          ([], [], False)):  # fmt: skip
            file = client([record("warning_signs", signs=signs, clearances=clearances)])
            found = [limit for limit in limits_on(file, TODAY) if limit.code == "signs.see_doctor"]
            self.assertEqual(bool(found), closed)
            self.assertTrue(all(limit.spares_gentle for limit in found))

    def test_a_list_nobody_went_through_is_asked_about(self) -> None:
        at = Situation.of(client([record("warning_signs")]), TODAY, ROOM)
        self.assertTrue(any("signs" in english(note.text) and note.weight == "ask" for note in mind_of(at).notes))


class News(TestCase):
    """A fall or new pain since last time reopens what was cleared at an operated joint, and counts for the bones."""

    CLEARED = {"who": "surgeon", "date": ago(100), "scope": ["all"]}

    def hips(self, *more: dict[str, Any], given: dt.date | None = None) -> set[tuple[str, str]]:
        clearances = [self.CLEARED] if given is None else [self.CLEARED, {**self.CLEARED, "date": given}]
        file = client([hip(side="left", days_ago=400, clearances=clearances), *more])
        return severities(file, "hip.bend", "hip.midline")

    def test_the_hip_it_may_be_about_asks_again(self) -> None:
        for what, where, side, asks in (
            ("fall", "hip", "left", True), ("new_pain", "hip", "left", True), ("fall", "unknown", None, True),
            ("fall", "hip", "right", False), ("fall", "shoulder", "left", False), ("flare", "hip", "left", False),
            ("illness", "unknown", None, False),
        ):  # fmt: skip
            with self.subTest(what=what, where=where, side=side):
                found = self.hips(record("something_new", side, what=what, where=where, on=ago(3)))
                self.assertEqual(("hip.bend", "ask") in found, asks)

    def test_a_word_given_since_answers_it(self) -> None:
        fell = record("something_new", "left", what="fall", where="hip", on=ago(3))
        self.assertNotIn(("hip.bend", "ask"), self.hips(fell, given=ago(2)))
        self.assertIn(("hip.bend", "ask"), self.hips(fell, given=ago(3)))

    def test_an_operated_knee_asks_again_and_another_knee_does_not(self) -> None:
        fell = record("something_new", "left", what="fall", where="knee", on=ago(3))
        word = {"who": "surgeon", "date": ago(20), "scope": ["all"]}
        for operated, asks in (("yes", True), ("no", False)):
            sore = knee(operated=operated, operation_date=ago(40)) | {"clearances": [word]}
            found = severities(client([sore, fell], daily=[pain(0)]), "knee.ask_operation")
            self.assertEqual(("knee.ask_operation", "ask") in found, asks)

    def test_a_fall_makes_thin_bones_unsteady_for_a_year(self) -> None:
        for days, unsteady in ((365, True), (366, False)):
            fell = record("something_new", what="fall", on=ago(days))
            found = severities(client([bones(), fell]), "bones.hand_on_support")
            self.assertEqual(bool(found), unsteady, days)

    def test_it_is_said_for_four_weeks(self) -> None:
        for days, said in ((28, True), (29, False)):
            at = Situation.of(client([record("something_new", "left", what="flare", on=ago(days))]), TODAY, ROOM)
            notes = [english(note.text) for note in mind_of(at).notes if note.entry_id == "it"]
            self.assertEqual(any("a flare" in text for text in notes), said, days)
