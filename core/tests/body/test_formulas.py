"""Formulas that stand on their own: folds, twist, weight, growth, tape."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from asketa_core.body.angles import femur_axes, hip_angles
from asketa_core.body.closing import WORLD_FORWARD, knee_circle
from asketa_core.body.drop import drop_knee
from asketa_core.body.knee import KneeRule, three_factor_rule, twist_left
from asketa_core.body.measures import Body
from asketa_core.body.pregnancy import extra_depth_cm, extra_mass_kg
from asketa_core.body.ranges import Quantity, Range, Ranges, method_error_deg
from asketa_core.body.rotations import pelvis_rotation
from asketa_core.body.spine import HAMSTRING_COUPLING, coupling_from_ninety_ninety, hip_room, share_fold
from asketa_core.body.statics import balance_margin, resting_foot_share
from asketa_core.body.tape import (
    dorsiflexion_from_wall,
    external_rotation_from_knee_height,
    knee_flexion_from_heel_gap,
)
from asketa_core.commands.angles import AnglesRequest, run_angles
from asketa_core.errors import InputError
from asketa_core.units import Side


class Folding(TestCase):
    def test_stiff_hamstrings_roll_the_pelvis_back(self) -> None:
        room = hip_room(120, 70, 0, 0, coupling=0.5)
        share = share_fold(0, room, 88.6)
        self.assertAlmostEqual(float(share.pitch_deg), -18.6, places=2)
        self.assertAlmostEqual(float(share.lumbar_flexion_deg), 11.16, places=2)
        self.assertAlmostEqual(float(share.thoracic_flexion_deg), 7.44, places=2)

    def test_bent_knees_give_room(self) -> None:
        room = hip_room(120, 70, 90, 0, coupling=0.5)
        share = share_fold(40, room, 85)
        self.assertAlmostEqual(float(room), 115, places=6)
        self.assertAlmostEqual(float(share.pitch_deg), 30, places=6)
        self.assertAlmostEqual(float(share.spine_flexion_deg), 10, places=6)

    @given(st.floats(-20, 80), st.floats(40, 140), st.floats(0, 120))
    def test_pelvis_and_spine_make_up_the_lean(self, lean: float, room: float, flexion: float) -> None:
        share = share_fold(lean, room, flexion)
        self.assertAlmostEqual(float(share.pitch_deg + share.spine_flexion_deg), lean, places=9)
        self.assertLessEqual(float(share.pitch_deg), lean + 1e-9)

    def test_own_coupling_only_where_the_test_says_something(self) -> None:
        self.assertEqual(coupling_from_ninety_ninety(86, 30), HAMSTRING_COUPLING)
        self.assertEqual(coupling_from_ninety_ninety(60, 9.9), HAMSTRING_COUPLING)
        self.assertAlmostEqual(coupling_from_ninety_ninety(60, 60), 0.5)
        self.assertEqual(coupling_from_ninety_ninety(40, 50), 0.8)


class Knees(TestCase):
    def test_twist_left_of_a_square_shin(self) -> None:
        asked = run_angles(AnglesRequest(side="left", hip=(0, 10, 29), knee=(32, 10, 5), ankle=(32, -30, 5)))
        self.assertAlmostEqual(asked["external_rotation_deg"], 90, delta=0.02)
        self.assertAlmostEqual(asked["flexion_deg"], 53.13, delta=0.02)
        self.assertAlmostEqual(float(twist_left(asked["external_rotation_deg"], 45)), 45, delta=0.02)

    def test_twist_is_never_negative(self) -> None:
        self.assertEqual(float(twist_left(30, 50)), 0)

    def test_three_factors(self) -> None:
        self.assertIs(three_factor_rule(100, 20, 0.2), KneeRule.STOP)
        self.assertIs(three_factor_rule(100, 20, 0.15), KneeRule.CAUTION)
        self.assertIs(three_factor_rule(60, 20, 0.2), KneeRule.CAUTION)
        self.assertIs(three_factor_rule(60, 20, 0.15), KneeRule.FINE)
        self.assertIs(three_factor_rule(100, 5, 0.9), KneeRule.FINE)


class Weight(TestCase):
    def test_balance_inside_a_rectangle(self) -> None:
        corners = np.array([[0, 0], [20, 0], [20, 30], [0, 30]])
        self.assertAlmostEqual(balance_margin(corners, np.array([5, 12])), 5.0, places=9)

    def test_balance_outside_is_negative(self) -> None:
        corners = np.array([[0, 0], [20, 0], [20, 30], [0, 30]])
        self.assertAlmostEqual(balance_margin(corners, np.array([23, 34])), -5.0, places=9)

    def test_contacts_in_a_line_enclose_nothing(self) -> None:
        with self.assertRaises(InputError):
            balance_margin(np.array([[0, 0], [1, 1], [2, 2]]), np.array([1, 1]))

    def test_a_resting_leg_never_loads_the_knee(self) -> None:
        hip, knee, ankle = np.array([0.0, 9, 53]), np.array([41.0, 9, 49]), np.array([41.0, 9, 7])
        share = float(resting_foot_share(hip, knee, ankle, ankle + np.array([15.0, 0, 0]), (0.1, 0.0465, 0.0145)))
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
        hip = np.array([0.0, m * 8.5, seat + 8.5])
        ankle = np.array([distance, m * 6.63, 4.25])
        circle = knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), m)
        drop = drop_knee(circle, np.array([0.0, 1.0, 0.0]), m, rotation, 89, 5)
        knee = circle.knee_at(drop.swivel_deg)
        asked = hip_angles(pelvis_rotation(0, 0, 0), femur_axes(hip, knee, ankle, WORLD_FORWARD), m)
        found = external_rotation_from_knee_height(body, side, float(knee[2]), distance, seat)
        self.assertAlmostEqual(found, float(asked.external_rotation_deg), places=4)

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
