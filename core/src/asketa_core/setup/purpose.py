"""The ranges a variation works in. How much of them a set-up uses is the kernel's (``kernel/ranking.py``)."""

from __future__ import annotations

from asketa_core.body.ranges import Quantity, Ranges
from asketa_core.poses.library import Variation
from asketa_core.poses.recipe import Work
from asketa_core.units import SIDES, Side


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
