"""The kernel runs as plain Python with the same results: what is debugged and covered is what is compiled."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path
from unittest import TestCase

import numpy as np

from asketa_core import Side
from asketa_core.body.measures import Body, Pregnancy
from asketa_core.body.ranges import GroinPinch, Ranges
from asketa_core.kernel.compiled import kept_in
from asketa_core.poses.settle import settle_pose
from tests.library import variation

CORE = Path(__file__).parents[2]

RUNGS = (
    "figure_four.over_thigh", "half_pigeon.forearms", "bound_angle.low_seat", "warrior_one.free", "child.wide",
    "standing_balance.one_leg", "side_angle.block", "sit_to_stand.touch", "hero.floor", "seated_fold.strap",
)  # fmt: skip
"""Every way of placing a leg and of leaning, one by one."""


def read_off() -> list[list[float]]:
    """Everything those postures show."""
    body, own = (
        Body(171, 68, pregnancy=Pregnancy(27)),
        Ranges.from_measured({}, groin_pinch={Side.LEFT: GroinPinch(90, 105)}),
    )
    found = []
    for rung in RUNGS:
        posture = settle_pose(variation(rung), Side.LEFT, body, own, {"seat": 30.0, "lean": 40.0, "feet_ahead": 25.0})
        found.append([float(value) for key in posture.readouts for value in posture.levels(*key)])
    return found


class Uncompiled(TestCase):
    def test_gives_what_is_compiled_gives(self) -> None:
        code = "import json; from tests.kernel.test_uncompiled import read_off; print(json.dumps(read_off()))"
        plain = subprocess.run(
            [sys.executable, "-c", code], cwd=CORE, capture_output=True, check=True, text=True,
            env={**os.environ, "NUMBA_DISABLE_JIT": "1", "PYTHONPATH": f"src{os.pathsep}."},
        )  # fmt: skip
        for rung, found, expected in zip(RUNGS, read_off(), json.loads(plain.stdout), strict=True):
            np.testing.assert_allclose(found, expected, rtol=0, atol=2e-6, err_msg=rung)


class Kept(TestCase):
    def test_what_is_compiled_has_a_folder_of_its_own_for_every_state_of_the_sources(self) -> None:
        self.assertTrue(any(kept_in().rglob("*.nbi")))

    def loaded_with(self, folder: str, **more: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "-c", "import asketa_core; asketa_core.load()"], cwd=CORE, capture_output=True, check=False, text=True,
            env={**os.environ, "ASKETA_ENGINE": folder, "PYTHONPATH": "src", **more},
        )  # fmt: skip

    def test_nothing_is_loaded_where_it_cannot_be_kept_and_it_is_said_why(self) -> None:
        refused = self.loaded_with("/proc/nowhere")
        self.assertNotEqual(refused.returncode, 0)
        self.assertIn("cannot be kept in /proc/nowhere", refused.stderr)

    def test_what_is_not_compiled_needs_no_folder(self) -> None:
        self.assertEqual(self.loaded_with("/proc/nowhere", NUMBA_DISABLE_JIT="1").returncode, 0)
