"""What stands, lies or is held around a body touches what it is to touch, and is drawn as what it is."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
import shapely

from asketa_core import NoGrid, Screened, Side, Situation, View, figure, lane_view
from asketa_core.figure.figure import scene_of
from asketa_core.figure.furniture import BED_HEIGHT_CM, Chair, chair_pieces
from asketa_core.figure.outline import shapes_of
from asketa_core.figure.scene import FRONT_CHAIR, Scene
from asketa_core.figure.solids import Bar
from asketa_core.figure.views import eye_of
from asketa_core.props.kinds import generic_room
from tests.figure.areas import as_shape
from tests.library import variation, variations
from tests.speech import english
from tests.strategies import TODAY, bones, client


def screened(at: Situation, rung_id: str) -> Screened:
    found = at.screen(variation(rung_id), Side.LEFT)
    assert not isinstance(found, NoGrid), rung_id
    return found


def scene(rung_id: str, stature: float = 170.0) -> Scene:
    at = Situation.of_nobody(stature)
    found = screened(at, rung_id)
    return scene_of(found, at.body, at.room, found.recommended)


def with_prop(*places: str) -> list[str]:
    found = [rung.id for rung in variations() if set(places) & set(rung.recipe.props)]
    assert found, places
    return found


class Chairs(TestCase):
    def lowest(self, bars: list[Bar]) -> float:
        return float(np.concatenate([bar.points for bar in bars])[:, 2].min())

    def test_a_tipped_chair_stands_on_its_front_legs_with_its_back_where_it_was(self) -> None:
        four, two = Chair(FRONT_CHAIR, 0.0), Chair(FRONT_CHAIR, 0.0, tipped=True)
        posts, _ = chair_pieces(two)
        lowest = min((bar.points for bar in posts), key=lambda points: float(points[:, 2].min()))
        self.assertAlmostEqual(self.lowest(posts), 0.0, delta=2.0)
        self.assertGreater(float(lowest[:, 0].mean()), FRONT_CHAIR.depth_cm / 2, "a front leg carries it")
        self.assertAlmostEqual(float(two.back_top[2]), float(four.back_top[2]), delta=6.0)

    def test_a_back_rest_leans_away_from_the_seat(self) -> None:
        for ahead in (1, -1):
            chair = Chair(FRONT_CHAIR, 10.0, ahead=ahead)
            self.assertLess(ahead * (float(chair.back_top[0]) - 10.0), -2.0)

    def test_rungs_that_tip_a_chair_show_it_tipped_at_a_wall(self) -> None:
        tipped = [rung for rung in variations() if "tipped_chair" in rung.recipe.flags.overall]
        self.assertTrue(tipped)
        for rung in tipped:
            found = scene(rung.id)
            seat = next(solid for solid in found.solids if solid.material == "wood")
            self.assertGreater(float(np.ptp(seat.points[:, 2])), 20.0, rung.id)
            self.assertTrue(any(box.wall for box in found.boxes), rung.id)


class Straps(TestCase):
    NEAR_CM = 5.0

    def test_a_strap_runs_from_both_hands_around_the_feet(self) -> None:
        for rung_id in with_prop("around_feet", "around_foot"):
            for stature in (150.0, 190.0):
                at = Situation.of_nobody(stature)
                found = screened(at, rung_id)
                drawn = scene_of(found, at.body, at.room, found.recommended)
                strap = next(bar for bar in drawn.bars if bar.material == "strap")
                parts = {(part.name, part.side): part for part in drawn.parts}
                for side in Side:
                    hand = parts["forearm", side].chains[1].centres[-1]
                    self.assertLess(float(np.linalg.norm(strap.points - hand, axis=1).min()), self.NEAR_CM, rung_id)
                balls = [parts["shin", side].chains[1].centres[3] for side in Side]
                gaps = [float(np.linalg.norm(strap.points - ball, axis=1).min()) for ball in balls]
                self.assertLess(min(gaps), self.NEAR_CM, rung_id)


class Sticks(TestCase):
    def test_a_stick_lies_along_the_back_and_is_seen(self) -> None:
        for rung_id in with_prop("along_spine"):
            at = Situation.of_nobody()
            found = screened(at, rung_id)
            drawn = scene_of(found, at.body, at.room, found.recommended)
            stick = next(bar for bar in drawn.bars if bar.belongs_at is None)
            eye = eye_of(View.SIDE_LEFT, drawn.lying)
            trunk = next(shape for shape in shapes_of(drawn.parts, eye) if shape.part.name == "trunk")
            line = shapely.LineString(eye.flat(stick.points))
            self.assertLess(line.distance(as_shape(trunk.area)), 2.0, rung_id)
            self.assertGreater(line.difference(as_shape(trunk.area)).length, 60.0, rung_id)


class Beds(TestCase):
    def test_who_lies_on_a_bed_is_drawn_on_one_that_stands_on_the_floor(self) -> None:
        found = scene("heel_slide.bed")
        mattress = next(box for box in found.boxes if box.kind == "mattress")
        self.assertEqual(float(mattress.high[2]), 0.0)
        self.assertEqual(min(float(bar.points[:, 2].min()) for bar in found.bars), -BED_HEIGHT_CM)
        self.assertIsNone(scene("heel_slide.free").bed)


class Heads(TestCase):
    def test_no_head_sinks_into_the_floor(self) -> None:
        for stature in (150.0, 190.0):
            at = Situation.of_nobody(stature)
            for rung in variations():
                found = screened(at, rung.id)
                drawn = scene_of(found, at.body, at.room, found.recommended)
                self.assertGreater(float(drawn.skull.centre[2]), 0.04 * stature, f"{rung.id} at {stature}")

    def test_a_rounded_upper_back_carries_the_head_ahead(self) -> None:
        ahead = []
        for wall_to_head in (None, 8.0):
            at = Situation.of(client([bones(wall_to_head_cm=wall_to_head)]), TODAY, generic_room())
            found = screened(at, "standing_balance.mountain")
            drawn = scene_of(found, at.body, at.room, found.recommended)
            pelvis = next(part for part in drawn.parts if part.name == "thigh").chains[0].centres[0]
            ahead.append(float(drawn.skull.centre[0] - pelvis[0]))
        self.assertTrue(5.0 < ahead[1] - ahead[0] <= 8.0, ahead)


class Small(TestCase):
    def test_small_figures_have_fewer_marks_and_no_figures_written(self) -> None:
        at = Situation.of_nobody()
        for rung_id in ("seated_fold.high_seat", "child.bolster", "figure_four.block_end", "rest.side"):
            found, view = screened(at, rung_id), lane_view(variation(rung_id), Side.LEFT)
            full, small = (
                figure(found, at.body, at.room, found.recommended, view, english, small=small)
                for small in (False, True)
            )
            self.assertLess(small.count("<path") + small.count("<rect"), full.count("<path") + full.count("<rect"))
            self.assertNotIn("<text", small)
