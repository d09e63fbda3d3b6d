"""The smallest opening over the volume that a run occupies and passes through, and the chance that it goes in.

A box that goes straight in may be shifted sideways on its way, but never turned. At each distance from its place it
needs its width between the proudest left and the proudest right over the depth that is then between the walls. Of two
units the second goes straight in past its own wall, the first beside it; of three or more both ends are walked sideways
into place, and one between them goes last, so that only where they stand counts.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import numpy as np

from wobble.core.confidence import SURE, as_it_happens
from wobble.core.figure import Figure, Step, chance, mean_and_sd, quantile
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import Tier, upright
from wobble.core.fit.surfaces.walls import Drawn, Walls, interpolated
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Unit, Value

N_STANDS = 9
"""At how many distances from its place a box is looked at on its way in."""


class Opening(Value, frozen=True, kw_only=True):
    """The smallest opening for a tier.

    Attributes:
        least: Smallest opening, expected, with its working.
        wanted_mm: What the run measures. chance: Of the run going in as it is, 0 to 1.
        chance_clear: Of it going in with the clearance asked for.
        sure_mm: A run of this width goes in with 95 %.
        at_left: Where it touches first on the left wall (y, z). at_right: On the right wall.
        inside_mm: The smallest opening where the run stands in the end; more than `least` where the way in is narrower.
        shifted: Whether the way in counts, as one box alone has to pass it.
    """

    least: Figure
    wanted_mm: float
    chance: float
    chance_clear: float
    sure_mm: float
    at_left: tuple[float, float]
    at_right: tuple[float, float]
    inside_mm: float
    shifted: bool


def opening(survey: Survey, walls: Walls, tier: Tier, stand: Stand, clearance_mm: float) -> Opening | None:
    """Return the opening of a tier; None where not both side walls are known."""
    if walls.left is None or walls.right is None:
        return None
    alone = len(tier.units) == 1
    first, last = tier.units[0], tier.last
    left, right = profile(walls.left, first, stand, 1.0), profile(walls.right, last, stand, -1.0)
    ways = list(_ways(left, right, survey.place.depth_mm, len(tier.units)))
    if not ways:  # it stands wholly in front of the walls
        return None
    inside = ways[0][0]
    # one box must pass every stand on its way; of two boxes the better order counts
    if alone:
        free = np.min([w for w, _, _ in ways], axis=0)
        _, where_left, where_right = min(ways, key=lambda way: float(np.add.reduce(way[0])))
    else:
        free, where_left, where_right = max(ways[1:] or ways, key=lambda way: float(np.add.reduce(way[0])))
    at = (where_left, where_right)
    rests_left = shares(survey, "left", np.array([at[0]]))[0]
    rests_right = shares(survey, "right", np.array([at[1]]))[0]
    near = survey.adjustment.at(("left", np.array([at[0]])), ("right", np.array([at[1]])))
    expected, sd = mean_and_sd(free)
    working = (
        Step(
            label="Right wall where it is proudest",
            surface="right",
            at=at[1],
            value_mm=float(near.mean[1]),
            sd_mm=float(near.sd[1]),
            rests_on=rests_right,
        ),
        Step(
            label="Left wall where it is proudest",
            surface="left",
            at=at[0],
            sign=-1,
            value_mm=float(near.mean[0]),
            sd_mm=float(near.sd[0]),
            rests_on=rests_left,
        ),
        Step(
            label="The proudest of likely walls, turns and what stands proud",
            value_mm=expected - float(near.mean[1] - near.mean[0]),
        ),
    )
    return Opening(
        least=Figure(value_mm=expected, sd_mm=sd, working=working),
        wanted_mm=tier.width_mm,
        chance=as_it_happens(chance(free >= tier.width_mm)),
        chance_clear=as_it_happens(chance(free >= tier.width_mm + clearance_mm)),
        sure_mm=quantile(free, 1 - SURE),
        at_left=at[0],
        at_right=at[1],
        inside_mm=mean_and_sd(inside)[0],
        shifted=alone,
    )


_Way = tuple[Floats, tuple[float, float], tuple[float, float]]
"""Draws of the width that is free, and where it is closest on the left and on the right."""


def _ways(left: Profile, right: Profile, depth_mm: float, n_units: int) -> Iterator[_Way]:
    """Yield the width free where the run stands, then what the way in asks for beside."""
    stands = np.linspace(0.0, depth_mm, N_STANDS) if n_units == 1 else np.zeros(1)
    for moved in stands:
        beside_left, beside_right = left.beside(moved), right.beside(moved)
        if beside_left is not None and beside_right is not None:
            (low, where_left), (high, where_right) = beside_left, beside_right
            yield np.asarray(-high - low), where_left, where_right
    if n_units == 2:
        (low, where_left), (high, where_right) = left.between(left.back, depth_mm), right.between(right.back, depth_mm)
        low_here, left_here = left.beside(0.0) or (low, where_left)
        high_here, right_here = right.beside(0.0) or (high, where_right)
        yield np.asarray(-high - low_here), left_here, where_right
        yield np.asarray(-high_here - low), where_left, right_here


class Profile:
    """How far a wall stands into the run at each depth, at its proudest over a unit's height; turned with the run."""

    def __init__(self, wall: Drawn, unit: Unit, stand: Stand, sign: float) -> None:
        low, high = upright(unit, stand.base_mm)
        turned = stand.turn * (wall.first - stand.back_at(unit))
        heights, likely = interpolated(wall.second, sign * wall.mean, low, high)
        self.depths = wall.first
        self.into: Floats = sign * (wall.proudest(low, high, sign) + turned)
        self.heights: Floats = heights[likely.argmax(axis=1)]
        self.back, self.deep = stand.back_at(unit), unit.deep_at("left" if sign > 0 else "right")

    def beside(self, moved: float) -> tuple[Floats, tuple[float, float]] | None:
        """Return draws of the proudest spot beside the unit `moved` out of its place, and where it likely is."""
        low, high = max(self.back + moved, 0.0), min(self.back + moved + self.deep, float(self.depths[-1]))
        return self.between(low, high) if low < self.depths[-1] else None

    def between(self, low: float, high: float) -> tuple[Floats, tuple[float, float]]:
        """Return draws of the proudest spot between two depths, and where it likely is."""
        depths, into = interpolated(self.depths, self.into, low, high)
        i = int(np.add.reduce(into, axis=0).argmax())
        nearest = int(np.abs(self.depths - depths[i]).argmin())
        return np.asarray(into.max(axis=1)), (float(depths[i]), float(self.heights[nearest]))


@lru_cache(maxsize=24)
def profile(wall: Drawn, unit: Unit, stand: Stand, sign: float) -> Profile:
    """Return a wall's profile beside a unit: openings, fillers and doors of one decision look at the same few."""
    return Profile(wall, unit, stand, sign)


def side_gaps(wall: Drawn, unit: Unit, stand: Stand, edge_mm: float, *, left: bool) -> tuple[Floats, Floats]:
    """Return heights, mm, and draws of the gap between a unit's edge and a wall at the unit's front, (n_draws, n)."""
    deep = unit.deep_at("left" if left else "right")
    beside = wall.along_first(stand.back_at(unit) + deep)
    heights, at_front = interpolated(wall.second, beside + stand.turn * deep, *upright(unit, stand.base_mm))
    gap = edge_mm - at_front if left else at_front - edge_mm
    return heights, np.asarray(gap)


def before_front(wall: Drawn, unit: Unit, stand: Stand, edge_mm: float, *, left: bool) -> Floats | None:
    """Return draws of the least gap beside a unit in front of it, where drawers pass; None where the wall ends."""
    front = stand.back_at(unit) + unit.deep_at("left" if left else "right")
    if front >= wall.first[-1]:
        return None
    proudest = profile(wall, unit, stand, 1.0 if left else -1.0).between(front, float(wall.first[-1]))[0]
    return np.asarray((edge_mm if left else -edge_mm) - proudest)


def in_front(
    wall: Drawn, unit: Unit, stand: Stand, edge_mm: float, reach_mm: float, *, left: bool
) -> tuple[Floats, Floats]:
    """Return places in front of a unit up to a reach, mm, and draws of the gap beside it there, (n_draws, n).

    Past what was measured the wall goes on straight, as it stands at the place's front.
    """
    beside = profile(wall, unit, stand, 1.0 if left else -1.0)
    front = beside.back + beside.deep
    low = min(front, float(beside.depths[-1]))
    depths, into = interpolated(beside.depths, beside.into, low, float(beside.depths[-1]))
    out = np.concatenate([depths - front, [max(reach_mm, float(depths[-1]) - front + 1.0)]])
    gaps = (edge_mm if left else -edge_mm) - np.concatenate([into, into[:, -1:]], axis=1)
    kept = np.concatenate([np.diff(out) > 1e-6, [True]])
    return np.maximum.accumulate(out[kept]), np.asarray(gaps[:, kept])
