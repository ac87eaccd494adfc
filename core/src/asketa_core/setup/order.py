"""The order of set-ups: lexicographic, from the best to the worst.

The shape's bounds and aims hold, no stop, no open question, least whole size of cautions, both sides alike, purpose nearest
its target in steps that a person can tell apart, fewest items and whole props before stacks, largest worst margin, nearest
to what was last used, or else to the plain set-up; ties by slot order.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from asketa_core.kernel.run import keys_of
from asketa_core.kernel.shared import PURPOSE_LEAST, PURPOSE_MOST

PURPOSE_BAND = (PURPOSE_LEAST, PURPOSE_MOST)
"""Wanted share of the client's range, per cent."""

Order = np.ndarray[tuple[int, ...], np.dtype[np.int64]]


def order_of(outcomes: Any, trades: Any) -> Order:
    """Rows from best to worst. Where nothing can be done, what comes nearest tells most and leads."""
    margin = np.round(np.clip(outcomes["margin"], -99, 99), 1)
    ranked = [np.arange(len(outcomes)), trades["away"], -margin, keys_of(outcomes, trades)]
    if not outcomes["possible"].any():
        ranked.append(np.round(outcomes["missing"], 1))
    return np.lexsort(ranked)
