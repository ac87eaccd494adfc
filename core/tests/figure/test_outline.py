"""The drawn body is one, in every posture and from where it is shown; heights are written where they can be read."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import combinations, pairwise, permutations
from unittest import TestCase

import numpy as np
import shapely

from asketa_core import NoGrid, Screened, Side, Situation, View, figure, lane_view
from asketa_core.figure.areas import joined, length_cm
from asketa_core.figure.figure import scene_of
from asketa_core.figure.flesh import Chain
from asketa_core.figure.outline import end_to_end, hair, seam, shapes_of
from asketa_core.figure.views import eye_of
from tests.figure.areas import area_cm2
from tests.library import variation, variations
from tests.speech import english

SPECK_CM2 = 4.0
"""What is smaller nobody sees."""


def settled(at: Situation, rung_id: str) -> Screened:
    found = at.screen(variation(rung_id), Side.LEFT)
    assert not isinstance(found, NoGrid), rung_id
    return found


class OneBody(TestCase):
    def test_every_part_hangs_together(self) -> None:
        at = Situation.of_nobody(170)
        for rung in variations():
            found = settled(at, rung.id)
            scene = scene_of(found, at.body, at.room, found.recommended)
            for view in {lane_view(rung, Side.LEFT), View.ABOVE}:
                shapes = shapes_of(scene.parts, eye_of(view, scene.lying))
                whole = joined([area for shape in shapes for area in (shape.area, shape.flesh)])
                pieces = [ring for ring in whole if area_cm2([ring]) > SPECK_CM2]
                self.assertEqual(len(pieces), 1, f"{rung.id} {view}")

    def test_what_is_below_the_floor_is_not_seen(self) -> None:
        at = Situation.of_nobody(170)
        found = settled(at, "standing_balance.mountain")
        parts = scene_of(found, at.body, at.room, found.recommended).parts
        eye = eye_of(View.SIDE_LEFT, lying=False)

        def seen_below(by_cm: float) -> set[str]:
            shins = [
                replace(part, chains=tuple(Chain(each.centres - [0, 0, by_cm], each.radii) for each in part.chains))
                for part in parts
                if part.name == "shin"
            ]
            return {shape.part.name for shape in shapes_of([p for p in parts if p.name != "shin"] + shins, eye)}

        self.assertIn("shin", seen_below(0.0))
        self.assertEqual(seen_below(40.0), seen_below(0.0))
        self.assertEqual(seen_below(90.0), seen_below(0.0) - {"shin"})

    def test_a_limb_is_as_wide_as_its_balls_however_round_its_corners(self) -> None:
        at = Situation.of_nobody(170)
        for rung_id in ("standing_balance.mountain", "figure_four.block_side", "seated_fold.feet_apart"):
            found = settled(at, rung_id)
            scene = scene_of(found, at.body, at.room, found.recommended)
            eye = eye_of(View.SIDE_LEFT, scene.lying)
            for shape in shapes_of(scene.parts, eye):
                if shape.part.clouds:
                    continue
                centres = eye.flat(np.concatenate([chain.centres for chain in shape.part.chains]))
                radii = np.concatenate([chain.radii for chain in shape.part.chains])[:, None]
                low, high = (centres - radii).min(axis=0), (centres + radii).max(axis=0)
                wanted = (*low, high[0], min(high[1], 0.0))
                for seen, edge in zip(shape.bounds, wanted, strict=True):
                    self.assertAlmostEqual(seen, edge, delta=0.3, msg=f"{rung_id} {shape.part.name}")

    def test_twins_that_lie_over_each_other_share_an_outline(self) -> None:
        at = Situation.of_nobody(170)
        found = settled(at, "standing_balance.mountain")
        scene = scene_of(found, at.body, at.room, found.recommended)
        for view, together in ((View.SIDE_LEFT, True), (View.FRONT, False)):
            shapes = shapes_of(scene.parts, eye_of(view, scene.lying))
            near, far = (shape for shape in shapes if shape.part.name == "shin")
            self.assertIs(near.area is far.area, together)
            if together:
                self.assertEqual(seam(near, [far]), [])

    def test_no_seam_runs_along_the_floor(self) -> None:
        at = Situation.of_nobody(170)
        for rung in variations():
            found = settled(at, rung.id)
            scene = scene_of(found, at.body, at.room, found.recommended)
            eye = eye_of(View.SIDE_LEFT, scene.lying, scene.on_side)
            shapes = sorted(shapes_of(scene.parts, eye), key=lambda shape: shape.nearness)
            for place, shape in enumerate(shapes):
                for line in seam(shape, shapes[:place]):
                    on_floor = [piece for piece in pairwise(line) if all(y > -50 for _, y in piece)]
                    self.assertLess(sum(map(length_cm, map(list, on_floor))), 0.5, f"{rung.id} {shape.part.name}")

    def test_a_part_has_no_seam_where_it_grows(self) -> None:
        at = Situation.of_nobody(170)
        found = settled(at, "standing_balance.mountain")
        scene = scene_of(found, at.body, at.room, found.recommended)
        shapes = shapes_of(scene.parts, eye_of(View.FRONT, scene.lying))
        trunk = [shape for shape in shapes if shape.part.name == "trunk"]
        for shape in shapes:
            if shape.part.name in ("thigh", "head"):
                self.assertAlmostEqual(sum(map(length_cm, seam(shape, trunk))), 0.0, msg=shape.part.name)

    def test_pieces_that_meet_are_one_line_whichever_way_they_run(self) -> None:
        whole = [[at, at * at] for at in range(7)]
        pieces = [whole[4:], whole[2::-1], whole[2:5]]
        apart = [[90, 90], [95, 95]]
        for order in permutations([*pieces, apart]):
            found = end_to_end(order)
            self.assertEqual(len(found), 2)
            self.assertIn(apart, found)
            self.assertTrue(whole in found or whole[::-1] in found)

    def test_front_and_back_of_the_head_differ(self) -> None:
        at = Situation.of_nobody(170)
        found = settled(at, "standing_balance.mountain")
        skull = scene_of(found, at.body, at.room, found.recommended).skull
        front, behind = (area_cm2(hair(skull, eye_of(view, lying=False))) for view in (View.FRONT, View.BEHIND))
        self.assertGreater(behind, 1.4 * front)


class Telling(TestCase):
    def test_crossed_and_open_seats_are_seen_from_the_front(self) -> None:
        for rung in (
            "bound_angle.low_seat",
            "cross_legged.floor",
            "fire_log.stacked",
            "shoelace.low_seat",
            "lotus.half",
        ):
            self.assertEqual(lane_view(variation(rung), Side.LEFT), View.FRONT, rung)

    def test_folds_and_lunges_are_seen_from_their_side(self) -> None:
        for rung in ("seated_fold.free", "low_lunge.blanket", "pyramid.free", "fire_log.leaning"):
            self.assertEqual(lane_view(variation(rung), Side.RIGHT), View.SIDE_RIGHT, rung)

    def test_lying_crossings_and_twists_are_seen_from_above(self) -> None:
        for rung in ("half_pigeon.lying", "lying_twist.free", "rest.side", "bound_angle.lying_free"):
            self.assertEqual(lane_view(variation(rung), Side.LEFT), View.ABOVE, rung)

    def test_who_lies_on_a_side_is_seen_from_the_front(self) -> None:
        """The left leg worked, the right side lies below: the face looks to the right of the mat."""
        self.assertEqual(lane_view(variation("clam.free"), Side.LEFT), View.SIDE_RIGHT)

    def test_a_lying_body_uses_the_width(self) -> None:
        at = Situation.of_nobody(170)
        for rung in ("half_pigeon.lying", "rest.side", "wipers.lying"):
            found = settled(at, rung)
            drawn = figure(found, at.body, at.room, found.recommended, View.ABOVE, english, labels=False)
            _, _, width, height = map(float, re.search(r'viewBox="([^"]+)"', drawn)[1].split())
            self.assertGreater(width, height, rung)


class Heights(TestCase):
    def boxes(self, drawn: str) -> list[shapely.Polygon]:
        found = re.findall(r'<text x="(-?[\d.]+)" y="(-?[\d.]+)"[^>]*>(\d+)<', drawn)
        return [
            shapely.box(float(x) - 1.7 * len(text), float(y) - 4.4, float(x) + 1.7 * len(text), float(y))
            for x, y, text in found
        ]

    def test_no_two_are_written_over_each_other_and_none_is_cut_off(self) -> None:
        at = Situation.of_nobody(170)
        for rung in variations():
            found = settled(at, rung.id)
            drawn = figure(found, at.body, at.room, found.recommended, lane_view(rung, Side.LEFT), english)
            x, y, width, height = map(float, re.search(r'viewBox="([^"]+)"', drawn)[1].split())
            page = shapely.box(x, y, x + width, y + height)
            boxes = self.boxes(drawn)
            for one, other in combinations(boxes, 2):
                self.assertLess(one.intersection(other).area, 1.0, rung.id)
            for box in boxes:
                self.assertLess(box.difference(page).area, 0.5, rung.id)


class Walls(TestCase):
    def test_none_hides_the_body(self) -> None:
        at = Situation.of_nobody(170)
        for rung in ("side_bend.wall", "warrior_one.block_at_wall", "wall_slide.small", "half_pigeon.at_wall"):
            found = settled(at, rung)
            for view in View:
                drawn = figure(found, at.body, at.room, found.recommended, view, english, labels=False)
                first_flesh = drawn.index('fill="var(--fig-mid')
                self.assertNotIn('opacity="0.22"', drawn[first_flesh:], f"{rung} {view}")
