"""What a pose counts as follows from its geometry, set-up by set-up where the set-up decides."""

from __future__ import annotations

from unittest import TestCase

from asketa_core import SIDES, NoGrid, Side, Situation
from asketa_core.clinical import clinical
from asketa_core.poses.flags import marks_of
from asketa_core.poses.settle import settle_pose
from tests.library import variation, variations


def overall(rung: str) -> frozenset[str]:
    found = variation(rung)
    return frozenset(marks_of(found.recipe, found.position).overall)


class Implied(TestCase):
    def test_arms_are_overhead_from_where_they_are_raised(self) -> None:
        most = clinical("shape.arms_overhead", "deg")
        for rung in variations():
            self.assertEqual("arms_overhead" in overall(rung.id), rung.recipe.hands.raised_deg > most, rung.id)
        self.assertIn("arms_overhead", overall("warrior_two.reverse"))

    def test_hands_are_loaded_where_they_press_down_and_nothing_else_carries(self) -> None:
        self.assertIn("hands_loaded", overall("table.floor"))
        self.assertNotIn("hands_loaded", overall("child.bolster"))
        self.assertNotIn("hands_loaded", overall("pyramid.blocks"))

    def test_on_the_feet_is_standing_unless_the_hands_stand_on_the_ground_too(self) -> None:
        for rung in ("pyramid.blocks", "warrior_one.free", "sit_to_stand.hover", "downward_dog.chair_seat"):
            self.assertIn("standing", overall(rung))
        for rung in ("downward_dog.full", "low_lunge.blanket", "table.floor", "figure_four.block_flat"):
            self.assertNotIn("standing", overall(rung))

    def test_a_leg_across_the_other_counts_as_crossed(self) -> None:
        for rung, flag in (
            ("figure_four.over_thigh", "crossed_ankle_over_knee"),
            ("half_pigeon.lying", "crossed_ankle_over_knee"),
            ("fire_log.stacked", "crossed_ankle_over_knee"),
            ("shoelace.low_seat", "crossed_knee_over_knee"),
        ):
            found = variation(rung)
            self.assertIn(flag, marks_of(found.recipe, found.position).worked)

    def test_knees_rest_where_the_leg_kneels(self) -> None:
        for rung in ("hero.floor", "child.wide", "table.floor"):
            found = variation(rung)
            marks = marks_of(found.recipe, found.position)
            self.assertIn("kneeling", marks.worked)
            self.assertIn("kneeling", marks.other)

    def test_a_back_lies_flat_below_thirty_degrees_and_not_at_thirty(self) -> None:
        rung, at = variation("rest.raised"), Situation.of_nobody()
        found = at.screen(rung, Side.LEFT)
        assert not isinstance(found, NoGrid)
        for back, flat in ((29.0, True), (30.0, False), (31.0, False)):
            values = {name: float(numbers[0]) for name, numbers in found.grid.batch.values.items()}
            posture = settle_pose(rung, Side.LEFT, at.body, at.ranges, {**values, "back": back})
            self.assertEqual(posture.counts_as("supine", None), flat, back)

    def test_prone_is_lying_forward_and_never_on_the_side(self) -> None:
        self.assertIn("prone", overall("back_lift.prone"))
        for rung in variations():
            if rung.position == "side_lying":
                self.assertFalse({"prone", "supine"} & overall(rung.id), rung.id)

    def test_every_side_is_named_where_a_side_is_meant(self) -> None:
        found = Situation.of_nobody().screen(variation("fire_log.stacked"), Side.RIGHT)
        assert not isinstance(found, NoGrid)
        pose = found.pose_at(found.best)
        self.assertTrue(pose.counts_as("crossed_ankle_over_knee", Side.RIGHT))
        self.assertTrue(pose.counts_as("ankle_lies_over", Side.RIGHT))
        self.assertFalse(pose.counts_as("ankle_lies_over", Side.LEFT))
        for side in SIDES:
            self.assertTrue(pose.counts_as("forced_knee", side))

    def test_a_crossing_is_one_of_both_legs(self) -> None:
        for rung in variations():
            marks = marks_of(rung.recipe, rung.position)
            for flag in ("crossed_ankle_over_knee", "crossed_knee_over_knee"):
                self.assertEqual(flag in marks.worked, flag in marks.other, rung.id)
