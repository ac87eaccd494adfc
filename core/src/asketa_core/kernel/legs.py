"""Legs: a rule of the recipe, a hip and the surfaces give joint positions and hip angles.

A leg is placed with the pelvis upright; lean, side bend and what the hands do come later and do not move it.
"""

from __future__ import annotations

import math
from typing import Any, NamedTuple

from asketa_core.kernel.angles import HipAngles, femur_at, femur_axes, hip_angles, knee_flexion
from asketa_core.kernel.closing import KneeCircle, knee_at, knee_circle, up_or_ahead
from asketa_core.kernel.codes import LegIs, Motion
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.drop import drop_knee
from asketa_core.kernel.fields import number
from asketa_core.kernel.pelvis import Pelvis, axes_of, hip_of, turned
from asketa_core.kernel.records import Record
from asketa_core.kernel.shared import ROLL_BEHIND_KNEE_CM, STRAIGHT_KNEE_DEG
from asketa_core.kernel.space import BACKWARD, DOWN, FORWARD, UP, UPRIGHT, Axes, Vec
from asketa_core.kernel.vectors import (
    acosd,
    along,
    between,
    cosd,
    level_direction,
    minus,
    norm,
    plus,
    root,
    sind,
    times,
    unit,
)

ALWAYS_BY_KNEECAP_DEG = 181.0
NOT_STOPPED = -1

CHAIR_EDGE_REST_DEG = 20.0
"""On a chair a thigh let out sideways comes to rest on the seat's edge about this far below level (judgement)."""

SHIN_SHORT_OF_UPRIGHT_DEG = 10.0
"""A kneeling leg whose foot is drawn up keeps its shin this much short of upright."""

TOP_OF_FOOT = 0.5
"""A foot lying on its top holds the ankle at this share of its height above the sole."""

ROLL_KEEPS = 0.5
FLESH_BEHIND_KNEE_CM = 4.0
"""A roll behind the knee is pressed to this part of its height, and has this much of thigh and calf beside it
(judgement)."""

FEET_BESIDE_BELOW_CM = 12.0
FEET_BESIDE_SHARE = 0.07
"""On a low seat the feet lie beside the hips, this share of stature outward; on a higher one under it."""


class Placed(NamedTuple):
    """One placed leg. ``idle_cm``: by how much a support under it is too low to be touched; ``roll_in_way_deg``: how much
    further the knee would close than what lies behind it allows."""

    hip: Vec
    knee: Vec
    ankle: Vec
    toes: Vec
    angles: HipAngles
    knee_flexion_deg: float
    reach_shortfall_cm: float
    fold_shortfall_cm: float
    stopped_by: int
    idle_cm: float
    roll_in_way_deg: float


class Stand(NamedTuple):
    """What a leg is placed under: its hip, the axes of the pelvis, its side and that of the worked leg."""

    hip: Vec
    pelvis: Axes
    side_sign: float


@compiled
def placed(
    body: Record, rom: Any, programme: Record, side: int, pelvis: Pelvis, x: Any, level: int, lift_cm: float
) -> Placed:
    """One leg by its rule."""
    rule = programme.leg[side]
    side_sign = 1.0 - 2.0 * side
    hip = hip_of(body, pelvis, side_sign, programme.side_sign)
    axes = axes_of(pelvis, programme.side_sign)
    under = Stand(hip, axes, side_sign)
    which = rule.rule
    if which == LegIs.DROPPED:
        return dropped(body, rom, rule, side, under, foot_of_dropped(body, rule, under, x), x, level, lift_cm)
    if which == LegIs.DROPPED_OVER_THIGH:
        other = 1 - side
        beneath = supporting(body, rom, programme, other, pelvis, x, level)
        foot = ankle_over_thigh(body, beneath, -side_sign, rule.thigh_share)
        return dropped(body, rom, rule, side, under, foot, x, level, lift_cm)
    return supported(body, rule, under, pelvis, programme.side_sign, x)


@compiled
def supporting(body: Record, rom: Any, programme: Record, side: int, pelvis: Pelvis, x: Any, level: int) -> Placed:
    """The leg another one lies across."""
    rule = programme.leg[side]
    side_sign = 1.0 - 2.0 * side
    under = Stand(hip_of(body, pelvis, side_sign, programme.side_sign), axes_of(pelvis, programme.side_sign), side_sign)
    if rule.rule == LegIs.DROPPED:
        return dropped(body, rom, rule, side, under, foot_of_dropped(body, rule, under, x), x, level, 0.0)
    return supported(body, rule, under, pelvis, programme.side_sign, x)


@compiled
def supported(body: Record, rule: Record, under: Stand, pelvis: Pelvis, worked_sign: float, x: Any) -> Placed:
    """A leg whose place follows from what it rests on or is held by, whatever the client's ranges are."""
    which = rule.rule
    if which == LegIs.PLANTED:
        return planted(body, rule, under, pelvis, worked_sign, x)
    if which == LegIs.LONG:
        return long(body, rule, under, x)
    if which == LegIs.STANDING:
        return standing(body, under, pelvis)
    if which == LegIs.GROUND:
        return ground(body, rule, under, x)
    if which == LegIs.FREE:
        return free(body, rule, under, pelvis, x)
    if which == LegIs.FORCED:
        return forced(body, rule, under, x)
    if which == LegIs.KNEELING:
        return kneeling(body, under, pelvis)
    if which == LegIs.HALF_KNEELING:
        return half_kneeling(body, under)
    if which == LegIs.FOLDED:
        return folded(body, rule, under, x)
    if which == LegIs.TURNED_IN:
        return turned_in(body, rule, under, x)
    if which == LegIs.STRIDE_FRONT:
        return stride_front(body, rule, under, x)
    if which == LegIs.STRIDE_KNEE_BEHIND:
        return stride_knee_behind(body, rule, under, pelvis, x)
    return stride_straight(body, rule, under, x)


# What every way of placing a leg shares.


@compiled
def close(body: Record, side_sign: float, hip: Vec, ankle: Vec, knee_toward: Vec) -> KneeCircle:
    return knee_circle(hip, ankle, body.thigh, body.lower_leg, side_sign, knee_toward)


@compiled
def closed(circle: KneeCircle, under: Stand, hip: Vec, ankle: Vec, toes: Vec) -> Placed:
    """A leg closed over its ankle with the knee over its toes."""
    knee = knee_at(circle, 0.0)
    femur = femur_axes(hip, knee, ankle, toes, STRAIGHT_KNEE_DEG)
    return Placed(
        hip,
        knee,
        ankle,
        toes,
        hip_angles(under.pelvis, femur, under.side_sign),
        circle.knee_flexion_deg,
        circle.reach_shortfall_cm,
        circle.fold_shortfall_cm,
        NOT_STOPPED,
        0.0,
        0.0,
    )


@compiled
def joined(body: Record, under: Stand, knee: Vec, ankle: Vec, toes: Vec, femur: Axes) -> Placed:
    """A leg whose joints are already placed. Where the knee is further from the hip than the thigh is long, or the ankle
    from the knee than the shin, the missing length is its reach shortfall."""
    short = max(norm(minus(knee, under.hip)) - body.thigh, 0.0)
    short = short + max(norm(minus(ankle, knee)) - body.lower_leg, 0.0)
    return Placed(
        under.hip,
        knee,
        ankle,
        toes,
        hip_angles(under.pelvis, femur, under.side_sign),
        knee_flexion(under.hip, knee, ankle),
        0.0 if short < 1e-6 else short,
        0.0,
        NOT_STOPPED,
        0.0,
        0.0,
    )


@compiled
def but_for(leg: Placed, reach_shortfall_cm: float, idle_cm: float, roll_in_way_deg: float) -> Placed:
    """The same leg with what its rule misses besides."""
    return Placed(
        leg.hip,
        leg.knee,
        leg.ankle,
        leg.toes,
        leg.angles,
        leg.knee_flexion_deg,
        reach_shortfall_cm,
        leg.fold_shortfall_cm,
        leg.stopped_by,
        idle_cm,
        roll_in_way_deg,
    )


# Sitting and lying.


@compiled
def planted(body: Record, rule: Record, under: Stand, pelvis: Pelvis, worked_sign: float, x: Any) -> Placed:
    """Sole on a surface; knee over the toes. A pelvis that follows a turn takes the hip along; the foot stays."""
    ankle_z = number(rule.surface, x) + body.ankle_above_sole
    fall = under.hip.z - (ankle_z + body.lower_leg)
    ahead = root(body.thigh**2 - fall**2) + number(rule.ahead, x)
    out = number(rule.apart, x)
    ankle = Vec(ahead * cosd(out), under.hip.y + under.side_sign * ahead * sind(out), ankle_z)
    toward = level_direction(out, under.side_sign, 1.0)
    hip, axes = under.hip, UPRIGHT
    if rule.follows_pelvis:
        hip, axes = turned(pelvis, worked_sign, under.hip), under.pelvis
    return closed(
        close(body, under.side_sign, hip, ankle, toward), Stand(hip, axes, under.side_sign), hip, ankle, toward
    )


@compiled
def long(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """Leg long in front with the heel on a surface and the toes up.

    The knee rests on its support where that is higher than a straight leg would pass, or is bent; the heel then comes
    nearer. The whole leg is turned out to its side.
    """
    thigh, shin, hip_z = body.thigh, body.lower_leg, under.hip.z
    ankle_z = number(rule.surface, x) + body.ankle_above_floor_leg_long
    length_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(number(rule.bend, x))
    reach = root(length_sq - (hip_z - ankle_z) ** 2)
    idle = 0.0
    if rule.knee_supported:
        support = number(rule.knee_support, x)
        straight_knee_z = hip_z + (ankle_z - hip_z) * thigh / (thigh + shin)
        rests_at = support + body.knee_above_rest
        if support > 0:
            idle = max(straight_knee_z - rests_at, 0.0)
        if rests_at > straight_knee_z + 1e-6:
            reach = root(thigh**2 - (rests_at - hip_z) ** 2) + root(shin**2 - (rests_at - ankle_z) ** 2)
    out = number(rule.apart, x)
    ankle = Vec(reach * cosd(out), under.hip.y + under.side_sign * reach * sind(out), ankle_z)
    flat = Stand(under.hip, UPRIGHT, under.side_sign)
    leg = closed(close(body, under.side_sign, under.hip, ankle, UP), flat, under.hip, ankle, UP)
    return but_for(leg, leg.reach_shortfall_cm, idle, 0.0)


@compiled
def ground(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """The sole on a surface this far ahead of the hips, the knee up."""
    y = under.hip.y + under.side_sign * number(rule.apart, x)
    ankle = Vec(number(rule.ahead, x), y, number(rule.surface, x) + body.ankle_above_sole)
    circle = close(body, under.side_sign, under.hip, ankle, up_or_ahead(under.hip, ankle))
    return closed(circle, under, under.hip, ankle, FORWARD)


@compiled
def free(body: Record, rule: Record, under: Stand, pelvis: Pelvis, x: Any) -> Placed:
    """The leg held by its joints under a pelvis tipped by the lean: the inverse of reading hip angles."""
    bent, knee_deg = number(rule.flexion, x), number(rule.bend, x)
    if rule.off_wall:
        level = number(rule.wall, x) - body.lower_leg - body.ankle_above_sole
        bent = acosd(level / body.thigh)
        if rule.sole_on_wall:
            knee_deg = bent
    flexion = bent - pelvis.lean_deg
    femur = femur_at(under.pelvis, flexion, number(rule.abduction, x), number(rule.rotation, x), under.side_sign)
    knee = along(under.hip, femur.up, -body.thigh)
    shin = plus(times(femur.up, -cosd(knee_deg)), times(femur.forward, -sind(knee_deg)))
    ankle = along(knee, shin, body.lower_leg)
    read = femur_axes(under.hip, knee, ankle, femur.forward, STRAIGHT_KNEE_DEG)
    toes = unit(minus(ankle, knee)) if rule.pointed else femur.forward
    leg = joined(body, under, knee, ankle, toes, read)
    # Lying with the knees drawn up the flexion against an upright pelvis passes a half turn: it is known, not read.
    turns = round((flexion - leg.angles.flexion_deg) / 360.0)
    angles = HipAngles(
        leg.angles.flexion_deg + 360.0 * turns,
        leg.angles.abduction_deg,
        leg.angles.external_rotation_deg,
        leg.angles.near_singular,
    )
    return Placed(
        leg.hip, knee, ankle, toes, angles, leg.knee_flexion_deg, leg.reach_shortfall_cm, 0.0, NOT_STOPPED, 0.0, 0.0
    )


@compiled
def forced(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """Thigh out at an angle and down to where the knee rests, shin at an angle on the mat, ankle resting."""
    rest, on_side = body.knee_above_rest, body.ankle_above_rest_on_side
    knee_z = rest + number(rule.knee_support, x)
    ankle_z = on_side + number(rule.ankle_support, x) + rule.ankle_up
    if rule.stacked:
        knee_z = knee_z + 2 * on_side
        ankle_z = ankle_z + 2 * rest
    reach = root(body.thigh**2 - (under.hip.z - knee_z) ** 2)
    over = along(under.hip, level_direction(number(rule.apart, x), under.side_sign, 1.0), reach)
    knee = Vec(over.x, over.y, knee_z)
    # The shin's angle on the mat is measured from the line back to the hips, turning inward and forward.
    on_mat = number(rule.bend, x)
    level = root(body.lower_leg**2 - (ankle_z - knee_z) ** 2)
    ankle = Vec(knee.x - level * cosd(on_mat), knee.y - level * under.side_sign * sind(on_mat), ankle_z)
    femur = femur_axes(under.hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG)
    return joined(body, under, knee, ankle, femur.forward, femur)


@compiled
def turned_in(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """Knee and ankle on the floor, the thigh out to its side and the shin back: the hip turns in."""
    knee_z, ankle_z = body.knee_above_rest, body.ankle_above_rest_on_side
    reach = root(body.thigh**2 - (under.hip.z - knee_z) ** 2)
    over = along(under.hip, level_direction(number(rule.apart, x), under.side_sign, 1.0), reach)
    knee = Vec(over.x, over.y, knee_z)
    level = root(body.lower_leg**2 - (ankle_z - knee_z) ** 2)
    behind = along(knee, level_direction(number(rule.bend, x), under.side_sign, -1.0), level)
    ankle = Vec(behind.x, behind.y, ankle_z)
    femur = femur_axes(under.hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG)
    return joined(body, under, knee, ankle, femur.forward, femur)


# Let out sideways until something stops the knee.


@compiled
def ankle_over_thigh(body: Record, beneath: Placed, beneath_sign: float, share: float) -> Vec:
    """Ankle centre when the ankle lies across the other thigh, just past its outer edge."""
    radius = body.thigh_radius_hip * (1 - share) + body.thigh_radius_knee * share
    axis = times(minus(beneath.knee, beneath.hip), 1.0 / body.thigh)
    off_thigh = unit(minus(UP, times(axis, axis.z)))
    ankle = along(between(beneath.hip, beneath.knee, share), off_thigh, radius + body.ankle_above_rest_on_side)
    return Vec(ankle.x, ankle.y + beneath_sign * radius, ankle.z)


@compiled
def foot_of_dropped(body: Record, rule: Record, under: Stand, x: Any) -> Vec:
    """Ankle centre of a foot held in front on its outer edge."""
    across = under.side_sign * body.ankle_above_sole
    if rule.across_given:
        across = under.hip.y * (1 - rule.across)
    return Vec(number(rule.ahead, x), across, number(rule.surface, x) + body.ankle_above_rest_on_side)


@compiled
def knee_rests_at(body: Record, rule: Record, hip_z: float, x: Any) -> float:
    """Height of the knee centre when the leg lies on what is under it."""
    if rule.on_chair:
        return float(hip_z - body.thigh * sind(CHAIR_EDGE_REST_DEG))
    floor = body.knee_above_rest
    if not rule.knee_supported:
        return float(floor)
    stack = number(rule.knee_support, x)
    if rule.rests_at >= 1.0:
        return stack + floor
    if stack <= 0:
        return float(floor)
    at = rule.rests_at
    radius = body.thigh_radius_hip * (1 - at) + body.thigh_radius_knee * at
    return float(max(hip_z + (stack + radius - hip_z) / at, floor))


@compiled
def dropped(
    body: Record, rom: Any, rule: Record, side: int, under: Stand, foot: Vec, x: Any, level: int, lift_cm: float
) -> Placed:
    """The knee let out sideways: what stops it depends on the client's ranges."""
    ankle = Vec(foot.x, foot.y, foot.z + lift_cm)
    circle = close(body, under.side_sign, under.hip, ankle, up_or_ahead(under.hip, ankle))
    turning_out = rom[side, Motion.OPEN_EXTERNAL_ROTATION, level]
    if rule.let_out:
        turning_out = min(turning_out, number(rule.let_out_to, x))
    opening = rom[side, Motion.OPEN_ABDUCTION, level]
    rest_z = knee_rests_at(body, rule, under.hip.z, x)
    drop = drop_knee(circle, under.pelvis.left, under.side_sign, turning_out, opening, rest_z)
    knee = knee_at(circle, drop.swivel_deg)
    # The toes of a dropped leg follow its thigh.
    femur = femur_axes(under.hip, knee, ankle, FORWARD, STRAIGHT_KNEE_DEG)
    idle = 0.0
    if rule.knee_supported and number(rule.knee_support, x) > 0:
        idle = max(knee.z - rest_z, 0.0)
    return Placed(
        under.hip,
        knee,
        ankle,
        femur.forward,
        hip_angles(under.pelvis, femur, under.side_sign),
        circle.knee_flexion_deg,
        circle.reach_shortfall_cm,
        circle.fold_shortfall_cm,
        drop.stopped_by,
        idle,
        0.0,
    )


# Kneeling and folded.


@compiled
def half_kneeling(body: Record, under: Stand) -> Placed:
    """Knee on the floor straight below the hip, shin along the floor behind."""
    knee = along(under.hip, DOWN, body.thigh)
    ankle = along(knee, BACKWARD, body.lower_leg)
    flat = Stand(under.hip, UPRIGHT, under.side_sign)
    return joined(body, flat, knee, ankle, BACKWARD, femur_axes(under.hip, knee, ankle, BACKWARD, STRAIGHT_KNEE_DEG))


@compiled
def shin_behind(body: Record, knee: Vec, aside_cm: float) -> Vec:
    """The ankle of a shin lying along the floor behind its knee, the foot on its top."""
    ankle_z = TOP_OF_FOOT * body.ankle_above_sole
    level = root(body.lower_leg**2 - (knee.z - ankle_z) ** 2 - aside_cm**2)
    return Vec(knee.x - level, knee.y + aside_cm, ankle_z)


@compiled
def kneeling(body: Record, under: Stand, pelvis: Pelvis) -> Placed:
    """The knee on its padding, the shin along the floor behind; how far the thigh leans follows from the base."""
    knee = Vec(-body.thigh * sind(pelvis.knee_forward_deg), under.hip.y, pelvis.pad_cm + body.knee_above_rest)
    ankle = shin_behind(body, knee, 0.0)
    return joined(body, under, knee, ankle, BACKWARD, femur_axes(under.hip, knee, ankle, BACKWARD, STRAIGHT_KNEE_DEG))


class Resting(NamedTuple):
    """A knee at rest, and what is missing for it to get there."""

    knee: Vec
    short_cm: float


@compiled
def knee_at_rest(body: Record, hip: Vec, rest_z_cm: float, direction: Vec) -> Resting:
    """The knee lying at a height with its thigh running a level direction: under a hip that stays too high the knee hangs
    clear of its rest, and the thigh keeps its length."""
    short = max(hip.z - rest_z_cm - body.thigh, 0.0)
    over = along(hip, direction, root(body.thigh**2 - (hip.z - rest_z_cm - short) ** 2))
    return Resting(Vec(over.x, over.y, rest_z_cm + short), short)


@compiled
def folded(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """Sitting between or on the heels: the shin under the thigh along the floor."""
    direction = level_direction(number(rule.apart, x), under.side_sign, 1.0)
    rests = knee_at_rest(body, under.hip, body.knee_above_rest, direction)
    aside = 0.0
    if under.hip.z - body.hip_above_seat < FEET_BESIDE_BELOW_CM:
        aside = under.side_sign * FEET_BESIDE_SHARE * body.stature
    ankle = shin_behind(body, rests.knee, aside)
    # Folded so far the plane of the leg is lost: the kneecap looks up.
    femur = femur_axes(under.hip, rests.knee, ankle, UP, ALWAYS_BY_KNEECAP_DEG)
    leg = joined(body, under, rests.knee, ankle, BACKWARD, femur)
    in_way = 0.0
    if rule.rolled:
        thickness = ROLL_KEEPS * number(rule.roll_behind, x) + FLESH_BEHIND_KNEE_CM
        closes_to = 180.0 - 2 * math.degrees(math.atan(thickness / (2 * ROLL_BEHIND_KNEE_CM)))
        in_way = max(leg.knee_flexion_deg - closes_to, 0.0)
    return but_for(leg, leg.reach_shortfall_cm + rests.short_cm, 0.0, in_way)


# Standing and striding.


@compiled
def standing(body: Record, under: Stand, pelvis: Pelvis) -> Placed:
    """The sole on the ground below the hip; where exactly follows from the base."""
    ankle_z = body.ankle_above_sole + 0.75 * pelvis.heel_lift_cm
    ankle = Vec(pelvis.ankle_x_cm, under.hip.y + under.side_sign * pelvis.apart_cm, ankle_z)
    toes = level_direction(pelvis.toes_out_deg, under.side_sign, 1.0)
    return closed(close(body, under.side_sign, under.hip, ankle, toes), under, under.hip, ankle, toes)


@compiled
def stride_front(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """The front leg of a long stance, its shin upright."""
    direction = level_direction(number(rule.apart, x), under.side_sign, 1.0)
    level = root(body.thigh**2 - (under.hip.z - body.ankle_above_sole - body.lower_leg) ** 2)
    over = along(under.hip, direction, level)
    ankle = Vec(over.x, over.y, body.ankle_above_sole)
    circle = close(body, under.side_sign, under.hip, ankle, direction)
    return closed(circle, under, under.hip, ankle, direction)


@compiled
def stride_knee_behind(body: Record, rule: Record, under: Stand, pelvis: Pelvis, x: Any) -> Placed:
    """The leg behind on its knee, the shin along the floor or the foot drawn up."""
    direction = level_direction(number(rule.apart, x), under.side_sign, -1.0)
    rests = knee_at_rest(body, under.hip, pelvis.pad_cm + body.knee_above_rest, direction)
    ankle = shin_behind(body, rests.knee, 0.0)
    if rule.shin_lifted:
        lifted = Vec(-sind(SHIN_SHORT_OF_UPRIGHT_DEG), 0.0, cosd(SHIN_SHORT_OF_UPRIGHT_DEG))
        ankle = along(rests.knee, lifted, body.lower_leg)
    # Long behind on the top of its foot the leg looks down, wherever the toes point.
    femur = femur_axes(under.hip, rests.knee, ankle, DOWN, STRAIGHT_KNEE_DEG)
    leg = joined(body, under, rests.knee, ankle, BACKWARD, femur)
    return but_for(leg, leg.reach_shortfall_cm + rests.short_cm, 0.0, 0.0)


@compiled
def stride_straight(body: Record, rule: Record, under: Stand, x: Any) -> Placed:
    """A leg of a long stance that is straight or a little bent, in front or behind."""
    ahead = float(rule.ahead_sign)
    direction = level_direction(number(rule.apart, x), under.side_sign, ahead)
    thigh, shin, sole = body.thigh, body.lower_leg, body.ankle_above_sole
    length_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(number(rule.bend, x))
    over = along(under.hip, direction, root(length_sq - (under.hip.z - sole) ** 2))
    ankle = Vec(over.x, over.y, sole)
    toes = direction
    if ahead < 0:
        toes = level_direction(rule.toes_out, under.side_sign, 1.0)
    return closed(close(body, under.side_sign, under.hip, ankle, toes), under, under.hip, ankle, toes)
