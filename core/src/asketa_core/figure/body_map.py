"""The body that records are pinned to: somebody standing, seen from behind, as one outline."""

from __future__ import annotations

from typing import Any

import numpy as np

from asketa_core.figure.areas import PER_CM, bounds_of, joined, line_at
from asketa_core.figure.figure import scene_of
from asketa_core.figure.outline import shapes_of
from asketa_core.figure.svg import outline
from asketa_core.figure.views import View, eye_of
from asketa_core.poses.library import standard_library
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.units import Side

WIDTH, HEIGHT = 100.0, 212.0
"""The map kinds of record name their places on; the middle is at half its width."""
MARGIN = 6.0
STANDS = "standing_balance.mountain"


def body_map() -> dict[str, Any]:
    """The outline as an SVG path, with the map's width and height."""
    at = Situation.of_nobody()
    screened = at.screen(standard_library().variation(STANDS), Side.LEFT)
    assert not isinstance(screened, NoGrid), "anybody can stand"
    scene = scene_of(screened, at.body, at.room, screened.recommended)
    shapes = shapes_of(scene.parts, eye_of(View.BEHIND, scene.lying))
    whole = joined([area for shape in shapes for area in (shape.area, shape.flesh)])
    _, top, _, bottom = bounds_of(whole)
    scale = (HEIGHT - 2 * MARGIN) / (bottom - top)
    placed = [line_at(np.array([WIDTH / 2, MARGIN]) + scale * (np.array(ring) / PER_CM - [0.0, top])) for ring in whole]
    return {"width": WIDTH, "height": HEIGHT, "path": outline(placed)}
