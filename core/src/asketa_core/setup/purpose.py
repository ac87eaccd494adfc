"""How much of the client's range a set-up uses for what the variation is for."""

from __future__ import annotations

import numpy as np

from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.poses.library import Variation
from asketa_core.poses.posture import Posture, Readout
from asketa_core.poses.recipe import Work
from asketa_core.setup.screened import PURPOSE_TARGET
from asketa_core.units import SIDES, Array, Side


def ranges_without_room(variation: Variation, side: Side, ranges: Ranges) -> tuple[tuple[Quantity, Side], ...]:
    """The ranges a variation works in that this client does not have: zero or below. There is nothing to keep a share
    of, so the purpose is undefined and the variation is not for this side."""
    return tuple(
        dict.fromkeys(
            (work.range, leg)
            for worked in (SIDES if variation.shared else (side,))
            for work in variation.recipe.works
            if work.range is not None and ranges.get(work.range, leg := _works_on(work, worked)).value_deg <= 0
        )
    )


def _works_on(work: Work, worked: Side) -> Side:
    return worked if work.leg == "worked" else worked.other


def purpose_kept(variation: Variation, side: Side, posture: Posture, ranges: Ranges) -> Array:
    """Smallest demand as per cent of the client's range over what does the work, (n,). In shared shapes the
    side that is worked hardest counts: it is the one that must not be asked too much."""
    sides = SIDES if variation.shared else (side,)
    by_side = [
        np.min(np.stack([_kept(work, s, posture, ranges) for work in variation.recipe.works]), axis=0) for s in sides
    ]
    return np.asarray(np.max(np.stack(by_side), axis=0))


def _kept(work: Work, side: Side, posture: Posture, ranges: Ranges) -> Array:
    if work.quantity == "effort":
        return np.full(posture.size, PURPOSE_TARGET)
    side = _works_on(work, side)
    key = posture.key(Readout(work.quantity), side)
    assert key is not None
    column = posture.readouts[key]
    middle = column.values[min(1, len(column.values) - 1)][column.rows]
    share = middle
    if work.of_deg is not None:
        share = 100.0 * middle / work.of_deg
    elif work.range is not None:
        share = 100.0 * middle / ranges.get(work.range, side).value_deg
    # A joint never gives more than it has: what is asked beyond is no purpose, but something to mind.
    return np.asarray(np.minimum(share, 100.0))
