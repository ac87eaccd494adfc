"""Plans of a day, and templates."""

from __future__ import annotations

import datetime as dt
import uuid

from ninja import Router, Status

from asketa_core import Phrase
from clients.queries import get_client
from common import clock
from common.errors import bad_field
from common.permissions import Permission
from common.speech import own
from engine.answers import Today
from engine.shelf import practice_library
from plans import queries, services
from plans.schemas import AddIn, AgainIn, BreathIn, OrderOut, PlanOut, PlanSave, TemplateIn, TemplateOut
from practices.tenancy import PracticeId, PracticeRequest, in_practice
from visits.models import Visit

router = Router(tags=["plans"])

MOST_DAYS_AHEAD = 60
"""A body and its limits are not known further ahead than this."""


def _day(request: PracticeRequest, client_id: uuid.UUID, date: dt.date | None) -> Today:
    """The client on the day asked about, today when none is named."""
    today = clock.today(request.practice.time_zone)
    client = get_client(client_id)
    if date is not None and date < today:
        raise bad_field("date", own("field", "in_the_past"))
    if date is not None and (date - today).days > MOST_DAYS_AHEAD:
        raise bad_field("date", own("field", "far_off", days=MOST_DAYS_AHEAD))
    return Today.of(client, date)


@router.get("/clients/{client_id}/plan", response=PlanOut, operation_id="plan")
@in_practice(Permission.CLIENTS_READ)
def plan(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, date: dt.date | None = None
) -> PlanOut:
    """What is planned for a day: its poses, minutes and order, what to settle and what is left out."""
    return queries.plan(_day(request, client_id, date))


@router.put("/clients/{client_id}/plan", response=PlanOut, operation_id="savePlan")
@in_practice(Permission.VISITS_WRITE)
def save_plan(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    payload: PlanSave,
    date: dt.date | None = None,
) -> PlanOut:
    """Order, doses and what is taken out; 409 when the plan was changed in between."""
    day = _day(request, client_id, date)
    services.save(day, request.user, payload)
    return queries.plan(day)


@router.post("/clients/{client_id}/plan/again", response=PlanOut, operation_id="planAgain")
@in_practice(Permission.VISITS_WRITE)
def plan_again(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    payload: AgainIn,
    date: dt.date | None = None,
) -> PlanOut:
    """The same as last time, or as a template has it, with each side's next step."""
    day = _day(request, client_id, date)
    services.again(day, request.user, payload)
    return queries.plan(day)


@router.post("/clients/{client_id}/plan/poses", response=PlanOut, operation_id="addToPlan")
@in_practice(Permission.VISITS_WRITE)
def add_to_plan(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    payload: AddIn,
    date: dt.date | None = None,
) -> PlanOut:
    """Put a ladder in with each side's next step; refused when none of it is open."""
    day = _day(request, client_id, date)
    services.add(day, request.user, payload)
    return queries.plan(day)


@router.get("/clients/{client_id}/plan/order", response=OrderOut, operation_id="suggestOrder")
@in_practice(Permission.CLIENTS_READ)
def suggest_order(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, date: dt.date | None = None
) -> OrderOut:
    """An order for what is planned, with what each place is for. Nothing is stored."""
    return queries.order(_day(request, client_id, date))


@router.put("/clients/{client_id}/breath", response=PlanOut, operation_id="setBreath")
@in_practice(Permission.VISITS_WRITE)
def set_breath(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    payload: BreathIn,
    date: dt.date | None = None,
) -> PlanOut:
    """How long one calm breath of this client takes; minutes are counted with it."""
    services.set_breath(get_client(client_id), request.user, payload.seconds)
    return queries.plan(_day(request, client_id, date))


def _names() -> dict[str, Phrase]:
    return {name: family.name for name, family in practice_library().library.families.items()}


@router.get("/templates", response=list[TemplateOut], operation_id="listTemplates")
@in_practice(Permission.CLIENTS_READ)
def list_templates(request: PracticeRequest, practice_id: PracticeId) -> list[TemplateOut]:
    return queries.templates(_names())


@router.post("/templates", response={201: TemplateOut}, operation_id="keepTemplate")
@in_practice(Permission.VISITS_WRITE)
def keep_template(
    request: PracticeRequest, practice_id: PracticeId, payload: TemplateIn, date: dt.date | None = None
) -> Status[TemplateOut]:
    """Keep a client's plan of a day as a template."""
    client = get_client(payload.client_id)
    day = date or clock.today(request.practice.time_zone)
    visit = Visit.objects.filter(client=client, date=day).first()
    if visit is None:
        raise bad_field("name", own("field", "nothing_planned"))
    template = services.keep_template(request.practice, request.user, payload.name, visit)
    return Status(201, queries.template_out(template, _names()))


@router.delete("/templates/{template_id}", response=list[TemplateOut], operation_id="putTemplateAway")
@in_practice(Permission.VISITS_WRITE)
def put_template_away(request: PracticeRequest, practice_id: PracticeId, template_id: uuid.UUID) -> list[TemplateOut]:
    services.put_template_away(template_id, request.user)
    return queries.templates(_names())
