"""Weight and balance."""

from __future__ import annotations

import numpy as np

from asketa_core.errors import InputError
from asketa_core.units import Array


def balance_margin(contacts_cm: Array, point_cm: Array) -> float:
    """Signed distance in cm from a floor point to the edge of the base of support.

    ``contacts_cm`` is (n, 2), ``point_cm`` (2,). The base is the convex hull of the contacts;
    positive means inside. Fewer than three contacts, or contacts in one line, enclose nothing and
    raise ``InputError``.
    """
    # Loaded here: nearly everything else does without.
    from scipy.spatial import ConvexHull, QhullError  # noqa: PLC0415

    try:
        hull = ConvexHull(np.asarray(contacts_cm, float))
    except (QhullError, ValueError) as error:
        raise InputError(
            "contacts_cm", "these contacts enclose no area.", "Give at least three that are not in one line."
        ) from error
    vertices = hull.points[hull.vertices]
    point = np.asarray(point_cm, float)
    signed = hull.equations[:, :2] @ point + hull.equations[:, 2]
    if np.all(signed <= 0):
        return float(-signed.max())
    start, end = vertices, np.roll(vertices, -1, axis=0)
    along = end - start
    t = np.clip(np.sum((point - start) * along, axis=1) / np.sum(along * along, axis=1), 0, 1)
    nearest = start + t[:, None] * along
    return float(-np.min(np.hypot(*(point - nearest).T)))


def resting_foot_share(hip: Array, knee: Array, ankle: Array, toe: Array, masses: tuple[float, float, float]) -> Array:
    """Share of body weight a resting foot carries, by the lever rule about the hip.

    ``masses`` are the mass fractions of thigh, lower leg and foot. The leg hangs between hip and
    foot; what its parts weigh is divided by their horizontal distances from the hip. A foot straight
    below the hip carries the lower leg and foot and half the thigh.
    """
    along = ankle[..., :2] - hip[..., :2]
    reach_sq = np.sum(along * along, axis=-1)
    thigh, shin, foot = masses

    def lever(point: Array) -> Array:
        ratio = np.sum((point[..., :2] - hip[..., :2]) * along, axis=-1) / np.maximum(reach_sq, 1e-9)
        return np.asarray(np.clip(ratio, 0.0, 1.0))

    thigh_centre = hip + 0.433 * (knee - hip)
    shin_centre = knee + 0.433 * (ankle - knee)
    foot_centre = 0.5 * (ankle + toe)
    share = thigh * lever(thigh_centre) + shin * lever(shin_centre) + foot * lever(foot_centre)
    return np.where(reach_sq > 1.0, share, thigh / 2 + shin + foot)


DIRECTIONS_DEG = np.arange(0.0, 360.0, 5.0)


def margin_inside(corners: Array, point: Array) -> Array:
    """Distance in cm from floor points to the edge of the hull of their contacts, positive inside.

    ``corners`` (levels, n, c, 2) and ``point`` (levels, n, 2) give (levels, n). The hull is felt for in
    directions 5° apart, which overstates the margin by less than a tenth of a centimetre for feet; for points
    outside it gives the distance to the nearest supporting line.
    """
    best: Array | None = None
    for angle in np.radians(DIRECTIONS_DEG):
        direction = np.array([np.cos(angle), np.sin(angle)])
        support = (corners @ direction).max(axis=-1) - point @ direction
        best = support if best is None else np.minimum(best, support)
    assert best is not None
    return np.asarray(best)


KNEECAP_LEAN_DEG = (-20.0, 0.0, 25.0, 45.0, 70.0)
KNEECAP_SHARES = (0.1, 0.4, 1.0, 0.4, 0.1)


def kneecap_share(thigh_lean_deg: Array) -> Array:
    """How much of a kneeling leg's load the kneecap takes, by how far the thigh leans forward of vertical
    (judgement): most at 25°, then the load rolls onto the thigh above it."""
    return np.interp(thigh_lean_deg, KNEECAP_LEAN_DEG, KNEECAP_SHARES)
