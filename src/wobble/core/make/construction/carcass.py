"""A carcass as boards in planes: sides, bottom, top or stretchers, back, dividers, shelves, by the way it is built."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from msgspec.structs import replace

from wobble.core.job import Cell, Columns, Rows, Shelved
from wobble.core.length import spoken
from wobble.core.make.construction.angled import upright
from wobble.core.make.construction.built import Carcass, Side
from wobble.core.make.construction.joints import ends_joined, pin_holes, screwed_from_outside
from wobble.core.make.construction.sizes import banded, board_part, box, sized
from wobble.core.part import Groove, Part
from wobble.core.setout.cells import LaidCell, back_takes_mm, cell_at

BACK_PLAY_MM = 0.5
"""What a back is smaller than its grooves at each edge, so that it goes in without being driven."""
SHELF_PLAY_MM = 1.0
"""What a loose shelf is shorter at each end."""


def carcass_parts(c: Carcass) -> Iterator[Part]:
    """Yield every board of a carcass."""
    for part in (*_sides(c), *_levels(c), *_back(c), *_partings(c), *_shelves(c)):
        yield _edged(c, part)


def _sides(c: Carcass) -> Iterator[Part]:
    t, low, unit = c.built.board_mm, c.low_mm, c.unit
    z, top = (low, unit.height_mm) if c.through else (low + t, unit.height_mm - t)
    for hand in ("left", "right"):
        deep = c.front_mm - (unit.depth_mm - unit.deep_at(hand))
        x = 0.0 if hand == "left" else unit.width_mm - t
        long = sized(
            "long",
            ("Height of the unit", unit.height_mm),
            ("Base under its box", -low),
            ("Top and bottom, which run through", 0.0 if c.through else -2 * t),
        )
        wide = sized(
            "wide",
            ("Depth of the unit at this end", unit.deep_at(hand)),
            ("Face frame before it", -(unit.depth_mm - c.front_mm)),
        )
        part = board_part(
            "side",
            unit.id,
            unit.name,
            f"{hand} side",
            (box(x, 0.0, z, t, deep, top - z),),
            long,
            wide,
            t,
            c.material,
            key=hand,
        )
        inner = x + t if hand == "left" else x
        yield replace(
            part,
            hand=hand,
            face_up="inner face",
            end=f"{unit.name}: {hand}, lower end, front edge ↑",
            seen=("outer face",) if hand in c.seen else (),
            grooves=tuple(_groove(c, x=_into(inner, hand, c.groove_mm), z=z, high=top - z)),
            drillings=(
                *(pin_holes(c, hand) if c.cells else ()),
                *(screwed_from_outside(c, hand) if hand not in c.seen and c.through else ()),
            ),
            joins=ends_joined(c, hand),
        )


def _into(inner: float, hand: Side, deep: float) -> tuple[float, float]:
    return (inner - deep, deep) if hand == "left" else (inner, deep)


def _groove(c: Carcass, *, x: tuple[float, float], z: float, high: float) -> Iterator[Groove]:
    """Yield what a back is let into an upright board by."""
    if c.groove_mm:
        yield Groove(
            kind="groove" if c.built.back == "grooved" else "rebate",
            wide_mm=c.built.back_mm,
            deep_mm=c.groove_mm,
            from_mm=_back_at(c),
            edge="back edge",
            box=box(x[0], _back_at(c), z, x[1], c.built.back_mm, high),
        )


def _back_at(c: Carcass) -> float:
    """Return where the rear face of the back is, out from the unit's back."""
    match c.built.back:
        case "applied":
            return -c.built.back_mm
        case "grooved":
            return c.built.groove_in_mm
        case _:
            return 0.0


def _levels(c: Carcass) -> Iterator[Part]:
    """Yield the bottom, and the top or the stretchers in its place."""
    t, unit = c.built.board_mm, c.unit
    x, wide = (t, unit.width_mm - 2 * t) if c.through else (0.0, unit.width_mm)
    long = sized(
        "long",
        ("Width of the unit", unit.width_mm),
        ("Sides, which run through", -2 * t if c.through else 0.0),
        sd_mm=c.wide_sd_mm,
    )
    deep = sized("wide", ("Depth of the unit", unit.depth_mm), ("Face frame before it", c.front_mm - unit.depth_mm))
    joins = ends_joined(c, None)

    def level(z: float, role: Literal["bottom", "carcass top"], groove_z: float) -> Part:
        made = board_part(
            role,
            unit.id,
            unit.name,
            "bottom" if role == "bottom" else "top",
            (box(x, 0.0, z, wide, c.front_mm, t),),
            long,
            deep,
            t,
            c.material,
        )
        return replace(
            made, joins=joins, end=f"{unit.name}: left end, front edge ↑", grooves=tuple(_lying(c, x, wide, groove_z))
        )

    yield level(c.low_mm, "bottom", c.low_mm + t - c.groove_mm)
    high = unit.height_mm - t
    if c.built.top == "whole":
        yield level(high, "carcass top", high)
        return
    s = min(c.built.stretcher_mm, c.front_mm / 2)
    for place, y in (("front", c.front_mm - s), ("back", 0.0)):
        part = board_part(
            "stretcher",
            unit.id,
            unit.name,
            f"{place} stretcher",
            (box(x, y, high, wide, s, t),),
            long,
            sized("wide", ("As the way of building says", s)),
            t,
            c.material,
            key=place,
        )
        yield replace(part, joins=joins, grooves=tuple(_lying(c, x, wide, high)) if place == "back" else ())


def _lying(c: Carcass, x: float, wide: float, z: float) -> Iterator[Groove]:
    if c.groove_mm:
        yield Groove(
            kind="groove" if c.built.back == "grooved" else "rebate",
            wide_mm=c.built.back_mm,
            deep_mm=c.groove_mm,
            from_mm=_back_at(c),
            edge="back edge",
            box=box(x, _back_at(c), z, wide, c.built.back_mm, c.groove_mm),
        )


def _back(c: Carcass) -> Iterator[Part]:
    b, t, unit = c.built, c.built.board_mm, c.unit
    if b.back == "none" or b.back_mm <= 0:
        return
    free_w, free_h = unit.width_mm - 2 * t, unit.height_mm - c.low_mm - 2 * t
    if b.back == "applied":
        at = box(0.0, -b.back_mm, c.low_mm, unit.width_mm, b.back_mm, unit.height_mm - c.low_mm)
        wide = sized("wide", ("Width of the unit", unit.width_mm), sd_mm=c.wide_sd_mm)
        long = sized("long", ("Height of the unit", unit.height_mm), ("Base under its box", -c.low_mm))
        how = f"screwed on from behind every {spoken(150.0, c.lengths)}; it squares the box"
    else:
        play = BACK_PLAY_MM if b.back == "grooved" else 0.0
        into = c.groove_mm - play
        at = box(t - into, _back_at(c), c.low_mm + t - into, free_w + 2 * into, b.back_mm, free_h + 2 * into)
        wide = sized(
            "wide",
            ("Width of the unit", unit.width_mm),
            ("Sides", -2 * t),
            (f"Into a {'groove' if b.back == 'grooved' else 'rebate'} at both sides", 2 * c.groove_mm),
            ("Play", -2 * play),
            sd_mm=c.wide_sd_mm,
        )
        long = sized(
            "long",
            ("Height of the unit", unit.height_mm),
            ("Base under its box", -c.low_mm),
            ("Top and bottom", -2 * t),
            ("Let in above and below", 2 * c.groove_mm),
            ("Play", -2 * play),
        )
        how = "slid in before the last side is closed" if b.back == "grooved" else "pinned into its rebate"
    part = board_part("back", unit.id, unit.name, "back", (at,), long, wide, b.back_mm, c.material)
    yield replace(part, joins=how, face_up="face that looks into the unit")


def _partings(c: Carcass) -> Iterator[Part]:
    """Yield the boards between cells: dividers between columns, fixed shelves between rows."""
    if c.unit.insides is None:
        return
    laid = {cell.path: cell for cell in c.cells}
    y = back_takes_mm(c.built)
    yield from _between(c, c.unit.insides.cell, "", laid, y)


def _between(c: Carcass, cell: Cell, path: str, laid: dict[str, LaidCell], y: float) -> Iterator[Part]:
    fill, t, unit = cell.fill, c.built.board_mm, c.unit
    if not isinstance(fill, Columns | Rows):
        return
    own = laid[path]
    depth = (
        ("Depth of the unit", unit.depth_mm),
        ("Face frame before it", c.front_mm - unit.depth_mm),
        ("Back, and what is behind it", -y),
    )
    for i in range(len(fill.cells) - 1):
        here = laid[f"{path}.{i}" if path else str(i)].rect
        name = f"{path or 'main'}.{i}".replace("main.", "")
        if isinstance(fill, Columns):
            x = here.x_mm + here.wide_mm
            cut = upright(unit, x, t, c.front_mm)
            at = box(x, y, own.rect.z_mm, t, c.front_mm - y - cut.toward_mm, own.rect.high_mm)
            long = sized("long", ("What is free in the cell that it parts", own.rect.high_mm))
            deep = sized("wide", *depth, ("Cut back with the end, at its face towards it", -cut.toward_mm))
            part = board_part(
                "divider", unit.id, unit.name, f"divider {name}", (at,), long, deep, t, c.material, key=name
            )
            joins = "screwed through bottom and top; set by a spacer cut to the cell's width"
            yield replace(
                part,
                # as deep as its longer face, and its front edge bevelled down to the other
                blank_mm=(part.blank_mm[0], part.blank_mm[1] + cut.toward_mm - cut.away_mm),
                bevel_deg=cut.angle_deg,
                end=f"{unit.name}: lower end, front edge ↑",
                joins=f"{joins}; {cut.words}" if cut.words else joins,
                drillings=tuple(pin_holes(c, "divider", at)),
            )
        else:
            at = box(own.rect.x_mm, y, here.z_mm + here.high_mm, own.rect.wide_mm, c.front_mm - y, t)
            long = sized("long", ("What is free in the cell that it parts", own.rect.wide_mm), sd_mm=c.wide_sd_mm)
            deep = sized("wide", *depth)
            part = board_part(
                "fixed shelf", unit.id, unit.name, f"fixed shelf {name}", (at,), long, deep, t, c.material, key=name
            )
            yield replace(part, joins=ends_joined(c, None))
    for i, part_cell in enumerate(fill.cells):
        yield from _between(c, part_cell, f"{path}.{i}" if path else str(i), laid, y)


def _shelves(c: Carcass) -> Iterator[Part]:
    if c.unit.insides is None:
        return
    y = back_takes_mm(c.built)
    for cell in c.cells:
        if cell.shelf_mm is None:
            continue
        said = cell_at(c.unit.insides.cell, cell.path)
        if not isinstance(said.fill, Shelved):
            continue
        fixed, thick = said.fill.held == "fixed", said.fill.thick_mm
        play = 0.0 if fixed else SHELF_PLAY_MM
        wide, deep = cell.shelf_mm
        boxes = tuple(box(cell.rect.x_mm + play, y, z, wide - 2 * play, deep, thick) for z in cell.shelves_at)
        part = board_part(
            "fixed shelf" if fixed else "loose shelf",
            c.unit.id,
            c.unit.name,
            "fixed shelf" if fixed else "loose shelf",
            boxes,
            sized("long", ("What is free in its cell", wide), ("Play", -2 * play), sd_mm=c.wide_sd_mm),
            sized(
                "wide",
                ("Depth of the unit", c.unit.depth_mm),
                ("Face frame before it", c.front_mm - c.unit.depth_mm),
                ("Back, and what is behind it", -y),
                ("Inset door before it", -cell.door_takes_mm),
            ),
            thick,
            c.material,
            key=f"in-{cell.path or 'main'}",
        )
        yield replace(part, joins=ends_joined(c, None) if fixed else "lies on four pins")


def _edged(c: Carcass, part: Part) -> Part:
    """Return a board with its front edge banded where it is seen; behind a face frame it is not."""
    if not c.built.banded or c.built.face_frame is not None or part.role == "back":
        return part
    if part.role == "stretcher" and part.id.endswith("back"):
        return part
    return banded(part, ("front edge",), c.built.band_mm)
