"""Unit to unit: where neighbours are screwed together once they are level and flush."""

from __future__ import annotations

import itertools

from wobble.core.fit.run.tiers import tiers
from wobble.core.hold.screws import SOLD_MM
from wobble.core.job import Place, Unit, Value

TOUCH_MM = 5.0
"""Neighbours this far apart, or a reveal that is packed out, are joined."""
IN_MM, UP_MM = 37.0, 80.0
"""How far in from front and back the screws stand, and from top and bottom of what the two share."""
LEFT_MM = 4.0
"""What is left of the second side in front of the point."""


class Joined(Value, frozen=True, kw_only=True):
    """Two neighbours and the screws between them.

    Attributes:
        units: Left one, right one. at: (up over the run's base, out from the backs) of each screw, mm.
        screw_mm: Length as sold, which does not come through. apart_mm: The reveal between them, packed out.
        text: What to mind.
    """

    units: tuple[str, str]
    at: tuple[tuple[float, float], ...]
    screw_mm: float
    apart_mm: float
    text: str


def joined(place: Place) -> tuple[Joined, ...]:
    """Return every two neighbours of a run that are screwed together."""
    out = []
    for tier in tiers(place):
        for left, right in itertools.pairwise(tier.units):
            apart = right.x_mm - left.right_mm
            if -0.5 <= apart <= TOUCH_MM and (made := _join(left, right, max(apart, 0.0), place.closing.board_mm)):
                out.append(made)
    return tuple(out)


def _join(left: Unit, right: Unit, apart: float, board_mm: float) -> Joined | None:
    low = max(left.over_base_mm, right.over_base_mm)
    high = min(left.over_base_mm + left.height_mm, right.over_base_mm + right.height_mm)
    back = max(left.out_mm, right.out_mm)
    front = min(left.out_mm + left.depth_mm, right.out_mm + right.depth_mm)
    if high - low <= 2 * UP_MM or front - back <= 2 * IN_MM:
        return None
    most = 2 * board_mm + apart - LEFT_MM
    sold = max((mm for mm in SOLD_MM if mm <= most), default=None)
    if sold is None or sold < board_mm + apart + 6.0:
        return None
    return Joined(
        units=(left.id, right.id),
        at=tuple((up, out) for out in (front - IN_MM, back + IN_MM) for up in (low + UP_MM, high - UP_MM)),
        screw_mm=sold,
        apart_mm=apart,
        text="Clamp their faces flush first"
        + (", with packing in the reveal" if apart > 0.5 else "")
        + "; keep clear of hinges and slides.",
    )
