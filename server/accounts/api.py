"""Signing in and out."""

from __future__ import annotations

import uuid

from axes.handlers.proxy import AxesProxyHandler
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Field, Router
from ninja.security import APIKeyCookie

from common.errors import Problem, TooMany
from common.schemas import Input, Output
from common.speech import offered_languages, own
from practices.models import Membership
from practices.schemas import SettingsOut


class CsrfOnly(APIKeyCookie):
    """For endpoints open to strangers: no account is needed, a CSRF token is."""

    param_name = "csrftoken"

    def authenticate(self, request: HttpRequest, key: str | None) -> bool:
        return True


router = Router(tags=["auth"])


class SignIn(Input):
    email: str = Field(max_length=254)
    password: str = Field(max_length=1024)


class MyPractice(Output):
    id: uuid.UUID
    name: str
    role: str
    settings: SettingsOut


class Me(Output):
    """Who is signed in; ``signed_in`` false for a stranger. Asking also sets the CSRF cookie."""

    signed_in: bool
    id: int | None = None
    full_name: str = ""
    practices: list[MyPractice] = []
    languages: list[str]
    """What may be asked for with ``Accept-Language``."""


def _stranger() -> Me:
    return Me(signed_in=False, languages=list(offered_languages()))


def _me(request: HttpRequest) -> Me:
    user = request.user
    if not user.is_authenticated:
        return _stranger()
    memberships = Membership.objects.filter(user=user).select_related("practice").order_by("practice__name")
    practices = [
        MyPractice(id=m.practice_id, name=m.practice.name, role=m.role, settings=SettingsOut.of(m.practice))
        for m in memberships
    ]
    return Me(
        signed_in=True, id=user.pk, full_name=user.full_name, practices=practices, languages=list(offered_languages())
    )


@router.get("/me", response=Me, auth=None, operation_id="me")
def me(request: HttpRequest) -> Me:
    get_token(request)
    return _me(request)


@router.post("/sign-in", response={200: Me, 403: Problem, 429: Problem}, auth=CsrfOnly(), operation_id="signIn")
def sign_in(request: HttpRequest, payload: SignIn) -> tuple[int, Me | Problem]:
    """Check address and password; the same answer for an unknown address and a wrong password."""
    credentials = {"username": payload.email.strip().lower()}

    def refuse_when_locked() -> None:
        if not AxesProxyHandler.is_allowed(request, credentials):
            raise TooMany(AxesProxyHandler.get_implementation().wait_s(request, credentials))

    refuse_when_locked()
    user = authenticate(request, username=credentials["username"], password=payload.password)
    if user is None:
        refuse_when_locked()
        return 403, Problem(message=own("wrong_password"))
    login(request, user)
    return 200, _me(request)


@router.post("/sign-out", response=Me, operation_id="signOut")
def sign_out(request: HttpRequest, response: HttpResponse) -> Me:
    logout(request)
    get_token(request)
    return _stranger()
