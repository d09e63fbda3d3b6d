"""Where to measure: a proposed round of stations in the order in which a person would walk.

The floor is walked along the back from left to right and along the front from right to left, under the supports of what
will stand there; the back wall column by column, up one and down the next, at foot, fixings and top.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import Bay, Instrument, Offset, Spot, SurfaceName, Value

PITCH_MM = 480.0
"""Furthest apart that two stations of a row stand: under the smooth length scale, so that no bow slips between."""
EDGE_MM = 60.0
SAME_SPOT_MM = 30.0


class Station(Value, frozen=True, kw_only=True):
    """A place to measure, and the standing reading taken there, if any."""

    id: str
    surface: SurfaceName
    at: tuple[float, float]
    read_by: str | None = None


class NextReading(Value, frozen=True, kw_only=True):
    """The station that would tell most, and what it would do to the least known support: mm now and mm then."""

    station: str
    worst_sd_now_mm: float
    worst_sd_then_mm: float


def stations(bay: Bay) -> tuple[Station, ...]:
    """Return the proposed round of a bay, in walking order, with the readings already taken."""
    places: list[tuple[SurfaceName, Spot]] = []
    if "floor" in bay.surfaces:
        back, *middle, front = _floor_rows(bay)
        columns = _columns(bay)
        for i, y in enumerate((back, *middle, front)):
            places += [("floor", (x, y)) for x in (columns if i % 2 == 0 else reversed(columns))]
    if "back" in bay.surfaces:
        heights = _back_heights(bay)
        for i, x in enumerate(_columns(bay)):
            places += [("back", (x, z)) for z in (heights if i % 2 == 0 else reversed(heights))]
    counts: dict[str, int] = {}
    round_: list[Station] = []
    for surface, at in places:
        counts[surface] = counts.get(surface, 0) + 1
        round_.append(Station(id=f"{surface}-{counts[surface]}", surface=surface, at=at))
    return tuple(round_)


def with_readings(round_: Sequence[Station], survey: Survey) -> tuple[Station, ...]:
    """Return the stations with the standing reading nearest to each, within a hand's width of the spot."""
    offsets = [r for r in survey.readings.values() if isinstance(r, Offset)]
    return tuple(Station(id=s.id, surface=s.surface, at=s.at, read_by=_nearest(s, offsets)) for s in round_)


def _nearest(station: Station, offsets: Sequence[Offset]) -> str | None:
    near = [(math.dist(r.at, station.at), r.id) for r in offsets if r.surface == station.surface]
    near = [pair for pair in near if pair[0] <= SAME_SPOT_MM]
    return min(near)[1] if near else None


def _columns(bay: Bay) -> list[float]:
    """Return x of the columns: near both ends of the run and evenly between, no further apart than the pitch."""
    low = min((u.x_mm for u in bay.units), default=0.0) + EDGE_MM
    high = max((u.x_mm + u.width_mm for u in bay.units), default=bay.width_mm) - EDGE_MM
    low, high = max(low, 0.0), min(max(high, low), bay.width_mm)
    return _even(low, high)


def _floor_rows(bay: Bay) -> list[float]:
    depth = max((u.depth_mm - u.toe_recess_mm for u in bay.units), default=bay.depth_mm - EDGE_MM)
    front = min(depth, bay.depth_mm - min(EDGE_MM, bay.depth_mm / 4))
    return _even(min(EDGE_MM, front / 2), front)


def _back_heights(bay: Bay) -> list[float]:
    tops = [u.height_mm for u in bay.units]
    fixings = sorted({h for u in bay.units for h in u.fixing_heights_mm})
    wanted = [100.0, *fixings, max(tops, default=min(bay.height_mm, 900.0)) - EDGE_MM]
    kept: list[float] = []
    for z in sorted(z for z in wanted if 0 <= z <= bay.height_mm):
        if not kept or z - kept[-1] >= 100.0:
            kept.append(z)
    return [z for low, high in pairwise(kept) for z in _even(low, high)[:-1]] + kept[-1:]


def _even(low: float, high: float) -> list[float]:
    n_gaps = max(1, math.ceil((high - low) / PITCH_MM))
    return [round(low + (high - low) * i / n_gaps) * 1.0 for i in range(n_gaps + 1)]


def next_reading(
    survey: Survey, round_: Sequence[Station], surface: SurfaceName, wanted: Floats, instrument: Instrument
) -> NextReading | None:
    """Return the unread station whose reading most reduces the variance at the wanted spots.

    One more reading at c with noise s² takes cov(i, c)² / (var(c) + s²) off the variance at i (the rank-one update of
    the posterior). What all spots share (an unknown height) is taken out first, as no decision rests on it.

    Args:
        survey: The survey so far.
        round_: The stations, with their readings.
        surface: The surface that is asked about.
        wanted: Spots that the decision rests on, shape (n, 2); none gives None.
        instrument: What would be read with.
    """
    open_stations = [s for s in round_ if s.surface == surface and s.read_by is None]
    if not open_stations or len(wanted) == 0 or survey.measured(surface) == 0:
        return None
    spots = np.asarray([s.at for s in open_stations], dtype=float)
    covariance = survey.adjustment.at((surface, np.vstack([wanted, spots]))).covariance
    n = len(wanted)
    shared = np.eye(len(covariance)) - np.pad(np.full((len(covariance), n), 1.0 / n), ((0, 0), (0, len(spots))))
    covariance = shared @ covariance @ shared.T
    gain = covariance[:n, n:] ** 2 / (np.diag(covariance)[n:] + instrument.sigma_mm**2)
    best = int(np.argmax(gain.sum(axis=0)))
    now = np.sqrt(np.maximum(np.diag(covariance)[:n], 0.0))
    then = np.sqrt(np.maximum(now**2 - gain[:, best], 0.0))
    return NextReading(
        station=open_stations[best].id, worst_sd_now_mm=float(now.max()), worst_sd_then_mm=float(then.max())
    )
