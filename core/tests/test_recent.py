"""What is kept, and how much of it."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import Variation
from asketa_core.recent import Itself, Recent
from tests.library import variation

ONE, OTHER, THIRD = (variation(each) for each in ("figure_four.block_flat", "half_pigeon.forearms", "rest.bolster"))


class Kept(TestCase):
    def setUp(self) -> None:
        self.kept, self.made = Recent[str](10, len), list[str]()

    def ask(self, of: Variation, key: int, made: str) -> str:
        def make() -> str:
            self.made.append(made)
            return made

        return self.kept.get((Itself(of), key), make)

    def test_is_made_once_for_a_variation_and_a_key(self) -> None:
        self.assertEqual([self.ask(ONE, 1, "a"), self.ask(ONE, 1, "b"), self.ask(ONE, 2, "c")], ["a", "a", "c"])
        self.assertEqual(self.ask(OTHER, 1, "d"), "d")
        self.assertEqual(self.made, ["a", "c", "d"])

    def test_a_variation_that_says_the_same_is_another_one(self) -> None:
        namesake = ONE.model_copy()
        self.assertEqual(namesake, ONE)
        self.assertEqual([self.ask(ONE, 1, "a"), self.ask(namesake, 1, "b"), self.ask(ONE, 1, "c")], ["a", "b", "a"])

    def test_goes_when_there_is_no_more_room_what_was_longest_unused_first(self) -> None:
        for of in (ONE, OTHER, ONE, THIRD, ONE, OTHER):
            self.ask(of, 1, "four")
        # The third has no room beside both: the second, which was not used since, had to go, and then the third for it.
        self.assertEqual(len(self.made), 4)

    def test_what_is_larger_than_all_room_is_still_answered(self) -> None:
        self.assertEqual(self.ask(ONE, 1, "more than ten letters"), "more than ten letters")
        self.assertEqual(self.ask(OTHER, 1, "few"), "few")
        self.assertEqual(self.ask(OTHER, 1, "none"), "few")

    def test_without_a_size_so_many_are_kept(self) -> None:
        self.kept = Recent(2)
        for key in (1, 2, 1, 3, 1, 2):
            self.ask(ONE, key, str(key))
        self.assertEqual(self.made, ["1", "2", "3", "2"])

    def test_what_fails_is_not_kept(self) -> None:
        with self.assertRaises(ZeroDivisionError):
            self.kept.get(1, lambda: str(1 // 0))
        self.assertEqual(self.kept.get(1, lambda: "made"), "made")

    def test_cleared_everything_is_made_again(self) -> None:
        self.ask(ONE, 1, "before")
        self.kept.clear()
        self.assertEqual(self.ask(ONE, 1, "after"), "after")
        # And there is as much room as at first.
        self.ask(OTHER, 1, "other")
        self.assertEqual(self.ask(ONE, 1, "never"), "after")
