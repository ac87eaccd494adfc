"""Changes in a visit: the plan, what happened, and the next morning."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any

from django.db import IntegrityError, transaction
from django.http import Http404

from accounts.models import User
from asketa_core import SIDES, Library, NoGrid, Screened, Side, SlotValue, implausible_setup, no_stack_words
from audit.models import record
from clients.models import Client
from common.errors import SentBefore, Stale, bad_field, refuse_implausible
from common.speech import own
from engine.answers import Today, snapshot
from visits.models import Incident, LoggedItem, MorningAnswer, OwnDecision, Trial, Visit
from visits.schemas import CorrectionIn, DecisionIn, IncidentIn, ItemIn, PlanIn, SaidIn


def visit_of(today: Today, user: User) -> Visit:
    """The visit of a client on the day asked about, opened if there is none."""
    client = today.client
    visit, created = Visit.objects.get_or_create(
        client=client, date=today.date, defaults={"practice_id": client.practice_id, "created_by": user}
    )
    if created:
        record(visit, "visit.opened", user)
    return visit


def built_as(screened: Screened, setup: Mapping[str, SlotValue]) -> dict[str, SlotValue]:
    """What the room builds of a set-up today, with what the grid does not vary: how the foot is held."""
    chosen = {name: value for name, value in setup.items() if value.choice is not None}
    return {**screened.grid.setup(screened.grid.nearest(setup)), **chosen}


def stored_setup(setup: dict[str, SlotValue]) -> dict[str, Any]:
    return {name: stored_value(value) for name, value in setup.items()}


def stored_value(value: SlotValue) -> dict[str, Any]:
    return value.model_dump(exclude_none=True)


@transaction.atomic
def take_to_the_mat(today: Today, user: User, data: PlanIn) -> Visit:
    """Put one side's set-up of a ladder into the day's plan; both sides' where the shape is shared. A ladder keeps its place
    in the plan when its set-up changes; a new one goes to the end.

    A set-up that a limit stops, or that leaves a question open, is refused: it goes by recording the
    fact or the clearance that lifts it.
    """
    rung = today.library.variation(data.variation)
    if rung.id in today.library.retired:
        raise bad_field("variation", own("field", "put_away"))
    refuse_implausible(implausible_setup(rung, data.setup))
    screened = today.screen(rung, data.side)
    if isinstance(screened, NoGrid):
        raise bad_field("setup", no_stack_words(screened))
    if not screened.allowed(screened.grid.nearest(data.setup)):
        raise bad_field("setup", own("field", "closed"))
    visit = locked(visit_of(today, user))
    ladder = planned_ladder(visit, rung.family)
    if ladder is None:
        ladder = {"family": rung.family}
        visit.plan.append(ladder)
    before = ladder.get(data.side.value, {})
    planned = planned_side(screened, data.setup, data.dose_s, before.get("rounds", 1))
    if data.note.strip():
        planned["note"] = str(uuid.uuid4())
        today.client.person.keep_note(planned["note"], data.note.strip())
    ladder.update({side.value: planned for side in (SIDES if rung.shared else (data.side,))})
    save_plan(visit, user)
    return visit


def locked(visit: Visit) -> Visit:
    """The visit as it stands, held until the transaction ends."""
    found: Visit = Visit.objects.select_for_update().get(pk=visit.pk)
    return found


def save_plan(visit: Visit, user: User) -> None:
    """Store a changed plan as the visit's next version."""
    visit.version += 1
    visit.save(update_fields=["plan", "minutes", "version"])
    record(visit, "visit.planned", user)


def planned_side(screened: Screened, setup: Mapping[str, SlotValue], dose_s: int, rounds: int = 1) -> dict[str, Any]:
    """One side of a plan. What was judged is what is planned: the room's own stacks, not whatever was sent."""
    return {
        "variation": screened.variation.id,
        "setup": stored_setup(built_as(screened, setup)),
        "dose_s": dose_s,
        "rounds": rounds,
        "verdict": screened.verdict_at(screened.grid.nearest(setup)).value,
    }


def planned_ladder(visit: Visit, family: str) -> dict[str, Any] | None:
    """What is planned of one ladder, by side."""
    return next((each for each in visit.plan if each["family"] == family), None)


def _said(data: SaidIn) -> dict[str, Any]:
    """What was said of a hold, as it is stored."""
    return data.model_dump(mode="json", include=SaidIn.model_fields.keys() - {"id"})


def _known(today: Today, data: SaidIn, content: dict[str, Any]) -> LoggedItem | None:
    """The hold stored under this id, if there is one. Raises ``SentBefore`` when it says something else: what was changed
    after an answer got lost must not get lost with it."""
    item = LoggedItem.objects.filter(pk=data.id).select_related("visit").first()
    if item is None:
        return None
    if item.visit.client_id != today.client.pk:
        raise Http404
    item.note = today.client.person.note_of(item.pk)
    stored = {name: getattr(item, name) for name in content}
    if stored != content:
        said = {name: getattr(item, name) for name in SaidIn.model_fields if name != "id"}
        raise SentBefore({"id": str(item.pk), **said})
    return item


def _store(today: Today, user: User, data: SaidIn, content: dict[str, Any], **more: Any) -> tuple[LoggedItem, bool]:
    """The hold as a new row, and whether it is new: the same id sent twice at once is stored once."""
    try:
        with transaction.atomic():
            stored = {name: value for name, value in content.items() if name != "note"}
            row = LoggedItem(id=data.id, practice_id=today.client.practice_id, created_by=user, **stored, **more)
            row.save(force_insert=True)
            row.note = content["note"]
            if row.note:
                today.client.person.keep_note(row.pk, row.note)
            return row, True
    except IntegrityError:
        known = _known(today, data, content)
        if known is not None:
            return known, False
        if LoggedItem.objects.filter(replaces=more["replaces"]).exists() and more["replaces"] is not None:
            raise Stale({"replaces": str(more["replaces"].pk)}) from None
        # Somebody else's row has this id.
        raise Http404 from None


@transaction.atomic
def log_item(today: Today, user: User, data: ItemIn) -> LoggedItem:
    """Store what happened in one hold. The same id with the same content returns what is stored; every round is a hold of
    its own."""
    rung = today.library.variation(data.variation)
    refuse_implausible(implausible_setup(rung, data.setup_used, "setup_used"))
    content = {
        **_said(data),
        "variation": rung.id,
        "side": data.side.value,
        "setup_used": stored_setup(data.setup_used),
        "dose_s": data.dose_s,
    }
    if (known := _known(today, data, content)) is not None:
        return known
    visit = visit_of(today, user)
    item = _log_one(today, user, data, content, visit)
    if rung.shared:
        # Both legs made one hold: it is said once and stands on both sides.
        other = Side(data.side).other
        _log_one(today, user, _twin_of(data), content | {"side": other.value}, visit)
    return item


def _log_one(today: Today, user: User, data: SaidIn, content: dict[str, Any], visit: Visit) -> LoggedItem:
    rung, side = today.library.variation(content["variation"]), Side(content["side"])
    planned = (planned_ladder(visit, rung.family) or {}).get(side.value)
    used = {name: SlotValue.model_validate(value) for name, value in content["setup_used"].items()}
    item, new = _store(
        today, user, data, content,
        visit=visit,
        replaces=None,
        setup_planned=planned["setup"] if planned else None,
        snapshot=snapshot(today, rung.id, side, used),
    )  # fmt: skip
    if new:
        record(item, "item.logged", user)
    return item


def twin_id(item_id: uuid.UUID) -> uuid.UUID:
    """The id under which a hold of a shape both legs share stands on its other side."""
    return uuid.uuid5(item_id, "other side")


def _twin_of(data: SaidIn) -> SaidIn:
    return data.model_copy(update={"id": twin_id(data.id)})


@transaction.atomic
def correct_item(today: Today, user: User, item_id: uuid.UUID, data: CorrectionIn) -> LoggedItem:
    """Say something else of a hold. Its rung, set-up, dose, day and what was judged then stay its own.

    Raises ``Stale`` when the hold was corrected in the meantime.
    """
    before = LoggedItem.objects.filter(pk=item_id, visit__client=today.client).select_related("visit").first()
    if before is None:
        raise Http404
    item = _correct_one(today, user, before, data)
    twin = LoggedItem.objects.filter(pk=twin_id(before.pk), visit=before.visit).select_related("visit").first()
    if twin is not None:
        _correct_one(today, user, twin, _twin_of(data))
    return item


def _correct_one(today: Today, user: User, before: LoggedItem, data: SaidIn) -> LoggedItem:
    kept = ("variation", "side", "setup_used", "dose_s")
    content = {**_said(data), **{name: getattr(before, name) for name in kept}}
    if (known := _known(today, data, content)) is not None:
        return known
    item, new = _store(
        today, user, data, content,
        visit=before.visit, replaces=before, logged_at=before.logged_at,
        setup_planned=before.setup_planned, snapshot=before.snapshot,
    )  # fmt: skip
    if new:
        record(item, "item.corrected", user)
    return item


@transaction.atomic
def answer_morning(client: Client, user: User, item_id: uuid.UUID, settled: bool | None) -> MorningAnswer:
    """Keep what the client said of the next morning; ``None`` when they were asked and did not answer yet."""
    item = LoggedItem.objects.filter(pk=item_id, visit__client=client).first()
    if item is None:
        raise Http404
    twin = LoggedItem.objects.filter(pk=twin_id(item.pk), visit=item.visit).first()
    answers = [
        MorningAnswer.objects.create(practice_id=client.practice_id, created_by=user, item=each, settled=settled)
        for each in (item, twin)
        if each is not None
    ]
    for answer in answers:
        record(answer, "morning.answered", user)
    return answers[0]


@transaction.atomic
def note_incident(today: Today, user: User, data: IncidentIn) -> None:
    """Keep what went wrong today. The same id is stored once."""
    if sent_before(Incident, data.id, today.client):
        return
    visit = visit_of(today, user)
    incident = Incident(id=data.id, practice_id=visit.practice_id, created_by=user, visit=visit)
    if stored_once(incident, today.client):
        today.client.person.keep_note(incident.pk, data.text)
        record(incident, "incident.noted", user)


def sent_before(model: type[Incident | Trial], row_id: uuid.UUID, client: Client) -> bool:
    """Whether a device sent this row of a visit before; 404 when somebody else's has its id."""
    row: Incident | Trial | None = model.objects.filter(pk=row_id).select_related("visit").first()
    if row is not None and row.visit.client_id != client.pk:
        raise Http404
    return row is not None


def stored_once(row: Incident | Trial, client: Client) -> bool:
    """Store a row under the id its device gave it. False where the same was sent twice at once and the other came first;
    404 when somebody else's row has the id."""
    try:
        with transaction.atomic():
            row.save(force_insert=True)
    except IntegrityError:
        if sent_before(type(row), row.pk, client):
            return False
        # A row one is not shown.
        raise Http404 from None
    return True


LEAST_REASON = 3


@transaction.atomic
def decide(client: Client, library: Library, user: User, data: DecisionIn) -> None:
    """Keep what was decided for next time, with its reason; of a shape both legs share for both."""
    family = library.families.get(data.family)
    if family is None:
        raise bad_field("family", own("field", "no_family"))
    reason = data.reason.strip()
    if data.action != "as_computed" and len(reason) < LEAST_REASON:
        raise bad_field("reason", own("field", "say_why"))
    for side in SIDES if family.shared else (Side(data.side),):
        row: OwnDecision = OwnDecision.objects.create(
            practice_id=client.practice_id, created_by=user, client=client,
            family=family.family, side=side.value, action=data.action,
        )  # fmt: skip
        if reason:
            client.person.keep_note(row.pk, reason)
        record(row, "decision.made", user)
