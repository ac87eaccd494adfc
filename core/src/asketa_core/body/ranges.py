"""Ranges of motion of one client: measured with their error, or typical with theirs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np

from asketa_core.body.measures import body_norms
from asketa_core.clinical import clinical
from asketa_core.units import SIDES, Array, Side


class Quantity(StrEnum):
    """Joint ranges the engine settles postures with (degrees)."""

    HIP_FLEXION = "hip_flexion"
    HIP_EXTENSION = "hip_extension"
    HIP_ADDUCTION = "hip_adduction"
    HIP_INTERNAL_ROTATION = "hip_internal_rotation"
    OPEN_EXTERNAL_ROTATION = "open_external_rotation"
    OPEN_ABDUCTION = "open_abduction"
    KNEE_FLEXION = "knee_flexion"
    STRAIGHT_LEG_RAISE = "straight_leg_raise"
    NINETY_NINETY_LACK = "ninety_ninety_lack"
    """Hip and knee at a right angle, then the knee straightened: how much is missing."""
    PLANTED_DORSIFLEXION = "planted_dorsiflexion"


PLAUSIBLE_DEG: dict[Quantity, tuple[float, float]] = {
    Quantity.HIP_FLEXION: (40, 160),
    Quantity.HIP_EXTENSION: (-20, 50),
    Quantity.HIP_ADDUCTION: (0, 60),
    Quantity.HIP_INTERNAL_ROTATION: (-10, 80),
    Quantity.OPEN_EXTERNAL_ROTATION: (5, 110),
    Quantity.OPEN_ABDUCTION: (5, 90),
    Quantity.KNEE_FLEXION: (40, 170),
    Quantity.STRAIGHT_LEG_RAISE: (10, 130),
    Quantity.NINETY_NINETY_LACK: (0, 90),
    Quantity.PLANTED_DORSIFLEXION: (-10, 60),
}
"""Readings outside these are refused as likely slips."""


@dataclass(frozen=True, slots=True)
class Range:
    """A range of motion: middle value and error (two standard deviations) in degrees."""

    value_deg: float
    error_deg: float
    measured: bool

    def at_levels(self) -> Array:
        """Low, middle and high end, shape (3,)."""
        return np.array([self.value_deg - self.error_deg, self.value_deg, self.value_deg + self.error_deg])


PINCH_TURNED_OUT_AT_DEG = clinical("groin.turned_out_at", "deg")
PINCH_EARLIER_MOST_DEG = clinical("groin.earlier_most", "deg")
PINCH_FULL_CROSSING_DEG = clinical("groin.full_crossing", "deg")


@dataclass(frozen=True, slots=True)
class GroinPinch:
    """Hip flexion at which the groin starts to pinch: knee straight ahead, and out to the side by ``out_at_deg``;
    ``turned_out_deg`` is ``None`` where only the first was measured."""

    straight_deg: float
    turned_out_deg: float | None
    out_at_deg: float = PINCH_TURNED_OUT_AT_DEG

    @staticmethod
    def measured(straight_deg: float, turned_out_deg: float | None, out_at_deg: float | None = None) -> GroinPinch:
        """From what was recorded. A turned-out angle below the straight one counts as equal to it."""
        out = None if turned_out_deg is None else max(turned_out_deg, straight_deg)
        return GroinPinch(straight_deg, out, PINCH_TURNED_OUT_AT_DEG if out_at_deg is None else out_at_deg)


@dataclass(frozen=True, slots=True)
class Ranges:
    """Every range of both sides; what was not measured is the population's figure and says so."""

    by_side: Mapping[tuple[Quantity, Side], Range]
    coupling: Mapping[Side, float] = field(default_factory=dict)
    """A client's own hamstring coupling where a 90/90 test gave one."""
    groin_pinch: Mapping[Side, GroinPinch] = field(default_factory=dict)
    tests: Mapping[tuple[str, Side], str] = field(default_factory=dict)
    """Tests no range shows, by name and side: ``passed``, ``not_passed`` or ``not_tried``."""
    seen: frozenset[tuple[str, Side]] = frozenset()
    """What was seen on the mat beyond what the model takes for possible, by bound and side."""

    @staticmethod
    def from_measured(
        measured: Mapping[tuple[Quantity, Side], Range],
        coupling: Mapping[Side, float] | None = None,
        groin_pinch: Mapping[Side, GroinPinch] | None = None,
        tests: Mapping[tuple[str, Side], str] | None = None,
        seen: frozenset[tuple[str, Side]] = frozenset(),
    ) -> Ranges:
        every = {
            (quantity, side): measured.get((quantity, side), typical_range(quantity))
            for quantity in Quantity
            for side in SIDES
        }
        return Ranges(every, coupling or {}, groin_pinch or {}, tests or {}, seen)

    def get(self, quantity: Quantity, side: Side) -> Range:
        return self.by_side[(quantity, side)]


def typical_range(quantity: Quantity) -> Range:
    """The population's figure for a range."""
    norm = body_norms().ranges[quantity.value]
    return Range(norm.value, norm.error, measured=False)


def method_error_deg(method: str) -> float:
    """Error of a reading in degrees by the method it was taken with; unknown methods count as by eye."""
    methods = body_norms().methods
    return methods.get(method, methods["eye"])
