"""Measures: ranges of motion, the body, tests that no range shows, and what was seen on the mat."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field, model_validator

from asketa_core.answers import Day, TriState
from asketa_core.body.measures import STATURE_CM, WEIGHT_KG
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity
from asketa_core.datafiles import Record
from asketa_core.plain_text import Key
from asketa_core.texts import REFERENCE, Phrase, say, words_in
from asketa_core.units import Side

Conditions = Annotated[dict[Key, Annotated[float, Field(ge=-1000, le=1000)]], Field(max_length=10)]


class RangeMeasure(Record):
    """``pelvis_held``: whether the pelvis was kept still; otherwise the reading includes some of its roll.
    ``conditions`` are what a tape reading was turned into degrees with (foot distance, seat height), cm."""

    quantity: Quantity
    side: Side
    value_deg: float
    method: Literal["goniometer", "inclinometer", "tape", "eye"]
    error_deg: float | None = Field(default=None, gt=0, le=30)
    date: Day
    pelvis_held: TriState = "unknown"
    conditions: Conditions = {}

    @model_validator(mode="after")
    def plausible(self) -> RangeMeasure:
        reason = check_plausible(self.quantity, self.value_deg)
        if reason is not None:
            raise ValueError(words_in(REFERENCE)(reason))
        return self


BodyQuantity = Literal[
    "stature", "weight", "chair_height", "sitting_seat", "sitting_knee_minus_hip", "sitting_plumb_offset",
    "one_leg_stand",
]  # fmt: skip
PLAUSIBLE_BODY: dict[str, tuple[float, float]] = {
    "stature": STATURE_CM,
    "weight": WEIGHT_KG,
    "chair_height": (20.0, 80.0),
    "sitting_seat": (0.0, 60.0),
    "sitting_knee_minus_hip": (-30.0, 50.0),
    "sitting_plumb_offset": (-10.0, 40.0),
    "one_leg_stand": (0.0, 120.0),
}
"""Measures without a side, cm (weight in kg, the one-leg stand in seconds on the less steady leg), and what is plausible
for each."""


class BodyMeasure(Record):
    """``note`` holds what is looked at rather than measured (the low back: hollow, flat or rounded)."""

    quantity: BodyQuantity
    value: float
    date: Day
    note: Literal["", "hollow", "flat", "rounded"] = ""

    @model_validator(mode="after")
    def plausible(self) -> BodyMeasure:
        low, high = PLAUSIBLE_BODY[self.quantity]
        if not low <= self.value <= high:
            raise ValueError(f"a {self.quantity.replace('_', ' ')} lies between {low:g} and {high:g}")
        return self


TEST_RESULTS = ("not_passed", "passed", "not_tried")
"""What a test may come to, in the order stored numbers count them in."""


class TestResult(Record):
    """A test that no range shows, seen on one side: whether thigh and shin lift as one."""

    __test__ = False

    test: Literal["moves_as_one"]
    side: Side
    result: Literal["passed", "not_passed", "not_tried"]
    date: Day


Bound = Literal[
    "knee_twist", "hip_use", "hip_range", "hip_extension", "knee_range", "ankle_range", "back_rounds", "back_hollows",
    "shin_steep",
]  # fmt: skip
"""What usually ends a shape, and a therapist may have seen otherwise."""


class SeenOnTheMat(Record):
    """A shape beyond what the model takes for possible, seen on this client: from its date on a caution, until the day it
    was taken back."""

    bound: Bound
    side: Side
    date: Day
    until: Day | None = None

    def holds(self, date: dt.date) -> bool:
        return self.date <= date and (self.until is None or date < self.until)


def check_plausible(quantity: Quantity, value_deg: float) -> Phrase | None:
    """Why a reading is refused, or ``None`` when it is plausible."""
    low, high = PLAUSIBLE_DEG[quantity]
    if low <= value_deg <= high:
        return None
    return say("implausible", "outside_adults", low=low, high=high)
