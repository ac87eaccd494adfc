"""The Library: families and rungs, and what a practice makes its own."""

from __future__ import annotations

import json
import uuid
from typing import Any

from django.http import HttpResponse
from ninja import Body, Router, Status

from asketa_core import Side
from clients.queries import get_client
from common.permissions import Permission
from library import queries, services
from library.queries import Sitter
from library.schemas import (
    ChangeIn,
    CloserOut,
    CodeWords,
    FamilyCards,
    RetireIn,
    SavedOut,
    ShelfOut,
    VariationOut,
    VersionOut,
    WordsOut,
)
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["library"])


@router.get("/library", response=ShelfOut, operation_id="library")
@in_practice(Permission.LIBRARY_READ)
def library(request: PracticeRequest, practice_id: PracticeId) -> ShelfOut:
    """Every family with its rungs, without figures."""
    return queries.shelf_out()


@router.get("/library/purposes", response=list[CodeWords], operation_id="libraryPurposes")
@in_practice(Permission.LIBRARY_READ)
def library_purposes(request: PracticeRequest, practice_id: PracticeId) -> list[CodeWords]:
    """What ladders are for, in the order practitioners reach for it."""
    return queries.code_words("purposes")


@router.get("/library/words", response=WordsOut, operation_id="libraryWords")
@in_practice(Permission.LIBRARY_READ)
def library_words(request: PracticeRequest, practice_id: PracticeId) -> WordsOut:
    """The cues and signs a variation may name."""
    return queries.words_out()


@router.get("/library/families/{family_id}", response=FamilyCards, operation_id="libraryFamily")
@in_practice(Permission.LIBRARY_READ)
def library_family(
    request: PracticeRequest, practice_id: PracticeId, family_id: str, side: Side = Side.LEFT
) -> FamilyCards:
    """A family's rungs drawn for a typical body."""
    return queries.family_cards(Sitter.of(None), family_id, side)


@router.get(
    "/clients/{client_id}/library/families/{family_id}", response=FamilyCards, operation_id="libraryFamilyForClient"
)
@in_practice(Permission.CLIENTS_READ)
def library_family_for_client(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, family_id: str, side: Side = Side.LEFT
) -> FamilyCards:
    """A family's rungs drawn for a client in this room, with today's verdicts."""
    return queries.family_cards(Sitter.of(get_client(client_id)), family_id, side)


@router.get("/library/variations/{variation_id}", response=VariationOut, operation_id="libraryVariation")
@in_practice(Permission.LIBRARY_READ)
def library_variation(
    request: PracticeRequest, practice_id: PracticeId, variation_id: str, side: Side = Side.LEFT
) -> VariationOut:
    """One variation in full, drawn for a typical body."""
    return queries.variation_out(Sitter.of(None), variation_id, side)


@router.get(
    "/clients/{client_id}/library/variations/{variation_id}",
    response=VariationOut,
    operation_id="libraryVariationForClient",
)
@in_practice(Permission.CLIENTS_READ)
def library_variation_for_client(
    request: PracticeRequest, practice_id: PracticeId, client_id: uuid.UUID, variation_id: str, side: Side = Side.LEFT
) -> VariationOut:
    """One variation in full, drawn for a client in this room."""
    return queries.variation_out(Sitter.of(get_client(client_id)), variation_id, side)


@router.get("/library/variations/{variation_id}/closers", response=list[CloserOut], operation_id="usualClosers")
@in_practice(Permission.LIBRARY_READ)
def usual_closers(request: PracticeRequest, practice_id: PracticeId, variation_id: str) -> list[CloserOut]:
    """Records often met, tried on a variation."""
    return queries.closers(variation_id)


@router.get("/library/variations/{variation_id}/file", operation_id="exportVariation", include_in_schema=False)
@in_practice(Permission.LIBRARY_READ)
def export_variation(request: PracticeRequest, practice_id: PracticeId, variation_id: str) -> HttpResponse:
    """The variation as a file."""
    text = json.dumps(queries.variation_file(variation_id), ensure_ascii=False, indent=2)
    answer = HttpResponse(text, content_type="application/json; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{variation_id}.asketa.json"'
    return answer


@router.get("/library/variations/{variation_id}/versions", response=list[VersionOut], operation_id="variationVersions")
@in_practice(Permission.LIBRARY_READ)
def variation_versions(request: PracticeRequest, practice_id: PracticeId, variation_id: str) -> list[VersionOut]:
    """Every version of one of the practice's own variations."""
    return queries.versions(request.practice, variation_id)


@router.post("/library/variations", response={201: SavedOut}, operation_id="addVariation")
@in_practice(Permission.LIBRARY_WRITE)
def add_variation(request: PracticeRequest, practice_id: PracticeId, payload: Body[dict[str, Any]]) -> Status[SavedOut]:
    """A new variation of the practice's own from a file: an adjusted copy, or one brought in."""
    row = services.add(request.practice, request.user, payload)
    return Status(201, SavedOut(id=row.variation_id, number=row.number))


@router.put("/library/variations/{variation_id}", response=SavedOut, operation_id="changeVariation")
@in_practice(Permission.LIBRARY_WRITE)
def change_variation(
    request: PracticeRequest, practice_id: PracticeId, variation_id: str, payload: ChangeIn
) -> SavedOut:
    """A new version; 409 when the version it was made on no longer stands."""
    row = services.change(request.user, variation_id, payload.number, payload.file)
    return SavedOut(id=row.variation_id, number=row.number)


@router.post("/library/variations/{variation_id}/retire", response=SavedOut, operation_id="retireVariation")
@in_practice(Permission.LIBRARY_WRITE)
def retire_variation(
    request: PracticeRequest, practice_id: PracticeId, variation_id: str, payload: RetireIn
) -> SavedOut:
    """Put a variation of the practice's own away; saving any version brings it back."""
    row = services.retire(request.user, variation_id, payload.number)
    return SavedOut(id=row.variation_id, number=row.number)
