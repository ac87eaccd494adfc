"""Joint angles of one leg from the positions of hip, knee and ankle.

Axes follow the joint-coordinate-system order for the hip (flexion about the pelvis's own side
axis, then abduction, then rotation about the thigh; Grood & Suntay 1983, adopted by the ISB).
Clinical zero is upright standing with the feet straight ahead.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.units import Array, Mask, acosd, asind, atan2d, cosd, cross, dot, norm, unit

STRAIGHT_KNEE_DEG = 3.0
"""Below this bend computed points leave the thigh's turning to the toes: the shin no longer shows it."""

MEASURED_STRAIGHT_KNEE_DEG = 25.0
"""The same for points read off a person by tape or photograph, where small bends drown in error."""

NEAR_SINGULAR_DEG = 80.0
"""Beyond this |abduction| only the sum or difference of flexion and rotation is determined."""


@dataclass(frozen=True, slots=True)
class HipAngles:
    """Flexion (extension negative), abduction (adduction negative), external rotation (internal
    negative), all in degrees and of one shape; ``near_singular`` marks where flexion and rotation
    cannot be told apart."""

    flexion_deg: Array
    abduction_deg: Array
    external_rotation_deg: Array
    near_singular: Mask

    @property
    def flexion_plus_rotation_deg(self) -> Array:
        """The combination that stays determined near |abduction| = 90: F + E, or F - E adducted."""
        turned = np.where(self.abduction_deg >= 0, self.external_rotation_deg, -self.external_rotation_deg)
        return np.asarray(self.flexion_deg + turned)


def knee_flexion(hip: Array, knee: Array, ankle: Array) -> Array:
    """Knee flexion in degrees, 0 = straight, from three points of shape (..., 3)."""
    thigh, shin = hip - knee, ankle - knee
    # atan2 keeps full precision near a straight knee, where acos loses half its digits.
    included = atan2d(norm(cross(thigh, shin)), dot(thigh, shin))
    return np.asarray(180.0 - included)


def femur_axes(
    hip: Array,
    knee: Array,
    ankle: Array,
    toe_direction: Array,
    straight_below_deg: float = STRAIGHT_KNEE_DEG,
) -> Array:
    """Thigh axes in the world, shape (..., 3, 3), columns x (forward), y (client's left), z (up the thigh).

    The side axis is the knee's hinge. With a straight knee the hinge cannot be read from the shin,
    so it is taken from ``toe_direction`` (..., 3).
    """
    up = unit(hip - knee)
    hinge = unit(cross(knee - hip, ankle - knee))
    forward_from_toes = unit(toe_direction - dot(toe_direction, up)[..., None] * up)
    hinge_from_toes = cross(up, forward_from_toes)
    straight = knee_flexion(hip, knee, ankle) < straight_below_deg
    side_axis = np.where(straight[..., None], hinge_from_toes, hinge)
    return np.stack([cross(side_axis, up), side_axis, up], axis=-1)


def hip_angles(pelvis: Array, femur: Array, side_sign: Array | float) -> HipAngles:
    """Hip angles from pelvis and thigh axes (..., 3, 3).

    ``R = pelvisᵀ · femur = Ry(-F) · Rx(m·A) · Rz(m·E)`` with m the side's sign.
    """
    m = np.asarray(side_sign, float)

    def entry(row: int, column: int) -> Array:
        """One entry of pelvisᵀ · femur; only five of the nine are needed."""
        return dot(pelvis[..., :, row], femur[..., :, column])

    flexion = -atan2d(entry(0, 2), entry(2, 2))
    abduction = m * asind(-entry(1, 2))
    rotation = m * atan2d(entry(1, 0), entry(1, 1))
    return HipAngles(flexion, abduction, rotation, np.abs(abduction) > NEAR_SINGULAR_DEG)


def hip_closing(flexion_deg: Array | float, abduction_deg: Array | float) -> Array:
    """Angle in degrees between the thigh and the pelvis's downward axis.

    Flexion alone inflates when the thigh is out to the side: flexion 126 at abduction 62 closes the
    hip by only 106. With the trunk in place of the pelvis the same formula gives the trunk–thigh angle.
    """
    return acosd(cosd(flexion_deg) * cosd(abduction_deg))


def flexion_allowed_at(closing_range_deg: Array | float, abduction_deg: Array | float) -> Array:
    """Largest flexion whose hip closing stays within ``closing_range_deg`` at this abduction.

    Infinite where the thigh is so far out that no flexion can use the range up; zero where the
    abduction alone already exceeds it.
    """
    closing, abduction = np.broadcast_arrays(np.asarray(closing_range_deg, float), np.asarray(abduction_deg, float))
    cos_a = np.maximum(cosd(abduction), 1e-12)
    ratio = cosd(closing) / cos_a
    return np.asarray(np.where(ratio <= -1.0, np.inf, acosd(ratio)))
