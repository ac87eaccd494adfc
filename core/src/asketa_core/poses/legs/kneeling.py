"""Legs on their knee, and legs folded under the body."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP
from asketa_core.body.measures import Body
from asketa_core.clinical import clinical
from asketa_core.poses.bases import Pelvis
from asketa_core.poses.legs.leg import Leg, leg_of, points
from asketa_core.poses.legs.seated import plan_direction
from asketa_core.poses.posture import Indices
from asketa_core.poses.recipe import FoldedLeg
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Array, Side, sind

SHIN_SHORT_OF_UPRIGHT_DEG = 10.0
"""A kneeling leg whose foot is drawn up keeps its shin this much short of upright."""


def half_kneeling(body: Body, side: Side, hip: Array, rows: Indices) -> Leg:
    """Knee on the floor straight below the hip, shin along the floor behind. Shapes (1, k)."""
    knee = hip - np.array([0.0, 0.0, body.length_cm("thigh")])
    ankle = knee - np.array([body.length_cm("lower_leg"), 0.0, 0.0])
    return leg_of(body, side, hip, knee, ankle, -WORLD_FORWARD, rows)


TOP_OF_FOOT = 0.5
"""A foot lying on its top holds the ankle at this share of its height above the sole."""


def kneeling(body: Body, side: Side, hip: Array, pelvis: Pelvis, rows: Indices) -> Leg:
    knee_z = pelvis.pad_cm + body.length_cm("knee_above_rest")
    back = body.length_cm("thigh") * sind(pelvis.knee_forward_deg)
    knee = points(-back + 0.0 * hip[..., 0], hip[..., 1], knee_z)
    leg = leg_of(body, side, hip, knee, shin_behind(body, knee), -WORLD_FORWARD, rows, pelvis.rotation)
    return replace(leg, on_knee=True)


def knee_at_rest(body: Body, hip: Array, rest_z: Array | float, direction: Array) -> tuple[Array, Array]:
    """The knee lying at a height (cm) with its thigh running a level direction, and what is missing to reach it: under
    a hip that stays too high the knee hangs clear of its rest, and the thigh keeps its length."""
    thigh = body.length_cm("thigh")
    short = np.maximum(hip[..., 2] - rest_z - thigh, 0.0)
    level = np.sqrt(np.maximum(thigh**2 - (hip[..., 2] - rest_z - short) ** 2, 0.0))
    over = hip + level[..., None] * direction
    return points(over[..., 0], over[..., 1], rest_z + short), short


def shin_behind(body: Body, knee: Array, aside_cm: Array | float = 0.0) -> Array:
    """The ankle of a shin lying along the floor behind its knee, the foot on its top."""
    shin, ankle_z = body.length_cm("lower_leg"), TOP_OF_FOOT * body.length_cm("ankle_above_sole")
    level = np.sqrt(np.maximum(shin**2 - (knee[..., 2] - ankle_z) ** 2 - np.square(aside_cm), 0.0))
    return points(knee[..., 0] - level, knee[..., 1] + aside_cm, ankle_z)


def folded(
    body: Body, side: Side, hip: Array, rule: FoldedLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    direction = plan_direction(setup.number(rule.apart_deg, side), side.sign)
    knee, short = knee_at_rest(body, hip, body.length_cm("knee_above_rest"), direction)
    seat = hip[..., 2] - body.length_cm("hip_above_seat")
    beside = np.where(seat < FEET_BESIDE_BELOW_CM, FEET_BESIDE_SHARE * body.stature_cm, 0.0)
    ankle = shin_behind(body, knee, side.sign * beside)
    leg = leg_of(body, side, hip, knee, ankle, -WORLD_FORWARD, rows, pelvis.rotation, kneecap=WORLD_UP)
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

FEET_BESIDE_BELOW_CM = 12.0

FEET_BESIDE_SHARE = 0.07
"""On a low seat the feet lie beside the hips, this share of stature outward; on a higher one under it."""
