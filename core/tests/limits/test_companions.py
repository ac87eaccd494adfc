"""Groin pinch and stiff hamstrings: going round the bone, and the back that pays for the fold."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from asketa_core import (
    NoGrid,
    Readout,
    Screened,
    Side,
    Situation,
    Trade,
    Verdict,
    best_few,
    limits_on,
)
from asketa_core.client.holds import SlotValue
from asketa_core.clientfile import ClientFile
from asketa_core.limits.model import Severity
from asketa_core.words.findings import findings_at
from tests.library import variation
from tests.strategies import ROOM, TODAY, client


def groin(**facts: Any) -> dict[str, Any]:
    return {"id": "g", "kind": "groin_pinch", "side": "right", "facts": facts}


def hamstrings(**facts: Any) -> dict[str, Any]:
    return {"id": "h", "kind": "hamstrings", "side": "left", "facts": facts}


def screened(file: ClientFile, rung: str = "seated_fold.chair") -> Screened:
    found = Situation.of(file, TODAY, ROOM).screen(variation(rung), Side.LEFT)
    assert not isinstance(found, NoGrid)
    return found


class GroinPinch(TestCase):
    def test_without_its_angle_only_deep_bends_straight_ahead_are_asked_about(self) -> None:
        unknown = client([groin()])
        self.assertIs(screened(unknown, "knee_to_chest.chair").verdict, Verdict.CLEAR)  # the other side
        other = Situation.of(unknown, TODAY, ROOM).screen(variation("knee_to_chest.chair"), Side.RIGHT)
        assert not isinstance(other, NoGrid)
        self.assertIs(other.verdict, Verdict.CHECK_FIRST)
        for rung in ("breath.sitting", "hip_hinge.stick", "bound_angle.lying_blocks"):
            self.assertNotIn(screened(unknown, rung).verdict, (Verdict.CHECK_FIRST, Verdict.LEAVE_OUT), rung)

    def test_leaning_into_the_pinch_closes_and_a_smaller_lean_is_found(self) -> None:
        found = screened(client([groin(straight_deg=100, turned_out_deg=115)]))
        self.assertIn(found.verdict, (Verdict.CLEAR, Verdict.WITH_SETUP))
        lean = found.grid.batch.values["lean"]
        self.assertLess(lean[found.best], 30)
        deep = found.grid.nearest({"lean": SlotValue(number=50)})
        self.assertTrue(found.totals.stops[deep])

    def test_the_other_side_is_not_concerned(self) -> None:
        limits = limits_on(client([groin(straight_deg=100)]), TODAY)
        self.assertEqual({limit.side for limit in limits if limit.code.startswith("groin.")}, {Side.RIGHT})


class StiffHamstrings(TestCase):
    RANGES = {("straight_leg_raise", side): 59.9 for side in ("left", "right")}

    def codes(self, file: ClientFile) -> set[str]:
        return {limit.code for limit in limits_on(file, TODAY)}

    def test_a_measured_raise_under_sixty_brings_the_rule_by_itself(self) -> None:
        self.assertIn("everyone.stiff_hamstrings", self.codes(client(ranges=self.RANGES)))
        at_sixty = dict.fromkeys(self.RANGES, 60.0)
        self.assertNotIn("everyone.stiff_hamstrings", self.codes(client(ranges=at_sixty)))
        self.assertNotIn("everyone.stiff_hamstrings", self.codes(client()))

    def test_one_sentence_names_every_rule_that_binds(self) -> None:
        file = client([hamstrings(low_back="weak", leg_tingling="no")], ranges=self.RANGES)
        found = screened(file, "seated_fold.strap")
        row = int(found.grid.size - 1)
        rounding = [f for f in findings_at(found, row) if f.readout == "spine_flexion"]
        self.assertEqual(len(rounding), 1)
        self.assertIn("hamstrings.back_rounds", rounding[0].codes)

    def test_tingling_nobody_asked_about_stays_a_caution(self) -> None:
        limits = limits_on(client([hamstrings(low_back="sore")]), TODAY)
        (nerve,) = (limit for limit in limits if limit.code == "hamstrings.nerve")
        self.assertIs(nerve.severity, Severity.CAUTION)
        self.assertEqual(nerve.missing, ("leg_tingling",))
        self.assertNotIn("hamstrings.nerve", self.codes(client([hamstrings(low_back="sore", leg_tingling="no")])))


class BothSchools(TestCase):
    def test_stand_side_by_side_and_the_longer_back_leads(self) -> None:
        stiff = {("straight_leg_raise", side): 50.0 for side in ("left", "right")}
        found = screened(client(ranges=stiff), "seated_fold.knees_supported")
        offered = dict(best_few(found))
        self.assertTrue({Trade.RAISE_SEAT, Trade.SUPPORT_KNEES} & set(offered))

        def rounding(row: int) -> float:
            return found.pose_at(row).middle(Readout.SPINE_FLEXION, None)

        for trade in (Trade.RAISE_SEAT, Trade.SUPPORT_KNEES):
            if trade in offered:
                self.assertLessEqual(rounding(offered[Trade.RECOMMENDED]), rounding(offered[trade]) + 5)
