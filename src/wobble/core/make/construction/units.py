"""Every unit of a place parted into boards, by what it is."""

from __future__ import annotations

from collections.abc import Iterator

from msgspec.structs import replace

from wobble.core.job import Boarding, Framing, HangingWall, Job, Place, TrimSet, Unit
from wobble.core.job.unit import BODIES, FLAT, LAID
from wobble.core.make.construction.angled import cut_back
from wobble.core.make.construction.built import Carcass, Side
from wobble.core.make.construction.carcass import carcass_parts
from wobble.core.make.construction.frames import base_frames, frame_parts, toe_kick
from wobble.core.make.construction.fronts import front_parts
from wobble.core.make.construction.said import as_said
from wobble.core.make.construction.sizes import board_part, box, sized
from wobble.core.make.construction.walls import boarded, cushion_board, hung_on, panel, trimmed
from wobble.core.part import Part
from wobble.core.setout.cells import laid_cells
from wobble.core.setout.framing import boards_laid, frame_laid, hanging_laid
from wobble.core.setout.ways import construction_of

COVERED_MM = 150.0
"""Nearer to a wall than this an end is covered by it, or by a filler."""
TOUCHING_MM = 5.0


def is_box(unit: Unit) -> bool:
    """Whether a unit is a carcass."""
    return unit.kind not in (*FLAT, *LAID, *BODIES, "panel", "face frame")


def seen_ends(place: Place, unit: Unit) -> frozenset[Side]:
    """Return the ends of a unit that neither a wall nor a neighbour of its own height covers."""
    low, top = unit.over_base_mm, unit.over_base_mm + unit.height_mm

    def covers(other: Unit) -> bool:
        return (
            other.id != unit.id
            and is_box(other)
            and other.over_base_mm <= low + 1
            and other.over_base_mm + other.height_mm >= top - 1
            and other.out_mm + other.depth_mm >= unit.out_mm + unit.depth_mm - 1
        )

    left = ("left" in place.surfaces and unit.x_mm < COVERED_MM) or any(
        covers(o) and abs(o.right_mm - unit.x_mm) < TOUCHING_MM for o in place.units
    )
    right = ("right" in place.surfaces and place.width_mm - unit.right_mm < COVERED_MM) or any(
        covers(o) and abs(o.x_mm - unit.right_mm) < TOUCHING_MM for o in place.units
    )
    return frozenset(side for side, hidden in (("left", left), ("right", right)) if not hidden)  # type: ignore[misc]


def material_of(job: Job, unit: Unit) -> str:
    """Return what a unit's boards are of: as its board says, else as its way of building."""
    return unit.board.material if unit.board is not None else construction_of(job, unit).material


def unit_parts(job: Job, place: Place, unit: Unit, wide_sd_mm: float = 0.0) -> tuple[Part, ...]:
    """Return every part of a unit that is made of boards; tops, fillers and what holds it are Fit's and Hold's.

    Args:
        job: Whose ways of building count.
        place: As it is set out.
        unit: One of its units.
        wide_sd_mm: Standard uncertainty of its width.
    """
    return tuple(_parts(job, place, unit, wide_sd_mm))


def _parts(job: Job, place: Place, unit: Unit, wide_sd_mm: float) -> Iterator[Part]:
    body = unit.body
    match body:
        case Framing():
            yield from frame_parts(unit, body, frame_laid(unit, body, place))
        case Boarding():
            yield from boarded(unit, body, boards_laid(unit, body, job.units))
        case TrimSet():
            yield from trimmed(unit, body, boards_laid(unit, body, job.units))
        case HangingWall():
            yield from hung_on(unit, body, hanging_laid(unit, body), job.units)
    if body is not None:
        return
    material = material_of(job, unit)
    if unit.kind == "cushion":
        yield from cushion_board(unit)
    elif unit.kind == "panel":
        yield from panel(unit, material)
    elif unit.kind in FLAT:
        yield from _edging(unit, material)
    elif is_box(unit):
        built = construction_of(job, unit)
        c = Carcass(unit, built, laid_cells(unit, built)[0], material, seen_ends(place, unit), wide_sd_mm, job.units)
        yield from cut_back(unit, carcass_parts(c), job.units)
        yield from front_parts(c)
        yield from toe_kick(unit, built.board_mm, material)


def _edging(unit: Unit, material: str) -> Iterator[Part]:
    """Yield the lipping under or over the front edge of a top or shelf."""
    if unit.board is None or unit.board.edge is None:
        return
    edge = unit.board.edge
    part = board_part(
        "edging",
        unit.id,
        unit.name,
        "front edge",
        (
            box(
                0.0,
                unit.depth_mm - edge.thick_mm,
                unit.height_mm - edge.high_mm,
                unit.width_mm,
                edge.thick_mm,
                edge.high_mm,
            ),
        ),
        sized("long", ("Width of the board", unit.width_mm)),
        sized("wide", ("Height of the edge", edge.high_mm)),
        edge.thick_mm,
        material,
    )
    yield replace(part, seen=("front face",), joins="glued, trimmed to length once the board is cut to the walls")


def place_parts(job: Job, place: Place, wide_sd: dict[str, float]) -> tuple[Part, ...]:
    """Return the boards of every unit that is made, and the bases under whole runs.

    Args:
        job: Whose ways of building count.
        place: As it is set out.
        wide_sd: Standard uncertainty of each unit's width, by its id.
    """
    made = [u for u in place.units if not (u.ready_made and is_box(u) and u.body is None)]
    parts = [
        part
        for unit in made
        for part in as_said(unit, unit_parts(job, place, unit, wide_sd.get(unit.id, 0.0)), job.units)
    ]
    if any(is_box(u) for u in place.units):
        first = next(u for u in place.units if is_box(u))
        parts += base_frames(place, construction_of(job, first).board_mm, "plywood")
    return tuple(parts)
