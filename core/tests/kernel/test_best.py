"""The best set-up found by bounds is the first of the whole order, on every grid."""

from __future__ import annotations

import math
import random
from unittest import TestCase

import numpy as np

from asketa_core import SIDES, NoGrid, Screened
from tests.kernel.anybody import any_situation
from tests.library import variations


class FoundByBounds(TestCase):
    def test_is_the_first_of_the_whole_order(self) -> None:
        spared = judged = 0
        rungs = list(variations())
        for seed in range(100, 108):
            chance = random.Random(seed)
            situation = any_situation(chance)
            for rung in chance.sample(rungs, 25):
                found = situation.screen(rung, chance.choice(SIDES))
                if isinstance(found, NoGrid):
                    continue
                best = found.best
                judged += found.grid.size
                spared += found.grid.size * (not found.judged.is_whole)
                self.assertEqual(best, int(found.order[0]), (seed, rung.id))
        self.assertGreater(spared, judged / 4)

    def test_no_bound_is_above_what_a_set_up_comes_to(self) -> None:
        for seed in range(200, 204):
            chance = random.Random(seed)
            situation = any_situation(chance)
            for rung in chance.sample(list(variations()), 10):
                found = situation.screen(rung, chance.choice(SIDES))
                if isinstance(found, NoGrid) or found.no_range:
                    continue
                run, trades = found.judged.run, found.grid.trades(None)
                bounds = run.bounds(trades)
                for row in np.flatnonzero(found.possible):
                    self.assertLessEqual(int(bounds[row]), key_of(found, int(row)), (seed, rung.id, row))


def key_of(found: Screened, row: int) -> int:
    """What a possible set-up comes to in one number, written out again."""
    sums, grid = found.totals, found.grid
    away = round(abs(float(found.purpose[row]) - 85.0), 1)
    inside = 70 <= found.purpose[row] <= 95
    off = max(math.ceil(away / 5), 1) if inside else 100 + round(away)
    parts = (
        (sums.stops[row], 7), (sums.asks[row] > 0, 1), (sums.size[row] * 2, 12), (sums.on_the_way[row], 8),
        (grid.unlike[row], 4), (off, 14), (grid.items[row], 8), (grid.stacked[row], 6),
    )  # fmt: skip
    key = 0
    for value, bits in parts:
        key = (key << bits) | min(int(value), 2**bits - 1)
    return key
