"""An alcove of 2000 between side walls of any shape, read exactly, on a level floor."""

from __future__ import annotations

import numpy as np
from msgspec.structs import replace

from tests.catalogue import LINE, PLUMB, floor_at, grid, job_of, offset
from wobble.core.job import Closing, Job, Obstacle, SetUp, SurfaceName, Unit

MIDDLE = SetUp(id="middle", name="Plane up the middle", across="x", at_mm=1000.0)
FLOOR = floor_at(grid(2000, 600, 5, 3), lambda x, y: 0.0)
BACK = [
    replace(offset(f"b{x}{z}", "back", (x, z), 500.0), set_up=PLUMB.id)
    for x in (0.0, 500.0, 1000.0, 1500.0, 2000.0)
    for z in (50.0, 400.0, 750.0)
]


def alcove_job(
    left: object, right: object, *units: Unit, obstacles: tuple[Obstacle, ...] = (), **closing: object
) -> Job:
    """Return a place 2000 wide whose sides stand at x = left(y, z) and right(y, z), read exactly on a close grid."""
    sides = []
    for name, wall, sign in (("left", left, 1.0), ("right", right, -1.0)):
        for y in np.linspace(0, 600, 5):
            for z in np.linspace(0, 800, 5):
                value = sign * (1000.0 - wall(y, z))  # type: ignore[operator]
                surface: SurfaceName = "left" if name == "left" else "right"
                sides.append(
                    replace(offset(f"{name}{y}{z}", surface, (float(y), float(z)), float(value)), set_up=MIDDLE.id)
                )
    return job_of(
        *FLOOR,
        *BACK,
        *sides,
        width=2000.0,
        units=units,
        set_ups=(LINE, PLUMB, MIDDLE),
        surfaces=("floor", "back", "left", "right"),
        obstacles=obstacles,
        closing=Closing(**closing),  # type: ignore[arg-type]
    )


def lean(by: float, wall: float = 0.0) -> object:
    """A wall that comes in by `by` over the 600 from the back to the front."""
    return lambda y, z: wall + by * y / 600.0
