"""Hip replacement: the rules at their boundary days, clearances, and what is not known."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from asketa_core import limits_on
from asketa_core.limits.model import Severity
from tests.strategies import TODAY, client, hip


def codes(*entries: dict[str, Any], on: dt.date = TODAY, **more: Any) -> dict[str, str]:
    """Severity by code of every limit the entries turn into."""
    file = client(list(entries), **more)
    return {limit.code: limit.severity.code for limit in limits_on(file, on) if limit.entry_id is not None}


def cleared(days_ago: int = 0, who: str = "surgeon", scope: tuple[str, ...] = ("all",)) -> dict[str, Any]:
    return {"who": who, "date": TODAY - dt.timedelta(days=days_ago), "scope": list(scope)}


class ByApproach(TestCase):
    def test_posterior(self) -> None:
        found = codes(hip(approach="posterior"))
        self.assertEqual([found.get(c) for c in ("hip.bend", "hip.midline", "hip.turned_in")], ["stop"] * 3)
        self.assertNotIn("hip.turned_out", found)

    def test_direct_anterior(self) -> None:
        found = codes(hip(approach="direct_anterior"))
        self.assertNotIn("hip.bend", found)
        self.assertNotIn("hip.midline", found)
        self.assertEqual(
            [found.get(c) for c in ("hip.extension", "hip.turned_out", "hip.turned_out_standing")], ["stop"] * 3
        )

    def test_anterolateral_adds_midline_and_abductors(self) -> None:
        found = codes(hip(approach="anterolateral"))
        self.assertEqual([found.get(c) for c in ("hip.midline", "hip.abductor_care", "hip.turned_out")], ["stop"] * 3)

    def test_lateral_leaves_seated_turning_out_free(self) -> None:
        found = codes(hip(approach="lateral"))
        self.assertNotIn("hip.turned_out", found)
        self.assertEqual(found["hip.turned_out_standing"], "stop")

    def test_unknown_takes_all_of_them_and_asks(self) -> None:
        found = codes(hip(approach="unknown"))
        every = ("hip.bend", "hip.midline", "hip.turned_in", "hip.extension", "hip.turned_out", "hip.abductor_care")
        self.assertEqual([found.get(c) for c in every], ["ask"] * len(every))
        limits = [limit for limit in limits_on(client([hip(approach="unknown")]), TODAY) if limit.code in every]
        self.assertEqual({limit.missing for limit in limits}, {("approach",)})


class ByWeek(TestCase):
    def test_floor_before_week_six_and_after(self) -> None:
        self.assertEqual(codes(hip(days_ago=41))["hip.floor"], "stop")
        six = codes(hip(days_ago=42))
        self.assertNotIn("hip.floor", six)
        self.assertEqual(six["hip.floor_ask"], "ask")

    def test_posterior_crossing_becomes_a_question_at_six_weeks(self) -> None:
        self.assertEqual(codes(hip(days_ago=41))["hip.crossing_ankle"], "stop")
        self.assertEqual(codes(hip(days_ago=42))["hip.crossing_ankle_ask"], "ask")

    def test_other_approaches_wait_for_twelve_weeks(self) -> None:
        self.assertEqual(codes(hip(days_ago=83, approach="lateral"))["hip.crossing_ankle"], "stop")
        self.assertNotIn("hip.crossing_ankle", codes(hip(days_ago=84, approach="lateral")))

    def test_week_twelve_ends_the_first_list_and_nothing_else(self) -> None:
        found = codes(hip(days_ago=84))
        for code in ("hip.crossing_knee", "hip.crossing_ankle_ask", "hip.floor_ask", "hip.pivot"):
            self.assertNotIn(code, found)
        self.assertEqual(found["hip.bend"], "stop")

    def test_the_week_setting_moves_it(self) -> None:
        self.assertIn("hip.pivot", codes(hip(days_ago=84), settings={"first_weeks_after_hip": 13}))

    def test_a_little_extension_from_week_six(self) -> None:
        early = codes(hip(days_ago=41, approach="direct_anterior"))
        self.assertEqual(early["hip.extension_early"], "stop")
        later = codes(hip(days_ago=42, approach="direct_anterior"))
        self.assertNotIn("hip.extension_early", later)
        self.assertEqual(later["hip.extension_some"], "caution")

    def test_an_unknown_date_asks_where_the_first_weeks_would_stop(self) -> None:
        found = codes(hip(date=None))
        self.assertEqual(found["hip.floor"], "ask")
        self.assertEqual(found["hip.alone_free"], "ask")
        self.assertEqual(found["hip.alone"], "caution")
        self.assertEqual(found["hip.bend"], "stop")

    def test_alone_on_the_leg_without_a_hand_by_weeks(self) -> None:
        for days_ago, expected in (
            (41, "hip.alone_free"),
            (42, "hip.alone_later"),
            (83, "hip.alone_later"),
            (84, None),
        ):
            found = codes(hip(days_ago=days_ago))
            for code in ("hip.alone_free", "hip.alone_later"):
                self.assertEqual(code in found, code == expected, (days_ago, code))


class Clearances(TestCase):
    def test_ends_its_scope_only_from_its_date(self) -> None:
        entry = hip(clearances=[cleared(scope=("bend",))])
        self.assertNotIn("hip.bend", codes(entry))
        self.assertIn("hip.midline", codes(entry))
        self.assertIn("hip.bend", codes(entry, on=TODAY - dt.timedelta(days=1)))

    def test_after_everything_is_cleared_cautions_remain(self) -> None:
        found = codes(hip(days_ago=100, clearances=[cleared()]))
        self.assertNotIn("hip.bend", found)
        self.assertEqual(found["hip.after_bend"], "caution")

    def test_early_clearance_counts_but_not_for_the_first_weeks(self) -> None:
        found = codes(hip(days_ago=20, clearances=[cleared()]))
        self.assertNotIn("hip.bend", found)
        self.assertEqual(found["hip.floor"], "stop")

    def test_for_life_is_for_life(self) -> None:
        self.assertIn("hip.bend", codes(hip(days_ago=4000, school="for_life", clearances=[cleared()])))

    def test_after_a_dislocation_only_the_surgeon_counts(self) -> None:
        by_physio = [cleared(who="physiotherapist")]
        self.assertIn("hip.bend", codes(hip(dislocated="yes", clearances=by_physio)))
        self.assertIn("hip.bend", codes(hip(dislocated="unknown", clearances=by_physio)))
        self.assertNotIn("hip.bend", codes(hip(dislocated="no", clearances=by_physio)))
        self.assertNotIn("hip.bend", codes(hip(dislocated="yes", clearances=[cleared()])))

    def test_trouble_since_makes_every_ended_precaution_a_question(self) -> None:
        running = {limit.code: limit for limit in limits_on(client([hip()]), TODAY)}
        again = {
            limit.code: limit for limit in limits_on(client([hip(trouble_since="yes", clearances=[cleared()])]), TODAY)
        }
        for code in ("hip.bend", "hip.midline", "hip.turned_in"):
            self.assertEqual((running[code].severity, again[code].severity), (Severity.STOP, Severity.ASK), code)
            self.assertEqual(running[code].terms, again[code].terms)
            self.assertEqual(again[code].missing, ("word_since",))
        for answer in ("no", "unknown"):
            self.assertNotIn("hip.bend", codes(hip(trouble_since=answer, clearances=[cleared()])))

    def test_what_was_never_cleared_stays_a_stop_after_a_fall(self) -> None:
        self.assertEqual(codes(hip(trouble_since="yes"))["hip.bend"], "stop")
        some = codes(hip(trouble_since="yes", clearances=[cleared(scope=["bend"])]))
        self.assertEqual((some["hip.bend"], some["hip.midline"]), ("ask", "stop"))

    def test_a_clearance_given_after_the_trouble_answers_it(self) -> None:
        for days_ago, asked in ((3, True), (4, True), (5, False)):
            fell = {"trouble_since": "yes", "trouble_on": TODAY - dt.timedelta(days=days_ago)}
            found = codes(hip(clearances=[cleared(days_ago=4)], **fell))
            self.assertEqual("hip.bend" in found, asked, days_ago)

    def test_a_symptom_stops_whatever_has_been_cleared(self) -> None:
        found = codes(hip(symptoms_now=["calf_pain_or_swelling"], clearances=[cleared()]))
        self.assertEqual(found["hip.symptom"], "stop")
        self.assertNotIn("hip.symptom", codes(hip(symptoms_now=["none"])))

    def test_the_surgeons_own_figure_replaces_the_usual_one(self) -> None:
        for degrees in (70.0, 100.0):
            file = client([hip(surgeon_bend_deg=degrees)])
            bend = next(limit for limit in limits_on(file, TODAY) if limit.code == "hip.bend")
            self.assertEqual(bend.terms[0].above, degrees)


class Facts(TestCase):
    def test_partial_weight_bearing_stops_standing_on_one_leg(self) -> None:
        self.assertEqual(codes(hip(weight_bearing="partial"))["hip.one_leg"], "stop")
        self.assertEqual(codes(hip(weight_bearing="unknown"))["hip.one_leg"], "ask")
        self.assertNotIn("hip.one_leg", codes(hip(days_ago=84, weight_bearing="unknown")))

    def test_half_a_hip_after_a_fall_opens_the_bone_questions(self) -> None:
        self.assertIn("bones.flexion_loaded", codes(hip(prosthesis="half", half_because="fall")))
        self.assertNotIn("bones.flexion_loaded", codes(hip(prosthesis="half", half_because="arthritis")))

    def test_an_unknown_abductor_repair_is_asked_about(self) -> None:
        self.assertEqual(codes(hip(abductor_repair="unknown"))["hip.abductor_repair"], "ask")
        self.assertEqual(codes(hip(abductor_repair="yes"))["hip.abductor_repair"], "stop")
        self.assertNotIn("hip.abductor_repair", codes(hip(abductor_repair="no")))
        self.assertNotIn("hip.abductor_repair", codes(hip(days_ago=84, abductor_repair="yes")))

    def test_measuring_since_the_operation_answers_the_question(self) -> None:
        self.assertIn("hip.measure_first", codes(hip()))
        self.assertNotIn("hip.measure_first", codes(hip(), ranges={("hip_flexion", "right"): 95}))
        self.assertIn("hip.measure_first", codes(hip(), ranges={("hip_flexion", "left"): 95}))
