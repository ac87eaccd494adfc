"""Reads for choosing, setting up and the mat."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

import numpy as np
from engine.adapter import logged_items
from engine.answers import Today, digest

from asketa_core import (
    SIDES,
    Axis,
    Decision,
    Family,
    Finding,
    NoGrid,
    Readout,
    Screened,
    SetupDetail,
    Side,
    SlotValue,
    Variation,
    Verdict,
    View,
    best_few,
    describe,
    detail_at,
    families,
    figure,
    outward_view,
    say,
    setup_line,
    stack_words,
    step_back_from,
    variation,
)
from visits.models import LoggedItem, Visit
from visits.schemas import (
    AxisOut,
    ChoiceOut,
    DecisionOut,
    DetailOut,
    FindingOut,
    GridOut,
    ItemOut,
    LadderOut,
    LaneOut,
    LastTime,
    MatFamily,
    MatOut,
    MatSide,
    MatStepBack,
    NeighbourOut,
    OptionOut,
    RungLane,
    RungName,
    SetupOut,
    StepOut,
)

VERDICT_LETTERS = {Verdict.CLEAR: "c", Verdict.WITH_SETUP: "s", Verdict.CHECK_FIRST: "q", Verdict.LEAVE_OUT: "x"}
NOT_BUILDABLE = "."
GRID_COLUMNS = (
    Readout.HIP_BEND,
    Readout.HIP_EXTERNAL_ROTATION,
    Readout.HIP_ABDUCTION,
    Readout.KNEE_FLEXION,
    Readout.KNEE_TWIST,
)


# --- Choose -----------------------------------------------------------------------------------------


def ladders(today: Today) -> list[LadderOut]:
    """Every family as two lanes."""
    return [_ladder(today, family) for family in families().values()]


def _ladder(today: Today, family: Family) -> LadderOut:
    left, right = (_lane(today, family, side) for side in SIDES)
    return LadderOut(
        family=family.family,
        name=family.name.en,
        about=family.about,
        purposes=list(family.purposes),
        rungs=[RungName(id=rung.id, name=rung.name.en, short=rung.short) for rung in family.variations],
        left=left,
        right=right,
    )


def _lane(today: Today, family: Family, side: Side) -> LaneOut:
    decision = today.decision(family.family, side)
    tolerances = today.tolerances()
    rungs = []
    for rung in family.variations:
        answer, drawn = today.lane(rung, side)
        own = [r for r in today.file.responses if r.side is side and r.variation == rung.id]
        last = LastTime(date=own[-1].date, tolerance=tolerances[own[-1].id].value) if own else None
        detail = answer.best
        findings = detail.findings if detail else []
        closing = [f.sentence for f in findings if f.severity != "caution"] + (detail.troubles if detail else [])
        reasons = closing or [f.sentence for f in findings]
        if answer.no_stack is not None:
            reasons = [answer.no_stack]
        rungs.append(
            RungLane(
                variation=rung.id,
                verdict=answer.verdict,
                cautions=sum(f.severity == "caution" for f in findings) if not closing else 0,
                figure=drawn or None,
                line=setup_line(detail) if detail else "",
                reasons=reasons,
                last=last,
                here=decision.from_step is not None and decision.from_step.variation == rung.id,
                offered=decision.action.value in ("offer", "step_back")
                and decision.step is not None
                and decision.step.variation == rung.id,
            )
        )
    return LaneOut(side=side, decision=decision_out(decision), rungs=rungs)


def decision_out(decision: Decision) -> DecisionOut:
    step = decision.step
    return DecisionOut(
        action=decision.action.value,
        reason=decision.reason,
        step=StepOut(
            variation=step.variation,
            short=variation(step.variation).short,
            setup=dict(step.setup),
            dose_s=step.dose_s,
        )
        if step is not None
        else None,
        here=decision.from_step.variation if decision.from_step is not None else None,
    )


# --- Set up -----------------------------------------------------------------------------------------


def setup_answer(today: Today, rung: Variation, side: Side) -> SetupOut:
    """The whole grid of one rung and side, the best few set-ups, and the rungs beside it."""
    screened = today.screen(rung, side)
    last_used = today.last_used(rung.id, side)
    common: dict[str, Any] = {
        "variation": rung.id,
        "side": side,
        "name": rung.name.en,
        "purposes": list(families()[rung.family].purposes),
        "hold_from_s": rung.hold.start,
        "hold_to_s": rung.hold.to,
        "cues": [say("cues", cue) for cue in rung.cues],
        "watch": [say("watch", sign) for sign in (*rung.watch, "knee_drift")],
        "step_back": _neighbour(today, rung.step_back, side),
        "step_forward": _neighbour(today, rung.step_forward, side),
    }
    if isinstance(screened, NoGrid):
        return SetupOut(
            **common, verdict=Verdict.LEAVE_OUT, no_stack=say("troubles", "no_stack", label=screened.label),
            axes=[], grid=None, options=[], plain_reasons=[], last_used=None,
        )  # fmt: skip
    plain = screened.grid.plain
    plain_reasons = []
    if plain is not None and not screened.allowed(plain):
        at_plain = detail_at(today.situation, screened, plain)
        plain_reasons = [f.sentence for f in at_plain.findings if f.severity != "caution"] + at_plain.troubles
    few = best_few(screened, last_used)
    return SetupOut(
        **common,
        verdict=screened.verdict,
        no_stack=None,
        axes=_axes(screened),
        grid=_grid(screened),
        options=[
            OptionOut(
                trade=say("trades", trade.value), words=setup_line(detail), detail=_detail_out(today, screened, detail)
            )
            for trade, detail in ((t, detail_at(today.situation, screened, row)) for t, row in few)
        ],
        plain_reasons=plain_reasons,
        last_used=detail_out(today, screened, screened.grid.nearest(last_used)) if last_used else None,
    )


def _neighbour(today: Today, variation_id: str | None, side: Side) -> NeighbourOut | None:
    if variation_id is None:
        return None
    rung = variation(variation_id)
    answer, _ = today.lane(rung, side)
    reasons = (
        [f.sentence for f in answer.best.findings if f.severity != "caution"]
        if answer.best
        else [answer.no_stack or ""]
    )
    return NeighbourOut(
        variation=rung.id, short=rung.short, verdict=answer.verdict, reason=reasons[0] if reasons else ""
    )


def _axes(screened: Screened) -> list[AxisOut]:
    return [
        AxisOut(
            name=axis.name,
            label=axis.slot.label,
            kind=axis.slot.type,
            less_support=axis.slot.less_support,
            choices=[
                ChoiceOut(label=_choice_label(axis, index), number=axis.value(index).number, value=axis.value(index))
                for index in range(len(axis.numbers))
            ],
        )
        for axis in screened.grid.axes
    ]


def _choice_label(axis: Axis, index: int) -> str:
    if axis.stacks:
        return stack_words(axis.stacks[index])
    return say("choices", axis.options[index]) if axis.options else ""


def _axis_lengths(screened: Screened) -> list[int]:
    """Lengths of the dense grid: choices change nothing and count once."""
    return [1 if axis.options else len(axis.numbers) for axis in screened.grid.axes]


def _dense_positions(screened: Screened) -> np.ndarray[Any, np.dtype[np.int64]]:
    """Position of every grid row in the dense order the web uses."""
    columns = [
        np.zeros(screened.grid.size, dtype=int) if axis.options else screened.grid.indices[:, k]
        for k, axis in enumerate(screened.grid.axes)
    ]
    return np.ravel_multi_index(columns, _axis_lengths(screened))


def _grid(screened: Screened) -> GridOut:
    lengths = _axis_lengths(screened)
    size = int(np.prod(lengths))
    positions = _dense_positions(screened)
    stops = (screened.totals.stops > 0) | ~screened.possible
    letters = np.where(stops, "x", np.where(screened.totals.asks > 0, "q", "s"))
    plain = screened.grid.plain
    if plain is not None and letters[plain] == "s":
        letters[plain] = "c"
    verdicts = np.full(size, NOT_BUILDABLE)
    verdicts[positions] = letters

    def spread(values: Sequence[float] | np.ndarray[Any, Any]) -> list[int]:
        dense = np.zeros(size, dtype=int)
        dense[positions] = np.rint(values).astype(int)
        return dense.tolist()

    columns = {}
    for side in SIDES:
        for readout in GRID_COLUMNS:
            high = screened.pose.readouts[(readout, side)].max(axis=0)
            columns[f"{readout.value}.{side.value}"] = spread(np.broadcast_to(high, (screened.grid.size,)))
    return GridOut(
        shape=lengths,
        verdicts="".join(verdicts),
        cautions=spread(screened.totals.cautions),
        purpose=spread(screened.purpose),
        columns=columns,
    )


def detail_for(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue], view: str) -> DetailOut | None:
    """One set-up in full, seen from one side; ``None`` when the room has nothing for the rung."""
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
    return _detail_out(today, screened, detail_at(today.situation, screened, row), view, setup)


def _detail_out(
    today: Today,
    screened: Screened,
    detail: SetupDetail,
    view: View | None = None,
    setup: dict[str, SlotValue] | None = None,
) -> DetailOut:
    """``setup`` keeps choices the grid does not vary (how the foot is held)."""
    chosen = {name: value for name, value in (setup or {}).items() if value.choice is not None}
    foot = chosen["foot"].choice if "foot" in chosen else None
    seen = view if view is not None else outward_view(screened.side)
    words = {**detail.words, **{name: say("choices", str(value.choice)) for name, value in chosen.items()}}
    indices = [
        axis.options.index(str(chosen[axis.name].choice)) if axis.name in chosen else int(at)
        for axis, at in zip(screened.grid.axes, screened.grid.indices[detail.index], strict=True)
    ]
    return DetailOut(
        index=indices,
        verdict=detail.verdict,
        allowed=detail.allowed,
        setup={**detail.setup, **chosen},
        words=words,
        fetch=detail.fetch,
        items=detail.items,
        purpose_percent=detail.purpose_percent,
        technique_words=detail.technique_words,
        stopped_by=detail.stopped_by,
        findings=[finding_out(finding) for finding in detail.findings],
        troubles=detail.troubles,
        rulers={side: [asdict(ruler) for ruler in rulers] for side, rulers in detail.rulers.items()},
        figure=figure(screened, today.situation.body, today.room, detail.index, seen, foot=foot),
        figure_words=describe(screened, detail.index),
    )


def finding_out(finding: Finding) -> FindingOut:
    return FindingOut.model_validate(finding, from_attributes=True)


# --- On the mat -------------------------------------------------------------------------------------


def items_out(today: Today) -> list[ItemOut]:
    """Everything logged, oldest first."""
    tolerances = today.tolerances()
    return [item_out(item, tolerances[str(item.pk)].value) for item in logged_items(today.client)]


def item_out(item: LoggedItem, tolerance: str) -> ItemOut:
    mornings = [morning.settled for morning in item.mornings.all()]
    rung = variation(item.variation)
    setup = {name: SlotValue.model_validate(value) for name, value in item.setup_used.items()}
    return ItemOut(
        id=item.pk,
        date=item.visit.date,
        variation=item.variation,
        short=rung.short,
        side=item.side,
        setup_words=", ".join(
            f"{rung.slots[name].label.lower()} {value.number:.0f}"
            for name, value in setup.items()
            if value.stack not in (None, "floor") and value.number is not None and name in rung.slots
        ),
        dose_s=item.dose_s,
        before=item.before,
        during=item.during,
        after=item.after,
        kind=item.kind,
        place=item.place,
        signs=item.signs,
        note=item.note,
        settled=mornings[-1] if mornings else None,
        tolerance=tolerance,
    )


def mat(today: Today) -> MatOut:
    """Today's plan with everything needed beside the mat: no second request is needed to step back."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    plan: dict[str, Any] = visit.plan if visit is not None else {}
    items = items_out(today)
    return MatOut(
        date=today.date,
        families=[
            MatFamily(
                family=name,
                name=families()[name].name.en,
                **{
                    side.value: _mat_side(today, name, side, sides[side.value], items) if side.value in sides else None
                    for side in SIDES
                },
            )
            for name, sides in plan.items()
        ],
        morning_open=[item for item in items if item.settled is None and item.date < today.date][-6:],
    )


def _mat_side(today: Today, family: str, side: Side, planned: dict[str, Any], items: list[ItemOut]) -> MatSide | None:
    rung = variation(planned["variation"])
    setup = {name: SlotValue.model_validate(value) for name, value in planned["setup"].items()}
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    row = screened.grid.nearest(setup)
    detail = _detail_out(today, screened, detail_at(today.situation, screened, row), setup=setup)
    decision = today.decision(family, side)
    mine = [item for item in items if item.side is side and item.variation.split(".")[0] == family]
    earlier = [item for item in mine if item.date < today.date]
    now = [item for item in mine if item.date == today.date]
    return MatSide(
        side=side,
        variation=rung.id,
        name=rung.name.en,
        short=rung.short,
        setup=detail.setup,
        setup_words=setup_line(detail_at(today.situation, screened, row)),
        dose_s=planned["dose_s"],
        verdict=detail.verdict,
        allowed=detail.allowed,
        figure=detail.figure,
        figure_words=detail.figure_words,
        technique_words=detail.technique_words,
        cautions=detail.findings,
        cues=[say("cues", cue) for cue in rung.cues],
        watch=[say("watch", sign) for sign in rung.watch],
        step_back=today.cached(
            "step_back",
            rung.id,
            side,
            digest(repr(sorted(planned["setup"].items()))),
            compute=lambda: _step_back(today, rung, side, setup),
        )
        or None,
        last=earlier[-1] if earlier else None,
        decision=decision_out(decision),
        logged_today=now[-1] if now else None,
    )


def _step_back(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> MatStepBack | bool:
    """The ready step back; ``False`` (cacheable) when nothing gentler is open today."""
    step = step_back_from(rung.id, setup, lambda target, used: today.situation.screen(target, side, used))
    if step is None:
        return False
    target = variation(step.variation)
    screened = today.situation.screen(target, side, setup)
    assert not isinstance(screened, NoGrid)
    row = screened.best
    return MatStepBack(
        variation=target.id,
        name=target.name.en,
        short=target.short,
        setup=dict(step.setup),
        setup_words=setup_line(detail_at(today.situation, screened, row)),
        dose_s=step.dose_s,
        figure=figure(screened, today.situation.body, today.room, row, outward_view(side)),
        figure_words=describe(screened, row),
    )
