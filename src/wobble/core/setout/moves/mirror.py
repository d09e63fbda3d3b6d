"""Pieces as seen in a mirror."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import (
    Cell,
    Columns,
    Hole,
    Insides,
    Rows,
    Unit,
)
from wobble.core.job.insides import Door
from wobble.core.job.unit import Angled
from wobble.core.setout.laid import SetOut
from wobble.core.setout.moves.kinds import (
    Mirror,
)
from wobble.core.setout.moves.pieces import beside, renamed
from wobble.core.setout.moves.said import (
    as_it_stands,
    new_unit_id,
    there,
)
from wobble.core.setout.sheet import Sheet


def mirror(sheet: Sheet, said: SetOut, move: Mirror) -> SetOut:
    """Put a piece's mirror image beside it, or turn the piece itself over."""
    said = as_it_stands(sheet, said)
    unit = there(said, move.unit)
    if move.in_place:
        return replace(said, units=tuple(mirrored(u) if u.id == unit.id else u for u in said.units))
    id_ = new_unit_id(said)
    new = replace(
        mirrored(unit), id=id_, name=renamed(unit.name, unit.id, id_), x_mm=unit.right_mm, mirror_of=unit.id
    )  # fmt: skip
    return beside(said, unit, new)


OTHER = {"left": "right", "right": "left"}


def mirrored(unit: Unit) -> Unit:
    """Return a piece as seen in a mirror: cells, hinges, holes, angled ends and what it meets change sides."""
    opens = {"door hinged left": "door hinged right", "door hinged right": "door hinged left"}
    angled = unit.angled
    allowance = unit.scribe_allowance
    return replace(
        unit,
        insides=None if unit.insides is None else Insides(built=unit.insides.built, cell=_mirrored(unit.insides.cell)),
        front=replace(unit.front, opens=opens.get(unit.front.opens, unit.front.opens)),
        holes=tuple(_hole(unit, h) for h in unit.holes),
        meets=tuple(OTHER.get(m, m) for m in unit.meets),
        fastened_to=tuple(OTHER.get(m, m) for m in unit.fastened_to),
        angled=None if angled is None else Angled(
            end="right" if angled.end == "left" else "left", along_mm=angled.along_mm, deep_mm=angled.deep_mm
        ),
        scribe_allowance=replace(allowance, left_mm=allowance.right_mm, right_mm=allowance.left_mm),
    )  # fmt: skip


def _hole(unit: Unit, hole: Hole) -> Hole:
    match hole.inside:
        case "left side":
            return replace(hole, inside="right side")
        case "right side":
            return replace(hole, inside="left side")
        case _:
            return replace(hole, at=(max(unit.width_mm - hole.at[0] - hole.size[0], 0.0), hole.at[1]))


def _mirrored(cell: Cell) -> Cell:
    fill = cell.fill
    if isinstance(fill, Columns):
        fill = Columns(cells=tuple(_mirrored(c) for c in reversed(fill.cells)))
    elif isinstance(fill, Rows):
        fill = Rows(cells=tuple(_mirrored(c) for c in fill.cells))
    return replace(cell, fill=fill, door=None if cell.door is None else _turned(cell.door))


def _turned(door: Door) -> Door:
    match door.hangs:
        case "left":
            return replace(door, hangs="right")
        case "right":
            return replace(door, hangs="left")
        case _:
            return door
