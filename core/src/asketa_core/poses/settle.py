"""Settling a posture: from a recipe, a body, its ranges and a batch of set-ups to joint positions.

Surfaces carry what rests on them, planted legs close with the knee over the toes, dropped knees
fall outward until something stops them, and the wanted lean is shared between pelvis and spine with
the stiffer side deciding. Everything is computed for the whole batch of set-ups and for the low,
middle and high end of the client's ranges at once.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.angles import HipAngles, femur_axes, hip_angles, hip_closing
from asketa_core.body.closing import WORLD_FORWARD, KneeCircle, knee_circle
from asketa_core.body.drop import drop_knee
from asketa_core.body.knee import twist_left
from asketa_core.body.measures import Body, body_norms
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.body.spine import hip_room, share_fold
from asketa_core.body.statics import resting_foot_share
from asketa_core.poses.library import DroppedLeg, Flags, PlantedLeg, Value, Variation
from asketa_core.poses.posture import FlagKey, Key, LegPoints, Posture, Readout, Trouble
from asketa_core.poses.transfers import Technique
from asketa_core.units import SIDES, Array, Mask, Side, asind, sind

CHAIR_EDGE_REST_DEG = 20.0
"""On a chair a thigh let out sideways comes to rest on the seat's edge about this far below level (judgement)."""

SEAT_TOO_HIGH_DEG = 25.0
"""Thighs sloping down more than this slide off the seat: not offered (judgement)."""

SPINE_FLEXION_MOST_DEG = 45.0
"""A seated back rounds no further than this (judgement): shapes that ask for more are not offered."""

TRUNK_MEETS_THIGH_DEG = 140.0
"""Beyond this trunk–thigh angle the thigh would have to pass into the trunk (judgement)."""

REACH_TOLERANCE_CM = 0.5
ABOVE_THIGH = np.array([0.0, 0.0, 1.0])
UPRIGHT_PELVIS = np.eye(3)


@dataclass(frozen=True, slots=True)
class SetupBatch:
    """Numbers of every slot for a batch of set-ups, each (n,), and what the seat is like."""

    values: Mapping[str, Array]
    soft_seat: Mask
    arms: Mask

    @property
    def size(self) -> int:
        return len(self.soft_seat)

    def number(self, value: Value) -> Array:
        """A recipe's length or angle: the slot's column, or the constant, as (n,)."""
        if value == "floor":
            return np.zeros(self.size)
        return self.values[value] if isinstance(value, str) else np.full(self.size, float(value))


@dataclass(frozen=True, slots=True)
class Leg:
    """One closed leg before the pelvis tips: points, angles with the pelvis upright, and the circle
    they came from."""

    points: LegPoints
    circle: KneeCircle
    angles: HipAngles
    stopped_by: Array | None = None


def _points(x: Array | float, y: Array | float, z: Array | float) -> Array:
    x, y, z = np.broadcast_arrays(np.asarray(x, float), np.asarray(y, float), np.asarray(z, float))
    return np.stack([x, y, z], axis=-1)


def _close(body: Body, side: Side, hip: Array, ankle: Array, knee_toward: Array | None) -> KneeCircle:
    return knee_circle(hip, ankle, body.length_cm("thigh"), body.length_cm("lower_leg"), side.sign, knee_toward)


def _finish_leg(side: Side, circle: KneeCircle, ankle: Array, swivel: Array, stopped_by: Array | None = None) -> Leg:
    knee = circle.knee_at(swivel)
    femur = femur_axes(circle.hip, knee, ankle, WORLD_FORWARD)
    angles = hip_angles(UPRIGHT_PELVIS, femur, side.sign)
    toes = femur[..., 0] if stopped_by is not None else np.broadcast_to(WORLD_FORWARD, knee.shape)
    return Leg(LegPoints(circle.hip, knee, ankle, toes), circle, angles, stopped_by)


def _planted(body: Body, side: Side, hip: Array, surface_cm: Array, ahead_of_level_cm: Array) -> Leg:
    """Sole on a surface; knee over the toes. Shapes (1, n)."""
    ankle_z = surface_cm + body.length_cm("ankle_above_sole")
    thigh = body.length_cm("thigh")
    fall = hip[..., 2] - (ankle_z + body.length_cm("lower_leg"))
    level_x = np.sqrt(np.maximum(thigh**2 - fall**2, 0.0))
    ankle = _points(level_x + ahead_of_level_cm, hip[..., 1], ankle_z)
    circle = _close(body, side, hip, ankle, WORLD_FORWARD)
    return _finish_leg(side, circle, ankle, np.zeros(hip.shape[:-1]))


def _ankle_over_thigh(body: Body, other: Leg, other_side: Side, share: float) -> Array:
    """Ankle centre when the ankle lies across the other thigh, just past its outer edge."""
    hip, knee = other.points.hip, other.points.knee
    along = knee - hip
    radius = body.length_cm("thigh_radius_hip") * (1 - share) + body.length_cm("thigh_radius_knee") * share
    axis = along / body.length_cm("thigh")
    off_thigh = ABOVE_THIGH - axis[..., 2:3] * axis
    off_thigh = off_thigh / np.linalg.norm(off_thigh, axis=-1, keepdims=True)
    ankle = hip + share * along + off_thigh * (radius + body.length_cm("ankle_above_rest_on_side"))
    past_edge = _points(0.0, other_side.sign * radius, 0.0)
    return np.asarray(ankle + past_edge)


def _dropped(
    body: Body,
    ranges: Ranges,
    side: Side,
    hip: Array,
    rule: DroppedLeg,
    setup: SetupBatch,
    other: Leg,
    lift_cm: float,
) -> Leg:
    """The knee let out sideways, shapes (3, n): what stops it depends on the client's ranges."""
    if rule.over_thigh is not None:
        ankle = _ankle_over_thigh(body, other, side.other, rule.over_thigh)
    else:
        assert rule.rests_on is not None and rule.ahead is not None and rule.across is not None
        surface = setup.number(rule.rests_on)
        ankle = _points(
            setup.number(rule.ahead),
            hip[..., 1] * (1 - rule.across),
            surface + body.length_cm("ankle_above_rest_on_side"),
        )
    ankle = ankle + np.array([0.0, 0.0, lift_cm])
    circle = _close(body, side, hip, ankle, None)
    turning_out = np.minimum(ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side), setup.number(rule.let_out_deg))
    chair_edge = hip[..., 2] - body.length_cm("thigh") * sind(CHAIR_EDGE_REST_DEG)
    levels = (3, setup.size)
    wide = _broadcast_circle(circle, levels)
    drop = drop_knee(
        wide,
        UPRIGHT_PELVIS[:, 1],
        side.sign,
        turning_out,
        np.broadcast_to(ranges.levels(Quantity.OPEN_ABDUCTION, side), levels),
        np.broadcast_to(chair_edge, levels),
    )
    return _finish_leg(side, wide, np.broadcast_to(ankle, (*levels, 3)), drop.swivel_deg, drop.stopped_by.astype(float))


def _broadcast_circle(circle: KneeCircle, shape: tuple[int, ...]) -> KneeCircle:
    points = {
        name: np.broadcast_to(getattr(circle, name), (*shape, 3))
        for name in ("hip", "axis", "start", "outward", "centre")
    }
    numbers = {
        name: np.broadcast_to(getattr(circle, name), shape)
        for name in (
            "radius_cm",
            "offset_cm",
            "thigh_cm",
            "knee_flexion_deg",
            "reach_shortfall_cm",
            "fold_shortfall_cm",
        )
    }
    return KneeCircle(**points, **numbers)


def _assemble(
    body: Body,
    ranges: Ranges,
    legs: Mapping[Side, Leg],
    lean_deg: Array,
    carries: Mapping[Side, Array | float | None],
    flags: Mapping[FlagKey, Mask],
    worked: Side | None,
    check_seat_height: bool,
    exempt_from_band: bool,
) -> Posture:
    """Share the lean between pelvis and spine and read everything off."""
    n = len(lean_deg)
    spare = [
        hip_room(
            ranges.levels(Quantity.HIP_FLEXION, side),
            ranges.levels(Quantity.STRAIGHT_LEG_RAISE, side),
            leg.circle.knee_flexion_deg,
            leg.angles.abduction_deg,
        )
        - leg.angles.flexion_deg
        for side, leg in legs.items()
    ]
    share = share_fold(lean_deg, np.minimum(*spare), 0.0)
    readouts: dict[Key, Array] = {
        (Readout.SPINE_FLEXION, None): share.spine_flexion_deg,
        (Readout.LUMBAR_FLEXION, None): share.lumbar_flexion_deg,
        (Readout.THORACIC_FLEXION, None): share.thoracic_flexion_deg,
        (Readout.TRUNK_LEAN, None): lean_deg[None, :],
    }
    troubles: dict[tuple[Trouble, Side], Mask] = {}
    amounts: dict[tuple[Trouble, Side], Array] = {}
    masses = body_norms().masses
    leg_masses = (masses["thigh"].fraction, masses["lower_leg"].fraction, masses["foot"].fraction)
    for side, leg in legs.items():
        points, angles = leg.points, leg.angles
        flexion = angles.flexion_deg + share.pitch_deg
        closing = hip_closing(flexion, angles.abduction_deg)
        trunk_thigh = hip_closing(angles.flexion_deg + lean_deg, angles.abduction_deg)
        fall_cm = points.hip[..., 2] - points.knee[..., 2]
        thigh_down = asind(fall_cm / body.length_cm("thigh"))
        carried = carries[side]
        if carried is None:
            toe = points.ankle + body.length_cm("foot") * 0.75 * points.toes
            carried = resting_foot_share(points.hip, points.knee, points.ankle, toe, leg_masses)
        used = [
            100.0 * value / ranges.get(quantity, side).value_deg
            for value, quantity in (
                (closing, Quantity.HIP_FLEXION),
                (angles.external_rotation_deg, Quantity.OPEN_EXTERNAL_ROTATION),
                (angles.abduction_deg, Quantity.OPEN_ABDUCTION),
            )
        ]
        by_name: dict[Readout, Array] = {
            Readout.HIP_FLEXION: flexion,
            Readout.HIP_EXTENSION: -flexion,
            Readout.HIP_ABDUCTION: angles.abduction_deg,
            Readout.HIP_EXTERNAL_ROTATION: angles.external_rotation_deg,
            Readout.HIP_CLOSING: closing,
            Readout.TRUNK_THIGH: trunk_thigh,
            Readout.HIP_BEND: np.maximum(closing, trunk_thigh),
            Readout.HIP_RANGE_USED_PERCENT: np.maximum(np.maximum(used[0], used[1]), used[2]),
            Readout.HIP_ABOVE_KNEE_CM: fall_cm,
            Readout.THIGH_DOWN: thigh_down,
            Readout.KNEE_FLEXION: leg.circle.knee_flexion_deg,
            Readout.KNEE_TWIST: twist_left(
                angles.external_rotation_deg, ranges.levels(Quantity.OPEN_EXTERNAL_ROTATION, side)
            ),
            Readout.KNEE_LOAD_SHARE: np.asarray(carried, float),
        }
        if side is worked:
            by_name[Readout.SHIN_SLOPE] = asind(
                (points.knee[..., 2] - points.ankle[..., 2]) / body.length_cm("lower_leg")
            )
        for name, value in by_name.items():
            readouts[(name, side)] = np.broadcast_to(np.atleast_2d(value), (np.atleast_2d(value).shape[0], n))
        knee_short = leg.circle.knee_flexion_deg - ranges.levels(Quantity.KNEE_FLEXION, side)[1]
        for trouble, amount, beyond in (
            (Trouble.REACH, leg.circle.reach_shortfall_cm, REACH_TOLERANCE_CM),
            (Trouble.FOLD, leg.circle.fold_shortfall_cm, 0.0),
            (Trouble.KNEE_RANGE, knee_short, 0.0),
            (Trouble.SEAT_TOO_HIGH, thigh_down - SEAT_TOO_HIGH_DEG, 0.0 if check_seat_height else np.inf),
            (Trouble.BACK_ROUNDS, share.spine_flexion_deg[1:2] - SPINE_FLEXION_MOST_DEG, 0.0),
            (Trouble.TRUNK_ON_THIGH, trunk_thigh - TRUNK_MEETS_THIGH_DEG, 0.0),
            (Trouble.UNDETERMINED, np.where(angles.near_singular, 1.0, 0.0), 0.5),
        ):
            level = np.broadcast_to(np.atleast_2d(amount), (np.atleast_2d(amount).shape[0], n))
            amounts[(trouble, side)] = level.max(axis=0)
            troubles[(trouble, side)] = np.asarray((level > beyond).any(axis=0))
    worked_leg = legs[worked] if worked is not None else None
    pelvis_centre = (legs[Side.LEFT].points.hip + legs[Side.RIGHT].points.hip) / 2
    return Posture(
        legs={side: leg.points for side, leg in legs.items()},
        pelvis_centre=pelvis_centre,
        pitch_deg=np.broadcast_to(share.pitch_deg, (3, n)),
        spine_flexion_deg=np.broadcast_to(share.spine_flexion_deg, (3, n)),
        lean_deg=lean_deg,
        readouts=readouts,
        flags=flags,
        troubles=troubles,
        trouble_amounts=amounts,
        stopped_by=worked_leg.stopped_by if worked_leg is not None else None,
        exempt_from_band=exempt_from_band,
    )


def _hips(body: Body, seat_cm: Array) -> dict[Side, Array]:
    """Hip joint centres over a seat, (1, n, 3) each: the pelvis starts upright and square."""
    height = (seat_cm + body.length_cm("hip_above_seat"))[None, :]
    return {side: _points(0.0, side.sign * body.length_cm("between_hips") / 2, height) for side in SIDES}


def _flags(named: Flags, worked: Side | None, setup: SetupBatch, needs_arms: bool) -> dict[FlagKey, Mask]:
    yes = np.ones(setup.size, dtype=bool)
    flags: dict[FlagKey, Mask] = {("soft_seat", None): setup.soft_seat}
    if needs_arms:
        flags[("seat_without_arms", None)] = ~setup.arms
    flags.update({(name, None): yes for name in named.overall})
    flags.update({(name, worked): yes for name in named.worked})
    return flags


def settle_pose(
    variation: Variation, side: Side, body: Body, ranges: Ranges, setup: SetupBatch, lift_cm: float = 0.0
) -> Posture:
    """The variation with ``side`` as its worked leg, for every set-up of the batch.

    ``lift_cm`` raises the worked foot above its place: the moment before it is put down.
    """
    recipe = variation.recipe
    hips = _hips(body, setup.number(recipe.seat))
    assert isinstance(recipe.other_leg, PlantedLeg), "the resting leg is planted in every recipe of this grammar"
    other = _planted(
        body,
        side.other,
        hips[side.other],
        setup.number(recipe.other_leg.rests_on),
        setup.number(recipe.other_leg.ahead_of_level_cm),
    )
    assert isinstance(recipe.worked_leg, DroppedLeg)
    worked = _dropped(body, ranges, side, hips[side], recipe.worked_leg, setup, other, lift_cm)
    return _assemble(
        body,
        ranges,
        {side: worked, side.other: other},
        setup.number(recipe.lean_deg),
        {Side.LEFT: None, Side.RIGHT: None},
        _flags(recipe.flags, side, setup, needs_arms=False),
        worked=side,
        check_seat_height=True,
        exempt_from_band=False,
    )


def settle_transfer(
    technique: Technique, variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch
) -> Posture:
    """The body at the moment the seat is taken or left, feet on the floor."""
    hips = _hips(body, setup.number(variation.recipe.seat))
    floor = np.zeros(setup.size)
    legs = {side: _planted(body, side, hips[side], floor, floor + technique.feet[side]) for side in SIDES}
    return _assemble(
        body,
        ranges,
        legs,
        floor + technique.lean_deg,
        dict(technique.carries),
        _flags(Flags(), None, setup, technique.needs_arms),
        worked=None,
        check_seat_height=False,
        exempt_from_band=technique.gentle,
    )


def settle_quiet_sitting(variation: Variation, body: Body, ranges: Ranges, setup: SetupBatch) -> Posture:
    """Sitting upright on the seat with both feet down: where the pose starts from and ends."""
    hips = _hips(body, setup.number(variation.recipe.seat))
    assert isinstance(variation.recipe.other_leg, PlantedLeg)
    surface = setup.number(variation.recipe.other_leg.rests_on)
    legs = {side: _planted(body, side, hips[side], surface, np.zeros(setup.size)) for side in SIDES}
    return _assemble(
        body,
        ranges,
        legs,
        np.zeros(setup.size),
        {Side.LEFT: None, Side.RIGHT: None},
        _flags(Flags(), None, setup, needs_arms=False),
        worked=None,
        check_seat_height=False,
        exempt_from_band=False,
    )
