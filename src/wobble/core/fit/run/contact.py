"""The surfaces under and behind a run, solved once: every turned decision is then read off from here.

High spots are maxima, so they are taken on joint posterior draws and not on the mean surface.
Where no set-up ties a surface to the datum mark, heights are counted from its high spot itself.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wobble.core.budget import spend
from wobble.core.fit.run.supports import Fixing, Support, back_area, fixings, footprint, run_supports
from wobble.core.gauge.adjust import Estimate, Line, draws
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share, shares
from wobble.core.gauge.survey import TIED_SD_MM, Survey, SurveyInput
from wobble.core.job import LAID, ON_WALLS, BackLine, SurfaceName, Unit

N_DRAWS = 400
SEED = 20_260
"""One seed for all jobs: the same draws under every decision, so that figures move only with what was turned."""
LEAST_CHANCE_Z = 3.5
"""A spot this many standard deviations under the likeliest high spot is left out of the draws: 1 chance in 300."""

MOST_SPOTS = 4000
MOST_DRAWN = 800
"""Of what is larger than any room every so many spots are looked at, and of these the likeliest drawn jointly: a
neighbour 75 mm aside says nearly the same, while time and memory grow with the square of their number."""


@dataclass(frozen=True)
class HighPoint:
    """The proudest spot of an area: expected value and standard deviation, mm, likely place, and its draws."""

    value_mm: float
    sd_mm: float
    at: tuple[float, float]
    tied: bool
    draws_mm: Floats
    rests_on: tuple[Share, ...]


@dataclass(frozen=True)
class FloorContact:
    """What a run stands on and against.

    `floor_at_supports` counts heights as `high_spot` does: from the datum mark if tied, else from the high spot.
    `turn` is the back line's in mm per mm; `back_line_mm` where it starts at x = 0. `back_area` are the spots of the
    back behind the run, `back_mean` the wall there. What hangs has a line of its own, as it is fixed by itself.
    Without a floor (`on_floor`) there are no supports, and the high spot is the datum mark.
    """

    survey: Survey
    units: tuple[Unit, ...]
    back_line: BackLine
    supports: tuple[Support, ...]
    fixings: tuple[Fixing, ...]
    high_spot: HighPoint
    floor_at_supports: Estimate
    floor_rests_on: tuple[tuple[Share, ...], ...]
    back_high: HighPoint | None
    back_area: Floats | None
    back_mean: Floats
    turn: float
    back_line_mm: float
    hung_high: HighPoint | None = None
    hung_line_mm: float = 0.0
    on_floor: bool = True


@dataclass(frozen=True)
class BehindInput:
    """All that the wall behind a run rests on: what was measured, the units, and the turn of their backs, mm per m."""

    survey: SurveyInput
    units: tuple[Unit, ...]
    turn_mm_per_m: float


@dataclass(frozen=True)
class Behind:
    """The back behind a run, wherever its line stands: spots, the wall there, and the proudest for each tier."""

    high: HighPoint
    area: Floats
    mean: Floats
    hung: HighPoint | None


@dataclass(frozen=True)
class FloorContactInput:
    """All that a contact rests on: what was measured, the units, and the line of their backs."""

    survey: SurveyInput
    units: tuple[Unit, ...]
    back_line: BackLine

    @property
    def behind(self) -> BehindInput:
        """What of it the wall behind rests on."""
        return BehindInput(self.survey, self.units, self.back_line.turn_mm_per_m)


def behind(survey: Survey, units: tuple[Unit, ...], turn_mm_per_m: float) -> Behind | None:
    """Solve the back behind the units, of which there must be some; None where it was not read."""
    if "back" not in survey.place.surfaces or not survey.measured("back"):
        return None
    low = _mean_floor(survey, units) if survey.measured("floor") else 0.0
    turn = turn_mm_per_m / 1000.0
    area = _walled(survey, carried(units), low)
    if area is None:
        return None
    high = high_point(survey, "back", area, turn)[0]
    return Behind(high, area, survey.adjustment.mean(("back", area)), _hung(survey, units, low, turn))


def contact(survey: Survey, units: tuple[Unit, ...], back_line: BackLine, wall: Behind | None) -> FloorContact:
    """Solve the floor under the units, which stand before the wall behind them. There must be units.

    Where no floor was read nothing may stand on it: heights then count from the datum mark.
    """
    on_floor = bool(survey.measured("floor"))
    turn = back_line.turn_mm_per_m / 1000.0
    line = 0.0 if wall is None else wall.high.value_mm + back_line.off_mm
    hung = None if wall is None else wall.hung
    start = line if wall is None or wall.high.tied else 0.0

    def back_at(unit: Unit) -> float:
        return start + turn * unit.x_mm + unit.out_mm

    standing = run_supports(units, back_at)
    at = np.asarray([s.at for s in standing]).reshape(-1, 2)
    under = np.vstack([footprint(unit, back_at(unit)) for unit in carried(units)])
    if on_floor:
        high, there = high_point(survey, "floor", under, 0.0, at)
    else:
        high, there, standing, at = _from_mark(under), Estimate(np.zeros(0), np.zeros((0, 0))), (), at[:0]
    return FloorContact(
        survey,
        units,
        back_line,
        standing,
        tuple(f for unit in units if not unit.flat and unit.kind not in LAID for f in fixings(unit)),
        high,
        there,
        shares(survey, "floor", at) if len(at) else (),
        None if wall is None else wall.high,
        None if wall is None else wall.area,
        np.zeros(0) if wall is None else wall.mean,
        turn,
        line,
        hung,
        0.0 if hung is None else hung.value_mm + back_line.off_mm,
        on_floor,
    )


def _from_mark(under: Floats) -> HighPoint:
    """Return the datum mark in place of a high spot: its height is what all count from."""
    at = under.mean(axis=0) if len(under) else np.zeros(2)
    return HighPoint(0.0, 0.0, (float(at[0]), float(at[1])), True, np.zeros(N_DRAWS), ())


def _hung(survey: Survey, run: tuple[Unit, ...], base_mm: float, turn: float) -> HighPoint | None:
    """Return the proudest wall behind what hangs over a run that stands; None where nothing does."""
    units = [u for u in run if not u.stands and not u.flat and u.kind not in (*ON_WALLS, *LAID)]
    if not units or len(carried(run)) == len(run):
        return None
    area = _walled(survey, tuple(units), base_mm)
    return None if area is None else high_point(survey, "back", area, turn)[0]


def _walled(survey: Survey, units: tuple[Unit, ...], base_mm: float) -> Floats | None:
    """Return spots of the back behind units where it is a wall; None where it is none behind any of them."""
    area = np.vstack([back_area(unit, base_mm) for unit in units])
    if survey.place.openings:
        area = area[[survey.place.walled(x, z) for x, z in area]]
    return area if len(area) else None


def carried(units: tuple[Unit, ...]) -> tuple[Unit, ...]:
    """Return the units whose footprint is looked at for the high spot: those that stand, or all where none does."""
    return tuple(u for u in units if u.stands) or units


def _mean_floor(survey: Survey, units: tuple[Unit, ...]) -> float:
    spots = np.vstack([footprint(unit, 0.0) for unit in carried(units)])
    return float(survey.adjustment.mean(("floor", spots)).max())


def high_point(
    survey: Survey, surface: SurfaceName, area: Floats, turn: float, also: Floats | None = None
) -> tuple[HighPoint, Estimate]:
    """Return the proudest spot of an area, and the joint estimate at the other spots asked for.

    `turn` tilts the count along the first axis, mm per mm: what stands proud is then measured from the turned line.
    """
    spend()
    area = area[:: -(-len(area) // MOST_SPOTS)]
    known = survey.adjustment.line(surface, area if also is None else np.vstack([area, also]))
    kept, likely = _could_be_highest(known, len(area), turn)
    others = np.arange(len(area), len(known.spots))
    area = area[kept]
    joint = known.joint(np.concatenate([kept, others]))
    mean = joint.mean - turn * known.spots[np.concatenate([kept, others]), 0]
    tied = bool(joint.sd[likely] < TIED_SD_MM)
    counted = Estimate(mean, joint.covariance) if tied else _from_spot(mean, joint.covariance, likely)
    n = len(area)
    highest = draws(Estimate(counted.mean[:n], counted.covariance[:n, :n]), N_DRAWS, SEED).max(axis=1)
    point = HighPoint(
        float(highest.mean()),
        float(highest.std(ddof=1)),
        (float(area[likely, 0]), float(area[likely, 1])),
        tied,
        highest,
        shares(survey, surface, area[likely : likely + 1])[0],
    )
    return point, Estimate(counted.mean[n:], counted.covariance[n:, n:])


def _could_be_highest(known: Line, n_area: int, turn: float) -> tuple[NDArray[np.intp], int]:
    """Return which of the first spots of a line may be its highest, and the likeliest one's place among them.

    What decides is how well a spot is known against the likeliest one, not how well its height is known.
    """
    mean = (known.mean - turn * known.spots[:, 0])[:n_area]
    likely = int(np.argmax(mean))
    reach = (mean - mean[likely]) + LEAST_CHANCE_Z * known.all_apart(likely)[:n_area]
    reach[likely] = np.inf
    kept = reach >= 0.0
    if kept.sum() > MOST_DRAWN:
        kept = reach >= np.partition(reach, -MOST_DRAWN)[-MOST_DRAWN]
    return np.flatnonzero(kept), int(kept[:likely].sum())


def _from_spot(mean: Floats, covariance: Floats, index: int) -> Estimate:
    """Return the same estimate counted from one of its own spots: what all share drops out exactly."""
    column = covariance[:, [index]]
    centred = covariance - column - column.T + covariance[index, index]
    return Estimate(mean - mean[index], np.asarray(centred))
