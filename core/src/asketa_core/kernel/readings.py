"""Reading a posture off: what each leg shows on its own, and what needs the trunk and both legs."""

from __future__ import annotations

import math
from typing import Any

from asketa_core.kernel.belly import belly_clearance_cm, floor_clearance_cm
from asketa_core.kernel.codes import Level, Mark, Motion, Read, Upright, Who
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.fields import number, put, vec
from asketa_core.kernel.legs import Placed
from asketa_core.kernel.pelvis import WEDGE_SPAN
from asketa_core.kernel.records import Record
from asketa_core.kernel.shared import LUMBAR_SHARE, TOUCHING
from asketa_core.kernel.trunk import Chain, hip_room, moment_nm, nod_to, pinches_at
from asketa_core.kernel.vectors import acosd, asind, clip, cosd, dot, minus
from asketa_core.kernel.weight import (
    balance_margin_cm,
    centre_of_mass,
    kneecap_share,
    resting_foot_share,
    support_point,
)

KNEE_REFERENCE_M = 0.05
"""Knee moments are shown against body weight at a lever of 5 cm."""

STEPPING_SHARE = 0.9
"""Share of the weight on the leg that steps up, at the moment the other leaves the floor (judgement)."""

SMALLEST_RANGE_DEG = 1.0
"""A range of less counts as this where a share of it is read: any use of it then reads as far too much."""

TWIST_FROM_KNEE_DEG = 25.0
"""A straighter knee takes no twist: the whole leg turns as one."""


@compiled
def percent_of(demand_deg: float, range_deg: float) -> float:
    """A demand as per cent of a range."""
    return 100.0 * demand_deg / max(range_deg, SMALLEST_RANGE_DEG)


@compiled
def read_leg(body: Record, programme: Record, side: int, leg: Placed, out: Record) -> None:
    """One leg as a record: its joints, and what it shows whatever the trunk does and the client's ranges are."""
    rule = programme.leg[side]
    angles = leg.angles
    put(out.hip, leg.hip)
    put(out.knee, leg.knee)
    put(out.ankle, leg.ankle)
    put(out.toes, leg.toes)
    out.flexion, out.abduction = angles.flexion_deg, angles.abduction_deg
    out.rotation, out.near_singular = angles.external_rotation_deg, angles.near_singular
    out.knee_flexion, out.stopped_by = leg.knee_flexion_deg, leg.stopped_by
    out.reach_short, out.fold_short = leg.reach_shortfall_cm, leg.fold_shortfall_cm
    out.idle, out.roll_in_way = leg.idle_cm, leg.roll_in_way_deg
    out.fall = leg.hip.z - leg.knee.z
    # Only a thigh ahead of the hip can slide a sitting body forward.
    out.thigh_down = asind(out.fall / body.thigh) if leg.knee.x > leg.hip.x else -90.0
    if programme.shares_given:
        out.carried = programme.share_left if side == Who.LEFT else programme.share_right
    else:
        share = resting_foot_share(body, leg.hip, leg.knee, leg.ankle, leg.toes)
        out.carried = max(share, rule.least_share)
    out.shin_slope = asind((leg.knee.z - leg.ankle.z) / body.lower_leg)
    out.sole_tilt = asind(dot(minus(leg.knee, leg.ankle), leg.toes) / body.lower_leg)
    out.kneecap = kneecap_share(asind((leg.hip.x - leg.knee.x) / body.thigh))
    out.cos_out = cosd(angles.abduction_deg)


@compiled
def read_range(rom: Any, hip: Record, programme: Record, side: int, level: int, out: Record) -> None:
    """What a leg shows against one end of the client's ranges."""
    rule = programme.leg[side]
    turning_range = rom[side, Motion.OPEN_EXTERNAL_ROTATION, level]
    out.hip_use = percent_of(out.abduction, rom[side, Motion.OPEN_ABDUCTION, level])
    out.opening = max(percent_of(out.rotation, turning_range), out.hip_use)
    # A knee bent by just so much is not yet twisted, whatever rounding says.
    takes_twist = out.knee_flexion > TWIST_FROM_KNEE_DEG + TOUCHING and rule.foot_held
    out.twist = max(0.0, out.rotation - turning_range) if takes_twist else 0.0
    # Turning out beyond the range is left to the knee, flexion to the pelvis, opening to the share of its range that is
    # used: what is left is crossing over and turning in.
    out.beyond_range = 0.0
    if not out.near_singular:
        crossed = -out.abduction - rom[side, Motion.HIP_ADDUCTION, level]
        out.beyond_range = max(crossed, -out.rotation - rom[side, Motion.HIP_INTERNAL_ROTATION, level])
    pinch = math.inf
    if hip.pinches:
        pinch = pinches_at(hip, out.abduction, out.rotation)
    room = hip_room(
        rom[side, Motion.HIP_FLEXION, level],
        rom[side, Motion.STRAIGHT_LEG_RAISE, level],
        out.knee_flexion,
        out.abduction,
        hip.coupling,
        pinch,
    )
    out.room = room - out.flexion
    raised = rom[side, Motion.STRAIGHT_LEG_RAISE, Level.MIDDLE]
    out.hamstrings = max(raised + hip.coupling * out.knee_flexion, 1.0)
    out.behind = -rom[side, Motion.HIP_EXTENSION, level] - out.flexion


@compiled
def put_read(posture: Record, read: int, who: int, level: int, value: float) -> None:
    posture.read[read, who, level] = value
    posture.there[read, who] = 1


@compiled
def show_leg(body: Record, programme: Record, side: int, leg: Record, x: Any, level: int, posture: Record) -> None:
    """What a leg shows on its own, among the read-outs of the posture."""
    rule = programme.leg[side]
    put_read(posture, Read.HIP_ABDUCTION.value, side, level, leg.abduction)
    put_read(posture, Read.HIP_EXTERNAL_ROTATION.value, side, level, leg.rotation)
    put_read(posture, Read.OPENING_USED_PERCENT.value, side, level, leg.opening)
    put_read(posture, Read.HIP_ABOVE_KNEE_CM.value, side, level, leg.fall)
    put_read(posture, Read.KNEE_FLEXION.value, side, level, leg.knee_flexion)
    put_read(posture, Read.KNEE_TWIST.value, side, level, leg.twist)
    # Standing, the trunk decides what a leg carries.
    if programme.upright == Upright.SEAT:
        put_read(posture, Read.KNEE_LOAD_SHARE.value, side, level, leg.carried)
    if programme.reads_shin and side == programme.worked:
        put_read(posture, Read.SHIN_SLOPE.value, side, level, leg.shin_slope)
    if rule.sole_down and not programme.lying:
        wedge = asind(min(number(programme.heels_on, x) / (WEDGE_SPAN * body.foot), 1.0))
        put_read(posture, Read.DORSIFLEXION.value, side, level, leg.sole_tilt - wedge)
    if rule.on_knee:
        put_read(posture, Read.KNEECAP_SHARE.value, side, level, leg.kneecap)


@compiled
def show_sliding(programme: Record, left: Record, right: Record, level: int, posture: Record) -> None:
    """A body slides off its seat only where both thighs hang from it: the less steep one holds."""
    if programme.upright != Upright.SEAT or programme.lying:
        return
    if programme.leg[0].slides and programme.leg[1].slides:
        for side in range(2):
            put_read(posture, Read.THIGH_DOWN.value, side, level, min(left.thigh_down, right.thigh_down))


@compiled
def show_hips(rom: Any, hip: Record, side: int, legs: Any, first: int, end: int, posture: Record) -> None:
    """What one hip closes by from the ``first`` end of the ranges on, with the pelvis tipped and the trunk over it."""
    flexion, trunk, cos_out, closing, trunk_thigh = math.nan, math.nan, math.nan, 0.0, 0.0
    for level in range(first, end):
        leg = legs[level]
        flexed, over = leg.flexion + posture.pitch[level], leg.flexion + posture.lean[level]
        # ``hip_closing``, with the thigh's way out to the side worked out once for the leg. Ends of the ranges that do not
        # differ close alike.
        if flexed != flexion or leg.cos_out != cos_out:
            closing = acosd(cosd(flexed) * leg.cos_out)
        if over != trunk or leg.cos_out != cos_out:
            trunk_thigh = acosd(cosd(over) * leg.cos_out)
        flexion, trunk, cos_out = flexed, over, leg.cos_out
        show_hip(rom, hip, side, leg, flexion, trunk, closing, trunk_thigh, level, posture)


@compiled
def show_hip(
    rom: Any, hip: Record, side: int, leg: Record, flexion: float, trunk: float, closing: float, trunk_thigh: float,
    level: int, posture: Record,
) -> None:  # fmt: skip
    """The same at one end: the flexion of the hip, and that of the trunk over the thigh; what either closes it by."""
    # A leg behind the body opens the hip: what closes it is flexion, of the pelvis or of the trunk.
    bend = max(closing, trunk_thigh) if flexion > 0 or trunk > 0 else 0.0
    used = percent_of(closing, rom[side, Motion.HIP_FLEXION, level]) if flexion > 0 else 0.0
    put_read(posture, Read.HIP_FLEXION.value, side, level, flexion)
    put_read(posture, Read.HIP_EXTENSION.value, side, level, -flexion)
    put_read(posture, Read.HIP_CLOSING.value, side, level, closing)
    put_read(posture, Read.TRUNK_THIGH.value, side, level, trunk_thigh)
    put_read(posture, Read.HIP_BEND.value, side, level, bend)
    put_read(posture, Read.HAMSTRING_USED_PERCENT.value, side, level, 100.0 * max(flexion, 0.0) / leg.hamstrings)
    put_read(posture, Read.HIP_RANGE_USED_PERCENT.value, side, level, max(used, leg.opening))
    put_read(posture, Read.HIP_USE_PERCENT.value, side, level, max(used, leg.hip_use))
    if hip.pinches:
        pinch = pinches_at(hip, leg.abduction, leg.rotation)
        put_read(posture, Read.GROIN_ROOM.value, side, level, pinch - flexion)


@compiled
def show_upper(
    programme: Record, x: Any, pitch: float, flexion: float, lean: float, level: int, posture: Record
) -> None:
    """What the trunk and arms show on their own."""
    whole = Who.WHOLE.value
    put_read(posture, Read.SPINE_FLEXION.value, whole, level, flexion)
    put_read(posture, Read.SPINE_EXTENSION.value, whole, level, -flexion)
    put_read(posture, Read.LUMBAR_FLEXION.value, whole, level, LUMBAR_SHARE * (lean - pitch))
    put_read(posture, Read.THORACIC_FLEXION.value, whole, level, (1 - LUMBAR_SHARE) * (lean - pitch))
    put_read(posture, Read.TRUNK_LEAN.value, whole, level, lean)
    roll, bend = number(programme.roll, x), number(programme.side_bend, x)
    put_read(posture, Read.SPINE_ROTATION.value, whole, level, abs(number(programme.turn, x)))
    aside = bend if programme.lying else max(bend, abs(roll))
    put_read(posture, Read.SIDE_BEND.value, whole, level, aside)
    if programme.one_hand_down:
        # The arm that reaches up beside a trunk that comes over is raised the less the further it comes.
        worked = programme.worked
        put_read(posture, Read.SHOULDER_ELEVATION.value, worked, level, bend + roll)
        put_read(posture, Read.SHOULDER_ELEVATION.value, 1 - worked, level, 180.0 - (bend + roll))
    else:
        put_read(posture, Read.SHOULDER_ELEVATION.value, whole, level, programme.raised_arms)
    put_read(posture, Read.HANDS_SHARE.value, whole, level, programme.carry)
    put_read(posture, Read.HOLD_MINUTES.value, whole, level, programme.minutes)


@compiled
def show_minutes(programme: Record, some_flat: bool, level: int, posture: Record) -> None:
    """How long the body lies flat or stands, where it does."""
    whole = Who.WHOLE.value
    if some_flat:
        flat = posture.marks[Mark.SUPINE, whole]
        put_read(posture, Read.SUPINE_MINUTES.value, whole, level, programme.minutes * flat)
    if programme.stands:
        put_read(posture, Read.STANDING_MINUTES.value, whole, level, programme.minutes)


@compiled
def show_trunk(
    body: Record, programme: Record, x: Any, left: Record, right: Record, chain: Chain, lean: float, level: int,
    posture: Record,
) -> None:  # fmt: skip
    """What needs the trunk over both legs: bending moment, a head on its support, the gap between the knees, the belly."""
    whole = Who.WHOLE.value
    # Sideways only: one knee ahead of the other spreads nothing.
    gap = abs(left.knee.y - right.knee.y) - 2 * body.thigh_radius_knee
    put_read(posture, Read.KNEE_GAP_CM.value, whole, level, gap)
    if not programme.lying:
        moment = moment_nm(body, chain, lean, programme.carry, programme.head_rests != 0)
        put_read(posture, Read.SPINE_MOMENT_RATIO.value, whole, level, max(moment, 0.0) / body.reference_moment)
    if programme.head_supported:
        nod = nod_to(body, chain.c7.z, lean, number(programme.head_on, x), programme.head_on_arms != 0)
        put_read(posture, Read.NECK_BEND.value, whole, level, nod.bend_deg)
        put_read(posture, Read.HEAD_MISSES_CM.value, whole, level, nod.misses_cm)
    if programme.upright != Upright.SEAT:
        show_weight(body, programme, left, right, chain, level, posture)


@compiled
def show_belly(
    body: Record, programme: Record, side: int, leg: Record, chain: Chain, pitch: float, lean: float, level: int,
    posture: Record,
) -> None:  # fmt: skip
    """How near the belly comes to one thigh, and sitting or standing to the floor."""
    # The belly leans with the middle of the low back.
    lumbar_lean = pitch + LUMBAR_SHARE * LUMBAR_SHARE * (lean - pitch)
    clearance = belly_clearance_cm(body, chain, lumbar_lean, vec(leg.hip), vec(leg.knee))
    if not programme.lying:
        clearance = min(clearance, floor_clearance_cm(body, chain, lumbar_lean))
    put_read(posture, Read.BELLY_CLEARANCE_CM.value, side, level, clearance)


@compiled
def show_weight(
    body: Record, programme: Record, left: Record, right: Record, chain: Chain, level: int, posture: Record
) -> None:
    """How standing or kneeling weight is shared, where it falls, and what the knees hold against it."""
    carried = min(programme.carry + programme.seat_carries, 1.0)
    com = centre_of_mass(body, left, right, chain)
    under_left = support_point(left, programme.leg[0].on_knee != 0)
    under_right = support_point(right, programme.leg[1].on_knee != 0)
    dx, dy = under_left.x - under_right.x, under_left.y - under_right.y
    span = max(dx * dx + dy * dy, 1e-6)
    toward_left = clip(((com.x - under_right.x) * dx + (com.y - under_right.y) * dy) / span, 0.0, 1.0)
    if programme.one_leg >= 0:
        toward_left = 1.0 if programme.one_leg == Who.LEFT else 0.0
    if programme.steps_up >= 0:
        toward_left = STEPPING_SHARE if programme.steps_up == Who.LEFT else 1 - STEPPING_SHARE
    for side in range(2):
        share = toward_left if side == 0 else 1 - toward_left
        leg, under_x = (left, under_left.x) if side == 0 else (right, under_right.x)
        show_knee_load(side, leg, under_x, (1 - carried) * share, level, posture)
    on_left = programme.one_leg != Who.RIGHT
    on_right = programme.one_leg != Who.LEFT
    soles_down = (not on_left or programme.leg[0].sole_down) and (not on_right or programme.leg[1].sole_down)
    if programme.upright == Upright.FEET and carried == 0.0 and soles_down:
        margin = balance_margin_cm(body, left, right, on_left, on_right, com)
        put_read(posture, Read.BALANCE_MARGIN_CM.value, Who.WHOLE.value, level, margin)


@compiled
def show_knee_load(side: int, leg: Record, under_x: float, share: float, level: int, posture: Record) -> None:
    put_read(posture, Read.KNEE_LOAD_SHARE.value, side, level, share)
    lever_m = abs(leg.knee.x - under_x) / 100
    put_read(posture, Read.KNEE_MOMENT_RATIO.value, side, level, share * lever_m / KNEE_REFERENCE_M)
