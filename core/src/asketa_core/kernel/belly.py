"""The belly in pregnancy, and how near the thighs and the floor come to it."""

from __future__ import annotations

import math

from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.records import Record
from asketa_core.kernel.space import Vec
from asketa_core.kernel.trunk import Chain
from asketa_core.kernel.vectors import between, cosd, norm, sind

NEAR_GROIN = 0.35
"""Only the thigh beyond this share counts: the groin always touches."""

THIGH_SAMPLES = 6


@compiled
def floor_clearance_cm(body: Record, chain: Chain, lumbar_lean_deg: float) -> float:
    """Distance in cm from the belly's lowest point to the floor, negative when pressed."""
    centre_z = (chain.l5s1.z + chain.t12.z) / 2
    reach = math.hypot(body.belly_forward * sind(lumbar_lean_deg), body.belly_along * cosd(lumbar_lean_deg))
    return float(centre_z - reach)


@compiled
def belly_clearance_cm(body: Record, chain: Chain, lumbar_lean_deg: float, hip: Vec, knee: Vec) -> float:
    """Least distance in cm from the belly to one thigh, negative when pressed.

    The distance to the ellipsoid is its first-order estimate, exact on the surface and good to a centimetre within a
    hand's breadth of it, well inside the ± 3 cm of the size.
    """
    forward_x, forward_z = cosd(lumbar_lean_deg), -sind(lumbar_lean_deg)
    centre_x, centre_z = (chain.l5s1.x + chain.t12.x) / 2, (chain.l5s1.z + chain.t12.z) / 2
    nearest = math.inf
    for sample in range(THIGH_SAMPLES):
        share = NEAR_GROIN + (1.0 - NEAR_GROIN) * sample / (THIGH_SAMPLES - 1)
        at = between(hip, knee, share)
        dx, dz = at.x - centre_x, at.z - centre_z
        ahead, aside, up = dx * forward_x + dz * forward_z, at.y, dz * forward_x - dx * forward_z
        radius = (1 - share) * body.thigh_radius_hip + share * body.thigh_radius_knee
        scaled = norm(Vec(ahead / body.belly_forward, aside / body.belly_aside, up / body.belly_along))
        slope = norm(Vec(ahead / body.belly_forward**2, aside / body.belly_aside**2, up / body.belly_along**2))
        nearest = min(nearest, scaled * (scaled - 1.0) / max(slope, 1e-9) - radius)
    return nearest
