"""Ways of building: how a unit is built, of which sheet, and as thick as that sheet measures."""

from __future__ import annotations

from msgspec.structs import replace

from wobble.core.job import Cell, Columns, Construction, Job, PullOut, Rows, SheetStock, Shelved, Unit

PLAIN = Construction(id="plain", name="Sides through, back in a groove")
"""How a carcass is taken to be built of which nobody said."""


def construction_of(job: Job, unit: Unit) -> Construction:
    """Return how a unit is built: as it says, else as the job's first way, else plainly; boards as measured."""
    named = {c.id: c for c in job.constructions}
    built = job.constructions[0] if job.constructions else PLAIN
    if unit.insides is not None and unit.insides.built in named:
        built = named[unit.insides.built]
    if built.board is None:
        return built
    board = board_of(job, built)
    if board is None:
        return built
    same = abs(built.front_mm - board.thick_mm) < SAME_MM
    return replace(built, board_mm=board.true_mm, front_mm=board.true_mm if same else built.front_mm)


SAME_MM = 0.05
"""Thicknesses nearer than this are one."""


def board_of(job: Job, built: Construction) -> SheetStock | None:
    """Return the sheet that a way of building is cut from, where it names one."""
    return next((s for s in job.workshop.stock if isinstance(s, SheetStock) and s.id == built.board), None)


def as_measured(job: Job, unit: Unit) -> Unit:
    """Return a unit with the shelves of its inside as thick as their sheet measures, where they are of the same."""
    board = board_of(job, construction_of(job, unit))
    if board is None or board.measured_mm is None or unit.insides is None:
        return unit
    return replace(unit, insides=replace(unit.insides, cell=_thinned(unit.insides.cell, board)))


def _thinned(cell: Cell, board: SheetStock) -> Cell:
    match cell.fill:
        case Columns(cells=cells):
            return replace(cell, fill=Columns(cells=tuple(_thinned(c, board) for c in cells)))
        case Rows(cells=cells):
            return replace(cell, fill=Rows(cells=tuple(_thinned(c, board) for c in cells)))
        case Shelved(thick_mm=thick) | PullOut(thick_mm=thick) if abs(thick - board.thick_mm) < SAME_MM:
            return replace(cell, fill=replace(cell.fill, thick_mm=board.true_mm))
        case _:
            return cell
