"""Closing a leg: where the knee goes when hip and ankle are given.

Two rigid links leave the knee one freedom, a circle around the line from hip to ankle. The **swivel** walks along that
circle, growing outward.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from numba import float64

from asketa_core.kernel.compiled import entry, type_of
from asketa_core.kernel.space import FORWARD, UP, Vec
from asketa_core.kernel.vectors import VEC, acosd, along, clip, cosd, cross, dot, minus, norm, root, sind, times, unit

NEARLY_VERTICAL = math.cos(math.radians(1.0))


class KneeCircle(NamedTuple):
    """All places the knee can be.

    ``axis`` points from hip to ankle, ``start`` and ``outward`` span the circle: the knee is at
    ``centre + radius (cos ω · start + sin ω · outward)``. ``offset_cm`` is the signed distance from the hip to the centre
    along the axis. ``reach_shortfall_cm`` says by how much the ankle is too far, ``fold_shortfall_cm`` by how much it is
    nearer than any fold of the two links allows.
    """

    axis: Vec
    start: Vec
    outward: Vec
    centre: Vec
    radius_cm: float
    offset_cm: float
    thigh_cm: float
    knee_flexion_deg: float
    reach_shortfall_cm: float
    fold_shortfall_cm: float


@entry((VEC, VEC))
def up_or_ahead(hip: Vec, ankle: Vec) -> Vec:
    """Where the knee of a leg without a planted foot looks: up, or straight ahead within 1° of a vertical leg."""
    axis = unit(minus(ankle, hip))
    return FORWARD if abs(axis.z) > NEARLY_VERTICAL else UP


@entry((VEC, VEC, float64, float64, float64, VEC))
def knee_circle(
    hip: Vec, ankle: Vec, thigh_cm: float, lower_leg_cm: float, side_sign: float, knee_toward: Vec
) -> KneeCircle:
    """The circle of knee positions for a hip and an ankle; ``knee_toward`` gives swivel 0.

    For planted feet that is the direction of the toes, so that swivel 0 is the knee over the toes; for others
    ``up_or_ahead``, whose upward reference flips near the vertical and must not be used there.

    Nothing is clamped silently: an ankle out of reach gives a straight leg and a shortfall, and the knee flexion is the
    geometric one even where no knee bends so far.
    """
    line = minus(ankle, hip)
    distance = norm(line)
    axis = unit(line)
    included = acosd((thigh_cm**2 + lower_leg_cm**2 - distance**2) / (2 * thigh_cm * lower_leg_cm))
    offset = (thigh_cm**2 - lower_leg_cm**2 + distance**2) / (2 * max(distance, 1e-9))
    offset = clip(offset, -thigh_cm, thigh_cm)
    start = unit(minus(knee_toward, times(axis, dot(knee_toward, axis))))
    outward = cross(axis, start)
    # Outward is the way that points to the leg's own side, a little ahead.
    if 0.3 * outward.x + side_sign * outward.y <= 0:
        outward = times(outward, -1.0)
    return KneeCircle(
        axis,
        start,
        outward,
        along(hip, axis, offset),
        root(thigh_cm**2 - offset**2),
        offset,
        thigh_cm,
        180.0 - included,
        max(distance - (thigh_cm + lower_leg_cm), 0.0),
        max(abs(thigh_cm - lower_leg_cm) - distance, 0.0),
    )


CIRCLE = type_of(KneeCircle(FORWARD, FORWARD, FORWARD, FORWARD, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0))


@entry((CIRCLE, float64))
def knee_at(circle: KneeCircle, swivel_deg: float) -> Vec:
    """The knee at a swivel."""
    out = along(circle.centre, circle.start, circle.radius_cm * cosd(swivel_deg))
    return along(out, circle.outward, circle.radius_cm * sind(swivel_deg))
