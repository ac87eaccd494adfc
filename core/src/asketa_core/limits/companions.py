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
    LowBackEntry,
    LowBackFacts,
    TriState,
    Unreadable,
    Wrist,
    WristFacts,
)
from asketa_core.clinical import clinical
from asketa_core.limits.knee import daily_fact
from asketa_core.limits.model import RowFile, rows_of


@dataclass(frozen=True, slots=True)
class GroinContext:
    """Everything the rows of ``data/limits/groin_pinch.yaml`` may ask about."""

    angle: Literal["known", "not_measured"]


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
    return GroinContext("known" if entry.facts.straight_deg is not None else "not_measured")


def hamstrings_context(entry: Hamstrings, client: ClientFile, date: dt.date) -> HamstringsContext:
    return HamstringsContext(entry.facts.low_back, entry.facts.leg_tingling)


WRIST_SORE_PAIN = clinical("wrist.sore_pain", "of_10")


@dataclass(frozen=True, slots=True)
class LowBackContext:
    """Everything the rows of ``data/limits/low_back.yaml`` may ask about."""

    what: Literal["sore", "weak", "disc", "narrow_canal", "slipped_vertebra", "unknown"]
    sore: TriState


@dataclass(frozen=True, slots=True)
class WristContext:
    """Everything the rows of ``data/limits/wrist.yaml`` may ask about."""

    sore: TriState


@cache
def low_back_rows() -> RowFile:
    return rows_of("low_back", LowBackContext, LowBackFacts)


@cache
def wrist_rows() -> RowFile:
    return rows_of("wrist", WristContext, WristFacts)


def low_back_context(entry: LowBackEntry, client: ClientFile, date: dt.date) -> LowBackContext:
    return LowBackContext(entry.facts.what, entry.facts.sore)


def wrist_context(entry: Wrist, client: ClientFile, date: dt.date) -> WristContext:
    daily = daily_fact(entry.id, client, date)
    if daily is None or daily.pain_today is None:
        return WristContext("unknown")
    return WristContext("yes" if daily.pain_today >= WRIST_SORE_PAIN else "no")


@dataclass(frozen=True, slots=True)
class UnreadableContext:
    """Nothing is known of such a record."""


@cache
def unreadable_rows() -> RowFile:
    return rows_of("unreadable", UnreadableContext)


def unreadable_context(entry: Unreadable, client: ClientFile, date: dt.date) -> UnreadableContext:
    return UnreadableContext()
