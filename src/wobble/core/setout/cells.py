"""A carcass opened: where each cell is, what is free in it, and the sizes of drawers, doors and shelves that follow.

Lengths count from the carcass's own lower left corner as one faces it, its base included; boards are as thick as the
construction says, and are taken off before anything is shared.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from msgspec.structs import replace

from wobble.core.job import (
    BaseFrame,
    Cell,
    Columns,
    Construction,
    Content,
    Drawers,
    Front,
    Legs,
    Opens,
    PullOut,
    Rows,
    ScrewFeet,
    Shelved,
    ToeKickBox,
    Unit,
    Value,
)
from wobble.core.job.insides import Door

OVERLAY_SHARE = {"inset": 0.0, "half overlay": 0.5, "full overlay": 1.0}
"""How much of a board's edge a door lies over; of two doors on one board each takes half."""
DOOR_MM = 20.0
"""What an inset door takes of the depth behind it."""


class Rect(Value, frozen=True, kw_only=True):
    """A rectangle seen from the front: its lower left corner and its size, mm."""

    x_mm: float
    z_mm: float
    wide_mm: float
    high_mm: float


class DrawerBox(Value, frozen=True, kw_only=True):
    """A drawer's box: its underside in the carcass, its width over all, its height and the opening it has to itself.

    `front` is where its front lies; None for one behind a door.
    """

    z_mm: float
    wide_mm: float
    high_mm: float
    opening_mm: float
    front: Rect | None = None


class DoorLeaf(Value, frozen=True, kw_only=True):
    """One leaf of a door: where it lies seen from the front, its size, and its hinge side."""

    at: Rect
    hangs: Literal["left", "right", "up", "down"]


class LaidCell(Value, frozen=True, kw_only=True):
    """A cell as it comes out.

    Attributes:
        path: Where it is in the carcass: numbers from the left or from the bottom, as `0.1`. rect: What is free in it.
        seen: What is free at its front, within a face frame. deep_mm: From the front to the back board.
        door: Its leaves. drawers: Its drawers. spacers_mm: What slides are packed out, left and right, past a frame's
            lip. shelves_at: Undersides of its shelves. shelf_mm: Their length and depth. leaf: Whether it is not split.
        door_takes_mm: What an inset door before it takes of its depth, its own or one around it.
    """

    path: str
    rect: Rect
    seen: Rect
    deep_mm: float
    leaf: bool
    fill: str
    door: tuple[DoorLeaf, ...] = ()
    drawers: tuple[DrawerBox, ...] = ()
    shelves_at: tuple[float, ...] = ()
    shelf_mm: tuple[float, float] | None = None
    spacers_mm: tuple[float, float] = (0.0, 0.0)
    door_takes_mm: float = 0.0


class Short(Value, frozen=True, kw_only=True):
    """A split whose parts ask for more than there is: where, how much is there, how much they ask."""

    path: str
    free_mm: float
    asked_mm: float


def under_box_mm(unit: Unit) -> float:
    """Return how much of a unit's height is base, feet or legs under its lowest board."""
    match unit.standing:
        case ToeKickBox(height_mm=high) | BaseFrame(height_mm=high):
            return min(high, unit.height_mm)
        case Legs(finished_mm=long):
            return min(long, unit.height_mm)
        case ScrewFeet(now_mm=now):
            return min(max(now), unit.height_mm) if unit.feet_in_mm == 0 else unit.feet_in_mm
        case _:
            return 0.0


def back_takes_mm(built: Construction) -> float:
    """Return how much of a carcass's depth lies behind what is free in it."""
    match built.back:
        case "none" | "applied":
            return 0.0
        case "rebated":
            return built.back_mm
        case _:
            return built.groove_in_mm + built.back_mm


def inside(unit: Unit, built: Construction) -> tuple[Rect, float]:
    """Return what is free in a carcass seen from the front, and how deep it is, mm.

    An applied back stands behind the depth that is said. A face frame narrows what is seen, not what is free behind it.
    """
    t, low = built.board_mm, under_box_mm(unit)
    rect = Rect(x_mm=t, z_mm=low + t, wide_mm=unit.width_mm - 2 * t, high_mm=unit.height_mm - low - 2 * t)
    frame = built.face_frame.thick_mm if built.face_frame is not None else 0.0
    return rect, unit.depth_mm - back_takes_mm(built) - frame


def laid_cells(unit: Unit, built: Construction) -> tuple[tuple[LaidCell, ...], tuple[Short, ...]]:
    """Return every cell of a carcass, split ones before their parts, and the splits that ask for more than there is."""
    if unit.insides is None:
        return (), ()
    rect, deep = inside(unit, built)
    found = list(_walk(unit.insides.cell, "", rect, deep, built, _OUTER, None))
    return tuple(c for c in found if isinstance(c, LaidCell)), tuple(c for c in found if isinstance(c, Short))


_Edges = tuple[bool, bool, bool, bool]
"""Whether a cell meets the carcass's own side at the left, right, bottom and top."""
_OUTER: _Edges = (True, True, True, True)


def _lips(built: Construction, outer: _Edges) -> tuple[float, float, float, float]:
    """Return how far a face frame stands past the boards into a cell: left, right, bottom, top, mm."""
    frame, t = built.face_frame, built.board_mm
    if frame is None:
        return (0.0, 0.0, 0.0, 0.0)
    stiles = [0.0 if frame.open_end == end else frame.stile_mm - t for end in ("left", "right")]
    between, rail = (frame.mullion_mm - t) / 2, frame.rail_mm - t
    lips = (
        stiles[0] if outer[0] else between,
        stiles[1] if outer[1] else between,
        rail if outer[2] else rail / 2,
        rail if outer[3] else rail / 2,
    )
    return (max(lips[0], 0.0), max(lips[1], 0.0), max(lips[2], 0.0), max(lips[3], 0.0))


def _within(rect: Rect, lips: tuple[float, float, float, float]) -> Rect:
    left, right, low, high = lips
    return Rect(
        x_mm=rect.x_mm + left,
        z_mm=rect.z_mm + low,
        wide_mm=rect.wide_mm - left - right,
        high_mm=rect.high_mm - low - high,
    )


def _walk(
    cell: Cell, path: str, rect: Rect, deep: float, built: Construction, outer: _Edges, before: float | None
) -> Iterator[LaidCell | Short]:
    fill = cell.fill
    if cell.door is not None:
        before = max(before or 0.0, DOOR_MM if cell.door.lies == "inset" else 0.0)
    lips = _lips(built, outer)
    seen = _within(rect, lips)
    laid = LaidCell(
        path=path,
        rect=rect,
        seen=seen,
        deep_mm=deep,
        leaf=not isinstance(fill, Columns | Rows),
        door_takes_mm=before or 0.0,
        fill=str(fill.__struct_config__.tag),
        door=_leaves(cell.door, seen, built, outer) if cell.door is not None else (),
    )
    match fill:
        case Columns(cells=cells) | Rows(cells=cells):
            yield laid
            yield from _parts(cells, path, rect, deep, built, outer, before, upright=isinstance(fill, Rows))
        case Shelved(count=n, thick_mm=thick):
            free = (rect.high_mm - n * thick) / (n + 1)
            yield replace(
                laid,
                shelves_at=tuple(rect.z_mm + free * (k + 1) + thick * k for k in range(n)),
                shelf_mm=(rect.wide_mm, deep - (before or 0.0)),
            )
        case Drawers():
            boxes = tuple(_drawers(fill, seen))
            if before is None:  # behind a door, their own or that of all around them, drawers have no fronts
                boxes = tuple(_fronted(boxes, seen, fill.slides.under_mm, overlays(FRONT, built, outer)))
            yield replace(laid, drawers=boxes, spacers_mm=lips[:2])
        case PullOut(slides=slides, thick_mm=thick):
            box = DrawerBox(
                z_mm=seen.z_mm + slides.under_mm,
                wide_mm=seen.wide_mm - 2 * slides.side_mm,
                high_mm=thick,
                opening_mm=seen.high_mm - slides.under_mm,
            )
            yield replace(laid, drawers=(box,), spacers_mm=lips[:2])
        case _:
            yield laid


def _parts(
    cells: tuple[Cell, ...],
    path: str,
    rect: Rect,
    deep: float,
    built: Construction,
    outer: _Edges,
    before: float | None,
    *,
    upright: bool,
) -> Iterator[LaidCell | Short]:
    """Yield the parts of a split, and where they ask for more than there is."""
    free = rect.high_mm if upright else rect.wide_mm
    sizes, short = shares_of(cells, free, built.board_mm, upright=upright)
    if short is not None:
        yield Short(path=path, free_mm=short[0], asked_mm=short[1])
    at = rect.z_mm if upright else rect.x_mm
    for i, (part, size) in enumerate(zip(cells, sizes, strict=True)):
        first, last = i == 0, i == len(cells) - 1
        if upright:
            own = Rect(x_mm=rect.x_mm, z_mm=at, wide_mm=rect.wide_mm, high_mm=size)
            edges = (outer[0], outer[1], outer[2] and first, outer[3] and last)
        else:
            own = Rect(x_mm=at, z_mm=rect.z_mm, wide_mm=size, high_mm=rect.high_mm)
            edges = (outer[0] and first, outer[1] and last, outer[2], outer[3])
        yield from _walk(part, _down(path, i), own, deep, built, edges, before)
        at += size + built.board_mm


def _down(path: str, i: int) -> str:
    return f"{path}.{i}" if path else str(i)


def shares_of(
    cells: tuple[Cell, ...], free_mm: float, board_mm: float, *, upright: bool
) -> tuple[tuple[float, ...], tuple[float, float] | None]:
    """Return the size of each part of a split, boards between taken off, and (there, asked) where that is too much.

    Parts with a size or with contents to hold come first; the others share what they leave.
    """
    free = free_mm - (len(cells) - 1) * board_mm
    fixed = [_said(cell, upright=upright) for cell in cells]
    asked = sum(size for size in fixed if size is not None)
    rest = free - asked
    weight = sum(cell.share for cell, size in zip(cells, fixed, strict=True) if size is None)
    sizes = tuple(
        size if size is not None else max(rest, 0.0) * cell.share / weight
        for cell, size in zip(cells, fixed, strict=True)
    )
    over = rest < -0.05 or (weight > 0 and rest <= 0.05)
    return sizes, (free, asked) if over else None


def _said(cell: Cell, *, upright: bool) -> float | None:
    if cell.size_mm is not None:
        return cell.size_mm
    if cell.by_contents and cell.holds:
        return max(_needs(thing, upright=upright) for thing in cell.holds)
    return None


def _needs(thing: Content, *, upright: bool) -> float:
    return thing.height_mm * thing.stacked + thing.room_mm if upright else thing.width_mm + thing.room_mm


def _drawers(fill: Drawers, rect: Rect) -> Iterator[DrawerBox]:
    """Yield drawers from the bottom: those of a said height, then the others as high as their equal opening lets."""
    slides = fill.slides
    takes = slides.over_mm + slides.under_mm
    said = fill.heights_mm[: fill.count]
    others = fill.count - len(said)
    rest = rect.high_mm - sum(h + takes for h in said)
    equal = rest / others if others else 0.0
    z = rect.z_mm
    for k in range(fill.count):
        opening = said[k] + takes if k < len(said) else equal
        yield DrawerBox(
            z_mm=z + slides.under_mm,
            wide_mm=rect.wide_mm - 2 * slides.side_mm,
            high_mm=said[k] if k < len(said) else opening - takes,
            opening_mm=opening,
        )
        z += opening


FRONT = Door()
"""How drawer fronts lie: over the boards around them, as doors usually do."""


def _fronted(
    boxes: tuple[DrawerBox, ...], rect: Rect, under_mm: float, over: tuple[float, float, float, float]
) -> Iterator[DrawerBox]:
    """Yield drawers with their fronts: from edge to edge of what they close together, a gap between each two."""
    left, right, low, top = over
    for k, box in enumerate(boxes):
        z = box.z_mm - under_mm
        first, last = k == 0, k == len(boxes) - 1
        bottom = z - low if first else z + FRONT.gap_mm / 2
        end = z + box.opening_mm + top if last else z + box.opening_mm - FRONT.gap_mm / 2
        yield replace(
            box,
            front=Rect(
                x_mm=rect.x_mm - left, z_mm=bottom, wide_mm=rect.wide_mm + left + right, high_mm=max(end - bottom, 0.0)
            ),
        )


def overlays(door: Door, built: Construction, outer: _Edges) -> tuple[float, float, float, float]:
    """Return how far a door lies past its opening: left, right, bottom, top, mm; an inset one stays a gap within it.

    On a board that parts two cells it takes half of the edge at most, less half of the gap between two doors.
    """
    share, t = OVERLAY_SHARE[door.lies], built.board_mm
    if door.lies == "inset":
        return (-door.gap_mm, -door.gap_mm, -door.gap_mm, -door.gap_mm)
    whole, half = share * t - door.gap_mm, min(share, 0.5) * t - door.gap_mm / 2
    a, b, c, d = (whole if edge else half for edge in outer)
    return (a, b, c, d)


def _leaves(door: Door, rect: Rect, built: Construction, outer: _Edges) -> tuple[DoorLeaf, ...]:
    """Return a door's leaves: inset ones a gap smaller than the opening all round, overlay ones over the boards."""
    left, right, low, top = overlays(door, built, outer)
    x, z = rect.x_mm - left, rect.z_mm - low
    wide, high = rect.wide_mm + left + right, rect.high_mm + low + top
    if door.hangs != "pair":
        return (DoorLeaf(at=Rect(x_mm=x, z_mm=z, wide_mm=wide, high_mm=high), hangs=door.hangs),)
    half = (wide - door.gap_mm) / 2
    return (
        DoorLeaf(at=Rect(x_mm=x, z_mm=z, wide_mm=half, high_mm=high), hangs="left"),
        DoorLeaf(at=Rect(x_mm=x + half + door.gap_mm, z_mm=z, wide_mm=half, high_mm=high), hangs="right"),
    )


def front_of(unit: Unit) -> Front:
    """Return what moves at a carcass's front, as its cells say: for what stands beside it and before it.

    Doors count before drawers, as they swing; openings lie side by side as its columns do.
    """
    if unit.insides is None:
        return unit.front
    root = unit.insides.cell
    cells = tuple(_all(root))
    hangs = [c.door.hangs for c in cells if c.door is not None]
    columns = len(root.fill.cells) if isinstance(root.fill, Columns) else 1
    opens: Opens = "nothing"
    if "pair" in hangs or {"left", "right"} <= set(hangs):
        opens = "pair of doors"
    elif "left" in hangs:
        opens = "door hinged left"
    elif "right" in hangs:
        opens = "door hinged right"
    elif any(isinstance(c.fill, Drawers | PullOut) for c in cells):
        opens = "drawers"
    return replace(unit.front, opens=opens, openings=columns)


def cell_at(root: Cell, path: str) -> Cell:
    """Return the cell of a path."""
    for i in (int(k) for k in path.split(".") if k):
        if isinstance(root.fill, Columns | Rows):
            root = root.fill.cells[i]
    return root


def _all(cell: Cell) -> Iterator[Cell]:
    yield cell
    for part in cell.fill.cells if isinstance(cell.fill, Columns | Rows) else ():
        yield from _all(part)
