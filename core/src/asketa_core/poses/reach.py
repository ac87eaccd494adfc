"""Leaning until what is carried comes to lie on its support: the hands, the forearms or the chest."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.spine import share_fold
from asketa_core.body.trunk import trunk_points
from asketa_core.units import Array, acosd, cosd, sind

PALM_CM = 4.0
"""A palm that lies flat keeps the wrist this far above its support."""

DEEPEST_LEAN_DEG = 150.0
ROUNDS = 6
STEP_SHARE = 0.7
"""Part of the trunk that comes down with the lean: where the pelvis has stopped, only the spine above it does."""


@dataclass(frozen=True, slots=True)
class ComesDown:
    """What a support asks of the trunk: the place of it that is ``below_c7_cm`` down its line (above, where negative) and
    ``front_cm`` before it comes to ``height_cm`` (n,)."""

    height_cm: Array
    below_c7_cm: float
    front_cm: float = 0.0
    gives_cm: float = 0.0
    """How much higher the support may stand: arms bend."""

    def straight(self, trunk_cm: float, hip_z: Array) -> Array:
        """The lean of a straight trunk of this length over hips of some height."""
        up = trunk_cm - self.below_c7_cm
        reach, turn = np.hypot(up, self.front_cm), np.degrees(np.arctan2(self.front_cm, up))
        return np.asarray(acosd((self.height_cm - hip_z) / reach) - turn)


def lean_down(
    body: Body, hip_z: Array, down: ComesDown, lean_deg: Array, room_deg: Array, least_pitch_deg: Array
) -> tuple[Array, Array]:
    """The lean, (levels, n), at which what is carried comes down to its support, rounding included, and by how much it
    still misses it, cm.

    A straight trunk gets there with less: where the hips stop, the spine rounds and the shoulders stay higher.
    Starts from ``lean_deg`` and closes in from there; where the deepest lean does not do, that is given.
    """
    lean = np.asarray(lean_deg, float)
    trunk = trunk_cm(body)
    pelvis = np.stack(np.broadcast_arrays(0.0 * hip_z, hip_z), axis=-1)
    lever = STEP_SHARE * trunk + max(-down.below_c7_cm, 0.0)
    high_by = np.zeros_like(lean)
    for _ in range(ROUNDS):
        share = share_fold(lean, room_deg, 0.0, least_pitch_deg=least_pitch_deg)
        chain = trunk_points(body, pelvis, share.pitch_deg, share.lumbar_flexion_deg, lean)
        high_by = chain.c7[..., 1] - down.below_c7_cm * cosd(lean) - down.front_cm * sind(lean) - down.height_cm
        lean = np.clip(lean + np.degrees(high_by / lever), 0.0, DEEPEST_LEAN_DEG)
    return np.asarray(lean), np.asarray(np.maximum(np.maximum(high_by, -down.gives_cm - high_by), 0.0))


def trunk_cm(body: Body) -> float:
    """Length of the trunk from the hips to C7."""
    return sum(body.length_cm(part) for part in ("hip_to_l5s1", "lumbar", "thorax"))


HAND_AT_LEAST = 0.6
ARM_REACH = 0.97
"""A hand reaches for what it presses on with so much of the arm's length, and presses with no less than so little of it
(judgement)."""


def hand_misses_cm(body: Body, hip_z: Array, support_cm: Array, over_deg: Array) -> Array:
    """How far a support beside the body is too low or too high for the hand of a trunk that leans over to it, cm."""
    above_hips = trunk_cm(body) - body.length_cm("shoulder_below_c7") - body.length_cm("hip_to_l5s1")
    shoulder = (
        hip_z
        + body.length_cm("hip_to_l5s1")
        + above_hips * cosd(over_deg)
        - body.length_cm("shoulder_half_breadth") * sind(over_deg)
    )
    arm = body.length_cm("upper_arm") + body.length_cm("forearm")
    down = shoulder - support_cm - PALM_CM
    return np.asarray(np.maximum(down - ARM_REACH * arm, 0.0) + np.maximum(HAND_AT_LEAST * arm - down, 0.0))


FOREHEAD_UP = 0.7
FOREHEAD_FRONT_SHARE = 0.05
"""The forehead lies so far up neck and head, and this share of stature before their line (judgement)."""

NOD_DEG = (-5.0, 45.0)
"""How far a resting head is lifted or let down against the line of the trunk at most (judgement)."""


EASY_NOD_DEG = 20.0
ARMS_UNDER_HEAD_CM = (5.0, 35.0)
"""A head on its own arms lies so much above what these rest on: on the forearms, or in
the hands over propped elbows (judgement)."""


def nod_to(body: Body, c7_z: Array, lean_deg: Array, support_cm: Array, on_arms: bool = False) -> tuple[Array, Array]:
    """How far neck and head bend forward from the line of the trunk so that the forehead lies on a support, degrees, and
    by how much it misses where no neck comes there, cm. ``on_arms`` puts the arms between. Shapes follow the arguments."""
    along, front = FOREHEAD_UP * body.length_cm("neck_and_head"), FOREHEAD_FRONT_SHARE * body.stature_cm
    reach, turn = float(np.hypot(along, front)), float(np.degrees(np.arctan2(front, along)))
    at = support_cm
    if on_arms:
        low, high = ARMS_UNDER_HEAD_CM
        at = np.clip(c7_z + reach * cosd(lean_deg + EASY_NOD_DEG + turn), support_cm + low, support_cm + high)
    nod = np.clip(acosd((at - c7_z) / reach) - turn - lean_deg, *NOD_DEG)
    comes_to = c7_z + reach * cosd(lean_deg + nod + turn)
    return np.asarray(nod), np.asarray(np.abs(comes_to - at))
