"""Addresses: the API, and for everything else the web application, which reads its own addresses."""

from __future__ import annotations

import os
from pathlib import Path

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse, JsonResponse
from django.http.response import HttpResponseBase
from django.urls import path, re_path

from common.errors import answer
from config.api import api


def web_application(request: HttpRequest, path: str = "") -> HttpResponseBase:
    index = Path(settings.WEB_BUILD) / "index.html"
    if not index.exists():
        return HttpResponse("The web application has not been built: run ./asketa demo.", status=503)
    response = FileResponse(index.open("rb"), content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


def no_such_address(request: HttpRequest, path: str = "") -> HttpResponse:
    return answer(404)


def mark(request: HttpRequest) -> JsonResponse:
    """Which start of the server this is: the start command knows its own by it."""
    return JsonResponse({"mark": os.environ.get("ASKETA_MARK", "")})


urlpatterns = [
    path("api/mark", mark),
    path("api/", api.urls),
    re_path(r"^(?P<path>(?:api|assets)/.*)$", no_such_address),
    re_path(r"^(?P<path>.*)$", web_application),
]

handler400 = "common.errors.bad_request"
handler500 = "common.errors.server_error"
