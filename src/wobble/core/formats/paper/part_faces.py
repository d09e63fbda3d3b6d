"""A part's faces as they lie on the bench: that face up, its length to the right.

Which way its width then runs follows from where the part stands in its unit: a template laid on the wrong face, or
drawn from behind, is the mirror image, and the part spoilt.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass

from wobble.core.formats.paper.cutting import OVERLAP_MM, Point
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
STRAIGHT_MM = 0.5
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
    """One face of a part, drawn that face up.

    Attributes:
        name: Which. near: The edge that lies nearest to the reader. outline: Its corners. holes: What is drilled.
        cut: Spots of what is cut slantwise or round, every so often that no page misses it.
    """

    name: str
    near: str
    outline: tuple[Point, ...]
    holes: tuple[Hole, ...]
    cut: tuple[Point, ...]


def faces(part: Part) -> tuple[Face, ...]:
    """Return every face of a part that something is done to; its outline alone where nothing is."""
    names = tuple(dict.fromkeys(d.face for d in part.drillings)) or (part.face_up or "",)
    return tuple(_face(part, name) for name in names)


def _face(part: Part, name: str) -> Face:
    lengthwise, across = _axes(part)
    away = _cross(_normal(part, name), lengthwise)
    turned = away != across
    long, wide = cut_size(part)
    outline = _outline(part, long, wide) if part.curve is None else _curved(part, part.curve, long, wide)

    def seen(at: Point) -> Point:
        return (at[0], wide - at[1] if turned else at[1])

    own = [d for d in part.drillings if d.face == name]
    holes = tuple(_hole(d, seen(at)) for d in own for at in d.at)
    near = EDGES.get(_minus(away), "")
    drawn = tuple(seen(p) for p in outline)
    return Face(name, near, drawn, holes, drawn if part.curve is not None else tuple(_slope(drawn)))


def _hole(drilling: Drilling, at: Point) -> Hole:
    size = drilling.size_mm or (drilling.diameter_mm, drilling.diameter_mm)
    return Hole(at, size, drilling.size_mm is None, drilling.deep_mm, drilling.use)


def cut_size(part: Part) -> tuple[float, float]:
    """Return its length and width as it is cut; a board that lies is as long as it goes along, whatever its grain."""
    if part.corner is not None and part.boxes:
        return part.boxes[0].wide_mm, part.boxes[0].deep_mm
    return part.blank_mm


def _outline(part: Part, long: float, wide: float) -> tuple[Point, ...]:
    """Return the corners of a part, its back or left edge at width 0, without what is cut off it at a front corner."""
    cut = part.corner
    if cut is None:
        return ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))
    # from the front edge, so far in from the end, to the rear edge or to the end
    runs_to = ((cut.rear_mm, 0.0),) if cut.rear_mm > 0 else ((0.0, 0.0), (0.0, wide - cut.deep_mm))
    left = (*runs_to, (cut.along_mm, wide), (long, wide), (long, 0.0))
    return left if cut.end == "left" else tuple((long - x, y) for x, y in left)


def _curved(part: Part, edge: CurvedEdge, long: float, wide: float) -> tuple[Point, ...]:
    """Return the corners of a part with a curved edge, in short straight pieces.

    The edge runs along the unit, which is along the part where it lies or hangs so, and across it where it stands.
    """
    stands = _axes(part)[0] == UP
    along, far = (wide, long) if stands else (long, wide)
    n = max(2, math.ceil(along / PIECE_MM))
    beyond = (along - edge.chord_mm) / 2  # what it is longer while it is not cut to its walls
    places = [along * k / n for k in range(n + 1)]
    off = [cut_at(edge.curve, edge.chord_mm, min(max(x - beyond, 0.0), edge.chord_mm)) for x in places]
    arc = list(zip(places, off, strict=True))
    if edge.curve.edge == "lower":
        around = [*arc, (along, far), (0.0, far)]
    else:
        around = [(0.0, 0.0), (along, 0.0), *((x, far - cut) for x, cut in reversed(arc))]
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


def _slope(outline: tuple[Point, ...]) -> Iterator[Point]:
    """Yield spots of what is cut slantwise, every so often that no tile is missed."""
    for a, b in itertools.pairwise((*outline, outline[0])):
        if abs(a[0] - b[0]) > STRAIGHT_MM and abs(a[1] - b[1]) > STRAIGHT_MM:
            n = max(1, math.ceil(math.dist(a, b) / OVERLAP_MM))
            yield from ((a[0] + (b[0] - a[0]) * k / n, a[1] + (b[1] - a[1]) * k / n) for k in range(n + 1))
