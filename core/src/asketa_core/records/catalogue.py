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
    Meaning,
    Row,
    RowFile,
    Severity,
    Term,
    TermRow,
    rows_of,
)
from asketa_core.poses.posture import Readout, unit_of
from asketa_core.records.entry import Entry, Scope
from asketa_core.records.instructions import OfferedFigure, Set, figures_on
from asketa_core.records.registry import KINDS, kind_of, opened
from asketa_core.units import SIDES, Side
from asketa_core.words.limits import short_words

EVERYONE = "everyone"

Figures = Mapping[tuple[str, Readout], Set]
"""Figures set for one client, by rule and read-out."""

NO_FIGURES: Figures = {}


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


@dataclass(frozen=True, slots=True)
class _Stand:
    """What decides on a date which rows of an entry hold, and with what figures."""

    meanings: tuple[Meaning, ...]
    cleared: frozenset[str]
    asks_again: tuple[str, ...]
    figures: Figures
    said_since: frozenset[tuple[str, str]]
    """Rules with scopes that are cleared, and of which a figure was set after that: the later word counts."""


def _stand(entry: Entry[Any], client: ClientFile, date: dt.date) -> _Stand | None:
    """``None`` on days on which the record does not count."""
    if not counts_on(entry, date):
        return None
    kind = kind_of(entry)
    scopes = kind.scopes + kind.read_only_scopes if entry.clearances else ()
    cleared = frozenset(scope for scope in scopes if kind.cleared(entry, scope, date))
    figures = figures_on(entry.instructions, date)
    return _Stand(
        tuple(kind.means(entry, client, date)),
        cleared,
        kind.asks_again(entry, client, date),
        figures,
        frozenset(_said_since(entry, cleared, figures, date)),
    )


def _said_since(
    entry: Entry[Any], cleared: Iterable[Scope], figures: Figures, date: dt.date
) -> Iterator[tuple[str, str]]:
    """Of one day a word and a clearance hold together: what was cleared is cleared within the figure."""
    for (rule, _), said in figures.items():
        later = tuple(each for each in entry.clearances if each.date > said.by.date)
        since = entry.model_copy(update={"clearances": later})
        yield from ((rule, scope) for scope in cleared if not kind_of(entry).cleared(since, scope, date))


def decided_by(client: ClientFile, date: dt.date, ranges: Ranges) -> tuple[object, ...]:
    """What a client's limits on ``date`` hang on besides their ranges: where it is equal on two days, so are they. Far
    quicker than the limits themselves."""
    entries = _with_what_follows(client)
    return (_everyone_context(client, date, ranges), *(_stand(entry, client, date) for entry in entries))


def limits_of(entry: Entry[Any], client: ClientFile, date: dt.date, ranges: Ranges) -> list[Limit]:
    """What one entry turns into on ``date``. A stop that holds only perhaps asks for the facts that decide it; a
    caution stays a caution."""
    stand = _stand(entry, client, date)
    if stand is None:
        return []
    kind = kind_of(entry)
    params = kind.params(entry, date)
    found = []
    for meaning in stand.meanings:
        for row in kind.rows.rows:
            open_facts = row.missing(meaning.context)
            if open_facts is None or (meaning.doubt and row.everything is not None):
                continue
            missing = (*meaning.doubt, *open_facts)
            if row.scope in stand.cleared and (row.code, row.scope) not in stand.said_since:
                if not stand.asks_again:
                    continue
                missing += stand.asks_again
            found += [
                _limit(row, kind.code, entry, side, ranges, params, missing, stand.figures)
                for side in _sides(row, entry.side)
            ]
    return found


def _limit(
    row: Row,
    file: str,
    entry: Entry[Any] | None,
    side: Side | None,
    ranges: Ranges,
    params: Mapping[str, str | int | None],
    missing: tuple[str, ...],
    figures: Figures = NO_FIGURES,
) -> Limit:
    severity = Severity[row.severity.upper()]
    said = [
        figures[key] for term in row.terms if term.readout is not None and (key := (row.code, term.readout)) in figures
    ]
    return Limit(
        code=row.code,
        entry_id=entry.id if entry is not None else None,
        entry_kind=entry.kind if entry is not None else EVERYONE,
        side=side,
        severity=min(severity, Severity.ASK) if missing else severity,
        terms=tuple(_term(term, row.code, entry, side, ranges, figures) for term in row.terms),
        phases=row.phases,
        exact=row.exact,
        ends=row.ends,
        everything=row.everything,
        spares_gentle=row.spares_gentle,
        missing=missing,
        source=f"{file}.{row.source}",
        said_by=said[-1].by if said else None,
        params=params,
    )


def _term(
    row: TermRow, code: str, entry: Entry[Any] | None, side: Side | None, ranges: Ranges, figures: Figures
) -> Term:
    """A row's term with its figure: what was said for this client, else what the row says."""
    said = figures.get((code, row.readout)) if row.readout is not None else None
    if said is not None:
        # A figure that was set is no neutral of the body any more, and has an error band like any other.
        if row.above is None:
            return Term(row.readout, below=said.value)
        return Term(row.readout, above=said.value)
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


def figures_of(entry: Entry[Any], client: ClientFile, date: dt.date, ranges: Ranges) -> list[OfferedFigure]:
    """The figures of a record's limits that hold on ``date``, hardest first, each once: what the treating professional may
    set otherwise. Of limits on both sides the first stands for both."""
    found: dict[tuple[str, Readout], OfferedFigure] = {}
    for limit in limits_of(entry, client, date, ranges):
        for term in limit.terms:
            if term.readout is not None:
                found.setdefault(
                    (limit.code, term.readout), _offered(limit, term, figures_on(entry.instructions, date))
                )
    return sorted(found.values(), key=lambda each: -int(each.severity))


def _offered(limit: Limit, term: Term, figures: Figures) -> OfferedFigure:
    assert term.readout is not None
    said = figures.get((limit.code, term.readout))
    return OfferedFigure(
        rule=limit.code,
        readout=term.readout,
        words=short_words([limit])[0].sentence,
        above=term.above is not None,
        value=term.value,
        unit=unit_of(term.readout),
        severity=limit.severity,
        by=said.by if said is not None else None,
    )
