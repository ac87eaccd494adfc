"""Stacks: only what stands, only what the room has."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import Room, parse
from asketa_core.errors import InputError
from asketa_core.props.kinds import kinds
from asketa_core.props.stacks import Stack, Use, buildable, fits_stock, nearest
from asketa_core.texts import has, words_in
from asketa_core.words.stacks import home_list
from tests.strategies import ROOM


class Stability(TestCase):
    def stacks(self) -> tuple[Stack, ...]:
        return (
            buildable(ROOM, Use.SITTING, on_chair=True, max_layers=2)
            + buildable(ROOM, Use.SITTING)
            + buildable(ROOM, Use.LIMB)
        )

    def test_nothing_rigid_stands_on_anything_soft(self) -> None:
        for stack in self.stacks():
            for below, above in zip(stack.layers, stack.layers[1:], strict=False):
                if kinds()[above.kind].rigid:
                    self.assertTrue(kinds()[below.kind].rigid, stack.key)

    def test_at_most_one_block_on_end(self) -> None:
        for stack in self.stacks():
            self.assertLessEqual(sum(layer.upright for layer in stack.layers), 1, stack.key)

    def test_nobody_sits_on_a_single_block(self) -> None:
        keys = {stack.key for stack in buildable(ROOM, Use.SITTING, allowed=("block",), max_layers=1)}
        self.assertNotIn("block:flat", keys)
        self.assertIn("block:flatx2", keys)

    def test_no_more_than_the_room_has(self) -> None:
        for stack in self.stacks():
            self.assertTrue(fits_stock(ROOM, [stack]), stack.key)

    def test_one_stack_a_height(self) -> None:
        seats = buildable(ROOM, Use.SITTING, on_chair=True, allowed=("blanket",), max_layers=2)
        heights = [(round(s.height_cm, 1), s.arms) for s in seats]
        self.assertEqual(len(heights), len(set(heights)))
        self.assertEqual(heights, sorted(heights))


class Heights(TestCase):
    def test_blankets_give_under_a_sitting_person(self) -> None:
        seats = {s.key: s.height_cm for s in buildable(ROOM, Use.SITTING, on_chair=True, max_layers=1)}
        self.assertAlmostEqual(seats["chair45:seat+blanket:8"], 45 + 8 * 0.7 * 0.75)

    def test_a_room_knows_its_own_blankets(self) -> None:
        thick = parse(Room, {"props": [{"id": "b", "kind": "blanket", "count": 1, "layer_cm": 1.1}]})
        heights = [s.height_cm for s in buildable(thick, Use.LIMB, max_layers=1)]
        self.assertTrue(any(abs(h - 4 * 1.1 * 0.9) < 1e-9 for h in heights))


class Wanted(TestCase):
    def test_nearest_within_tolerance_prefers_fewer_items(self) -> None:
        seats = buildable(ROOM, Use.SITTING, on_chair=True, allowed=("blanket",), max_layers=2)
        found = nearest(seats, 50.0, 0.5)
        self.assertEqual(found.fits.key if found.fits else None, "chair50:seat")

    def test_neighbours_where_nothing_fits(self) -> None:
        bare = parse(Room, {"props": [{"id": "a", "kind": "block", "count": 1}]})
        found = nearest(buildable(bare, Use.LIMB, allowed=("block",), max_layers=1), 12.5, 1.0)
        self.assertIsNone(found.fits)
        self.assertEqual(found.below.height_cm if found.below else None, 10)
        self.assertEqual(found.above.height_cm if found.above else None, 15)


class Rooms(TestCase):
    def test_two_props_with_one_id_are_refused(self) -> None:
        with self.assertRaises(InputError):
            parse(Room, {"props": [{"id": "a", "kind": "block", "count": 1}, {"id": "a", "kind": "chair", "count": 1}]})

    def test_sizes_of_another_kind_are_refused(self) -> None:
        with self.assertRaises(InputError) as caught:
            parse(Room, {"props": [{"id": "a", "kind": "block", "count": 1, "seat_height_cm": 45}]})
        self.assertIn("props.0", caught.exception.field)


class AtHome(TestCase):
    def test_what_is_found_at_home_is_as_high_as_what_it_stands_for(self) -> None:
        for stack in buildable(ROOM, Use.SITTING, on_chair=True, max_layers=2):
            said = " ".join(words_in("en")(each) for each in home_list([stack]))
            for layer in stack.layers:
                if has("stacks", "home", layer.kind) and layer.kind != "towel_roll":
                    with self.subTest(stack=stack.key):
                        self.assertIn(f"{round(layer.height_cm)} cm", said)

    def test_so_many_of_one_are_said_once(self) -> None:
        two = next(
            s for s in buildable(ROOM, Use.LIMB) if len(s.layers) == 2 and len({each.way for each in s.layers}) == 1
        )
        (words,) = home_list([two])
        self.assertIn("two of them", words_in("en")(words))
