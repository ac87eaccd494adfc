"""The dropped knee: check values, and the closed form against a fine scan."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core.commands.angles import AnglesRequest, run_angles
from asketa_core.kernel.angles import femur_axes, hip_angles
from asketa_core.kernel.closing import KneeCircle, knee_at, knee_circle, up_or_ahead
from asketa_core.kernel.codes import StoppedBy
from asketa_core.kernel.drop import drop_knee
from asketa_core.kernel.shared import STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, Axes, Vec
from asketa_core.kernel.vectors import rotated

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


def scan(hip: Vec, ankle: Vec, circle: KneeCircle, pelvis: Axes, sign: float, e: float, a: float) -> float:
    """First swivel of a fine scan at which anything is reached: the slow way to the same answer."""
    for swivel in np.linspace(0, 180, 36001):
        knee = knee_at(circle, float(swivel))
        angles = hip_angles(pelvis, femur_axes(hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG), sign)
        if angles.external_rotation_deg >= e or angles.abduction_deg >= a or knee.z <= SUPPORT_CM:
            return float(swivel)
    return 180.0


SUPPORT_CM = 5.0


class ClosedFormEqualsScan(TestCase):
    @settings(max_examples=60)
    @given(
        st.floats(18, 60), st.floats(-12, 18), st.floats(2, 40), st.floats(10, 60), st.floats(20, 95), st.floats(20, 75),
        st.floats(-20, 20), st.floats(-15, 15), st.sampled_from([1.0, -1.0]),
    )  # fmt: skip
    def test_first_stop(
        self, x: float, y: float, ankle_z: float, hip_z: float, e: float, a: float, yaw: float, roll: float, sign: float
    ) -> None:
        hip, ankle = Vec(0.0, sign * 8.5, hip_z), Vec(x, sign * y, ankle_z)
        circle = knee_circle(hip, ankle, 42.0, 42.0, sign, up_or_ahead(hip, ankle))
        pelvis = rotated(0.0, roll, yaw)
        if circle.reach_shortfall_cm > 0 or circle.radius_cm < 8:
            return
        drop = drop_knee(circle, pelvis.left, sign, e, a, SUPPORT_CM)
        found = scan(hip, ankle, circle, pelvis, sign, e, a)
        if drop.stopped_by >= StoppedBy.ALREADY_PAST_EXTERNAL_ROTATION:
            self.assertEqual(found, 0.0)
            return
        self.assertAlmostEqual(drop.swivel_deg, found, delta=0.02)
