"""The limits a client has on a date: every rule of every kind of record, and those for anyone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal

from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.clientfile import ClientFile
from asketa_core.clinical import clinical
from asketa_core.datafiles import DATA
from asketa_core.limits.model import (
    FigureFromFact,
    FigureFromRange,
    Limit,
    Row,
    RowFile,
    Severity,
    Term,
    TermRow,
    rows_of,
)
from asketa_core.records.entry import Entry
from asketa_core.records.registry import KINDS, kind_of, opened
from asketa_core.units import SIDES, Side

EVERYONE = "everyone"


@dataclass(frozen=True, slots=True)
class EveryoneContext:
    """Everything the rows of ``data/limits/everyone.yaml`` may ask about: what was measured on this client, and age."""

    hamstrings: Literal["stiff", "not_known_stiff"]
    grown: Literal["yes", "no"]
    one_leg_stand: Literal["short", "not_known_short"]


@cache
def everyone_rows() -> RowFile:
    return rows_of(DATA / "limits" / "everyone.yaml", EVERYONE, EveryoneContext)


def _files() -> dict[str, RowFile]:
    return {**{kind.code: kind.rows for kind in KINDS.values()}, EVERYONE: everyone_rows()}


def all_rows() -> Iterable[tuple[str, Row]]:
    """Every rule as (file, row)."""
    for name, file in _files().items():
        for row in file.rows:
            yield name, row


def limits_on(client: ClientFile, date: dt.date, ranges: Ranges | None = None) -> list[Limit]:
    """Every limit that holds for a client on ``date``, those for everyone included."""
    known = ranges if ranges is not None else client.latest_ranges(date)
    everyone = _everyone_context(client, date, known)
    found = [
        _limit(row, EVERYONE, None, side, known, {}, ())
        for row in everyone_rows().rows
        if row.missing(everyone) == ()
        for side in _sides(row, None)
        if not (row.unmeasured is not None and side is not None and known.get(row.unmeasured, side).measured)
    ]
    for entry in _with_what_follows(client):
        found.extend(limits_of(entry, client, date, known))
    return found


def _with_what_follows(client: ClientFile) -> Iterator[Entry[Any]]:
    """The entries of a file, and those they open where none of that kind is recorded."""
    yield from client.entries
    recorded = {entry.kind for entry in client.entries}
    for entry in client.entries:
        for follows in kind_of(entry).opens(entry.facts):
            if follows.kind not in recorded:
                recorded.add(follows.kind)
                yield opened(entry, follows)


STIFF_HAMSTRINGS_DEG = clinical("hamstrings.stiff", "deg")
ADULT_YEARS = clinical("age.adult", "years")
STEADY_S = clinical("bones.steady_stand", "seconds")


def _everyone_context(client: ClientFile, date: dt.date, ranges: Ranges) -> EveryoneContext:
    raised = [ranges.get(Quantity.STRAIGHT_LEG_RAISE, side) for side in SIDES]
    stiff = any(r.measured and r.value_deg < STIFF_HAMSTRINGS_DEG for r in raised)
    age, stand = client.age_on(date), client.latest_measure("one_leg_stand", date)
    return EveryoneContext(
        hamstrings="stiff" if stiff else "not_known_stiff",
        grown="no" if age is not None and age < ADULT_YEARS else "yes",
        one_leg_stand="short" if stand is not None and stand < STEADY_S else "not_known_short",
    )


def _sides(row: Row, own: Side | None) -> tuple[Side | None, ...]:
    """The sides one row speaks of, for an entry's own side (``None``: no side)."""
    if row.side == "both" or (row.side == "same" and own is None):
        return SIDES
    return (own,) if row.side == "same" else (None,)


def counts_on(entry: Entry[Any], date: dt.date) -> bool:
    """Whether a record counts on a date: its first and its last day are in it."""
    return (entry.from_date is None or entry.from_date <= date) and (
        entry.until_date is None or date <= entry.until_date
    )


def limits_of(entry: Entry[Any], client: ClientFile, date: dt.date, ranges: Ranges) -> list[Limit]:
    """What one entry turns into on ``date``. A stop that holds only perhaps asks for the facts that decide it; a
    caution stays a caution."""
    if not counts_on(entry, date):
        return []
    kind = kind_of(entry)
    params = kind.params(entry, date)
    found = []
    for meaning in kind.means(entry, client, date):
        for row in kind.rows.rows:
            open_facts = row.missing(meaning.context)
            if open_facts is None or (meaning.doubt and row.everything is not None):
                continue
            missing = (*meaning.doubt, *open_facts)
            if row.holds == "until_cleared" and row.scope is not None and kind.cleared(entry, row.scope, date):
                if not (again := kind.asks_again(entry, client, date)):
                    continue
                missing += again
            found += [_limit(row, kind.code, entry, side, ranges, params, missing) for side in _sides(row, entry.side)]
    return found


def _limit(
    row: Row,
    file: str,
    entry: Entry[Any] | None,
    side: Side | None,
    ranges: Ranges,
    params: Mapping[str, str | int | None],
    missing: tuple[str, ...],
) -> Limit:
    severity = Severity[row.severity.upper()]
    return Limit(
        code=row.code,
        entry_id=entry.id if entry is not None else None,
        entry_kind=entry.kind if entry is not None else EVERYONE,
        side=side,
        severity=min(severity, Severity.ASK) if missing else severity,
        terms=tuple(_term(term, entry, side, ranges) for term in row.terms),
        phases=row.phases,
        exact=row.exact,
        ends=row.ends,
        everything=row.everything,
        spares_gentle=row.spares_gentle,
        missing=missing,
        source=f"{file}.{row.source}",
        params=params,
    )


def _term(row: TermRow, entry: Entry[Any] | None, side: Side | None, ranges: Ranges) -> Term:
    above = row.above
    if isinstance(above, FigureFromRange):
        assert side is not None, "a figure from a range belongs to a side"
        above = ranges.get(above.range, side).value_deg * above.times - above.less
    elif isinstance(above, FigureFromFact):
        assert entry is not None
        above = float(getattr(entry.facts, above.fact)) * above.times
    if row.or_fact is not None and entry is not None and (said := getattr(entry.facts, row.or_fact)) is not None:
        above = said
    return Term(row.readout, row.flag, above, row.below, row.neutral)
