"""All ways to cut one sheet apart from edge to edge, however deep: the most that it can be worth, and so a proof.

Dynamic programming over rectangles (Gilmore & Gomory 1966, *The theory and computation of knapsack functions*) whose
sides are raster points only, which loses nothing (Scheithauer & Terno 1996, *The G4-heuristic for the pallet loading
problem*). What a sheet is worth at most, whatever is cut out of it and however often, tells how few sheets can do.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from wobble.core.make.cutting.rows import Lie
from wobble.core.make.cutting.tree import Split, Tree

Whole = NDArray[np.intp]
Shares = NDArray[np.float32]
_Cut = tuple[Whole, Whole]
ONE_SUM = 2.0**-24
"""What a sum in single precision is off at most, as a share of it."""


class Guillotine:
    """One size of sheet and what may be cut out of it; asked again and again with other worths.

    `size` is how many pairs of rectangles are looked at, `held` how many cuts are held meanwhile: both go with the
    square of how finely sizes differ, so that they are known before anything is done.

    Args:
        all_lies: How parts may lie, in cells with a kerf added; at least one.
        size: Of the sheet, in cells with a kerf added.
    """

    def __init__(self, all_lies: Sequence[Lie], size: tuple[int, int]) -> None:
        self._least = (min(lie.w for lie in all_lies), min(lie.h for lie in all_lies))
        self._most_parts = size[0] * size[1] // min(lie.w * lie.h for lie in all_lies)
        self._xs, self._ys = raster({lie.w for lie in all_lies}, size[0]), raster({lie.h for lie in all_lies}, size[1])
        self._lies = [
            (lie, int(np.searchsorted(self._xs, lie.w)), int(np.searchsorted(self._ys, lie.h))) for lie in all_lies
        ]
        ways = _ways(self._xs, self._least[0]), _ways(self._ys, self._least[1])
        self.size = ways[0] * len(self._ys) + ways[1] * len(self._xs)
        self.held = sum(ways)

    @cached_property
    def _across(self) -> list[_Cut]:
        return _cuts(self._xs, self._least[0])

    @cached_property
    def _up(self) -> list[_Cut]:
        return _cuts(self._ys, self._least[1])

    def best(self, worth: Sequence[float]) -> tuple[float, Tree]:
        """Return what a sheet is worth at most, never less than it is, and how it is cut then."""
        start = self._start(worth)
        value = self._filled(start.copy())
        sure = float(value[-1, -1]) * (1 + self._most_parts * ONE_SUM)
        return sure, self._tree(value, worth, len(self._xs) - 1, len(self._ys) - 1)

    def _start(self, worth: Sequence[float]) -> Shares:
        value = np.zeros((len(self._xs), len(self._ys)), dtype=np.float32)
        for lie, x, y in self._lies:
            value[x, y] = max(value[x, y], np.float32(worth[lie.kind]))
        return value

    def _filled(self, value: Shares) -> Shares:
        """Return the most that each rectangle is worth, in place.

        Rectangles that differ in length by less than the shortest part do not rest on each other: all are done at once.
        """
        lengths = self._xs
        begin = int(np.searchsorted(lengths, self._least[0]))
        while begin < len(lengths):
            end = int(np.searchsorted(lengths, lengths[begin] + self._least[0]))
            for i in range(begin, end):
                first, second = self._across[i]
                if len(first):
                    np.maximum(value[i], (value[first] + value[second]).max(axis=0), out=value[i])
            block = np.ascontiguousarray(value[begin:end].T)
            np.maximum(block[:, 0], value[begin - 1], out=block[:, 0])
            np.maximum.accumulate(block, axis=1, out=block)
            for j in range(1, len(block)):
                np.maximum(block[j], block[j - 1], out=block[j])
                first, second = self._up[j]
                if len(first):
                    np.maximum(block[j], (block[first] + block[second]).max(axis=0), out=block[j])
            value[begin:end] = block.T
            begin = end
        return value

    def _tree(self, value: Shares, worth: Sequence[float], i: int, j: int) -> Tree:
        """Return how a rectangle comes to its value: the same sums as made it, found again."""
        there = value[i, j]
        if there <= 0:
            return None
        while value[i - 1, j] == there:
            i -= 1
        while value[i, j - 1] == there:
            j -= 1
        for lie, x, y in self._lies:
            if np.float32(worth[lie.kind]) == there and x <= i and y <= j:
                return lie.leaf
        first, second = self._across[i]
        found = np.flatnonzero(value[first, j] + value[second, j] == there)
        if len(found):
            a, b = int(first[found[0]]), int(second[found[0]])
            return Split("x", self._tree(value, worth, a, j), self._tree(value, worth, b, j))
        first, second = self._up[j]
        at = np.flatnonzero(value[i, first] + value[i, second] == there)[0]
        a, b = int(first[at]), int(second[at])
        return Split("y", self._tree(value, worth, i, a), self._tree(value, worth, i, b))


def raster(sides: set[int], whole: int) -> Whole:
    """Return the lengths at which it is enough to cut: what a sum of sides reaches, counted from either end."""
    limit = (1 << (whole + 1)) - 1
    reached = 1
    for side in sides:
        many = side
        while many <= whole:
            reached |= (reached << many) & limit
            many *= 2
    octets = np.frombuffer(reached.to_bytes(whole // 8 + 1, "little"), dtype=np.uint8)
    sums = np.flatnonzero(np.unpackbits(octets, bitorder="little")[: whole + 1])
    from_either = sums[np.searchsorted(sums, whole - sums, side="right") - 1]
    return np.unique(np.concatenate([[0], from_either, [whole]]))


def _ways(points: Whole, least: int) -> int:
    """Return in how many ways all lengths are cut in two."""
    begin = int(np.searchsorted(points, least))
    return int(np.maximum(np.searchsorted(points, points // 2, side="right") - begin, 0).sum())


def _cuts(points: Whole, least: int) -> list[_Cut]:
    """Return, for each length, where it is cut in two and what that leaves, as numbers of points."""
    begin = int(np.searchsorted(points, least))
    found = []
    for length in points:
        first = np.arange(begin, int(np.searchsorted(points, length // 2, side="right")))
        found.append((first, np.searchsorted(points, length - points[first], side="right") - 1))
    return found
