"""Settled postures: sides mirror, bones keep their lengths, feet stay on what they rest on."""

from __future__ import annotations

import math
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import SIDES, NoGrid, Quantity, Readout, Side, Situation, Variation
from asketa_core.body.encoding import body_record
from asketa_core.body.measures import Body, Pregnancy
from asketa_core.body.ranges import GroinPinch, Range, Ranges
from asketa_core.kernel.codes import StoppedBy
from asketa_core.kernel.shared import LUMBAR_SHARE
from asketa_core.kernel.space import Vec
from asketa_core.kernel.trunk import DEEPEST_LEAN_DEG, ComesDown, lean_down, share_fold, trunk_chain
from asketa_core.poses.moments import quiet_sitting, taking_a_seat
from asketa_core.poses.settle import Posture, settle_case, settle_pose
from asketa_core.poses.transfers import transfers
from asketa_core.setup.grid import build_grid
from tests.library import variation, variations
from tests.strategies import ROOM, numbers, statures, turning_out


def ranges(left: float, right: float) -> Ranges:
    return Ranges.from_measured(
        {
            (Quantity.OPEN_EXTERNAL_ROTATION, Side.LEFT): Range(left, 5, True),
            (Quantity.OPEN_EXTERNAL_ROTATION, Side.RIGHT): Range(right, 5, True),
        }
    )


def setup_on(seat: float, block: float = 10, out: float = 40, ahead: float = 45, lean: float = 20) -> dict[str, float]:
    return {"seat": seat, "foot_block": block, "knee_out": out, "foot_ahead": ahead, "rest_foot": 0.0, "lean": lean}


def sitting(body: Body, own: Ranges, seat: float) -> Posture:
    return settle_case(quiet_sitting(variation("figure_four.block_flat")), body, own, setup_on(seat))


def leaving(technique: str, body: Body, own: Ranges, seat: float) -> Posture:
    return settle_case(taking_a_seat(technique), body, own, {"seat": seat})


def most(posture: Posture, readout: Readout, side: Side | None) -> float:
    return posture.spread(readout, side)[1]


def a_few(rung: Variation, side: Side, body: Body, of: Ranges) -> list[dict[str, float]]:
    """Set-ups from all over a variation's grid."""
    grid = build_grid(rung, side, body, of, ROOM, {})
    assert not isinstance(grid, NoGrid)
    rows = np.unique(np.linspace(0, grid.size - 1, 12).astype(int))
    return [{name: float(column[row]) for name, column in grid.batch.values.items()} for row in rows]


def mirrored(setup: dict[str, float]) -> dict[str, float]:
    swap = {"left": "right", "right": "left"}

    def other(name: str) -> str:
        stem, _, end = name.rpartition("_")
        return f"{stem}_{swap[end]}" if end in swap else name

    return {other(name): value for name, value in setup.items()}


class Geometry(TestCase):
    @settings(max_examples=2)
    @given(statures, turning_out, turning_out)
    def test_mirrored_bodies_give_mirrored_postures(self, stature: float, left: float, right: float) -> None:
        body = Body(stature, 70, pregnancy=Pregnancy(24))
        for rung in variations():
            for setup in a_few(rung, Side.LEFT, body, ranges(left, right)):
                one = settle_pose(rung, Side.LEFT, body, ranges(left, right), setup)
                two = settle_pose(rung, Side.RIGHT, body, ranges(right, left), mirrored(setup))
                for readout, side in one.readouts:
                    here, there = one.levels(readout, side), two.levels(readout, None if side is None else side.other)
                    np.testing.assert_allclose(here, there, atol=1e-6, err_msg=f"{rung.id}: {readout}")

    @settings(max_examples=3)
    @given(statures, turning_out, st.sampled_from(list(SIDES)))
    def test_bones_keep_their_lengths_and_knees_stay_above_the_floor(
        self, stature: float, out: float, side: Side
    ) -> None:
        body = Body(stature, 70)
        rest = body.length_cm("knee_above_rest")
        for rung in variations():
            for setup in a_few(rung, side, body, ranges(out, out)):
                posture = settle_pose(rung, side, body, ranges(out, out), setup)
                for each in SIDES:
                    leg = posture.leg(each)
                    self.assertGreaterEqual(leg.knee[2], rest - 1e-6, rung.id)
                    if posture.out_of_reach_cm(each) > 0:
                        continue
                    for start, end, segment in ((leg.hip, leg.knee, "thigh"), (leg.knee, leg.ankle, "lower_leg")):
                        length = float(np.linalg.norm(end - start))
                        self.assertAlmostEqual(length, body.length_cm(segment), delta=1e-6, msg=rung.id)

    def test_what_depends_on_few_slots_is_the_same_solved_once_or_for_every_set_up(self) -> None:
        rung = variation("bound_angle.low_seat")
        found = Situation.of_nobody().screen(rung, Side.LEFT)
        assert not isinstance(found, NoGrid)
        self.assertLess(len(found.pose.leg_xs[0]), found.grid.size)
        key = (Readout.HIP_ABDUCTION, Side.LEFT)
        once = found.read([key])[0]
        for row in range(0, found.grid.size, 7):
            setup = {name: float(column[row]) for name, column in found.grid.batch.values.items()}
            alone = settle_pose(rung, Side.LEFT, Body(170, 70), Ranges.from_measured({}), setup)
            np.testing.assert_allclose(once[row], alone.levels(*key), atol=1e-9)

    def test_no_knee_turns_out_further_than_the_hip_gives(self) -> None:
        posture = settle_pose(
            variation("figure_four.block_end"), Side.LEFT, Body(172, 70), ranges(40, 60), setup_on(48, 23, 80)
        )
        turned = posture.levels(Readout.HIP_EXTERNAL_ROTATION, Side.LEFT)
        self.assertTrue((turned <= np.array([35, 40, 45]) + 1e-6).all())
        self.assertAlmostEqual(most(posture, Readout.KNEE_TWIST, Side.LEFT), 0, places=9)

    def test_a_higher_seat_never_asks_more_hip_bend(self) -> None:
        bend = [
            sitting(Body(172, 70), ranges(60, 60), seat).middle(Readout.HIP_BEND, Side.RIGHT)
            for seat in np.arange(40.0, 60.0, 1.0)
        ]
        self.assertTrue((np.diff(bend) <= 1e-9).all())

    def test_the_posture_before_the_pelvis_rolls_is_not_a_way_round_a_limit(self) -> None:
        """Stiff hips roll the pelvis back and round the back; the trunk–thigh angle keeps the hip bend honest."""
        stiff = Ranges.from_measured({(Quantity.HIP_FLEXION, s): Range(70, 5, True) for s in SIDES})
        posture = sitting(Body(172, 70), stiff, 44)
        self.assertLess(posture.middle(Readout.HIP_CLOSING, Side.LEFT), 71)
        self.assertGreater(posture.middle(Readout.HIP_BEND, Side.LEFT), 80)
        self.assertGreater(posture.middle(Readout.SPINE_FLEXION, None), 5)


class Transfers(TestCase):
    def test_the_gentle_technique_bends_the_forward_hip_less(self) -> None:
        body = Body(172, 70)
        by_id = {t.id: leaving(t.id, body, ranges(60, 60), 48) for t in transfers().chair}
        plain = most(by_id["plain"], Readout.HIP_BEND, Side.RIGHT)
        gentle = most(by_id["right_forward"], Readout.HIP_BEND, Side.RIGHT)
        self.assertLess(gentle, plain - 15)

    def test_a_firm_seat_at_three_tenths_of_stature_keeps_ninety(self) -> None:
        """The seat rule for a replaced hip: 47 cm at 158, 51 at 170, 54 at 180."""
        for stature, seat in ((158, 47), (170, 51), (180, 54)):
            posture = leaving("right_forward", Body(stature, 70), ranges(60, 60), seat)
            self.assertLessEqual(most(posture, Readout.HIP_BEND, Side.RIGHT), 90)


class Plausible(TestCase):
    def test_figures_of_a_typical_body(self) -> None:
        """170 cm on a chair of 45: about 83 of hip bend upright, 113 leaning 30."""
        body = Body(170, 70)
        quiet = sitting(body, ranges(60, 60), 45)
        self.assertAlmostEqual(quiet.middle(Readout.HIP_BEND, Side.LEFT), 83, delta=0.8)

    def test_ankle_over_thigh_comes_level_only_with_much_turning_out(self) -> None:
        rung = variation("figure_four.over_thigh")
        slopes = {
            out: settle_pose(rung, Side.LEFT, Body(170, 70), ranges(out, out), setup_on(47, out=out)).middle(
                Readout.SHIN_SLOPE, Side.LEFT
            )
            for out in (45, 60, 75)
        }
        self.assertGreater(slopes[45], 35)
        self.assertGreater(slopes[60], 20)
        self.assertLess(slopes[75], 15)

    def test_soles_together_near_on_rising_seats(self) -> None:
        """170 cm, seat 0, 10 and 20: knees about 17 and 7 above the hips, then 3 below; abduction stops them."""
        rung, body = variation("bound_angle.low_seat"), Body(170, 70)
        for seat, above in ((0, 17), (10, 7), (20, -3)):
            posture = settle_pose(rung, Side.LEFT, body, Ranges.from_measured({}), numbers(seat=seat, feet_ahead=23))
            self.assertAlmostEqual(-posture.middle(Readout.HIP_ABOVE_KNEE_CM, Side.LEFT), above, delta=1.2)
            self.assertIs(posture.stopped_by(Side.LEFT), StoppedBy.ABDUCTION)

    def test_long_sitting_rolls_a_stiff_pelvis_back(self) -> None:
        """Straight-leg raise 65: the pelvis 24° back on the floor, 17 at 10 cm, 10 at 20."""
        stiff = Ranges.from_measured({(Quantity.STRAIGHT_LEG_RAISE, s): Range(65, 5, True) for s in SIDES})
        for seat, back in ((0, 24), (10, 17), (20, 10)):
            posture = settle_pose(
                variation("seated_fold.folded_blanket"), Side.LEFT, Body(170, 70), stiff, numbers(seat=seat, lean=0)
            )
            self.assertAlmostEqual(-posture.pitch_deg, back, delta=0.6)

    def test_knees_come_below_the_hips_at_the_height_the_turning_out_asks_for(self) -> None:
        """Cross-legged: 12–14 cm for 60° of turning out, 20–24 cm for 45°."""
        for out, low, high in ((60, 10, 16), (45, 20, 26)):
            falls = [
                settle_pose(
                    variation("cross_legged.level"), Side.LEFT, Body(170, 70), ranges(out, out), numbers(seat=seat)
                ).middle(Readout.HIP_ABOVE_KNEE_CM, Side.LEFT)
                for seat in (low, high)
            ]
            self.assertLess(falls[0], 0)
            self.assertGreater(falls[1], 0)


class Folding(TestCase):
    """The stiffer side decides, seats give back what stiffness takes, bent knees free the pelvis."""

    def fold(self, rung: str = "seated_fold.knees_supported", left: float = 60, right: float = 60, **setup: float):
        raised = {Side.LEFT: left, Side.RIGHT: right}
        own = Ranges.from_measured({(Quantity.STRAIGHT_LEG_RAISE, s): Range(v, 5, True) for s, v in raised.items()})
        values = {"seat": 0.0, "lean": 30.0, "knee_support_left": 0.0, "knee_support_right": 0.0} | setup
        return settle_pose(variation(rung), Side.LEFT, Body(170, 70), own, numbers(**values))

    def spine(self, **of: float) -> float:
        return self.fold(**of).middle(Readout.SPINE_FLEXION, None)

    @settings(max_examples=30)
    @given(st.floats(35, 90), st.floats(35, 90), st.floats(0, 30), st.floats(0, 50))
    def test_the_smaller_side_decides_whichever_it_is(self, one: float, other: float, seat: float, lean: float) -> None:
        here = self.spine(left=one, right=other, seat=seat, lean=lean)
        there = self.spine(left=other, right=one, seat=seat, lean=lean)
        stiff = min(one, other)
        self.assertAlmostEqual(here, there, places=6)
        self.assertAlmostEqual(here, self.spine(left=stiff, right=stiff, seat=seat, lean=lean), places=6)

    @settings(max_examples=30)
    @given(st.floats(35, 90), st.floats(0, 25), st.floats(1, 8), st.sampled_from(["seated_fold.strap"]))
    def test_a_higher_seat_never_raises_the_hip_bend_of_upright_sitting(
        self, raised: float, seat: float, more: float, rung: str
    ) -> None:
        low, high = (
            self.fold(left=raised, right=raised, seat=height, lean=0).middle(Readout.HIP_BEND, Side.LEFT)
            for height in (seat, seat + more)
        )
        self.assertLessEqual(high, low + 1e-6)

    def test_a_support_under_the_knees_frees_the_pelvis(self) -> None:
        bare = self.spine(left=50, right=50)
        over = self.spine(left=50, right=50, knee_support_left=15, knee_support_right=15)
        self.assertLess(over, bare - 2)

    def test_one_supported_knee_helps_only_the_side_that_decides(self) -> None:
        bare = self.spine(left=45, right=80)
        self.assertLess(self.spine(left=45, right=80, knee_support_left=15), bare - 2)
        self.assertAlmostEqual(self.spine(left=45, right=80, knee_support_right=15), bare, places=6)

    def test_hands_on_a_chair_take_load_off_the_back(self) -> None:
        free = self.fold("seated_fold.strap", seat=0, lean=40).middle(Readout.SPINE_MOMENT_RATIO, None)
        held = self.fold("seated_fold.high_seat", seat=0, lean=40).middle(Readout.SPINE_MOMENT_RATIO, None)
        self.assertAlmostEqual(held, 0.8 * free, places=6)

    def test_an_own_coupling_changes_what_a_bent_knee_gives(self) -> None:
        raised = {(Quantity.STRAIGHT_LEG_RAISE, s): Range(50, 5, True) for s in SIDES}
        setup = numbers(seat=0, lean=30, knee_support_left=15, knee_support_right=15)
        given_back = [
            settle_pose(
                variation("seated_fold.knees_supported"), Side.LEFT, Body(170, 70),
                Ranges.from_measured(raised, dict.fromkeys(SIDES, coupling)), setup,
            ).middle(Readout.SPINE_FLEXION, None)
            for coupling in (0.3, 0.8)
        ]  # fmt: skip
        self.assertLess(given_back[1], given_back[0])


class Bellies(TestCase):
    def clearance(self, week: float, lean: float, feet: float = 20.0) -> float:
        body = Body(168, 68, pregnancy=Pregnancy(week))
        posture = settle_pose(
            variation("bound_angle.leaning"), Side.LEFT, body, Ranges.from_measured({}),
            numbers(seat=8, lean=lean, feet_ahead=feet),
        )  # fmt: skip
        return posture.middle(Readout.BELLY_CLEARANCE_CM, Side.LEFT)

    def test_it_shrinks_with_the_weeks_and_with_the_lean(self) -> None:
        self.assertLess(self.clearance(34, 10), self.clearance(20, 10))
        self.assertLess(self.clearance(24, 35), self.clearance(24, 5))

    def test_long_legs_together_leave_less_room_than_legs_apart(self) -> None:
        body = Body(168, 68, pregnancy=Pregnancy(30))
        mobile = Ranges.from_measured({(Quantity.STRAIGHT_LEG_RAISE, s): Range(110, 5, True) for s in SIDES})
        together, apart = (
            settle_pose(
                variation("seated_fold.feet_apart"), Side.LEFT, body, mobile, numbers(seat=0, lean=40, apart=angle)
            ).middle(Readout.BELLY_CLEARANCE_CM, Side.LEFT)
            for angle in (5, 25)
        )
        self.assertLess(together, apart)

    def test_nobody_else_has_this_read_out(self) -> None:
        posture = settle_pose(
            variation("seated_fold.strap"), Side.LEFT, Body(168, 68), Ranges.from_measured({}), numbers(lean=40)
        )
        self.assertNotIn((Readout.BELLY_CLEARANCE_CM, Side.LEFT), posture.readouts)


class Pinching(TestCase):
    def test_the_pelvis_stops_where_the_groin_pinches_and_the_room_left_is_read_off(self) -> None:
        body, setup = Body(170, 70), numbers(seat=45, lean=30, feet_ahead=10)
        free = Ranges.from_measured({})
        pinched = Ranges.from_measured({}, groin_pinch={Side.RIGHT: GroinPinch(85, 100)})
        rung = variation("seated_fold.chair")
        loose, capped = (settle_pose(rung, Side.LEFT, body, own, setup) for own in (free, pinched))
        self.assertLess(capped.pitch_deg, loose.pitch_deg)
        self.assertAlmostEqual(capped.middle(Readout.GROIN_ROOM, Side.RIGHT), 0.0, places=6)
        self.assertNotIn((Readout.GROIN_ROOM, Side.LEFT), capped.readouts)


class DownToTheHands(TestCase):
    def test_shoulders_come_down_until_straight_arms_reach_whatever_the_back_rounds(self) -> None:
        """On blocks of 46, 30 and 10 cm, with stiff and with free hamstrings."""
        body = Body(170, 70)
        record, below = body_record(body), body.length_cm("shoulder_below_c7")
        for room in (25.0, 60.0, 120.0):
            for target in (64.0, 84.0, 100.0):
                lean, misses = lean_down(record, 86.0, ComesDown(target, below, 0.0, 0.0), 80.0, room, -30.0)
                share = share_fold(lean, room, -30.0, 0.0)
                lumbar = LUMBAR_SHARE * share.spine_flexion_deg
                chain = trunk_chain(record, Vec(0.0, 0.0, 86.0), share.pitch_deg, lumbar, lean)
                shoulders = chain.c7.z - below * math.cos(math.radians(lean))
                if room == 120.0:
                    self.assertLess(lean, DEEPEST_LEAN_DEG)
                if lean < DEEPEST_LEAN_DEG:
                    self.assertLess(misses, 1.0)
                    self.assertAlmostEqual(shoulders, target, delta=0.5)

    def test_a_stiffer_back_of_the_legs_leans_deeper_and_rounds_more(self) -> None:
        rung = variation("hip_hinge.blocks")
        stiff, free = (
            settle_pose(rung, Side.LEFT, Body(170, 70), own, numbers(bend=20, hand_blocks=23))
            for own in (
                Ranges.from_measured({(Quantity.STRAIGHT_LEG_RAISE, s): Range(slr, 5, True) for s in SIDES})
                for slr in (55, 100)
            )
        )
        self.assertGreater(*(p.middle(Readout.SPINE_FLEXION, None) for p in (stiff, free)))

    def test_a_leg_long_behind_on_the_floor_is_not_turned_over(self) -> None:
        """Nearly straight it has no plane of its own: it looks down, as it does when it bends a little more."""
        rung = variation("half_pigeon.shin_forward")
        on_the_floor, raised_hip = (
            settle_pose(rung, Side.LEFT, Body(150, 70), ranges(40, 40),
                        numbers(front_hip=hip, shin=90, thigh_out=30, knee_support=11, lean=70))
            for hip in (0, 6)
        )  # fmt: skip
        for pose in (on_the_floor, raised_hip):
            self.assertAlmostEqual(pose.middle(Readout.HIP_EXTERNAL_ROTATION, Side.RIGHT), 0.0, delta=1e-6)
