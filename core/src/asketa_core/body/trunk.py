"""The trunk as a chain in the plane of its lean: where its joints are, and what they have to carry."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.body.measures import Body, body_norms
from asketa_core.units import Array, cosd, sind

GRAVITY = 9.81

HEAD_FOLLOWS = 0.8
HEAD_LAGS_MOST_DEG = 12.0
"""Neck and head share most of the upper trunk's lean and lag at most this much: people look ahead of
themselves, and lying they rest their head."""


@dataclass(frozen=True, slots=True)
class TrunkPoints:
    """Joints up the spine in the plane of the lean: each (…, 2) as forward and up in cm, and the lean
    of the segment above in degrees where it is needed for drawing."""

    pelvis: Array
    l5s1: Array
    t12: Array
    c7: Array
    top: Array


def along(lean_deg: Array | float) -> Array:
    """Upward direction (…, 2) of a segment leaning forward by this much."""
    return np.stack(np.broadcast_arrays(sind(lean_deg), cosd(lean_deg)), axis=-1)


def trunk_points(
    body: Body, pelvis: Array, pitch_deg: Array, lumbar_flexion_deg: Array, lean_deg: Array
) -> TrunkPoints:
    """The chain from the pelvis up; ``pelvis`` (…, 2) forward and up. Each segment takes the mean of the
    leans at its ends."""
    lumbar_lean = pitch_deg + lumbar_flexion_deg
    l5s1 = pelvis + body.length_cm("hip_to_l5s1") * along(pitch_deg)
    t12 = l5s1 + body.length_cm("lumbar") * along((pitch_deg + lumbar_lean) / 2)
    c7 = t12 + body.length_cm("thorax") * along((lumbar_lean + lean_deg) / 2)
    top = c7 + body.length_cm("neck_and_head") * along(head_lean_deg(lean_deg))
    return TrunkPoints(pelvis, l5s1, t12, c7, top)


def head_lean_deg(lean_deg: Array) -> Array:
    lag = np.minimum((1 - HEAD_FOLLOWS) * np.abs(lean_deg), HEAD_LAGS_MOST_DEG)
    return np.asarray(lean_deg - np.sign(lean_deg) * lag)


def reference_moment_nm(body: Body) -> float:
    """Bending moment at T12/L1 standing upright with the arms held forward: about 20 N·m at 170 cm and 70 kg."""
    masses = body_norms().masses
    upper, fore, hand = (body.length_cm(name) for name in ("upper_arm", "forearm", "hand"))
    levers = (
        (masses["upper_arm"], upper * masses["upper_arm"].centre),
        (masses["forearm"], upper + fore * masses["forearm"].centre),
        (masses["hand"], upper + fore + hand * masses["hand"].centre),
    )
    total = sum(2 * mass.fraction * lever for mass, lever in levers)
    return float(body.weight_kg * GRAVITY * total / 100)


def moment_nm(body: Body, points: TrunkPoints, lean_deg: Array, carried_share: float, head_rests: bool) -> Array:
    """Bending moment at T12/L1 in N·m, forward positive.

    Masses above times their horizontal lever, arms hanging from the shoulders, less what hands carry
    (``carried_share`` of everything above) and less a resting head. It ranks a rounded fold below a flat
    hinge, so it is never shown or judged without spine flexion beside it.
    """
    masses = body_norms().masses
    thorax = points.t12 + masses["thorax"].centre * (points.c7 - points.t12)
    head = points.c7 + masses["head_and_neck"].centre * (points.top - points.c7)
    shoulder_x = points.c7[..., 0] - body.length_cm("shoulder_below_c7") * sind(lean_deg)
    arms = 2 * sum(masses[name].fraction for name in ("upper_arm", "forearm", "hand"))
    base = points.t12[..., 0]
    lever = (
        masses["thorax"].fraction * (thorax[..., 0] - base)
        + (0.0 if head_rests else masses["head_and_neck"].fraction) * (head[..., 0] - base)
        + arms * (shoulder_x - base)
    )
    return np.asarray(body.weight_kg * GRAVITY * lever / 100 * (1.0 - carried_share))
