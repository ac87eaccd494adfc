"""What the treating professional said about one client's record: in free words, and as figures that take the place of the
rules' own."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field, model_validator

from asketa_core.answers import Day, Professional
from asketa_core.datafiles import Record
from asketa_core.limits.model import RowFile, Severity
from asketa_core.plain_text import FreeText, Key
from asketa_core.poses.posture import Readout
from asketa_core.texts import Phrase
from asketa_core.texts.catalogue import RuleCode

MOST_BEYOND = 400.0
"""No read-out is larger, whatever its unit."""


class Figure(Record):
    """One figure of a rule as it was set for this client, tighter or looser, in the unit of its read-out. Which way it
    binds, and how hard, stays the rule's own."""

    rule: RuleCode
    readout: Readout
    value: float = Field(ge=-MOST_BEYOND, le=MOST_BEYOND)


class Instruction(Record):
    """A dated word of the treating professional. It counts from its ``date`` through ``until``; where two name the same
    figure, the later one counts."""

    id: Key
    who: Professional
    date: Day
    until: Day | None = None
    text: Annotated[FreeText, Field(max_length=2000)] = ""
    figures: tuple[Figure, ...] = Field(default=(), max_length=40)

    @model_validator(mode="after")
    def says_something(self) -> Instruction:
        if not self.text.strip() and not self.figures:
            raise ValueError("write down what was said, or give a figure")
        if len({(figure.rule, figure.readout) for figure in self.figures}) != len(self.figures):
            raise ValueError("one figure is given twice")
        if self.until is not None and self.until < self.date:
            raise ValueError("this ends before it begins")
        return self

    def counts_on(self, date: dt.date) -> bool:
        return self.date <= date and (self.until is None or date <= self.until)


@dataclass(frozen=True, slots=True)
class Set:
    """A figure that holds on a date, and whose word it is."""

    value: float
    by: Instruction


def figures_on(instructions: Iterable[Instruction], date: dt.date) -> Mapping[tuple[str, Readout], Set]:
    """The figures that hold on a date, by rule and read-out."""
    counting = sorted((each for each in instructions if each.counts_on(date)), key=lambda each: each.date)
    return {(figure.rule, figure.readout): Set(figure.value, each) for each in counting for figure in each.figures}


def unknown_figure(rows: RowFile, instructions: Iterable[Instruction]) -> Figure | None:
    """A figure that no rule of a kind of record has: it would never be applied, and must not look as if it were."""
    known = {(row.code, term.readout) for row in rows.rows for term in row.terms}
    figures = (figure for each in instructions for figure in each.figures)
    return next((figure for figure in figures if (figure.rule, figure.readout) not in known), None)


@dataclass(frozen=True, slots=True)
class OfferedFigure:
    """A figure that can be set: of which rule, which way it binds and how hard, what holds now, and whose word that is,
    ``None`` where it is the rule's own."""

    rule: str
    readout: Readout
    words: Phrase
    above: bool
    value: float
    unit: str
    severity: Severity
    by: Instruction | None
