"""A whole grid as one table of letters and figures, and its axes in words: what an interface steps through without asking
again."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from asketa_core.client.holds import SlotValue
from asketa_core.limits.judge import Levels
from asketa_core.poses.posture import Readout
from asketa_core.poses.recipe import LessSupport, NumberSlot, StackSlot
from asketa_core.screening.detail import detail_at
from asketa_core.screening.rulers import rulers_of
from asketa_core.screening.situation import Situation
from asketa_core.setup.grid import Axis
from asketa_core.setup.screened import PURPOSE_BAND, Screened, Verdict
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


@dataclass(frozen=True, slots=True)
class Table:
    """Every combination of the axes in order, the last one running fastest. ``verdicts`` has a letter for each,
    ``cautions`` how many, ``purpose`` per cent (empty where there is no range to keep), ``columns`` a figure for each
    read-out and side, rounded to whole degrees, centimetres or per cent. What the room cannot build has no figures."""

    shape: tuple[int, ...]
    letters: dict[str, str]
    """What each letter stands for."""
    verdicts: str
    cautions: list[int]
    purpose: list[int]
    purpose_band: tuple[int, int]
    """The share of the client's range that is wanted, per cent."""
    columns: dict[str, list[int]]


def table_of(situation: Situation, screened: Screened) -> Table:
    lengths = tuple(int(length) for length in screened.grid.lengths)
    size = math.prod(lengths)
    positions = _dense_positions(screened)
    verdicts = np.full(size, NOT_BUILDABLE)
    verdicts[positions] = _letters(screened)

    def spread(values: Array | Levels) -> list[int]:
        dense = np.zeros(size, dtype=int)
        dense[positions] = np.rint(values).astype(int)
        return [int(value) for value in dense]

    columns = {}
    for side in SIDES:
        for demand in rulers_of(situation, screened, side):
            key = screened.pose.key(demand.readout, demand.leg)
            assert key is not None
            shown = getattr(screened.pose.extremes(key), demand.end)
            columns[f"{demand.readout.value}.{side.value}"] = spread(shown[screened.pose.readouts[key].rows])
    return Table(
        lengths,
        {letter: verdict.value for verdict, letter in LETTERS.items()},
        "".join(verdicts),
        spread(screened.totals.cautions),
        [] if screened.no_range else spread(np.nan_to_num(screened.purpose)),
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


def _dense_positions(screened: Screened) -> np.ndarray[tuple[int, ...], np.dtype[np.int64]]:
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
    return screened.pose.middle(Readout.SPINE_FLEXION, None, row)
