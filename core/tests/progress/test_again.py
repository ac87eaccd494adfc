"""The same as last time: each side's next step, held against what is open today."""

from __future__ import annotations

from collections.abc import Mapping
from unittest import TestCase

from asketa_core import (
    Library,
    NoGrid,
    Proposal,
    Screened,
    Side,
    Situation,
    SlotValue,
    Step,
    Variation,
    first_open,
    proposal,
    since,
    standard_library,
)
from asketa_core.progress.step import Action, Decision
from asketa_core.texts.phrases import NOTHING, Own
from tests.library import LIBRARY, variation
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, groin, hip, knee

HEALTHY = Situation.of(client(ranges={("open_external_rotation", s): 60.0 for s in ("left", "right")}), TODAY, ROOM)
AFTER_HIP = Situation.of(client([hip("left", days_ago=20)]), TODAY, ROOM)


def screener(situation: Situation, side: Side = Side.LEFT):  # type: ignore[no-untyped-def]
    def screen(rung: Variation, used: Mapping[str, SlotValue] | None) -> Screened | NoGrid:
        return situation.screen(rung, side, used)

    return screen


def usual(rung: str, situation: Situation = HEALTHY) -> Step:
    screened = situation.screen(variation(rung), Side.LEFT)
    assert not isinstance(screened, NoGrid)
    return Step(rung, screened.grid.setup(screened.recommended), screened.variation.hold.start_s)


def decided(action: Action, step: Step | None, here: Step | None) -> Decision:
    return Decision(action, action.value, Own("because"), NOTHING, step, here)


def proposed(decision: Decision, situation: Situation = HEALTHY) -> Proposal:
    return proposal(decision, situation, screener(situation))


class Proposed(TestCase):
    def test_to_stay_is_the_same_and_needs_no_reason(self) -> None:
        here = usual("figure_four.block_side")
        self.assertEqual(proposed(decided(Action.STAY, here, here)), Proposal(here, NOTHING))

    def test_a_step_is_applied_with_its_reason(self) -> None:
        here, onward = usual("figure_four.block_side"), usual("figure_four.block_end")
        found = proposed(decided(Action.OFFER, onward, here))
        self.assertEqual((found.step, english(found.reason)), (onward, "because"))

    def test_what_is_to_be_left_out_is(self) -> None:
        here = usual("figure_four.block_side")
        found = proposed(decided(Action.LEAVE_OUT, None, here))
        self.assertEqual((found.step, english(found.reason)), (None, "because"))

    def test_what_is_closed_now_gives_way_and_says_why(self) -> None:
        here = usual("figure_four.leaning")
        found = proposed(decided(Action.STAY, here, here), AFTER_HIP)
        assert found.step is not None
        self.assertNotEqual(found.step.variation, here.variation)
        self.assertTrue(english(found.reason))
        screened = AFTER_HIP.screen(variation(found.step.variation), Side.LEFT)
        assert not isinstance(screened, NoGrid)
        self.assertTrue(screened.allowed(screened.grid.nearest(found.step.setup)))

    def test_a_closed_ladder_gives_way_to_the_nearest_rung_back_that_is_open(self) -> None:
        here = usual("half_pigeon.shin_back")
        found = proposed(decided(Action.STAY, here, here), AFTER_HIP)
        assert found.step is not None
        self.assertEqual(found.step.variation, "figure_four.block_end")
        self.assertIn("No floor work", english(found.reason))

    def test_whatever_is_proposed_is_open(self) -> None:
        people = [client([hip("left")]), client([knee("left")]), client([groin("left")])]
        for file in people:
            situation = Situation.of(file, TODAY, ROOM)
            for rung in ("figure_four.leaning", "squat.free", "seated_fold.free", "hero.floor", "warrior_two.free"):
                with self.subTest(rung=rung):
                    here = usual(rung)
                    found = proposed(decided(Action.STAY, here, here), situation)
                    if found.step is None:
                        self.assertTrue(english(found.reason))
                        continue
                    screened = situation.screen(variation(found.step.variation), Side.LEFT)
                    assert not isinstance(screened, NoGrid)
                    self.assertTrue(screened.allowed(screened.grid.nearest(found.step.setup)))

    def test_a_rung_that_was_put_away_gives_way_to_the_one_before(self) -> None:
        gone = variation("figure_four.block_end")
        library = Library(standard_library().families, retired={gone.id: gone})
        situation = Situation.of(HEALTHY.client, TODAY, ROOM, library)
        here = usual(gone.id)
        found = proposal(decided(Action.STAY, here, here), situation, screener(situation))
        assert found.step is not None
        self.assertEqual(found.step.variation, "figure_four.block_side")
        self.assertEqual(english(found.reason), "Put away in the Library.")


class Beginning(TestCase):
    def test_begins_with_the_most_held_up_rung_that_is_open(self) -> None:
        rungs = LIBRARY.families["figure_four"].variations
        found = first_open(rungs, screener(HEALTHY))
        assert found is not None
        self.assertEqual((found.variation, found.dose_s), (rungs[0].id, rungs[0].hold.start_s))

    def test_nothing_open(self) -> None:
        closed = Situation.of(client([hip("left", days_ago=20)]), TODAY, ROOM)
        rungs = (variation("lotus.half"), variation("lotus.full"))
        self.assertIsNone(first_open(rungs, screener(closed)))


class Since(TestCase):
    def said(self, before: Step | None, now: Step) -> str:
        return english(since(before, now, LIBRARY))

    def test_in_a_few_words(self) -> None:
        side, end = usual("figure_four.block_side"), usual("figure_four.block_end")
        longer = Step(side.variation, side.setup, side.dose_s + 10)
        higher = Step(side.variation, dict(side.setup) | {"knee_out": SlotValue(number=5)}, side.dose_s)
        self.assertEqual(self.said(side, side), "same")
        self.assertEqual(self.said(side, longer), "longer: 40 s")
        self.assertEqual(self.said(longer, side), "shorter: 30 s")
        self.assertEqual(self.said(side, higher), "another set-up")
        self.assertIn("one rung on", self.said(side, end))
        self.assertIn("a rung back", self.said(end, side))
        self.assertIn("another rung", self.said(side, usual("squat.chair")))
        self.assertEqual(self.said(None, side), "new here")
