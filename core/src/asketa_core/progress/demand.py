"""How much a set-up asks of the place where it was felt, and the step back that asks less there.

A ladder is written for most bodies. For one body an earlier rung may ask more of the very joint that spoke, so a step back
is taken by what is asked there: the first rung back that asks less, else whichever rung of the ladder does.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from asketa_core.client.holds import Place, SlotValue
from asketa_core.kernel.codes import Level
from asketa_core.poses.library import Library, Variation
from asketa_core.poses.posture import Readout
from asketa_core.setup.grid import NoGrid
from asketa_core.setup.screened import Screened
from asketa_core.units import SIDES, Array, Mask, Side

ScreenOf = Callable[[Variation, Mapping[str, SlotValue] | None], Screened | NoGrid]
"""Screens a variation for this side today, with the set-up last used."""

UNITS: Mapping[str, tuple[tuple[Readout, float], ...]] = {
    "knee": (
        (Readout.KNEE_TWIST, 5.0),
        (Readout.KNEE_FLEXION, 20.0),
        (Readout.KNEE_LOAD_SHARE, 0.25),
        (Readout.KNEE_MOMENT_RATIO, 0.5),
        (Readout.KNEECAP_SHARE, 0.1),
    ),
    "hip": ((Readout.HIP_USE_PERCENT, 10.0), (Readout.OPENING_USED_PERCENT, 10.0), (Readout.HIP_EXTENSION, 5.0)),
    "back": (
        (Readout.SPINE_FLEXION, 5.0),
        (Readout.SPINE_EXTENSION, 5.0),
        (Readout.SPINE_MOMENT_RATIO, 0.5),
        (Readout.SPINE_ROTATION, 10.0),
        (Readout.SIDE_BEND, 10.0),
    ),
}
"""What each place feels, with how much of it counts as one (judgement: about what a person tells apart)."""

PLACES: Mapping[Place | None, tuple[str, ...]] = {
    "knee": ("knee",),
    "hip": ("hip",),
    "groin": ("hip",),
    "back": ("back",),
}
"""Which of them a place named in a response means; any other means all."""

LESS_BY = 0.25
"""A step back asks at least so much less where it was felt. Where nobody said, it asks no more than so much more: the
ladder's order also knows what no read-out shows, as steadiness."""

LESS_BY_AGAINST_THE_LADDER = 1.0
"""A rung that stands further on is taken as the gentler one only where it asks clearly less there, and no more elsewhere."""


def demand(screened: Screened, sides: tuple[Side, ...], place: Place | None) -> Array:
    """What every set-up asks of a place, (n,), in units of about what a person tells apart; of several sides the one that is
    asked more."""
    wanted = [unit for name in PLACES.get(place, tuple(UNITS)) for unit in UNITS[name]]
    return np.asarray(np.max(np.stack([_asked(screened, side, wanted) for side in sides]), axis=0))


def _asked(screened: Screened, side: Side, wanted: list[tuple[Readout, float]]) -> Array:
    there = [(key, unit) for readout, unit in wanted if (key := screened.key(readout, side)) is not None]
    total = np.zeros(screened.grid.size)
    for (_, unit), levels in zip(there, screened.read([key for key, _ in there]), strict=True):
        total = total + np.maximum(levels[:, Level.MIDDLE], 0.0) / unit
    return total


@dataclass(frozen=True, slots=True)
class StepBack:
    """A gentler set-up: the rung, its row, and whether it stands further on in the ladder than the rung left."""

    screened: Screened
    row: int
    against_the_ladder: bool = False

    @property
    def variation(self) -> Variation:
        return self.screened.variation

    @property
    def setup(self) -> dict[str, SlotValue]:
        return self.screened.grid.setup(self.row)


def step_back_from(
    library: Library,
    variation_id: str,
    setup: Mapping[str, SlotValue],
    screen_of: ScreenOf,
    place: Place | None = None,
) -> StepBack | None:
    """The first rung back that today's limits allow and that asks less where it was felt, else the rung of the same ladder
    that does; ``None`` when nothing gentler is open.

    Of its set-ups one is taken that leaves the seat as it is, if there is one: in mid-hold one changes what the hands reach.
    """
    rung = library.variation(variation_id)
    here = screen_of(rung, setup)
    if isinstance(here, NoGrid):
        return None
    asked = float(demand(here, _felt_on(here), place)[here.grid.nearest(setup)])
    at_most = asked - LESS_BY if place in PLACES else asked + LESS_BY
    earlier = list(library.steps(rung, "step_back"))
    for candidate in earlier:
        screened = screen_of(candidate, setup)
        if isinstance(screened, NoGrid) or not screened.allowed(screened.recommended):
            continue
        row = _gentler_row(screened, setup, at_most, place)
        if row is not None:
            return StepBack(screened, row)
    known = {variation_id, *(each.id for each in earlier)}
    return _against_the_ladder(library, here, known, setup, screen_of, place)


def _felt_on(screened: Screened) -> tuple[Side, ...]:
    return SIDES if screened.variation.shared else (screened.side,)


def _gentler_row(screened: Screened, setup: Mapping[str, SlotValue], at_most: float, place: Place | None) -> int | None:
    """The best set-up that asks no more, as free of cautions as the recommended one; of those one on the same seat."""
    asked = demand(screened, _felt_on(screened), place)
    best = screened.recommended
    size = screened.totals.size
    fits = (
        screened.possible
        & (screened.totals.stops == 0)
        & (screened.totals.asks == 0)
        & (size <= size[best])
        & (asked <= at_most)
    )
    if not fits.any():
        return None
    same_seat = fits & _on_the_same_seat(screened, setup)
    fits = same_seat if same_seat.any() else fits
    return best if fits[best] else int(screened.order[fits[screened.order]][0])


def _on_the_same_seat(screened: Screened, setup: Mapping[str, SlotValue]) -> Mask:
    """Which set-ups leave what is sat on as it is in another one, (n,)."""
    grid, seat = screened.grid, screened.variation.recipe.seat_slot
    used = setup.get(seat or "")
    same = np.zeros(grid.size, dtype=bool)
    for k, axis in enumerate(grid.axes):
        if axis.name == seat and used is not None:
            alike = np.array([axis.value(i) == used or axis.value(i).stack == used.stack for i in range(axis.size)])
            same = alike[grid.indices[:, k]]
    return same


def _against_the_ladder(
    library: Library,
    here: Screened,
    known: set[str],
    setup: Mapping[str, SlotValue],
    screen_of: ScreenOf,
    place: Place | None,
) -> StepBack | None:
    """The rung further on whose usual set-up asks least, where it asks clearly less than this one."""

    def asks(screened: Screened, row: int, where: Place | None) -> float:
        return float(demand(screened, _felt_on(screened), where)[row])

    now = here.grid.nearest(setup)
    found: list[tuple[float, StepBack]] = []
    for candidate in library.families[here.variation.family].variations:
        if candidate.id in known:
            continue
        screened = screen_of(candidate, setup)
        if isinstance(screened, NoGrid) or not screened.allowed(screened.recommended):
            continue
        row = screened.recommended
        if asks(screened, row, None) <= asks(here, now, None):
            found.append((asks(screened, row, place), StepBack(screened, row, True)))
    if not found:
        return None
    least, step = min(found, key=lambda each: each[0])
    return step if least <= asks(here, now, place) - LESS_BY_AGAINST_THE_LADDER else None
