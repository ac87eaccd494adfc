"""The dropped knee: check values, and the closed form against a fine scan."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core.body.angles import femur_axes, hip_angles
from asketa_core.body.closing import WORLD_FORWARD, KneeCircle, knee_circle
from asketa_core.body.drop import StoppedBy, drop_knee
from asketa_core.body.rotations import pelvis_rotation
from asketa_core.commands.angles import AnglesRequest, run_angles

FLOOR_LEG = {"thigh_cm": 41.65, "lower_leg_cm": 41.82}


def dropped(side: str, hip: tuple[float, ...], ankle: tuple[float, ...], e: float, a: float) -> dict[str, object]:
    stops = {"external_rotation_deg": e, "abduction_deg": a, "support_z_cm": 5.1}
    return run_angles(AnglesRequest(side=side, hip=hip, ankle=ankle, drop=stops, **FLOOR_LEG))


class CheckValues(TestCase):
    def test_stops_on_rotation(self) -> None:
        answer = dropped("left", (0, 8.5, 18.5), (40, 6.63, 4.25), 50, 70)
        self.assertEqual(answer["stopped_by"], "external_rotation")
        self.assertAlmostEqual(answer["knee"][2], 25.086, delta=0.05)
        self.assertAlmostEqual(answer["flexion_deg"], 104.09, delta=0.05)
        self.assertAlmostEqual(answer["abduction_deg"], 49.51, delta=0.05)

    def test_stops_on_abduction(self) -> None:
        answer = dropped("right", (0, -8.5, 8.5), (20, -6.63, 4.25), 60, 45)
        self.assertEqual(answer["stopped_by"], "abduction")
        self.assertAlmostEqual(answer["knee"][2], 31.882, delta=0.05)
        self.assertAlmostEqual(answer["flexion_deg"], 142.55, delta=0.05)
        self.assertAlmostEqual(answer["external_rotation_deg"], 22.20, delta=0.05)
        self.assertAlmostEqual(answer["knee_flexion_deg"], 151.52, delta=0.05)

    def test_stops_on_the_floor(self) -> None:
        answer = dropped("left", (0, 8.5, 18.5), (40, 6.63, 4.25), 120, 80)
        self.assertEqual(answer["stopped_by"], "support")
        self.assertAlmostEqual(answer["knee"][2], 5.1, delta=0.05)
        self.assertAlmostEqual(answer["external_rotation_deg"], 107.74, delta=0.05)


class OtherEndings(TestCase):
    def test_a_foot_out_of_reach_cannot_close(self) -> None:
        self.assertEqual(dropped("left", (0, 8.5, 18.5), (95, 6.63, 4.25), 50, 70)["stopped_by"], "cannot_close")

    def test_a_shape_that_asks_too_much_rotation_from_the_start(self) -> None:
        answer = dropped("left", (0, 8.5, 18.5), (30, -30, 18), 5, 70)
        self.assertEqual(answer["stopped_by"], "already_past_external_rotation")

    def test_a_knee_that_starts_under_its_support(self) -> None:
        stops = {"external_rotation_deg": 60, "abduction_deg": 60, "support_z_cm": 60}
        answer = run_angles(
            AnglesRequest(side="left", hip=(0, 8.5, 18.5), ankle=(40, 6.6, 4.25), drop=stops, **FLOOR_LEG)
        )
        self.assertEqual(answer["stopped_by"], "already_past_support")


def scan(circle: KneeCircle, pelvis: np.ndarray, sign: float, e: float, a: float, support: float) -> float:
    """First swivel of a fine scan at which anything is reached: the oracle."""
    swivels = np.linspace(0, 180, 36001)
    wide = KneeCircle(
        **{
            name: np.broadcast_to(getattr(circle, name), (len(swivels), *np.shape(getattr(circle, name))))
            for name in KneeCircle.__slots__
        }
    )
    knees = wide.knee_at(swivels)
    ankles = np.broadcast_to(circle.hip + circle.axis * _length(circle), knees.shape)
    angles = hip_angles(pelvis, femur_axes(wide.hip, knees, ankles, WORLD_FORWARD), sign)
    reached = (angles.external_rotation_deg >= e) | (angles.abduction_deg >= a) | (knees[:, 2] <= support)
    return float(swivels[np.argmax(reached)]) if reached.any() else 180.0


def _length(circle: KneeCircle) -> float:
    lower = 42.0
    return float(circle.offset_cm + np.sqrt(max(lower**2 - circle.radius_cm**2, 0)))


class ClosedFormEqualsScan(TestCase):
    @settings(max_examples=60)
    @given(
        st.floats(18, 60), st.floats(-12, 18), st.floats(2, 40), st.floats(10, 60), st.floats(20, 95), st.floats(20, 75),
        st.floats(-20, 20), st.floats(-15, 15), st.sampled_from([1.0, -1.0]),
    )  # fmt: skip
    def test_first_stop(
        self, x: float, y: float, ankle_z: float, hip_z: float, e: float, a: float, yaw: float, roll: float, sign: float
    ) -> None:
        hip, ankle = np.array([0.0, sign * 8.5, hip_z]), np.array([x, sign * y, ankle_z])
        circle = knee_circle(hip, ankle, 42, 42, sign)
        pelvis = pelvis_rotation(0, roll, yaw)
        if float(circle.reach_shortfall_cm) > 0 or float(circle.radius_cm) < 8:
            return
        drop = drop_knee(circle, pelvis[:, 1], sign, e, a, 5.0)
        if int(drop.stopped_by) >= StoppedBy.ALREADY_PAST_EXTERNAL_ROTATION:
            self.assertEqual(scan(circle, pelvis, sign, e, a, 5.0), 0.0)
            return
        self.assertAlmostEqual(float(drop.swivel_deg), scan(circle, pelvis, sign, e, a, 5.0), delta=0.02)
