"""Errors of the application, and the one place where they become answers.

Submitted values never come back in an error: they may be health data.
"""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, ValidationError

from asketa_core import InputError


class FieldProblem(Schema):
    """One field, what is wrong with it and what to give instead."""

    field: str
    message: str


class Problem(Schema):
    """Every error answer has this shape."""

    message: str
    fields: list[FieldProblem] = []
    current: dict[str, Any] | None = None


class BadInput(Exception):
    """Field problems found by a service; all of them, not the first."""

    def __init__(self, problems: list[FieldProblem]) -> None:
        super().__init__("bad input")
        self.problems = problems


def bad_field(field: str, message: str) -> BadInput:
    return BadInput([FieldProblem(field=field, message=message)])


class Stale(Exception):
    """Somebody saved in between. ``current`` is what stands now, so that both texts can be kept."""

    def __init__(self, current: dict[str, Any]) -> None:
        super().__init__("stale edit")
        self.current = current


class NotAllowed(Exception):
    """The role of this member does not include what was asked."""


CHECK_FIELDS = "Some fields need another look. What you typed is still there."


def _readable(error: dict[str, Any]) -> FieldProblem:
    """A validation error as a field and a sentence, without the value."""
    location = [str(part) for part in error["loc"] if part not in ("body", "payload", "query", "path")]
    kind, context = error["type"], error.get("ctx", {})
    sentences = {
        "missing": "This is needed.",
        "string_too_short": "This is needed.",
        "literal_error": f"Choose one of: {context.get('expected', '')}.",
        "enum": f"Choose one of: {context.get('expected', '')}.",
        "greater_than_equal": f"This is lower than {context.get('ge')}. Check the reading.",
        "less_than_equal": f"This is higher than {context.get('le')}. Check the reading.",
        "greater_than": f"This must be more than {context.get('gt')}.",
        "date_from_datetime_parsing": "Write the date as day, month and year.",
        "date_parsing": "Write the date as day, month and year.",
    }
    message = sentences.get(kind, str(error.get("msg", "This cannot be used.")).removeprefix("Value error, "))
    return FieldProblem(field=".".join(location) or "(form)", message=message)


def install_handlers(api: NinjaAPI) -> None:
    """Register how each error is answered."""

    def answer(request: HttpRequest, status: int, problem: Problem) -> HttpResponse:
        return api.create_response(request, problem.model_dump(exclude_none=True), status=status)

    @api.exception_handler(ValidationError)
    def on_validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return answer(request, 422, Problem(message=CHECK_FIELDS, fields=[_readable(e) for e in error.errors]))

    @api.exception_handler(BadInput)
    def on_bad_input(request: HttpRequest, error: BadInput) -> HttpResponse:
        return answer(request, 422, Problem(message=CHECK_FIELDS, fields=error.problems))

    @api.exception_handler(InputError)
    def on_input_error(request: HttpRequest, error: InputError) -> HttpResponse:
        field = FieldProblem(field=error.field, message=f"{error.reason} {error.remedy}")
        return answer(request, 422, Problem(message=f"{error.reason} {error.remedy}", fields=[field]))

    @api.exception_handler(Stale)
    def on_stale(request: HttpRequest, error: Stale) -> HttpResponse:
        message = "Somebody saved this in the meantime. Yours is kept here; compare and save again."
        return answer(request, 409, Problem(message=message, current=error.current))

    @api.exception_handler(NotAllowed)
    def on_not_allowed(request: HttpRequest, error: NotAllowed) -> HttpResponse:
        return answer(request, 403, Problem(message="Your role in this practice does not include this."))

    @api.exception_handler(AuthenticationError)
    def on_unauthenticated(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return answer(request, 401, Problem(message="Please sign in."))

    @api.exception_handler(Http404)
    def on_missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return answer(request, 404, Problem(message="There is nothing at this address."))
