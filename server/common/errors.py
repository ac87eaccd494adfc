"""Errors of the application, and the one place where they become answers.

Every error answer is a ``Problem``: what is wrong in words, and the fields it is about. Submitted values never come back
in an error: they may be health data.
"""

from __future__ import annotations

import datetime as dt
import logging
from collections.abc import Iterable, Mapping
from typing import Any

from django.core.exceptions import DisallowedHost, RequestDataTooBig
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from asketa_core import Implausible, InputError, Own, Param, Phrase
from common.schemas import Output
from common.speech import Text, own

log = logging.getLogger(__name__)

RETRY_AFTER_S = 5
"""When to try again while the database is away."""


class FieldProblem(Output):
    """One field, what is wrong with it and what to give instead."""

    field: str
    message: Text


class Problem(Output):
    """Every error answer has this shape. ``code`` names what a program may act on."""

    message: Text
    code: str = ""
    fields: list[FieldProblem] = []
    current: dict[str, Any] | None = None


class BadInput(Exception):
    """Field problems found by a service; all of them, not the first."""

    def __init__(self, problems: list[FieldProblem]) -> None:
        super().__init__("bad input")
        self.problems = problems


def bad_field(field: str, message: Text) -> BadInput:
    return BadInput([FieldProblem(field=field, message=message)])


def refuse_implausible(found: Iterable[Implausible]) -> None:
    """Raise ``BadInput`` with everything that cannot be."""
    problems = [FieldProblem(field=each.field, message=each.message) for each in found]
    if problems:
        raise BadInput(problems)


class Conflict(Exception):
    """What was sent does not go with what stands. ``current`` is what stands now, so that both can be kept."""

    code = "conflict"

    def __init__(self, current: dict[str, Any]) -> None:
        super().__init__(self.code)
        self.current = current


class Stale(Conflict):
    """Somebody saved in between."""

    code = "stale"


class SentBefore(Conflict):
    """The same id was stored before, with other content."""

    code = "sent_before"


class NotAllowed(Exception):
    """The role of this member does not include what was asked."""


class TooMany(Exception):
    """Too many tries; ``wait_s`` seconds until the next may succeed."""

    def __init__(self, wait_s: int) -> None:
        super().__init__("too many tries")
        self.wait_s = wait_s


SAID = (400, 401, 403, 404, 405, 413, 415, 500, 503)
"""Statuses with words of their own."""


def _readable(error: dict[str, Any]) -> FieldProblem:
    """A validation error as a field and a sentence, without the value."""
    location = [str(part) for part in error["loc"] if part not in ("body", "payload", "query", "path")]
    return FieldProblem(field=".".join(location) or "(form)", message=_why(error["type"], error).sentence)


def _why(kind: str, error: dict[str, Any]) -> Phrase:
    context = error.get("ctx", {})
    match kind:
        case "missing" | "string_too_short":
            return own("field", "missing")
        case "string_too_long":
            return own("field", "too_long", most=_edge(context.get("max_length")))
        case "too_long":
            return own("field", "too_many", most=_edge(context.get("max_length")))
        case "extra_forbidden":
            return own("field", "unknown")
        case "literal_error" | "enum":
            return own("field", "choice", known=Own(str(context.get("expected", ""))))
        case "greater_than_equal":
            return own("field", "too_low", edge=_edge(context.get("ge")))
        case "less_than_equal":
            return own("field", "too_high", edge=_edge(context.get("le")))
        case "less_than":
            return own("field", "must_be_less", edge=_edge(context.get("lt")))
        case "greater_than":
            return own("field", "must_be_more", edge=_edge(context.get("gt")))
        case "date_from_datetime_parsing" | "date_parsing":
            return own("field", "date")
        case "int_type":
            return own("field", "whole_number")
        case "finite_number":
            return own("field", "finite_number")
    # Said by a rule of a type: as it stands there.
    return Own(str(error.get("msg", "")).removeprefix("Value error, ")) or own("status", "400")


def _edge(value: Any) -> Param:
    """What a value was held against, as a sentence can take it."""
    return value if isinstance(value, int | float | dt.date) else Own(str(value))


def answer(status: int, problem: Problem | None = None, headers: Mapping[str, str] | None = None) -> HttpResponse:
    """A problem as JSON; in plain words of its status where nothing more is known."""
    shown = problem or Problem(message=own("status", str(status if status in SAID else 400 if status < 500 else 500)))
    return JsonResponse(shown.model_dump(exclude_none=True), status=status, headers=headers)


def answer_to(error: Exception) -> HttpResponse:
    """The answer to an error nothing else has taken: known ones in their own words, the rest as 500."""
    if isinstance(error, InputError):
        message = f"{error.reason[:1].upper()}{error.reason[1:]} {error.remedy}"
        code = "stature_missing" if error.field == "body" else ""
        return answer(
            422, Problem(message=message, code=code, fields=[FieldProblem(field=error.field, message=message)])
        )
    if isinstance(error, OperationalError | InterfaceError):
        log.error("the database does not answer", exc_info=error)
        return answer(503, headers={"Retry-After": str(RETRY_AFTER_S)})
    if isinstance(error, RequestDataTooBig):
        return answer(413)
    if isinstance(error, DisallowedHost):
        return answer(400)
    log.error("an error nobody expected", exc_info=error)
    return answer(500)


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Django's own refusal of a request without its token."""
    return answer(403)


def server_error(request: HttpRequest) -> HttpResponse:
    return answer(500)


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    return answer(400)


def install_handlers(api: NinjaAPI) -> None:
    """Register how each error is answered."""

    @api.exception_handler(ValidationError)
    def on_validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return answer(422, Problem(message=own("check_fields"), fields=[_readable(e) for e in error.errors]))

    @api.exception_handler(BadInput)
    def on_bad_input(request: HttpRequest, error: BadInput) -> HttpResponse:
        return answer(422, Problem(message=own("check_fields"), fields=error.problems))

    @api.exception_handler(Conflict)
    def on_conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return answer(409, Problem(message=own(error.code), code=error.code, current=error.current))

    @api.exception_handler(NotAllowed)
    def on_not_allowed(request: HttpRequest, error: NotAllowed) -> HttpResponse:
        return answer(403, Problem(message=own("not_allowed")))

    @api.exception_handler(TooMany)
    def on_too_many(request: HttpRequest, error: TooMany) -> HttpResponse:
        minutes = max(1, round(error.wait_s / 60))
        wait = own("too_many", "one") if minutes == 1 else own("too_many", "more", minutes=minutes)
        return answer(429, Problem(message=wait), {"Retry-After": str(error.wait_s)})

    @api.exception_handler(AuthenticationError)
    def on_unauthenticated(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return answer(401, Problem(message=own("status", "401"), code="signed_out"))

    @api.exception_handler(Http404)
    def on_missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return answer(404)

    @api.exception_handler(HttpError)
    def on_http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        # A body the parser refused hides its reason behind this.
        cause = error.__cause__
        return answer_to(cause) if isinstance(cause, InputError | RequestDataTooBig) else answer(error.status_code)

    @api.exception_handler(Exception)
    def on_anything(request: HttpRequest, error: Exception) -> HttpResponse:
        return answer_to(error)
