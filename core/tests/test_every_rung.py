"""Every rung on both sides, for clients of every kind: an answer that can be written as JSON, or a reason why not."""

from __future__ import annotations

import json
from typing import Any
from unittest import TestCase

from asketa_core import SIDES, ClientFile, NoGrid, Quantity, Situation, detail_at, lane_answer, rulers_on
from asketa_core.body.ranges import Range, Ranges
from asketa_core.commands.screen import screen_client
from tests.library import variation, variations
from tests.speech import english
from tests.strategies import ROOM, TODAY, bones, client, groin, hamstrings, hip, knee, pain, pregnancy

ONE_OF_EACH: dict[str, tuple[list[dict[str, Any]], dict[str, Any]]] = {
    "nobody in particular": ([], {}),
    "hip": ([hip()], {}),
    "knee": ([knee()], {"daily": [pain(3)]}),
    "pregnancy": ([pregnancy(24)], {}),
    "bones": ([bones()], {}),
    "groin": ([groin()], {}),
    "hamstrings": ([hamstrings()], {}),
}


class EveryRung(TestCase):
    def test_is_answered_for_a_client_with_each_kind_of_record(self) -> None:
        for name, (entries, more) in ONE_OF_EACH.items():
            at = Situation.of(client(entries, **more), TODAY, ROOM)
            for rung in variations():
                for side in SIDES[:1] if rung.shared else SIDES:
                    with self.subTest(name, rung=rung.id, side=side):
                        found = at.screen(rung, side)
                        assert not isinstance(found, NoGrid)
                        detail = detail_at(at, found, found.recommended)
                        self.assertEqual(detail.setup, found.grid.setup(detail.index))
                        self.assertTrue(all(rulers_on(at, found, found.recommended).values()))

    def test_is_not_for_a_side_whose_range_is_zero_or_below(self) -> None:
        """Nothing can be kept of a range that is not there: no purpose, and the reason says so."""
        for value in (0.0, -5.0):
            own = {(q, s): Range(value, 5, measured=True) for q in Quantity for s in SIDES}
            at = Situation.of_nobody(ranges=Ranges.from_measured(own))
            for rung in variations():
                for side in SIDES:
                    answer = lane_answer(at, rung, side)
                    assert answer.best is not None
                    purposes = [work.range for work in rung.recipe.works if work.range is not None]
                    if purposes:
                        self.assertIsNone(answer.best.purpose_percent, rung.id)
                        self.assertEqual(answer.verdict, "leave_out", rung.id)
                        self.assertIn("nothing to work in", " ".join(map(english, answer.best.troubles)))

    def test_only_the_side_without_the_range_is_left_out(self) -> None:
        stiff = client(ranges={("hip_extension", "left"): -5.0, ("hip_extension", "right"): 15.0})
        rung = next(r for r in variations() if any(w.range is Quantity.HIP_EXTENSION for w in r.recipe.works))
        leg = next(w.leg for w in rung.recipe.works if w.range is Quantity.HIP_EXTENSION)
        left, right = (lane_answer(Situation.of(stiff, TODAY, ROOM), rung, side) for side in SIDES)
        without, whole = (left, right) if leg == "worked" else (right, left)
        assert without.best is not None and whole.best is not None
        self.assertIsNone(without.best.purpose_percent)
        self.assertIsNotNone(whole.best.purpose_percent)

    def test_can_be_written_as_json_whatever_was_measured(self) -> None:
        lowest: ClientFile = client(
            ranges={
                (quantity, side): low
                for quantity, low in (
                    ("hip_extension", -20.0), ("hip_adduction", 0.0), ("hip_internal_rotation", -10.0),
                    ("open_external_rotation", 5.0), ("planted_dorsiflexion", -10.0), ("straight_leg_raise", 10.0),
                )
                for side in ("left", "right")
            }
        )  # fmt: skip
        json.dumps(screen_client(lowest, TODAY, ROOM), allow_nan=False, default=str)

    def test_the_leg_of_a_raised_back_starts_above_the_floor_however_high_the_back(self) -> None:
        at = Situation.of(client(), TODAY, ROOM)
        found = at.screen(variation("straight_leg_raise.raised_back"), SIDES[0])
        assert not isinstance(found, NoGrid)
        for row in range(found.grid.size):
            leg = found.pose_at(row).leg(SIDES[0])
            self.assertGreater(leg.ankle[2], leg.hip[2])
