"""Many like sheets: patterns that are cut again and again, chosen by what each part is worth among all others.

Column generation (Gilmore & Gomory 1965, *Multistage cutting stock problems of two and more dimensions*), with the
filling of one sheet as its subproblem: a linear program says what each part is worth, sheets are filled for the most
worth, and what was found takes part in the next program. Whole numbers are then chosen among all patterns found.
"""

from __future__ import annotations

import math
import random
from collections import Counter
from collections.abc import Sequence

import numpy as np
from scipy.optimize import linprog

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.rows import Filler, Lie
from wobble.core.make.cutting.tree import Tree, leaves

TRIES = 10
STEPS_A_PROGRAM = 6_000
MOST_PATTERNS = 600
ROUND_UP = 0.9
"""How much is added at most before a share of a pattern is rounded down: some are rounded up, each time others."""


class Patterns:
    """Patterns of one sheet size, and how many of each come to what is wanted."""

    def __init__(self, all_lies: tuple[Lie, ...], counts: Sequence[int], size: tuple[int, int]) -> None:
        self._lies, self._counts, self._size = all_lies, list(counts), size
        self._asked = [i for i, n in enumerate(counts) if n]
        self._row = {kind: r for r, kind in enumerate(self._asked)}
        self._found: dict[tuple[int, ...], Tree] = {}

    def add(self, tree: Tree) -> bool:
        """Take a filled sheet in; False where one with the same parts is there."""
        held = Counter(leaf.kind for leaf in leaves(tree))
        key = tuple(held.get(kind, 0) for kind in self._asked)
        if not any(key) or key in self._found:
            return False
        self._found[key] = tree
        return True

    def grow(self, rng: random.Random, effort: Effort, share: float) -> None:
        """Find patterns until none is worth more than the sheet that it costs, or the effort is spent to a share."""
        idle = 0
        while effort.more(share) and idle < 4 and len(self._found) < MOST_PATTERNS:
            worth = self._worth()
            effort.spend(STEPS_A_PROGRAM)
            price = [0.0] * len(self._counts)
            for kind, value in zip(self._asked, worth, strict=True):
                price[kind] = float(value)
            found = 0
            for i in range(TRIES):
                left = list(self._counts)
                spread = 0.0 if i == 0 else 0.06
                tilted = [p * (1 + spread * (rng.random() - 0.5)) for p in price]
                filler = Filler(self._lies, left, tilted, rng, 12, effort)
                tree = filler.fill(*self._size, first=rng.choice(("x", "y", None)))
                got = sum(price[leaf.kind] for leaf in leaves(tree))
                if got > 1 + 1e-6:
                    found += self.add(tree)
            idle = 0 if found else idle + 1

    def _columns(self) -> np.ndarray[tuple[int, int], np.dtype[np.float64]]:
        return np.array(list(self._found), dtype=float).T

    def _worth(self) -> Sequence[float]:
        columns = self._columns()
        wanted = np.array([self._counts[k] for k in self._asked], dtype=float)
        done = linprog(np.ones(columns.shape[1]), A_ub=-columns, b_ub=-wanted, method="highs")
        if not done.success:
            return [0.0] * len(self._asked)
        return [-float(v) for v in done.ineqlin.marginals]

    def rounded(self, rng: random.Random) -> tuple[list[Tree], list[int]]:
        """Return as many whole sheets as the linear program surely asks for, and what they leave wanted."""
        columns = self._columns()
        wanted = np.array([self._counts[k] for k in self._asked], dtype=float)
        tilt = 1 + 1e-4 * np.array([rng.random() for _ in range(columns.shape[1])])
        done = linprog(tilt, A_ub=-columns, b_ub=-wanted, method="highs")
        left = list(self._counts)
        if done.x is None:
            return [], left
        trees: list[Tree] = []
        patterns = list(self._found.values())
        for i in np.argsort(-done.x):
            whole = math.floor(float(done.x[i]) + ROUND_UP * rng.random())
            for _ in range(whole):
                held = Counter(leaf.kind for leaf in leaves(patterns[i]))
                if any(left[kind] < n for kind, n in held.items()):
                    break
                trees.append(patterns[i])
                for kind, n in held.items():
                    left[kind] -= n
        return trees, left
