"""The one source of the current time, so that tests, demo data and the practice's time zone decide
about 'today'."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from zoneinfo import ZoneInfo

from django.utils import timezone

_set_to: ContextVar[dt.datetime | None] = ContextVar("clock", default=None)


_offset = dt.timedelta()


def now() -> dt.datetime:
    return _set_to.get() or timezone.now() + _offset


def local_now(time_zone: str) -> dt.datetime:
    return now().astimezone(ZoneInfo(time_zone))


def today(time_zone: str) -> dt.date:
    return local_now(time_zone).date()


def day_of(moment: dt.datetime, time_zone: str) -> dt.date:
    """The date at a practice when something happened."""
    return moment.astimezone(ZoneInfo(time_zone)).date()


@contextmanager
def set_to(moment: dt.datetime) -> Iterator[None]:
    """Let it be another time within the block."""
    token = _set_to.set(moment)
    try:
        yield
    finally:
        _set_to.reset(token)


@contextmanager
def set_for_everyone(moment: dt.datetime) -> Iterator[None]:
    """Let it be another time for every thread of this process, for tests that drive a live server."""
    global _offset  # noqa: PLW0603 — a clock is one for all
    before = _offset
    _offset = moment - timezone.now()
    try:
        yield
    finally:
        _offset = before
