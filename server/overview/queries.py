"""Reads that take everything recorded about a client together: the head of every view, records with their limits."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Any, Literal

from django.db.models import Max

from asketa_core import (
    AHEAD_DAYS,
    AnyEntry,
    ClientFile,
    InputError,
    Instruction,
    Note,
    OfferedFigure,
    Phrase,
    Quantity,
    Side,
    Situation,
    TriState,
    change_note,
    changes_ahead,
    checks_of,
    clinical_days,
    doctor_page,
    entry_words,
    figure_words,
    figures_of,
    forms,
    implausible_entry,
    instruction_words,
    irritable_on,
    kind_of,
    limit_lines,
    limits_of,
    mind_of,
    next_change,
    rungs_of_change,
    said,
    worked_families,
)
from clients.models import Client, Entry, SignsAnswer
from clients.queries import client_out
from clients.schemas import EntryIn
from clients.values import read_entry
from common import clock
from common.errors import refuse_implausible
from common.speech import Text, own, words
from engine.adapter import client_file, client_reading
from engine.answers import Today
from overview.schemas import (
    AskedOut,
    CalendarChange,
    CalendarOut,
    CallOut,
    ChangeOut,
    CheckOut,
    ClientHead,
    ComingOut,
    DoctorOut,
    EntryOut,
    EntryShown,
    FigureOut,
    FormOut,
    InstructionOut,
    LimitOut,
    NoteOut,
    PlaceOut,
    SaidFigure,
    StopOut,
)
from visits.models import Visit

STALE_MEASURE_DAYS = clinical_days("measure.stale")
SCREENED_RANGES = (
    Quantity.HIP_FLEXION,
    Quantity.OPEN_EXTERNAL_ROTATION,
    Quantity.KNEE_FLEXION,
    Quantity.STRAIGHT_LEG_RAISE,
)
"""Ranges today's ladders lean on most: the band says when they are missing or old."""


def entries_out(client: Client) -> list[EntryOut]:
    """Standing records with the limits each turns into today."""
    file = client_file(client)
    date = clock.today(client.practice.time_zone)
    ranges = file.latest_ranges(date)
    rows = {str(entry.root): entry for entry in Entry.objects.standing().filter(client=client)}
    found = []
    for value in file.entries:
        row = rows[value.id]
        daily = max((d for d in file.daily if d.entry_id == value.id), key=lambda d: d.date, default=None)
        kind = kind_of(value)
        offered = figures_of(value, file, date, ranges)
        found.append(
            EntryOut(
                id=row.pk,
                root=row.root,
                label=entry_words(value, date),
                operated_on=operation.date if (operation := kind.operation(value.facts)) else None,
                asked_today=kind.asked_today(value.facts, date),
                entry=EntryShown(
                    kind=value.kind, side=value.side, facts=value.facts.model_dump(mode="json", exclude_none=True)
                ),
                clearances=list(value.clearances),
                pain_today=daily.pain_today if daily else None,
                irritable=irritable_of(value, file, date),
                daily_date=daily.date if daily else None,
                recorded_at=row.created_at,
                limits=limits_out(limits_of(value, file, date, ranges)),
                figures=[_figure_out(figure) for figure in offered],
                instructions=[_instruction_out(said, date, offered) for said in value.instructions],
                corrected=row.replaces_id is not None,
            )
        )
    return found


def _figure_out(figure: OfferedFigure) -> FigureOut:
    return FigureOut(
        rule=figure.rule,
        readout=figure.readout,
        words=figure.words,
        above=figure.above,
        value=figure.value,
        unit=figure.unit,
        severity=figure.severity.code,
        said_by=instruction_words(figure.by) if figure.by is not None else "",
    )


def _instruction_out(said: Instruction, date: dt.date, offered: list[OfferedFigure]) -> InstructionOut:
    in_force = {(figure.rule, figure.readout) for figure in offered if figure.by == said}
    return InstructionOut(
        id=uuid.UUID(said.id),
        who=said.who,
        date=said.date,
        until=said.until,
        text=said.text,
        figures=[
            SaidFigure(words=figure_words(figure.rule, figure.value), holds=(figure.rule, figure.readout) in in_force)
            for figure in said.figures
        ],
        counts=said.counts_on(date),
    )


def checks_out(client: Client, file: ClientFile, date: dt.date) -> list[CheckOut]:
    """The signs that belong to a doctor, record by record, with the day each was last gone through; none where no record
    asks about any."""
    asked = dict(
        SignsAnswer.objects.filter(entry__client=client).order_by().values_list("entry__root").annotate(on=Max("date"))
    )
    return [
        CheckOut(
            entry_id=uuid.UUID(check.entry_id),
            label=check.label,
            side=check.side,
            signs=dict(check.signs),
            answered=list(check.answered),
            asked_on=asked.get(uuid.UUID(check.entry_id)),
        )
        for check in checks_of(file, date)
    ]


def _doctor_out(file: ClientFile, date: dt.date) -> DoctorOut | None:
    page = doctor_page(file, date)
    if page is None:
        return None
    calls = [CallOut.model_validate(call, from_attributes=True) for call in page.calls]
    records: list[Text] = [entry_words(entry, date) for entry in file.entries]
    return DoctorOut(headline=page.headline, calls=calls, meanwhile=page.meanwhile, records=records)


def record_forms() -> list[FormOut]:
    return [
        FormOut(
            code=form.code,
            name=form.name,
            sides=form.sides,
            place=PlaceOut(x=form.place[0], y=form.place[1]),
            doctor=form.doctor,
            scopes=dict(form.scopes),
            offered_scopes=list(form.offered_scopes),
            facts=said(form.schema, words()),
        )
        for form in forms()
    ]


def limits_out(limits: list[Any]) -> list[LimitOut]:
    return [LimitOut.model_validate(line, from_attributes=True) for line in limit_lines(limits)]


def preview(client: Client, entry: EntryIn) -> list[LimitOut]:
    """The limits a record would turn into, before it is saved."""
    file = client_file(client)
    date = clock.today(client.practice.time_zone)
    value = read_entry({"id": "preview", "kind": entry.kind, "side": entry.side, "facts": entry.facts})
    refuse_implausible(implausible_entry(value, date, client.person.birth_date))
    return limits_out(limits_of(value, file, date, file.latest_ranges(date)))


def promises(today: Today) -> list[Note]:
    """What was decided for next time, per side, for every ladder that was worked on."""
    notes = []
    for family in (today.library.families[name] for name in sorted(worked_families(today.file))):
        for side in (None,) if family.shared else Side:
            decision = today.decision(family.family, side or Side.LEFT)
            if decision.history:
                text = own("promise", family=family.name, reason=decision.reason)
                notes.append(Note(side.value if side is not None else None, text, "promise"))
    return notes


def irritable_of(entry: AnyEntry, file: ClientFile, date: dt.date) -> TriState | None:
    """Whether it stays sore until the next day; ``None`` where it is not asked."""
    return irritable_on(entry.id, file, date) if kind_of(entry).irritable_asked else None


def asked_on(file: ClientFile, date: dt.date) -> Iterator[AskedOut]:
    """Records about which one asks on a day how they are."""
    said = {fact.entry_id: fact for fact in file.daily if fact.date == date}
    for entry in file.entries:
        if kind_of(entry).asked_today(entry.facts, date):
            yield AskedOut(
                entry_id=uuid.UUID(entry.id),
                label=entry_words(entry, date),
                side=entry.side,
                pain_today=said[entry.id].pain_today if entry.id in said else None,
                irritable=irritable_of(entry, file, date),
            )


def client_head(client: Client) -> ClientHead:
    """Who, the working-order band, and what to mind. Works without a stature: then only records are minded."""
    file = client_file(client)
    date = clock.today(client.practice.time_zone)
    try:
        today = Today.of(client)
    except InputError:
        today = None
    if today is not None:
        mind = mind_of(today.situation, promises(today))
    else:
        mind = mind_of(Situation.without_body(file, date))
    troubles = [Note(None, trouble, "ask") for trouble in client_reading(client).troubles]
    change = mind.next_change
    return ClientHead(
        client=client_out(client, date),
        stature_cm=today.situation.body.stature_cm if today else None,
        today=date,
        band=band(file, date, today, _planned(client, date)),
        notes=[NoteOut.model_validate(note, from_attributes=True) for note in (*troubles, *mind.notes)],
        asked=list(asked_on(file, date)),
        doctor=_doctor_out(file, date),
        next_change=ChangeOut(date=change.date, lines=list(change.lines)) if change else None,
        disclaimer=mind.disclaimer,
    )


def coming(client: Client) -> ComingOut:
    """Which rungs the next change lets in or puts out. Asked apart from the head: every rung of the ladders worked on is
    judged on two days."""
    today = Today.of(client)
    change = next_change(today.file, today.date)
    if change is None:
        return ComingOut(lines=[])
    lines = today.cached(
        "coming", change.date, compute=lambda: rungs_of_change(today.situation, change.date, today.allowed)
    )
    return ComingOut(lines=list(lines))


def calendar(client: Client) -> CalendarOut:
    """Every change of limits in the weeks ahead. What it does to rungs is left out while the stature is missing."""
    file, date = client_file(client), clock.today(client.practice.time_zone)
    try:
        today = Today.of(client)
    except InputError:
        today = None
    before = date
    found = []
    for change in changes_ahead(file, date):
        note = change_note(change)
        rungs = () if today is None else _rungs_between(today, before, change.date)
        found.append(
            CalendarChange(date=note.date, lines=list(note.lines), tightens=change.tightens, rungs=list(rungs))
        )
        before = change.date
    return CalendarOut(today=date, until=date + dt.timedelta(days=AHEAD_DAYS), changes=found)


def _rungs_between(today: Today, before: dt.date, date: dt.date) -> tuple[Phrase, ...]:
    """Which rungs are let in or put out from one day to another."""

    def compute() -> tuple[Phrase, ...]:
        since = today.situation if before == today.date else today.situation.on(before)
        return rungs_of_change(since, date, today.allowed)

    return today.cached("calendar", before, date, compute=compute)


def _planned(client: Client, date: dt.date) -> int:
    """How many ladders the day's plan has."""
    return len(Visit.objects.filter(client=client, date=date).values_list("plan", flat=True).first() or ())


def band(file: ClientFile, date: dt.date, today: Today | None, planned: int) -> list[StopOut]:
    """What is done, missing or stale at each stop of the working order; ``planned`` counts the ladders of the day."""
    asks = today is not None and any(
        limit.severity.name == "ASK" and not limit.terms for limit in today.situation.limits
    )
    if not file.entries:
        limits = StopOut(stop="limits", state="open", note=own("stop", "nothing_recorded"))
    elif asks:
        limits = StopOut(stop="limits", state="attention", note=own("stop", "question_open"))
    else:
        limits = StopOut(stop="limits", state="done", note=own("stop", "recorded", count=len(file.entries)))
    seen_today = [r for r in file.responses if r.date == date]
    unanswered = len(file.mornings_open(date))
    worked: Literal["done", "open"] = "done" if file.responses else "open"
    return [
        limits,
        _measures_stop(file, date, today),
        StopOut(stop="choose", state=worked, note=""),
        StopOut(stop="set_up", state=worked, note=""),
        StopOut(
            stop="plan",
            state="done" if planned else "open",
            note=own("stop", "planned", count=planned) if planned else "",
        ),
        StopOut(
            stop="on_the_mat",
            state="done" if seen_today else "open",
            note=own("stop", "logged_today", count=len(seen_today)) if seen_today else "",
        ),
        StopOut(
            stop="responses",
            state="attention" if unanswered else worked,
            note=_mornings(unanswered),
        ),
    ]


def _mornings(unanswered: int) -> Text:
    if unanswered < 2:
        return own("stop", "morning_open") if unanswered else ""
    return own("stop", "mornings_open", count=unanswered)


def _measures_stop(file: ClientFile, date: dt.date, today: Today | None) -> StopOut:
    if today is None:
        return StopOut(stop="measures", state="attention", note=own("stop", "stature_missing"))
    latest: dict[tuple[Quantity, Side], dt.date] = {}
    for measure in file.ranges:
        key = (measure.quantity, measure.side)
        latest[key] = max(latest.get(key, measure.date), measure.date)
    missing = sum((q, side) not in latest for q in SCREENED_RANGES for side in Side)
    stale = sum((date - day).days > STALE_MEASURE_DAYS for day in latest.values())
    if missing:
        return StopOut(stop="measures", state="attention", note=own("stop", "missing", count=missing))
    if stale:
        note = own("stop", "stale", count=stale, weeks=STALE_MEASURE_DAYS // 7)
        return StopOut(stop="measures", state="attention", note=note)
    return StopOut(stop="measures", state="done", note="")
