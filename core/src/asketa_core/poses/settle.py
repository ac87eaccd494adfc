"""Settling one posture: what a body in one set-up looks like and shows, at the low, middle and high end of its ranges."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from asketa_core.body.encoding import client_of
from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.kernel.codes import Level, Met, StoppedBy
from asketa_core.kernel.records import CASE, Client, many
from asketa_core.kernel.run import settle_one
from asketa_core.poses.library import Variation
from asketa_core.poses.moments import Programme, programme_over, standing_quietly
from asketa_core.poses.numbered import BOUND_OF, FLAG_OF, READ_OF, READOUTS, who
from asketa_core.poses.posture import LEAST_ERROR, Key, Readout, Trouble, unit_of
from asketa_core.poses.recipe import Flag
from asketa_core.units import SIDES, Array, Side

OF_A_LEG = (
    Trouble.REACH, Trouble.FOLD, Trouble.IDLE_SUPPORT, Trouble.ROLL_IN_KNEE, Trouble.KNEE_RANGE, Trouble.HIP_RANGE,
    Trouble.HIP_USE, Trouble.HIP_EXTENSION, Trouble.KNEE_TWIST, Trouble.SEAT_TOO_HIGH, Trouble.UNDETERMINED,
    Trouble.ANKLE_RANGE, Trouble.BACK_ROUNDS, Trouble.BACK_HOLLOWS, Trouble.TRUNK_ON_THIGH,
)  # fmt: skip
AT_LAST = (
    Trouble.SUPPORT_MISSES, Trouble.HAND_MISSES, Trouble.HEAD_UNSUPPORTED, Trouble.SHIN_STEEP, Trouble.AIM,
)  # fmt: skip
TOLD_IN_ORDER: tuple[tuple[Trouble, Side], ...] = (
    (Trouble.BALANCE, Side.LEFT),
    *((trouble, side) for side in SIDES for trouble in OF_A_LEG),
    *((trouble, side) for trouble in AT_LAST for side in SIDES),
)
"""Bounds in the order in which they are told: what carries the body, leg by leg, the trunk on its supports, what the rung
promises."""


@dataclass(frozen=True, slots=True)
class LegPoints:
    """Joint centres of one leg at the middle of the client's ranges, and the direction its toes point; each (3,)."""

    hip: Array
    knee: Array
    ankle: Array
    toes: Array


@dataclass(frozen=True)
class Posture:
    """A settled posture. What it shows is read off the engine's own record of it."""

    records: Any
    """The engine's record of it, by itself in an array (1,)."""
    legs: Any
    """Each leg at the three ends of the ranges, left and right."""
    seen: frozenset[tuple[str, Side]] = frozenset()
    """Bounds that were seen otherwise on this body: beyond them is to be minded, however far."""

    # Fields by themselves: through the record each look takes ten times as long.

    @cached_property
    def _there(self) -> Any:
        return self.records["there"][0]

    @cached_property
    def _read(self) -> Any:
        return self.records["read"][0]

    def key(self, readout: Readout, side: Side | None) -> Key | None:
        """Where a read-out of a side stands: its own, else the whole's; ``None`` when there is none."""
        there = self._there[READ_OF[readout]]
        if there[who(side)]:
            return (readout, side)
        return (readout, None) if there[who(None)] else None

    def shows(self, readout: Readout, side: Side | None) -> bool:
        """Whether there is a read-out of a side, or of the whole, itself."""
        return bool(self._there[READ_OF[readout], who(side)])

    @property
    def readouts(self) -> Iterator[Key]:
        """Every read-out there is, with whom it is about."""
        for readout in READOUTS:
            for side in (*SIDES, None):
                if self._there[READ_OF[readout], who(side)]:
                    yield (readout, side)

    def levels(self, readout: Readout, side: Side | None) -> Array:
        """A read-out at the low, middle and high end of the client's ranges, (3,)."""
        return np.asarray(self._read[READ_OF[readout], who(side)])

    def middle(self, readout: Readout, side: Side | None) -> float:
        """A read-out at the middle of the client's ranges."""
        return float(self.levels(readout, side)[Level.MIDDLE])

    def spread(self, readout: Readout, side: Side | None) -> tuple[float, float, float]:
        """Lowest and highest value over the ranges, and the error: half their distance, never under ``LEAST_ERROR``."""
        levels = self.levels(readout, side)
        low, high = float(levels.min()), float(levels.max())
        return low, high, max((high - low) / 2, LEAST_ERROR[unit_of(readout)])

    def counts_as(self, flag: Flag, side: Side | None) -> bool:
        return bool(self.records["marks"][0, FLAG_OF[flag], who(side)])

    @property
    def pitch_deg(self) -> float:
        return float(self.records["pitch"][0, Level.MIDDLE])

    @property
    def spine_flexion_deg(self) -> float:
        return float(self.records["flexion"][0, Level.MIDDLE])

    @property
    def lean_deg(self) -> float:
        return float(self.records["lean"][0, Level.MIDDLE])

    def leg(self, side: Side) -> LegPoints:
        leg = self.legs[who(side)][Level.MIDDLE]
        return LegPoints(*(np.array(leg[joint].tolist()) for joint in ("hip", "knee", "ankle", "toes")))

    def out_of_reach_cm(self, side: Side) -> float:
        """By how much a leg is too short for where its foot or knee is to be, at the middle of the ranges."""
        return float(self.legs[who(side)][Level.MIDDLE].reach_short)

    def stopped_by(self, side: Side) -> StoppedBy | None:
        """What stopped a knee that was let out; ``None`` for other legs."""
        code = int(self.legs[who(side)][Level.MIDDLE].stopped_by)
        return None if code < 0 else StoppedBy(code)

    @property
    def troubles(self) -> list[tuple[Trouble, Side, float]]:
        """What this body cannot meet at the middle of its ranges, and by how much, in the trouble's own unit."""
        return [
            (trouble, side, float(self.records["amount"][0, BOUND_OF[trouble], who(side)]))
            for trouble, side in self._met(Met.NO)
        ]

    @property
    def perhaps(self) -> list[tuple[Trouble, Side]]:
        """What it cannot at the worst end of its ranges only."""
        return list(self._met(Met.PERHAPS))

    def _met(self, how: Met) -> Iterator[tuple[Trouble, Side]]:
        met = self.records["met"][0]
        if not (met == how.value).any():
            return
        for trouble, side in TOLD_IN_ORDER:
            if met[BOUND_OF[trouble], who(side)] == how:
                yield trouble, side


def settled(programme: Programme, client: Client, ranges: Ranges, x: Array, case: Any, lift_cm: float = 0.0) -> Posture:
    """A programme in one set-up, whose numbers are ``x`` in the order of its slots; ``case`` (1,) is what it is like
    besides."""
    postures, left, right = settle_one(client, programme.records, x, case, lift_cm)
    return Posture(postures, (left, right), ranges.seen)


def settle_pose(variation: Variation, side: Side, body: Body, ranges: Ranges, setup: Mapping[str, float]) -> Posture:
    """The variation with ``side`` as its worked leg, its slots at some numbers; what is not named is 0."""
    return settle_case(programme_over(variation, side, tuple(setup)), body, ranges, setup)


def settle_case(programme: Programme, body: Body, ranges: Ranges, setup: Mapping[str, float]) -> Posture:
    """Any programme on a firm seat, its slots at some numbers; what is not named is 0."""
    x = np.array([setup.get(name, 0.0) for name in programme.names], dtype=float)
    return settled(programme, client_of(body, ranges), ranges, x, firm_seat())


def settle_standing_quietly(body: Body, ranges: Ranges) -> Posture:
    """Upright on both feet. One posture, whatever the set-up."""
    return settled(standing_quietly(), client_of(body, ranges), ranges, np.zeros(0), firm_seat())


def firm_seat() -> Any:
    """One set-up on a firm seat with arms, (1,)."""
    case = many(1, CASE)
    case["arms"] = 1
    return case
