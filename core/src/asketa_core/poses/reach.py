"""Leaning until the hands reach what they rest on."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.spine import share_fold
from asketa_core.body.trunk import trunk_points
from asketa_core.units import Array, cosd

DEEPEST_LEAN_DEG = 150.0
ROUNDS = 6
STEP_SHARE = 0.7
"""Part of the trunk that comes down with the lean: where the pelvis has stopped, only the spine above it does."""


@dataclass(frozen=True, slots=True)
class HandsDown:
    """What the hands on their support ask of the trunk: ``height_cm`` (n,) is where arms that hang want the
    shoulders, or where arms in line with the trunk want the hands, ``in_line_cm`` beyond the shoulders."""

    height_cm: Array
    in_line_cm: float = 0.0


def lean_to_hands(
    body: Body, hip_z: Array, hands: HandsDown, lean_deg: Array, room_deg: Array, least_pitch_deg: Array
) -> Array:
    """The lean, (levels, n), at which the hands come down to what they rest on, rounding included.

    A straight trunk gets there with less: where the hips stop, the spine rounds and the shoulders stay higher.
    Starts from ``lean_deg`` and closes in from there; where the deepest lean does not do, that is given.
    """
    lean = np.asarray(lean_deg, float)
    trunk = sum(body.length_cm(part) for part in ("hip_to_l5s1", "lumbar", "thorax"))
    pelvis = np.stack(np.broadcast_arrays(0.0 * hip_z, hip_z), axis=-1)
    below_c7 = body.length_cm("shoulder_below_c7") - hands.in_line_cm
    for _ in range(ROUNDS):
        share = share_fold(lean, room_deg, 0.0, least_pitch_deg=least_pitch_deg)
        chain = trunk_points(body, pelvis, share.pitch_deg, share.lumbar_flexion_deg, lean)
        high_by = chain.c7[..., 1] - below_c7 * cosd(lean) - hands.height_cm
        lean = np.clip(lean + np.degrees(high_by / (STEP_SHARE * trunk + hands.in_line_cm)), 0.0, DEEPEST_LEAN_DEG)
    return np.asarray(lean)
