"""The client file: everything about one client that the engine needs, as JSON.

Absent and unknown are the same for facts; unknown keys are refused with their path. No room in it:
the room belongs to the practice.
"""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, Field, TypeAdapter, ValidationError, model_validator

from asketa_core.body.measures import STATURE_CM, WEIGHT_KG, Body
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity, Range, Ranges, method_error_deg
from asketa_core.datafiles import Record, place_of
from asketa_core.errors import InputError
from asketa_core.units import Side

FORMAT = "asketa-client"
VERSION = 1

TriState = Literal["yes", "no", "unknown"]
Scope = Literal["all", "bend", "midline", "turning_in", "turning_out", "extension", "abductors", "loading"]


class Clearance(Record):
    """A treating professional's dated word that something is allowed again."""

    who: Literal["surgeon", "doctor", "physiotherapist", "midwife"]
    date: dt.date
    scope: tuple[Scope, ...] = Field(min_length=1)


class HipReplacementFacts(Record):
    date: dt.date | None = None
    approach: Literal["posterior", "direct_anterior", "anterolateral", "lateral", "unknown"] = "unknown"
    prosthesis: Literal["total", "half", "resurfacing", "revision", "unknown"] = "unknown"
    dislocated: TriState = "unknown"
    abductor_repair: TriState = "unknown"
    weight_bearing: Literal["full", "partial", "touch", "unknown"] = "unknown"
    trouble_since: TriState = "unknown"
    """A fall, new pain or a dislocation since the precautions ended."""
    surgeon_bend_deg: float | None = Field(default=None, ge=30, le=140)
    leg_length_difference_cm: float | None = Field(default=None, ge=-8, le=8)
    school: Literal["until_cleared", "for_life"] = "until_cleared"


class KneeFacts(Record):
    site: Literal["front", "inner_line", "outer_line", "back", "all_over", "below_kneecap", "unknown"] = "unknown"
    diagnosis: Literal[
        "kneecap", "bursitis", "inner_meniscus", "outer_meniscus", "meniscus_repaired", "arthritis",
        "acl", "pcl", "mcl", "lcl", "replacement", "over_straightens", "unknown",
    ] = "unknown"  # fmt: skip
    since: dt.date | None = None
    operated: TriState = "unknown"
    operation_date: dt.date | None = None
    swelling: TriState = "unknown"
    locks_or_gives_way: TriState = "unknown"


class Entry(Record):
    """What every record has: an id, a side, since when and until when it counts."""

    id: str
    side: Side
    from_date: dt.date | None = None
    until_date: dt.date | None = None
    clearances: tuple[Clearance, ...] = ()


class HipReplacement(Entry):
    kind: Literal["hip_replacement"]
    facts: HipReplacementFacts


class KneePain(Entry):
    kind: Literal["knee_pain"]
    facts: KneeFacts


AnyEntry = Annotated[HipReplacement | KneePain, Field(discriminator="kind")]


class DailyFact(Record):
    """Something asked at arrival; older than 14 days it counts as unknown."""

    entry_id: str
    date: dt.date
    pain_today: int | None = Field(default=None, ge=0, le=10)
    irritable: TriState = "unknown"
    """Once stirred up it stays so until the next day."""


class RangeMeasure(Record):
    quantity: Quantity
    side: Side
    value_deg: float
    method: Literal["goniometer", "inclinometer", "tape", "eye"]
    error_deg: float | None = Field(default=None, gt=0, le=30)
    date: dt.date

    @model_validator(mode="after")
    def plausible(self) -> RangeMeasure:
        reason = check_plausible(self.quantity, self.value_deg)
        if reason is not None:
            raise ValueError(reason)
        return self


class BodyMeasure(Record):
    quantity: Literal["stature", "weight"]
    value: float
    date: dt.date

    @model_validator(mode="after")
    def plausible(self) -> BodyMeasure:
        low, high = {"stature": STATURE_CM, "weight": WEIGHT_KG}[self.quantity]
        if not low <= self.value <= high:
            raise ValueError(f"a {self.quantity} lies between {low:g} and {high:g}")
        return self


class Person(Record):
    id: str
    name: str | None = None
    birth_date: dt.date | None = None


class Settings(Record):
    first_weeks_after_hip: int = Field(default=12, ge=6, le=26)
    discomfort_allowed: int = Field(default=2, ge=0, le=5)


class SlotValue(Record):
    """One slot of a set-up as used: a stack by its key and height, a number, or a choice."""

    stack: str | None = None
    number: float | None = None
    choice: str | None = None


Place = Literal["wanted", "hip", "groin", "knee", "back", "other"]
Sensation = Literal["stretch", "warm", "pressure", "sharp", "pinching", "tingling", "numb", "none"]
Sign = Literal["breath_held", "grimace", "wobble", "back_rounds", "knee_rides_up", "pelvis_tilts", "clunk", "gave_way"]


class Response(Record):
    """What happened on one side in one hold."""

    id: str
    date: dt.date
    variation: str
    side: Side
    setup: dict[str, SlotValue]
    dose_s: int = Field(gt=0, le=1200)
    before: int = Field(ge=0, le=10)
    during: int = Field(ge=0, le=10)
    after: int = Field(ge=0, le=10)
    kind: Sensation = "none"
    place: Place = "wanted"
    signs: tuple[Sign, ...] = ()
    settled_next_morning: TriState = "unknown"
    note: str = Field(default="", max_length=2000)


class ClientFile(Record):
    format: Literal["asketa-client"]
    version: Literal[1]
    client: Person
    entries: tuple[AnyEntry, ...] = ()
    daily: tuple[DailyFact, ...] = ()
    ranges: tuple[RangeMeasure, ...] = ()
    body: tuple[BodyMeasure, ...] = ()
    responses: tuple[Response, ...] = ()
    settings: Settings = Settings()

    @model_validator(mode="after")
    def ids_fit(self) -> ClientFile:
        entries = {entry.id for entry in self.entries}
        if len(entries) != len(self.entries):
            raise ValueError("two entries share an id")
        if len({response.id for response in self.responses}) != len(self.responses):
            raise ValueError("two responses share an id")
        strangers = {fact.entry_id for fact in self.daily} - entries
        if strangers:
            raise ValueError("a daily fact names an entry that is not in the file")
        return self

    def as_of(self, date: dt.date) -> ClientFile:
        """The file with only what was known on ``date``."""
        return self.model_copy(
            update={
                "daily": tuple(fact for fact in self.daily if fact.date <= date),
                "ranges": tuple(m for m in self.ranges if m.date <= date),
                "body": tuple(m for m in self.body if m.date <= date),
                "responses": tuple(r for r in self.responses if r.date <= date),
            }
        )

    def latest_body(self, date: dt.date) -> Body:
        """Stature and weight last measured up to ``date``; ``InputError`` names what is missing."""
        latest: dict[str, float] = {}
        for measure in sorted((m for m in self.body if m.date <= date), key=lambda m: m.date):
            latest[measure.quantity] = measure.value
        if "stature" not in latest:
            raise InputError("body", "the stature is not known.", "Enter the stature under Measures.")
        # Weight changes no angle of a seated leg, only loads in newtons, which use it as a factor.
        return Body(latest["stature"], latest.get("weight", 70.0))

    def latest_ranges(self, date: dt.date) -> Ranges:
        """Ranges of motion last measured up to ``date``; the rest is the population's."""
        measured: dict[tuple[Quantity, Side], Range] = {}
        for m in sorted((m for m in self.ranges if m.date <= date), key=lambda m: m.date):
            error = m.error_deg if m.error_deg is not None else method_error_deg(m.method)
            measured[(m.quantity, m.side)] = Range(m.value_deg, error, measured=True)
        return Ranges.from_measured(measured)


Model = TypeVar("Model", bound=BaseModel)

_REMEDIES = {
    "missing": "Give this field.",
    "extra_forbidden": "Remove it or correct its name.",
    "literal_error": "Use one of the values the schema lists.",
    "date_from_datetime_parsing": "Write dates as YYYY-MM-DD.",
}


def parse(model: type[Model], raw: Any) -> Model:
    """Check ``raw`` against ``model``; the first problem becomes an ``InputError`` with its path."""
    try:
        return TypeAdapter(model).validate_python(raw)
    except ValidationError as error:
        first = error.errors(include_input=False, include_url=False)[0]
        raise InputError(
            place_of(first["loc"]), first["msg"] + ".", _REMEDIES.get(first["type"], "Correct it as the schema says.")
        ) from error


def check_plausible(quantity: Quantity, value_deg: float) -> str | None:
    """Why a reading is refused, or ``None`` when it is plausible."""
    low, high = PLAUSIBLE_DEG[quantity]
    if low <= value_deg <= high:
        return None
    return f"This is outside {low:g}–{high:g}°, which hips and knees of adults stay within. Check the reading."
