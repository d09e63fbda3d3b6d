"""A wall with studs behind it and a unit before it; and the statics of a dowel, by sums and bisection."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from msgspec.structs import replace

from tests.catalogue import PLUMB, Screwed, box, floor_at, grid, job_of, offset, screwed
from wobble.core.facts import Detection
from wobble.core.job import Job, Unit
from wobble.core.practice.instruments import FIRST_READING
from wobble.core.stages import solve_hold


def restraint_of_rigid(load: float, q: float, long: float) -> float:
    """Moment that a member gives a dowel that stays straight in it, by summing slices of its bearing.

    The dowel bears forward over the first x from the face and backward over the rest: q (2x − L) = load.
    """
    x = (load / q + long) / 2
    slices = (np.arange(20_000) + 0.5) * long / 20_000
    force = np.where(slices < x, q, -q) * long / 20_000
    return float(-(force * slices).sum())


def restraint_of_hinge(load: float, q: float, moment: float) -> float:
    """The same where the dowel yields in the member, at load / q behind its face, where no shear is left."""
    a = load / q
    return moment - load * a + q * a * a / 2


def balanced(gap: float, side: Callable[[float], float], main: Callable[[float], float], most: float) -> float:
    """Return the load at which both members' restraints hold the dowel across the gap: side + main = load · gap."""
    low, high = 0.0, most
    for _ in range(60):
        middle = (low + high) / 2
        if side(middle) + main(middle) > middle * gap:
            low = middle
        else:
            high = middle
    return low


def found(x: float, sees: str = "centre", found_by: str = "scanner", n: int = 0) -> Detection:
    return Detection(
        id=f"d{x:.0f}{sees[0]}{n}",
        at=(x, 1000.0),
        found_by=found_by,  # type: ignore[arg-type]
        sees=sees,  # type: ignore[arg-type]
        taken_at=FIRST_READING,
    )


def edges(*middles: float) -> tuple[Detection, ...]:
    """Both edges of studs of 45, as a scanner shows them."""
    return tuple(found(x - 22.5, "left edge") for x in middles) + tuple(found(x + 22.5, "right edge") for x in middles)


def held_of(
    wall: Callable[[float], float],
    unit: Unit | None = None,
    studs: tuple[float, ...] = (400.0, 1000.0, 1600.0),
    more: tuple[Unit, ...] = (),
    **place: Any,
) -> tuple[Screwed, ...]:
    """Return how a unit of 1400 from 300 on is held by studs, before a wall that stands at `wall(x)`."""
    return screwed(solve_hold(job_before(wall, unit, studs, more, **place), "place"))


def job_before(
    wall: Callable[[float], float],
    unit: Unit | None = None,
    studs: tuple[float, ...] = (400.0, 1000.0, 1600.0),
    more: tuple[Unit, ...] = (),
    *,
    rise: float = 0.0,
    hollow: tuple[float, float] = (0.0, 0.0),
    **place: Any,
) -> Job:
    """Return a unit before a wall that stands at `wall(x)`, comes forward by `rise` up, and is hollow above a height.

    `hollow` is by how much, and from which height on.
    """

    def stands(x: float, z: float) -> float:
        return wall(x) + rise * z - (hollow[0] if z >= hollow[1] else 0.0)

    back = [
        replace(offset(f"b{x:.0f}{z:.0f}", "back", (float(x), z), 500.0 - stands(float(x), z)), set_up=PLUMB.id)
        for x in np.linspace(0, 2000, 21)
        for z in (50.0, 400.0, 700.0, 1400.0, 2150.0)
    ]
    unit = unit or box("A", x=300.0, width=1400.0, fixing_heights_mm=(650.0,))
    floor = floor_at(grid(2000, 600, 5, 3), lambda x, y: 0.0)
    both = edges(*studs) + tuple(found(x, "screw", "magnet") for x in studs)
    known: dict[str, Any] = {"detections": both} | place
    return job_of(*floor, *back, width=2000.0, units=(unit, *more), **known)
