"""Glaucoma or a weak retina: no head below the heart until the eye doctor says so."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import Kind, asked, certain
from asketa_core.records.known import Known
from asketa_core.words.catalogue import say

What = Literal["glaucoma", "retina", "operated", "unknown"]


class Facts(Record):
    what: What = "unknown"


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    what: What


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context(entry.facts.what)


def _label(params: Mapping[str, object]) -> str:
    return say("entries", KIND.code, "therapist", what=KIND.fact_words("what", str(params["what"])))


KIND = Kind(
    code="eyes",
    rank=21,
    sides="middle",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(50, 12),
    questions=(asked("what"),),
    scopes=("head_down",),
    params=lambda entry, date: {"what": entry.facts.what},
    label=_label,
)
