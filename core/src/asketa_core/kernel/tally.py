"""What judging comes to so far: the hardest severity by kind of limit, the largest size by quantity.

Limits of one kind count once, and so do cautions of one quantity. What has been said is listed, so that what nothing is
said of costs no time.
"""

from __future__ import annotations

import math
from typing import Any

from asketa_core.kernel.compiled import compiled
from asketa_core.kernel.records import Before, Record, Tally
from asketa_core.kernel.shared import TOUCHING

CAUTION, ASK, STOP = 1, 2, 3

UNSAID = -1
"""What severities and sizes are before anything is said of a kind or quantity."""


@compiled
def bite(tally: Tally, kind: int, severity: int) -> None:
    """Raise the severity of a kind of limit."""
    if tally.severity[kind] == UNSAID:
        tally.kinds[0] += 1
        tally.kinds[tally.kinds[0]] = kind
    tally.severity[kind] = max(tally.severity[kind], severity)


@compiled
def weigh(tally: Tally, quantity: int, size: float) -> None:
    """Raise the size of the cautions about a quantity."""
    if tally.weight[quantity] == UNSAID:
        tally.quantities[0] += 1
        tally.quantities[tally.quantities[0]] = quantity
    tally.weight[quantity] = max(tally.weight[quantity], size)


@compiled
def clear_sizes(tally: Tally) -> None:
    """Begin anew with sizes; what was ever said stays listed."""
    for at in range(tally.quantities[0]):
        tally.weight[tally.quantities[at + 1]] = 0.0


@compiled
def clear(tally: Tally) -> None:
    """Begin anew."""
    for at in range(tally.kinds[0]):
        tally.severity[tally.kinds[at + 1]] = 0
    clear_sizes(tally)


@compiled
def count(tally: Tally, outcome: Record) -> None:
    """How many kinds stop or ask, how many quantities are cautioned, and their whole size, rounded up to halves."""
    stops, asks, cautions, whole = 0, 0, 0, 0.0
    for at in range(tally.kinds[0]):
        severity = tally.severity[tally.kinds[at + 1]]
        stops += severity == STOP
        asks += severity == ASK
    for at in range(tally.quantities[0]):
        size = tally.weight[tally.quantities[at + 1]]
        if size > 0:
            cautions += 1
            whole += size
    outcome.stops, outcome.asks, outcome.cautions = stops, asks, cautions
    outcome.whole_size = max(math.ceil(whole * 2 - TOUCHING) / 2, 0.0) + 0.0


@compiled
def cautioned(tally: Tally) -> int:
    """How many quantities are cautioned."""
    found = 0
    for at in range(tally.quantities[0]):
        found += tally.weight[tally.quantities[at + 1]] > 0
    return found


@compiled
def keep_said(tally: Tally, severity: Any, weight: Any) -> bool:
    """Write what was said into columns in the order of the lists; false where there are more of them than columns."""
    if tally.kinds[0] > len(severity) or tally.quantities[0] > len(weight):
        return False
    for at in range(tally.kinds[0]):
        severity[at] = tally.severity[tally.kinds[at + 1]]
    for at in range(tally.quantities[0]):
        weight[at] = tally.weight[tally.quantities[at + 1]]
    return True


@compiled
def keep(tally: Tally, severity: Any, weight: Any) -> None:
    """Write what was said into tables by kind and by quantity that hold nothing yet."""
    for at in range(tally.kinds[0]):
        severity[tally.kinds[at + 1]] = tally.severity[tally.kinds[at + 1]]
    for at in range(tally.quantities[0]):
        weight[tally.quantities[at + 1]] = tally.weight[tally.quantities[at + 1]]


@compiled
def begin(tally: Tally, before: Before, at: int, outcome: Record) -> None:
    """A set-up with nothing judged yet but what was before. The way in and out is said and weighs nothing."""
    clear(tally)
    outcome.possible, outcome.margin, outcome.missing, outcome.on_the_way = 1, math.inf, 0.0, 0
    for which in range(len(before.rows)):
        row, weighs = before.rows[which, at], before.weighs[which] != 0
        for kind in range(len(before.kinds)):
            if before.severity[row, kind] > 0:
                bite(tally, before.kinds[kind], before.severity[row, kind])
        for quantity in range(len(before.quantities)):
            size = before.weight[row, quantity]
            if size > 0 and weighs:
                weigh(tally, before.quantities[quantity], size)
            elif size > 0:
                outcome.on_the_way = outcome.on_the_way + 1
        stage = before.stages[row]
        outcome.margin = min(outcome.margin, stage.margin)
        outcome.possible = outcome.possible and stage.possible
        outcome.missing = outcome.missing + stage.missing
