"""Both ways: what may be tried, and what is kept from then on."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import (
    Bearing,
    ClientFile,
    NoGrid,
    Screened,
    Side,
    Situation,
    SlotValue,
    Trial,
    Variation,
    chosen_words,
    heights_words,
    next_step,
    proposal,
    standing,
    tried_on,
    try_again,
    value_words,
    ways,
    with_kept,
)
from asketa_core.client.holds import Response
from asketa_core.poses.recipe import ChoiceSlot, PlaceSlot
from asketa_core.progress.responses import Judged, judge_response
from asketa_core.progress.step import Action
from asketa_core.progress.trials import APART_CM, APART_DEG
from tests.library import LIBRARY, variation
from tests.progress.test_responses import response
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, knee

NOW = dt.datetime.combine(TODAY, dt.time(10), tzinfo=dt.UTC)
FREE = {("open_external_rotation", side): 60.0 for side in ("left", "right")}
REST, DRAWN = SlotValue(choice="at_rest"), SlotValue(choice="drawn_up")
SIDE = variation("figure_four.block_side")


def day(ago: int) -> dt.date:
    return TODAY - dt.timedelta(days=ago)


def tried(ago: int, kept: str = "b", **changes: Any) -> Trial:
    said = {
        "id": f"tried{ago}", "date": day(ago), "variation": "figure_four.block_flat", "side": "left", "slot": "foot",
        "a": REST, "b": DRAWN, "felt_a": 3, "felt_b": 1, "kept": kept,
    }  # fmt: skip
    return Trial.model_validate({**said, **changes})


def held(ago: int, foot: SlotValue = REST, **changes: Any) -> Response:
    said = {"variation": SIDE.id, "side": Side.LEFT, "dose_s": 60, "date": day(ago), "id": f"held{ago}"}
    return response(**{**said, "setup": {"foot": foot}, **changes})


def judged(*responses: Response) -> list[Judged]:
    return [judge_response(each, 2, NOW) for each in responses]


def screened(rung: str, file: ClientFile | None = None, side: Side = Side.LEFT) -> Screened:
    found = Situation.of(file or client(ranges=FREE), TODAY, ROOM).screen(variation(rung), side)
    assert not isinstance(found, NoGrid)
    return found


class WhatMayBeTried(TestCase):
    def test_the_foot_drawn_up_against_the_foot_at_rest(self) -> None:
        found = screened(SIDE.id)
        (way,) = ways(found, found.grid.setup(found.recommended))
        self.assertEqual((way.slot, way.value, way.row), ("foot", DRAWN, found.recommended))
        (back,) = ways(found, way.setup)
        self.assertEqual(back.value, REST)

    def test_hands_are_tried_both_higher_and_lower_and_as_far_apart_as_is_felt(self) -> None:
        for rung in _rungs_with_ways():
            found = screened(rung)
            here = found.grid.setup(found.recommended)
            for way in ways(found, here):
                slot = found.variation.setup_slots[way.slot]
                if isinstance(slot, ChoiceSlot):
                    continue
                apart = abs((way.value.number or 0) - (here[way.slot].number or 0))
                self.assertGreaterEqual(apart, APART_DEG if slot.type == "angle" else APART_CM, rung)
                others = {name for name in here if name != way.slot and here[name] != way.setup[name]}
                self.assertFalse(others, f"{rung}: only one thing differs between two ways")

    def test_nothing_closed_is_tried(self) -> None:
        file = client([hip(), knee("right")], ranges=FREE)
        for rung in _rungs_with_ways():
            found = Situation.of(file, TODAY, ROOM).screen(variation(rung), Side.LEFT)
            if isinstance(found, NoGrid):
                continue
            for row in {found.recommended, 0, found.grid.size - 1}:
                for way in ways(found, found.grid.setup(row)):
                    self.assertTrue(found.allowed(row) and found.allowed(way.row), rung)

    def test_less_support_is_not_tried_where_range_is_to_be_kept(self) -> None:
        directions = set()
        for rung in _rungs_with_ways():
            found = screened(rung)
            here = found.grid.setup(found.recommended)
            for way in ways(found, here, keep_range=True):
                less = found.variation.setup_slots[way.slot].less_support
                up = (way.value.number or 0) > (here[way.slot].number or 0)
                if less != "none":
                    directions.add((less, up))
        self.assertTrue(directions)
        self.assertLessEqual(directions, {("down", True), ("up", False)})

    def test_every_slot_with_a_choice_is_tried_both_ways(self) -> None:
        for rung in LIBRARY.variations():
            for name, slot in rung.setup_slots.items():
                if isinstance(slot, ChoiceSlot):
                    self.assertTrue(slot.try_both, f"{rung.id}: {name}")


def _rungs_with_ways() -> list[str]:
    return [
        rung.id
        for rung in LIBRARY.variations()
        if any(not isinstance(slot, PlaceSlot) and slot.try_both for slot in rung.setup_slots.values())
    ]


class WhatIsKept(TestCase):
    def test_a_choice_counts_on_the_whole_ladder_and_its_side(self) -> None:
        self.assertEqual(standing([tried(3)], SIDE, Side.LEFT)["foot"].kept_value, DRAWN)
        self.assertEqual(standing([tried(3)], SIDE, Side.RIGHT), {})
        self.assertEqual(standing([tried(3)], variation("half_pigeon.lying"), Side.LEFT), {})

    def test_a_height_counts_on_its_own_rung(self) -> None:
        blocks = {
            "variation": "table.chair_hands",
            "slot": "blocks",
            "a": SlotValue(number=5),
            "b": SlotValue(number=10),
        }
        rungs = [rung for rung in LIBRARY.families["table"].variations if "blocks" in rung.setup_slots]
        own = [
            rung.id for rung in rungs if standing([tried(3, **{**blocks, "variation": rungs[0].id})], rung, Side.LEFT)
        ]
        self.assertEqual(own, [rungs[0].id])

    def test_of_a_shape_both_legs_share_either_side_counts(self) -> None:
        rung = next(r for r in LIBRARY.families["table"].variations if r.shared and "blocks" in r.setup_slots)
        one = tried(3, variation=rung.id, slot="blocks", side="right", a=SlotValue(number=5), b=SlotValue(number=10))
        self.assertIn("blocks", standing([one], rung, Side.LEFT))

    def test_the_last_trial_stands_whatever_the_order(self) -> None:
        for trials in ([tried(9), tried(2, "a")], [tried(2, "a"), tried(9)]):
            self.assertEqual(standing(trials, SIDE, Side.LEFT)["foot"].kept_value, REST)

    def test_it_goes_before_what_was_used_earlier_and_after_nothing_later(self) -> None:
        kept = standing([tried(3)], SIDE, Side.LEFT)
        self.assertEqual(with_kept(held(7), kept), {"foot": DRAWN})
        self.assertEqual(with_kept(held(3), kept), {"foot": DRAWN})
        self.assertEqual(with_kept(held(1), kept), {"foot": REST})
        self.assertEqual(with_kept(None, kept), {"foot": DRAWN})
        self.assertIsNone(with_kept(None, {}))

    def test_of_its_own_day_only_the_way_not_kept_gives_way(self) -> None:
        kept = standing([tried(3, a=SlotValue(number=10), b=SlotValue(number=15))], SIDE, Side.LEFT)
        self.assertEqual(with_kept(held(3, SlotValue(number=20)), kept), {"foot": SlotValue(number=20)})

    def test_it_is_tried_again_after_a_flare(self) -> None:
        trial = tried(5)
        flare = {"kind": "sharp"}
        self.assertFalse(try_again(trial, judged(held(8, **flare), held(4))))
        self.assertTrue(try_again(trial, judged(held(4, **flare))))
        # The flare that led to the trial is not one that followed it.
        self.assertFalse(try_again(trial, judged(held(5, REST, **flare))))
        self.assertTrue(try_again(trial, judged(held(5, DRAWN, settled_next_morning="no"))))

    def test_the_next_plan_goes_on_with_it_and_says_so(self) -> None:
        situation = Situation.of(client(ranges=FREE), TODAY, ROOM)
        found = situation.screen(SIDE, Side.LEFT)
        assert not isinstance(found, NoGrid)
        usual = found.grid.setup(found.recommended)
        sessions = judged(held(14, setup=usual), held(7, setup=usual))

        def screen(rung: Variation, used: Mapping[str, SlotValue] | None) -> Screened | NoGrid:
            return situation.screen(rung, Side.LEFT, used)

        def decide(*trials: Trial):  # type: ignore[no-untyped-def]
            return next_step(sessions, Bearing(LIBRARY, screen, TODAY, trials=trials))

        self.assertIs(decide().action, Action.OFFER)
        decision = decide(tried(3))
        # Another way is a change: it is calm there first.
        self.assertIs(decision.action, Action.STAY)
        assert decision.step is not None and decision.from_step is not None
        self.assertEqual((decision.step.setup["foot"], decision.from_step.setup["foot"]), (DRAWN, REST))
        offered = proposal(decision, situation, screen)
        self.assertIn("Foot: drawn up, kept when both were tried", english(offered.reason))
        self.assertIs(decide(tried(3, "a")).action, Action.OFFER)

    def test_words_of_a_value(self) -> None:
        self.assertEqual(english(value_words(SIDE, "foot", DRAWN)), "drawn up")
        self.assertEqual(english(value_words(variation("half_pigeon.at_wall"), "wall", SlotValue(number=40))), "40 cm")
        self.assertEqual(english(value_words(SIDE, "gone", SlotValue(number=12))), "12 cm")

    def test_a_way_that_is_not_the_usual_one_stands_in_the_line_of_the_set_up(self) -> None:
        told = [[english(each) for each in chosen_words(SIDE, {"foot": foot})] for foot in (REST, DRAWN)]
        self.assertEqual(told, [[], ["foot drawn up"]])
        used = {"seat": SlotValue(stack="x", number=45), "foot": DRAWN}
        self.assertEqual(english(heights_words(SIDE, used)), "seat 45, foot drawn up")

    def test_everything_tried_on_a_side_oldest_first(self) -> None:
        shared = next(r for r in LIBRARY.families["table"].variations if r.shared)
        trials = [tried(1), tried(9), tried(4, side="right"), tried(2, variation=shared.id, side="right", id="table")]

        def on(family: str, side: Side) -> list[str]:
            return [each.id for each in tried_on(trials, LIBRARY, family, side)]

        self.assertEqual(
            (on("figure_four", Side.LEFT), on("figure_four", Side.RIGHT)), (["tried9", "tried1"], ["tried4"])
        )
        self.assertEqual((on("table", Side.LEFT), on("table", Side.RIGHT)), (["table"], ["table"]))


class Kept(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(st.tuples(st.integers(0, 30), st.sampled_from("ab")), max_size=6, unique_by=lambda each: each[0]),
        st.integers(0, 30),
        st.sampled_from([REST, DRAWN]),
    )
    def test_the_later_of_hold_and_trial_decides(
        self, trials: list[tuple[int, str]], ago: int, foot: SlotValue
    ) -> None:
        found = with_kept(held(ago, foot), standing([tried(*each) for each in trials], SIDE, Side.LEFT))
        last = min(trials, default=None)
        expected = foot if last is None or last[0] > ago else tried(*last).kept_value
        self.assertEqual(found, {"foot": expected})
