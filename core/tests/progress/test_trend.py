"""One side over time: counts, the furthest calm step, and a slope that says no more than is known."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import theilslopes

from asketa_core import Library, SlotValue, Trend, Trial, furthest_words, slope_words, support_of, trend_of
from asketa_core.progress.responses import Judged, judge_response
from asketa_core.progress.trend import LEAST_SESSIONS, LEAST_WEEKS, slope_of
from tests.library import LIBRARY
from tests.progress.test_responses import response
from tests.speech import english
from tests.strategies import TODAY

NOW = dt.datetime.combine(TODAY + dt.timedelta(days=30), dt.time(10), tzinfo=dt.UTC)
FLAT, ON_SIDE, ON_END = "figure_four.block_flat", "figure_four.block_side", "figure_four.block_end"


def held(*sessions: dict[str, Any], every: int = 7) -> list[Judged]:
    found = []
    for place, session in enumerate(sessions):
        date = TODAY - dt.timedelta(days=every * (len(sessions) - place))
        found.append(judge_response(response(**{"date": date, "id": str(place), **session}), 2, NOW))
    return found


def trend(*sessions: dict[str, Any], library: Library = LIBRARY) -> Trend:
    return trend_of(held(*sessions), library)


CALM: dict[str, Any] = {"variation": ON_SIDE}
FLARE = {**CALM, "kind": "sharp"}
WATCH = {**CALM, "signs": ["wobble"]}
PENDING = {**CALM, "settled_next_morning": "unknown"}


class Supports(TestCase):
    def test_the_highest_besides_the_seat_with_the_way_it_lessens(self) -> None:
        rung = LIBRARY.variation(ON_SIDE)
        used = {"seat": SlotValue(stack="x", number=49.0), "foot_block": SlotValue(stack="y", number=15.0)}
        found = support_of(rung, used)
        assert found is not None
        self.assertEqual((english(found.label), found.height_cm, found.less), ("Foot block", 15.0, "up"))

    def test_a_seat_alone_and_what_the_rung_no_longer_has_are_none(self) -> None:
        rung = LIBRARY.variation(ON_SIDE)
        self.assertIsNone(support_of(rung, {"seat": SlotValue(stack="x", number=49.0), "gone": SlotValue(number=60.0)}))


class Counts(TestCase):
    def test_calm_in_a_row_ends_at_anything_else_but_what_is_not_known(self) -> None:
        self.assertEqual(trend(CALM, CALM, FLARE, CALM, CALM, CALM).calm_in_a_row, 3)
        self.assertEqual(trend(WATCH, CALM, PENDING).calm_in_a_row, 1)
        self.assertEqual(trend(CALM, WATCH).calm_in_a_row, 0)
        self.assertEqual(trend(CALM, {**CALM, "dose_s": 50}, {**CALM, "dose_s": 50}).calm_in_a_row, 2)
        self.assertEqual(trend().calm_in_a_row, 0)

    def test_they_are_those_the_decision_counts(self) -> None:
        other = Trial.model_validate({
            "id": "t", "date": TODAY - dt.timedelta(days=2), "variation": ON_SIDE, "side": "left", "slot": "foot",
            "a": {"choice": "at_rest"}, "b": {"choice": "drawn_up"}, "felt_a": 3, "felt_b": 1, "kept": "b",
        })  # fmt: skip
        at_rest = {**CALM, "setup": {"foot": SlotValue(choice="at_rest")}}
        judged = held(at_rest, at_rest)
        self.assertEqual(trend_of(judged, LIBRARY).calm_in_a_row, 2)
        # Since both were tried the side stands elsewhere, and nothing was calm there yet.
        self.assertEqual(trend_of(judged, LIBRARY, [other]).calm_in_a_row, 0)

    def test_several_rounds_of_a_day_are_one_session_and_one_flare(self) -> None:
        twice = {**FLARE, "date": TODAY - dt.timedelta(days=3)}
        found = trend(CALM, twice, {**twice, "id": "again"})
        self.assertEqual((found.sessions, found.flares), (2, 1))


class Furthest(TestCase):
    def test_the_rung_furthest_on_that_was_calm_ever(self) -> None:
        found = trend({**CALM, "variation": ON_END}, {**FLARE, "variation": "figure_four.over_thigh"}, CALM)
        assert found.furthest is not None
        self.assertEqual(found.furthest.response.variation, ON_END)

    def test_of_one_rung_the_one_with_less_support_then_the_longer(self) -> None:
        def at(seat: float, dose_s: int) -> dict[str, Any]:
            return {**CALM, "setup": {"seat": SlotValue(number=seat, stack="x")}, "dose_s": dose_s}

        found = trend(at(50, 60), at(45, 40), at(45, 50), at(55, 90))
        assert found.furthest is not None
        self.assertEqual((found.furthest.response.setup["seat"].number, found.furthest.response.dose_s), (45, 50))

    def test_nothing_where_nothing_was_calm(self) -> None:
        found = trend(FLARE, WATCH, PENDING)
        self.assertIsNone(found.furthest)
        self.assertEqual(english(furthest_words(found, LIBRARY)), "")

    def test_its_words(self) -> None:
        said = english(furthest_words(trend({**CALM, "date": dt.date(2026, 3, 9)}), LIBRARY))
        self.assertTrue(said.startswith("on its side, 40 s"), said)
        self.assertIn("9 March", said)


class Slopes(TestCase):
    def test_few_sessions_or_a_short_time_say_nothing(self) -> None:
        weekly = [(float(week), 3.0) for week in range(LEAST_SESSIONS)]
        self.assertIsNone(slope_of(weekly[1:]))
        self.assertIsNotNone(slope_of(weekly))
        self.assertIsNone(slope_of([(week * LEAST_WEEKS / LEAST_SESSIONS, 3.0) for week, _ in weekly]))

    def test_one_odd_day_does_not_bend_it(self) -> None:
        points = [(float(week), 5.0 - 0.5 * week) for week in range(8)]
        points[3] = (3.0, 10.0)
        found = slope_of(points)
        assert found is not None
        self.assertAlmostEqual(found.per_week, -0.5)

    @settings(max_examples=80, deadline=None)
    @given(st.lists(st.integers(0, 10), min_size=LEAST_SESSIONS, max_size=25))
    def test_median_and_spread_as_the_book_has_them(self, values: list[int]) -> None:
        points = [(float(week), float(value)) for week, value in enumerate(values)]
        found = slope_of(points)
        assert found is not None
        self.assertTrue(found.low <= found.per_week <= found.high)
        book = theilslopes(values, range(len(values)), 0.95)
        self.assertAlmostEqual(found.per_week, book.slope)
        # The book's ranks are rounded; ours are never narrower.
        self.assertLessEqual(found.low, book.low_slope + 1e-9)
        self.assertGreaterEqual(found.high, book.high_slope - 1e-9)

    def test_words_claim_no_more_than_the_spread_allows(self) -> None:
        def said(*during: int) -> str:
            return english(slope_words(trend(*({**CALM, "during": each} for each in during))))

        self.assertEqual(said(1, 2), "Too few sessions to tell where discomfort goes.")
        self.assertRegex(said(2, 0, 1, 2, 0, 1, 2), "^Discomfort: no clear change")
        self.assertRegex(said(8, 7, 6, 5, 4, 3, 2, 1), r"^Discomfort falls by 1 a week \(between")
        self.assertRegex(said(1, 2, 3, 4, 5, 6, 7, 8), r"^Discomfort rises by 1 a week \(between")
        self.assertEqual(said(), "")
