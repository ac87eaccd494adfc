"""The one source of the current time, so that tests and the practice's time zone decide about 'today'."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

from django.utils import timezone


def now() -> dt.datetime:
    return timezone.now()


def local_now(time_zone: str) -> dt.datetime:
    return now().astimezone(ZoneInfo(time_zone))


def today(time_zone: str) -> dt.date:
    return local_now(time_zone).date()
