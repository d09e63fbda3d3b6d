"""What is there and stays: things as they stand, openings in walls, walls that step."""

from __future__ import annotations

from typing import Literal

from wobble.core.axes import SurfaceName
from wobble.core.value import Coordinate, Key, NotNegative, Positive, Title, Value


class Existing(Value, frozen=True, kw_only=True):
    """Something that stands and stays, measured as it stands: its left edge, underside, and how far out its back is.

    `clear_mm` is what it needs around it: levers, lids and doors of its own.
    """

    id: Key
    name: Title
    x_mm: Coordinate
    width_mm: Positive
    height_mm: Positive
    depth_mm: Positive
    up_mm: NotNegative = 0.0
    out_mm: NotNegative = 0.0
    clear_mm: NotNegative = 0.0

    @property
    def right_mm(self) -> float:
        """Its right edge, mm along."""
        return self.x_mm + self.width_mm


class WallOpening(Value, frozen=True, kw_only=True):
    """Where the back is no wall: a door or window with its clear opening and sill, or past where the wall ends.

    `covering_mm` is how far a curtain, blind or shutter hangs out of the wall; `opens_in` says that its leaf swings
    into the room.
    """

    id: Key
    name: Title
    kind: Literal["window", "door", "no wall"] = "window"
    x_mm: Coordinate
    width_mm: Positive
    height_mm: Positive
    sill_mm: NotNegative = 0.0
    covering_mm: NotNegative = 0.0
    opens_in: bool = False

    @property
    def right_mm(self) -> float:
        """Its right edge, mm along."""
        return self.x_mm + self.width_mm

    def holds(self, x_mm: float, up_mm: float | None = None) -> bool:
        """Whether a place of the back lies in it; without a height, whether any height there does."""
        beside = self.x_mm < x_mm < self.right_mm
        if up_mm is None or not beside:
            return beside
        over_sill = self.sill_mm == 0 or up_mm > self.sill_mm  # without a sill it begins at the floor, wherever that is
        return over_sill and up_mm < self.sill_mm + self.height_mm


class WallStep(Value, frozen=True, kw_only=True):
    """A known edge: between two places of one of a surface's axes it stands `by_mm` nearer to the room.

    Below zero it stands back: a recess, a floor that drops. A chimney breast, a column, a reveal, a return: one
    that runs to the end of the wall has `to_mm` there.

    Attributes:
        id: Its own. name: What it is called. surface: Of what. axis: Along which of its two axes it is told.
        from_mm: Where it begins. to_mm: Where it ends. at_sigma_mm: How well both places are known.
        by_mm: How much nearer to the room. sigma_mm: How well that is known; the readings on both sides say the rest.
    """

    id: Key
    name: Title
    surface: SurfaceName = "back"
    axis: Literal["first", "second"] = "first"
    from_mm: Coordinate
    to_mm: Coordinate
    at_sigma_mm: NotNegative = 3.0
    by_mm: Coordinate
    sigma_mm: NotNegative = 3.0
