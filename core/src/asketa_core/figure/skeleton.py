"""The whole body of one settled set-up, as points: what the figure draws and the text describes."""

from __future__ import annotations

from collections.abc import Container, Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.closing import knee_circle
from asketa_core.body.measures import Body
from asketa_core.body.spine import LUMBAR_SHARE
from asketa_core.body.trunk import along, trunk_points
from asketa_core.poses.posture import Indices, Posture
from asketa_core.poses.recipe import Hands
from asketa_core.units import SIDES, Array, Side, unit

HEEL_SHARE = 0.25
"""Part of the foot behind the ankle."""

RESTING_FOOT_DEG = 25.0
"""How far a foot at rest points away from a right angle with the shin."""

MIDDLE_LEVEL = 1


@dataclass(frozen=True, slots=True)
class Limb:
    """Three joint centres and an end: hip–knee–ankle–toe or shoulder–elbow–wrist–fingertip, (3,) each."""

    root: Array
    middle: Array
    end: Array
    tip: Array


@dataclass(frozen=True, slots=True)
class Skeleton:
    """Points in cm. ``spine`` (5, 3): pelvis centre, L5/S1, T12/L1, C7, top of head; ``spine_lean_deg``
    (5,) the lean of the body at each of them. ``heels`` complete the feet."""

    spine: Array
    spine_lean_deg: Array
    legs: Mapping[Side, Limb]
    heels: Mapping[Side, Array]
    arms: Mapping[Side, Limb]


def _one(points: Array, rows: Indices, setup: int) -> Array:
    """The middle-range point of one set-up from (levels, k, 3)."""
    return np.asarray(points[min(MIDDLE_LEVEL, points.shape[0] - 1), rows[setup]])


def _lift(flat: Array) -> Array:
    """A point of the trunk's plane (forward, up) in space."""
    return np.array([flat[0], 0.0, flat[1]])


def skeleton_of(
    posture: Posture,
    body: Body,
    setup: int,
    hands: Hands,
    drawn_up: Side | None = None,
    on_edge: Container[Side] = (),
) -> Skeleton:
    """Everything the figure needs, for one set-up at the middle of the client's ranges.

    ``drawn_up`` names the side whose foot is held at a right angle to its shin, ``on_edge`` the sides
    whose foot lies on its outer edge on a level surface.
    """
    pitch = posture.pitch_deg[MIDDLE_LEVEL, setup]
    lean = posture.lean_deg[setup]
    lumbar = LUMBAR_SHARE * posture.spine_flexion_deg[MIDDLE_LEVEL, setup]
    legs, heels = {}, {}
    for side in SIDES:
        points, rows = posture.legs[side], posture.leg_rows[side]
        hip, knee, ankle, toes = (_one(p, rows, setup) for p in (points.hip, points.knee, points.ankle, points.toes))
        sole = ankle.copy()
        if side in posture.stopped_by:
            toes = _hanging_foot(hip, knee, ankle, side is drawn_up)
            if side in on_edge:
                toes = unit(toes * np.array([1.0, 1.0, 0.0]))
        elif np.allclose(toes, [1.0, 0.0, 0.0]):
            sole[2] -= 0.6 * body.length_cm("ankle_above_sole")
        foot = body.length_cm("foot")
        legs[side] = Limb(hip, knee, ankle, sole + (1 - HEEL_SHARE) * foot * toes)
        heels[side] = sole - HEEL_SHARE * foot * toes
    pelvis = (legs[Side.LEFT].root + legs[Side.RIGHT].root) / 2
    chain = trunk_points(body, pelvis[[0, 2]], pitch, lumbar, lean)
    spine = np.stack([_lift(p) for p in (chain.pelvis, chain.l5s1, chain.t12, chain.c7, chain.top)])
    shoulder_centre = spine[3] - body.length_cm("shoulder_below_c7") * _lift(along(lean))
    arms = {side: _arm(body, side, shoulder_centre, legs[side], hands) for side in SIDES}
    return Skeleton(spine, np.array([pitch, pitch, pitch + lumbar, lean, lean]), legs, heels, arms)


def _hanging_foot(hip: Array, knee: Array, ankle: Array, drawn_up: bool) -> Array:
    """Where the toes of a leg let out sideways point: across the shin, in the plane of its bend."""
    hinge = unit(np.cross(knee - hip, ankle - knee))
    shin = unit(knee - ankle)
    square = np.cross(hinge, shin)
    rest = np.radians(0.0 if drawn_up else RESTING_FOOT_DEG)
    return np.asarray(np.cos(rest) * square - np.sin(rest) * shin)


CHAIR_SEAT_CM, CHAIR_BACK_CM = 45.0, 80.0
"""Where hands rest on a chair in front."""


def _wrist_wanted(body: Body, side: Side, shoulder: Array, leg: Limb, hands: Hands) -> Array:
    """Where a hand rests by the recipe; out of reach it is cut short along the way."""
    arm = body.length_cm("upper_arm") + body.length_cm("forearm")
    if hands.on in ("thighs", "shins"):
        start, end, share = (leg.root, leg.middle, 0.55) if hands.on == "thighs" else (leg.middle, leg.end, 0.5)
        line = end - start
        along_limb = line / np.linalg.norm(line)
        outer = np.array([0.0, 0.0, 1.0]) - along_limb[2] * along_limb
        return np.asarray(start + share * line + unit(outer) * (body.length_cm("thigh_radius_knee") + 2.0))
    if hands.on == "chair_in_front":
        return np.asarray(shoulder + np.array([0.0, 0.0, CHAIR_SEAT_CM + 2 - shoulder[2]]) + [0.75 * arm, 0.0, 0.0])
    aside = side.sign * (body.length_cm("shoulder_half_breadth") + 6.0)
    if hands.on == "floor_behind":
        return np.array([leg.root[0] - 0.16 * body.stature_cm, aside, 3.0])
    return np.array([leg.root[0] - 2.0, aside, max(3.0, leg.root[2] - 5.0)])


def _arm(body: Body, side: Side, shoulder_centre: Array, leg: Limb, hands: Hands) -> Limb:
    """The hand where the recipe wants it; the elbow bends back and out, and what is out of reach gets a
    straight arm."""
    upper, forearm, hand = body.length_cm("upper_arm"), body.length_cm("forearm"), body.length_cm("hand")
    shoulder = shoulder_centre + np.array([0.0, side.sign * body.length_cm("shoulder_half_breadth"), 0.0])
    wrist = _wrist_wanted(body, side, shoulder, leg, hands)
    reach = wrist - shoulder
    length = float(np.linalg.norm(reach))
    if length > upper + forearm - 0.5:
        wrist = shoulder + reach / length * (upper + forearm - 0.5)
    back_and_out = np.array([-1.0, 0.5 * side.sign, -0.2])
    circle = knee_circle(shoulder[None], wrist[None], upper, forearm, side.sign, knee_toward=back_and_out)
    elbow = circle.knee_at(np.zeros(1))[0]
    thigh = unit(leg.middle - leg.root)
    fingers = thigh if hands.on == "thighs" else np.array([1.0, 0.0, 0.0])
    return Limb(shoulder, elbow, wrist, wrist + 0.6 * hand * unit(fingers + 0.3 * unit(wrist - elbow)))
