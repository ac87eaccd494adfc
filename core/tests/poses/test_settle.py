"""Settled postures: sides mirror, bones keep their lengths, feet stay on what they rest on."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import SIDES, NoGrid, Quantity, Readout, Side, Situation, variation, variations
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Range, Ranges
from asketa_core.poses.settle import SetupBatch, settle_pose, settle_quiet_sitting, settle_transfer
from asketa_core.poses.transfers import transfers
from tests.strategies import ROOM, TODAY, client, statures, turning_out


def ranges(left: float, right: float) -> Ranges:
    return Ranges.from_measured(
        {
            (Quantity.OPEN_EXTERNAL_ROTATION, Side.LEFT): Range(left, 5, True),
            (Quantity.OPEN_EXTERNAL_ROTATION, Side.RIGHT): Range(right, 5, True),
        }
    )


def batch(seats: list[float], block: float = 10, out: float = 40, ahead: float = 45, lean: float = 20) -> SetupBatch:
    n = len(seats)
    columns = {"seat": seats, "foot_block": [block] * n, "knee_out": [out] * n, "foot_ahead": [ahead] * n}
    columns |= {"rest_foot": [0.0] * n, "lean": [lean] * n}
    return SetupBatch({k: np.array(v, float) for k, v in columns.items()}, np.zeros(n, bool), np.ones(n, bool))


class Geometry(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(statures, turning_out, turning_out, st.sampled_from(list(variations())), st.floats(40, 56))
    def test_mirrored_bodies_give_mirrored_postures(
        self, stature: float, left: float, right: float, rung: object, seat: float
    ) -> None:
        body, setup = Body(stature, 70), batch([seat])
        one = settle_pose(rung, Side.LEFT, body, ranges(left, right), setup)
        two = settle_pose(rung, Side.RIGHT, body, ranges(right, left), setup)
        for (readout, side), values in one.readouts.items():
            mirrored = two.readouts[(readout, side.other if side is not None else None)]
            np.testing.assert_allclose(values, mirrored, atol=1e-6, err_msg=readout)

    @settings(max_examples=40, deadline=None)
    @given(statures, turning_out, st.sampled_from(list(variations())), st.floats(40, 56), st.sampled_from(list(SIDES)))
    def test_bones_keep_their_lengths(self, stature: float, out: float, rung: object, seat: float, side: Side) -> None:
        body = Body(stature, 70)
        posture = settle_pose(rung, side, body, ranges(out, out), batch([seat]))
        for leg in posture.legs.values():
            np.testing.assert_allclose(np.linalg.norm(leg.knee - leg.hip, axis=-1), body.length_cm("thigh"), atol=1e-6)
            if not any(mask.any() for (trouble, _), mask in posture.troubles.items() if trouble.value == "reach"):
                shin = np.linalg.norm(leg.ankle - leg.knee, axis=-1)
                np.testing.assert_allclose(shin, body.length_cm("lower_leg"), atol=1e-6)

    def test_no_knee_turns_out_further_than_the_hip_gives(self) -> None:
        posture = settle_pose(
            variation("figure_four.block_end"), Side.LEFT, Body(172, 70), ranges(40, 60), batch([48], 23, 80)
        )
        turned = posture.readouts[(Readout.HIP_EXTERNAL_ROTATION, Side.LEFT)][:, 0]
        self.assertTrue((turned <= np.array([35, 40, 45]) + 1e-6).all())
        self.assertAlmostEqual(posture.readouts[(Readout.KNEE_TWIST, Side.LEFT)].max(), 0, places=9)

    def test_a_higher_seat_never_asks_more_hip_bend(self) -> None:
        seats = list(np.arange(40.0, 60.0, 1.0))
        quiet = settle_quiet_sitting(variation("figure_four.block_flat"), Body(172, 70), ranges(60, 60), batch(seats))
        bend = quiet.readouts[(Readout.HIP_BEND, Side.RIGHT)][0]
        self.assertTrue((np.diff(bend) <= 1e-9).all())

    def test_the_posture_before_the_pelvis_rolls_is_not_a_way_round_a_limit(self) -> None:
        """Stiff hips roll the pelvis back and round the back; the trunk–thigh angle keeps the hip bend honest."""
        stiff = Ranges.from_measured({(Quantity.HIP_FLEXION, s): Range(70, 5, True) for s in SIDES})
        posture = settle_quiet_sitting(variation("figure_four.block_flat"), Body(172, 70), stiff, batch([44]))
        middle = 1
        self.assertLess(posture.readouts[(Readout.HIP_CLOSING, Side.LEFT)][middle, 0], 71)
        self.assertGreater(posture.readouts[(Readout.HIP_BEND, Side.LEFT)][middle, 0], 80)
        self.assertGreater(posture.readouts[(Readout.SPINE_FLEXION, None)][middle, 0], 5)


class Transfers(TestCase):
    def test_the_gentle_technique_bends_the_forward_hip_less(self) -> None:
        rung, body = variation("figure_four.block_flat"), Body(172, 70)
        by_id = {t.id: settle_transfer(t, rung, body, ranges(60, 60), batch([48])) for t in transfers().chair}
        plain = by_id["plain"].readouts[(Readout.HIP_BEND, Side.RIGHT)].max()
        gentle = by_id["right_forward"].readouts[(Readout.HIP_BEND, Side.RIGHT)].max()
        self.assertLess(gentle, plain - 15)

    def test_a_firm_seat_at_three_tenths_of_stature_keeps_ninety(self) -> None:
        """The seat rule for a replaced hip: 47 cm at 158, 51 at 170, 54 at 180."""
        technique = next(t for t in transfers().chair if t.id == "right_forward")
        for stature, seat in ((158, 47), (170, 51), (180, 54)):
            posture = settle_transfer(
                technique, variation("figure_four.block_flat"), Body(stature, 70), ranges(60, 60), batch([seat])
            )
            self.assertLessEqual(posture.readouts[(Readout.HIP_BEND, Side.RIGHT)].max(), 90)


class Plausible(TestCase):
    def test_figures_of_a_typical_body(self) -> None:
        """170 cm on a chair of 45: about 83 of hip bend upright, 113 leaning 30."""
        body = Body(170, 70)
        quiet = settle_quiet_sitting(variation("figure_four.block_flat"), body, ranges(60, 60), batch([45]))
        self.assertAlmostEqual(quiet.readouts[(Readout.HIP_BEND, Side.LEFT)][0, 0], 83, delta=0.8)

    def test_ankle_over_thigh_comes_level_only_with_much_turning_out(self) -> None:
        rung = variation("figure_four.over_thigh")
        slopes = {
            out: settle_pose(rung, Side.LEFT, Body(170, 70), ranges(out, out), batch([47], out=out)).readouts[
                (Readout.SHIN_SLOPE, Side.LEFT)
            ][1, 0]
            for out in (45, 60, 75)
        }
        self.assertGreater(slopes[45], 35)
        self.assertGreater(slopes[60], 20)
        self.assertLess(slopes[75], 15)

    def test_every_variation_has_a_set_up_for_every_body(self) -> None:
        for stature in (150, 200):
            for out in (40, 80):
                file = client(
                    stature=stature, ranges={("open_external_rotation", side): out for side in ("left", "right")}
                )
                situation = Situation.of(file, TODAY, ROOM)
                for rung in variations():
                    for side in SIDES:
                        screened = situation.screen(rung, side)
                        self.assertNotIsInstance(screened, NoGrid)
                        best = screened.best
                        self.assertTrue(screened.possible[best] or screened.troubles_at(best), (stature, out, rung.id))
