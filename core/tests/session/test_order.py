"""The order of a session: what is suggested, why, and what is said of one that is not as it should be."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import (
    Level,
    Most,
    Pose,
    Strain,
    concerns,
    countered,
    most_in_one_go,
    reasons,
    suggest,
    timeline,
)
from asketa_core.records.catalogue import limits_on
from asketa_core.texts.phrases import Own
from tests.session.poses import KNEES, part, pose, sided
from tests.speech import english
from tests.strategies import TODAY, client, pregnancy

MOST = most_in_one_go(())

some = st.lists(
    st.builds(
        pose,
        family=st.sampled_from(["a", "b", "c", "d"]),
        level=st.sampled_from(Level),
        stage=st.sampled_from(["arrive", "warm", "work", "rest"]),
        counters=st.sampled_from([(), ("a", "b")]),
        fixed=st.booleans(),
        dose_s=st.integers(20, 400),
        strains=st.sets(st.sampled_from(Strain)),
    ),
    max_size=6,
)


def ordered(poses: list[Pose], most: dict[Strain, Most] | None = None) -> list[str]:
    return [poses[place].family for place in suggest(poses, most or MOST)]


class Suggested(TestCase):
    def test_settling_first_and_rest_last(self) -> None:
        mixed = [
            pose("rest", Level.LYING, "rest"),
            pose("fold", Level.FLOOR),
            pose("table", Level.FLOOR, "warm"),
            pose("breath", Level.SEATED, "arrive"),
        ]
        self.assertEqual(ordered(mixed), ["breath", "table", "fold", "rest"])

    def test_the_floor_once(self) -> None:
        mixed = [
            pose("bridge", Level.LYING),
            pose("warrior", Level.STANDING),
            pose("fold", Level.FLOOR),
            pose("balance", Level.STANDING),
            pose("twist", Level.SEATED),
        ]
        order = suggest(mixed, MOST)
        self.assertEqual(timeline([mixed[place] for place in order]).trips_down, 1)
        self.assertEqual(timeline(mixed).trips_down, 2)

    def test_a_counter_pose_comes_after_what_wants_it(self) -> None:
        mixed = [
            pose("wipers", Level.FLOOR),
            pose("reach", Level.FLOOR),
            pose("pigeon", Level.FLOOR, counters=("wipers", "knees")),
            pose("lotus", Level.FLOOR, counters=("wipers", "knees")),
        ]
        order = ordered(mixed)
        self.assertEqual(set(order[order.index("wipers") - 2 : order.index("wipers")]), {"pigeon", "lotus"})

    def test_what_is_fixed_stays(self) -> None:
        mixed = [pose("rest", Level.LYING, "rest", fixed=True), pose("b"), pose("breath", stage="arrive")]
        self.assertEqual(ordered(mixed), ["rest", "breath", "b"])

    def test_a_knee_is_given_a_rest_between(self) -> None:
        loaded = {"level": Level.STANDING, "dose_s": 400, "strains": KNEES}
        mixed = [pose("one", **loaded), pose("two", **loaded), pose("sit", dose_s=60)]
        self.assertEqual(ordered(mixed)[1], "sit")

    def test_a_good_order_is_left_as_it_is(self) -> None:
        good = [pose("breath", stage="arrive"), pose("a"), pose("b"), pose("c"), pose("rest", Level.LYING, "rest")]
        self.assertEqual(suggest(good, MOST), (0, 1, 2, 3, 4))

    def test_props_that_are_out_already_are_used_on(self) -> None:
        bricks = {"props": {"block": 4}}
        mixed = [pose("a", **bricks), pose("b"), pose("c", **bricks), pose("d")]
        order = ordered(mixed)
        self.assertEqual(abs(order.index("a") - order.index("c")), 1)

    def test_nothing_and_one(self) -> None:
        self.assertEqual(suggest([], MOST), ())
        self.assertEqual(suggest([pose()], MOST), (0,))
        self.assertRaises(ValueError, suggest, [pose()] * 41, MOST)

    @settings(max_examples=25, deadline=None)
    @given(some)
    def test_an_order_has_everything_once_and_keeps_what_is_fixed(self, poses: list[Pose]) -> None:
        order = suggest(poses, MOST)
        self.assertEqual(sorted(order), list(range(len(poses))))
        for place, each in enumerate(order):
            if poses[each].fixed:
                self.assertEqual(each, place)

    @settings(max_examples=15, deadline=None)
    @given(some)
    def test_what_was_suggested_is_suggested_again(self, poses: list[Pose]) -> None:
        order = suggest(poses, MOST)
        again = [poses[place] for place in order]
        once_more = [again[place] for place in suggest(again, MOST)]
        self.assertEqual(timeline(once_more).trips_down, timeline(again).trips_down)
        self.assertLessEqual(timeline(once_more).seconds, timeline(again).seconds + 240)


class Countered(TestCase):
    def test_directly_or_after_others_of_its_kind(self) -> None:
        wanting = {"counters": ("wipers", "knees")}
        order = [
            pose("a", **wanting),
            pose("b", **wanting),
            pose("wipers"),
            pose("c", **wanting),
            pose("d"),
            pose("knees"),
        ]
        self.assertEqual(countered(order), {0: 2, 1: 2})


class Said(TestCase):
    def codes(self, poses: list[Pose], minutes: int = 60, most: dict[Strain, Most] | None = None) -> list[str]:
        return [each.code for each in concerns(poses, minutes, most or MOST)]

    def test_over_time_by_half_a_minute(self) -> None:
        seconds = timeline([pose(dose_s=600)]).seconds
        spare = 11 * 60 - seconds
        self.assertEqual(self.codes([pose(dose_s=600 + round(spare) + 29)], 11), [])
        self.assertEqual(self.codes([pose(dose_s=600 + round(spare) + 30)], 11), ["over"])

    def test_one_side_forgotten(self) -> None:
        self.assertEqual(self.codes([sided("a", part())]), ["one_side"])
        self.assertEqual(self.codes([sided("a", part(), part())]), [])

    def test_closed_says_why(self) -> None:
        (concern,) = concerns([sided("a", part(closed=Own("Not on this hip.")), part())], 60, MOST)
        self.assertEqual((concern.code, english(concern.words), concern.poses), ("closed", "Not on this hip.", (0,)))

    def test_twice_to_the_floor(self) -> None:
        down, up = pose("a", Level.FLOOR), pose("b", Level.STANDING)
        self.assertEqual(self.codes([down, up, down]), ["floor_trips"])
        self.assertEqual(self.codes([down, down, up]), [])

    def test_no_counter_pose_yet(self) -> None:
        wanting = pose("a", counters=("wipers", "knees"))
        self.assertEqual(self.codes([wanting]), ["counter"])
        self.assertEqual(self.codes([wanting, pose("knees")]), [])

    def test_too_long_in_one_go_by_the_house_and_by_a_record(self) -> None:
        standing = {"level": Level.STANDING, "strains": {Strain.STANDING}}
        self.assertEqual(self.codes([pose(dose_s=900, **standing)]), [])
        self.assertEqual(self.codes([pose(dose_s=901, **standing)]), ["run"])
        tight = MOST | {Strain.STANDING: Most(60, by_record=True)}
        self.assertEqual(self.codes([pose(dose_s=61, **standing)], most=tight), ["run_by_record"])

    def test_records_set_the_most(self) -> None:
        limits = limits_on(client([pregnancy(week=30)]), TODAY)
        most = most_in_one_go(limits)
        self.assertEqual((most[Strain.FLAT], most[Strain.STANDING]), (Most(60, True), Most(60, True)))
        self.assertFalse(MOST[Strain.FLAT].by_record)

    def test_an_order_says_what_it_is_good_for(self) -> None:
        order = [
            pose("breath", stage="arrive", fixed=True),
            pose("a", Level.STANDING),
            pose("b", Level.STANDING),
            pose("pigeon", Level.FLOOR, counters=("wipers", "knees")),
            pose("wipers", Level.LYING),
            pose("rest", Level.LYING, "rest"),
        ]
        said = {(each.code, each.poses) for each in reasons(order, MOST)}
        wanted = {
            ("arrives", (0,)), ("fixed", (0,)), ("stands", (1, 2)), ("down_once", (3, 4, 5)), ("counters", (4,)), ("rests", (5,)),
        }  # fmt: skip
        self.assertEqual(said, wanted)
        self.assertTrue(all(english(each.words) for each in reasons(order, MOST)))
