"""Many sheets alike: strips that are cut again and again, chosen by what each part is worth among all others.

Column generation (Gilmore & Gomory 1965) in two parts that meet in one linear program: sheets give strips of certain
heights, strips give parts. So a strip that was found once is of use to every sheet. Whole sheets are then taken from
the program's answer a few at a time, and what they leave is asked of it anew.
"""

from __future__ import annotations

import math
import random
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.proof import Proof
from wobble.core.make.cutting.rows import Filler, Kind, Lie, chain, lies
from wobble.core.make.cutting.strips import Direction, Strip
from wobble.core.make.cutting.tree import Axis, Tree, extent, leaves, without

CELLS_A_STEP = 350
STEPS_A_COLUMN, STEPS_A_PROGRAM = 12, 3_000
"""What a linear program costs, beside what parts looked at cost."""
SMALL = 1e-6
AT_ONCE = 0.2
"""Share of the sheets that is taken from one answer of the program before it is asked again."""
SHAKEN = 0.15
"""How far the order in which sheets and strips are taken is left to chance, so that tries differ."""
NEAR = 0.01
"""Sheets that a strip may cost over its worth and still be looked at where whole sheets are taken."""
LITTLE = 0.05
"""Sheets that two programs in a row must save for another to be worth its time."""
LAST = 3
"""Sheets that are left to others: so few are filled better by trying than by a program of shares of sheets."""


@dataclass(frozen=True)
class _Answer:
    """Of the program: sheets, what each row is worth, shares of the columns, and what those cost over their worth."""

    sheets: float
    worth: Sequence[float]
    shares: NDArray[np.float64]
    over: Mapping[int, float]


class Patterns:
    """Strips and sheets of one size of stock, and what they come to."""

    def __init__(self, kinds: Sequence[Kind], counts: Sequence[int], size: tuple[int, int], effort: Effort) -> None:
        self._kinds, self._counts, self._size, self._effort = kinds, list(counts), size, effort
        self._sizes = tuple((k.long, k.wide) for k in kinds)
        self._lies = flat = lies(kinds, *size)
        upright = [Lie(lie.kind, lie.turned, lie.h, lie.w) for lie in flat]
        self._along = (Direction(flat, counts, *size), Direction(upright, counts, size[1], size[0]))
        self._first = (len(counts), len(counts) + len(self._along[0].heights))
        self._rows = self._first[1] + len(self._along[1].heights)
        self._columns: dict[tuple[tuple[int, int], ...], int] = {}
        self._strips: list[tuple[int, Strip] | None] = []
        self._whole: dict[int, Tree] = {}
        self._proof = Proof(flat, counts, size, effort)
        for side, along in enumerate(self._along):
            for row, high in enumerate(along.heights):
                self._add_sheet(side, Counter({row: along.wide // high}))
            for strip in along.plain():
                self._add_strip(side, strip)

    def _add_sheet(self, side: int, chosen: Mapping[int, int]) -> bool:
        return self._add({self._first[side] + row: n for row, n in chosen.items()}, None)

    def _add_strip(self, side: int, strip: Strip) -> bool:
        return self._add({**strip.held, self._first[side] + strip.height: -1}, (side, strip))

    def _add(self, column: dict[int, int], strip: tuple[int, Strip] | None) -> bool:
        key = tuple(sorted(column.items()))
        if key in self._columns:
            return False
        self._columns[key] = len(self._columns)
        self._strips.append(strip)
        return True

    def grow(self, share: float) -> bool:
        """Find strips and sheets until they hardly make it less, or the effort is spent to a share of the whole.

        False where so many kinds are wanted that there is no time for any.
        """
        before = [math.inf, math.inf]
        looked = False
        one = sum(along.size for along in self._along) // CELLS_A_STEP
        while self._effort.more(share) and self._effort.affords(one):
            answer, looked = self._program(self._counts), True
            if answer is None or not self._more(answer.worth) or before[-2] - answer.sheets < LITTLE:
                break
            before.append(answer.sheets)
        return looked

    @property
    def least(self) -> int:
        """Sheets that no cutting from edge to edge goes under, as far as it is proved."""
        return self._proof.sheets

    def prove(self, share: float = 1.0) -> bool:
        """Prove how few sheets can do, taking in what is found on the way; False where that is no more than before.

        It ends where the proof asks for as many whole sheets as the program does, or the effort is spent to a share.
        """
        found = False
        while self._effort.more(share) and self._proof.affordable:
            answer = self._program(self._counts)
            if answer is None or self.least >= math.ceil(answer.sheets - SMALL):
                break
            tree = self._proof.better(answer.worth[: len(self._counts)])
            if tree is None or not self._add(Counter(leaf.kind for leaf in leaves(tree)), None):
                break
            self._whole[len(self._strips) - 1] = tree
            found = True
        return found

    def asks(self) -> float:
        """Return how many sheets the program asks for, in shares of sheets, with what was found: no proof, but near."""
        answer = self._program(self._counts)
        return math.inf if answer is None else answer.sheets

    def asked(self) -> int:
        """Return the same in whole sheets."""
        return math.ceil(self.asks() - SMALL)

    def _more(self, worth: Sequence[float]) -> bool:
        """Take in strips and sheets that are worth more than they cost; False where there are none."""
        found = False
        for side, along in enumerate(self._along):
            first = self._first[side]
            asked = worth[first : first + len(along.heights)]
            before = along.spent
            for strip in along.best(worth, asked):
                found |= self._add_strip(side, strip)
            value, chosen = along.sheet(asked)
            if value > 1 + SMALL:
                found |= self._add_sheet(side, chosen)
            self._effort.spend((along.spent - before) // CELLS_A_STEP)
        return found

    def _program(self, left: Sequence[int], among: Sequence[int] | None = None) -> _Answer | None:
        """Return what is left in the fewest sheets, shares of sheets allowed, out of some of what was found."""
        chosen = list(range(len(self._strips))) if among is None else list(among)
        keys = list(self._columns)
        matrix = np.zeros((self._rows, len(chosen)))
        for j, at in enumerate(chosen):
            for row, value in keys[at]:
                matrix[row, j] = value
        cost = np.array([1.0 if self._strips[at] is None else 0.0 for at in chosen])
        wanted = np.array([*left, *[0] * (self._rows - len(left))], dtype=float)
        self._effort.spend(STEPS_A_PROGRAM + STEPS_A_COLUMN * len(chosen))
        done = linprog(cost, A_ub=-matrix, b_ub=-wanted, method="highs-ds")
        if done.x is None:
            return None
        worth = -done.ineqlin.marginals
        shares = np.zeros(len(self._strips))
        shares[chosen] = done.x
        over = dict(zip(chosen, cost - worth @ matrix, strict=True))
        return _Answer(float(cost @ done.x), [float(v) for v in worth], shares, over)

    def taken(self, rng: random.Random, price: Sequence[float]) -> tuple[list[Tree], list[int]]:
        """Return whole sheets but for the last few, and what they leave wanted."""
        left = list(self._counts)
        trees: list[Tree] = []
        by_row: dict[int, list[int]] = {}
        sheets: list[tuple[int, dict[int, int]]] = []
        for key, j in self._columns.items():
            strip = self._strips[j]
            if strip is None:
                sheets.append((j, dict(key)))
            else:
                by_row.setdefault(self._first[strip[0]] + strip[1].height, []).append(j)
        near: list[int] | None = None
        while any(left) and self._effort.more():
            answer = self._program(left, near)
            if answer is None or answer.sheets <= LAST + SMALL:
                break
            if near is None:
                near = [j for j, cost in answer.over.items() if cost < NEAR]
            shares = answer.shares
            many = max(1, round(AT_ONCE * answer.sheets))
            order = [(-(shares[j] + SHAKEN * rng.random()), j, rows) for j, rows in sheets if shares[j] > SMALL]
            if not order:
                break
            for _, j, rows in sorted(order, key=lambda one: one[:2]):
                for _ in range(max(1, math.floor(shares[j] + SMALL))):
                    if many > 0:
                        many -= 1
                        if j in self._whole:
                            tree = without(self._whole[j], left)
                        else:
                            chosen = [
                                self._choose(by_row.get(row, []), shares, left, rng)
                                for row in rows
                                for _ in range(rows[row])
                            ]
                            tree = self._sheet(min(rows) >= self._first[1], chosen, left, rng, price)
                        if tree is not None:
                            trees.append(tree)
        return trees, left

    def _choose(
        self, among: Sequence[int], shares: NDArray[np.float64], left: list[int], rng: random.Random
    ) -> Strip | None:
        """Return the strip of a height of which most is asked and least is done already; what it holds is taken off."""
        best: tuple[float, int, Strip] | None = None
        for j in among:
            one = self._strips[j]
            if shares[j] <= SMALL or one is None:
                continue
            held = one[1].held
            whole = sum(self._kinds[kind].area * n for kind, n in held.items())
            there = sum(self._kinds[kind].area * min(n, left[kind]) for kind, n in held.items())
            good = there / whole - (0.2 if there < whole else 0.0) + 0.3 * min(shares[j], 1.0) + SHAKEN * rng.random()
            if best is None or good > best[0]:
                best = (good, j, one[1])
        if best is None:
            return None
        _, j, strip = best
        shares[j] -= 1
        columns = []
        for column in strip.columns:
            stack = []
            for lie in column:
                if left[lie.kind]:
                    left[lie.kind] -= 1
                    stack.append(lie)
            if stack:
                columns.append(tuple(stack))
        return Strip(strip.height, tuple(columns))

    def _sheet(
        self, upright: bool, strips: Sequence[Strip | None], left: list[int], rng: random.Random, price: Sequence[float]
    ) -> Tree:
        """Return a sheet with its strips, and with what else fits over, beside and after them."""
        filler = Filler(self._lies, left, price, rng, 3, self._effort)
        along: Axis = "y" if upright else "x"
        across: Axis = "x" if upright else "y"
        long, wide = (self._size[1], self._size[0]) if upright else self._size

        def fill(w: int, h: int) -> Tree:
            if w <= 0 or h <= 0:
                return None
            return filler.fill(h, w) if upright else filler.fill(w, h)

        def size(tree: Tree) -> tuple[int, int]:
            w, h = (int(side) for side in extent(tree, self._sizes))
            return (h, w) if upright else (w, h)

        trees: list[Tree] = []
        room = wide
        for strip in strips:
            if strip is None or not strip.columns:
                continue
            stacks = [chain([lie.leaf for lie in column], across) for column in strip.columns]
            high = max(size(stack)[1] for stack in stacks)
            columns = []
            rest = long
            for stack in stacks:
                w, h = size(stack)
                columns.append(chain([stack, fill(w, high - h)], across))
                rest -= w
            columns.append(fill(rest, high))
            trees.append(chain(columns, along))
            room -= high
        trees.append(fill(long, room))
        return chain(trees, across)
