"""The ``screen`` command: verdicts for a client file on a date in a room."""

from __future__ import annotations

import datetime as dt
from typing import Any

from asketa_core.clientfile import ClientFile
from asketa_core.datafiles import Record
from asketa_core.props.kinds import Room
from asketa_core.screening import screen_client


class ScreenRequest(Record):
    """``variations`` are full ids; all when left out."""

    client: ClientFile
    date: dt.date
    room: Room
    variations: tuple[str, ...] | None = None


def run_screen(request: ScreenRequest) -> dict[str, Any]:
    return screen_client(request.client, request.date, request.room, request.variations)
