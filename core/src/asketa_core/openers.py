"""What would open a variation that is closed, or asked about, for a client today.

Nothing is read off a rule: a later day, a word of the treating professional, an answer, a reading and a prop are each
tried on the whole grid, and only what really opens the variation is named. Where none does by itself, the fewest of them
that do it together are.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any, Literal

from asketa_core.body.measures import body_norms
from asketa_core.body.ranges import PLAUSIBLE_DEG, Quantity
from asketa_core.client.measures import RangeMeasure
from asketa_core.clientfile import ClientFile
from asketa_core.limits.model import Limit, Severity
from asketa_core.poses.library import Variation
from asketa_core.props.kinds import Prop, Room, generic_room
from asketa_core.records.calendar import changes_ahead, with_todays_answers
from asketa_core.records.catalogue import limits_on
from asketa_core.records.entry import Clearance, Entry, Scope
from asketa_core.records.registry import kind_of
from asketa_core.screening.detail import SetupDetail, detail_at, no_stack_words
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Verdict
from asketa_core.texts import Phrase, Said, listed, say
from asketa_core.units import SIDES, Side
from asketa_core.words.findings import entry_words, told_once
from asketa_core.words.limits import missing_facts
from asketa_core.words.recipe import prop_words

AHEAD_DAYS = 182
"""How far ahead a day is looked for: half a year."""

READINGS = tuple(quantity for quantity in Quantity if quantity is not Quantity.NINETY_NINETY_LACK)
"""Ranges of which more may open a shape; the lack is what another of them leaves over."""

By = Literal["date", "clearance", "answer", "reading", "prop", "together"]


@dataclass(frozen=True, slots=True)
class Closed:
    """One thing that closes the best set-up there is, with its source where a rule says so. ``bound`` and ``sides`` say
    what a therapist may have seen otherwise; ``None`` where nothing lifts it."""

    words: Phrase
    severity: str
    source: Phrase | None
    bound: str | None = None
    sides: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Opener:
    """What opens a variation, and the verdict with it. ``entry_id`` is the record where a word or an answer is kept,
    ``date`` the day it opens, ``reading`` the range, its side and the least of it in degrees."""

    by: By
    words: Phrase
    verdict: Verdict
    entry_id: str | None = None
    date: dt.date | None = None
    reading: tuple[Quantity, Side, int] | None = None


@dataclass(frozen=True, slots=True)
class WhyNot:
    """Why a variation is not open to a side, and each thing that would open it by itself, or all it takes together."""

    verdict: Verdict
    closed_by: tuple[Closed, ...]
    openers: tuple[Opener, ...]


# What may come to be different, each small enough to be tried with or without the others.


@dataclass(frozen=True, slots=True)
class Later:
    """Another day, with today's answers as they are."""

    date: dt.date


@dataclass(frozen=True, slots=True)
class Word:
    """The treating professional's word about one scope of a record."""

    entry_id: str
    scope: Scope


@dataclass(frozen=True, slots=True)
class Answered:
    """Whatever nobody knows about a record, answered at best."""

    entry_id: str


@dataclass(frozen=True, slots=True)
class Reading:
    """A range read today by goniometer, whole degrees."""

    quantity: Quantity
    side: Side
    value_deg: int


@dataclass(frozen=True, slots=True)
class OnTheShelf:
    """One more line of stock in the room."""

    prop: Prop


Change = Later | Word | Answered | Reading | OnTheShelf


def why_not(situation: Situation, variation: Variation, side: Side) -> WhyNot:
    """Why a variation is not open to a side today, and what would open it; both empty where it is open. Slow: every try
    screens the variation anew."""
    screened = situation.screen(variation, side)
    if isinstance(screened, NoGrid):
        closed = (Closed(no_stack_words(screened), Severity.STOP.code, None),)
        search = _Search(situation, variation, side, ())
        return WhyNot(Verdict.LEAVE_OUT, closed, tuple(search.openers()))
    if screened.allowed(screened.recommended):
        return WhyNot(screened.verdict, (), ())
    best = detail_at(situation, screened, screened.recommended)
    search = _Search(situation, variation, side, _limits_of(situation, best))
    return WhyNot(screened.verdict, tuple(_closed_by(best)), tuple(search.openers()))


def _closed_by(best: SetupDetail) -> Iterator[Closed]:
    """What keeps the best set-up from being offered: the same sentences as everywhere, with their sources."""
    for finding in told_once(finding for finding in best.findings if finding.severity != Severity.CAUTION.code):
        yield Closed(finding.sentence, finding.severity, finding.authority or None)
    for unmet in best.unmet:
        yield Closed(unmet.words, Severity.STOP.code, None, unmet.bound, unmet.sides)


def _limits_of(situation: Situation, best: SetupDetail) -> tuple[Limit, ...]:
    """The limits of today that close the best set-up."""
    codes = {
        (code, entry_id)
        for finding in best.findings
        if finding.severity != Severity.CAUTION.code
        for code in finding.codes
        for entry_id in finding.entry_ids or (None,)
    }
    return tuple(limit for limit in situation.limits if (limit.code, limit.entry_id) in codes)


@dataclass(frozen=True, slots=True)
class _Search:
    """What would open one variation to one side; ``bound_by`` are the limits that close it today."""

    situation: Situation
    variation: Variation
    side: Side
    bound_by: tuple[Limit, ...]

    def openers(self) -> Iterator[Opener]:
        days, words, answers = list(self.days()), list(self.words()), list(self.answers())
        readings, props = list(self.readings()), [OnTheShelf(prop) for prop in generic_room().props]
        alone: list[Opener] = []
        for changes in (days, words, answers, readings, props):
            alone += self.alone(changes)
        yield from alone
        if not alone:
            yield from self.together([*days[-1:], *readings, *props, *reversed(words), *answers])

    def alone(self, changes: list[Any]) -> Iterator[Opener]:
        """Those that open it by themselves; of days the first, of words about everything only where no lesser one does."""
        # With all of them at once nothing opens that one of them would: most searches end here. Later days may also close.
        if not changes or (not isinstance(changes[0], Later) and self.verdict(changes) is None):
            return
        found: set[str] = set()
        for change in changes:
            if isinstance(change, Word) and change.scope == "all" and change.entry_id in found:
                continue
            verdict = self.verdict([change])
            if verdict is None:
                continue
            if isinstance(change, Word):
                found.add(change.entry_id)
            yield self.said(*(self.least(change, [], verdict) if isinstance(change, Reading) else (change, verdict)))
            if isinstance(change, Later):
                return

    def together(self, changes: list[Change]) -> Iterator[Opener]:
        """The fewest that open it, found by leaving out one after the other; nothing where all of them do not."""
        verdict = self.verdict(changes)
        if verdict is None:
            return
        needed = changes
        for change in changes:
            fewer = [each for each in needed if each is not change]
            if (without := self.verdict(fewer)) is not None:
                needed, verdict = fewer, without
        for change in list(needed):
            if isinstance(change, Reading):
                others = [each for each in needed if each is not change]
                least, verdict = self.least(change, others, verdict)
                needed = [*others, least]
        words = tuple(self.said(change, verdict).words for change in needed)
        yield Opener("together", say("openers", "together", what=words), verdict)

    def verdict(self, changes: Iterable[Change]) -> Verdict | None:
        """The verdict with some changes where it opens; else ``None``."""
        screened = _with(self.situation, changes).screen(self.variation, self.side)
        if isinstance(screened, NoGrid) or not screened.allowed(screened.recommended):
            return None
        return screened.verdict

    def least(self, reading: Reading, others: list[Change], verdict: Verdict) -> tuple[Reading, Verdict]:
        """The least reading that still opens it, by halving, and the verdict with it."""
        now = self.situation.ranges.get(reading.quantity, reading.side)
        floor = int(PLAUSIBLE_DEG[reading.quantity][0])
        low = max(floor, int(now.value_deg - (0.0 if now.measured else now.error_deg))) - 1
        high = reading.value_deg
        while high - low > 1:
            middle = (low + high) // 2
            found = self.verdict([*others, replace(reading, value_deg=middle)]) if middle >= floor else None
            low, high, verdict = (low, middle, found) if found is not None else (middle, high, verdict)
        return replace(reading, value_deg=high), verdict

    def days(self) -> Iterator[Later]:
        """The days on which something ends of what closes it, or of what binds in its place by then."""
        ids = {limit.identity for limit in self.bound_by}
        if not ids:
            return
        for change in changes_ahead(self.situation.client, self.situation.date, AHEAD_DAYS):
            if ids & {limit.identity for limit in change.ends}:
                yield Later(change.date)
                ids |= {limit.identity for limit in change.begins}

    def words(self) -> Iterator[Word]:
        """About one thing each; about everything last."""
        for entry in self.entries:
            for scope in sorted(kind_of(entry).scopes, key=lambda scope: scope == "all"):
                yield Word(entry.id, scope)

    def answers(self) -> Iterator[Answered]:
        for entry in self.entries:
            if any(limit.missing for limit in self.bound_by if limit.entry_id == entry.id):
                yield Answered(entry.id)

    def readings(self) -> Iterator[Reading]:
        """Every range at the upper end of what people usually have, where that is more than was read."""
        for quantity in READINGS:
            norm = body_norms().ranges[quantity.value]
            most = int(norm.value + norm.error)
            for side in SIDES:
                now = self.situation.ranges.get(quantity, side)
                if not now.measured or now.value_deg < most:
                    yield Reading(quantity, side, most)

    @property
    def entries(self) -> list[Entry[Any]]:
        ids = {limit.entry_id for limit in self.bound_by}
        return [entry for entry in self.situation.client.entries if entry.id in ids]

    def said(self, change: Change, verdict: Verdict) -> Opener:
        """A change in words."""
        match change:
            case Later(date):
                return Opener("date", say("openers", "date", date=date), verdict, date=date)
            case Word(entry_id, scope):
                entry = self.entry(entry_id)
                what: Phrase = kind_of(entry).say("scopes", scope)
                return Opener("clearance", self.of_record("clearance", entry, what), verdict, entry_id)
            case Answered(entry_id):
                open_ones = [limit for limit in self.bound_by if limit.entry_id == entry_id]
                facts = self.of_record("answer", self.entry(entry_id), listed(missing_facts(open_ones)))
                return Opener("answer", facts, verdict, entry_id)
            case Reading(quantity, side, value):
                now = self.situation.ranges.get(quantity, side)
                code = "reading" if now.measured else "first_reading"
                name, at = say("recipe", "range", quantity.value), say("sides", side.value)
                words = say("openers", code, range=name, side=at, value=value, now=round(now.value_deg))
                return Opener("reading", words, verdict, reading=(quantity, side, value))
            case OnTheShelf(prop):
                return Opener("prop", say("openers", "prop", what=prop_words(prop.kind)), verdict)

    def entry(self, entry_id: str) -> Entry[Any]:
        return next(entry for entry in self.entries if entry.id == entry_id)

    def of_record(self, code: str, entry: Entry[Any], what: Phrase) -> Said:
        return say("openers", code, what=what, record=entry_words(entry, self.situation.date))


def _with(situation: Situation, changes: Iterable[Change]) -> Situation:
    """The situation as it would be with some changes."""
    client, room, date = situation.client, situation.room, situation.date
    answered: set[str] = set()
    for change in changes:
        match change:
            case Later(date):
                pass
            case Word(entry_id, scope):
                client = _with_word(client, entry_id, Clearance(who="doctor", date=situation.date, scope=(scope,)))
            case Answered(entry_id):
                answered.add(entry_id)
            case Reading(quantity, side, value):
                read = RangeMeasure(
                    quantity=quantity, side=side, value_deg=value, method="goniometer", date=situation.date
                )
                client = client.model_copy(update={"ranges": (*client.ranges, read)})
            case OnTheShelf(prop):
                room = Room(props=(*room.stock, prop.model_copy(update={"id": f"more {prop.id}"})))
    client = with_todays_answers(client, situation.date, date)
    ranges = client.latest_ranges(date)
    limits = tuple(
        limit for limit in limits_on(client, date, ranges) if not (limit.missing and limit.entry_id in answered)
    )
    return replace(situation, client=client, date=date, room=room, ranges=ranges, limits=limits, memo={})


def _with_word(client: ClientFile, entry_id: str, word: Clearance) -> ClientFile:
    entries = tuple(
        entry.model_copy(update={"clearances": (*entry.clearances, word)}) if entry.id == entry_id else entry
        for entry in client.entries
    )
    return client.model_copy(update={"entries": entries})
