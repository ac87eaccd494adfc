"""Signs that belong to a doctor: what is gone through, and what a yes leads to."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, get_args

from asketa_core.clientfile import ClientFile
from asketa_core.records.catalogue import limits_of
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Urgency
from asketa_core.records.registry import kind_of
from asketa_core.texts import Phrase, Said, say
from asketa_core.units import Side

MOST_URGENT_FIRST: tuple[Urgency, ...] = get_args(Urgency)


@dataclass(frozen=True, slots=True)
class Check:
    """The signs one record asks about, by code, and which were said to be there: empty where nobody asked, ``none`` where
    there are none."""

    entry_id: str
    label: Phrase
    side: Side | None
    fact: str
    signs: Mapping[str, Phrase]
    answered: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Call:
    """Whom to call about one record, how soon, and because of which signs."""

    entry_id: str
    label: Phrase
    side: Side | None
    urgency: Urgency
    whom: Said
    signs: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class DoctorPage:
    """What to do where a sign was recorded: the calls, most urgent first, and what may be done meanwhile."""

    headline: Phrase
    calls: tuple[Call, ...]
    meanwhile: Phrase


def checks_of(client: ClientFile, date: dt.date) -> list[Check]:
    """What is gone through before a visit, record by record."""
    return list(_checks(client.entries, date))


def _checks(entries: Iterable[Entry[Any]], date: dt.date) -> Iterator[Check]:
    for entry in entries:
        kind = kind_of(entry)
        if kind.signs is not None:
            fact = kind.signs.fact
            words = {code: kind.answer_words(fact, code) for code in kind.signs.signs}
            answered = tuple(getattr(entry.facts, fact))
            yield Check(entry.id, kind.label_on(entry, date).sentence, entry.side, fact, words, answered)


def doctor_page(client: ClientFile, date: dt.date) -> DoctorPage | None:
    """Whom to call now; ``None`` where no sign is recorded, or a doctor has seen it since."""
    calls = []
    stops = set()
    for entry in client.entries:
        kind = kind_of(entry)
        closing = [limit for limit in limits_of(entry, client, date, client.latest_ranges(date)) if limit.everything]
        about = {limit.everything for limit in closing} & {"symptom", "condition"}
        if kind.signs is None or not about:
            continue
        told = [code for code in getattr(entry.facts, kind.signs.fact) if code != "none"]
        if not told:
            continue
        urgency = min((kind.signs.signs[code] for code in told), key=MOST_URGENT_FIRST.index)
        words = tuple(kind.answer_words(kind.signs.fact, code) for code in told)
        whom = say("doctor", "whom", kind.signs.who)
        calls.append(Call(entry.id, kind.label_on(entry, date).sentence, entry.side, urgency, whom, words))
        stops |= about
    if not calls:
        return None
    calls.sort(key=lambda call: MOST_URGENT_FIRST.index(call.urgency))
    headline = say("doctor", "headline", calls[0].urgency, whom=calls[0].whom)
    meanwhile = say("doctor", "meanwhile", "nothing" if "symptom" in stops else "gentle")
    return DoctorPage(headline, tuple(calls), meanwhile)
