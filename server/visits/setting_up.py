"""Reads for setting up: the whole grid of a rung, and any set-up of it in full."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

import numpy as np

from asketa_core import (
    SIDES,
    Axis,
    Finding,
    NoGrid,
    NumberSlot,
    Readout,
    Screened,
    SetupDetail,
    Side,
    Situation,
    SlotValue,
    StackSlot,
    Trade,
    Variation,
    Verdict,
    View,
    best_few,
    cue_words,
    describe,
    detail_at,
    dose_words,
    doses,
    figure,
    implausible_setup,
    lane_view,
    no_stack_words,
    outward_view,
    rulers_of,
    say,
    stack_words,
    told_once,
)
from common.errors import refuse_implausible
from engine.answers import Today
from visits.schemas import (
    AxisOut,
    ChoiceOut,
    DetailOut,
    DoseOut,
    FindingOut,
    GridOut,
    NeighbourOut,
    OptionOut,
    SetupOut,
)

VERDICT_LETTERS = {
    Verdict.CLEAR: "c", Verdict.WITH_SETUP: "s", Verdict.WITH_EYE: "e", Verdict.CHECK_FIRST: "q", Verdict.LEAVE_OUT: "x",
}  # fmt: skip
NOT_BUILDABLE = "."


def setup_answer(today: Today, rung: Variation, side: Side) -> SetupOut:
    """The whole grid of one rung and side, the best few set-ups, and the rungs beside it."""
    screened = today.screen(rung, side)
    last_used = today.last_used(rung.id, side)
    common: dict[str, Any] = {
        "variation": rung.id,
        "family": rung.family,
        "family_name": today.library.families[rung.family].name.en,
        "shared": rung.shared,
        "seen_from": rung.seen_from,
        "side": side,
        "name": rung.name.en,
        "purposes": list(today.library.families[rung.family].purposes),
        "doses": [DoseOut(seconds=each, words=dose_words(rung.hold, each)) for each in doses(rung.hold)],
        "cues": cue_words(rung),
        "watch": [say("watch", sign) for sign in rung.watched],
        "step_back": _neighbour(today, next(today.library.steps(rung, "step_back"), None), side),
        "step_forward": _neighbour(today, next(today.library.steps(rung, "step_forward"), None), side),
    }
    if isinstance(screened, NoGrid):
        return SetupOut(
            **common, verdict=Verdict.LEAVE_OUT, no_stack=no_stack_words(screened),
            axes=[], grid=None, options=[], plain_reasons=[],
        )  # fmt: skip
    plain = screened.grid.plain
    plain_reasons = []
    if plain is not None and not screened.allowed(plain):
        at_plain = detail_at(today.situation, screened, plain)
        plain_reasons = at_plain.closing
    step = today.decision(rung.family, side).step
    few = best_few(screened, last_used, step.setup if step is not None and step.variation == rung.id else None)
    return SetupOut(
        **common,
        verdict=screened.verdict,
        no_stack=None,
        axes=_axes(screened),
        grid=_grid(today.situation, screened),
        options=[
            OptionOut(
                trade=say("trades", trade.value),
                school=trade in (Trade.RAISE_SEAT, Trade.SUPPORT_KNEES),
                words=detail.line,
                spine_deg=screened.pose.middle(Readout.SPINE_FLEXION, None, detail.index),
                detail=detail_of(today, screened, detail),
            )
            for trade, detail in ((t, detail_at(today.situation, screened, row)) for t, row in few)
        ],
        plain_reasons=plain_reasons,
    )


def _neighbour(today: Today, rung: Variation | None, side: Side) -> NeighbourOut | None:
    if rung is None:
        return None
    answer = today.lane(rung, side)
    reasons = answer.best.closing if answer.best else [answer.no_stack or ""]
    return NeighbourOut(
        variation=rung.id, short=rung.short, verdict=answer.verdict, reason=reasons[0] if reasons else ""
    )


def _axes(screened: Screened) -> list[AxisOut]:
    return [
        AxisOut(
            name=axis.name,
            label=axis.slot.label,
            side=screened.variation.side_of(axis.name),
            # A place is chosen like any other of a few words.
            kind="choice" if axis.slot.type == "place" else axis.slot.type,
            less_support=axis.slot.less_support,
            choices=[
                ChoiceOut(label=_choice_label(axis, index), number=axis.value(index).number, value=axis.value(index))
                for index in range(len(axis.numbers))
            ],
        )
        for axis in screened.grid.axes
    ]


def _choice_label(axis: Axis, index: int) -> str:
    if isinstance(axis.slot, StackSlot):
        return stack_words(axis.stacks[index], "heels" if axis.slot.base == "heels" else "floor")
    if isinstance(axis.slot, NumberSlot):
        return axis.slot.meaning(float(axis.numbers[index]))
    return say("choices", axis.options[index])


def _dense_positions(screened: Screened) -> np.ndarray[Any, np.dtype[np.int64]]:
    """Position of every grid row in the dense order the web uses."""
    if not screened.grid.axes:
        # Nothing to set: one set-up, and no axis to count along.
        return np.zeros(screened.grid.size, dtype=np.int64)
    columns = [
        screened.grid.indices[:, k] if axis.searched else np.zeros(screened.grid.size, dtype=int)
        for k, axis in enumerate(screened.grid.axes)
    ]
    return np.ravel_multi_index(columns, screened.grid.lengths)


def _grid(situation: Situation, screened: Screened) -> GridOut:
    lengths = screened.grid.lengths
    size = int(np.prod(lengths))
    positions = _dense_positions(screened)
    stops = (screened.totals.stops > 0) | ~screened.possible
    minded = np.where(screened.totals.size > 0, "e", "s")
    letters = np.where(stops, "x", np.where(screened.totals.asks > 0, "q", minded))
    plain = screened.grid.plain
    if plain is not None:
        letters[plain] = VERDICT_LETTERS[screened.verdict_at(plain)]
    verdicts = np.full(size, NOT_BUILDABLE)
    verdicts[positions] = letters

    def spread(values: Sequence[float] | np.ndarray[Any, Any]) -> list[int]:
        dense = np.zeros(size, dtype=int)
        dense[positions] = np.rint(values).astype(int)
        return dense.tolist()

    columns = {}
    for side in SIDES:
        for demand in rulers_of(situation, screened, side):
            key = screened.pose.key(demand.readout, demand.leg)
            assert key is not None
            shown = getattr(screened.pose.extremes(key), demand.end)
            columns[f"{demand.readout.value}.{side.value}"] = spread(shown[screened.pose.readouts[key].rows])
    return GridOut(
        shape=lengths,
        verdicts="".join(verdicts),
        cautions=spread(screened.totals.cautions),
        purpose=[] if screened.no_range else spread(np.nan_to_num(screened.purpose)),
        columns=columns,
    )


def detail_for(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue], view: str) -> DetailOut | None:
    """One set-up in full, seen from one side; ``None`` when the room has nothing for the rung."""
    refuse_implausible(implausible_setup(rung, setup))
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    seen = outward_view(side) if view == "side" else View(view)
    return detail_out(today, screened, screened.grid.nearest(setup), seen, setup)


def detail_out(
    today: Today,
    screened: Screened,
    row: int,
    view: View | None = None,
    setup: dict[str, SlotValue] | None = None,
) -> DetailOut:
    return detail_of(today, screened, detail_at(today.situation, screened, row), view, setup)


def detail_of(
    today: Today,
    screened: Screened,
    detail: SetupDetail,
    view: View | None = None,
    setup: dict[str, SlotValue] | None = None,
) -> DetailOut:
    """``setup`` keeps choices the grid does not vary (how the foot is held)."""
    chosen = {name: value for name, value in (setup or {}).items() if value.choice is not None}
    foot = chosen["foot"].choice if "foot" in chosen else None
    seen = view if view is not None else lane_view(screened.variation, screened.side)
    words = {**detail.words, **{name: say("choices", str(value.choice)) for name, value in chosen.items()}}
    indices = [
        axis.nearest(chosen[axis.name]) if axis.name in chosen else int(at)
        for axis, at in zip(screened.grid.axes, screened.grid.indices[detail.index], strict=True)
    ]
    return DetailOut(
        index=indices,
        verdict=detail.verdict,
        allowed=detail.allowed,
        setup={**detail.setup, **chosen},
        words=words,
        fetch=detail.fetch,
        folds=detail.folds,
        items=detail.items,
        purpose_percent=detail.purpose_percent,
        technique_words=detail.technique_words,
        stopped_by=detail.stopped_by,
        findings=[finding_out(finding) for finding in told_once(detail.findings)],
        unmet=[asdict(unmet) for unmet in detail.unmet],
        rulers={side: [asdict(ruler) for ruler in rulers] for side, rulers in detail.rulers.items()},
        figure=figure(screened, today.situation.body, today.room, detail.index, seen, foot=foot),
        figure_words=describe(screened, detail.index),
    )


def finding_out(finding: Finding) -> FindingOut:
    return FindingOut.model_validate(finding, from_attributes=True)
