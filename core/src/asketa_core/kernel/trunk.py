"""The trunk: how pelvis and spine share its lean, where its joints are, what it comes down to and has to carry."""

from __future__ import annotations

import math
from typing import NamedTuple

from numba import float64

from asketa_core.kernel.angles import flexion_allowed_at
from asketa_core.kernel.codes import Carried
from asketa_core.kernel.compiled import compiled, entry, type_of
from asketa_core.kernel.records import Record
from asketa_core.kernel.shared import GRAVITY, LUMBAR_SHARE
from asketa_core.kernel.signatures import BODY_TYPE
from asketa_core.kernel.space import Vec
from asketa_core.kernel.vectors import VEC, acosd, along, atan2d, clip, cosd, sind

HEAD_FOLLOWS = 0.8
HEAD_LAGS_MOST_DEG = 12.0
"""Neck and head share most of the upper trunk's lean and lag at most this much: people look ahead of themselves, and
lying they rest their head."""


@compiled
def pinches_at(hip: Record, abduction_deg: float, external_rotation_deg: float) -> float:
    """Where the groin pinches, degrees of flexion.

    Outward straight between the figures straight ahead and turned out. Crossing the middle and turning in bring it
    earlier, with the same slope and up to a most.
    """
    gained = hip.pinch_later * clip(abduction_deg / hip.pinch_out_at, 0.0, 1.0)
    inward = max(-abduction_deg, 0.0) + max(-external_rotation_deg, 0.0)
    return float(hip.pinch_straight + gained - min(hip.pinch_slope * inward, hip.pinch_earlier_most))


@entry((float64, float64, float64, float64, float64, float64))
def hip_room(
    bent_knee_flexion_deg: float,
    straight_leg_raise_deg: float,
    knee_flexion_deg: float,
    abduction_deg: float,
    coupling: float,
    groin_pinch_flexion_deg: float,
) -> float:
    """Largest hip flexion one side allows, in degrees.

    The bent-knee range bounds hip closing, the straight-leg raise plus the coupling times the knee bend bounds flexion,
    and so does the flexion at which the groin pinches. A client's *limits* are never part of this: the body must not be
    made to cheat round a limit by rounding the back.
    """
    by_joint = flexion_allowed_at(bent_knee_flexion_deg, abduction_deg)
    by_hamstrings = straight_leg_raise_deg + coupling * knee_flexion_deg
    return min(by_joint, by_hamstrings, groin_pinch_flexion_deg)


class Share(NamedTuple):
    """Pelvic pitch and spine flexion in degrees; negative spine flexion is hollowing."""

    pitch_deg: float
    spine_flexion_deg: float


@entry((float64, float64, float64, float64))
def share_fold(lean_deg: float, room_deg: float, least_pitch_deg: float, hollow_deg: float) -> Share:
    """Split a trunk lean between pelvis and spine.

    ``room_deg`` is what the stiffer hip leaves. The pelvis tips as far as the hips allow and never beyond the wanted lean;
    the spine makes up the rest. Stiff hips in upright sitting therefore roll the pelvis back and round the back.
    ``least_pitch_deg`` is where a leg behind the body holds the pelvis forward: past its extension the low back hollows
    instead. ``hollow_deg`` is what the back hollows by its own strength: so much further the pelvis lies forward.
    """
    pitch = max(min(lean_deg + hollow_deg, room_deg), least_pitch_deg)
    return Share(pitch, lean_deg - pitch)


class Chain(NamedTuple):
    """Joints up the spine in the plane of the lean, y = 0."""

    pelvis: Vec
    l5s1: Vec
    t12: Vec
    c7: Vec
    top: Vec


@compiled
def up_along(lean_deg: float) -> Vec:
    """Upward direction of a segment leaning forward by this much."""
    return Vec(sind(lean_deg), 0.0, cosd(lean_deg))


@compiled
def head_lean_deg(lean_deg: float) -> float:
    lag = min((1 - HEAD_FOLLOWS) * abs(lean_deg), HEAD_LAGS_MOST_DEG)
    return lean_deg - lag if lean_deg > 0 else lean_deg + lag


@compiled
def c7_height_cm(body: Record, pelvis_cm: float, pitch_deg: float, lumbar_flexion_deg: float, lean_deg: float) -> float:
    """How high the chain's upper end of the thorax is: the same as ``trunk_chain`` gives."""
    lumbar_lean = pitch_deg + lumbar_flexion_deg
    l5s1 = pelvis_cm + body.hip_to_l5s1 * cosd(pitch_deg)
    t12 = l5s1 + body.lumbar * cosd((pitch_deg + lumbar_lean) / 2)
    return float(t12 + body.thorax * cosd((lumbar_lean + lean_deg) / 2))


@entry((BODY_TYPE, VEC, float64, float64, float64))
def trunk_chain(body: Record, pelvis: Vec, pitch_deg: float, lumbar_flexion_deg: float, lean_deg: float) -> Chain:
    """The chain from the pelvis up. Each segment takes the mean of the leans at its ends."""
    lumbar_lean = pitch_deg + lumbar_flexion_deg
    l5s1 = along(pelvis, up_along(pitch_deg), body.hip_to_l5s1)
    t12 = along(l5s1, up_along((pitch_deg + lumbar_lean) / 2), body.lumbar)
    c7 = along(t12, up_along((lumbar_lean + lean_deg) / 2), body.thorax)
    return Chain(pelvis, l5s1, t12, c7, along(c7, up_along(head_lean_deg(lean_deg)), body.neck_and_head))


@compiled
def moment_nm(body: Record, chain: Chain, lean_deg: float, carried_share: float, head_rests: bool) -> float:
    """Bending moment at T12/L1 in N·m, forward positive.

    Masses above times their horizontal lever, arms hanging from the shoulders, less what hands carry (``carried_share`` of
    everything above) and less a resting head. It ranks a rounded fold below a flat hinge, so it is never shown or judged
    without spine flexion beside it.
    """
    base = chain.t12.x
    thorax = base + body.thorax_centre * (chain.c7.x - base)
    head = chain.c7.x + body.head_and_neck_centre * (chain.top.x - chain.c7.x)
    shoulder = chain.c7.x - body.shoulder_below_c7 * sind(lean_deg)
    lever = body.thorax_mass * (thorax - base) + body.arms_mass * (shoulder - base)
    if not head_rests:
        lever += body.head_and_neck_mass * (head - base)
    return float(body.weight * GRAVITY * lever / 100 * (1.0 - carried_share))


# What is carried comes down to its support: the hands, the forearms or the chest.

PALM_CM = 4.0
"""A palm that lies flat keeps the wrist this far above its support."""

ARM_REACH = 0.97
HAND_AT_LEAST = 0.6
"""A hand reaches for what it presses on with so much of the arm's length, and presses with no less than so little of it
(judgement)."""

ELBOW_REACH = 0.85
"""The same for a forearm that lies ahead of the shoulders (judgement)."""

ARM_GIVES = 0.4
ELBOW_GIVES = 0.3
CHEST_GIVES_CM = 4.0
"""How much higher than that a support may stand: parts of the arm it bends by, of the upper arm it opens by, and what a
chest on it is lifted by (judgement)."""

CHEST_BELOW_C7 = 0.55
CHEST_DEPTH_SHARE = 0.055
"""A chest that lies down touches with the breastbone: so far down the thorax, and this share of stature before the spine,
a little of it given way (judgement)."""

DEEPEST_LEAN_DEG = 150.0
ROUNDS = 6
STEP_SHARE = 0.7
"""Part of the trunk that comes down with the lean: where the pelvis has stopped, only the spine above it does."""

DOWN_CM = 1e-10
"""So near to its support it has come down: a straight trunk is at once."""


class ComesDown(NamedTuple):
    """What a support asks of the trunk: the place of it that is ``below_c7_cm`` down its line (above, where negative) and
    ``front_cm`` before it comes to ``height_cm``. ``gives_cm``: how much higher the support may stand, for arms bend."""

    height_cm: float
    below_c7_cm: float
    front_cm: float
    gives_cm: float


@compiled
def comes_down(body: Record, carried: int, support_cm: float) -> ComesDown:
    """Hands that hang down to what they rest on or reach for it in line with the trunk, forearms under the shoulders, a
    chest that lies down."""
    shoulders = body.shoulder_below_c7
    if carried == Carried.CHEST:
        return ComesDown(support_cm, CHEST_BELOW_C7 * body.thorax, CHEST_DEPTH_SHARE * body.stature, CHEST_GIVES_CM)
    if carried == Carried.HANDS_REACH:
        arm = body.upper_arm + body.forearm + body.hand
        return ComesDown(support_cm, shoulders - ARM_REACH * arm, 0.0, 0.0)
    if carried == Carried.FOREARMS:
        height = support_cm + PALM_CM + ELBOW_REACH * body.upper_arm
        return ComesDown(height, shoulders, 0.0, ELBOW_GIVES * body.upper_arm)
    # The palm lies flat on its support, so the wrist is as far above it as a palm is thick.
    arm = ARM_REACH * (body.upper_arm + body.forearm)
    return ComesDown(support_cm + PALM_CM + arm, shoulders, 0.0, ARM_GIVES * arm)


@compiled
def straight_lean(body: Record, down: ComesDown, hip_z: float) -> float:
    """The lean of a straight trunk over hips of some height that brings down what is carried."""
    up = body.trunk - down.below_c7_cm
    return acosd((down.height_cm - hip_z) / math.hypot(up, down.front_cm)) - atan2d(down.front_cm, up)


class Lowered(NamedTuple):
    """A lean in degrees, and by how much what is carried still misses its support, cm."""

    lean_deg: float
    misses_cm: float


@entry((BODY_TYPE, float64, type_of(ComesDown(0.0, 0.0, 0.0, 0.0)), float64, float64, float64))
def lean_down(
    body: Record, hip_z: float, down: ComesDown, lean_deg: float, room_deg: float, least_pitch_deg: float
) -> Lowered:
    """The lean at which what is carried comes down to its support, rounding included.

    A straight trunk gets there with less: where the hips stop, the spine rounds and the shoulders stay higher. Starts from
    ``lean_deg`` and closes in from there; where the deepest lean does not do, that is given.
    """
    lean, high_by = lean_deg, 0.0
    lever = STEP_SHARE * body.trunk + max(-down.below_c7_cm, 0.0)
    for _ in range(ROUNDS):
        share = share_fold(lean, room_deg, least_pitch_deg, 0.0)
        c7 = c7_height_cm(body, hip_z, share.pitch_deg, LUMBAR_SHARE * share.spine_flexion_deg, lean)
        high_by = c7 - down.below_c7_cm * cosd(lean) - down.front_cm * sind(lean) - down.height_cm
        lean = clip(lean + math.degrees(high_by / lever), 0.0, DEEPEST_LEAN_DEG)
        if abs(high_by) < DOWN_CM:
            break
    return Lowered(lean, max(high_by, -down.gives_cm - high_by, 0.0))


TRUNK_MEETS_THIGH_DEG = 150.0
"""Beyond this trunk–thigh angle the thigh would have to pass into the trunk (judgement)."""

TRUNK_SINKS_DEG = 15.0
THIGHS_WIDE_DEG = 40.0
SINKS_UNTIL_DEG = 45.0
"""Between thighs this wide a resting trunk comes so much lower, until the back may round so far (judgement)."""


@compiled
def lean_on_thighs(body: Record, raised_deg: float, apart_deg: float, least_room_deg: float, hip_z: float) -> float:
    """The lean of a trunk laid on its thighs: the one that stands higher is met first; between thighs apart the trunk sinks
    on, as far as the back lets it, and never below the mat."""
    met = TRUNK_MEETS_THIGH_DEG - raised_deg
    sinks = TRUNK_SINKS_DEG * clip(apart_deg / THIGHS_WIDE_DEG, 0.0, 1.0)
    lean = met + clip(SINKS_UNTIL_DEG - (met - least_room_deg), 0.0, sinks)
    on_the_mat = straight_lean(body, comes_down(body, Carried.CHEST.value, 0.0), hip_z)
    return max(met, min(lean, on_the_mat))


@compiled
def hand_misses_cm(body: Record, hip_z: float, support_cm: float, over_deg: float) -> float:
    """How far a support beside the body is too low or too high for the hand of a trunk that leans over to it, cm."""
    above_hips = body.trunk - body.shoulder_below_c7 - body.hip_to_l5s1
    shoulder = hip_z + body.hip_to_l5s1 + above_hips * cosd(over_deg) - body.shoulder_half_breadth * sind(over_deg)
    arm = body.upper_arm + body.forearm
    down = shoulder - support_cm - PALM_CM
    return float(max(down - ARM_REACH * arm, 0.0) + max(HAND_AT_LEAST * arm - down, 0.0))


FOREHEAD_UP = 0.7
FOREHEAD_FRONT_SHARE = 0.05
"""The forehead lies so far up neck and head, and this share of stature before their line (judgement)."""

NOD_LEAST_DEG = -5.0
NOD_MOST_DEG = 45.0
"""How far a resting head is lifted or let down against the line of the trunk at most (judgement)."""

EASY_NOD_DEG = 20.0
ARMS_UNDER_HEAD_LEAST_CM = 5.0
ARMS_UNDER_HEAD_MOST_CM = 35.0
"""A head on its own arms lies so much above what these rest on: on the forearms, or in the hands over propped elbows
(judgement)."""


class Nod(NamedTuple):
    """How far neck and head bend forward from the line of the trunk, degrees, and by how much the forehead misses its
    support where no neck comes there, cm."""

    bend_deg: float
    misses_cm: float


@compiled
def nod_to(body: Record, c7_z: float, lean_deg: float, support_cm: float, on_arms: bool) -> Nod:
    """The nod with which the forehead lies on a support; ``on_arms`` puts the arms between."""
    up, front = FOREHEAD_UP * body.neck_and_head, FOREHEAD_FRONT_SHARE * body.stature
    reach, turn = math.hypot(up, front), atan2d(front, up)
    at = support_cm
    if on_arms:
        easy = c7_z + reach * cosd(lean_deg + EASY_NOD_DEG + turn)
        at = clip(easy, support_cm + ARMS_UNDER_HEAD_LEAST_CM, support_cm + ARMS_UNDER_HEAD_MOST_CM)
    nod = clip(acosd((at - c7_z) / reach) - turn - lean_deg, NOD_LEAST_DEG, NOD_MOST_DEG)
    return Nod(nod, abs(c7_z + reach * cosd(lean_deg + nod + turn) - at))
