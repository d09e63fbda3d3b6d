"""Lengths: which parts are cut out of which board.

By patterns that a linear program asks for (Gilmore & Gomory 1961, 1963): each is worth the parts in it, at the worths
that the program gives them, and the best for each length there is, is a knapsack, found exactly. Whole numbers of
patterns are then chosen among all that were found (HiGHS). The program's own answer, rounded up, is what no layout goes
under where all boards are alike.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from time import thread_time

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import LinearConstraint, linprog, milp

from wobble.core.budget import PATIENCE

Floats = NDArray[np.float64]
_Took = tuple[int, np.ndarray[tuple[int], np.dtype[np.bool_]]]
"""A step of a knapsack: how long it is, and at which lengths from there on it was taken."""
SLACK = 1e-7
MOST_ROUNDS = 400
MOST_NODES = 25
"""Of the search for whole numbers: most of what it finds, it finds at once."""
CELLS_PER_S, PROGRAM_S = 300_000_000, 0.005
"""How fast a plain machine goes over the cells of a knapsack, and how long a linear program takes it."""


@dataclass(frozen=True, slots=True)
class Board:
    """A board to cut from: its length in cells with a kerf added, how many there are, and what one costs."""

    long: int
    count: int | None
    price: float


@dataclass(frozen=True)
class Cuts:
    """Boards in use with the kinds cut out of each, longest first; kinds left over; what no layout goes under.

    `bound` is the least number of boards that any layout takes.
    """

    used: tuple[tuple[int, tuple[int, ...]], ...]
    left: tuple[int, ...]
    bound: int


def cut_lengths(
    kinds: Sequence[int],
    counts: Sequence[int],
    boards: Sequence[Board],
    *,
    seconds: float = 1.5,
    at_most_s: float | None = None,
) -> Cuts:
    """Return parts cut out of boards.

    Args:
        kinds: Lengths wanted, in cells with a kerf added.
        counts: How many of each.
        boards: What there is.
        seconds: How long to look on a plain machine.
        at_most_s: How long to look on any; ten times that where nothing is said.
    """
    longest = max((b.long for b in boards), default=0)
    asked = [i for i, (long, n) in enumerate(zip(kinds, counts, strict=True)) if n and long <= longest]
    never = [n if i not in asked else 0 for i, n in enumerate(counts)]
    if not asked:
        return Cuts((), tuple(never), 0)
    return _Program([kinds[i] for i in asked], [counts[i] for i in asked], boards, seconds, at_most_s).answer(
        asked, never
    )


class _Program:
    def __init__(
        self, kinds: list[int], counts: list[int], boards: Sequence[Board], seconds: float, at_most_s: float | None
    ) -> None:
        self.kinds, self.counts, self.boards = kinds, counts, boards
        self.until = thread_time() + (10 * seconds if at_most_s is None else at_most_s)
        cells = max(b.long for b in boards) * max(len(self._steps()), 1)
        self.rounds = max(8, int(seconds / (PROGRAM_S + cells / CELLS_PER_S)))
        # what is at hand costs nothing, and yet the less of it is used the better
        longest = max(b.long for b in boards)
        dearest = max((b.price for b in boards), default=0.0) or 1.0
        self.cost = [b.price + 1e-3 * dearest * b.long / longest for b in boards]
        self.columns: dict[tuple[int, tuple[int, ...]], None] = {}
        self.first: tuple[list[tuple[int, list[int]]], list[int]] = ([], counts)

    def answer(self, asked: list[int], never: list[int]) -> Cuts:
        self._begin()
        least = self._grow()
        picked, short = min((self._whole(), self.first), key=self._rank)
        used = tuple((board, tuple(asked[k] for k in inside)) for board, inside in picked)
        left = list(never)
        for k, n in zip(asked, short, strict=True):
            left[k] += n
        return Cuts(used, tuple(left), self._bound(least))

    def _bound(self, least: float) -> int:
        """Return the least number of boards: the program's own where one sort is there without end, else by length."""
        total = sum(k * n for k, n in zip(self.kinds, self.counts, strict=True))
        by_length = math.ceil(total / max(b.long for b in self.boards))
        if len(self.boards) == 1 and self.boards[0].count is None:
            return max(by_length, math.ceil(least / self.cost[0] - 1e-6))
        return by_length

    def _rank(self, found: tuple[list[tuple[int, list[int]]], list[int]]) -> tuple[float, float]:
        used, short = found
        return (
            float(sum(k * n for k, n in zip(self.kinds, short, strict=True))),
            sum(self.cost[b] for b, _ in used),
        )

    # --- patterns ---

    def _begin(self) -> None:
        """Begin with what comes of filling boards one after the other, and with every kind alone."""
        self.first = self._filled()
        for board, inside in self.first[0]:
            self._take(board, inside)
        for k, long in enumerate(self.kinds):
            for b, one in enumerate(self.boards):
                if long <= one.long:
                    self._take(b, [k] * min(one.long // long, self.counts[k]))

    def _take(self, board: int, inside: Sequence[int]) -> bool:
        held = [0] * len(self.kinds)
        for k in inside:
            held[k] += 1
        key = (board, tuple(held))
        if key in self.columns:
            return False
        self.columns[key] = None
        return True

    def _matrix(self) -> Floats:
        return np.array([held for _, held in self.columns], dtype=float).T

    def _limits(self) -> tuple[Floats, Floats]:
        """Return the rows that keep to how many boards there are."""
        rows = [b for b, board in enumerate(self.boards) if board.count is not None]
        made = np.array([[float(of == b) for of, _ in self.columns] for b in rows]).reshape(
            len(rows), len(self.columns)
        )
        return made, np.array([self.boards[b].count for b in rows], dtype=float)

    def _grow(self) -> float:
        """Add patterns until none is worth more than its board; return the least cost of the linear program.

        Parts that the boards do not suffice for are bought at a price that nobody pays who need not.
        """
        never = 1e3 * max(self.cost)
        n = len(self.kinds)
        proven = 0.0
        for _ in range(min(MOST_ROUNDS, self.rounds)):
            cost = np.array([*(self.cost[b] for b, _ in self.columns), *[never] * n])
            matrix = np.hstack([self._matrix(), np.eye(n)])
            limits, counts = self._limits()
            limits = np.hstack([limits, np.zeros((len(limits), n))])
            done = linprog(
                cost,
                A_ub=np.vstack([-matrix, limits]),
                b_ub=np.concatenate([-np.array(self.counts, dtype=float), counts]),
                method="highs",
            )
            if not done.success:
                break
            marginals = -np.asarray(done.ineqlin.marginals)
            worth, rent = marginals[:n], np.zeros(len(self.boards))
            rent[[b for b, board in enumerate(self.boards) if board.count is not None]] = marginals[n:]
            best, taken = self._knapsack(worth)
            # Farley's bound holds at any worths, so that a search that ran out of time proves something too
            dearest = max((best[b.long] - rent[i]) / self.cost[i] for i, b in enumerate(self.boards))
            all_worth = float(worth @ np.array(self.counts)) - float(rent @ self._had())
            proven = max(proven, all_worth / max(float(dearest), 1.0))
            if not self._priced(best, taken, rent) or thread_time() > self.until:
                break
        return proven

    def _had(self) -> Floats:
        return np.array([float(b.count or 0) for b in self.boards])

    def _priced(self, best: Floats, taken: list[_Took], rent: Floats) -> bool:
        """Add the best pattern of every board that is worth more than it costs."""
        added = False
        for b, board in enumerate(self.boards):
            if best[board.long] > self.cost[b] + float(rent[b]) + SLACK:
                added |= self._take(b, self._traced(taken, board.long))
        return added

    def _steps(self) -> list[tuple[int, int]]:
        steps: list[tuple[int, int]] = []
        for k, n in enumerate(self.counts):
            n, many = min(n, max(b.long for b in self.boards) // self.kinds[k]), 1
            while n > 0:
                steps.append((k, min(many, n)))
                n -= many
                many *= 2
        return steps

    def _knapsack(self, worth: Floats) -> tuple[Floats, list[_Took]]:
        size = max(b.long for b in self.boards)
        best = np.zeros(size + 1)
        taken: list[_Took] = []
        for k, many in self._steps():
            long = self.kinds[k] * many
            with_it = best[: size + 1 - long] + worth[k] * many
            took = with_it > best[long:] + 1e-12
            np.copyto(best[long:], with_it, where=took)
            taken.append((long, took))
        return best, taken

    def _traced(self, taken: list[_Took], at: int) -> list[int]:
        inside: list[int] = []
        for (k, many), (long, took) in zip(reversed(self._steps()), reversed(taken), strict=True):
            if at >= long and took[at - long]:
                inside += [k] * many
                at -= long
        return inside

    # --- whole numbers ---

    def _whole(self) -> tuple[list[tuple[int, list[int]]], list[int]]:
        matrix = self._matrix()
        limits, counts = self._limits()
        rules = [LinearConstraint(matrix, lb=np.array(self.counts, dtype=float))]
        if len(limits):
            rules.append(LinearConstraint(limits, ub=counts))
        n = matrix.shape[1]
        seconds = max(0.2, PATIENCE * (self.until - thread_time()))
        done = milp(
            np.array([self.cost[b] for b, _ in self.columns]),
            constraints=rules,
            integrality=np.ones(n, dtype=np.int64),
            options={"time_limit": seconds, "node_limit": MOST_NODES},
        )
        if done.x is None:
            return self.first
        left = list(self.counts)
        used: list[tuple[int, list[int]]] = []
        for (board, held), times in zip(self.columns, done.x, strict=True):
            for _ in range(round(float(times))):
                inside = [k for k, m in enumerate(held) for _ in range(min(m, left[k]))]
                for k in inside:
                    left[k] -= 1
                if inside:
                    used.append((board, sorted(inside, key=lambda k: -self.kinds[k])))
        return sorted(used, key=lambda u: (u[0], [-self.kinds[k] for k in u[1]])), left

    def _filled(self) -> tuple[list[tuple[int, list[int]]], list[int]]:
        """Return boards filled one after the other, each time the one whose filling costs least for its length."""
        left = list(self.counts)
        stock = [b.count for b in self.boards]
        used: list[tuple[int, list[int]]] = []
        while any(left):
            best = None
            for b, board in enumerate(self.boards):
                if stock[b] == 0:
                    continue
                inside = _fullest(self.kinds, left, board.long)
                long = sum(self.kinds[k] for k in inside)
                if inside and (best is None or self.cost[b] / long < best[0]):
                    best = (self.cost[b] / long, b, inside)
            if best is None:
                break
            _, b, inside = best
            count = stock[b]
            stock[b] = None if count is None else count - 1
            for k in inside:
                left[k] -= 1
            used.append((b, sorted(inside, key=lambda k: -self.kinds[k])))
        return used, left


def _fullest(kinds: Sequence[int], left: Sequence[int], size: int) -> list[int]:
    """Return the longest part that fits, and with it what fills the board best: a bounded subset sum."""
    first = max((k for k, n in enumerate(left) if n and kinds[k] <= size), key=lambda k: kinds[k], default=None)
    if first is None:
        return []
    size -= kinds[first]
    limit = (1 << (size + 1)) - 1
    reached, steps = 1, []
    for k in sorted(range(len(kinds)), key=lambda k: -kinds[k]):
        n, many = min(left[k] - (k == first), size // kinds[k]), 1
        while n > 0:
            some = min(many, n)
            steps.append((reached, k, some))
            reached |= (reached << (kinds[k] * some)) & limit
            n -= some
            many *= 2
    at = reached.bit_length() - 1
    inside = [first]
    for before, k, some in reversed(steps):
        if not before >> at & 1:
            inside += [k] * some
            at -= kinds[k] * some
    return inside
