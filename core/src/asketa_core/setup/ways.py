"""Ways in and out: seats, beds and the floor, by the technique that comes out gentlest, and what is done afterwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.limits.judge import Levels, Summary, Weighed, judge_all, summarise, total
from asketa_core.limits.model import Kind, Limit, Phase
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Indices, Posture
from asketa_core.poses.recipe import PLACES, PlantedLeg, side_slot, slot_names
from asketa_core.poses.settle import (
    settle_bed_transfer,
    settle_legs_long,
    settle_quiet_sitting,
    settle_seats,
    settle_standing_quietly,
    settle_station,
    settle_transfer,
)
from asketa_core.poses.setups import SetupBatch
from asketa_core.poses.transfers import transfers
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid
from asketa_core.setup.screened import Memo, Stage, Way
from asketa_core.units import SIDES, Array, Mask


def _passable(stage: Stage) -> Mask:
    """What of a stage's own cases this body can do."""
    impossible = np.zeros(stage.posture.size, dtype=bool)
    for mask in stage.posture.troubles.values():
        impossible |= mask
    return ~impossible


def possible_in(stages: Sequence[Stage], size: int) -> Mask:
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
    passable = np.stack([possible_in(way.stations, size) for way in ways])
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


def resting_slots(variation: Variation) -> list[str]:
    """Slots besides the seat that quiet sitting depends on."""
    rule = variation.recipe.other_rule
    if not isinstance(rule, PlantedLeg) or rule.rests_on not in variation.slots:
        return []
    own = [side_slot(rule.rests_on, side) for side in SIDES]
    return own if own[0] in variation.setup_slots else [rule.rests_on]


def recline_slots(variation: Variation) -> list[str]:
    """What the back is raised by, where a slot says it: lying still afterwards keeps it."""
    recline = variation.recipe.recline_deg
    return [] if recline is None else list(slot_names([recline]))


def resting(
    which: str,
    variation: Variation,
    body: Body,
    ranges: Ranges,
    limits: Sequence[Limit],
    rested: SetupBatch,
    memo: Memo,
) -> Stage:
    """Quiet on the same seat afterwards. What it depends on is shared by sides and by many variations."""
    names = [variation.recipe.seat_slot or "floor", *resting_slots(variation), *recline_slots(variation)]
    heights = tuple(rested.number(name, side).tobytes() for name in names for side in SIDES)
    fixed = variation.recipe.recline_deg if not recline_slots(variation) else None
    key = (which, variation.position, rested.soft_seat.tobytes(), len(names), heights, str(fixed))
    if key not in memo:
        settle = settle_quiet_sitting if which == "sit_quiet" else settle_legs_long
        memo[key] = judged("counter", which, settle(variation, body, ranges, rested), limits)
    resting: Stage = memo[key]
    return resting


def standing(body: Body, ranges: Ranges, limits: Sequence[Limit], memo: Memo) -> Stage:
    if "standing" not in memo:
        memo["standing"] = judged("counter", "stand_quiet", settle_standing_quietly(body, ranges), limits)
    standing: Stage = memo["standing"]
    return standing


def ways_onto(
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
            ways.append(Way(technique.id, (judged("transfer", technique.id, posture, limits),)))
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
                    judged("floor_transfer", way.id, settle_station(station, way, body, ranges), limits)
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
                stations = (judged("transfer", code, leaving, limits), judged("way", code, rolling, limits))
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
        stage = judged("transfer", technique.id, settle_seats(technique, SEATS_CM, body, ranges), limits)
        sums = total([(stage.summary, None, True)], len(SEATS_CM))
        free |= (sums.stops == 0) & (sums.asks == 0) & (sums.size == 0) & possible_in((stage,), len(SEATS_CM))
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


def judged(phase: Phase, name: str, posture: Posture, limits: Sequence[Limit]) -> Stage:
    judgements = tuple(judge_all(limits, posture, phase))
    return Stage(phase, name, posture, judgements, summarise(judgements, posture), posture.own_rows)
