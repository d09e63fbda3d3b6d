"""Whether a box passes: a doorway, a corner between corridors, a stair, and standing up under a ceiling.

Pure geometry of a rectangular box, its sides in millimetres, carried with one side upright or flat. Each answer is a
clearance: the most that could be added to the box all round, or (below zero) must come off it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from functools import lru_cache

import numpy as np

Box = tuple[float, float, float]
"""Width, depth and height as it will stand, mm."""
MOST_MM = 3000.0
ANGLES = np.linspace(0.0, math.pi / 2, 721)
TILTS = np.linspace(0.0, math.pi / 2, 181)


def rectangle_in_rectangle(p: float, q: float, width: float, height: float) -> bool:
    """Return whether a p × q rectangle lies inside a width × height one, turned as need be.

    With p ≥ q and width ≥ height: q ≤ height, and p ≤ width or, turned,
    height ≥ (2 p q width + (p² − q²) √(p² + q² − width²)) / (p² + q²) (Carver, Amer. Math. Monthly 64, 1957).
    """
    p, q = max(p, q), min(p, q)
    a, b = max(width, height), min(width, height)
    if q > b:
        return False
    if p <= a:
        return True
    return b >= (2 * p * q * a + (p * p - q * q) * math.sqrt(p * p + q * q - a * a)) / (p * p + q * q)


def rectangle_round_corner(long: float, deep: float, first: float, second: float) -> bool:
    """Return whether a long × deep rectangle gets round a right-angled corner between corridors of two widths.

    Either it keeps its direction, first lengthways and then sideways, or it turns with one side held to both outer
    walls: at every angle θ the inner corner must clear its other side,
    first·sin θ + second·cos θ − long·sin θ·cos θ ≥ deep.
    """
    if deep > min(first, second):
        return False
    if long <= max(first, second):
        return True
    clear = first * np.sin(ANGLES) + second * np.cos(ANGLES) - long * np.sin(ANGLES) * np.cos(ANGLES)
    return bool(clear.min() >= deep)


def clearance(passes: Callable[[float], bool]) -> float:
    """Return the most that may be added to a box all round, mm, below zero where it must lose; to a tenth."""
    low, high = -MOST_MM, MOST_MM
    if not passes(low):
        return low
    while high - low > 0.05:
        middle = (low + high) / 2
        if passes(middle):
            low = middle
        else:
            high = middle
    return low


def _grown(box: Box, by: float) -> Box:
    a, b, c = (max(side + by, 0.1) for side in box)
    return a, b, c


def _carried(box: Box) -> Iterator[tuple[float, float, float]]:
    """Yield (upright, and the two sides in plan) for each side held upright."""
    for i in range(3):
        yield box[i], box[(i + 1) % 3], box[(i + 2) % 3]


@lru_cache(maxsize=512)
def doorway(box: Box, width: float, height: float) -> float:
    """Return a box's clearance through an opening: some side goes ahead, the other two pass, turned as need be."""

    def passes(by: float) -> bool:
        return any(rectangle_in_rectangle(p, q, width, height) for _, p, q in _carried(_grown(box, by)))

    return clearance(passes)


@lru_cache(maxsize=512)
def corner(box: Box, first: float, second: float, height: float) -> float:
    """Return a box's clearance round a corridor's corner, carried with any side upright, or with one end raised.

    Tilted by φ in the plane of sides a and b it stands a·sin φ + b·cos φ high and is a·cos φ + b·sin φ long in plan.
    """

    def passes(by: float) -> bool:
        for c, a, b in _carried(_grown(box, by)):
            for side, other in ((a, b), (b, a)):
                high = side * np.sin(TILTS) + other * np.cos(TILTS)
                long = side * np.cos(TILTS) + other * np.sin(TILTS)
                under = high <= height
                if under.any():
                    least = float(long[under].min())
                    if rectangle_round_corner(max(least, c), min(least, c), first, second):
                        return True
        return False

    return clearance(passes)


@lru_cache(maxsize=512)
def stair(box: Box, width: float, headroom: float, slope_deg: float) -> float:
    """Return a box's clearance up a flight: carried along the slope, square to it there is headroom · cos slope."""
    square = headroom * math.cos(math.radians(slope_deg))

    def passes(by: float) -> bool:
        return any(
            (p <= width and q <= square) or (q <= width and p <= square) for _, p, q in _carried(_grown(box, by))
        )

    return clearance(passes)


def needed_to_stand(box: Box) -> float:
    """Return how high it must be to stand a box up, mm: about the lower edge of its smaller side, √(h² + t²)."""
    width, depth, height = box
    return math.hypot(height, min(width, depth))


def stand_up(box: Box, height: float) -> float:
    """Return the height left over when a box is stood up under a ceiling, mm."""
    return height - needed_to_stand(box)


def tallest_to_stand(box: Box, height: float) -> float:
    """Return the tallest box of the same plan that can be stood up, mm; 0 if none can."""
    side = min(box[0], box[1])
    return math.sqrt(max(height * height - side * side, 0.0))
