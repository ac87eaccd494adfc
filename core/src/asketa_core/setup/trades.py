"""The best few set-ups, and what each trades."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from enum import StrEnum

from asketa_core.client.holds import SlotValue
from asketa_core.setup.screened import PURPOSE_BAND, Screened

WORTH_HAVING = 0.6
"""An alternative set-up keeps at least this part of the best one's purpose."""


class Trade(StrEnum):
    """What is true of a set-up that is offered: the recommended one, allowed or not, and others for what they trade."""

    RECOMMENDED = "recommended"
    NEAREST = "nearest"
    RAISE_SEAT = "raise_seat"
    SUPPORT_KNEES = "support_knees"
    FEWEST_ITEMS = "fewest_items"
    LEAST_OVER = "least_over"
    OFFERED_NEXT = "offered_next"
    AS_LAST_TIME = "as_last_time"
    MOST_PURPOSE = "most_purpose"


def best_few(
    screened: Screened,
    last_used: Mapping[str, SlotValue] | None = None,
    offered: Mapping[str, SlotValue] | None = None,
    most: int = 3,
) -> list[tuple[Trade, int]]:
    """The recommended set-up and others worth having: the next step that is ``offered``, what was done last, and what
    others trade; only allowed ones, each once. Where none is allowed, the one that comes nearest."""
    best = screened.recommended
    rows = [int(row) for row in screened.order if screened.allowed(int(row))]
    if not rows:
        return [(Trade.NEAREST, best)]
    found = [(Trade.RECOMMENDED, best)]
    size = screened.totals.size
    worth_having = WORTH_HAVING * screened.purpose[best]
    kept = [row for row in rows if size[row] <= size[best] + 1 and screened.purpose[row] >= worth_having]

    def offer(trade: Trade, row: int | None) -> None:
        if row is not None and len(found) < most and all(_differs(screened, row, other) for _, other in found):
            found.append((trade, row))

    then, next_time = (None if known is None else screened.grid.nearest(known) for known in (last_used, offered))
    # A step that changes seconds only, or nothing, is done as last time.
    for trade, row in ((Trade.OFFERED_NEXT, next_time if next_time != then else None), (Trade.AS_LAST_TIME, then)):
        offer(trade, row if row is not None and screened.allowed(row) else None)
    for trade, row in _schools(screened, rows):
        offer(trade, row)
    fewer = [row for row in kept if screened.grid.items[row] < screened.grid.items[best]]
    offer(Trade.FEWEST_ITEMS, min(fewer, key=lambda r: (screened.grid.items[r], rows.index(r)), default=None))
    easier = [row for row in rows if size[row] < size[best]]
    offer(Trade.LEAST_OVER, min(easier, key=lambda r: (size[r], rows.index(r)), default=None))
    more = [row for row in kept if screened.purpose[best] < screened.purpose[row] <= PURPOSE_BAND[1]]
    offer(
        Trade.MOST_PURPOSE, max(more, key=lambda r: (round(float(screened.purpose[r])), -rows.index(r)), default=None)
    )
    return found


def _schools(screened: Screened, rows: Sequence[int]) -> list[tuple[Trade, int]]:
    """The best set-up of each school of a stiff seated shape: the seat raised and nothing under the knees,
    and the knees supported on the lowest seat that allows it."""
    schools = screened.variation.schools
    if schools is None:
        return []
    columns = {axis.name: k for k, axis in enumerate(screened.grid.axes)}
    indices = screened.grid.indices
    knees = [k for name, k in columns.items() if name.startswith(schools.support_knees)]
    seat = columns[schools.raise_seat]
    bare = [row for row in rows if not indices[row, knees].any()]
    supported = [row for row in rows if indices[row, knees].all()]
    found = [(Trade.RAISE_SEAT, bare[0])] if bare else []
    if supported:
        found.append((Trade.SUPPORT_KNEES, min(supported, key=lambda row: (int(indices[row, seat]), rows.index(row)))))
    return found


def _differs(screened: Screened, row: int, other: int) -> bool:
    """Whether a person would call two set-ups different."""
    return bool((screened.grid.indices[row] != screened.grid.indices[other]).any())
