"""A part as drawings to work from: SVG and DXF at full size, and tiles to print, one drawing for each face with holes.

A face is drawn as it lies on the bench, that face up, its length to the right. Which way its width then runs follows
from where the part stands in its unit: a template laid on the wrong face, or drawn from behind, is the mirror image,
and the part spoilt.
"""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from dataclasses import dataclass
from xml.sax.saxutils import escape

from wobble.core.formats.paper.cutting import KEPT_MM, OVERLAP_MM, TILE_MM, Point, Tile, bar, starts, tile_page, written
from wobble.core.job import Curve
from wobble.core.length import LengthUnit, format_length
from wobble.core.make.marked import MarkedPart
from wobble.core.part import Box, CurvedEdge, Drilling, Part, Role
from wobble.core.setout.curves import cut_at

Vector = tuple[int, int, int]
ALONG, UP, OUT = (1, 0, 0), (0, 1, 0), (0, 0, 1)
"""Along the unit, up, and out of the wall: seen from the room a right-handed three."""
STANDS: tuple[Role, ...] = ("side", "divider")
FRONTS: tuple[Role, ...] = ("door", "back")
UPRIGHT: tuple[Role, ...] = ("drawer front", "peg board", "panel", "board", "cap", "trim")
EDGES: dict[Vector, str] = {
    ALONG: "right edge",
    (-1, 0, 0): "left edge",
    UP: "upper edge",
    (0, -1, 0): "lower edge",
    OUT: "front edge",
    (0, 0, -1): "back edge",
}
LEAST_ROUND_MM = 0.5
MOST_CORNERS = 6
"""An outline with more is curved."""
PIECE_MM = 5.0
"""How long the straight pieces of a drawn curve are: at a radius of 100 they are off it by 0.03."""


@dataclass(frozen=True)
class Hole:
    """A hole in a drawing: its middle, its size (twice a diameter where it is round), how deep, and for what."""

    at: Point
    size: tuple[float, float]
    round: bool
    deep_mm: float
    use: str


@dataclass(frozen=True)
class Face:
    """One face of a part, drawn that face up: its outline, its holes, and which edge lies nearest to the reader."""

    name: str
    near: str
    outline: tuple[Point, ...]
    holes: tuple[Hole, ...]


def faces(part: Part) -> tuple[Face, ...]:
    """Return every face of a part that something is done to; its outline alone where nothing is."""
    names = tuple(dict.fromkeys(d.face for d in part.drillings)) or (part.face_up or "",)
    return tuple(_face(part, name) for name in names)


def _face(part: Part, name: str) -> Face:
    lengthwise, across = _axes(part)
    away = _cross(_normal(part, name), lengthwise)
    turned = away != across
    long, wide = _size(part)
    outline = (
        _outline(part, long, wide) if part.curve is None or part.quantity > 1 else _curved(part, part.curve, long, wide)
    )

    def seen(at: Point) -> Point:
        return (at[0], wide - at[1] if turned else at[1])

    own = [d for d in part.drillings if d.face == name]
    holes = tuple(_hole(d, seen(at)) for d in own for at in d.at)
    near = EDGES.get(_minus(away), "")
    return Face(name, near, tuple(seen(p) for p in outline), holes)


def _hole(drilling: Drilling, at: Point) -> Hole:
    size = drilling.size_mm or (drilling.diameter_mm, drilling.diameter_mm)
    return Hole(at, size, drilling.size_mm is None, drilling.deep_mm, drilling.use)


def _size(part: Part) -> tuple[float, float]:
    """Return its length and width as it is cut; a board that lies is as long as it goes along, whatever its grain."""
    if part.corner is not None and part.boxes:
        return part.boxes[0].wide_mm, part.boxes[0].deep_mm
    return part.blank_mm


def _outline(part: Part, long: float, wide: float) -> tuple[Point, ...]:
    """Return the corners of a part, its back or left edge at width 0, without what is cut off it at a front corner."""
    cut = part.corner
    if cut is None:
        return ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))
    rear = (cut.rear_mm,) if cut.rear_mm > 0 else ()
    # from the front edge, so far in from the end, to the end or the rear edge
    turn = ((0.0, wide - cut.deep_mm),) if not rear else ((cut.rear_mm, 0.0),)
    left = (*turn, (cut.along_mm, wide), (long, wide), (long, 0.0), *(() if rear else ((0.0, 0.0),)))
    return left if cut.end == "left" else tuple((long - x, y) for x, y in left)


def _curved(part: Part, curve: CurvedEdge, long: float, wide: float) -> tuple[Point, ...]:
    """Return the corners of a part with a curved edge, in short straight pieces.

    The edge runs along the unit, which is along the part where it lies or hangs so, and across it where it stands.
    """
    stands = _axes(part)[0] == UP
    along, far = (wide, long) if stands else (long, wide)
    shape = Curve(edge=curve.edge, rise_mm=curve.rise_mm, way=curve.way)
    n = max(2, math.ceil(along / PIECE_MM))
    beyond = (along - curve.chord_mm) / 2  # what it is longer while it is not cut to its walls
    places = [along * k / n for k in range(n + 1)]
    edge = [(x, cut_at(shape, curve.chord_mm, min(max(x - beyond, 0.0), curve.chord_mm))) for x in places]
    if curve.edge == "lower":
        around = [*edge, (along, far), (0.0, far)]
    else:
        around = [(0.0, 0.0), (along, 0.0), *((x, far - off) for x, off in reversed(edge))]
    return tuple((y, x) for x, y in around) if stands else tuple(around)


def _axes(part: Part) -> tuple[Vector, Vector]:
    """Return which ways a part's length and width run in its unit."""
    if part.role in STANDS:
        return UP, OUT
    if part.role in FRONTS:
        return UP, ALONG
    if part.role == "panel" and part.boxes:
        box = part.boxes[0]
        level = OUT if _deep(box) else ALONG
        return (UP, level) if box.high_mm >= max(box.wide_mm, box.deep_mm) else (level, UP)
    return (ALONG, UP) if part.role in UPRIGHT else (ALONG, OUT)


def _deep(box: Box) -> bool:
    """Return whether a panel stands at the end of a run, its face to the side."""
    return box.deep_mm > box.wide_mm


def _normal(part: Part, face: str) -> Vector:
    """Return which way a face looks."""
    outward = (-1, 0, 0) if part.hand == "left" else ALONG
    match face:
        case "left face" | "outer face of the left side":
            return (-1, 0, 0)
        case "right face" | "outer face of the right side":
            return ALONG
        case "inner face":
            return _minus(outward)
        case "back face":
            return (0, 0, -1)
        case "the face that looks out" if part.role == "side":
            return outward
        case _ if part.role == "panel" and part.boxes and _deep(part.boxes[0]):
            return ALONG
        case _:
            return OUT if part.role in (*FRONTS, *UPRIGHT) else outward if part.role in STANDS else UP


def _cross(a: Vector, b: Vector) -> Vector:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def _minus(a: Vector) -> Vector:
    return (-a[0], -a[1], -a[2])


def part_words(one: MarkedPart, face: Face, units: LengthUnit) -> tuple[str, ...]:
    """Return what is written on a drawing so that nobody drills a mirror image."""
    up = f"{face.name} up" if face.name else "Seen from its face"
    size = " × ".join(format_length(mm, units) for mm in _size(one.part))
    words = [
        f"{one.mark} · {one.part.name}, {size}",
        f"{up}; its {face.near} lies nearest to you." if face.near else up,
    ]
    if one.part.curve is not None:
        words.append(f"{one.part.curve.words}.")
    for use in dict.fromkeys(h.use for h in face.holes):
        mine = [h for h in face.holes if h.use == use]
        through = "through" if mine[0].deep_mm <= 0 else f"{format_length(mine[0].deep_mm, units)} deep"
        sizes = " × ".join(format_length(mm, units) for mm in mine[0].size[: 1 if mine[0].round else 2])
        words.append(f"{use}: {len(mine)} of {sizes}, {through}.")
    return tuple(words)


def part_svg(one: MarkedPart, units: LengthUnit = "mm") -> str:
    """Return a part as SVG whose units are millimetres, its faces one under the other."""
    body: list[str] = []
    y, width = KEPT_MM, 0.0
    for face in faces(one.part):
        high = max(p[1] for p in face.outline)
        words = part_words(one, face, units)
        body += _drawn(face, KEPT_MM, y + high)
        body += written(words, KEPT_MM, y + high + 8.0)
        y += high + 8.0 * (len(words) + 2)
        width = max(width, max(p[0] for p in face.outline) + 2 * KEPT_MM)
    height = y + KEPT_MM
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width:.3f} {height:.3f}">'
    )
    title = f"<title>{escape(f'{one.mark} {one.part.name}')}</title>"
    return "\n".join([head, title, *body, *bar(KEPT_MM, height - 3.0), "</svg>", ""])


def _drawn(face: Face, left: float, foot: float, *, crossed: bool = True) -> Iterator[str]:
    """Yield a face with its near edge at a height of the paper, which counts from above."""
    points = "L".join(f"{left + x:.3f},{foot - y:.3f}" for x, y in face.outline)
    yield f'<path class="cut" d="M{points}Z" fill="none" stroke="#000" stroke-width="0.3"/>'
    for hole in face.holes:
        x, y = left + hole.at[0], foot - hole.at[1]
        if hole.round:
            r = hole.size[0] / 2
            yield f'<circle cx="{x:.3f}" cy="{y:.3f}" r="{r:.3f}" fill="none" stroke="#000" stroke-width="0.2"/>'
        else:
            a, b = hole.size
            yield (
                f'<rect x="{x - a / 2:.3f}" y="{y - b / 2:.3f}" width="{a:.3f}" height="{b:.3f}" fill="none" '
                'stroke="#000" stroke-width="0.3"/>'
            )
        if crossed:
            reach = max(hole.size) / 2 + 3.0
            d = f"M{x - reach:.3f},{y:.3f}h{2 * reach:.3f}M{x:.3f},{y - reach:.3f}v{2 * reach:.3f}"
            yield f'<path d="{d}" fill="none" stroke="#1a4fb8" stroke-width="0.15"/>'


def part_dxf(one: MarkedPart, units: LengthUnit = "mm") -> str:
    """Return a part as DXF in millimetres: layers OUTLINE, HOLES and NOTES, its faces one over the other."""
    # only here: it takes tens of megabytes that a server which draws no parts need not hold
    from ezdxf import units as dxf_units
    from ezdxf.filemanagement import new as new_drawing

    document = new_drawing("R2010", units=dxf_units.MM)
    for name, colour in (("OUTLINE", 7), ("HOLES", 1), ("NOTES", 8)):
        document.layers.add(name, color=colour)
    space = document.modelspace()
    up = 0.0
    for face in faces(one.part):
        space.add_lwpolyline([(x, y + up) for x, y in face.outline], close=True, dxfattribs={"layer": "OUTLINE"})
        for hole in face.holes:
            x, y = hole.at[0], hole.at[1] + up
            if hole.round:
                space.add_circle((x, y), hole.size[0] / 2, dxfattribs={"layer": "HOLES"})
            else:
                a, b = (side / 2 for side in hole.size)
                box = [(x - a, y - b), (x + a, y - b), (x + a, y + b), (x - a, y + b)]
                space.add_lwpolyline(box, close=True, dxfattribs={"layer": "HOLES"})
        words = part_words(one, face, units)
        for i, line in enumerate(words):
            space.add_text(line, height=5.0, dxfattribs={"layer": "NOTES"}).set_placement((0.0, up - 15.0 - 8.0 * i))
        up += max(y for _, y in face.outline) + 8.0 * (len(words) + 5)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def part_tiles(one: MarkedPart, units: LengthUnit = "mm") -> tuple[Tile, ...]:
    """Return the pages on which a part's holes and cut corners print at full size; pages with neither are left out.

    Each overlaps the next by ten millimetres, and says from where on the part it is.
    """
    every = [(face, x, y) for face in faces(one.part) for x, y in _pages(face)]
    pages = []
    for i, (face, x, y) in enumerate(every):
        name = f"{i + 1} of {len(every)}"
        words = part_words(one, face, units)
        left, foot = 10.0 - x, y + TILE_MM[1] + 10.0
        place = f"Page {name}: from {format_length(x, units)} along, {format_length(y, units)} up from its near edge."
        pages.append(
            Tile(name, tile_page("".join(_drawn(face, left, foot)), f"{one.mark}: {face.name}", (place, *words[:2])))
        )
    return tuple(pages)


def _pages(face: Face) -> Iterator[Point]:
    """Yield the near left corners of the tiles of a face that are worth printing."""
    xs, ys = zip(*face.outline, strict=True)
    round_ = len(face.outline) > MOST_CORNERS
    cut = face.outline if round_ else tuple(_slope(face))
    marks = [*(h.at for h in face.holes), *cut]
    for y in starts(min(ys), max(ys), TILE_MM[1]):
        for x in starts(min(xs), max(xs), TILE_MM[0]):
            if any(x <= a <= x + TILE_MM[0] and y <= b <= y + TILE_MM[1] for a, b in marks):
                yield x, y


def _slope(face: Face) -> Iterator[Point]:
    """Yield spots of what is cut slantwise, every so often that no tile is missed."""
    for a, b in _sides(face):
        if _is_slope(a, b):
            n = max(1, math.ceil(math.dist(a, b) / OVERLAP_MM))
            yield from ((a[0] + (b[0] - a[0]) * k / n, a[1] + (b[1] - a[1]) * k / n) for k in range(n + 1))


def _sides(face: Face) -> Iterator[tuple[Point, Point]]:
    return zip(face.outline, (*face.outline[1:], face.outline[0]), strict=True)


def _is_slope(a: Point, b: Point) -> bool:
    return abs(a[0] - b[0]) > LEAST_ROUND_MM and abs(a[1] - b[1]) > LEAST_ROUND_MM
