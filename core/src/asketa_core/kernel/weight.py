"""Weight: what a resting leg passes on, where the body's weight falls, and how far inside the feet."""

from __future__ import annotations

import math
from typing import NamedTuple

from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.fields import vec
from asketa_core.kernel.records import Record
from asketa_core.kernel.space import Vec
from asketa_core.kernel.trunk import Chain
from asketa_core.kernel.vectors import between, clip

PART_CENTRE = 0.433
"""How far down a thigh or shin its weight is taken to be when a resting leg is balanced about the hip."""


@compiled
def lever_share(hip: Vec, ankle: Vec, point: Vec) -> float:
    """How far from hip to foot a point lies, seen from above, as a share between 0 and 1."""
    ax, ay = ankle.x - hip.x, ankle.y - hip.y
    reach_sq = max(ax * ax + ay * ay, 1e-9)
    return clip(((point.x - hip.x) * ax + (point.y - hip.y) * ay) / reach_sq, 0.0, 1.0)


@compiled
def resting_foot_share(body: Record, hip: Vec, knee: Vec, ankle: Vec, toes: Vec) -> float:
    """Share of body weight a resting foot carries, by the lever rule about the hip.

    The leg hangs between hip and foot; what its parts weigh is divided by their horizontal distances from the hip. A foot
    straight below the hip carries the lower leg and foot and half the thigh.
    """
    ax, ay = ankle.x - hip.x, ankle.y - hip.y
    if ax * ax + ay * ay <= 1.0:
        return float(body.thigh_mass / 2 + body.lower_leg_mass + body.foot_mass)
    # The middle of the foot: half way from the ankle to the toes.
    ahead = 0.5 * 0.75 * body.foot
    foot = Vec(ankle.x + ahead * toes.x, ankle.y + ahead * toes.y, ankle.z + ahead * toes.z)
    return float(
        body.thigh_mass * lever_share(hip, ankle, between(hip, knee, PART_CENTRE))
        + body.lower_leg_mass * lever_share(hip, ankle, between(knee, ankle, PART_CENTRE))
        + body.foot_mass * lever_share(hip, ankle, foot)
    )


@compiled
def kneecap_share(thigh_lean_deg: float) -> float:
    """How much of a kneeling leg's load the kneecap takes, by how far the thigh leans forward of vertical (judgement): most
    at 25°, then the load rolls onto the thigh above it."""
    if thigh_lean_deg <= -20.0:
        return 0.1
    if thigh_lean_deg <= 0.0:
        return 0.1 + 0.3 * (thigh_lean_deg + 20.0) / 20.0
    if thigh_lean_deg <= 25.0:
        return 0.4 + 0.6 * thigh_lean_deg / 25.0
    if thigh_lean_deg <= 45.0:
        return 1.0 - 0.6 * (thigh_lean_deg - 25.0) / 20.0
    if thigh_lean_deg <= 70.0:
        return 0.4 - 0.3 * (thigh_lean_deg - 45.0) / 25.0
    return 0.1


class FloorPoint(NamedTuple):
    """A point on the floor, cm."""

    x: float
    y: float


@compiled
def leg_moments(body: Record, leg: Record) -> FloorPoint:
    """Sum over one leg's parts of mass fraction × place on the floor."""
    hip, knee, ankle = vec(leg.hip), vec(leg.knee), vec(leg.ankle)
    thigh = between(hip, knee, body.thigh_centre)
    shin = between(knee, ankle, body.lower_leg_centre)
    ahead = 0.25 * body.foot
    foot_x, foot_y = ankle.x + ahead * leg.toes.x, ankle.y + ahead * leg.toes.y
    return FloorPoint(
        body.thigh_mass * thigh.x + body.lower_leg_mass * shin.x + body.foot_mass * foot_x,
        body.thigh_mass * thigh.y + body.lower_leg_mass * shin.y + body.foot_mass * foot_y,
    )


@compiled
def centre_of_mass(body: Record, left: Record, right: Record, chain: Chain) -> FloorPoint:
    """Floor point of the body's centre of mass; arms hang at the shoulders."""
    legs_mass = 2 * (body.thigh_mass + body.lower_leg_mass + body.foot_mass)
    total = (
        body.pelvis_mass + body.lumbar_mass + body.thorax_mass + body.head_and_neck_mass + body.arms_mass + legs_mass
    )
    x = (
        body.pelvis_mass * (chain.pelvis.x + chain.l5s1.x) / 2
        + body.lumbar_mass * (chain.l5s1.x + chain.t12.x) / 2
        + body.thorax_mass * (chain.t12.x + chain.c7.x) / 2
        + body.head_and_neck_mass * (chain.c7.x + body.head_and_neck_centre * (chain.top.x - chain.c7.x))
        + body.arms_mass * (chain.c7.x + 0.2 * (chain.t12.x - chain.c7.x))
    )
    of_left, of_right = leg_moments(body, left), leg_moments(body, right)
    return FloorPoint((x + of_left.x + of_right.x) / total, (of_left.y + of_right.y) / total)


SOLE_MIDDLE_CM = 6.0
"""How far the middle of the sole lies ahead of the ankle."""

SOLE_HALF_BREADTH_SHARE = 0.027
"""Half the breadth of a foot as a share of stature."""

HEEL_SHARE, TOE_SHARE = -0.25, 0.75
"""Where a foot ends behind and ahead of its ankle, as shares of its length."""

COSINES = tuple(math.cos(math.radians(step * 5.0)) for step in range(72))
SINES = tuple(math.sin(math.radians(step * 5.0)) for step in range(72))
"""The edge of the base of support is felt for in directions 5° apart, which overstates the margin by less than a tenth of a
centimetre for feet."""


@compiled
def support_point(leg: Record, on_knee: bool) -> Vec:
    """Where a leg carries weight: under the sole's middle, or under the knee."""
    if on_knee:
        return vec(leg.knee)
    return Vec(
        leg.ankle.x + SOLE_MIDDLE_CM * leg.toes.x,
        leg.ankle.y + SOLE_MIDDLE_CM * leg.toes.y,
        leg.ankle.z + SOLE_MIDDLE_CM * leg.toes.z,
    )


@compiled
def sole_reaches(body: Record, leg: Record, cos: float, sin: float) -> float:
    """How far a planted sole reaches in a direction on the floor: the furthest of its four corners."""
    half = SOLE_HALF_BREADTH_SHARE * body.stature
    ahead = leg.toes.x * cos + leg.toes.y * sin
    aside = leg.toes.x * sin - leg.toes.y * cos
    from_ankle = max(HEEL_SHARE * body.foot * ahead, TOE_SHARE * body.foot * ahead) + half * abs(aside)
    return float(leg.ankle.x * cos + leg.ankle.y * sin + from_ankle)


@compiled
def balance_margin_cm(
    body: Record, left: Record, right: Record, on_left: bool, on_right: bool, com: FloorPoint
) -> float:
    """Distance in cm from the body's weight to the edge of the soles it stands on, positive inside; outside it is the
    distance to the nearest supporting line."""
    nearest = math.inf
    for step in range(len(COSINES)):
        cos, sin = COSINES[step], SINES[step]
        reach = -math.inf
        if on_left:
            reach = sole_reaches(body, left, cos, sin)
        if on_right:
            reach = max(reach, sole_reaches(body, right, cos, sin))
        nearest = min(nearest, reach - com.x * cos - com.y * sin)
    return nearest
