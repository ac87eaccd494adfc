"""The order of set-ups: lexicographic, from the best to the worst.

The shape's bounds and aims hold, no stop, no open question, least whole size of cautions, both sides alike, purpose nearest
its target in steps that a person can tell apart, fewest items and whole props before stacks, largest worst margin, nearest
to what was last used, or else to the plain set-up; ties by slot order.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from asketa_core.client.holds import SlotValue
from asketa_core.limits.judge import Totals
from asketa_core.setup.grid import Grid
from asketa_core.setup.screened import PURPOSE_BAND, PURPOSE_STEP, PURPOSE_TARGET, Order, Screened, Stage
from asketa_core.units import Array, Mask


def _missing(stages: Sequence[Stage], size: int) -> Array:
    """By how much each set-up misses what this body can do, degrees and centimetres taken alike, (n,)."""
    missing = np.zeros(size)
    for stage in stages:
        for key, amount in stage.posture.trouble_amounts.items():
            missing += np.where(stage.posture.troubles[key], np.maximum(amount, 0.0), 0.0)[stage.rows]
    return np.round(missing, 1)


def _off_purpose(purpose: Array) -> Array:
    """How far each set-up is from the wanted share, (n,): inside the band in steps, outside it to the full per cent, and
    after all that are inside."""
    away = np.round(np.abs(purpose - PURPOSE_TARGET), 1)
    inside = (purpose >= PURPOSE_BAND[0]) & (purpose <= PURPOSE_BAND[1])
    return np.where(inside, np.maximum(np.ceil(away / PURPOSE_STEP), 1.0), 100.0 + np.round(away))


def order_of(
    grid: Grid, stages: Sequence[Stage], sums: Totals, possible: Mask, purpose: Array, usual: int | None
) -> Order:
    """Rows from best to worst; of set-ups equal in everything else those nearest the ``usual`` row come first."""
    away = np.zeros(grid.size) if usual is None else grid.steps_from(grid.indices[usual].tolist())
    return np.lexsort(
        (
            np.arange(grid.size),
            away,
            -np.round(np.clip(sums.margin, -99, 99), 1),
            grid.stacked,
            grid.items,
            _off_purpose(purpose),
            # What one side needs less of does the other no harm: both are built alike unless that costs a caution.
            grid.unlike,
            # What has to be minded getting there weighs nothing, but of equals the easier to reach is the better.
            sums.on_the_way,
            sums.size,
            sums.asks > 0,
            sums.stops,
            # Where nothing can be done, what comes nearest tells most.
            np.zeros(grid.size) if possible.any() else _missing(stages, grid.size),
            ~possible,
        )
    )


def remembering(
    screened: Screened, last_used: Mapping[str, SlotValue], choices: Mapping[str, str] | None = None
) -> Screened:
    """The same judgements with what was last used in place of the plain set-up, wherever set-ups are otherwise equal.

    ``choices`` sets slots that change no geometry.
    """
    grid = screened.grid.choosing(choices or {})
    order = order_of(
        grid, screened.stages, screened.totals, screened.possible, screened.purpose, grid.nearest(last_used)
    )
    return replace(screened, grid=grid, order=order)
