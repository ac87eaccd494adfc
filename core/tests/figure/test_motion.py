"""The way in and out as figures: what was screened is what is shown, to one scale, with the feet where they stay."""

from __future__ import annotations

import re
from unittest import TestCase
from xml.etree import ElementTree

import numpy as np

from asketa_core import NoGrid, Screened, Side, Situation
from asketa_core.figure.motion import Moment, way_of
from asketa_core.texts import has
from tests.library import variation, variations
from tests.speech import english


def shown(at: Situation, rung_id: str, side: Side = Side.LEFT) -> tuple[Screened, tuple[Moment, ...]]:
    found = at.screen(variation(rung_id), side)
    assert not isinstance(found, NoGrid), rung_id
    return found, way_of(found, at, found.recommended, english)


def box_of(moment: Moment) -> list[float]:
    found = re.search(r'viewBox="([^"]+)"', moment.figure)
    assert found is not None
    return [float(value) for value in found[1].split()]


class Shown(TestCase):
    def test_every_station_that_was_screened_is_shown_between_standing_and_the_pose(self) -> None:
        at, kinds = Situation.of_nobody(168), set()
        for rung in variations():
            found, moments = shown(at, rung.id)
            if not found.ways:
                self.assertEqual(moments, (), rung.id)
                continue
            way = found.way_at(found.recommended)
            self.assertEqual(len(moments), len(way.stations) + 2, rung.id)
            self.assertEqual(english(moments[-1].words), english(rung.short))
            kinds.update(english(moment.words) for moment in moments)
            for moment in moments:
                ElementTree.fromstring(moment.figure)
        self.assertGreaterEqual(len(kinds), 6, kinds)

    def test_all_are_to_one_scale(self) -> None:
        for rung_id in ("figure_four.block_end", "seated_fold.free", "heel_slide.free"):
            _, moments = shown(Situation.of_nobody(168), rung_id)
            heights = {round(box_of(moment)[3]) for moment in moments}
            self.assertEqual(len(heights), 1, rung_id)

    def test_every_station_has_its_words(self) -> None:
        for posture in ("half_kneeling", "kneeling", "low_sitting", "floor_sitting"):
            self.assertTrue(has("moments", posture), posture)

    def test_both_sides_face_outward(self) -> None:
        at = Situation.of_nobody(168)
        left, right = (shown(at, "figure_four.foot_on_floor", side)[1][0] for side in Side)
        # Mirrored: what reaches to one side of the middle reaches to the other.
        (x, _, width, _), (other_x, _, other_width, _) = box_of(left), box_of(right)
        self.assertTrue(np.isclose(x, -(other_x + other_width), atol=1.0), (x, other_x))
        self.assertTrue(np.isclose(width, other_width, atol=1.0))
