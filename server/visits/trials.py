"""Both ways tried one after the other: what can be tried of a set-up, what came of it, and keeping it."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from typing import Any

from django.db import transaction

from accounts.models import User
from asketa_core import (
    SIDES,
    NoGrid,
    Screened,
    Side,
    SlotValue,
    Variation,
    detail_at,
    implausible_setup,
    keeps_range,
    no_stack_words,
    standing,
    try_again,
    value_words,
    way_words,
    ways,
)
from asketa_core import Trial as TrialValue
from audit.models import record
from common.errors import bad_field, refuse_implausible
from common.speech import own
from engine.answers import Today, snapshot
from visits.models import Trial
from visits.schemas import SlotTrial, TrialIn, TrialOut, WayOut, WaysOut
from visits.services import (
    locked,
    planned_ladder,
    planned_side,
    save_plan,
    sent_before,
    stored_once,
    stored_setup,
    stored_value,
    visit_of,
)
from visits.setting_up import detail_of


def ways_of(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> WaysOut | None:
    """A set-up and every other way of it that is open today; ``None`` where this room has nothing for the rung."""
    refuse_implausible(implausible_setup(rung, setup))
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    row = screened.grid.nearest(setup)
    here = _drawn(today, screened, row, setup)
    return WaysOut(
        setup=here["setup"],
        ways=[
            WayOut(
                slot=way.slot,
                label=rung.label_of(way.slot),
                here=way_words(screened, row, here["setup"][way.slot], way.slot),
                there=way_words(screened, way.row, way.value, way.slot),
                value=way.value,
                **_without_setup(_drawn(today, screened, way.row, dict(way.setup))),
            )
            for way in ways(screened, here["setup"], keeps_range(today.file, today.date))
        ],
        **_without_setup(here),
    )


def _drawn(today: Today, screened: Screened, row: int, setup: dict[str, SlotValue]) -> dict[str, Any]:
    detail = detail_at(today.situation, screened, row)
    told = detail_of(today, screened, detail, setup=setup)
    return {
        "setup": told.setup,
        "setup_words": detail.line,
        "verdict": told.verdict,
        "cautions": told.findings,
        "figure": told.figure,
        "figure_words": told.figure_words,
    }


def _without_setup(drawn: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in drawn.items() if name != "setup"}


def slot_trials(today: Today, rung: Variation, side: Side) -> list[SlotTrial]:
    """The slots of a rung of which both ways may be tried, with what came of it last."""
    last = standing(today.file.trials, rung, side)
    judged = [
        each
        for each in today.judged.values()
        if each.response.family == rung.family and (rung.shared or each.response.side is side)
    ]
    return [
        SlotTrial(
            slot=name,
            label=rung.label_of(name),
            last=trial_out(rung, last[name]) if name in last else None,
            again=name in last and try_again(last[name], judged),
        )
        for name, slot in rung.setup_slots.items()
        if slot.type != "place" and slot.try_both
    ]


def trials_of(today: Today, family: str, side: Side) -> list[TrialOut]:
    """Everything tried on one side of a ladder, the latest first; of a shape both legs share on either."""
    return [trial_out(rung, trial) for rung, trial in _tried(today, family, side)][::-1]


def _tried(today: Today, family: str, side: Side) -> Iterator[tuple[Variation, TrialValue]]:
    for trial in today.file.trials:
        if trial.family == family:
            rung = today.library.variation(trial.variation)
            if rung.shared or trial.side is side:
                yield rung, trial


def trial_out(rung: Variation, trial: TrialValue) -> TrialOut:
    known = trial.slot in rung.setup_slots
    return TrialOut(
        id=uuid.UUID(trial.id),
        date=trial.date,
        slot=trial.slot,
        label=rung.label_of(trial.slot) if known else "",
        a=value_words(rung, trial.slot, trial.a),
        b=value_words(rung, trial.slot, trial.b),
        felt_a=trial.felt_a,
        felt_b=trial.felt_b,
        kept=trial.kept,
    )


@transaction.atomic
def keep_trial(today: Today, user: User, data: TrialIn) -> None:
    """Keep which of two ways was calmer; the day's plan goes on with it. The same id is stored once.

    A way that a limit closes today, or of which nobody differs, is refused.
    """
    if sent_before(Trial, data.id, today.client):
        return
    rung = today.library.variation(data.variation)
    if rung.id in today.library.retired:
        raise bad_field("variation", own("field", "put_away"))
    slot = rung.setup_slots.get(data.slot)
    if slot is None or slot.type == "place" or not slot.try_both:
        raise bad_field("slot", own("field", "not_tried_both"))
    refuse_implausible(implausible_setup(rung, data.setup))
    refuse_implausible(implausible_setup(rung, {data.slot: data.other}, "other"))
    screened = today.screen(rung, data.side)
    if isinstance(screened, NoGrid):
        raise bad_field("setup", no_stack_words(screened))
    if data.slot not in data.setup:
        raise bad_field("setup", own("field", "slot_missing"))
    both = {"a": data.setup, "b": {**data.setup, data.slot: data.other}}
    for field, setup in (("setup", both["a"]), ("other", both["b"])):
        if not screened.allowed(screened.grid.nearest(setup)):
            raise bad_field(field, own("field", "closed"))
    visit = locked(visit_of(today, user))
    fields = {
        "variation": rung.id,
        "side": data.side.value,
        "slot": data.slot,
        "felt_a": data.felt_a,
        "felt_b": data.felt_b,
        "kept": data.kept,
    }
    row = Trial(
        id=data.id, practice_id=visit.practice_id, created_by=user, visit=visit,
        setup=stored_setup(data.setup), a=stored_value(data.setup[data.slot]), b=stored_value(data.other),
        snapshot={way: snapshot(today, rung.id, data.side, setup, []) for way, setup in both.items()},
        **fields,
    )  # fmt: skip
    if not stored_once(row, today.client):
        return
    record(row, "trial.kept", user)
    ladder = planned_ladder(visit, rung.family) or {}
    for side in SIDES if rung.shared else (data.side,):
        before = ladder.get(side.value)
        if before is not None and before["variation"] == rung.id:
            planned = planned_side(screened, both[data.kept], before["dose_s"], before.get("rounds", 1))
            ladder[side.value] = planned | {"accepted": before["accepted"]}
    if ladder:
        save_plan(visit, user)
