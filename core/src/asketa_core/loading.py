"""Loading beforehand what is otherwise loaded with the first answer: a server does so once, before it forks."""

from __future__ import annotations

from asketa_core.figure.figure import figure
from asketa_core.figure.views import View
from asketa_core.poses.library import standard_library
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.texts import REFERENCE, words_in
from asketa_core.units import Side

SAT_ON = "bound_angle.low_seat"
"""A rung that takes a seat, a leg let out and a figure with props."""


def load() -> None:
    """The library, the compiled engine, the words, and what figures are drawn with: by one answer about nobody."""
    at = Situation.of_nobody()
    found = at.screen(standard_library().variation(SAT_ON), Side.LEFT)
    assert not isinstance(found, NoGrid), "anybody can sit"
    figure(found, at.body, at.room, found.recommended, View.SIDE_LEFT, words_in(REFERENCE))
