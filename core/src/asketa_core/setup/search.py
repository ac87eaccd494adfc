"""Screening every set-up of a variation. Everything the body does is judged: the pose, the way in and out, and the counter
position."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.limits.judge import WAYS, Part, total
from asketa_core.limits.model import Limit, Phase
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Indices, Posture
from asketa_core.poses.recipe import LiftFoot
from asketa_core.poses.settle import settle_pose
from asketa_core.props.kinds import Room
from asketa_core.setup.gates import own_limits
from asketa_core.setup.grid import NoGrid, build_grid
from asketa_core.setup.order import order_of
from asketa_core.setup.purpose import purpose_kept, ranges_without_room
from asketa_core.setup.screened import Memo, Screened, Stage, Way
from asketa_core.setup.ways import judged, possible_in, recline_slots, resting, resting_slots, standing, ways_onto
from asketa_core.units import Side


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
        return judged(phase, name, posture, [*limits, *own])

    pose = settle_pose(variation, side, body, ranges, grid.batch)
    stages = [stage("pose", "pose", pose)]
    for step in variation.recipe.way:
        if isinstance(step, LiftFoot):
            lifted = settle_pose(variation, side, body, ranges, grid.batch, step.lift_foot_cm)
            stages.append(stage("way", "lift_foot", lifted))
    rested, rested_rows = grid.batch.reduced(
        [variation.recipe.seat_slot or "floor", *resting_slots(variation), *recline_slots(variation)]
    )
    for which in variation.counter:
        if which == "stand_quiet":
            stages.append(replace(standing(body, ranges, limits, memo), rows=np.zeros(n, dtype=np.int32)))
        else:
            stages.append(replace(resting(which, variation, body, ranges, limits, rested, memo), rows=rested_rows))

    parts: list[Part] = [
        (stage.summary, None if stage.rows is stage.posture.own_rows else stage.rows, stage.phase not in WAYS)
        for stage in stages
    ]
    possible = possible_in(stages, n)
    technique = np.zeros(n, dtype=np.int8)
    onto: tuple[Way, ...] = ()
    if (found := ways_onto(variation, body, ranges, room, limits, grid, memo)) is not None:
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
    order = order_of(grid, stages, sums, possible, purpose, grid.plain)
    return Screened(variation, side, grid, tuple(stages), onto, technique, sums, possible, purpose, order, no_range)


def _over(stage: Stage, rows: Indices) -> Stage:
    """A stage of a way, spread over the set-ups that are one of its cases each."""
    return replace(stage, rows=stage.rows[rows])
