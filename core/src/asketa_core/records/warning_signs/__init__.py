"""Signs that belong to a doctor before any exercise: pain at night, weight lost, a cancer with new pain."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Literal

from asketa_core.answers import Ticks, YesNo
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known

Sign = Literal["none", "night_pain", "weight_lost", "cancer_with_new_pain", "fever"]


class Facts(Record):
    signs: Ticks[Sign] = ()


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    any_sign: YesNo


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context("yes" if set(entry.facts.signs) - {"none"} else "no")


KIND = Kind(
    code="warning_signs",
    rank=24,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 36),
    questions=(asked("signs"),),
    scopes=("seen",),
    list_not_asked=lambda facts: not facts.signs,
)
