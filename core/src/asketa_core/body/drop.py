"""The dropped knee: a bent leg falls outward until something stops it.

The ankle is held; the swivel grows from 0 and the knee comes to rest at the first of: the hip's
turning out is used up, its abduction is used up, or the knee meets what is under it. Each of the
three crossings has the form ``a cos ω + b sin ω = c`` and is solved exactly.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum

import numpy as np

from asketa_core.body.closing import KneeCircle
from asketa_core.units import Array, Mask, cosd, cross, dot, sind


class StoppedBy(IntEnum):
    """What ended the fall. The order of the ``ALREADY`` and of the plain members is the order in
    which ties are named."""

    EXTERNAL_ROTATION = 0
    ABDUCTION = 1
    SUPPORT = 2
    FULLY_DROPPED = 3
    ALREADY_PAST_EXTERNAL_ROTATION = 4
    ALREADY_PAST_ABDUCTION = 5
    ALREADY_PAST_SUPPORT = 6
    CANNOT_CLOSE = 7

    @property
    def code(self) -> str:
        return self.name.lower()


@dataclass(frozen=True, slots=True)
class Drop:
    """Where the knee came to rest: swivel in degrees and what stopped it (``StoppedBy`` values)."""

    swivel_deg: Array
    stopped_by: np.ndarray[tuple[int, ...], np.dtype[np.int64]]


def _crossings(a: Array, b: Array, c: Array) -> tuple[Array, Array]:
    """Both solutions in (0, 360] degrees of a cos ω + b sin ω = c; nan where there is none."""
    amplitude = np.hypot(a, b)
    reachable = amplitude > np.maximum(np.abs(c), 1e-12)
    ratio = np.divide(c, amplitude, out=np.zeros_like(amplitude), where=reachable)
    phase = np.degrees(np.arctan2(b, a))
    spread = np.degrees(np.arccos(np.clip(ratio, -1.0, 1.0)))
    first, second = (phase - spread) % 360.0, (phase + spread) % 360.0
    nan = np.full_like(amplitude, np.nan)
    return np.where(reachable, first, nan), np.where(reachable, second, nan)


def _first_valid(roots: tuple[Array, Array], valid: tuple[Mask, Mask]) -> Array:
    """The smallest valid root in (0, 180]; inf where there is none."""
    found = [
        np.where(ok & ~np.isnan(root) & (root > 1e-9) & (root <= 180.0), root, np.inf)
        for root, ok in zip(roots, valid, strict=True)
    ]
    return np.minimum(found[0], found[1])


def drop_knee(
    circle: KneeCircle,
    pelvis_side_axis: Array,
    side_sign: float,
    external_rotation_deg: Array | float,
    abduction_deg: Array | float,
    knee_support_z_cm: Array | float,
) -> Drop:
    """Let the knees of a batch of legs fall outward.

    ``pelvis_side_axis`` (..., 3) is the pelvis's left-pointing axis: pelvic pitch does not move it,
    so the fall is the same at any tilt. ``external_rotation_deg`` and ``abduction_deg`` are what the
    hip gives in the open position, ``knee_support_z_cm`` the height of the knee centre on its support.
    """
    m = side_sign
    shape = circle.radius_cm.shape
    p = np.broadcast_to(pelvis_side_axis, circle.axis.shape)
    e_stop = np.broadcast_to(np.asarray(external_rotation_deg, float), shape)
    a_stop = np.broadcast_to(np.asarray(abduction_deg, float), shape)
    support = np.broadcast_to(np.asarray(knee_support_z_cm, float), shape)
    r, q, lt = circle.radius_cm, circle.offset_cm, circle.thigh_cm
    p_start, p_outward, p_axis = dot(p, circle.start), dot(p, circle.outward), dot(p, circle.axis)
    hinge_start = dot(p, cross(circle.start, circle.axis))
    hinge_outward = dot(p, cross(circle.outward, circle.axis))

    def rotation_parts(swivel: Array) -> tuple[Array, Array]:
        """Sine and cosine parts of m·E: the pelvis's side axis seen along the thigh's x and y."""
        c, s = cosd(swivel), sind(swivel)
        along_x = (q * (c * p_start + s * p_outward) - r * p_axis) / lt
        along_y = c * hinge_start + s * hinge_outward
        return np.asarray(along_x), np.asarray(along_y)

    # Turning out: along_x · cos(mE) - along_y · sin(mE) = 0. The same equation holds half a turn
    # away, so a root counts only where the parts point the right way.
    ce, se = cosd(m * e_stop), sind(m * e_stop)
    e_roots = _crossings(
        np.asarray(q / lt * p_start * ce - hinge_start * se),
        np.asarray(q / lt * p_outward * ce - hinge_outward * se),
        np.asarray(r / lt * p_axis * ce),
    )

    def right_branch(root: Array) -> Mask:
        x, y = rotation_parts(np.nan_to_num(root))
        return np.asarray(x * se + y * ce > 0)

    by_rotation = _first_valid(e_roots, (right_branch(e_roots[0]), right_branch(e_roots[1])))

    # Abduction: pelvis side axis · (knee - hip) = thigh · sin(mA).
    always = np.ones(shape, dtype=bool)
    a_roots = _crossings(r * p_start, r * p_outward, np.asarray(lt * sind(m * a_stop) - q * p_axis))
    by_abduction = _first_valid(a_roots, (always, always))

    # Support: the knee's own height.
    z_roots = _crossings(
        np.asarray(r * circle.start[..., 2]),
        np.asarray(r * circle.outward[..., 2]),
        np.asarray(support - circle.centre[..., 2]),
    )
    by_support = _first_valid(z_roots, (always, always))

    zero = np.zeros(shape)
    x0, y0 = rotation_parts(zero)
    e_now = m * np.degrees(np.arctan2(x0, y0))
    a_now = m * np.degrees(np.arcsin(np.clip((q * p_axis + r * p_start) / lt, -1.0, 1.0)))
    z_now = circle.centre[..., 2] + r * circle.start[..., 2]

    candidates = np.stack([by_rotation, by_abduction, by_support])
    swivel = np.min(candidates, axis=0)
    stopped = np.argmin(candidates, axis=0).astype(np.int64)
    never = np.isinf(swivel)
    swivel = np.where(never, 180.0, swivel)
    stopped = np.where(never, int(StoppedBy.FULLY_DROPPED), stopped)
    for already, member in (
        (z_now < support - 1e-9, StoppedBy.ALREADY_PAST_SUPPORT),
        (a_now > a_stop + 1e-9, StoppedBy.ALREADY_PAST_ABDUCTION),
        (e_now > e_stop + 1e-9, StoppedBy.ALREADY_PAST_EXTERNAL_ROTATION),
    ):
        swivel = np.where(already, 0.0, swivel)
        stopped = np.where(already, int(member), stopped)
    cannot = (circle.reach_shortfall_cm > 0) | (circle.fold_shortfall_cm > 0)
    return Drop(np.where(cannot, 0.0, swivel), np.where(cannot, int(StoppedBy.CANNOT_CLOSE), stopped))
