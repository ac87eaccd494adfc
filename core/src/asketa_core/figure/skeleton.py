"""The whole body of one settled set-up, as points: what the figure draws and the text describes."""

from __future__ import annotations

from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from asketa_core.body.encoding import body_record
from asketa_core.body.measures import Body
from asketa_core.figure.arms import arm, fingers_toward, wrist_wanted
from asketa_core.figure.limbs import Limb
from asketa_core.kernel.shared import LUMBAR_SHARE
from asketa_core.kernel.space import Vec
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import Hands
from asketa_core.poses.settle import Posture
from asketa_core.units import SIDES, Array, Side, cosd, sind, unit

HEEL_SHARE = 0.25
"""Part of the foot behind the ankle."""

FOOT_REST_CM = 2.0
"""No toe and no heel comes nearer to the floor than this."""

RESTING_FOOT_DEG = 25.0
"""How far a foot at rest points away from a right angle with the shin."""

TURN_SPREAD = np.array([0.0, 0.0, 0.35, 0.75, 1.0, 1.0])
"""How much of a turn each ring of the trunk has taken, from the seat up to the neck."""

CHEST_RING = 3
"""From this ring up the trunk tilts with a side bend, shoulders with it."""

SIDE_LYING_HEIGHT_SHARE = 0.15
"""Height of the pelvis over the floor lying on a side, as a share of stature."""

SUPINE_DEG = -45.0
"""Leaning back further than this somebody lies on their back."""

TURNED_AHEAD_CM = 6.0
"""A shoulder this far ahead of the other's middle was brought there by a twist."""


@dataclass(frozen=True, slots=True)
class Bearing:
    """How a body is turned and bent: degrees toward its left; ``on_side`` names the side that lies below."""

    turn_deg: float = 0.0
    bend_deg: float = 0.0
    on_side: Side | None = None
    shoulders_down: bool = False
    """Lying, the shoulders stay on the floor and the legs turn."""


@dataclass(frozen=True, slots=True)
class Skeleton:
    """Points in cm. ``spine`` (5, 3): pelvis centre, L5/S1, T12/L1, C7, top of head. ``front`` and ``aside``
    (6, 3) are where the trunk's rings face and where their left is, seat to neck. ``heels`` complete the feet."""

    spine: Array
    front: Array
    aside: Array
    legs: Mapping[Side, Limb]
    heels: Mapping[Side, Array]
    arms: Mapping[Side, Limb]

    @property
    def points(self) -> Array:
        """Every point of spine, legs and arms, (k, 3)."""
        limbs = (*self.legs.values(), *self.arms.values())
        return np.concatenate([self.spine, *(np.stack([of.root, of.middle, of.end, of.tip]) for of in limbs)])

    @property
    def lowest_cm(self) -> float:
        points = [self.spine, *(np.stack([leg.root, leg.middle, leg.end, leg.tip]) for leg in self.legs.values())]
        return float(np.concatenate(points)[:, 2].min())


def rotation_x(angle_deg: float) -> Array:
    """Right-hand rotation about the forward axis, (3, 3)."""
    c, s = float(cosd(angle_deg)), float(sind(angle_deg))
    return np.array([[1.0, 0.0, 0.0], [0.0, c, -s], [0.0, s, c]])


def _up_along(lean_deg: float) -> Array:
    """Upward direction (forward, up) of a segment of the trunk leaning forward by this much."""
    return np.array([float(sind(lean_deg)), float(cosd(lean_deg))])


def _lift(flat: Sequence[Array] | Array) -> Array:
    """A point of the trunk's plane (forward, up) in space."""
    return np.array([flat[0], 0.0, flat[1]])


def skeleton_of(
    posture: Posture,
    body: Body,
    hands: Hands,
    drawn_up: Side | None = None,
    on_edge: Container[Side] = (),
    bearing: Bearing = Bearing(),
    hand_support_cm: float = 0.0,
    arms_in_line: bool = False,
    heels_raised: bool = False,
) -> Skeleton:
    """Everything the figure needs, at the middle of the client's ranges.

    ``drawn_up`` names the side whose foot is held at a right angle to its shin, ``on_edge`` the sides
    whose foot lies on its outer edge on a level surface.
    """
    # The engine is loaded with the first figure: whoever draws none does without.
    from asketa_core.kernel.trunk import trunk_chain  # noqa: PLC0415

    pitch, lean = posture.pitch_deg, posture.lean_deg
    lumbar = LUMBAR_SHARE * posture.spine_flexion_deg
    legs, heels = {}, {}
    for side in SIDES:
        legs[side], heels[side] = _leg(posture, body, side, side is drawn_up, side in on_edge)
        if heels_raised:
            legs[side], heels[side] = _on_toes(legs[side], heels[side])
    pelvis = (legs[Side.LEFT].root + legs[Side.RIGHT].root) / 2
    joints = trunk_chain(body_record(body), Vec(float(pelvis[0]), 0.0, float(pelvis[2])), pitch, lumbar, lean)
    seat, l5s1, t12, c7, top = (np.array([joint.x, joint.z]) for joint in joints)
    if posture.shows(Readout.NECK_BEND, None):
        nod = posture.middle(Readout.NECK_BEND, None)
        top = c7 + body.length_cm("neck_and_head") * _up_along(lean + nod)
    c7, top = _rounded(t12, c7, top, body)
    top = _on_floor(c7, top, body)
    spine = np.stack([_lift(p) for p in (seat, l5s1, t12, c7, top)])
    spine[:, 1] += pelvis[1]
    leans = np.array([pitch, pitch, pitch + lumbar / 2, pitch + (lumbar + lean - pitch) / 2, lean, lean])
    front = np.stack([_lift([cosd(each), -sind(each)]) for each in leans])
    spine[2:] = _bent(spine[2:], spine[1], bearing.bend_deg)
    turned = bearing.turn_deg * TURN_SPREAD
    if bearing.shoulders_down and bearing.turn_deg:
        legs, heels = _legs_turned(legs, heels, pelvis, bearing.turn_deg)
        turned = bearing.turn_deg * (TURN_SPREAD - 1.0)
    left = np.array([0.0, 1.0, 0.0])
    aside = cosd(turned)[:, None] * left - sind(turned)[:, None] * front
    front = cosd(turned)[:, None] * front + sind(turned)[:, None] * left
    aside[CHEST_RING:] = _bent(aside[CHEST_RING:], np.zeros(3), bearing.bend_deg)
    trunk_up = _bent(_lift(_up_along(lean)), np.zeros(3), bearing.bend_deg)
    shoulder_centre = spine[3] - body.length_cm("shoulder_below_c7") * trunk_up
    arms = {}
    for side in SIDES:
        shoulder = shoulder_centre + side.sign * body.length_cm("shoulder_half_breadth") * aside[4]
        ahead = float(shoulder[0] - shoulder_centre[0]) > TURNED_AHEAD_CM
        wrist = wrist_wanted(body, side, shoulder, legs, trunk_up, hands, hand_support_cm, arms_in_line, ahead)
        fingers = fingers_toward(hands, legs[side], front[4])
        arms[side] = arm(body, side, shoulder, wrist, fingers, supine=lean < SUPINE_DEG and bearing.on_side is None)
    whole = Skeleton(spine, front, aside, legs, heels, arms)
    return whole if bearing.on_side is None else _on_its_side(whole, body, bearing.on_side)


def _leg(posture: Posture, body: Body, side: Side, drawn_up: bool, on_edge: bool) -> tuple[Limb, Array]:
    """One leg with its foot, and the heel."""
    points = posture.leg(side)
    hip, knee, ankle, toes = points.hip, points.knee, points.ankle, points.toes
    sole = ankle.copy()
    if posture.stopped_by(side) is not None:
        toes = _hanging_foot(hip, knee, ankle, drawn_up)
        if on_edge:
            toes = unit(toes * np.array([1.0, 1.0, 0.0]))
    elif abs(toes[2]) < 1e-6 and toes[0] > -0.5:
        sole[2] -= 0.6 * body.length_cm("ankle_above_sole")
    foot = body.length_cm("foot")
    tip, heel = sole + (1 - HEEL_SHARE) * foot * toes, sole - HEEL_SHARE * foot * toes
    # A foot let down to the side gives way to the floor.
    return Limb(hip, knee, ankle, _at_least(tip, FOOT_REST_CM)), _at_least(heel, FOOT_REST_CM)


RISE_DEG = 18.0


def _on_toes(leg: Limb, heel: Array) -> tuple[Limb, Array]:
    """A standing leg with its foot turned up about the toes, and everything above moved with its ankle."""
    toward = unit((leg.tip - heel) * np.array([1.0, 1.0, 0.0]))
    up = np.array([0.0, 0.0, 1.0])

    def turned(point: Array) -> Array:
        along, above = float((point - leg.tip) @ toward), float(point[2] - leg.tip[2])
        cos, sin = cosd(RISE_DEG), sind(RISE_DEG)
        return np.asarray(leg.tip + (cos * along + sin * above) * toward + (cos * above - sin * along) * up)

    ankle = turned(leg.end)
    moved = ankle - leg.end
    return Limb(leg.root + moved, leg.middle + moved, ankle, leg.tip), turned(heel)


NECK_SHARE = 0.45


def _rounded(t12: Array, c7: Array, top: Array, body: Body) -> tuple[Array, Array]:
    """Neck and head of a rounded upper back, carried ahead of where they would be; all in the plane of the trunk, (2,)."""
    back = c7 - t12
    ahead = np.array([back[1], -back[0]]) / np.hypot(*back)
    return c7 + NECK_SHARE * body.rounded_cm * ahead, top + body.rounded_cm * ahead


HEAD_HALF_SHARE, HEAD_FROM_TOP_SHARE = 0.056, 0.053


def _on_floor(c7: Array, top: Array, body: Body) -> Array:
    """The top of a head that would sink into the floor, laid on it; all in the plane of the trunk, (2,)."""
    reach = top - c7
    length = float(np.hypot(*reach))
    to_middle = length - HEAD_FROM_TOP_SHARE * body.stature_cm
    rise = (HEAD_HALF_SHARE * body.stature_cm - c7[1]) / to_middle
    if reach[1] / length >= rise:
        return top
    rise = min(rise, 1.0)
    return np.asarray(c7 + length * np.array([np.copysign(np.sqrt(1 - rise**2), reach[0]), rise]))


def _hanging_foot(hip: Array, knee: Array, ankle: Array, drawn_up: bool) -> Array:
    """Where the toes of a leg let out sideways point: across the shin, in the plane of its bend."""
    hinge = unit(np.cross(knee - hip, ankle - knee))
    shin = unit(knee - ankle)
    square = np.cross(hinge, shin)
    rest = np.radians(0.0 if drawn_up else RESTING_FOOT_DEG)
    return np.asarray(np.cos(rest) * square - np.sin(rest) * shin)


def _bent(points: Array, about: Array, bend_deg: float) -> Array:
    """Points bent toward the left about the forward axis through a point."""
    return np.asarray((points - about) @ rotation_x(-bend_deg).T + about)


HIP_REST_CM = 7.0
"""The lower hip of a pelvis rolled to its side lies this high."""

LEG_REST_CM = 4.0
"""A leg let down to the side comes to rest on the other or on the floor."""


def _legs_turned(
    legs: Mapping[Side, Limb], heels: Mapping[Side, Array], pelvis: Array, turn_deg: float
) -> tuple[dict[Side, Limb], dict[Side, Array]]:
    """Legs of a lying body rolled toward its left about the long axis through the pelvis."""
    turn = rotation_x(-turn_deg)

    def roll(points: Array) -> Array:
        return np.asarray((points - pelvis) @ turn.T + pelvis)

    low = min(float(roll(p)[2]) for leg in legs.values() for p in (leg.middle, leg.end, leg.tip))
    lift = np.array([0.0, 0.0, max(0.0, LEG_REST_CM - low)])
    return (
        {
            s: Limb(
                _at_least(roll(leg.root), HIP_REST_CM),
                roll(leg.middle) + lift,
                roll(leg.end) + lift,
                roll(leg.tip) + lift,
            )
            for s, leg in legs.items()
        },
        {s: _at_least(roll(heel) + lift, FOOT_REST_CM) for s, heel in heels.items()},
    )


def _on_its_side(skeleton: Skeleton, body: Body, below: Side) -> Skeleton:
    """The lying body rolled onto a side, legs and head with it."""
    turn = rotation_x(-below.sign * 90.0)
    lift = np.array([0.0, 0.0, SIDE_LYING_HEIGHT_SHARE * body.stature_cm])
    centre = skeleton.spine[0]

    def roll(points: Array) -> Array:
        return np.asarray((points - centre) @ turn.T + lift)

    def limb(of: Limb) -> Limb:
        return Limb(roll(of.root), roll(of.middle), roll(of.end), roll(of.tip))

    return Skeleton(
        roll(skeleton.spine), skeleton.front @ turn.T, skeleton.aside @ turn.T,
        {side: limb(leg) for side, leg in skeleton.legs.items()},
        {side: roll(heel) for side, heel in skeleton.heels.items()},
        {side: _above_floor(limb(each)) for side, each in skeleton.arms.items()},
    )  # fmt: skip


ARM_REST_CM = 3.0


def _at_least(point: Array, height_cm: float) -> Array:
    """A point no lower than a height over the floor."""
    return np.array([point[0], point[1], max(float(point[2]), height_cm)])


def _above_floor(of: Limb) -> Limb:
    """The lower arm gives way to the floor it lies on."""
    return Limb(*(_at_least(point, ARM_REST_CM) for point in (of.root, of.middle, of.end, of.tip)))
