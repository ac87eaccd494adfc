"""Where the pelvis is: on a stack, over the feet, over a long stance, or over the knees.

The trunk's lean is worked out here too where it is not given: from balance over the feet, or from how
far the hands reach down to their support.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from asketa_core.body.closing import knee_circle
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.rotations import pelvis_rotation
from asketa_core.poses.posture import Trouble
from asketa_core.poses.reach import ARM_REACH, PALM_CM, ComesDown, trunk_cm
from asketa_core.poses.recipe import PELVIS_FOLLOWS, KneelBase, Recipe, SitBase, StandBase, StrideBase
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import SIDES, Array, Side, asind, cosd, sind

SPARE_DORSIFLEXION_DEG = 5.0
SHIN_FORWARD_MOST_DEG = 30.0
"""In a squat the shins come forward as far as the ankles allow, less a little, and no further than this (judgement)."""

BALANCE_ROUNDS = 8
WEDGE_SPAN = 0.73
"""Part of the foot's length between a lifted heel and the ball."""

HELD_ON_TO = frozenset({"chair_back_in_front", "chair_in_front", "chair_beside", "wall", "side_chair", "thigh_chair"})
HOLDING_SHARE = 0.15
HOLDING_HEIGHT = 0.5
"""Hands that hold on pull with this share of body weight, at this share of stature above the floor (judgement)."""

ELBOW_REACH = 0.85
"""The same for a forearm that lies ahead of the shoulders (judgement)."""

ARM_GIVES = 0.4
ELBOW_GIVES = 0.3
CHEST_GIVES_CM = 4.0
"""How much higher than that a support may stand: parts of the arm it bends by, of the upper arm it opens by, and what a
chest on it is lifted by (judgement)."""

CHEST_BELOW_C7 = 0.55
CHEST_DEPTH_SHARE = 0.055
"""A chest that lies down touches with the breastbone: so far down the thorax, and this share of stature before the
spine, a little of it given way (judgement)."""


@dataclass(frozen=True, slots=True)
class Pelvis:
    """The pelvis before it tips, for k cases at one or three levels of the client's ranges.

    ``hip_z_cm`` (levels, k) is the height of the worked hip; ``ankle_x_cm`` (levels, k) is where standing
    ankles are against the hips; ``lean_deg`` (levels, k) the trunk's lean; ``roll_deg`` (k,) toward the worked
    side; ``yaw_deg`` (k,) turned toward it; ``troubles`` what the base itself cannot meet, in its unit.
    """

    worked: Side
    hip_z_cm: Array
    lean_deg: Array
    roll_deg: Array
    ankle_x_cm: Array
    apart_cm: Array
    toes_out_deg: Array
    heel_lift_cm: Array
    knee_forward_deg: Array
    pad_cm: Array
    yaw_deg: Array
    troubles: dict[Trouble, Array]

    @property
    def rotation(self) -> Array:
        """Axes of the pelvis with no pitch, (k, 3, 3)."""
        return pelvis_rotation(0.0, -self.worked.sign * self.roll_deg, self.worked.sign * self.yaw_deg)

    def hip(self, body: Body, side: Side) -> Array:
        """One hip joint centre before the pelvis follows a turn, (levels, k, 3): where feet and knees are placed from.
        Rolled, the worked side stays where it rests."""
        half = body.length_cm("between_hips") / 2
        rise = 0.0 if side is self.worked else 2 * half * sind(self.roll_deg)
        x, y, z = np.broadcast_arrays(0.0, side.sign * half * cosd(self.roll_deg), self.hip_z_cm + rise)
        return np.stack([x, y, z], axis=-1)

    def turned(self, hip: Array) -> Array:
        """Where a hip comes to when the pelvis follows a turn toward the worked side."""
        turn = self.worked.sign * self.yaw_deg
        x, y = hip[..., 0], hip[..., 1]
        return np.stack([x * cosd(turn) - y * sind(turn), x * sind(turn) + y * cosd(turn), hip[..., 2]], axis=-1)


def settle_base(recipe: Recipe, worked: Side, body: Body, ranges: Ranges, setup: SetupBatch) -> Pelvis:
    """The pelvis of a recipe for every case of a batch."""
    base = recipe.stands_on
    if isinstance(base, SitBase):
        return _sit(base, recipe, worked, body, setup)
    if isinstance(base, StandBase):
        return _stand(base, recipe, worked, body, ranges, setup)
    if isinstance(base, StrideBase):
        return _stride(base, recipe, worked, body, setup)
    return _kneel(base, recipe, worked, body, setup)


def _pelvis(
    recipe: Recipe,
    worked: Side,
    setup: SetupBatch,
    hip_z: Array,
    lean: Array,
    ankle_x: Array | None = None,
    apart: Array | None = None,
    toes_out: Array | None = None,
    heel_lift: Array | None = None,
    knee_forward: Array | None = None,
    pad: Array | None = None,
    troubles: dict[Trouble, Array] | None = None,
) -> Pelvis:
    zero = np.zeros(setup.size)
    return Pelvis(
        worked, np.atleast_2d(hip_z), np.atleast_2d(lean), setup.number(recipe.roll_deg),
        np.atleast_2d(zero if ankle_x is None else ankle_x), zero if apart is None else apart,
        zero if toes_out is None else toes_out, zero if heel_lift is None else heel_lift,
        zero if knee_forward is None else knee_forward, zero if pad is None else pad,
        setup.number(recipe.turn_deg) * PELVIS_FOLLOWS[recipe.pelvis_follows], troubles or {},
    )  # fmt: skip


def _sit(base: SitBase, recipe: Recipe, worked: Side, body: Body, setup: SetupBatch) -> Pelvis:
    raised = setup.number(base.raised_cm)
    hip_z = setup.number(base.rests_on) + raised + body.length_cm("hip_above_seat")
    if recipe.recline_deg is None:
        return _pelvis(recipe, worked, setup, hip_z, _given_lean(recipe, body, setup, hip_z))
    back = sum(body.length_cm(part) for part in ("hip_to_l5s1", "lumbar", "thorax"))
    lean = setup.number(recipe.recline_deg) - 90.0 - asind(raised / back)
    return _pelvis(recipe, worked, setup, hip_z, lean)


def _given_lean(recipe: Recipe, body: Body, setup: SetupBatch, hip_z: Array) -> Array:
    """The lean as given, or as deep as what is carried asks of a straight trunk."""
    down = comes_down(recipe, body, setup)
    if down is None:
        return setup.number(recipe.lean_deg)
    return down.straight(trunk_cm(body), hip_z)


def comes_down(recipe: Recipe, body: Body, setup: SetupBatch) -> ComesDown | None:
    """What a support asks of the trunk: hands that hang down to what they rest on or reach for it in line with the trunk,
    forearms under the shoulders, a chest that lies down. ``None`` where the lean follows from no prop."""
    if recipe.lean == "given" or recipe.chest_on == "thighs":
        return None
    shoulders = body.length_cm("shoulder_below_c7")
    if recipe.chest_on is not None:
        return chest_down(body, setup.number(recipe.chest_on))
    support = setup.number(recipe.hands_on) if recipe.hands_on is not None else np.zeros(setup.size)
    upper_arm, forearm = body.length_cm("upper_arm"), body.length_cm("forearm")
    if recipe.lean == "reach":
        return ComesDown(support, shoulders - ARM_REACH * (upper_arm + forearm + body.length_cm("hand")))
    if recipe.lean == "forearms":
        return ComesDown(support + PALM_CM + ELBOW_REACH * upper_arm, shoulders, gives_cm=ELBOW_GIVES * upper_arm)
    # The palm lies flat on its support, so the wrist is as far above it as a palm is thick.
    arm = ARM_REACH * (upper_arm + forearm)
    return ComesDown(support + PALM_CM + arm, shoulders, gives_cm=ARM_GIVES * arm)


def chest_down(body: Body, support_cm: Array) -> ComesDown:
    """A chest that lies down on a support of this height."""
    below_c7 = CHEST_BELOW_C7 * body.length_cm("thorax")
    return ComesDown(support_cm, below_c7, CHEST_DEPTH_SHARE * body.stature_cm, CHEST_GIVES_CM)


def trunk_mass_lever(body: Body, carried: float = 0.0) -> tuple[float, float]:
    """Mass fraction of everything above the hips, and its sum of mass fraction × distance (cm) along a
    straight trunk; arms hang at the shoulders. What hands carry is taken off."""
    masses = body_norms().masses
    l5s1, lumbar = body.length_cm("hip_to_l5s1"), body.length_cm("lumbar")
    thorax, head = body.length_cm("thorax"), body.length_cm("neck_and_head")
    arms = 2 * sum(masses[name].fraction for name in ("upper_arm", "forearm", "hand"))
    parts = (
        (masses["pelvis"].fraction, 0.5 * l5s1),
        (masses["lumbar"].fraction, l5s1 + 0.5 * lumbar),
        (masses["thorax"].fraction, l5s1 + lumbar + 0.5 * thorax),
        (masses["head_and_neck"].fraction, l5s1 + lumbar + thorax + masses["head_and_neck"].centre * head),
        (arms, l5s1 + lumbar + thorax - body.length_cm("shoulder_below_c7")),
    )
    return (
        (1 - carried) * sum(mass for mass, _ in parts),
        (1 - carried) * sum(mass * distance for mass, distance in parts),
    )


def _legs_moment(body: Body, knee_x: Array, ankle_x: Array) -> tuple[float, Array]:
    """Mass fraction of both legs and their sum of mass fraction × forward distance from the hips."""
    masses = body_norms().masses
    thigh, shin, foot = masses["thigh"], masses["lower_leg"], masses["foot"]
    toe_x = ankle_x + 0.25 * body.length_cm("foot")
    shin_x = knee_x + shin.centre * (ankle_x - knee_x)
    each = thigh.fraction * thigh.centre * knee_x + shin.fraction * shin_x + foot.fraction * toe_x
    return 2 * (thigh.fraction + shin.fraction + foot.fraction), 2 * each


def _stand(base: StandBase, recipe: Recipe, worked: Side, body: Body, ranges: Ranges, setup: SetupBatch) -> Pelvis:
    apart, toes_out = setup.number(base.apart_cm), setup.number(base.toes_out_deg)
    heel_lift = setup.number(base.heels_on) if base.heels_on is not None else np.zeros(setup.size)
    ankle_z = body.length_cm("ankle_above_sole") + 0.75 * heel_lift
    thigh, shin = body.length_cm("thigh"), body.length_cm("lower_leg")
    if base.balance == "lean":
        return _lean_over_feet(base, recipe, worked, body, ranges, setup, heel_lift)
    reach = None
    height = np.zeros(setup.size)
    if base.knee_deg is not None:
        reach = np.sqrt(thigh**2 + shin**2 + 2 * thigh * shin * cosd(setup.number(base.knee_deg)))
    else:
        assert base.hips_on is not None
        height = setup.number(base.hips_on) + body.length_cm("hip_above_seat")

    def hip_of(ankle_x: Array) -> Array:
        """Height of the hips over ankles this far ahead of them."""
        if reach is None:
            return height + 0.0 * ankle_x
        return np.asarray(ankle_z + np.sqrt(np.maximum(reach**2 - ankle_x**2 - apart**2, 1.0)))

    ankle_x = setup.number(base.ankle_x_cm)
    if base.balance == "hips":
        ankle_x = _balanced_ankles(recipe, body, setup, ankle_x, ankle_z, hip_of)
    hip_z = hip_of(ankle_x)
    lean = _given_lean(recipe, body, setup, hip_z)
    if base.balance == "hips":
        lean = _as_one(lean, ankle_x, hip_z - ankle_z)
    return _pelvis(recipe, worked, setup, hip_z, lean, ankle_x, apart, toes_out, heel_lift)


def _as_one(lean: Array, ankle_x: Array, leg_cm: Array) -> Array:
    """The lean of a trunk that follows its legs: standing upright, legs and trunk lean forward over the feet as one, so
    that the hip stays at its zero. Legs that lean back carry the trunk where it was asked to be."""
    return np.maximum(lean, np.degrees(np.arctan2(-ankle_x, leg_cm)))


def _balanced_ankles(
    recipe: Recipe, body: Body, setup: SetupBatch, ankle_x: Array, ankle_z: Array, hip_of: Callable[[Array], Array]
) -> Array:
    """Where the ankles must be so that the weight is over the middle of the feet under the given lean.

    The legs move little of the mass, so the plain iteration closes quickly.
    """
    trunk_mass, lever = trunk_mass_lever(body, recipe.hands.carry)
    for _ in range(BALANCE_ROUNDS):
        hip_z = hip_of(ankle_x)
        lean = _as_one(_given_lean(recipe, body, setup, hip_z), ankle_x, hip_z - ankle_z)
        knee_x = _knee_x(body, ankle_x, ankle_z, hip_z)
        leg_mass, legs = _legs_moment(body, knee_x, ankle_x)
        com = (lever * sind(lean) + legs) / (trunk_mass + leg_mass)
        ankle_x = com - 0.25 * body.length_cm("foot")
    return np.asarray(ankle_x)


def _knee_x(body: Body, ankle_x: Array, ankle_z: Array, hip_z: Array) -> Array:
    """Forward distance of a knee over its toes from the hips."""
    hip = np.stack(np.broadcast_arrays(0.0 * hip_z, 0.0 * hip_z, hip_z), axis=-1)
    ankle = np.stack(np.broadcast_arrays(ankle_x, 0.0 * ankle_x, ankle_z), axis=-1)
    ahead = np.array([1.0, 0.0, 0.0])
    circle = knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), 1.0, ahead)
    return np.asarray(circle.knee_at(np.zeros(circle.radius_cm.shape))[..., 0])


def _lean_over_feet(
    base: StandBase, recipe: Recipe, worked: Side, body: Body, ranges: Ranges, setup: SetupBatch, heel_lift: Array
) -> Pelvis:
    """Hips at a height, shins as far forward as the ankles allow, the trunk leaning until the weight is
    over the middle of the feet. What balance cannot find is a trouble, in degrees beyond upright-to-level."""
    thigh, shin, foot = body.length_cm("thigh"), body.length_cm("lower_leg"), body.length_cm("foot")
    ankle_z = body.length_cm("ankle_above_sole") + 0.75 * heel_lift
    assert base.hips_on is not None
    hip_z = setup.number(base.hips_on) + body.length_cm("hip_above_seat")
    allowed = np.minimum(*(ranges.levels(Quantity.PLANTED_DORSIFLEXION, side) for side in SIDES))
    wedge = asind(np.minimum(heel_lift / (WEDGE_SPAN * foot), 1.0))
    forward = np.clip(allowed - SPARE_DORSIFLEXION_DEG + wedge, 0.0, SHIN_FORWARD_MOST_DEG)
    if base.shins_deg is not None:
        forward = np.minimum(forward, setup.number(base.shins_deg))
    knee_z = ankle_z + shin * cosd(forward)
    level = np.sqrt(np.maximum(thigh**2 - (hip_z - knee_z) ** 2, 0.0))
    knee_x = level + 0.0 * forward
    ankle_x = knee_x - shin * sind(forward)
    leg_mass, legs = _legs_moment(body, knee_x, ankle_x)
    trunk_mass, lever = trunk_mass_lever(body, recipe.hands.carry)
    # A seat that still carries, and a support the hands hold on to, catch a body whose weight is behind its feet.
    over = (1.0 - base.seat_carries) * (ankle_x + 0.25 * foot)
    if recipe.hands.on in HELD_ON_TO:
        over = over - HOLDING_SHARE * HOLDING_HEIGHT * body.stature_cm
    wanted = over * (trunk_mass + leg_mass) - legs
    lean = asind(wanted / lever)
    missing = np.maximum(wanted / lever - 1.0, 0.0) * 90.0
    troubles = {Trouble.BALANCE: missing, Trouble.REACH: np.maximum(np.abs(hip_z - knee_z) - thigh, 0.0)}
    return _pelvis(
        recipe, worked, setup, hip_z + 0.0 * lean, np.maximum(lean, 0.0), ankle_x, setup.number(base.apart_cm),
        setup.number(base.toes_out_deg), heel_lift, troubles=troubles,
    )  # fmt: skip


def _stride(base: StrideBase, recipe: Recipe, worked: Side, body: Body, setup: SetupBatch) -> Pelvis:
    thigh, shin, ankle = body.length_cm("thigh"), body.length_cm("lower_leg"), body.length_cm("ankle_above_sole")
    if base.stance_cm is not None:
        half = setup.number(base.stance_cm) / 2
        hip_z = ankle + np.sqrt(np.maximum((thigh + shin) ** 2 - half**2, 1.0))
    elif base.thigh_on is not None:
        hip_z = _hip_over_thigh(body, setup.number(base.thigh_on), ankle + shin)
    else:
        assert base.thigh_down_deg is not None
        hip_z = ankle + shin + thigh * sind(setup.number(base.thigh_down_deg))
    pad = setup.number(base.pad) if base.pad is not None else np.zeros(setup.size)
    return _pelvis(recipe, worked, setup, hip_z, _given_lean(recipe, body, setup, hip_z), pad=pad)


THIGH_RESTS_AT = 0.3
"""A front thigh lies on what is under it so far down from the hip (judgement)."""


def _hip_over_thigh(body: Body, support_cm: Array, knee_z: float) -> Array:
    """Height of the hip of a thigh that lies on a support and leads to a knee of some height."""
    at = THIGH_RESTS_AT
    radius = body.length_cm("thigh_radius_hip") * (1 - at) + body.length_cm("thigh_radius_knee") * at
    return np.asarray((support_cm + radius - at * knee_z) / (1 - at))


def _kneel(base: KneelBase, recipe: Recipe, worked: Side, body: Body, setup: SetupBatch) -> Pelvis:
    pad, forward = setup.number(base.pad), setup.number(base.thigh_forward_deg)
    hip_z = pad + body.length_cm("knee_above_rest") + body.length_cm("thigh") * cosd(forward)
    lean = _given_lean(recipe, body, setup, hip_z)
    return _pelvis(recipe, worked, setup, hip_z, lean, knee_forward=forward, pad=pad)
