"""Reads for the mat: what was logged, and today's plan with everything needed beside it."""

from __future__ import annotations

import uuid
from collections.abc import Iterator, Sequence
from typing import Any, Literal

from django.http import Http404

from asketa_core import (
    NOTHING,
    SIDES,
    NoGrid,
    Part,
    Side,
    SlotValue,
    Variation,
    amount_of,
    cue_words,
    describe,
    detail_at,
    dose_words,
    entry_words,
    figure,
    forms,
    heights_words,
    held_s,
    lane_view,
    pose_of,
    same_setup,
    say,
    step_back_from,
    timeline,
)
from common.speech import words
from engine.adapter import items_by_id
from engine.answers import Today, digest
from overview.queries import asked_on, checks_out
from visits.choosing import decision_out
from visits.holds import hold_fields
from visits.models import Incident, LoggedItem, Visit
from visits.notes import notes_of
from visits.planned import judged_side, line_of, notes_by_side, planned_sides
from visits.schemas import (
    CardLine,
    ChangedSince,
    DetailOut,
    IncidentOut,
    ItemOut,
    MatFamily,
    MatOut,
    MatSide,
    MatStepBack,
)
from visits.services import twin_id
from visits.setting_up import detail_of
from visits.trials import slot_trials

MOST_MORNINGS = 6
LATEST_NOTES = 3
"""Notes of the last visits that are at hand beside the mat."""


def items_out(today: Today, before: uuid.UUID | None, limit: int) -> list[ItemOut]:
    """The latest holds logged, oldest first; those before one of them when it is named."""
    ids = [response.id for response in today.file.responses]
    if before is not None:
        if str(before) not in ids:
            raise Http404
        ids = ids[: ids.index(str(before))]
    return list(_items(today, ids[-limit:]).values())


def _items(today: Today, ids: Sequence[str]) -> dict[str, ItemOut]:
    """Some holds by their ids, in the order given."""
    rows, tolerances = items_by_id(today.client, ids), today.tolerances()
    return {key: item_out(today, rows[key], tolerances[key].value) for key in ids if key in rows}


def item_out(today: Today, item: LoggedItem, tolerance: str) -> ItemOut:
    return ItemOut(side=Side(item.side), **hold_fields(today.library.variation(item.variation), item, tolerance))


def mat(today: Today) -> MatOut:
    """Today's plan with everything needed beside the mat: no second request is needed to step back. Of everything ever
    logged only what is shown is read: today's holds, the last of each side before, and open mornings."""
    visit = Visit.objects.filter(client=today.client, date=today.date).first()
    plan: list[dict[str, Any]] = visit.plan if visit is not None else []
    mine: dict[tuple[str, Side], tuple[str | None, list[str]]] = {}
    for planned in plan:
        for side in SIDES:
            mine[(planned["family"], side)] = _holds_of(today, planned["family"], side)
    open_mornings = mornings_to_ask(today)[-MOST_MORNINGS:]
    shown = [each for last, now in mine.values() for each in (last, *now) if each is not None]
    items = _items(today, list(dict.fromkeys([*shown, *open_mornings])))
    notes = notes_by_side(today)
    incidents = Incident.objects.filter(visit=visit) if visit is not None else []
    return MatOut(
        date=today.date,
        breath_s=today.client.breath_s,
        families=[_mat_family(today, planned, items, mine, notes) for planned in plan],
        morning_open=[items[key] for key in open_mornings if key in items],
        asked=list(asked_on(today.file, today.date)),
        card=list(_card(today)),
        checks=checks_out(today.client, today.file, today.date),
        notes=notes_of(today.client)[:LATEST_NOTES],
        contacts=today.client.person.contacts,
        incidents=[IncidentOut(at=each.created_at, text=today.client.person.note_of(each.pk)) for each in incidents],
    )


def _mat_family(
    today: Today,
    planned: dict[str, Any],
    items: dict[str, ItemOut],
    mine: dict[tuple[str, Side], tuple[str | None, list[str]]],
    notes: dict[tuple[str, Side], str],
) -> MatFamily:
    family = today.library.families[planned["family"]]
    parts: dict[Side | None, Part] = {
        None if family.shared else side: judged_side(today, side, each).part
        for side, each in planned_sides(today, planned).items()
    }
    sides = {
        side: _mat_side(today, family.family, side, planned[side.value], items, mine, notes)
        for side in SIDES
        if side.value in planned
    }
    line = timeline([pose_of(family, parts)], today.client.breath_s)
    return MatFamily(
        family=family.family,
        name=family.name,
        shared=family.shared,
        seconds=round(line.of_pose(0)),
        left=sides.get(Side.LEFT),
        right=sides.get(Side.RIGHT),
    )


def _card(today: Today) -> Iterator[CardLine]:
    """What somebody who helps needs to know: every record, and when it is one for a doctor."""
    doctor = {form.code: form.doctor for form in forms()}
    for entry in today.file.entries:
        yield CardLine(label=entry_words(entry, today.date), side=entry.side, doctor=doctor.get(entry.kind, NOTHING))


def mornings_to_ask(today: Today) -> list[str]:
    """Holds whose next morning is open, by their ids, oldest first: one both legs share is asked about once."""
    unanswered = [response.id for response in today.file.mornings_open(today.date)]
    twins = {str(twin_id(uuid.UUID(each))) for each in unanswered}
    return [each for each in unanswered if each not in twins]


def _holds_of(today: Today, family: str, side: Side) -> tuple[str | None, list[str]]:
    """The last hold of one side of a ladder before today, and today's in their order."""
    own = [r for r in today.file.responses if r.side is side and r.family == family]
    earlier = [r.id for r in own if r.date < today.date]
    return (earlier[-1] if earlier else None), [r.id for r in own if r.date == today.date]


def _mat_side(
    today: Today,
    family: str,
    side: Side,
    planned: dict[str, Any],
    items: dict[str, ItemOut],
    holds: dict[tuple[str, Side], tuple[str | None, list[str]]],
    notes: dict[tuple[str, Side], str],
) -> MatSide | None:
    rung = today.library.variation(planned["variation"])
    setup = {name: SlotValue.model_validate(value) for name, value in planned["setup"].items()}
    screened = today.screen(rung, side)
    if isinstance(screened, NoGrid):
        return None
    row = screened.grid.nearest(setup)
    detail = detail_of(today, screened, detail_at(today.situation, screened, row), setup=setup)
    decision = today.decision(family, side)
    last, now = holds[(family, side)]
    return MatSide(
        side=side,
        variation=rung.id,
        name=rung.name,
        short=rung.short,
        setup=detail.setup,
        setup_words=line_of(rung, detail_at(today.situation, screened, row), setup),
        dose_s=planned["dose_s"],
        dose=dose_words(rung.hold, planned["dose_s"]),
        style=rung.hold.style,
        amount=amount_of(rung.hold, planned["dose_s"]),
        sets=rung.hold.sets,
        seconds=round(held_s(judged_side(today, side, planned).part, today.client.breath_s)),
        rounds=planned.get("rounds", 1),
        verdict=detail.verdict,
        allowed=detail.allowed,
        note=notes.get((rung.id, side), ""),
        figure=detail.figure,
        figure_words=detail.figure_words,
        technique_words=detail.technique_words,
        cautions=detail.findings,
        cues=list(cue_words(rung)),
        watch=[say("watch", sign) for sign in rung.watch],
        changed_since=_changed_since(rung, setup, planned, detail),
        step_back=today.cached(
            "step_back",
            rung.id,
            side,
            digest(repr(sorted(planned["setup"].items()))),
            compute=lambda: _step_back(today, rung, side, setup),
        )
        or None,
        trials=slot_trials(today, rung, side),
        last=items.get(last) if last is not None else None,
        decision=decision_out(today.library, decision),
        logged_today=[items[key] for key in now if key in items],
    )


def _changed_since(
    rung: Variation, setup: dict[str, SlotValue], planned: dict[str, Any], now: DetailOut
) -> ChangedSince | None:
    """How a planned set-up differs from what it has become: a slot that is gone or new, a height nobody builds now, or
    another verdict."""
    then = planned.get("verdict")
    if same_setup(setup, now.setup) and then in (None, now.verdict):
        return None
    return ChangedSince(was=heights_words(rung, setup), verdict_then=then, verdict_now=now.verdict)


def _step_back(today: Today, rung: Variation, side: Side, setup: dict[str, SlotValue]) -> MatStepBack | Literal[False]:
    """The ready step back; ``False`` (cacheable) when nothing gentler is open today."""
    step = step_back_from(today.library, rung.id, setup, lambda target, used: today.screen_with(target, side, used))
    if step is None:
        return False
    target, screened, row = step.variation, step.screened, step.row
    return MatStepBack(
        variation=target.id,
        name=target.name,
        short=target.short,
        setup=dict(step.setup),
        setup_words=line_of(target, detail_at(today.situation, screened, row), step.setup),
        dose_s=target.hold.start_s,
        dose=dose_words(target.hold, target.hold.start_s),
        figure=figure(screened, today.situation.body, today.room, row, lane_view(target, side), words()),
        figure_words=describe(screened, row),
    )
