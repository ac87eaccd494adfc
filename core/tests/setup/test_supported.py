"""What a chair, a wall or a seat takes over is never judged harder than the same work without it."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from asketa_core import SIDES, Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Verdict
from tests.strategies import ROOM, TODAY, bones, client, groin, hip, knee, pain, pregnancy, statures

EASIER = (
    ("squat.block_on_chair", "squat.chair"),
    ("squat.chair", "squat.free"),
    ("squat.chair", "squat.wide"),
    ("squat.chair", "squat.heels_raised"),
    ("squat.chair_back", "squat.free"),
    ("squat.two_blocks", "squat.one_block"),
    ("squat.one_block", "squat.free"),
    ("sit_to_stand.high_arms", "sit_to_stand.high_thighs"),
    ("sit_to_stand.lift_pause", "sit_to_stand.touch"),
    ("sit_to_stand.touch", "sit_to_stand.hover"),
    ("standing_balance.mountain_chair", "standing_balance.mountain"),
    ("standing_balance.one_leg_chair", "standing_balance.one_leg"),
    ("standing_balance.one_leg_wall", "standing_balance.one_leg"),
    ("heel_raise.chair", "heel_raise.free"),
    ("step_up.rail", "step_up.low"),
    ("triangle.chair_seat", "triangle.block"),
)
"""The supported rung first. A chair is a set-up, so that clear and with a set-up count as one."""

THIGH_ON_CHAIR = (
    ("side_angle.forearm_chair_back", "side_angle.free"),
    ("side_angle.hand_on_seat", "side_angle.free"),
    ("side_angle.hand_back", "side_angle.free"),
    ("warrior_one.thigh_on_chair", "warrior_one.free"),
    ("warrior_one.chair_in_front", "warrior_one.free"),
    ("warrior_two.thigh_on_chair", "warrior_two.free"),
    ("warrior_two.short_stance", "warrior_two.free"),
)
"""Here the chair decides how deep the front knee bends: a shallow free stance may ask less, and is not the same work."""

RECORDS: tuple[list[dict[str, Any]], ...] = (
    [],
    [hip(days_ago=28)],
    [hip(days_ago=28, approach="direct_anterior")],
    [knee()],
    [knee(diagnosis="arthritis")],
    [pregnancy(week=30)],
    [bones(fell_last_year="yes")],
    [groin()],
)

bodies = st.fixed_dictionaries(
    {
        (quantity, side.value): st.floats(least, most)
        for side in SIDES
        for quantity, (least, most) in {
            "hip_flexion": (75.0, 130.0),
            "knee_flexion": (90.0, 150.0),
            "straight_leg_raise": (40.0, 95.0),
            "open_external_rotation": (25.0, 85.0),
            "hip_extension": (0.0, 20.0),
            "planted_dorsiflexion": (5.0, 35.0),
        }.items()
    }
)


def rank(situation: Situation, rung: str, side: Any) -> Verdict | None:
    found = situation.screen(situation.library.variation(rung), side)
    return None if isinstance(found, NoGrid) else found.verdict


class Supported(TestCase):
    def _never_harder(self, situation: Situation, pairs: tuple[tuple[str, str], ...], alike: Verdict) -> None:
        """``alike``: verdicts up to this one count as one."""
        order = list(Verdict)
        for supported, free in pairs:
            for side in SIDES:
                held, alone = rank(situation, supported, side), rank(situation, free, side)
                assert held is not None and alone is not None, (supported, free)
                most = max(order.index(alone), order.index(alike))
                self.assertLessEqual(order.index(held), most, (supported, held, free, alone, side))

    @settings(max_examples=12, deadline=None)
    @given(statures, bodies, st.sampled_from(RECORDS))
    def test_whatever_the_record(self, stature: float, body: dict[Any, float], entries: list[dict[str, Any]]) -> None:
        daily = [pain(2, entry["id"]) for entry in entries if entry["kind"] == "knee_pain"]
        file = client(entries, stature=stature, ranges=body, daily=daily)
        self._never_harder(Situation.of(file, TODAY, ROOM), EASIER, Verdict.WITH_SETUP)

    @settings(max_examples=8, deadline=None)
    @given(statures, bodies)
    def test_whatever_the_body(self, stature: float, body: dict[Any, float]) -> None:
        self._never_harder(
            Situation.of(client(stature=stature, ranges=body), TODAY, ROOM), THIGH_ON_CHAIR, Verdict.WITH_EYE
        )
