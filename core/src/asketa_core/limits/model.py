"""Limits as values, and the rows of the data files they come from."""

from __future__ import annotations

import datetime as dt
import inspect
from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from functools import cached_property
from pathlib import Path
from typing import Any, ClassVar, Literal, Protocol, get_args, get_origin, get_type_hints

from pydantic import model_validator

from asketa_core.body.ranges import Quantity
from asketa_core.datafiles import Record, checked, read
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import Flag
from asketa_core.texts.catalogue import RuleCode, has
from asketa_core.units import Side

Phase = Literal["pose", "way", "transfer", "floor_transfer", "counter"]
ALL_PHASES: tuple[Phase, ...] = ("pose", "way", "transfer", "floor_transfer", "counter")

Everything = Literal["symptom", "condition", "question"]
"""Why a rule is about every shape: something happening now, a state a doctor has to clear, a fact much depends on. The
last two leave gentle work open."""

Ends = Literal["worst", "middle"]
"""Which ends of the client's ranges a limit reads: the worst of them, or the middle alone (what is merely comfortable)."""


class Severity(IntEnum):
    """How hard a limit is. The order is the order of verdicts: a stop outranks an open question."""

    NONE = 0
    CAUTION = 1
    ASK = 2
    STOP = 3

    @property
    def code(self) -> str:
        return self.name.lower()


@dataclass(frozen=True, slots=True)
class Term:
    """One condition of a limit: a read-out above or below a value, or a flag of the pose."""

    readout: Readout | None = None
    flag: str | None = None
    above: float | None = None
    below: float | None = None
    neutral: bool = False

    @property
    def value(self) -> float:
        """The boundary; nan for flags."""
        if self.above is not None:
            return self.above
        return self.below if self.below is not None else float("nan")

    @property
    def kind(self) -> tuple[str, str]:
        """What two limits must share to be of the same kind: the quantity and its direction."""
        if self.flag is not None:
            return (self.flag, "flag")
        assert self.readout is not None
        return (self.readout.value, "above" if self.above is not None else "below")

    @property
    def room(self) -> float:
        """How much it leaves, to compare with terms of the same kind."""
        return self.value if self.above is not None else -self.value

    def leaves_less_than(self, other: Term) -> bool:
        """Whether its figure leaves less room than that of a term of the same kind."""
        return self.room < other.room


class SaidBy(Protocol):
    """A dated word of the treating professional."""

    @property
    def who(self) -> str: ...

    @property
    def date(self) -> dt.date: ...


Kind = tuple[object, ...]
"""What limits must share to compete."""


@dataclass(frozen=True)
class Limit:
    """A limit that holds on one date: all terms exceeded together make it bite."""

    code: str
    entry_id: str | None
    entry_kind: str
    side: Side | None
    severity: Severity
    terms: tuple[Term, ...]
    phases: tuple[Phase, ...] = ALL_PHASES
    exact: bool = False
    ends: Ends = "worst"
    everything: Everything | None = None
    spares_gentle: bool = False
    """Whether what the library marks gentle stays open."""
    missing: tuple[str, ...] = ()
    """The facts nobody knows and that decide whether this holds at all: a stop that may hold asks about them."""
    source: str = ""
    said_by: SaidBy | None = None
    """Whose word its figure is, where it is not the rule's own."""
    params: Mapping[str, str | int | None] = field(default_factory=dict)

    @cached_property
    def flags_first(self) -> tuple[Term, ...]:
        """Terms in the order they are cheapest to rule out in."""
        return tuple(sorted(self.terms, key=lambda term: term.flag is None))

    @cached_property
    def kind(self) -> Kind:
        """Limits of one kind compete, and the tightest wins."""
        return (self.side, tuple(sorted(term.kind for term in self.terms)), self.code if not self.terms else "")

    @property
    def identity(self) -> tuple[object, ...]:
        """Compares limits across dates: same rule, same entry, same figures."""
        return (self.code, self.entry_id, self.side, int(self.severity), self.terms, self.missing)


@dataclass(frozen=True, slots=True)
class Meaning:
    """What an entry comes to on a date: a topic's context, and the facts because of which it only may be so. A doubtful
    meaning stops nothing: it asks."""

    context: object
    doubt: tuple[str, ...] = ()


class FigureFromRange(Record):
    """A figure taken from the client's range: less so many degrees, or a share of it."""

    range: Quantity
    less: float = 0.0
    times: float = 1.0


class FigureFromFact(Record):
    """A figure taken from the record itself, times a share."""

    fact: str
    times: float = 1.0


class TermRow(Record):
    readout: Readout | None = None
    flag: Flag | None = None
    above: float | FigureFromRange | FigureFromFact | None = None
    below: float | None = None
    neutral: bool = False
    or_fact: str | None = None
    """A number of the record that takes the figure's place where it is known: what the surgeon said."""

    @model_validator(mode="after")
    def one_condition(self) -> TermRow:
        bounds = (self.above is not None) + (self.below is not None)
        if (self.flag is None) == (self.readout is None) or (self.readout is not None and bounds != 1):
            raise ValueError("a term is either a flag, or a read-out with 'above' or 'below'")
        return self


@dataclass(frozen=True, slots=True)
class Between:
    """A whole number known only to lie in a span, both ends included."""

    low: int
    high: int


class Bounds(Record):
    """A span of whole numbers: ``at_least`` and above, ``below`` and no more."""

    below: int | None = None
    at_least: int | None = None

    @model_validator(mode="after")
    def one_end(self) -> Bounds:
        if self.below is None and self.at_least is None:
            raise ValueError("give 'below' or 'at_least'")
        return self

    def hold(self, have: int | Between) -> bool | None:
        """``None`` where a number known only roughly may lie inside or outside."""
        low, high = (have.low, have.high) if isinstance(have, Between) else (have, have)
        inside = [(self.below is None or n < self.below) and (self.at_least is None or n >= self.at_least)
                  for n in range(low, high + 1)]  # fmt: skip
        return True if all(inside) else None if any(inside) else False


UNKNOWN = "unknown"


Scalar = str | int
Condition = Bounds | tuple[Scalar, ...] | Scalar


class Row(Record):
    """One row of a file of rules; see ``records/README.md``."""

    code: RuleCode
    when: dict[str, Condition]
    holds: Literal["always", "until_cleared"] = "always"
    scope: str | None = None
    severity: Literal["stop", "caution", "ask"]
    side: Literal["same", "both", "none"]
    terms: tuple[TermRow, ...] = ()
    everything: Everything | None = None
    phases: tuple[Phase, ...] = ALL_PHASES
    exact: bool = False
    ends: Ends = "worst"
    unmeasured: Quantity | None = None
    """Holds only while this range was not measured on the side."""
    source: str

    @model_validator(mode="after")
    def terms_or_everything(self) -> Row:
        """A row without terms bites in every shape there is: it must say that it means to, and why."""
        if (self.everything is None) == (not self.terms):
            raise ValueError("give 'terms', or say with 'everything' why the row is about every shape")
        if self.everything == "question" and self.severity != "ask":
            raise ValueError("a question about everything can only ask")
        if (self.scope is not None) != (self.holds == "until_cleared"):
            raise ValueError("'scope' goes with 'holds: until_cleared'")
        return self

    @property
    def spares_gentle(self) -> bool:
        """A condition, a question about everything, and a range nobody measured leave gentle work open."""
        return self.everything in ("condition", "question") or self.unmeasured is not None

    def missing(self, context: object) -> tuple[str, ...] | None:
        """The facts nobody knows for a topic's context, none where all conditions hold; ``None`` where one certainly
        does not. A row about everything holds only where every condition is known to."""
        truth = {key: _holds(wanted, getattr(context, key)) for key, wanted in self.when.items()}
        open_ones = tuple(key for key, holds in truth.items() if holds is None)
        if False in truth.values() or (open_ones and self.everything is not None):
            return None
        unknown = (fact for key in open_ones for fact in facts_behind(type(context), key))
        return tuple(dict.fromkeys(fact for fact in unknown if getattr(context, fact) == UNKNOWN or fact in open_ones))


def facts_behind(context: type, condition: str) -> tuple[str, ...]:
    """The facts a condition is worked out of, where its context names them in ``WORKED_OUT_OF``; else itself."""
    worked_out: Mapping[str, tuple[str, ...]] = getattr(context, "WORKED_OUT_OF", {})
    return worked_out.get(condition, (condition,))


def _holds(wanted: Condition, have: object) -> bool | None:
    """True, false, or ``None`` for a fact nobody knows. A row that names ``unknown`` is about not knowing."""
    if have == UNKNOWN and wanted != UNKNOWN and not (isinstance(wanted, tuple) and UNKNOWN in wanted):
        return None
    if isinstance(wanted, Bounds):
        assert isinstance(have, int | Between)
        return wanted.hold(have)
    return have in wanted if isinstance(wanted, tuple) else have == wanted


class RowFile(Record):
    rows: tuple[Row, ...]


def rows_of(
    path: Path, of: str, context: type, facts: type[Record] | None = None, scopes: Collection[str] = ()
) -> RowFile:
    """The rows of a file, with every word checked: conditions against their ``context`` (a class whose fields and
    properties have literal types), figures taken from the record against its ``facts``, scopes against those listed, sources against the words ``of`` a kind.

    Raises ``DataError`` naming line and column.
    """
    document = read(path)
    file = checked(document, RowFile)
    known = conditions_of(context)
    for place, row in enumerate(file.rows):
        for key, wanted in row.when.items():
            if (reason := _misfit(key, wanted, known)) is not None:
                raise document.error(("rows", place, "when", key), reason)
        for at, term in enumerate(row.terms):
            if isinstance(term.above, FigureFromFact) and not _is_number(term.above.fact, facts):
                raise document.error(("rows", place, "terms", at, "above", "fact"), "the record has no such number")
            if term.or_fact is not None and not _is_number(term.or_fact, facts):
                raise document.error(("rows", place, "terms", at, "or_fact"), "the record has no such number")
        if row.scope is not None and row.scope not in scopes:
            raise document.error(("rows", place, "scope"), f"no clearance is about '{row.scope}'")
        if not has("sources", of, row.source):
            raise document.error(("rows", place, "source"), f"no source is called '{row.source}'")
    return file


def conditions_of(context: type) -> dict[str, Any]:
    """What rows may ask about: the fields of a class, and the properties that are worked out of them."""
    # What a record's library keeps to itself is called ``model_…``.
    worked_out = {
        name: get_type_hints(each.fget)["return"]
        for name, each in inspect.getmembers(context, lambda member: isinstance(member, property))
        if not name.startswith(("_", "model_"))
    }
    fields = {name: hint for name, hint in get_type_hints(context).items() if get_origin(hint) is not ClassVar}
    return worked_out | fields


def _misfit(key: str, wanted: Condition, known: Mapping[str, Any]) -> str | None:
    """Why a condition can never hold or never be asked: no such key, or a value the context never takes."""
    if key not in known:
        return f"there is no such condition; there are: {', '.join(sorted(known))}"
    words, number = words_of(known[key])
    if isinstance(wanted, Bounds):
        return None if number else f"'{key}' is a word, not a number"
    for value in wanted if isinstance(wanted, tuple) else (wanted,):
        fits = number if isinstance(value, int) else value in words
        if not fits:
            return f"'{key}' is never '{value}'; it is one of: {', '.join(sorted(words))}{', a number' * number}"
    return None


def words_of(hint: Any) -> tuple[set[str], bool]:
    """The words a literal type allows, and whether it may also be a whole number."""
    if get_origin(hint) is Literal:
        return set(get_args(hint)), False
    if hint in (int, Between):
        return set(), True
    parts = [words_of(part) for part in get_args(hint)]
    return set().union(*(words for words, _ in parts)), any(number for _, number in parts)


def _is_number(name: str, facts: type[Record] | None) -> bool:
    field = facts.model_fields.get(name) if facts is not None else None
    return field is not None and bool({int, float} & {field.annotation, *get_args(field.annotation)})
