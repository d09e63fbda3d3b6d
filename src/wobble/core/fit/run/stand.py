"""Where a run stands, for what is measured from the datum mark and the corner."""

from __future__ import annotations

from dataclasses import dataclass

from wobble.core.job import Unit


@dataclass(frozen=True)
class Stand:
    """Where a run stands: underside and back line, mm, and the turn of its backs in plan, mm per mm.

    What hangs over it has a back line of its own, `hung_mm`; None where it has the run's. Where nothing ties the back
    to the corner, depths count from its proudest spot, `back_anchor`.
    """

    base_mm: float
    back_mm: float
    turn: float
    hung_mm: float | None = None
    back_anchor: tuple[float, float] | None = None

    def back_at(self, unit: Unit) -> float:
        """Return how far out the back of a unit stands, mm."""
        line = self.back_mm if self.hung_mm is None or unit.stands or unit.flat else self.hung_mm
        return line + self.turn * unit.x_mm + unit.out_mm
