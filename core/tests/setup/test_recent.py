"""Grids kept in the process: never anybody else's."""

from __future__ import annotations

import random
from dataclasses import replace
from unittest import TestCase

import numpy as np

from asketa_core import SIDES, NoGrid, Room, Screened, Side, Situation, Variation
from asketa_core.setup.grid import Grid, build_grid
from asketa_core.setup.recent import Geometry, number_of
from asketa_core.setup.search import screen
from tests.kernel.anybody import BARE_ROOM, any_body, any_ranges, any_situation
from tests.library import variation, variations

RUNGS = ("figure_four.block_flat", "half_pigeon.forearms", "sit_to_stand.touch", "wide_angle.belt")


def screened(of: Situation, rung: Variation, side: Side) -> Screened | NoGrid:
    return screen(rung, side, of.body, of.ranges, of.room, of.limits)


def fresh(of: Situation, rung: Variation, side: Side) -> Grid | NoGrid:
    return build_grid(rung, side, of.body, of.ranges, of.room, {})


class KeptGrids(TestCase):
    def assert_same(self, found: Screened | NoGrid, expected: Grid | NoGrid, where: object) -> None:
        if isinstance(expected, NoGrid):
            self.assertEqual(found, expected, where)
            return
        assert isinstance(found, Screened), where
        np.testing.assert_array_equal(found.grid.indices, expected.indices, str(where))
        for one, other in zip(found.grid.axes, expected.axes, strict=True):
            self.assertEqual((one.name, one.plain, one.options), (other.name, other.plain, other.options), where)
            np.testing.assert_array_equal(one.numbers, other.numbers, str(where))
            self.assertEqual([stack.key for stack in one.stacks], [stack.key for stack in other.stacks], where)

    def test_are_those_of_this_body_these_ranges_and_this_room(self) -> None:
        chance = random.Random(5)
        someone = any_situation(chance)
        others = (
            replace(someone, body=any_body(chance), memo={}), replace(someone, ranges=any_ranges(chance), memo={}),
            replace(someone, room=BARE_ROOM, memo={}), any_situation(chance), someone,
        )  # fmt: skip
        for rung in map(variation, RUNGS):
            for side in SIDES:
                for which, each in enumerate(others):
                    self.assert_same(screened(each, rung, side), fresh(each, rung, side), (rung.id, side, which))

    def test_are_the_same_for_other_limits(self) -> None:
        of = Situation.of_nobody()
        rung = variation("figure_four.block_flat")
        one, other = screened(of, rung, Side.LEFT), screened(replace(of, limits=(), memo={}), rung, Side.LEFT)
        assert isinstance(one, Screened) and isinstance(other, Screened)
        self.assertIs(one.grid, other.grid)

    def test_are_those_of_what_was_chosen(self) -> None:
        rung = next(
            each for each in variations()
            if any(not axis.searched for axis in self.grid_of(each).axes)
        )  # fmt: skip
        of = Situation.of_nobody()
        axis = next(axis for axis in self.grid_of(rung).axes if not axis.searched)
        for choice in axis.options:
            chosen = {axis.name: choice}
            found = screen(rung, Side.LEFT, of.body, of.ranges, of.room, of.limits, chosen)
            assert isinstance(found, Screened)
            at = next(each for each in found.grid.axes if each.name == axis.name)
            self.assertEqual(at.options[at.plain], choice)

    def grid_of(self, rung: Variation) -> Grid:
        found = fresh(Situation.of_nobody(), rung, Side.LEFT)
        assert isinstance(found, Grid)
        return found

    def test_number_stands_for_one_geometry(self) -> None:
        of = Situation.of_nobody()
        here = Geometry.of(of.body, of.ranges, of.room)
        self.assertEqual(number_of(here), number_of(Geometry.of(of.body, of.ranges, of.room)))
        self.assertNotEqual(number_of(here), number_of(Geometry.of(of.body, of.ranges, BARE_ROOM)))
        more = Room(props=tuple(prop.model_copy(update={"count": prop.count + 1}) for prop in of.room.props))
        self.assertNotEqual(number_of(here), number_of(Geometry.of(of.body, of.ranges, more)))
