"""Clinical figures that code works with: thresholds, spans and counts, from ``data/clinical.yaml`` and, for one kind of
record, from its own folder.

Every figure has a unit, what it decides, a source, and whether a practice has reviewed it. Figures of single rules stand
with their rules.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection, Iterable, Iterator, Mapping
from functools import cache
from pathlib import Path
from typing import Literal, TypeVar

from pydantic import Field, model_validator

from asketa_core.datafiles import DATA, Record, load, read
from asketa_core.errors import DataError

Unit = Literal[
    "days", "weeks", "sessions", "deg", "cm", "seconds", "of_10", "share", "t_score", "count", "mm_hg", "years"
]


class Review(Record):
    """Who looked at a figure and when."""

    who: str = Field(min_length=1)
    on: dt.date


class Figure(Record):
    value: float
    unit: Unit
    about: str = Field(min_length=10)
    source: str
    reviewed: Literal["not yet"] | Review


class Group(Record):
    """Words that count alike: answers that stop, signs of a flare."""

    of: tuple[str, ...] = Field(min_length=1)
    about: str = Field(min_length=10)
    source: str
    reviewed: Literal["not yet"] | Review


class ClinicalFile(Record):
    sources: dict[str, str]
    figures: dict[str, Figure] = {}
    groups: dict[str, Group] = {}

    @model_validator(mode="after")
    def sources_are_listed(self) -> ClinicalFile:
        named = {figure.source for figure in self.figures.values()} | {each.source for each in self.groups.values()}
        if named != set(self.sources):
            raise ValueError(f"sources named and sources listed differ: {', '.join(sorted(named ^ set(self.sources)))}")
        return self


def _files() -> Iterator[Path]:
    yield DATA / "clinical.yaml"
    yield from sorted((DATA.parent / "records").glob("*/clinical.yaml"))


@cache
def _loaded() -> tuple[tuple[Path, ClinicalFile], ...]:
    return tuple((path, load(path, ClinicalFile)) for path in _files())


@cache
def figures() -> Mapping[str, Figure]:
    """Every figure by its code."""
    return _once((path, file.figures) for path, file in _loaded())


@cache
def groups() -> Mapping[str, Group]:
    return _once((path, file.groups) for path, file in _loaded())


Each = TypeVar("Each")


def _once(files: Iterable[tuple[Path, Mapping[str, Each]]]) -> dict[str, Each]:
    found: dict[str, Each] = {}
    for path, own in files:
        for code in own.keys() & found.keys():
            raise DataError(path.name, code, "this figure stands elsewhere already")
        found |= own
    return found


def clinical(code: str, unit: Unit) -> float:
    """One figure; the unit is said again where it is used, so that no day is taken for a week."""
    figure = figures().get(code)
    if figure is None or figure.unit != unit:
        raise DataError("clinical.yaml", f"figures.{code}", f"there is no such figure in {unit}")
    return figure.value


def days(code: str) -> int:
    """A span in whole days, from a figure in days or weeks."""
    figure = figures().get(code)
    if figure is None or figure.unit not in ("days", "weeks"):
        raise DataError("clinical.yaml", f"figures.{code}", "there is no such span of days or weeks")
    return round(figure.value * (7 if figure.unit == "weeks" else 1))


def group(code: str, among: Collection[str]) -> frozenset[str]:
    """Words that count alike, all of them ``among`` those an answer can be."""
    found = groups().get(code)
    if found is None:
        raise DataError("clinical.yaml", f"groups.{code}", "there is no such group")
    for place, word in enumerate(found.of):
        if word not in among:
            where = next(file for file in map(read, _files()) if code in (file.content.get("groups") or {}))
            raise where.error(("groups", code, "of", place), f"no answer is '{word}'")
    return frozenset(found.of)
