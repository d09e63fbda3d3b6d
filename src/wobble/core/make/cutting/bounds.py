"""Least numbers of sheets: what no layout can do better than, whatever it does.

Area, and areas as they count for sheets that large parts leave useless: dual feasible functions in both directions
(Fekete & Schepers 2001, *New classes of fast lower bounds for bin packing problems*). A part that may be turned counts
as little as it does either way.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from wobble.core.make.cutting.rows import Kind

Whole = NDArray[np.int64]
Shares = NDArray[np.float64]
_Dff = Callable[[Whole, int], Shares]
SHARES = ((1, 2), (2, 5), (1, 3), (3, 10), (1, 4), (1, 5))
ROUNDING = 1e-6
"""What sums of shares may be off in the last places; a bound is never rounded up over it."""


def _plain(size: Whole, whole: int) -> Shares:
    return size / whole


def _rounding(k: int) -> _Dff:
    """u(k): shares that are whole parts of k + 1 stay, all others are rounded down to whole parts of k."""

    def u(size: Whole, whole: int) -> Shares:
        times = (k + 1) * size
        return np.where(times % whole == 0, size / whole, (times // whole) / k)

    return u


def _large(above: int, below: int) -> _Dff:
    """U(ε): what is larger than 1 - ε counts as a whole sheet, what is smaller than ε as nothing; ε is a fraction."""

    def u(size: Whole, whole: int) -> Shares:
        one, none = size * below > (below - above) * whole, size * below < above * whole
        return np.where(one, 1.0, np.where(none, 0.0, size / whole))

    return u


FUNCTIONS: tuple[_Dff, ...] = (_plain, *(_rounding(k) for k in (1, 2, 3, 4)), *(_large(*e) for e in SHARES))


def least_sheets(kinds: Sequence[Kind], counts: Sequence[int], sizes: Sequence[tuple[int, int]]) -> int:
    """Return a number of sheets that no layout goes under.

    Args:
        kinds: Sizes in cells with a kerf added.
        counts: How many of each.
        sizes: Of the sheets there are.
    """
    if not sizes or not any(counts):
        return 0
    asked = [(k, n) for k, n in zip(kinds, counts, strict=True) if n]
    if len(sizes) > 1:
        area = sum(k.area * n for k, n in asked)
        return max(1, math.ceil(area / max(a * b for a, b in sizes)))
    long, wide = sizes[0]
    number = np.array([n for _, n in asked], dtype=float)
    a, b = (np.array([getattr(k, side) for k, _ in asked], dtype=np.int64) for side in ("long", "wide"))
    lies = (a <= long) & (b <= wide)
    turned = np.array([k.turns for k, _ in asked]) & (b <= long) & (a <= wide)
    most = 0.0
    along = [(f(a, long), f(b, long)) for f in FUNCTIONS]
    across = [(g(b, wide), g(a, wide)) for g in FUNCTIONS]
    for fx, ftx in along:
        for gy, gty in across:
            plain = np.where(lies, fx * gy, np.inf)
            other = np.where(turned, ftx * gty, np.inf)
            counted = np.minimum(plain, other)
            most = max(most, float(number @ np.where(np.isfinite(counted), counted, 0.0)))
    return max(1, math.ceil(most - ROUNDING))
