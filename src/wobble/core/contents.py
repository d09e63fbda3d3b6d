"""What things weigh that stand in and lie on units: the same for boards that sag and for screws that hold.

All are planning figures.
"""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job.unit import Board, Contents, Unit

GRAVITY = 9.81
CONTENTS_KG_PER_M3: dict[Contents, float] = {
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
PERSON_KG: dict[Contents, float] = {"a person sitting": 120.0, "a person standing": 180.0}
"""A heavy person; who stands up on something lands with half as much again."""
ROW_HIGH_MM = 300.0
"""How high things stand on a shelf."""
POINT_AS_EVEN = 1.6
"""A weight in the middle bends a board as 1.6 times itself spread over it: P l³ / 48 against 5 (w l) l³ / 384."""


def row_kg_per_m(unit: Unit) -> float:
    """Return what stands on each metre of a shelf or top: what was said, or a row of what it holds, the heavier."""
    said = unit.board.load_kg_per_m if unit.board is not None else 0.0
    return max(said, CONTENTS_KG_PER_M3.get(unit.holds, 0.0) * unit.depth_mm / 1000 * ROW_HIGH_MM / 1000)


def person_kg(unit: Unit) -> float:
    """Return what a person on a unit is planned as."""
    return PERSON_KG.get(unit.holds, 0.0)


def burdened(unit: Unit, board: Board, span_mm: float) -> Board:
    """Return a unit's board with all that it carries as one even load, for how it sags over a span."""
    even = row_kg_per_m(unit) + POINT_AS_EVEN * person_kg(unit) / (span_mm / 1000)
    return replace(board, load_kg_per_m=even)
