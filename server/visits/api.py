"""Choosing, setting up, and what happens on the mat."""

from __future__ import annotations

import uuid
from typing import Annotated

from django.http import Http404, HttpResponse
from ninja import Query, Router, Status
from pydantic import Field

from asketa_core import InputError, Side, Variation
from clients.queries import get_client, get_entry
from common.permissions import Permission
from engine.adapter import client_file
from engine.answers import Today
from engine.shelf import practice_library
from practices.tenancy import PracticeId, PracticeRequest, in_practice
from visits import cautions, choosing, responses, services, setting_up, trials
from visits import differences as rejudged
from visits import mat as beside_the_mat
from visits import notes as visit_notes
from visits.schemas import (
    CautionIn,
    CorrectionIn,
    DecisionIn,
    DetailOut,
    DifferencesOut,
    DrawingsOut,
    FamilyLine,
    IncidentIn,
    ItemIn,
    ItemOut,
    LadderOut,
    LaddersQuery,
    MatOut,
    MomentOut,
    MorningIn,
    PlanIn,
    ResponseFamily,
    SetupOut,
    SetupQuery,
    TrialIn,
    VisitNoteIn,
    VisitNoteOut,
    WayQuery,
    WaysOut,
    WhyNotOut,
)

router = Router(tags=["visits"])

LATEST = 60
"""Holds of each side that are told of at first."""


def _rung(today: Today, variation_id: str) -> Variation:
    try:
        return today.library.variation(variation_id)
    except InputError as error:
        raise Http404 from error


@router.get("/clients/{client_id}/families", response=list[FamilyLine], operation_id="listFamilies")
@in_practice(Permission.CLIENTS_READ)
def list_families(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> list[FamilyLine]:
    """Every family there is, by name."""
    return choosing.family_lines(practice_library().library, client_file(get_client(client_id)))


@router.get("/clients/{client_id}/ladders", response=list[LadderOut], operation_id="ladders")
@in_practice(Permission.CLIENTS_READ)
def ladders(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, query: Query[LaddersQuery]
) -> list[LadderOut]:
    """A handful of families as two lanes each, judged today; one that does not exist is left out."""
    today = Today.of(get_client(client_id))
    known = today.library.families
    return [choosing.ladder(today, known[each]) for each in dict.fromkeys(query.family) if each in known]


@router.get("/clients/{client_id}/why-not/{variation_id}/{side}", response=WhyNotOut, operation_id="whyNot")
@in_practice(Permission.CLIENTS_READ)
def why_not(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, variation_id: str, side: Side
) -> WhyNotOut:
    """Why a rung is not open to a side today, and what would open it."""
    today = Today.of(get_client(client_id))
    return choosing.why_not_out(today, _rung(today, variation_id), side)


@router.get("/clients/{client_id}/ladders/{family_id}", response=LadderOut, operation_id="ladder")
@in_practice(Permission.CLIENTS_READ)
def ladder(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, family_id: str) -> LadderOut:
    """One family as two lanes, judged today."""
    today = Today.of(get_client(client_id))
    family = today.library.families.get(family_id)
    if family is None:
        raise Http404
    return choosing.ladder(today, family)


@router.get("/clients/{client_id}/ladders/{family_id}/drawings", response=DrawingsOut, operation_id="ladderDrawings")
@in_practice(Permission.CLIENTS_READ)
def ladder_drawings(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, family_id: str
) -> DrawingsOut:
    """The figures of a ladder, asked for when it comes near the screen."""
    today = Today.of(get_client(client_id))
    family = today.library.families.get(family_id)
    if family is None:
        raise Http404
    return choosing.drawings(today, family)


@router.get("/clients/{client_id}/setups/{variation_id}/{side}", response=SetupOut, operation_id="setup")
@in_practice(Permission.CLIENTS_READ)
def setup(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, variation_id: str, side: Side
) -> SetupOut:
    """The whole grid of one rung and side in one answer, so that steppers are instant."""
    today = Today.of(get_client(client_id))
    return setting_up.setup_answer(today, _rung(today, variation_id), side)


@router.post("/clients/{client_id}/setups/{variation_id}/{side}", response=DetailOut, operation_id="setupDetail")
@in_practice(Permission.CLIENTS_READ)
def setup_detail(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    variation_id: str,
    side: Side,
    payload: SetupQuery,
) -> DetailOut:
    """One set-up in full: figure, rulers and sentences."""
    today = Today.of(get_client(client_id))
    detail = setting_up.detail_for(today, _rung(today, variation_id), side, payload.setup, payload.view)
    if detail is None:
        raise Http404
    return detail


@router.post("/clients/{client_id}/setups/{variation_id}/{side}/way", response=list[MomentOut], operation_id="setupWay")
@in_practice(Permission.CLIENTS_READ)
def setup_way(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    variation_id: str,
    side: Side,
    payload: WayQuery,
) -> list[MomentOut]:
    """The way in and out of one set-up, station by station; empty where there is none."""
    today = Today.of(get_client(client_id))
    return setting_up.way_for(today, _rung(today, variation_id), side, payload.setup)


@router.post("/clients/{client_id}/setups/{variation_id}/{side}/ways", response=WaysOut, operation_id="setupWays")
@in_practice(Permission.CLIENTS_READ)
def setup_ways(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    variation_id: str,
    side: Side,
    payload: WayQuery,
) -> WaysOut:
    """One set-up and every other way of it to be tried against it."""
    today = Today.of(get_client(client_id))
    found = trials.ways_of(today, _rung(today, variation_id), side, payload.setup)
    if found is None:
        raise Http404
    return found


@router.post("/clients/{client_id}/trials", response={201: MatOut}, operation_id="keepTrial")
@in_practice(Permission.VISITS_WRITE)
def keep_trial(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: TrialIn
) -> Status[MatOut]:
    """Keep the calmer of two ways for one side; today's plan goes on with it."""
    client = get_client(client_id)
    today = Today.of(client)
    _rung(today, payload.variation)
    trials.keep_trial(today, request.user, payload)
    return Status(201, beside_the_mat.mat(Today.of(client)))


@router.post("/clients/{client_id}/mat", response=MatOut, operation_id="takeToTheMat")
@in_practice(Permission.VISITS_WRITE)
def take_to_the_mat(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: PlanIn) -> MatOut:
    """Put a set-up into today's plan. Refused when a limit closes it."""
    today = Today.of(get_client(client_id))
    _rung(today, payload.variation)
    services.take_to_the_mat(today, request.user, payload)
    return beside_the_mat.mat(today)


@router.get("/clients/{client_id}/mat", response=MatOut, operation_id="mat")
@in_practice(Permission.CLIENTS_READ)
def mat(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> MatOut:
    return beside_the_mat.mat(Today.of(get_client(client_id)))


@router.get("/clients/{client_id}/items", response=list[ItemOut], operation_id="listItems")
@in_practice(Permission.CLIENTS_READ)
def list_items(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    before: uuid.UUID | None = None,
    limit: Annotated[int, Field(ge=1, le=200)] = 100,
) -> list[ItemOut]:
    """The latest holds, oldest first; page back with ``before``, the first of those shown."""
    return beside_the_mat.items_out(Today.of(get_client(client_id)), before, limit)


@router.get("/clients/{client_id}/responses", response=list[ResponseFamily], operation_id="responses")
@in_practice(Permission.CLIENTS_READ)
def responses_over_time(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    most: Annotated[int, Field(ge=1, le=1000)] = LATEST,
) -> list[ResponseFamily]:
    """Discomfort, support and rungs over time, per family and side: the ``most`` latest holds of each."""
    return responses.responses(Today.of(get_client(client_id)), most)


@router.get("/clients/{client_id}/responses.csv", operation_id="responsesCsv", include_in_schema=False)
@in_practice(Permission.CLIENTS_READ)
def responses_as_csv(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> HttpResponse:
    """The responses as comma-separated values. The file's name says nothing about whose they are."""
    answer = HttpResponse(
        responses.responses_csv(Today.of(get_client(client_id))), content_type="text/csv; charset=utf-8"
    )
    answer["Content-Disposition"] = 'attachment; filename="responses.csv"'
    return answer


@router.post("/clients/{client_id}/items", response={201: MatOut}, operation_id="logItem")
@in_practice(Permission.VISITS_WRITE)
def log_item(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: ItemIn
) -> Status[MatOut]:
    """Store what happened in one hold. The same id with the same content stores it once; with other content: 409."""
    client = get_client(client_id)
    today = Today.of(client)
    _rung(today, payload.variation)
    services.log_item(today, request.user, payload)
    return Status(201, beside_the_mat.mat(Today.of(client)))


@router.put("/clients/{client_id}/items/{item_id}", response=MatOut, operation_id="correctItem")
@in_practice(Permission.VISITS_WRITE)
def correct_item(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, item_id: uuid.UUID, payload: CorrectionIn
) -> MatOut:
    """Say something else of a hold: a new version of it; 409 when it was corrected in the meantime."""
    client = get_client(client_id)
    services.correct_item(Today.of(client), request.user, item_id, payload)
    return beside_the_mat.mat(Today.of(client))


@router.post("/clients/{client_id}/items/{item_id}/morning", response=MatOut, operation_id="answerMorning")
@in_practice(Permission.VISITS_WRITE)
def answer_morning(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, item_id: uuid.UUID, payload: MorningIn
) -> MatOut:
    """Whether discomfort had settled by the next morning."""
    client = get_client(client_id)
    services.answer_morning(client, request.user, item_id, payload.settled)
    return beside_the_mat.mat(Today.of(client))


@router.post("/clients/{client_id}/incidents", response={201: MatOut}, operation_id="noteIncident")
@in_practice(Permission.VISITS_WRITE)
def note_incident(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: IncidentIn
) -> Status[MatOut]:
    """Keep what went wrong today, in free words."""
    today = Today.of(get_client(client_id))
    services.note_incident(today, request.user, payload)
    return Status(201, beside_the_mat.mat(today))


@router.get("/clients/{client_id}/visit-notes", response=list[VisitNoteOut], operation_id="visitNotes")
@in_practice(Permission.CLIENTS_READ)
def list_visit_notes(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> list[VisitNoteOut]:
    """What was written of each visit, the latest first."""
    return visit_notes.notes_of(get_client(client_id))


@router.post("/clients/{client_id}/visit-notes", response={201: list[VisitNoteOut]}, operation_id="writeVisitNote")
@in_practice(Permission.VISITS_WRITE)
def write_visit_note(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: VisitNoteIn
) -> Status[list[VisitNoteOut]]:
    """Write of today's visit, or write it anew; 409 with what stands where somebody wrote in between."""
    return Status(201, visit_notes.write_note(Today.of(get_client(client_id)), request.user, payload))


@router.post("/clients/{client_id}/cautions", response={204: None}, operation_id="takeOnCaution")
@in_practice(Permission.VISITS_WRITE)
def take_on_caution(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: CautionIn
) -> Status[None]:
    """Take a caution of a ladder on, with a reason that is shown next time; or no longer."""
    cautions.take_on(get_client(client_id), practice_library().library, request.user, payload)
    return Status(204, None)


@router.get("/clients/{client_id}/entries/{entry_id}/differences", response=DifferencesOut, operation_id="differences")
@in_practice(Permission.CLIENTS_READ)
def differences(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID
) -> DifferencesOut:
    """What a corrected record would have changed on the mat since it was first recorded. Slow the first time."""
    client = get_client(client_id)
    return rejudged.differences(client, get_entry(client, entry_id))


@router.post("/clients/{client_id}/decisions", response={201: list[ResponseFamily]}, operation_id="decide")
@in_practice(Permission.VISITS_WRITE)
def decide(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: DecisionIn
) -> Status[list[ResponseFamily]]:
    """Decide otherwise for next time; it counts until that side is worked on again."""
    client = get_client(client_id)
    services.decide(client, practice_library().library, request.user, payload)
    return Status(201, responses.responses(Today.of(client), LATEST))
