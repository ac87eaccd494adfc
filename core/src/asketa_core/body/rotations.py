"""Rotations about the axes of the world, and of the pelvis."""

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


def _rotation(angle_deg: Array | float, first: int, second: int) -> Array:
    """Right-hand rotation in the plane of two axes, (..., 3, 3)."""
    angle = np.asarray(angle_deg, float)
    matrix = np.zeros((*angle.shape, 3, 3))
    matrix[..., [0, 1, 2], [0, 1, 2]] = 1.0
    matrix[..., first, first] = matrix[..., second, second] = cosd(angle)
    matrix[..., first, second] = -sind(angle)
    matrix[..., second, first] = sind(angle)
    return matrix


def rotation_x(angle_deg: Array | float) -> Array:
    return _rotation(angle_deg, 1, 2)


def rotation_y(angle_deg: Array | float) -> Array:
    return _rotation(angle_deg, 2, 0)


def rotation_z(angle_deg: Array | float) -> Array:
    return _rotation(angle_deg, 0, 1)
