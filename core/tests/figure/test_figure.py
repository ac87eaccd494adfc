"""Figures: well-formed, to scale, and saying in words what they show."""

from __future__ import annotations

import re
from itertools import cycle
from unittest import TestCase
from unittest.mock import patch
from xml.etree import ElementTree

import numpy as np

from asketa_core import (
    SIDES,
    NoGrid,
    Screened,
    Side,
    Situation,
    View,
    describe,
    figure,
    outward_view,
)
from asketa_core.figure.arms import HAND_REST_CM, arm
from asketa_core.figure.figure import scene_of
from asketa_core.figure.skeleton import skeleton_of
from tests.library import variation, variations
from tests.strategies import ROOM, TODAY, client


def one(rung: str = "figure_four.block_end", side: Side = Side.LEFT) -> tuple[Situation, Screened]:
    situation = Situation.of(client(), TODAY, ROOM)
    found = situation.screen(variation(rung), side)
    assert not isinstance(found, NoGrid)
    return situation, found


class Drawn(TestCase):
    def test_every_variation_from_every_side_is_well_formed(self) -> None:
        situation = Situation.of(client(), TODAY, ROOM)
        views = cycle(View)
        for rung, side in zip(variations(), cycle(SIDES), strict=False):
            found = situation.screen(rung, side)
            assert not isinstance(found, NoGrid), rung.id
            # The views in turn over two hundred variations: every view meets every kind of posture.
            root = ElementTree.fromstring(figure(found, situation.body, ROOM, found.best, next(views)))
            self.assertTrue(root.attrib["aria-label"])
            self.assertNotIn("nan", ElementTree.tostring(root, encoding="unicode"))

    def test_the_lanes_face_outward(self) -> None:
        """Seen from the left the client faces left: the toes are left of the seat; and the reverse."""
        for side, sign in ((Side.LEFT, -1), (Side.RIGHT, 1)):
            situation, found = one(side=side)
            drawn = figure(found, situation.body, ROOM, found.best, outward_view(side), labels=False)
            low, _, width, _ = map(float, re.search(r'viewBox="([^"]+)"', drawn)[1].split())
            self.assertGreater(sign * (low + width / 2), 0)

    def test_one_unit_is_one_centimetre(self) -> None:
        situation, found = one()
        drawn = figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT)
        height = float(re.search(r'viewBox="([^"]+)"', drawn)[1].split()[3])
        sitting = situation.body.length_cm("neck_and_head") + found.grid.batch.values["seat"][found.best]
        self.assertGreater(height, sitting)
        self.assertLess(height, situation.body.stature_cm + 15)

    def test_the_block_height_is_written_on_it(self) -> None:
        situation, found = one()
        self.assertIn(">23<", figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT))


class Hands(TestCase):
    LIE_ON_CM = 4.0
    """The wrist is about a palm above what the hand lies on, and an arm is never quite straight."""

    def test_every_hand_comes_to_where_it_is_to_rest(self) -> None:
        for stature in (155.0, 188.0):
            situation = Situation.of_nobody(stature)
            for rung in variations():
                found = situation.screen(rung, Side.LEFT)
                if isinstance(found, NoGrid):
                    continue
                with patch("asketa_core.figure.skeleton.arm", wraps=arm) as drawn:
                    figure(found, situation.body, situation.room, found.shown, View.SIDE_LEFT)
                for call in drawn.call_args_list:
                    wanted = np.maximum(call.args[3], [-np.inf, -np.inf, HAND_REST_CM])
                    gap = float(np.linalg.norm(arm(*call.args).end - wanted))
                    self.assertLess(gap, self.LIE_ON_CM, f"{rung.id} at {stature}")

    def test_both_hands_come_to_the_front_leg_where_the_other_is_behind(self) -> None:
        situation, found = one("low_lunge.blanket")
        skeleton = skeleton_of(found.pose, situation.body, found.shown, found.variation.recipe.hands)
        for side in SIDES:
            self.assertGreater(skeleton.arms[side].end[0], skeleton.legs[Side.LEFT].root[0])


class Described(TestCase):
    def test_the_words_come_from_the_numbers(self) -> None:
        _, found = one()
        words = describe(found, found.best)
        self.assertIn("Left leg worked", words)
        self.assertIn("chair", words)
        self.assertIn("turned out", words)


class Body(TestCase):
    def test_limbs_keep_their_lengths(self) -> None:
        situation, found = one()
        body = situation.body
        skeleton = skeleton_of(found.pose, body, found.best, found.variation.recipe.hands)
        for side in SIDES:
            leg = skeleton.legs[side]
            self.assertAlmostEqual(
                float(((leg.middle - leg.root) ** 2).sum() ** 0.5), body.length_cm("thigh"), places=4
            )
            arm = skeleton.arms[side]
            self.assertAlmostEqual(
                float(((arm.middle - arm.root) ** 2).sum() ** 0.5), body.length_cm("upper_arm"), places=4
            )

    def test_no_foot_goes_through_the_floor(self) -> None:
        situation = Situation.of_nobody(170)
        for rung in variations():
            found = situation.screen(rung, Side.LEFT)
            assert not isinstance(found, NoGrid), rung.id
            skeleton = scene_of(found, situation.body, situation.room, found.shown)
            feet = [capsule for capsule in skeleton.capsules if capsule.part == "leg"]
            for capsule in feet:
                self.assertGreater(min(float(capsule.start[2]), float(capsule.end[2])), 0.5, rung.id)
