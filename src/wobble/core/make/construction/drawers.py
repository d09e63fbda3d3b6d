"""Drawers and pull-outs: boxes on slides of a length that is sold, their bottoms in grooves, fronts before them.

Drawers of one size are cut together. Slides are the longest that leave 10 mm behind them.
"""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Drawers, PullOut
from wobble.core.make.construction.built import Carcass
from wobble.core.make.construction.joints import front_handle
from wobble.core.make.construction.sizes import banded, board_part, box, sized
from wobble.core.part import Groove, Part, Wait
from wobble.core.setout.cells import LaidCell, cell_at

BEHIND_SLIDE_MM = 10.0
SLIDE_STEP_MM, SLIDE_LEAST_MM, SLIDE_MOST_MM = 50.0, 250.0, 700.0
BOTTOM_UP_MM = 10.0
"""How far a drawer's bottom lies over the lower edge of its sides: the groove's lower edge."""
BOTTOM_INTO_MM = 6.0
BOTTOM_PLAY_MM = 0.5
ALL_EDGES = ("front edge", "back edge", "lower end", "upper end")


def slide_mm(deep_mm: float) -> float:
    """Return the length of the slides that a depth takes: as sold, in steps of 50 mm."""
    long = (deep_mm - BEHIND_SLIDE_MM) // SLIDE_STEP_MM * SLIDE_STEP_MM
    return min(max(long, SLIDE_LEAST_MM), SLIDE_MOST_MM)


def key_of(cell: LaidCell) -> str:
    """Return the part of a key that names a cell."""
    return cell.path or "main"


def as_front(c: Carcass, part: Part) -> Part:
    """Return a door or front as it is seen from both sides, banded all round."""
    made = replace(part, seen=("front face", "back face"), face_up="back face")
    return banded(made, ALL_EDGES, c.built.band_mm) if c.built.banded else made


def drawers(c: Carcass, cell: LaidCell) -> Iterator[Part]:
    """Yield the boxes and fronts of a cell's drawers, or its pull-out."""
    if c.unit.insides is None:
        return
    fill = cell_at(c.unit.insides.cell, cell.path).fill
    if isinstance(fill, PullOut):
        yield from _pull_out(c, cell)
    if not isinstance(fill, Drawers):
        return
    wait = Wait(
        key=f"slides-{c.unit.id}-{key_of(cell)}",
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
    key = f"{key_of(cell)}-{number}"
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
        key=f"{key_of(cell)}-{number}",
    )
    handle = tuple(front_handle(c, at.wide_mm, at.high_mm))
    return as_front(c, replace(part, end=f"{c.unit.name}: {name} from the bottom", drillings=handle))


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
        key=key_of(cell),
    )
    yield replace(part, waits=(Wait(key=f"slides-{c.unit.id}-{key_of(cell)}", words="the slides bought"),))
