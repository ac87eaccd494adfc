"""Comparing a posture with limits.

A record's limits are read at the worst of the client's low, middle and high ranges, what is merely comfortable at the
middle. Beyond a limit its severity holds; inside but nearer than the read-out's error it is a caution, where the read-out is
the same at every level. A conjunction's margin is the largest of its terms' margins, each measured in units of its own error.
A caution has a size: what it is beyond by, in errors.
"""

from __future__ import annotations

import math
from typing import Any, NamedTuple

from numba import boolean, int64, void

from asketa_core.kernel.codes import Level, Met, Who
from asketa_core.kernel.compiled import compiled, entry, inlined
from asketa_core.kernel.records import LimitTable, Record, Tally
from asketa_core.kernel.shared import FLAG_SIZE, TOUCHING
from asketa_core.kernel.signatures import LIMIT_TABLE, POSTURES, VERDICTS
from asketa_core.kernel.tally import CAUTION, bite, weigh

WITHIN_ERROR_SIZE = 0.5
MOST_SIZE = 6.0
"""How large a caution is inside the error, and at most; beyond a figure it is 1 and the excess in errors."""

NEUTRAL_SLACK_DEG = 2.0
"""A limit at the body's neutral bites only beyond this, so that standing and sitting are never refused."""

NO_READOUT = -1
MIDDLE, WHOLE = Level.MIDDLE.value, Who.WHOLE.value


class Verdict(NamedTuple):
    """One limit against one posture: how hard it bites, the worst margin in units of error (negative beyond), whether only
    the error band is met, and the size of what is a caution (0 elsewhere)."""

    concerns: bool
    severity: int
    margin: float
    within_error: bool
    weight: float


NOT_CONCERNED = Verdict(False, 0, math.inf, False, 0.0)


class Margin(NamedTuple):
    """Margin of a term in units of error, as judged and for the error band."""

    judged: float
    band: float


@compiled
def stands_at(posture: Record, read: int, side: int) -> int:
    """Where a read-out of a side stands: its own column, else the whole's; ``NO_READOUT`` where there is none."""
    if posture.there[read, side]:
        return side
    return WHOLE if posture.there[read, WHOLE] else NO_READOUT


@compiled
def look_up(table: LimitTable, posture: Record, places: Any) -> None:
    """Where each term's read-out stands in a posture."""
    for at in range(len(table.limits)):
        limit = table.limits[at]
        for k in range(limit.first, limit.first + limit.terms):
            if table.terms[k].read != NO_READOUT:
                places[k] = stands_at(posture, table.terms[k].read, limit.side)


@compiled
def counts_as(posture: Record, flag: int, side: int) -> bool:
    """Whether a posture counts as something; a rule about the body as a whole counts it on either side."""
    if posture.marks[flag, WHOLE]:
        return True
    if side == WHOLE:
        return bool(posture.marks[flag, 0] or posture.marks[flag, 1])
    return bool(posture.marks[flag, side])


class Spread(NamedTuple):
    """A read-out over the ends of the ranges: its lowest and highest value, half their distance or what it is trusted to,
    whichever is more, and whether it differs between them."""

    low: float
    high: float
    error: float
    varies: bool


@compiled
def spread_of(levels: Any, term: Record) -> Spread:
    low, high = min(levels[0], levels[1], levels[2]), max(levels[0], levels[1], levels[2])
    return Spread(low, high, max((high - low) / 2, term.least_error), high - low > term.varies_beyond)


@compiled
def margin_at(term: Record, value: float, error: float) -> Margin:
    """How far a read-out keeps from a term's figure."""
    raw = term.value - value if term.above else value - term.value
    if not term.neutral:
        return Margin(raw / error, raw / error)
    slack = raw + NEUTRAL_SLACK_DEG
    return Margin(slack / error, -math.inf if slack < -TOUCHING else math.inf)


@inlined
def judge(limit: Record, terms: Any, places: Any, posture: Record, exempt_from_band: bool) -> Verdict:
    """One limit against a posture; ``places`` says where the read-out of each term stands."""
    if limit.terms == 0:
        # A limit without terms bites in every set-up alike.
        return Verdict(True, limit.severity, -math.inf, False, weight_of(limit.severity, -math.inf, False))
    for at in range(limit.first, limit.first + limit.terms):
        if terms[at].read == NO_READOUT:
            if not counts_as(posture, terms[at].flag, limit.side):
                return NOT_CONCERNED
        elif places[at] == NO_READOUT:
            return NOT_CONCERNED
    band_holds = not (limit.exact or limit.at_middle or exempt_from_band)
    first = terms[limit.first]
    if limit.terms == 1 and first.read != NO_READOUT and not first.neutral:
        levels = posture.read[first.read, places[limit.first]]
        spread = spread_of(levels, first)
        worst = spread.high if first.above else spread.low
        value = levels[MIDDLE] if limit.at_middle else worst
        margin = (first.value - value if first.above else value - first.value) / spread.error
        return verdict_of(limit.severity, margin, margin, band_holds and not spread.varies)
    return judge_together(limit, terms, places, posture, band_holds)


SURELY_BEYOND = 1e-6
"""So far beyond a figure, in its own unit, nothing is for rounding."""


@compiled
def surely_bites(limit: Record, terms: Any, places: Any, posture: Record) -> bool:
    """Whether a limit bites whatever a posture shows at the low and high end of the ranges: it is passed at their middle,
    and what counts is the worst of the three."""
    for at in range(limit.first, limit.first + limit.terms):
        term = terms[at]
        if term.read == NO_READOUT:
            if not counts_as(posture, term.flag, limit.side):
                return False
            continue
        if places[at] == NO_READOUT:
            return False
        value = posture.read[term.read, places[at], MIDDLE]
        left = term.value - value if term.above else value - term.value
        if left + (NEUTRAL_SLACK_DEG if term.neutral else 0.0) > -SURELY_BEYOND:
            return False
    return True


@compiled
def judge_together(limit: Record, terms: Any, places: Any, posture: Record, band_holds: bool) -> Verdict:
    """A limit whose terms must all be exceeded at the same end of the ranges."""
    worst, nearest_band, some_read = math.inf, math.inf, False
    for level in range(3):
        judged, band = -math.inf, -math.inf
        for at in range(limit.first, limit.first + limit.terms):
            term = terms[at]
            if term.read == NO_READOUT:
                continue
            some_read = True
            levels = posture.read[term.read, places[at]]
            spread = spread_of(levels, term)
            band_holds = band_holds and not spread.varies
            margin = margin_at(term, levels[MIDDLE] if limit.at_middle else levels[level], spread.error)
            judged, band = max(judged, margin.judged), max(band, margin.band)
        worst, nearest_band = min(worst, judged), min(nearest_band, band)
    return verdict_of(limit.severity, worst, nearest_band, band_holds and some_read)


@compiled
def verdict_of(severity: int, margin: float, band: float, band_holds: bool) -> Verdict:
    """What a worst margin in errors comes to; ``band_holds``: being nearer than the error is itself a caution."""
    beyond = margin < -TOUCHING
    within = band_holds and not beyond and band < 1.0 - TOUCHING
    found = severity if beyond else (CAUTION if within else 0)
    return Verdict(True, found, margin, within, weight_of(found, margin, within))


@compiled
def weight_of(severity: int, margin: float, within: bool) -> float:
    """Size of a caution; the margin is in errors, minus infinity for flags."""
    if severity != CAUTION:
        return 0.0
    if within:
        return WITHIN_ERROR_SIZE
    return min(FLAG_SIZE - margin, MOST_SIZE) if margin > -math.inf else FLAG_SIZE


@compiled
def about(limit: Record, terms: Any, places: Any) -> int:
    """The number of the quantity a caution is about: the last read-out the limit names, where that stands; else its own."""
    for at in range(limit.first + limit.terms - 1, limit.first - 1, -1):
        if terms[at].read != NO_READOUT:
            return int(terms[at].read * 3 + places[at])
    return int(limit.quantity)


@inlined
def judge_some(
    table: LimitTable, places: Any, agenda: Any, posture: Record, exempt_from_band: bool, tally: Tally
) -> float:
    """Limits on an agenda against a posture, into the tally; gives the smallest margin in units of error."""
    nearest = math.inf
    for number in range(len(agenda)):
        found = judge_one(table, agenda[number], places, posture, exempt_from_band, tally)
        nearest = min(nearest, found.margin)
    return nearest


@inlined
def judge_one(
    table: LimitTable, which: int, places: Any, posture: Record, exempt_from_band: bool, tally: Tally
) -> Verdict:
    """One limit against a posture, into the tally."""
    limit = table.limits[which]
    found = judge(limit, table.terms, places, posture, exempt_from_band)
    if found.severity > 0:
        bite(tally, limit.kind, found.severity)
    if found.weight > 0:
        weigh(tally, about(limit, table.terms, places), found.weight)
    return found


@compiled
def weigh_bounds(posture: Record, quantities: Any, tally: Tally) -> None:
    """Bounds passed at the worst end of the ranges only weigh one each; ``quantities`` says what each is about."""
    for which in range(len(quantities)):
        for side in range(2):
            if posture.met[which, side] == Met.PERHAPS:
                weigh(tally, quantities[which, side], FLAG_SIZE)


@compiled
def is_possible(posture: Record) -> bool:
    """Whether this body can do it: no bound is missed at the middle of its ranges."""
    for which in range(len(posture.met)):
        for side in range(2):
            if posture.met[which, side] == Met.NO:
                return False
    return True


@compiled
def missing(posture: Record) -> float:
    """By how much a posture misses what this body can do, degrees and centimetres taken alike."""
    total = 0.0
    for which in range(len(posture.met)):
        for side in range(2):
            if posture.met[which, side] == Met.NO:
                total += max(posture.amount[which, side], 0.0)
    return total


@entry(void(LIMIT_TABLE, POSTURES, boolean, int64[::1], VERDICTS))
def judge_each(table: LimitTable, postures: Any, exempt_from_band: bool, places: Any, verdicts: Any) -> None:
    """Every limit against one posture by itself, into ``verdicts``; ``places`` has room for a number for each term."""
    posture = postures[0]
    look_up(table, posture, places)
    for at in range(len(table.limits)):
        verdict, into = judge(table.limits[at], table.terms, places, posture, exempt_from_band), verdicts[at]
        into.concerns, into.severity, into.margin = verdict.concerns, verdict.severity, verdict.margin
        into.within_error, into.weight = verdict.within_error, verdict.weight
