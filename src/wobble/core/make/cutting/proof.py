"""How few sheets can do at all: prices of parts at which no sheet, however it is cut, is worth more than one.

Any prices prove something: what all parts cost, over what one sheet can be worth at most (Farley 1990, *A note on
bounding a class of linear programming problems*). Those of the linear program prove more the more sheets it knows;
between two rounds they jump, so the best prices so far are moved towards them a little (Wentges 1997, *Weighted
Dantzig-Wolfe decomposition for linear mixed-integer programming*).
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.guillotine import Guillotine
from wobble.core.make.cutting.rows import Lie
from wobble.core.make.cutting.tree import Tree, leaves

MOST_HELD = 2_000_000
"""Cuts that are held at once: sixteen bytes each. Sizes to a tenth of a millimetre, many kinds of them, want more."""
KEPT = (0.8, 0.5, 0.2, 0.0)
"""Share of the best prices that is kept, tried until a sheet is found that is worth more than one."""
PAIRS_A_STEP = 900
ONE_LOOK = 0.5
"""Share of what is left that one look at all ways to cut may take: it often ends the search."""
ROUNDING = 1e-6
"""Taken off before a bound is rounded up: what sums of prices are off."""


class Proof:
    """What is proved for so many of each kind: `least` sheets, in shares of sheets."""

    def __init__(self, all_lies: Sequence[Lie], counts: Sequence[int], size: tuple[int, int], effort: Effort) -> None:
        self._all = Guillotine(all_lies, size)
        self._counts, self._effort = np.array(counts, dtype=float), effort
        self._best: NDArray[np.float64] | None = None
        self.least = 0.0

    @property
    def steps(self) -> int:
        """How much one look at all ways to cut takes."""
        return self._all.size // PAIRS_A_STEP

    @property
    def affordable(self) -> bool:
        """Whether one more look leaves time for others, and takes no more memory than it may."""
        return self._all.held <= MOST_HELD and self._effort.affords(self.steps, ONE_LOOK)

    @property
    def sheets(self) -> int:
        """Whole sheets that no cutting goes under."""
        return math.ceil(self.least - ROUNDING)

    def better(self, worth: Sequence[float]) -> Tree:
        """Return a sheet that is worth more than one at some prices, if there is one; what that proves is kept."""
        asked = np.maximum(np.array(worth), 0.0)
        for kept in KEPT:
            prices = asked if self._best is None else kept * self._best + (1 - kept) * asked
            self._effort.spend(self.steps)
            most, tree = self._all.best([float(p) for p in prices])
            proved = float(prices @ self._counts) / most
            if proved > self.least:
                self.least, best = proved, prices / most
            else:
                best = self._best
            held = Counter(leaf.kind for leaf in leaves(tree))
            first, self._best = self._best is None, best
            if sum(float(asked[kind]) * n for kind, n in held.items()) > 1 + ROUNDING:
                return tree
            if first or not self.affordable:
                break
        return None
