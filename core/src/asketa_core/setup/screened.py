"""A variation screened: every set-up of its grid with what it comes to, and the verdict."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from typing import Any

import numpy as np

from asketa_core.body.ranges import Quantity
from asketa_core.client.holds import SlotValue
from asketa_core.kernel.records import Outcome
from asketa_core.kernel.run import NO_LIMITS, Done, Run
from asketa_core.kernel.shared import PURPOSE_TARGET_PERCENT
from asketa_core.limits.judge import Cases, Levels, Rules, Stage, Totals, concerns
from asketa_core.limits.model import Limit, Phase
from asketa_core.poses.library import Variation
from asketa_core.poses.moments import Programme
from asketa_core.poses.numbered import FLAG_OF, READ_OF, who
from asketa_core.poses.posture import Key, Readout, Trouble
from asketa_core.poses.programme import numbers_of
from asketa_core.poses.recipe import Flag
from asketa_core.poses.settle import Posture
from asketa_core.poses.setups import Indices
from asketa_core.setup.grid import Grid
from asketa_core.setup.order import PURPOSE_BAND, Order, order_of
from asketa_core.units import SIDES, Array, Mask, Side

PURPOSE_TOUCHING = 1e-6
"""Shares this near to each other are equal, per cent."""

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
class Way:
    """One technique of getting onto a seat, a bed or the floor and off again, judged at each of its stations."""

    name: str
    stations: tuple[Cases, ...]


@dataclass(frozen=True)
class PoseGrid:
    """The pose over its grid as the engine reads it: the numbers of every set-up, what it is like, and for each leg the
    distinct numbers that move it (``leg_xs``) with the case of each set-up (``leg_of``)."""

    programme: Programme
    xs: Array
    details: Any
    leg_xs: tuple[Array, Array]
    leg_of: tuple[Indices, Indices]

    @cached_property
    def marks(self) -> Any:
        """What some set-up counts as, as far as that does not follow from how far the trunk leans."""
        record, found = self.programme.record, self.programme.record.marks.copy()
        seen: tuple[tuple[Flag, str], ...] = (
            ("soft_seat", "soft_seat"), ("floor", "on_floor"), ("supine", "some_flat"),
        )  # fmt: skip
        for flag, some in seen:
            found[FLAG_OF[flag], who(None)] |= self.details[some].any()
        if record.easy_when_upright:
            upright = (numbers_of(record.lean_at, self.xs) <= record.easy_lean).all() or record.rising
            for side in SIDES:
                found[FLAG_OF["beyond_easy_seat"], who(side)] = not (record.easy[who(side)] and upright)
        return found

    def number(self, value: str, index: int) -> float:
        """A length or angle of the programme, by its name, at one set-up."""
        return float(numbers_of(self.programme.record[value], self.xs[index : index + 1])[0])


class Judged:
    """A grid judged as far as somebody asked: one set-up, the best of them, or all. Shared by whatever looks at the same
    grid from another side or with another set-up in mind."""

    def __init__(self, run: Run, grid: Grid, no_range: bool) -> None:
        self.run, self.grid, self.no_range = run, grid, no_range
        self._alone: dict[int, Outcome] = {}
        self.stages: dict[int, list[Stage]] = {}

    @cached_property
    def whole(self) -> Done:
        """Every set-up."""
        return self.run()

    @property
    def is_whole(self) -> bool:
        return "whole" in self.__dict__

    def outcome(self, row: int) -> Outcome:
        """What one set-up comes to."""
        if row not in self._alone:
            found = self.whole.outcomes[row] if self.is_whole else self.run.one(row).outcomes[0]
            self._alone[row] = Outcome(*found.item())
        return self._alone[row]

    @cached_property
    def outcomes(self) -> Any:
        """What every set-up comes to. Where there is no range to work in none is possible, and the purpose tells nothing
        apart."""
        found = self.whole.outcomes
        if self.no_range:
            found = found.copy()
            found["possible"], found["purpose"] = 0, PURPOSE_TARGET_PERCENT
        return found

    def possible(self, row: int) -> bool:
        return bool(self.outcome(row).possible) and not self.no_range

    @cached_property
    def there(self) -> Any:
        """Which read-outs the pose has: the same in every set-up."""
        return self.run.one(0).postures[0].there

    @cached_property
    def marks(self) -> Any:
        """What some set-up counts as."""
        return self.whole.marks

    def best(self, usual: int | None) -> int:
        """The first in the order of set-ups, found without judging all of them where that is possible."""
        if self.is_whole or self.no_range:
            return int(self.order(usual)[0])
        row, done = self.run.best(self.grid.trades(usual), self.grid.plain, self.grid.size > FEW_SETUPS)
        for judged in (row, self.grid.plain):
            if judged is not None:
                self._alone[judged] = Outcome(*done.outcomes[judged].item())
        # Where nothing can be done, what comes nearest is found among all.
        return row if self._alone[row].possible else int(self.order(usual)[0])

    def order(self, usual: int | None) -> Order:
        return order_of(self.outcomes, self.grid.trades(usual))

    @cached_property
    def totals(self) -> Totals:
        found = self.outcomes
        return Totals(
            found["stops"].astype(np.int8), found["asks"].astype(np.int8), found["cautions"].astype(np.int8),
            found["whole_size"], found["margin"], found["on_the_way"].astype(np.int8),
        )  # fmt: skip

    @cached_property
    def all_possible(self) -> Mask:
        return np.asarray(self.outcomes["possible"] != 0)

    @cached_property
    def purpose(self) -> Array:
        return np.full(self.grid.size, np.nan) if self.no_range else np.asarray(self.outcomes["purpose"])


FEW_SETUPS = 24
"""So few are judged sooner than bounded."""

READ_AT_ONCE = 16
"""So many read-outs of a whole grid are held in memory together."""


@dataclass(frozen=True, slots=True)
class Screened:
    """A grid to be judged. Arrays are (n,), and asking for one judges every set-up.

    ``no_range`` names the ranges of zero or below that leave the purpose undefined: ``purpose`` is then nan
    throughout and no set-up is possible.
    """

    variation: Variation
    side: Side
    grid: Grid
    rules: Rules
    pose: PoseGrid
    lifts_cm: tuple[float, ...]
    """How high the worked foot is lifted on the way, before it is put down."""
    others: tuple[tuple[Cases, Indices], ...]
    """What comes after the pose, with the case of each set-up."""
    ways: tuple[Way, ...]
    way_of: Indices
    """Which case of the ways each set-up is."""
    chosen: Levels
    """Which of the ways is taken in each case."""
    judged: Judged
    usual: int | None
    """Of set-ups equal in everything else those nearest this row come first."""
    no_range: tuple[tuple[Quantity, Side], ...] = ()
    _found: dict[str, Any] = field(default_factory=dict, compare=False, repr=False)

    @property
    def totals(self) -> Totals:
        return self.judged.totals

    @property
    def possible(self) -> Mask:
        return self.judged.all_possible

    @property
    def purpose(self) -> Array:
        return self.judged.purpose

    @property
    def order(self) -> Order:
        """Rows of the grid from best to worst."""
        if "order" not in self._found:
            self._found["order"] = self.judged.order(self.usual)
        order: Order = self._found["order"]
        return order

    @property
    def best(self) -> int:
        if "best" not in self._found:
            self._found["best"] = self.judged.best(self.usual)
        return int(self._found["best"])

    def remembering(self, last_used: Mapping[str, SlotValue], choices: Mapping[str, str]) -> Screened:
        """The same judgements with what was last used in place of the plain set-up, wherever set-ups are otherwise equal.

        ``choices`` sets slots that change no geometry.
        """
        grid = self.grid.choosing(choices)
        return replace(self, grid=grid, usual=grid.nearest(last_used), _found={})

    def purpose_at(self, index: int) -> float:
        """How much of the client's range one set-up keeps to work in, per cent."""
        return float("nan") if self.no_range else float(self.judged.outcome(index).purpose)

    def size_at(self, index: int) -> float:
        """The whole size of the cautions of one set-up."""
        return float(self.judged.outcome(index).whole_size)

    def margin_at(self, index: int) -> float:
        """The smallest margin of one set-up, in units of error."""
        return float(self.judged.outcome(index).margin)

    def pose_at(self, index: int) -> Posture:
        """The pose itself at one set-up."""
        return self.stages_at(index)[0].posture

    def read(self, keys: Sequence[Key]) -> Array:
        """Some read-outs of the pose at every set-up, at the low, middle and high end of the client's ranges: (keys, n,
        3)."""
        wanted = np.array([(READ_OF[readout], who(side)) for readout, side in keys], dtype=np.int64).reshape(-1, 2)
        pose = self.pose
        run = Run(
            self.rules.client, pose.programme.records, pose.xs, pose.details, NO_LIMITS, leg_xs=pose.leg_xs,
            leg_of=pose.leg_of, wanted=wanted,
        )  # fmt: skip
        return np.asarray(run().found)

    @property
    def settles(self) -> bool:
        """Whether the engine comes to a posture in numbers at every set-up."""
        there = self.judged.there
        keys = [(readout, side) for readout in Readout for side in (*SIDES, None) if there[READ_OF[readout], who(side)]]
        return all(
            bool(np.isfinite(self.read(keys[at : at + READ_AT_ONCE])).all()) for at in range(0, len(keys), READ_AT_ONCE)
        )

    def key(self, readout: Readout, side: Side | None) -> Key | None:
        """Where a read-out of a side stands in the pose; ``None`` when there is none."""
        there = self.judged.there[READ_OF[readout]]
        if there[who(side)]:
            return (readout, side)
        return (readout, None) if there[who(None)] else None

    def concerned_by(self, limit: Limit) -> bool:
        """Whether a limit speaks of the pose in some set-up."""
        return concerns(limit, self.judged.there, self.pose.marks) or (
            any(term.flag in FOUND_BY_LEANING for term in limit.terms)
            and concerns(limit, self.judged.there, self.judged.marks)
        )

    def allowed(self, index: int) -> bool:
        """Possible, with no stop and no open question."""
        outcome = self.judged.outcome(index)
        return self.judged.possible(index) and not outcome.stops and not outcome.asks

    @property
    def all_allowed(self) -> Mask:
        """Set-ups that are allowed, (n,)."""
        sums = self.totals
        return np.asarray(self.possible & (sums.stops == 0) & (sums.asks == 0))

    @property
    def unminded(self) -> Mask:
        """Those of them with nothing to mind, (n,)."""
        return np.asarray(self.all_allowed & (self.totals.size == 0))

    def verdict_at(self, index: int) -> Verdict:
        """Verdict of one set-up taken on its own."""
        outcome = self.judged.outcome(index)
        if not self.judged.possible(index) or outcome.stops:
            return Verdict.LEAVE_OUT
        if outcome.asks:
            return Verdict.CHECK_FIRST
        if outcome.whole_size > 0:
            return Verdict.WITH_EYE
        return Verdict.CLEAR if index == self.grid.plain and self._plain_keeps_the_purpose else Verdict.WITH_SETUP

    @property
    def _plain_keeps_the_purpose(self) -> bool:
        """Whether the plain set-up keeps the purpose in its band, or as near to it as any set-up with nothing to mind."""
        plain = self.grid.plain
        if plain is None:
            return False
        away = float(_off_band(np.array(self.purpose_at(plain))))
        # Nearer than inside the band none is.
        return away <= PURPOSE_TOUCHING or bool(
            away <= _off_band(self.purpose)[self.unminded].min(initial=np.inf) + PURPOSE_TOUCHING
        )

    @property
    def verdict(self) -> Verdict:
        """Verdict of the variation: clear at its plain set-up, else by the best set-up found."""
        # Looking for the best judges the plain one on the way.
        best, plain = self.best, self.grid.plain
        if plain is not None and self.verdict_at(plain) is Verdict.CLEAR:
            return Verdict.CLEAR
        return self.verdict_at(best)

    @property
    def recommended(self) -> int:
        """The one set-up that is shown everywhere: the plain one where the verdict is clear, else the best found."""
        plain = self.grid.plain
        return plain if plain is not None and self.verdict is Verdict.CLEAR else self.best

    def stages_at(self, index: int) -> list[Stage]:
        """Everything the body does at one set-up, the transfer by the technique chosen for it."""
        known = self.judged.stages
        if index not in known:
            known[index] = [*self._stages_at(index)]
        return known[index]

    def _stages_at(self, index: int) -> Iterator[Stage]:
        pose = self.pose
        moments: list[tuple[Phase, str, float]] = [("pose", "pose", 0.0)]
        moments += [("way", "lift_foot", lift) for lift in self.lifts_cm]
        for phase, name, lift_cm in moments:
            yield self.rules.stage(
                phase, name, pose.programme, pose.xs[index], pose.details[index : index + 1], lift_cm
            )
        for cases, rows in self.others:
            yield self.rules.stage_of(cases, int(rows[index]))
        if self.ways:
            yield from self.stations_at(index)

    def way_at(self, index: int) -> Way:
        """The technique chosen for one set-up."""
        return self.ways[int(self.chosen[self.way_of[index]])]

    def stations_at(self, index: int) -> list[Stage]:
        """The stations of the technique chosen for one set-up."""
        row = int(self.way_of[index])
        return [self.rules.stage_of(cases, row if cases.size > 1 else 0) for cases in self.way_at(index).stations]

    def troubles_at(self, index: int) -> list[tuple[Trouble, Side, float]]:
        """What this body cannot meet, with amounts in the trouble's own unit."""
        return [trouble for stage in self.stages_at(index) for trouble in stage.posture.troubles]


FOUND_BY_LEANING = frozenset({"head_carried", "not_upright_on_chair"})
"""What a pose counts as by how far its trunk leans, which is known of every set-up only when all are judged."""


def _off_band(purpose: Array) -> Array:
    """How far shares are from the wanted band, per cent."""
    return np.asarray(np.maximum(np.maximum(PURPOSE_BAND[0] - purpose, purpose - PURPOSE_BAND[1]), 0.0))
