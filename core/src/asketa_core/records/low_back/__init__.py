"""A low back that minds: sore, weak, a disc, a narrow canal, a slipped vertebra."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import TriState
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, When, asked, certain
from asketa_core.records.known import Known
from asketa_core.words.catalogue import say

What = Literal["sore", "weak", "disc", "narrow_canal", "slipped_vertebra", "unknown"]


class Facts(Record):
    what: What = "unknown"
    sore: TriState = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    what: What
    sore: TriState


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.what, entry.facts.sore)


def _label(params: Mapping[str, object]) -> str:
    return say("entries", KIND.code, "therapist", what=KIND.fact_words("what", str(params["what"])))


KIND = Kind(
    code="low_back",
    rank=12,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 80),
    questions=(asked("what"), asked("sore", When("what", ("disc",)))),
    params=lambda entry, date: {"what": entry.facts.what},
    label=_label,
)
