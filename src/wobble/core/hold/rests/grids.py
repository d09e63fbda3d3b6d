"""Walls to hang things on: bevelled battens at a pitch, and boards with a grid of holes for pegs."""

from __future__ import annotations

import math
from functools import partial

from wobble.core.errors import WobbleError
from wobble.core.hold.rests.battens import FLAT_MM, LIFT_PLAY_MM
from wobble.core.job import Value
from wobble.core.length import LengthUnit, format_length

PEG_BEHIND_MM = 15.0
"""Room behind a pegboard in which the hooks turn in."""


class GridError(WobbleError):
    """A wall that cannot be laid out as asked."""

    code = "grid"


class Laid(Value, frozen=True, kw_only=True):
    """A wall laid out.

    Attributes:
        rows: Heights over its foot, from below: tips of battens, or rows of holes. columns: Of holes, from the left.
        margin_mm: Left over at the foot and the head, or at each side, alike. behind_mm: What it stands off the wall.
        blank_mm: Height of the board that two battens are ripped from; 0 for none. steps: The working, in words.
    """

    rows: tuple[float, ...]
    columns: tuple[float, ...]
    margin_mm: float
    behind_mm: float
    blank_mm: float
    steps: tuple[str, ...]


def hanging_wall(high_mm: float, pitch_mm: float, batten_mm: float, thick_mm: float, units: LengthUnit) -> Laid:
    """Return bevelled battens at a pitch over a wall, each open enough above to lift things on.

    Two battens are ripped out of one board by one cut at 45°: its height is twice a batten's, less the thickness that
    the cut shares, and the saw's kerf.

    Raises:
        GridError: The pitch leaves no room to lift a hook over a batten, or the wall is lower than one.
    """
    said = partial(format_length, unit=units)
    engagement = thick_mm - FLAT_MM
    least = batten_mm + engagement + LIFT_PLAY_MM
    if pitch_mm < least:
        raise GridError(
            f"A pitch of {said(pitch_mm)} leaves no room to hook on; {said(least)} does.",
            mend="Set them further apart, or take lower battens.",
        )
    if high_mm < batten_mm:
        raise GridError("The wall is lower than one batten.", mend="Give its height.")
    n = int((high_mm - batten_mm) // pitch_mm) + 1
    margin = (high_mm - batten_mm - (n - 1) * pitch_mm) / 2
    blank = 2 * batten_mm - thick_mm + 3.0
    return Laid(
        rows=tuple(margin + batten_mm + i * pitch_mm for i in range(n)),
        columns=(),
        margin_mm=margin,
        behind_mm=thick_mm,
        blank_mm=blank,
        steps=(
            f"{n} battens at {said(pitch_mm)}, {said(margin)} left at foot and head.",
            f"They hook over each other by {said(engagement)}: lift {said(engagement + LIFT_PLAY_MM)}.",
            f"Rip two from a board of {said(blank)}, the saw at 45°, its guard on, the wood pushed by a stick.",
        ),
    )


MOST_HOLES = 20_000
"""More are no wall of pegs but a slip of the keys."""


def peg_grid(wide_mm: float, high_mm: float, pitch_mm: float, edge_mm: float, units: LengthUnit) -> Laid:
    """Return a grid of holes centred on a board, no hole nearer to an edge than `edge_mm`.

    Raises:
        GridError: Not one hole fits.
    """
    said = partial(format_length, unit=units)
    if min(wide_mm, high_mm) < 2 * edge_mm:
        raise GridError("No hole keeps that far from both edges.", mend="Take a larger board, or a smaller edge.")
    columns, rows = (math.floor((size - 2 * edge_mm) / pitch_mm) + 1 for size in (wide_mm, high_mm))
    if columns * rows > MOST_HOLES:
        raise GridError(
            f"That comes to {columns * rows:,} holes; the most is {MOST_HOLES:,}.",
            mend=f"Is the pitch of {said(pitch_mm)} right? Set them further apart, or lay out one board at a time.",
        )
    margins = [(size - (n - 1) * pitch_mm) / 2 for size, n in ((wide_mm, columns), (high_mm, rows))]
    return Laid(
        rows=tuple(margins[1] + i * pitch_mm for i in range(rows)),
        columns=tuple(margins[0] + i * pitch_mm for i in range(columns)),
        margin_mm=margins[0],
        behind_mm=PEG_BEHIND_MM,
        blank_mm=0.0,
        steps=(
            f"{columns} by {rows} holes at {said(pitch_mm)}.",
            f"{said(margins[0])} left at each side, {said(margins[1])} at foot and head.",
            f"Fur it {said(PEG_BEHIND_MM)} off the wall, strips between the columns of holes.",
        ),
    )
