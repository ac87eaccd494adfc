"""Closing a leg: the two links keep their lengths wherever the knee goes, and nothing is clamped silently."""

from __future__ import annotations

import math
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from asketa_core.commands.angles import AnglesRequest, run_angles
from asketa_core.kernel.closing import knee_at, knee_circle, up_or_ahead
from asketa_core.kernel.space import FORWARD, Vec


def closed(**request: object) -> dict[str, object]:
    return run_angles(AnglesRequest(thigh_cm=40, lower_leg_cm=40, **request))


class CheckValues(TestCase):
    def test_level_thigh_upright_shin(self) -> None:
        answer = closed(side="left", hip=(0, 10, 50), ankle=(40, 10, 10), swivel_deg=0)
        np.testing.assert_allclose(answer["knee"], (40, 10, 50), atol=0.01)
        self.assertAlmostEqual(answer["knee_flexion_deg"], 90, places=2)

    def test_the_swivel_grows_outward(self) -> None:
        answer = closed(side="right", hip=(0, -10, 50), ankle=(40, -10, 10), swivel_deg=90)
        np.testing.assert_allclose(answer["knee"], (20, -38.284, 30), atol=0.01)

    def test_out_of_reach(self) -> None:
        answer = closed(side="left", hip=(0, 10, 10), ankle=(90, 10, 10), swivel_deg=0)
        self.assertAlmostEqual(answer["reach_shortfall_cm"], 10, places=6)
        self.assertAlmostEqual(answer["knee_flexion_deg"], 0, places=6)

    def test_nearer_than_the_knee_bends(self) -> None:
        answer = closed(side="left", hip=(0, 10, 15), ankle=(20, 10, 15), swivel_deg=30, knee_flexion_limit_deg=120)
        self.assertAlmostEqual(answer["knee_flexion_deg"], 151.045, places=2)
        self.assertAlmostEqual(answer["knee_flexion_shortfall_deg"], 31.045, places=2)
        np.testing.assert_allclose(answer["knee"], (10, 29.365, 48.541), atol=0.01)


class Properties(TestCase):
    @given(
        st.floats(10, 80), st.floats(-40, 40), st.floats(-60, 20), st.floats(30, 50), st.floats(30, 50),
        st.floats(-180, 180), st.sampled_from([1.0, -1.0]), st.booleans(),
    )  # fmt: skip
    def test_lengths_are_kept(
        self, x: float, y: float, z: float, thigh: float, shin: float, swivel: float, sign: float, planted: bool
    ) -> None:
        hip, ankle = Vec(0.0, sign * 9, 50.0), Vec(x, y, 50 + z)
        circle = knee_circle(hip, ankle, thigh, shin, sign, FORWARD if planted else up_or_ahead(hip, ankle))
        if circle.reach_shortfall_cm > 0 or circle.fold_shortfall_cm > 0:
            return
        knee = knee_at(circle, swivel)
        self.assertAlmostEqual(math.dist(knee, hip), thigh, places=6)
        self.assertAlmostEqual(math.dist(ankle, knee), shin, places=6)

    def test_a_planted_knee_stays_over_the_toes_when_the_leg_is_upright(self) -> None:
        circle = knee_circle(Vec(0.0, 9.0, 80.0), Vec(0.0, 9.0, 7.0), 42.0, 42.0, 1.0, FORWARD)
        knee = knee_at(circle, 0.0)
        self.assertGreater(knee.x, 0)
        self.assertAlmostEqual(knee.y, 9, places=9)
