"""What was worked out last, kept in the process."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, Generic, TypeVar

T = TypeVar("T")


def _one(_: object) -> int:
    return 1


class Recent(Generic[T]):
    """Values by key, up to ``most`` in ``size`` together; what was longest unused goes first. Making goes on outside the lock:
    two threads may make the same value, and either serves."""

    def __init__(self, most: int, size: Callable[[T], int] = _one) -> None:
        self._most, self._size_of, self._size, self._lock = most, size, 0, Lock()
        self._kept: OrderedDict[Hashable, tuple[T, int]] = OrderedDict()

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """What is kept under a key, or else what is made now."""
        with self._lock:
            known = self._kept.get(key)
            if known is not None:
                self._kept.move_to_end(key)
                return known[0]
        found = make()
        with self._lock:
            self._forget(key)
            self._kept[key] = (found, self._size_of(found))
            self._size += self._kept[key][1]
            while self._size > self._most and len(self._kept) > 1:
                self._forget(next(iter(self._kept)))
        return found

    def clear(self) -> None:
        with self._lock:
            self._kept.clear()
            self._size = 0

    def _forget(self, key: Hashable) -> None:
        if key in self._kept:
            self._size -= self._kept.pop(key)[1]


class Itself:
    """Something as part of a key: told apart by which it is, not by what it says, and kept as long as the key is."""

    __slots__ = ("it",)

    def __init__(self, it: Any) -> None:
        self.it = it

    def __hash__(self) -> int:
        return id(self.it)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Itself) and other.it is self.it
