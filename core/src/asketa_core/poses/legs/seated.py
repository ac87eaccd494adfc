"""Legs of a body that sits or lies: planted, long, dropped, forced, turned in, free, on the ground."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from asketa_core.body.angles import femur_axes
from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP
from asketa_core.body.drop import drop_knee
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.rotations import rotation_x, rotation_y, rotation_z
from asketa_core.clinical import clinical
from asketa_core.poses.bases import Pelvis
from asketa_core.poses.legs.leg import (
    ABOVE_THIGH,
    UPRIGHT_PELVIS,
    Leg,
    _broadcast_circle,
    close,
    finish,
    leg_of,
    points,
)
from asketa_core.poses.posture import Indices, LegPoints
from asketa_core.poses.recipe import DroppedLeg, ForcedLeg, FreeLeg, GroundLeg, TurnedInLeg
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Array, Side, acosd, cosd, sind, unit

CHAIR_EDGE_REST_DEG = 20.0
"""On a chair a thigh let out sideways comes to rest on the seat's edge about this far below level (judgement)."""


def planted(
    body: Body,
    side: Side,
    hip: Array,
    surface_cm: Array,
    ahead_of_level_cm: Array,
    rows: Indices,
    pelvis: Pelvis | None = None,
    apart_deg: Array | None = None,
) -> Leg:
    """Sole on a surface; knee over the toes. Shapes (1, k). A ``pelvis`` that follows a turn takes the hip along; the
    foot stays. ``apart_deg`` turns thigh and foot out to their side."""
    ankle_z = surface_cm + body.length_cm("ankle_above_sole")
    thigh = body.length_cm("thigh")
    fall = hip[..., 2] - (ankle_z + body.length_cm("lower_leg"))
    level_x = np.sqrt(np.maximum(thigh**2 - fall**2, 0.0))
    ahead, out = level_x + ahead_of_level_cm, 0.0 if apart_deg is None else apart_deg
    ankle = points(ahead * cosd(out), hip[..., 1] + side.sign * ahead * sind(out), ankle_z)
    toward = WORLD_FORWARD if apart_deg is None else plan_direction(apart_deg, side.sign)
    turned, axes = (hip, UPRIGHT_PELVIS) if pelvis is None else (pelvis.turned(hip), pelvis.rotation)
    circle = close(body, side, turned, ankle, toward)
    leg = finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, toward, pelvis=axes)
    return replace(leg, sole_down=True, slides=True)


def long(
    body: Body,
    side: Side,
    hip: Array,
    surface_cm: Array,
    knee_support_cm: Array | None,
    apart_deg: Array,
    rows: Indices,
    bend_deg: Array | float = 0.0,
) -> Leg:
    """Leg long in front with the heel on a surface and the toes up.

    The knee rests on its support where that is higher than a straight leg would pass, or is bent by ``bend_deg``; the
    heel then comes nearer. ``apart_deg`` turns the whole leg out to its side.
    """
    thigh, shin = body.length_cm("thigh"), body.length_cm("lower_leg")
    hip_z = hip[..., 2]
    ankle_z = surface_cm + body.length_cm("ankle_above_floor_leg_long") + 0.0 * hip_z
    length_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(bend_deg)
    straight_reach = np.sqrt(np.maximum(length_sq - (hip_z - ankle_z) ** 2, 0.0))
    straight_knee_z = hip_z + (ankle_z - hip_z) * thigh / (thigh + shin)
    reach, idle = straight_reach, None
    if knee_support_cm is not None:
        rests_at = knee_support_cm + body.length_cm("knee_above_rest")
        idle = np.where(knee_support_cm > 0, np.maximum(straight_knee_z - rests_at, 0.0), 0.0)
        knee_z = np.maximum(knee_support_cm + body.length_cm("knee_above_rest"), straight_knee_z)
        thigh_reach = np.sqrt(np.maximum(thigh**2 - (knee_z - hip_z) ** 2, 0.0))
        shin_reach = np.sqrt(np.maximum(shin**2 - (knee_z - ankle_z) ** 2, 0.0))
        reach = np.where(knee_z > straight_knee_z + 1e-6, thigh_reach + shin_reach, straight_reach)
    ankle = points(reach * cosd(apart_deg), hip[..., 1] + side.sign * reach * sind(apart_deg), ankle_z)
    circle = close(body, side, hip, ankle, WORLD_UP)
    leg = finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, WORLD_UP)
    return replace(leg, slides=True, idle_cm=idle)


def ankle_over_thigh(body: Body, other: Leg, other_side: Side, share: float) -> Array:
    """Ankle centre when the ankle lies across the other thigh, just past its outer edge."""
    hip, knee = other.points.hip[:, other.rows], other.points.knee[:, other.rows]
    along = knee - hip
    radius = body.length_cm("thigh_radius_hip") * (1 - share) + body.length_cm("thigh_radius_knee") * share
    axis = along / body.length_cm("thigh")
    off_thigh = ABOVE_THIGH - axis[..., 2:3] * axis
    off_thigh = off_thigh / np.linalg.norm(off_thigh, axis=-1, keepdims=True)
    ankle = hip + share * along + off_thigh * (radius + body.length_cm("ankle_above_rest_on_side"))
    past_edge = points(0.0, other_side.sign * radius, 0.0)
    return np.asarray(ankle + past_edge)


def _knee_support_z(body: Body, rule: DroppedLeg, hip: Array, setup: SetupBatch, side: Side, on_chair: bool) -> Array:
    """Height of the knee centre when the leg lies on what is under it."""
    if on_chair:
        return np.asarray(hip[..., 2] - body.length_cm("thigh") * sind(CHAIR_EDGE_REST_DEG))
    floor = body.length_cm("knee_above_rest")
    if rule.knee_rests_on is None:
        return np.full(hip.shape[:-1], floor)
    stack = setup.number(rule.knee_rests_on, side)
    if rule.rests_at >= 1.0:
        return np.asarray(stack + floor + 0.0 * hip[..., 2])
    at = rule.rests_at
    radius = body.length_cm("thigh_radius_hip") * (1 - at) + body.length_cm("thigh_radius_knee") * at
    by_thigh = hip[..., 2] + (stack + radius - hip[..., 2]) / at
    return np.asarray(np.where(stack > 0, np.maximum(by_thigh, floor), floor))


def dropped(
    body: Body,
    ranges: Ranges,
    side: Side,
    hip: Array,
    rule: DroppedLeg,
    setup: SetupBatch,
    rows: Indices,
    other: Leg | None,
    on_chair: bool,
    lift_cm: float = 0.0,
    pelvis: Array = UPRIGHT_PELVIS,
) -> Leg:
    """The knee let out sideways, shapes (3, k): what stops it depends on the client's ranges."""
    if rule.over_thigh is not None:
        assert other is not None
        ankle = ankle_over_thigh(body, other, side.other, rule.over_thigh)
    else:
        assert rule.rests_on is not None and rule.ahead is not None
        y = side.sign * body.length_cm("ankle_above_sole")
        across = y if rule.across is None else hip[..., 1] * (1 - rule.across)
        surface = setup.number(rule.rests_on, side)
        ankle = points(setup.number(rule.ahead, side), across, surface + body.length_cm("ankle_above_rest_on_side"))
    ankle = ankle + np.array([0.0, 0.0, lift_cm])
    circle = close(body, side, hip, ankle, None)
    turning_out = ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side)
    if rule.let_out_deg is not None:
        turning_out = np.minimum(turning_out, setup.number(rule.let_out_deg, side))
    levels = (3, setup.size)
    wide = _broadcast_circle(circle, levels)
    rest_z = np.broadcast_to(_knee_support_z(body, rule, hip, setup, side, on_chair), levels)
    drop = drop_knee(
        wide,
        pelvis[..., :, 1],
        side.sign,
        np.broadcast_to(turning_out, levels),
        np.broadcast_to(ranges.levels(Quantity.OPEN_ABDUCTION, side), levels),
        rest_z,
    )
    ankle = np.broadcast_to(ankle, (*levels, 3))
    leg = finish(side, wide, ankle, drop.swivel_deg, rows, None, drop.stopped_by.astype(float), pelvis)
    if rule.knee_rests_on is None:
        return leg
    over = leg.points.knee[..., 2] - rest_z
    return replace(leg, idle_cm=np.where(setup.number(rule.knee_rests_on, side) > 0, np.maximum(over, 0.0), 0.0))


def plan_direction(angle_deg: Array, sign: float, ahead: float = 1.0) -> Array:
    """A level direction (k, 3) turned out to a side from straight ahead (``ahead`` 1) or straight behind (-1)."""
    x, y, z = np.broadcast_arrays(ahead * cosd(angle_deg), sign * sind(angle_deg), 0.0)
    return np.stack([x, y, z], axis=-1)


def ground(
    body: Body, side: Side, hip: Array, rule: GroundLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    surface = setup.number(rule.rests_on, side)
    y = hip[..., 1] + side.sign * setup.number(rule.apart_cm, side)
    ankle = points(setup.number(rule.ahead, side), y, surface + body.length_cm("ankle_above_sole"))
    circle = close(body, side, np.broadcast_to(hip, ankle.shape), ankle, None)
    return finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, WORLD_FORWARD, pelvis=pelvis.rotation)


def free(body: Body, side: Side, hip: Array, rule: FreeLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices) -> Leg:
    """The inverse of reading hip angles: ``Ry(-F)·Rx(m·A)·Rz(m·E)`` under a pelvis tipped by the lean."""
    m = side.sign
    bent, knee_deg = setup.number(rule.flexion, side), setup.number(rule.knee, side)
    if rule.wall_cm is not None:
        level = setup.number(rule.wall_cm, side) - body.length_cm("lower_leg") - body.length_cm("ankle_above_sole")
        bent = acosd(level / body.length_cm("thigh"))
        knee_deg = bent if rule.sole_on_wall else knee_deg
    flexion = bent - pelvis.lean_deg
    abduction, rotation = setup.number(rule.abduction, side), setup.number(rule.rotation, side)
    femur = pelvis.rotation @ rotation_y(-flexion) @ rotation_x(m * abduction) @ rotation_z(m * rotation)
    knee = hip - body.length_cm("thigh") * femur[..., :, 2]
    bend = -cosd(knee_deg)[..., None] * femur[..., :, 2] - sind(knee_deg)[..., None] * femur[..., :, 0]
    ankle = knee + body.length_cm("lower_leg") * bend
    leg = leg_of(body, side, hip, knee, ankle, femur[..., :, 0], rows, pelvis.rotation)
    # Lying with the knees drawn up the flexion against an upright pelvis passes a half turn: it is known, not read.
    angles = leg.angles
    turns = np.round((flexion - angles.flexion_deg) / 360.0)
    leg = replace(
        leg,
        foot_held=rule.crosses is not None,
        angles=replace(angles, flexion_deg=angles.flexion_deg + 360.0 * turns),
    )
    if not rule.pointed:
        return leg
    return replace(leg, points=LegPoints(hip + 0.0 * knee, knee, ankle, unit(ankle - knee)))


def forced(
    body: Body, side: Side, hip: Array, rule: ForcedLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    """Thigh out at an angle and down to where the knee rests, shin at an angle on the mat, ankle resting."""
    rest = body.length_cm("knee_above_rest")
    knee_z = rest + (setup.number(rule.knee_rests_on, side) if rule.knee_rests_on is not None else 0.0)
    ankle_z = body.length_cm("ankle_above_rest_on_side") + (
        setup.number(rule.ankle_rests_on, side) if rule.ankle_rests_on is not None else 0.0
    )
    ankle_z = ankle_z + rule.ankle_up_cm
    if rule.stacked:
        knee_z = knee_z + 2 * body.length_cm("ankle_above_rest_on_side")
        ankle_z = ankle_z + 2 * rest
    thigh, shin = body.length_cm("thigh"), body.length_cm("lower_leg")
    out = setup.number(rule.thigh_out, side)
    reach = np.sqrt(np.maximum(thigh**2 - (hip[..., 2] - knee_z) ** 2, 0.0))
    knee = points(0.0, 0.0, 0.0) + hip + reach[..., None] * plan_direction(out, side.sign)
    knee = np.concatenate([knee[..., :2], np.broadcast_to(knee_z, knee.shape[:-1])[..., None]], axis=-1)
    # The shin's angle on the mat is measured from the line back to the hips, turning inward and forward.
    on_mat = setup.number(rule.shin, side)
    level = np.sqrt(np.maximum(shin**2 - (ankle_z - knee_z) ** 2, 0.0)) + 0.0 * reach
    x, y = -cosd(on_mat), -side.sign * sind(on_mat)
    ankle = knee + np.stack([level * x, level * y, ankle_z - knee[..., 2]], axis=-1)
    femur = femur_axes(hip, knee, ankle, WORLD_FORWARD)
    leg = leg_of(body, side, hip, knee, ankle, femur[..., 0], rows, pelvis.rotation)
    return replace(leg, least_share=FORCED_SHARE)


def turned_in(
    body: Body, side: Side, hip: Array, rule: TurnedInLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    knee_z = body.length_cm("knee_above_rest")
    reach = np.sqrt(np.maximum(body.length_cm("thigh") ** 2 - (hip[..., 2] - knee_z) ** 2, 0.0))
    knee = hip + reach[..., None] * plan_direction(setup.number(rule.thigh_out, side), side.sign)
    knee = np.concatenate([knee[..., :2], np.full(knee.shape[:-1], knee_z)[..., None]], axis=-1)
    ankle_z = body.length_cm("ankle_above_rest_on_side")
    level = np.sqrt(np.maximum(body.length_cm("lower_leg") ** 2 - (ankle_z - knee_z) ** 2, 0.0))
    back = plan_direction(setup.number(rule.shin_back, side), side.sign, ahead=-1.0)
    ankle = knee + level * back + np.array([0.0, 0.0, ankle_z - knee_z])
    femur = femur_axes(hip, knee, ankle, WORLD_FORWARD)
    return leg_of(body, side, hip, knee, ankle, femur[..., 0], rows, pelvis.rotation)


FORCED_SHARE = clinical("shape.forced_share", "share")
