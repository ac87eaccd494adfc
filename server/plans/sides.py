"""Planned sides judged for their day: what a session's minutes, order and warnings are worked out from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from asketa_core import (
    NOTHING,
    SIDES,
    Level,
    NoGrid,
    Part,
    Phrase,
    Pose,
    Proposal,
    Side,
    SlotValue,
    Step,
    Variation,
    Verdict,
    describe,
    detail_at,
    figure,
    first_open,
    lane_view,
    no_stack_words,
    part_of,
    pose_of,
    proposal,
    step_of,
)
from common.speech import words
from engine.answers import OPEN_VERDICTS, Today, digest
from visits.models import Visit

Planned = dict[str, Any]
"""One side as it stands in a visit's plan."""


@dataclass(frozen=True)
class JudgedSide:
    """A planned side on its day."""

    part: Part
    line: Phrase
    verdict: Verdict
    allowed: bool
    reasons: tuple[Phrase, ...]
    figure: str
    figure_words: Phrase


def setup_of(planned: Planned) -> dict[str, SlotValue]:
    return {name: SlotValue.model_validate(value) for name, value in planned["setup"].items()}


def judged_side(today: Today, side: Side, planned: Planned) -> JudgedSide:
    """One planned side as the day's limits, room and library see it."""
    rung = today.library.variation(planned["variation"])
    setup, dose_s, rounds = setup_of(planned), planned["dose_s"], planned.get("rounds", 1)

    def compute() -> JudgedSide:
        screened = today.screen(rung, side)
        if isinstance(screened, NoGrid):
            why = no_stack_words(screened)
            nowhere = Part(rung.hold, dose_s, rounds, _level_of(rung), {}, closed=why)
            return JudgedSide(nowhere, NOTHING, Verdict.LEAVE_OUT, False, (why,), "", NOTHING)
        row = screened.grid.nearest(setup)
        detail = detail_at(today.situation, screened, row)
        closed = next(iter(detail.closing), None)
        return JudgedSide(
            part_of(screened, row, dose_s, rounds, closed),
            detail.line,
            detail.verdict,
            detail.allowed,
            tuple(detail.closing or detail.reasons),
            figure(screened, today.situation.body, today.room, row, lane_view(rung, side), words(), small=True),
            describe(screened, row),
        )

    key = digest(repr((sorted(planned["setup"].items()), dose_s, rounds)))
    return today.cached("planned", rung.id, side, key, compute=compute)


def _level_of(rung: Variation) -> Level:
    """Where a rung is held that nothing can be built for."""
    return {"standing": Level.STANDING, "chair": Level.SEATED}.get(rung.position, Level.FLOOR)


def planned_sides(today: Today, ladder: Mapping[str, Any]) -> dict[Side, Planned]:
    """The sides of a ladder that are planned. Of a shape both share the left stands for both."""
    sides = SIDES[:1] if today.library.families[ladder["family"]].shared else SIDES
    return {side: ladder[side.value] for side in sides if side.value in ladder}


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
    ladder = today.library.families[family]
    if decision.from_step is not None:
        return proposal(decision, today.situation, lambda rung, used: today.screen_with(rung, side, used))
    open_rungs = tuple(rung for rung in ladder.variations if today.lane(rung, side).verdict in OPEN_VERDICTS)
    step = first_open(open_rungs[:1], lambda rung, used: today.screen_with(rung, side, used))
    return Proposal(step, NOTHING if step is not None else _closed_by(today, ladder.variations[0], side))


def _closed_by(today: Today, rung: Variation, side: Side) -> Phrase:
    answer = today.lane(rung, side)
    if answer.best is None:
        return answer.no_stack or NOTHING
    return next(iter(answer.best.closing), NOTHING)
