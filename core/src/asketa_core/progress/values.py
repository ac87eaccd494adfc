"""Whether two set-ups, or two values of a slot, are the same to a body."""

from __future__ import annotations

from collections.abc import Mapping

from asketa_core.client.holds import SlotValue

SAME_HEIGHT_CM = 1.0


def same_setup(first: Mapping[str, SlotValue], second: Mapping[str, SlotValue]) -> bool:
    """Whether two set-ups have the same slots with the same values."""
    return set(first) == set(second) and all(same_value(value, second[name]) for name, value in first.items())


def same_value(first: SlotValue, second: SlotValue) -> bool:
    """Whether two values of a slot are one choice: the same word, the same stack, or within a centimetre of it."""
    if first.choice != second.choice:
        return False
    if first.stack is not None and first.stack == second.stack:
        return True
    if first.number is not None and second.number is not None and first.stack is not None:
        return abs(first.number - second.number) <= SAME_HEIGHT_CM
    return first.number == second.number
