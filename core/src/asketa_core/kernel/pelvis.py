"""Where the pelvis is: on a stack, over the feet, over a long stance, or over the knees.

The trunk's lean is worked out here too where it is not given: from balance over the feet, or from how far what is carried
reaches down to its support.
"""

from __future__ import annotations

import math
from typing import Any, NamedTuple

from asketa_core.kernel.closing import knee_circle
from asketa_core.kernel.codes import Base, Lean, Motion
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.fields import number
from asketa_core.kernel.records import Record
from asketa_core.kernel.space import FORWARD, Axes, Vec
from asketa_core.kernel.trunk import comes_down, straight_lean
from asketa_core.kernel.vectors import asind, atan2d, clip, cosd, root, rotated, sind

SPARE_DORSIFLEXION_DEG = 5.0
SHIN_FORWARD_MOST_DEG = 30.0
"""In a squat the shins come forward as far as the ankles allow, less a little, and no further than this (judgement)."""

BALANCE_ROUNDS = 8
WEDGE_SPAN = 0.73
"""Part of the foot's length between a lifted heel and the ball."""

HOLDING_SHARE = 0.15
HOLDING_HEIGHT = 0.5
"""Hands that hold on pull with this share of body weight, at this share of stature above the floor (judgement)."""

THIGH_RESTS_AT = 0.3
"""A front thigh lies on what is under it so far down from the hip (judgement)."""


class Pelvis(NamedTuple):
    """The pelvis before it tips. ``hip_z_cm`` is the height of the worked hip; ``ankle_x_cm`` where standing ankles are
    against the hips; ``roll_deg`` toward the worked side, ``yaw_deg`` turned toward it; ``unbalanced_deg`` and
    ``out_of_reach_cm`` what the base itself cannot meet."""

    hip_z_cm: float
    lean_deg: float
    roll_deg: float
    yaw_deg: float
    ankle_x_cm: float
    apart_cm: float
    toes_out_deg: float
    heel_lift_cm: float
    knee_forward_deg: float
    pad_cm: float
    unbalanced_deg: float
    out_of_reach_cm: float


class Hips(NamedTuple):
    """What a base comes to: how high the hips are over where the ankles are, and the lean that goes with it."""

    hip_z_cm: float
    lean_deg: float
    ankle_x_cm: float
    unbalanced_deg: float
    out_of_reach_cm: float


@compiled
def axes_of(pelvis: Pelvis, worked_sign: float) -> Axes:
    """Axes of the pelvis with no pitch."""
    return rotated(0.0, -worked_sign * pelvis.roll_deg, worked_sign * pelvis.yaw_deg)


@compiled
def hip_of(body: Record, pelvis: Pelvis, side_sign: float, worked_sign: float) -> Vec:
    """One hip joint centre before the pelvis follows a turn: where feet and knees are placed from. Rolled, the worked side
    stays where it rests."""
    half = body.between_hips / 2
    rise = 0.0 if side_sign == worked_sign else 2 * half * sind(pelvis.roll_deg)
    return Vec(0.0, side_sign * half * cosd(pelvis.roll_deg), pelvis.hip_z_cm + rise)


@compiled
def turned(pelvis: Pelvis, worked_sign: float, hip: Vec) -> Vec:
    """Where a hip comes to when the pelvis follows a turn toward the worked side."""
    turn = worked_sign * pelvis.yaw_deg
    return Vec(hip.x * cosd(turn) - hip.y * sind(turn), hip.x * sind(turn) + hip.y * cosd(turn), hip.z)


@compiled
def settle_base(body: Record, rom: Any, programme: Record, x: Any, level: int) -> Pelvis:
    """The pelvis of a recipe in one set-up; only leaning over the feet depends on the client's ranges."""
    hips = hips_of(body, rom, programme, x, level)
    return Pelvis(
        hips.hip_z_cm,
        hips.lean_deg,
        number(programme.roll, x),
        number(programme.turn, x) * programme.follows,
        hips.ankle_x_cm,
        number(programme.apart, x),
        number(programme.toes_out, x),
        number(programme.heels_on, x),
        number(programme.thigh_forward, x),
        number(programme.pad, x),
        hips.unbalanced_deg,
        hips.out_of_reach_cm,
    )


@compiled
def hips_of(body: Record, rom: Any, programme: Record, x: Any, level: int) -> Hips:
    base = programme.stands_by
    if base == Base.STAND_LEANING:
        return lean_over_feet(body, rom, programme, x, level)
    if base == Base.STAND_KNEES or base == Base.STAND_HEIGHT:
        return over_feet(body, programme, x)
    if base == Base.SIT:
        hip_z = number(programme.rests_on, x) + number(programme.raised, x) + body.hip_above_seat
    elif base == Base.STRIDE_STANCE:
        half = number(programme.stance, x) / 2
        leg = body.thigh + body.lower_leg
        hip_z = body.ankle_above_sole + math.sqrt(max(leg**2 - half**2, 1.0))
    elif base == Base.STRIDE_THIGH_ON:
        hip_z = hip_over_thigh(body, number(programme.thigh_on, x), body.ankle_above_sole + body.lower_leg)
    elif base == Base.STRIDE_THIGH_DOWN:
        slope = sind(number(programme.thigh_down, x))
        hip_z = body.ankle_above_sole + body.lower_leg + body.thigh * slope
    else:
        upright = body.thigh * cosd(number(programme.thigh_forward, x))
        hip_z = number(programme.pad, x) + body.knee_above_rest + upright
    return Hips(hip_z, given_lean(body, programme, x, hip_z), 0.0, 0.0, 0.0)


@compiled
def hip_over_thigh(body: Record, support_cm: float, knee_z_cm: float) -> float:
    """Height of the hip of a thigh that lies on a support and leads to a knee of some height."""
    at = THIGH_RESTS_AT
    radius = body.thigh_radius_hip * (1 - at) + body.thigh_radius_knee * at
    return float((support_cm + radius - at * knee_z_cm) / (1 - at))


@compiled
def given_lean(body: Record, programme: Record, x: Any, hip_z_cm: float) -> float:
    """The lean as given, of a back raised so far from lying, or as deep as what is carried asks of a straight trunk."""
    if programme.lean == Lean.RECLINED:
        return number(programme.recline, x) - 90.0 - asind(number(programme.raised, x) / body.trunk)
    if programme.lean == Lean.TO_SUPPORT:
        down = comes_down(body, programme.carried, number(programme.support, x))
        return straight_lean(body, down, hip_z_cm)
    return number(programme.lean_at, x)


@compiled
def over_feet(body: Record, programme: Record, x: Any) -> Hips:
    """Standing: the hips by the bend of the knees or by a height, the ankles where balance or a hold puts them."""
    ankle_x = number(programme.ankle_x, x)
    ankle_z = body.ankle_above_sole + 0.75 * number(programme.heels_on, x)
    if programme.balances_hips:
        ankle_x = balanced_ankles(body, programme, x, ankle_x, ankle_z)
    hip_z = hips_over(body, programme, x, ankle_x, ankle_z)
    lean = given_lean(body, programme, x, hip_z)
    if programme.balances_hips:
        lean = as_one(lean, ankle_x, hip_z - ankle_z)
    return Hips(hip_z, lean, ankle_x, 0.0, 0.0)


@compiled
def hips_over(body: Record, programme: Record, x: Any, ankle_x_cm: float, ankle_z_cm: float) -> float:
    """Height of the hips over ankles this far ahead of them."""
    if programme.stands_by == Base.STAND_HEIGHT:
        return number(programme.hips_on, x) + body.hip_above_seat
    thigh, shin = body.thigh, body.lower_leg
    reach_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(number(programme.knee, x))
    return ankle_z_cm + math.sqrt(max(reach_sq - ankle_x_cm**2 - number(programme.apart, x) ** 2, 1.0))


@compiled
def as_one(lean_deg: float, ankle_x_cm: float, leg_cm: float) -> float:
    """The lean of a trunk that follows its legs: standing upright, legs and trunk lean forward over the feet as one, so
    that the hip stays at its zero. Legs that lean back carry the trunk where it was asked to be."""
    return max(lean_deg, atan2d(-ankle_x_cm, leg_cm))


@compiled
def balanced_ankles(body: Record, programme: Record, x: Any, ankle_x_cm: float, ankle_z_cm: float) -> float:
    """Where the ankles must be so that the weight is over the middle of the feet under the given lean.

    The legs move little of the mass, so the plain iteration closes quickly.
    """
    carried = 1.0 - programme.carry
    for _ in range(BALANCE_ROUNDS):
        hip_z = hips_over(body, programme, x, ankle_x_cm, ankle_z_cm)
        lean = as_one(given_lean(body, programme, x, hip_z), ankle_x_cm, hip_z - ankle_z_cm)
        legs = legs_moment(body, knee_over_toes(body, ankle_x_cm, ankle_z_cm, hip_z), ankle_x_cm)
        mass = carried * body.upper_mass + legs_mass(body)
        com = (carried * body.upper_lever * sind(lean) + legs) / mass
        ankle_x_cm = com - 0.25 * body.foot
    return ankle_x_cm


@compiled
def knee_over_toes(body: Record, ankle_x_cm: float, ankle_z_cm: float, hip_z_cm: float) -> float:
    """Forward distance of a knee over its toes from the hips."""
    ankle = Vec(ankle_x_cm, 0.0, ankle_z_cm)
    circle = knee_circle(Vec(0.0, 0.0, hip_z_cm), ankle, body.thigh, body.lower_leg, 1.0, FORWARD)
    return circle.centre.x + circle.radius_cm * circle.start.x


@compiled
def legs_mass(body: Record) -> float:
    """Mass fraction of both legs."""
    return float(2 * (body.thigh_mass + body.lower_leg_mass + body.foot_mass))


@compiled
def legs_moment(body: Record, knee_x_cm: float, ankle_x_cm: float) -> float:
    """Sum over both legs of mass fraction × forward distance from the hips."""
    toe_x = ankle_x_cm + 0.25 * body.foot
    shin_x = knee_x_cm + body.lower_leg_centre * (ankle_x_cm - knee_x_cm)
    thigh = body.thigh_mass * body.thigh_centre * knee_x_cm
    return float(2 * (thigh + body.lower_leg_mass * shin_x + body.foot_mass * toe_x))


@compiled
def lean_over_feet(body: Record, rom: Any, programme: Record, x: Any, level: int) -> Hips:
    """Hips at a height, shins as far forward as the ankles allow, the trunk leaning until the weight is over the middle of
    the feet. What balance cannot find is missing, in degrees beyond upright-to-level."""
    thigh, shin, foot = body.thigh, body.lower_leg, body.foot
    heel_lift = number(programme.heels_on, x)
    ankle_z = body.ankle_above_sole + 0.75 * heel_lift
    hip_z = number(programme.hips_on, x) + body.hip_above_seat
    allowed = min(rom[0, Motion.PLANTED_DORSIFLEXION, level], rom[1, Motion.PLANTED_DORSIFLEXION, level])
    wedge = asind(min(heel_lift / (WEDGE_SPAN * foot), 1.0))
    forward = clip(allowed - SPARE_DORSIFLEXION_DEG + wedge, 0.0, SHIN_FORWARD_MOST_DEG)
    if programme.shins_bounded:
        forward = min(forward, number(programme.shins, x))
    knee_z = ankle_z + shin * cosd(forward)
    knee_x = root(thigh**2 - (hip_z - knee_z) ** 2)
    ankle_x = knee_x - shin * sind(forward)
    carried = 1.0 - programme.carry
    # A seat that still carries, and a support the hands hold on to, catch a body whose weight is behind its feet.
    over = (1.0 - programme.seat_carries) * (ankle_x + 0.25 * foot)
    if programme.holds_on:
        over = over - HOLDING_SHARE * HOLDING_HEIGHT * body.stature
    wanted = over * (carried * body.upper_mass + legs_mass(body)) - legs_moment(body, knee_x, ankle_x)
    lever = carried * body.upper_lever
    return Hips(
        hip_z,
        max(asind(wanted / lever), 0.0),
        ankle_x,
        max(wanted / lever - 1.0, 0.0) * 90.0,
        max(abs(hip_z - knee_z) - thigh, 0.0),
    )
