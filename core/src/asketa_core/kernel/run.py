"""Handing work to the kernel: what it is to settle and judge, and the memory it does it in.

The engine is loaded with the first work there is: whoever has none does without the time that takes.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cache, cached_property, lru_cache
from typing import Any, NamedTuple

import numpy as np

from asketa_core.kernel.codes import MOST_MARKS, Bound, Level
from asketa_core.kernel.records import (
    LEG,
    LIMIT,
    OUTCOME,
    POSTURE,
    STAGE,
    TERM,
    TRADE,
    VERDICT,
    Before,
    Client,
    Desk,
    Found,
    Legs,
    Lifted,
    LimitTable,
    Said,
    Setups,
    Tally,
    many,
)


class Engine(NamedTuple):
    """What is compiled of the kernel."""

    settle_posture: Any
    judge_legs: Any
    bound_grid: Any
    judge_grid: Any
    judge_each: Any
    keys_of: Any


@cache
def engine() -> Engine:
    from asketa_core.kernel import judging, ranking, search  # noqa: PLC0415  (loaded with the first work)
    from asketa_core.kernel.compiled import directly  # noqa: PLC0415

    entries = (
        search.settle_posture, search.judge_legs, search.bound_grid, search.judge_grid,
        judging.judge_each, ranking.keys_of,
    )  # fmt: skip
    return Engine(*(directly(entry) for entry in entries))


MOST_SAID = 16
"""So many kinds or quantities of one case there is room for at first; more are seldom."""

BEFORE_ALL = -1
"""A bound below that of every set-up: what has it is judged first."""

NOTHING_BOUNDED, NO_TRADES = np.zeros(0, np.int64), many(0, TRADE)
NO_SEVERITIES, NO_SIZES = np.zeros((0, 0), np.int8), np.zeros((0, 0))

NO_LIMITS = LimitTable(many(0, LIMIT), many(0, TERM), np.zeros((len(Bound), 2), np.int64), 1, 1)


@dataclass
class Run:
    """A programme over n set-ups, to be settled and judged.

    ``programmes`` holds one. ``xs`` (n, slots) and ``cases`` (n,) are the set-ups. ``leg_xs`` holds for each leg the
    distinct numbers that move it and ``leg_of`` (n,) the case of each set-up; without them every set-up has its own.
    ``lifts_cm`` is how high the worked foot is lifted on the way. ``stages`` were judged before, with the case of each
    set-up (n,) and whether they weigh; kinds and quantities have the numbers they have in ``limits``.
    """

    client: Client
    programmes: Any
    xs: Any
    cases: Any
    limits: LimitTable
    spares_gentle: bool = False
    phase: int = 0
    way_phase: int = 0
    leg_xs: tuple[Any, Any] | None = None
    leg_of: tuple[Any, Any] | None = None
    lifts_cm: Sequence[float] = ()
    stages: Sequence[Said] = ()
    stage_of: Sequence[Any] = ()
    weighs: Sequence[bool] = ()
    keep_tables: bool = False
    """Whether severities and sizes of every set-up are kept, not only what they come to."""
    wanted: Any = field(default_factory=lambda: np.zeros((0, 2), np.int64))
    """Read-outs to be kept for every set-up, by number and whom they are about, (k, 2)."""

    def __call__(self) -> Done:
        """Every set-up."""
        return self._judged(np.arange(len(self.xs)), NOTHING_BOUNDED, NO_TRADES, np.zeros(1, np.int64), len(self.xs))

    def one(self, row: int) -> Done:
        """One set-up by itself."""
        return self._judged(np.array([row]), NOTHING_BOUNDED, NO_TRADES, np.zeros(1, np.int64), 1)

    def best(self, trades: Any, first: int | None = None, bounded: bool = True) -> tuple[int, Done]:
        """The row of the best set-up there is, and what was found on the way to it; ``first`` is judged in any case, and
        without being ``bounded`` every set-up is looked at.

        Set-ups are judged in the order of what they come to at the least, until none is left that could come before the
        best found: a bound is never above what a set-up really comes to, so it is the first of the whole order.
        """
        bounds = self.bounds(trades) if bounded else np.zeros(len(self.xs), np.int64)
        if first is not None:
            bounds[first] = BEFORE_ALL
        sequence = np.argsort(bounds)
        best = np.zeros(1, np.int64)
        done = self._judged(sequence, bounds, trades, best, len(self.xs))
        return int(best[0]), done

    def bounds(self, trades: Any) -> Any:
        """The key each set-up has at the least, (n,): from its legs alone, and from what goes before and after."""
        found = np.zeros(len(self.xs), np.int64)
        engine().bound_grid(
            self.programmes, self._setups, self._so_far.before, self._so_far.legs, trades, self._desk, found
        )  # fmt: skip
        return found

    @property
    def _leg_xs(self) -> tuple[Any, Any]:
        return self.leg_xs or (self.xs, self.xs)

    @cached_property
    def _setups(self) -> Setups:
        every = np.arange(len(self.xs), dtype=np.int32)
        return Setups(self.xs, self.cases, *(self.leg_of or (every, every)))

    @property
    def _width(self) -> tuple[int, int]:
        """How many kinds and quantities are told apart."""
        return self.limits.kinds, self.limits.sizes

    @property
    def _desk(self) -> Desk:
        return desk_for(*self._width, len(self.limits.limits), len(self.limits.terms))

    @cached_property
    def _lifted(self) -> Lifted:
        """The worked leg as high as its foot is lifted on the way; none is placed yet."""
        cases, lifts = len(self._leg_xs[self.programmes[0].worked]) if self.lifts_cm else 0, len(self.lifts_cm)
        return Lifted(
            np.array(self.lifts_cm, dtype=np.float64), np.empty((lifts, cases, len(Level)), LEG),
            np.zeros((lifts, cases), np.int8),
        )  # fmt: skip

    @cached_property
    def _so_far(self) -> SoFar:
        """What is judged before a set-up's trunk is settled."""
        room = max([MOST_SAID, *(each.kinds.shape[1] for each in self.stages)])
        found = self._so_far_in(room) or self._so_far_in(max(*self._width, room))
        assert found is not None, "there are no more kinds and quantities than that"
        return found

    def _so_far_in(self, room: int) -> SoFar | None:
        """The same in rows with so much room; ``None`` where that is too little."""
        left, right = self._leg_xs
        at, rows = 0, np.empty((len(self.stages), len(self.xs)), np.int32)
        said = nothing_said(sum(len(each.stages) for each in self.stages) + len(left) + len(right), room)
        for which, each in enumerate(self.stages):
            put_said(each, said, at)
            np.add(self.stage_of[which], at, out=rows[which])
            at += len(each.stages)
        before = Before(said, rows, np.array(self.weighs, dtype=np.int8), np.array([at, at + len(left)]))
        placed = [np.empty((len(xs), len(Level)), LEG) for xs in (left, right)]
        legs = Legs(*placed, *(np.empty((len(xs), 2)) for xs in (left, right)))
        settled = np.empty(len(self.limits.limits), np.int8)
        enough = engine().judge_legs(
            self.client, self.programmes, left, right, self.limits, self.phase, self.spares_gentle, self._desk, legs,
            settled, before,
        )  # fmt: skip
        return SoFar(legs, before, settled) if enough else None

    def _judged(self, sequence: Any, bounds: Any, trades: Any, best: Any, kept: int) -> Done:
        """Some set-ups in a sequence; outcomes of all of them are ``kept``, or of the last."""
        legs, before, settled = self._so_far
        n, postures = len(self.xs), many(1, POSTURE)
        found = Found(
            many(kept, OUTCOME), np.zeros((n, self.limits.kinds), np.int8) if self.keep_tables else NO_SEVERITIES,
            np.zeros((n, self.limits.sizes)) if self.keep_tables else NO_SIZES, np.zeros((MOST_MARKS, 3), np.int8),
            self.wanted, np.zeros((len(self.wanted), n, len(Level))),
        )  # fmt: skip
        engine().judge_grid(
            self.client, self.programmes, self._setups, self.limits, self.phase, self.way_phase, self.spares_gentle,
            before, legs, settled, self._lifted, self._desk._replace(postures=postures), found,
            sequence, bounds, trades, best,
        )  # fmt: skip
        return Done(found.outcomes, found.severities, found.weights, found.marks, found.read, postures)


class SoFar(NamedTuple):
    """Both legs placed, what was judged with them and before, and of every limit whether it was (limits,)."""

    legs: Legs
    before: Before
    settled: Any


def nothing_said(cases: int, room: int) -> Said:
    """Rows in which nothing is said yet."""
    return Said(
        np.zeros((cases, 2), np.int16), np.empty((cases, room), np.int16), np.empty((cases, room), np.int8),
        np.empty((cases, room), np.int16), np.empty((cases, room)), many(cases, STAGE),
    )  # fmt: skip


def said_in(severity: Any, weight: Any, stages: Any) -> Said:
    """What is said in tables by kind and by quantity."""
    cases = len(stages)
    counts = np.stack([(severity > 0).sum(axis=1), (weight > 0).sum(axis=1)], axis=1).astype(np.int16)
    found = nothing_said(cases, max(int(counts.max(initial=0)), MOST_SAID))._replace(counts=counts, stages=stages)
    for table, numbers, values in (
        (severity, found.kinds, found.severity), (weight, found.quantities, found.weight),
    ):  # fmt: skip
        # What is said first, in its own order.
        first = np.argsort(table <= 0, axis=1, kind="stable")[:, : numbers.shape[1]]
        numbers[:, : first.shape[1]], values[:, : first.shape[1]] = first, np.take_along_axis(table, first, axis=1)
    return found


@lru_cache(maxsize=64)
def desk_for(kinds: int, sizes: int, limits: int, terms: int) -> Desk:
    """Where as many limits are judged: the same for all work, since the engine does one thing at a time."""
    tally = Tally(np.zeros(kinds, np.int8), np.zeros(sizes), *(np.zeros(1 + most, np.int64) for most in (kinds, sizes)))
    of_way = tally._replace(weight=np.zeros(sizes), quantities=np.zeros(1 + sizes, np.int64))
    return Desk(
        many(1, POSTURE), np.zeros(terms, np.int64), np.zeros((2, limits), np.int8), np.zeros((3, limits), np.int64),
        tally, of_way, many(1, OUTCOME),
    )  # fmt: skip


def put_said(some: Said, into: Said, at: int) -> None:
    """Write rows among others that have as much room or more."""
    here, room = slice(at, at + len(some.stages)), some.kinds.shape[1]
    into.counts[here], into.stages[here] = some.counts, some.stages
    into.kinds[here, :room], into.severity[here, :room] = some.kinds, some.severity
    into.quantities[here, :room], into.weight[here, :room] = some.quantities, some.weight


@dataclass(frozen=True)
class Done:
    """What a run found: what every set-up comes to; severities by kind and sizes by quantity of the last set-up, or of all;
    what some set-up counts as; the read-outs that were wanted, (k, n, 3); and the last posture."""

    outcomes: Any
    severity: Any
    weight: Any
    marks: Any
    found: Any
    postures: Any

    @property
    def stages(self) -> Any:
        """What every set-up comes to as one stage of several."""
        found = many(len(self.outcomes), STAGE)
        for name in ("possible", "margin", "missing"):
            found[name] = self.outcomes[name]
        return found


def settle_one(client: Client, programmes: Any, x: Any, cases: Any, lift_cm: float) -> tuple[Any, Any, Any]:
    """One set-up of a programme, whose numbers are ``x`` (slots,) and which is like ``cases`` (1,) besides, with the worked
    foot lifted: its posture (1,), and either leg at the three ends of the ranges."""
    postures, left, right = many(1, POSTURE), many(len(Level), LEG), many(len(Level), LEG)
    engine().settle_posture(client, programmes, x, cases, lift_cm, left, right, postures)
    return postures, left, right


def keys_of(outcomes: Any, trades: Any) -> Any:
    """What the order of set-ups comes to in one number for each: the better, the smaller, (n,)."""
    keys = np.zeros(len(outcomes), np.int64)
    engine().keys_of(outcomes, trades, keys)
    return keys


def each_limit(table: LimitTable, postures: Any, exempt_from_band: bool) -> Any:
    """Every limit against a posture, the only one in ``postures``, by itself."""
    verdicts = many(len(table.limits), VERDICT)
    engine().judge_each(table, postures, exempt_from_band, np.zeros(len(table.terms), np.int64), verdicts)
    return verdicts
