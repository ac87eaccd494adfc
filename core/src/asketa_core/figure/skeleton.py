"""The whole body of one settled set-up, as points: what the figure draws and the text describes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.closing import knee_circle
from asketa_core.body.measures import Body
from asketa_core.body.spine import LUMBAR_SHARE
from asketa_core.poses.posture import Posture
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


def _one(points: Array, row: int) -> Array:
    """The middle-range point of one set-up from (levels, n, 3) with axes of length 1 allowed."""
    level = points[min(MIDDLE_LEVEL, points.shape[0] - 1)]
    return np.asarray(level[min(row, level.shape[0] - 1)])


def _along(lean_deg: float) -> Array:
    """Upward direction of a trunk leaning forward by this much."""
    lean = np.radians(lean_deg)
    return np.array([np.sin(lean), 0.0, np.cos(lean)])


def skeleton_of(
    posture: Posture, body: Body, row: int, drawn_up: Side | None = None, resting_on_edge: Side | None = None
) -> Skeleton:
    """Everything the figure needs, for one set-up at the middle of the client's ranges.

    ``drawn_up`` names the side whose foot is held at a right angle to its shin, ``resting_on_edge``
    the side whose foot lies on its outer edge on a level surface.
    """
    pitch = float(posture.pitch_deg[MIDDLE_LEVEL, row])
    spine_flexion = float(posture.spine_flexion_deg[min(MIDDLE_LEVEL, posture.spine_flexion_deg.shape[0] - 1), row])
    lean = float(posture.lean_deg[row])
    lumbar = LUMBAR_SHARE * spine_flexion
    leans = np.array([pitch, pitch, pitch + lumbar, lean, lean])
    pelvis = _one(posture.pelvis_centre, row)
    l5s1 = pelvis + body.length_cm("hip_to_l5s1") * _along(pitch)
    t12 = l5s1 + body.length_cm("lumbar") * _along(pitch + lumbar / 2)
    c7 = t12 + body.length_cm("thorax") * _along((pitch + lumbar + lean) / 2)
    top = c7 + body.length_cm("neck_and_head") * _along(lean * 0.8)
    legs, heels = {}, {}
    for side in SIDES:
        points = posture.legs[side]
        hip, knee, ankle = _one(points.hip, row), _one(points.knee, row), _one(points.ankle, row)
        toes = _foot_direction(hip, knee, ankle, _one(points.toes, row), side is drawn_up, posture, side)
        if side is resting_on_edge:
            toes = unit(toes * np.array([1.0, 1.0, 0.0]))
        foot = body.length_cm("foot")
        sole = ankle.copy()
        if _is_planted(posture, side):
            sole[2] -= 0.6 * body.length_cm("ankle_above_sole")
        legs[side] = Limb(hip, knee, ankle, sole + (1 - HEEL_SHARE) * foot * toes)
        heels[side] = sole - HEEL_SHARE * foot * toes
    shoulder_centre = c7 - body.length_cm("shoulder_below_c7") * _along(lean)
    arms = {
        side: _arm(body, side, shoulder_centre, legs[side], float(np.linalg.norm(legs[side].middle - legs[side].root)))
        for side in SIDES
    }
    return Skeleton(np.stack([pelvis, l5s1, t12, c7, top]), leans, legs, heels, arms)


def _is_planted(posture: Posture, side: Side) -> bool:
    """Planted feet point straight ahead; a dropped leg's toes follow its thigh."""
    return bool(np.allclose(_one(posture.legs[side].toes, 0), [1.0, 0.0, 0.0]))


def _foot_direction(
    hip: Array, knee: Array, ankle: Array, toes: Array, drawn_up: bool, posture: Posture, side: Side
) -> Array:
    if _is_planted(posture, side):
        return toes
    hinge = unit(np.cross(knee - hip, ankle - knee))
    shin = unit(knee - ankle)
    square = np.cross(hinge, shin)
    rest = np.radians(0.0 if drawn_up else RESTING_FOOT_DEG)
    return np.asarray(np.cos(rest) * square - np.sin(rest) * shin)


def _arm(body: Body, side: Side, shoulder_centre: Array, leg: Limb, thigh_cm: float) -> Limb:
    """Hand resting on its own thigh; the elbow bends back and out. A thigh out of reach gets a straight arm."""
    upper, forearm, hand = body.length_cm("upper_arm"), body.length_cm("forearm"), body.length_cm("hand")
    shoulder = shoulder_centre + np.array([0.0, side.sign * body.length_cm("shoulder_half_breadth"), 0.0])
    thigh = (leg.middle - leg.root) / thigh_cm
    outer = np.array([0.0, 0.0, 1.0]) - thigh[2] * thigh
    on_top = unit(outer) * (body.length_cm("thigh_radius_knee") + 2.0)
    wrist = leg.root + 0.55 * thigh_cm * thigh + on_top
    reach = wrist - shoulder
    length = float(np.linalg.norm(reach))
    if length > upper + forearm - 0.5:
        wrist = shoulder + reach / length * (upper + forearm - 0.5)
    back_and_out = np.array([-1.0, 0.5 * side.sign, -0.2])
    circle = knee_circle(shoulder[None], wrist[None], upper, forearm, side.sign, knee_toward=back_and_out)
    elbow = circle.knee_at(np.zeros(1))[0]
    return Limb(shoulder, elbow, wrist, wrist + 0.6 * hand * unit(thigh + 0.3 * unit(wrist - elbow)))
