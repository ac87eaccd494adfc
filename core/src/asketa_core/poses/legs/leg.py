"""A placed leg: its joints, angles and contacts, and what every way of placing it shares."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.angles import HipAngles, femur_axes, hip_angles, knee_flexion
from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP, KneeCircle, knee_circle
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.statics import resting_foot_share
from asketa_core.body.trunk import TrunkPoints
from asketa_core.poses.posture import Indices, LegPoints
from asketa_core.units import Array, Side, norm, stack3

UPRIGHT_PELVIS: Array = np.eye(3)
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


def leg_of(
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


def close(body: Body, side: Side, hip: Array, ankle: Array, knee_toward: Array | None) -> KneeCircle:
    return knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), side.sign, knee_toward)


def finish(
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
