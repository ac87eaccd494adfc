"""Joint angles against the model's check values, and the properties any pose must keep."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from asketa_core.commands.angles import AnglesRequest, run_angles
from asketa_core.errors import InputError
from asketa_core.kernel.angles import flexion_allowed_at, hip_closing

CASES = [
    # side, hip, knee, ankle, pelvis, toes, (flexion, abduction, rotation, knee)
    ("left", (0, 10, 50), (40, 10, 50), (40, 10, 10), {}, None, (90, 0, 0, 90)),
    ("right", (0, -10, 50), (30, -36.457513, 50), (30, -36.457513, 10), {}, None, (90, 41.41, 0, 90)),
    ("left", (0, 10, 5), (40, 10, 5), (40, -30, 5), {}, None, (90, 0, 90, 90)),
    (
        "left", (0, 8.5, 53.5), (32.766082, 31.443057, 53.5), (38.373562, 11.324892, 19.385259), {}, None,
        (90, 35, 30, 100),
    ),
    ("left", (0, 10, 50), (40, 10, 50), (40, 10, 10), {"pitch_deg": 20}, None, (110, 0, 0, 90)),
    ("left", (0, 10, 90), (0, 10, 50), (0, 10, 10), {}, (0.866025, 0.5, 0), (0, 0, 30, 0)),
]  # fmt: skip


class CheckValues(TestCase):
    def test_angles_from_points(self) -> None:
        for side, hip, knee, ankle, pelvis, toes, expected in CASES:
            with self.subTest(hip=hip, knee=knee, pelvis=pelvis):
                answer = run_angles(
                    AnglesRequest(side=side, hip=hip, knee=knee, ankle=ankle, pelvis=pelvis, toe_direction=toes)
                )
                got = [answer[f"{name}_deg"] for name in ("flexion", "abduction", "external_rotation", "knee_flexion")]
                np.testing.assert_allclose(got, expected, atol=0.01)

    def test_closing_counts_abduction(self) -> None:
        self.assertAlmostEqual(float(hip_closing(126, 62)), 106, delta=0.2)


class NearTheSingularity(TestCase):
    def answer(self, abduction_deg: float) -> dict[str, object]:
        a = np.radians(abduction_deg)
        knee = (0.0, 10 + 40 * np.sin(a), 50 - 40 * np.cos(a))
        ankle = (knee[0] + 10, knee[1], knee[2] - 38)
        return run_angles(AnglesRequest(side="left", hip=(0, 10, 50), knee=knee, ankle=ankle))

    def test_flexion_and_rotation_are_not_told_apart(self) -> None:
        answer = self.answer(86)
        self.assertTrue(answer["near_singular"])
        self.assertIsNone(answer["flexion_deg"])
        self.assertIsNone(answer["external_rotation_deg"])
        self.assertIsNotNone(answer["flexion_plus_rotation_deg"])

    def test_below_it_everything_is_determined(self) -> None:
        self.assertFalse(self.answer(79)["near_singular"])


class StraightKnee(TestCase):
    def test_says_when_the_toes_were_assumed(self) -> None:
        answer = run_angles(AnglesRequest(side="left", hip=(0, 10, 90), knee=(0, 10, 50), ankle=(0, 10, 10)))
        self.assertTrue(answer["toe_direction_assumed"])
        self.assertEqual(answer["external_rotation_deg"], 0)


class BadRequests(TestCase):
    def test_a_knee_that_contradicts_the_stated_length(self) -> None:
        with self.assertRaises(InputError) as caught:
            run_angles(AnglesRequest(side="left", hip=(0, 10, 50), knee=(40, 10, 50), ankle=(40, 10, 10), thigh_cm=44))
        self.assertEqual(caught.exception.field, "thigh_cm")

    def test_hip_and_ankle_in_one_point(self) -> None:
        with self.assertRaises(InputError):
            run_angles(
                AnglesRequest(side="left", hip=(0, 1, 2), ankle=(0, 1, 2), thigh_cm=40, lower_leg_cm=40, swivel_deg=0)
            )


coordinates = st.floats(-30, 30)


class Properties(TestCase):
    @given(
        st.tuples(coordinates, coordinates, coordinates), st.tuples(coordinates, coordinates, coordinates),
        st.floats(-40, 40), st.floats(-25, 25), st.floats(-60, 60),
    )  # fmt: skip
    def test_left_and_right_mirror(
        self, thigh: tuple[float, ...], shin: tuple[float, ...], pitch: float, roll: float, yaw: float
    ) -> None:
        hip = np.array([0.0, 9.0, 60.0])
        knee = hip + np.array(thigh) + [35, 0, -5]
        ankle = knee + np.array(shin) + [0, 0, -45]
        mirror = np.array([1, -1, 1])
        left = AnglesRequest(
            side="left", hip=tuple(hip), knee=tuple(knee), ankle=tuple(ankle),
            pelvis={"pitch_deg": pitch, "roll_deg": roll, "yaw_deg": yaw},
        )  # fmt: skip
        right = AnglesRequest(
            side="right", hip=tuple(hip * mirror), knee=tuple(knee * mirror), ankle=tuple(ankle * mirror),
            pelvis={"pitch_deg": pitch, "roll_deg": -roll, "yaw_deg": -yaw},
        )  # fmt: skip
        a, b = run_angles(left), run_angles(right)
        for name in ("flexion_deg", "abduction_deg", "external_rotation_deg", "knee_flexion_deg"):
            if a[name] is not None and b[name] is not None:
                self.assertAlmostEqual(a[name], b[name], places=6)

    @given(st.floats(-30, 60), st.floats(-30, 30), st.floats(-60, 60))
    def test_tipping_the_pelvis_adds_to_flexion_alone(self, pitch: float, roll: float, yaw: float) -> None:
        def at(p: float) -> dict[str, float]:
            return run_angles(
                AnglesRequest(
                    side="right", hip=(0, -9, 50), knee=(30, -25, 42), ankle=(38, -20, 5),
                    pelvis={"pitch_deg": p, "roll_deg": roll, "yaw_deg": yaw},
                )
            )  # fmt: skip

        upright, tipped = at(0), at(pitch)
        if not (upright["near_singular"] or tipped["near_singular"]):
            turned = (tipped["flexion_deg"] - upright["flexion_deg"] - pitch + 180) % 360 - 180
            self.assertAlmostEqual(turned, 0, places=6)
            self.assertAlmostEqual(tipped["abduction_deg"], upright["abduction_deg"], places=6)
            self.assertAlmostEqual(tipped["external_rotation_deg"], upright["external_rotation_deg"], places=6)

    @given(st.floats(60, 140), st.floats(0, 75))
    def test_allowed_flexion_uses_the_whole_closing_range(self, closing: float, abduction: float) -> None:
        allowed = float(flexion_allowed_at(closing, abduction))
        if np.isfinite(allowed) and allowed > 0:
            self.assertAlmostEqual(float(hip_closing(allowed, abduction)), max(closing, abduction), places=5)
