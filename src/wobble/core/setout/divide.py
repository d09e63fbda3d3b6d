"""Dividing a length: equal openings between boards, trim with a piece over each seam, boards of their true width."""

from __future__ import annotations

import math

from wobble.core.errors import WobbleError
from wobble.core.job import Value
from wobble.core.length import LengthUnit, format_length


class DivideError(WobbleError):
    """A length cannot be divided as asked."""

    code = "divide"


class Divided(Value, frozen=True, kw_only=True):
    """A divided length.

    Attributes:
        opening_mm: What is free between two boards, each time the same. last_mm: The last board, where it is ripped.
        at: Left edge of every board (or the middle of every trim piece), mm from the left end.
        working: The subtraction, in words.
    """

    opening_mm: float
    last_mm: float | None
    at: tuple[float, ...]
    working: str


MOST_PIECES = 2000
"""More is a slip of the keys: no wall has so many."""


def _countable(n: float, what: str) -> None:
    if n > MOST_PIECES:
        raise DivideError(
            f"That comes to {n:,.0f} {what}; the most is {MOST_PIECES}.",
            mend="Look at the lengths again: is one of them in another unit, or a digit short?",
        )


def equal_openings(
    long_mm: float, openings: int, board_mm: float, reveal_mm: float = 0.0, units: LengthUnit = "mm"
) -> Divided:
    """Return equal openings in a length between two ends, with a board between each two.

    The boards' thickness is taken off first, then a reveal on both sides of each opening.

    Raises:
        DivideError: Nothing is left for the openings.
    """
    if openings < 1:
        raise DivideError("At least one opening.", mend="Give one or more.")
    boards = openings - 1
    free = (long_mm - boards * board_mm - 2 * openings * reveal_mm) / openings
    if free <= 0:
        raise DivideError("Boards and reveals take the whole length.", mend="Ask for fewer, or thinner boards.")
    pitch = free + 2 * reveal_mm + board_mm
    say = [format_length(mm, units) for mm in (long_mm, board_mm, 2 * openings * reveal_mm, free)]
    words = f"({say[0]} − {boards} × {say[1]} − {say[2]} of reveals) / {openings} = {say[3]}"
    return Divided(
        opening_mm=free, last_mm=None, at=tuple(pitch * (k + 1) - board_mm for k in range(boards)), working=words
    )


def equal_trim(
    long_mm: float, most_apart_mm: float, piece_mm: float, seams: tuple[float, ...] = (), units: LengthUnit = "mm"
) -> Divided:
    """Return trim pieces at equal spacing with one over every seam: the least number that does both.

    A seam is covered when it lies within a piece, at least a quarter of its width in from both edges.

    Raises:
        DivideError: No spacing within reach covers all seams.
    """
    _countable(long_mm / (most_apart_mm + piece_mm), "pieces")
    least = max(2, math.ceil((long_mm - piece_mm) / (most_apart_mm + piece_mm)) + 1)
    for n in range(least, least + 200):
        pitch = (long_mm - piece_mm) / (n - 1)
        if pitch <= piece_mm:
            break
        middles = [piece_mm / 2 + pitch * k for k in range(n)]
        if all(min(abs(seam - m) for m in middles) <= piece_mm / 4 for seam in seams):
            free = pitch - piece_mm
            words = (
                f"{n} pieces: ({format_length(long_mm, units)} − {n} × {format_length(piece_mm, units)}) / {n - 1} "
                f"= {format_length(free, units)} between"
            )
            return Divided(opening_mm=free, last_mm=None, at=tuple(middles), working=words)
    raise DivideError("No equal spacing puts a piece over every seam.", mend="Move a seam, or use wider pieces there.")


def true_boards(long_mm: float, board_mm: float, gap_mm: float = 0.0, units: LengthUnit = "mm") -> Divided:
    """Return how boards of their true width cover a length: how many whole ones, and the last, ripped to fit.

    Where the last would be narrower than half a board, the first and the last are ripped alike instead.

    Raises:
        DivideError: A board is wider than the length.
    """
    if board_mm > long_mm:
        raise DivideError("One board is wider than the length.", mend="Rip it, or measure its true width again.")
    _countable(long_mm / (board_mm + gap_mm), "boards")
    whole = math.floor((long_mm + gap_mm) / (board_mm + gap_mm))
    rest = long_mm - whole * (board_mm + gap_mm)
    if rest <= gap_mm:
        at = tuple(k * (board_mm + gap_mm) for k in range(whole))
        words = f"{whole} boards of {format_length(board_mm, units)}, {format_length(max(rest, 0.0), units)} over"
        return Divided(opening_mm=gap_mm, last_mm=None, at=at, working=words)
    if rest >= board_mm / 2:
        at = tuple(k * (board_mm + gap_mm) for k in range(whole + 1))
        words = f"{whole} boards of {format_length(board_mm, units)} and one ripped to {format_length(rest, units)}"
        return Divided(opening_mm=gap_mm, last_mm=rest, at=at, working=words)
    edge = (rest + board_mm) / 2
    at = (0.0, *(edge + gap_mm + k * (board_mm + gap_mm) for k in range(whole)))
    words = (
        f"{whole - 1} boards of {format_length(board_mm, units)} between two ripped to {format_length(edge, units)}: "
        f"one alone would be {format_length(rest, units)}"
    )
    return Divided(opening_mm=gap_mm, last_mm=edge, at=at, working=words)
