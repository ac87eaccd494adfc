"""What a response means: calm, watch, flare, or not yet answered.

Rise and height of discomfort are judged together with its kind and place and with the next morning.
Basis: pain-monitoring models in rehabilitation (Thomeé 1997; Silbernagel 2007).
"""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from enum import StrEnum
from typing import get_args

from asketa_core.client.holds import Place, Response, Sensation, Sign
from asketa_core.clientfile import MORNING_PATIENCE, ClientFile
from asketa_core.clinical import clinical, group
from asketa_core.records.registry import kind_of

FLARE_KINDS = group("response.flare_kinds", get_args(Sensation))
FLARE_PLACES = group("response.flare_places", get_args(Place))
FLARE_SIGNS = group("response.flare_signs", get_args(Sign))
FLARE_ABOVE = clinical("response.flare_above", "of_10")
FLARE_RISE = clinical("response.flare_rise", "of_10")
WATCH_RISE = clinical("response.watch_rise", "of_10")
WATCH_BAND = clinical("response.watch_band", "of_10")


class Tolerance(StrEnum):
    CALM = "calm"
    WATCH = "watch"
    FLARE = "flare"
    PENDING = "pending"


@dataclass(frozen=True, slots=True)
class Judged:
    """A response with what it means and why: a code of the text catalogue's ``why`` and its parameters."""

    response: Response
    tolerance: Tolerance
    why: str | None = None
    detail: str | int | None = None


def judge_responses(client: ClientFile, now: dt.datetime) -> dict[str, Judged]:
    """Every response of a client by its id, each by the rules of its day."""
    return {
        response.id: judge_response(
            response, client.settings.discomfort_allowed, now, allows_no_discomfort(client, response.date)
        )
        for response in client.responses
    }


def worked_families(client: ClientFile) -> set[str]:
    """The ladders a client has worked on."""
    return {response.family for response in client.responses}


def allows_no_discomfort(client: ClientFile, date: dt.date) -> bool:
    """Whether a record allows none, whatever is set: as in pregnancy until the birth."""
    return any(kind_of(entry).allows_no_discomfort(entry.facts, date) for entry in client.entries)


def judge_response(response: Response, allowed: int, now: dt.datetime, expecting: bool = False) -> Judged:
    """Classify one response. ``allowed`` is the discomfort this client may have (0–5), ``now`` local time;
    ``expecting`` allows none, whatever is set, and leaves the flare at more than five or its kind.

    Flare is tested first. What was not said (kind, place, signs) is never calm and is not watch by itself: it counts as
    neither. So does a morning nobody asked about. One that was asked about and not answered is pending until noon two days
    later and counts as watch from then on.
    """
    if expecting:
        allowed = 0
    discomfort = max(response.during, response.after or 0)
    # An arrival figure nobody asked for counts as none: the rise is then the whole of it.
    rise = discomfort - (response.before or 0)
    if flare := _flare(response, discomfort, rise, None if expecting else allowed + WATCH_BAND):
        return Judged(response, Tolerance.FLARE, *flare)
    if watch := _watch(response, discomfort, rise, allowed):
        return Judged(response, Tolerance.WATCH, *watch)
    if None in (response.kind, response.place, response.signs):
        return Judged(response, Tolerance.PENDING, "not_said")
    if response.settled_next_morning == "unknown":
        until = dt.datetime.combine(response.date + MORNING_PATIENCE, dt.time(12), tzinfo=now.tzinfo)
        if response.morning_asked and now >= until:
            return Judged(response, Tolerance.WATCH, "no_answer")
        return Judged(response, Tolerance.PENDING)
    return Judged(response, Tolerance.CALM)


_Why = tuple[str, str | int | None]
"""The rule that spoke and what it spoke about."""


def _flare(response: Response, discomfort: int, rise: int, band: float | None) -> _Why | None:
    """The first sign of a flare. ``band`` is the most discomfort that is still watch, where that is asked."""
    if response.kind in FLARE_KINDS:
        return "kind", response.kind
    if response.place in FLARE_PLACES and discomfort > 0:
        return "place", response.place
    for sign in response.signs or ():
        if sign in FLARE_SIGNS:
            return "sign", sign
    if discomfort > FLARE_ABOVE or (band is not None and discomfort > band):
        return "high", discomfort
    if rise >= FLARE_RISE:
        return "rise", rise
    if response.settled_next_morning == "no":
        return "morning", None
    return None


def _watch(response: Response, discomfort: int, rise: int, allowed: int) -> _Why | None:
    """The first reason to watch."""
    if allowed == 0 and response.before and rise == 0:
        return "unchanged", None
    if discomfort > allowed:
        return "high", discomfort
    if rise >= WATCH_RISE:
        return "rise", rise
    if response.signs:
        return "sign", response.signs[0]
    if response.place not in (None, "wanted") and discomfort > 0:
        return "place", response.place
    return None
