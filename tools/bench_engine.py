"""The engine against forward kinematics of a rigid-body simulation, and importing the core against numpy, timed in the same
run.

All times are processor time, the least of a few runs.
"""

from __future__ import annotations

import datetime as dt
import os
import resource
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial
from pathlib import Path
from unittest.mock import patch

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "core"))

import mujoco
from tests.library import variations
from tests.simulation import model
from tests.strategies import ROOM, bones, client, hip, knee, pain, pregnancy

from asketa_core import SIDES, NoGrid, Room, Screened, Side, Situation, Variation, figure, lane_view, words_in
from asketa_core.figure import figure as figures
from asketa_core.figure.figure import LETTERS_KEPT
from asketa_core.kernel.run import Run
from asketa_core.recent import Recent
from asketa_core.texts.catalogue import REFERENCE

DAY = dt.date(2026, 6, 10)
PEOPLE = {
    "a hip, a knee and thin bones": client([hip(), knee(), bones()], daily=[pain(3)]),
    "week 27 of a pregnancy": client([pregnancy(27)]),
}
REPEATS = 5
CALLS = 10_000

BEFORE = 15.0
"""Units that judging a set-up took in batches of arrays, before the engine was compiled: measured in one run with it, 15 for
the first and 18 for the second of these people."""


def least_s(run: Callable[[], object], repeats: int = REPEATS) -> float:
    """Least processor time of a few runs in seconds, after one to warm up."""
    run()
    times = []
    for _ in range(repeats):
        start = time.process_time()
        run()
        times.append(time.process_time() - start)
    return min(times)


def simulated_s() -> float:
    """One forward-kinematics call."""
    simulation = model()
    data = mujoco.MjData(simulation)
    data.qpos[:] = 0.3

    def run() -> None:
        for _ in range(CALLS):
            mujoco.mj_kinematics(simulation, data)

    return least_s(run) / CALLS


def jobs() -> list[tuple[Variation, Side]]:
    """Every variation on the sides on which it differs."""
    return [(rung, side) for rung in variations() for side in (SIDES[:1] if rung.shared else SIDES)]


def everything(situation: Situation, some: Sequence[tuple[Variation, Side]] | None = None) -> int:
    """Everything for one client, both sides, nothing judged before; how many set-ups that were. Grids are known, as they are
    where the same client was seen before."""
    fresh = replace(situation, memo={})
    size = 0
    for rung, side in jobs() if some is None else some:
        found = fresh.screen(rung, side)
        if not isinstance(found, NoGrid):
            assert found.verdict and found.recommended >= 0
            size += found.grid.size
    return size


def settle_and_judge(found: Screened) -> None:
    """Every set-up of a grid, legs and all."""
    pose, rules = found.pose, found.rules
    Run(
        rules.client, pose.programme.records, pose.xs, pose.details, rules.encoded.table, leg_xs=pose.leg_xs,
        leg_of=pose.leg_of, phase=1,
    )()  # fmt: skip


def posture_s() -> float:
    """One posture at one end of the ranges, settled and judged, over the largest grids."""
    situation = Situation.of(PEOPLE["a hip, a knee and thin bones"], DAY, ROOM)
    size, spent = 0, 0.0
    for rung_id in ("figure_four.block_flat", "half_pigeon.forearms", "side_angle.block"):
        found = situation.screen(situation.library.variation(rung_id), Side.LEFT)
        assert not isinstance(found, NoGrid)
        spent += least_s(partial(settle_and_judge, found))
        size += found.grid.size
    return spent / size / 3


def child_s(code: str) -> float:
    """A fresh process that runs some code."""

    def spent() -> float:
        used = resource.getrusage(resource.RUSAGE_CHILDREN)
        return used.ru_utime + used.ru_stime

    # As it is run, with what Python compiles of the sources kept.
    env = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    times = []
    for _ in range(REPEATS + 1):
        start = spent()
        subprocess.run([sys.executable, "-c", code], check=True, env=env)
        times.append(spent() - start)
    return min(times)


def encoding_ms(situation: Situation) -> float:
    """A client's body, ranges and limits as numbers, and the ways onto a seat and to the floor judged."""

    def run() -> None:
        fresh = replace(situation, memo={})
        for rung_id in ("figure_four.block_flat", "half_pigeon.forearms"):
            fresh.screen(fresh.library.variation(rung_id), Side.LEFT)

    return 1000 * least_s(run)


def drawing_ms(situation: Situation, kept: int) -> float:
    """A figure of every fourth rung, drawn anew or, where some are ``kept``, from what was drawn before."""
    found = [(rung, side, situation.screen(rung, side)) for rung, side in jobs()[::4]]
    told = [(lane_view(rung, side), each) for rung, side, each in found if not isinstance(each, NoGrid)]

    def run() -> None:
        for view, each in told:
            figure(each, situation.body, situation.room, each.recommended, view, words_in(REFERENCE), small=True)

    with patch.object(figures, "recent_figures", Recent(kept, len)):
        return 1000 * least_s(run) / len(told)


def growth(situation: Situation) -> None:
    """What everything costs over half of the library and with twice of everything on the shelf."""
    kept = {rung.id for rung in list(variations())[::2]}
    some = [(rung, side) for rung, side in jobs() if rung.id in kept]
    whole, half = least_s(partial(everything, situation)), least_s(partial(everything, situation, some))
    part = everything(situation, some) / everything(situation)
    print(f"{'every other rung: set-ups and time, of all':52} {100 * part:.0f} %, {100 * half / whole:.0f} %")
    props = tuple(prop.model_copy(update={"count": 2 * prop.count}) for prop in situation.room.props)
    full = replace(situation, room=Room(props=props), memo={})
    more, size = everything(full), everything(situation)
    took = least_s(partial(everything, full))
    print(f"{'twice the props: set-ups, and time':52} {more / size:.2f} ×, {took / whole:.2f} ×")


def main() -> int:
    unit = simulated_s()
    print(f"{'one forward-kinematics call (the unit)':52} {1e6 * unit:.2f} µs")
    print(f"{'one posture at one level, settled and judged':52} {posture_s() / unit:.1f} ×")
    print(f"{'importing the core':52} {child_s('import asketa_core') / child_s('import numpy'):.1f} × importing numpy")
    for who, file in PEOPLE.items():
        situation = Situation.of(file, DAY, ROOM)
        start = time.process_time()
        size = everything(situation)
        first = time.process_time() - start
        # The machine is not as fast all the time: the unit is taken before and after.
        unit = simulated_s()
        ours = least_s(partial(everything, situation))
        unit = min(unit, simulated_s())
        print(f"everything for {who}: {size} set-ups in {ours:.2f} s, {first:.2f} s the first time")
        print(f"{'':4}{'in batches of arrays it took about':48} {BEFORE * size * unit / ours:.0f} × as long")
        print(f"{'':4}{'as many forward-kinematics calls take':48} {size * unit / ours:.2f} × as long")
        print(f"{'':4}{'limits encoded, transfers judged':48} {encoding_ms(situation):.0f} ms")
    situation = Situation.of(next(iter(PEOPLE.values())), DAY, ROOM)
    for what, kept in (("a figure drawn anew", 0), ("the same from what was drawn before", LETTERS_KEPT)):
        print(f"{what:52} {drawing_ms(situation, kept):.2f} ms")
    growth(situation)
    return 0


if __name__ == "__main__":
    sys.exit(main())
