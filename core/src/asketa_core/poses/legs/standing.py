"""Legs that stand or stride."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from asketa_core.body.closing import WORLD_FORWARD, WORLD_UP
from asketa_core.body.measures import Body
from asketa_core.poses.bases import Pelvis
from asketa_core.poses.legs.kneeling import SHIN_SHORT_OF_UPRIGHT_DEG, knee_at_rest, shin_behind
from asketa_core.poses.legs.leg import Leg, close, finish, leg_of, points
from asketa_core.poses.legs.seated import plan_direction
from asketa_core.poses.posture import Indices
from asketa_core.poses.recipe import StrideLeg
from asketa_core.poses.setups import SetupBatch
from asketa_core.units import Array, Side, cosd, sind


def standing(body: Body, side: Side, hip: Array, pelvis: Pelvis, rows: Indices) -> Leg:
    ankle_z = body.length_cm("ankle_above_sole") + 0.75 * pelvis.heel_lift_cm
    ankle = points(pelvis.ankle_x_cm, hip[..., 1] + side.sign * pelvis.apart_cm, ankle_z)
    toes = np.broadcast_to(plan_direction(pelvis.toes_out_deg, side.sign), ankle.shape)
    circle = close(body, side, np.broadcast_to(hip, ankle.shape), ankle, toes)
    leg = finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, toes, pelvis=pelvis.rotation)
    return replace(leg, sole_down=True)


def stride(
    body: Body, side: Side, hip: Array, rule: StrideLeg, setup: SetupBatch, pelvis: Pelvis, rows: Indices
) -> Leg:
    plan = setup.number(rule.plan_deg, side)
    thigh, shin, sole = body.length_cm("thigh"), body.length_cm("lower_leg"), body.length_cm("ankle_above_sole")
    hip_z = hip[..., 2]
    if rule.rule == "front" and not rule.straight:
        direction = plan_direction(plan, side.sign)
        level = np.sqrt(np.maximum(thigh**2 - (hip_z - sole - shin) ** 2, 0.0))
        ankle = hip + level[..., None] * direction
        ankle = np.concatenate([ankle[..., :2], np.full(ankle.shape[:-1], sole)[..., None]], axis=-1)
        circle = close(body, side, hip, ankle, np.broadcast_to(direction, ankle.shape))
        leg = finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, direction, pelvis=pelvis.rotation)
        return replace(leg, sole_down=True)
    if rule.rule == "knee_behind":
        rest_z = pelvis.pad_cm + body.length_cm("knee_above_rest")
        knee, short = knee_at_rest(body, hip, rest_z, plan_direction(plan, side.sign, ahead=-1.0))
        ankle = shin_behind(body, knee)
        if rule.shin_lifted:
            ankle = knee + shin * np.array([-sind(SHIN_SHORT_OF_UPRIGHT_DEG), 0.0, cosd(SHIN_SHORT_OF_UPRIGHT_DEG)])
        # Long behind on the top of its foot the leg looks down, wherever the toes point.
        leg = leg_of(body, side, hip, knee, ankle, -WORLD_FORWARD, rows, pelvis.rotation, straight_kneecap=-WORLD_UP)
        return replace(leg, on_knee=True, reach_shortfall_cm=leg.reach_shortfall_cm + short)
    ahead = 1.0 if rule.rule == "front" else -1.0
    direction = plan_direction(plan, side.sign, ahead)
    bent = setup.number(rule.knee_deg, side)
    length_sq = thigh**2 + shin**2 + 2 * thigh * shin * cosd(bent)
    reach = np.sqrt(np.maximum(length_sq - (hip_z - sole) ** 2, 0.0))
    ankle = hip + reach[..., None] * direction
    ankle = np.concatenate([ankle[..., :2], np.full(ankle.shape[:-1], sole)[..., None]], axis=-1)
    toes = direction if rule.rule == "front" else plan_direction(plan * 0 + rule.toes_out_deg, side.sign)
    toes = np.broadcast_to(toes, ankle.shape)
    circle = close(body, side, hip, ankle, toes)
    leg = finish(side, circle, ankle, np.zeros(ankle.shape[:-1]), rows, toes, pelvis=pelvis.rotation)
    heel_down = rule.rule == "front" or (not rule.heel_lifted and rule.knee_deg == 0.0)
    return replace(leg, sole_down=heel_down)
