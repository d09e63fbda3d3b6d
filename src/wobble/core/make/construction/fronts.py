"""What moves at a carcass's front, and the face frame before it: doors, drawer boxes and fronts, stiles and rails.

Drawers run on slides of a length that is sold: the longest that leaves 10 mm behind it.
"""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Columns, Drawers, FramedFront, PullOut
from wobble.core.make.construction.carcass import Carcass
from wobble.core.make.construction.joints import cups
from wobble.core.make.construction.sizes import banded, board_part, box, sized
from wobble.core.part import Drilling, Groove, Part, Wait
from wobble.core.setout.cells import LaidCell, cell_at

BEHIND_SLIDE_MM = 10.0
SLIDE_STEP_MM, SLIDE_LEAST_MM, SLIDE_MOST_MM = 50.0, 250.0, 700.0
BOTTOM_UP_MM = 10.0
"""How far a drawer's bottom lies over the lower edge of its sides: the groove's lower edge."""
BOTTOM_INTO_MM = 6.0
BOTTOM_PLAY_MM = 0.5
ALL_EDGES = ("front edge", "back edge", "lower end", "upper end")


def front_parts(c: Carcass) -> Iterator[Part]:
    """Yield doors, drawers and pull-outs of every cell, and the face frame."""
    if c.built.face_frame is not None:
        yield from _face_frame(c, c.built.face_frame)
    for cell in c.cells:
        yield from _doors(c, cell)
        yield from _drawers(c, cell)


def slide_mm(deep_mm: float) -> float:
    """Return the length of the slides that a depth takes: as sold, in steps of 50 mm."""
    long = (deep_mm - BEHIND_SLIDE_MM) // SLIDE_STEP_MM * SLIDE_STEP_MM
    return min(max(long, SLIDE_LEAST_MM), SLIDE_MOST_MM)


def _key(cell: LaidCell) -> str:
    return cell.path or "main"


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
            (cups(at.high_mm, at.wide_mm, leaf.hangs, c.lengths),) if door.hinge == "cup" else ()
        )
        waits: list[Wait] = []
        if door.hinge == "not chosen":
            waits.append(
                Wait(
                    key=f"hinge-{c.unit.id}-{_key(cell)}",
                    words="the hinge bought: its sheet says how far the door lies over",
                )
            )
        if inset:
            waits.append(
                Wait(
                    key=f"dry-fit-{c.unit.id}-{_key(cell)}",
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
            key=f"{_key(cell)}{which.replace(' ', '-')}",
        )
        yield _front(
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


def _front(c: Carcass, part: Part) -> Part:
    made = replace(part, seen=("front face", "back face"), face_up="back face")
    return banded(made, ALL_EDGES, c.built.band_mm) if c.built.banded else made


def _drawers(c: Carcass, cell: LaidCell) -> Iterator[Part]:
    if c.unit.insides is None:
        return
    fill = cell_at(c.unit.insides.cell, cell.path).fill
    if isinstance(fill, PullOut):
        yield from _pull_out(c, cell)
    if not isinstance(fill, Drawers):
        return
    wait = Wait(
        key=f"slides-{c.unit.id}-{_key(cell)}",
        words="the slides bought: their sheet says what they take at each side",
    )
    long = slide_mm(cell.deep_mm - cell.door_takes_mm)
    for some in _alike([(d.wide_mm, d.high_mm) for d in cell.drawers]):
        yield from (replace(p, waits=(wait,)) for p in _drawer_boxes(c, cell, some, long))
    fronts = [k for k, d in enumerate(cell.drawers) if d.front is not None and d.front.high_mm > 0]
    sizes = [(d.front.wide_mm, d.front.high_mm) if d.front else (0.0, 0.0) for d in cell.drawers]
    for some in _alike(sizes):
        kept = [k for k in some if k in fronts]
        if kept:
            yield _drawer_fronts(c, cell, kept)


def _alike(sizes: list[tuple[float, float]]) -> list[list[int]]:
    """Return which drawers are of one size, by their numbers from the bottom."""
    found: dict[tuple[float, float], list[int]] = {}
    for k, (wide, high) in enumerate(sizes):
        found.setdefault((round(wide, 2), round(high, 2)), []).append(k)
    return list(found.values())


def _numbers(some: list[int]) -> tuple[str, str]:
    """Return drawers in words and as part of a key: those of one size are cut together."""
    if len(some) == 1:
        return f"drawer {some[0] + 1}", str(some[0] + 1)
    return "drawers " + ", ".join(str(k + 1) for k in some), f"{some[0] + 1}"


def _drawer_boxes(c: Carcass, cell: LaidCell, some: list[int], long: float) -> Iterator[Part]:
    d, unit, b = c.built.drawer_mm, c.unit, c.built.drawer_bottom_mm
    name, number = _numbers(some)
    key = f"{_key(cell)}-{number}"
    one = cell.drawers[some[0]]
    x = cell.seen.x_mm + (cell.seen.wide_mm - one.wide_mm) / 2
    y = c.front_mm - cell.door_takes_mm - long
    high, inner, takes = max(one.high_mm, 1.0), one.wide_mm - 2 * d, cell.seen.wide_mm - one.wide_mm
    undersides = [cell.drawers[k].z_mm for k in some]
    height = sized("wide", ("What its opening leaves over and under the box", high))

    def groove(gx: float, gy: float, up: float, wide: float, deep: float) -> Groove:
        return Groove(
            kind="groove",
            wide_mm=b,
            deep_mm=BOTTOM_INTO_MM,
            from_mm=BOTTOM_UP_MM,
            edge="lower edge",
            box=box(gx, gy, up, wide, deep, b),
        )

    sides = board_part(
        "drawer side",
        unit.id,
        unit.name,
        f"sides of {name}",
        tuple(box(at, y, z, d, long, high) for z in undersides for at in (x, x + one.wide_mm - d)),
        sized("long", ("Length of the slides", long)),
        height,
        d,
        c.material,
        key=key,
    )
    yield replace(
        sides,
        grooves=tuple(
            groove(gx, y, z + BOTTOM_UP_MM, BOTTOM_INTO_MM, long)
            for z in undersides
            for gx in (x + d - BOTTOM_INTO_MM, x + one.wide_mm - d)
        ),
        joins="screwed through into front and back, or dovetailed",
    )
    ends = board_part(
        "drawer end",
        unit.id,
        unit.name,
        f"fronts and backs inside {name}" if len(some) > 1 else f"front and back of {name}",
        tuple(box(x + d, at, z, inner, d, high) for z in undersides for at in (y, y + long - d)),
        sized(
            "long",
            ("What is free at the front of its cell", cell.seen.wide_mm),
            ("Slides at both sides", -takes),
            ("Sides of the drawer", -2 * d),
            sd_mm=c.wide_sd_mm,
        ),
        height,
        d,
        c.material,
        key=key,
    )
    yield replace(
        ends,
        grooves=tuple(
            groove(x + d, gy, z + BOTTOM_UP_MM, inner, BOTTOM_INTO_MM)
            for z in undersides
            for gy in (y + d - BOTTOM_INTO_MM, y + long - d)
        ),
    )
    into = BOTTOM_INTO_MM - BOTTOM_PLAY_MM
    yield board_part(
        "drawer bottom",
        unit.id,
        unit.name,
        f"bottoms of {name}" if len(some) > 1 else f"bottom of {name}",
        tuple(
            box(x + d - into, y + d - into, z + BOTTOM_UP_MM, inner + 2 * into, long - 2 * d + 2 * into, b)
            for z in undersides
        ),
        sized(
            "long",
            ("Front and back of the drawer", inner),
            ("Into the grooves of both sides", 2 * BOTTOM_INTO_MM),
            ("Play", -2 * BOTTOM_PLAY_MM),
            sd_mm=c.wide_sd_mm,
        ),
        sized(
            "wide",
            ("Length of the slides", long),
            ("Front and back", -2 * d),
            ("Into their grooves", 2 * BOTTOM_INTO_MM),
            ("Play", -2 * BOTTOM_PLAY_MM),
        ),
        b,
        c.material,
        key=key,
    )


def _drawer_fronts(c: Carcass, cell: LaidCell, some: list[int]) -> Part:
    name, number = _numbers(some)
    drawers = [cell.drawers[k] for k in some]
    fronts = [d.front for d in drawers if d.front is not None]
    at, t = fronts[0], c.built.front_mm
    opening = drawers[0].opening_mm
    part = board_part(
        "drawer front",
        c.unit.id,
        c.unit.name,
        f"fronts of {name}" if len(some) > 1 else f"front of {name}",
        tuple(box(f.x_mm, c.unit.depth_mm, f.z_mm, f.wide_mm, t, f.high_mm) for f in fronts),
        sized(
            "long",
            ("What is free at the front of its cell", cell.seen.wide_mm),
            ("Past the opening at both sides", at.wide_mm - cell.seen.wide_mm),
            sd_mm=c.wide_sd_mm,
        ),
        sized("wide", ("Its share of the opening", opening), ("Overlay and gaps", at.high_mm - opening)),
        t,
        c.material,
        key=f"{_key(cell)}-{number}",
    )
    return _front(c, replace(part, end=f"{c.unit.name}: {name} from the bottom"))


def _pull_out(c: Carcass, cell: LaidCell) -> Iterator[Part]:
    if not cell.drawers:
        return
    one = cell.drawers[0]
    long = slide_mm(cell.deep_mm)
    x = cell.seen.x_mm + (cell.seen.wide_mm - one.wide_mm) / 2
    part = board_part(
        "pull-out board",
        c.unit.id,
        c.unit.name,
        "pull-out board",
        (box(x, c.front_mm - long, one.z_mm, one.wide_mm, long, one.high_mm),),
        sized(
            "long",
            ("What is free at the front of its cell", cell.seen.wide_mm),
            ("Slides at both sides", one.wide_mm - cell.seen.wide_mm),
            sd_mm=c.wide_sd_mm,
        ),
        sized("wide", ("Length of the slides", long)),
        one.high_mm,
        c.material,
        key=_key(cell),
    )
    yield replace(part, waits=(Wait(key=f"slides-{c.unit.id}-{_key(cell)}", words="the slides bought"),))


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
