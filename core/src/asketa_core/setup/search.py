"""Screening every set-up of a variation and choosing the best few.

Everything the body does is judged: the pose, the way in and out, and the counter position. The
choice is lexicographic: no stop, no open question, fewest cautions (in shapes with two schools then the
longest back), purpose nearest its target, fewest items, largest worst margin, nearest to what was last used,
or else to the plain set-up; ties by slot order.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.clientfile import SlotValue
from asketa_core.limits.judge import Judgement, Levels, Summary, Totals, judge_all, summarise, total
from asketa_core.limits.model import Kind, Limit, Phase, Severity, Term
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Indices, Posture, Readout, Trouble
from asketa_core.poses.recipe import Gate, LiftFoot, PlantedLeg, Work, side_slot
from asketa_core.poses.settle import (
    settle_floor_transfer,
    settle_legs_long,
    settle_pose,
    settle_quiet_sitting,
    settle_standing_quietly,
    settle_transfer,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import transfers
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid, NoGrid, build_grid
from asketa_core.units import SIDES, Array, Mask, Side

PURPOSE_BAND = (70.0, 95.0)
PURPOSE_TARGET = 85.0
"""Wanted share of the client's range, per cent."""


Order = np.ndarray[tuple[int, ...], np.dtype[np.int64]]

WORTH_HAVING = 0.6
"""An alternative set-up keeps at least this part of the best one's purpose."""


Memo = dict[object, Any]
"""What variations share, worked out once for a body, a room and limits: stacks a slot may have, ways onto a seat or
the floor, quiet standing."""


class Verdict(StrEnum):
    CLEAR = "clear"
    WITH_SETUP = "with_setup"
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
class Screened:
    """A whole grid judged. ``technique`` (n,) indexes ``techniques`` and ``transfer_stages``; arrays are (n,).

    ``no_range`` names the ranges of zero or below that leave the purpose undefined: ``purpose`` is then nan
    throughout and no set-up is possible.
    """

    variation: Variation
    side: Side
    grid: Grid
    stages: tuple[Stage, ...]
    transfer_stages: tuple[Stage, ...]
    techniques: tuple[str, ...]
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
        """The set-up a verdict is shown with: the plain one where it is clear and no other saves a
        caution, else the best found."""
        plain = self.grid.plain
        if plain is None or self.verdict is not Verdict.CLEAR:
            return self.best
        return self.best if self.totals.cautions[self.best] < self.totals.cautions[plain] else plain

    def stages_at(self, index: int) -> list[Stage]:
        """Everything the body does at one set-up, the transfer by the technique chosen for it."""
        chosen = [self.transfer_stages[int(self.technique[index])]] if self.transfer_stages else []
        return [*self.stages, *chosen]

    def troubles_at(self, index: int) -> list[tuple[Trouble, Side, float]]:
        """What this body cannot meet, with amounts in the trouble's own unit."""
        return [
            (trouble, side, float(stage.posture.trouble_amounts[(trouble, side)][stage.rows[index]]))
            for stage in self.stages_at(index)
            for (trouble, side), mask in stage.posture.troubles.items()
            if mask[stage.rows[index]]
        ]


def own_limits(variation: Variation, side: Side, ranges: Ranges) -> list[Limit]:
    """What the variation itself asks: of its shape, as a caution, and the tests that come before it."""
    found = [
        _of_shape(f"gate.{code}", leg, severity)
        for gate in variation.gates
        for leg in (SIDES if gate.legs == "both" else (side,))
        for code, severity in _gate(gate, leg, ranges)
    ]
    steepest = variation.recipe.shin_near_level_deg
    if steepest is not None:
        term = Term(readout=Readout.SHIN_SLOPE, above=steepest)
        found.append(_of_shape("shape.shin_level", side, Severity.CAUTION, term))
    return found


def _gate(gate: Gate, leg: Side, ranges: Ranges) -> Iterator[tuple[str, Severity]]:
    """What is left open by one test on one leg: never measured and not yet reached are both asked about;
    what no range shows stays under the therapist's eye."""
    if gate.range is None:
        yield gate.code, Severity.CAUTION
    elif not (own := ranges.get(gate.range, leg)).measured:
        yield f"{gate.code}_unmeasured", Severity.ASK
    elif gate.at_least is not None and own.value_deg < gate.at_least:
        yield gate.code, Severity.ASK


def _of_shape(code: str, side: Side, severity: Severity, *terms: Term) -> Limit:
    return Limit(code, None, "shape", side, severity, terms, phases=("pose",), exact=True)


def ranges_without_room(variation: Variation, side: Side, ranges: Ranges) -> tuple[tuple[Quantity, Side], ...]:
    """The ranges a variation works in that this client does not have: zero or below. There is nothing to keep a share
    of, so the purpose is undefined and the variation is not for this side."""
    return tuple(
        dict.fromkeys(
            (work.range, leg)
            for worked in (SIDES if variation.shared else (side,))
            for work in variation.recipe.works
            if work.range is not None and ranges.get(work.range, leg := _works_on(work, worked)).value_deg <= 0
        )
    )


def _works_on(work: Work, worked: Side) -> Side:
    return worked if work.leg == "worked" else worked.other


def purpose_kept(variation: Variation, side: Side, posture: Posture, ranges: Ranges) -> Array:
    """Smallest demand as per cent of the client's range over what does the work, (n,). In shared shapes the
    side that is worked hardest counts: it is the one that must not be asked too much."""
    sides = SIDES if variation.shared else (side,)
    by_side = [
        np.min(np.stack([_kept(work, s, posture, ranges) for work in variation.recipe.works]), axis=0) for s in sides
    ]
    return np.asarray(np.max(np.stack(by_side), axis=0))


ROUNDING_FREE_DEG = 15.0
ROUNDING_STEP_DEG = 5.0


def _rounding(variation: Variation, posture: Posture) -> Array:
    """In a shape with two schools, how much rounding is left beyond what passes, in steps of 5°, (n,):
    between set-ups of equal cautions the one that leaves the back longest comes first. Zero elsewhere."""
    if variation.schools is None:
        return np.zeros(posture.size)
    key = (Readout.SPINE_FLEXION, None)
    worst = posture.extremes(key).high[posture.readouts[key].rows]
    return np.asarray(np.ceil(np.maximum(worst - ROUNDING_FREE_DEG, 0.0) / ROUNDING_STEP_DEG))


def _kept(work: Work, side: Side, posture: Posture, ranges: Ranges) -> Array:
    if work.quantity == "effort":
        return np.full(posture.size, PURPOSE_TARGET)
    side = _works_on(work, side)
    key = posture.key(Readout(work.quantity), side)
    assert key is not None
    column = posture.readouts[key]
    middle = column.values[min(1, len(column.values) - 1)][column.rows]
    if work.of_deg is not None:
        return np.asarray(100.0 * middle / work.of_deg)
    return np.asarray(middle if work.range is None else 100.0 * middle / ranges.get(work.range, side).value_deg)


def _passable(stage: Stage) -> Mask:
    """What of a stage's own cases this body can do."""
    impossible = np.zeros(stage.posture.size, dtype=bool)
    for mask in stage.posture.troubles.values():
        impossible |= mask
    return ~impossible


def _possible(stages: Sequence[Stage], size: int) -> Mask:
    possible = np.ones(size, dtype=bool)
    for stage in stages:
        possible &= _passable(stage)[stage.rows]
    return possible


@dataclass(frozen=True, slots=True)
class Ways:
    """Every way onto and off a seat or the floor, and for each case the gentlest: which it is, what it comes to, and
    whether this body can do it."""

    stages: tuple[Stage, ...]
    chosen: Levels
    summary: Summary
    passable: Mask


def _gentlest(stages: Sequence[Stage]) -> Ways:
    """The technique that comes out gentlest; the plain one wins ties."""
    size = stages[0].posture.size
    passable = np.stack([_passable(stage) for stage in stages])
    scores = []
    for stage, can in zip(stages, passable, strict=True):
        sums = total([(stage.summary, None)], size)
        worst = sums.stops.astype(int) * 10_000 + sums.asks.astype(int) * 100 + sums.cautions
        scores.append(worst + ~can * 1_000_000)
    chosen = np.asarray(np.argmin(np.stack(scores), axis=0), dtype=np.int8)
    severity: dict[Kind, Levels] = {}
    margin = np.full(size, np.inf)
    for number, stage in enumerate(stages):
        mine = chosen == number
        for kind, own in stage.summary.severity.items():
            severity[kind] = np.where(mine, own, severity.get(kind, np.int8(0))).astype(np.int8)
        margin = np.where(mine, stage.summary.margin, margin)
    return Ways(tuple(stages), chosen, Summary(severity, margin), passable[chosen, np.arange(size)])


def _resting_slots(variation: Variation) -> list[str]:
    """Slots besides the seat that quiet sitting depends on."""
    rule = variation.recipe.other_rule
    if not isinstance(rule, PlantedLeg) or rule.rests_on not in variation.slots:
        return []
    own = [side_slot(rule.rests_on, side) for side in SIDES]
    return own if own[0] in variation.setup_slots else [rule.rests_on]


def _resting(
    which: str,
    variation: Variation,
    body: Body,
    ranges: Ranges,
    limits: Sequence[Limit],
    rested: SetupBatch,
    memo: Memo,
) -> Stage:
    """Quiet on the same seat afterwards. What it depends on is shared by sides and by many variations."""
    names = [variation.recipe.seat_slot or "floor", *_resting_slots(variation)]
    heights = tuple(rested.number(name, side).tobytes() for name in names for side in SIDES)
    key = (which, variation.position, rested.soft_seat.tobytes(), len(names), heights)
    if key not in memo:
        settle = settle_quiet_sitting if which == "sit_quiet" else settle_legs_long
        memo[key] = _judged("counter", which, settle(variation, body, ranges, rested), limits)
    resting: Stage = memo[key]
    return resting


def _standing(body: Body, ranges: Ranges, limits: Sequence[Limit], memo: Memo) -> Stage:
    if "standing" not in memo:
        memo["standing"] = _judged("counter", "stand_quiet", settle_standing_quietly(body, ranges), limits)
    standing: Stage = memo["standing"]
    return standing


def screen(
    variation: Variation,
    side: Side,
    body: Body,
    ranges: Ranges,
    room: Room,
    limits: Sequence[Limit],
    choices: Mapping[str, str] | None = None,
    memo: Memo | None = None,
) -> Screened | NoGrid:
    """Judge every set-up this room can build for one variation and worked side.

    ``choices`` sets slots that change no geometry (how the foot is held) to something else than plain.
    ``memo`` keeps what variations share (ways onto seats and the floor); one per body, room and limits.
    """
    memo = {} if memo is None else memo
    grid = build_grid(variation, side, body, ranges, room, choices or {}, memo)
    if isinstance(grid, NoGrid):
        return grid
    n = grid.size
    own = own_limits(variation, side, ranges)

    def stage(phase: Phase, name: str, posture: Posture) -> Stage:
        return _judged(phase, name, posture, [*limits, *own])

    pose = settle_pose(variation, side, body, ranges, grid.batch)
    stages = [stage("pose", "pose", pose)]
    for step in variation.recipe.way:
        if isinstance(step, LiftFoot):
            lifted = settle_pose(variation, side, body, ranges, grid.batch, step.lift_foot_cm)
            stages.append(stage("way", "lift_foot", lifted))
    rested, rested_rows = grid.batch.reduced([variation.recipe.seat_slot or "floor", *_resting_slots(variation)])
    for which in variation.counter:
        if which == "stand_quiet":
            stages.append(replace(_standing(body, ranges, limits, memo), rows=np.zeros(n, dtype=np.int32)))
        else:
            stages.append(replace(_resting(which, variation, body, ranges, limits, rested, memo), rows=rested_rows))

    parts: list[tuple[Summary, Indices | None]] = [
        (stage.summary, None if stage.rows is stage.posture.own_rows else stage.rows) for stage in stages
    ]
    possible = _possible(stages, n)
    technique = np.zeros(n, dtype=np.int8)
    transfer_stages: tuple[Stage, ...] = ()
    if (found := _ways(variation, body, ranges, room, limits, grid, memo)) is not None:
        ways, rows = found
        transfer_stages = tuple(replace(stage, rows=rows) for stage in ways.stages)
        technique = ways.chosen[rows]
        parts.append((ways.summary, rows))
        possible &= ways.passable[rows]
    sums = total(parts, n)
    no_range = ranges_without_room(variation, side, ranges)
    if no_range:
        purpose, possible = np.full(n, np.nan), np.zeros(n, dtype=bool)
    else:
        purpose = purpose_kept(variation, side, pose, ranges)
    order = _order(variation, grid, pose, sums, possible, purpose, grid.plain)
    return Screened(
        variation, side, grid, tuple(stages), transfer_stages, tuple(s.name for s in transfer_stages), technique,
        sums, possible, purpose, order, no_range,
    )  # fmt: skip


def _order(
    variation: Variation,
    grid: Grid,
    pose: Posture,
    sums: Totals,
    possible: Mask,
    purpose: Array,
    usual: int | None,
) -> Order:
    """Rows from best to worst; of set-ups equal in everything else those nearest the ``usual`` row come first."""
    away = np.zeros(grid.size) if usual is None else grid.steps_from(grid.indices[usual].tolist())
    return np.lexsort(
        (
            np.arange(grid.size),
            away,
            -np.round(np.clip(sums.margin, -99, 99), 1),
            grid.items,
            np.round(np.abs(purpose - PURPOSE_TARGET)),
            _rounding(variation, pose),
            sums.cautions,
            sums.asks > 0,
            sums.stops,
            ~possible,
        )
    )


def remembering(
    screened: Screened, last_used: Mapping[str, SlotValue], choices: Mapping[str, str] | None = None
) -> Screened:
    """The same judgements with what was last used in place of the plain set-up, wherever set-ups are otherwise equal.

    ``choices`` sets slots that change no geometry.
    """
    grid = screened.grid.choosing(choices or {})
    order = _order(
        screened.variation, grid, screened.pose, screened.totals, screened.possible, screened.purpose,
        grid.nearest(last_used),
    )  # fmt: skip
    return replace(screened, grid=grid, order=order)


def _ways(
    variation: Variation,
    body: Body,
    ranges: Ranges,
    room: Room,
    limits: Sequence[Limit],
    grid: Grid,
    memo: Memo,
) -> tuple[Ways, Indices] | None:
    """Every way onto and off the seat or the floor, and its case for each set-up. Judged once for all variations
    that share it."""
    if "floor_transfer" in variation.recipe.way:
        if "floor" not in memo:
            has_chair = any(prop.kind == "chair" and prop.count > 0 for prop in room.props)
            memo["floor"] = _gentlest(
                [
                    _judged("floor_transfer", t.id, settle_floor_transfer(t, body, ranges), limits)
                    for t in transfers().floor
                    if has_chair or not t.chair
                ]
            )
        return memo["floor"], np.zeros(grid.size, dtype=np.int32)
    if "chair_transfer" not in variation.recipe.way:
        return None
    seat = variation.recipe.seat_slot or "floor"
    seated, rows = grid.batch.reduced([seat])
    key = ("chair", seated.number(seat).tobytes(), seated.arms.tobytes(), seated.soft_seat.tobytes())
    if key not in memo:
        memo[key] = _gentlest(
            [
                _judged("transfer", t.id, settle_transfer(t, variation, body, ranges, seated), limits)
                for t in transfers().chair
            ]
        )
    return memo[key], rows


def _judged(phase: Phase, name: str, posture: Posture, limits: Sequence[Limit]) -> Stage:
    judgements = tuple(judge_all(limits, posture, phase))
    return Stage(phase, name, posture, judgements, summarise(judgements, posture.size), posture.own_rows)


class Trade(StrEnum):
    """Why a set-up is among the few offered."""

    BEST = "best"
    RAISE_SEAT = "raise_seat"
    SUPPORT_KNEES = "support_knees"
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
    for trade, row in _schools(screened, rows):
        offer(trade, row)
    same_items = [row for row in kept if screened.grid.items[row] < screened.grid.items[best]]
    offer(Trade.FEWEST_ITEMS, min(same_items, key=lambda r: (screened.grid.items[r], rows.index(r)), default=None))
    finite = [row for row in kept if np.isfinite(screened.totals.margin[row])]
    offer(Trade.MOST_MARGIN, max(finite, key=lambda r: round(float(screened.totals.margin[r]), 1), default=None))
    inside = [row for row in kept if screened.purpose[row] <= PURPOSE_BAND[1]]
    offer(Trade.MOST_PURPOSE, max(inside, key=lambda r: round(float(screened.purpose[r])), default=None))
    return found


def _schools(screened: Screened, rows: Sequence[int]) -> list[tuple[Trade, int]]:
    """The best set-up of each school of a stiff seated shape: the seat raised and nothing under the knees,
    and the knees supported on the lowest seat that allows it."""
    schools = screened.variation.schools
    if schools is None:
        return []
    columns = {axis.name: k for k, axis in enumerate(screened.grid.axes)}
    indices = screened.grid.indices
    knees = [k for name, k in columns.items() if name.startswith(schools.support_knees)]
    seat = columns[schools.raise_seat]
    bare = [row for row in rows if not indices[row, knees].any()]
    supported = [row for row in rows if indices[row, knees].all()]
    found = [(Trade.RAISE_SEAT, bare[0])] if bare else []
    if supported:
        found.append((Trade.SUPPORT_KNEES, min(supported, key=lambda row: (int(indices[row, seat]), rows.index(row)))))
    return found


def _differs(screened: Screened, row: int, other: int) -> bool:
    """Whether a person would call two set-ups different."""
    return bool((screened.grid.indices[row] != screened.grid.indices[other]).any())
