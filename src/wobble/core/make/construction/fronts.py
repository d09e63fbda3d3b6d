"""What is at a carcass's front: doors, what `drawers` has, and the face frame with its stiles, rails and mullions."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Columns, FramedFront
from wobble.core.make.construction.built import Carcass
from wobble.core.make.construction.drawers import as_front, drawers, key_of
from wobble.core.make.construction.joints import cups, door_handle
from wobble.core.make.construction.sizes import board_part, box, sized
from wobble.core.part import Drilling, Part, Wait
from wobble.core.setout.cells import LaidCell, cell_at


def front_parts(c: Carcass) -> Iterator[Part]:
    """Yield doors, drawers and pull-outs of every cell, and the face frame."""
    if c.built.face_frame is not None:
        yield from _face_frame(c, c.built.face_frame)
    for cell in c.cells:
        yield from _doors(c, cell)
        yield from drawers(c, cell)


def _doors(c: Carcass, cell: LaidCell) -> Iterator[Part]:
    if c.unit.insides is None or not cell.door:
        return
    door = cell_at(c.unit.insides.cell, cell.path).door
    if door is None:
        return
    inset, t = door.lies == "inset", c.built.front_mm
    y = c.unit.depth_mm - t if inset else c.unit.depth_mm
    for leaf in cell.door:
        at = leaf.at
        drillings: tuple[Drilling, ...] = (
            *((cups(at.high_mm, at.wide_mm, leaf.hangs, c.lengths),) if door.hinge == "cup" else ()),
            *door_handle(c, at, leaf.hangs),
        )
        waits: list[Wait] = []
        if door.hinge == "not chosen":
            waits.append(
                Wait(
                    key=f"hinge-{c.unit.id}-{key_of(cell)}",
                    words="the hinge bought: its sheet says how far the door lies over",
                )
            )
        if inset:
            waits.append(
                Wait(
                    key=f"dry-fit-{c.unit.id}-{key_of(cell)}",
                    words="the opening measured as it stands: an inset door shows every half millimetre",
                )
            )
        over = at.wide_mm - cell.seen.wide_mm
        leaves = len(cell.door)
        wide = sized(
            "wide",
            ("What is free at the front of its cell", cell.seen.wide_mm),
            ("Past the opening at both sides" if over > 0 else "Gaps at both sides", _over(cell)),
            ("Halved, with the gap between both leaves", at.wide_mm - cell.seen.wide_mm - _over(cell))
            if leaves == 2
            else ("", 0.0),
            sd_mm=c.wide_sd_mm,
        )
        high = sized(
            "long",
            ("What is free at the front of its cell", cell.seen.high_mm),
            (
                "Past the opening above and below" if not inset else "Gaps above and below",
                at.high_mm - cell.seen.high_mm,
            ),
        )
        which = f" {leaf.hangs}" if leaves == 2 else ""
        part = board_part(
            "door",
            c.unit.id,
            c.unit.name,
            f"door{which}",
            (box(at.x_mm, y, at.z_mm, at.wide_mm, t, at.high_mm),),
            high,
            wide,
            t,
            c.material,
            key=f"{key_of(cell)}{which.replace(' ', '-')}",
        )
        yield as_front(
            c,
            replace(
                part,
                hand=leaf.hangs if leaf.hangs in ("left", "right") else "",
                drillings=drillings,
                waits=tuple(waits),
                end=f"{c.unit.name}: lower end, hinges {leaf.hangs}",
            ),
        )


def _over(cell: LaidCell) -> float:
    """Return how much wider all leaves of a door are together, gap and all, than the opening."""
    first, last = cell.door[0].at, cell.door[-1].at
    return last.x_mm + last.wide_mm - first.x_mm - cell.seen.wide_mm


def _face_frame(c: Carcass, frame: FramedFront) -> Iterator[Part]:
    """Yield stiles over the whole height, rails between them, mullions between the rails."""
    unit, low, f = c.unit, c.low_mm, frame.thick_mm
    y, high = unit.depth_mm - f, unit.height_mm - low
    ends: list[tuple[str, float]] = [
        (end, 0.0 if end == "left" else unit.width_mm - frame.stile_mm)
        for end in ("left", "right")
        if frame.open_end != end
    ]
    for end, x in ends:
        allowance = unit.scribe_allowance.left_mm if end == "left" else unit.scribe_allowance.right_mm
        stile = board_part(
            "stile",
            unit.id,
            unit.name,
            f"{end} stile",
            (box(x, y, low, frame.stile_mm, f, high),),
            sized("long", ("Height of the unit", unit.height_mm), ("Base under its box", -low)),
            sized("wide", ("As the way of building says", frame.stile_mm)),
            f,
            c.material,
            key=end,
        )
        yield replace(
            stile,
            hand="left" if end == "left" else "right",
            blank_mm=(high, frame.stile_mm + allowance),
            seen=("front face",),
            joins="pocket screws from behind, or dowels",
        )
    start = frame.stile_mm if frame.open_end != "left" else 0.0
    stop = unit.width_mm - (frame.stile_mm if frame.open_end != "right" else 0.0)
    rails = (
        box(start, y, low, stop - start, f, frame.rail_mm),
        box(start, y, unit.height_mm - frame.rail_mm, stop - start, f, frame.rail_mm),
    )
    yield replace(
        board_part(
            "rail",
            unit.id,
            unit.name,
            "rails",
            rails,
            sized(
                "long",
                ("Width of the unit", unit.width_mm),
                ("Stiles", stop - start - unit.width_mm),
                sd_mm=c.wide_sd_mm,
            ),
            sized("wide", ("As the way of building says", frame.rail_mm)),
            f,
            c.material,
        ),
        seen=("front face",),
    )
    yield from _mullions(c, frame, y)


def _mullions(c: Carcass, frame: FramedFront, y: float) -> Iterator[Part]:
    unit = c.unit
    if unit.insides is None or not isinstance(unit.insides.cell.fill, Columns):
        return
    t, m = c.built.board_mm, frame.mullion_mm
    columns = [cell for cell in c.cells if cell.path.isdigit()]
    high = unit.height_mm - c.low_mm - 2 * frame.rail_mm
    boxes = tuple(
        box(
            cell.rect.x_mm + cell.rect.wide_mm + t / 2 - m / 2,
            y,
            c.low_mm + frame.rail_mm,
            m,
            frame.thick_mm,
            high,
        )
        for cell in columns[:-1]
    )
    yield replace(
        board_part(
            "mullion",
            unit.id,
            unit.name,
            "mullions" if len(boxes) > 1 else "mullion",
            boxes,
            sized(
                "long",
                ("Height of the unit", unit.height_mm),
                ("Base under its box", -c.low_mm),
                ("Rails", -2 * frame.rail_mm),
            ),
            sized("wide", ("As the way of building says", m)),
            frame.thick_mm,
            c.material,
        ),
        seen=("front face",),
    )
