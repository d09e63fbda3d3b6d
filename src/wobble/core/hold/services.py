"""Where nothing is drilled: around what is marked, and in the lines in which its wires usually run."""

from __future__ import annotations

from wobble.core.fit.obstacles import zone
from wobble.core.job import Bay, Mark

DETECT = "Detect, isolate, then drill."


def near_services(bay: Bay, at: tuple[float, float], clear_mm: float) -> Mark | None:
    """Return the mark in whose zone a hole through the back would lie; None where it is clear of all."""
    return next((mark for mark in bay.marks if zone(mark, at, clear_mm) is not None), None)
