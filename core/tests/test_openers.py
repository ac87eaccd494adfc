"""What would open a closed rung is tried, and what is named really opens it."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import ClientFile, Room, Side, Situation, Variation, Verdict, WhyNot, parse, why_not
from asketa_core.body.ranges import Quantity
from asketa_core.mind import is_allowed
from tests.library import LIBRARY, variation
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, knee

EMPTY_ROOM = parse(Room, {"props": [{"id": "chair", "kind": "chair", "count": 2}, *(
    {"id": kind, "kind": kind, "count": 0} for kind in ("block", "slim_block", "bolster", "blanket", "cushion", "towel_roll", "round_bolster", "pillow")
)]})  # fmt: skip
"""Two chairs and nothing to put on them."""

RUNGS_A_NEW_HIP_CLOSES = ("low_lunge.bolster", "seated_fold.high_seat")


def asked(file: ClientFile, rung: str, side: Side = Side.RIGHT, room: Room = ROOM, **more: Any) -> WhyNot:
    return why_not(Situation.of(file, TODAY, room), variation(rung), side)


def by(found: WhyNot, way: str) -> list[str]:
    return [english(opener.words) for opener in found.openers if opener.by == way]


class WhyNots(TestCase):
    def test_of_an_open_rung_there_is_nothing_to_say(self) -> None:
        found = asked(client(), "figure_four.block_flat")
        self.assertEqual((found.closed_by, found.openers), ((), ()))

    def test_it_names_what_closes_as_everywhere_with_its_source(self) -> None:
        found = asked(client([hip(days_ago=40)]), "figure_four.over_thigh")
        self.assertIs(found.verdict, Verdict.LEAVE_OUT)
        self.assertTrue(all(english(each.words) for each in found.closed_by))
        self.assertTrue(any(each.source is not None and english(each.source) for each in found.closed_by))


class Dates(TestCase):
    def test_the_first_day_on_which_it_opens_and_not_the_one_before(self) -> None:
        situation = Situation.of(client([hip(days_ago=70, approach="direct_anterior")]), TODAY, ROOM)
        days = {
            rung: opener.date
            for rung in RUNGS_A_NEW_HIP_CLOSES
            for opener in why_not(situation, variation(rung), Side.RIGHT).openers
            if opener.date is not None
        }
        self.assertTrue(days)
        for rung, day in days.items():
            self.assertTrue(is_allowed(situation.on(day), variation(rung), Side.RIGHT), rung)
            self.assertFalse(is_allowed(situation.on(day - dt.timedelta(days=1)), variation(rung), Side.RIGHT), rung)


class Words(TestCase):
    def test_the_professionals_word_opens_what_it_is_about(self) -> None:
        told = [o for o in asked(client([hip(days_ago=400)]), "low_lunge.foot_on_chair").openers if o.by == "clearance"]
        self.assertEqual([(each.entry_id, "hip bend" in english(each.words)) for each in told], [("hip", True)])
        word = {"who": "surgeon", "date": TODAY, "scope": ["bend"]}
        heard = Situation.of(client([hip(days_ago=400, clearances=[word])]), TODAY, ROOM)
        self.assertTrue(is_allowed(heard, variation("low_lunge.foot_on_chair"), Side.RIGHT))

    def test_an_answer_that_is_missing_is_named_with_its_record(self) -> None:
        answers = [o for o in asked(client([knee(side="left")]), "hero.bolster").openers if o.by == "answer"]
        self.assertEqual([each.entry_id for each in answers], ["knee"])
        self.assertIn("how the knee is today", english(answers[0].words))

    def test_what_opens_only_together_is_named_together(self) -> None:
        found = asked(client([hip(days_ago=63)]), "figure_four.over_thigh")
        self.assertEqual([opener.by for opener in found.openers], ["together"])
        words = english(found.openers[0].words)
        self.assertIn("hip bend", words)
        self.assertIn("From ", words)


class Readings(TestCase):
    STIFF = client(ranges={("open_external_rotation", side): 30.0 for side in ("left", "right")})

    def test_the_least_reading_that_opens_it_opens_it_and_a_degree_less_does_not(self) -> None:
        tried = 0
        for rung in LIBRARY.families["figure_four"].variations[-2:]:
            for opener in asked(self.STIFF, rung.id).openers:
                if opener.reading is None or opener.reading[:2] != (Quantity.OPEN_EXTERNAL_ROTATION, Side.RIGHT):
                    continue
                self.assertTrue(self.open_with(rung, opener.reading[2]), rung.id)
                self.assertFalse(self.open_with(rung, opener.reading[2] - 1), rung.id)
                tried += 1
        self.assertTrue(tried)

    def open_with(self, rung: Variation, value: float) -> bool:
        file = client(ranges={("open_external_rotation", "left"): 30.0, ("open_external_rotation", "right"): value})
        return is_allowed(Situation.of(file, TODAY, ROOM), rung, Side.RIGHT)


class Props(TestCase):
    def test_what_the_shelf_lacks_is_named_and_what_it_has_is_not(self) -> None:
        found = asked(client(), "figure_four.block_flat", room=EMPTY_ROOM)
        self.assertIs(found.verdict, Verdict.LEAVE_OUT)
        self.assertTrue(any("block" in words for words in by(found, "prop")))
        self.assertEqual(by(asked(client(), "figure_four.block_flat"), "prop"), [])


class EveryOpener(TestCase):
    @settings(max_examples=4, deadline=None)
    @given(
        st.sampled_from([rung.id for family in LIBRARY.families.values() for rung in family.variations]),
        st.sampled_from(list(Side)),
        st.sampled_from([hip(days_ago=50), hip(days_ago=300, trouble_since="unknown"), knee()]),
    )
    def test_nothing_is_named_of_what_is_open_and_nothing_that_leaves_it_closed(
        self, rung: str, side: Side, record: dict[str, Any]
    ) -> None:
        situation = Situation.of(client([record]), TODAY, ROOM)
        found = why_not(situation, variation(rung), side)
        self.assertEqual(bool(found.closed_by), not is_allowed(situation, variation(rung), side))
        for opener in found.openers:
            self.assertNotIn(opener.verdict, (Verdict.LEAVE_OUT, Verdict.CHECK_FIRST))
            self.assertTrue(english(opener.words))
