"""How far each hinged door opens: its face and its handle swept against the wall, deeper neighbours and a run round
the corner.

A door of width w turns about the front corner of its box. Opened past square by φ, what sits a length s along it and
stands h off its face is s·sin φ + h·cos φ beside the box and s·cos φ − h·sin φ in front of it; it stops where that is
as far as the gap there. A corner that stands a beside and y in front of the hinge stops the face at tan φ = a / y.
"""  # noqa: D205 - one sentence

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from wobble.core.figure import chance, mean_and_sd, quantile
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import tiers, upright
from wobble.core.fit.sides.openings import in_front
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.job import Job, Place, Unit, Value

SideName = Literal["left", "right"]
Stops = Literal["hinge", "wall", "neighbour", "run round the corner"]
HANDLE_MARGIN_MM = 5.0
HANDLE_IN_MM = 40.0
"""How far a handle sits in from the edge of its door."""
HINGE_DEG = 110.0
"""How far a usual hinge opens by itself."""
TURNS_DEG = np.arange(-60.0, HINGE_DEG - 90.0 + 0.5, 1.0)
"""Turns that are looked at, past square: who cannot open a door by a third of the way has it in another's place."""
SURE = 0.95


class Swing(Value, frozen=True, kw_only=True):
    """How far one door opens.

    Attributes:
        unit: Which. hinged: At which side. door_mm: How wide it is. opens_deg: How far it likely opens.
        sure_deg: How far it opens with 95 %. square: Chance that it opens square, 0 to 1.
        by: What stops it, in words. by_what: What that is.
    """

    unit: str
    hinged: SideName
    door_mm: float
    opens_deg: float
    sure_deg: float
    square: float
    by: str
    by_what: Stops


@dataclass(frozen=True)
class Beside:
    """What stands beside a door's hinge: how far away, mm, at each place in front of it; draws, shape (n_draws, n)."""

    name: str
    what: Stops
    out: Floats
    gaps: Floats


def doors(unit: Unit) -> Iterator[tuple[SideName, float]]:
    """Yield the side at which each of a unit's doors is hinged, and its width."""
    match unit.front.opens:
        case "door hinged left":
            yield "left", unit.width_mm
        case "door hinged right":
            yield "right", unit.width_mm
        case "pair of doors":
            yield "left", unit.width_mm / 2
            yield "right", unit.width_mm / 2
        case _:
            return


def past_square(door_mm: float, handle_mm: float, beside: Beside) -> Floats:
    """Return draws of how far past square a door opens before it meets what stands beside it, degrees."""
    cap = HINGE_DEG - 90.0
    turned = np.radians(TURNS_DEG)
    limit = np.full(len(beside.gaps), cap)
    along = max(door_mm - HANDLE_IN_MM, door_mm / 2)
    at_out, each, least = np.ascontiguousarray(beside.gaps.T), np.arange(len(beside.gaps)), beside.gaps.min()
    for s, h in ((door_mm, 0.0), (along, handle_mm + HANDLE_MARGIN_MM)):
        side, out = s * np.sin(turned) + h * np.cos(turned), s * np.cos(turned) - h * np.sin(turned)
        # what is nowhere as far to the side as the nearest thing stands meets nothing
        within = np.flatnonzero((out >= beside.out[0]) & (out <= beside.out[-1]) & (side >= least))
        if not len(within):
            continue
        side, out, turns = side[within], out[within], TURNS_DEG[within]
        k = np.clip(np.searchsorted(beside.out, out) - 1, 0, len(beside.out) - 2)
        share = np.clip((out - beside.out[k]) / (beside.out[k + 1] - beside.out[k]), 0.0, 1.0)[:, None]
        gaps = at_out[k] + share * (at_out[k + 1] - at_out[k])
        met = side[:, None] >= gaps
        first = met.argmax(axis=0)
        limit = np.where(met[first, each], np.minimum(limit, turns[first] - 1.0), limit)
    out = np.maximum(beside.out, 1e-6)
    reached = beside.gaps**2 + out**2 <= door_mm**2
    steepest = np.where(reached, beside.gaps / out, np.inf).min(axis=1)
    corner = np.where(np.isfinite(steepest), np.degrees(np.arctan(steepest)), cap)
    return np.asarray(np.minimum(limit, corner))


def wall_beside(wall: Drawn, unit: Unit, stand: Stand, side: SideName, door_mm: float) -> Beside:
    """Return a side wall as it stands beside a door; past what was measured it is taken to go on straight."""
    edge = unit.x_mm if side == "left" else unit.right_mm
    reach = door_mm + unit.front.handle_mm
    out, gaps = in_front(wall, unit, stand, edge, reach, left=side == "left")
    return Beside(f"the {side} wall", "wall", out, gaps)


Door = tuple[str, SideName]
"""A door by its unit and the side at which it is hinged."""


def past_walls(place: Place, walls: Walls, stand: Stand) -> dict[Door, Floats]:
    """Return for each door beside a known wall draws of how far past square it opens, degrees."""
    out: dict[Door, Floats] = {}
    for tier in tiers(place):
        ends: tuple[tuple[SideName, Unit, Drawn | None], ...] = (
            ("left", tier.units[0], walls.left),
            ("right", tier.last, walls.right),
        )
        for side, unit, wall in ends:
            for hinged, wide in doors(unit):
                if wall is not None and hinged == side:
                    beside = wall_beside(wall, unit, stand, side, wide)
                    out[unit.id, side] = past_square(wide, unit.front.handle_mm, beside)
    return out


def swings(job: Job, place: Place, by_walls: dict[Door, Floats], stand: Stand) -> tuple[Swing, ...]:
    """Return how far every hinged door of a place opens, past its walls and all else."""
    out = []
    for unit in place.units:
        for side, wide in doors(unit):
            near: list[tuple[str, Stops, Floats]] = [
                (beside.name, beside.what, past_square(wide, unit.front.handle_mm, beside))
                for beside in _units_beside(job, place, unit, stand, side, wide)
            ]
            if (unit.id, side) in by_walls:
                near.append((f"the {side} wall", "wall", by_walls[unit.id, side]))
            out.append(_swing(unit, side, wide, near))
    return tuple(out)


def _swing(unit: Unit, side: SideName, wide: float, near: list[tuple[str, Stops, Floats]]) -> Swing:
    past, by = np.full(1, HINGE_DEG - 90.0), "its hinge"
    by_what: Stops = "hinge"
    for name, what, found in near:
        if mean_and_sd(found)[0] < mean_and_sd(past)[0]:
            by, by_what = name, what
        past = np.minimum(past, found)
    opens = 90.0 + past
    return Swing(
        unit=unit.id,
        hinged=side,
        door_mm=wide,
        opens_deg=mean_and_sd(opens)[0],
        sure_deg=float(math.floor(quantile(opens, 1 - SURE))),
        square=chance(past >= 0.0),
        by=by,
        by_what=by_what,
    )


def _units_beside(job: Job, place: Place, unit: Unit, stand: Stand, side: SideName, wide: float) -> Iterator[Beside]:
    """Yield what stands further out beside a door: units of the same place, and of a run round the corner."""
    front = stand.back_at(unit) + unit.deep_at(side)
    edge = unit.x_mm if side == "left" else unit.right_mm
    for other in place.units:
        if other.id == unit.id or other.flat or not _same_height(unit, other):
            continue
        gap = edge - other.right_mm if side == "left" else other.x_mm - edge
        deeper = stand.back_at(other) + other.depth_mm - front
        if -1.0 <= gap < wide and deeper > 1.0:
            yield Beside(other.name, "neighbour", np.array([0.0, deeper]), np.full((1, 2), max(gap, 0.0)))
    for other, gap, start in _round_the_corner(job, place, edge, side):
        if gap < wide + unit.front.handle_mm and _same_height(unit, other):
            from_front = max(start - front, 0.0)
            out = np.array([from_front, max(from_front + 1.0, start + other.width_mm - front)])
            yield Beside(f"{other.name}, round the corner", "run round the corner", out, np.full((1, 2), gap))


def _round_the_corner(job: Job, place: Place, edge: float, side: SideName) -> Iterator[tuple[Unit, float, float]]:
    """Yield units of a run that meets this one in a corner: how far beside an edge, and how far out it starts."""
    if side == "right":
        other = next((b for b in job.places if b.id == place.right_is_back_of), None)
        for u in other.units if other is not None else ():
            yield u, place.width_mm - u.depth_mm - u.out_mm - _handle(u) - edge, u.x_mm
    else:
        other = next((b for b in job.places if b.right_is_back_of == place.id), None)
        for u in other.units if other is not None else ():
            yield u, edge - u.depth_mm - u.out_mm - _handle(u), (other.width_mm if other else 0.0) - u.right_mm


def _handle(unit: Unit) -> float:
    return unit.front.handle_mm if unit.front.opens != "nothing" else 0.0


def _same_height(a: Unit, b: Unit) -> bool:
    (low, high), (other_low, other_high) = upright(a, 0.0), upright(b, 0.0)
    return low < other_high and other_low < high
