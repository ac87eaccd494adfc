"""What happens around every request: addresses that can be kept, and errors in one shape."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils.cache import patch_vary_headers

from asketa_core import REFERENCE
from common.errors import answer, answer_to
from common.speech import offered_languages, speaking

Next = Callable[[HttpRequest], HttpResponseBase]
API = "/api/"
FIRST_ERROR = 400
FORMS = ("multipart/form-data", "application/x-www-form-urlencoded")


class PlainAddresses:
    """Addresses with control characters or broken text lead nowhere: no database could look them up."""

    def __init__(self, get_response: Next) -> None:
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        texts = [request.path, *request.GET.keys(), *(value for values in request.GET.lists() for value in values[1])]
        if any(not text.isprintable() for text in texts):
            return answer(404)
        return self._next(request)


class ErrorsInOneShape:
    """Every error below ``/api/`` is a ``Problem`` in JSON, whoever raised it. Outermost, so that nothing is missed."""

    def __init__(self, get_response: Next) -> None:
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self._next(request)
        if not request.path.startswith(API) or response.status_code < FIRST_ERROR:
            return response
        if isinstance(response, HttpResponse) and response.headers.get("Content-Type", "").startswith(
            "application/json"
        ):
            return response
        allowed = {"Allow": response["Allow"]} if "Allow" in response else {}
        return answer(response.status_code, headers=allowed)

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponseBase | None:
        return answer_to(exception) if request.path.startswith(API) else None


class InOneLanguage:
    """Answers below ``/api/`` are in the first language asked for that there is."""

    def __init__(self, get_response: Next) -> None:
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        asked = (part.partition(";")[0].strip() for part in request.headers.get("Accept-Language", "").split(","))
        offered = offered_languages()
        language = next((found for tag in asked if (found := _nearest(tag, offered)) is not None), REFERENCE)
        with speaking(language):
            response = self._next(request)
        if request.path.startswith(API):
            response["Content-Language"] = language
            patch_vary_headers(response, ["Accept-Language"])
        return response


def _nearest(tag: str, offered: Sequence[str]) -> str | None:
    """A language as it is named, or without its region."""
    return next((each for each in (tag, tag.partition("-")[0]) if each in offered), None)


class OnlyJson:
    """Bodies below ``/api/`` are JSON: forms are refused before anything tries to take them apart."""

    def __init__(self, get_response: Next) -> None:
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if request.path.startswith(API) and request.content_type in FORMS:
            return answer(415)
        return self._next(request)


class NotKept:
    """Answers about people are not left in a browser's or a proxy's files."""

    def __init__(self, get_response: Next) -> None:
        self._next = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self._next(request)
        if request.path.startswith(API):
            response.headers.setdefault("Cache-Control", "no-store")
        return response
