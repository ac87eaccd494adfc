"""What to mind today: the few lines a therapist glances at before touching anyone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from asketa_core.body.ranges import Quantity
from asketa_core.clientfile import ClientFile
from asketa_core.clinical import clinical
from asketa_core.limits.model import Limit
from asketa_core.poses.library import Family, Variation
from asketa_core.progress.responses import worked_families
from asketa_core.records.calendar import Change, next_change
from asketa_core.records.catalogue import ADULT_YEARS, limits_of
from asketa_core.records.entry import Entry
from asketa_core.records.kind import About, Note
from asketa_core.records.registry import kind_of
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.ways import lowest_seat_cm
from asketa_core.texts import Phrase, Said, listed, say
from asketa_core.units import SIDES, Side
from asketa_core.words.limits import short_words

ASYMMETRY_DEG = clinical("sides.differ", "deg")
"""A difference between the sides worth saying before the session."""


@dataclass(frozen=True, slots=True)
class ChangeNote:
    date: dt.date
    lines: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class Mind:
    notes: tuple[Note, ...]
    next_change: ChangeNote | None
    disclaimer: Phrase


Allowed = Callable[[Situation, Variation, Side], bool]
"""Whether a variation is open to a side; a caller may answer from a cache."""


def is_allowed(situation: Situation, variation: Variation, side: Side) -> bool:
    screened = situation.screen(variation, side)
    return not isinstance(screened, NoGrid) and screened.allowed(screened.recommended)


def mind_of(situation: Situation, promised: Iterable[Note] = ()) -> Mind:
    """Everything to mind for a client on a date; ``promised`` are lines about the next steps. Nothing is screened:
    which rungs the next change lets in is ``rungs_of_change``."""
    notes: list[Note] = [*_lists_not_asked(situation.client.entries), *_age(situation)]
    for entry in situation.client.entries:
        limits = limits_of(entry, situation.client, situation.date, situation.ranges)
        about = About(kind_of(entry), entry, situation.client, situation.date, limits, lambda: _seat(situation))
        notes.extend(about.kind.mind(about))
        notes.extend(about.said_by_others())
    notes.extend(_asymmetry(situation))
    notes.extend(promised)
    change = next_change(situation.client, situation.date)
    return Mind(
        tuple(notes),
        change_note(change) if change is not None else None,
        say("disclaimer"),
    )


def waiting_on(client: ClientFile, date: dt.date) -> list[Note]:
    """What waits for a treating professional's word, or will within the weeks shown ahead."""
    ranges = client.latest_ranges(date)
    found: list[Note] = []
    for entry in client.entries:
        about = About(kind_of(entry), entry, client, date, limits_of(entry, client, date, ranges))
        found += [note for note in about.kind.mind(about) if note.waits]
    return found


def _lists_not_asked(entries: Iterable[Entry[Any]]) -> list[Note]:
    """One question at the top: what must not wait, and lists to go through first. Not asked, they close nothing."""
    found: dict[Phrase, str] = {}
    for entry in entries:
        kind = kind_of(entry)
        if kind.asks_symptoms and not entry.facts.symptoms_now:
            found.setdefault(say("mind", "symptoms_not_asked"), entry.id)
        if kind.list_not_asked(entry.facts):
            found.setdefault(kind.say("mind", "list_not_asked"), entry.id)
    return [Note(None, text, "ask", entry_id) for text, entry_id in found.items()]


def _age(situation: Situation) -> list[Note]:
    age = situation.client.age_on(situation.date)
    return [] if age is None or age >= ADULT_YEARS else [Note(None, say("mind", "not_grown", age=age), "fact")]


def _seat(situation: Situation) -> float | None:
    """How high a seat, bed or plinth has to be for this body; ``None`` while the stature is not known."""
    if situation.client.latest_measure("stature", situation.date) is None:
        return None
    return lowest_seat_cm(situation.rules)


def _asymmetry(situation: Situation) -> list[Note]:
    """The side that turns out clearly less, when both were measured."""
    values = {side: situation.ranges.get(Quantity.OPEN_EXTERNAL_ROTATION, side) for side in SIDES}
    if not all(value.measured for value in values.values()):
        return []
    less = min(SIDES, key=lambda side: values[side].value_deg)
    difference = values[less.other].value_deg - values[less].value_deg
    if difference < ASYMMETRY_DEG:
        return []
    text = say(
        "mind",
        "turns_out",
        value=round(values[less].value_deg),
        difference=round(difference),
        other=say("sides", less.other.value),
    )
    return [Note(less.value, text, "fact")]


def change_note(change: Change) -> ChangeNote:
    """A coming change in words: what ends and what begins."""

    def side_words(limits: Iterable[Limit]) -> list[Phrase]:
        grouped: dict[Side | None, list[Limit]] = {}
        for limit in limits:
            grouped.setdefault(limit.side, []).append(limit)
        sided: list[Phrase] = [
            say("changes", "on_side", side=say("sides", side.value), words=listed(short_words(found)))
            for side, found in grouped.items()
            if side is not None
        ]
        return sided + [listed(short_words(found)).sentence for side, found in grouped.items() if side is None]

    lines = [say("changes", "ends", what=words) for words in side_words(change.ends)]
    lines += [say("changes", "begins", what=words) for words in side_words(change.begins)]
    return ChangeNote(change.date, tuple(lines))


def rungs_of_change(situation: Situation, date: dt.date, allowed: Allowed = is_allowed) -> tuple[Phrase, ...]:
    """Which rungs a change lets in or puts out, in words. Slow the first time: every rung of every ladder worked on is
    screened today and on the day of the change."""
    lets_in, puts_out = opened_and_closed(situation, date, allowed)
    lines = []
    if lets_in:
        lines.append(say("changes", "lets_in", names=tuple(lets_in)))
    if puts_out:
        lines.append(say("changes", "puts_out", names=tuple(puts_out)))
    return tuple(lines)


FEW_RUNGS = 3
"""This many rungs of one ladder are named one by one; more are counted."""


def opened_and_closed(
    situation: Situation, date: dt.date, allowed: Allowed = is_allowed
) -> tuple[list[Phrase], list[Phrase]]:
    """Rungs of the ladders this client works on that are allowed on ``date`` and not today, and the reverse,
    ladder by ladder in words."""
    later = situation.on(date)
    lets_in: list[Phrase] = []
    puts_out: list[Phrase] = []
    for family in (situation.library.families[name] for name in sorted(worked_families(situation.client))):
        for side in SIDES[:1] if family.shared else SIDES:
            opened, closed = [], []
            for variation in family.variations:
                now, then = allowed(situation, variation, side), allowed(later, variation, side)
                if then and not now:
                    opened.append(variation)
                if now and not then:
                    closed.append(variation)
            where = None if family.shared else side
            lets_in += [_rungs_words(family, where, opened)] if opened else []
            puts_out += [_rungs_words(family, where, closed)] if closed else []
    return lets_in, puts_out


def _rungs_words(family: Family, side: Side | None, rungs: list[Variation]) -> Said:
    few = len(rungs) <= FEW_RUNGS
    what = listed(rung.short for rung in rungs) if few else say("changes", "many", count=len(rungs))
    if side is None:
        return say("changes", "rungs", family=family.name, rungs=what)
    return say("changes", "rungs_of_side", family=family.name, side=say("sides", side.value), rungs=what)
