"""The list of every rule, and the limits a client has on a date.

Each topic is a data file of rows under ``data/limits`` and a module that says what an entry means on
a date. ``TOPICS`` is the complete list; what is not in it does not exist.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from asketa_core.body.ranges import Ranges
from asketa_core.clientfile import AnyEntry, ClientFile, HipReplacement
from asketa_core.limits import hip_replacement, knee
from asketa_core.limits.dates import weeks_between
from asketa_core.limits.model import FigureFromRange, Limit, Row, RowFile, Severity, Term, TermRow, rows_of
from asketa_core.units import SIDES, Side


@dataclass(frozen=True, slots=True)
class Topic:
    """One kind of record: its rows, what it means on a date, and what a clearance has ended."""

    kind: str
    file: str
    context: Callable[[Any, ClientFile, dt.date], Mapping[str, object]]
    cleared: Callable[[Any, str, dt.date], bool]


def _never_cleared(entry: AnyEntry, scope: str, date: dt.date) -> bool:
    return False


TOPICS: tuple[Topic, ...] = (
    Topic("hip_replacement", "hip_replacement", hip_replacement.context, hip_replacement.cleared),
    Topic("knee_pain", "knee", knee.context, _never_cleared),
)
EVERYONE = "everyone"


@cache
def _rows(file: str) -> RowFile:
    return rows_of(file)


def sources() -> dict[str, str]:
    """Every source line by ``topic file.source id``."""
    files = [*(topic.file for topic in TOPICS), EVERYONE]
    return {f"{file}.{key}": text for file in files for key, text in _rows(file).sources.items()}


def all_rows() -> Iterable[tuple[str, Row]]:
    """Every rule as (file, row)."""
    for file in (*(topic.file for topic in TOPICS), EVERYONE):
        for row in _rows(file).rows:
            yield file, row


def limits_on(client: ClientFile, date: dt.date, ranges: Ranges | None = None) -> list[Limit]:
    """Every limit that holds for a client on ``date``, those for everyone included."""
    known = ranges if ranges is not None else client.latest_ranges(date)
    found = [
        _limit(row, EVERYONE, None, side, known, {})
        for row in _rows(EVERYONE).rows
        for side in (SIDES if row.side == "same" else SIDES[:1])
    ]
    for entry in client.entries:
        found.extend(limits_of(entry, client, date, known))
    return found


def limits_of(entry: AnyEntry, client: ClientFile, date: dt.date, ranges: Ranges) -> list[Limit]:
    """What one entry turns into on ``date``."""
    if (entry.from_date is not None and date < entry.from_date) or (
        entry.until_date is not None and date > entry.until_date
    ):
        return []
    topic = next(topic for topic in TOPICS if topic.kind == entry.kind)
    context = topic.context(entry, client, date)
    return [
        _limit(row, topic.file, entry, entry.side, ranges, describe(entry, date))
        for row in _rows(topic.file).rows
        if row.matches(context)
        and not (row.holds == "until_cleared" and row.scope is not None and topic.cleared(entry, row.scope, date))
    ]


def describe(entry: AnyEntry, date: dt.date) -> dict[str, object]:
    """Facts the texts may name."""
    if isinstance(entry, HipReplacement):
        weeks = weeks_between(entry.facts.date, date) if entry.facts.date is not None else None
        return {"approach": entry.facts.approach, "week": weeks}
    return {"diagnosis": entry.facts.diagnosis, "site": entry.facts.site}


def _limit(
    row: Row, file: str, entry: AnyEntry | None, side: Side, ranges: Ranges, params: Mapping[str, object]
) -> Limit:
    return Limit(
        code=row.code,
        entry_id=entry.id if entry is not None else None,
        entry_kind=entry.kind if entry is not None else EVERYONE,
        side=side if row.side == "same" else None,
        severity=Severity[row.severity.upper()],
        terms=tuple(_term(term, entry, side, ranges) for term in row.terms),
        phases=row.phases,
        exact=row.exact,
        source=f"{file}.{row.source}",
        params=params,
    )


def _term(row: TermRow, entry: AnyEntry | None, side: Side, ranges: Ranges) -> Term:
    above = row.above
    if isinstance(above, FigureFromRange):
        above = ranges.get(above.range, side).value_deg - above.less
    if row.surgeon == "bend" and isinstance(entry, HipReplacement) and entry.facts.surgeon_bend_deg is not None:
        above = entry.facts.surgeon_bend_deg
    return Term(row.readout, row.flag, above, row.below, row.neutral)
