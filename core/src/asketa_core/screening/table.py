"""A whole grid as one table of letters and figures, and its axes in words: what an interface steps through without asking
again."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from asketa_core.client.holds import SlotValue
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import LessSupport, NumberSlot, StackSlot
from asketa_core.screening.detail import detail_at
from asketa_core.screening.rulers import rulers_of
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import Axis
from asketa_core.setup.order import PURPOSE_BAND
from asketa_core.setup.screened import Screened, Verdict
from asketa_core.texts import Phrase, say
from asketa_core.units import SIDES, Array, Side
from asketa_core.words.stacks import stack_words

LETTERS: Mapping[Verdict, str] = {
    Verdict.CLEAR: "c",
    Verdict.WITH_SETUP: "s",
    Verdict.WITH_EYE: "e",
    Verdict.CHECK_FIRST: "q",
    Verdict.LEAVE_OUT: "x",
}
"""One letter for each verdict, so that a grid is a short text."""
NOT_BUILDABLE = "."

FIGURE_LETTERS = "".join(chr(code) for code in range(ord("!"), ord("~") + 1) if chr(code) not in '"\\.')
"""What stands for a figure: everything a text in JSON holds as it is, but what says that nothing can be built."""

Positions = np.ndarray[tuple[int, ...], np.dtype[np.int64]]

_AT_END: Mapping[str, Callable[[Array], Array]] = {
    "low": lambda levels: np.asarray(levels.min(axis=-1)),
    "middle": lambda levels: np.asarray(levels[..., 1]),
    "high": lambda levels: np.asarray(levels.max(axis=-1)),
}
"""A read-out at one end of the client's ranges, (n, 3) → (n,)."""


@dataclass(frozen=True, slots=True)
class Figures:
    """A whole figure for every combination: the ``values`` there are, and ``at`` with the place of each combination's
    among them, written with the letters of ``FIGURE_LETTERS`` as digits: as many for each as it takes for the last."""

    values: list[int]
    at: str

    @staticmethod
    def of(values: Array, positions: Positions, size: int) -> Figures:
        """``values`` (n,) stand at ``positions``; elsewhere nothing can be built."""
        figures = np.rint(values).astype(np.int64)
        least = int(figures.min())
        there = np.zeros(int(figures.max()) - least + 1, dtype=bool)
        there[figures - least] = True
        distinct, place = np.flatnonzero(there) + least, (np.cumsum(there) - 1)[figures - least]
        letters = np.frombuffer(FIGURE_LETTERS.encode(), np.uint8)
        wide = 1
        while len(letters) ** wide < len(distinct):
            wide += 1
        at = np.full((size, wide), ord(NOT_BUILDABLE), dtype=np.uint8)
        for digit in range(wide):
            at[positions, wide - 1 - digit] = letters[place // len(letters) ** digit % len(letters)]
        return Figures(distinct.tolist(), at.tobytes().decode())


@dataclass(frozen=True, slots=True)
class Table:
    """Every combination of the axes in order, the last one running fastest. ``verdicts`` has a letter for each, ``purpose``
    per cent (``None`` where there is no range to keep), ``columns`` a figure for each read-out and side, rounded to whole
    degrees, centimetres or per cent. What the room cannot build has no figures."""

    shape: tuple[int, ...]
    letters: dict[str, str]
    """What each letter stands for."""
    verdicts: str
    figure_letters: str
    purpose: Figures | None
    purpose_band: tuple[int, int]
    """The share of the client's range that is wanted, per cent."""
    columns: dict[str, Figures]


def table_of(situation: Situation, screened: Screened) -> Table:
    lengths = tuple(int(length) for length in screened.grid.lengths)
    size = math.prod(lengths)
    positions = _dense_positions(screened)
    verdicts = np.full(size, NOT_BUILDABLE)
    verdicts[positions] = _letters(screened)

    rulers = [(side, demand) for side in SIDES for demand in rulers_of(situation, screened, side)]
    keys = [key for _, each in rulers if (key := screened.key(each.readout, each.leg)) is not None]
    columns = {
        f"{demand.readout.value}.{side.value}": Figures.of(_AT_END[demand.end](levels), positions, size)
        for (side, demand), levels in zip(rulers, screened.read(keys), strict=True)
    }
    return Table(
        lengths,
        {letter: verdict.value for verdict, letter in LETTERS.items()},
        "".join(verdicts),
        FIGURE_LETTERS,
        None if screened.no_range else Figures.of(screened.purpose, positions, size),
        (round(PURPOSE_BAND[0]), round(PURPOSE_BAND[1])),
        columns,
    )


def _letters(screened: Screened) -> np.ndarray[tuple[int, ...], np.dtype[np.str_]]:
    """The verdict of every set-up on its own."""
    shut = (screened.totals.stops > 0) | ~screened.possible
    minded = np.where(screened.totals.size > 0, LETTERS[Verdict.WITH_EYE], LETTERS[Verdict.WITH_SETUP])
    asked = np.where(screened.totals.asks > 0, LETTERS[Verdict.CHECK_FIRST], minded)
    letters = np.where(shut, LETTERS[Verdict.LEAVE_OUT], asked)
    plain = screened.grid.plain
    if plain is not None:
        letters[plain] = LETTERS[screened.verdict_at(plain)]
    return letters


def _dense_positions(screened: Screened) -> Positions:
    """Position of every row of the grid among all combinations of its axes."""
    if not screened.grid.axes:
        # Nothing to set: one set-up, and no axis to count along.
        return np.zeros(screened.grid.size, dtype=np.int64)
    columns = [
        screened.grid.indices[:, k] if axis.searched else np.zeros(screened.grid.size, dtype=int)
        for k, axis in enumerate(screened.grid.axes)
    ]
    return np.asarray(np.ravel_multi_index(columns, screened.grid.lengths), dtype=np.int64)


@dataclass(frozen=True, slots=True)
class Steps:
    """One axis: what is set there, and its values in order with their words. ``kind`` is ``stack``, ``angle``,
    ``distance`` or ``choice``; ``side`` where it is set for one side alone."""

    name: str
    label: Phrase
    side: Side | None
    kind: Literal["stack", "distance", "angle", "choice"]
    less_support: LessSupport
    values: tuple[tuple[Phrase, SlotValue], ...]


def steps_of(screened: Screened) -> list[Steps]:
    return [
        Steps(
            axis.name,
            axis.slot.label,
            screened.variation.side_of(axis.name),
            # A place is chosen like any other of a few words.
            "choice" if axis.slot.type == "place" else axis.slot.type,
            axis.slot.less_support,
            tuple((_words(axis, index), axis.value(index)) for index in range(len(axis.numbers))),
        )
        for axis in screened.grid.axes
    ]


def _words(axis: Axis, index: int) -> Phrase:
    if isinstance(axis.slot, StackSlot):
        return stack_words(axis.stacks[index], "heels" if axis.slot.base == "heels" else "floor")
    if isinstance(axis.slot, NumberSlot):
        return axis.slot.meaning(float(axis.numbers[index]))
    return say("choices", axis.options[index])


def place_of(screened: Screened, row: int, chosen: Mapping[str, SlotValue]) -> list[int]:
    """Where a set-up stands on each axis; ``chosen`` keeps choices the grid does not vary."""
    return [
        axis.nearest(chosen[axis.name]) if axis.name in chosen else int(at)
        for axis, at in zip(screened.grid.axes, screened.grid.indices[row], strict=True)
    ]


def plain_closed_by(situation: Situation, screened: Screened) -> list[Phrase]:
    """Why the plain set-up is not open; nothing where it is, or where there is none."""
    plain = screened.grid.plain
    return [] if plain is None or screened.allowed(plain) else detail_at(situation, screened, plain).closing


def rounding_of(screened: Screened, row: int) -> float:
    """How far the back rounds at one set-up, degrees at the middle of the client's ranges; negative is hollowing."""
    return screened.pose_at(row).middle(Readout.SPINE_FLEXION, None)
