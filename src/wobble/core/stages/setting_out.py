"""Set out for one place: what its rules and stacks come to beside the walls as they are known."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from msgspec.structs import replace

from wobble.core.fit.surfaces.walls import Drawn, with_obstacles
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import SurveyInput, survey_input
from wobble.core.hold.structure.behind import sure_middles
from wobble.core.job import (
    Construction,
    Job,
    Obstacle,
    OnPieces,
    Place,
    StockItem,
    Unit,
    Value,
    WallStep,
)
from wobble.core.set.stands import as_found, as_set
from wobble.core.setout.laid import LaidOut, SetOut, laid_out, said_of
from wobble.core.setout.long_rod import Walls, wall_name, walls_met
from wobble.core.setout.moves import Move, moved
from wobble.core.setout.sheet import Sheet, sheet
from wobble.core.stages.known import MB, find_place, walls_of
from wobble.core.stages.remember import Remembered

UNMEASURED_SD_MM = 10.0
"""How far a wall that nobody measured is taken to stand from where the place is said to end."""


def is_set_out(place: Place) -> bool:
    """Return whether a place says more than where each unit stands: rules, stacks, insides, pieces on pieces."""
    if place.rules or place.heights:
        return True
    return any(u.insides is not None or isinstance(u.standing, OnPieces) for u in place.units)


def sheet_of(job: Job, place_id: str) -> Sheet:
    """Return a place set out, with its walls as they are known."""
    place = find_place(job, place_id)
    return sheet(job, place, _walls_met(job, place))


def solve_setout(job: Job, place_id: str) -> LaidOut:
    """Return the answer of Set out for a place."""
    return laid_out(sheet_of(job, place_id), sure_middles(find_place(job, place_id)))


class Tried(Value, frozen=True, kw_only=True):
    """What is set out after a move, and what it comes to."""

    said: SetOut
    laid: LaidOut


def try_setout(job: Job, place_id: str, said: SetOut, move: Move | None) -> Tried:
    """Return what is set out after a move on it, and what it comes to; nothing of the job is changed.

    Raises:
        MoveError: The move cannot be made.
    """
    if move is not None:
        said = moved(sheet_of(with_set_out(job, place_id, said), place_id), said, move)
    return Tried(said=said, laid=solve_setout(with_set_out(job, place_id, said), place_id))


def set_out(job: Job) -> Job:
    """Return a job with every unit where and as large as what is set out has it; the same job where nothing follows.

    What was found otherwise is so before, and what was set and is followed takes the place of what was set out.
    """
    job = as_found(job)
    if any(is_set_out(p) for p in job.places):
        job = replace(job, places=tuple(_placed(job, p) if is_set_out(p) else p for p in job.places))
    return as_set(job)


@dataclass(frozen=True)
class SetOutInput:
    """All that where units stand rests on; the survey only where a rule names a wall."""

    said: SetOut
    obstacles: tuple[Obstacle, ...]
    steps: tuple[WallStep, ...]
    width_mm: float
    constructions: tuple[Construction, ...]
    sheets: tuple[StockItem, ...]
    survey: SurveyInput | None


UNIT_BYTES = 4_000
"""What a unit weighs at most, its inside and rules with it."""
_UNITS = Remembered[SetOutInput, tuple[Unit, ...]](lambda units: UNIT_BYTES * (1 + len(units)), 2 * MB)


def _placed(job: Job, place: Place) -> Place:
    """Return a place with its units where they come to, remembered while only other things are decided."""
    given = SetOutInput(
        said_of(place),
        place.obstacles,
        place.steps,
        place.width_mm,
        job.constructions,
        tuple(s for s in job.workshop.stock if s.id in {c.board for c in job.constructions}),
        survey_input(job, place) if walls_met(place) else None,
    )
    return replace(place, units=_UNITS.get(given, lambda: sheet_of(job, place.id).place.units))


KEPT: tuple[Remembered[Any, Any], ...] = (_UNITS,)
"""All that is remembered here."""


def with_set_out(job: Job, place_id: str, said: SetOut) -> Job:
    """Return a job with something else set out in one place: to try it, or to keep it."""
    own = {name: getattr(said, name) for name in SetOut.__struct_fields__}
    return replace(job, places=tuple(replace(p, **own) if p.id == place_id else p for p in job.places))


def _walls_met(job: Job, place: Place) -> Walls:
    """Return the side walls as each unit that follows them meets them: at their proudest over all that it fills."""
    met = walls_met(place)
    if not met:
        return Walls((), np.zeros(0), np.zeros((0, 0)), ())
    known = with_obstacles(place, walls_of(job, place.id))
    by_id = {u.id: u for u in place.units}
    drawn = [known.left if side == "left" else known.right for side, _ in met]
    at = [
        None if wall is None else _proudest(wall, by_id[unit], 1.0 if side == "left" else -1.0)
        for wall, (side, unit) in zip(drawn, met, strict=True)
    ]
    said = [0.0 if side == "left" else place.width_mm for side, _ in met]
    mean = np.array([place if draws is None else draws.mean() for draws, place in zip(at, said, strict=True)])
    n = next((len(draws) for draws in at if draws is not None), 2)
    apart = np.stack([np.zeros(n) if draws is None else draws - draws.mean() for draws in at])
    covariance = apart @ apart.T / max(n - 1, 1)
    for i, (one, draws) in enumerate(zip(met, at, strict=True)):
        for j, other in enumerate(met):
            if draws is None and other[0] == one[0]:  # one wall, which is not measured for any of them
                covariance[i, j] = UNMEASURED_SD_MM**2
    return Walls(tuple(wall_name(*pair) for pair in met), mean, covariance, tuple(d is not None for d in at))


def _proudest(drawn: Drawn, unit: Unit, sign: float) -> Floats:
    beside = drawn.within(unit.over_base_mm, unit.over_base_mm + unit.height_mm)
    rows = drawn.rows(unit.out_mm, unit.out_mm + unit.depth_mm)
    into = sign * beside.sampled[:, rows]
    return np.asarray(sign * into.reshape(len(into), -1).max(axis=1))
