"""Contact sheets: figures of many variations on one page, to judge them at a glance."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from html import escape

from asketa_core.figure.figure import figure, lane_view
from asketa_core.figure.palette import Light, paint_for
from asketa_core.poses.library import Variation
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.texts import REFERENCE, words_in
from asketa_core.units import Side

COLUMNS, ROWS = 6, 5
CELL_WIDTH, CELL_HEIGHT, CAPTION = 230, 190, 18

_OPENING = re.compile(r'<svg xmlns="[^"]+" viewBox="([^"]+)"')


def contact_sheets(
    situation: Situation, side: Side = Side.LEFT, light: Light = Light.DAY, small: bool = False
) -> Iterator[str]:
    """Every variation for one body as SVG pages, in the library's order."""
    every, size = list(situation.library.variations()), COLUMNS * ROWS
    for start in range(0, len(every), size):
        yield _page(situation, every[start : start + size], side, light, small)


def _page(situation: Situation, page: Sequence[Variation], side: Side, light: Light, small: bool) -> str:
    paint = paint_for(light)
    width, height = COLUMNS * CELL_WIDTH, ROWS * (CELL_HEIGHT + CAPTION)
    cells = [
        _cell(
            situation,
            variation,
            side,
            light,
            small,
            (at % COLUMNS) * CELL_WIDTH,
            (at // COLUMNS) * (CELL_HEIGHT + CAPTION),
        )
        for at, variation in enumerate(page)
    ]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}" width="{width}" height="{height}" '
        f'font-family="sans-serif" font-size="11"><rect width="{width}" height="{height}" fill="{paint("ground")}"/>'
        + "".join(cells)
        + "</svg>"
    )


def _cell(situation: Situation, variation: Variation, side: Side, light: Light, small: bool, x: int, y: int) -> str:
    screened = situation.screen(variation, side)
    note, drawn = "", ""
    if isinstance(screened, NoGrid):
        note = " (nothing in the room)"
    else:
        if not screened.judged.possible(screened.recommended):
            note = " (cannot be met)"
        svg = figure(
            screened,
            situation.body,
            situation.room,
            screened.recommended,
            lane_view(variation, side),
            words_in(REFERENCE),
            labels=False,
            light=light,
            small=small,
        )
        inner_width, inner_height = CELL_WIDTH - 10, CELL_HEIGHT - 8
        drawn = _OPENING.sub(
            rf'<svg x="{x + 5}" y="{y + CAPTION}" width="{inner_width}" height="{inner_height}" '
            r'preserveAspectRatio="xMidYMax meet" viewBox="\1"',
            svg,
            count=1,
        )
    return (
        f'<text x="{x + 6}" y="{y + 13}" fill="{paint_for(light)("ink")}">{escape(variation.id + note)}</text>{drawn}'
    )
