"""What is remembered between two decisions: by its explicit inputs, counted in bytes, worked out once at a time."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class Remembered(Generic[K, V]):
    """The results of one computation that were asked for last, up to a number of bytes.

    Two who ask for the same at once wait for one computation; what fails is not remembered, and whoever waited tries
    himself.
    """

    def __init__(self, weigh: Callable[[V], int], most_bytes: int) -> None:
        self._weigh = weigh
        self._most = most_bytes
        self._kept: OrderedDict[K, tuple[V, int]] = OrderedDict()
        self._bytes = 0
        self._lock = Lock()
        self._busy: dict[K, Lock] = {}

    def get(self, key: K, work: Callable[[], V]) -> V:
        """Return what is remembered of a key, or what `work` makes of it now."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key][0]
            busy = self._busy.setdefault(key, Lock())
        with busy:
            with self._lock:
                if key in self._kept:
                    return self._kept[key][0]
            try:
                value = work()
                self._keep(key, value)
            finally:
                with self._lock:
                    self._busy.pop(key, None)
        return value

    def _keep(self, key: K, value: V) -> None:
        weight = self._weigh(value)
        with self._lock:
            self._kept[key] = (value, weight)
            self._bytes += weight
            while self._bytes > self._most and self._kept:  # the newest too, where it is larger than all may be
                _, (_, gone) = self._kept.popitem(last=False)
                self._bytes -= gone

    @property
    def n_bytes(self) -> int:
        """How much is remembered now."""
        return self._bytes

    def clear(self) -> None:
        """Forget all."""
        with self._lock:
            self._kept.clear()
            self._bytes = 0
