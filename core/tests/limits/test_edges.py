"""The days, conjunctions and sides at which a rule turns: one slip in a rule's code and one of these fails."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from asketa_core import SIDES, changes_ahead, limits_on
from asketa_core.records.calendar import AHEAD_DAYS
from asketa_core.records.hip_replacement import precaution_scopes
from tests.strategies import TODAY, bones, client, hip, knee, pain


def found(*entries: dict[str, Any], on: dt.date = TODAY, **more: Any) -> set[str]:
    return {limit.code for limit in limits_on(client(list(entries), **more), on) if limit.entry_id is not None}


def given(who: str, scope: str = "all", days_ago: int = 0) -> dict[str, Any]:
    return {"who": who, "date": TODAY - dt.timedelta(days=days_ago), "scope": [scope]}


class HipEdges(TestCase):
    def test_only_the_surgeon_clears_a_revision_or_a_dislocation(self) -> None:
        for facts in ({"prosthesis": "revision"}, {"dislocated": "yes"}, {"dislocated": "unknown"}):
            for who, counts in (("surgeon", True), ("physiotherapist", False), ("doctor", False)):
                entry = hip(days_ago=300, clearances=[given(who)], **facts)
                self.assertEqual("hip.bend" not in found(entry), counts, (facts, who))
        self.assertNotIn("hip.bend", found(hip(days_ago=300, clearances=[given("physiotherapist")])))

    def test_a_clearance_counts_from_its_own_day(self) -> None:
        for days_ago, counts in ((0, True), (-1, False)):
            entry = hip(days_ago=300, clearances=[given("surgeon", days_ago=days_ago)])
            self.assertEqual("hip.bend" not in found(entry), counts)

    def test_each_approach_runs_until_all_its_scopes_are_cleared(self) -> None:
        self.assertEqual(set(precaution_scopes("posterior")), {"bend", "midline", "turning_in"})
        self.assertEqual(set(precaution_scopes("direct_anterior")), {"turning_out", "extension"})
        for approach in ("anterolateral", "lateral"):
            self.assertEqual(set(precaution_scopes(approach)), {"midline", "turning_out", "extension", "abductors"})
        entry = hip(
            days_ago=300, approach="lateral", clearances=[given("surgeon", s) for s in ("midline", "extension")]
        )
        self.assertIn("hip.soft_seat", found(entry))

    def test_only_a_measure_of_that_hip_since_the_operation_counts(self) -> None:
        def measured(quantity: str, side: str, days_ago: int) -> bool:
            reading = {
                "quantity": quantity, "side": side, "value_deg": 60, "method": "goniometer",
                "date": TODAY - dt.timedelta(days=days_ago),
            }  # fmt: skip
            file = client([hip(side="right", days_ago=100)]).model_dump(mode="json") | {"ranges": [reading]}
            return "hip.measure_first" not in {limit.code for limit in limits_on(_parsed(file), TODAY)}

        self.assertTrue(measured("hip_flexion", "right", 100))
        self.assertTrue(measured("open_external_rotation", "right", 3))
        self.assertFalse(measured("hip_flexion", "right", 101))
        self.assertFalse(measured("hip_flexion", "left", 3))
        self.assertFalse(measured("knee_flexion", "right", 3))

    def test_the_sixth_week_and_the_last_of_the_first_weeks(self) -> None:
        for days_ago, code in ((41, "hip.floor"), (42, "hip.floor_ask"), (83, "hip.floor_ask"), (84, None)):
            codes = found(hip(days_ago=days_ago))
            for each in ("hip.floor", "hip.floor_ask"):
                self.assertEqual(each in codes, each == code, days_ago)


class KneeEdges(TestCase):
    def test_locking_and_swelling_together_want_a_doctor(self) -> None:
        for locks, swells, wanted in (("yes", "yes", True), ("yes", "no", False), ("no", "yes", False)):
            codes = found(knee(locks_or_gives_way=locks, swelling=swells))
            self.assertEqual("knee.see_doctor" in codes, wanted)

    def test_a_measure_of_the_other_knee_is_no_measure(self) -> None:
        for side, asked in (("left", False), ("right", True)):
            entry = knee(side="left", diagnosis="replacement", operated="yes", operation_date="2024-01-01")
            codes = found(entry, ranges={("knee_flexion", side): 110})
            self.assertEqual("knee.replaced_measure" in codes, asked)

    def test_sore_from_four_and_very_sore_from_five_or_when_stirred_up(self) -> None:
        for score, irritable, sore, very in ((3, "no", False, False), (4, "no", True, False), (5, "no", True, True),
                                             (0, "yes", True, True)):  # fmt: skip
            daily = [pain(score, irritable=irritable)]
            self.assertEqual("knee.front_bend_sore" in found(knee(), daily=daily), sore)
            self.assertEqual("knee.arthritis_bend_sore" in found(knee(diagnosis="arthritis"), daily=daily), very)

    def test_an_answer_counts_for_a_fortnight(self) -> None:
        for days_ago, known in ((14, True), (15, False)):
            self.assertEqual("knee.twist_painful" not in found(knee(), daily=[pain(0, days_ago=days_ago)]), known)

    def test_spans_after_an_operation_or_injury_end_on_their_day(self) -> None:
        for days_ago, fresh in ((83, True), (84, False)):
            day = (TODAY - dt.timedelta(days=days_ago)).isoformat()
            self.assertEqual("knee.ask_operation" in found(knee(operated="yes", operation_date=day)), fresh)
            calm = knee(diagnosis="lcl", since=day)
            self.assertEqual("knee.forced" in found(calm, daily=[pain(1, irritable="no")]), fresh)
        for days_ago, fresh in ((181, True), (182, False)):
            day = (TODAY - dt.timedelta(days=days_ago)).isoformat()
            entry = knee(diagnosis="meniscus_repaired", operated="yes", operation_date=day)
            self.assertEqual("knee.repair_twist" in found(entry), fresh)
        for days_ago, fresh in ((364, True), (365, False)):
            day = (TODAY - dt.timedelta(days=days_ago)).isoformat()
            self.assertEqual("knee.ligament_pivot" in found(knee(diagnosis="acl", since=day)), fresh)


class BoneEdges(TestCase):
    def test_rows_turn_at_their_scores(self) -> None:
        for score, code in ((-2.5, "bones.flexion_some"), (-2.4, "bones.flexion_some"), (-1.0, None)):
            codes = found(bones(score))
            self.assertEqual("bones.flexion_far" in codes, code is not None, score)
            self.assertEqual("bones.rotation" in codes, score == -2.5, score)

    def test_another_low_energy_fracture_makes_row_three_row_two(self) -> None:
        wrist = {"bone": "wrist", "low_energy": "yes"}
        self.assertIn("bones.rotation", found(bones(-1.5, fractures=[wrist])))
        self.assertNotIn("bones.rotation", found(bones(-1.5, fractures=[{**wrist, "low_energy": "no"}])))

    def test_unsteady_below_ten_seconds_or_after_a_fall(self) -> None:
        for facts, unsteady in (
            ({"one_leg_stand_s": 9.9}, True), ({"one_leg_stand_s": 10}, False), ({"fell_last_year": "yes"}, True),
            ({"fell_last_year": "unknown"}, True),
        ):  # fmt: skip
            self.assertEqual("bones.hand_on_support" in found(bones(**facts)), unsteady, facts)

    def test_a_broken_vertebra_is_fresh_for_twelve_weeks(self) -> None:
        for days_ago, fresh in ((83, True), (84, False)):
            broken = {"bone": "vertebra", "date": (TODAY - dt.timedelta(days=days_ago)).isoformat()}
            self.assertEqual("bones.fresh_fracture" in found(bones(fractures=[broken])), fresh)


class Spans(TestCase):
    def test_a_record_counts_on_its_first_and_its_last_day(self) -> None:
        for name, value, counts in (
            ("until_date", 0, True), ("until_date", -1, False), ("from_date", 0, True), ("from_date", 1, False),
        ):  # fmt: skip
            entry = hip() | {name: (TODAY + dt.timedelta(days=value)).isoformat()}
            self.assertEqual("hip.bend" in found(entry), counts, (name, value))

    def test_the_calendar_looks_ahead_through_its_last_day(self) -> None:
        for ahead, seen in ((AHEAD_DAYS, True), (AHEAD_DAYS + 1, False)):
            entry = hip() | {"until_date": (TODAY + dt.timedelta(days=ahead - 1)).isoformat()}
            days = {change.date for change in changes_ahead(client([entry]), TODAY)}
            self.assertEqual(TODAY + dt.timedelta(days=ahead) in days, seen)

    def test_limits_of_a_side_are_that_sides(self) -> None:
        for side in SIDES:
            limits = [m for m in limits_on(client([hip(side=side.value)]), TODAY) if m.code == "hip.bend"]
            self.assertEqual([limit.side for limit in limits], [side])


def _parsed(file: dict[str, Any]) -> Any:
    from asketa_core import ClientFile, parse  # noqa: PLC0415

    return parse(
        ClientFile,
        {key: value for key, value in file.items() if value is not None}
        | {"entries": [{k: v for k, v in entry.items() if v is not None} for entry in file["entries"]]},
    )
