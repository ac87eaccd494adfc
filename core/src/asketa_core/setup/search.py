"""Screening every set-up of a variation and choosing the best few.

Everything the body does is judged: the pose, the way in and out, and the counter position. The
choice is lexicographic: no stop, no open question, fewest cautions, purpose nearest its target,
fewest items, largest worst margin, nearest to what was last used; ties by slot order.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.clientfile import SlotValue
from asketa_core.limits.judge import Judgement, Levels, Totals, judge_all, total
from asketa_core.limits.model import Limit, Phase, Severity, Term
from asketa_core.poses.library import LiftFoot, Variation
from asketa_core.poses.posture import Posture, Readout, Trouble
from asketa_core.poses.settle import settle_pose, settle_quiet_sitting, settle_transfer
from asketa_core.poses.transfers import Technique, transfers
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid, Indices, NoGrid, build_grid
from asketa_core.units import Array, Mask, Side

PURPOSE_BAND = (70.0, 95.0)
PURPOSE_TARGET = 85.0
"""Wanted share of the client's range, per cent."""


WORTH_HAVING = 0.6
"""An alternative set-up keeps at least this part of the best one's purpose."""


class Verdict(StrEnum):
    CLEAR = "clear"
    WITH_SETUP = "with_setup"
    CHECK_FIRST = "check_first"
    LEAVE_OUT = "leave_out"


@dataclass(frozen=True, slots=True)
class Stage:
    """One thing the body does: a posture of the pose or of its way, with its judgements.

    ``rows`` (n,) says which set-up of the posture's own batch belongs to each row of the grid: what
    depends on the seat alone is settled once per seat. Judgements are over the grid.
    """

    phase: Phase
    name: str
    posture: Posture
    judgements: tuple[Judgement, ...]
    rows: Indices


@dataclass(frozen=True, slots=True)
class Screened:
    """A whole grid judged. ``technique`` (n,) indexes ``techniques`` and ``transfer_stages``; arrays are (n,)."""

    variation: Variation
    side: Side
    grid: Grid
    stages: tuple[Stage, ...]
    transfer_stages: tuple[Stage, ...]
    techniques: tuple[Technique, ...]
    technique: Levels
    totals: Totals
    possible: Mask
    purpose: Array
    order: np.ndarray[tuple[int, ...], np.dtype[np.int64]]
    """Rows of the grid from best to worst."""

    @property
    def pose(self) -> Posture:
        return self.stages[0].posture

    def allowed(self, index: int) -> bool:
        """Possible, with no stop and no open question."""
        return bool(self.possible[index] and not self.totals.stops[index] and not self.totals.asks[index])

    def verdict_at(self, index: int) -> Verdict:
        """Verdict of one set-up taken on its own."""
        if not self.possible[index] or self.totals.stops[index]:
            return Verdict.LEAVE_OUT
        if self.totals.asks[index]:
            return Verdict.CHECK_FIRST
        return Verdict.CLEAR if index == self.grid.plain else Verdict.WITH_SETUP

    @property
    def verdict(self) -> Verdict:
        """Verdict of the variation: clear at its plain set-up, else by the best set-up found."""
        plain = self.grid.plain
        if plain is not None and self.allowed(plain):
            return Verdict.CLEAR
        return self.verdict_at(self.best)

    @property
    def best(self) -> int:
        return int(self.order[0])

    @property
    def shown(self) -> int:
        """The set-up a verdict is shown with: the plain one where it is clear, else the best found."""
        plain = self.grid.plain
        return plain if plain is not None and self.verdict is Verdict.CLEAR else self.best

    def stages_at(self, index: int) -> list[Stage]:
        """Everything the body does at one set-up, the transfer by the technique chosen for it."""
        chosen = [self.transfer_stages[int(self.technique[index])]] if self.transfer_stages else []
        return [*self.stages, *chosen]

    def judgements_at(self, index: int) -> list[Judgement]:
        return [judgement for stage in self.stages_at(index) for judgement in stage.judgements]

    def troubles_at(self, index: int) -> list[tuple[Trouble, Side, float]]:
        """What this body cannot meet, with amounts in the trouble's own unit."""
        return [
            (trouble, side, float(stage.posture.trouble_amounts[(trouble, side)][stage.rows[index]]))
            for stage in self.stages_at(index)
            for (trouble, side), mask in stage.posture.troubles.items()
            if mask[stage.rows[index]]
        ]


def own_limits(variation: Variation, side: Side) -> list[Limit]:
    """What the variation itself asks of its shape, as cautions."""
    steepest = variation.recipe.shin_near_level_deg
    if steepest is None:
        return []
    term = Term(readout=Readout.SHIN_SLOPE, above=steepest)
    return [Limit("shape.shin_level", None, "shape", side, Severity.CAUTION, (term,), phases=("pose",), exact=True)]


def purpose_kept(variation: Variation, side: Side, posture: Posture, ranges: Ranges, size: int) -> Array:
    """Smallest demand as per cent of the client's range over what does the work, (n,)."""
    shares = [
        100.0 * posture.readouts[(Readout(work.quantity), side)] / ranges.get(work.range, side).value_deg
        for work in variation.recipe.works
    ]
    middle = [share[min(1, share.shape[0] - 1)] for share in shares]
    return np.broadcast_to(np.min(np.stack(middle), axis=0), (size,))


def _possible(stages: Sequence[Stage], size: int) -> Mask:
    impossible = np.zeros(size, dtype=bool)
    for stage in stages:
        for mask in stage.posture.troubles.values():
            impossible |= mask[stage.rows]
    return ~impossible


def _choose_technique(stages: Sequence[Stage], size: int) -> Levels:
    """For each set-up the technique that comes out gentlest; the plain one wins ties."""
    scores = []
    for stage in stages:
        sums = total(stage.judgements, size)
        blocked = ~_possible([stage], size)
        scores.append(
            (
                blocked * 1_000_000 + sums.stops.astype(int) * 10_000 + sums.asks.astype(int) * 100 + sums.cautions
            ).astype(int)
        )
    return np.asarray(np.argmin(np.stack(scores), axis=0), dtype=np.int8)


def _pick(arrays: Sequence[np.ndarray[tuple[int, ...], np.dtype[np.generic]]], choice: Levels) -> Array:
    return np.asarray(np.take_along_axis(np.stack(arrays), choice[None, :].astype(int), axis=0)[0])


def _resting_slots(variation: Variation) -> list[str]:
    """Slots besides the seat that quiet sitting depends on."""
    rests_on = variation.recipe.other_leg.rests_on
    return [rests_on] if rests_on in variation.slots else []


def screen(
    variation: Variation,
    side: Side,
    body: Body,
    ranges: Ranges,
    room: Room,
    limits: Sequence[Limit],
    last_used: Mapping[str, SlotValue] | None = None,
    choices: Mapping[str, str] | None = None,
) -> Screened | NoGrid:
    """Judge every set-up this room can build for one variation and worked side.

    ``choices`` sets slots that change no geometry (how the foot is held) to something else than plain.
    """
    grid = build_grid(variation, side, body, ranges, room, choices or {})
    if isinstance(grid, NoGrid):
        return grid
    n = grid.size
    every = [*limits, *own_limits(variation, side)]

    everything = np.arange(n, dtype=np.int32)
    seated, seat_rows = grid.reduced_to([variation.recipe.seat, *_resting_slots(variation)])

    def stage(phase: Phase, name: str, posture: Posture, rows: Indices = everything) -> Stage:
        size = n if rows is everything else seated.size
        judged = judge_all(every, posture, phase, size)
        if rows is not everything:
            judged = [judgement.at(rows) for judgement in judged]
        return Stage(phase, name, posture, tuple(judged), rows)

    pose = settle_pose(variation, side, body, ranges, grid.batch)
    stages = [stage("pose", "pose", pose)]
    transfer_stages: list[Stage] = []
    for step in variation.recipe.way:
        if isinstance(step, LiftFoot):
            lifted = settle_pose(variation, side, body, ranges, grid.batch, step.lift_foot_cm)
            stages.append(stage("way", "lift_foot", lifted))
        else:
            transfer_stages = [
                stage("transfer", technique.id, settle_transfer(technique, variation, body, ranges, seated), seat_rows)
                for technique in transfers().chair
            ]
    if "sit_quiet" in variation.counter:
        quiet = settle_quiet_sitting(variation, body, ranges, seated)
        stages.append(stage("counter", "sit_quiet", quiet, seat_rows))

    technique = np.zeros(n, dtype=np.int8)
    sums = total([j for s in stages for j in s.judgements], n)
    possible = _possible(stages, n)
    if transfer_stages:
        technique = _choose_technique(transfer_stages, n)
        per_technique = [
            total([j for s in (*stages, transfer) for j in s.judgements], n) for transfer in transfer_stages
        ]
        sums = Totals(
            stops=_pick([t.stops for t in per_technique], technique).astype(np.int8),
            asks=_pick([t.asks for t in per_technique], technique).astype(np.int8),
            cautions=_pick([t.cautions for t in per_technique], technique).astype(np.int8),
            margin=_pick([t.margin for t in per_technique], technique),
        )
        possible &= _pick([_possible([t], n) for t in transfer_stages], technique).astype(bool)
    purpose = purpose_kept(variation, side, pose, ranges, n)
    away = np.zeros(n) if last_used is None else grid.steps_from(grid.indices[grid.nearest(last_used)].tolist())
    order = np.lexsort(
        (
            np.arange(n),
            away,
            -np.round(np.clip(sums.margin, -99, 99), 1),
            grid.items,
            np.round(np.abs(purpose - PURPOSE_TARGET)),
            sums.cautions,
            sums.asks > 0,
            sums.stops,
            ~possible,
        )
    )
    return Screened(
        variation, side, grid, tuple(stages), tuple(transfer_stages), transfers().chair, technique, sums, possible,
        purpose, order,
    )  # fmt: skip


class Trade(StrEnum):
    """Why a set-up is among the few offered."""

    BEST = "best"
    FEWEST_ITEMS = "fewest_items"
    MOST_MARGIN = "most_margin"
    AS_LAST_TIME = "as_last_time"
    MOST_PURPOSE = "most_purpose"


def best_few(
    screened: Screened, last_used: Mapping[str, SlotValue] | None = None, most: int = 3
) -> list[tuple[Trade, int]]:
    """The best set-up and others worth having for what they trade; only allowed ones, each once."""
    best = screened.best
    found = [(Trade.BEST, best)]
    rows = [int(row) for row in screened.order if screened.allowed(int(row))]
    if not rows:
        return found
    cautions = screened.totals.cautions
    worth_having = WORTH_HAVING * screened.purpose[best]
    kept = [row for row in rows if cautions[row] <= cautions[best] + 1 and screened.purpose[row] >= worth_having]

    def offer(trade: Trade, row: int | None) -> None:
        if row is not None and len(found) < most and all(_differs(screened, row, other) for _, other in found):
            found.append((trade, row))

    if last_used is not None:
        last = screened.grid.nearest(last_used)
        offer(Trade.AS_LAST_TIME, last if screened.allowed(last) else None)
    same_items = [row for row in kept if screened.grid.items[row] < screened.grid.items[best]]
    offer(Trade.FEWEST_ITEMS, min(same_items, key=lambda r: (screened.grid.items[r], rows.index(r)), default=None))
    finite = [row for row in kept if np.isfinite(screened.totals.margin[row])]
    offer(Trade.MOST_MARGIN, max(finite, key=lambda r: round(float(screened.totals.margin[r]), 1), default=None))
    inside = [row for row in kept if screened.purpose[row] <= PURPOSE_BAND[1]]
    offer(Trade.MOST_PURPOSE, max(inside, key=lambda r: round(float(screened.purpose[r])), default=None))
    return found


def _differs(screened: Screened, row: int, other: int) -> bool:
    """Whether a person would call two set-ups different."""
    return bool((screened.grid.indices[row] != screened.grid.indices[other]).any())
