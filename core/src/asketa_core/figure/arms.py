"""Where the hands rest, and the arms that lead there."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from asketa_core.body.closing import knee_circle
from asketa_core.body.measures import Body
from asketa_core.figure.limbs import Limb
from asketa_core.poses.recipe import Hands
from asketa_core.units import Array, Side, unit

UP = np.array([0.0, 0.0, 1.0])
FORWARD = np.array([1.0, 0.0, 0.0])
CHAIR_SEAT_CM, CHAIR_BACK_CM = 45.0, 90.0
"""Heights at which hands rest on a generic chair."""

CUT_SHORT_CM = 0.5
"""A straight arm ends this much before its full length, so that the elbow keeps a side to bend to."""


HAND_REST_CM = 3.0
"""No wrist comes nearer to the floor than this."""


ABOVE_CM = 4.0
"""A wrist lies this much above what the palm presses on."""

LOW_SHOULDER = 0.5
"""Nearer to what the hands lie on than this part of the arm there is no room for an elbow: the arms stretch ahead."""

REACHES = 0.97
IN_LINE_REACHES = 0.995
"""Part of its length to which an arm is stretched by itself, and when it reaches on in line with the trunk."""


def wrist_wanted(
    body: Body,
    side: Side,
    shoulder: Array,
    legs: Mapping[Side, Limb],
    trunk_up: Array,
    hands: Hands,
    hand_support_cm: float,
    in_line: bool = False,
    turned_ahead: bool = False,
) -> Array:
    """Where a wrist rests by the recipe, (3,): on what it is to rest on where the arm reaches it, else on the leg.

    ``trunk_up`` is the direction of the upper trunk; ``in_line`` arms reach on in it; ``turned_ahead`` marks the
    shoulder a twist brings forward.
    """
    arm = body.length_cm("upper_arm") + body.length_cm("forearm")
    aside = side.sign * np.array([0.0, 1.0, 0.0])
    leg = legs[side]

    def level(height_cm: float, ahead_cm: float, out_cm: float = 0.0) -> Array:
        """On something level, as far ahead as wanted or as the arm still reaches down to it."""
        drop = shoulder[2] - height_cm - ABOVE_CM
        span = np.sqrt(max(((IN_LINE_REACHES if in_line else REACHES) * arm) ** 2 - drop**2 - out_cm**2, 0.0))
        ahead = float(np.clip(ahead_cm, -span, span))
        return np.asarray([shoulder[0] + ahead, shoulder[1] + side.sign * out_cm, height_cm + ABOVE_CM])

    def reaches(height_cm: float) -> bool:
        return bool(shoulder[2] - height_cm - ABOVE_CM <= arm)

    match hands.on:
        case "under_thigh":
            raised = max(legs.values(), key=lambda each: float(each.middle[2]))
            return _on_leg(body, shoulder, raised, LEG_PLACES[hands.on], below=True)
        case "thighs" | "shins":
            return _on_leg(body, shoulder, _leg_ahead(legs, side), LEG_PLACES[hands.on])
        case "hips":
            return np.asarray(leg.root + 9.0 * aside + 6.0 * UP)
        case "chair_in_front":
            return level(CHAIR_SEAT_CM, 0.72 * arm)
        case "chair_back_in_front":
            return level(CHAIR_BACK_CM, 0.8 * arm)
        case "wall" if in_line:
            return level(hand_support_cm - ABOVE_CM, arm)
        case "wall" | "forward":
            return np.asarray(shoulder + 0.96 * arm * unit(FORWARD + 0.12 * UP))
        case "overhead":
            return np.asarray(shoulder + 0.97 * arm * unit(trunk_up + 0.12 * aside))
        case "side_chair" | "thigh_chair" | "side_leg" | "side_block":
            # One arm down to what it rests on, on the side the trunk bends to; the other up.
            if trunk_up[1] * side.sign <= 0:
                return np.asarray(shoulder + 0.97 * arm * UP)
            if hands.on == "side_block":
                return level(hand_support_cm, 0.0)
            if hands.on != "side_chair":
                return _on_leg(body, shoulder, leg, LOWEST)
            return np.array([shoulder[0], shoulder[1], _chair_within(arm, shoulder) + 2])
        case "out":
            return np.asarray(shoulder + 0.97 * arm * aside)
        case "forearms":
            return level(hand_support_cm, body.length_cm("forearm"))
        case "floor_in_front" | "blocks_in_front" | "seat_in_front":
            if reaches(hand_support_cm):
                low = shoulder[2] - hand_support_cm < LOW_SHOULDER * arm
                return level(hand_support_cm, arm if in_line or low else 0.08 * arm)
            return _on_leg(body, shoulder, _leg_ahead(legs, side), LOWEST)
        case "by_raised_foot":
            if leg.end[2] <= legs[side.other].end[2]:
                return np.asarray(leg.root + 9.0 * aside + 6.0 * UP)
            wanted = beside_ankle(leg, side)
            wanted[2] = hand_support_cm + ABOVE_CM
            if float(np.linalg.norm(wanted - shoulder)) <= arm:
                return wanted
            return _on_leg(body, shoulder, leg, LOWEST)
        case "chair_beside":
            return level(_chair_within(arm, shoulder), 8.0, 14.0)
        case "back_rest":
            return np.asarray(shoulder + 8.0 * aside + [-24.0, 0.0, -24.0])
        case "floor_behind":
            if turned_ahead:
                return _on_leg(body, shoulder, legs[side.other], LEG_PLACES["thighs"])
            if not reaches(0.0):
                return level(float(leg.root[2]) - body.length_cm("hip_above_seat"), -BESIDE_HIP_CM, BESIDE_HIP_CM)
            return level(0.0, float(leg.root[0] - shoulder[0]) - 0.16 * body.stature_cm, 9.0)
    # Beside a lying or standing body.
    return np.asarray(shoulder - 0.94 * arm * trunk_up + 7.0 * aside)


LEG_PLACES = {"thighs": 0.6, "shins": 1.5, "under_thigh": 0.6}
"""Where along a leg hands rest when they can: 0 is the hip, 1 the knee, 2 the ankle."""

LOWEST = 1.9
"""As far down the leg as the hand comes."""

BESIDE_HIP_CM = 9.0
BESIDE_ANKLE_CM = 14.0


def beside_ankle(leg: Limb, side: Side) -> Array:
    """Where a block beside a raised foot stands, (3,)."""
    return np.add(leg.end, [0.0, side.sign * BESIDE_ANKLE_CM, 0.0])


ON_LEVEL = frozenset({"floor_in_front", "blocks_in_front", "chair_in_front", "chair_back_in_front", "chair_beside",
                      "side_chair", "seat_in_front", "by_raised_foot",
                      "forearms"})  # fmt: skip
"""Hands that lie flat on something level."""


def fingers_toward(hands: Hands, leg: Limb, chest_front: Array) -> Array:
    """Where the fingers point: along the thigh, level on a level support, up a wall, else where the chest faces."""
    if hands.on == "thighs":
        return unit(leg.middle - leg.root)
    if hands.on == "wall":
        return UP
    return FORWARD if hands.on in ON_LEVEL else chest_front


def _chair_within(arm: float, shoulder: Array) -> float:
    """Height of the part of a chair beside the body that a hand reaches: its seat, else its back."""
    return CHAIR_SEAT_CM if shoulder[2] - CHAIR_SEAT_CM < arm else CHAIR_BACK_CM


def _leg_ahead(legs: Mapping[Side, Limb], side: Side) -> Limb:
    """The leg a hand rests on: its own, or the other where its own is behind the body."""
    own, other = legs[side], legs[side.other]
    behind = own.middle[0] < own.root[0] - 1.0 <= other.middle[0] - 1.0
    return other if behind else own


def _on_leg(body: Body, shoulder: Array, leg: Limb, wanted: float, below: bool = False) -> Array:
    """The place on a leg nearest the wanted one that the hand reaches, above it or below."""
    places = np.linspace(0.1, LOWEST, 37)
    on_thigh = places[:, None] <= 1.0
    start, line = (
        np.where(on_thigh, leg.root, leg.middle),
        np.where(on_thigh, leg.middle - leg.root, leg.end - leg.middle),
    )
    along = unit(line)
    outer = unit(UP - along[:, 2:3] * along)
    share = np.where(on_thigh[:, 0], places, places - 1.0)[:, None]
    # Hands that clasp behind a thigh have their wrists at its side.
    clear = 0.0 if below else body.length_cm("thigh_radius_knee") + 2.0
    found = start + share * line + outer * clear
    away = np.linalg.norm(found - shoulder, axis=-1)
    within = away <= REACHES * (body.length_cm("upper_arm") + body.length_cm("forearm"))
    best = np.argmin(np.where(within, np.abs(places - wanted), np.inf)) if within.any() else np.argmin(away)
    return np.asarray(found[best])


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
