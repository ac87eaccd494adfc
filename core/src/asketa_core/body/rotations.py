"""Rotation of the pelvis."""

from __future__ import annotations

import numpy as np

from asketa_core.units import Array, cosd, sind


def pelvis_rotation(pitch_deg: Array | float, roll_deg: Array | float, yaw_deg: Array | float) -> Array:
    """Rotation matrices of the pelvis, shape (..., 3, 3), columns = pelvis axes in the world.

    ``Rz(yaw) · Rx(roll) · Ry(pitch)``. Pitch positive tips the pelvis forward. Because pitch is the
    innermost rotation, tipping the pelvis by p adds exactly p to hip flexion and leaves abduction
    and rotation alone, whatever the yaw and roll. Roll positive lowers the client's right.
    """
    pitch, roll, yaw = np.broadcast_arrays(
        np.asarray(pitch_deg, float), np.asarray(roll_deg, float), np.asarray(yaw_deg, float)
    )
    cp, sp = cosd(pitch), sind(pitch)
    cr, sr = cosd(roll), sind(roll)
    cy, sy = cosd(yaw), sind(yaw)
    matrix = np.empty((*pitch.shape, 3, 3))
    matrix[..., 0, 0] = cy * cp - sy * sr * sp
    matrix[..., 0, 1] = -sy * cr
    matrix[..., 0, 2] = cy * sp + sy * sr * cp
    matrix[..., 1, 0] = sy * cp + cy * sr * sp
    matrix[..., 1, 1] = cy * cr
    matrix[..., 1, 2] = sy * sp - cy * sr * cp
    matrix[..., 2, 0] = -cr * sp
    matrix[..., 2, 1] = sr
    matrix[..., 2, 2] = cr * cp
    return matrix
