"""Changes in a visit: the plan, what happened, and the next morning."""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError, transaction
from django.http import Http404

from accounts.models import User
from asketa_core import SIDES, NoGrid, Side, SlotValue, Variation, no_stack_words
from audit.models import record
from clients.models import Client
from common.errors import Stale, bad_field
from engine.answers import Today, snapshot
from visits.models import LoggedItem, MorningAnswer, Visit
from visits.schemas import ItemIn, PlanIn


def todays_visit(today: Today, user: User) -> Visit:
    """Today's visit of a client, opened if there is none."""
    client = today.client
    visit, created = Visit.objects.get_or_create(
        client=client, date=today.date, defaults={"practice_id": client.practice_id, "created_by": user}
    )
    if created:
        record(visit, "visit.opened")
    return visit


def _check_slots(rung: Variation, setup: dict[str, SlotValue]) -> None:
    unknown = set(setup) - set(rung.setup_slots)
    if unknown:
        raise bad_field(f"setup.{min(unknown)}", f"This rung has no such slot. It has: {', '.join(rung.setup_slots)}.")


def _choices(setup: dict[str, SlotValue]) -> dict[str, SlotValue]:
    """What the grid does not vary: how the foot is held."""
    return {name: value for name, value in setup.items() if value.choice is not None}


def _stored(setup: dict[str, SlotValue]) -> dict[str, Any]:
    return {name: value.model_dump(exclude_none=True) for name, value in setup.items()}


@transaction.atomic
def take_to_the_mat(today: Today, user: User, data: PlanIn) -> Visit:
    """Put one side's set-up of a ladder into today's plan; both sides' where the shape is shared.

    A set-up that a limit stops, or that leaves a question open, is refused: it goes by recording the
    fact or the clearance that lifts it.
    """
    rung = today.library.variation(data.variation)
    if rung.id in today.library.retired:
        raise bad_field("variation", "This variation was put away. Bring it back in the Library, or take another.")
    screened = today.screen(rung, data.side)
    if isinstance(screened, NoGrid):
        raise bad_field("setup", no_stack_words(screened))
    _check_slots(rung, data.setup)
    row = screened.grid.nearest(data.setup)
    if not screened.allowed(row):
        raise bad_field(
            "setup",
            "A limit closes this set-up today. Choose one that is open, or record the fact or clearance that lifts it.",
        )
    visit = todays_visit(today, user)
    visit = Visit.objects.select_for_update().get(pk=visit.pk)
    planned = {
        "variation": rung.id,
        # What was judged is what is planned: the room's own stacks, not whatever was sent.
        "setup": _stored({**screened.grid.setup(row), **_choices(data.setup)}),
        "dose_s": data.dose_s,
        "accepted": [accepted.model_dump() for accepted in data.accepted],
    }
    visit.plan = {
        **visit.plan,
        rung.family: {
            **visit.plan.get(rung.family, {}),
            **{side.value: planned for side in (SIDES if rung.shared else (data.side,))},
        },
    }
    visit.version += 1
    visit.save(update_fields=["plan", "version"])
    record(visit, "visit.planned")
    return visit


@transaction.atomic
def log_item(today: Today, user: User, data: ItemIn) -> LoggedItem:
    """Store what happened. The same id again returns what is stored; a correction names what it replaces."""
    known = LoggedItem.objects.filter(pk=data.id).select_related("visit").first()
    if known is not None:
        if known.visit.client_id != today.client.pk:
            raise Http404
        return known
    rung = today.library.variation(data.variation)
    _check_slots(rung, data.setup_used)
    visit = todays_visit(today, user)
    replaces = None
    if data.replaces is not None:
        replaces = LoggedItem.objects.filter(pk=data.replaces, visit__client=today.client).first()
        if replaces is None:
            raise Http404
        visit = replaces.visit
    planned = visit.plan.get(rung.family, {}).get(data.side.value)
    fields: dict[str, Any] = data.model_dump(mode="json", exclude={"id", "replaces", "setup_used", "variation"})
    try:
        with transaction.atomic():
            item = LoggedItem.objects.create(
                id=data.id,
                practice_id=today.client.practice_id,
                created_by=user,
                visit=visit,
                replaces=replaces,
                variation=rung.id,
                setup_planned=planned["setup"] if planned else None,
                setup_used=_stored(data.setup_used),
                snapshot=snapshot(
                    today, data.variation, Side(data.side), data.setup_used, planned["accepted"] if planned else []
                ),
                **fields,
            )
    except IntegrityError as error:
        if replaces is None:
            raise
        raise Stale({"replaces": str(data.replaces)}) from error
    record(item, "item.logged" if replaces is None else "item.corrected")
    return item


@transaction.atomic
def answer_morning(client: Client, user: User, item_id: object, settled: bool) -> MorningAnswer:
    item = LoggedItem.objects.filter(pk=item_id, visit__client=client).first()
    if item is None:
        raise Http404
    answer = MorningAnswer.objects.create(practice_id=client.practice_id, created_by=user, item=item, settled=settled)
    record(answer, "morning.answered")
    return answer
