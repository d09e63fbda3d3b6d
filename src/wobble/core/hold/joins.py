"""Unit to unit: neighbours screwed together once they are level and flush, and tops to the boxes under them."""

from __future__ import annotations

import itertools

from wobble.core.figure import Figure, Step
from wobble.core.fit.run.tiers import carriers, tiers
from wobble.core.hold.screws import SOLD_MM, penetration
from wobble.core.job import Place, Unit, Value
from wobble.core.part import Fastener
from wobble.core.setout.boards import MATERIALS

TOUCH_MM = 5.0
"""Neighbours this far apart, or a reveal that is packed out, are joined."""
IN_MM, UP_MM = 37.0, 80.0
"""How far in from front and back the screws stand, and from top and bottom of what the two share."""
SHANK_MM, PILOT_MM = 4.0, 2.5
LEAST_IN_MM = 10.0
"""A screw that goes less into a top holds nothing."""
LEFT_MM = 4.0
"""What is left of the second side in front of the point."""


class Joined(Value, frozen=True, kw_only=True):
    """Two neighbours and the screws between them.

    Attributes:
        units: Left one and right one, or box and top. fasteners: Its screws by their ids; each does not come through.
        screw_mm: Their length as sold. apart_mm: The reveal between them, packed out. text: What to mind.
    """

    units: tuple[str, str]
    fasteners: tuple[str, ...]
    screw_mm: float
    apart_mm: float
    text: str


def joined(place: Place) -> list[tuple[Joined, tuple[Fastener, ...]]]:
    """Return every two units that are screwed together, with the screws: neighbours of a run, then tops from below."""
    out = []
    for tier in tiers(place):
        for left, right in itertools.pairwise(tier.units):
            apart = right.x_mm - left.right_mm
            loose = "nothing" in (*left.fastened_to, *right.fastened_to)
            if (
                not loose
                and -0.5 <= apart <= TOUCH_MM
                and (made := _join(left, right, max(apart, 0.0), place.closing.board_mm))
            ):
                out.append(made)
    for top in place.units:
        if top.flat and "under it" in top.fastened_to:
            out += [
                made for box in carriers(place.units, top) if (made := _from_below(box, top, place.closing.board_mm))
            ]
    return out


def _from_below(box: Unit, top: Unit, board_mm: float) -> tuple[Joined, tuple[Fastener, ...]] | None:
    """Return the screws from a box up into the top that it carries: one near each corner that is under it.

    They go through the box's own top board and stay `LEFT_MM` under the face. A solid top moves across its width, so
    that all but the front ones go through slots.
    """
    left, right = max(box.x_mm, top.x_mm), min(box.right_mm, top.right_mm)
    back = max(box.out_mm, top.out_mm)
    front = min(box.out_mm + box.depth_mm, top.out_mm + top.depth_mm)
    most = board_mm + top.height_mm - LEFT_MM
    sold = max((mm for mm in SOLD_MM if mm <= most), default=None)
    if right - left <= 2 * IN_MM or front - back <= 2 * IN_MM or sold is None or sold < board_mm + LEAST_IN_MM:
        return None
    steps = (
        Step(label="The box's top board", value_mm=board_mm),
        Step(label="The top", value_mm=top.height_mm),
        Step(label="Left under its face", sign=-1, value_mm=LEFT_MM),
    )
    solid = top.board is not None and MATERIALS[top.board.material].movement is not None
    driven = tuple(
        Fastener(
            id=f"{box.id}.top.{top.id}.{k + 1}",
            unit=box.id,
            part="top board",
            joins=(box.id, top.id),
            surface=None,
            at=(top.over_base_mm, out),
            bites=1.0,
            packing=Figure(value_mm=0.0, sd_mm=0.0),
            shank_mm=SHANK_MM,
            screw_mm=sold,
            long=Figure(value_mm=most, sd_mm=0.0, working=steps),
            reach_mm=penetration(sold, through_mm=board_mm, packed_mm=0.0, lining_mm=0.0),
            through_mm=board_mm,
            pilot_mm=PILOT_MM,
            clearance_mm=SHANK_MM + 0.5,
        )
        for k, (out, _) in enumerate((out, x) for out in (front - IN_MM, back + IN_MM) for x in (left, right))
    )
    text = "From below, before anything goes into the box. Set a stop on the drill: it must not come through the face."
    if solid:
        text += " Solid wood moves: the front ones hold, those behind go through slots across the grain."
    made = Joined(units=(box.id, top.id), fasteners=tuple(f.id for f in driven), screw_mm=sold, apart_mm=0.0, text=text)
    return made, driven


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
