"""Every request works inside one practice, and every row belongs to one.

The practice stands in the path. Members get their practice's rows and nobody else's: models use a
manager that raises when no practice is opened, the database shows the application the rows of the opened
practice only, and a foreign row is a 404 like a row that does not exist.

A new table is a ``PracticeRow`` whose migration ends with ``PracticeTable``; a test holds every table to both.
"""

from __future__ import annotations

import functools
import inspect
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import Any, ClassVar, Concatenate, ParamSpec, TypeVar

from django.db import models
from django.http import Http404, HttpRequest
from django_scopes import ScopedManager, scope
from ninja import Path

from accounts.models import User
from common import clock
from common.database import rows_of_practice
from common.errors import NotAllowed
from common.permissions import Permission, role_has
from common.speech import write_in
from practices.models import Membership, Practice

PracticeId = Path[uuid.UUID]
"""The practice in a route's path. Marked as such: it stands in the prefix, which views do not see."""

P = ParamSpec("P")
R = TypeVar("R")


class PracticeRequest(HttpRequest):
    """A request inside a practice, as views see it."""

    user: User
    practice: Practice
    membership: Membership


class PracticeRow(models.Model):
    """Base of everything that belongs to a practice."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    practice = models.ForeignKey(Practice, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(default=clock.now, editable=False)
    created_by = models.ForeignKey("accounts.User", null=True, on_delete=models.PROTECT, related_name="+")

    objects: ClassVar[Any] = ScopedManager(practice="practice")

    class Meta:
        abstract = True


def rows_by(queryset: type[models.QuerySet[Any]]) -> Any:
    """The manager of a practice's table that has a query set of its own."""
    return ScopedManager(practice="practice", _manager_class=models.Manager.from_queryset(queryset))


@dataclass
class Opening:
    """One time a practice is open: what is noted while it is, and what is still to be done before it closes. What an error
    ends is not done."""

    practice_id: uuid.UUID
    notes: dict[Any, Any] = field(default_factory=dict)
    at_end: list[Callable[[], None]] = field(default_factory=list)


_opening: ContextVar[Opening | None] = ContextVar("opening", default=None)


def opening() -> Opening | None:
    """The practice that is open."""
    return _opening.get()


@contextmanager
def opened(practice: Practice) -> Iterator[None]:
    """Open a practice: its rows are seen and written until the block ends, and no others."""
    here = Opening(practice.pk)
    with scope(practice=practice), rows_of_practice(practice.pk):
        token = _opening.set(here)
        try:
            yield
            for finish in here.at_end:
                finish()
        finally:
            _opening.reset(token)


def in_practice(
    permission: Permission,
) -> Callable[
    [Callable[Concatenate[PracticeRequest, uuid.UUID, P], R]], Callable[Concatenate[PracticeRequest, uuid.UUID, P], R]
]:
    """Declare what a view needs and open its practice for the duration of the call.

    The view's second argument is ``practice_id`` from the path. Strangers to the practice get 404.
    """

    def decorate(
        view: Callable[Concatenate[PracticeRequest, uuid.UUID, P], R],
    ) -> Callable[Concatenate[PracticeRequest, uuid.UUID, P], R]:
        @functools.wraps(view)
        def wrapped(request: PracticeRequest, practice_id: uuid.UUID, *args: P.args, **kwargs: P.kwargs) -> R:
            membership = (
                Membership.objects.select_related("practice")
                .filter(user_id=request.user.pk, practice_id=practice_id)
                .first()
            )
            if membership is None:
                raise Http404
            if not role_has(membership.role, permission):
                raise NotAllowed
            request.practice, request.membership = membership.practice, membership
            write_in(membership.practice.manner)
            with opened(membership.practice):
                return view(request, practice_id, *args, **kwargs)

        declared: Any = wrapped
        declared.permission = permission
        # The router reads the signature; resolved here, where the view's own names are known.
        declared.__signature__ = inspect.signature(view, eval_str=True)
        as_view: Callable[Concatenate[PracticeRequest, uuid.UUID, P], R] = declared
        return as_view

    return decorate
