"""A grid as one table: every figure is found again where its set-up stands."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from asketa_core import NOT_BUILDABLE, NoGrid, Side, Situation, table_of
from asketa_core.screening.table import FIGURE_LETTERS, Figures
from tests.library import variation


def figure_at(figures: Figures, size: int, position: int) -> int | None:
    """As an interface reads it."""
    wide, place = len(figures.at) // size, 0
    for letter in figures.at[wide * position : wide * (position + 1)]:
        if letter not in FIGURE_LETTERS:
            return None
        place = place * len(FIGURE_LETTERS) + FIGURE_LETTERS.index(letter)
    return figures.values[place]


class FiguresAsLetters(TestCase):
    @given(st.lists(st.integers(-400, 400), min_size=1, max_size=300), st.integers(0, 20))
    def test_every_figure_is_found_where_it_stands(self, values: list[int], unbuilt: int) -> None:
        size = len(values) + unbuilt
        positions = np.arange(len(values), dtype=np.int64) + unbuilt
        figures = Figures.of(np.array(values, dtype=float), positions, size)
        found = [figure_at(figures, size, position) for position in range(size)]
        self.assertEqual(found, [*[None] * unbuilt, *values])
        self.assertEqual(figures.values, sorted(set(values)))

    def test_letters_stand_in_a_text_as_they_are(self) -> None:
        self.assertEqual(len(set(FIGURE_LETTERS)), len(FIGURE_LETTERS))
        self.assertFalse(set(FIGURE_LETTERS) & {'"', "\\", NOT_BUILDABLE, " "})

    def test_a_table_says_of_each_set_up_what_the_grid_says(self) -> None:
        situation = Situation.of_nobody(172)
        screened = situation.screen(variation("figure_four.block_flat"), Side.LEFT)
        assert not isinstance(screened, NoGrid)
        table, size = table_of(situation, screened), int(np.prod(screened.grid.lengths))
        assert table.purpose is not None
        for row in range(0, screened.grid.size, 97):
            position = int(np.ravel_multi_index(screened.grid.indices[row], screened.grid.lengths, mode="clip"))
            self.assertEqual(figure_at(table.purpose, size, position), round(float(screened.purpose[row])))
            self.assertEqual(table.letters[table.verdicts[position]], screened.verdict_at(row).value)
