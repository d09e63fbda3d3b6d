"""What things weigh that stand in and lie on units: the same for boards that sag and for screws that hold.

All are planning figures.
"""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job.board import Board
from wobble.core.job.insides import Cell, Columns, Content, Rows
from wobble.core.job.unit import Contents, Unit, UnitKind

GRAVITY = 9.81
CONTENTS_KG_PER_M3: dict[Contents, float] = {
    "not said": 0.0,
    "nothing": 0.0,
    "crockery": 200.0,
    "books": 350.0,
    "files": 350.0,
    "tools": 300.0,
    "bedding": 60.0,
    "clothes": 80.0,
    "tins": 350.0,
}
"""What a full cupboard of each holds, for every cubic metre of it."""
ASSUMED: dict[UnitKind, Contents] = {
    "base": "crockery",
    "drawers": "crockery",
    "tall": "tins",
    "wall": "crockery",
    "bench": "a person sitting",
    "shelves": "books",
    "shelf": "books",
    "top": "nothing",
    "panel": "nothing",
    "face frame": "nothing",
    "base frame": "nothing",
    "rack": "tools",
    "platform": "a person standing",
    "boarding": "nothing",
    "trim": "nothing",
    "moulding": "nothing",
    "batten wall": "nothing",
    "peg wall": "nothing",
    "cushion": "nothing",
    "stored": "nothing",
}
"""What a unit is taken to hold of which nobody said; a top carries what was said of its board."""
PERSON_KG: dict[Contents, float] = {"a person sitting": 120.0, "a person standing": 180.0}
"""A heavy person; who stands up on something lands with half as much again."""
ROW_HIGH_MM = 300.0
"""How high things stand on a shelf."""
POINT_AS_EVEN = 1.6
"""A weight in the middle bends a board as 1.6 times itself spread over it: P l³ / 48 against 5 (w l) l³ / 384."""


def contents_of(unit: Unit) -> Contents:
    """Return what a unit is planned to hold: what was said, or what its kind usually holds, never nothing unsaid."""
    return ASSUMED[unit.kind] if unit.holds == "not said" else unit.holds


def contents_words(unit: Unit) -> str:
    """Return what a unit holds in words, with the word that it is assumed where nobody said."""
    if unit.holds == "not said" and named_kg(unit):
        return "what is named"
    return f"{contents_of(unit)}{', as nobody said' if unit.holds == 'not said' else ''}"


def things_in(unit: Unit) -> tuple[Content, ...]:
    """Return every thing that is said to stand in or on a unit."""
    return (*unit.things, *(_in(unit.insides.cell) if unit.insides is not None else ()))


def _in(cell: Cell) -> tuple[Content, ...]:
    parts = cell.fill.cells if isinstance(cell.fill, Columns | Rows) else ()
    return (*cell.holds, *(thing for part in parts for thing in _in(part)))


def named_kg(unit: Unit) -> float:
    """Return what the things weigh that are said to stand in or on a unit, kg."""
    return sum(thing.weight_kg * thing.count for thing in things_in(unit))


def full_kg(unit: Unit) -> float:
    """Return what a unit holds when full, kg, without a person: things that are named, or what fills it usually.

    Where some things are named, and nobody says what else it holds, there is nothing else in it.
    """
    named = named_kg(unit)
    if named and unit.holds == "not said":
        return named
    return max(named, _usual_kg(unit))


def _usual_kg(unit: Unit) -> float:
    w, d, h = (mm / 1000 for mm in (unit.width_mm, unit.depth_mm, unit.height_mm))
    return CONTENTS_KG_PER_M3.get(contents_of(unit), 0.0) * w * d * h


def row_kg_per_m(unit: Unit) -> float:
    """Return what stands on each metre of a shelf or top: what was said, or a row of what it holds, the heavier."""
    said = unit.board.load_kg_per_m if unit.board is not None else 0.0
    return max(said, CONTENTS_KG_PER_M3.get(contents_of(unit), 0.0) * unit.depth_mm / 1000 * ROW_HIGH_MM / 1000)


def person_kg(unit: Unit) -> float:
    """Return what a person on a unit is planned as."""
    return PERSON_KG.get(contents_of(unit), 0.0)


def burdened(unit: Unit, board: Board, span_mm: float) -> Board:
    """Return a unit's board with all that it carries as one even load, for how it sags over a span."""
    even = row_kg_per_m(unit) + POINT_AS_EVEN * person_kg(unit) / (span_mm / 1000)
    return replace(board, load_kg_per_m=even)
