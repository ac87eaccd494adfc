"""The ``figure`` command: one set-up of a variation as SVG."""

from __future__ import annotations

import datetime as dt

from pydantic import Field

from asketa_core.body.measures import STATURE_CM
from asketa_core.client.holds import SlotValue
from asketa_core.clientfile import ClientFile
from asketa_core.commands.speech import ENGLISH
from asketa_core.datafiles import Record
from asketa_core.errors import InputError
from asketa_core.figure.figure import figure, lane_view
from asketa_core.figure.palette import Light
from asketa_core.figure.views import View
from asketa_core.props.kinds import Room
from asketa_core.screening.detail import no_stack_words
from asketa_core.screening.situation import TYPICAL_STATURE_CM, Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.units import Side


class FigureRequest(Record):
    """A client's file needs a date and a room; without a client a typical body is drawn in a well-stocked room.
    ``setup`` names slots to set; what it leaves out stays plain. ``view`` left out is the variation's own."""

    variation: str
    side: Side
    view: View | None = None
    light: Light = Light.PRINT
    labels: bool = True
    stature_cm: float = Field(default=TYPICAL_STATURE_CM, ge=STATURE_CM[0], le=STATURE_CM[1])
    setup: dict[str, SlotValue] = {}
    client: ClientFile | None = None
    room: Room | None = None
    date: dt.date | None = None


def run_figure(request: FigureRequest) -> str:
    """A standalone SVG document."""
    situation = _situation(request)
    rung = situation.library.variation(request.variation)
    unknown = set(request.setup) - set(rung.setup_slots)
    if unknown:
        raise InputError(
            f"setup.{min(unknown)}", "this variation has no such slot.", f"Its slots: {', '.join(rung.setup_slots)}."
        )
    screened = situation.screen(rung, request.side)
    if isinstance(screened, NoGrid):
        raise InputError(
            "room", ENGLISH(no_stack_words(screened)), "Add such a prop to the room, or take another variation."
        )
    row = screened.grid.nearest(request.setup) if request.setup else screened.recommended
    foot = request.setup.get("foot", SlotValue()).choice
    view = request.view or lane_view(rung, request.side)
    return figure(screened, situation.body, situation.room, row, view, ENGLISH, request.labels, foot, request.light)


def _situation(request: FigureRequest) -> Situation:
    if request.client is None:
        return Situation.of_nobody(request.stature_cm)
    if request.room is None or request.date is None:
        missing = "room" if request.room is None else "date"
        raise InputError(missing, "a client is drawn in a room on a day.", "Give both 'room' and 'date'.")
    return Situation.of(request.client, request.date, request.room)
