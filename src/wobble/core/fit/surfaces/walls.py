"""The side walls and the ceiling as joint draws on grids, solved once: openings are maxima, and are read off them.

What stands proud of a wall and is not taken away counts as wall.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from wobble.core.fit.run.contact import N_DRAWS, SEED
from wobble.core.gauge.adjust import draws
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import Measured, Obstacle, Place, SurfaceName, Treatment, surface_extent

STEP_MM = 100.0
"""Step of the grids, two thirds of the length over which a wall ripples: midway it is still known to 0.15 mm."""
MOST_STEPS = 40
EDGE_MM = 0.01
"""How far outside an obstacle's edge the surface is bare again."""
MOST_EXACT = 12
"""So many obstacles of one surface keep their true size; each makes the draws larger by some steps."""
TAKEN_AWAY: tuple[Treatment, ...] = ("remove", "notch", "move by a licensed trade")
KNOWN_SD_MM = 25.0
"""A wall that is known worse than this at its middle closes nothing."""


@dataclass(frozen=True, eq=False)
class Drawn:
    """One surface as draws on a grid.

    Attributes:
        first: The grid along the surface's first axis, mm, shape (n,). second: Along its second, shape (m,).
        sampled: Draws of the surface coordinate, mm, shape (n_draws, n, m).
        mean: Its expected value, mm, shape (n, m).
    """

    first: Floats
    second: Floats
    sampled: Floats
    mean: Floats

    def rows(self, low: float, high: float) -> slice:
        """Return the grid along the first axis from the step at or before `low` to the one at or after `high`."""
        return _range(self.first, low, high)

    def columns(self, low: float, high: float) -> slice:
        """Return the grid along the second axis from the step at or before `low` to the one at or after `high`."""
        return _range(self.second, low, high)

    def within(self, low: float, high: float) -> Drawn:
        """Return only what lies between two places of the second axis, both of them on the grid."""
        places, sampled = interpolated(self.second, self.sampled, low, high)
        return Drawn(self.first, places, sampled, interpolated(self.second, self.mean[None], low, high)[1][0])

    def proudest(self, low: float, high: float, sign: float) -> Floats:
        """Return draws of the surface where it is proudest between two places of the second axis, (n_draws, n).

        `sign` is +1 where a larger coordinate stands further in, −1 where a smaller one does.
        """
        # over the grid as it lies, then its two ends: copying all draws first takes most of the time
        pick = np.maximum if sign > 0 else np.minimum
        (start, end), (first, last) = _ends(self.second, low, high)
        out = pick(_between(self.second, self.sampled, first), _between(self.second, self.sampled, last))
        if end > start:
            out = pick(out, pick.reduce(self.sampled[:, :, start:end], axis=2))
        return np.asarray(out)

    def along_first(self, at: float) -> Floats:
        """Return the draws at one place of the first axis, between steps in proportion, shape (n_draws, m)."""
        low = int(np.clip(np.searchsorted(self.first, at) - 1, 0, len(self.first) - 2))
        share = float(np.clip((at - self.first[low]) / (self.first[low + 1] - self.first[low]), 0.0, 1.0))
        return np.asarray((1 - share) * self.sampled[:, low] + share * self.sampled[:, low + 1])


def interpolated(grid: Floats, values: Floats, low: float, high: float) -> tuple[Floats, Floats]:
    """Return a grid between two places with both on it, and the values there, in proportion between steps.

    The grid is the values' last axis; places outside it are brought to its ends.
    """
    (start, end), (first, last) = _ends(grid, low, high)
    edges = [_between(grid, values, place)[..., None] for place in (first, last)]
    places = np.concatenate([[first], grid[start:end], [last]])
    return places, np.concatenate([edges[0], values[..., start:end], edges[1]], axis=-1)


def _ends(grid: Floats, low: float, high: float) -> tuple[tuple[int, int], tuple[float, float]]:
    """Return which steps of a grid lie between two places, and the places, brought to its ends."""
    first, last = (min(max(x, float(grid[0])), float(grid[-1])) for x in (low, high))
    return (int(grid.searchsorted(first, "right")), int(grid.searchsorted(last, "left"))), (first, last)


def _between(grid: Floats, values: Floats, place: float) -> Floats:
    """Return the values at a place of a grid, which is their last axis, in proportion between two steps."""
    k = min(max(int(grid.searchsorted(place)) - 1, 0), len(grid) - 2)
    share = float((place - grid[k]) / (grid[k + 1] - grid[k]))
    return np.asarray((1 - share) * values[..., k] + share * values[..., k + 1])


def _range(grid: Floats, low: float, high: float) -> slice:
    start = max(int(np.searchsorted(grid, low + 1e-6, side="right")) - 1, 0)
    end = min(int(np.searchsorted(grid, high - 1e-6, side="left")) + 1, len(grid))
    return slice(min(start, len(grid) - 1), max(end, start + 1))


@dataclass(frozen=True)
class Walls:
    """What closes a place beside and over the run; None where a surface is not there or not known."""

    left: Drawn | None
    right: Drawn | None
    ceiling: Drawn | None


def walls(survey: Survey) -> Walls:
    """Draw both side walls jointly, as they were mostly read from one plane or as spans, and the ceiling."""
    sides: list[SurfaceName] = [s for s in ("left", "right") if _known(survey, s)]
    left_right = dict(zip(sides, _draw(survey, sides), strict=True))
    over = _draw(survey, ["ceiling"])[0] if _known(survey, "ceiling") else None
    return Walls(left_right.get("left"), left_right.get("right"), over)


def _known(survey: Survey, surface: SurfaceName) -> bool:
    if surface not in survey.place.surfaces or not survey.measured(surface):
        return False
    (low_u, high_u), (low_v, high_v) = surface_extent(survey.place, surface)
    middle = np.array([[(low_u + high_u) / 2, (low_v + high_v) / 2]])
    return bool(survey.adjustment.mean_and_sd((surface, middle))[1][0] < KNOWN_SD_MM)


def _draw(survey: Survey, surfaces: list[SurfaceName]) -> list[Drawn]:
    if not surfaces:
        return []
    axes = [_axes(survey.place, s) for s in surfaces]
    queries = [
        (surface, np.stack(np.meshgrid(u, v, indexing="ij"), axis=-1).reshape(-1, 2))
        for surface, (u, v) in zip(surfaces, axes, strict=True)
    ]
    joint = survey.adjustment.at(*queries)
    sampled = draws(joint, N_DRAWS, SEED)
    out, start = [], 0
    for u, v in axes:
        end = start + len(u) * len(v)
        shape = (len(u), len(v))
        out.append(Drawn(u, v, sampled[:, start:end].reshape(-1, *shape), joint.mean[start:end].reshape(shape)))
        start = end
    return out


def _axes(place: Measured, surface: SurfaceName) -> tuple[Floats, Floats]:
    grids = []
    for low, high in surface_extent(place, surface):
        grids.append(np.linspace(low, high, int(np.clip(np.ceil((high - low) / STEP_MM) + 1, 3, MOST_STEPS))))
    return grids[0], grids[1]


def proud_of(place: Place, surface: SurfaceName) -> tuple[Obstacle, ...]:
    """Return the obstacles on a surface that stand proud of it and stay."""
    return tuple(
        m for m in place.obstacles if m.surface == surface and m.proud_mm > 0 and m.treatment not in TAKEN_AWAY
    )


def with_obstacles(place: Place, walls: Walls) -> Walls:
    """Return the surfaces with what stands proud of them and stays."""
    return Walls(
        _proud(walls.left, proud_of(place, "left"), 1.0),
        _proud(walls.right, proud_of(place, "right"), -1.0),
        _proud(walls.ceiling, proud_of(place, "ceiling"), -1.0),
    )


def _proud(drawn: Drawn | None, obstacles: tuple[Obstacle, ...], sign: float) -> Drawn | None:
    """Return a surface with obstacles on it at their true size: their edges become places of its grids."""
    if drawn is None or not obstacles:
        return drawn
    exact = sorted(obstacles, key=lambda o: -o.proud_mm)[:MOST_EXACT]
    fine = drawn
    for axis in (0, 1):
        edges = [(o.at[axis], o.at[axis] + o.size[axis]) for o in exact]
        fine = _with_edges(fine, axis, [x for low, high in edges for x in (low - EDGE_MM, low, high, high + EDGE_MM)])
    step = np.zeros(fine.mean.shape)
    for obstacle in obstacles:
        spans = [(at, at + size) for at, size in zip(obstacle.at, obstacle.size, strict=True)]
        if obstacle in exact:
            rows, columns = (
                (grid >= low - EDGE_MM / 2) & (grid <= high + EDGE_MM / 2)
                for grid, (low, high) in zip((fine.first, fine.second), spans, strict=True)
            )
        else:  # past what is kept exactly it is taken to reach to the next step: too large, never too small
            rows, columns = np.zeros(len(fine.first), dtype=bool), np.zeros(len(fine.second), dtype=bool)
            rows[fine.rows(*spans[0])], columns[fine.columns(*spans[1])] = True, True
        there = np.ix_(rows, columns)
        step[there] = np.maximum(step[there], obstacle.proud_mm)
    return Drawn(fine.first, fine.second, fine.sampled + sign * step, fine.mean + sign * step)


def _with_edges(drawn: Drawn, axis: int, places: list[float]) -> Drawn:
    """Return a surface with more places on one of its grids, its values there in proportion between steps."""
    grid = drawn.first if axis == 0 else drawn.second
    inside = [x for x in places if grid[0] < x < grid[-1]]
    wanted = np.unique(np.concatenate([grid, inside]))
    low = np.clip(np.searchsorted(grid, wanted, side="right") - 1, 0, len(grid) - 2)
    share = (wanted - grid[low]) / (grid[low + 1] - grid[low])

    def between(values: Floats, at: int) -> Floats:
        shape = [1] * values.ndim
        shape[at] = len(wanted)
        weight = share.reshape(shape)
        return np.asarray((1 - weight) * np.take(values, low, axis=at) + weight * np.take(values, low + 1, axis=at))

    first, second = (wanted, drawn.second) if axis == 0 else (drawn.first, wanted)
    return Drawn(first, second, between(drawn.sampled, axis + 1), between(drawn.mean, axis))
