"""Screening every set-up of a variation. Everything the body does is judged: the pose, the way in and out, and the counter
position."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.kernel.run import Run
from asketa_core.limits.encoding import PHASE_BITS
from asketa_core.limits.judge import Cases, Rules
from asketa_core.limits.model import Limit
from asketa_core.poses.library import Variation
from asketa_core.poses.moments import pose_programme
from asketa_core.poses.recipe import LiftFoot
from asketa_core.poses.setups import Indices
from asketa_core.props.kinds import Room
from asketa_core.recent import Itself
from asketa_core.setup.gates import own_limits
from asketa_core.setup.grid import Grid, NoGrid, build_grid
from asketa_core.setup.purpose import ranges_without_room
from asketa_core.setup.recent import Found, Geometry, number_of, recent_grids
from asketa_core.setup.screened import Judged, Memo, PoseGrid, Screened, Way
from asketa_core.setup.ways import (
    flat_on_the_back,
    recline_slots,
    resting,
    resting_slots,
    standing,
    ways_onto,
)
from asketa_core.units import SIDES, Side

NO_WAYS: tuple[Way, ...] = ()
NO_CASES, NO_CHOICE = np.zeros(0, dtype=np.int32), np.zeros(0, dtype=np.int8)


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
    """Every set-up this room can build for one variation and worked side, to be judged.

    ``choices`` sets slots that change no geometry (how the foot is held) to something else than plain.
    ``memo`` keeps what variations share (ways onto seats and the floor); one per body, room and limits.
    """
    memo = {} if memo is None else memo
    built = _built(variation, side, body, ranges, room, choices or {}, memo)
    if isinstance(built, NoGrid):
        return built
    grid, pose = built
    rules = rules_of(body, ranges, limits, memo)
    if variation.gentle:
        rules = rules.sparing_gentle()
        memo = memo.setdefault("gentle", {})
    others = _afterwards(variation, rules, grid, memo)
    found = ways_onto(variation, rules, room, grid, memo)
    ways, chosen, way_of = NO_WAYS, NO_CHOICE, NO_CASES
    stages = [*others]
    if found is not None:
        onto, way_of = found
        ways, chosen = onto.ways, onto.chosen
        stages.append((onto.whole, way_of))
    rules = rules.also(own_limits(variation, side, ranges))
    lifts = tuple(step.lift_foot_cm for step in variation.recipe.way if isinstance(step, LiftFoot))
    no_range = ranges_without_room(variation, side, ranges)
    judged = Judged(_run(rules, pose, stages, lifts, len(others)), grid, bool(no_range))
    return Screened(
        variation, side, grid, rules, pose, lifts, tuple(others), ways, way_of, chosen, judged, grid.plain, no_range
    )


def rules_of(body: Body, ranges: Ranges, limits: Sequence[Limit], memo: Memo) -> Rules:
    """What everything is judged by, in numbers; once for a client and a day."""
    if "rules" not in memo:
        memo["rules"] = Rules.of(body, ranges, limits)
    rules: Rules = memo["rules"]
    return rules


def _built(
    variation: Variation, side: Side, body: Body, ranges: Ranges, room: Room, choices: Mapping[str, str], memo: Memo
) -> Found:
    """The grid of a variation and the pose over it, as they were built last or anew."""
    if "geometry" not in memo:
        memo["geometry"] = number_of(Geometry.of(body, ranges, room))

    def build() -> Found:
        grid = build_grid(variation, side, body, ranges, room, choices, memo)
        return grid if isinstance(grid, NoGrid) else (grid, pose_grid(variation, side, grid))

    return recent_grids.get((Itself(variation), side, memo["geometry"], *sorted(choices.items())), build)


def pose_grid(variation: Variation, side: Side, grid: Grid) -> PoseGrid:
    """The pose over its grid in numbers. Each leg is placed once for every case of what moves it."""
    programme = pose_programme(variation, side)
    xs = grid.batch.numbers(programme.names)
    reduced = [grid.batch.reduced(programme.moves[each], each) for each in SIDES]
    left, right = (batch.numbers(programme.names) for batch, _ in reduced)
    details = grid.batch.cases(flat_on_the_back(programme, xs))
    return PoseGrid(programme, xs, details, (left, right), (reduced[0][1], reduced[1][1]))


def _afterwards(variation: Variation, rules: Rules, grid: Grid, memo: Memo) -> list[tuple[Cases, Indices]]:
    """What is done after the pose, with the case of each set-up."""
    rested, rows = grid.batch.reduced(
        [variation.recipe.seat_slot or "floor", *resting_slots(variation), *recline_slots(variation)]
    )
    return [
        (standing(rules, memo), np.zeros(grid.size, dtype=np.int32))
        if which == "stand_quiet"
        else (resting(which, variation, rules, rested, memo), rows)
        for which in variation.counter
    ]


def _run(
    rules: Rules, pose: PoseGrid, stages: Sequence[tuple[Cases, Indices]], lifts_cm: Sequence[float], weighing: int
) -> Run:
    """The pose to be judged with what goes before and after it. The first stages weigh, the way in and out does not."""
    return Run(
        rules.client, pose.programme.records, pose.xs, pose.details, rules.encoded.table, rules.spares_gentle,
        PHASE_BITS["pose"], PHASE_BITS["way"], pose.leg_xs, pose.leg_of, lifts_cm=lifts_cm,
        stages=[cases.said for cases, _ in stages], stage_of=[of for _, of in stages],
        weighs=[which < weighing for which in range(len(stages))],
    )  # fmt: skip
