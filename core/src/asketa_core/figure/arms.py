"""Where the hands rest, and the arms that lead there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.figure.limbs import Limb
from asketa_core.kernel.space import Vec
from asketa_core.poses.recipe import Hands
from asketa_core.units import FORWARD, LEFT, UP, Array, Side, unit

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


@dataclass(frozen=True, slots=True)
class _Hanging:
    """An arm before its wrist is placed."""

    body: Body
    side: Side
    shoulder: Array
    legs: Mapping[Side, Limb]
    in_line: bool

    @property
    def length_cm(self) -> float:
        return self.body.length_cm("upper_arm") + self.body.length_cm("forearm")

    @property
    def aside(self) -> Array:
        return np.asarray(self.side.sign * LEFT)

    @property
    def leg(self) -> Limb:
        return self.legs[self.side]

    def stretched(self, toward: Array, part: float = 0.97) -> Array:
        """In the air, (3,), with that part of its length."""
        return np.asarray(self.shoulder + part * self.length_cm * toward)

    def level(self, height_cm: float, ahead_cm: float, out_cm: float = 0.0) -> Array:
        """On something level, (3,), as far ahead as wanted or as the arm still reaches down to it."""
        drop = self.shoulder[2] - height_cm - ABOVE_CM
        longest = (IN_LINE_REACHES if self.in_line else REACHES) * self.length_cm
        span = np.sqrt(max(longest**2 - drop**2 - out_cm**2, 0.0))
        ahead = float(np.clip(ahead_cm, -span, span))
        return np.asarray([self.shoulder[0] + ahead, self.shoulder[1] + self.side.sign * out_cm, height_cm + ABOVE_CM])

    def reaches_down_to(self, height_cm: float) -> bool:
        return bool(self.shoulder[2] - height_cm - ABOVE_CM <= self.length_cm)

    def on_hip(self) -> Array:
        return np.asarray(self.leg.root + 9.0 * self.aside + 6.0 * UP)

    def on_leg(self, leg: Limb, wanted: float, below: bool = False) -> Array:
        return _on_leg(self.body, self.shoulder, leg, wanted, below)


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
    arm = _Hanging(body, side, shoulder, legs, in_line)
    for placed in (
        _on_the_body(arm, hands),
        _in_the_air(arm, hands, trunk_up),
        _in_front(arm, hands, hand_support_cm),
        _beside_or_behind(arm, hands, hand_support_cm, trunk_up, turned_ahead),
    ):
        if placed is not None:
            return placed
    # Beside a lying or standing body.
    return np.asarray(shoulder - 0.94 * arm.length_cm * trunk_up + 7.0 * arm.aside)


def _on_the_body(arm: _Hanging, hands: Hands) -> Array | None:
    match hands.on:
        case "under_thigh":
            raised = max(arm.legs.values(), key=lambda each: float(each.middle[2]))
            return arm.on_leg(raised, LEG_PLACES[hands.on], below=True)
        case "thighs" | "shins":
            return arm.on_leg(_leg_ahead(arm.legs, arm.side), LEG_PLACES[hands.on])
        case "hips":
            return arm.on_hip()
    return None


def _in_the_air(arm: _Hanging, hands: Hands, trunk_up: Array) -> Array | None:
    match hands.on:
        case "forward":
            return arm.stretched(unit(FORWARD + 0.12 * UP), 0.96)
        case "wall" if not arm.in_line:
            return arm.stretched(unit(FORWARD + 0.12 * UP), 0.96)
        case "overhead":
            return arm.stretched(unit(trunk_up + 0.12 * arm.aside))
        case "out":
            return arm.stretched(arm.aside)
    return None


def _in_front(arm: _Hanging, hands: Hands, support_cm: float) -> Array | None:
    match hands.on:
        case "chair_in_front":
            return arm.level(CHAIR_SEAT_CM, 0.72 * arm.length_cm)
        case "chair_back_in_front":
            return arm.level(CHAIR_BACK_CM, 0.8 * arm.length_cm)
        case "wall":
            return arm.level(support_cm - ABOVE_CM, arm.length_cm)
        case "forearms":
            return arm.level(support_cm, arm.body.length_cm("forearm"))
        case "floor_in_front" | "blocks_in_front" | "seat_in_front":
            if not arm.reaches_down_to(support_cm):
                return arm.on_leg(_leg_ahead(arm.legs, arm.side), LOWEST)
            low = arm.shoulder[2] - support_cm < LOW_SHOULDER * arm.length_cm
            return arm.level(support_cm, arm.length_cm * (1.0 if arm.in_line or low else 0.08))
    return None


def _beside_or_behind(
    arm: _Hanging, hands: Hands, support_cm: float, trunk_up: Array, turned_ahead: bool
) -> Array | None:
    match hands.on:
        case "side_chair" | "thigh_chair" | "side_leg" | "side_block":
            return _bent_aside(arm, hands, support_cm, trunk_up)
        case "by_raised_foot":
            return _by_raised_foot(arm, support_cm)
        case "chair_beside":
            return arm.level(_chair_within(arm.length_cm, arm.shoulder), 8.0, 14.0)
        case "back_rest":
            return np.asarray(arm.shoulder + 8.0 * arm.aside + [-24.0, 0.0, -24.0])
        case "floor_behind" if turned_ahead:
            return arm.on_leg(arm.legs[arm.side.other], LEG_PLACES["thighs"])
        case "floor_behind" if not arm.reaches_down_to(0.0):
            seat_cm = float(arm.leg.root[2]) - arm.body.length_cm("hip_above_seat")
            return arm.level(seat_cm, -BESIDE_HIP_CM, BESIDE_HIP_CM)
        case "floor_behind":
            return arm.level(0.0, float(arm.leg.root[0] - arm.shoulder[0]) - 0.16 * arm.body.stature_cm, 9.0)
    return None


def _bent_aside(arm: _Hanging, hands: Hands, support_cm: float, trunk_up: Array) -> Array:
    """One arm down to what it rests on, on the side the trunk bends to; the other up."""
    if trunk_up[1] * arm.side.sign <= 0:
        return arm.stretched(UP)
    if hands.on == "side_block":
        return arm.level(support_cm, 0.0)
    if hands.on == "side_chair":
        return np.array([arm.shoulder[0], arm.shoulder[1], _chair_within(arm.length_cm, arm.shoulder) + 2])
    return arm.on_leg(arm.leg, LOWEST)


def _by_raised_foot(arm: _Hanging, support_cm: float) -> Array:
    """On a block beside the raised foot; the other hand on its hip."""
    if arm.leg.end[2] <= arm.legs[arm.side.other].end[2]:
        return arm.on_hip()
    wanted = beside_ankle(arm.leg, arm.side)
    wanted[2] = support_cm + ABOVE_CM
    if float(np.linalg.norm(wanted - arm.shoulder)) <= arm.length_cm:
        return wanted
    return arm.on_leg(arm.leg, LOWEST)


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


def arm(body: Body, side: Side, shoulder: Array, wrist: Array, fingers: Array, supine: bool = False) -> Limb:
    """An arm to a wrist; the elbow bends back and out, lying on the back out and down, and what is out of reach gets a
    straight arm."""
    upper, forearm, hand = body.length_cm("upper_arm"), body.length_cm("forearm"), body.length_cm("hand")
    wrist = np.array([wrist[0], wrist[1], max(float(wrist[2]), HAND_REST_CM)])
    reach = wrist - shoulder
    length = max(float(np.linalg.norm(reach)), 1e-6)
    longest = upper + forearm - CUT_SHORT_CM
    if length > longest:
        wrist = shoulder + reach / length * longest
    back_and_out = Vec(0.0, float(side.sign), -0.5) if supine else Vec(-1.0, 0.5 * side.sign, -0.2)
    # An arm closes like a leg: the elbow is its knee.
    from asketa_core.kernel.closing import knee_at, knee_circle  # noqa: PLC0415  (loaded with the first figure)

    # Plain numbers, whose types the engine knows at once.
    ends = Vec(*shoulder.tolist()), Vec(*wrist.tolist())
    circle = knee_circle(*ends, upper, forearm, side.sign, back_and_out)
    elbow = np.array(knee_at(circle, 0.0))
    tip = wrist + 0.6 * hand * unit(fingers + 0.3 * unit(wrist - elbow))
    tip[2] = max(float(tip[2]), HAND_REST_CM / 2)
    return Limb(shoulder, elbow, wrist, tip)
