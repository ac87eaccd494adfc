"""Where the hands rest, and the arms that lead there."""

from __future__ import annotations

import numpy as np

from asketa_core.body.closing import knee_circle
from asketa_core.body.measures import Body
from asketa_core.figure.limbs import Limb
from asketa_core.poses.recipe import Hands
from asketa_core.units import Array, Side, unit

UP = np.array([0.0, 0.0, 1.0])
FORWARD = np.array([1.0, 0.0, 0.0])
CHAIR_SEAT_CM, CHAIR_BACK_CM = 45.0, 80.0
"""Heights at which hands rest on a generic chair."""

CUT_SHORT_CM = 0.5
"""A straight arm ends this much before its full length, so that the elbow keeps a side to bend to."""


HAND_REST_CM = 3.0
"""No wrist comes nearer to the floor than this."""


def wrist_wanted(
    body: Body, side: Side, shoulder: Array, leg: Limb, trunk_up: Array, hands: Hands, hand_support_cm: float
) -> Array:
    """Where a wrist rests by the recipe, (3,); ``trunk_up`` is the direction of the upper trunk."""
    upper, forearm = body.length_cm("upper_arm"), body.length_cm("forearm")
    arm = upper + forearm
    aside = side.sign * np.array([0.0, 1.0, 0.0])
    reach_down = hand_support_cm + 4.0 - shoulder[2]
    match hands.on:
        case "thighs" | "shins" | "under_thigh":
            return _on_leg(body, leg, hands.on)
        case "hips":
            return np.asarray(leg.root + 9.0 * aside + 6.0 * UP)
        case "chair_in_front":
            return np.add(shoulder, [0.72 * arm, 0.0, CHAIR_SEAT_CM + 2 - shoulder[2]])
        case "chair_back_in_front":
            return np.add(shoulder, [0.8 * arm, 0.0, CHAIR_BACK_CM + 2 - shoulder[2]])
        case "wall" | "forward":
            return np.asarray(shoulder + 0.96 * arm * unit(FORWARD + 0.12 * UP))
        case "overhead":
            return np.asarray(shoulder + 0.97 * arm * unit(trunk_up + 0.12 * aside))
        case "side_chair" | "side_leg":
            # One arm down to what it rests on, on the side the trunk bends to; the other up.
            if trunk_up[1] * side.sign <= 0:
                return np.asarray(shoulder + 0.97 * arm * UP)
            if hands.on == "side_leg":
                return _on_leg(body, leg, "thighs" if shoulder[2] - leg.middle[2] > arm else "shins")
            return np.array([shoulder[0], shoulder[1], _chair_within(arm, shoulder) + 2])
        case "out":
            return np.asarray(shoulder + 0.97 * arm * aside)
        case "floor_in_front" | "blocks_in_front":
            return np.add(shoulder, [0.08 * arm, 0.0, reach_down])
        case "chair_beside":
            top = _chair_within(arm, shoulder) + 2
            return np.asarray(shoulder + 14.0 * aside + [8.0, 0.0, top - shoulder[2]])
        case "back_rest":
            return np.asarray(shoulder + 8.0 * aside + [-24.0, 0.0, -24.0])
        case "floor_behind":
            return np.asarray(leg.root * [1.0, 0.0, 0.0] + [-0.16 * body.stature_cm, 0.0, 3.0] + 26.0 * aside)
    # Beside a lying or standing body.
    return np.asarray(shoulder - 0.94 * arm * trunk_up + 7.0 * aside)


ON_LEVEL = frozenset({"floor_in_front", "blocks_in_front", "chair_in_front", "chair_back_in_front", "chair_beside",
                      "side_chair"})  # fmt: skip
"""Hands that lie flat on something level."""


def fingers_toward(hands: Hands, leg: Limb, chest_front: Array) -> Array:
    """Where the fingers point: along the thigh, level on a level support, else where the chest faces."""
    if hands.on == "thighs":
        return unit(leg.middle - leg.root)
    return FORWARD if hands.on in ON_LEVEL else chest_front


def _chair_within(arm: float, shoulder: Array) -> float:
    """Height of the part of a chair beside the body that a hand reaches: its seat, else its back."""
    return CHAIR_SEAT_CM if shoulder[2] - CHAIR_SEAT_CM < arm else CHAIR_BACK_CM


def _on_leg(body: Body, leg: Limb, where: str) -> Array:
    start, end, share = (leg.middle, leg.end, 0.5) if where == "shins" else (leg.root, leg.middle, 0.6)
    line = end - start
    along = line / np.linalg.norm(line)
    outer = unit(UP - along[2] * along)
    below = -1.0 if where == "under_thigh" else 1.0
    return np.asarray(start + share * line + below * outer * (body.length_cm("thigh_radius_knee") + 2.0))


def arm(body: Body, side: Side, shoulder: Array, wrist: Array, fingers: Array) -> Limb:
    """An arm to a wrist; the elbow bends back and out, and what is out of reach gets a straight arm."""
    upper, forearm, hand = body.length_cm("upper_arm"), body.length_cm("forearm"), body.length_cm("hand")
    wrist = np.array([wrist[0], wrist[1], max(float(wrist[2]), HAND_REST_CM)])
    reach = wrist - shoulder
    length = max(float(np.linalg.norm(reach)), 1e-6)
    longest = upper + forearm - CUT_SHORT_CM
    if length > longest:
        wrist = shoulder + reach / length * longest
    back_and_out = np.array([-1.0, 0.5 * side.sign, -0.2])
    circle = knee_circle(shoulder[None], wrist[None], upper, forearm, side.sign, knee_toward=back_and_out)
    elbow = circle.knee_at(np.zeros(1))[0]
    tip = wrist + 0.6 * hand * unit(fingers + 0.3 * unit(wrist - elbow))
    tip[2] = max(float(tip[2]), HAND_REST_CM / 2)
    return Limb(shoulder, elbow, wrist, tip)
