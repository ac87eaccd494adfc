"""The grid of set-ups: every combination of slot values that this room can build at once."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.client.holds import SlotValue
from asketa_core.kernel.records import TRADE, many
from asketa_core.poses.library import Variation
from asketa_core.poses.recipe import PLACES, ChoiceSlot, NumberSlot, PlaceSlot, ShareOfRange, Slot, StackSlot, side_slot
from asketa_core.poses.setups import Indices, SetupBatch
from asketa_core.props.kinds import Room
from asketa_core.props.stacks import Stack, Use, buildable, nearest
from asketa_core.texts import Phrase, say
from asketa_core.units import SIDES, Array, Mask, Side

SAME_STEP_CM = 1.0
"""Heights this close count as the same set-up when one is remembered."""

SEAT_BAND_CM = 15.0
"""Seats further than this from the client's level seat are not searched."""


class Built(NamedTuple):
    """What each stack of an axis comes to: how much it is ``to_build``, in halves of a thing, how many things lie on
    others, how many chairs it takes and how many of each of the room's props (stacks, props), and what sitting on it is
    like."""

    to_build: Indices
    stacked: Indices
    chairs: Indices
    uses: NDArray[np.int16]
    soft: Mask
    arms: Mask

    def only(self, at: slice) -> Built:
        return Built(self.to_build[at], self.stacked[at], self.chairs[at], self.uses[at], self.soft[at], self.arms[at])

    @staticmethod
    def of(stacks: Sequence[Stack], slot: StackSlot, room: Room) -> Built:
        times = 2 if slot.twice else 1
        base = 2 if slot.base == "chair" else 1
        used = [stack.used for stack in stacks]
        return Built(
            times * np.array([stack.to_build for stack in stacks], dtype=np.int32),
            np.array([max(len(stack.layers) - base, 0) + stack.piled for stack in stacks], dtype=np.int32),
            np.array([stack.kinds["chair"] for stack in stacks], dtype=np.int32),
            np.array([[times * each[prop.id] for prop in room.stock] for each in used], dtype=np.int16),
            np.array([not stack.firm for stack in stacks]),
            np.array([stack.arms for stack in stacks]),
        )


@dataclass(frozen=True, slots=True)
class Axis:
    """The choices of one slot, in order. ``numbers`` is what geometry uses (0 for choices)."""

    name: str
    slot: Slot
    numbers: Array
    stacks: tuple[Stack, ...] = ()
    options: tuple[str, ...] = ()
    plain: int = 0
    searched: bool = True
    """Whether every value is tried. Choices that change no geometry stay as they are."""
    built: Built | None = None
    """What each stack comes to, where the slot holds stacks."""

    @property
    def size(self) -> int:
        return len(self.numbers)

    def value(self, index: int) -> SlotValue:
        if self.stacks:
            return SlotValue(stack=self.stacks[index].key, number=round(self.stacks[index].height_cm, 2))
        if self.options:
            return SlotValue(choice=self.options[index])
        return SlotValue(number=float(self.numbers[index]))

    def only_plain(self) -> Axis:
        """The same axis with its plain stack alone."""
        at = slice(self.plain, self.plain + 1)
        assert self.built is not None
        return replace(
            self,
            numbers=self.numbers[at],
            stacks=self.stacks[at],
            plain=0,
            built=self.built.only(at),
        )

    def nearest(self, value: SlotValue) -> int:
        """Index of the choice nearest a remembered value: the same stack, else the nearest height."""
        if value.choice is not None:
            return self.options.index(value.choice) if value.choice in self.options else self.plain
        for index, stack in enumerate(self.stacks):
            if stack.key == value.stack:
                return index
        wanted = value.number
        if wanted is None:
            return self.plain
        if self.stacks:
            found = nearest(self.stacks, wanted, SAME_STEP_CM)
            near = [stack for stack in (found.fits, found.below, found.above) if stack is not None]
            return self.stacks.index(min(near, key=lambda stack: abs(stack.height_cm - wanted)))
        return int(np.argmin(np.abs(self.numbers - wanted)))


@dataclass(frozen=True)
class Grid:
    """Axes in slot order and, for each set-up, the index on every axis: ``indices`` (n, axes)."""

    axes: tuple[Axis, ...]
    indices: Indices
    items: Indices
    stacked: Indices
    """How many props lie on others in each set-up."""
    unlike: Indices
    """How many supports that come once for each side differ between them."""
    batch: SetupBatch

    @property
    def size(self) -> int:
        return len(self.indices)

    def setup(self, index: int) -> dict[str, SlotValue]:
        return {axis.name: axis.value(int(self.indices[index, k])) for k, axis in enumerate(self.axes)}

    def stacks(self, index: int) -> dict[str, Stack]:
        return {axis.name: axis.stacks[int(self.indices[index, k])] for k, axis in enumerate(self.axes) if axis.stacks}

    def supports(self, index: int) -> list[Stack]:
        """Every stack of one set-up, those that are built twice twice."""
        return [
            axis.stacks[int(self.indices[index, k])]
            for k, axis in enumerate(self.axes)
            if axis.stacks
            for _ in range(2 if isinstance(axis.slot, StackSlot) and axis.slot.twice else 1)
        ]

    def find(self, wanted: Sequence[int]) -> int | None:
        """Row of the set-up with these axis indices; ``None`` when the room cannot build it."""
        hits = np.flatnonzero((self.indices == np.asarray(wanted, dtype=np.int32)).all(axis=1))
        return int(hits[0]) if len(hits) else None

    @property
    def lengths(self) -> list[int]:
        """Lengths of the dense grid, whether or not the stock covers every combination."""
        return lengths_of(self.axes)

    @cached_property
    def plain(self) -> int | None:
        return self.find([axis.plain for axis in self.axes])

    def trades(self, usual: int | None) -> Any:
        """What set-ups trade besides what they come to, as the engine reads it; ``usual`` is where steps count from."""
        return self._from_plain if usual is not None and usual == self.plain else self._trades(usual)

    @cached_property
    def _from_plain(self) -> Any:
        return self._trades(self.plain)

    def _trades(self, usual: int | None) -> Any:
        found = many(self.size, TRADE)
        found["unlike"], found["items"], found["stacked"] = self.unlike, self.items, self.stacked
        found["away"] = 0.0 if usual is None else self.steps_from(self.indices[usual].tolist())
        return found

    def nearest(self, setup: Mapping[str, SlotValue]) -> int:
        """Row nearest a remembered set-up, slot by slot; slots it does not name stay plain."""
        wanted = [axis.nearest(setup[axis.name]) if axis.name in setup else axis.plain for axis in self.axes]
        return int(np.argmin(self.steps_from(wanted)))

    def choosing(self, choices: Mapping[str, str]) -> Grid:
        """The same grid with other values of slots that change no geometry."""
        axes, indices = list(self.axes), self.indices
        for k, axis in enumerate(axes):
            if (
                not axis.searched
                and choices.get(axis.name) in axis.options
                and axis.options[axis.plain] != choices[axis.name]
            ):
                axes[k] = replace(axis, plain=axis.options.index(choices[axis.name]))
                indices = indices.copy()
                indices[:, k] = axes[k].plain
        return replace(self, axes=tuple(axes), indices=indices)

    def steps_from(self, wanted: Sequence[int]) -> Array:
        """How many steps of its axis each set-up is away from one given by axis indices, (n,)."""
        return np.asarray(np.abs(self.indices - np.asarray(wanted, dtype=np.int32)).sum(axis=1), dtype=np.float64)


@dataclass(frozen=True, slots=True)
class NoGrid:
    """A slot this room has nothing for: the heights asked for, and the nearest it can build (both may be ``None``)."""

    slot: str
    label: Phrase
    names_place: bool
    wanted_cm: tuple[float, float] | None = None
    nearest_cm: float | None = None


def _nothing(
    name: str, slot: Slot, wanted_cm: tuple[float, float] | None = None, nearest_cm: float | None = None
) -> NoGrid:
    return NoGrid(name, slot.label, isinstance(slot, StackSlot) and slot.names_place, wanted_cm, nearest_cm)


def _stack_axis(name: str, slot: StackSlot, room: Room, body: Body, memo: dict[object, Any]) -> Axis | NoGrid:
    key = ("stacks", name, slot)
    if key not in memo:
        memo[key] = _stacks_for(name, slot, room, body)
    found: Axis | NoGrid = memo[key]
    return found


def _stacks_for(name: str, slot: StackSlot, room: Room, body: Body) -> Axis | NoGrid:
    stacks: Sequence[Stack] = buildable(
        room,
        Use(slot.use),
        slot.base == "chair",
        slot.kinds,
        slot.faces,
        slot.max_layers,
        slot.apart_cm,
        slot.most_piled,
    )
    if slot.required:
        base = 1 if slot.base == "chair" else 0
        stacks = [stack for stack in stacks if len(stack.layers) > base]
    if slot.includes:
        stacks = [stack for stack in stacks if Counter(slot.includes) <= stack.kinds]
    low, high = slot.between_cm or (-np.inf, np.inf)
    if slot.base == "chair":
        # Far from this body's level seat nothing is searched, but what the rung itself asks for always is.
        level = body.level_seat_cm
        wanted = float(slot.plain) if not isinstance(slot.plain, str) else level
        low, high = max(low, min(level, wanted) - SEAT_BAND_CM), min(high, max(level, wanted) + SEAT_BAND_CM)
    built, stacks = stacks, [stack for stack in stacks if low <= stack.height_cm <= high]
    if not stacks:
        missed = min((s.height_cm for s in built), key=lambda cm: max(low - cm, cm - high), default=None)
        return _nothing(name, slot, (low, high) if np.isfinite(low) else None, missed)
    plain = 0
    if not isinstance(slot.plain, str):
        wanted = float(slot.plain)
        plain = min(
            range(len(stacks)),
            key=lambda i: (round(abs(stacks[i].height_cm - wanted)), stacks[i].to_build),
        )
    heels = body.length_cm("ankle_above_sole") if slot.base == "heels" else 0.0
    if slot.plain == "base_only" and slot.base == "chair":
        bare = [i for i, stack in enumerate(stacks) if len(stack.layers) == 1]
        plain = min(bare, key=lambda i: abs(stacks[i].height_cm - body.level_seat_cm), default=0)
    heights = np.array([stack.height_cm + heels for stack in stacks])
    return Axis(name, slot, heights, tuple(stacks), plain=plain, built=Built.of(stacks, slot, room))


def _number_axis(name: str, slot: NumberSlot, ranges: Ranges, side: Side) -> Axis:
    top = slot.to
    if isinstance(slot.plain, ShareOfRange):
        own = ranges.get(slot.plain.of, side)
        # Past the client's own range the slot changes nothing: the body stops first.
        top = min(top, max(slot.start, slot.step * np.ceil(own.value_deg / slot.step)))
        wanted = own.value_deg * slot.plain.percent / 100
    else:
        wanted = slot.plain
    numbers = np.arange(slot.start, top + 1e-9, slot.step)
    return Axis(name, slot, numbers, plain=int(np.argmin(np.abs(numbers - wanted))))


def grid_axes(
    variation: Variation,
    side: Side,
    body: Body,
    ranges: Ranges,
    room: Room,
    choices: Mapping[str, str],
    memo: dict[object, Any],
) -> list[Axis] | NoGrid:
    """What each slot may be in this room, for this body; ``memo`` keeps the stacks slots of variations share."""
    axes: list[Axis] = []
    # What only lies at the body comes as it usually does.
    shaping = variation.shaping_slots
    for name, slot in variation.setup_slots.items():
        axis: Axis | NoGrid
        if isinstance(slot, StackSlot):
            axis = _stack_axis(name, slot, room, body, memo)
        elif isinstance(slot, NumberSlot):
            axis = _number_axis(name, slot, ranges, side)
        elif isinstance(slot, PlaceSlot):
            places = [place for place in slot.options if place in room.places]
            at = places.index(slot.plain) if slot.plain in places else 0
            if not places:
                return _nothing(name, slot)
            axis = Axis(name, slot, np.zeros(len(places)), options=tuple(places), plain=at)
        else:
            assert isinstance(slot, ChoiceSlot)
            options = slot.options
            chosen = choices.get(name, slot.plain)
            chosen = chosen if chosen in options else slot.plain
            axis = Axis(
                name, slot, np.zeros(len(options)), options=options, plain=options.index(chosen), searched=False
            )
        if isinstance(axis, NoGrid):
            return axis
        if name not in shaping and axis.stacks:
            axis = axis.only_plain()
        axes.append(axis)
    return axes


def lengths_of(axes: Sequence[Axis]) -> list[int]:
    """How many values of each axis are tried. Choices that change no geometry stay plain and are set afterwards."""
    return [len(axis.numbers) if axis.searched else 1 for axis in axes]


def build_grid(
    variation: Variation,
    side: Side,
    body: Body,
    ranges: Ranges,
    room: Room,
    choices: Mapping[str, str],
    memo: dict[object, Any] | None = None,
) -> Grid | NoGrid:
    """Every set-up of a variation for one side that the room can build."""
    axes = grid_axes(variation, side, body, ranges, room, choices, {} if memo is None else memo)
    if isinstance(axes, NoGrid):
        return axes
    lengths = lengths_of(axes)
    rows: Indices = np.indices(lengths, dtype=np.int32).reshape(len(axes), math.prod(lengths))
    for k, axis in enumerate(axes):
        if not axis.searched:
            rows[k] = axis.plain
    stacked_on = [(k, axis.built) for k, axis in enumerate(axes) if axis.built is not None]
    rows = _affordable([(k, built.uses) for k, built in stacked_on], rows, [prop.count for prop in room.stock])
    if not rows.shape[1]:
        first = axes[stacked_on[0][0]]
        return _nothing(first.name, first.slot)
    if variation.recipe.helping_chair:
        chairs = sum(prop.count for prop in room.stock if prop.kind == "chair")
        rows = _affordable([(k, built.chairs[:, None]) for k, built in stacked_on], rows, [chairs - 1])
        if not rows.shape[1]:
            return NoGrid("helping_chair", say("stacks", "helping_chair"), names_place=False)
    items, stacked, unlike = (np.zeros(rows.shape[1], dtype=np.int32) for _ in range(3))
    for k, built in stacked_on:
        items += built.to_build[rows[k]]
        stacked += built.stacked[rows[k]]
    columns = dict(zip((axis.name for axis in axes), rows, strict=True))
    for name, slot in variation.slots.items():
        if isinstance(slot, StackSlot) and slot.per_side:
            left, right = (columns[side_slot(name, each)] for each in SIDES)
            unlike += left != right
    return Grid(tuple(axes), rows.T, items, stacked, unlike, _batch(axes, columns, variation.recipe.seat_slot))


def _batch(axes: Sequence[Axis], columns: Mapping[str, Indices], seat_slot: str | None) -> SetupBatch:
    """The numbers of every combination, and what its seat is like."""
    geometric = [axis for axis in axes if not axis.options]
    seat = next((axis for axis in axes if axis.name == seat_slot and axis.built is not None), None)
    places = next((axis for axis in axes if isinstance(axis.slot, PlaceSlot)), None)
    place = None
    if places is not None:
        numbers = np.array([PLACES.index(option) for option in places.options], dtype=np.int8)
        place = numbers[columns[places.name]]
    size = len(next(iter(columns.values()))) if columns else 1
    soft, arms = np.zeros(size, dtype=bool), np.ones(size, dtype=bool)
    if seat is not None and seat.built is not None:
        soft, arms = seat.built.soft[columns[seat.name]], seat.built.arms[columns[seat.name]]
    return SetupBatch(
        values={axis.name: axis.numbers[columns[axis.name]] for axis in geometric},
        soft_seat=soft,
        arms=arms,
        place=place,
        axes={axis.name: axis.numbers for axis in geometric},
        indices={axis.name: columns[axis.name] for axis in geometric},
    )


def _affordable(uses: Sequence[tuple[int, NDArray[Any]]], rows: Indices, stock: Sequence[int]) -> Indices:
    """The combinations (axes, n) the room's stock covers; ``uses`` says of some axes how many of each thing every stack
    takes."""
    # What would not run out even if every slot took its most needs no counting.
    free = np.array(stock)
    short = sum((used.max(axis=0) for _, used in uses), np.zeros(len(free), dtype=np.int16)) > free
    if not short.any():
        return rows
    need = sum(used[:, short][rows[k]] for k, used in uses)
    return np.asarray(rows[:, (need <= free[short]).all(axis=1)])
