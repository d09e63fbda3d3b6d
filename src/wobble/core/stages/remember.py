"""What is remembered between two decisions: by its explicit inputs, counted in bytes, worked out once at a time."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")
FEW, SEVERAL = 4, 12
"""So many results of one thing are kept: a few of what is large, of others as many as a place has alternatives."""


class Remembered(Generic[K, V]):
    """The results of one computation that were asked for last, up to a number of bytes, and a few of one thing.

    `whose` names the thing that a key is of: a place that is read again and again leaves behind what nobody asks for
    any more. Two who ask for the same at once wait for one computation; what fails is not remembered, and whoever
    waited tries himself.
    """

    def __init__(
        self,
        weigh: Callable[[V], int],
        most_bytes: int,
        whose: Callable[[K], Hashable] | None = None,
        most_of_one: int = SEVERAL,
    ) -> None:
        self._weigh = weigh
        self._most = most_bytes
        self._whose = whose
        self._most_of_one = most_of_one
        self._of: dict[Hashable, list[K]] = {}
        self._kept: OrderedDict[K, tuple[V, int]] = OrderedDict()
        self._bytes = 0
        self._lock = Lock()
        self._busy: dict[K, Lock] = {}

    def get(self, key: K, work: Callable[[], V]) -> V:
        """Return what is remembered of a key, or what `work` makes of it now."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                if self._whose is not None:
                    own = self._of[self._whose(key)]
                    own.append(own.pop(own.index(key)))
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
            if self._whose is not None:
                own = self._of.setdefault(self._whose(key), [])
                own.append(key)
                if len(own) > self._most_of_one:
                    self._forget(own[0])
            while self._bytes > self._most and self._kept:  # the newest too, where it is larger than all may be
                self._forget(next(iter(self._kept)))

    def _forget(self, key: K) -> None:
        self._bytes -= self._kept.pop(key)[1]
        if self._whose is not None:
            whose = self._whose(key)
            self._of[whose].remove(key)
            if not self._of[whose]:
                del self._of[whose]

    @property
    def n_bytes(self) -> int:
        """How much is remembered now."""
        return self._bytes

    def clear(self) -> None:
        """Forget all."""
        with self._lock:
            self._kept.clear()
            self._of.clear()
            self._bytes = 0
