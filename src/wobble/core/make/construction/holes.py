"""Holes of a unit in the board that they are cut into: where on the part, counted from its own edges."""

from __future__ import annotations

from collections.abc import Iterable

from msgspec.structs import replace

from wobble.core.job import Hole, Unit
from wobble.core.length import LengthUnit, spoken
from wobble.core.part import Box, Drilling, HoleUse, Part, Role

ROLE: dict[str, tuple[Role, ...]] = {
    "top": ("carcass top", "panel", "top", "shelf"),
    "back": ("back",),
    "left side": ("side",),
    "right side": ("side",),
    "front": ("panel",),
}
"""In which part of a box a hole lies; in a top it lies in the top itself."""


FROM_ITS_CORNER = Box(x_mm=0.0, y_mm=0.0, z_mm=0.0, wide_mm=0.0, deep_mm=0.0, high_mm=0.0)
"""Of a top or shelf, which is cut to its walls: holes count from its own back left corner."""


def with_holes(unit: Unit, parts: Iterable[Part], lengths: LengthUnit = "mm") -> tuple[Part, ...]:
    """Return parts with the holes of their unit: its cable holes, hatches, lids and cut-outs."""
    found = []
    for part in parts:
        own = [h for h in unit.holes if _is_in(h, part)]
        drillings = (*part.drillings, *(_drilled(h, part, lengths) for h in own))
        found.append(replace(part, drillings=drillings) if own else part)
    return tuple(found)


def _is_in(hole: Hole, part: Part) -> bool:
    if part.role not in ROLE[hole.inside]:
        return False
    return part.role != "side" or hole.inside == f"{part.hand} side"


def _drilled(hole: Hole, part: Part, lengths: LengthUnit) -> Drilling:
    """Return a hole on its part: a back's lower left corner is that of the unit, less where the back begins."""
    at, box = hole.at, part.boxes[0] if part.boxes else FROM_ITS_CORNER
    if hole.inside == "top":
        along, across = at[0] - box.x_mm, at[1] - box.y_mm
        edges = ("left end", "back edge")
    elif hole.inside in ("left side", "right side"):
        along, across = at[1] - box.z_mm, at[0] - box.y_mm
        edges = ("lower end", "back edge" if hole.inside == "left side" else "front edge")
    else:
        along, across = at[1] - box.z_mm, at[0] - box.x_mm
        edges = ("lower end", "left edge")
    wide, high = hole.size
    from_back = box.deep_mm - across - wide if hole.inside == "right side" else across
    # a hole is as wide as it goes along or out, and as high as it goes up; in a top as deep as it goes out
    lengthwise, crosswise = (wide, high) if hole.inside == "top" else (high, wide)
    size = f"{spoken(wide, lengths)} × {spoken(high, lengths)}"
    if part.role == "panel" and box.wide_mm > box.high_mm:  # its length runs along, not up
        along, across, lengthwise, crosswise = across, along, crosswise, lengthwise
        from_back, edges = across, ("left edge", "lower end")
    use: HoleUse = "cable" if hole.kind == "cable hole" else "cut-out"
    return Drilling(
        use=use,
        face="the face that looks out",
        diameter_mm=max(wide, high),
        size_mm=None if use == "cable" and wide == high else (lengthwise, crosswise),
        at=((along + lengthwise / 2, from_back + crosswise / 2),),
        words=(
            f"{hole.name}: {size}, its near corner {spoken(along, lengths)} from the {edges[0]} and "
            f"{spoken(across, lengths)} from the {edges[1]}; before the box is closed and painted"
        ),
    )
