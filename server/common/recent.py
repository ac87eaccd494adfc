"""The last few of something, kept in this process."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

T = TypeVar("T")


class Recent(Generic[T]):
    """Values by key, the least recently used thrown out first. Computing goes on outside the lock: two threads may
    compute the same value, and either serves."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._lock = threading.Lock()
        self._kept: OrderedDict[Hashable, T] = OrderedDict()

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        with self._lock:
            found = self._kept.get(key)
        if found is None:
            found = compute()
        with self._lock:
            self._kept[key] = found
            self._kept.move_to_end(key)
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return found

    def clear(self) -> None:
        with self._lock:
            self._kept.clear()
