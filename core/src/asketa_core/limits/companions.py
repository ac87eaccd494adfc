"""What comes with the four: stiff hamstrings with a low back that minds, a pinching groin; and a record that cannot be
read."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cache
from typing import Literal

from asketa_core.clientfile import (
    ClientFile,
    GroinPinch,
    GroinPinchFacts,
    Hamstrings,
    HamstringsFacts,
    LowBack,
    TriState,
    Unreadable,
)
from asketa_core.limits.model import RowFile, rows_of


@dataclass(frozen=True, slots=True)
class GroinContext:
    """Everything the rows of ``data/limits/groin_pinch.yaml`` may ask about."""

    angle: Literal["known", "unknown"]


@dataclass(frozen=True, slots=True)
class HamstringsContext:
    """Everything the rows of ``data/limits/hamstrings.yaml`` may ask about."""

    low_back: LowBack
    tingling: TriState


@cache
def groin_rows() -> RowFile:
    return rows_of("groin_pinch", GroinContext, GroinPinchFacts)


@cache
def hamstrings_rows() -> RowFile:
    return rows_of("hamstrings", HamstringsContext, HamstringsFacts)


def groin_context(entry: GroinPinch, client: ClientFile, date: dt.date) -> GroinContext:
    return GroinContext("known" if entry.facts.straight_deg is not None else "unknown")


def hamstrings_context(entry: Hamstrings, client: ClientFile, date: dt.date) -> HamstringsContext:
    return HamstringsContext(entry.facts.low_back, entry.facts.leg_tingling)


@dataclass(frozen=True, slots=True)
class UnreadableContext:
    """Nothing is known of such a record."""


@cache
def unreadable_rows() -> RowFile:
    return rows_of("unreadable", UnreadableContext)


def unreadable_context(entry: Unreadable, client: ClientFile, date: dt.date) -> UnreadableContext:
    return UnreadableContext()
