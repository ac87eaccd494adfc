"""Formulas that stand on their own: folds, twist, weight, growth, tape."""

from __future__ import annotations

import math
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core.body.measures import Body
from asketa_core.body.pregnancy import extra_depth_cm, extra_mass_kg
from asketa_core.body.ranges import Quantity, Range, Ranges, method_error_deg
from asketa_core.body.spine import HAMSTRING_COUPLING, coupling_from_ninety_ninety
from asketa_core.body.tape import (
    dorsiflexion_from_wall,
    external_rotation_from_knee_height,
    knee_flexion_from_heel_gap,
)
from asketa_core.errors import InputError
from asketa_core.kernel.angles import femur_axes, hip_angles
from asketa_core.kernel.closing import knee_at, knee_circle, up_or_ahead
from asketa_core.kernel.drop import drop_knee
from asketa_core.kernel.shared import LUMBAR_SHARE, STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, UPRIGHT, Vec
from asketa_core.kernel.trunk import hip_room, share_fold
from asketa_core.poses.library import standard_library
from asketa_core.poses.moments import quiet_sitting
from asketa_core.poses.posture import Readout
from asketa_core.poses.settle import settle_case
from asketa_core.units import SIDES, Side


class Folding(TestCase):
    def test_stiff_hamstrings_roll_the_pelvis_back(self) -> None:
        room = hip_room(120, 70, 0, 0, 0.5, math.inf)
        share = share_fold(0, room - 88.6, -math.inf, 0)
        self.assertAlmostEqual(share.pitch_deg, -18.6, places=2)
        self.assertAlmostEqual(LUMBAR_SHARE * share.spine_flexion_deg, 11.16, places=2)

    def test_bent_knees_give_room(self) -> None:
        room = hip_room(120, 70, 90, 0, 0.5, math.inf)
        share = share_fold(40, room - 85, -math.inf, 0)
        self.assertAlmostEqual(room, 115, places=6)
        self.assertAlmostEqual(share.pitch_deg, 30, places=6)
        self.assertAlmostEqual(share.spine_flexion_deg, 10, places=6)

    @given(st.floats(-20, 80), st.floats(-80, 140))
    def test_pelvis_and_spine_make_up_the_lean(self, lean: float, room: float) -> None:
        share = share_fold(lean, room, -math.inf, 0)
        self.assertAlmostEqual(share.pitch_deg + share.spine_flexion_deg, lean, places=9)
        self.assertLessEqual(share.pitch_deg, lean + 1e-9)

    def test_own_coupling_only_where_the_test_says_something(self) -> None:
        self.assertEqual(coupling_from_ninety_ninety(86, 30), HAMSTRING_COUPLING)
        self.assertEqual(coupling_from_ninety_ninety(60, 9.9), HAMSTRING_COUPLING)
        self.assertAlmostEqual(coupling_from_ninety_ninety(60, 60), 0.5)
        self.assertEqual(coupling_from_ninety_ninety(40, 50), 0.8)


class Weight(TestCase):
    def test_a_planted_resting_leg_passes_on_a_tenth_of_the_weight(self) -> None:
        posture = settle_case(
            quiet_sitting(standard_library().variation("figure_four.block_flat")), Body(170, 70),
            Ranges.from_measured({}), {"seat": 45},
        )  # fmt: skip
        for side in SIDES:
            share = posture.middle(Readout.KNEE_LOAD_SHARE, side)
            self.assertGreater(share, 0.05)
            self.assertLess(share, 0.15)


class Growth(TestCase):
    def test_week_24(self) -> None:
        self.assertAlmostEqual(extra_depth_cm(24), 6.5)
        self.assertAlmostEqual(extra_mass_kg(24), 5.75)

    def test_twins_and_ends(self) -> None:
        self.assertEqual(extra_depth_cm(12), 0)
        self.assertAlmostEqual(extra_depth_cm(40, twins=True), 18.75)


class Tape(TestCase):
    def test_level_seat(self) -> None:
        self.assertAlmostEqual(Body(170, 70).level_seat_cm, 39.95, delta=0.05)

    def test_a_tape_measure_outranks_proportion(self) -> None:
        self.assertEqual(Body(170, 70, {"lower_leg": 45}).length_cm("lower_leg"), 45)

    def test_a_segment_nobody_has(self) -> None:
        with self.assertRaises(InputError):
            Body(170, 70, {"tail": 20})

    def test_knee_to_wall(self) -> None:
        body = Body(170, 70)
        self.assertAlmostEqual(dorsiflexion_from_wall(body, 8), 31.37, delta=0.01)
        self.assertGreater(dorsiflexion_from_wall(body, 10), dorsiflexion_from_wall(body, 8))

    def test_heel_to_seat(self) -> None:
        body = Body(170, 70)
        self.assertGreater(knee_flexion_from_heel_gap(body, 0), knee_flexion_from_heel_gap(body, 10))

    @given(st.floats(30, 75), st.floats(0, 15), st.floats(25, 45), st.sampled_from(list(Side)))
    def test_knee_height_gives_back_the_rotation_that_stopped_it(
        self, rotation: float, seat: float, distance: float, side: Side
    ) -> None:
        body = Body(170, 70)
        m = side.sign
        hip, ankle = Vec(0.0, m * 8.5, seat + 8.5), Vec(distance, m * 6.63, 4.25)
        toward = up_or_ahead(hip, ankle)
        circle = knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), m, toward)
        knee = knee_at(circle, drop_knee(circle, UPRIGHT.left, m, rotation, 89, 5).swivel_deg)
        asked = hip_angles(UPRIGHT, femur_axes(hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG), m)
        found = external_rotation_from_knee_height(body, side, knee.z, distance, seat)
        self.assertAlmostEqual(found, asked.external_rotation_deg, places=4)

    def test_an_impossible_knee_height_is_refused(self) -> None:
        with self.assertRaises(InputError) as caught:
            external_rotation_from_knee_height(Body(170, 70), Side.LEFT, 80, 35, 0)
        self.assertIn("between", caught.exception.reason)


class Measuring(TestCase):
    def test_stature_of_a_slip_of_the_pen(self) -> None:
        for stature in (17, 1.74, 1740):
            with self.assertRaises(InputError) as caught:
                Body(stature, 70)
            self.assertEqual(caught.exception.field, "stature_cm")

    def test_unmeasured_ranges_are_the_population_and_say_so(self) -> None:
        ranges = Ranges.from_measured({(Quantity.HIP_FLEXION, Side.LEFT): Range(100, 5, measured=True)})
        self.assertTrue(ranges.get(Quantity.HIP_FLEXION, Side.LEFT).measured)
        other = ranges.get(Quantity.HIP_FLEXION, Side.RIGHT)
        self.assertFalse(other.measured)
        self.assertEqual(list(other.at_levels()), [105, 120, 135])

    def test_an_unknown_method_counts_as_by_eye(self) -> None:
        self.assertEqual(method_error_deg("guess"), method_error_deg("eye"))
