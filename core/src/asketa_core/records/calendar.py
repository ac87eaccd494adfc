"""What the calendar changes: the dates on which limits appear, tighten, loosen or run out."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from asketa_core.body.ranges import Ranges
from asketa_core.client.daily import DailyFact
from asketa_core.clientfile import ClientFile
from asketa_core.limits.dates import AHEAD_DAYS
from asketa_core.limits.model import Limit
from asketa_core.records.catalogue import decided_by, limits_on


@dataclass(frozen=True, slots=True)
class Change:
    """Limits that begin or end on a date. A limit that changes its severity ends and begins."""

    date: dt.date
    begins: tuple[Limit, ...]
    ends: tuple[Limit, ...]

    @property
    def tightens(self) -> bool:
        """Whether anything new binds, or binds harder, from this date."""
        return any(not any(_bound_as_much(before, limit) for before in self.ends) for limit in self.begins)


def _bound_as_much(before: Limit, limit: Limit) -> bool:
    """Whether a limit that ends was as hard as one of its kind that begins, and left no more room."""
    if (before.entry_id, before.kind) != (limit.entry_id, limit.kind) or before.severity < limit.severity:
        return False
    old = {term.kind: term for term in before.terms}
    return not any(term.leaves_less_than(old[term.kind]) for term in limit.terms if term.readout is not None)


def with_todays_answers(client: ClientFile, today: dt.date, date: dt.date) -> ClientFile:
    """The file as it will be on ``date`` if the daily answers stay as they are: they are asked again
    at every arrival, so their growing old is no change of limits."""
    moved = tuple(
        DailyFact(entry_id=f.entry_id, date=f.date + (date - today), pain_today=f.pain_today, irritable=f.irritable)
        for f in client.daily
        if f.date <= today
    )
    return client.model_copy(update={"daily": moved})


def changes_ahead(client: ClientFile, today: dt.date, days: int = AHEAD_DAYS) -> Iterator[Change]:
    """Every change in the days after ``today``, in order."""
    # What was measured stays as it is: nothing is measured ahead.
    ranges = client.latest_ranges(today)
    hangs_on, before = decided_by(client, today, ranges), _limits(client, today, ranges)
    for ahead in range(1, days + 1):
        date = today + dt.timedelta(days=ahead)
        then = with_todays_answers(client, today, date)
        if (now_on := decided_by(then, date, ranges)) == hangs_on:
            continue
        hangs_on, after = now_on, _limits(then, date, ranges)
        if (change := _change(date, before, after)) is not None:
            yield change
        before = after


def _limits(client: ClientFile, date: dt.date, ranges: Ranges) -> dict[Any, Limit]:
    return {limit.identity: limit for limit in limits_on(client, date, ranges)}


def _limits_then(client: ClientFile, today: dt.date, date: dt.date) -> dict[Any, Limit]:
    return _limits(with_todays_answers(client, today, date), date, client.latest_ranges(date))


def _change(date: dt.date, before: dict[Any, Limit], after: dict[Any, Limit]) -> Change | None:
    begins = tuple(limit for key, limit in after.items() if key not in before)
    ends = tuple(limit for key, limit in before.items() if key not in after)
    return Change(date, begins, ends) if begins or ends else None


def change_between(client: ClientFile, since: dt.date, date: dt.date) -> Change | None:
    """What differs on ``date`` from an earlier day, by the records as they stand; ``None`` where nothing does. What came
    and went in between is no part of it."""
    before = {limit.identity: limit for limit in limits_on(client, since)}
    return _change(date, before, _limits_then(client, since, date))


def next_change(client: ClientFile, today: dt.date) -> Change | None:
    return next(changes_ahead(client, today), None)


def next_tightening(client: ClientFile, today: dt.date) -> dt.date | None:
    """The next date on which a limit tightens; steps up wait for it."""
    return next((change.date for change in changes_ahead(client, today) if change.tightens), None)
