"""Joint angles against an independent rigid-body simulation: set in one, recovered from points alone by ours.

The simulation is a development tool and no part of the product.
"""

from __future__ import annotations

from unittest import TestCase

import mujoco
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import Side
from asketa_core.kernel.angles import femur_axes, hip_angles, knee_flexion
from asketa_core.kernel.shared import STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, Vec
from asketa_core.kernel.vectors import rotated
from asketa_core.units import SIDES
from tests.simulation import model

SIMULATED = model()


def simulate(side: Side, pelvis: tuple[float, float, float], hip: tuple[float, float, float], knee: float):
    """Hip, knee and ankle centres in cm for joint angles in degrees."""
    data = mujoco.MjData(SIMULATED)
    names = ("yaw", "roll", "pitch", *(f"{n}_{side.value}" for n in ("flexion", "abduction", "rotation", "knee")))
    for name, value in zip(names, (pelvis[2], pelvis[1], pelvis[0], *hip, knee), strict=True):
        joint = mujoco.mj_name2id(SIMULATED, mujoco.mjtObj.mjOBJ_JOINT, name)
        data.qpos[SIMULATED.jnt_qposadr[joint]] = np.radians(value)
    mujoco.mj_kinematics(SIMULATED, data)
    return [100 * data.body(f"{part}_{side.value}").xpos.copy() for part in ("thigh", "shin", "foot")]


class AgainstSimulation(TestCase):
    @settings(max_examples=300)
    @given(
        st.sampled_from(SIDES),
        st.tuples(st.floats(-60, 60), st.floats(-35, 35), st.floats(-90, 90)),
        st.tuples(st.floats(-30, 140), st.floats(-40, 75), st.floats(-60, 90)),
        st.floats(5, 160),
    )
    def test_angles_set_there_are_recovered_from_points_here(
        self, side: Side, pelvis: tuple[float, float, float], hip: tuple[float, float, float], knee: float
    ) -> None:
        """To 1e-6 degrees, away from straight knees and from thighs out at 80° and more."""
        at_hip, at_knee, at_ankle = (Vec(*point) for point in simulate(side, pelvis, hip, knee))
        femur = femur_axes(at_hip, at_knee, at_ankle, FORWARD, STRAIGHT_KNEE_DEG)
        found = hip_angles(rotated(*pelvis), femur, side.sign)
        for ours, theirs in zip(
            (found.flexion_deg, found.abduction_deg, found.external_rotation_deg), hip, strict=True
        ):
            self.assertAlmostEqual(ours, theirs, delta=1e-6)
        self.assertAlmostEqual(knee_flexion(at_hip, at_knee, at_ankle), knee, delta=1e-6)
