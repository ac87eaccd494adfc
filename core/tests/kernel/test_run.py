"""What a run does with its memory changes nothing it finds."""

from __future__ import annotations

import random
from dataclasses import replace
from typing import Any
from unittest import TestCase
from unittest.mock import patch

import numpy as np

from asketa_core import SIDES, NoGrid
from asketa_core.kernel import run
from tests.kernel.anybody import any_situation
from tests.library import variations


def found_by(work: run.Run) -> list[Any]:
    done = work()
    return [done.outcomes.tolist(), done.severity.tolist(), done.weight.tolist(), done.marks.tolist()]


class Memory(TestCase):
    def test_more_may_be_said_of_a_case_than_there_is_room_for_at_first(self) -> None:
        chance, more = random.Random(7), 0
        situation = any_situation(chance)
        for rung in chance.sample(list(variations()), 12):
            grid = situation.screen(rung, chance.choice(SIDES))
            if isinstance(grid, NoGrid):
                continue
            work = replace(grid.judged.run, stages=(), stage_of=(), weighs=(), keep_tables=True)
            expected = found_by(work)
            with patch.object(run, "MOST_SAID", 1):
                self.assertEqual(found_by(replace(work)), expected, rung.id)
                more += replace(work)._so_far_in(1) is None
        self.assertGreater(more, 2, "some have more to say")

    def test_stages_of_which_more_is_said_are_taken_whole(self) -> None:
        severity, weight = np.zeros((2, 40), np.int8), np.zeros((2, 50))
        severity[1, 3:33], weight[1, 10:12], weight[0, 40] = 2, 1.5, 0.5
        said = run.said_in(severity, weight, run.many(2, run.STAGE))
        self.assertEqual(said.counts.tolist(), [[0, 1], [30, 2]])
        self.assertEqual(said.kinds[1, :30].tolist(), list(range(3, 33)))
        self.assertEqual(said.quantities[1, :2].tolist(), [10, 11])
        wide = run.nothing_said(5, 45)
        run.put_said(said, wide, 2)
        self.assertEqual(wide.counts.tolist(), [[0, 0], [0, 0], [0, 1], [30, 2], [0, 0]])
        self.assertEqual((wide.quantities[2, 0], wide.weight[2, 0]), (40, 0.5))

    def test_what_one_leaves_on_the_desk_is_nothing_to_the_next(self) -> None:
        chance = random.Random(11)
        situation = any_situation(chance)
        grids = [situation.screen(rung, SIDES[0]) for rung in chance.sample(list(variations()), 12)]
        works = [replace(grid.judged.run, keep_tables=True) for grid in grids if not isinstance(grid, NoGrid)]
        alone = []
        for work in works:
            run.desk_for.cache_clear()
            alone.append(found_by(replace(work)))
        self.assertEqual([found_by(replace(work)) for work in works[::-1]][::-1], alone)
