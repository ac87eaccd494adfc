"""What usually closes a variation is worked out from typical records, never listed."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import Verdict, say, usual_closers
from asketa_core.closers import typical_records
from tests.library import variation
from tests.speech import english


class Closers(TestCase):
    def test_every_record_is_tried_on_the_legs_it_may_sit_on(self) -> None:
        found = usual_closers(variation("figure_four.block_flat"))
        for record in typical_records():
            legs = [closer.leg for closer in found if closer.name == say("typical", record.code)]
            self.assertEqual(sorted(legs), ["other", "worked"] if record.sided else [""], record.code)

    def test_the_hardest_comes_first(self) -> None:
        order = [Verdict.LEAVE_OUT, Verdict.CHECK_FIRST, Verdict.WITH_SETUP, Verdict.CLEAR]
        ranks = [order.index(closer.verdict) for closer in usual_closers(variation("figure_four.block_flat"))]
        self.assertEqual(ranks, sorted(ranks))

    def test_what_closes_says_why(self) -> None:
        for rung in ("figure_four.leaning", "bound_angle.lying_free", "low_lunge.blanket"):
            for closer in usual_closers(variation(rung)):
                if closer.verdict in (Verdict.LEAVE_OUT, Verdict.CHECK_FIRST):
                    self.assertTrue(english(closer.reason), f"{rung}: {english(closer.name)}")

    def test_what_a_typical_body_cannot_do_is_not_blamed_on_a_record(self) -> None:
        found = usual_closers(variation("hero.floor"))
        self.assertEqual((english(found[0].name), found[0].verdict), ("nothing recorded", Verdict.LEAVE_OUT))
        self.assertNotIn(found[0].reason, [closer.reason for closer in found[1:]])

    def test_late_pregnancy_does_not_lie_on_the_back(self) -> None:
        by_name = {english(closer.name): closer for closer in usual_closers(variation("bound_angle.lying_free"))}
        self.assertNotEqual(by_name["pregnancy, week 34"].verdict, Verdict.CLEAR)

    def test_a_fresh_hip_turns_nothing_out_on_its_own_leg(self) -> None:
        verdicts = {
            closer.leg: closer.verdict
            for closer in usual_closers(variation("figure_four.leaning"))
            if english(closer.name) == "hip replaced 4 weeks ago, from the front"
        }
        self.assertIs(verdicts["worked"], Verdict.LEAVE_OUT)
