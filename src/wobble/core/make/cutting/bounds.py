"""Least numbers of sheets: what no layout can do better than, whatever it does.

Area, and areas as they count for sheets that large parts leave useless: dual feasible functions in both directions
(Fekete & Schepers 2001, *New classes of fast lower bounds for bin packing problems*). A part that may be turned counts
as little as it does either way.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction

from wobble.core.make.cutting.rows import Kind

_Dff = Callable[[Fraction], Fraction]
SHARES = (Fraction(1, 2), Fraction(2, 5), Fraction(1, 3), Fraction(3, 10), Fraction(1, 4), Fraction(1, 5))


def _plain(x: Fraction) -> Fraction:
    return x


def _rounding(k: int) -> _Dff:
    """u(k): shares that are whole parts of k + 1 stay, all others are rounded down to whole parts of k."""

    def u(x: Fraction) -> Fraction:
        return x if (x * (k + 1)).denominator == 1 else Fraction(math.floor((k + 1) * x), k)

    return u


def _large(epsilon: Fraction) -> _Dff:
    """U(ε): what is larger than 1 - ε counts as a whole sheet, what is smaller than ε as nothing."""

    def u(x: Fraction) -> Fraction:
        return Fraction(1) if x > 1 - epsilon else x if x >= epsilon else Fraction(0)

    return u


FUNCTIONS: tuple[_Dff, ...] = (_plain, *(_rounding(k) for k in (1, 2, 3, 4)), *(_large(e) for e in SHARES))


def least_sheets(kinds: Sequence[Kind], counts: Sequence[int], sizes: Sequence[tuple[int, int]]) -> int:
    """Return a number of sheets that no layout goes under.

    Args:
        kinds: Sizes in cells with a kerf added.
        counts: How many of each.
        sizes: Of the sheets there are.
    """
    if not sizes or not any(counts):
        return 0
    long, wide = max(s[0] for s in sizes), max(s[1] for s in sizes)
    if len(sizes) > 1:
        area = sum(k.area * n for k, n in zip(kinds, counts, strict=True))
        return max(1, math.ceil(area / max(s[0] * s[1] for s in sizes)))
    asked = [(k, n) for k, n in zip(kinds, counts, strict=True) if n]
    most = Fraction(0)
    ratios = [
        (
            n,
            Fraction(k.long, long),
            Fraction(k.wide, wide),
            Fraction(k.wide, long),
            Fraction(k.long, wide),
            k.turns and k.wide <= long and k.long <= wide,
            k.long <= long and k.wide <= wide,
        )
        for k, n in asked
    ]
    for f in FUNCTIONS:
        along = [(f(r[1]), f(r[3])) for r in ratios]
        for g in FUNCTIONS:
            total = Fraction(0)
            for (n, _, y, _, ty, turns, lies), (fx, ftx) in zip(ratios, along, strict=True):
                plain = fx * g(y) if lies else None
                if turns:
                    other = ftx * g(ty)
                    plain = other if plain is None else min(plain, other)
                total += n * (plain or 0)
            most = max(most, total)
    return max(1, math.ceil(most))
