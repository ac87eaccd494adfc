"""What the measures API takes and gives."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from ninja import Schema

from asketa_core import Quantity, Side

BodyQuantity = Literal["stature", "weight"]


class ReadingIn(Schema):
    """One reading; cm, kg or degrees by quantity. Body measures have no side."""

    quantity: BodyQuantity | Quantity
    side: Side | None = None
    value: float
    method: Literal["goniometer", "inclinometer", "tape", "eye", ""] = ""


class ReadingsIn(Schema):
    date: dt.date | None = None
    readings: list[ReadingIn]


class ReadingOut(Schema):
    value: float
    method: str
    date: dt.date


class MeasuredSide(Schema):
    """What is known of one range on one side: latest reading first. ``typical`` and its error apply
    while there is none."""

    readings: list[ReadingOut]
    value: float
    error: float
    measured: bool


class RangeOut(Schema):
    quantity: Quantity
    plausible_from: float
    plausible_to: float
    typical: float
    typical_error: float
    left: MeasuredSide
    right: MeasuredSide


class MeasuresOut(Schema):
    stature: list[ReadingOut]
    weight: list[ReadingOut]
    level_seat_cm: float | None
    ranges: list[RangeOut]
