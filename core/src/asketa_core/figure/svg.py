"""Projection of a scene to SVG: one renderer for every view.

Colours are those of a palette, or CSS custom properties that leave the choice to the page. Shapes are drawn far to near by mean depth.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from html import escape
from itertools import pairwise

import numpy as np

from asketa_core.figure.palette import Light, Paint, paint_for
from asketa_core.figure.scene import Box, Capsule, HeightMark, Prism, Scene, Trunk
from asketa_core.units import Array, Side

MARGIN_CM = 4.0
RING_POINTS = 20
SMOOTH_RINGS = 11


class View(StrEnum):
    """Where the figure is seen from. ``SIDE_LEFT`` looks from the client's left, who then faces left."""

    SIDE_LEFT = "side_left"
    SIDE_RIGHT = "side_right"
    FRONT = "front"
    BEHIND = "behind"
    ABOVE = "above"


_PROJECTIONS: dict[View, tuple[Callable[[Array], Array], Callable[[Array], Array]]] = {
    View.SIDE_LEFT: (lambda p: np.stack([-p[..., 0], -p[..., 2]], -1), lambda p: p[..., 1]),
    View.SIDE_RIGHT: (lambda p: np.stack([p[..., 0], -p[..., 2]], -1), lambda p: -p[..., 1]),
    View.FRONT: (lambda p: np.stack([p[..., 1], -p[..., 2]], -1), lambda p: p[..., 0]),
    View.BEHIND: (lambda p: np.stack([-p[..., 1], -p[..., 2]], -1), lambda p: -p[..., 0]),
    View.ABOVE: (lambda p: np.stack([-p[..., 1], -p[..., 0]], -1), lambda p: p[..., 2]),
}
"""World → page (right, down) and world → nearness, for each view."""


@dataclass(frozen=True, slots=True)
class _Shape:
    nearness: float
    markup: str
    points: Array


def _number(value: float) -> str:
    """A coordinate to the millimetre, as short as it can be written."""
    tenths = round(float(value) * 10)
    return str(tenths // 10) if tenths % 10 == 0 else f"{tenths / 10}"


def _path(points: Array) -> str:
    return "M" + "L".join(f"{_number(x)} {_number(y)}" for x, y in points) + "Z"


def _hull(points: Array) -> Array:
    # Loaded with the first figure: whoever draws none does without.
    from scipy.spatial import ConvexHull  # noqa: PLC0415

    return np.asarray(points[ConvexHull(points).vertices])


def _capsule_outline(start: Array, end: Array, radius_start: float, radius_end: float) -> str:
    """The outline of two circles and their outer tangents; one circle alone where it hides the other."""
    along = end - start
    distance = float(np.hypot(*along))
    if distance <= abs(radius_start - radius_end) + 1e-6:
        centre, radius = (start, radius_start) if radius_start >= radius_end else (end, radius_end)
        left, y, r, across = (_number(v) for v in (centre[0] - radius, centre[1], radius, 2 * radius))
        return f"M{left} {y}a{r} {r} 0 1 0 {across} 0a{r} {r} 0 1 0 -{across} 0Z"
    angle = float(np.arctan2(along[1], along[0]))
    open_by = float(np.arccos((radius_start - radius_end) / distance))

    def at(centre: Array, radius: float, turn: float) -> str:
        return f"{_number(centre[0] + radius * np.cos(turn))} {_number(centre[1] + radius * np.sin(turn))}"

    first, last = angle + open_by, angle - open_by
    r1, r2 = _number(radius_start), _number(radius_end)
    return (
        f"M{at(start, radius_start, first)}A{r1} {r1} 0 {int(open_by < np.pi / 2)} 1 {at(start, radius_start, last)}"
        f"L{at(end, radius_end, last)}A{r2} {r2} 0 {int(open_by > np.pi / 2)} 1 {at(end, radius_end, first)}Z"
    )


def _capsule_shape(capsule: Capsule, view: View, tone: str, paint: Paint) -> _Shape:
    flat, near = _PROJECTIONS[view]
    start, end = flat(capsule.start), flat(capsule.end)
    outline = _capsule_outline(start, end, capsule.radius_start_cm, capsule.radius_end_cm)
    markup = (
        f'<path d="{outline}" fill="{paint(tone)}" stroke="{paint("ground")}" '
        'stroke-width="0.9" stroke-linejoin="round"/>'
    )
    reach = max(capsule.radius_start_cm, capsule.radius_end_cm)
    bounds = np.stack([np.minimum(start, end) - reach, np.maximum(start, end) + reach])
    return _Shape(float((near(capsule.start) + near(capsule.end)) / 2), markup, bounds)


def _trunk_shape(trunk: Trunk, view: View, paint: Paint) -> _Shape:
    """Hulls of neighbouring rings; a seam around all of them first, so that inside none shows."""
    flat, near = _PROJECTIONS[view]
    angles = np.linspace(0, 2 * np.pi, RING_POINTS, endpoint=False)
    rings = []
    for centre, front, aside, side, depth in zip(
        trunk.centres, trunk.front, trunk.aside, trunk.side_cm, trunk.depth_cm, strict=True
    ):
        ring = centre + np.outer(depth * np.cos(angles), front) + np.outer(side * np.sin(angles), aside)
        rings.append(flat(ring))
    smooth = _smooth(np.stack(rings))
    hulls = [_hull(np.concatenate([lower, upper])) for lower, upper in pairwise(smooth)]
    d = "".join(_path(hull) for hull in hulls)
    tone = paint("mid")
    markup = (
        f'<path d="{d}" fill="{paint("ground")}" stroke="{paint("ground")}" stroke-width="1.8"/>'
        f'<path d="{d}" fill="{tone}" stroke="{tone}" stroke-width="0.6" stroke-linejoin="round"/>'
    )
    return _Shape(float(near(trunk.centres).mean()), markup, np.concatenate(hulls))


def _smooth(rings: Array) -> Array:
    """More rings between the given ones along a smooth curve, (k, points, 2)."""
    level = np.arange(len(rings))
    from scipy.interpolate import PchipInterpolator  # noqa: PLC0415

    return np.asarray(PchipInterpolator(level, rings, axis=0)(np.linspace(0, len(rings) - 1, SMOOTH_RINGS)))


def _box_shape(box: Box, view: View, paint: Paint) -> _Shape:
    flat, near = _PROJECTIONS[view]
    corners = flat(np.stack([box.low, box.high]))
    (x0, y0), (x1, y1) = corners.min(axis=0), corners.max(axis=0)
    fill, edge = paint(box.material), paint(f"{box.material}-edge")
    faded = ' opacity="0.45"' if box.see_through else ""
    parts = [
        f'<rect x="{_number(x0)}" y="{_number(y0)}" width="{_number(x1 - x0)}" height="{_number(y1 - y0)}" '
        f'rx="0.8" fill="{fill}" stroke="{edge}" stroke-width="0.6"{faded}/>'
    ]
    if view is not View.ABOVE:
        lines = max(0, box.folds // 2 - 1)
        for k in range(1, lines + 1):
            y = y0 + (y1 - y0) * k / (lines + 1)
            parts.append(
                f'<path d="M{_number(x0 + 0.8)} {_number(y)}H{_number(x1 - 0.8)}" stroke="{edge}" stroke-width="0.35"/>'
            )
    centre = (box.low + box.high) / 2
    return _Shape(float(near(centre)), "".join(parts), corners)


def _prism_shape(prism: Prism, view: View, paint: Paint) -> _Shape:
    flat, near = _PROJECTIONS[view]
    corners = np.concatenate(
        [
            np.column_stack([prism.profile[:, 0], np.full(len(prism.profile), y), prism.profile[:, 1]])
            for y in (-prism.half_breadth_cm, prism.half_breadth_cm)
        ]
    )
    outline = _hull(flat(corners))
    markup = (
        f'<path d="{_path(outline)}" fill="{paint(prism.material)}" stroke="{paint(f"{prism.material}-edge")}" '
        'stroke-width="0.6" stroke-linejoin="round"/>'
    )
    return _Shape(float(near(corners).mean()), markup, outline)


def _tone(capsule: Capsule, view: View) -> str:
    if capsule.worked and capsule.side is not None:
        return capsule.side.value
    if view is View.SIDE_LEFT and capsule.side is Side.RIGHT:
        return "far"
    if view is View.SIDE_RIGHT and capsule.side is Side.LEFT:
        return "far"
    return "mid" if capsule.part == "head" else "near"


def render(scene: Scene, view: View, description: str, labels: bool = True, light: Light | None = None) -> str:
    """One view of a scene as a standalone ``<svg>``; one unit is one centimetre.

    ``description`` becomes the accessible text. ``labels`` writes prop heights beside the props. Without a
    ``light`` the page decides about the colours.
    """
    paint = paint_for(light)
    flat, _ = _PROJECTIONS[view]
    shapes = [_box_shape(box, view, paint) for box in scene.boxes]
    shapes += [_prism_shape(prism, view, paint) for prism in scene.prisms]
    shapes.append(_trunk_shape(scene.trunk, view, paint))
    shapes += [_capsule_shape(capsule, view, _tone(capsule, view), paint) for capsule in scene.capsules]
    shapes.sort(key=lambda shape: shape.nearness)
    points = np.concatenate([shape.points for shape in shapes])
    low, high = points.min(axis=0) - MARGIN_CM, points.max(axis=0) + MARGIN_CM
    body = [shape.markup for shape in shapes]
    if view is not View.ABOVE:
        body.insert(
            0,
            f'<path d="M{_number(low[0])} 0H{_number(high[0])}" stroke="{paint("line")}" stroke-width="0.8"/>',
        )
        high[1] = max(high[1], 3.0)
        if labels:
            centre = (low[0] + high[0]) / 2
            body += [_label(mark, flat(mark.at), bool(flat(mark.at)[0] >= centre), paint) for mark in scene.marks]
            low[0], high[0] = low[0] - 9, high[0] + 9
    width, height = high - low
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{_number(low[0])} {_number(low[1])} {_number(width)} '
        f'{_number(height)}" role="img" aria-label="{escape(description, quote=True)}">' + "".join(body) + "</svg>"
    )


def _label(mark: HeightMark, at: Array, outward: bool, paint: Paint) -> str:
    x, anchor = at[0], "middle"
    if mark.beside:
        x, anchor = (x + 1.5, "start") if outward else (x - 1.5, "end")
    return (
        f'<text x="{_number(x)}" y="{_number(at[1] + 2)}" font-size="6" text-anchor="{anchor}" '
        f'fill="{paint("ink")}" font-family="inherit">{mark.height_cm:.0f}</text>'
    )
