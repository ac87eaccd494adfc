"""Minutes: what is held, what lies between, and the way down and up."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from asketa_core import Level, Pose, Strain, held_s, timeline
from asketa_core.poses.library import Hold
from asketa_core.session.timing import (
    BED_S,
    BETWEEN_ROUNDS_S,
    FETCH_S,
    FLOOR_S,
    FLOOR_WITH_CHAIR_S,
    LIE_DOWN_S,
    OTHER_SIDE_S,
    SETTLE_S,
    SIT_OR_STAND_S,
    change_s,
    move_s,
    runs,
)
from tests.session.poses import part, pose, sided

levels = st.sampled_from(Level)
poses = st.lists(
    st.builds(
        pose,
        family=st.sampled_from(["a", "b", "c"]),
        level=levels,
        dose_s=st.integers(5, 600),
        rounds=st.integers(1, 4),
        props=st.dictionaries(st.sampled_from(["block", "chair"]), st.integers(1, 3)),
        strains=st.sets(st.sampled_from(Strain)),
        with_chair=st.booleans(),
    ),
    max_size=6,
)


class Held(TestCase):
    def test_each_unit_has_its_own_clock(self) -> None:
        breaths = Hold.model_validate({"style": "breaths", "from": 4, "to": 8, "step": 1})
        sets = Hold.model_validate({"style": "reps", "from": 10, "to": 10, "step": 1, "sets": 3})
        minutes = Hold.model_validate({"style": "minutes", "from": 1, "to": 5, "step": 1})
        self.assertEqual(held_s(part(hold=breaths, dose_s=30)), 30)
        self.assertEqual(held_s(part(hold=breaths, dose_s=30), breath_s=4), 20)
        self.assertEqual(held_s(part(hold=minutes, dose_s=120), breath_s=4), 120)
        # Three sets of ten at five seconds each, and two pauses of thirty.
        self.assertEqual(held_s(part(hold=sets, dose_s=50)), 3 * 50 + 2 * 30)


class Moves(TestCase):
    def test_down_is_a_task_of_its_own(self) -> None:
        self.assertEqual(move_s(Level.STANDING, Level.SEATED, False), SIT_OR_STAND_S)
        self.assertEqual(move_s(Level.SEATED, Level.FLOOR, False), FLOOR_S)
        self.assertEqual(move_s(Level.STANDING, Level.LYING, False), FLOOR_S + LIE_DOWN_S)
        self.assertEqual(move_s(Level.STANDING, Level.LYING, True), FLOOR_WITH_CHAIR_S + LIE_DOWN_S)
        self.assertEqual(move_s(Level.FLOOR, Level.LYING, True), LIE_DOWN_S)
        self.assertEqual(move_s(Level.SEATED, Level.BED, False), BED_S)

    @given(levels, levels, st.booleans())
    def test_there_and_back_take_as_long(self, one: Level, other: Level, with_chair: bool) -> None:
        self.assertEqual(move_s(one, other, with_chair), move_s(other, one, with_chair))
        self.assertEqual(move_s(one, other, with_chair) == 0, one is other)

    def test_only_what_is_not_there_yet_is_fetched(self) -> None:
        before, after = part(props={"block": 1}), part(props={"block": 2, "blanket": 3})
        self.assertEqual(change_s(before, after), SETTLE_S + 4 * FETCH_S)
        self.assertEqual(change_s(after, before), SETTLE_S)


class Lines(TestCase):
    def test_sides_go_in_turn_and_rounds_again(self) -> None:
        line = timeline([sided("a", part(rounds=2), part(rounds=1))])
        holds = [(piece.side, piece.seconds) for piece in line.pieces if piece.kind == "hold"]
        self.assertEqual(holds, [("left", 60), ("right", 60), ("left", 60)])
        changes = [piece.seconds for piece in line.pieces if piece.kind == "change"]
        self.assertEqual(changes, [SETTLE_S + SIT_OR_STAND_S, OTHER_SIDE_S, OTHER_SIDE_S])

    def test_one_side_again_is_a_pause(self) -> None:
        line = timeline([pose(rounds=3)])
        self.assertEqual([p.seconds for p in line.pieces if p.kind == "change"][1:], [BETWEEN_ROUNDS_S] * 2)

    def test_getting_up_at_the_end_is_part_of_it(self) -> None:
        line = timeline([pose(level=Level.LYING)])
        self.assertEqual((line.trips_down, line.pieces[-1].gets_up), (1, True))
        self.assertEqual(line.trips_s, 2 * (FLOOR_S + LIE_DOWN_S) + SETTLE_S)
        self.assertEqual(timeline([]).seconds, 0)

    @given(poses, st.integers(2, 20))
    def test_pieces_follow_without_gap(self, many: list[Pose], breath_s: int) -> None:
        line, now = timeline(many, breath_s), 0.0
        for piece in line.pieces:
            self.assertEqual(piece.start_s, now)
            self.assertGreaterEqual(piece.end_s, now)
            now = piece.end_s
        self.assertEqual(line.seconds, now)
        ups = sum(piece.gets_up for piece in line.pieces)
        self.assertEqual(line.trips_down, ups)
        self.assertEqual(sum(piece.kind == "hold" for piece in line.pieces), sum(each.first.rounds for each in many))

    @given(poses)
    def test_what_lasts_is_found_whole(self, many: list[Pose]) -> None:
        line = timeline(many)
        for run in runs(many, line):
            for number in run.poses:
                self.assertIn(run.strain, many[number].strains)
            before, after = run.poses[0] - 1, run.poses[-1] + 1
            for beside in (before, after):
                if 0 <= beside < len(many):
                    self.assertNotIn(run.strain, many[beside].strains)
