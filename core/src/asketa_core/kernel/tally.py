"""What judging comes to so far: the hardest severity by kind of limit, the largest size by quantity.

Limits of one kind count once, and so do cautions of one quantity. What is said is listed, so that what nothing is said of
costs no time.
"""

from __future__ import annotations

import math
from typing import Any

from asketa_core.kernel.compiled import inlined
from asketa_core.kernel.records import Before, Record, Said, Setups, Tally
from asketa_core.kernel.shared import TOUCHING

CAUTION, ASK, STOP = 1, 2, 3


@inlined
def bite(tally: Tally, kind: int, severity: int) -> None:
    """Raise the severity of a kind of limit; a severity is above 0."""
    if tally.severity[kind] == 0:
        tally.kinds[0] += 1
        tally.kinds[tally.kinds[0]] = kind
    tally.severity[kind] = max(tally.severity[kind], severity)


@inlined
def weigh(tally: Tally, quantity: int, size: float) -> None:
    """Raise the size of the cautions about a quantity; a size is above 0."""
    if tally.weight[quantity] == 0.0:
        tally.quantities[0] += 1
        tally.quantities[tally.quantities[0]] = quantity
    tally.weight[quantity] = max(tally.weight[quantity], size)


@inlined
def clear_sizes(tally: Tally) -> None:
    """Begin anew with sizes."""
    for at in range(tally.quantities[0]):
        tally.weight[tally.quantities[at + 1]] = 0.0
    tally.quantities[0] = 0


@inlined
def clear(tally: Tally) -> None:
    """Begin anew."""
    for at in range(tally.kinds[0]):
        tally.severity[tally.kinds[at + 1]] = 0
    tally.kinds[0] = 0
    clear_sizes(tally)


@inlined
def count(tally: Tally, outcome: Record) -> None:
    """How many kinds stop or ask, how many quantities are cautioned, and their whole size, rounded up to halves."""
    stops, asks, whole = 0, 0, 0.0
    for at in range(tally.kinds[0]):
        severity = tally.severity[tally.kinds[at + 1]]
        stops += severity == STOP
        asks += severity == ASK
    for at in range(tally.quantities[0]):
        whole += tally.weight[tally.quantities[at + 1]]
    outcome.stops, outcome.asks, outcome.cautions = stops, asks, tally.quantities[0]
    outcome.whole_size = max(math.ceil(whole * 2 - TOUCHING) / 2, 0.0) + 0.0


@inlined
def keep_said(tally: Tally, said: Said, row: int) -> bool:
    """Write what was said as a row; false where that has no room for so much."""
    kinds, quantities, room = tally.kinds[0], tally.quantities[0], said.kinds.shape[1]
    if kinds > room or quantities > room:
        return False
    said.counts[row, 0], said.counts[row, 1] = kinds, quantities
    for at in range(kinds):
        kind = tally.kinds[at + 1]
        said.kinds[row, at], said.severity[row, at] = kind, tally.severity[kind]
    for at in range(quantities):
        quantity = tally.quantities[at + 1]
        said.quantities[row, at], said.weight[row, at] = quantity, tally.weight[quantity]
    return True


@inlined
def keep(tally: Tally, severity: Any, weight: Any) -> None:
    """Write what was said into tables by kind and by quantity that hold nothing yet."""
    for at in range(tally.kinds[0]):
        severity[tally.kinds[at + 1]] = tally.severity[tally.kinds[at + 1]]
    for at in range(tally.quantities[0]):
        weight[tally.quantities[at + 1]] = tally.weight[tally.quantities[at + 1]]


@inlined
def begin(tally: Tally, before: Before, setups: Setups, at: int, outcome: Record) -> None:
    """A set-up with nothing judged yet but what was before. The way in and out is said and weighs nothing."""
    clear(tally)
    outcome.possible, outcome.margin, outcome.missing, outcome.on_the_way = 1, math.inf, 0.0, 0
    for which in range(len(before.rows)):
        add_said(tally, before.said, before.rows[which, at], before.weighs[which] != 0, outcome)
    add_said(tally, before.said, before.first[0] + setups.left_of[at], True, outcome)
    add_said(tally, before.said, before.first[1] + setups.right_of[at], True, outcome)


@inlined
def add_said(tally: Tally, said: Said, row: int, weighs: bool, outcome: Record) -> None:
    """Add what was said of one case."""
    for place in range(said.counts[row, 0]):
        bite(tally, said.kinds[row, place], said.severity[row, place])
    if weighs:
        for place in range(said.counts[row, 1]):
            weigh(tally, said.quantities[row, place], said.weight[row, place])
    else:
        outcome.on_the_way = outcome.on_the_way + said.counts[row, 1]
    stage = said.stages[row]
    outcome.margin = min(outcome.margin, stage.margin)
    outcome.possible = outcome.possible and stage.possible
    outcome.missing = outcome.missing + stage.missing
