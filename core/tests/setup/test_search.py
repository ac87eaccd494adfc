"""The search: verdicts, what it prefers, and what it says when the room has nothing."""

from __future__ import annotations

import datetime as dt
import math
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import SIDES, NoGrid, Room, Screened, Side, Situation, Verdict, best_few, parse
from asketa_core.client.holds import SlotValue
from asketa_core.clientfile import ClientFile
from asketa_core.limits.model import Severity
from asketa_core.setup.gates import own_limits
from asketa_core.words.findings import findings_at
from tests.library import variation, variations
from tests.strategies import ROOM, TODAY, client, hip, knee, pain

FREE = {("open_external_rotation", side): 60.0 for side in ("left", "right")}


def screened(rung: str, side: Side, file: ClientFile, room: Room = ROOM) -> Screened:
    found = Situation.of(file, TODAY, room).screen(variation(f"figure_four.{rung}"), side)
    assert not isinstance(found, NoGrid)
    return found


class Verdicts(TestCase):
    def test_without_records_the_plain_set_up_is_clear(self) -> None:
        for side in SIDES:
            self.assertIs(screened("block_flat", side, client(ranges=FREE)).verdict, Verdict.CLEAR)

    def test_a_replaced_hip_needs_a_set_up(self) -> None:
        file = client([hip()], ranges=FREE)
        found = screened("block_flat", Side.RIGHT, file)
        self.assertIs(found.verdict, Verdict.WITH_SETUP)
        self.assertGreater(found.grid.batch.values["seat"][found.best], 45)
        self.assertFalse(any(f.severity == "stop" for f in findings_at(found, found.best)))

    def test_the_other_leg_counts_too(self) -> None:
        """Working the left leg seats the right hip: its limits hold for the left lane."""
        found = screened("block_flat", Side.LEFT, client([hip()], ranges=FREE))
        self.assertIs(found.verdict, Verdict.WITH_SETUP)
        self.assertTrue(any(f.side == "right" for f in findings_at(found, found.grid.plain or 0)))

    def test_crossing_is_left_out_early_and_says_every_reason(self) -> None:
        found = screened("over_thigh", Side.RIGHT, client([hip(days_ago=30)], ranges=FREE))
        self.assertIs(found.verdict, Verdict.LEAVE_OUT)
        said = {code for finding in findings_at(found, found.best) for code in finding.codes}
        self.assertIn("hip.crossing_ankle", said)

    def test_an_open_question_is_check_first(self) -> None:
        file = client([knee(side="left", diagnosis="unknown", site="unknown")], ranges=FREE)
        self.assertIs(screened("over_thigh", Side.LEFT, file).verdict, Verdict.CHECK_FIRST)

    def test_what_every_set_up_has_to_be_minded_for_is_with_your_eye(self) -> None:
        file = client([knee(side="left", diagnosis="over_straightens")], daily=[pain(0)])
        found = Situation.of(file, TODAY, ROOM).screen(variation("standing_balance.mountain"), Side.LEFT)
        assert not isinstance(found, NoGrid)
        self.assertIs(found.verdict, Verdict.WITH_EYE)
        self.assertTrue(any(f.size > 0 for f in findings_at(found, found.recommended)))

    def test_a_verdict_and_its_set_up_agree_for_every_rung(self) -> None:
        situation = Situation.of(client([hip(days_ago=100)], ranges=FREE), TODAY, ROOM)
        for rung in variations():
            found = situation.screen(rung, Side.LEFT)
            if isinstance(found, NoGrid):
                continue
            row = found.recommended
            self.assertIs(found.verdict_at(row), found.verdict, rung.id)
            minded = [f for f in findings_at(found, row) if f.severity == "caution" and f.size > 0]
            if found.verdict in (Verdict.CLEAR, Verdict.WITH_SETUP):
                self.assertEqual(minded, [], rung.id)
            if found.verdict is Verdict.WITH_EYE:
                self.assertTrue(minded, rung.id)
            if found.verdict is Verdict.CLEAR:
                self.assertEqual(row, found.grid.plain)

    def test_a_soft_seat_is_never_chosen_for_a_replaced_hip(self) -> None:
        found = screened("block_flat", Side.RIGHT, client([hip()], ranges=FREE))
        soft = found.grid.batch.soft_seat
        self.assertTrue(soft.any())
        self.assertTrue((found.totals.stops[soft] > 0).all())

    def test_a_sore_knee_under_load_closes_standing_up_only_where_it_must(self) -> None:
        """The front of one knee is sore: the other leg carries the weight, that foot goes forward."""
        file = client([knee(side="left")], ranges=FREE, daily=[pain(5)])
        found = screened("block_flat", Side.RIGHT, file)
        self.assertIn(found.verdict, (Verdict.CLEAR, Verdict.WITH_SETUP))
        self.assertEqual(found.way_at(found.best).name, "left_forward")


class Preferences(TestCase):
    def test_the_order_is_lexicographic(self) -> None:
        """Shares inside the band are told apart in steps of 5 only, and none outside it goes before one inside."""
        found = screened("block_side", Side.RIGHT, client([hip()], ranges=FREE))

        def off(share: float) -> int:
            away = round(abs(share - 85), 1)
            return max(math.ceil(away / 5), 1) if 70 <= share <= 95 else 100 + round(away)

        keys = [
            (
                not found.possible[i], found.totals.stops[i], found.totals.asks[i] > 0, found.totals.size[i],
                found.totals.on_the_way[i], off(float(found.purpose[i])), found.grid.items[i],
            )
            for i in found.order
        ]  # fmt: skip
        self.assertEqual(keys, sorted(keys))

    def test_of_equals_the_seat_with_less_to_mind_getting_up_is_recommended(self) -> None:
        found = screened("block_side", Side.RIGHT, client([hip()], ranges=FREE))
        free = (found.totals.size == 0) & (found.totals.stops == 0) & (found.totals.asks == 0) & found.possible
        self.assertEqual(found.totals.on_the_way[found.recommended], found.totals.on_the_way[free].min())
        self.assertGreater(found.totals.on_the_way[free].max(), found.totals.on_the_way[free].min())

    def test_the_answer_is_the_same_every_time(self) -> None:
        file = client([hip()], ranges=FREE)
        first, second = (screened("block_end", Side.LEFT, file) for _ in range(2))
        np.testing.assert_array_equal(first.order, second.order)

    def test_the_few_are_allowed_and_different(self) -> None:
        found = screened("block_flat", Side.RIGHT, client([hip()], ranges=FREE))
        few = [row for _, row in best_few(found)]
        self.assertEqual(len(few), len(set(few)))
        self.assertTrue(all(found.allowed(row) for row in few))

    def test_what_was_last_used_is_found_again(self) -> None:
        found = screened("block_flat", Side.LEFT, client(ranges=FREE))
        for row in (0, found.best, found.grid.size - 1):
            self.assertEqual(found.grid.nearest(found.grid.setup(row)), row)

    def test_a_remembered_height_is_met_by_the_nearest_buildable_one(self) -> None:
        found = screened("block_flat", Side.LEFT, client(ranges=FREE))
        setup = {**found.grid.setup(found.best), "seat": SlotValue(stack="gone:seat", number=49.0)}
        row = found.grid.nearest(setup)
        self.assertAlmostEqual(float(found.grid.batch.values["seat"][row]), 49.2, delta=0.3)

    def test_a_sore_inner_meniscus_starts_with_the_foot_drawn_up(self) -> None:
        file = client([knee(side="right", diagnosis="inner_meniscus")], ranges=FREE, daily=[pain(2)])
        self.assertEqual(screened("block_flat", Side.RIGHT, file).grid.setup(0)["foot"].choice, "drawn_up")
        self.assertEqual(screened("block_flat", Side.LEFT, file).grid.setup(0)["foot"].choice, "at_rest")


class Offers(TestCase):
    """Beside the recommended set-up stands the next step, then what was done last; each once, and never one that is closed."""

    def offers(self, last: int | None, offered: int | None) -> dict[str, int]:
        self.found = screened("block_flat", Side.RIGHT, client([hip()], ranges=FREE))
        rows = [None if row is None else self.found.grid.setup(row) for row in (last, offered)]
        return {trade.value: row for trade, row in best_few(self.found, *rows)}

    def rows(self) -> tuple[int, int, int]:
        found = screened("block_flat", Side.RIGHT, client([hip()], ranges=FREE))
        open_rows = [int(row) for row in found.order if found.allowed(int(row)) and row != found.recommended]
        closed = next(int(row) for row in range(found.grid.size) if not found.allowed(row))
        return open_rows[5], open_rows[9], closed

    def test_the_next_step_comes_before_what_was_done_last(self) -> None:
        last, offered, _ = self.rows()
        found = self.offers(last, offered)
        self.assertEqual(list(found)[:3], ["recommended", "offered_next", "as_last_time"])
        self.assertEqual((found["offered_next"], found["as_last_time"]), (offered, last))

    def test_a_step_in_the_same_set_up_is_as_last_time(self) -> None:
        last, _, _ = self.rows()
        found = self.offers(last, last)
        self.assertEqual(found["as_last_time"], last)
        self.assertNotIn("offered_next", found)

    def test_what_is_closed_today_is_not_offered(self) -> None:
        last, _, closed = self.rows()
        self.assertNotIn("offered_next", self.offers(last, closed))
        self.assertNotIn("as_last_time", self.offers(closed, last))


class Rooms(TestCase):
    def test_a_room_without_blocks_says_so(self) -> None:
        bare = parse(Room, {"props": [{"id": "c", "kind": "chair", "count": 1}]})
        found = Situation.of(client(ranges=FREE), TODAY, bare).screen(variation("figure_four.block_end"), Side.LEFT)
        self.assertIsInstance(found, NoGrid)
        assert isinstance(found, NoGrid)
        self.assertEqual(found.slot, "foot_block")

    def test_no_set_up_takes_more_than_the_room_has(self) -> None:
        one_block = parse(
            Room, {"props": [{"id": "c", "kind": "chair", "count": 1}, {"id": "b", "kind": "block", "count": 1}]}
        )
        found = screened("block_flat", Side.LEFT, client(stature=152, ranges=FREE), one_block)
        for row in range(found.grid.size):
            stacks = found.grid.stacks(row)
            self.assertFalse(stacks["foot_block"].layers and stacks["rest_foot"].layers)


class Monotony(TestCase):
    @settings(max_examples=12)
    @given(
        st.floats(60, 110), st.floats(0, 40), st.sampled_from(["foot_on_floor", "block_side", "over_thigh"]),
        st.sampled_from(list(SIDES)), st.floats(35, 85),
    )  # fmt: skip
    def test_a_tighter_limit_never_improves_a_verdict(
        self, bend: float, tighter: float, rung: str, side: Side, out: float
    ) -> None:
        rank = list(Verdict)
        ranges = {("open_external_rotation", s): out for s in ("left", "right")}
        loose, tight = (
            screened(rung, side, client([hip(surgeon_bend_deg=degrees)], ranges=ranges)).verdict
            for degrees in (bend, max(30, bend - tighter))
        )
        self.assertGreaterEqual(rank.index(tight), rank.index(loose))


class OwnRules(TestCase):
    def test_a_pose_never_stops_by_itself(self) -> None:
        for rung in variations():
            for limit in own_limits(rung, Side.LEFT, client().latest_ranges(TODAY)):
                asks = limit.code.startswith("gate.") and limit.code.endswith("_unmeasured")
                self.assertIs(limit.severity, Severity.ASK if asks else Severity.CAUTION, limit.code)


def clearance(scope: str) -> dict[str, Any]:
    return {"who": "surgeon", "date": TODAY - dt.timedelta(days=1), "scope": [scope]}


class Lifting(TestCase):
    def test_a_clearance_opens_what_it_names(self) -> None:
        limited = client([hip(days_ago=100)], ranges={**FREE, ("open_external_rotation", "right"): 85.0})
        opened = client(
            [hip(days_ago=100, clearances=[clearance("bend")])],
            ranges={**FREE, ("open_external_rotation", "right"): 85.0},
        )
        self.assertIs(screened("over_thigh", Side.RIGHT, limited).verdict, Verdict.LEAVE_OUT)
        self.assertIn(screened("over_thigh", Side.RIGHT, opened).verdict, (Verdict.CLEAR, Verdict.WITH_SETUP))


class Gates(TestCase):
    """The tests before lotus: measured and reached, or asked about; never taken for granted."""

    def open_questions(
        self,
        rung: str,
        left: tuple[float, float] | None,
        right: tuple[float, float] | None,
        third: dict[str, str] | None = None,
    ) -> set[str]:
        named = ("knee_flexion", "open_external_rotation")
        sides = (("left", left), ("right", right))
        own = {(q, s): pair[i] for s, pair in sides if pair is not None for i, q in enumerate(named)}
        tests = [
            {"test": "moves_as_one", "side": side, "result": result, "date": TODAY}
            for side, result in (third or {}).items()
        ]
        found = Situation.of(client(ranges=own, tests=tests), TODAY, ROOM).screen(variation(rung), Side.LEFT)
        assert not isinstance(found, NoGrid)
        findings = findings_at(found, found.best)
        return {f"{f.severity} {code} {f.side}" for f in findings for code in f.codes if "gate." in code}

    def test_what_was_not_measured_is_asked_for(self) -> None:
        asked = self.open_questions("lotus.half", None, (150, 80))
        tests = ("knee_closes", "knee_drops", "moves_as_one")
        self.assertEqual(asked, {f"ask gate.{test}_unmeasured left" for test in tests})

    def test_the_figure_itself_passes(self) -> None:
        passed = {"left": "passed", "right": "passed"}
        self.assertEqual(self.open_questions("lotus.half", (145, 60), None, passed), set())
        self.assertEqual(self.open_questions("lotus.half", (144, 60), None, passed), {"stop gate.knee_closes left"})
        self.assertEqual(self.open_questions("lotus.half", (145, 59), None, passed), {"stop gate.knee_drops left"})

    def test_a_failed_test_closes_and_one_never_tried_asks(self) -> None:
        for result, expected in (
            ("passed", set()), ("not_passed", {"stop gate.moves_as_one left"}),
            ("not_tried", {"ask gate.moves_as_one_unmeasured left"}),
        ):  # fmt: skip
            self.assertEqual(self.open_questions("lotus.half", (150, 80), None, {"left": result}), expected)

    def test_full_lotus_needs_both_legs(self) -> None:
        passed = {"left": "passed", "right": "passed"}
        self.assertEqual(
            self.open_questions("lotus.full", (150, 80), (150, 40), passed), {"stop gate.knee_drops right"}
        )
        failed = {"left": "passed", "right": "not_passed"}
        self.assertEqual(
            self.open_questions("lotus.full", (150, 80), (150, 80), failed), {"stop gate.moves_as_one right"}
        )
