"""Reads for the mat: what was logged, and today's plan with everything needed beside it."""

from __future__ import annotations

from typing import Any

from asketa_core import (
    SIDES,
    NoGrid,
    Side,
    SlotValue,
    Variation,
    cue_words,
    describe,
    detail_at,
    figure,
    lane_view,
    say,
    step_back_from,
)
from engine.adapter import logged_items
from engine.answers import Today, digest
from visits.choosing import decision_out
from visits.holds import hold_fields
from visits.models import LoggedItem, Visit
from visits.schemas import (
    ItemOut,
    MatFamily,
    MatOut,
    MatSide,
    MatStepBack,
)
from visits.setting_up import detail_of


def items_out(today: Today) -> list[ItemOut]:
    """Everything logged, oldest first."""
    tolerances = today.tolerances()
    return [item_out(today, item, tolerances[str(item.pk)].value) for item in logged_items(today.client)]


def item_out(today: Today, item: LoggedItem, tolerance: str) -> ItemOut:
    return ItemOut(side=item.side, **hold_fields(today.library.variation(item.variation), item, tolerance))


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
                name=today.library.families[name].name.en,
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
    rung = today.library.variation(planned["variation"])
    setup = {name: SlotValue.model_validate(value) for name, value in planned["setup"].items()}
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    row = screened.grid.nearest(setup)
    detail = detail_of(today, screened, detail_at(today.situation, screened, row), setup=setup)
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
        setup_words=detail_at(today.situation, screened, row).line,
        dose_s=planned["dose_s"],
        verdict=detail.verdict,
        allowed=detail.allowed,
        figure=detail.figure,
        figure_words=detail.figure_words,
        technique_words=detail.technique_words,
        cautions=detail.findings,
        cues=cue_words(rung),
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
        decision=decision_out(today.library, decision),
        logged_today=now[-1] if now else None,
    )


def _step_back(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> MatStepBack | bool:
    """The ready step back; ``False`` (cacheable) when nothing gentler is open today."""
    step = step_back_from(today.library, rung.id, setup, lambda target, used: today.screen_with(target, side, used))
    if step is None:
        return False
    target = today.library.variation(step.variation)
    screened = today.screen_with(target, side, setup)
    assert not isinstance(screened, NoGrid)
    row = screened.best
    return MatStepBack(
        variation=target.id,
        name=target.name.en,
        short=target.short,
        setup=dict(step.setup),
        setup_words=detail_at(today.situation, screened, row).line,
        dose_s=step.dose_s,
        figure=figure(screened, today.situation.body, today.room, row, lane_view(target, side)),
        figure_words=describe(screened, row),
    )
