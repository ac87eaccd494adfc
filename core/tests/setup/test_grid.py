"""Grids: exactly the combinations a room can build at once, whatever is remembered between variations."""

from __future__ import annotations

import itertools
from functools import partial
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import SIDES, NoGrid, Room, Side, Situation, no_stack_words, parse
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.props.stacks import fits_stock
from asketa_core.setup.grid import build_grid, grid_axes, lengths_of
from tests.library import variation, variations
from tests.speech import english
from tests.strategies import ROOM, TODAY, client, hip, knee

BODY = Body(170, 70)
NO_RANGES = Ranges.from_measured({})


def room(chairs: int, blocks: int, blankets: int) -> Room:
    props = [("chair", chairs), ("block", blocks), ("blanket", blankets)]
    return parse(Room, {"props": [{"id": kind, "kind": kind, "count": count} for kind, count in props]})


class WhatARoomCanBuild(TestCase):
    @settings(max_examples=40)
    @given(
        st.integers(1, 2), st.integers(0, 4), st.integers(0, 4),
        st.sampled_from(["figure_four.block_flat", "bound_angle.low_seat", "cross_legged.knees_supported"]),
    )  # fmt: skip
    def test_a_combination_is_in_the_grid_exactly_when_the_stock_covers_it(
        self, chairs: int, blocks: int, blankets: int, rung_id: str
    ) -> None:
        rung, here = variation(rung_id), room(chairs, blocks, blankets)
        axes = grid_axes(rung, Side.LEFT, BODY, NO_RANGES, here, {}, {})
        grid = build_grid(rung, Side.LEFT, BODY, NO_RANGES, here, {})
        if isinstance(axes, NoGrid):
            self.assertIsInstance(grid, NoGrid)
            return
        with_stacks = [k for k, axis in enumerate(axes) if axis.stacks]
        choices = itertools.product(*(range(len(axes[k].stacks)) for k in with_stacks))
        wanted = {
            chosen
            for chosen in choices
            if fits_stock(here, [axes[k].stacks[at] for k, at in zip(with_stacks, chosen, strict=True)])
        }
        found = set() if isinstance(grid, NoGrid) else {tuple(row) for row in grid.indices[:, with_stacks].tolist()}
        self.assertEqual(found, wanted)

    def test_every_combination_of_numbers_is_there_once(self) -> None:
        for rung in variations():
            grid = build_grid(rung, Side.RIGHT, BODY, NO_RANGES, ROOM, {})
            assert not isinstance(grid, NoGrid)
            self.assertEqual(len(np.unique(grid.indices, axis=0)), grid.size, rung.id)
            self.assertLessEqual(grid.size, int(np.prod(lengths_of(grid.axes))), rung.id)

    def test_what_is_to_be_built_is_counted(self) -> None:
        grid = build_grid(variation("bound_angle.low_seat"), Side.LEFT, BODY, NO_RANGES, ROOM, {})
        assert not isinstance(grid, NoGrid)
        for row in range(0, grid.size, 37):
            self.assertEqual(grid.items[row], sum(stack.to_build for stack in grid.supports(row)))

    def test_why_there_is_nothing(self) -> None:
        bare = parse(Room, {"props": [{"id": "chair", "kind": "chair", "count": 1}]})
        without = build_grid(variation("figure_four.block_flat"), Side.LEFT, BODY, NO_RANGES, bare, {})
        assert isinstance(without, NoGrid)
        self.assertEqual(english(no_stack_words(without)), "Nothing in this room serves for the foot block.")
        tall = parse(Room, {"props": [{"id": "chair", "kind": "chair", "count": 1, "seat_height_cm": 62}]})
        too_high = build_grid(variation("figure_four.foot_on_floor"), Side.LEFT, Body(150, 60), NO_RANGES, tall, {})
        assert isinstance(too_high, NoGrid)
        self.assertRegex(
            english(no_stack_words(too_high)),
            r"^No stack in this room reaches .* cm for the seat; the nearest is 62 cm\.$",
        )


class WhatIsRemembered(TestCase):
    def test_nothing_shared_between_variations_changes_an_answer(self) -> None:
        """The whole library screened one after another, against every variation screened on its own."""
        file = client([hip(), knee()])
        together = Situation.of(file, TODAY, ROOM)
        for rung, side in zip(variations(), itertools.cycle(SIDES), strict=False):
            alone = Situation.of(file, TODAY, ROOM)
            ours, theirs = together.screen(rung, side), alone.screen(rung, side)
            assert not isinstance(ours, NoGrid) and not isinstance(theirs, NoGrid)
            agree = partial(np.testing.assert_array_equal, err_msg=rung.id)
            agree(ours.order, theirs.order)
            agree(ours.possible, theirs.possible)
            agree(ours.way_of, theirs.way_of)
            agree(ours.chosen, theirs.chosen)
            agree(ours.totals.stops, theirs.totals.stops)
            agree(ours.totals.asks, theirs.totals.asks)
            agree(ours.totals.cautions, theirs.totals.cautions)
            agree(ours.totals.margin, theirs.totals.margin)
