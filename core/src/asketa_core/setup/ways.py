"""Ways in and out: seats, beds and the floor, by the technique that comes out gentlest, and what is done afterwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from asketa_core.kernel.records import CASE, STAGE, many
from asketa_core.kernel.shared import TOUCHING
from asketa_core.limits.judge import Cases, Levels, Rules
from asketa_core.limits.model import Phase, Severity
from asketa_core.poses.library import Variation
from asketa_core.poses.moments import (
    Programme,
    legs_long,
    quiet_sitting,
    rolling,
    standing_quietly,
    station_programme,
    taking_a_seat,
)
from asketa_core.poses.programme import numbers_of
from asketa_core.poses.recipe import PLACES, PlantedLeg, side_slot, slot_names
from asketa_core.poses.setups import Indices, SetupBatch
from asketa_core.poses.transfers import transfers
from asketa_core.props.kinds import Room
from asketa_core.setup.grid import Grid
from asketa_core.setup.screened import Memo, Way
from asketa_core.units import SIDES, Array, Mask


@dataclass(frozen=True, slots=True)
class Ways:
    """Every way onto and off a seat, a bed or the floor, and for each case the gentlest: which it is, and what it comes to."""

    ways: tuple[Way, ...]
    chosen: Levels
    whole: Cases


def _gentlest(ways: Sequence[Way]) -> Ways:
    """The technique that comes out gentlest over its stations in each case; the first wins ties."""
    wholes = [_over_stations(way.stations) for way in ways]
    chosen = np.asarray(np.argmin(np.stack([_score(whole) for whole in wholes]), axis=0), dtype=np.int8)
    rows = np.arange(wholes[0].size)
    first = wholes[0]
    whole = Cases(
        first.phase,
        first.name,
        first.programme,
        first.xs,
        first.details,
        np.ascontiguousarray(np.stack([each.severity for each in wholes])[chosen, rows]),
        np.ascontiguousarray(np.stack([each.weight for each in wholes])[chosen, rows]),
        np.stack([each.outcome for each in wholes])[chosen, rows],
    )
    return Ways(tuple(ways), chosen, whole)


def _over_stations(stations: Sequence[Cases]) -> Cases:
    """The stations of one way as one: limits of one kind by the hardest, cautions of one quantity by the largest."""
    first = stations[0]
    outcome = many(first.size, STAGE)
    outcome["possible"] = np.min([each.outcome["possible"] for each in stations], axis=0)
    outcome["margin"] = np.min([each.outcome["margin"] for each in stations], axis=0)
    severity = np.max([each.severity for each in stations], axis=0)
    weight = np.max([each.weight for each in stations], axis=0)
    return Cases(first.phase, first.name, first.programme, first.xs, first.details, severity, weight, outcome)


def _score(whole: Cases) -> Array:
    """How hard a way is in each case, so that the least is the gentlest."""
    stops = (whole.severity == int(Severity.STOP)).sum(axis=1)
    asks = (whole.severity == int(Severity.ASK)).sum(axis=1)
    return np.asarray(
        stops * 10_000 + asks * 100 + whole_sizes(whole.weight) + (whole.outcome["possible"] == 0) * 1_000_000
    )


def whole_sizes(weight: Array) -> Array:
    """The whole size of cautions of each case, rounded up to halves."""
    return np.asarray(np.maximum(np.ceil(weight.sum(axis=1) * 2 - TOUCHING) / 2, 0.0))


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


def resting(which: str, variation: Variation, rules: Rules, rested: SetupBatch, memo: Memo) -> Cases:
    """Quiet on the same seat afterwards. What it depends on is shared by sides and by many variations."""
    names = [variation.recipe.seat_slot or "floor", *resting_slots(variation), *recline_slots(variation)]
    heights = rested.numbers([rested.slot(name, side) for name in names for side in SIDES])
    fixed = variation.recipe.recline_deg if not recline_slots(variation) else None
    key = (which, variation.position, rested.soft_seat.tobytes(), len(names), heights.tobytes(), str(fixed))
    if key not in memo:
        programme = quiet_sitting(variation) if which == "sit_quiet" else legs_long(variation)
        xs = rested.numbers(programme.names)
        memo[key] = rules.judge("counter", which, programme, xs, rested.cases(flat_on_the_back(programme, xs)))
    found: Cases = memo[key]
    return found


def flat_on_the_back(programme: Programme, xs: Array) -> Mask:
    """In which set-ups the trunk is raised so little that it lies flat, (n,)."""
    record = programme.record
    if not record.flat_when_low:
        return np.zeros(len(xs), dtype=bool)
    return np.asarray(numbers_of(record.recline, xs) < record.flat_below)


def standing(rules: Rules, memo: Memo) -> Cases:
    if "standing" not in memo:
        memo["standing"] = _one("counter", "stand_quiet", standing_quietly(), rules)
    found: Cases = memo["standing"]
    return found


def _one(phase: Phase, name: str, programme: Programme, rules: Rules) -> Cases:
    """A posture no set-up changes."""
    return rules.judge(phase, name, programme, np.zeros((1, len(programme.names))), _details(1, arms=True))


def _details(size: int, arms: bool) -> Any:
    found = many(size, CASE)
    found["arms"] = arms
    return found


def ways_onto(variation: Variation, rules: Rules, room: Room, grid: Grid, memo: Memo) -> tuple[Ways, Indices] | None:
    """Every way onto and off the seat or the floor, and its case for each set-up. Judged once for all variations
    that share it."""
    if "floor_transfer" in variation.recipe.way or grid.batch.place is not None:
        if grid.batch.place is None:
            return _floor_ways(rules, room, memo), np.zeros(grid.size, dtype=np.int32)
        return _place_ways(rules, room, memo), grid.batch.place.astype(np.int32)
    if "chair_transfer" not in variation.recipe.way:
        return None
    seat = variation.recipe.seat_slot or "floor"
    seated, rows = grid.batch.reduced([seat])
    heights = seated.numbers([seat])
    key = ("chair", heights.tobytes(), seated.arms.tobytes(), seated.soft_seat.tobytes())
    if key not in memo:
        details = seated.cases()
        details["on_floor"] = False
        memo[key] = _gentlest(
            [
                Way(
                    technique.id,
                    (rules.judge("transfer", technique.id, taking_a_seat(technique.id), heights, details),),
                )
                for technique in transfers().chair
            ]
        )
    return memo[key], rows


def _floor_ways(rules: Rules, room: Room, memo: Memo) -> Ways:
    """To the floor and up by the gentlest way this room has what is needed for."""
    if "floor" not in memo:
        there = {prop.kind for prop in room.stock if prop.count > 0}
        memo["floor"] = _gentlest(
            [
                Way(
                    way.id,
                    tuple(
                        _one("floor_transfer", way.id, station_programme(way.id, at), rules)
                        for at in range(len(way.stations))
                    ),
                )
                for way in transfers().floor
                if ("chair" in there or not way.chair) and there.issuperset(way.needs)
            ]
        )
    found: Ways = memo["floor"]
    return found


def _place_ways(rules: Rules, room: Room, memo: Memo) -> Ways:
    """The ways to each of ``PLACES``: to the floor, and onto a bed or plinth of the room's height as onto a seat and then
    rolling to the side. One case for each place; one that the room lacks is not passable."""
    if "places" not in memo:
        found: list[Ways | None] = [_floor_ways(rules, room, memo)]
        for place in PLACES[1:]:
            height = room.places.get(place)
            if height is None:
                found.append(None)
                continue
            ways = []
            for technique in transfers().chair:
                code = f"{place}_{technique.id}"
                leaving = rules.judge(
                    "transfer", code, taking_a_seat(technique.id), np.array([[float(height)]]), _details(1, arms=False)
                )
                ways.append(Way(code, (leaving, _one("way", code, rolling(), rules))))
            found.append(_gentlest(ways))
        memo["places"] = _side_by_side(found)
    places: Ways = memo["places"]
    return places


SEATS_CM = np.arange(35.0, 71.0)


def lowest_seat_cm(rules: Rules) -> float | None:
    """The lowest firm seat, bed or plinth with something to push on that is taken and left with nothing to mind, in whole
    cm; ``None`` where none up to ``SEATS_CM``'s highest is."""
    free = np.zeros(len(SEATS_CM), dtype=bool)
    for technique in transfers().chair:
        programme = taking_a_seat(technique.id, looked_for=True)
        found = rules.judge(
            "transfer", technique.id, programme, SEATS_CM[:, None].copy(), _details(len(SEATS_CM), arms=True)
        )
        closed = (found.severity > int(Severity.CAUTION)).any(axis=1)
        free |= ~closed & (found.weight == 0).all(axis=1) & (found.outcome["possible"] != 0)
    return float(SEATS_CM[np.argmax(free)]) if free.any() else None


def _side_by_side(found: Sequence[Ways | None]) -> Ways:
    """Ways that are one case each, as cases of one; where there is no way at all nobody passes."""
    there = [each for each in found if each is not None]
    first = there[0].whole
    size = len(found)
    severity = np.zeros((size, first.severity.shape[1]), np.int8)
    weight, outcome = np.zeros((size, first.weight.shape[1])), many(size, STAGE)
    outcome["margin"] = np.inf
    ways: list[Way] = []
    chosen = np.zeros(size, dtype=np.int8)
    for case, each in enumerate(found):
        if each is None:
            continue
        chosen[case] = len(ways) + each.chosen[0]
        severity[case], weight[case], outcome[case] = (
            each.whole.severity[0],
            each.whole.weight[0],
            each.whole.outcome[0],
        )
        ways += each.ways
    whole = Cases(first.phase, first.name, first.programme, first.xs, first.details, severity, weight, outcome)
    return Ways(tuple(ways), chosen, whole)
