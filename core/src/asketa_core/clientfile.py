"""The client file: everything about one client that the engine needs, as JSON.

Absent and unknown are the same for facts; unknown keys are refused with their path. No room in it:
the room belongs to the practice.
"""

from __future__ import annotations

import datetime as dt
from typing import Literal

from pydantic import Field, model_validator

from asketa_core.answers import Day
from asketa_core.body.measures import Body
from asketa_core.body.measures import Pregnancy as GrowingBelly
from asketa_core.body.ranges import Quantity, Range, Ranges, method_error_deg
from asketa_core.body.spine import coupling_from_ninety_ninety
from asketa_core.client.daily import DailyFact, Settings
from asketa_core.client.holds import Response, Trial
from asketa_core.client.measures import BodyMeasure, BodyQuantity, RangeMeasure, SeenOnTheMat, TestResult
from asketa_core.clinical import days
from asketa_core.datafiles import Record
from asketa_core.errors import InputError
from asketa_core.plain_text import Key, Name
from asketa_core.records.known import News
from asketa_core.records.registry import AnyEntry, kind_of
from asketa_core.units import SIDES, Side

FORMAT = "asketa-client"
VERSION = 1


class Person(Record):
    id: Key
    name: Name | None = None
    birth_date: Day | None = None


MORNING_PATIENCE = dt.timedelta(days=days("response.morning_patience"))
"""How long after a hold its next morning may be answered before it counts as not answered."""

MOST_ROWS = 20_000
"""More of one kind than a lifetime of sessions makes."""


class ClientFile(Record):
    format: Literal["asketa-client"]
    version: Literal[1]
    client: Person
    entries: tuple[AnyEntry, ...] = Field(default=(), max_length=200)
    daily: tuple[DailyFact, ...] = Field(default=(), max_length=MOST_ROWS)
    ranges: tuple[RangeMeasure, ...] = Field(default=(), max_length=MOST_ROWS)
    body: tuple[BodyMeasure, ...] = Field(default=(), max_length=MOST_ROWS)
    responses: tuple[Response, ...] = Field(default=(), max_length=MOST_ROWS)
    tests: tuple[TestResult, ...] = Field(default=(), max_length=MOST_ROWS)
    seen: tuple[SeenOnTheMat, ...] = Field(default=(), max_length=MOST_ROWS)
    trials: tuple[Trial, ...] = Field(default=(), max_length=MOST_ROWS)
    settings: Settings = Settings()

    @model_validator(mode="after")
    def ids_fit(self) -> ClientFile:
        entries = {entry.id for entry in self.entries}
        if len(entries) != len(self.entries):
            raise ValueError("two entries share an id")
        if len({response.id for response in self.responses}) != len(self.responses):
            raise ValueError("two responses share an id")
        if len({trial.id for trial in self.trials}) != len(self.trials):
            raise ValueError("two trials share an id")
        strangers = {fact.entry_id for fact in self.daily} - entries
        if strangers:
            raise ValueError("a daily fact names an entry that is not in the file")
        return self

    def as_of(self, date: dt.date) -> ClientFile:
        """The file with only what was known on ``date``."""
        return self.model_copy(
            update={
                "daily": tuple(fact for fact in self.daily if fact.date <= date),
                "ranges": tuple(m for m in self.ranges if m.date <= date),
                "body": tuple(m for m in self.body if m.date <= date),
                "responses": tuple(r for r in self.responses if r.date <= date),
                "tests": tuple(t for t in self.tests if t.date <= date),
                "seen": tuple(s for s in self.seen if s.date <= date),
                "trials": tuple(t for t in self.trials if t.date <= date),
            }
        )

    def mornings_open(self, date: dt.date) -> tuple[Response, ...]:
        """Holds of days before ``date`` whose next morning is to be asked about: nobody has told of it, and nobody was asked
        in vain for longer than one may take to answer."""
        return tuple(
            r
            for r in self.responses
            if r.date < date
            and r.settled_next_morning == "unknown"
            and not (r.morning_asked and date > r.date + MORNING_PATIENCE)
        )

    def measured_on(self, side: Side, date: dt.date) -> dt.date | None:
        """The day a range or a test of a side was measured last up to a date; ``None`` where none was."""
        ranges = [m.date for m in self.ranges if m.side is side and m.date <= date]
        tests = [t.date for t in self.tests if t.side is side and t.date <= date]
        return max([*ranges, *tests], default=None)

    def latest_measure(self, quantity: BodyQuantity, date: dt.date) -> float | None:
        """What was measured last up to a date; ``None`` where nothing was."""
        known = [m for m in self.body if m.quantity == quantity and m.date <= date]
        return max(known, key=lambda m: m.date).value if known else None

    def latest_body(self, date: dt.date) -> Body:
        """Stature and weight last measured up to ``date``; ``InputError`` names what is missing."""
        latest: dict[str, float] = {}
        for measure in sorted((m for m in self.body if m.date <= date), key=lambda m: m.date):
            latest[measure.quantity] = measure.value
        if "stature" not in latest:
            raise InputError("body", "the stature is not known.", "Enter the stature under Measures.")
        # Weight changes no angle of a seated leg, only loads in newtons, which use it as a factor.
        rounded = max((kind_of(entry).rounded_cm(entry.facts) for entry in self.entries), default=0.0)
        weight = latest.get("weight", 70.0)
        return Body(latest["stature"], weight, pregnancy=self._belly(date), rounded_cm=rounded)

    def _belly(self, date: dt.date) -> GrowingBelly | None:
        """How large the belly is to be taken on a date; ``None`` when nobody is pregnant."""
        bellies = (kind_of(entry).belly(entry.facts, date) for entry in self.entries)
        return next((belly for belly in bellies if belly is not None), None)

    def news(self, date: dt.date) -> list[News]:
        """What is recorded as having happened up to a date and may reopen what was settled."""
        told = [kind_of(entry).news(entry, date) for entry in self.entries]
        return [news for news in told if news is not None]

    def latest_ranges(self, date: dt.date) -> Ranges:
        """Ranges of motion last measured up to ``date``, the client's own hamstring coupling and groin
        pinch; the rest is the population's."""
        measured: dict[tuple[Quantity, Side], Range] = {}
        for m in sorted((m for m in self.ranges if m.date <= date), key=lambda m: m.date):
            error = m.error_deg if m.error_deg is not None else method_error_deg(m.method)
            measured[(m.quantity, m.side)] = Range(m.value_deg, error, measured=True)
        coupling = {}
        for side in SIDES:
            raised = measured.get((Quantity.STRAIGHT_LEG_RAISE, side))
            lack = measured.get((Quantity.NINETY_NINETY_LACK, side))
            if raised is not None and lack is not None:
                coupling[side] = coupling_from_ninety_ninety(raised.value_deg, lack.value_deg)
        pinch = {
            entry.side: found
            for entry in self.entries
            if entry.side is not None and (found := kind_of(entry).pinch(entry.facts)) is not None
        }
        tests: dict[tuple[str, Side], str] = {
            (test.test, test.side): test.result
            for test in sorted(self.tests, key=lambda t: t.date)
            if test.date <= date
        }
        seen: frozenset[tuple[str, Side]] = frozenset((each.bound, each.side) for each in self.seen if each.holds(date))
        return Ranges.from_measured(measured, coupling, pinch, tests, seen)

    def age_on(self, date: dt.date) -> int | None:
        """Whole years; ``None`` while the birth date is not known."""
        born = self.client.birth_date
        if born is None:
            return None
        return date.year - born.year - ((date.month, date.day) < (born.month, born.day))
