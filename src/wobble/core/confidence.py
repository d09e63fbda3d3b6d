"""How sure is sure: the chances on which answers turn, in one place."""

from __future__ import annotations

import numpy as np

SURE = 0.95
"""What is at least this likely is said without a word of doubt."""
SURE_TO_BITE = 0.9
"""A screw that is at least this likely to meet what holds is counted on."""

_CHANCES = (
    (0.0, "next to no chance"),
    (0.01, "one chance in a hundred"),
    (0.05, "one chance in twenty"),
    (0.1, "one chance in ten"),
    (0.2, "one chance in five"),
    (0.25, "one chance in four"),
    (1 / 3, "one chance in three"),
    (0.5, "an even chance"),
    (2 / 3, "two chances in three"),
    (0.75, "three chances in four"),
    (0.8, "four chances in five"),
    (0.9, "nine chances in ten"),
    (0.95, "nineteen chances in twenty"),
    (0.99, "ninety-nine chances in a hundred"),
)


_DRAWN = (0.0, 0.01, 0.05, 0.09, 0.15, 0.25, 0.35, 0.45, 0.6, 1.0)
_HAPPENS = (0.0, 0.02, 0.09, 0.14, 0.20, 0.31, 0.41, 0.48, 0.6, 1.0)


def as_it_happens(share: float) -> float:
    """Return how often a box goes in that goes in so large a share of the draws of its walls, 0 to 1.

    Of 12,500 made-up boxes in rooms of five kinds (`bench.calibration`): walls are drawn a little too proud, and what
    seldom goes in the draws goes in oftener. From six in ten on nothing is changed: nobody is made surer that it goes.
    """
    return float(np.interp(share, _DRAWN, _HAPPENS))


def chance_words(share: float) -> str:
    """Return a chance of what is hoped for in words, never more than it is."""
    return [words for least, words in _CHANCES if share >= least - 1e-9][-1]


def risk_words(share: float) -> str:
    """Return a chance of what is feared in words, never less than it is."""
    most = [words for least, words in _CHANCES if share <= least + 1e-9]
    return most[0] if most else "every chance"
