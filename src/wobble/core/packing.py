"""What fills a gap: a stack from the kit in the fewest pieces, a tapered pair, or a block with shims on it."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections import Counter
from collections.abc import Iterable
from functools import lru_cache
from typing import Literal

from wobble.core.budget import spend
from wobble.core.job import ShimKit, Taper, Value

HUNDREDTHS = 100
"""Thicknesses are added in whole hundredths of a millimetre, so that equal stacks are found equal."""
ROOM_ON_BLOCK_MM = 2.0
"""A block leaves this much for shims to set exactly."""


class Stack(Value, frozen=True, kw_only=True):
    """Flat shims on each other: thicknesses, mm, thickest first; their sum; what is left of the gap (below 0: over)."""

    pieces_mm: tuple[float, ...]
    thickness_mm: float
    left_mm: float


class TaperSetting(Value, frozen=True, kw_only=True):
    """How two wedges are slid together: their overlap and how far one is driven past full overlap, mm.

    `slide_mm` is below zero when the thin ends overlap and above when the wedges are driven past each other.
    """

    length_mm: float
    overlap_mm: float
    slide_mm: float


class PieceCount(Value, frozen=True, kw_only=True):
    """How many shims of one thickness the plan takes, and how many are to hand (None: no limit)."""

    thickness_mm: float
    wanted: int
    to_hand: int | None


class Filling(Value, frozen=True, kw_only=True):
    """What goes into one gap; under a foot or a leg nothing does, the foot is turned or the leg cut."""

    kind: Literal["bare", "stack", "block", "cut", "foot", "leg"]
    stack: Stack | None = None
    taper: TaperSetting | None = None
    block_mm: float | None = None
    cut_mm: float | None = None
    within_tolerance: bool = True


MOST_STACK_MM = 200.0
MOST_PIECES = 40
"""Nobody stacks more: over that a block goes under first, whatever the kit says."""


def most_stacked(kit: ShimKit) -> float:
    """Return the largest gap that is filled by a stack alone, mm."""
    return min(kit.max_stack_mm, MOST_STACK_MM)


def fill(gap_mm: float, kit: ShimKit) -> Filling:
    """Return what fills a gap; a gap below zero is a cut off the base, never a negative shim."""
    if gap_mm < -kit.tolerance_mm:
        return Filling(kind="cut", cut_mm=-gap_mm)
    if gap_mm <= kit.tolerance_mm:
        return Filling(kind="bare")
    if gap_mm > most_stacked(kit):
        block = float(math.floor(gap_mm - ROOM_ON_BLOCK_MM))
        on_top = best_stack(gap_mm - block, kit)
        return Filling(kind="block", block_mm=block, stack=on_top, within_tolerance=_good(on_top, kit))
    stack = best_stack(gap_mm, kit)
    taper = taper_setting(gap_mm, kit)
    return Filling(kind="stack", stack=stack, taper=taper, within_tolerance=_good(stack, kit) or taper is not None)


def _good(stack: Stack | None, kit: ShimKit) -> bool:
    return stack is not None and abs(stack.left_mm) <= kit.tolerance_mm + 1e-9


def best_stack(gap_mm: float, kit: ShimKit) -> Stack | None:
    """Return the stack of fewest pieces within the kit's tolerance, the nearest of those; else the nearest of all."""
    target = gap_mm * HUNDREDTHS
    slack = kit.tolerance_mm * HUNDREDTHS + 1e-6
    totals, pieces_of = _totals(kit)
    if not totals:
        return None
    low, high = bisect_left(totals, target - slack), bisect_right(totals, target + slack)
    # fewest pieces among the good, then nearest; else the nearest of all, then fewest
    if low < high:
        best = min(range(low, high), key=lambda i: (len(pieces_of[i]), abs(totals[i] - target)))
    else:
        around = range(max(low - 1, 0), min(low + 1, len(totals)))
        best = min(around, key=lambda i: (abs(totals[i] - target), len(pieces_of[i])))
    thickness = totals[best] / HUNDREDTHS
    pieces = tuple(t / HUNDREDTHS for t in pieces_of[best])
    return Stack(pieces_mm=pieces, thickness_mm=thickness, left_mm=gap_mm - thickness)


@lru_cache(maxsize=64)
def _totals(kit: ShimKit) -> tuple[list[int], list[tuple[int, ...]]]:
    """Return every thickness that the kit makes, in hundredths and in order, and the pieces of each, thickest first."""
    reachable = _reachable(kit)
    totals = sorted(reachable)
    return totals, [tuple(sorted(reachable[total], reverse=True)) for total in totals]


def _reachable(kit: ShimKit) -> dict[int, tuple[int, ...]]:
    """Return every thickness up to the largest stack, in hundredths, with pieces that make it, fewest first."""
    most = round((most_stacked(kit) + min(kit.tolerance_mm, MOST_STACK_MM)) * HUNDREDTHS)
    found: dict[int, tuple[int, ...]] = {0: ()}
    for piece in kit.pieces:  # one thickness at a time, so that limited counts are kept exactly
        thickness = round(piece.thickness_mm * HUNDREDTHS)
        spend()
        grown = dict(found)
        for total, pieces in found.items():
            fitting = min((most - total) // thickness, MOST_PIECES - len(pieces)) if thickness else 0
            for n in range(1, min(fitting, piece.count if piece.count is not None else fitting) + 1):
                reached = total + n * thickness
                if reached not in grown or len(grown[reached]) > len(pieces) + n:
                    grown[reached] = pieces + (thickness,) * n
        found = grown
    del found[0]
    return found


def taper_setting(gap_mm: float, kit: ShimKit) -> TaperSetting | None:
    """Return how to set a tapered pair from the kit to a gap, with the most overlap; None if no pair reaches it."""
    settings = [s for taper in kit.tapers if (s := _slide(gap_mm, taper, kit.least_overlap_mm)) is not None]
    return max(settings, key=lambda s: s.overlap_mm) if settings else None


def _slide(gap_mm: float, taper: Taper, least_overlap_mm: float) -> TaperSetting | None:
    """Return the setting of one pair.

    Two equal wedges with faces opposed are parallel: fully overlapped they measure thin + thick; slid by s along their
    length they gain s·(thick − thin)/length, and overlap by length − |s|.
    """
    if taper.count is not None and taper.count < 2:
        return None
    pitch = (taper.thick_mm - taper.thin_mm) / taper.length_mm
    if pitch <= 0:
        return None
    slide = (gap_mm - taper.thin_mm - taper.thick_mm) / pitch
    overlap = taper.length_mm - abs(slide)
    if overlap < least_overlap_mm:
        return None
    return TaperSetting(length_mm=taper.length_mm, overlap_mm=overlap, slide_mm=slide)


def pieces_wanted(fillings: Iterable[Filling], kit: ShimKit) -> tuple[PieceCount, ...]:
    """Return how many shims of each thickness some gaps take: what is to be taken along."""
    wanted: Counter[float] = Counter()
    for filling in fillings:
        if filling.stack is not None:
            wanted.update(filling.stack.pieces_mm)
    return tuple(
        PieceCount(thickness_mm=p.thickness_mm, wanted=wanted[round(p.thickness_mm, 2)], to_hand=p.count)
        for p in sorted(kit.pieces, key=lambda p: p.thickness_mm)
    )
