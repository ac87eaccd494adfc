"""What to mind today: the few lines a therapist glances at before touching anyone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from asketa_core.body.ranges import Quantity
from asketa_core.clientfile import (
    AnyEntry,
    Bones,
    GroinPinch,
    Hamstrings,
    HipReplacement,
    KneePain,
    LowBackEntry,
    Pregnancy,
    PregnancyFacts,
    Unreadable,
    WithSymptoms,
    Wrist,
    due_date,
    pregnancy_week,
)
from asketa_core.clinical import clinical
from asketa_core.limits import bones, hip_replacement, pregnancy
from asketa_core.limits.calendar import Change, next_change
from asketa_core.limits.catalogue import ADULT_YEARS, limits_of
from asketa_core.limits.dates import weeks_between
from asketa_core.limits.knee import daily_fact
from asketa_core.limits.model import Limit, Severity
from asketa_core.poses.library import Family, Variation
from asketa_core.progress.responses import worked_families
from asketa_core.screening import Situation
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.search import lowest_seat_cm
from asketa_core.texts import texts
from asketa_core.units import SIDES, Side
from asketa_core.words.catalogue import say, sentence_case
from asketa_core.words.findings import entry_label, missing_facts, row_words, short_words

ASYMMETRY_DEG = clinical("sides.differ", "deg")
"""A difference between the sides worth saying before the session."""


@dataclass(frozen=True, slots=True)
class Note:
    """One line for a side (``None``: the middle). ``weight`` is ``fact``, ``limit`` or ``ask``."""

    side: str | None
    text: str
    weight: str
    entry_id: str | None = None


@dataclass(frozen=True, slots=True)
class ChangeNote:
    date: dt.date
    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Mind:
    notes: tuple[Note, ...]
    next_change: ChangeNote | None
    disclaimer: str


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
        if isinstance(entry, HipReplacement):
            notes.extend(_hip_notes(entry, situation, limits))
        elif isinstance(entry, KneePain):
            notes.extend(_knee_notes(entry, situation, limits))
        elif isinstance(entry, Pregnancy):
            notes.extend(_pregnancy_notes(entry, situation, limits))
        elif isinstance(entry, Bones):
            notes.extend(_bones_notes(entry, situation, limits))
        elif isinstance(entry, Unreadable):
            notes.append(Note(None, say("mind", "entry_unreadable", reason=entry.facts.reason), "ask", entry.id))
        else:
            notes.extend(_companion_notes(entry, limits))
    notes.extend(_asymmetry(situation))
    notes.extend(promised)
    change = next_change(situation.client, situation.date)
    return Mind(
        tuple(notes),
        change_note(change) if change is not None else None,
        str(texts()["disclaimer"]),
    )


def _asks(entry: AnyEntry, limits: list[Limit]) -> list[Note]:
    """What is asked about everything, and the facts because of which some stops only ask."""
    everything = [limit for limit in limits if limit.severity is Severity.ASK and not limit.terms]
    notes = [Note(_side(entry), sentence_case(words) + ".", "ask", entry.id) for words in short_words(everything)]
    facts = missing_facts(limit for limit in limits if limit.severity is Severity.ASK)
    if facts:
        notes.append(Note(_side(entry), say("mind", "ask", what=", ".join(facts)), "ask", entry.id))
    return notes


def _lists_not_asked(entries: Iterable[AnyEntry]) -> list[Note]:
    """One question at the top: what must not wait, and the list before working in pregnancy. Not asked, they close
    nothing."""
    found: dict[str, str] = {}
    for entry in entries:
        facts = entry.facts
        if isinstance(facts, WithSymptoms) and not facts.symptoms_now:
            found.setdefault(say("mind", "symptoms_not_asked"), entry.id)
        if isinstance(facts, PregnancyFacts) and not facts.ticks and facts.born_on is None:
            found.setdefault(say("mind", "ticks_not_asked"), entry.id)
    return [Note(None, text, "ask", entry_id) for text, entry_id in found.items()]


def _age(situation: Situation) -> list[Note]:
    age = situation.client.age_on(situation.date)
    return [] if age is None or age >= ADULT_YEARS else [Note(None, say("mind", "not_grown", age=age), "fact")]


def _side(entry: AnyEntry) -> str | None:
    return entry.side.value if entry.side is not None else None


def _stops(entry: AnyEntry, limits: list[Limit]) -> list[Note]:
    """Everything an entry closes today as one line."""
    stops = [limit for limit in limits if limit.severity is Severity.STOP]
    return [Note(_side(entry), sentence_case(", ".join(short_words(stops))) + ".", "limit", entry.id)] if stops else []


def _hip_notes(entry: HipReplacement, situation: Situation, limits: list[Limit]) -> list[Note]:
    facts, side = entry.facts, entry.side.value
    approach = say("facts", facts.approach)
    if facts.date is None:
        head = say("mind", "entry_hip_undated", approach=approach)
    else:
        head = say("mind", "entry_hip", approach=approach, week=weeks_between(facts.date, situation.date))
    notes = [Note(side, head, "fact", entry.id), *_stops(entry, limits)]
    context = hip_replacement.context(entry, situation.client, situation.date)
    given = hip_replacement.counting_clearances(entry, situation.date)
    if context.precautions == "ended":
        notes.append(
            Note(side, say("mind", "cleared", date=f"{max(c.date for c in given):%-d %B %Y}"), "fact", entry.id)
        )
    elif context.period == "after":
        weeks = situation.client.settings.first_weeks_after_hip
        notes.append(Note(side, say("mind", "clearance_due", weeks=weeks), "ask", entry.id))
    else:
        notes.append(Note(side, say("mind", "no_clearance"), "fact", entry.id))
    notes += _seat(entry, situation) if context.precautions == "run" else []
    if facts.leg_length_difference_cm:
        notes.append(
            Note(None, say("mind", "leg_length", value=f"{facts.leg_length_difference_cm:g}"), "fact", entry.id)
        )
    return notes + _asks(entry, limits)


def _seat(entry: HipReplacement, situation: Situation) -> list[Note]:
    """How high a seat, bed or plinth has to be while the hip's precautions run, for this body."""
    if situation.client.latest_measure("stature", situation.date) is None:
        return []
    height = lowest_seat_cm(situation.body, situation.ranges, situation.limits)
    return [] if height is None else [Note(_side(entry), say("mind", "seat", height=f"{height:.0f}"), "fact", entry.id)]


def _knee_notes(entry: KneePain, situation: Situation, limits: list[Limit]) -> list[Note]:
    side, diagnosis = entry.side.value, entry.facts.diagnosis
    words = say("facts", "unknown_diagnosis" if diagnosis == "unknown" else diagnosis)
    notes = [Note(side, say("mind", "entry_knee", diagnosis=words), "fact", entry.id)]
    daily = daily_fact(entry.id, situation.client, situation.date)
    if daily is None or daily.pain_today is None:
        notes.append(Note(side, say("mind", "pain_unknown"), "ask", entry.id))
    else:
        notes.append(
            Note(side, say("mind", "pain", pain=daily.pain_today, date=f"{daily.date:%-d %B}"), "fact", entry.id)
        )
    binding = [limit for limit in limits if limit.severity in (Severity.STOP, Severity.CAUTION)]
    own = [
        limit for limit in binding if not limit.code.startswith(("knee.three_factors", "knee.twist_far", "knee.twist"))
    ]
    if own:
        notes.append(Note(side, sentence_case(", ".join(short_words(own))) + ".", "limit", entry.id))
    return notes + _asks(entry, limits)


def _pregnancy_notes(entry: Pregnancy, situation: Situation, limits: list[Limit]) -> list[Note]:
    facts, date = entry.facts, situation.date
    week, due = pregnancy_week(facts, date), due_date(facts)

    def note(text: str, weight: str = "fact") -> Note:
        return Note(None, text, weight, entry.id)

    if facts.born_on is not None and facts.born_on <= date:
        return [note(say("mind", "entry_born", date=f"{facts.born_on:%-d %B %Y}")), *_asks(entry, limits)]
    if week is None or due is None:
        notes = [note(say("mind", "entry_pregnancy_undated"))]
    else:
        notes = [note(say("mind", "entry_pregnancy", week=week, date=f"{due:%-d %B %Y}"))]
    if facts.ticks == ("none",):
        notes.append(note(say("mind", "ticks_clean")))
    until = pregnancy.go_ahead_until(entry, date)
    if until is not None and until >= date:
        notes.append(note(say("mind", "go_ahead_until", date=f"{until:%-d %B}")))
    if facts.girdle_pain == "yes":
        if facts.pain_free_gap_cm is not None:
            notes.append(note(say("mind", "girdle", gap=f"{facts.pain_free_gap_cm:g}"), "limit"))
        daily = daily_fact(entry.id, situation.client, date)
        if daily is None or daily.pain_today is None:
            notes.append(note(say("mind", "girdle_unknown"), "ask"))
        else:
            notes.append(note(say("mind", "girdle_today", pain=daily.pain_today, date=f"{daily.date:%-d %B}")))
    notes += _stops(entry, limits)
    notes.append(note(say("mind", "stop_and_call"), "limit"))
    return notes + _asks(entry, limits)


def _bones_notes(entry: Bones, situation: Situation, limits: list[Limit]) -> list[Note]:
    row = bones.row_of(entry.facts)
    notes = [Note(None, say("mind", "entry_bones", row=row_words(row)), "fact", entry.id)]
    if entry.facts.t_score is not None:
        notes.append(Note(None, say("mind", "t_score", t=f"{entry.facts.t_score:g}"), "fact", entry.id))
    notes += _stops(entry, limits)
    if set(bones.rows_possible(entry.facts)) & {1, 2}:
        notes.append(Note(None, say("mind", "roll_to_sit"), "limit", entry.id))
    return notes + _asks(entry, limits)


def _companion_notes(entry: GroinPinch | Hamstrings | LowBackEntry | Wrist, limits: list[Limit]) -> list[Note]:
    if isinstance(entry, LowBackEntry | Wrist):
        binding = [limit for limit in limits if limit.severity in (Severity.STOP, Severity.CAUTION)]
        words = sentence_case(", ".join(short_words(binding))) + "."
        head = Note(_side(entry), f"{sentence_case(entry_label(limits[0]))}.", "fact", entry.id)
        return [head, Note(_side(entry), words, "limit", entry.id), *_asks(entry, limits)]
    if isinstance(entry, Hamstrings):
        text = say("mind", "entry_hamstrings", low_back=say("low_backs", entry.facts.low_back))
    elif entry.facts.straight_deg is None:
        text = say("mind", "entry_groin_unknown")
    else:
        out = entry.facts.turned_out_deg
        shown = "?" if out is None else f"{out:g}"
        text = say("mind", "entry_groin", straight=f"{entry.facts.straight_deg:g}", out=shown)
    return [Note(_side(entry), text, "fact", entry.id), *_asks(entry, limits)]


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
        value=f"{values[less].value_deg:.0f}",
        difference=f"{difference:.0f}",
        other=less.other.value,
    )
    return [Note(less.value, text, "fact")]


def change_note(change: Change) -> ChangeNote:
    """A coming change in words: what ends and what begins."""

    def side_words(limits: Iterable[Limit]) -> list[str]:
        grouped: dict[Side | None, list[Limit]] = {}
        for limit in limits:
            grouped.setdefault(limit.side, []).append(limit)
        both = [limits for side, limits in grouped.items() if side is None]
        return [
            f"{sentence_case(side.value)}: {', '.join(short_words(found))}" for side, found in grouped.items() if side
        ] + [sentence_case(", ".join(short_words(found))) for found in both]

    lines = [say("changes", "ends", what=words) + "." for words in side_words(change.ends)]
    lines += [say("changes", "begins", what=words) + "." for words in side_words(change.begins)]
    return ChangeNote(change.date, tuple(lines))


def rungs_of_change(situation: Situation, date: dt.date, allowed: Allowed = is_allowed) -> tuple[str, ...]:
    """Which rungs a change lets in or puts out, in words. Slow the first time: every rung of every ladder worked on is
    screened today and on the day of the change."""
    lets_in, puts_out = opened_and_closed(situation, date, allowed)
    lines = []
    if lets_in:
        lines.append(say("changes", "lets_in", names="; ".join(lets_in)) + ".")
    if puts_out:
        lines.append(say("changes", "puts_out", names="; ".join(puts_out)) + ".")
    return tuple(lines)


FEW_RUNGS = 3
"""This many rungs of one ladder are named one by one; more are counted."""


def opened_and_closed(
    situation: Situation, date: dt.date, allowed: Allowed = is_allowed
) -> tuple[list[str], list[str]]:
    """Rungs of the ladders this client works on that are allowed on ``date`` and not today, and the reverse,
    ladder by ladder in words."""
    later = situation.on(date)
    lets_in, puts_out = [], []
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


def _rungs_words(family: Family, side: Side | None, rungs: list[Variation]) -> str:
    what = ", ".join(rung.short for rung in rungs) if len(rungs) <= FEW_RUNGS else f"{len(rungs)} rungs"
    return f"{family.name.en}{'' if side is None else f', {side.value}'}: {what}"
