"""Limits as values, and the rows of the data files they come from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from functools import cached_property
from pathlib import Path
from typing import Any, Literal

from pydantic import model_validator

from asketa_core.body.ranges import Quantity
from asketa_core.datafiles import DATA, Record, load
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import Flag
from asketa_core.units import Side

Phase = Literal["pose", "way", "transfer", "floor_transfer", "counter"]
ALL_PHASES: tuple[Phase, ...] = ("pose", "way", "transfer", "floor_transfer", "counter")

NEUTRAL_SLACK_DEG = 2.0
"""A limit at the body's neutral bites only beyond this, so that standing and sitting are never refused."""


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
    source: str = ""
    params: Mapping[str, object] = field(default_factory=dict)

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
        return (self.code, self.entry_id, self.side, int(self.severity), self.terms)


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
    surgeon: Literal["bend"] | None = None

    @model_validator(mode="after")
    def one_condition(self) -> TermRow:
        bounds = (self.above is not None) + (self.below is not None)
        if (self.flag is None) == (self.readout is None) or (self.readout is not None and bounds != 1):
            raise ValueError("a term is either a flag, or a read-out with 'above' or 'below'")
        return self


class Row(Record):
    """One row of a limits file; see ``data/limits/README.md``."""

    code: str
    when: dict[str, Any]
    holds: Literal["always", "until_cleared"] = "always"
    scope: str | None = None
    severity: Literal["stop", "caution", "ask"]
    side: Literal["same", "both", "none"]
    terms: tuple[TermRow, ...] = ()
    phases: tuple[Phase, ...] = ALL_PHASES
    exact: bool = False
    source: str

    def matches(self, context: Mapping[str, object]) -> bool:
        """Whether every condition holds. An unknown number satisfies no ``below`` or ``at_least``:
        rows about unknown facts name them as ``unknown``."""
        for key, wanted in self.when.items():
            have = context[key]
            if isinstance(wanted, dict):
                if not isinstance(have, int | float):
                    return False
                if "below" in wanted and not have < wanted["below"]:
                    return False
                if "at_least" in wanted and not have >= wanted["at_least"]:
                    return False
            elif isinstance(wanted, list):
                if have not in wanted:
                    return False
            elif have != wanted:
                return False
        return True


class RowFile(Record):
    sources: dict[str, str]
    rows: tuple[Row, ...]


def rows_of(topic: str) -> RowFile:
    path: Path = DATA / "limits" / f"{topic}.yaml"
    return load(path, RowFile)
