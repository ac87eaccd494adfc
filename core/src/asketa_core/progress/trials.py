"""Both ways tried one after the other: what can be tried of a set-up, and what the calmer way means from then on.

Bodies differ in which of two ways is calmer where no limit decides: the foot drawn up or at rest, the shin nearer or
further, the hands higher or lower. The slots for which that is so say ``try_both`` in the data.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from asketa_core.client.holds import Response, SlotValue, Trial
from asketa_core.clinical import clinical
from asketa_core.poses.library import Library, Variation
from asketa_core.poses.recipe import ChoiceSlot, NumberSlot, PlaceSlot
from asketa_core.progress.responses import Judged, Tolerance
from asketa_core.progress.values import same_value
from asketa_core.setup.grid import Axis
from asketa_core.setup.screened import Screened
from asketa_core.texts import Phrase, say
from asketa_core.units import Side
from asketa_core.words.stacks import built_words

APART_CM = clinical("trial.apart", "cm")
APART_DEG = clinical("trial.apart_angle", "deg")

LESS = {"up": 1, "down": -1}
"""Which way along an axis there is less support."""


@dataclass(frozen=True, slots=True)
class Way:
    """Another way of one slot of a set-up that is open today; ``row`` is its row of the grid."""

    slot: str
    setup: Mapping[str, SlotValue]
    row: int

    @property
    def value(self) -> SlotValue:
        return self.setup[self.slot]


def ways(screened: Screened, setup: Mapping[str, SlotValue], keep_range: bool = False) -> Iterator[Way]:
    """Every other way that may be held against a set-up: each other choice, and of heights, distances and angles the next
    one either way that a body can tell apart. What a limit closes is none of them; nor is less support where range is to
    be kept, since trying it would be a step on by another name.

    Yields nothing where the set-up itself is closed.
    """
    grid = screened.grid
    row = grid.nearest(setup)
    if not screened.allowed(row):
        return
    chosen = {name: value for name, value in setup.items() if value.choice is not None}
    here = {**grid.setup(row), **chosen}
    for k, axis in enumerate(grid.axes):
        slot = axis.slot
        if isinstance(slot, PlaceSlot) or not slot.try_both:
            continue
        if isinstance(slot, ChoiceSlot):
            for option in slot.options:
                if option != here[axis.name].choice:
                    yield Way(axis.name, {**here, axis.name: SlotValue(choice=option)}, row)
            continue
        for direction in (1, -1):
            if keep_range and direction == LESS.get(slot.less_support):
                continue
            other = _next_open(screened, row, k, direction)
            if other is not None:
                yield Way(axis.name, {**grid.setup(other), **chosen}, other)


def _next_open(screened: Screened, row: int, k: int, direction: int) -> int | None:
    """The nearest set-up in one direction of an axis that is far enough to be felt; ``None`` where that one is closed or the
    room builds none."""
    grid = screened.grid
    axis = grid.axes[k]
    now = int(grid.indices[row, k])
    wanted = grid.indices[row].copy()
    for index in range(now + direction, axis.size if direction > 0 else -1, direction):
        if abs(float(axis.numbers[index] - axis.numbers[now])) < _apart(axis):
            continue
        wanted[k] = index
        found = grid.find(wanted.tolist())
        if found is not None:
            return found if screened.allowed(found) else None
    return None


def _apart(axis: Axis) -> float:
    return APART_DEG if isinstance(axis.slot, NumberSlot) and axis.slot.type == "angle" else APART_CM


def standing(trials: Iterable[Trial], rung: Variation, side: Side) -> dict[str, Trial]:
    """The last trial of each slot that counts for a rung and side. How the foot is held counts on the whole ladder, a height
    or an angle on its own rung; of a shape both legs share either side's counts."""
    return {
        trial.slot: trial
        for trial in sorted(trials, key=lambda each: each.date)
        if trial.family == rung.family
        and _is_about(trial, rung, side)
        and trial.slot in rung.setup_slots
        and (trial.variation == rung.id or isinstance(rung.setup_slots[trial.slot], ChoiceSlot))
    }


def tried_on(trials: Iterable[Trial], library: Library, family: str, side: Side) -> list[Trial]:
    """Everything that was tried on one side of a ladder, oldest first."""
    own = (trial for trial in trials if trial.family == family)
    return sorted(
        (trial for trial in own if _is_about(trial, library.variation(trial.variation), side)),
        key=lambda each: each.date,
    )


def _is_about(trial: Trial, rung: Variation, side: Side) -> bool:
    """Of a shape both legs share either side tells of both."""
    return rung.shared or trial.side is side


def with_kept(used: Response | None, kept: Mapping[str, Trial]) -> dict[str, SlotValue] | None:
    """The set-up last used with what was kept since; ``None`` where there is neither.

    On the day of a trial only the way that was not kept gives way: whatever else was used that day was chosen after it.
    """
    found = dict(used.setup) if used is not None else {}
    for slot, trial in kept.items():
        now = found.get(slot)
        if (
            used is None
            or now is None
            or trial.date > used.date
            or (trial.date == used.date and same_value(now, trial.other_value))
        ):
            found[slot] = trial.kept_value
    return found or None


def try_again(trial: Trial, judged: Sequence[Judged]) -> bool:
    """Whether the side flared up since, so that both ways want trying again. ``judged`` are the holds of that side and
    ladder; of the trial's own day one counts that was held the way that was kept."""
    return any(
        each.tolerance is Tolerance.FLARE
        and (
            each.response.date > trial.date
            or (
                each.response.date == trial.date
                and trial.slot in each.response.setup
                and same_value(each.response.setup[trial.slot], trial.kept_value)
            )
        )
        for each in judged
    )


def way_words(screened: Screened, row: int, value: SlotValue, slot: str) -> Phrase:
    """One way of a slot as this room builds it: 'drawn up', 'block on its side'."""
    stacks = screened.grid.stacks(row)
    return built_words(stacks[slot]) if slot in stacks else value_words(screened.variation, slot, value)


def value_words(rung: Variation, slot: str, value: SlotValue) -> Phrase:
    """The value of a slot as it was used, by its height where it was a stack; what a rung no longer has by its number."""
    if value.choice is not None:
        return say("choices", value.choice)
    known = rung.setup_slots.get(slot)
    number = value.number or 0.0
    if isinstance(known, NumberSlot):
        return say("units", known.unit, n=number)
    return say("units", "cm", n=number)
