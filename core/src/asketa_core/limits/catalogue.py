"""The list of every rule, and the limits a client has on a date.

Each topic is a data file of rows under ``data/limits`` and a module that says what an entry means on
a date. ``TOPICS`` is the complete list; what is not in it does not exist.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal

from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.clientfile import (
    AnyEntry,
    Bones,
    BonesFacts,
    ClientFile,
    Fracture,
    HipReplacement,
    KneePain,
    LowBackEntry,
    Pregnancy,
    Scope,
    pregnancy_week,
)
from asketa_core.clinical import clinical
from asketa_core.limits import bones, companions, hip_replacement, knee, pregnancy
from asketa_core.limits.dates import weeks_between
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
from asketa_core.units import SIDES, Side


@dataclass(frozen=True, slots=True)
class Topic:
    """One kind of record: its rows, what it means on a date, what a clearance has ended, and what must be known again
    before that counts."""

    kind: str
    file: str
    rows: Callable[[], RowFile]
    contexts: Callable[[Any, ClientFile, dt.date], Sequence[Meaning]]
    cleared: Callable[[Any, Scope, dt.date], bool]
    asks_again: Callable[[Any, dt.date], tuple[str, ...]] = lambda entry, date: ()


def _never_cleared(entry: AnyEntry, scope: Scope, date: dt.date) -> bool:
    return False


def _certain(context: Callable[[Any, ClientFile, dt.date], object]) -> Callable[..., tuple[Meaning]]:
    """A topic whose entries have one meaning on a date."""
    return lambda entry, client, date: (Meaning(context(entry, client, date)),)


TOPICS: tuple[Topic, ...] = (
    Topic("hip_replacement", "hip_replacement", hip_replacement.rows, _certain(hip_replacement.context), hip_replacement.cleared, hip_replacement.asks_again),
    Topic("knee_pain", "knee", knee.rows, _certain(knee.context), knee.cleared),
    Topic("pregnancy", "pregnancy", pregnancy.rows, _certain(pregnancy.context), pregnancy.cleared),
    Topic("bones", "bones", bones.rows, bones.meanings, bones.cleared),
    Topic("groin_pinch", "groin_pinch", companions.groin_rows, _certain(companions.groin_context), _never_cleared),
    Topic("hamstrings", "hamstrings", companions.hamstrings_rows, _certain(companions.hamstrings_context), _never_cleared),
    Topic("low_back", "low_back", companions.low_back_rows, _certain(companions.low_back_context), _never_cleared),
    Topic("wrist", "wrist", companions.wrist_rows, _certain(companions.wrist_context), _never_cleared),
    Topic("unreadable", "unreadable", companions.unreadable_rows, _certain(companions.unreadable_context), _never_cleared),
)  # fmt: skip
EVERYONE = "everyone"


@dataclass(frozen=True, slots=True)
class EveryoneContext:
    """Everything the rows of ``data/limits/everyone.yaml`` may ask about: what was measured on this client, and age."""

    hamstrings: Literal["stiff", "not_known_stiff"]
    grown: Literal["yes", "no"]
    one_leg_stand: Literal["short", "not_known_short"]


@cache
def everyone_rows() -> RowFile:
    return rows_of(EVERYONE, EveryoneContext)


def _files() -> dict[str, RowFile]:
    return {**{topic.file: topic.rows() for topic in TOPICS}, EVERYONE: everyone_rows()}


def sources() -> dict[str, str]:
    """Every source line by ``topic file.source id``."""
    return {f"{name}.{key}": text for name, file in _files().items() for key, text in file.sources.items()}


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


def _with_what_follows(client: ClientFile) -> Iterable[AnyEntry]:
    """The entries of a file and what they open besides: half a hip after a fall asks about the bones."""
    yield from client.entries
    if any(isinstance(entry, Bones) for entry in client.entries):
        return
    for entry in client.entries:
        if (
            isinstance(entry, HipReplacement)
            and entry.facts.prosthesis == "half"
            and entry.facts.half_because == "fall"
        ):
            broken = Fracture(bone="hip", date=entry.facts.date, low_energy="yes")
            yield Bones(id=entry.id, kind="bones", facts=BonesFacts(fractures=(broken,)))
            return


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


def limits_of(entry: AnyEntry, client: ClientFile, date: dt.date, ranges: Ranges) -> list[Limit]:
    """What one entry turns into on ``date``. A stop that holds only perhaps asks for the facts that decide it; a
    caution stays a caution."""
    if (entry.from_date is not None and date < entry.from_date) or (
        entry.until_date is not None and date > entry.until_date
    ):
        return []
    topic = next(topic for topic in TOPICS if topic.kind == entry.kind)
    params = describe(entry, date)
    found = []
    for meaning in topic.contexts(entry, client, date):
        for row in topic.rows().rows:
            open_facts = row.missing(meaning.context)
            if open_facts is None or (meaning.doubt and row.everything is not None):
                continue
            missing = (*meaning.doubt, *open_facts)
            if row.holds == "until_cleared" and row.scope is not None and topic.cleared(entry, row.scope, date):
                if not (again := topic.asks_again(entry, date)):
                    continue
                missing += again
            found += [_limit(row, topic.file, entry, side, ranges, params, missing) for side in _sides(row, entry.side)]
    return found


def describe(entry: AnyEntry, date: dt.date) -> dict[str, object]:
    """Facts the texts may name."""
    if isinstance(entry, HipReplacement):
        weeks = weeks_between(entry.facts.date, date) if entry.facts.date is not None else None
        return {"approach": entry.facts.approach, "week": weeks}
    if isinstance(entry, KneePain):
        return {"diagnosis": entry.facts.diagnosis, "site": entry.facts.site}
    if isinstance(entry, Pregnancy):
        born = entry.facts.born_on is not None and entry.facts.born_on <= date
        return {"week": pregnancy_week(entry.facts, date), "born": born}
    if isinstance(entry, Bones):
        return {"row": bones.row_of(entry.facts), "t_score": entry.facts.t_score}
    if isinstance(entry, LowBackEntry):
        return {"what": entry.facts.what}
    return {}


def _limit(
    row: Row,
    file: str,
    entry: AnyEntry | None,
    side: Side | None,
    ranges: Ranges,
    params: Mapping[str, object],
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


def _term(row: TermRow, entry: AnyEntry | None, side: Side | None, ranges: Ranges) -> Term:
    above = row.above
    if isinstance(above, FigureFromRange):
        assert side is not None, "a figure from a range belongs to a side"
        above = ranges.get(above.range, side).value_deg * above.times - above.less
    elif isinstance(above, FigureFromFact):
        assert entry is not None
        above = float(getattr(entry.facts, above.fact)) * above.times
    if row.surgeon == "bend" and isinstance(entry, HipReplacement) and entry.facts.surgeon_bend_deg is not None:
        above = entry.facts.surgeon_bend_deg
    return Term(row.readout, row.flag, above, row.below, row.neutral)
