"""A kind of record: everything the rest of Asketa asks of it, as one value."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from pathlib import Path
from typing import Any, Literal, get_args, get_type_hints

from asketa_core.answers import Professional
from asketa_core.body.measures import Pregnancy as GrowingBelly
from asketa_core.body.ranges import GroinPinch as PinchRange
from asketa_core.datafiles import Record, checked, read
from asketa_core.errors import DataError
from asketa_core.limits.model import Limit, Meaning, RowFile, rows_of
from asketa_core.records.asked import daily_fact
from asketa_core.records.entry import Entry, Scope
from asketa_core.records.facts import WithSymptoms
from asketa_core.records.implausible import Implausible
from asketa_core.records.instructions import Figure, Instruction
from asketa_core.records.known import Known, News
from asketa_core.texts import Own, Param, Phrase, Said, has, listed, say
from asketa_core.words.limits import (
    binding_words,
    figure_words,
    full_stop,
    instruction_words,
    missing_facts,
    short_words,
    stop_words,
)

FOLDER = Path(__file__).parent


@dataclass(frozen=True, slots=True)
class When:
    """A question depends on what was answered before it: that ``fact`` is one of ``among``, or whether it was
    ``answered`` at all."""

    fact: str
    among: tuple[str, ...] = ()
    answered: bool = True


@dataclass(frozen=True, slots=True)
class Question:
    """One fact that is asked, and when; all conditions must hold."""

    fact: str
    when: tuple[When, ...] = ()
    group: str | None = None
    """What it is asked together with: a code of the catalogue's ``groups``."""
    if_any: bool = False
    """Whether no answer means that there is nothing to tell, and is not missing."""


def asked(fact: str, *when: When) -> Question:
    return Question(fact, when)


def if_any(fact: str, *when: When) -> Question:
    """A question that nobody answers where there is nothing to tell."""
    return Question(fact, when, if_any=True)


def together(group: str, *questions: Question) -> tuple[Question, ...]:
    """Questions that stand under one heading."""
    return tuple(replace(question, group=group) for question in questions)


@dataclass(frozen=True, slots=True)
class Note:
    """One line for a side (``None``: the middle). ``weight`` is ``fact``, ``limit``, ``ask`` or ``promise``."""

    side: str | None
    text: Phrase
    weight: str
    entry_id: str | None = None
    waits: bool = False
    """Whether it waits for the treating professional's word."""


@dataclass(frozen=True, slots=True)
class Operation:
    """A joint that was operated, and when; ``None`` while nobody knows."""

    date: dt.date | None


@dataclass(frozen=True, slots=True)
class Opened:
    """A record that another one opens by itself: its kind and facts."""

    kind: str
    facts: Mapping[str, Any]


@dataclass(frozen=True)
class About:
    """One record on a date, for saying what to mind of it. ``limits`` are its own."""

    kind: Kind
    entry: Entry[Any]
    client: Known
    date: dt.date
    limits: Sequence[Limit]
    lowest_seat_cm: Callable[[], float | None] = lambda: None
    """How high a seat has to be for this body; ``None`` where nothing asks for it, or the stature is not known."""

    def note(self, text: Phrase, weight: str = "fact", middle: bool = False) -> Note:
        side = None if middle or self.entry.side is None else self.entry.side.value
        return Note(side, text, weight, self.entry.id)

    def said(self, code: str, weight: str = "fact", **params: Param) -> Note:
        """A sentence of the kind's own words."""
        return self.note(self.kind.say("mind", code, **params), weight)

    def waits_for(self, code: str, **params: Param) -> Note:
        """A sentence about a word of the treating professional that is due, or soon will be."""
        return replace(self.said(code, "ask", **params), waits=True)

    def head(self) -> Note:
        return self.note(full_stop(self.kind.label_on(self.entry, self.date)))

    def pain(self, today: str = "pain", unknown: str = "pain_unknown") -> Note:
        """How much it hurts as asked at arrival, or that it is to be asked."""
        daily = daily_fact(self.entry.id, self.client, self.date)
        if daily is None or daily.pain_today is None:
            return self.note(self.kind.own_or_shared("mind", unknown), "ask")
        return self.note(self.kind.own_or_shared("mind", today, pain=daily.pain_today, date=daily.date))

    def stops(self) -> list[Note]:
        """Everything the record closes today as one line."""
        words = stop_words(self.limits)
        return [self.note(words, "limit")] if words else []

    def said_by_others(self) -> list[Note]:
        """What the treating professional said and that still counts, in their words; figures without words name what they
        set. A figure of a rule that does not hold is asked about: it would set nothing, and nobody would know."""
        notes = []
        for each in self.entry.instructions:
            if not each.counts_on(self.date):
                continue
            by = instruction_words(each)
            own = short_words(limit for limit in self.limits if limit.said_by == each)
            if each.text.strip() or own:
                said = Own(each.text.strip()) if each.text.strip() else listed(own)
                notes.append(self.note(say("instructions", "said", by=by, what=said)))
            if idle := [figure_words(figure.rule, figure.value) for figure in self._idle(each)]:
                notes.append(self.note(say("instructions", "idle", by=by, what=listed(idle)), "ask"))
        return notes

    def _idle(self, said: Instruction) -> list[Figure]:
        """The figures of a word whose rules hold for the record no more, or not yet."""
        holding = {(limit.code, term.readout) for limit in self.limits for term in limit.terms}
        return [figure for figure in said.figures if (figure.rule, figure.readout) not in holding]

    def binding(self, besides: Sequence[str] = ()) -> list[Note]:
        """Everything that closes or stays under the eye as one line, ``besides`` what every record of the kind says."""
        words = binding_words(limit for limit in self.limits if not limit.code.startswith(tuple(besides)))
        return [self.note(words, "limit")] if words else []

    def asks(self) -> list[Note]:
        """What is asked about everything, and the facts because of which some stops only ask."""
        everything = [limit for limit in self.limits if limit.severity.code == "ask" and not limit.terms]
        notes = [self.note(full_stop(words), "ask") for words in short_words(everything)]
        facts = missing_facts(limit for limit in self.limits if limit.severity.code == "ask")
        return [*notes, self.note(say("mind", "ask", what=listed(facts)), "ask")] if facts else notes


def what_binds(about: About) -> Iterable[Note]:
    """What it is, what binds, and what is asked: enough for most kinds."""
    return [about.head(), *about.binding(), *about.asks()]


Urgency = Literal["emergency", "now", "today", "soon"]
"""How soon somebody is called, the most urgent first."""


class Signs(Record):
    """Signs that belong to a doctor: which fact lists them, who treats the record, and how soon each is a call."""

    fact: str = "symptoms_now"
    who: Professional
    signs: dict[str, Urgency]


Fact = str | int | None
"""What the label of a record may name: a code or a figure."""

Sides = Literal["sided", "middle", "either"]


def any_word_for(entry: Entry[Any], scope: Scope, date: dt.date) -> bool:
    """Whether a clearance for a scope, or for everything, has been given by a date."""
    return any(c.date <= date and (scope in c.scope or "all" in c.scope) for c in entry.clearances)


def as_recorded(entry: Entry[Any], client: Known, date: dt.date) -> tuple[Meaning]:
    """The meaning of a record whose rules ask about its facts as they are."""
    return (Meaning(entry.facts),)


def certain(context: Callable[[Any, Known, dt.date], object]) -> Callable[..., tuple[Meaning]]:
    """Meanings of a kind whose records mean one thing on a date."""
    return lambda entry, client, date: (Meaning(context(entry, client, date)),)


def _ticks(facts: type[Record], fact: str) -> tuple[str, ...]:
    """The answers of a list gone through together."""
    listing = get_args(get_type_hints(facts)[fact])[0]
    return tuple(get_args(listing))


@dataclass(frozen=True)
class Kind:
    """One kind of record. ``code`` is the folder's name. What is left out of a kind does not concern it.

    ``means`` is what a record comes to on a date, and ``context`` the class of it that the rules are checked against; the
    facts themselves where nothing has to be worked out. ``place`` is
    where it is pinned on the body seen from behind, of 100 × 212, for the left; the right is mirrored.
    """

    code: str
    sides: Sides
    facts: type[Record]
    place: tuple[float, float]
    context: type | None = None
    means: Callable[[Any, Known, dt.date], Sequence[Meaning]] = as_recorded
    questions: tuple[Question, ...] = ()
    rank: int = 100
    """Where it stands in lists; the lower first."""
    scopes: tuple[Scope, ...] = ()
    """What a clearance may be about, the usual first."""
    read_only_scopes: tuple[Scope, ...] = ()
    """Scopes that are still read, and not offered any more."""
    can_be_recorded: bool = True
    ahead: frozenset[str] = frozenset()
    """Facts whose dates may lie ahead."""
    cleared: Callable[[Any, Scope, dt.date], bool] = any_word_for
    asks_again: Callable[[Any, Known, dt.date], tuple[str, ...]] = lambda entry, client, date: ()
    """What must be known again before a clearance counts."""
    params: Callable[[Any, dt.date], Mapping[str, Fact]] = lambda entry, date: {}
    """Facts its label may name, as codes and figures."""
    named_by: str | None = None
    """The one of its ``params`` whose answer in words stands in its name."""
    label: Callable[[Mapping[str, Fact]], Phrase] | None = None
    """A record in a few words, from its ``params``, where that takes more than the words of the kind."""
    mind: Callable[[About], Iterable[Note]] = what_binds
    asked_today: Callable[[Any, dt.date], bool] = lambda facts, date: False
    """Whether how it is today is asked at every arrival."""
    irritable_asked: bool = False
    """Whether it is asked with it if it stays sore until the next day, once stirred up."""
    list_not_asked: Callable[[Any], bool] = lambda facts: False
    """Whether a list of its own is to be gone through before the first pose and nobody did."""
    implausible: Callable[[Any, dt.date], Iterator[Implausible]] = lambda facts, today: iter(())
    beside: Callable[[Any, Any], Iterator[Implausible]] = lambda entry, other: iter(())
    """What cannot be beside another record of the same kind."""
    operation: Callable[[Any], Operation | None] = lambda facts: None
    belly: Callable[[Any, dt.date], GrowingBelly | None] = lambda facts, date: None
    """How large the belly is to be taken."""
    rounded_cm: Callable[[Any], float] = lambda facts: 0.0
    """How far the back of the head stays from a wall somebody stands against, for its drawing."""
    pinch: Callable[[Any], PinchRange | None] = lambda facts: None
    opens: Callable[[Any], Iterable[Opened]] = lambda facts: ()
    news: Callable[[Any, dt.date], News | None] = lambda entry, date: None
    starting_choices: Callable[[Any], Mapping[str, str]] = lambda facts: {}
    """Where two-way trials of a set-up start on its side."""
    keeps_range: Callable[[Any, dt.date], bool] = lambda facts, date: False
    """Whether steps go only toward strength or longer holds, never toward more range."""
    allows_no_discomfort: Callable[[Any, dt.date], bool] = lambda facts, date: False

    @cached_property
    def rows(self) -> RowFile:
        return rows_of(
            FOLDER / self.code / "rules.yaml", self.code, self.asked_of, self.facts, self.scopes + self.read_only_scopes
        )

    @cached_property
    def signs(self) -> Signs | None:
        """The signs its records ask about, each with how soon it is a call; ``None`` for a kind that asks about none.
        ``DataError`` where the list and the answers that can be given differ."""
        path = FOLDER / self.code / "doctor.yaml"
        if not path.exists():
            if self.asks_symptoms:
                raise DataError(f"{self.code}/doctor.yaml", "(file)", "who is called for which sign stands here")
            return None
        document = read(path)
        found = checked(document, Signs)
        if set(found.signs) | {"none"} != set(_ticks(self.facts, found.fact)):
            raise document.error(("signs",), f"these are not the answers of '{found.fact}'")
        return found

    @property
    def asked_of(self) -> type:
        """What its rules may ask about."""
        return self.facts if self.context is None else self.context

    @property
    def asks_symptoms(self) -> bool:
        return issubclass(self.facts, WithSymptoms)

    def say(self, *path: str, **params: Param) -> Said:
        """A sentence of the kind's own words."""
        return say("records", self.code, *path, **params)

    def own_or_shared(self, section: str, code: str, **params: Param) -> Said:
        """A sentence of the kind's own words, else of those every kind may use."""
        own = has("records", self.code, section, code)
        return self.say(section, code, **params) if own else say(section, code, **params)

    def fact_words(self, fact: str, answer: str) -> Said:
        """An answer in the words of a label."""
        return self.say("facts", f"{fact}_{answer}")

    def answer_words(self, fact: str, answer: str) -> Said:
        """An answer in the words of its question."""
        return self.say("answers", fact, answer)

    def label_of(self, params: Mapping[str, Fact]) -> Phrase:
        if self.label is not None:
            return self.label(params)
        fact = self.named_by
        named = {} if fact is None else {fact: self.fact_words(fact, str(params[fact]))}
        return say("entries", self.code, "therapist", **named)

    def label_on(self, entry: Entry[Any], date: dt.date) -> Phrase:
        return self.label_of(self.params(entry, date))
