"""The front door: rulers, details and lines of a screened set-up."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import get_args
from unittest import TestCase

from asketa_core import NoGrid, Screened, SetupDetail, Side, Situation, detail_at, lane_answer, rulers_on, say
from asketa_core.client.measures import Bound
from asketa_core.screening.rulers import Ruler
from tests.library import variation
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, groin, hip, knee, pain

FREE = {("open_external_rotation", side): 60.0 for side in ("left", "right")}


def rulers_of_best(situation: Situation, rung: str, side: Side) -> dict[str, list[Ruler]]:
    found = situation.screen(variation(rung), side)
    assert isinstance(found, Screened)
    return rulers_on(situation, found, found.recommended)


class Details(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.situation = Situation.of(client([hip()], ranges=FREE), TODAY, ROOM)
        found = cls.situation.screen(variation("figure_four.block_flat"), Side.RIGHT)
        assert isinstance(found, Screened)
        cls.screened = found

    def detail(self) -> SetupDetail:
        return detail_at(self.situation, self.screened, self.screened.best)

    def rulers(self) -> dict[str, list[Ruler]]:
        return rulers_on(self.situation, self.screened, self.screened.best)

    def ruler(self, name: str, side: Side) -> Ruler:
        return next(r for r in self.rulers()[side.value] if r.readout == name)

    def test_a_limit_is_the_boundary_where_there_is_one(self) -> None:
        bend = self.ruler("hip_bend", Side.RIGHT)
        self.assertEqual((bend.boundary, bend.boundary_kind), (90, "limit"))
        assert bend.boundary_label is not None
        self.assertEqual(english(bend.boundary_label), "hip replaced, posterior, week 9")

    def test_a_joints_own_range_is_compared_with_its_closing_never_with_the_trunk(self) -> None:
        for side in Side:
            self.assertEqual(self.ruler("hip_closing", side).boundary_kind, "range")
        self.assertIsNone(self.ruler("hip_bend", Side.LEFT).boundary)
        for rulers in rulers_of_best(Situation.of(client(), TODAY, ROOM), "squat.chair", Side.LEFT).values():
            self.assertNotIn("hip_bend", {ruler.readout for ruler in rulers})

    def test_else_the_clients_range_measured_or_typical(self) -> None:
        turned, knee_bend = self.ruler("hip_external_rotation", Side.RIGHT), self.ruler("knee_flexion", Side.RIGHT)
        self.assertEqual((turned.boundary, turned.boundary_kind, turned.typical), (60, "range", False))
        self.assertEqual((knee_bend.boundary, knee_bend.typical), (145, True))

    def test_margins_are_taken_from_the_worst_and_the_worst_comes_first(self) -> None:
        for side in ("left", "right"):
            rulers = self.rulers()[side]
            margins = [r.margin for r in rulers if r.margin is not None]
            self.assertEqual(margins, sorted(margins))
            for ruler in rulers:
                if ruler.boundary is not None:
                    self.assertAlmostEqual(ruler.margin or 0, ruler.boundary - ruler.shown)
                self.assertLessEqual(ruler.low, ruler.value)
                self.assertGreaterEqual(ruler.error, 5)

    def test_what_to_fetch_is_what_the_set_up_is_made_of(self) -> None:
        detail = self.detail()
        self.assertEqual(len(detail.fetch), len(set(detail.fetch)))
        self.assertTrue(any(english(item).startswith("chair") for item in detail.fetch))
        self.assertIn("block", english(detail.line))
        self.assertEqual(detail.items, sum(stack.items for stack in self.screened.grid.stacks(detail.index).values()))

    def test_getting_in_and_out_is_said(self) -> None:
        self.assertIn("foot forward", english(self.detail().technique_words))


class RoomBeforeThePinch(TestCase):
    """Wherever a pinch is recorded, the room that is left is a ruler of its own, the other way round."""

    def test_is_a_ruler_on_the_recorded_side_of_every_rung(self) -> None:
        situation = Situation.of(client([groin(straight_deg=95.0, turned_out_deg=110.0)]), TODAY, ROOM)
        for rung in ("rest.chair", "figure_four.block_flat", "squat.chair", "lying_twist.free", "hip_hinge.stick"):
            for lane in Side:
                found = rulers_of_best(situation, rung, lane)
                named = {side: [r.readout for r in rulers] for side, rulers in found.items()}
                self.assertIn("groin_room", named["right"], rung)
                self.assertNotIn("groin_room", named["left"], rung)

    def test_counts_from_the_narrowest_and_keeps_five_degrees(self) -> None:
        situation = Situation.of(client([groin(straight_deg=95.0, turned_out_deg=110.0)]), TODAY, ROOM)
        rulers = rulers_of_best(situation, "hip_hinge.stick", Side.RIGHT)
        ruler = next(r for r in rulers["right"] if r.readout == "groin_room")
        self.assertEqual((ruler.boundary, ruler.boundary_kind, ruler.at_least), (5, "limit", True))
        self.assertAlmostEqual(ruler.margin or 0.0, ruler.low - 5)
        self.assertGreaterEqual(ruler.low, 5)


class SeenOnTheMat(TestCase):
    """A bound seen otherwise is something to mind from its date, on its side, until it is taken back."""

    STIFF = {("knee_flexion", side): 100.0 for side in ("left", "right")}

    def unmet(self, *seen: dict[str, object]) -> set[str | None]:
        file = client(ranges=self.STIFF, seen=list(seen))
        answer = lane_answer(Situation.of(file, TODAY, ROOM), variation("hero.one_block"), Side.LEFT)
        assert answer.best is not None
        return {each.bound for each in answer.best.unmet}

    def looked(self, side: str, **more: object) -> dict[str, object]:
        return {"bound": "knee_range", "side": side, "date": TODAY - dt.timedelta(days=3), **more}

    def test_lifts_only_what_was_seen_and_only_while_it_holds(self) -> None:
        self.assertIn("knee_range", self.unmet())
        self.assertIn("knee_range", self.unmet(self.looked("left")))
        self.assertNotIn("knee_range", self.unmet(self.looked("left"), self.looked("right")))
        both = [self.looked(side, until=TODAY) for side in ("left", "right")]
        self.assertIn("knee_range", self.unmet(*both))
        both = [self.looked(side, until=TODAY + dt.timedelta(days=1)) for side in ("left", "right")]
        self.assertNotIn("knee_range", self.unmet(*both))

    def test_says_so_in_its_own_words(self) -> None:
        file = client(ranges=self.STIFF, seen=[self.looked("left"), self.looked("right")])
        answer = lane_answer(Situation.of(file, TODAY, ROOM), variation("hero.one_block"), Side.LEFT)
        assert answer.best is not None
        told = [english(finding.sentence) for finding in answer.best.findings]
        self.assertTrue(any("left knee was seen to bend this far" in sentence for sentence in told), told)
        self.assertFalse(any("known only roughly" in sentence for sentence in told), told)

    def test_every_bound_that_seeing_lifts_has_words(self) -> None:
        for bound in get_args(Bound):
            for section in ("troubles", "perhaps", "seen"):
                self.assertTrue(say(section, bound), (section, bound))

    def test_says_what_may_be_seen_otherwise_and_on_which_sides(self) -> None:
        answer = lane_answer(
            Situation.of(client(ranges=self.STIFF), TODAY, ROOM), variation("hero.one_block"), Side.LEFT
        )
        assert answer.best is not None
        found = {(each.bound, each.sides) for each in answer.best.unmet}
        self.assertIn(("knee_range", ("left",)), found)
        self.assertEqual([each.words for each in answer.best.unmet], answer.best.troubles)


class Elsewhere(TestCase):
    """Poses whose work or whose support is not under the worked leg."""

    def detail(self, rung: str) -> SetupDetail:
        situation = Situation.of(client(ranges=FREE), TODAY, ROOM)
        found = situation.screen(variation(rung), Side.LEFT)
        assert isinstance(found, Screened)
        return detail_at(situation, found, found.recommended)

    def test_a_lunge_shows_how_far_the_leg_behind_opens(self) -> None:
        rulers = rulers_of_best(Situation.of(client(ranges=FREE), TODAY, ROOM), "low_lunge.knee_lifted", Side.LEFT)
        behind = next(r for r in rulers["left"] if r.readout == "hip_extension")
        self.assertGreater(behind.value, 5)

    def test_a_chair_or_wall_for_the_hands_is_fetched_too(self) -> None:
        self.assertEqual(self.detail("standing_balance.mountain_chair").fetch, [say("hand_supports", "chair_beside")])
        self.assertIn(say("hand_supports", "wall"), self.detail("standing_balance.one_leg_wall").fetch)
        self.assertEqual(self.detail("standing_balance.mountain").fetch, [])

    def test_a_set_up_that_is_as_good_as_any_stays_plain(self) -> None:
        situation = Situation.of(client(ranges=FREE), TODAY, ROOM)
        for rung in ("standing_balance.mountain", "standing_balance.one_leg_chair", "heel_raise.wall"):
            found = situation.screen(variation(rung), Side.LEFT)
            assert isinstance(found, Screened)
            self.assertEqual(found.best, found.grid.plain, rung)


class Lanes(TestCase):
    def test_a_clear_lane_shows_its_plain_set_up(self) -> None:
        situation = Situation.of(client(ranges=FREE), TODAY, ROOM)
        answer = lane_answer(situation, variation("figure_four.block_side"), Side.LEFT)
        assert answer.best is not None
        self.assertEqual(english(answer.best.line), "chair 45, block on its side")
        self.assertEqual(answer.best.findings, [])

    def test_entries_that_bind_together_are_named_together(self) -> None:
        entries = [
            knee(entry_id="a", swelling="yes", locks_or_gives_way="yes"),
            knee(entry_id="b", swelling="yes", locks_or_gives_way="yes"),
        ]
        situation = Situation.of(client(entries, ranges=FREE, daily=[pain(1, "a"), pain(1, "b")]), TODAY, ROOM)
        answer = lane_answer(situation, variation("figure_four.block_flat"), Side.LEFT)
        assert answer.best is not None
        asked = next(f for f in answer.best.findings if f.entry_ids)
        self.assertEqual(set(asked.entry_ids), {"a", "b"})

    def test_a_later_date_keeps_todays_answers(self) -> None:
        situation = Situation.of(client([knee()], ranges=FREE, daily=[pain(2)]), TODAY, ROOM)
        later = situation.on(TODAY.replace(month=TODAY.month + 1))
        self.assertFalse([limit for limit in later.limits if limit.missing])

    def test_every_answer_is_a_grid_or_says_what_is_missing(self) -> None:
        situation = Situation.without_body(client(), TODAY)
        self.assertIsInstance(situation.screen(variation("figure_four.block_flat"), Side.LEFT), NoGrid)


class PurposeOutsideTheBand(TestCase):
    def test_is_said_and_by_how_much(self) -> None:
        told = {}
        for percent in (None, 60.0, 70.0, 95.4, 95.6, 100.0):
            situation = Situation.of(client(), TODAY, ROOM)
            answer = lane_answer(situation, variation("rest.chair"), Side.LEFT)
            assert answer.best is not None
            reasons = replace(answer.best, purpose_percent=percent, findings=[]).reasons
            told[percent] = [english(reason) for reason in reasons]
        self.assertEqual((told[None], told[70.0], told[95.4]), ([], [], []))
        self.assertIn("60 %", told[60.0][0])
        self.assertIn("96 %", told[95.6][0])
        self.assertIn("100 %", told[100.0][0])


class SetupsInOneLine(TestCase):
    def test_what_is_the_same_on_both_sides_is_said_once(self) -> None:
        situation = Situation.of_nobody(170)
        screened = situation.screen(variation("bound_angle.reclined"), Side.LEFT)
        alike = detail_at(situation, screened, screened.recommended)
        self.assertIn("under the thigh, each side", english(alike.whole_line))
        self.assertEqual(alike.line, alike.whole_line)
        columns = [k for k, axis in enumerate(screened.grid.axes) if screened.variation.side_of(axis.name) is not None]
        unlike = next(
            row for row, indices in enumerate(screened.grid.indices) if len(set(indices[columns].tolist())) > 1
        )
        whole = english(detail_at(situation, screened, unlike).whole_line)
        self.assertIn("under the thigh, left", whole)
        self.assertIn("under the thigh, right", whole)
