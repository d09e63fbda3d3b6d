"""Strips of a sheet: what fills one of each height for the most worth, exactly, as three cuts deep allow.

A sheet is ripped into strips, a strip is cut into columns, and what is stacked in a column is cut apart: knapsacks in
each other (Gilmore & Gomory 1965, *Multistage cutting stock problems of two and more dimensions*). All strips of one
direction are filled at once, so that what is asked of hundreds of sheets is answered in some hundredths of a second.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wobble.core.make.cutting.rows import Lie

POINTS = 2600
"""Lengths a sheet is divided into at most; sizes are rounded up to them, so that what fits here fits."""
MOST_ALIKE = 8
"""Like columns of one strip."""
SURE = 1e-5
"""Worth that is more than what sums in single precision are off, of a sheet that is worth one."""

Column = tuple[Lie, ...]
Taken = NDArray[np.bool_]
Values = NDArray[np.float64] | NDArray[np.float32]


@dataclass(frozen=True)
class Strip:
    """A strip: the number of its height, and its columns, each with the parts that are stacked in it."""

    height: int
    columns: tuple[Column, ...]

    @property
    def held(self) -> Counter[int]:
        """How many parts of each kind are cut out of it."""
        return Counter(lie.kind for column in self.columns for lie in column)


@dataclass(frozen=True)
class _Step:
    """One thing that was offered to a knapsack so many at once, where it was taken, and how much room it takes."""

    taken: Taken
    size: int
    what: int
    many: int


class Direction:
    """Strips that run one way: along `long`, side by side across `wide`, both in cells.

    `heights` are those of the parts as they may lie, in points, the lowest first; `spent` counts what was worked out.
    """

    def __init__(self, all_lies: Sequence[Lie], counts: Sequence[int], long: int, wide: int) -> None:
        self._unit = max(1, math.ceil(max(long, wide) / POINTS))
        self._lies = sorted(all_lies, key=lambda lie: (lie.w, lie.h, lie.kind))
        self._counts = counts
        self.long, self.wide = long // self._unit, wide // self._unit
        fitting = [lie for lie in self._lies if self._up(lie.w) <= self.long and self._up(lie.h) <= self.wide]
        self._lies = fitting
        self.heights = sorted({self._up(lie.h) for lie in fitting})
        self.spent = 0

    def _up(self, cells: int) -> int:
        return -(-cells // self._unit)

    @property
    def size(self) -> int:
        """How much is worked out at most for strips of all heights."""
        widths = {self._up(lie.w) for lie in self._lies}
        return (self.long + 1) * len(self.heights) * sum(len(_powers(self._alike(width))) for width in widths)

    def _alike(self, width: int) -> int:
        return min(self.long // width, MOST_ALIKE)

    def plain(self) -> list[Strip]:
        """Return strips of one kind each, with which a search can begin."""
        row = {high: i for i, high in enumerate(self.heights)}
        return [
            Strip(row[self._up(lie.h)], ((lie,),) * min(self._counts[lie.kind], self.long // self._up(lie.w)))
            for lie in self._lies
            if self._counts[lie.kind]
        ]

    def best(self, worth: Sequence[float], asked: Sequence[float]) -> list[Strip]:
        """Return, for each height, the strip that is worth most, where that is more than is asked for it."""
        lies = [lie for lie in self._lies if worth[lie.kind] > SURE and self._counts[lie.kind]]
        if not lies:
            return []
        widths = sorted({self._up(lie.w) for lie in lies})
        stacked, steps, until = self._stacks(lies, worth)
        value = np.zeros((len(self.heights), self.long + 1), dtype=np.float32)
        beside: list[_Step] = []
        for i, width in enumerate(widths):
            column = stacked[i].astype(np.float32)[:, None]
            alike = _powers(self._alike(width))
            beside += [_offer(value, width * n, column * np.float32(n), i, n) for n in alike]
        self.spent += value.size * len(beside)
        found = []
        for row, high in enumerate(self.heights):
            if value[row, self.long] <= asked[row] + SURE:
                continue
            columns: list[Column] = []
            for i, many in _way_back([s.taken[row] for s in beside], beside, self.long):
                within = steps[: until[i]]
                stack = tuple(
                    lies[what] for what, n in _way_back([s.taken for s in within], within, high) for _ in range(n)
                )
                columns += [stack] * many
            strip = Strip(row, tuple(columns))
            if sum(worth[kind] * n for kind, n in strip.held.items()) > asked[row] + SURE:
                found.append(strip)
        return found

    def _stacks(
        self, lies: Sequence[Lie], worth: Sequence[float]
    ) -> tuple[list[NDArray[np.float64]], list[_Step], list[int]]:
        """Return what a column of each width is worth at each height, what was offered, and how much of it by width."""
        value = np.zeros(self.wide + 1)
        heights = np.array(self.heights)
        by_width: list[NDArray[np.float64]] = []
        steps: list[_Step] = []
        until: list[int] = []
        for i, lie in enumerate(lies):
            high = self._up(lie.h)
            most = min(self._counts[lie.kind], self.wide // high)
            steps += [_offer(value, high * n, worth[lie.kind] * n, i, n) for n in _powers(most)]
            if i + 1 == len(lies) or self._up(lies[i + 1].w) > self._up(lie.w):
                by_width.append(value[heights])
                until.append(len(steps))
        self.spent += value.size * len(steps)
        return by_width, steps, until

    def sheet(self, asked: Sequence[float]) -> tuple[float, Counter[int]]:
        """Return the most that strips on one sheet are worth together, and how many of which height they are."""
        value = np.zeros(self.wide + 1)
        steps: list[_Step] = []
        for row, (high, price) in enumerate(zip(self.heights, asked, strict=True)):
            if price > SURE:
                steps += [_offer(value, high * n, price * n, row, n) for n in _powers(self.wide // high)]
        chosen: Counter[int] = Counter()
        for row, many in _way_back([s.taken for s in steps], steps, self.wide):
            chosen[row] += many
        return float(value[self.wide]), chosen


def _powers(n: int) -> list[int]:
    """Return numbers whose sums are all of 0 to n."""
    found = []
    one = 1
    while n > 0:
        found.append(min(one, n))
        n -= one
        one *= 2
    return found


def _offer(value: Values, size: int, worth: float | Values, what: int, many: int) -> _Step:
    """Offer something to a knapsack, in place: along the last axis."""
    room = value.shape[-1] - size
    if room <= 0:
        return _Step(np.zeros((*value.shape[:-1], 0), dtype=bool), size, what, many)
    with_it = value[..., :room] + worth
    taken = with_it > value[..., size:] + (SURE / 10)
    np.copyto(value[..., size:], with_it, where=taken)
    return _Step(taken, size, what, many)


def _way_back(taken: Sequence[Taken], steps: Sequence[_Step], at: int) -> list[tuple[int, int]]:
    """Return what was taken, and how many of it, for what is reached at a size."""
    found = []
    for where, step in zip(reversed(taken), reversed(steps), strict=True):
        room = at - step.size
        if 0 <= room < len(where) and where[room]:
            found.append((step.what, step.many))
            at = room
    return found
