"""Bones: which row a record enters, what each row allows, and that too little known is strict."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import NoGrid, Screened, Side, Situation, Verdict, limits_on
from asketa_core.limits.model import Severity
from asketa_core.records.bones import Facts as BonesFacts
from asketa_core.records.bones import row_of, rows_possible
from asketa_core.words.findings import findings_at
from tests.library import variation
from tests.strategies import ROOM, TODAY, bones, client


def facts(**given: Any) -> BonesFacts:
    return BonesFacts.model_validate({"fractures": [], **given})


def codes(**given: Any) -> dict[str, Severity]:
    return {limit.code: limit.severity for limit in limits_on(client([bones(**given)]), TODAY)}


def screened(rung: str, **given: Any) -> Screened:
    found = Situation.of(client([bones(**given)]), TODAY, ROOM).screen(variation(rung), Side.LEFT)
    assert not isinstance(found, NoGrid)
    return found


def broken(bone: str, low_energy: str = "yes", days_ago: int = 400) -> dict[str, Any]:
    return {"bone": bone, "low_energy": low_energy, "date": TODAY - dt.timedelta(days=days_ago)}


class Rows(TestCase):
    def test_density_alone(self) -> None:
        for t_score, row in ((-2.5, 2), (-2.49, 3), (-1.01, 3), (-1.0, 0), (0.4, 0)):
            self.assertEqual(row_of(facts(t_score=t_score)), row, t_score)

    def test_a_vertebra_or_a_low_energy_hip_enters_the_first_row_at_any_density(self) -> None:
        self.assertEqual(row_of(facts(t_score=-0.5, fractures=[broken("vertebra", "no")])), 1)
        self.assertEqual(row_of(facts(t_score=-0.5, fractures=[broken("hip")])), 1)
        self.assertEqual(row_of(facts(t_score=-0.5, fractures=[broken("hip", "no")])), 0)

    def test_another_low_energy_fracture_makes_low_density_the_second_row(self) -> None:
        self.assertEqual(row_of(facts(t_score=-1.5, fractures=[broken("wrist")])), 2)
        self.assertEqual(row_of(facts(t_score=-1.5, fractures=[broken("wrist", "unknown")])), 2)
        self.assertEqual(row_of(facts(t_score=-1.5, fractures=[broken("wrist", "no")])), 3)
        self.assertEqual(row_of(facts(t_score=-0.8, fractures=[broken("wrist")])), 0)

    def test_too_little_known_asks_where_a_stricter_row_would_stop(self) -> None:
        found = codes(t_score=None, fractures=None)
        self.assertIs(found["bones.flexion_loaded"], Severity.ASK)
        self.assertIs(found["bones.moment"], Severity.CAUTION)
        self.assertEqual(rows_possible(BonesFacts()), (0, 3, 2, 1))
        self.assertEqual(rows_possible(facts(t_score=-1.5)), (3,))
        self.assertEqual(rows_possible(BonesFacts(t_score=-1.5)), (3, 2, 1))
        self.assertEqual(rows_possible(BonesFacts(t_score=-2.6)), (2, 1))

    def test_height_lost_brings_the_next_stricter_row_as_questions_until_pictures(self) -> None:
        for lost, how, asked in (
            (4, "unknown", True),
            (3.9, "recalled", False),
            (2, "measured", True),
            (1.9, "measured", False),
        ):
            found = codes(t_score=-1.8, height_lost_cm=lost, height_lost_how=how)
            self.assertEqual(found.get("bones.neck"), Severity.ASK if asked else None, (lost, how))
            self.assertIs(found["bones.flexion_far"], Severity.ASK if asked else Severity.STOP)

    def test_a_word_on_one_question_answers_no_other(self) -> None:
        def given(scope: str) -> list[dict[str, Any]]:
            return [{"who": "doctor", "date": TODAY, "scope": [scope]}]

        both = {"steroids": "yes", "height_lost_cm": 5}
        for scope in ("steroids", "imaging", "activity", "all", "fracture"):
            self.assertIn("bones.neck", codes(t_score=-1.8, **both, clearances=given(scope)), scope)
        self.assertNotIn("bones.neck", codes(t_score=-1.8, steroids="yes", clearances=given("steroids")))
        self.assertNotIn("bones.neck", codes(t_score=-1.8, height_lost_cm=5, clearances=given("imaging")))
        self.assertIn("bones.neck", codes(t_score=-1.8, steroids="yes", clearances=given("imaging")))

    @given(st.floats(-5, 3), st.floats(0, 3))
    def test_less_density_never_enters_a_milder_row(self, t_score: float, less: float) -> None:
        strictness = {1: 0, 2: 1, 3: 2, 0: 3}
        dense, thin = row_of(facts(t_score=t_score)), row_of(facts(t_score=max(-7, t_score - less)))
        assert dense is not None and thin is not None
        self.assertLessEqual(strictness[thin], strictness[dense])


class Flexion(TestCase):
    def test_a_rounded_fold_closes_though_its_moment_is_the_smaller(self) -> None:
        """The load on the back is never judged without its rounding."""
        found = screened("seated_fold.strap", fractures=[broken("vertebra")])
        self.assertIs(found.verdict, Verdict.LEAVE_OUT)
        said = {code for finding in findings_at(found, found.best) for code in finding.codes}
        self.assertIn("bones.flexion_loaded", said)

    def test_a_chair_with_a_straight_back_stays_open(self) -> None:
        found = screened("seated_fold.chair", fractures=[broken("vertebra")])
        self.assertIn(found.verdict, (Verdict.CLEAR, Verdict.WITH_SETUP))

    def test_lying_is_judged_by_its_own_figure(self) -> None:
        found = screened("bound_angle.lying_free")
        said = {code for finding in findings_at(found, found.best) for code in finding.codes}
        self.assertFalse({"bones.flexion_some", "bones.flexion_far"} & said)


class Getting(TestCase):
    def test_unsteady_means_a_chair_for_the_floor(self) -> None:
        for shaky in ({"fell_last_year": "yes"}, {"one_leg_stand_s": 9.9}, {"fell_last_year": "unknown"}):
            self.assertIn("bones.floor_chair", codes(**shaky), shaky)
        self.assertNotIn("bones.floor_chair", codes(one_leg_stand_s=10))
        unsteady = screened("cross_legged.level", fell_last_year="yes")
        self.assertTrue(unsteady.way_at(unsteady.best).name.startswith("chair_"))

    def test_unsteady_standing_has_a_hand_on_a_support(self) -> None:
        for rung, closed in (
            ("mountain", True),
            ("mountain_chair", False),
            ("one_leg_chair", False),
            ("one_leg", True),
        ):
            shaky = screened(f"standing_balance.{rung}", one_leg_stand_s=9)
            self.assertEqual(shaky.verdict is Verdict.LEAVE_OUT, closed, rung)
        self.assertIsNot(screened("standing_balance.mountain").verdict, Verdict.LEAVE_OUT)

    def test_a_fresh_vertebral_fracture_waits_for_the_doctor(self) -> None:
        self.assertIn("bones.fresh_fracture", codes(fractures=[broken("vertebra", days_ago=83)]))
        self.assertIs(screened("table.floor", fractures=[broken("vertebra", days_ago=83)]).verdict, Verdict.WITH_EYE)
        self.assertIs(
            screened("chair_twist.sideways", fractures=[broken("vertebra", days_ago=83)]).verdict, Verdict.CHECK_FIRST
        )
        self.assertNotIn("bones.fresh_fracture", codes(fractures=[broken("vertebra", days_ago=84)]))


class Sources(TestCase):
    def test_third_row_allows_more_than_the_first(self) -> None:
        first = {limit.code: limit for limit in limits_on(client([bones(fractures=[broken("vertebra")])]), TODAY)}
        third = {limit.code: limit for limit in limits_on(client([bones(-1.8)]), TODAY)}
        self.assertEqual(first["bones.flexion_loaded"].terms[1].value, 10)
        self.assertEqual(third["bones.flexion_far"].terms[1].value, 30)
        self.assertNotIn("bones.neck", third)
