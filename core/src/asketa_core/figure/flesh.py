"""The body around its points: balls along limbs, rings around the trunk, an egg for a head; all in space.

Shares of stature from proportions of figure drawing; what they leave open was judged by eye.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Collection, Iterator
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from asketa_core.body.belly import half_axes_cm
from asketa_core.body.measures import Body
from asketa_core.figure.limbs import Limb
from asketa_core.figure.skeleton import Skeleton
from asketa_core.units import SIDES, Array, Side, unit

Name = Literal["trunk", "head", "thigh", "shin", "arm", "forearm"]
GROWS_FROM: dict[Name, Name] = {
    "head": "trunk",
    "thigh": "trunk",
    "arm": "trunk",
    "shin": "thigh",
    "forearm": "arm",
}


class Chain(NamedTuple):
    """Balls, each pair of neighbours joined by its hull: centres (balls, 3), radii (balls,) in cm."""

    centres: Array
    radii: Array


@dataclass(frozen=True, slots=True)
class Part:
    """One part of the body: chains of balls, and clouds of points whose hull is filled. ``root`` is where it grows out of another,
    within ``blend_cm`` of which no seam shows."""

    name: Name
    side: Side | None
    chains: tuple[Chain, ...]
    clouds: tuple[Array, ...] = ()
    root: Array | None = None
    blend_cm: float = 0.0
    straight: bool = False
    """Whether it goes on as what bears it does: then no seam shows anywhere along the two."""
    worked: bool = False
    round_cm: float = 0.0
    """How round the inner corners of its own outline are; what is one straight run has none."""
    axis: tuple[Array, Array] | None = None
    """From where to where a thigh turns into the colour of its lane."""


@dataclass(frozen=True, slots=True)
class Head:
    """Where the hair grows: on the egg of the skull, by its axes forward, aside and up, each with its half-length."""

    centre: Array
    axes: Array


THIGH = np.array([(0.0, 0.054), (0.33, 0.0515), (0.75, 0.040), (1.0, 0.0315)])
"""Along the thigh, and the radius there."""
SHIN = np.array([(0.0, 0.0315), (0.30, 0.031), (0.62, 0.0235), (0.92, 0.0175), (1.0, 0.0172)])
CALF_BACK = np.array([0.0, 0.008, 0.005, 0.0, 0.0])
"""How far behind the line of the shin its flesh lies, at the same places."""
UPPER_ARM = np.array([(0.0, 0.029), (0.35, 0.0265), (1.0, 0.0205)])
FOREARM = np.array([(0.0, 0.0205), (0.22, 0.0215), (0.8, 0.0145), (1.0, 0.0128)])
HAND = np.array([(0.0, 0.0125), (0.4, 0.0140), (0.75, 0.0110), (1.0, 0.0072)])
THUMB = np.array([(0.16, 0.006, 0.0062 * 1.2), (0.50, 0.017, 0.0062)])
"""Where along the hand the thumb leaves it and ends, how far aside, and its radius."""

SOLE = np.array([(0.09, 0.0165, 0.0), (0.45, 0.0105, 0.007), (0.72, 0.0118, 0.0), (0.97, 0.0072, 0.0)])
"""Heel, arch, ball and toes: where between the ends of the foot, the radius, and how far raised."""
SOLE_BELOW = 0.4
"""Part of the ankle's height by which the sole lies below the line from heel to toes."""

TRUNK_ROUND_CM, BELLY_ROUND_CM, LIMB_ROUND_CM = 5.0, 11.0, 1.6
RING_FRONT = np.array([0.040, 0.054, 0.058, 0.064, 0.048, 0.028])
RING_BACK = np.array([0.052, 0.062, 0.044, 0.058, 0.050, 0.028])
RING_SIDE = np.array([0.078, 0.095, 0.077, 0.097, 0.100, 0.042])
"""Half-widths of the trunk at seat, hips, waist, chest, shoulders and neck, forward, backward and aside."""
HUMP = np.array([0.0, 0.0, 0.0, 0.25, 0.4, 0.0])
"""Part of what the head stays from a wall by which each ring reaches further back."""
BUTTOCK_R, BUTTOCK_BACK, BUTTOCK_DOWN = 0.053, 0.020, 0.012

NECK_R = np.array([0.033, 0.027])
SKULL = (0.057, 0.047, 0.053)
SKULL_BELOW_TOP, CHIN_AHEAD, CHIN_BELOW, CHIN_R = 0.053, 0.022, 0.048, 0.027
"""Half-lengths of the skull forward, aside and up; where its middle and the chin are."""
NOSE, NOSE_R = np.array([(0.047, -0.004), (0.0595, 0.014)]), 0.0075
"""Forward and below the middle of the skull: from brow to tip, so that one sees where a face looks."""

SHOULDER_IN = 0.016
FOLDED = 0.35
"""Thigh and shin are one as long as the knee is not folded past where their directions agree by so much."""
SHOULDER_BLEND, ELBOW_BLEND, HIP_BLEND, KNEE_BLEND, NECK_BLEND = 0.042, 0.026, 0.062, 0.047, 0.10
"""Within these shares of stature of their roots limbs grow out of what bears them without a seam."""


def flesh_of(skeleton: Skeleton, body: Body, worked: Collection[Side]) -> tuple[list[Part], Head]:
    """Every part of the body, and the skull for its hair; both legs are worked where a shape is shared."""
    s = body.stature_cm
    head, skull = _head(skeleton, s)
    parts = [_trunk(skeleton, body), head]
    for side in SIDES:
        parts += _leg(skeleton, body, side, side in worked)
        parts += _arm(skeleton, s, side)
    return parts, skull


def _along(start: Array, end: Array, profile: Array, s: float) -> Chain:
    return Chain(start + profile[:, :1] * (end - start), profile[:, 1] * s)


def _across(vector: Array, axis: Array) -> Array:
    """What of a vector stands square on an axis."""
    return np.asarray(vector - float(vector @ axis) * axis)


def _length(vector: Array) -> float:
    return math.sqrt(float(vector @ vector))


def _leg(skeleton: Skeleton, body: Body, side: Side, worked: bool) -> Iterator[Part]:
    s, leg, heel = body.stature_cm, skeleton.legs[side], skeleton.heels[side]
    thigh = _along(leg.root, leg.middle, THIGH, s)
    shin_axis = unit(leg.end - leg.middle)
    toes = unit(leg.tip - heel)
    # Behind the shin is where a bent knee has its thigh; behind a straight one, where the heel points.
    behind = _across(unit(leg.root - leg.middle), shin_axis) - 0.35 * _across(toes, shin_axis)
    length = _length(behind)
    behind = behind / length if length > 1e-6 else behind
    along = _along(leg.middle, leg.end, SHIN, s)
    shin = Chain(along.centres + CALF_BACK[:, None] * s * behind, along.radii)
    axis = (leg.root, leg.middle)
    yield Part("thigh", side, (thigh,), root=leg.root, blend_cm=HIP_BLEND * s, worked=worked, axis=axis)
    lower = (shin, *_foot(leg, heel, toes, body))
    folded = float(unit(leg.middle - leg.root) @ shin_axis) < FOLDED
    yield Part(
        "shin",
        side,
        lower,
        root=leg.middle,
        blend_cm=KNEE_BLEND * s,
        straight=not folded,
        worked=worked,
        round_cm=LIMB_ROUND_CM,
    )


def _foot(leg: Limb, heel: Array, toes: Array, body: Body) -> Iterator[Chain]:
    """Round heel, raised arch, ball and toes; its sole flat on what it stands on."""
    s = body.stature_cm
    up = _across(leg.end - heel, toes)
    height = _length(up)
    up = up / height if height > 1e-6 else np.array([0.0, 0.0, 1.0])
    share, radius, raised = SOLE.T[:, :, None]
    above = (radius + raised) * s - SOLE_BELOW * body.length_cm("ankle_above_sole")
    under = heel + share * (leg.tip - heel) + above * up
    yield Chain(np.concatenate([leg.end[None], under]), s * np.append(SHIN[-1, 1], SOLE[:, 1]))
    # The instep falls from the ankle to the arch.
    yield Chain(np.stack([leg.end, under[1]]), s * np.array([SHIN[-1, 1], SOLE[1, 1]]))


def _arm(skeleton: Skeleton, s: float, side: Side) -> Iterator[Part]:
    arm = skeleton.arms[side]
    # Joints as wide apart as they are make shoulders that look too broad.
    root = arm.root - side.sign * SHOULDER_IN * s * skeleton.aside[4]
    upper = _along(root, arm.middle, UPPER_ARM, s)
    hand = arm.tip - arm.end
    fingers = unit(hand)
    inward = _across(np.array([0.0, -side.sign, 0.0]), fingers)
    length = _length(inward)
    chains = [_along(arm.middle, arm.end, FOREARM, s), _along(arm.end, arm.tip, HAND, s)]
    if length > 0.2:
        chains.append(
            Chain(
                arm.end + THUMB[:, :1] * hand + THUMB[:, 1:2] * (s / length) * inward,
                s * THUMB[:, 2],
            )
        )
    yield Part("arm", side, (upper,), root=root, blend_cm=SHOULDER_BLEND * s)
    folded = float(unit(arm.middle - root) @ unit(arm.end - arm.middle)) < FOLDED
    yield Part(
        "forearm",
        side,
        tuple(chains),
        root=arm.middle,
        blend_cm=ELBOW_BLEND * s,
        straight=not folded,
        round_cm=LIMB_ROUND_CM,
    )


def _head(skeleton: Skeleton, s: float) -> tuple[Part, Head]:
    c7, top = skeleton.spine[3], skeleton.spine[4]
    up = unit(top - c7)
    ahead = unit(_across(skeleton.front[4], up))
    aside = np.cross(up, ahead)
    centre = top - SKULL_BELOW_TOP * s * up
    axes = s * np.stack([SKULL[0] * ahead, SKULL[1] * aside, SKULL[2] * up])
    chin = centre + s * (CHIN_AHEAD * ahead - CHIN_BELOW * up)
    egg = np.concatenate([centre + _SPHERE @ axes, chin + CHIN_R * s * _SPHERE])
    nose = Chain(centre + s * (NOSE[:, :1] * ahead - NOSE[:, 1:] * up), np.full(2, NOSE_R * s))
    neck = Chain(np.stack([c7 + 0.004 * s * ahead, centre - s * (0.035 * up + 0.008 * ahead)]), s * NECK_R)
    return Part("head", None, (neck, nose), (egg,), root=c7, blend_cm=NECK_BLEND * s, round_cm=LIMB_ROUND_CM), Head(
        centre, axes
    )


def _trunk(skeleton: Skeleton, body: Body) -> Part:
    s = body.stature_cm
    pelvis, l5s1, t12, c7, _ = skeleton.spine
    seat = pelvis - 0.02 * s * unit(l5s1 - pelvis)
    centres = np.stack(
        [
            seat,
            pelvis + 0.4 * (l5s1 - pelvis),
            l5s1 + 0.55 * (t12 - l5s1),
            t12 + 0.45 * (c7 - t12),
            c7 - 0.22 * (c7 - t12),
            c7,
        ]
    )
    # A rounded back is furthest out at the shoulder blades, over which the neck starts ahead.
    behind = RING_BACK * s + HUMP * body.rounded_cm
    depth = np.where(_AHEAD >= 0, (RING_FRONT * s)[:, None], behind[:, None]) * _AHEAD
    breadth = (RING_SIDE * s)[:, None] * _ASIDE
    rings = centres[:, None] + depth[..., None] * skeleton.front[:, None] + breadth[..., None] * skeleton.aside[:, None]
    smooth = _smooth(rings)
    clouds = [np.concatenate([low, high]) for low, high in itertools.pairwise(smooth)]
    if body.pregnancy is not None:
        ahead, aside = skeleton.front[2], skeleton.aside[2]
        axes = half_axes_cm(body)[:, None] * np.stack([ahead, aside, unit(t12 - l5s1)])
        # It grows ahead of the spine, and meets the trunk without an edge.
        clouds.append((l5s1 + t12) / 2 + _SPHERE[_SPHERE[:, 0] > 0] @ axes)
    up = unit(l5s1 - pelvis)
    lowest = min(float(skeleton.legs[side].root[2]) for side in SIDES) - body.length_cm("hip_above_seat")
    buttocks = tuple(_buttock(skeleton, side, up, lowest, s) for side in SIDES)
    round_cm = TRUNK_ROUND_CM if body.pregnancy is None else BELLY_ROUND_CM
    return Part("trunk", None, buttocks, tuple(clouds), round_cm=round_cm)


def _buttock(skeleton: Skeleton, side: Side, up: Array, lowest_cm: float, s: float) -> Chain:
    """The flesh behind a hip, flattened by what is sat on."""
    centre = skeleton.legs[side].root - s * (BUTTOCK_BACK * skeleton.front[0] + BUTTOCK_DOWN * up)
    height = max(float(centre[2]), lowest_cm + BUTTOCK_R * s)
    return Chain(np.array([[centre[0], centre[1], height]]), np.array([BUTTOCK_R * s]))


RING_POINTS = 16
_ROUND = np.linspace(0, 2 * np.pi, RING_POINTS, endpoint=False)
_AHEAD, _ASIDE = np.cos(_ROUND), np.sin(_ROUND)
SMOOTH_RINGS = 9


def _smooth(rings: Array) -> Array:
    """More rings between the given ones along a smooth curve through them, (k, points, 3)."""
    return np.asarray(np.einsum("kr,rpc->kpc", _BETWEEN, rings))


def _between(count: int, rings: int) -> Array:
    """What each of ``count`` rings spread evenly takes of each given one, (count, rings): cubics through all, each with the
    slope of its neighbours."""
    own = np.eye(rings)
    slope = np.gradient(own, axis=0)
    level = np.linspace(0, rings - 1, count)
    low = np.minimum(level.astype(int), rings - 2)
    t = (level - low)[:, None]
    return np.asarray(
        (2 * t**3 - 3 * t**2 + 1) * own[low]
        + (t**3 - 2 * t**2 + t) * slope[low]
        + (3 * t**2 - 2 * t**3) * own[low + 1]
        + (t**3 - t**2) * slope[low + 1]
    )


_BETWEEN = _between(SMOOTH_RINGS, len(RING_SIDE))


def ball_points(count: int) -> Array:
    """Points spread evenly over a ball of radius 1, (count, 3)."""
    k = np.arange(count) + 0.5
    height, turn = 1 - 2 * k / count, np.pi * (1 + 5**0.5) * k
    level = np.sqrt(1 - height**2)
    return np.column_stack([level * np.cos(turn), level * np.sin(turn), height])


_SPHERE = ball_points(64)
