"""What cannot be true, refused when it is entered, with the reason: by hand or from a file alike.

The models of ``clientfile`` say what can be read and reckoned with; what was stored once stays readable. The rules here
ask more of what comes in: dates that can have happened, facts a body can have, set-ups a variation has.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping, Sequence

from asketa_core.client.holds import Response, SlotValue, Trial
from asketa_core.clientfile import ClientFile
from asketa_core.errors import InputError
from asketa_core.poses.library import Library, Variation
from asketa_core.poses.recipe import ChoiceSlot, NumberSlot, PlaceSlot
from asketa_core.records.entry import Scope
from asketa_core.records.implausible import Implausible, past_date
from asketa_core.records.instructions import Instruction, unknown_figure
from asketa_core.records.registry import AnyEntry, kind_of
from asketa_core.texts import Own, Phrase, listed, say


def implausible_entry(entry: AnyEntry, today: dt.date, birth_date: dt.date | None = None) -> Iterator[Implausible]:
    """Everything about one record that cannot be, by field: ``facts.date``, ``clearances.0.date``."""
    facts, kind = entry.facts, kind_of(entry)
    if not kind.can_be_recorded:
        yield Implausible("kind", say("implausible", "unreadable"))
        return
    for name in type(facts).model_fields:
        value = getattr(facts, name)
        if isinstance(value, dt.date) and name not in kind.ahead:
            yield from past_date(f"facts.{name}", value, today)
            if birth_date is not None and value < birth_date:
                yield Implausible(f"facts.{name}", say("implausible", "before_birth"))
    yield from kind.implausible(facts, today)
    if entry.from_date is not None and entry.until_date is not None and entry.until_date < entry.from_date:
        yield Implausible("until_date", say("implausible", "ends_first"))
    for place, given in enumerate(entry.clearances):
        yield from _clearance(f"clearances.{place}.date", given.date, entry, today)
        yield from _about(f"clearances.{place}.scope", entry, given.scope)
    for place, said in enumerate(entry.instructions):
        for found in implausible_instruction(entry, said, today):
            yield Implausible(f"instructions.{place}.{found.field}", found.message)


def implausible_clearance(
    entry: AnyEntry, date: dt.date, today: dt.date, scope: Sequence[Scope] = ()
) -> Iterator[Implausible]:
    """What cannot be about a clearance for the record it is given for: its date, and what it is about."""
    yield from _clearance("date", date, entry, today)
    yield from _about("scope", entry, scope)


def implausible_instruction(entry: AnyEntry, given: Instruction, today: dt.date) -> Iterator[Implausible]:
    """What cannot be about a professional's word for the record it is said of: its day, and the figures it sets."""
    yield from _clearance("date", given.date, entry, today)
    if (stray := unknown_figure(kind_of(entry).rows, [given])) is not None:
        yield Implausible("figures", say("implausible", "no_figure", rule=Own(stray.rule)))


def _about(field: str, entry: AnyEntry, scope: Sequence[Scope]) -> Iterator[Implausible]:
    allowed = kind_of(entry).scopes + kind_of(entry).read_only_scopes
    if other := [each for each in scope if each not in allowed]:
        known = _codes(kind_of(entry).scopes) or say("implausible", "about_nothing")
        yield Implausible(field, say("implausible", "not_about", scope=Own(other[0]), known=known))


def _codes(codes: Iterable[str]) -> Phrase:
    """Codes as a program has to send them: the same in every language."""
    return listed(map(Own, codes))


def _clearance(field: str, date: dt.date, entry: AnyEntry, today: dt.date) -> Iterator[Implausible]:
    yield from past_date(field, date, today)
    operation = kind_of(entry).operation(entry.facts)
    if operation is not None and operation.date is not None and date < operation.date:
        yield Implausible(field, say("implausible", "before_operation"))


def implausible_beside(entry: AnyEntry, others: Mapping[str, AnyEntry]) -> Iterator[Implausible]:
    """What cannot be beside the other records that stand: one hip replaced twice, two sets of bones."""
    for other in others.values():
        if other.kind == entry.kind:
            yield from kind_of(entry).beside(entry, other)


def implausible_setup(rung: Variation, setup: Mapping[str, SlotValue], field: str = "setup") -> Iterator[Implausible]:
    """What a variation does not have: slots, choices, and numbers where a choice is meant."""
    for name, value in setup.items():
        slot = rung.setup_slots.get(name)
        where = f"{field}.{name}"
        if slot is None:
            known = _codes(rung.setup_slots) or say("implausible", "no_slots")
            yield Implausible(where, say("implausible", "no_slot", known=known))
        elif isinstance(slot, ChoiceSlot | PlaceSlot):
            if value.choice not in slot.options:
                yield Implausible(where, say("implausible", "no_option", known=_codes(slot.options)))
        elif value.choice is not None:
            yield Implausible(where, say("implausible", "no_choice"))
        elif isinstance(slot, NumberSlot) and value.number is None:
            yield Implausible(where, say("implausible", "no_number"))


def implausible_response(response: Response, library: Library, today: dt.date) -> Iterator[Implausible]:
    """What cannot be about one hold, by field within it."""
    yield from past_date("date", response.date, today)
    try:
        rung = library.variation(response.variation)
    except InputError:
        yield Implausible("variation", say("implausible", "no_variation"))
        return
    # A slot a rung no longer has is left out when it is read: what was logged once stays as it was.
    known = {name: value for name, value in response.setup.items() if name in rung.setup_slots}
    yield from implausible_setup(rung, known)


def implausible_trial(trial: Trial, library: Library, today: dt.date) -> Iterator[Implausible]:
    """What cannot be about two ways that were tried, by field within it."""
    yield from past_date("date", trial.date, today)
    try:
        rung = library.variation(trial.variation)
    except InputError:
        yield Implausible("variation", say("implausible", "no_variation"))
        return
    if trial.slot in rung.setup_slots:
        for which, value in (("a", trial.a), ("b", trial.b)):
            for found in implausible_setup(rung, {trial.slot: value}):
                yield Implausible(which, found.message)


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
    for place, trial in enumerate(file.trials):
        for found in implausible_trial(trial, library, today):
            yield Implausible(f"trials.{place}.{found.field}", found.message)
