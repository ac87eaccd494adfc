"""Every variation for many bodies: it solves or says what cannot be met, and nothing passes through the floor."""

from __future__ import annotations

from itertools import cycle
from unittest import TestCase

import numpy as np

from asketa_core import SIDES, NoGrid, Quantity, Screened, Side, Situation, Variation
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Range, Ranges
from asketa_core.figure.figure import scene_of
from asketa_core.figure.solids import Box
from asketa_core.kernel.angles import femur_axes, hip_angles
from asketa_core.kernel.bounds import REACH_TOLERANCE_CM
from asketa_core.kernel.shared import STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import FORWARD, UPRIGHT, Vec
from asketa_core.poses.posture import NOT_MODELLED, Readout
from asketa_core.poses.recipe import GroundLeg, Hands, KneelBase, KneelingLeg, PlantedLeg
from asketa_core.poses.settle import settle_pose
from tests.library import variation, variations
from tests.strategies import ROOM, TODAY, client, numbers

STIFF = {
    Quantity.HIP_FLEXION: 95, Quantity.OPEN_EXTERNAL_ROTATION: 35, Quantity.OPEN_ABDUCTION: 35,
    Quantity.KNEE_FLEXION: 120, Quantity.STRAIGHT_LEG_RAISE: 50, Quantity.PLANTED_DORSIFLEXION: 20,
    Quantity.HIP_EXTENSION: 5,
}  # fmt: skip
MOBILE = {
    Quantity.HIP_FLEXION: 135, Quantity.OPEN_EXTERNAL_ROTATION: 80, Quantity.OPEN_ABDUCTION: 65,
    Quantity.KNEE_FLEXION: 158, Quantity.STRAIGHT_LEG_RAISE: 100, Quantity.PLANTED_DORSIFLEXION: 42,
    Quantity.HIP_EXTENSION: 30,
}  # fmt: skip
BELOW_FLOOR_CM = 2.5
"""Joint centres may come this near the floor's underside: soles and backs have a thickness of their own."""

HAND_NEAR_CM = 6.0
"""A wrist lies a palm above its support; the tip of the hand no further than this from it."""

SINKS_CM = 7.0
"""How far a leg's axis may lie inside what it rests on or beside: less than a thigh's own radius."""

LEVEL_SEAT_CM = 6.0
"""A seat is no thicker; a tipped one reaches higher."""


def situation(stature: float, own: dict[Quantity, int]) -> Situation:
    ranges = {(quantity.value, side.value): float(value) for quantity, value in own.items() for side in SIDES}
    return Situation.of(client(stature=stature, ranges=ranges), TODAY, ROOM)


def screened(at: Situation, rung: Variation, side: Side) -> Screened:
    found = at.screen(rung, side)
    assert not isinstance(found, NoGrid), rung.id
    return found


def height_of(found: Screened, slot: str, side: Side | None = None) -> float:
    """How high what a slot names is in the best set-up."""
    values = found.grid.batch.values
    own = found.grid.batch.slot(slot, side)
    return float(values[own][found.best]) if own in values else 0.0


class EveryVariation(TestCase):
    def test_solves_or_says_what_cannot_be_met(self) -> None:
        for stature, own in ((150, STIFF), (175, {}), (200, MOBILE)):
            at = situation(stature, own)
            for rung, side in zip(variations(), cycle(SIDES), strict=False):
                found = screened(at, rung, side)
                best = found.best
                said = found.possible[best] or found.troubles_at(best)
                self.assertTrue(said, (stature, rung.id))
                self.assertTrue(found.settles, rung.id)

    def test_most_of_the_library_is_open_to_a_mobile_body(self) -> None:
        at = situation(170, MOBILE)
        closed = [rung.id for rung in variations() if not (found := screened(at, rung, Side.LEFT)).possible[found.best]]
        self.assertLessEqual(len(closed), 4, closed)

    def test_a_stiff_body_is_never_offered_more_than_a_mobile_one(self) -> None:
        stiff, mobile = situation(170, STIFF), situation(170, MOBILE)
        only_stiff = [
            rung.id
            for rung in variations()
            if (s := screened(stiff, rung, Side.LEFT)).possible[s.best]
            and not (m := screened(mobile, rung, Side.LEFT)).possible[m.best]
        ]
        self.assertEqual(only_stiff, [])

    def test_keeps_its_limbs_above_the_floor_and_its_bones_long(self) -> None:
        for stature, own, side in ((153, STIFF, Side.LEFT), (171, {}, Side.RIGHT), (198, MOBILE, Side.LEFT)):
            at = situation(stature, own)
            for rung in variations():
                found = screened(at, rung, side)
                if found.possible[found.best]:
                    self._limbs_stay_whole_and_above_the_floor(at, rung, found)

    def _limbs_stay_whole_and_above_the_floor(self, at: Situation, rung: Variation, found: Screened) -> None:
        scene = scene_of(found, at.body, ROOM, found.best)
        for part in scene.parts:
            low = min(float(chain.centres[:, 2].min()) for chain in part.chains)
            self.assertGreater(low, -BELOW_FLOOR_CM, (rung.id, part.name))
        for leg in (found.pose_at(found.best).leg(s) for s in SIDES):
            for start, end, segment in ((leg.hip, leg.knee, "thigh"), (leg.knee, leg.ankle, "lower_leg")):
                off = float(np.linalg.norm(end - start)) - at.body.length_cm(segment)
                # A foot may be out of reach by so little that nobody would see it.
                self.assertLess(abs(off), REACH_TOLERANCE_CM, (rung.id, segment))

    def test_rests_on_what_it_stands_and_kneels_on(self) -> None:
        """Soles and kneeling knees lie on their surface, whatever its height; hands reach down to theirs."""
        seen = {PlantedLeg: 0, GroundLeg: 0, KneelingLeg: 0, Hands: 0}
        for stature in (150, 200):
            at = situation(stature, MOBILE)
            for rung in variations():
                found = screened(at, rung, Side.LEFT)
                if not found.possible[found.best]:
                    continue
                body, recipe, pose = at.body, rung.recipe, found.pose_at(found.best)
                for side, rule in ((Side.LEFT, recipe.worked_rule), (Side.RIGHT, recipe.other_rule)):
                    points = pose.leg(side)
                    if isinstance(rule, PlantedLeg | GroundLeg):
                        above = points.ankle[2] - height_of(found, rule.rests_on, side)
                        self.assertTrue(np.allclose(above, body.length_cm("ankle_above_sole"), atol=0.1), rung.id)
                        seen[type(rule)] += 1
                    elif isinstance(rule, KneelingLeg) and isinstance(recipe.stands_on, KneelBase):
                        above = points.knee[2] - height_of(found, recipe.stands_on.pad)
                        self.assertTrue(np.allclose(above, body.length_cm("knee_above_rest"), atol=0.1), rung.id)
                        seen[KneelingLeg] += 1
                if recipe.lean == "hands" and pose.spine_flexion_deg < 1:
                    support = height_of(found, recipe.hands_on or "floor")
                    scene = scene_of(found, body, ROOM, found.best)
                    arms = [part for part in scene.parts if part.name == "forearm"]
                    lowest = min(float(chain.centres[:, 2].min()) for arm in arms for chain in arm.chains)
                    self.assertLess(abs(lowest - support), HAND_NEAR_CM, rung.id)
                    seen[Hands] += 1
        self.assertGreater(min(seen.values()), 3, seen)

    def test_no_leg_runs_through_a_prop(self) -> None:
        for stature, own in ((158, {}), (186, MOBILE)):
            at = situation(stature, own)
            for rung in variations():
                found = screened(at, rung, Side.LEFT)
                if not found.possible[found.best]:
                    continue
                scene = scene_of(found, at.body, ROOM, found.best)
                legs = [part for part in scene.parts if part.name in ("thigh", "shin")]
                seats = [
                    Box(solid.points.min(axis=0), solid.points.max(axis=0), solid.material)
                    for solid in scene.solids
                    if solid.material == "wood" and np.ptp(solid.points[:, 2]) < LEVEL_SEAT_CM
                ]
                for one, other in (chain.centres[[0, -1]] for leg in legs for chain in leg.chains):
                    along = one + np.linspace(0.05, 0.95, 15)[:, None] * (other - one)
                    for box in (*scene.boxes, *seats):
                        depth = float(np.minimum(along - box.low, box.high - along).min(axis=1).max())
                        self.assertLess(depth, SINKS_CM, (rung.id, box.material))

    def test_has_every_read_out_its_posture_can_determine(self) -> None:
        at = situation(170, {})
        always = {Readout.SPINE_FLEXION, Readout.SPINE_ROTATION, Readout.SIDE_BEND, Readout.KNEE_GAP_CM}
        both = {
            Readout.HIP_FLEXION, Readout.HIP_ABDUCTION, Readout.HIP_EXTERNAL_ROTATION, Readout.HIP_BEND,
            Readout.KNEE_FLEXION, Readout.KNEE_TWIST, Readout.KNEE_LOAD_SHARE,
        }  # fmt: skip
        for rung in variations():
            found = screened(at, rung, Side.LEFT)
            there = set(found.pose_at(0).readouts)
            for readout in always:
                self.assertIn((readout, None), there, rung.id)
            for readout in both:
                for side in SIDES:
                    self.assertIn((readout, side), there, rung.id)
            self.assertEqual((Readout.SPINE_MOMENT_RATIO, None) in there, "lying" not in rung.position)
        self.assertIn("knee_drift", NOT_MODELLED)


class Weight(TestCase):
    def share(self, rung: str, side: Side) -> float:
        found = screened(situation(170, {}), variation(rung), Side.LEFT)
        return found.pose_at(found.recommended).middle(Readout.KNEE_LOAD_SHARE, side)

    def test_two_feet_share_it_and_one_leg_carries_it(self) -> None:
        self.assertAlmostEqual(self.share("standing_balance.mountain", Side.LEFT), 0.5, places=6)
        self.assertAlmostEqual(self.share("standing_balance.one_leg", Side.RIGHT), 1.0, places=6)
        self.assertAlmostEqual(self.share("standing_balance.one_leg", Side.LEFT), 0.0, places=6)

    def test_the_front_leg_of_a_lunge_carries_more(self) -> None:
        self.assertGreater(self.share("warrior_one.free", Side.LEFT), 0.5)

    def test_the_feet_coming_together_leave_less_room_to_balance(self) -> None:
        at = situation(170, {})
        room = [
            (found := screened(at, variation(f"standing_balance.{rung}"), Side.LEFT))
            .pose_at(found.recommended)
            .middle(Readout.BALANCE_MARGIN_CM, None)
            for rung in ("mountain", "close")
        ]
        self.assertGreater(room[0], room[1])
        self.assertGreater(room[1], 0)

    def test_a_balanced_squat_has_its_weight_over_the_feet(self) -> None:
        found = screened(situation(170, MOBILE), variation("sit_to_stand.hover"), Side.LEFT)
        margins = found.read([(Readout.BALANCE_MARGIN_CM, None)])[0].min(axis=-1)
        self.assertTrue((margins[found.possible] > 3).all())

    def test_more_ankle_asks_less_lean_of_a_squat(self) -> None:
        """In every set-up that both ankles can take: its shins may lean or stay upright, its seat be high or low."""
        stiff, free = (
            screened(
                situation(170, {**MOBILE, Quantity.PLANTED_DORSIFLEXION: degrees}),
                variation("sit_to_stand.touch"),
                Side.LEFT,
            )
            for degrees in (20, 35)
        )
        lean = [(Readout.TRUNK_LEAN, None)]
        gains = (stiff.read(lean) - free.read(lean))[0, stiff.possible & free.possible, 1]
        self.assertGreaterEqual(float(gains.min()), 0)
        self.assertGreater(float(gains.max()), 3)
        self.assertGreater(int(free.possible.sum()), int(stiff.possible.sum()))


class ForcedKnees(TestCase):
    def twist(self, **setup: float) -> float:
        own = Ranges.from_measured({(Quantity.OPEN_EXTERNAL_ROTATION, s): Range(45, 5, True) for s in SIDES})
        values = {"front_hip": 12, "shin": 60, "thigh_out": 0, "knee_support": 0, "lean": 30} | setup
        pose = settle_pose(variation("half_pigeon.shin_forward"), Side.LEFT, Body(170, 70), own, numbers(**values))
        return pose.middle(Readout.KNEE_TWIST, Side.LEFT)

    def test_the_shin_turned_back_always_helps(self) -> None:
        self.assertLess(self.twist(shin=45), self.twist(shin=60))
        self.assertLess(self.twist(shin=60), self.twist(shin=80))

    def test_a_higher_pelvis_helps_while_the_shin_is_short_of_parallel(self) -> None:
        self.assertLess(self.twist(front_hip=26), self.twist(front_hip=8) - 5)
        self.assertAlmostEqual(self.twist(shin=90, front_hip=26), self.twist(shin=90, front_hip=8), delta=3)

    def test_support_under_the_knee_helps_a_little(self) -> None:
        gain = self.twist() - self.twist(knee_support_left=5)
        self.assertTrue(0.5 < gain < 9, gain)

    def test_leaning_forward_relieves_nothing(self) -> None:
        self.assertAlmostEqual(self.twist(lean=60), self.twist(lean=10), places=6)

    def test_the_check_value(self) -> None:
        """Hip 24 cm above a level knee and ankle, shin parallel: 90° asked, 45 available, 45 left."""
        hip, knee, ankle = Vec(0.0, 10.0, 29.0), Vec(32.0, 10.0, 5.0), Vec(32.0, -30.0, 5.0)
        asked = hip_angles(UPRIGHT, femur_axes(hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG), 1.0)
        self.assertAlmostEqual(asked.external_rotation_deg, 90, delta=0.02)
        self.assertAlmostEqual(asked.flexion_deg, 53.13, delta=0.02)
