"""Areas and lines on the page against another library: joined, cut by each other, grown, measured."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

import numpy as np
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from asketa_core.figure.areas import (
    ARC_OFF,
    Area,
    bounds_of,
    closed,
    covered_cm2,
    grown,
    hulls_at,
    inside,
    joined,
    length_cm,
    lines_at,
    meet,
    outside,
    rectangle,
    shared,
    simple,
    wider,
)
from tests.figure.areas import area_cm2, as_lines, as_shape

places = st.floats(-60.0, 60.0)
steps = st.integers(-6, 6)
"""Few enough that many lines are level or upright."""
GRAIN_CM = 0.01
"""What whole numbers may be off by, a few times over."""


@st.composite
def triangles(draw: st.DrawFn) -> Area:
    """Anything with an inside, the outer way round."""
    corners = np.array([[draw(places), draw(places)] for _ in range(3)])
    one, other = corners[1] - corners[0], corners[2] - corners[0]
    turn = float(one[0] * other[1] - one[1] * other[0])
    assume(abs(turn) > 1.0)
    return lines_at((corners if turn > 0 else corners[::-1])[None])


def disc(x: float, y: float, radius: float) -> Area:
    angles = np.linspace(0, 2 * np.pi, 48, endpoint=False)
    return lines_at(np.array([[[x, y]]]) + radius * np.column_stack([np.cos(angles), np.sin(angles)])[None])


class Areas(TestCase):
    @given(triangles(), triangles(), triangles())
    def test_joined_and_shared_are_as_large_as_they_should_be(self, one: Area, other: Area, third: Area) -> None:
        shapes = [as_shape(each) for each in (one, other, third)]
        perimeter = sum(shape.length for shape in shapes)
        whole = joined([one, other, third])
        self.assertLess(abs(area_cm2(whole) - shapely.union_all(shapes).area), GRAIN_CM * perimeter)
        both = shared(whole, third)
        self.assertLess(abs(area_cm2(both) - shapes[2].area), GRAIN_CM * perimeter)
        self.assertLess(abs(area_cm2(shared(one, other)) - (shapes[0] & shapes[1]).area), GRAIN_CM * perimeter)

    @given(triangles(), triangles(), triangles())
    def test_a_line_lies_inside_or_outside(self, ring: Area, one: Area, other: Area) -> None:
        line = [*ring[0], ring[0][0]]
        cut_by = shapely.union(as_shape(one), as_shape(other))
        # Along an edge it is neither.
        assume(not as_lines([line]).intersection(as_shape(one).boundary | as_shape(other).boundary).length)
        within, without = inside([line], [*one, *other]), outside([line], [*one, *other])
        told = as_lines([line]) & cut_by
        self.assertAlmostEqual(sum(map(length_cm, within)), told.length, delta=0.1)
        self.assertAlmostEqual(sum(map(length_cm, [*within, *without])), length_cm(line), delta=0.1)

    def test_nothing_joined_cut_or_grown_is_nothing(self) -> None:
        self.assertEqual(joined([]), [])
        self.assertEqual(shared([], disc(0, 0, 5)), [])
        self.assertEqual(shared(disc(0, 0, 5), disc(40, 0, 5)), [])
        self.assertEqual(grown([], 2.0), [])
        self.assertEqual(closed(simple([], 0.1), 2.0), [])
        self.assertEqual(outside([], disc(0, 0, 5)), [])
        self.assertEqual(covered_cm2([], [(0, 0, 1, 1)]), [0.0])

    def test_what_has_no_inside_is_nothing(self) -> None:
        flat, upright, point = [[0, 0], [9, 0], [4, 0]], [[0, 0], [0, 9], [0, 4]], [[5, 5], [5, 5], [5, 5]]
        whole = disc(0, 0, 5)
        self.assertEqual(joined([[flat], [upright], [point]]), [])
        self.assertEqual(shared([flat, upright], whole), [])
        self.assertEqual(shared(whole, [upright, point]), [])
        self.assertAlmostEqual(area_cm2(joined([whole, [flat]])), area_cm2(whole), places=3)
        self.assertEqual(outside([[[10, 4], [90, 5]]], [upright]), [[[10, 4], [90, 5]]])
        self.assertEqual(inside([[[-10, 4], [90, 5]]], [upright]), [])

    def test_a_level_line_is_not_lost(self) -> None:
        level = [[0, 0], [20_000, 0]]
        for away in (-30, 0, 30):
            self.assertEqual(sum(map(length_cm, outside([level], disc(50, away, 10)))), 20.0)
        self.assertAlmostEqual(sum(map(length_cm, outside([level], disc(0, 0, 10)))), 10.0, places=2)

    @given(st.lists(st.tuples(steps, steps), min_size=2, max_size=6), triangles())
    def test_no_piece_of_a_line_is_lost_however_it_runs(self, corners: list[tuple[int, int]], area: Area) -> None:
        line = [[9000 * x, 9000 * y] for x, y in corners]
        assume(all(one != other for one, other in pairwise(line)))
        # Along an edge it is neither.
        assume(not as_lines([line]).intersection(as_shape(area).boundary).length)
        told = sum((as_lines([[one, other]]) & as_shape(area)).length for one, other in pairwise(line))
        within, without = inside([line], area), outside([line], area)
        self.assertAlmostEqual(sum(map(length_cm, within)), told, delta=0.1)
        self.assertAlmostEqual(sum(map(length_cm, without)), length_cm(line) - told, delta=0.1)

    def test_what_is_wider_keeps_its_corners(self) -> None:
        box = [rectangle((0, 0, 30, 20))]
        self.assertEqual(bounds_of(wider(box, 0.5)), (-0.5, -0.5, 30.5, 20.5))
        self.assertEqual(len(wider(box, 0.5)[0]), 4)
        self.assertEqual(wider([], 0.5), [])

    def test_a_hole_stays_one(self) -> None:
        frame = joined([[rectangle(each)] for each in ((0, 0, 30, 5), (0, 25, 30, 30), (0, 0, 5, 30), (25, 0, 30, 30))])
        self.assertEqual(len(frame), 2)
        self.assertAlmostEqual(area_cm2(frame), 500.0)
        self.assertEqual(covered_cm2(frame, [(10, 10, 20, 20), (0, 0, 30, 30)]), [0.0, 500.0])
        self.assertEqual(inside([[[10_000, 10_000], [20_000, 20_000]]], frame), [])

    def test_an_inner_corner_is_rounded_and_an_outer_one_is_where_it_was(self) -> None:
        corner = joined([[rectangle((0, 0, 10, 40))], [rectangle((0, 30, 40, 40))]])
        found = as_shape(closed(corner, 6.0))
        off = 1.1 * ARC_OFF * 6.0
        self.assertTrue(found.buffer(off).contains(as_shape(corner)))
        # Between the square of the corner and a quarter of the disc that fits into it, whose outline has eight corners.
        filled = found.area - as_shape(corner).area
        self.assertTrue((1 - np.pi / 4) * 36 <= filled <= 36 * (1 - np.sqrt(2) / 2 + 0.02), filled)
        for x, y in ((0, 0), (0, 40), (40, 40), (40, 30)):
            self.assertLess(found.distance(shapely.Point(x, y)), off)

    def test_fewer_points_are_off_by_little(self) -> None:
        round_one = disc(0, 0, 3.0)
        fewer = simple(round_one, 0.1)
        self.assertLess(len(fewer[0]), len(round_one[0]))
        self.assertLess(shapely.hausdorff_distance(as_shape(fewer), as_shape(round_one)), 0.3)

    def test_a_hull_is_around_its_points_and_none_is_around_a_line(self) -> None:
        cloud = np.random.default_rng(7).normal(scale=20.0, size=(60, 2))
        row = np.column_stack([np.arange(9.0), np.arange(9.0)])
        around, none = hulls_at(np.concatenate([cloud, row]), np.repeat([0, 1], [60, 9]))
        told = shapely.MultiPoint(cloud).convex_hull
        self.assertAlmostEqual(area_cm2([around]), told.area, delta=GRAIN_CM * told.length)
        self.assertEqual(none, [])

    def test_what_boxes_tell(self) -> None:
        bounds = bounds_of([*disc(10, 0, 5), *disc(-10, 0, 5)])
        for value, told in zip(bounds, (-15, -5, 15, 5), strict=True):
            self.assertAlmostEqual(value, told, places=2)
        self.assertTrue(meet(bounds, (15, 0, 20, 1)))
        self.assertFalse(meet(bounds, (15.1, 0, 20, 1)))
        self.assertFalse(meet(bounds, (0, 6, 1, 7)))
