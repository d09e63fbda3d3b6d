"""An end that is cut back in plan: what its boards lose, and the bevel of the side that stands there.

The cut runs straight from the front, `along_mm` before the end, to the end, `deep_mm` behind the front. A board that
ends short of the unit, or stands back from its front, loses as much less as the line has gone on by then.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.job import Unit
from wobble.core.job.unit import Angled
from wobble.core.length import LengthUnit, spoken
from wobble.core.part import Box, CutCorner, Part, Role

LIE: tuple[Role, ...] = ("bottom", "carcass top", "stretcher", "fixed shelf", "loose shelf")
"""What lies in a carcass, and loses its corner."""
LEAST_MM = 0.5


def cut_back(unit: Unit, parts: Iterable[Part], lengths: LengthUnit = "mm") -> Iterator[Part]:
    """Yield a unit's parts with what its angled end takes off each."""
    cut = unit.angled
    for part in parts:
        if cut is None or not part.boxes:
            yield part
        elif part.role in LIE:
            yield replace(part, corner=corner(unit, cut, part.boxes[0], lengths))
        elif part.role == "side" and part.hand == cut.end:
            slope = cut.deep_mm / cut.along_mm
            long, wide = part.blank_mm
            # its outer face is as deep as said; at its inner face the cut has come as much further forward
            yield replace(part, blank_mm=(long, wide + part.thick_mm * slope), bevel_deg=math.degrees(math.atan(slope)))
        else:
            yield part


@dataclass(frozen=True)
class Upright:
    """What a board that stands upright loses in depth, mm, at its face towards the end that is cut back and the other.

    `angle_deg` is the bevel of its front edge; `words` say all of it, and nothing where the line passes before it.
    """

    toward_mm: float = 0.0
    away_mm: float = 0.0
    angle_deg: float = 0.0
    words: str = ""


def upright(unit: Unit, x_mm: float, thick_mm: float, front_mm: float) -> Upright:
    """Return what a divider loses that stands from `x_mm` on and would reach `front_mm`, were the end square."""
    cut = unit.angled
    if cut is None:
        return Upright()
    slope = cut.deep_mm / cut.along_mm
    beside = x_mm if cut.end == "left" else unit.width_mm - x_mm - thick_mm
    behind = unit.depth_mm - front_mm
    toward, away = ((cut.along_mm - b) * slope - behind for b in (beside, beside + thick_mm))
    if toward <= 0:
        return Upright()
    angle = math.degrees(math.atan(slope))
    words = f"front edge bevelled {angle:.1f}°, the shorter face towards the {cut.end} end"
    return Upright(toward, max(away, 0.0), angle, words)


def corner(unit: Unit, cut: Angled, board: Box, lengths: LengthUnit = "mm") -> CutCorner | None:
    """Return what a board that lies in a unit loses; None where the cut passes before it."""
    slope = cut.deep_mm / cut.along_mm
    beside = board.x_mm if cut.end == "left" else unit.width_mm - board.x_mm - board.wide_mm
    behind = unit.depth_mm - board.y_mm - board.deep_mm
    along = cut.along_mm - beside - behind / slope
    if along < LEAST_MM:
        return None
    deep, rear = min(along * slope, board.deep_mm), max(along - board.deep_mm / slope, 0.0)
    angle = math.degrees(math.atan(slope))
    back = f"{spoken(rear, lengths)} along its rear edge" if rear else f"{spoken(deep, lengths)} back from it"
    return CutCorner(
        end=cut.end,
        along_mm=min(along, board.wide_mm),
        deep_mm=deep,
        rear_mm=rear,
        angle_deg=angle,
        words=f"{cut.end} front corner off: {spoken(along, lengths)} along the front edge, {back}; {angle:.1f}° to it",
    )
