"""A pinching groin, per side: where it starts, and what comes no closer to it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from asketa_core.body.ranges import GroinPinch as PinchRange
from asketa_core.datafiles import Record
from asketa_core.records.entry import Entry
from asketa_core.records.kind import About, Kind, Note, When, asked, certain
from asketa_core.records.known import Known


class Facts(Record):
    """Hip flexion at which the groin starts to pinch, knee straight ahead and turned out."""

    straight_deg: float | None = Field(default=None, ge=30, le=150)
    turned_out_deg: float | None = Field(default=None, ge=30, le=150)
    turned_out_at_deg: float | None = Field(default=None, ge=5, le=80)
    """How far the knee was out to the side when the second was measured."""


@dataclass(frozen=True, slots=True)
class Context:
    """Everything the rules may ask about."""

    angle: Literal["known", "not_measured"]


def context(entry: Entry[Facts], client: Known, date: dt.date) -> Context:
    return Context("known" if entry.facts.straight_deg is not None else "not_measured")


def pinch(facts: Facts) -> PinchRange | None:
    """Where it pinches; ``None`` while nobody measured it."""
    if facts.straight_deg is None:
        return None
    return PinchRange.measured(facts.straight_deg, facts.turned_out_deg, facts.turned_out_at_deg)


def _mind(about: About) -> Iterable[Note]:
    facts = about.entry.facts
    if facts.straight_deg is None:
        yield about.said("unknown")
    else:
        out = KIND.say("mind", "not_known") if facts.turned_out_deg is None else facts.turned_out_deg
        yield about.said("entry", straight=facts.straight_deg, out=out)
    yield from about.asks()


KIND = Kind(
    code="groin_pinch",
    rank=10,
    sides="sided",
    facts=Facts,
    context=Context,
    means=certain(context),
    place=(45, 104),
    questions=(
        asked("straight_deg"),
        asked("turned_out_deg"),
        asked("turned_out_at_deg", When("turned_out_deg")),
    ),
    mind=_mind,
    pinch=pinch,
)
