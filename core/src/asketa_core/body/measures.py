"""Body measures: population proportions, overridden by what a tape measure said."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cache

from pydantic import model_validator

from asketa_core.datafiles import DATA, Record, load
from asketa_core.errors import InputError
from asketa_core.kernel.records import SEGMENTS, WEIGHED

STATURE_CM = (90.0, 230.0)
WEIGHT_KG = (30.0, 250.0)
"""Plausible readings; outside them a slip of the pen is likelier than the person."""


class SegmentMass(Record):
    fraction: float
    centre: float


class RangeNorm(Record):
    value: float
    error: float
    source: str


NORMS = DATA / "norms" / "body.yaml"
NEEDED = {
    "segments": set(SEGMENTS),
    "masses": set(WEIGHED),
    "methods": {"goniometer", "inclinometer", "tape", "eye"},
}
"""What the body model asks its norms for, no more and no less."""


class BodyNorms(Record):
    """The file ``data/norms/body.yaml``."""

    sources: dict[str, str]
    segments: dict[str, float]
    masses: dict[str, SegmentMass]
    ranges: dict[str, RangeNorm]
    methods: dict[str, float]

    @model_validator(mode="after")
    def what_is_needed_is_there(self) -> BodyNorms:
        for name, needed in NEEDED.items():
            if differ := sorted(needed ^ set(getattr(self, name))):
                raise ValueError(f"{name}: '{differ[0]}' is {'missing' if differ[0] in needed else 'not known'}")
        if unknown := sorted({norm.source for norm in self.ranges.values()} - set(self.sources)):
            raise ValueError(f"there is no source '{unknown[0]}'")
        return self


@cache
def body_norms() -> BodyNorms:
    return load(NORMS, BodyNorms)


@dataclass(frozen=True, slots=True)
class Pregnancy:
    """How far along, in completed weeks; decides how large the belly is."""

    week: float
    twins: bool = False


@dataclass(frozen=True, slots=True)
class Body:
    """One client's body. Lengths in cm; ``measured`` names the segments taken by tape."""

    stature_cm: float
    weight_kg: float
    measured: dict[str, float] = field(default_factory=dict)
    pregnancy: Pregnancy | None = None
    rounded_cm: float = 0.0
    """How far the head stays from a wall behind the back: a rounded upper back, which figures show."""

    def __post_init__(self) -> None:
        check_range("stature_cm", self.stature_cm, STATURE_CM, "cm")
        check_range("weight_kg", self.weight_kg, WEIGHT_KG, "kg")
        for name in self.measured:
            if name not in body_norms().segments:
                raise InputError(
                    f"measured.{name}", "no body segment has this name.", f"Use one of {sorted(body_norms().segments)}."
                )

    @staticmethod
    def of_average_adult() -> Body:
        """A stand-in where no length matters."""
        return Body(stature_cm=170.0, weight_kg=70.0)

    def length_cm(self, segment: str) -> float:
        """Length of a segment of ``data/norms/body.yaml`` in cm, measured or by proportion."""
        if segment in self.measured:
            return self.measured[segment]
        return body_norms().segments[segment] * self.stature_cm

    @property
    def level_seat_cm(self) -> float:
        """Seat height for level thighs with the soles on the floor and the shins upright."""
        return self.length_cm("lower_leg") + self.length_cm("ankle_above_sole") - self.length_cm("hip_above_seat")


def check_range(name: str, value: float, plausible: tuple[float, float], unit: str) -> None:
    """Raise ``InputError`` unless ``value`` lies in the plausible range (ends included)."""
    low, high = plausible
    if not low <= value <= high:
        raise InputError(
            name, f"this is outside {low:g}–{high:g} {unit}.", f"Check the reading; it is meant in {unit}."
        )
