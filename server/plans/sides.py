"""A day's plan as the core sees a session, and what is proposed for a side."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from asketa_core import (
    NOTHING,
    Level,
    Part,
    Phrase,
    Pose,
    Proposal,
    Side,
    Step,
    Variation,
    first_open,
    nearest_first,
    pose_of,
    proposal,
    step_of,
)
from engine.answers import OPEN_VERDICTS, Today, digest
from visits.models import Visit
from visits.planned import judged_side, planned_sides


def ladders_of(today: Today, visit: Visit | None) -> list[dict[str, Any]]:
    """What is planned, ladders of the library only."""
    plan: list[dict[str, Any]] = visit.plan if visit is not None else []
    return [ladder for ladder in plan if ladder["family"] in today.library.families and planned_sides(today, ladder)]


def poses_of(today: Today, ladders: list[dict[str, Any]]) -> list[Pose]:
    """The plan as the core sees a session."""
    found = []
    for ladder in ladders:
        family = today.library.families[ladder["family"]]
        parts: dict[Side | None, Part] = {
            None if family.shared else side: judged_side(today, side, planned).part
            for side, planned in planned_sides(today, ladder).items()
        }
        found.append(pose_of(family, parts, ladder.get("fixed", False)))
    return found


def last_step(today: Today, family: str, side: Side) -> Step | None:
    """Where a side of a ladder was worked last, before the day."""
    own = [r for r in today.file.responses if r.side is side and r.family == family and r.date < today.date]
    return step_of(own[-1]) if own else None


def proposed(today: Today, family: str, side: Side) -> Proposal:
    """What to do on a side of a ladder: its next step, held against the day; where it was never worked on, the most held up
    rung that is open."""
    decision = today.decision(family, side)

    def compute() -> Proposal:
        if decision.from_step is not None:
            return proposal(decision, today.situation, lambda rung, used: today.screen_with(rung, side, used))
        rungs = today.library.families[family].variations
        step = _first_open(today, rungs, side)
        return Proposal(step, NOTHING if step is not None else _closed_by(today, rungs[0], side))

    made = digest(repr((decision.code, decision.step, decision.from_step, decision.reason)))
    return today.cached("proposed", family, side, made, compute=compute)


def _first_open(today: Today, rungs: Sequence[Variation], side: Side) -> Step | None:
    """The first of some rungs that is open, as it is recommended. Verdicts are kept, whole grids are not."""
    open_rungs = tuple(rung for rung in rungs if today.lane(rung, side).verdict in OPEN_VERDICTS)
    return first_open(open_rungs[:1], lambda rung, used: today.screen_with(rung, side, used))


def counter_step(today: Today, family: str, side: Side, level: Level) -> Step | None:
    """Where a side does a counter-pose: its own next step where it has worked there, else the rung that is open and nearest
    to the level one comes from."""
    if last_step(today, family, side) is not None:
        return proposed(today, family, side).step
    return _first_open(today, nearest_first(today.library.families[family].variations, level), side)


def _closed_by(today: Today, rung: Variation, side: Side) -> Phrase:
    answer = today.lane(rung, side)
    if answer.best is None:
        return answer.no_stack or NOTHING
    return next(iter(answer.best.closing), NOTHING)
