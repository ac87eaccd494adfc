"""A variation screened: every set-up of its grid with what it comes to, and the verdict."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

import numpy as np

from asketa_core.body.ranges import Quantity
from asketa_core.limits.judge import Judgement, Levels, Summary, Totals
from asketa_core.limits.model import Phase
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Indices, Posture, Trouble
from asketa_core.setup.grid import Grid
from asketa_core.units import Array, Mask, Side

PURPOSE_BAND = (70.0, 95.0)

PURPOSE_TARGET = 85.0

PURPOSE_TOUCHING = 1e-6
"""Wanted share of the client's range, per cent."""

PURPOSE_STEP = 5.0
"""Shares inside the band and nearer together than this are one: no range is known better, and what is simpler to build
decides."""

Order = np.ndarray[tuple[int, ...], np.dtype[np.int64]]

Memo = dict[object, Any]
"""What variations share, worked out once for a body, a room and limits: stacks a slot may have, ways onto a seat or
the floor, quiet standing."""


class Verdict(StrEnum):
    """From best to worst. ``clear``: as usual, with nothing to mind and the purpose kept. ``with_setup``: some set-up has
    nothing to mind. ``with_eye``: allowed, and every set-up has something to mind. ``check_first``: a question is open.
    ``leave_out``: stopped, or no shape for this body."""

    CLEAR = "clear"
    WITH_SETUP = "with_setup"
    WITH_EYE = "with_eye"
    CHECK_FIRST = "check_first"
    LEAVE_OUT = "leave_out"


@dataclass(frozen=True, slots=True)
class Stage:
    """One thing the body does: a posture of the pose or of its way, with its judgements.

    ``rows`` (n,) says which case of the posture's own batch belongs to each row of the grid: what
    depends on the seat alone is settled and judged once per seat.
    """

    phase: Phase
    name: str
    posture: Posture
    judgements: tuple[Judgement, ...]
    summary: Summary
    rows: Indices


@dataclass(frozen=True, slots=True)
class Way:
    """One technique of getting onto a seat, a bed or the floor and off again, judged at each of its stations."""

    name: str
    stations: tuple[Stage, ...]


@dataclass(frozen=True, slots=True)
class Screened:
    """A whole grid judged. ``technique`` (n,) indexes ``ways``; arrays are (n,).

    ``no_range`` names the ranges of zero or below that leave the purpose undefined: ``purpose`` is then nan
    throughout and no set-up is possible.
    """

    variation: Variation
    side: Side
    grid: Grid
    stages: tuple[Stage, ...]
    ways: tuple[Way, ...]
    technique: Levels
    totals: Totals
    possible: Mask
    purpose: Array
    order: Order
    """Rows of the grid from best to worst."""
    no_range: tuple[tuple[Quantity, Side], ...] = ()

    @property
    def pose(self) -> Posture:
        return self.stages[0].posture

    def allowed(self, index: int) -> bool:
        """Possible, with no stop and no open question."""
        return bool(self.possible[index] and not self.totals.stops[index] and not self.totals.asks[index])

    @property
    def unminded(self) -> Mask:
        """Set-ups with no stop, no question and nothing to mind, (n,)."""
        return unminded(self.possible, self.totals)

    def verdict_at(self, index: int) -> Verdict:
        """Verdict of one set-up taken on its own."""
        if not self.possible[index] or self.totals.stops[index]:
            return Verdict.LEAVE_OUT
        if self.totals.asks[index]:
            return Verdict.CHECK_FIRST
        if self.totals.size[index] > 0:
            return Verdict.WITH_EYE
        return Verdict.CLEAR if index == self.grid.plain and self._plain_keeps_the_purpose else Verdict.WITH_SETUP

    @property
    def _plain_keeps_the_purpose(self) -> bool:
        """Whether the plain set-up keeps the purpose in its band, or as near to it as any set-up with nothing to mind."""
        away = np.maximum(np.maximum(PURPOSE_BAND[0] - self.purpose, self.purpose - PURPOSE_BAND[1]), 0.0)
        plain = self.grid.plain
        return plain is not None and bool(away[plain] <= away[self.unminded].min(initial=np.inf) + PURPOSE_TOUCHING)

    @property
    def verdict(self) -> Verdict:
        """Verdict of the variation: clear at its plain set-up, else by the best set-up found."""
        plain = self.grid.plain
        if plain is not None and self.unminded[plain] and self._plain_keeps_the_purpose:
            return Verdict.CLEAR
        return self.verdict_at(self.best)

    @property
    def best(self) -> int:
        return int(self.order[0])

    @property
    def recommended(self) -> int:
        """The one set-up that is shown everywhere: the plain one where the verdict is clear, else the best found."""
        plain = self.grid.plain
        return plain if plain is not None and self.verdict is Verdict.CLEAR else self.best

    def stages_at(self, index: int) -> list[Stage]:
        """Everything the body does at one set-up, the transfer by the technique chosen for it."""
        chosen = self.ways[int(self.technique[index])].stations if self.ways else ()
        return [*self.stages, *chosen]

    def troubles_at(self, index: int) -> list[tuple[Trouble, Side, float]]:
        """What this body cannot meet, with amounts in the trouble's own unit."""
        return [
            (trouble, side, float(stage.posture.trouble_amounts[(trouble, side)][stage.rows[index]]))
            for stage in self.stages_at(index)
            for (trouble, side), mask in stage.posture.troubles.items()
            if mask[stage.rows[index]]
        ]


def unminded(possible: Mask, totals: Totals) -> Mask:
    return np.asarray(possible & (totals.stops == 0) & (totals.asks == 0) & (totals.size == 0))
