"""What the measures API takes and gives."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from ninja import Field

from asketa_core import BodyQuantity, Conditions, Day, Quantity, Side, TriState
from common.schemas import Input, Output

Seen = Literal[
    "test.moves_as_one", "seen.knee_twist", "seen.hip_use", "seen.hip_range", "seen.hip_extension", "seen.knee_range",
    "seen.ankle_range", "seen.back_rounds", "seen.back_hollows", "seen.shin_steep",
]  # fmt: skip
"""What is seen rather than read off: a test's result by its number, and a shape beyond the model's bound."""


class ReadingIn(Input):
    """One reading; cm, kg, seconds or degrees by quantity. Body measures have no side. ``conditions`` are the
    lengths a tape reading was turned into degrees with; ``note`` is what was looked at."""

    quantity: BodyQuantity | Quantity | Seen
    side: Side | None = None
    value: float
    method: Literal["goniometer", "inclinometer", "tape", "eye", ""] = ""
    error: float | None = Field(default=None, gt=0, le=30)
    pelvis_held: TriState = "unknown"
    conditions: Conditions = {}
    note: Literal["", "hollow", "flat", "rounded"] = ""


class TapeIn(Input):
    """Sitting with the soles together: how high the knee is above the floor, how far the heel is ahead of
    the hips, how high the seat; cm."""

    side: Side
    knee_height_cm: float = Field(ge=0, le=90)
    foot_distance_cm: float = Field(ge=5, le=90)
    seat_height_cm: float = Field(ge=0, le=60)


class TapeOut(Output):
    value_deg: float
    error_deg: float


class ReadingsIn(Input):
    date: Day | None = None
    readings: list[ReadingIn] = Field(min_length=1, max_length=200)


class ReadingOut(Output):
    value: float
    method: str
    date: dt.date
    pelvis_held: TriState
    note: str


class MeasuredSide(Output):
    """What is known of one range on one side: latest reading first. ``typical`` and its error apply
    while there is none."""

    readings: list[ReadingOut]
    value: float
    error: float
    measured: bool


class RangeOut(Output):
    quantity: Quantity
    plausible_from: float
    plausible_to: float
    typical: float
    typical_error: float
    left: MeasuredSide
    right: MeasuredSide


class MeasuresOut(Output):
    """``body`` by quantity and ``seen`` by what was seen and side, newest first. ``level_seat_cm`` is the seat on which this client's thighs are
    level with the feet flat."""

    body: dict[str, list[ReadingOut]]
    seen: dict[str, dict[Side, list[ReadingOut]]]
    level_seat_cm: float | None
    ranges: list[RangeOut]
