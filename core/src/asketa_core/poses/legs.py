"""Placing one leg: a rule of the recipe, a hip and the surfaces give joint positions and hip angles.

Each leg is solved once per distinct combination of the set-up values it depends on, not once per
set-up: ``rows`` says which of its columns belongs to each set-up of the batch.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from asketa_core.body.angles import HipAngles, femur_axes, hip_angles, knee_flexion
from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP, KneeCircle, knee_circle
from asketa_core.body.drop import drop_knee
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.rotations import rotation_x, rotation_y, rotation_z
from asketa_core.body.statics import resting_foot_share
from asketa_core.body.trunk import TrunkPoints
from asketa_core.clinical import clinical
from asketa_core.poses.bases import Pelvis, settle_base
from asketa_core.poses.posture import Indices, LegPoints
from asketa_core.poses.recipe import (
    DroppedLeg,
    FoldedLeg,
    ForcedLeg,
    FreeLeg,
    GroundLeg,
    KneelingLeg,
    LegRule,
    LongLeg,
    PlantedLeg,
    Recipe,
    StandBase,
    StandingLeg,
    StrideLeg,
    TurnedInLeg,
    slot_names,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Array, Side, acosd, cosd, norm, sind, stack3, unit

CHAIR_EDGE_REST_DEG = 20.0
"""On a chair a thigh let out sideways comes to rest on the seat's edge about this far below level (judgement)."""

UPRIGHT_PELVIS = np.eye(3)
SHIN_SHORT_OF_UPRIGHT_DEG = 10.0
"""A kneeling leg whose foot is drawn up keeps its shin this much short of upright."""
ALWAYS_BY_KNEECAP_DEG = 181.0
ABOVE_THIGH = WORLD_UP


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
    sole_down: bool = False
    on_knee: bool = False
    slides: bool = False
    """Whether a steep thigh lets the body slide off its seat: legs that only hang from it."""
    least_share: float = 0.0
    """Share of body weight such a leg carries at least, whatever its own levers say."""
    idle_cm: Array | None = None
    """By how much a support under this leg is too low to be touched; 0 where there is none."""
    roll_in_way_deg: Array | None = None
    """How much further the knee would close than what lies behind it allows."""
    foot_held: bool = True
    """Whether the foot rests or is held, so that the knee must take what the hip does not turn."""

    def support_point(self) -> Array:
        """Where the leg carries weight: under the sole's middle, or under the knee; (levels, k, 3)."""
        if self.on_knee:
            return self.points.knee
        return np.asarray(self.points.ankle + SOLE_MIDDLE_CM * self.points.toes)


SOLE_MIDDLE_CM = 6.0
"""How far the middle of the sole lies ahead of the ankle."""

SOLE_HALF_BREADTH_SHARE = 0.027
"""Half the breadth of a foot as a share of stature."""


def sole_corners(body: Body, leg: Leg) -> Array:
    """The four corners of a planted sole on the floor, (levels, k, 4, 2)."""
    foot, half = body.length_cm("foot"), SOLE_HALF_BREADTH_SHARE * body.stature_cm
    ahead = leg.points.toes[..., :2]
    aside = np.stack([-ahead[..., 1], ahead[..., 0]], axis=-1)
    ankle = leg.points.ankle[..., :2]
    return np.stack([ankle + x * foot * ahead + y * half * aside for x in (-0.25, 0.75) for y in (-1.0, 1.0)], axis=-2)


def centre_of_mass(body: Body, legs: Mapping[Side, Leg], chain: TrunkPoints) -> Array:
    """Floor point of the body's centre of mass, (levels, n, 2); arms hang at the shoulders."""
    masses = body_norms().masses
    arms = 2 * sum(masses[name].fraction for name in ("upper_arm", "forearm", "hand"))
    parts = (
        (masses["pelvis"].fraction, (chain.pelvis + chain.l5s1) / 2),
        (masses["lumbar"].fraction, (chain.l5s1 + chain.t12) / 2),
        (masses["thorax"].fraction, (chain.t12 + chain.c7) / 2),
        (masses["head_and_neck"].fraction, chain.c7 + masses["head_and_neck"].centre * (chain.top - chain.c7)),
        (arms, chain.c7 + 0.2 * (chain.t12 - chain.c7)),
    )
    total = sum(mass for mass, _ in parts)
    x = sum(mass * at[..., 0] for mass, at in parts)
    y = np.zeros_like(x)
    thigh, shin, foot = masses["thigh"], masses["lower_leg"], masses["foot"]
    for leg in legs.values():
        hip, knee, ankle, toes = (
            p[:, leg.rows] for p in (leg.points.hip, leg.points.knee, leg.points.ankle, leg.points.toes)
        )
        for mass, at in (
            (thigh.fraction, hip + thigh.centre * (knee - hip)),
            (shin.fraction, knee + shin.centre * (ankle - knee)),
            (foot.fraction, ankle + 0.25 * body.length_cm("foot") * toes),
        ):
            x, y, total = x + mass * at[..., 0], y + mass * at[..., 1], total + mass
    return np.stack(np.broadcast_arrays(x / total, y / total), axis=-1)


def points(x: Array | float, y: Array | float, z: Array | float) -> Array:
    return stack3(np.asarray(x, float), np.asarray(y, float), np.asarray(z, float))


def hip_centre(body: Body, side: Side, seat_cm: Array) -> Array:
    """Hip joint centre over a seat, (1, k, 3): the pelvis starts upright and square."""
    height = (seat_cm + body.length_cm("hip_above_seat"))[None, :]
    return points(0.0, side.sign * body.length_cm("between_hips") / 2, height)


def _leg(
    body: Body,
    side: Side,
    hip: Array,
    knee: Array,
    ankle: Array,
    toes: Array,
    rows: Indices,
    pelvis: Array = UPRIGHT_PELVIS,
    kneecap: Array | None = None,
    straight_kneecap: Array | None = None,
) -> Leg:
    """A leg whose joints are already placed. Where the knee is further from the hip than the thigh is long, or
    the ankle from the knee than the shin, the missing length is its reach shortfall. ``kneecap`` says where a
    leg folded so far that its plane is lost looks to, ``straight_kneecap`` where one too straight to have a plane
    does, when that is not where its toes point."""
    if kneecap is None:
        femur = femur_axes(hip, knee, ankle, toes if straight_kneecap is None else straight_kneecap)
    else:
        femur = femur_axes(hip, knee, ankle, kneecap, straight_below_deg=ALWAYS_BY_KNEECAP_DEG)
    zero = np.zeros(knee.shape[:-1])
    short = np.maximum(norm(knee - hip) - body.length_cm("thigh"), 0.0)
    short = short + np.maximum(norm(ankle - knee) - body.length_cm("lower_leg"), 0.0)
    hip, knee, ankle, toes = np.broadcast_arrays(hip, knee, ankle, toes)
    return Leg(
        LegPoints(hip, knee, ankle, toes), hip_angles(pelvis, femur, side.sign),
        knee_flexion(hip, knee, ankle), np.where(short < 1e-6, 0.0, short), zero, rows,
    )  # fmt: skip


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
    pelvis: Array = UPRIGHT_PELVIS,
) -> Leg:
    """``toes`` is where they point; ``None`` for a dropped leg, whose toes follow its thigh."""
    knee = circle.knee_at(swivel)
    femur = femur_axes(circle.hip, knee, ankle, WORLD_FORWARD if toes is None else toes)
    shown = femur[..., 0] if toes is None else np.broadcast_to(toes, knee.shape)
    return Leg(
        LegPoints(circle.hip, knee, ankle, shown),
        hip_angles(pelvis, femur, side.sign),
        circle.knee_flexion_deg,
        circle.reach_shortfall_cm,
        circle.fold_shortfall_cm,
        rows,
        stopped_by,
    )


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
    toward = WORLD_FORWARD if apart_deg is None else _plan(apart_deg, side.sign)
    turned, axes = (hip, UPRIGHT_PELVIS) if pelvis is None else (pelvis.turned(hip), pelvis.rotation)
    circle = _close(body, side, turned, ankle, toward)
    leg = _finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, toward, pelvis=axes)
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
    circle = _close(body, side, hip, ankle, WORLD_UP)
    leg = _finish(side, circle, ankle, np.zeros(hip.shape[:-1]), rows, WORLD_UP)
    return replace(leg, slides=True, idle_cm=idle)


def half_kneeling(body: Body, side: Side, hip: Array, rows: Indices) -> Leg:
    """Knee on the floor straight below the hip, shin along the floor behind. Shapes (1, k)."""
    knee = hip - np.array([0.0, 0.0, body.length_cm("thigh")])
    ankle = knee - np.array([body.length_cm("lower_leg"), 0.0, 0.0])
    return _leg(body, side, hip, knee, ankle, -WORLD_FORWARD, rows)


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
    pelvis: Array = UPRIGHT_PELVIS,
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
    leg = _finish(side, wide, ankle, drop.swivel_deg, rows, None, drop.stopped_by.astype(float), pelvis)
    if rule.knee_rests_on is None:
        return leg
    over = leg.points.knee[..., 2] - rest_z
    return replace(leg, idle_cm=np.where(setup.number(rule.knee_rests_on, side) > 0, np.maximum(over, 0.0), 0.0))


TOP_OF_FOOT = 0.5
"""A foot lying on its top holds the ankle at this share of its height above the sole."""


def _plan(angle_deg: Array, sign: float, ahead: float = 1.0) -> Array:
    """A level direction (k, 3) turned out to a side from straight ahead (``ahead`` 1) or straight behind (-1)."""
    x, y, z = np.broadcast_arrays(ahead * cosd(angle_deg), sign * sind(angle_deg), 0.0)
    return np.stack([x, y, z], axis=-1)


def _standing(body: Body, side: Side, hip: Array, pelvis: Pelvis, rows: Indices) -> Leg:
    ankle_z = body.length_cm("ankle_above_sole") + 0.75 * pelvis.heel_lift_cm
    ankle = points(pelvis.ankle_x_cm, hip[..., 1] + side.sign * pelvis.apart_cm, ankle_z)
    toes = np.broadcast_to(_plan(pelvis.toes_out_deg, side.sign), ankle.shape)
    circle = _close(body, side, np.broadcast_to(hip, ankle.shape), ankle, toes)
    leg = _finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, toes, pelvis=pelvis.rotation)
    return replace(leg, sole_down=True)


def _ground(
    body: Body, side: Side, hip: Array, rule: GroundLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    surface = setup.number(rule.rests_on, side)
    y = hip[..., 1] + side.sign * setup.number(rule.apart_cm, side)
    ankle = points(setup.number(rule.ahead, side), y, surface + body.length_cm("ankle_above_sole"))
    circle = _close(body, side, np.broadcast_to(hip, ankle.shape), ankle, None)
    return _finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, WORLD_FORWARD, pelvis=pelvis.rotation)


def _free(body: Body, side: Side, hip: Array, rule: FreeLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices) -> Leg:
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
    leg = _leg(body, side, hip, knee, ankle, femur[..., :, 0], rows, pelvis.rotation)
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


def _forced(
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
    knee = points(0.0, 0.0, 0.0) + hip + reach[..., None] * _plan(out, side.sign)
    knee = np.concatenate([knee[..., :2], np.broadcast_to(knee_z, knee.shape[:-1])[..., None]], axis=-1)
    # The shin's angle on the mat is measured from the line back to the hips, turning inward and forward.
    on_mat = setup.number(rule.shin, side)
    level = np.sqrt(np.maximum(shin**2 - (ankle_z - knee_z) ** 2, 0.0)) + 0.0 * reach
    x, y = -cosd(on_mat), -side.sign * sind(on_mat)
    ankle = knee + np.stack([level * x, level * y, ankle_z - knee[..., 2]], axis=-1)
    femur = femur_axes(hip, knee, ankle, WORLD_FORWARD)
    leg = _leg(body, side, hip, knee, ankle, femur[..., 0], rows, pelvis.rotation)
    return replace(leg, least_share=FORCED_SHARE)


def _turned_in(
    body: Body, side: Side, hip: Array, rule: TurnedInLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    knee_z = body.length_cm("knee_above_rest")
    reach = np.sqrt(np.maximum(body.length_cm("thigh") ** 2 - (hip[..., 2] - knee_z) ** 2, 0.0))
    knee = hip + reach[..., None] * _plan(setup.number(rule.thigh_out, side), side.sign)
    knee = np.concatenate([knee[..., :2], np.full(knee.shape[:-1], knee_z)[..., None]], axis=-1)
    ankle_z = body.length_cm("ankle_above_rest_on_side")
    level = np.sqrt(np.maximum(body.length_cm("lower_leg") ** 2 - (ankle_z - knee_z) ** 2, 0.0))
    back = _plan(setup.number(rule.shin_back, side), side.sign, ahead=-1.0)
    ankle = knee + level * back + np.array([0.0, 0.0, ankle_z - knee_z])
    femur = femur_axes(hip, knee, ankle, WORLD_FORWARD)
    return _leg(body, side, hip, knee, ankle, femur[..., 0], rows, pelvis.rotation)


def _kneeling(body: Body, side: Side, hip: Array, pelvis: Pelvis, rows: Indices) -> Leg:
    knee_z = pelvis.pad_cm + body.length_cm("knee_above_rest")
    back = body.length_cm("thigh") * sind(pelvis.knee_forward_deg)
    knee = points(-back + 0.0 * hip[..., 0], hip[..., 1], knee_z)
    leg = _leg(body, side, hip, knee, _shin_behind(body, knee), -WORLD_FORWARD, rows, pelvis.rotation)
    return replace(leg, on_knee=True)


def _knee_at_rest(body: Body, hip: Array, rest_z: Array | float, direction: Array) -> tuple[Array, Array]:
    """The knee lying at a height (cm) with its thigh running a level direction, and what is missing to reach it: under
    a hip that stays too high the knee hangs clear of its rest, and the thigh keeps its length."""
    thigh = body.length_cm("thigh")
    short = np.maximum(hip[..., 2] - rest_z - thigh, 0.0)
    level = np.sqrt(np.maximum(thigh**2 - (hip[..., 2] - rest_z - short) ** 2, 0.0))
    over = hip + level[..., None] * direction
    return points(over[..., 0], over[..., 1], rest_z + short), short


def _shin_behind(body: Body, knee: Array, aside_cm: Array | float = 0.0) -> Array:
    """The ankle of a shin lying along the floor behind its knee, the foot on its top."""
    shin, ankle_z = body.length_cm("lower_leg"), TOP_OF_FOOT * body.length_cm("ankle_above_sole")
    level = np.sqrt(np.maximum(shin**2 - (knee[..., 2] - ankle_z) ** 2 - np.square(aside_cm), 0.0))
    return points(knee[..., 0] - level, knee[..., 1] + aside_cm, ankle_z)


def _folded(
    body: Body, side: Side, hip: Array, rule: FoldedLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    direction = _plan(setup.number(rule.apart_deg, side), side.sign)
    knee, short = _knee_at_rest(body, hip, body.length_cm("knee_above_rest"), direction)
    seat = hip[..., 2] - body.length_cm("hip_above_seat")
    beside = np.where(seat < FEET_BESIDE_BELOW_CM, FEET_BESIDE_SHARE * body.stature_cm, 0.0)
    ankle = _shin_behind(body, knee, side.sign * beside)
    leg = _leg(body, side, hip, knee, ankle, -WORLD_FORWARD, rows, pelvis.rotation, kneecap=WORLD_UP)
    leg = replace(leg, least_share=FOLDED_SHARE, reach_shortfall_cm=leg.reach_shortfall_cm + short)
    if rule.behind_knee is None:
        return leg
    between = ROLL_KEEPS * setup.number(rule.behind_knee, side) + FLESH_BEHIND_KNEE_CM
    closes_to = 180.0 - 2 * np.degrees(np.arctan(between / (2 * ROLL_BEHIND_KNEE_CM)))
    return replace(leg, roll_in_way_deg=np.maximum(leg.knee_flexion_deg - closes_to, 0.0))


ROLL_BEHIND_KNEE_CM = 10.0
ROLL_KEEPS = 0.5
FLESH_BEHIND_KNEE_CM = 4.0
"""A roll lies so far behind the knee, is pressed to this part of its height, and has this much of thigh and calf beside
it (judgement)."""

FOLDED_SHARE = clinical("shape.folded_share", "share")
FORCED_SHARE = clinical("shape.forced_share", "share")

FEET_BESIDE_BELOW_CM = 12.0
FEET_BESIDE_SHARE = 0.07
"""On a low seat the feet lie beside the hips, this share of stature outward; on a higher one under it."""


def _stride(
    body: Body, side: Side, hip: Array, rule: StrideLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    plan = setup.number(rule.plan_deg, side)
    thigh, shin, sole = body.length_cm("thigh"), body.length_cm("lower_leg"), body.length_cm("ankle_above_sole")
    hip_z = hip[..., 2]
    if rule.rule == "front" and not rule.straight:
        direction = _plan(plan, side.sign)
        level = np.sqrt(np.maximum(thigh**2 - (hip_z - sole - shin) ** 2, 0.0))
        ankle = hip + level[..., None] * direction
        ankle = np.concatenate([ankle[..., :2], np.full(ankle.shape[:-1], sole)[..., None]], axis=-1)
        circle = _close(body, side, hip, ankle, np.broadcast_to(direction, ankle.shape))
        leg = _finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, direction, pelvis=pelvis.rotation)
        return replace(leg, sole_down=True)
    if rule.rule == "knee_behind":
        rest_z = pelvis.pad_cm + body.length_cm("knee_above_rest")
        knee, short = _knee_at_rest(body, hip, rest_z, _plan(plan, side.sign, ahead=-1.0))
        ankle = _shin_behind(body, knee)
        if rule.shin_lifted:
            ankle = knee + shin * np.array([-sind(SHIN_SHORT_OF_UPRIGHT_DEG), 0.0, cosd(SHIN_SHORT_OF_UPRIGHT_DEG)])
        # Long behind on the top of its foot the leg looks down, wherever the toes point.
        leg = _leg(body, side, hip, knee, ankle, -WORLD_FORWARD, rows, pelvis.rotation, straight_kneecap=-WORLD_UP)
        return replace(leg, on_knee=True, reach_shortfall_cm=leg.reach_shortfall_cm + short)
    ahead = 1.0 if rule.rule == "front" else -1.0
    direction = _plan(plan, side.sign, ahead)
    bent = setup.number(rule.knee_deg, side)
    length_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(bent)
    reach = np.sqrt(np.maximum(length_sq - (hip_z - sole) ** 2, 0.0))
    ankle = hip + reach[..., None] * direction
    ankle = np.concatenate([ankle[..., :2], np.full(ankle.shape[:-1], sole)[..., None]], axis=-1)
    toes = direction if rule.rule == "front" else _plan(plan * 0 + rule.toes_out_deg, side.sign)
    toes = np.broadcast_to(toes, ankle.shape)
    circle = _close(body, side, hip, ankle, toes)
    leg = _finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, toes, pelvis=pelvis.rotation)
    heel_down = rule.rule == "front" or (not rule.heel_lifted and rule.knee_deg == 0.0)
    return replace(leg, sole_down=heel_down)


def place(
    recipe: Recipe,
    side: Side,
    worked: Side,
    body: Body,
    ranges: Ranges,
    setup: SetupBatch,
    on_chair: bool = False,
    lift_cm: float = 0.0,
) -> Leg:
    """One leg by its rule, solved over the distinct values it and the pelvis depend on."""
    rule = recipe.worked_rule if side is worked else recipe.other_rule
    crossed = isinstance(rule, DroppedLeg) and rule.over_thigh is not None
    named = [*recipe.base_values(), *rule.slots(), *(recipe.other_rule.slots() if crossed else ())]
    own, rows = setup.reduced(slot_names(named), side)
    return _placed(rule, recipe, side, worked, body, ranges, own, rows, on_chair, lift_cm)


def _placed(
    rule: LegRule,
    recipe: Recipe,
    side: Side,
    worked: Side,
    body: Body,
    ranges: Ranges,
    own: SetupBatch,
    rows: Indices,
    on_chair: bool,
    lift_cm: float,
) -> Leg:
    pelvis = settle_base(recipe, worked, body, ranges, own)
    hip = pelvis.hip(body, side)
    match rule:
        case PlantedLeg():
            ahead = own.number(rule.ahead_of_level_cm, side)
            follows = None if recipe.pelvis_follows == "still" else pelvis
            apart = own.number(rule.apart_deg, side) if rule.apart_deg != 0.0 else None
            return planted(body, side, hip, own.number(rule.rests_on, side), ahead, rows, follows, apart)
        case LongLeg():
            support = None if rule.knee_rests_on is None else own.number(rule.knee_rests_on, side)
            apart = own.number(rule.apart_deg, side)
            bend = own.number(rule.bend_deg, side)
            return long(body, side, hip, own.number(rule.rests_on, side), support, apart, rows, bend)
        case StandingLeg():
            base = recipe.stands_on
            leg = _standing(body, side, hip, pelvis, rows)
            return replace(leg, sole_down=not (isinstance(base, StandBase) and base.heels_free))
        case GroundLeg():
            return _ground(body, side, hip, rule, own, pelvis, rows)
        case FreeLeg():
            return _free(body, side, hip, rule, own, pelvis, rows)
        case ForcedLeg():
            return _forced(body, side, hip, rule, own, pelvis, rows)
        case KneelingLeg():
            return _kneeling(body, side, hip, pelvis, rows)
        case FoldedLeg():
            return _folded(body, side, hip, rule, own, pelvis, rows)
        case TurnedInLeg():
            return _turned_in(body, side, hip, rule, own, pelvis, rows)
        case StrideLeg():
            return _stride(body, side, hip, rule, own, pelvis, rows)
    other = None
    if rule.over_thigh is not None:
        every = np.arange(own.size, dtype=np.int32)
        other = _placed(recipe.other_rule, recipe, side.other, worked, body, ranges, own, every, on_chair, 0.0)
    return dropped(body, ranges, side, hip, rule, own, rows, other, on_chair, lift_cm, pelvis.rotation)


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
