"""Reads for the day: who comes, and what is worth knowing before they do."""

from __future__ import annotations

import datetime as dt
from collections import defaultdict
from collections.abc import Iterator
from typing import Any

from django.db.models import Count, Max

from appointments.models import Appointment
from appointments.schemas import AheadOut, AppointmentOut, OpenMorning, OutlookOut, SessionOut, TodayOut
from asketa_core import (
    AHEAD_DAYS,
    SIDES,
    ClientFile,
    InputError,
    NoGrid,
    Phrase,
    Side,
    Variation,
    change_between,
    change_note,
    changes_ahead,
    entry_words,
    rungs_of_change,
    same_setup,
    say,
)
from clients.models import Clearance, Client, Entry
from clients.queries import age_on, records_of
from clients.values import entry_raw, read_entry
from common import clock
from common.speech import Text, own
from engine.adapter import client_file, items_by_id
from engine.answers import Today
from measures.models import Measure
from practices.models import Practice
from visits.holds import setup_used
from visits.mat import mornings_to_ask
from visits.models import LoggedItem, Visit
from visits.services import built_as


def appointment_out(appointment: Appointment) -> AppointmentOut:
    """One appointment as it is answered after a change."""
    following = 0
    if appointment.series is not None:
        following = Appointment.objects.filter(
            series=appointment.series, date__gt=appointment.date, cancelled=False
        ).count()
    return AppointmentOut(**_fields(appointment), following=following)


def _fields(appointment: Appointment) -> dict[str, Any]:
    names = ("id", "client_id", "date", "time", "minutes", "place", "cancelled", "version")
    return {name: getattr(appointment, name) for name in names}


def day(practice: Practice, date: dt.date) -> TodayOut:
    """A day's appointments in their order, in as many queries for one as for fifty."""
    rows = list(Appointment.objects.of_known().filter(date=date, cancelled=False))
    clients = {row.client_id for row in rows}
    records = records_of(clients, date)
    last = dict(
        Visit.objects.held()
        .filter(client__in=clients, date__lt=date)
        .values_list("client")
        .annotate(last=Max("date"))
        .values_list("client", "last")
    )
    visits = {visit.client_id: visit for visit in Visit.objects.filter(client__in=clients, date=date)}
    logged: dict[object, set[str]] = defaultdict(set)
    for visit_id, variation in (
        LoggedItem.objects.standing().filter(visit__in=visits.values()).values_list("visit", "variation")
    ):
        logged[visit_id].add(variation.partition(".")[0])
    series = {row.series for row in rows if row.series is not None}
    following = dict(
        Appointment.objects.filter(series__in=series, date__gt=date, cancelled=False)
        .values_list("series")
        .annotate(count=Count("id"))
        .order_by()
    )
    return TodayOut(
        date=date,
        today=clock.today(practice.time_zone),
        sessions=[
            SessionOut(
                **_fields(row),
                following=following.get(row.series, 0),
                name=row.client.person.name,
                age=age_on(row.client.person.birth_date, date),
                occupation=row.client.person.occupation,
                left=records[(row.client_id, "left")],
                middle=records[(row.client_id, None)],
                right=records[(row.client_id, "right")],
                last_visit=last.get(row.client_id),
                planned=len(visits[row.client_id].plan) if row.client_id in visits else 0,
                logged=len(logged[visits[row.client_id].pk]) if row.client_id in visits else 0,
            )
            for row in rows
        ],
    )


def outlook(client: Client, date: dt.date) -> OutlookOut:
    """What to know of a client before they come on a date. Slow the first time: the ladders they work on are judged on
    every day of the next weeks on which a limit changes."""
    file = client_file(client)
    since = Visit.objects.held().filter(client=client, date__lt=date).aggregate(last=Max("date"))["last"]
    try:
        today = Today.of(client, date)
    except InputError:
        today = None
    changed: list[Text] = []
    if since is not None:
        changed += _calendar_since(file, since, date)
        changed += _recorded_since(client, since, date)
        changed += _judged_since(client, today, since) if today is not None else ()
    return OutlookOut(
        since=since,
        changed=changed,
        ahead=[
            AheadOut(date=change.date, lines=[*change_note(change).lines, *_rungs(today, change.date)])
            for change in changes_ahead(file, date, AHEAD_DAYS)
        ],
        mornings=_open_mornings(today) if today is not None else [],
        needs_stature=today is None,
    )


def _rungs(today: Today | None, date: dt.date) -> tuple[Text, ...]:
    if today is None:
        return ()
    return today.cached("coming", date, compute=lambda: rungs_of_change(today.situation, date, today.allowed))


def _calendar_since(file: ClientFile, since: dt.date, date: dt.date) -> tuple[Text, ...]:
    """What the calendar makes of the records as they stand on the day, and did not on the day of the last visit."""
    change = change_between(file, since, date)
    return change_note(change).lines if change is not None else ()


def _recorded_since(client: Client, since: dt.date, date: dt.date) -> Iterator[Text]:
    """What was recorded, corrected or taken back, cleared and measured after a visit's day."""
    zone = client.practice.time_zone
    rows = [row for row in Entry.objects.filter(client=client) if clock.day_of(row.created_at, zone) > since]
    latest = {row.root: row for row in rows}
    for root, row in latest.items():
        label = entry_words(read_entry(entry_raw(row)), date)
        new = any(each.pk == root for each in rows)
        if new and not row.withdrawn:
            yield own("today", "recorded", what=label)
        elif row.withdrawn and not new:
            yield own("today", "taken_back", what=label)
        elif not new:
            yield own("today", "corrected", what=label)
    given = Clearance.objects.filter(entry__client=client).select_related("entry")
    cleared = {each.entry.root for each in given if clock.day_of(each.created_at, zone) > since}
    for row in Entry.objects.standing().filter(client=client, root__in=cleared):
        yield own("today", "cleared", what=entry_words(read_entry(entry_raw(row)), date))
    measured = Measure.objects.filter(client=client, date__gt=since).count()
    if measured:
        yield own("today", "measured", count=measured)


def _judged_since(client: Client, today: Today, since: dt.date) -> Iterator[Text]:
    """Set-ups used last time that limits, stock or library have made something else of since; of several holds on one
    side of a rung the last."""
    used = {
        (item.variation, item.side): item
        for item in LoggedItem.objects.standing().filter(visit__client=client, visit__date=since)
    }
    for (variation_id, side), item in used.items():
        rung = today.library.variation(variation_id)
        if rung.shared and side != SIDES[0].value:
            continue
        what = _rung_words(rung, Side(side))
        if rung.id in today.library.retired:
            yield own("today", "put_away", what=what)
            continue
        setup, then = setup_used(item), item.snapshot.get("verdict")
        screened = today.screen(rung, Side(side))
        if isinstance(screened, NoGrid):
            yield own("today", "unbuildable", what=what)
            continue
        now = screened.verdict_at(screened.grid.nearest(setup)).value
        said = say("verdicts", now, "therapist")
        if then is not None and now != then:
            yield own("today", "judged", what=what, was=say("verdicts", then, "therapist"), now=said)
        elif not same_setup(setup, built_as(screened, setup)):
            yield own("today", "rebuilt", what=what, now=said)


def _rung_words(rung: Variation, side: Side) -> Phrase:
    """A rung and the side it was used on; shared shapes have none."""
    if rung.shared:
        name: Phrase = rung.name
        return name
    return own("today", "sided", rung=rung.name, side=say("sides", side.value))


def _open_mornings(today: Today) -> list[OpenMorning]:
    """Holds of earlier days whose next morning is open, oldest first."""
    ids = mornings_to_ask(today)
    rows = items_by_id(today.client, ids)
    found = []
    for item in (rows[each] for each in ids if each in rows):
        rung = today.library.variation(item.variation)
        found.append(
            OpenMorning(
                item_id=item.pk,
                date=item.visit.date,
                side=None if rung.shared else Side(item.side),
                name=rung.name,
                during=item.during,
                asked=item.asked,
            )
        )
    return found
