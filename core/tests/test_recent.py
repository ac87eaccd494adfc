"""What is kept about variations, and how much of it."""

from __future__ import annotations

from unittest import TestCase

from asketa_core.recent import Recent
from tests.library import variation

ONE, OTHER, THIRD = (variation(each) for each in ("figure_four.block_flat", "half_pigeon.forearms", "rest.bolster"))


class Kept(TestCase):
    def setUp(self) -> None:
        self.kept, self.made = Recent[str](10, len), list[str]()

    def ask(self, of: object, key: object, made: str) -> str:
        def make() -> str:
            self.made.append(made)
            return made

        return self.kept.get(of, key, make)  # type: ignore[arg-type]

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
