"""The belly in pregnancy, and how near the thighs come to it."""

from __future__ import annotations

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.pregnancy import extra_depth_cm
from asketa_core.body.trunk import TrunkPoints
from asketa_core.units import Array, cosd, norm, sind

DEPTH_SHARE, WIDTH_SHARE, HEIGHT_SHARE = 0.08, 0.085, 0.075
"""Half-axes of the belly's ellipsoid before pregnancy as shares of stature (judgement)."""

WIDTH_GROWS, HEIGHT_GROWS = 0.35, 0.25
"""How much of the growth in depth the other half-axes take (judgement)."""

NEAR_GROIN = 0.35
"""Only the thigh beyond this share counts: the groin always touches."""

THIGH_SAMPLES = 6


def half_axes_cm(body: Body) -> Array:
    """Forward, sideways and along the spine, (3,)."""
    growth = 0.0
    if body.pregnancy is not None:
        growth = extra_depth_cm(body.pregnancy.week, body.pregnancy.twins)
    s = body.stature_cm
    return np.array(
        [DEPTH_SHARE * s + growth, WIDTH_SHARE * s + WIDTH_GROWS * growth, HEIGHT_SHARE * s + HEIGHT_GROWS * growth]
    )


def floor_clearance_cm(body: Body, points: TrunkPoints, lumbar_lean_deg: Array) -> Array:
    """Distance in cm from the belly's lowest point to the floor, negative when pressed; (…)."""
    forward, _, along = half_axes_cm(body)
    centre_z = (points.l5s1[..., 1] + points.t12[..., 1]) / 2
    return np.asarray(centre_z - np.hypot(forward * sind(lumbar_lean_deg), along * cosd(lumbar_lean_deg)))


def belly_clearance_cm(body: Body, points: TrunkPoints, lumbar_lean_deg: Array, hip: Array, knee: Array) -> Array:
    """Least distance in cm from the belly to one thigh, negative when pressed; (…).

    ``hip`` and ``knee`` are (…, 3). The distance to the ellipsoid is its first-order estimate, exact on
    the surface and good to a centimetre within a hand's breadth of it, well inside the ± 3 cm of the size.
    """
    axes = half_axes_cm(body)
    centre = (points.l5s1 + points.t12) / 2
    forward_x, forward_z = cosd(lumbar_lean_deg), -sind(lumbar_lean_deg)
    nearest = None
    for share in np.linspace(NEAR_GROIN, 1.0, THIGH_SAMPLES):
        at = hip + share * (knee - hip)
        dx, dz = at[..., 0] - centre[..., 0], at[..., 2] - centre[..., 1]
        local = np.stack(
            np.broadcast_arrays(dx * forward_x + dz * forward_z, at[..., 1], dz * forward_x - dx * forward_z), axis=-1
        )
        radius = (1 - share) * body.length_cm("thigh_radius_hip") + share * body.length_cm("thigh_radius_knee")
        scaled = norm(local / axes)
        slope = norm(local / axes**2)
        distance = scaled * (scaled - 1.0) / np.maximum(slope, 1e-9) - radius
        nearest = distance if nearest is None else np.minimum(nearest, distance)
    assert nearest is not None
    return np.asarray(nearest)
