"""Reads for setting up: the whole grid of a rung, and any set-up of it in full."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from asketa_core import (
    Finding,
    NoGrid,
    Screened,
    SetupDetail,
    Side,
    SlotValue,
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
    place_of,
    plain_closed_by,
    rounding_of,
    rulers_on,
    say,
    side_view,
    steps_of,
    table_of,
    told_once,
    way_of,
)
from common.errors import refuse_implausible
from common.speech import Text, words
from engine.answers import Today
from visits.models import Visit
from visits.planned import notes_by_side, setup_of
from visits.schemas import (
    AcceptedOut,
    AxisOut,
    ChoiceOut,
    DetailOut,
    DoseOut,
    FindingOut,
    GridOut,
    MomentOut,
    NeighbourOut,
    OptionOut,
    PlannedOut,
    RulersOut,
    SetupOut,
    UnmetOut,
)
from visits.services import planned_ladder


def setup_answer(today: Today, rung: Variation, side: Side) -> SetupOut:
    """The whole grid of one rung and side, the best few set-ups, and the rungs beside it."""
    screened = today.screen(rung, side)
    last_used = today.last_used(rung.id, side)
    common: dict[str, Any] = {
        "variation": rung.id,
        "family": rung.family,
        "family_name": today.library.families[rung.family].name,
        "shared": rung.shared,
        "seen_from": rung.seen_from,
        "side": side,
        "name": rung.name,
        "purposes": list(today.library.families[rung.family].purposes),
        "doses": [DoseOut(seconds=each, words=dose_words(rung.hold, each)) for each in doses(rung.hold)],
        "cues": cue_words(rung),
        "watch": [say("watch", sign) for sign in rung.watched],
        "step_back": _neighbour(today, next(today.library.steps(rung, "step_back"), None), side),
        "step_forward": _neighbour(today, next(today.library.steps(rung, "step_forward"), None), side),
    }
    common |= {"planned": _planned(today, rung, side), "note": notes_by_side(today).get((rung.id, side), "")}
    if isinstance(screened, NoGrid):
        return SetupOut(
            **common, verdict=Verdict.LEAVE_OUT, no_stack=no_stack_words(screened),
            axes=[], grid=None, options=[], plain_reasons=[],
        )  # fmt: skip
    step = today.decision(rung.family, side).step
    few = best_few(screened, last_used, step.setup if step is not None and step.variation == rung.id else None)
    return SetupOut(
        **common,
        verdict=screened.verdict,
        no_stack=None,
        axes=_axes(screened),
        grid=GridOut(**asdict(table_of(today.situation, screened))),
        options=[
            OptionOut(
                trade=say("trades", trade.value),
                school=trade in (Trade.RAISE_SEAT, Trade.SUPPORT_KNEES),
                words=detail.line,
                spine_deg=rounding_of(screened, detail.index),
                detail=detail_of(today, screened, detail),
            )
            for trade, detail in ((t, detail_at(today.situation, screened, row)) for t, row in few)
        ],
        plain_reasons=list(plain_closed_by(today.situation, screened)),
    )


def _planned(today: Today, rung: Variation, side: Side) -> PlannedOut | None:
    """What the day's plan has of a rung and side; ``None`` where it is not planned."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    planned = (planned_ladder(visit, rung.family) or {}).get(side.value) if visit is not None else None
    if planned is None or planned["variation"] != rung.id:
        return None
    return PlannedOut(setup=setup_of(planned), dose_s=planned["dose_s"])


def _neighbour(today: Today, rung: Variation | None, side: Side) -> NeighbourOut | None:
    if rung is None:
        return None
    answer = today.lane(rung, side)
    reasons: list[Text] = list(answer.best.closing) if answer.best else [answer.no_stack or ""]
    return NeighbourOut(
        variation=rung.id, short=rung.short, verdict=answer.verdict, reason=reasons[0] if reasons else ""
    )


def _axes(screened: Screened) -> list[AxisOut]:
    return [
        AxisOut(
            name=steps.name,
            label=steps.label,
            side=steps.side,
            kind=steps.kind,
            less_support=steps.less_support,
            choices=[ChoiceOut(label=label, number=value.number, value=value) for label, value in steps.values],
        )
        for steps in steps_of(screened)
    ]


def detail_for(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue], view: str) -> DetailOut | None:
    """One set-up in full, seen from one side; ``None`` when the room has nothing for the rung."""
    refuse_implausible(implausible_setup(rung, setup))
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    seen = side_view(rung, side) if view == "side" else View(view)
    return detail_out(today, screened, screened.grid.nearest(setup), seen, setup)


def way_for(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> list[MomentOut]:
    """How one gets into a set-up and out, as figures; nothing where the room has nothing for the rung."""
    refuse_implausible(implausible_setup(rung, setup))
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return []
    moments = way_of(screened, today.situation, screened.grid.nearest(setup), words())
    return [MomentOut(figure=moment.figure, words=moment.words) for moment in moments]


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
    slot_words = {**detail.words, **{name: say("choices", str(value.choice)) for name, value in chosen.items()}}
    return DetailOut(
        index=place_of(screened, detail.index, chosen),
        verdict=detail.verdict,
        allowed=detail.allowed,
        setup={**detail.setup, **chosen},
        words={**slot_words},
        fetch=list(detail.fetch),
        folds=detail.folds,
        items=detail.items,
        purpose_percent=detail.purpose_percent,
        technique_words=detail.technique_words,
        stopped_by=detail.stopped_by,
        findings=[finding_out(today, screened.variation.family, each) for each in told_once(detail.findings)],
        unmet=[UnmetOut.model_validate(unmet, from_attributes=True) for unmet in detail.unmet],
        rulers=RulersOut.model_validate(rulers_on(today.situation, screened, detail.index), from_attributes=True),
        figure=figure(screened, today.situation.body, today.room, detail.index, seen, words(), foot=foot),
        figure_words=describe(screened, detail.index),
    )


def finding_out(today: Today, family: str, finding: Finding) -> FindingOut:
    found = FindingOut.model_validate(finding, from_attributes=True)
    taken_on = today.accepted_for(family, finding)
    if taken_on is not None:
        found.accepted = AcceptedOut(reason=taken_on.reason, by=taken_on.by, at=taken_on.at)
    return found
