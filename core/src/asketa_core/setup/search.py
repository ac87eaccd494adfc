"""Screening every set-up of a variation and choosing the best few.

Everything the body does is judged: the pose, the way in and out, and the counter position. The
choice is lexicographic: the shape's bounds and aims hold, no stop, no open question, least whole size of cautions, both
sides alike, purpose nearest its target in steps that a person can tell apart, fewest items and whole props before
stacks, largest worst margin, nearest to what was last used, or else to the plain set-up; ties by slot order.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.client.holds import SlotValue
from asketa_core.limits.judge import (
    WAYS,
    Judgement,
    Levels,
    Part,
    Summary,
    Totals,
    Weighed,
    judge_all,
    summarise,
    total,
)
from asketa_core.limits.model import Kind, Limit, Phase, Severity, Term
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Indices, Posture, Readout, Trouble
from asketa_core.poses.recipe import PLACES, Gate, LiftFoot, PlantedLeg, Work, side_slot, slot_names
from asketa_core.poses.settle import (
    settle_bed_transfer,
    settle_legs_long,
    settle_pose,
    settle_quiet_sitting,
    settle_seats,
    settle_standing_quietly,
    settle_station,
    settle_transfer,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import transfers
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid, NoGrid, build_grid
from asketa_core.units import SIDES, Array, Mask, Side

PURPOSE_BAND = (70.0, 95.0)
PURPOSE_TARGET = 85.0
PURPOSE_TOUCHING = 1e-6
"""Wanted share of the client's range, per cent."""
PURPOSE_STEP = 5.0
"""Shares inside the band and nearer together than this are one: no range is known better, and what is simpler to build
decides."""


Order = np.ndarray[tuple[int, ...], np.dtype[np.int64]]

WORTH_HAVING = 0.6
"""An alternative set-up keeps at least this part of the best one's purpose."""


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
        return _unminded(self.possible, self.totals)

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


def _unminded(possible: Mask, totals: Totals) -> Mask:
    return np.asarray(possible & (totals.stops == 0) & (totals.asks == 0) & (totals.size == 0))


def _gate(gate: Gate, leg: Side, ranges: Ranges) -> Iterator[tuple[str, Severity]]:
    """What is left open by one test on one leg: never tried asks, not passed closes."""
    if gate.range is None:
        result = ranges.tests.get((gate.code, leg), "not_tried")
        passed = None if result == "not_tried" else result == "passed"
    else:
        own = ranges.get(gate.range, leg)
        passed = own.value_deg >= (gate.at_least or 0.0) if own.measured else None
    if passed is None:
        yield f"{gate.code}_unmeasured", Severity.ASK
    elif not passed:
        yield gate.code, Severity.STOP


def _of_shape(code: str, side: Side, severity: Severity, *terms: Term) -> Limit:
    return Limit(code, None, "shape", side, severity, terms, phases=("pose",), exact=True, ends="middle")


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


def _kept(work: Work, side: Side, posture: Posture, ranges: Ranges) -> Array:
    if work.quantity == "effort":
        return np.full(posture.size, PURPOSE_TARGET)
    side = _works_on(work, side)
    key = posture.key(Readout(work.quantity), side)
    assert key is not None
    column = posture.readouts[key]
    middle = column.values[min(1, len(column.values) - 1)][column.rows]
    share = middle
    if work.of_deg is not None:
        share = 100.0 * middle / work.of_deg
    elif work.range is not None:
        share = 100.0 * middle / ranges.get(work.range, side).value_deg
    # A joint never gives more than it has: what is asked beyond is no purpose, but something to mind.
    return np.asarray(np.minimum(share, 100.0))


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
    """Every way onto and off a seat, a bed or the floor, and for each case the gentlest: which it is, what it comes to,
    and whether this body can do it."""

    ways: tuple[Way, ...]
    chosen: Levels
    summary: Summary
    passable: Mask


def _gentlest(ways: Sequence[Way], size: int) -> Ways:
    """The technique that comes out gentlest over its stations in each of ``size`` cases; the first wins ties."""
    passable = np.stack([_possible(way.stations, size) for way in ways])
    sums = [
        total([(s.summary, None if s.posture.size == size else s.rows, True) for s in w.stations], size) for w in ways
    ]
    scores = [
        each.stops.astype(int) * 10_000 + each.asks.astype(int) * 100 + each.size + ~can * 1_000_000
        for each, can in zip(sums, passable, strict=True)
    ]
    chosen = np.asarray(np.argmin(np.stack(scores), axis=0), dtype=np.int8)
    severity: dict[Kind, Levels] = {}
    weight: dict[Weighed, Array] = {}
    margin = np.full(size, np.inf)
    for number, way in enumerate(ways):
        mine = chosen == number
        for station in way.stations:
            rows = station.rows
            for kind, own in station.summary.severity.items():
                before = severity.get(kind, np.zeros(size, dtype=np.int8))
                severity[kind] = np.where(mine, np.maximum(own[rows], before), before).astype(np.int8)
            for quantity, own_weight in station.summary.weight.items():
                lighter = weight.get(quantity, np.zeros(size))
                weight[quantity] = np.where(mine, np.maximum(own_weight[rows], lighter), lighter)
        margin = np.where(mine, sums[number].margin, margin)
    return Ways(tuple(ways), chosen, Summary(severity, weight, margin), passable[chosen, np.arange(size)])


def _resting_slots(variation: Variation) -> list[str]:
    """Slots besides the seat that quiet sitting depends on."""
    rule = variation.recipe.other_rule
    if not isinstance(rule, PlantedLeg) or rule.rests_on not in variation.slots:
        return []
    own = [side_slot(rule.rests_on, side) for side in SIDES]
    return own if own[0] in variation.setup_slots else [rule.rests_on]


def _recline_slots(variation: Variation) -> list[str]:
    """What the back is raised by, where a slot says it: lying still afterwards keeps it."""
    recline = variation.recipe.recline_deg
    return [] if recline is None else list(slot_names([recline]))


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
    names = [variation.recipe.seat_slot or "floor", *_resting_slots(variation), *_recline_slots(variation)]
    heights = tuple(rested.number(name, side).tobytes() for name in names for side in SIDES)
    fixed = variation.recipe.recline_deg if not _recline_slots(variation) else None
    key = (which, variation.position, rested.soft_seat.tobytes(), len(names), heights, str(fixed))
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
    if variation.gentle:
        limits = [limit for limit in limits if not limit.spares_gentle]
        memo = memo.setdefault("gentle", {})
    own = own_limits(variation, side, ranges)

    def stage(phase: Phase, name: str, posture: Posture) -> Stage:
        return _judged(phase, name, posture, [*limits, *own])

    pose = settle_pose(variation, side, body, ranges, grid.batch)
    stages = [stage("pose", "pose", pose)]
    for step in variation.recipe.way:
        if isinstance(step, LiftFoot):
            lifted = settle_pose(variation, side, body, ranges, grid.batch, step.lift_foot_cm)
            stages.append(stage("way", "lift_foot", lifted))
    rested, rested_rows = grid.batch.reduced(
        [variation.recipe.seat_slot or "floor", *_resting_slots(variation), *_recline_slots(variation)]
    )
    for which in variation.counter:
        if which == "stand_quiet":
            stages.append(replace(_standing(body, ranges, limits, memo), rows=np.zeros(n, dtype=np.int32)))
        else:
            stages.append(replace(_resting(which, variation, body, ranges, limits, rested, memo), rows=rested_rows))

    parts: list[Part] = [
        (stage.summary, None if stage.rows is stage.posture.own_rows else stage.rows, stage.phase not in WAYS)
        for stage in stages
    ]
    possible = _possible(stages, n)
    technique = np.zeros(n, dtype=np.int8)
    onto: tuple[Way, ...] = ()
    if (found := _ways(variation, body, ranges, room, limits, grid, memo)) is not None:
        ways, rows = found
        onto = tuple(Way(way.name, tuple(_over(s, rows) for s in way.stations)) for way in ways.ways)
        technique = ways.chosen[rows]
        parts.append((ways.summary, rows, False))
        possible &= ways.passable[rows]
    sums = total(parts, n)
    no_range = ranges_without_room(variation, side, ranges)
    if no_range:
        purpose, possible = np.full(n, np.nan), np.zeros(n, dtype=bool)
    else:
        purpose = purpose_kept(variation, side, pose, ranges)
    order = _order(grid, stages, sums, possible, purpose, grid.plain)
    return Screened(variation, side, grid, tuple(stages), onto, technique, sums, possible, purpose, order, no_range)


def _over(stage: Stage, rows: Indices) -> Stage:
    """A stage of a way, spread over the set-ups that are one of its cases each."""
    return replace(stage, rows=stage.rows[rows])


def _missing(stages: Sequence[Stage], size: int) -> Array:
    """By how much each set-up misses what this body can do, degrees and centimetres taken alike, (n,)."""
    missing = np.zeros(size)
    for stage in stages:
        for key, amount in stage.posture.trouble_amounts.items():
            missing += np.where(stage.posture.troubles[key], np.maximum(amount, 0.0), 0.0)[stage.rows]
    return np.round(missing, 1)


def _off_purpose(purpose: Array) -> Array:
    """How far each set-up is from the wanted share, (n,): inside the band in steps, outside it to the full per cent, and
    after all that are inside."""
    away = np.round(np.abs(purpose - PURPOSE_TARGET), 1)
    inside = (purpose >= PURPOSE_BAND[0]) & (purpose <= PURPOSE_BAND[1])
    return np.where(inside, np.maximum(np.ceil(away / PURPOSE_STEP), 1.0), 100.0 + np.round(away))


def _order(
    grid: Grid, stages: Sequence[Stage], sums: Totals, possible: Mask, purpose: Array, usual: int | None
) -> Order:
    """Rows from best to worst; of set-ups equal in everything else those nearest the ``usual`` row come first."""
    away = np.zeros(grid.size) if usual is None else grid.steps_from(grid.indices[usual].tolist())
    return np.lexsort(
        (
            np.arange(grid.size),
            away,
            -np.round(np.clip(sums.margin, -99, 99), 1),
            grid.stacked,
            grid.items,
            _off_purpose(purpose),
            # What one side needs less of does the other no harm: both are built alike unless that costs a caution.
            grid.unlike,
            # What has to be minded getting there weighs nothing, but of equals the easier to reach is the better.
            sums.on_the_way,
            sums.size,
            sums.asks > 0,
            sums.stops,
            # Where nothing can be done, what comes nearest tells most.
            np.zeros(grid.size) if possible.any() else _missing(stages, grid.size),
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
    order = _order(grid, screened.stages, screened.totals, screened.possible, screened.purpose, grid.nearest(last_used))
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
    if "floor_transfer" in variation.recipe.way or grid.batch.place is not None:
        if grid.batch.place is None:
            return _floor_ways(body, ranges, room, limits, memo), np.zeros(grid.size, dtype=np.int32)
        return _place_ways(body, ranges, room, limits, memo), grid.batch.place.astype(np.int32)
    if "chair_transfer" not in variation.recipe.way:
        return None
    seat = variation.recipe.seat_slot or "floor"
    seated, rows = grid.batch.reduced([seat])
    key = ("chair", seated.number(seat).tobytes(), seated.arms.tobytes(), seated.soft_seat.tobytes())
    if key not in memo:
        ways = []
        for technique in transfers().chair:
            posture = settle_transfer(technique, variation, body, ranges, seated)
            ways.append(Way(technique.id, (_judged("transfer", technique.id, posture, limits),)))
        memo[key] = _gentlest(ways, seated.size)
    return memo[key], rows


def _floor_ways(body: Body, ranges: Ranges, room: Room, limits: Sequence[Limit], memo: Memo) -> Ways:
    """To the floor and up by the gentlest way this room has what is needed for."""
    if "floor" not in memo:
        there = {prop.kind for prop in room.stock if prop.count > 0}
        ways = [
            Way(
                way.id,
                tuple(
                    _judged("floor_transfer", way.id, settle_station(station, way, body, ranges), limits)
                    for station in way.stations
                ),
            )
            for way in transfers().floor
            if ("chair" in there or not way.chair) and there.issuperset(way.needs)
        ]
        memo["floor"] = _gentlest(ways, 1)
    found: Ways = memo["floor"]
    return found


def _place_ways(body: Body, ranges: Ranges, room: Room, limits: Sequence[Limit], memo: Memo) -> Ways:
    """The ways to each of ``PLACES``: to the floor, and onto a bed or plinth of the room's height as onto a seat and then
    rolling to the side. One case for each place; one that the room lacks is not passable."""
    if "places" not in memo:
        found: list[Ways | None] = [_floor_ways(body, ranges, room, limits, memo)]
        for place in PLACES[1:]:
            height = room.places.get(place)
            if height is None:
                found.append(None)
                continue
            ways = []
            for technique in transfers().chair:
                code = f"{place}_{technique.id}"
                leaving, rolling = settle_bed_transfer(technique, height, body, ranges)
                stations = (_judged("transfer", code, leaving, limits), _judged("way", code, rolling, limits))
                ways.append(Way(code, stations))
            found.append(_gentlest(ways, 1))
        memo["places"] = _side_by_side(found)
    places: Ways = memo["places"]
    return places


SEATS_CM = np.arange(35.0, 71.0)


def lowest_seat_cm(body: Body, ranges: Ranges, limits: Sequence[Limit]) -> float | None:
    """The lowest firm seat, bed or plinth with something to push on that is taken and left with nothing to mind, in whole
    cm; ``None`` where none up to ``SEATS_CM``'s highest is."""
    free = np.zeros(len(SEATS_CM), dtype=bool)
    for technique in transfers().chair:
        stage = _judged("transfer", technique.id, settle_seats(technique, SEATS_CM, body, ranges), limits)
        sums = total([(stage.summary, None, True)], len(SEATS_CM))
        free |= (sums.stops == 0) & (sums.asks == 0) & (sums.size == 0) & _possible((stage,), len(SEATS_CM))
    return float(SEATS_CM[np.argmax(free)]) if free.any() else None


def _side_by_side(found: Sequence[Ways | None]) -> Ways:
    """Ways that are one case each, as cases of one; where there is no way at all nobody passes."""
    size = len(found)
    ways: list[Way] = []
    chosen, passable = np.zeros(size, dtype=np.int8), np.zeros(size, dtype=bool)
    severity: dict[Kind, Levels] = {}
    weight: dict[Weighed, Array] = {}
    margin = np.full(size, np.inf)
    for case, each in enumerate(found):
        if each is None:
            continue
        chosen[case] = len(ways) + each.chosen[0]
        passable[case], margin[case] = each.passable[0], each.summary.margin[0]
        for kind, level in each.summary.severity.items():
            severity.setdefault(kind, np.zeros(size, dtype=np.int8))[case] = level[0]
        for quantity, own in each.summary.weight.items():
            weight.setdefault(quantity, np.zeros(size))[case] = own[0]
        for way in each.ways:
            every: Indices = np.zeros(size, dtype=np.int32)
            ways.append(Way(way.name, tuple(replace(station, rows=every) for station in way.stations)))
    return Ways(tuple(ways), chosen, Summary(severity, weight, margin), passable)


def _judged(phase: Phase, name: str, posture: Posture, limits: Sequence[Limit]) -> Stage:
    judgements = tuple(judge_all(limits, posture, phase))
    return Stage(phase, name, posture, judgements, summarise(judgements, posture), posture.own_rows)


class Trade(StrEnum):
    """What is true of a set-up that is offered: the recommended one, allowed or not, and others for what they trade."""

    RECOMMENDED = "recommended"
    NEAREST = "nearest"
    RAISE_SEAT = "raise_seat"
    SUPPORT_KNEES = "support_knees"
    FEWEST_ITEMS = "fewest_items"
    LEAST_OVER = "least_over"
    OFFERED_NEXT = "offered_next"
    AS_LAST_TIME = "as_last_time"
    MOST_PURPOSE = "most_purpose"


def best_few(
    screened: Screened,
    last_used: Mapping[str, SlotValue] | None = None,
    offered: Mapping[str, SlotValue] | None = None,
    most: int = 3,
) -> list[tuple[Trade, int]]:
    """The recommended set-up and others worth having: the next step that is ``offered``, what was done last, and what
    others trade; only allowed ones, each once. Where none is allowed, the one that comes nearest."""
    best = screened.recommended
    rows = [int(row) for row in screened.order if screened.allowed(int(row))]
    if not rows:
        return [(Trade.NEAREST, best)]
    found = [(Trade.RECOMMENDED, best)]
    size = screened.totals.size
    worth_having = WORTH_HAVING * screened.purpose[best]
    kept = [row for row in rows if size[row] <= size[best] + 1 and screened.purpose[row] >= worth_having]

    def offer(trade: Trade, row: int | None) -> None:
        if row is not None and len(found) < most and all(_differs(screened, row, other) for _, other in found):
            found.append((trade, row))

    then, next_time = (None if known is None else screened.grid.nearest(known) for known in (last_used, offered))
    # A step that changes seconds only, or nothing, is done as last time.
    for trade, row in ((Trade.OFFERED_NEXT, next_time if next_time != then else None), (Trade.AS_LAST_TIME, then)):
        offer(trade, row if row is not None and screened.allowed(row) else None)
    for trade, row in _schools(screened, rows):
        offer(trade, row)
    fewer = [row for row in kept if screened.grid.items[row] < screened.grid.items[best]]
    offer(Trade.FEWEST_ITEMS, min(fewer, key=lambda r: (screened.grid.items[r], rows.index(r)), default=None))
    easier = [row for row in rows if size[row] < size[best]]
    offer(Trade.LEAST_OVER, min(easier, key=lambda r: (size[r], rows.index(r)), default=None))
    more = [row for row in kept if screened.purpose[best] < screened.purpose[row] <= PURPOSE_BAND[1]]
    offer(
        Trade.MOST_PURPOSE, max(more, key=lambda r: (round(float(screened.purpose[r])), -rows.index(r)), default=None)
    )
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
