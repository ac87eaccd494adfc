"""What a corrected record would have changed: holds since it was first recorded, judged again."""

from __future__ import annotations

from collections.abc import Iterator

from asketa_core import InputError, NoGrid, Side, SlotValue, Verdict, detail_at
from clients.models import Client, Entry
from common import clock
from common.speech import Text
from engine.answers import Today, digest
from visits.models import LoggedItem
from visits.schemas import Difference, DifferencesOut
from visits.services import twin_id

MOST_JUDGED = 40
"""So many holds are judged again, the latest first: each is a whole screening of its day."""


def differences(client: Client, entry: Entry) -> DifferencesOut:
    """Every hold since the record's first version whose verdict would be another by what is recorded now, the latest
    first. Slow the first time."""
    first = Entry.objects.get(pk=entry.root)
    since = clock.day_of(first.created_at, client.practice.time_zone)
    holds = _holds_since(client, first)
    judged = holds[:MOST_JUDGED]
    found = [difference for item in judged for difference in _difference(client, item)]
    return DifferencesOut(since=since, looked_at=len(judged), left=len(holds) - len(judged), differences=found)


def _holds_since(client: Client, first: Entry) -> list[LoggedItem]:
    """Standing holds logged since a record was there, whose verdict of the time is known; one both legs made counts once."""
    rows = LoggedItem.objects.standing().filter(visit__client=client, logged_at__gte=first.created_at)
    found = [
        row for row in rows.select_related("visit").order_by("-visit__date", "-logged_at") if "verdict" in row.snapshot
    ]
    twins = {twin_id(row.pk) for row in found}
    return [row for row in found if row.pk not in twins]


def _difference(client: Client, item: LoggedItem) -> Iterator[Difference]:
    then = Today.of(client, item.visit.date)
    try:
        rung = then.library.variation(item.variation)
    except InputError:
        return
    side, was = Side(item.side), Verdict(item.snapshot["verdict"])
    setup = {name: SlotValue.model_validate(value) for name, value in item.setup_used.items()}

    def compute() -> tuple[Verdict, list[Text]] | None:
        screened = then.screen_with(rung, side, None)
        if isinstance(screened, NoGrid):
            # The shelf is not what it was: that is no news about the record.
            return None
        detail = detail_at(then.situation, screened, screened.grid.nearest(setup))
        return detail.verdict, list(detail.closing or detail.reasons)

    key = digest(repr(sorted((name, repr(value)) for name, value in setup.items())))
    now = then.cached("judged_again", rung.id, side, key, compute=compute)
    if now is not None and now[0] != was:
        yield Difference(
            item_id=item.pk, date=item.visit.date, side=None if rung.shared else side, name=rung.name,
            was=was, would_be=now[0], why=now[1],
        )  # fmt: skip
