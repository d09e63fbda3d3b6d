"""A scribed edge as drawings to cut from: SVG and DXF at full size, and tiles to print, each with a bar to measure.

All are seen from the face: x to the right, y up (a flat part from above, its back away from the reader). The cut line
is drawn over a reference line that runs parallel to the piece's straight edge, at a distance that is written beside it.
"""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from dataclasses import dataclass
from xml.sax.saxutils import escape

from wobble.core.fit.scribe.line import Hand, Scribe
from wobble.core.length import LengthUnit, format_length

Point = tuple[float, float]
PAGE_MM = (190.0, 258.0)
"""What A4 and Letter both can print, a line of words at the foot of the paper left free."""
TILE_MM = (170.0, 208.0)
OVERLAP_MM = 10.0
BAR_MM = 100.0
KEPT_MM = 10.0
SIDES: dict[Hand, str] = {
    "left": "at the left",
    "right": "at the right",
    "far": "at the far edge",
    "near": "at the foot",
}
WHAT = {"floor": "floor", "ceiling": "ceiling", "back": "wall", "left": "wall", "right": "wall"}
WALL: dict[Hand, str] = {"left": "← wall", "right": "wall →", "far": "↑ wall", "near": "↓ floor"}


@dataclass(frozen=True)
class CutDrawing:
    """A cut line at full size, seen from the face.

    Attributes:
        line: Corners of the cut line, mm. reference: Both ends of the reference line. from_edge_mm: How far the
            reference is from the piece's straight edge.
    """

    line: tuple[Point, ...]
    reference: tuple[Point, Point]
    from_edge_mm: float


def cut_drawing(scribe: Scribe) -> CutDrawing:
    """Return a scribe's line seen from the face.

    On the left of the piece the cut lies at smaller x than its straight edge, on the right at larger: drawn the other
    way round it would be the mirror image, and the piece spoilt.
    """
    low = min(p.left_mm for p in scribe.line)
    start = max(math.floor((low - KEPT_MM) / 10.0) * 10.0, 0.0)
    points = [(p.along_mm, p.left_mm - start) for p in scribe.line]
    ends = [(0.0, 0.0), (scribe.long_mm, 0.0)]
    turned = [_seen(scribe, p) for p in points]
    a, b = (_seen(scribe, p) for p in ends)
    return CutDrawing(tuple(turned), (a, b), start)


def _seen(scribe: Scribe, point: Point) -> Point:
    along, off = point
    match scribe.hand:
        case "left":
            return (-off, -along if scribe.flat else along)
        case "right":
            return (off, -along if scribe.flat else along)
        case "far":
            return (along, off)
        case "near":
            return (along, -off)


def scribe_words(scribe: Scribe, units: LengthUnit) -> tuple[str, ...]:
    """Return what is written on a drawing so that nobody cuts a mirror image."""
    drawing = cut_drawing(scribe)
    side = SIDES[scribe.hand]
    words = [
        f"{scribe.piece}: {scribe.edge}",
        f"FACE UP. The {WHAT[scribe.surface]} is {side}. Lengths count {scribe.along}.",
        f"Reference line {format_length(drawing.from_edge_mm, units)} from its straight edge.",
        f"Undercut {scribe.bevel_deg:.0f} degrees from the face. Compass {format_length(scribe.compass_mm, units)}.",
    ]
    if scribe.blank_mm:
        words.append(f"Blank {format_length(scribe.blank_mm, units, decimals=0)} wide.")
    return tuple(words)


def scribe_svg(scribe: Scribe, units: LengthUnit = "mm") -> bytes:
    """Return the cut line as an SVG whose units are millimetres."""
    drawing = cut_drawing(scribe)
    xs, ys = zip(*drawing.line, *drawing.reference, strict=True)
    words = scribe_words(scribe, units)
    left, top = min(xs) - KEPT_MM, max(ys) + KEPT_MM
    room = 8.0 * (len(words) + 2)
    width, height = max(max(xs) - left + KEPT_MM, BAR_MM + 2 * KEPT_MM), top - min(ys) + KEPT_MM + room
    body = [
        _path(drawing.line, left, top, "cut", "#000", 0.3),
        _path(drawing.reference, left, top, "reference", "#1a4fb8", 0.2),
        *written(words, KEPT_MM, height - room + 8.0),
        *bar(KEPT_MM, height - 5.0),
    ]
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width:.3f} {height:.3f}">'
    )
    return "\n".join(['<?xml version="1.0" encoding="UTF-8"?>', head, *body, "</svg>\n"]).encode()


def _path(points: tuple[Point, ...], left: float, top: float, name: str, colour: str, wide: float) -> str:
    d = "M" + "L".join(f"{x - left:.3f},{top - y:.3f}" for x, y in points)
    return f'<path class="{name}" d="{d}" fill="none" stroke="{colour}" stroke-width="{wide}"/>'


def written(words: tuple[str, ...], x: float, y: float) -> Iterator[str]:
    """Yield words as lines of text, mm."""
    for i, line in enumerate(words):
        yield f'<text x="{x:.1f}" y="{y + 6 * i:.1f}" font-size="4" font-family="sans-serif">{escape(line)}</text>'


def bar(x: float, y: float) -> Iterator[str]:
    """Yield a bar that must measure a hundred millimetres on what comes out of the printer."""
    ticks = "".join(f"M{x + t:.1f},{y:.1f}v{-4 if t % 50 == 0 else -2}" for t in range(0, int(BAR_MM) + 1, 10))
    yield f'<path class="bar" d="M{x:.1f},{y:.1f}h{BAR_MM:.1f}{ticks}" fill="none" stroke="#000" stroke-width="0.25"/>'
    label = f"This bar must measure {BAR_MM:.0f} mm: else print at 100 %, not fitted to the page."
    yield f'<text x="{x:.1f}" y="{y - 5:.1f}" font-size="3.2" font-family="sans-serif">{label}</text>'


def scribe_dxf(scribe: Scribe, units: LengthUnit = "mm") -> bytes:
    """Return the cut line as a DXF in millimetres: layers CUT, REFERENCE and NOTES."""
    # only here: it takes tens of megabytes that a server which draws no lines need not hold
    from ezdxf import units as dxf_units
    from ezdxf.filemanagement import new as new_drawing

    drawing = cut_drawing(scribe)
    document = new_drawing("R2010", units=dxf_units.MM)
    for name, colour in (("CUT", 1), ("REFERENCE", 5), ("NOTES", 8)):
        document.layers.add(name, color=colour)
    space = document.modelspace()
    space.add_lwpolyline(drawing.line, dxfattribs={"layer": "CUT"})
    space.add_line(*drawing.reference, dxfattribs={"layer": "REFERENCE"})
    low = min(y for _, y in (*drawing.line, *drawing.reference))
    for i, words in enumerate(scribe_words(scribe, units)):
        text = space.add_text(words, height=5.0, dxfattribs={"layer": "NOTES"})
        text.set_placement((0.0, low - 15.0 - 8.0 * i))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


@dataclass(frozen=True)
class Tile:
    """One page: its name, such as "2 of 9", and its drawing at full size, an SVG element of `PAGE_MM`."""

    name: str
    svg: str


def tiles(scribe: Scribe, units: LengthUnit = "mm") -> tuple[Tile, ...]:
    """Return the pages on which a cut line prints at full size, each overlapping the next by ten millimetres.

    A page shows the part of the line that crosses it; those that it does not cross are left out. Crosses mark where two
    pages lie on each other.
    """
    drawing = cut_drawing(scribe)
    xs, ys = zip(*drawing.line, *drawing.reference, strict=True)
    columns = starts(min(xs), max(xs), TILE_MM[0])
    rows = starts(min(ys), max(ys), TILE_MM[1])
    cells = [(x, y) for y in rows for x in columns if _crosses(drawing, x, y)]
    words = scribe_words(scribe, units)
    return tuple(
        Tile(f"{i + 1} of {len(cells)}", _page(drawing, x, y, f"{i + 1} of {len(cells)}", words, scribe.hand))
        for i, (x, y) in enumerate(cells)
    )


def starts(low: float, high: float, step: float) -> list[float]:
    """Return where tiles begin that cover a length, each a little over the next."""
    n = max(1, math.ceil((high - low - OVERLAP_MM) / (step - OVERLAP_MM)))
    return [low + i * (step - OVERLAP_MM) for i in range(n)]


def _crosses(drawing: CutDrawing, x: float, y: float) -> bool:
    """Return whether the cut line comes into a tile; it is looked at every few millimetres."""
    for (x0, y0), (x1, y1) in zip(drawing.line, drawing.line[1:], strict=False):
        n = max(2, math.ceil(math.dist((x0, y0), (x1, y1)) / 5.0))
        for k in range(n + 1):
            px, py = x0 + (x1 - x0) * k / n, y0 + (y1 - y0) * k / n
            if x <= px <= x + TILE_MM[0] and y <= py <= y + TILE_MM[1]:
                return True
    return False


def _page(drawing: CutDrawing, x: float, y: float, name: str, words: tuple[str, ...], hand: Hand) -> str:
    left, top = x - 10.0, y + TILE_MM[1] + 10.0
    lines = _path(drawing.line, left, top, "cut", "#000", 0.35) + _path(
        drawing.reference, left, top, "reference", "#1a4fb8", 0.2
    )
    place = f"Page {name}: from {x - drawing.reference[0][0]:.0f}, {y - drawing.reference[0][1]:.0f} mm of the zero."
    return tile_page(lines, WALL[hand], (place, *words[:2]))


def tile_page(lines: str, head: str, words: tuple[str, ...]) -> str:
    """Return one page; the frame of its tile is `TILE_MM` and stands ten millimetres in from the page's corner."""
    width, height = PAGE_MM
    corners = [
        (10.0, 10.0),
        (10.0 + TILE_MM[0], 10.0),
        (10.0, 10.0 + TILE_MM[1]),
        (10.0 + TILE_MM[0], 10.0 + TILE_MM[1]),
    ]
    crosses = "".join(f"M{cx - 4:.1f},{cy:.1f}h8M{cx:.1f},{cy - 4:.1f}v8" for cx, cy in corners)
    clip = f'<clipPath id="tile"><rect x="10" y="10" width="{TILE_MM[0]}" height="{TILE_MM[1]}"/></clipPath>'
    body = [
        clip,
        f'<g clip-path="url(#tile)">{lines}</g>',
        f'<path d="{crosses}" fill="none" stroke="#888" stroke-width="0.2"/>',
        *written((head,), 16.0, 18.0),
        *written(words, 10.0, TILE_MM[1] + 18.0),
        *bar(10.0, height - 4.0),
    ]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}">'
        + "".join(body)
        + "</svg>"
    )
