"""Trunks that lie on something: how low they come, where the forehead rests, and what rounding costs then."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

import numpy as np

from asketa_core import NoGrid, Screened, Side
from asketa_core.kernel.trunk import NOD_LEAST_DEG, NOD_MOST_DEG
from asketa_core.poses.posture import Readout
from asketa_core.poses.settle import Posture
from asketa_core.units import Array
from tests.builds.page import described, situation

FLOOR_CHILD = ("child.roll", "child.wide", "child.together")
PEOPLE = tuple(described()["people"])


def screened(person: str, rung: str) -> Screened:
    at = situation(person)
    found = at.screen(at.library.variation(rung), Side.LEFT)
    assert not isinstance(found, NoGrid)
    return found


def middle(found: Screened, readout: Readout) -> Array:
    """A read-out at the middle of the ranges, at every set-up."""
    return found.read([(readout, None)])[0][:, 1]


def afterwards(found: Screened) -> list[Posture]:
    """What is done after the pose, from every set-up."""
    return [
        next(stage.posture for stage in found.stages_at(row) if stage.phase == "counter")
        for row in range(found.grid.size)
    ]


class Child(TestCase):
    def test_the_forehead_lies_on_its_support_with_an_easy_neck(self) -> None:
        met = 0
        for person in PEOPLE:
            for rung in FLOOR_CHILD:
                found = screened(person, rung)
                if not found.possible[found.recommended]:
                    continue
                met += 1
                with self.subTest(person=person, rung=rung):
                    nod = middle(found, Readout.NECK_BEND)[found.recommended]
                    self.assertGreaterEqual(nod, NOD_LEAST_DEG)
                    self.assertLessEqual(nod, NOD_MOST_DEG)
                    self.assertLessEqual(middle(found, Readout.HEAD_MISSES_CM)[found.recommended], 2.0)
        self.assertGreater(met, 12)

    def test_the_wider_the_knees_the_lower_the_trunk_but_never_through_the_mat(self) -> None:
        for person in PEOPLE:
            found = screened(person, "child.wide")
            axes = [axis.name for axis in found.grid.axes]
            wide, rest = axes.index("knees_out"), [k for k, name in enumerate(axes) if name != "knees_out"]
            lean = middle(found, Readout.TRUNK_LEAN)
            lowest: dict[tuple[int, ...], list[float]] = {}
            for row in np.argsort(found.grid.indices[:, wide], kind="stable"):
                key = tuple(int(found.grid.indices[row, k]) for k in rest)
                lowest.setdefault(key, []).append(float(lean[row]))
            for leans in lowest.values():
                with self.subTest(person=person):
                    # Knees apart also lie lower, so the thighs carry the trunk at another slope: a degree either way.
                    self.assertTrue(all(b >= a - 1.0 for a, b in pairwise(leans)), leans)
                    self.assertLess(max(leans), 125.0)

    def test_rounding_costs_a_healthy_back_nothing_while_the_trunk_is_carried(self) -> None:
        carried = screened("weaver", "child.wide")
        round_back = middle(carried, Readout.SPINE_FLEXION) > 20
        self.assertTrue((round_back & carried.possible & (carried.totals.size == 0)).any())
        held = screened("thatcher", "seated_fold.folded_blanket")
        round_back = middle(held, Readout.SPINE_FLEXION) > 20
        self.assertTrue(round_back.any())
        self.assertFalse((held.totals.size[round_back] == 0).any())


class Afterwards(TestCase):
    def test_stiff_hamstrings_lean_back_further_instead_of_rounding(self) -> None:
        stiff, typical = (afterwards(screened(person, "bound_angle.high_seat")) for person in ("thatcher", "weaver"))
        self.assertLess(max(each.lean_deg for each in stiff), min(each.lean_deg for each in typical))
        for posture in (*stiff, *typical):
            self.assertLessEqual(posture.middle(Readout.SPINE_FLEXION, None), 15.0)


class Nearest(TestCase):
    def test_where_nothing_can_be_done_the_set_up_that_misses_least_is_shown(self) -> None:
        found = screened("bargeman", "cross_legged.knees_supported")
        self.assertFalse(found.possible.any())
        missing = [sum(amount for _, _, amount in found.troubles_at(row)) for row in range(found.grid.size)]
        self.assertAlmostEqual(missing[found.recommended], min(missing), delta=0.1)
