"""The dropped knee: a bent leg falls outward until something stops it.

The ankle is held; the swivel grows from 0 and the knee comes to rest at the first of: the hip's turning out is used up,
its abduction is used up, or the knee meets what is under it. Each of the three crossings has the form
``a cos ω + b sin ω = c`` and is solved exactly.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from numba import float64

from asketa_core.kernel.closing import CIRCLE, KneeCircle
from asketa_core.kernel.codes import StoppedBy
from asketa_core.kernel.compiled import compiled, entry
from asketa_core.kernel.space import Vec
from asketa_core.kernel.vectors import VEC, asind, atan2d, clip, cosd, cross, dot, sind


class Drop(NamedTuple):
    """Where the knee came to rest: swivel in degrees and what stopped it, a ``StoppedBy``."""

    swivel_deg: float
    stopped_by: int


class Crossing(NamedTuple):
    """Both solutions in [0, 360) degrees of a cos ω + b sin ω = c, and whether there are any."""

    first_deg: float
    second_deg: float
    there: bool


@compiled
def crossing(a: float, b: float, c: float) -> Crossing:
    amplitude = math.hypot(a, b)
    if amplitude <= max(abs(c), 1e-12):
        return Crossing(0.0, 0.0, False)
    phase = atan2d(b, a)
    spread = math.degrees(math.acos(clip(c / amplitude, -1.0, 1.0)))
    return Crossing((phase - spread) % 360.0, (phase + spread) % 360.0, True)


@compiled
def in_the_fall(root_deg: float) -> float:
    """A solution the knee passes while it falls; infinite where it does not."""
    return root_deg if 1e-9 < root_deg <= 180.0 else math.inf


@compiled
def first_of(found: Crossing) -> float:
    if not found.there:
        return math.inf
    return min(in_the_fall(found.first_deg), in_the_fall(found.second_deg))


class Turning(NamedTuple):
    """How the hip of a knee circle turns out along the fall: the pelvis's left-pointing axis seen along the circle.
    Pelvic pitch does not move that axis, so the fall is the same at any tilt."""

    start: float
    outward: float
    axis: float
    hinge_start: float
    hinge_outward: float


@compiled
def turning_of(circle: KneeCircle, side_axis: Vec) -> Turning:
    return Turning(
        dot(side_axis, circle.start),
        dot(side_axis, circle.outward),
        dot(side_axis, circle.axis),
        dot(side_axis, cross(circle.start, circle.axis)),
        dot(side_axis, cross(circle.outward, circle.axis)),
    )


@compiled
def rotation_parts(circle: KneeCircle, seen: Turning, swivel_deg: float) -> tuple[float, float]:
    """Sine and cosine parts of m·E at a swivel: the pelvis's side axis seen along the thigh's x and y."""
    c, s = cosd(swivel_deg), sind(swivel_deg)
    along_x = (circle.offset_cm * (c * seen.start + s * seen.outward) - circle.radius_cm * seen.axis) / circle.thigh_cm
    return along_x, c * seen.hinge_start + s * seen.hinge_outward


@compiled
def by_turning_out(circle: KneeCircle, seen: Turning, side_sign: float, external_rotation_deg: float) -> float:
    """The swivel at which the turning out is used up: along_x · cos(mE) - along_y · sin(mE) = 0."""
    share = circle.offset_cm / circle.thigh_cm
    ce, se = cosd(side_sign * external_rotation_deg), sind(side_sign * external_rotation_deg)
    found = crossing(
        share * seen.start * ce - seen.hinge_start * se,
        share * seen.outward * ce - seen.hinge_outward * se,
        circle.radius_cm / circle.thigh_cm * seen.axis * ce,
    )
    if not found.there:
        return math.inf
    nearest = math.inf
    for root_deg in (found.first_deg, found.second_deg):
        # The same equation holds half a turn away, so a root counts only where the parts point the right way.
        x, y = rotation_parts(circle, seen, root_deg)
        if x * se + y * ce > 0:
            nearest = min(nearest, in_the_fall(root_deg))
    return nearest


@compiled
def by_abduction(circle: KneeCircle, seen: Turning, side_sign: float, abduction_deg: float) -> float:
    """The swivel at which the hip has opened so far: pelvis side axis · (knee - hip) = thigh · sin(mA)."""
    r = circle.radius_cm
    wanted = circle.thigh_cm * sind(side_sign * abduction_deg) - circle.offset_cm * seen.axis
    return first_of(crossing(r * seen.start, r * seen.outward, wanted))


@compiled
def by_support(circle: KneeCircle, support_z_cm: float) -> float:
    """The swivel at which the knee has come down to a height."""
    r = circle.radius_cm
    return first_of(crossing(r * circle.start.z, r * circle.outward.z, support_z_cm - circle.centre.z))


@entry((CIRCLE, VEC, float64, float64, float64, float64))
def drop_knee(
    circle: KneeCircle,
    side_axis: Vec,
    side_sign: float,
    external_rotation_deg: float,
    abduction_deg: float,
    knee_support_z_cm: float,
) -> Drop:
    """Let the knee fall outward.

    ``side_axis`` is the pelvis's left-pointing axis; ``external_rotation_deg`` and ``abduction_deg`` are what the hip
    gives in the open position, ``knee_support_z_cm`` the height of the knee centre on its support.
    """
    if circle.reach_shortfall_cm > 0 or circle.fold_shortfall_cm > 0:
        return Drop(0.0, StoppedBy.CANNOT_CLOSE.value)
    seen = turning_of(circle, side_axis)
    x_now, y_now = rotation_parts(circle, seen, 0.0)
    if side_sign * atan2d(x_now, y_now) > external_rotation_deg + 1e-9:
        return Drop(0.0, StoppedBy.ALREADY_PAST_EXTERNAL_ROTATION.value)
    q, r = circle.offset_cm, circle.radius_cm
    if side_sign * asind((q * seen.axis + r * seen.start) / circle.thigh_cm) > abduction_deg + 1e-9:
        return Drop(0.0, StoppedBy.ALREADY_PAST_ABDUCTION.value)
    if circle.centre.z + r * circle.start.z < knee_support_z_cm - 1e-9:
        return Drop(0.0, StoppedBy.ALREADY_PAST_SUPPORT.value)
    swivel = by_turning_out(circle, seen, side_sign, external_rotation_deg)
    stopped = StoppedBy.EXTERNAL_ROTATION.value
    opened = by_abduction(circle, seen, side_sign, abduction_deg)
    if opened < swivel:
        swivel, stopped = opened, StoppedBy.ABDUCTION.value
    rests = by_support(circle, knee_support_z_cm)
    if rests < swivel:
        swivel, stopped = rests, StoppedBy.SUPPORT.value
    if swivel == math.inf:
        return Drop(180.0, StoppedBy.FULLY_DROPPED.value)
    return Drop(swivel, stopped)
