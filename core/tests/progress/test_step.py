"""The next step: from several sessions, one change at a time, never past today's limits."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping
from typing import Any
from unittest import TestCase

from asketa_core import (
    Bearing,
    ClientFile,
    Decision,
    NoGrid,
    Otherwise,
    Screened,
    Side,
    Situation,
    SlotValue,
    Variation,
    next_step,
    recently_operated,
    say,
)
from asketa_core.progress.responses import judge_response
from asketa_core.progress.step import Action, Step, same_step, same_value
from tests.library import LIBRARY, variation
from tests.progress.test_responses import response
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, knee

NOW = dt.datetime.combine(TODAY, dt.time(10), tzinfo=dt.UTC)
FREE = {("open_external_rotation", side): 60.0 for side in ("left", "right")}


class Ladder:
    """One side of one client's ladder, with sessions a week apart."""

    def __init__(self, file: ClientFile | None = None, side: Side = Side.LEFT) -> None:
        self.situation = Situation.of(file or client(ranges=FREE), TODAY, ROOM)
        self.side = side

    def screen(self, rung: Variation, used: Mapping[str, SlotValue] | None) -> Screened | NoGrid:
        return self.situation.screen(rung, self.side, used)

    def usual(self, rung: str) -> dict[str, SlotValue]:
        screened = self.screen(variation(rung), None)
        assert not isinstance(screened, NoGrid)
        return screened.grid.setup(screened.recommended)

    def decide(
        self, *sessions: dict[str, Any], tightens_on: Callable[[], dt.date | None] = lambda: None, after_operation: bool = False,
        otherwise: Otherwise | None = None, keep_range: bool = False, measured_on: dt.date | None = None,
    ) -> Decision:  # fmt: skip
        judged = []
        for ago, session in zip(range(len(sessions), 0, -1), sessions, strict=True):
            rung = session.get("variation", "figure_four.block_side")
            made = {
                "variation": rung,
                "setup": session.get("setup") or self.usual(rung),
                "dose_s": 60,
                "side": self.side,
            }
            made |= {"date": TODAY - dt.timedelta(days=7 * ago), "id": str(ago)}
            judged.append(judge_response(response(**{**made, **session, "setup": made["setup"]}), 2, NOW))
        bearing = Bearing(
            LIBRARY,
            self.screen,
            TODAY,
            after_operation,
            tightens_on,
            keep_range,
            otherwise,
            measured_on=measured_on,
        )
        return next_step(judged, bearing)


CALM: dict[str, Any] = {}
WATCH = {"signs": ["wobble"]}
FLARE = {"kind": "sharp"}


class Offers(TestCase):
    def test_nothing_tried(self) -> None:
        self.assertIs(Ladder().decide().action, Action.NOT_TRIED)

    def test_calm_once_stays(self) -> None:
        self.assertIs(Ladder().decide(CALM).action, Action.STAY)

    def test_seconds_grow_before_support_shrinks(self) -> None:
        decision = Ladder().decide({"dose_s": 40}, {"dose_s": 40})
        self.assertEqual(decision.code, "offer_seconds")
        assert decision.step is not None
        self.assertEqual((decision.step.variation, decision.step.dose_s), ("figure_four.block_side", 50))

    def test_then_the_next_rung(self) -> None:
        decision = Ladder().decide(CALM, CALM)
        self.assertEqual(decision.code, "offer_rung")
        assert decision.step is not None
        self.assertEqual(decision.step.variation, "figure_four.block_end")

    def test_a_thicker_block_comes_before_the_next_rung(self) -> None:
        ladder = Ladder()
        setup = {**ladder.usual("figure_four.block_flat"), "foot_block": SlotValue(stack="slim:flat", number=7.5)}
        session = {"variation": "figure_four.block_flat", "setup": setup}
        decision = ladder.decide(session, session)
        self.assertEqual(decision.code, "offer_slot")
        assert decision.step is not None
        self.assertEqual(decision.step.setup["foot_block"].stack, "block:flat")
        # Both lie flat: only the height tells them apart.
        self.assertIn("block lying flat (10 cm)", english(decision.reason))

    def test_three_times_after_an_operation(self) -> None:
        self.assertIs(Ladder().decide(CALM, CALM, after_operation=True).action, Action.STAY)
        self.assertIs(Ladder().decide(CALM, CALM, CALM, after_operation=True).action, Action.OFFER)

    def test_another_set_up_starts_the_count_again(self) -> None:
        ladder = Ladder()
        other = {**ladder.usual("figure_four.block_side"), "seat": SlotValue(stack="chair50:seat", number=50)}
        self.assertIs(ladder.decide({"setup": other}, CALM).action, Action.STAY)

    def test_nobody_looks_ahead_where_no_step_up_is_due(self) -> None:
        asked = []
        for sessions, times in (((WATCH,), 0), ((CALM,), 0), ((CALM, FLARE), 0), ((CALM, CALM), 1)):
            asked.clear()
            Ladder().decide(*sessions, tightens_on=lambda: asked.append(1))
            self.assertEqual(len(asked), times, sessions)

    def test_no_step_up_within_two_weeks_before_a_limit_tightens(self) -> None:
        soon, later = TODAY + dt.timedelta(days=13), TODAY + dt.timedelta(days=14)
        self.assertEqual(Ladder().decide(CALM, CALM, tightens_on=lambda: soon).code, "waits_for_limit")
        self.assertIs(Ladder().decide(CALM, CALM, tightens_on=lambda: later).action, Action.OFFER)

    def test_todays_limits_cap_the_offer(self) -> None:
        ladder = Ladder(client([hip()], ranges=FREE), Side.RIGHT)
        # On the lowest seat that the hip allows nothing is left but the next rung, and that crosses.
        lowest = {**ladder.usual("figure_four.block_end"), "seat": SlotValue(stack="chair50:seat", number=50.0)}
        session = {"variation": "figure_four.block_end", "setup": lowest}
        self.assertEqual(ladder.decide(session, session).code, "capped")


class Sessions(TestCase):
    """Several rounds of one day are one session."""

    def on(self, *days_and_sessions: tuple[int, dict[str, Any]]) -> Decision:
        return Ladder().decide(
            *({"date": TODAY - dt.timedelta(days=ago), **session} for ago, session in days_and_sessions)
        )

    def test_two_calm_rounds_are_calm_once(self) -> None:
        self.assertIs(self.on((7, CALM), (7, CALM)).action, Action.STAY)
        self.assertIs(self.on((14, CALM), (7, CALM), (7, CALM)).action, Action.OFFER)

    def test_the_gravest_round_of_a_day_counts(self) -> None:
        self.assertEqual(self.on((14, CALM), (7, WATCH), (7, CALM)).code, "stay_watch")
        self.assertIs(self.on((14, CALM), (7, FLARE), (7, CALM)).action, Action.STEP_BACK)

    def test_a_round_of_which_nothing_was_said_counts_only_alone(self) -> None:
        unsaid = {"kind": None}
        self.assertIs(self.on((14, CALM), (7, CALM), (7, unsaid)).action, Action.OFFER)
        self.assertEqual(self.on((14, CALM), (7, unsaid)).code, "stay_unsaid")

    def test_calm_a_rung_back_after_a_flare_on_the_same_day_stays_there(self) -> None:
        back = {"variation": "figure_four.block_flat"}
        decision = self.on((7, FLARE), (7, back))
        self.assertIs(decision.action, Action.STAY)
        assert decision.step is not None
        self.assertEqual(decision.step.variation, "figure_four.block_flat")


class DecidedOtherwise(TestCase):
    def test_goes_before_what_follows_from_the_sessions(self) -> None:
        own = {
            Action.STAY: ("own_stay", Action.STAY),
            Action.STEP_BACK: ("own_step_back", Action.STEP_BACK),
            Action.LEAVE_OUT: ("own_leave_out", Action.LEAVE_OUT),
        }
        for action, (code, done) in own.items():
            decision = Ladder().decide(CALM, CALM, otherwise=Otherwise(action, "She travels next week."))
            self.assertEqual((decision.code, decision.action), (code, done))
            self.assertIn("She travels next week.", english(decision.reason))

    def test_going_on_early_is_one_change_all_the_same(self) -> None:
        decision = Ladder().decide(CALM, otherwise=Otherwise(Action.OFFER, "Bored."))
        self.assertEqual((decision.action, decision.code), (Action.OFFER, "own_offer"))
        assert decision.step is not None
        self.assertEqual(decision.step.variation, "figure_four.block_end")

    def test_where_range_is_kept_going_on_is_a_longer_hold_or_none(self) -> None:
        on = Otherwise(Action.OFFER, "Bored.")
        longer = Ladder().decide({"dose_s": 40}, keep_range=True, otherwise=on)
        assert longer.step is not None
        self.assertEqual((longer.code, longer.step.dose_s), ("own_offer", 50))
        self.assertEqual(Ladder().decide(CALM, keep_range=True, otherwise=on).code, "own_capped")

    def test_with_nothing_gentler_it_says_what_was_decided_and_what_follows(self) -> None:
        lowest = {"variation": "figure_four.foot_on_floor"}
        decision = Ladder().decide(lowest, otherwise=Otherwise(Action.STEP_BACK, "Tired."))
        self.assertEqual((decision.action, decision.code), (Action.LEAVE_OUT, "own_step_back_none"))
        self.assertIn("decided to step back (Tired.)", english(decision.reason))

    def test_todays_limits_cap_it(self) -> None:
        ladder = Ladder(client([hip()], ranges=FREE), Side.RIGHT)
        lowest = {**ladder.usual("figure_four.block_end"), "seat": SlotValue(stack="chair50:seat", number=50.0)}
        session = {"variation": "figure_four.block_end", "setup": lowest}
        decision = ladder.decide(session, otherwise=Otherwise(Action.OFFER, "Bored."))
        self.assertEqual((decision.action, decision.code), (Action.STAY, "own_capped"))


class ShapeGivesWay(TestCase):
    def test_what_was_seen_holds_the_shape_up_more(self) -> None:
        for sign in ("knee_drifts_in", "arch_falls", "hip_hikes", "back_rounds"):
            with self.subTest(sign=sign):
                decision = Ladder().decide(CALM, {"signs": [sign]})
                self.assertIs(decision.action, Action.STEP_BACK)
                self.assertIn(decision.code, ("more_support", "holds_shape"))
                self.assertIn(english(say("signs", sign)), english(decision.reason))
                assert decision.step is not None and decision.from_step is not None
                self.assertFalse(same_step(decision.step, decision.from_step))

    def test_one_face_more_where_there_is_one(self) -> None:
        ladder = Ladder()
        setup = {**ladder.usual("figure_four.block_flat"), "foot_block": SlotValue(stack="block:flat", number=10)}
        seen = {"variation": "figure_four.block_flat", "setup": setup, "signs": ["knee_rides_up"]}
        decision = ladder.decide(seen)
        self.assertEqual(decision.code, "more_support")
        assert decision.step is not None
        differing = [name for name, value in decision.step.setup.items() if not same_value(value, setup[name])]
        self.assertEqual((len(differing), decision.step.dose_s), (1, 60))


class HoldsAndSteps(TestCase):
    def test_watch_stays_and_three_ask_for_a_review(self) -> None:
        self.assertIs(Ladder().decide(CALM, WATCH).action, Action.STAY)
        self.assertIs(Ladder().decide(WATCH, WATCH, WATCH).action, Action.REVIEW)

    def test_a_flare_goes_one_rung_back_and_says_why(self) -> None:
        decision = Ladder().decide(CALM, FLARE)
        self.assertIs(decision.action, Action.STEP_BACK)
        assert decision.step is not None
        self.assertEqual(decision.step.variation, "figure_four.block_flat")
        self.assertIn("sharp", english(decision.reason))

    def test_after_a_flare_calm_is_counted_anew(self) -> None:
        back = {"variation": "figure_four.block_flat"}
        self.assertIs(Ladder().decide(CALM, CALM, FLARE, back).action, Action.STAY)

    def test_two_flares_at_one_rung_within_four_sessions_leave_it_out(self) -> None:
        back = {"variation": "figure_four.block_flat"}
        self.assertIs(Ladder().decide(FLARE, back, back, FLARE).action, Action.LEAVE_OUT)
        self.assertIs(Ladder().decide(FLARE, back, back, back, FLARE).action, Action.STEP_BACK)

    def test_a_rung_left_out_is_not_offered_again_before_the_side_is_measured(self) -> None:
        flare = {**FLARE, "variation": "figure_four.block_end"}
        sessions = (flare, flare, CALM, CALM)
        self.assertEqual(Ladder().decide(*sessions).code, "onward_left_out")
        flared_last = TODAY - dt.timedelta(days=21)
        self.assertEqual(Ladder().decide(*sessions, measured_on=flared_last).code, "onward_left_out")
        measured = flared_last + dt.timedelta(days=1)
        self.assertEqual(Ladder().decide(*sessions, measured_on=measured).code, "offer_rung")
        # Two flares long ago leave nothing out.
        self.assertEqual(Ladder().decide(flare, flare, CALM, CALM, CALM, CALM).code, "offer_rung")

    def test_measured_anew_two_flares_are_a_step_back(self) -> None:
        self.assertIs(Ladder().decide(FLARE, FLARE, measured_on=TODAY).action, Action.STEP_BACK)

    def test_nothing_gentler_leaves_the_ladder_out(self) -> None:
        self.assertEqual(Ladder().decide({**FLARE, "variation": "figure_four.foot_on_floor"}).code, "step_back_none")

    def test_a_step_back_is_itself_open_today(self) -> None:
        ladder = Ladder(client([hip()], ranges=FREE), Side.RIGHT)
        decision = ladder.decide({**FLARE, "variation": "figure_four.block_side"})
        assert decision.step is not None
        screened = ladder.screen(variation(decision.step.variation), None)
        assert not isinstance(screened, NoGrid)
        self.assertTrue(screened.allowed(screened.grid.nearest(decision.step.setup)))


class RecentlyOperated(TestCase):
    def test_until_the_first_weeks_are_over(self) -> None:
        self.assertTrue(recently_operated(client([hip(days_ago=83)]), TODAY))
        self.assertFalse(recently_operated(client([hip(days_ago=84)]), TODAY))

    def test_an_unknown_date_counts_as_recent(self) -> None:
        self.assertTrue(recently_operated(client([hip(date=None)]), TODAY))
        self.assertTrue(recently_operated(client([knee(operated="unknown")]), TODAY))
        self.assertTrue(recently_operated(client([knee(operated="yes", operation_date=None)]), TODAY))

    def test_a_knee_never_operated_does_not(self) -> None:
        self.assertFalse(recently_operated(client([knee(operated="no")]), TODAY))


class SameStep(TestCase):
    def test_a_centimetre_is_the_same_and_more_is_not(self) -> None:
        def step(height: float) -> Step:
            return Step("figure_four.block_flat", {"seat": SlotValue(stack=f"s{height}", number=height)}, 40)

        self.assertTrue(same_step(step(49), step(50)))
        self.assertFalse(same_step(step(49), step(50.1)))


class Unsaid(TestCase):
    def test_a_hold_nobody_described_waits_and_says_why(self) -> None:
        decision = Ladder().decide(CALM, {"kind": None})
        self.assertIs(decision.action, Action.STAY)
        self.assertEqual(decision.code, "stay_unsaid")

    def test_it_neither_counts_nor_breaks_a_run(self) -> None:
        self.assertEqual(Ladder().decide(CALM, {"place": None}, CALM).code, Ladder().decide(CALM, CALM).code)

    def test_a_dose_is_offered_in_the_rungs_own_unit(self) -> None:
        for rung, offered in (("breath.sitting", "Offer 8 breaths."), ("back_lift.sitting", "Offer 2 × 6.")):
            session = {"variation": rung, "dose_s": variation(rung).hold.start_s}
            self.assertIn(offered, english(Ladder().decide(session, session).reason))
