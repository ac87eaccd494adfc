"""What cannot be true, refused when it is entered, with the reason: by hand or from a file alike.

The models of ``clientfile`` say what can be read and reckoned with; what was stored once stays readable. The rules here
ask more of what comes in: dates that can have happened, facts a body can have, set-ups a variation has.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from asketa_core.clientfile import (
    SCOPES,
    AnyEntry,
    Bones,
    BonesFacts,
    ClientFile,
    HipReplacement,
    KneePain,
    Pregnancy,
    PregnancyFacts,
    Response,
    Scope,
    SlotValue,
    Unreadable,
    due_date,
)
from asketa_core.clinical import days
from asketa_core.errors import InputError
from asketa_core.poses.library import Library, Variation
from asketa_core.poses.recipe import ChoiceSlot, NumberSlot, PlaceSlot

EARLIEST = dt.date(1900, 1, 1)
LOWEST_T, HIGHEST_T = -6.0, 4.0
DUE_AHEAD_DAYS = days("pregnancy.due_ahead")
DUE_PAST_DAYS = days("pregnancy.due_past")


@dataclass(frozen=True, slots=True)
class Implausible:
    """One thing that cannot be: a dotted path to it, and why, with what to do."""

    field: str
    message: str


def past_date(field: str, date: dt.date | None, today: dt.date) -> Iterator[Implausible]:
    """A date that has happened: not ahead, and not before anyone alive."""
    if date is not None and date > today:
        yield Implausible(field, "This date lies in the future. Enter the day it happened.")
    elif date is not None and date < EARLIEST:
        yield Implausible(field, "This date lies before 1900. Check the year.")


def implausible_entry(entry: AnyEntry, today: dt.date, birth_date: dt.date | None = None) -> Iterator[Implausible]:
    """Everything about one record that cannot be, by field: ``facts.date``, ``clearances.0.date``."""
    facts = entry.facts
    if isinstance(entry, Unreadable):
        yield Implausible("kind", "This record cannot be read. Enter what it says anew.")
        return
    for name in type(facts).model_fields:
        value = getattr(facts, name)
        if isinstance(value, dt.date) and name != "due_date":
            yield from past_date(f"facts.{name}", value, today)
            if birth_date is not None and value < birth_date:
                yield Implausible(f"facts.{name}", "This date lies before the client was born. Check the year.")
    if isinstance(facts, PregnancyFacts):
        yield from _pregnancy(facts, today)
    if isinstance(facts, BonesFacts):
        yield from _bones(facts, today)
    if entry.from_date is not None and entry.until_date is not None and entry.until_date < entry.from_date:
        yield Implausible("until_date", "The record ends before it begins. Exchange the dates.")
    for place, given in enumerate(entry.clearances):
        yield from _clearance(f"clearances.{place}.date", given.date, entry, today)


def implausible_clearance(
    entry: AnyEntry, date: dt.date, today: dt.date, scope: Sequence[Scope] = ()
) -> Iterator[Implausible]:
    """What cannot be about a clearance for the record it is given for: its date, and what it is about."""
    yield from _clearance("date", date, entry, today)
    allowed = SCOPES.get(entry.kind, ())
    if other := [each for each in scope if each not in allowed]:
        known = ", ".join(allowed) or "nothing"
        yield Implausible("scope", f"A clearance for this record is not about '{other[0]}'. It may be about: {known}.")


def _clearance(field: str, date: dt.date, entry: AnyEntry, today: dt.date) -> Iterator[Implausible]:
    yield from past_date(field, date, today)
    operation = entry.facts.date if isinstance(entry, HipReplacement) else None
    if isinstance(entry, KneePain):
        operation = entry.facts.operation_date
    if operation is not None and date < operation:
        yield Implausible(field, "This clearance is dated before the operation. Check both dates.")


def _pregnancy(facts: PregnancyFacts, today: dt.date) -> Iterator[Implausible]:
    given = next(
        (name for name in ("due_date", "last_period", "weeks_known") if getattr(facts, name) is not None), None
    )
    due = due_date(facts)
    if due is None or given is None:
        return
    field = f"facts.{given}"
    if (due - today).days > DUE_AHEAD_DAYS:
        yield Implausible(field, f"This puts the birth more than {DUE_AHEAD_DAYS // 7} weeks ahead. Check the date.")
    elif facts.born_on is None and (today - due).days > DUE_PAST_DAYS:
        message = f"This puts the birth more than {DUE_PAST_DAYS // 7} weeks ago, and none is recorded."
        yield Implausible(field, f"{message} Check the date, or enter the day of the birth.")


def _bones(facts: BonesFacts, today: dt.date) -> Iterator[Implausible]:
    if facts.t_score is not None and not LOWEST_T <= facts.t_score <= HIGHEST_T:
        message = f"A T-score lies between {LOWEST_T:g} and {HIGHEST_T:g}. Check the report; mind the sign."
        yield Implausible("facts.t_score", message.replace("-", "\N{MINUS SIGN}"))
    for place, fracture in enumerate(facts.fractures or ()):
        yield from past_date(f"facts.fractures.{place}.date", fracture.date, today)


def implausible_beside(entry: AnyEntry, others: Mapping[str, AnyEntry]) -> Iterator[Implausible]:
    """What cannot be beside the other records that stand: one hip replaced twice, two sets of bones."""
    for other in others.values():
        if isinstance(entry, HipReplacement) and isinstance(other, HipReplacement) and entry.side is other.side:
            message = "This hip has a replacement already. Correct that record; a second operation is a revision."
            yield Implausible("side", message)
        if isinstance(entry, Bones) and isinstance(other, Bones):
            yield Implausible("kind", "The bones have a record already. Correct that one.")
        expecting = [e for e in (entry, other) if isinstance(e, Pregnancy) and e.facts.born_on is None]
        if len(expecting) > 1:
            yield Implausible("kind", "A pregnancy without a birth is recorded already. Correct that record.")


def implausible_setup(rung: Variation, setup: Mapping[str, SlotValue], field: str = "setup") -> Iterator[Implausible]:
    """What a variation does not have: slots, choices, and numbers where a choice is meant."""
    for name, value in setup.items():
        slot = rung.setup_slots.get(name)
        where = f"{field}.{name}"
        if slot is None:
            yield Implausible(where, f"This rung has no such slot. It has: {', '.join(rung.setup_slots) or 'none'}.")
        elif isinstance(slot, ChoiceSlot | PlaceSlot):
            if value.choice not in slot.options:
                yield Implausible(where, f"Choose one of: {', '.join(slot.options)}.")
        elif value.choice is not None:
            yield Implausible(where, "This slot has a height, distance or angle, and no choices.")
        elif isinstance(slot, NumberSlot) and value.number is None:
            yield Implausible(where, "Give this slot's number.")


def implausible_response(response: Response, library: Library, today: dt.date) -> Iterator[Implausible]:
    """What cannot be about one hold, by field within it."""
    yield from past_date("date", response.date, today)
    try:
        rung = library.variation(response.variation)
    except InputError as error:
        yield Implausible("variation", f"{error.reason} {error.remedy}".capitalize())
        return
    # A slot a rung no longer has is left out when it is read: what was logged once stays as it was.
    known = {name: value for name, value in response.setup.items() if name in rung.setup_slots}
    yield from implausible_setup(rung, known)


def implausible_file(file: ClientFile, library: Library, today: dt.date) -> Iterator[Implausible]:
    """Everything in a client's file that cannot be, by path."""
    birth = file.client.birth_date
    yield from past_date("client.birth_date", birth, today)
    seen: dict[str, AnyEntry] = {}
    for place, entry in enumerate(file.entries):
        for found in (*implausible_entry(entry, today, birth), *implausible_beside(entry, seen)):
            yield Implausible(f"entries.{place}.{found.field}", found.message)
        seen[entry.id] = entry
    dated = {
        **{f"daily.{k}.date": fact.date for k, fact in enumerate(file.daily)},
        **{f"ranges.{k}.date": measure.date for k, measure in enumerate(file.ranges)},
        **{f"body.{k}.date": measure.date for k, measure in enumerate(file.body)},
    }
    for field, date in dated.items():
        yield from past_date(field, date, today)
    for place, response in enumerate(file.responses):
        for found in implausible_response(response, library, today):
            yield Implausible(f"responses.{place}.{found.field}", found.message)
