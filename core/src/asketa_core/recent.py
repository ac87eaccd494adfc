"""What was worked out last about variations, kept in the process."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

from asketa_core.poses.library import Variation

T = TypeVar("T")


class Recent(Generic[T]):
    """The last of them up to ``most`` in ``size`` together. Variations are told apart by which they are, not by what they
    say."""

    def __init__(self, most: int, size: Callable[[T], int]) -> None:
        self._most, self._size_of, self._size, self._lock = most, size, 0, Lock()
        self._kept: OrderedDict[Hashable, tuple[Variation, T]] = OrderedDict()

    def get(self, variation: Variation, key: Hashable, make: Callable[[], T]) -> T:
        """What is kept of a variation under a key, or else what is made now."""
        which = (id(variation), key)
        with self._lock:
            known = self._kept.get(which)
            if known is not None and known[0] is variation:
                self._kept.move_to_end(which)
                return known[1]
        found = make()
        with self._lock:
            self._forget(self._kept.pop(which, None))
            self._kept[which] = (variation, found)
            self._size += self._size_of(found)
            while self._size > self._most and len(self._kept) > 1:
                self._forget(self._kept.popitem(last=False)[1])
        return found

    def _forget(self, known: tuple[Variation, T] | None) -> None:
        if known is not None:
            self._size -= self._size_of(known[1])
