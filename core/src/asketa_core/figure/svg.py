"""Projection of a scene to SVG: one renderer for every view.

Colours are those of a palette, or CSS custom properties that leave the choice to the page. Shapes are drawn far to near by mean depth.
"""

from __future__ import annotations

import zlib
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from html import escape

import numpy as np

from asketa_core.figure.areas import (
    PER_CM,
    Area,
    Bounds,
    Line,
    bounds_of,
    covered_cm2,
    hull_at,
    joined,
    length_cm,
    line_at,
    meet,
    rectangle,
)
from asketa_core.figure.furniture import BED_HEIGHT_CM
from asketa_core.figure.outline import Shape, hair, seam, shapes_of
from asketa_core.figure.palette import Light, Paint, paint_for
from asketa_core.figure.props import drawn, edge_cm, face_of, number
from asketa_core.figure.scene import HeightMark, Scene
from asketa_core.figure.solids import Bar, Box, Solid
from asketa_core.figure.views import Eye, View, eye_of
from asketa_core.units import Array

MARGIN_CM = 4.0


@dataclass(frozen=True, slots=True)
class _Shape:
    nearness: float
    markup: str
    points: Array


def outline(area: Area) -> str:
    """An area as the path of its rings."""
    return "".join(f"M{_written(ring)}Z" for ring in area)


def _lines(lines: Iterable[Line], shortest_cm: float) -> str:
    """Lines as open paths; the shortest say nothing."""
    return "".join(f"M{_written(each)}" for each in lines if length_cm(each) > shortest_cm)


def _written(line: Line) -> str:
    """Points as SVG writes them, to the millimetre; what follows a first point is a line without saying so."""
    return " ".join([_IN_CM[(value + PER_MM // 2) // PER_MM] for point in line for value in point])


PER_MM = PER_CM // 10


class _InCm(dict[int, str]):
    """Millimetres as centimetres are written, each kept once written."""

    def __missing__(self, millimetres: int) -> str:
        self[millimetres] = written = number(millimetres / 10)
        return written


_IN_CM = _InCm()


SEAM_CM, SMALL_SEAM_CM = 0.75, 1.1
SHORTEST_SEAM_CM, SMALL_SHORTEST_CM = 3.0, 9.0
LANE_FROM, LANE_FULL = 0.10, 0.46
"""Along the thigh, where the colour of the lane begins and where it is whole."""


def _body_shapes(scene: Scene, eye: Eye, paint: Paint, small: bool) -> tuple[list[_Shape], list[Shape]]:
    """The body far to near: each part over what lies behind it, a seam where its edge crosses that. As it is drawn, and as it is."""
    drawn: list[_Shape] = []
    shapes = sorted(shapes_of(scene.parts, eye), key=lambda each: each.nearness)
    for at, shape in enumerate(shapes):
        tone = "far" if eye.far_side is not None and shape.part.side is eye.far_side else "mid"
        fill, before = _fill(shape, tone, eye, paint)
        # The groin is the body's colour, a knee its leg's.
        corners = paint(tone) if shape.part.name == "thigh" else fill
        markup = f'<path d="{outline(shape.flesh)}" fill="{corners}"/>' if shape.flesh else ""
        markup += f'{before}<path d="{outline(shape.area)}" fill="{fill}"/>'
        if line := _lines(seam(shape, shapes[:at]), SMALL_SHORTEST_CM if small else SHORTEST_SEAM_CM):
            markup += (
                f'<path d="{line}" fill="none" stroke="{paint("ground")}" stroke-width="{SMALL_SEAM_CM if small else SEAM_CM}" '
                'stroke-linecap="round" stroke-linejoin="round"/>'
            )
        if shape.part.name == "head":
            cap = hair(scene.skull, eye)
            if cap:
                markup += f'<path d="{outline(cap)}" fill="{paint("hair")}"/>'
        drawn.append(_Shape(shape.nearness, markup, _corners(shape.bounds)))
    return drawn, shapes


def _corners(bounds: Bounds) -> Array:
    return np.array(bounds).reshape(2, 2)


def _fill(shape: Shape, tone: str, eye: Eye, paint: Paint) -> tuple[str, str]:
    """How a part is filled, and what has to be said before: a worked leg turns into its lane's colour below the groin."""
    part = shape.part
    if not part.worked or part.side is None:
        return paint(tone), ""
    if part.axis is None:
        return paint(part.side.value), ""
    start, end = eye.flat(part.axis[0]), eye.flat(part.axis[1])
    if float(np.hypot(*(end - start))) < 6.0:
        return paint(part.side.value), ""
    marks = [number(value) for value in (*start, *end)]
    name = f"lane{zlib.crc32(' '.join((*marks, part.side.value)).encode()):x}"
    x1, y1, x2, y2 = marks
    gradient = (
        f'<linearGradient id="{name}" gradientUnits="userSpaceOnUse" x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}">'
        f'<stop offset="{LANE_FROM}" stop-color="{paint("mid")}"/>'
        f'<stop offset="{LANE_FULL}" stop-color="{paint(part.side.value)}"/></linearGradient>'
    )
    return f"url(#{name})", gradient


def _box_shape(box: Box, eye: Eye, paint: Paint, small: bool) -> _Shape:
    face = face_of(box, eye)
    corners = np.array([[face.x0, face.y0], [face.x1, face.y1]])
    # What stands behind never hides the body, wherever it stands.
    nearness = -np.inf if box.wall or box.behind else _nearness(np.stack([box.low, box.high]), eye)
    if box.held and eye.from_above:
        # Between two limbs, one of which lies over it.
        nearness -= float(box.high[2] - box.low[2])
    return _Shape(nearness, drawn(box, face, paint, small), corners)


def _solid_shape(solid: Solid, eye: Eye, paint: Paint, small: bool) -> _Shape:
    ring = hull_at(eye.flat(solid.points))
    markup = (
        f'<path d="{outline([ring])}" fill="{paint(solid.material)}" stroke="{paint(f"{solid.material}-edge")}" '
        f'stroke-width="{edge_cm(small)}" stroke-linejoin="round"/>'
    )
    return _Shape(_nearness(solid.points, eye), markup, _corners(bounds_of([ring])))


BEYOND_CM = 3.0
PALE = 0.4


def _bar_shapes(bars: Sequence[Bar], eye: Eye, paint: Paint, small: bool) -> Iterator[_Shape]:
    """Posts, rails and straps as strokes; what is seen end on, and small what is far, is left out."""
    for bar in bars:
        page = eye.flat(bar.points)
        nearness = float(eye.near(bar.points).mean())
        pale = bar.belongs_at is not None and nearness < float(eye.near(bar.belongs_at)) - BEYOND_CM
        if (small and pale) or float(np.ptp(page, axis=0).max()) < 1.0:
            continue
        path = f'<path d="M{_written(line_at(page))}" fill="none" stroke-linejoin="round" stroke-linecap="round" '
        edge = paint(f"{bar.material}-edge") if bar.material != "strap" else paint("felt-edge")
        faded = f' opacity="{PALE}"' if pale else ""
        markup = f'{path}stroke="{edge}" stroke-width="{bar.thick_cm}"/>'
        if bar.material != "strap":
            inner = number(bar.thick_cm - 2 * edge_cm(small) * 0.8)
            markup += f'{path}stroke="{paint(bar.material)}" stroke-width="{inner}"/>'
        yield _Shape(
            -np.inf if bar.behind else _nearness(bar.points, eye), f"<g{faded}>{markup}</g>" if pale else markup, page
        )


def _nearness(corners: Array, eye: Eye) -> float:
    """How near a prop is: from above by what it lies on, since what it carries lies over it."""
    near = eye.near(corners)
    return float(near.min() if eye.from_above else near.mean())


MAT_CM = 6.0
"""How far a mat reaches beyond the body seen from above."""


def render(
    scene: Scene,
    view: View,
    description: str,
    labels: bool = True,
    light: Light | None = None,
    small: bool = False,
    tall_cm: float = 0.0,
    size: Callable[[float], str] = "{:.0f}".format,
) -> str:
    """One view of a scene as a standalone ``<svg>``; one unit is one centimetre.

    ``description`` becomes the accessible text. ``labels`` writes prop heights beside the props, as ``size`` writes centimetres. Without a
    ``light`` the page decides about the colours. ``small`` figures have what can be told apart at 110 pixels,
    with stronger lines and no labels. The page is at least ``tall_cm`` high, the figure at its foot.
    """
    paint, eye = paint_for(light), eye_of(view, scene.lying, scene.on_side)
    body, parts = _body_shapes(scene, eye, paint, small)
    # What is as near as another is drawn in this order: legs of a bed before the bed.
    shapes = [*_bar_shapes(scene.bars, eye, paint, small)]
    shapes += [_box_shape(box, eye, paint, small) for box in scene.boxes]
    shapes += [_solid_shape(solid, eye, paint, small) for solid in scene.solids]
    shapes = sorted([*shapes, *body], key=lambda shape: shape.nearness)
    points = np.concatenate([shape.points for shape in shapes])
    low, high = points.min(axis=0) - MARGIN_CM, points.max(axis=0) + MARGIN_CM
    drawn_on = []
    if not eye.from_above:
        floor = 0.0 if scene.bed is None else BED_HEIGHT_CM
        drawn_on.append(
            f'<path d="M{number(low[0])} {number(floor)}H{number(high[0])}" stroke="{paint("line")}" '
            'stroke-width="0.8"/>'
        )
        high[1] = max(high[1], floor + 3.0)
    elif scene.lying and scene.bed is None and not small:
        low, high = low - MAT_CM, high + MAT_CM
        x, y, width, height = (number(v) for v in (*(low + 2), *(high - low - 4)))
        drawn_on.append(
            f'<rect x="{x}" y="{y}" width="{width}" height="{height}" rx="2" fill="{paint("line")}" opacity="0.16"/>'
        )
    written: list[str] = []
    if labels and not small and view is not View.ABOVE:
        written, boxes = _labels(scene.marks, eye, parts, paint, size)
        for x0, y0, x1, y1 in boxes:
            low, high = np.minimum(low, [x0 - 1, y0 - 1]), np.maximum(high, [x1 + 1, y1 + 1])
    low[1] = min(low[1], high[1] - tall_cm)
    width, height = high - low
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{number(low[0])} {number(low[1])} {number(width)} '
        f'{number(height)}" role="img" aria-label="{escape(description, quote=True)}">'
        + "".join([*drawn_on, *(shape.markup for shape in shapes), *written])
        + "</svg>"
    )


LABEL_CM, DIGIT_CM = 6.0, 3.6


def _labels(
    marks: Sequence[HeightMark], eye: Eye, body: Sequence[Shape], paint: Paint, size: Callable[[float], str]
) -> tuple[list[str], list[Bounds]]:
    """Heights where they cover least of the body and nothing of each other, and the box of each."""
    written: list[str] = []
    found: list[Bounds] = []
    for mark in marks:
        text = size(round(mark.height_cm))
        wide = DIGIT_CM * len(text)
        at = eye.flat(mark.at)
        places = [
            (float(at[0]) + aside, float(at[1]) + down)
            for down in (0.0, -LABEL_CM, LABEL_CM)
            for aside in _asides(mark, eye, wide)
        ]
        boxes = [(x - wide / 2, y - 2.6, x + wide / 2, y + 2.6) for x, y in places]
        flesh = joined(shape.area for shape in body if any(meet(shape.bounds, box) for box in boxes))
        covers = covered_cm2([*flesh, *map(rectangle, found)], boxes)
        best = int(np.argmin(np.round(covers, 1)))
        x, y = places[best]
        found.append(boxes[best])
        written.append(
            f'<text x="{number(x)}" y="{number(y + 2)}" font-size="{number(LABEL_CM)}" text-anchor="middle" '
            f'fill="{paint("ink")}" font-family="inherit">{text}</text>'
        )
    return written, found


def _asides(mark: HeightMark, eye: Eye, wide: float) -> Sequence[float]:
    """How far from its mark a height may be written, the usual place first."""
    reach = wide / 2 + 1.5
    inside = () if mark.beside else (0.0,)
    left, right = -mark.half_cm - reach, mark.half_cm + reach
    outer = (left, right) if float(eye.flat(mark.at)[0]) < 0 else (right, left)
    return (*inside, *outer)
