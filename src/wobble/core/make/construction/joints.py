"""How boards of a carcass are joined by what will be seen, and the holes that come of it.

Shelf pins: 5 mm holes on a pitch of 32 mm where no other is said, 37 mm from the front edge, as the trade's boring jigs
have them. Hinge cups:
35 mm, 12.5 mm deep, their middle 22.5 mm from the edge, 100 mm from the ends; the hinge's own sheet counts.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Literal

from wobble.core.job import Shelved
from wobble.core.job.insides import Hangs
from wobble.core.length import LengthUnit, spoken
from wobble.core.make.construction.built import Carcass
from wobble.core.part import Box, Drilling
from wobble.core.setout.cells import Rect, cell_at

PIN_IN_MM, PIN_MM, PIN_DEEP_MM = 37.0, 5.0, 11.0
PIN_END_HOLES = 3
"""Rows of pin holes end three pitches clear of the boards above and below: no shelf lies nearer."""
SCREW_APART_MM, SCREW_IN_MM = 200.0, 40.0
CLEARANCE_MM, HEAD_MM, PILOT_MM = 4.5, 9.0, 3.0
CUP_MM, CUP_DEEP_MM, CUP_IN_MM, CUP_END_MM = 35.0, 12.5, 22.5, 100.0


def ends_joined(c: Carcass, hand: Literal["left", "right"] | None) -> str:
    """Return how a side, or what lies between both, is joined: through what is hidden, from within where it is seen."""
    seen = sorted(c.seen) if hand is None else [hand] if hand in c.seen else []
    if c.built.joined == "dowels":
        return "doweled and glued, nothing seen"
    within = "pocket screws from the underside or the back, pockets where nobody sees them"
    if c.built.joined == "pocket screws":
        return within
    if not seen:
        return "screwed through the sides, heads countersunk"
    if hand is not None:
        return f"a seen end: not screwed through; {within}"
    return f"screwed through a hidden side; at the {' and '.join(seen)} end, which is seen, {within}"


def pin_rows(c: Carcass, x_mm: float) -> Iterator[tuple[float, float]]:
    """Yield from where to where shelves on pins hang on a board whose face is at `x_mm`, over the unit's underside."""
    if c.unit.insides is None:
        return
    for cell in c.cells:
        fill = cell_at(c.unit.insides.cell, cell.path).fill
        if not isinstance(fill, Shelved) or fill.held != "pins":
            continue
        if min(abs(cell.rect.x_mm - x_mm), abs(cell.rect.x_mm + cell.rect.wide_mm - x_mm)) < 1.0:
            yield cell.rect.z_mm, cell.rect.z_mm + cell.rect.high_mm


def pin_holes(c: Carcass, which: str, at: Box | None = None) -> Iterator[Drilling]:
    """Yield the rows of pin holes in a side or a divider, two rows each, parallel to its front edge."""
    t, low = c.built.board_mm, c.low_mm
    if at is None:
        z0 = low if c.through else low + t
        faces = [("inner face", t if which == "left" else c.unit.width_mm - t)]
        deep, back = c.front_mm, 0.0
    else:
        z0, faces = at.z_mm, [("left face", at.x_mm), ("right face", at.x_mm + at.wide_mm)]
        deep, back = at.deep_mm, at.y_mm
    rear = max(c.built.groove_in_mm + c.built.back_mm - back, 0.0) if c.built.back == "grooved" else 0.0
    pitch = c.built.pin_pitch_mm
    for face, x in faces:
        for start, end in pin_rows(c, x):
            n = math.floor((end - start - 2 * PIN_END_HOLES * pitch) / pitch) + 1
            if n < 1:
                continue
            first = start + (end - start - (n - 1) * pitch) / 2 - z0
            rows = (deep - PIN_IN_MM, rear + PIN_IN_MM)
            yield Drilling(
                use="shelf pin",
                face=face,
                diameter_mm=PIN_MM,
                deep_mm=min(PIN_DEEP_MM, (t - 2) / (2 if at is not None else 1)),
                at=tuple((first + k * pitch, row) for row in rows for k in range(n)),
                words=(
                    f"two rows of {n}, {spoken(pitch, c.lengths)} apart, the first "
                    f"{spoken(first, c.lengths)} from the lower end; "
                    f"{spoken(PIN_IN_MM, c.lengths)} from the front edge, and from the back"
                ),
            )


def screwed_from_outside(c: Carcass, hand: str) -> Iterator[Drilling]:
    """Yield the clearance holes through a hidden side into what it holds: bottom, top, fixed shelves."""
    t, front = c.built.board_mm, c.front_mm
    n = max(2, math.ceil((front - 2 * SCREW_IN_MM) / SCREW_APART_MM) + 1)
    row = [SCREW_IN_MM + (front - 2 * SCREW_IN_MM) * k / (n - 1) for k in range(n)]
    heights = [c.low_mm + t / 2, c.unit.height_mm - t / 2]
    if c.built.joined != "screws":
        return
    yield Drilling(
        use="screw",
        face=f"outer face of the {hand} side",
        diameter_mm=CLEARANCE_MM,
        at=tuple((z - c.low_mm, y) for z in heights for y in row),
        words=(
            f"{n} over each other board's end, {spoken(CLEARANCE_MM, c.lengths)} through, countersunk to "
            f"{spoken(HEAD_MM, c.lengths)}; pilot {spoken(PILOT_MM, c.lengths)} into the end of the other board, "
            "before glue and paint"
        ),
    )


def cups(high_mm: float, wide_mm: float, hangs: str, lengths: LengthUnit = "mm") -> Drilling:
    """Return the cups of a door on cup hinges: two up to 900 mm of height, then one more for each 700 mm.

    For a flap that hangs above or below they run along its width.
    """
    along = high_mm if hangs in ("left", "right") else wide_mm
    n = hinges_for(along)
    ends = [CUP_END_MM + (along - 2 * CUP_END_MM) * k / (n - 1) for k in range(n)]
    across = wide_mm if hangs in ("left", "right") else high_mm
    edge = CUP_IN_MM if hangs in ("left", "down") else across - CUP_IN_MM
    at = tuple((a, edge) if hangs in ("left", "right") else (edge, a) for a in ends)
    return Drilling(
        use="hinge cup",
        face="back face",
        diameter_mm=CUP_MM,
        deep_mm=CUP_DEEP_MM,
        at=at,
        words=(
            f"{n} cups of {spoken(CUP_MM, lengths)}, {spoken(CUP_DEEP_MM, lengths)} deep, middles "
            f"{spoken(CUP_IN_MM, lengths)} from the {hangs} edge; "
            "the hinge's own sheet counts"
        ),
    )


def hinges_for(high_mm: float) -> int:
    """Return how many hinges a door of a height wants: two up to 900 mm, three to 1600, four to 2000, then five."""
    return 2 if high_mm <= 900 else 3 if high_mm <= 1600 else 4 if high_mm <= 2000 else 5


REACH_MM = 1000.0
"""How high over the floor a hand takes hold of a door most easily."""
HANDLE_MM = 5.0


def door_handle(c: Carcass, at: Rect, hangs: Hangs) -> Iterator[Drilling]:
    """Yield the holes of a door's handle: at the edge that opens, upright, as near to a hand's height as the door goes.

    On a flap it lies along the edge that opens, in its middle.
    """
    apart, off = c.built.handle_apart_mm, c.built.handle_in_mm
    if apart is None:
        return
    if hangs in ("up", "down"):
        up = off if hangs == "up" else at.high_mm - off
        middle = at.wide_mm / 2
        holes = [(up, middle - apart / 2), (up, middle + apart / 2)]
    else:
        across = off if hangs == "right" else at.wide_mm - off
        wanted = REACH_MM - c.unit.over_base_mm - at.z_mm - apart / 2
        up = max(min(wanted, at.high_mm - off - apart), min(off, (at.high_mm - apart) / 2))
        holes = [(up, across), (up + apart, across)]
    yield _handle(c, holes, ("the lower end", "the left edge"))


def front_handle(c: Carcass, wide_mm: float, high_mm: float) -> Iterator[Drilling]:
    """Yield the holes of a drawer front's handle, which lies in its middle."""
    apart = c.built.handle_apart_mm
    if apart is not None:
        x, z = wide_mm / 2, high_mm / 2
        yield _handle(c, [(x - apart / 2, z), (x + apart / 2, z)], ("the left end", "the lower edge"))


def _handle(c: Carcass, holes: list[tuple[float, float]], edges: tuple[str, str]) -> Drilling:
    at = tuple(dict.fromkeys(holes))
    (along, across), n = at[0], len(at)
    apart = f", {spoken(c.built.handle_apart_mm or 0.0, c.lengths)} apart" if n > 1 else ""
    return Drilling(
        use="handle",
        face="front face",
        diameter_mm=HANDLE_MM,
        at=at,
        words=(
            f"{n} {'holes' if n > 1 else 'hole'} of {spoken(HANDLE_MM, c.lengths)} through{apart}, the first "
            f"{spoken(along, c.lengths)} from {edges[0]} and {spoken(across, c.lengths)} from {edges[1]}; from "
            "the front, a scrap clamped behind, before paint"
        ),
    )
