"""What to mind: short lines per side, what is open, and what the calendar brings."""

from __future__ import annotations

import datetime as dt
import re
from typing import Any
from unittest import TestCase

from asketa_core import Mind, Situation, mind_of, rungs_of_change
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, knee, pain


def mind(*entries: dict[str, Any], **more: Any) -> Mind:
    # Nothing is screened here: the lines come from records and dates.
    return mind_of(Situation.of(client(list(entries), **more), TODAY, ROOM))


def lines(found: Mind, side: str | None, weight: str | None = None) -> list[str]:
    return [english(note.text) for note in found.notes if note.side == side and weight in (None, note.weight)]


class Hips(TestCase):
    def test_the_week_and_the_stops_in_few_words(self) -> None:
        found = mind(hip(days_ago=63))
        self.assertIn("Hip replaced, posterior, week 9.", lines(found, "right"))
        (stops,) = lines(found, "right", "limit")
        self.assertTrue(stops.startswith("Hip bend 90°, not across the middle, not turned in"))
        self.assertIn("No clearance yet.", lines(found, "right"))
        self.assertEqual(lines(found, "left"), [])

    def test_after_the_first_weeks_a_clearance_is_due(self) -> None:
        self.assertIn("The first 12 weeks are over: clearance is due.", lines(mind(hip(days_ago=84)), "right", "ask"))
        self.assertEqual(lines(mind(hip(days_ago=83)), "right", "ask"), [])

    def test_a_clearance_is_named_with_its_date(self) -> None:
        given = {"who": "surgeon", "date": TODAY - dt.timedelta(days=10), "scope": ["all"]}
        found = lines(mind(hip(days_ago=100, clearances=[given])), "right")
        self.assertTrue(any(text.startswith("Cleared 31 May 2026") for text in found), found)
        self.assertNotIn("No clearance yet.", found)

    def test_what_is_missing_is_asked(self) -> None:
        found = mind(hip(approach="unknown", date=None))
        (asked,) = lines(found, "right", "ask")
        self.assertIn("the date of the operation", asked)
        self.assertIn("the surgical approach", asked)
        self.assertTrue(any("must not wait" in text for text in lines(found, None, "ask")))
        answered = mind(hip(symptoms_now=["none"]))
        self.assertEqual(lines(answered, None, "ask"), [])

    def test_a_leg_length_difference_is_said_not_to_be_modelled(self) -> None:
        self.assertIn(
            "Leg length differs by 1.5 cm: recorded, not modelled.",
            lines(mind(hip(leg_length_difference_cm=1.5)), None),
        )


class Seats(TestCase):
    """The seat a replaced hip needs is named while its precautions run: about 0.30 of the stature."""

    def heights(self, stature: float, **facts: Any) -> list[int]:
        found = lines(mind(hip(days_ago=21, **facts), stature=stature), "right")
        return [int(re.findall(r"best from (\d+) cm", line)[0]) for line in found if "plinth" in line]

    def test_the_named_height_is_this_bodys(self) -> None:
        for stature, seat in ((158, 47), (170, 51), (180, 54)):
            (height,) = self.heights(stature)
            self.assertAlmostEqual(height, seat, delta=1)

    def test_no_longer_once_the_bend_is_cleared(self) -> None:
        given = [{"who": "surgeon", "date": TODAY, "scope": ["all"]}]
        self.assertEqual(self.heights(170, clearances=given), [])


class Knees(TestCase):
    def test_pain_with_its_day_or_the_question(self) -> None:
        self.assertIn("Pain 3 of 10 on 8 June.", lines(mind(knee(), daily=[pain(3, days_ago=2)]), "left"))
        self.assertIn("Ask how it is today.", lines(mind(knee(), daily=[pain(3, days_ago=15)]), "left", "ask"))


class Sides(TestCase):
    def test_a_clear_difference_in_turning_out_is_said_on_the_lesser_side(self) -> None:
        ranges = {("open_external_rotation", "left"): 50.0, ("open_external_rotation", "right"): 62.0}
        self.assertIn("Turns out 50°, 12° less than the right.", lines(mind(ranges=ranges), "left"))

    def test_nine_degrees_or_one_side_alone_say_nothing(self) -> None:
        close = {("open_external_rotation", "left"): 53.0, ("open_external_rotation", "right"): 62.0}
        self.assertEqual(mind(ranges=close).notes, ())
        self.assertEqual(mind(ranges={("open_external_rotation", "left"): 20.0}).notes, ())


class Calendar(TestCase):
    def test_the_next_change_says_what_ends(self) -> None:
        change = mind(hip(days_ago=63)).next_change
        assert change is not None
        self.assertEqual(change.date, TODAY + dt.timedelta(days=21))
        self.assertTrue(english(change.lines[0]).startswith("Ends — Right: hip bend 90° with care, no knee over knee"))

    def test_and_which_rungs_it_lets_in(self) -> None:
        held = {
            "id": "r", "date": TODAY, "variation": "figure_four.block_flat", "side": "left", "setup": {}, "dose_s": 30,
            "before": 0, "during": 1, "after": 0,
        }  # fmt: skip
        situation = Situation.of(client([hip(days_ago=63)], responses=[held]), TODAY, ROOM)
        change = mind_of(situation).next_change
        assert change is not None
        lines = rungs_of_change(
            situation, change.date, lambda at, rung, side: at.date > TODAY and rung.id.endswith("over_thigh")
        )
        told = list(map(english, lines))
        self.assertIn("Lets in: Figure-four, left: over thigh; Figure-four, right: over thigh.", told)

    def test_the_safety_line_is_always_there(self) -> None:
        self.assertIn("replaces neither", english(mind().disclaimer))
