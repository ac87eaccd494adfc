"""Closing a leg: where the knee goes when hip and ankle are given.

Two rigid links leave the knee one freedom, a circle around the line from hip to ankle. The
**swivel** walks along that circle, growing outward.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.units import Array, acosd, cosd, cross, dot, norm, sind, unit

WORLD_UP = np.array([0.0, 0.0, 1.0])
WORLD_FORWARD = np.array([1.0, 0.0, 0.0])
NEARLY_VERTICAL = np.cos(np.radians(1.0))


@dataclass(frozen=True, slots=True)
class KneeCircle:
    """All places the knee can be, for batches of legs of shape (...).

    ``axis`` points from hip to ankle, ``start`` and ``outward`` span the circle: the knee is at
    ``centre + radius (cos ω · start + sin ω · outward)``. ``offset_cm`` is the signed distance from
    the hip to the centre along the axis. ``reach_shortfall_cm`` says by how much the ankle is too
    far, ``fold_shortfall_cm`` by how much it is nearer than any fold of the two links allows.
    """

    hip: Array
    axis: Array
    start: Array
    outward: Array
    centre: Array
    radius_cm: Array
    offset_cm: Array
    thigh_cm: Array
    knee_flexion_deg: Array
    reach_shortfall_cm: Array
    fold_shortfall_cm: Array

    def knee_at(self, swivel_deg: Array | float) -> Array:
        """Knee positions (..., 3) at a swivel."""
        c, s = cosd(swivel_deg)[..., None], sind(swivel_deg)[..., None]
        return np.asarray(self.centre + self.radius_cm[..., None] * (c * self.start + s * self.outward))


def knee_circle(
    hip: Array,
    ankle: Array,
    thigh_cm: Array | float,
    lower_leg_cm: Array | float,
    side_sign: Array | float,
    knee_toward: Array | None = None,
) -> KneeCircle:
    """The circle of knee positions for hip and ankle of shape (..., 3).

    ``knee_toward`` gives swivel 0. ``None`` means up (for legs whose foot is not planted under the
    knee), with straight ahead as the fallback within 1° of a vertical leg. For planted feet pass the
    direction of the toes, so that swivel 0 is the knee over the toes: the upward reference flips
    near the vertical and must not be used there.

    Nothing is clamped silently: an ankle out of reach gives a straight leg and a shortfall, and the
    knee flexion is the geometric one even where no knee bends so far.
    """
    lt, ls = np.asarray(thigh_cm, float), np.asarray(lower_leg_cm, float)
    line = ankle - hip
    distance = norm(line)
    axis = unit(line)
    reach_shortfall = np.maximum(distance - (lt + ls), 0.0)
    fold_shortfall = np.maximum(np.abs(lt - ls) - distance, 0.0)
    safe = np.maximum(distance, 1e-9)
    included = acosd((lt**2 + ls**2 - distance**2) / (2 * lt * ls))
    offset = np.clip((lt**2 - ls**2 + distance**2) / (2 * safe), -lt, lt)
    radius = np.sqrt(np.maximum(lt**2 - offset**2, 0.0))

    if knee_toward is None:
        vertical = np.abs(axis[..., 2]) > NEARLY_VERTICAL
        reference = np.where(vertical[..., None], WORLD_FORWARD, WORLD_UP)
    else:
        reference = np.broadcast_to(knee_toward, axis.shape)
    start = unit(reference - dot(reference, axis)[..., None] * axis)
    outward = cross(axis, start)
    # Outward is the way that points to the leg's own side, a little ahead.
    looks_out = 0.3 * outward[..., 0] + side_sign * outward[..., 1] > 0
    outward = np.where(looks_out[..., None], outward, -outward)

    return KneeCircle(
        hip=np.asarray(hip, float),
        axis=axis,
        start=start,
        outward=outward,
        centre=hip + offset[..., None] * axis,
        radius_cm=radius,
        offset_cm=offset,
        thigh_cm=np.broadcast_to(lt, distance.shape),
        knee_flexion_deg=180.0 - included,
        reach_shortfall_cm=reach_shortfall,
        fold_shortfall_cm=fold_shortfall,
    )
