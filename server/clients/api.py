"""Clients and their records."""

from __future__ import annotations

import uuid

from ninja import Router, Status

from clients import queries, services
from clients.schemas import (
    ArchiveIn,
    ClearanceIn,
    ClientIn,
    ClientLine,
    ClientOut,
    ClientUpdate,
    DailyIn,
    EntryEnvelope,
    SearchIn,
    SeenIn,
    SignsIn,
    WordIn,
)
from common import clock
from common.permissions import Permission
from overview import queries as overview
from overview.practice_calendar import practice_calendar as calendar_of
from overview.schemas import CalendarOut, ClientHead, ComingOut, EntryOut, FormOut, LimitOut, PracticeCalendarOut
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["clients"])


@router.post("/clients/search", response=list[ClientLine], operation_id="searchClients")
@in_practice(Permission.CLIENTS_READ)
def search_clients(request: PracticeRequest, practice_id: PracticeId, payload: SearchIn) -> list[ClientLine]:
    """Clients by name or occupation; all for an empty text. By body, so that no name stands in an address."""
    return queries.client_lines(request.practice, payload.text.strip(), payload.archived)


@router.get("/records", response=list[FormOut], operation_id="recordForms")
@in_practice(Permission.CLIENTS_READ)
def record_forms(request: PracticeRequest, practice_id: PracticeId) -> list[FormOut]:
    """Every kind of record there is, and what is asked of it."""
    return overview.record_forms()


@router.get("/calendar", response=PracticeCalendarOut, operation_id="practiceCalendar")
@in_practice(Permission.CLIENTS_READ)
def practice_calendar(request: PracticeRequest, practice_id: PracticeId) -> PracticeCalendarOut:
    """Every change of limits of every client in the six weeks ahead, and whose word is waited for."""
    return calendar_of(request.practice)


@router.post("/clients", response={201: ClientOut}, operation_id="createClient")
@in_practice(Permission.CLIENTS_WRITE)
def create_client(request: PracticeRequest, practice_id: PracticeId, payload: ClientIn) -> Status[ClientOut]:
    today = clock.today(request.practice.time_zone)
    return Status(
        201, queries.client_out(services.create_client(request.practice, request.user, payload, today), today)
    )


@router.get("/clients/{client_id}", response=ClientHead, operation_id="clientHead")
@in_practice(Permission.CLIENTS_READ)
def client_head(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> ClientHead:
    return overview.client_head(queries.get_client(client_id))


@router.get("/clients/{client_id}/calendar", response=CalendarOut, operation_id="calendar")
@in_practice(Permission.CLIENTS_READ)
def calendar(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> CalendarOut:
    """Every change of limits in the six weeks ahead, and what it does to the ladders worked on."""
    return overview.calendar(queries.get_client(client_id))


@router.get("/clients/{client_id}/coming", response=ComingOut, operation_id="coming")
@in_practice(Permission.CLIENTS_READ)
def coming(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> ComingOut:
    """Which rungs the next change of limits lets in or puts out. Slow the first time."""
    return overview.coming(queries.get_client(client_id))


@router.put("/clients/{client_id}", response=ClientOut, operation_id="updateClient")
@in_practice(Permission.CLIENTS_WRITE)
def update_client(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: ClientUpdate
) -> ClientOut:
    today = clock.today(request.practice.time_zone)
    data = ClientIn.model_validate(payload.model_dump(exclude={"version"}, exclude_none=True))
    client = services.update_client(queries.get_client(client_id), request.user, payload.version, data, today)
    return queries.client_out(client, today)


@router.put("/clients/{client_id}/archived", response=ClientOut, operation_id="archiveClient")
@in_practice(Permission.CLIENTS_WRITE)
def archive_client(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: ArchiveIn
) -> ClientOut:
    """Put a client away, or bring them back; nothing of theirs is lost either way."""
    client = services.set_archived(queries.get_client(client_id), request.user, payload.archived)
    return queries.client_out(client, clock.today(request.practice.time_zone))


@router.get("/clients/{client_id}/entries", response=list[EntryOut], operation_id="listEntries")
@in_practice(Permission.CLIENTS_READ)
def list_entries(request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID) -> list[EntryOut]:
    return overview.entries_out(queries.get_client(client_id))


@router.post("/clients/{client_id}/entries/preview", response=list[LimitOut], operation_id="previewEntry")
@in_practice(Permission.CLIENTS_READ)
def preview_entry(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: EntryEnvelope
) -> list[LimitOut]:
    """The limits a record would turn into; nothing is stored."""
    return overview.preview(queries.get_client(client_id), payload.entry)


@router.post("/clients/{client_id}/entries", response={201: list[EntryOut]}, operation_id="recordEntry")
@in_practice(Permission.CLIENTS_WRITE)
def record_entry(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, payload: EntryEnvelope
) -> Status[list[EntryOut]]:
    client = queries.get_client(client_id)
    services.record_entry(client, request.user, payload.entry, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))


@router.put("/clients/{client_id}/entries/{entry_id}", response=list[EntryOut], operation_id="correctEntry")
@in_practice(Permission.CLIENTS_WRITE)
def correct_entry(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: EntryEnvelope
) -> list[EntryOut]:
    """Replace the version named in the path; 409 when it is no longer the standing one."""
    client = queries.get_client(client_id)
    entry = queries.get_entry(client, entry_id)
    services.correct_entry(entry, request.user, payload.entry, clock.today(request.practice.time_zone))
    return overview.entries_out(client)


@router.delete("/clients/{client_id}/entries/{entry_id}", response=list[EntryOut], operation_id="withdrawEntry")
@in_practice(Permission.CLIENTS_WRITE)
def withdraw_entry(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID
) -> list[EntryOut]:
    """Take a record back. It stays in the history."""
    client = queries.get_client(client_id)
    entry = queries.get_entry(client, entry_id)
    services.withdraw_entry(entry, request.user)
    return overview.entries_out(client)


@router.post("/clients/{client_id}/entries/{entry_id}/restore", response=list[EntryOut], operation_id="restoreEntry")
@in_practice(Permission.CLIENTS_WRITE)
def restore_entry(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID
) -> list[EntryOut]:
    """Undo a withdrawal: the version named in the path stands again."""
    client = queries.get_client(client_id)
    services.restore_entry(queries.get_entry(client, entry_id), request.user)
    return overview.entries_out(client)


@router.post(
    "/clients/{client_id}/entries/{entry_id}/clearances", response={201: list[EntryOut]}, operation_id="giveClearance"
)
@in_practice(Permission.CLIENTS_WRITE)
def give_clearance(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: ClearanceIn
) -> Status[list[EntryOut]]:
    client = queries.get_client(client_id)
    entry = queries.get_entry(client, entry_id)
    services.give_clearance(entry, request.user, payload, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))


@router.post(
    "/clients/{client_id}/entries/{entry_id}/daily", response={201: list[EntryOut]}, operation_id="answerDaily"
)
@in_practice(Permission.CLIENTS_WRITE)
def answer_daily(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: DailyIn
) -> Status[list[EntryOut]]:
    """How a sore joint is today."""
    client = queries.get_client(client_id)
    entry = queries.get_entry(client, entry_id)
    services.answer_daily(entry, request.user, payload, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))


ENTRY = "/clients/{client_id}/entries/{entry_id}"


@router.post(f"{ENTRY}/instructions", response={201: list[EntryOut]}, operation_id="giveInstruction")
@in_practice(Permission.CLIENTS_WRITE)
def give_instruction(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: WordIn
) -> Status[list[EntryOut]]:
    """Keep what a treating professional said: in free words, as figures in the place of the rules' own, or both."""
    client = queries.get_client(client_id)
    entry = queries.get_entry(client, entry_id)
    services.give_instruction(entry, request.user, payload, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))


@router.delete(f"{ENTRY}/instructions/{{instruction_id}}", response=list[EntryOut], operation_id="withdrawInstruction")
@in_practice(Permission.CLIENTS_WRITE)
def withdraw_instruction(
    request: PracticeRequest,
    practice_id: PracticeId,
    client_id: uuid.UUID,
    entry_id: uuid.UUID,
    instruction_id: uuid.UUID,
) -> list[EntryOut]:
    """Take a word back. It stays in the history."""
    client = queries.get_client(client_id)
    said = queries.get_instruction(queries.get_entry(client, entry_id), instruction_id)
    services.withdraw_instruction(said, request.user)
    return overview.entries_out(client)


@router.post(f"{ENTRY}/signs", response={201: list[EntryOut]}, operation_id="answerSigns")
@in_practice(Permission.CLIENTS_WRITE)
def answer_signs(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: SignsIn
) -> Status[list[EntryOut]]:
    """Keep which signs that belong to a doctor are there today. The version named in the path must stand."""
    client = queries.get_client(client_id)
    entry = queries.get_standing(client, entry_id)
    services.answer_signs(entry, request.user, payload.signs, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))


@router.post(f"{ENTRY}/seen", response={201: list[EntryOut]}, operation_id="recordSeen")
@in_practice(Permission.CLIENTS_WRITE)
def record_seen(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, entry_id: uuid.UUID, payload: SeenIn
) -> Status[list[EntryOut]]:
    """Keep that a doctor has seen what was recorded, and what was said."""
    client = queries.get_client(client_id)
    entry = queries.get_standing(client, entry_id)
    services.record_seen(entry, request.user, payload, clock.today(request.practice.time_zone))
    return Status(201, overview.entries_out(client))
