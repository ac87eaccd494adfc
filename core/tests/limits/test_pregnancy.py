"""Pregnancy: weeks from the due date, the rules' boundary weeks, ticks, girdle pain, and after the birth."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

import numpy as np

from asketa_core import NoGrid, Side, Situation, Verdict, limits_on, next_change
from asketa_core.limits.model import Severity
from asketa_core.records.pregnancy import Facts as PregnancyFacts
from asketa_core.records.pregnancy import due_date, pregnancy_week
from asketa_core.words.findings import findings_at
from tests.library import variation
from tests.strategies import ROOM, TODAY, client, pain, pregnancy


def severities(week: int = 22, **facts: Any) -> dict[str, Severity]:
    return {limit.code: limit.severity for limit in limits_on(client([pregnancy(week, **facts)]), TODAY)}


def verdict(rung: str, week: int = 22, daily: list[dict[str, Any]] | None = None, **facts: Any) -> Verdict:
    file = client([pregnancy(week, **facts)], daily=daily or [])
    found = Situation.of(file, TODAY, ROOM).screen(variation(rung), Side.LEFT)
    assert not isinstance(found, NoGrid)
    return found.verdict


def cautions(rung: str, week: int) -> set[str]:
    """Codes of the pregnancy's rules that bite at the best set-up."""
    found = Situation.of(client([pregnancy(week)]), TODAY, ROOM).screen(variation(rung), Side.LEFT)
    assert not isinstance(found, NoGrid)
    return {code for finding in findings_at(found, found.best) for code in finding.codes}


class Weeks(TestCase):
    def test_count_completed_weeks_to_the_due_date(self) -> None:
        due = TODAY + dt.timedelta(days=280 - 7 * 20)
        self.assertEqual(pregnancy_week(PregnancyFacts(due_date=due), TODAY), 20)
        self.assertEqual(pregnancy_week(PregnancyFacts(due_date=due + dt.timedelta(days=1)), TODAY), 19)

    def test_come_from_the_last_period_or_from_weeks_on_a_date_as_well(self) -> None:
        start = TODAY - dt.timedelta(weeks=15)
        self.assertEqual(pregnancy_week(PregnancyFacts(last_period=start), TODAY), 15)
        known = PregnancyFacts(weeks_known=12, weeks_known_on=TODAY - dt.timedelta(weeks=3))
        self.assertEqual(pregnancy_week(known, TODAY), 15)
        self.assertEqual(due_date(known), due_date(PregnancyFacts(last_period=start)))

    def test_unknown_weeks_are_asked_for_where_a_week_would_stop(self) -> None:
        found = severities(due_date=None)
        self.assertIs(found["pregnancy.supine_quiet"], Severity.ASK)
        self.assertIs(found["pregnancy.supine"], Severity.CAUTION)
        self.assertIs(found["pregnancy.belly_pressed"], Severity.ASK)

    def test_with_the_number_of_babies_unknown_the_four_weeks_between_ask(self) -> None:
        for week, expected in ((15, None), (16, Severity.ASK), (19, Severity.ASK), (20, Severity.STOP)):
            self.assertEqual(severities(week, babies="unknown").get("pregnancy.supine_quiet"), expected, week)


class Boundaries(TestCase):
    def first_week(self, code: str, **facts: Any) -> int:
        return next(week for week in range(43) if code in severities(week, **facts))

    def test_rules_begin_in_their_week(self) -> None:
        starts = {
            "pregnancy.belly_pressed": 13, "pregnancy.closed_twist": 13, "pregnancy.prone_some": 13,
            "pregnancy.prone": 16, "pregnancy.supine": 16, "pregnancy.supine_quiet": 20,
            "pregnancy.balance": 16, "pregnancy.supine_long": 20, "pregnancy.standing_long": 28,
            "pregnancy.floor_chair": 28, "pregnancy.inversion": 28, "pregnancy.deep_squat": 34,
        }  # fmt: skip
        for code, week in starts.items():
            self.assertEqual(self.first_week(code), week, code)

    def test_twins_bring_every_week_four_earlier(self) -> None:
        self.assertEqual(self.first_week("pregnancy.supine_quiet", babies="twins"), 16)
        self.assertEqual(self.first_week("pregnancy.ask_twins", babies="twins"), 28)

    def test_lying_flat_is_left_out_from_week_20_and_resting_raised_stays_open(self) -> None:
        self.assertNotEqual(verdict("bound_angle.lying_blocks", 19), Verdict.LEAVE_OUT)
        self.assertIs(verdict("bound_angle.lying_blocks", 20), Verdict.LEAVE_OUT)
        self.assertNotEqual(verdict("bound_angle.reclined", 30), Verdict.LEAVE_OUT)

    def test_one_leg_wants_a_hand_on_something_and_room_for_balance(self) -> None:
        self.assertIn("pregnancy.one_leg", cautions("standing_balance.one_leg", 16))
        self.assertIn("pregnancy.balance", cautions("standing_balance.one_leg", 16))
        self.assertNotIn("pregnancy.one_leg", cautions("standing_balance.one_leg", 15))
        self.assertNotIn("pregnancy.one_leg", cautions("standing_balance.one_leg_chair", 16))

    def test_a_rest_of_minutes_flat_on_the_back_is_long_from_week_20(self) -> None:
        self.assertNotIn("pregnancy.supine_long", cautions("rest.calves", 19))
        self.assertIn("pregnancy.supine_long", cautions("rest.calves", 20))

    def test_a_go_ahead_for_lying_flat_counts_through_its_fifty_sixth_day(self) -> None:
        def given(days_ago: int) -> dict[str, Any]:
            return {"who": "midwife", "date": TODAY - dt.timedelta(days=days_ago), "scope": ["lying_flat"]}

        self.assertNotIn("pregnancy.supine_quiet", severities(24, clearances=[given(56)]))
        self.assertIn("pregnancy.supine_quiet", severities(24, clearances=[given(57)]))

    def test_the_next_change_is_known_in_advance(self) -> None:
        change = next_change(client([pregnancy(19)]), TODAY)
        assert change is not None
        self.assertEqual(change.date, TODAY + dt.timedelta(weeks=1))
        self.assertIn("pregnancy.supine_quiet", {limit.code for limit in change.begins})


class Ticks(TestCase):
    def test_a_list_nobody_asked_closes_nothing(self) -> None:
        self.assertEqual(severities(ticks=[]), severities())
        self.assertEqual(verdict("cross_legged.chair", ticks=[]), verdict("cross_legged.chair"))

    def test_a_go_ahead_counts_through_day_56_and_has_lapsed_from_57(self) -> None:
        for days_ago, lapsed in ((0, False), (56, False), (57, True), (200, True)):
            given = [{"who": "midwife", "date": TODAY - dt.timedelta(days=days_ago), "scope": ["activity"]}]
            self.assertEqual("pregnancy.lapsed" in severities(24, clearances=given), lapsed, days_ago)
        self.assertNotIn("pregnancy.lapsed", severities(24))

    def test_a_general_go_ahead_leaves_its_own_questions_open(self) -> None:
        for scope in ("activity", "all", "lying_flat"):
            given = [{"who": "midwife", "date": TODAY, "scope": [scope]}]
            self.assertIs(severities(34, clearances=given)["pregnancy.deep_squat"], Severity.ASK, scope)
        own = [{"who": "midwife", "date": TODAY, "scope": ["deep_squat"]}]
        self.assertNotIn("pregnancy.deep_squat", severities(34, clearances=own))
        self.assertNotIn("pregnancy.deep_squat", severities(34, baby_position="head_down", placenta="clear"))

    def test_blood_pressure_by_its_figures(self) -> None:
        for upper, lower, code in ((139, 89, None), (140, 80, "pregnancy.ask_pressure"), (120, 90, "pregnancy.ask_pressure"),
                                   (160, 80, "pregnancy.symptom"), (120, 110, "pregnancy.symptom")):  # fmt: skip
            found = severities(systolic=upper, diastolic=lower)
            for each in ("pregnancy.ask_pressure", "pregnancy.symptom"):
                self.assertEqual(each in found, each == code, (upper, lower))

    def test_something_happening_now_stops_gentle_work_too(self) -> None:
        self.assertIs(verdict("breath.sitting", symptoms_now=["bleeding"]), Verdict.LEAVE_OUT)
        self.assertNotIn(verdict("breath.sitting", ticks=["bleeding"]), (Verdict.LEAVE_OUT, Verdict.CHECK_FIRST))

    def test_none_of_these_is_a_clean_list(self) -> None:
        codes = severities(ticks=["none"])
        self.assertFalse({"pregnancy.doctor_first", "pregnancy.ask_go_ahead"} & set(codes))

    def test_what_belongs_to_the_doctor_closes_everything(self) -> None:
        self.assertIs(severities(ticks=["bleeding"])["pregnancy.doctor_first"], Severity.STOP)
        self.assertIs(verdict("cross_legged.chair", ticks=["bleeding"]), Verdict.LEAVE_OUT)

    def test_a_low_placenta_closes_from_week_26_and_is_asked_about_before(self) -> None:
        self.assertNotIn("pregnancy.doctor_first", severities(25, ticks=["low_placenta"]))
        self.assertIn("pregnancy.doctor_first", severities(26, ticks=["low_placenta"]))
        self.assertIn("pregnancy.ask_go_ahead", severities(25, ticks=["low_placenta"]))


class GirdlePain(TestCase):
    def test_the_knees_stay_within_nine_tenths_of_the_gap_free_of_pain(self) -> None:
        limits = limits_on(client([pregnancy(girdle_pain="yes", pain_free_gap_cm=50)]), TODAY)
        gap = next(limit for limit in limits if limit.code == "pregnancy.knee_gap")
        self.assertAlmostEqual(gap.terms[0].value, 45)

    def test_wide_knees_close_and_the_gap_is_asked_for_when_missing(self) -> None:
        self.assertIs(verdict("bound_angle.floor", girdle_pain="yes", pain_free_gap_cm=40), Verdict.LEAVE_OUT)
        self.assertIs(verdict("cross_legged.chair", girdle_pain="yes"), Verdict.CHECK_FIRST)

    def test_sore_today_or_not_asked_closes_split_stances(self) -> None:
        for daily, closed in (
            ([], Severity.ASK), ([pain(2, "pregnancy")], Severity.STOP), ([pain(0, "pregnancy")], None),
        ):  # fmt: skip
            file = client([pregnancy(girdle_pain="yes", pain_free_gap_cm=50)], daily=daily)
            codes = {limit.code: limit.severity for limit in limits_on(file, TODAY)}
            self.assertEqual(codes.get("pregnancy.split"), closed, daily)


class Bellies(TestCase):
    def test_a_deep_fold_presses_and_an_upright_chair_does_not_count(self) -> None:
        found = Situation.of(client([pregnancy(36)]), TODAY, ROOM).screen(variation("seated_fold.free"), Side.LEFT)
        assert not isinstance(found, NoGrid)
        lean = found.grid.batch.values["lean"]

        def pressed(row: int) -> list[int]:
            judged = found.stages_at(row)[0].judgements
            return [each.severity for each in judged if each.limit.code == "pregnancy.belly_pressed"]

        self.assertTrue(any(pressed(int(row)) for row in np.flatnonzero(lean >= 80)))
        self.assertFalse(any(Severity.STOP in pressed(int(row)) for row in np.flatnonzero(lean <= 20)))
        self.assertNotEqual(verdict("breath.sitting", 36), Verdict.LEAVE_OUT)


class AfterBirth(TestCase):
    def test_the_rest_waits_for_the_check(self) -> None:
        born = {"born_on": TODAY - dt.timedelta(days=10)}
        self.assertEqual(set(severities(40, **born)) & {"pregnancy.supine", "pregnancy.after_birth"},
                         {"pregnancy.after_birth"})  # fmt: skip
        checked = {"who": "midwife", "date": TODAY, "scope": ["after_birth"]}
        self.assertNotIn("pregnancy.after_birth", severities(40, clearances=[checked], **born))

    def test_past_the_due_date_without_a_birth_is_asked_about(self) -> None:
        self.assertNotIn("pregnancy.past_due", severities(40))
        self.assertIn("pregnancy.past_due", severities(41))
