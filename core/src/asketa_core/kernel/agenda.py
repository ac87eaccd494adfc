"""Which limits are judged when.

A limit is judged once, as soon as everything it names is known: with a leg alone, with trunk and hips over it, or with the
whole posture. What never speaks of a shape is left out for all its set-ups.
"""

from __future__ import annotations

from typing import Any

from asketa_core.kernel.codes import Mark, Who
from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.judging import NO_READOUT, counts_as, stands_at
from asketa_core.kernel.records import LimitTable, Record

WHOLE = Who.WHOLE.value


@compiled
def is_fixed(programme: Record, flag: int) -> bool:
    """Whether postures count as something by their recipe alone, in every set-up and however far the trunk leans."""
    if flag == Mark.FLOOR:
        return bool(programme.marks[flag, WHOLE])
    if flag == Mark.SUPINE:
        return not programme.flat_when_low
    if flag == Mark.SEAT_WITHOUT_ARMS:
        return not programme.takes_arms
    if flag == Mark.BEYOND_EASY_SEAT:
        return not programme.easy_when_upright
    return not (flag == Mark.SOFT_SEAT or flag == Mark.HEAD_CARRIED or flag == Mark.NOT_UPRIGHT_ON_CHAIR)


OPEN, SILENT, SPEAKS = 0, 1, 2
"""Whether a limit's terms are not known yet, can never hold, or are all there to be compared."""


@compiled
def standing_of(limit: Record, terms: Any, programme: Record, posture: Record, only_legs: bool, places: Any) -> int:
    """How a limit stands to postures of a shape, as far as they are settled; notes in ``places`` where the read-out of each
    term stands. ``only_legs``: nothing is known but what a leg shows and what the recipe fixes."""
    found = SPEAKS
    for at in range(limit.first, limit.first + limit.terms):
        term = terms[at]
        if term.read != NO_READOUT:
            places[at] = stands_at(posture, term.read, limit.side)
            if places[at] == NO_READOUT:
                found = OPEN
        elif is_fixed(programme, term.flag):
            if not counts_as(posture, term.flag, limit.side):
                return SILENT
        elif only_legs:
            found = OPEN
    return found


@compiled
def choose(
    table: LimitTable, programme: Record, phase: int, spares_gentle: bool, posture: Record, only_legs: bool, places: Any,
    settled: Any, agenda: Any,
) -> int:  # fmt: skip
    """Put the limits that can be judged now on the agenda and give their number. ``settled`` says of every limit whether it
    was judged before or is silent, and is brought up to date."""
    due = 0
    for at in range(len(table.limits)):
        limit = table.limits[at]
        if settled[at]:
            continue
        if not limit.phases & phase or (spares_gentle and limit.spares_gentle):
            settled[at] = 1
            continue
        standing = standing_of(limit, table.terms, programme, posture, only_legs, places)
        if standing != OPEN:
            settled[at] = 1
        if standing == SPEAKS:
            agenda[due] = at
            due += 1
    return due
