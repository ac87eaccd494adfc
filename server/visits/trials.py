"""Both ways tried one after the other: what can be tried of a set-up, what came of it, and keeping it."""

from __future__ import annotations

import uuid
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
    implausible_setup,
    keeps_range,
    no_stack_words,
    standing,
    tried_on,
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
from visits.models import Trial, Visit
from visits.schemas import DrawnSetup, SlotTrial, TrialIn, TrialOut, WayOut, WaysOut
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
from visits.setting_up import detail_out


def ways_of(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> WaysOut | None:
    """A set-up and every other way of it that is open today; ``None`` where this room has nothing for the rung."""
    refuse_implausible(implausible_setup(rung, setup))
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    row = screened.grid.nearest(setup)
    here = _drawn(today, screened, row, setup)
    return WaysOut(
        here=DrawnSetup(**here),
        ways=[
            WayOut(
                slot=way.slot,
                label=rung.label_of(way.slot),
                now=way_words(screened, row, here["setup"][way.slot], way.slot),
                then=way_words(screened, way.row, way.value, way.slot),
                **_drawn(today, screened, way.row, dict(way.setup)),
            )
            for way in ways(screened, here["setup"], keeps_range(today.file, today.date))
        ],
    )


def _drawn(today: Today, screened: Screened, row: int, setup: dict[str, SlotValue]) -> dict[str, Any]:
    """The fields of ``schemas.DrawnSetup``."""
    told = detail_out(today, screened, row, setup=setup)
    return {"setup": told.setup, "verdict": told.verdict, "cautions": told.findings, "figure": told.figure}


def slot_trials(today: Today, rung: Variation, side: Side) -> list[SlotTrial]:
    """The slots of a rung of which both ways may be tried, with what came of it last."""
    last = standing(today.file.trials, rung, side)
    judged = today.judged_on(rung.family, side)
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
    """Everything tried on one side of a ladder, the latest first."""
    tried = tried_on(today.file.trials, today.library, family, side)
    return [trial_out(today.library.variation(trial.variation), trial) for trial in reversed(tried)]


def trial_out(rung: Variation, trial: TrialValue) -> TrialOut:
    known = trial.slot in rung.setup_slots
    return TrialOut(
        id=uuid.UUID(trial.id),
        date=trial.date,
        slot=trial.slot,
        label=rung.label_of(trial.slot) if known else "",
        kept=value_words(rung, trial.slot, trial.kept_value),
        felt_kept=trial.felt_kept,
        other=value_words(rung, trial.slot, trial.other_value),
        felt_other=trial.felt_other,
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
    row = Trial(
        practice_id=visit.practice_id, created_by=user, visit=visit, side=data.side.value,
        setup=stored_setup(data.setup), a=stored_value(data.setup[data.slot]), b=stored_value(data.other),
        snapshot={way: snapshot(today, rung.id, data.side, setup) for way, setup in both.items()},
        **data.model_dump(include={"id", "variation", "slot", "felt_a", "felt_b", "kept"}),
    )  # fmt: skip
    if not stored_once(row, today.client):
        return
    record(row, "trial.kept", user)
    _plan_with(visit, user, screened, SIDES if rung.shared else (data.side,), both[data.kept])


def _plan_with(
    visit: Visit, user: User, screened: Screened, sides: tuple[Side, ...], setup: dict[str, SlotValue]
) -> None:
    """Let the day's plan go on with a set-up, where its rung is planned."""
    ladder = planned_ladder(visit, screened.variation.family) or {}
    planned = [ladder[side.value] for side in sides if side.value in ladder]
    here = [each for each in planned if each["variation"] == screened.variation.id]
    for each in here:
        now = planned_side(screened, setup, each["dose_s"], each.get("rounds", 1))
        each.update(now)
    if here:
        save_plan(visit, user)
