"""Unit to unit: where neighbours are screwed together once they are level and flush."""

from __future__ import annotations

import itertools

from wobble.core.figure import Figure, Step
from wobble.core.fit.run.tiers import tiers
from wobble.core.hold.screws import SOLD_MM, penetration
from wobble.core.job import Place, Unit, Value
from wobble.core.part import Fastener

TOUCH_MM = 5.0
"""Neighbours this far apart, or a reveal that is packed out, are joined."""
IN_MM, UP_MM = 37.0, 80.0
"""How far in from front and back the screws stand, and from top and bottom of what the two share."""
SHANK_MM, PILOT_MM = 4.0, 2.5
LEFT_MM = 4.0
"""What is left of the second side in front of the point."""


class Joined(Value, frozen=True, kw_only=True):
    """Two neighbours and the screws between them.

    Attributes:
        units: Left one, right one. fasteners: Its screws by their ids; each does not come through.
        screw_mm: Their length as sold. apart_mm: The reveal between them, packed out. text: What to mind.
    """

    units: tuple[str, str]
    fasteners: tuple[str, ...]
    screw_mm: float
    apart_mm: float
    text: str


def joined(place: Place) -> list[tuple[Joined, tuple[Fastener, ...]]]:
    """Return every two neighbours of a run that are screwed together, with the screws."""
    out = []
    for tier in tiers(place):
        for left, right in itertools.pairwise(tier.units):
            apart = right.x_mm - left.right_mm
            if -0.5 <= apart <= TOUCH_MM and (made := _join(left, right, max(apart, 0.0), place.closing.board_mm)):
                out.append(made)
    return out


def _join(left: Unit, right: Unit, apart: float, board_mm: float) -> tuple[Joined, tuple[Fastener, ...]] | None:
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
    spots = tuple((up, out) for out in (front - IN_MM, back + IN_MM) for up in (low + UP_MM, high - UP_MM))
    steps = (
        Step(label="Both sides", value_mm=2 * board_mm),
        Step(label="The reveal between", value_mm=apart),
        Step(label="Left in front of the point", sign=-1, value_mm=LEFT_MM),
    )
    driven = tuple(
        Fastener(
            id=f"{left.id}.side.{right.id}.{k + 1}",
            unit=left.id,
            part="side",
            joins=(left.id, right.id),
            surface=None,
            at=at,
            bites=1.0,
            packing=Figure(value_mm=apart, sd_mm=0.0),
            shank_mm=SHANK_MM,
            screw_mm=sold,
            long=Figure(value_mm=most, sd_mm=0.0, working=steps),
            reach_mm=penetration(sold, through_mm=board_mm, packed_mm=apart, lining_mm=0.0),
            through_mm=board_mm,
            pilot_mm=PILOT_MM,
            clearance_mm=SHANK_MM + 0.5,
        )
        for k, at in enumerate(spots)
    )
    text = (
        "Clamp their faces flush first"
        + (", with packing in the reveal" if apart > 0.5 else "")
        + "; keep clear of hinges and slides."
    )
    fasteners = tuple(f.id for f in driven)
    made = Joined(units=(left.id, right.id), fasteners=fasteners, screw_mm=sold, apart_mm=apart, text=text)
    return made, driven
