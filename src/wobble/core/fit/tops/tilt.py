"""How a top or a shelf comes down between two walls: level, or with one end up."""

from __future__ import annotations

import math

import numpy as np

from wobble.core.fit.run.stand import Stand
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.job import Unit, Value

TILTS = np.radians(np.linspace(0.0, 85.0, 171))


class Tilt(Value, frozen=True, kw_only=True):
    """How a part that reaches from wall to wall is brought in.

    Attributes:
        straight: Chance that it slides in level, past everything in front.
        tilted: Chance that it goes in with one end up.
        swing_mm: How much longer than level it measures on the way down, at worst: √(l² + t²) − l.
        room_mm: How much higher its raised end stands at that moment than it lies in the end; what must be free above.
    """

    straight: float
    tilted: float
    swing_mm: float
    room_mm: float


def tilt(walls: Walls, unit: Unit, stand: Stand, z: float, long_mm: float) -> Tilt | None:
    """Return how a part of thickness t and length l comes down between two walls.

    Tilted by θ it measures l·cos θ + t·sin θ along the run, at most √(l² + t²) at tan θ = t / l. Straight in, it passes
    every depth in front of its place; tilted, it passes those, but is lowered where it lies.
    """
    left, right = walls.left, walls.right
    if left is None or right is None:
        return None
    thick = unit.height_mm
    back, front = stand.back_at(unit), stand.back_at(unit) + unit.depth_mm
    high = math.hypot(long_mm, thick) - long_mm
    # the part is cut to the walls where it lies, so what counts is how much narrower they are elsewhere
    here = _width_over(left, right, (back, front), (z, z + thick))
    in_front = _width_over(left, right, (front, float(left.first[-1])), (z, z + thick))
    straight = float((in_front >= here.max(axis=1)[:, None]).all(axis=1).mean())
    narrowest = in_front.min(axis=1)
    lengths = here.max(axis=1)
    needs = lengths[:, None] * np.cos(TILTS) + thick * np.sin(TILTS)
    goes = needs <= narrowest[:, None]
    passes = goes.any(axis=1)
    first = np.where(passes, goes.argmax(axis=1), len(TILTS) - 1)
    raised = float(np.median(lengths * np.sin(TILTS[first])))
    return Tilt(straight=straight, tilted=float(passes.mean()), swing_mm=high, room_mm=raised)


def _width_over(left: Drawn, right: Drawn, between: tuple[float, float], heights: tuple[float, float]) -> Floats:
    """Return draws of the least width over some heights, between two depths, shape (n_draws, n_depths)."""
    depths = np.unique(np.concatenate([np.linspace(*between, 9), left.first, right.first]))
    depths = depths[(depths >= min(between)) & (depths <= max(between))]
    proud_left, proud_right = left.proudest(*heights, 1.0), right.proudest(*heights, -1.0)
    return np.asarray(_at(right.first, proud_right, depths) - _at(left.first, proud_left, depths))


def _at(grid: Floats, values: Floats, places: Floats) -> Floats:
    """Return values along a grid at some places, in proportion between its steps, shape (n_draws, n_places)."""
    i = np.clip(np.searchsorted(grid, places) - 1, 0, len(grid) - 2)
    share = np.clip((places - grid[i]) / (grid[i + 1] - grid[i]), 0.0, 1.0)
    return np.asarray((1 - share) * values[:, i] + share * values[:, i + 1])
