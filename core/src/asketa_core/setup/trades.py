"""The best few set-ups, and what each trades."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum

import numpy as np

from asketa_core.client.holds import SlotValue
from asketa_core.poses.setups import Indices
from asketa_core.setup.order import PURPOSE_BAND, Order
from asketa_core.setup.screened import Screened
from asketa_core.units import Array

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
    # From best to worst: the first of equals is the better.
    rows = screened.order[screened.all_allowed[screened.order]]
    if not len(rows):
        return [(Trade.NEAREST, best)]
    found = [(Trade.RECOMMENDED, best)]
    size, purpose, items = screened.totals.size, screened.purpose, screened.grid.items
    kept = rows[(size[rows] <= size[best] + 1) & (purpose[rows] >= WORTH_HAVING * purpose[best])]

    def offer(trade: Trade, row: int | None) -> None:
        if row is not None and len(found) < most and all(_differs(screened, row, other) for _, other in found):
            found.append((trade, row))

    then, next_time = (None if known is None else screened.grid.nearest(known) for known in (last_used, offered))
    # A step that changes seconds only, or nothing, is done as last time.
    for trade, row in ((Trade.OFFERED_NEXT, next_time if next_time != then else None), (Trade.AS_LAST_TIME, then)):
        offer(trade, row if row is not None and screened.allowed(row) else None)
    for trade, row in _schools(screened, rows):
        offer(trade, row)
    offer(Trade.FEWEST_ITEMS, _least(items, kept[items[kept] < items[best]]))
    offer(Trade.LEAST_OVER, _least(size, rows[size[rows] < size[best]]))
    more = kept[(purpose[kept] > purpose[best]) & (purpose[kept] <= PURPOSE_BAND[1])]
    offer(Trade.MOST_PURPOSE, _least(-np.rint(purpose), more))
    return found


def _least(figures: Array | Indices, rows: Order) -> int | None:
    """The first of some rows with the least figure."""
    return int(rows[np.argmin(figures[rows])]) if len(rows) else None


def _schools(screened: Screened, rows: Order) -> list[tuple[Trade, int]]:
    """The best set-up of each school of a stiff seated shape: the seat raised and nothing under the knees,
    and the knees supported on the lowest seat that allows it."""
    schools = screened.variation.schools
    if schools is None:
        return []
    columns = {axis.name: k for k, axis in enumerate(screened.grid.axes)}
    indices = screened.grid.indices
    knees = [k for name, k in columns.items() if name.startswith(schools.support_knees)]
    under = indices[rows][:, knees] > 0
    bare, supported = rows[~under.any(axis=1)], rows[under.all(axis=1)]
    found = [(Trade.RAISE_SEAT, int(bare[0]))] if len(bare) else []
    lowest = _least(indices[:, columns[schools.raise_seat]], supported)
    return found if lowest is None else [*found, (Trade.SUPPORT_KNEES, lowest)]


def _differs(screened: Screened, row: int, other: int) -> bool:
    """Whether a person would call two set-ups different."""
    return bool((screened.grid.indices[row] != screened.grid.indices[other]).any())
