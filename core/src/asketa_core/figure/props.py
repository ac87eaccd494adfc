"""Props on the page: each kind by what one knows it by. One unit is one centimetre."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from asketa_core.figure.palette import Paint
from asketa_core.figure.solids import Box
from asketa_core.figure.views import Eye

EDGE_CM, SMALL_EDGE_CM = 0.55, 0.9
FINE_CM = 0.35
"""Lines around props, and within them; small figures have stronger ones around and none within."""


def edge_cm(small: bool) -> float:
    return SMALL_EDGE_CM if small else EDGE_CM


@dataclass(frozen=True, slots=True)
class Face:
    """One side of a box as it is seen: its corners on the page, and whether one looks along its length or down on it."""

    x0: float
    y0: float
    x1: float
    y1: float
    end_on: bool
    from_above: bool

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.y1 - self.y0

    def inside(self, by: float) -> Face:
        return Face(self.x0 + by, self.y0 + by, self.x1 - by, self.y1 - by, self.end_on, self.from_above)


def face_of(box: Box, eye: Eye) -> Face:
    ends = (box.low, box.high)
    corners = eye.flat(np.array([[x[0], y[1], z[2]] for x in ends for y in ends for z in ends]))
    (x0, y0), (x1, y1) = corners.min(axis=0), corners.max(axis=0)
    size = box.high - box.low
    longest = np.eye(3)[int(np.argmax(size[:2]))]
    along = eye.flat(np.stack([np.zeros(3), longest]))
    return Face(
        float(x0), float(y0), float(x1), float(y1), bool(np.hypot(*(along[1] - along[0])) < 0.5), eye.from_above
    )


def number(value: float) -> str:
    """A coordinate to the millimetre, as short as it can be written."""
    tenths = round(float(value) * 10)
    return str(tenths // 10) if tenths % 10 == 0 else f"{tenths / 10}"


def drawn(box: Box, face: Face, paint: Paint, small: bool = False) -> str:
    """A prop as SVG."""
    if box.wall:
        return _rect(face, 0, paint("line"), None, opacity=0.22)
    fill, edge = paint(box.material), paint(f"{box.material}-edge")
    if small:
        return _plain(box, face, fill, edge)
    match box.kind:
        case "blanket":
            return _blanket(box, face, fill, edge)
        case "bolster" | "round_bolster" | "towel_roll":
            return _roll(face, fill, edge)
        case "cushion" | "pillow":
            return _pillow(face, fill, edge)
        case "block" | "slim_block":
            return _rect(face, 0.8, fill, edge) + _grain(face, edge)
        case "mattress":
            return _rect(face, 3.0, fill, edge)
    return _rect(face, 0.9, fill, edge)


def _plain(box: Box, face: Face, fill: str, edge: str) -> str:
    """A prop by its outline alone."""
    round_cm = {"bolster": 0.36, "round_bolster": 0.36, "towel_roll": 0.36, "cushion": 0.42, "pillow": 0.42}
    thick = min(face.width, face.height)
    end_on = face.end_on and not face.from_above and box.kind in ("bolster", "round_bolster", "towel_roll")
    return _rect(face, (0.5 if end_on else round_cm.get(box.kind, 0.08)) * thick, fill, edge, SMALL_EDGE_CM)


def _rect(
    face: Face, round_cm: float, fill: str, edge: str | None, edge_wide: float = EDGE_CM, opacity: float | None = None
) -> str:
    stroke = "" if edge is None else f' stroke="{edge}" stroke-width="{edge_wide}"'
    faded = "" if opacity is None else f' opacity="{opacity}"'
    corner = f' rx="{number(round_cm)}"' if round_cm else ""
    return (
        f'<rect x="{number(face.x0)}" y="{number(face.y0)}" width="{number(face.width)}" height="{number(face.height)}"'
        f'{corner} fill="{fill}"{stroke}{faded}/>'
    )


def _line(d: str, edge: str, width: float = FINE_CM) -> str:
    return f'<path d="{d}" fill="none" stroke="{edge}" stroke-width="{width}" stroke-linecap="round"/>'


def _blanket(box: Box, face: Face, fill: str, edge: str) -> str:
    """Its folds, one strip for each that can be told apart; from above the edge of the fold."""
    if face.from_above:
        third = number(face.x0 + face.width / 3)
        return _rect(face, 1.5, fill, edge) + _line(f"M{third} {number(face.y0 + 1)}V{number(face.y1 - 1)}", edge)
    strips = int(np.clip(box.folds // 2, 1, max(1, face.height // 1.1)))
    tall = face.height / strips
    found = []
    for k in range(strips):
        # Ends never lie quite on each other.
        uneven = 0.5 if k % 2 else 0.0
        strip = Face(face.x0 + uneven, face.y0 + k * tall, face.x1 - uneven, face.y0 + (k + 1) * tall, False, False)
        found.append(_rect(strip, min(1.2, tall / 2), fill, edge))
    return "".join(found)


def _roll(face: Face, fill: str, edge: str) -> str:
    """A bolster: round ends with their piping, or the round end itself."""
    if face.end_on and not face.from_above:
        rx, ry = face.width / 2, face.height / 2
        cx, cy = (face.x0 + face.x1) / 2, (face.y0 + face.y1) / 2
        return "".join(
            f'<ellipse cx="{number(cx)}" cy="{number(cy)}" rx="{number(rx * part)}" ry="{number(ry * part)}" '
            f'fill="{fill if part == 1 else "none"}" stroke="{edge}" stroke-width="{EDGE_CM if part == 1 else FINE_CM}"/>'
            for part in (1, 0.72, 0.18)
        )
    across = face.width >= face.height
    thick = min(face.width, face.height)
    body = _rect(face, 0.36 * thick, fill, edge)
    in_by, bow = min(3.2, 0.25 * thick), min(1.6, 0.12 * thick)
    ends = []
    for at, way in (
        ((face.x0 + in_by, -1), (face.x1 - in_by, 1))
        if across
        else (
            (face.y0 + in_by, -1),
            (face.y1 - in_by, 1),
        )
    ):
        if across:
            ends.append(
                f"M{number(at)} {number(face.y0 + 0.5)}q{number(way * bow)} {number(face.height / 2 - 0.5)} "
                f"0 {number(face.height - 1)}"
            )
        else:
            ends.append(
                f"M{number(face.x0 + 0.5)} {number(at)}q{number(face.width / 2 - 0.5)} {number(way * bow)} "
                f"{number(face.width - 1)} 0"
            )
    return body + _line("".join(ends), edge)


def _pillow(face: Face, fill: str, edge: str) -> str:
    thick = min(face.width, face.height)
    crease = face.inside(min(1.6, 0.2 * thick))
    middle = number((crease.y0 + crease.y1) / 2)
    return _rect(face, 0.42 * thick, fill, edge) + _line(
        f"M{number(crease.x0 + 1)} {middle}H{number(crease.x1 - 1)}", edge
    )


def _grain(face: Face, edge: str) -> str:
    """The bevel of a block and two strokes of its grain."""
    inner = face.inside(0.75)
    if min(inner.width, inner.height) < 3:
        return ""
    marks = [
        f'<rect x="{number(inner.x0)}" y="{number(inner.y0)}" width="{number(inner.width)}" '
        f'height="{number(inner.height)}" rx="0.5" fill="none" stroke="{edge}" stroke-width="{FINE_CM}" opacity="0.6"/>'
    ]
    for share in (0.36, 0.66):
        y = number(inner.y0 + share * inner.height)
        start, end = inner.x0 + 0.22 * inner.width, inner.x0 + (0.62 if share < 0.5 else 0.8) * inner.width
        marks.append(_line(f"M{number(start)} {y}H{number(end)}", edge))
    return "".join(marks)
