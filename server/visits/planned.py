"""Planned sides judged for their day: what a session's minutes, order and warnings are worked out from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from asketa_core import (
    NOTHING,
    SIDES,
    NoGrid,
    Part,
    Phrase,
    SetupDetail,
    Side,
    SlotValue,
    Variation,
    Verdict,
    chosen_words,
    describe,
    detail_at,
    figure,
    lane_view,
    level_of_rung,
    listed,
    no_stack_words,
    part_of,
)
from common.speech import words
from engine.answers import Today, digest
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


def line_of(rung: Variation, detail: SetupDetail, setup: Mapping[str, SlotValue]) -> Phrase:
    """A set-up in one line, with what is held otherwise than usual: 'chair 45, block on end, foot drawn up'."""
    return listed([detail.line, *chosen_words(rung, setup)])


def judged_side(today: Today, side: Side, planned: Planned) -> JudgedSide:
    """One planned side as the day's limits, room and library see it."""
    rung = today.library.variation(planned["variation"])
    setup, dose_s, rounds = setup_of(planned), planned["dose_s"], planned.get("rounds", 1)

    def compute() -> JudgedSide:
        screened = today.screen(rung, side)
        if isinstance(screened, NoGrid):
            why = no_stack_words(screened)
            nowhere = Part(rung.hold, dose_s, rounds, level_of_rung(rung), {}, closed=why)
            return JudgedSide(nowhere, NOTHING, Verdict.LEAVE_OUT, False, (why,), "", NOTHING)
        row = screened.grid.nearest(setup)
        detail = detail_at(today.situation, screened, row)
        closed = next(iter(detail.closing), None)
        return JudgedSide(
            part_of(screened, row, dose_s, rounds, closed),
            line_of(rung, detail, setup),
            detail.verdict,
            detail.allowed,
            tuple(detail.closing or detail.reasons),
            figure(screened, today.situation.body, today.room, row, lane_view(rung, side), words(), small=True),
            describe(screened, row),
        )

    key = digest(repr((sorted(planned["setup"].items()), dose_s, rounds)))
    return today.cached("planned", rung.id, side, key, compute=compute)


def notes_by_side(today: Today) -> dict[tuple[str, Side], str]:
    """What was last written for each rung and side when it was planned, up to the day; in one query."""
    person, found = today.client.person, {}
    plans = (
        Visit.objects.filter(client=today.client, date__lte=today.date).order_by("date").values_list("plan", flat=True)
    )
    for ladder in (ladder for plan in plans for ladder in plan):
        for side in SIDES:
            planned = ladder.get(side.value, {})
            if text := person.note_of(planned.get("note", "")):
                found[(planned["variation"], side)] = text
    return found


def planned_sides(today: Today, ladder: Mapping[str, Any]) -> dict[Side, Planned]:
    """The sides of a ladder that are planned. Of a shape both share the left stands for both."""
    sides = SIDES[:1] if today.library.families[ladder["family"]].shared else SIDES
    return {side: ladder[side.value] for side in sides if side.value in ladder}
