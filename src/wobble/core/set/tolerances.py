"""How far out is out. Planning figures of the trade: what the eye or the next piece takes, not what can be read."""

from __future__ import annotations

LEVEL_MM_PER_M, LEVEL_LEAST_MM = 1.0, 1.0
"""A millimetre a metre: a marble stays where it is laid. Less than a millimetre cannot be shimmed."""
PLUMB_MM_PER_M, PLUMB_LEAST_MM = 1.0, 1.0
HEIGHT_MM = 1.5
"""At a table or a sill the eye sees two millimetres."""
FLUSH_MM = 0.5
"""A fingernail catches on more."""
SQUARE_MM = 2.0
"""Between diagonals of a box up to a metre and a half: doors then still hang with even gaps."""
BESIDE_MM = 2.0
"""Beside a wall: what the filler's allowance takes."""
GAP_MM = 0.7
"""Between two doors: where gaps stand side by side the eye sees less than a millimetre."""
SLIDES_MM = 0.5
"""Left against right: more, and the drawer twists and binds."""
SCRIBED_MM = 0.5
"""A line of caulk hides as much."""


GUARD_MM = 0.3
"""What is kept in hand of a tolerance for the reading's own error, so that what is read as right is right (guarded
acceptance, JCGM 106:2012, section 8.3)."""


def level(over_mm: float) -> float:
    """Return how far a level may be out over a length, mm."""
    return max(LEVEL_LEAST_MM, LEVEL_MM_PER_M * over_mm / 1000)


def plumb(over_mm: float) -> float:
    """Return how far out of plumb over a height may be, mm."""
    return max(PLUMB_LEAST_MM, PLUMB_MM_PER_M * over_mm / 1000)
