"""What a carcass is parted by: its unit, the way it is built, its cells, and which of its ends are seen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from wobble.core.job import Construction, Unit
from wobble.core.length import LengthUnit
from wobble.core.setout.cells import LaidCell, under_box_mm

GROOVE_SHARE, MOST_GROOVE_MM = 0.5, 8.0
"""A groove goes half into a board, and no deeper than a back needs to be held."""
Side = Literal["left", "right"]


@dataclass(frozen=True)
class Carcass:
    """A carcass to be parted: its unit, how it is built, its cells, and which of its ends are seen.

    Attributes:
        unit: Which. built: How. cells: As they come out. material: Of what it is made.
        seen: Its ends that nothing covers.
        wide_sd_mm: How well its width is known. lengths: The units that the user reads.
    """

    unit: Unit
    built: Construction
    cells: tuple[LaidCell, ...]
    material: str
    seen: frozenset[Side]
    wide_sd_mm: float = 0.0
    lengths: LengthUnit = "mm"

    @property
    def low_mm(self) -> float:
        """Underside of its lowest board over the unit's own."""
        return under_box_mm(self.unit)

    @property
    def front_mm(self) -> float:
        """Front of its boards, out from its back: less where a face frame stands before them."""
        frame = self.built.face_frame
        return self.unit.depth_mm - (frame.thick_mm if frame is not None else 0.0)

    @property
    def groove_mm(self) -> float:
        """How deep a back is let into the boards around it; 0 where it lies behind them."""
        if self.built.back in ("none", "applied"):
            return 0.0
        return min(self.built.board_mm * GROOVE_SHARE, MOST_GROOVE_MM)

    @property
    def through(self) -> bool:
        """Whether its sides run through at the corners."""
        return self.built.sides == "through"
