"""Something new since last time: a fall, a flare, an illness, new pain, a procedure. Said for four weeks; a fall or new
pain at an operated joint asks for the surgeon's word again."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from typing import Literal

from asketa_core.answers import Day
from asketa_core.clinical import days
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import About, Kind, Note, When, asked
from asketa_core.records.known import News

SAID_DAYS = days("news.said")

What = Literal["fall", "flare", "illness", "new_pain", "procedure", "unknown"]
Where = Literal["hip", "knee", "back", "shoulder", "elsewhere", "unknown"]


class Facts(Record):
    what: What = "unknown"
    on: Day | None = None
    where: Where = "unknown"


def news(entry: Entry[Facts], date: dt.date) -> News | None:
    """A fall or new pain that has happened by a date. What was not placed may be anywhere."""
    facts = entry.facts
    if facts.what not in ("fall", "new_pain", "unknown") or (facts.on is not None and facts.on > date):
        return None
    return News(facts.what, facts.on, entry.side, None if facts.where == "unknown" else facts.where)


def _mind(about: About) -> Iterable[Note]:
    on = about.entry.facts.on
    if on is not None and (about.date - on).days > SAID_DAYS:
        return [about.said("settled")]
    if on is None:
        return [about.head(), about.said("undated", "ask")]
    return [about.said("entry", "limit", what=KIND.label_on(about.entry, about.date), date=on)]


KIND = Kind(
    code="something_new",
    rank=25,
    sides="either",
    facts=Facts,
    place=(50, 100),
    questions=(asked("what"), asked("on"), asked("where", When("what", ("fall", "flare", "new_pain", "unknown")))),
    params=lambda entry, date: {"what": entry.facts.what},
    named_by="what",
    mind=_mind,
    news=news,
)
