"""Where nothing is drilled: around what is marked, and in the lines in which its wires and pipes usually run."""

from __future__ import annotations

from wobble.core.fit.obstacles import CAUTIONS, ELECTRIC
from wobble.core.job import Bay, Mark

DETECT = "Detect, isolate, then drill."


def near_services(bay: Bay, at: tuple[float, float], clear_mm: float) -> Mark | None:
    """Return the mark in whose zone a hole through the back would lie; None where it is clear of all.

    The zone is the mark itself with `clear_mm` all round, and for outlets, switches and wires the bands as wide
    straight up, down and sideways of it. A mark that is removed has none.
    """
    for mark in bay.marks:
        if mark.surface != "back" or (mark.treatment == "remove" and mark.kind not in ELECTRIC):
            continue
        off = [max(low - x, 0.0, x - low - size) for x, low, size in zip(at, mark.at, mark.size, strict=True)]
        on_it = max(off) < clear_mm
        if on_it or (mark.kind in ELECTRIC and min(off) < clear_mm):
            return mark
    return None


def caution(mark: Mark) -> str:
    """Return the word that stands beside a hole near a mark."""
    return CAUTIONS.get(mark.kind, DETECT)
