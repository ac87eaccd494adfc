"""Placing one leg: a rule of the recipe, a hip and the surfaces give joint positions and hip angles.

Each leg is solved once per distinct combination of the set-up values it depends on, not once per
set-up: ``rows`` says which of its columns belongs to each set-up of the batch.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.body.angles import HipAngles, femur_axes, hip_angles
from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP, KneeCircle, knee_circle
from asketa_core.body.drop import drop_knee
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.statics import resting_foot_share
from asketa_core.poses.posture import Indices, LegPoints
from asketa_core.poses.recipe import DroppedLeg, LongLeg, PlantedLeg
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Array, Side, cosd, sind

CHAIR_EDGE_REST_DEG = 20.0
"""On a chair a thigh let out sideways comes to rest on the seat's edge about this far below level (judgement)."""

UPRIGHT_PELVIS = np.eye(3)
ABOVE_THIGH = WORLD_UP


LegRule = PlantedLeg | DroppedLeg | LongLeg


@dataclass(frozen=True, slots=True)
class Leg:
    """One placed leg with the pelvis upright. Points are (1 or 3 levels, k, 3), numbers (1 or 3, k);
    ``rows`` (n,) picks a column for each set-up."""

    points: LegPoints
    angles: HipAngles
    knee_flexion_deg: Array
    reach_shortfall_cm: Array
    fold_shortfall_cm: Array
    rows: Indices
    stopped_by: Array | None = None


def points(x: Array | float, y: Array | float, z: Array | float) -> Array:
    x, y, z = np.broadcast_arrays(np.asarray(x, float), np.asarray(y, float), np.asarray(z, float))
    return np.stack([x, y, z], axis=-1)


def hip_centre(body: Body, side: Side, seat_cm: Array) -> Array:
    """Hip joint centre over a seat, (1, k, 3): the pelvis starts upright and square."""
    height = (seat_cm + body.length_cm("hip_above_seat"))[None, :]
    return points(0.0, side.sign * body.length_cm("between_hips") / 2, height)


def _close(body: Body, side: Side, hip: Array, ankle: Array, knee_toward: Array | None) -> KneeCircle:
    return knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), side.sign, knee_toward)


def _finish(
    side: Side,
    circle: KneeCircle,
    ankle: Array,
    swivel: Array,
    rows: Indices,
    toes: Array | None,
    stopped_by: Array | None = None,
) -> Leg:
    """``toes`` is where they point; ``None`` for a dropped leg, whose toes follow its thigh."""
    knee = circle.knee_at(swivel)
    femur = femur_axes(circle.hip, knee, ankle, WORLD_FORWARD if toes is None else toes)
    shown = femur[..., 0] if toes is None else np.broadcast_to(toes, knee.shape)
    return Leg(
        LegPoints(circle.hip, knee, ankle, shown),
        hip_angles(UPRIGHT_PELVIS, femur, side.sign),
        circle.knee_flexion_deg,
        circle.reach_shortfall_cm,
        circle.fold_shortfall_cm,
        rows,
        stopped_by,
    )


def planted(body: Body, side: Side, hip: Array, surface_cm: Array, ahead_of_level_cm: Array, rows: Indices) -> Leg:
    """Sole on a surface; knee over the toes. Shapes (1, k)."""
    ankle_z = surface_cm + body.length_cm("ankle_above_sole")
    thigh = body.length_cm("thigh")
    fall = hip[..., 2] - (ankle_z + body.length_cm("lower_leg"))
    level_x = np.sqrt(np.maximum(thigh**2 - fall**2, 0.0))
    ankle = points(level_x + ahead_of_level_cm, hip[..., 1], ankle_z)
    circle = _close(body, side, hip, ankle, WORLD_FORWARD)
    return _finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, WORLD_FORWARD)


def long(
    body: Body,
    side: Side,
    hip: Array,
    surface_cm: Array,
    knee_support_cm: Array | None,
    apart_deg: Array,
    rows: Indices,
) -> Leg:
    """Leg long in front with the heel on a surface and the toes up.

    The knee rests on its support where that is higher than a straight leg would pass; the heel then
    comes nearer. ``apart_deg`` turns the whole leg out to its side.
    """
    thigh, shin = body.length_cm("thigh"), body.length_cm("lower_leg")
    hip_z = hip[..., 2]
    ankle_z = surface_cm + body.length_cm("ankle_above_floor_leg_long") + 0.0 * hip_z
    straight_reach = np.sqrt(np.maximum((thigh + shin) ** 2 - (hip_z - ankle_z) ** 2, 0.0))
    straight_knee_z = hip_z + (ankle_z - hip_z) * thigh / (thigh + shin)
    reach = straight_reach
    if knee_support_cm is not None:
        knee_z = np.maximum(knee_support_cm + body.length_cm("knee_above_rest"), straight_knee_z)
        thigh_reach = np.sqrt(np.maximum(thigh**2 - (knee_z - hip_z) ** 2, 0.0))
        shin_reach = np.sqrt(np.maximum(shin**2 - (knee_z - ankle_z) ** 2, 0.0))
        reach = np.where(knee_z > straight_knee_z + 1e-6, thigh_reach + shin_reach, straight_reach)
    ankle = points(reach * cosd(apart_deg), hip[..., 1] + side.sign * reach * sind(apart_deg), ankle_z)
    circle = _close(body, side, hip, ankle, WORLD_UP)
    return _finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, WORLD_UP)


def kneeling(body: Body, side: Side, hip: Array, rows: Indices) -> Leg:
    """Knee on the floor straight below the hip, shin along the floor behind. Shapes (1, k)."""
    knee = hip - np.array([0.0, 0.0, body.length_cm("thigh")])
    ankle = knee - np.array([body.length_cm("lower_leg"), 0.0, 0.0])
    femur = femur_axes(hip, knee, ankle, WORLD_FORWARD)
    zero = np.zeros(hip.shape[:-1])
    return Leg(
        LegPoints(hip, knee, ankle, np.broadcast_to(-WORLD_FORWARD, knee.shape)),
        hip_angles(UPRIGHT_PELVIS, femur, side.sign), zero + 90.0, zero, zero, rows,
    )  # fmt: skip


def _ankle_over_thigh(body: Body, other: Leg, other_side: Side, share: float) -> Array:
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
) -> Leg:
    """The knee let out sideways, shapes (3, k): what stops it depends on the client's ranges."""
    if rule.over_thigh is not None:
        assert other is not None
        ankle = _ankle_over_thigh(body, other, side.other, rule.over_thigh)
    else:
        assert rule.rests_on is not None and rule.ahead is not None
        y = side.sign * body.length_cm("ankle_above_sole")
        across = y if rule.across is None else hip[..., 1] * (1 - rule.across)
        surface = setup.number(rule.rests_on, side)
        ankle = points(setup.number(rule.ahead, side), across, surface + body.length_cm("ankle_above_rest_on_side"))
    ankle = ankle + np.array([0.0, 0.0, lift_cm])
    circle = _close(body, side, hip, ankle, None)
    turning_out = ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side)
    if rule.let_out_deg is not None:
        turning_out = np.minimum(turning_out, setup.number(rule.let_out_deg, side))
    levels = (3, setup.size)
    wide = _broadcast_circle(circle, levels)
    drop = drop_knee(
        wide,
        UPRIGHT_PELVIS[:, 1],
        side.sign,
        np.broadcast_to(turning_out, levels),
        np.broadcast_to(ranges.levels(Quantity.OPEN_ABDUCTION, side), levels),
        np.broadcast_to(_knee_support_z(body, rule, hip, setup, side, on_chair), levels),
    )
    ankle = np.broadcast_to(ankle, (*levels, 3))
    return _finish(side, wide, ankle, drop.swivel_deg, rows, None, drop.stopped_by.astype(float))


def place(
    rule: LegRule,
    body: Body,
    ranges: Ranges,
    side: Side,
    seat: str,
    setup: SetupBatch,
    other_rule: LegRule | None = None,
    on_chair: bool = False,
    lift_cm: float = 0.0,
) -> Leg:
    """One leg by its rule, solved over the distinct values it depends on. ``other_rule`` is needed where
    this leg lies on the other."""
    crossed = isinstance(rule, DroppedLeg) and rule.over_thigh is not None
    named = [*rule.slots(), *(other_rule.slots() if crossed and other_rule is not None else ())]
    own, rows = setup.reduced([seat, *(name for name in named if isinstance(name, str))], side)
    hip = hip_centre(body, side, own.number(seat))
    if isinstance(rule, PlantedLeg):
        return planted(body, side, hip, own.number(rule.rests_on, side), own.number(rule.ahead_of_level_cm, side), rows)
    if isinstance(rule, LongLeg):
        support = None if rule.knee_rests_on is None else own.number(rule.knee_rests_on, side)
        return long(body, side, hip, own.number(rule.rests_on, side), support, own.number(rule.apart_deg, side), rows)
    other = None
    if crossed:
        assert other_rule is not None
        other = place(other_rule, body, ranges, side.other, seat, own)
    return dropped(body, ranges, side, hip, rule, own, rows, other, on_chair, lift_cm)


def weight_through(body: Body, leg: Leg) -> Array:
    """Share of body weight a leg at rest passes on through its foot."""
    masses = body_norms().masses
    shares = (masses["thigh"].fraction, masses["lower_leg"].fraction, masses["foot"].fraction)
    toe = leg.points.ankle + body.length_cm("foot") * 0.75 * leg.points.toes
    return resting_foot_share(leg.points.hip, leg.points.knee, leg.points.ankle, toe, shares)


def _broadcast_circle(circle: KneeCircle, shape: tuple[int, ...]) -> KneeCircle:
    vectors = {
        name: np.broadcast_to(getattr(circle, name), (*shape, 3))
        for name in ("hip", "axis", "start", "outward", "centre")
    }
    numbers = {
        name: np.broadcast_to(getattr(circle, name), shape)
        for name in (
            "radius_cm", "offset_cm", "thigh_cm", "knee_flexion_deg", "reach_shortfall_cm", "fold_shortfall_cm",
        )
    }  # fmt: skip
    return KneeCircle(**vectors, **numbers)
