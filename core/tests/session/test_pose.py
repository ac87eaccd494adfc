"""What a session reads off a judged set-up."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import (
    Level,
    NoGrid,
    Part,
    Side,
    Situation,
    SlotValue,
    Strain,
    level_of_rung,
    nearest_first,
    part_of,
    pose_of,
)
from asketa_core.session.counters import nearness
from tests.library import LIBRARY, variation
from tests.strategies import ROOM, TODAY, client

SITUATION = Situation.of(client(), TODAY, ROOM)


def part(rung: str, side: Side = Side.LEFT, setup: dict[str, SlotValue] | None = None) -> Part:
    screened = SITUATION.screen(variation(rung), side)
    assert not isinstance(screened, NoGrid)
    row = screened.recommended if setup is None else screened.grid.nearest(screened.grid.setup(screened.best) | setup)
    return part_of(screened, row, screened.variation.hold.start_s)


class Levels(TestCase):
    def test_by_position_and_by_what_one_lies_on(self) -> None:
        self.assertIs(part("figure_four.block_flat").level, Level.SEATED)
        self.assertIs(part("hip_hinge.stick").level, Level.STANDING)
        self.assertIs(part("child.bolster").level, Level.FLOOR)
        self.assertIs(part("wipers.lying", setup={"place": SlotValue(choice="floor")}).level, Level.LYING)
        self.assertIs(part("wipers.lying", setup={"place": SlotValue(choice="bed")}).level, Level.BED)

    def test_what_is_used_is_counted(self) -> None:
        self.assertEqual(sum(part("figure_four.block_flat").props.values()), 2)


class Strains(TestCase):
    def test_standing_and_lying_flat(self) -> None:
        self.assertIn(Strain.STANDING, part("hip_hinge.stick").strains)
        self.assertIn(Strain.FLAT, part("knee_to_chest.lying").strains)
        self.assertEqual(part("breath.sitting").strains & {Strain.STANDING, Strain.FLAT}, frozenset())

    def test_a_bent_knee_that_carries_tires(self) -> None:
        self.assertLessEqual({Strain.KNEE_LEFT, Strain.KNEE_RIGHT}, part("squat.free").strains)
        front = part("warrior_two.free", Side.RIGHT).strains
        self.assertIn(Strain.KNEE_RIGHT, front)

    def test_standing_evenly_on_straight_legs_does_not(self) -> None:
        self.assertEqual(part("standing_balance.mountain").strains, {Strain.STANDING})


class Counters(TestCase):
    def test_one_is_within_reach_without_getting_down_or_up(self) -> None:
        of_family = {name: {level_of_rung(rung) for rung in f.variations} for name, f in LIBRARY.families.items()}
        for name, family in LIBRARY.families.items():
            with self.subTest(family=name):
                near = [
                    nearness(level, other)
                    for counter in family.counter_poses.of
                    for level in of_family[name]
                    for other in of_family[counter]
                ]
                self.assertLess(min(near), 2)

    def test_nearness(self) -> None:
        self.assertEqual(nearness(Level.FLOOR, Level.FLOOR), 0)
        self.assertEqual(nearness(Level.FLOOR, Level.LYING), 1)
        self.assertEqual(nearness(Level.STANDING, Level.LYING), 2)

    def test_the_rung_on_the_same_level_comes_first(self) -> None:
        wipers = LIBRARY.families["wipers"].variations
        self.assertEqual([rung.id for rung in nearest_first(wipers, Level.SEATED)], ["wipers.chair", "wipers.lying"])
        self.assertEqual([rung.id for rung in nearest_first(wipers, Level.FLOOR)], ["wipers.lying", "wipers.chair"])

    def test_a_pose_has_a_side(self) -> None:
        self.assertRaises(ValueError, pose_of, LIBRARY.families["breath"], {})
