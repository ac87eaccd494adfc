"""Calendar arithmetic of limits."""

from __future__ import annotations

import datetime as dt

AHEAD_DAYS = 42
"""How far ahead coming changes are shown."""


def weeks_between(start: dt.date, date: dt.date) -> int:
    """Whole weeks completed from ``start`` to ``date``; negative before it."""
    return (date - start).days // 7
