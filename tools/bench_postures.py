"""Postures in batches against one forward-kinematics call of a rigid-body simulation, timed in the same run."""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "core"))

import mujoco
import numpy as np
from tests.library import variation
from tests.simulation import model

from asketa_core import NoGrid, Side, Situation
from asketa_core.poses.settle import settle_pose
from asketa_core.poses.setups import SetupBatch

RUNGS = ("figure_four.block_flat", "half_pigeon.forearms", "wide_angle.high_rolls", "bound_angle.low_seat")
"""A dropped leg, a forced one, and two shapes both legs share, each with a grid of a thousand set-ups and more."""
BATCH = 2000
REPEATS = 7


def median_s(run: Callable[[], object]) -> float:
    """Median of a few runs in seconds, after one to warm up."""
    run()
    times = []
    for _ in range(REPEATS):
        start = time.perf_counter()
        run()
        times.append(time.perf_counter() - start)
    return statistics.median(times)


def simulated_s() -> float:
    """One forward-kinematics call: eleven joints, seven bodies."""
    simulation = model()
    data = mujoco.MjData(simulation)
    data.qpos[:] = 0.3
    calls = 2000

    def run() -> None:
        for _ in range(calls):
            mujoco.mj_kinematics(simulation, data)

    return median_s(run) / calls


def posture_s(rung_id: str) -> tuple[int, float, float]:
    """The size of a rung's grid, and what one posture with every read-out costs, over low, middle and high ranges: of
    the grid, where slots are shared, and of a batch of set-ups that share nothing."""
    rung, situation = variation(rung_id), Situation.of_nobody(170)
    screened = situation.screen(rung, Side.LEFT)
    assert not isinstance(screened, NoGrid)
    grid = screened.grid
    rows = np.random.default_rng(1).integers(0, grid.size, BATCH)
    apart = SetupBatch(
        {name: numbers[rows] for name, numbers in grid.batch.values.items()},
        grid.batch.soft_seat[rows],
        grid.batch.arms[rows],
    )
    shared, single = (
        median_s(partial(settle_pose, rung, Side.LEFT, situation.body, situation.ranges, batch)) / batch.size
        for batch in (grid.batch, apart)
    )
    return grid.size, shared, single


def main() -> int:
    unit = simulated_s()
    print(f"{'one forward-kinematics call (the unit)':44} {1e6 * unit:.2f} µs")
    for rung_id in RUNGS:
        size, shared, apart = posture_s(rung_id)
        print(f"{f'a posture of {rung_id}':44} {apart / unit:.1f} × among {BATCH} that share no slot,"
              f" {shared / unit:.1f} × in its grid of {size}")  # fmt: skip
    return 0


if __name__ == "__main__":
    sys.exit(main())
