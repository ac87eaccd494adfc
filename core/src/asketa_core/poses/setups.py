"""A batch of set-ups: the numbers of every slot, and how to look only at some of them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from asketa_core.kernel.records import CASE, many
from asketa_core.poses.recipe import PLACES, side_slot
from asketa_core.units import Array, Mask, Side

Indices = NDArray[np.int32]

FLOOR = PLACES.index("floor")


@dataclass(frozen=True, slots=True)
class SetupBatch:
    """Numbers of every slot for n set-ups, each (n,), and what the seat is like.

    Where the batch comes from a grid, ``axes`` holds each slot's distinct numbers and ``indices`` (n,)
    which of them each set-up uses, so that what depends on few slots is computed on few columns. The place is no number:
    heights are measured from it.
    """

    values: Mapping[str, Array]
    soft_seat: Mask
    arms: Mask
    place: NDArray[np.int8] | None = None
    """Where each set-up lies, as a number into ``PLACES``; ``None`` for shapes whose place is given."""
    axes: Mapping[str, Array] = field(default_factory=dict)
    indices: Mapping[str, Indices] = field(default_factory=dict)
    _reduced: dict[tuple[str, ...], tuple[SetupBatch, Indices]] = field(default_factory=dict, compare=False, repr=False)

    @property
    def size(self) -> int:
        return len(self.soft_seat)

    def slot(self, name: str, side: Side | None = None) -> str:
        own = side_slot(name, side) if side is not None else name
        return own if own in self.values else name

    def numbers(self, names: Sequence[str]) -> Array:
        """The numbers of some slots, (n, slots); 0 for those this batch does not vary."""
        found = np.zeros((self.size, len(names)))
        for k, name in enumerate(names):
            if name in self.values:
                found[:, k] = self.values[name]
        return found

    def cases(self, flat: Mask | None = None) -> Any:
        """What each set-up is like besides its numbers, as the engine reads it; ``flat`` (n,) where the back lies flat."""
        found = many(self.size, CASE)
        found["soft_seat"], found["arms"] = self.soft_seat, self.arms
        found["on_floor"] = False if self.place is None else self.place == FLOOR
        found["some_flat"] = flat is not None and bool(flat.any())
        return found

    def reduced(self, names: Iterable[str], side: Side | None = None) -> tuple[SetupBatch, Indices]:
        """Every combination of some slots as a batch of their own, and its row for each set-up, (n,).

        Where the slots are few the batch is far smaller than this one. What the seat is like is kept
        where the seat is among the slots.
        """
        every = [self.slot(name, side) for name in names if name != "floor"]
        wanted = tuple(name for name in dict.fromkeys(every) if name in self.axes)
        if wanted not in self._reduced:
            self._reduced[wanted] = self._combinations(wanted)
        return self._reduced[wanted]

    def _combinations(self, wanted: Sequence[str]) -> tuple[SetupBatch, Indices]:
        if not self.axes:
            return self, np.arange(self.size, dtype=np.int32)
        if not wanted:
            return SetupBatch({}, np.zeros(1, bool), np.ones(1, bool)), np.zeros(self.size, dtype=np.int32)
        lengths = [len(self.axes[name]) for name in wanted]
        size = int(np.prod(lengths))
        if size >= self.size:
            return self, np.arange(self.size, dtype=np.int32)
        rows = np.ravel_multi_index([self.indices[name] for name in wanted], lengths).astype(np.int32)
        own = np.unravel_index(np.arange(size), lengths)
        values = {name: self.axes[name][index] for name, index in zip(wanted, own, strict=True)}
        example = np.zeros(size, dtype=np.int32)
        example[rows] = np.arange(self.size, dtype=np.int32)
        return SetupBatch(values, self.soft_seat[example], self.arms[example]), rows
