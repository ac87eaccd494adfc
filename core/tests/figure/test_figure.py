"""Figures: well-formed, to scale, and saying in words what they show."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import cycle
from typing import Any
from unittest import TestCase
from unittest.mock import patch
from xml.etree import ElementTree

import numpy as np

from asketa_core import (
    SIDES,
    Manner,
    NoGrid,
    Room,
    Screened,
    Side,
    Situation,
    Variation,
    View,
    describe,
    figure,
    palettes,
    side_view,
    words_in,
)
from asketa_core.body import measures
from asketa_core.figure.arms import HAND_REST_CM, arm
from asketa_core.figure.figure import scene_of
from asketa_core.figure.palette import Light
from asketa_core.figure.skeleton import skeleton_of
from asketa_core.recent import Recent
from tests.library import variation, variations
from tests.speech import english
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
            root = ElementTree.fromstring(figure(found, situation.body, ROOM, found.best, next(views), english))
            self.assertTrue(root.attrib["aria-label"])
            self.assertNotIn("nan", ElementTree.tostring(root, encoding="unicode"))

    def test_the_lanes_face_outward(self) -> None:
        """Seen from the left the client faces left: the toes are left of the seat; and the reverse."""
        for side, sign in ((Side.LEFT, -1), (Side.RIGHT, 1)):
            situation, found = one(side=side)
            drawn = figure(
                found, situation.body, ROOM, found.best, side_view(found.variation, side), english, labels=False
            )
            low, _, width, _ = map(float, re.search(r'viewBox="([^"]+)"', drawn)[1].split())
            self.assertGreater(sign * (low + width / 2), 0)

    def test_one_unit_is_one_centimetre(self) -> None:
        situation, found = one()
        drawn = figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT, english)
        height = float(re.search(r'viewBox="([^"]+)"', drawn)[1].split()[3])
        sitting = situation.body.length_cm("neck_and_head") + found.grid.batch.values["seat"][found.best]
        self.assertGreater(height, sitting)
        self.assertLess(height, situation.body.stature_cm + 15)

    def test_the_block_height_is_written_on_it(self) -> None:
        situation, found = one()
        self.assertIn(">23<", figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT, english))


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
                    figure(found, situation.body, situation.room, found.recommended, View.SIDE_LEFT, english)
                for call in drawn.call_args_list:
                    wanted = np.maximum(call.args[3], [-np.inf, -np.inf, HAND_REST_CM])
                    gap = float(np.linalg.norm(arm(*call.args).end - wanted))
                    self.assertLess(gap, self.LIE_ON_CM, f"{rung.id} at {stature}")

    def test_both_hands_come_to_the_front_leg_where_the_other_is_behind(self) -> None:
        situation, found = one("low_lunge.blanket")
        skeleton = skeleton_of(found.pose_at(found.recommended), situation.body, found.variation.recipe.hands)
        for side in SIDES:
            self.assertGreater(skeleton.arms[side].end[0], skeleton.legs[Side.LEFT].root[0])


class Described(TestCase):
    def test_the_words_come_from_the_numbers(self) -> None:
        _, found = one()
        words = english(describe(found, found.best))
        self.assertIn("Left leg worked", words)
        self.assertIn("chair", words)
        self.assertIn("turned out", words)


SINKS_CM = 2.5
"""What rests on something soft or yields to the floor sinks into it by so much at most."""


class Body(TestCase):
    def test_limbs_keep_their_lengths(self) -> None:
        situation, found = one()
        body = situation.body
        skeleton = skeleton_of(found.pose_at(found.best), body, found.variation.recipe.hands)
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
            scene = scene_of(found, situation.body, situation.room, found.recommended)
            for part in scene.parts:
                for chain in part.chains if part.name == "shin" else ():
                    self.assertGreater(float((chain.centres[:, 2] - chain.radii).min()), -SINKS_CM, rung.id)


def luminance(colour: str) -> float:
    """Relative luminance as the accessibility guidelines define it."""
    channels = [int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one: str, other: str) -> float:
    low, high = sorted((luminance(one), luminance(other)))
    return (high + 0.05) / (low + 0.05)


class Palettes(TestCase):
    def test_what_must_be_told_apart_can_be(self) -> None:
        for light, colour in palettes().items():
            for role in ("left", "right", "mid", "line"):
                self.assertGreaterEqual(contrast(colour[role], colour["ground"]), 3.0, f"{light}: {role}")
            for material in ("wood", "felt", "cotton"):
                self.assertGreaterEqual(
                    contrast(colour["ink"], colour[material]), 3.0, f"{light}: heights on {material}"
                )
            self.assertGreaterEqual(contrast(colour["hair"], colour["ground"]), 2.0, light)
            self.assertGreaterEqual(contrast(colour["hair"], colour["mid"]), 1.5, light)
            # Far limbs lie between the near ones and the ground, in grey too.
            near, far = (contrast(colour[role], colour["ground"]) for role in ("mid", "far"))
            self.assertGreater(near, 1.8 * far, light)
            self.assertGreater(far, 1.2, light)

    def test_a_page_may_set_every_colour_and_a_file_needs_none_set(self) -> None:
        situation, found = one()
        drawn = figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT, english)
        plain = figure(found, situation.body, ROOM, found.best, View.SIDE_LEFT, english, light=Light.PRINT)
        day, paper = palettes()["day"], palettes()["print"]
        swapped = re.sub(r"var\(--fig-([a-z-]+),#[0-9A-F]{6}\)", lambda m: paper[m[1]], drawn)
        self.assertEqual(swapped, plain)
        for role, colour in re.findall(r"var\(--fig-([a-z-]+),(#[0-9A-F]{6})\)", drawn):
            self.assertEqual(colour, day[role])


class Seen(TestCase):
    """Views of one posture agree with each other."""

    def span(self, view: View) -> tuple[float, float, float, float]:
        """Left, right, top and bottom edge of the figure on its page."""
        situation, found = one("warrior_two.free")
        drawn = figure(found, situation.body, ROOM, found.best, view, english, labels=False)
        x, y, width, height = map(float, re.search(r'viewBox="([^"]+)"', drawn)[1].split())
        return x, x + width, y, y + height

    def test_opposite_views_are_each_others_mirror(self) -> None:
        for one_way, other_way in ((View.FRONT, View.BEHIND), (View.SIDE_LEFT, View.SIDE_RIGHT)):
            (left, right, *down), (other_left, other_right, *other_down) = self.span(one_way), self.span(other_way)
            np.testing.assert_allclose([left, right], [-other_right, -other_left], atol=0.2)
            np.testing.assert_allclose(down, other_down, atol=0.2)

    def test_from_behind_left_is_left_and_from_the_front_it_is_not(self) -> None:
        situation, found = one("figure_four.block_end", Side.LEFT)
        for view, sign in ((View.BEHIND, -1), (View.ABOVE, -1), (View.FRONT, 1)):
            drawn = figure(found, situation.body, ROOM, found.best, view, english, labels=False)
            worked = re.findall(r'<path d="M(-?[0-9.]+) [^"]*" fill="var\(--fig-left', drawn)
            self.assertGreater(sign * np.mean([float(x) for x in worked]), 0, view)

    def test_the_same_posture_is_drawn_the_same_every_time(self) -> None:
        situation, found = one()
        for view in View:
            once, again = (figure(found, situation.body, ROOM, found.best, view, english) for _ in range(2))
            self.assertEqual(once, again)


class KeptDrawings(TestCase):
    """What was drawn before is shown again for the same only."""

    def drawn(self, of: Situation, rung: Variation, **how: Any) -> str:
        found = of.screen(rung, Side.LEFT)
        assert not isinstance(found, NoGrid)
        how = {"words": english, "view": View.SIDE_LEFT, "index": found.best, **how}
        return figure(found, of.body, of.room, how.pop("index"), how.pop("view"), how.pop("words"), **how)

    def anew(self, *args: Any, **how: Any) -> str:
        with patch("asketa_core.figure.figure.recent_figures", Recent(0, len)):
            return self.drawn(*args, **how)

    def test_is_what_would_be_drawn_anew_whatever_was_asked_before(self) -> None:
        of = Situation.of(client(), TODAY, ROOM)
        solid = tuple(
            prop.model_copy(update={"back": "solid"}) if prop.kind == "chair" else prop for prop in ROOM.props
        )
        others = (
            replace(of, body=measures.Body(190, 80), memo={}), replace(of, body=measures.Body(174, 70, rounded_cm=9), memo={}),
            replace(of, body=measures.Body(174, 70, pregnancy=measures.Pregnancy(30)), memo={}),
            replace(of, room=Room(props=solid), memo={}), of,
        )  # fmt: skip
        asked: tuple[dict[str, Any], ...] = (
            {}, {"view": View.FRONT}, {"view": View.ABOVE}, {"small": True}, {"labels": False}, {"light": Light.DAY},
            {"light": Light.DIM}, {"foot": "drawn_up"}, {"index": 0}, {"words": words_in("en", Manner(units="imperial"))},
        )  # fmt: skip
        seen: set[str] = set()
        for rung in map(variation, ("figure_four.block_end", "sit_to_stand.touch")):
            for each in others:
                for how in asked:
                    kept = self.drawn(each, rung, **how)
                    self.assertEqual(kept, self.anew(each, rung, **how), (rung.id, how))
                    self.assertEqual(self.drawn(each, rung, **how), kept)
                    seen.add(kept)
        # Most of what was asked for looks different from all the rest.
        self.assertGreater(len(seen), len(others) * len(asked))

    def test_is_drawn_once(self) -> None:
        of, rung = Situation.of(client(), TODAY, ROOM), variation("figure_four.block_end")
        with patch("asketa_core.figure.figure.recent_figures", Recent(10**6, len)):
            first = self.drawn(of, rung)
            with patch("asketa_core.figure.figure.scene_of", side_effect=AssertionError("drawn again")):
                self.assertEqual(self.drawn(replace(of, memo={}), rung), first)
