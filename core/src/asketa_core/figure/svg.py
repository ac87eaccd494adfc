"""Projection of a scene to SVG: one renderer for every view.

Colours are CSS custom properties (``--fig-…``) with the printed palette as fallback, so that the page
decides about day, dim room and print. Shapes are drawn far to near by mean depth.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from html import escape
from itertools import pairwise

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.spatial import ConvexHull

from asketa_core.figure.scene import Box, Capsule, HeightMark, Prism, Scene, Trunk
from asketa_core.units import Array, Side

MARGIN_CM = 4.0
RING_POINTS = 28


class View(StrEnum):
    """Where the figure is seen from. ``SIDE_LEFT`` looks from the client's left, who then faces left."""

    SIDE_LEFT = "side_left"
    SIDE_RIGHT = "side_right"
    BEHIND = "behind"
    ABOVE = "above"


_PROJECTIONS: dict[View, tuple[Callable[[Array], Array], Callable[[Array], Array]]] = {
    View.SIDE_LEFT: (lambda p: np.stack([-p[..., 0], -p[..., 2]], -1), lambda p: p[..., 1]),
    View.SIDE_RIGHT: (lambda p: np.stack([p[..., 0], -p[..., 2]], -1), lambda p: -p[..., 1]),
    View.BEHIND: (lambda p: np.stack([-p[..., 1], -p[..., 2]], -1), lambda p: -p[..., 0]),
    View.ABOVE: (lambda p: np.stack([-p[..., 1], -p[..., 0]], -1), lambda p: p[..., 2]),
}
"""World → page (right, down) and world → nearness, for each view."""

_FALLBACK = {
    "ground": "#FBF8F1",
    "left": "#1E6F75",
    "right": "#7B4B84",
    "near": "#44525B",
    "mid": "#5B6870",
    "far": "#B4B9B8",
    "wood": "#CDA878",
    "wood-edge": "#A9834F",
    "felt": "#9DB0AA",
    "felt-edge": "#6F857E",
    "cotton": "#C48A78",
    "cotton-edge": "#9C6553",
    "line": "#8F8A7C",
    "ink": "#27343C",
}


def _paint(name: str) -> str:
    return f"var(--fig-{name},{_FALLBACK[name]})"


@dataclass(frozen=True, slots=True)
class _Shape:
    nearness: float
    markup: str
    points: Array


def _number(value: float) -> str:
    return f"{value:.1f}".rstrip("0").rstrip(".") if "." in f"{value:.1f}" else f"{value:.1f}"


def _path(points: Array) -> str:
    return "M" + "L".join(f"{_number(x)} {_number(y)}" for x, y in points) + "Z"


def _hull(points: Array) -> Array:
    return np.asarray(points[ConvexHull(points).vertices])


def _circle(centre: Array, radius: float) -> Array:
    angles = np.linspace(0, 2 * np.pi, RING_POINTS, endpoint=False)
    return np.asarray(centre + radius * np.stack([np.cos(angles), np.sin(angles)], -1))


def _capsule_shape(capsule: Capsule, view: View, tone: str) -> _Shape:
    flat, near = _PROJECTIONS[view]
    outline = _hull(
        np.concatenate(
            [_circle(flat(capsule.start), capsule.radius_start_cm), _circle(flat(capsule.end), capsule.radius_end_cm)]
        )
    )
    markup = (
        f'<path d="{_path(outline)}" fill="{_paint(tone)}" stroke="{_paint("ground")}" '
        'stroke-width="0.9" stroke-linejoin="round"/>'
    )
    return _Shape(float((near(capsule.start) + near(capsule.end)) / 2), markup, outline)


def _trunk_shape(trunk: Trunk, view: View) -> _Shape:
    """Hulls of neighbouring rings; a seam around all of them first, so that inside none shows."""
    flat, near = _PROJECTIONS[view]
    angles = np.linspace(0, 2 * np.pi, RING_POINTS, endpoint=False)
    rings = []
    for centre, lean, side, depth in zip(trunk.centres, trunk.lean_deg, trunk.side_cm, trunk.depth_cm, strict=True):
        tilt = np.radians(lean)
        forward = np.array([np.cos(tilt), 0.0, -np.sin(tilt)])
        ring = centre + np.outer(depth * np.cos(angles), forward) + np.outer(side * np.sin(angles), [0.0, 1.0, 0.0])
        rings.append(flat(ring))
    smooth = _smooth(np.stack(rings))
    hulls = [_hull(np.concatenate([lower, upper])) for lower, upper in pairwise(smooth)]
    d = "".join(_path(hull) for hull in hulls)
    tone = _paint("mid")
    markup = (
        f'<path d="{d}" fill="{_paint("ground")}" stroke="{_paint("ground")}" stroke-width="1.8"/>'
        f'<path d="{d}" fill="{tone}" stroke="{tone}" stroke-width="0.6" stroke-linejoin="round"/>'
    )
    return _Shape(float(near(trunk.centres).mean()), markup, np.concatenate(hulls))


def _smooth(rings: Array) -> Array:
    """More rings between the given ones along a smooth curve, (k, points, 2)."""
    level = np.arange(len(rings))
    return np.asarray(PchipInterpolator(level, rings, axis=0)(np.linspace(0, len(rings) - 1, 17)))


def _box_shape(box: Box, view: View) -> _Shape:
    flat, near = _PROJECTIONS[view]
    corners = flat(np.stack([box.low, box.high]))
    (x0, y0), (x1, y1) = corners.min(axis=0), corners.max(axis=0)
    fill, edge = _paint(box.material), _paint(f"{box.material}-edge")
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


def _prism_shape(prism: Prism, view: View) -> _Shape:
    flat, near = _PROJECTIONS[view]
    corners = np.concatenate(
        [
            np.column_stack([prism.profile[:, 0], np.full(len(prism.profile), y), prism.profile[:, 1]])
            for y in (-prism.half_breadth_cm, prism.half_breadth_cm)
        ]
    )
    outline = _hull(flat(corners))
    markup = (
        f'<path d="{_path(outline)}" fill="{_paint(prism.material)}" stroke="{_paint(f"{prism.material}-edge")}" '
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


def render(scene: Scene, view: View, description: str, labels: bool = True) -> str:
    """One view of a scene as a standalone ``<svg>``; one unit is one centimetre.

    ``description`` becomes the accessible text. ``labels`` writes prop heights beside the props.
    """
    flat, _ = _PROJECTIONS[view]
    shapes = [_box_shape(box, view) for box in scene.boxes]
    shapes += [_prism_shape(prism, view) for prism in scene.prisms]
    shapes.append(_trunk_shape(scene.trunk, view))
    shapes += [_capsule_shape(capsule, view, _tone(capsule, view)) for capsule in scene.capsules]
    shapes.sort(key=lambda shape: shape.nearness)
    points = np.concatenate([shape.points for shape in shapes])
    low, high = points.min(axis=0) - MARGIN_CM, points.max(axis=0) + MARGIN_CM
    body = [shape.markup for shape in shapes]
    if view is not View.ABOVE:
        body.insert(
            0,
            f'<path d="M{_number(low[0])} 0H{_number(high[0])}" stroke="{_paint("line")}" stroke-width="0.8"/>',
        )
        high[1] = max(high[1], 3.0)
        if labels:
            centre = (low[0] + high[0]) / 2
            body += [_label(mark, flat(mark.at), bool(flat(mark.at)[0] >= centre)) for mark in scene.marks]
            low[0], high[0] = low[0] - 9, high[0] + 9
    width, height = high - low
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{_number(low[0])} {_number(low[1])} {_number(width)} '
        f'{_number(height)}" role="img" aria-label="{escape(description, quote=True)}">' + "".join(body) + "</svg>"
    )


def _label(mark: HeightMark, at: Array, outward: bool) -> str:
    x, anchor = at[0], "middle"
    if mark.beside:
        x, anchor = (x + 1.5, "start") if outward else (x - 1.5, "end")
    return (
        f'<text x="{_number(x)}" y="{_number(at[1] + 2)}" font-size="6" text-anchor="{anchor}" '
        f'fill="{_paint("ink")}" font-family="inherit">{mark.height_cm:.0f}</text>'
    )
