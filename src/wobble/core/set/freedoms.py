"""A unit that stands, as a stiff body with small freedoms, found from what was read on it.

Along (dx), up (dz), and its rise along (ry) and outwards (rx), mm per mm: each reading is linear in them, as each
reading of Gauge is in its surfaces, and all are adjusted at once with what a careful installer misses by as their prior
(Rasmussen & Williams 2006, section 2.1). Depth and turn in plan are held by the back.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from wobble.core.facts import AsSet, Stands
from wobble.core.gauge.prior import Floats

PRIOR = np.diag([3.0**2, 3.0**2, 0.003**2, 0.003**2])
"""Placed to a line within some three millimetres, and level within three millimetres a metre, before it is checked."""
READ_SD_MM, WALL_SD_MM, STEP_SD_MM = 0.4, 1.0, 0.2
"""What a tape or a level with a feeler reads to; how well a wall is known that a gap is read to; a
straightedge over a step: what is set to its neighbour is set to that first of all."""


@dataclass(frozen=True)
class Freedoms:
    """How a unit stands against where it was to stand: dx and dz, mm, ry and rx, mm per mm, with their covariance."""

    mean: Floats
    cov: Floats
    stands: Stands
    read: int

    @property
    def dx(self) -> float:
        """How far it stands to the right, mm."""
        return float(self.mean[0])

    def up_at(self, x: float, y: float) -> tuple[float, float]:
        """Return how far its underside stands over its plan at a spot of the floor, mm, and its uncertainty."""
        row = np.array([0.0, 1.0, x - self.stands.x_mm - self.stands.wide_mm / 2, y - self._middle_out])
        return float(row @ self.mean), float(np.sqrt(row @ self.cov @ row))

    @property
    def _middle_out(self) -> float:
        return self.stands.out_mm + self.stands.deep_mm / 2

    @property
    def dz(self) -> float:
        """How far its middle stands higher, mm."""
        return float(self.mean[1])

    @property
    def dz_sd(self) -> float:
        """The uncertainty of that, mm."""
        return float(np.sqrt(self.cov[1, 1]))


def row_of(check: str, stands: Stands) -> tuple[Floats, float] | None:
    """Return how a check's deviation follows from the freedoms, and what it is read to, mm; None where it does not.

    Args:
        check: Its key, which begins with its kind.
        stands: Where the unit was to stand.
    """
    wide, deep, high = stands.wide_mm, stands.deep_mm, stands.high_mm
    match check.split("/")[0]:
        case "level-along":
            return np.array([0.0, 0.0, wide, 0.0]), READ_SD_MM
        case "level-out":
            return np.array([0.0, 0.0, 0.0, deep]), READ_SD_MM
        case "height":  # at the middle of the front
            return np.array([0.0, 1.0, 0.0, deep / 2]), READ_SD_MM
        case "beside-left-foot":
            return np.array([1.0, 0.0, 0.0, 0.0]), float(np.hypot(READ_SD_MM, WALL_SD_MM))
        case "beside-right-foot":
            return np.array([-1.0, 0.0, 0.0, 0.0]), float(np.hypot(READ_SD_MM, WALL_SD_MM))
        case "step-left":  # what is set already stands at its left, and is what it is set to
            return np.array([0.0, 1.0, -wide / 2, deep / 2]), STEP_SD_MM
        case "step-right":
            return np.array([0.0, -1.0, -wide / 2, -deep / 2]), STEP_SD_MM
        case "plumb-side":  # its head to the right of its foot: the right end is lower then
            return np.array([0.0, 0.0, -high, 0.0]), 1.0
        case "plumb-front":  # its head out of its foot: the front is lower then
            return np.array([0.0, 0.0, 0.0, -high]), 1.0
    return None


def by_unit(readings: Iterable[AsSet]) -> dict[str, list[AsSet]]:
    """Return readings by the unit that they were taken of."""
    found: dict[str, list[AsSet]] = {}
    for f in readings:
        if f.of:
            found.setdefault(f.of, []).append(f)
    return found


def freedoms(readings: Iterable[AsSet]) -> Freedoms | None:
    """Return how a unit stands from what was read on it; None where nothing says so.

    Of one check the newest reading counts, and of all of them where the unit was to stand when it was read last.
    """
    newest: dict[str, AsSet] = {}
    for fact in sorted(readings, key=lambda f: f.taken_at):
        newest[fact.check] = fact
    told = [
        (f, r)
        for f in newest.values()
        if f.value_mm is not None and f.expected_mm is not None and f.stands is not None
        for r in (row_of(f.check, f.stands),)
        if r is not None
    ]
    if not told:
        return None
    weight, against = np.linalg.inv(PRIOR), np.zeros(4)
    last = max(told, key=lambda t: t[0].taken_at)[0].stands
    assert last is not None  # noqa: S101 - looked at above
    for fact, (row, sd) in told:
        # what was planned may have followed since: all count from where the unit was to stand last
        then = fact.stands or last
        moved = np.array([then.x_mm - last.x_mm, then.under_mm - last.under_mm, 0.0, 0.0])
        off = (fact.value_mm or 0.0) - (fact.expected_mm or 0.0) + float(row @ moved)
        weight = weight + np.outer(row, row) / sd**2
        against = against + row * off / sd**2
    cov = np.asarray(np.linalg.inv(weight), dtype=np.float64)
    return Freedoms(np.asarray(cov @ against, dtype=np.float64), cov, last, len(told))
