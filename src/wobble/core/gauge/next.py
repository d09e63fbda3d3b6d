"""The next best reading for the decision at hand: which open station would move what is decided most, and by how much.

What is decided (a shim, a packing) is a weighted sum of surface values, t = W f. One more reading at c with noise s²
takes cov(t, c)² / (var(c) + s²) off the variance of t (rank-one update of the posterior), so that the figure may still
move by 1.96 times the root of that. A second reading is chosen the same way after the first.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.gauge.stations import NextReading, Station
from wobble.core.gauge.survey import TIED_SD_MM, Survey
from wobble.core.job import Instrument, SurfaceName

LIKELY = 1.96
"""Standard deviations that hold 95 %."""


@dataclass(frozen=True)
class Requested:
    """What is decided on one surface: spots, shape (n, 2), and for each figure its weights on them, (n_figures, n)."""

    surface: SurfaceName
    spots: Floats
    weights: Floats


def next_for(
    survey: Survey, round_: Sequence[Station], requested: Sequence[Requested], instrument: Instrument
) -> NextReading | None:
    """Return the open station that tells most about what is asked, or, with the round done, the spot that does.

    None where nothing is requested, or nothing of it is measured yet.
    """
    requested = [a for a in requested if len(a.weights) and survey.measured(a.surface)]
    surfaces = {a.surface for a in requested}
    if not requested:
        return None
    open_stations = [s for s in round_ if s.read_by is None and s.takes == "offset" and s.surface in surfaces]
    if not open_stations:
        own = [(a.surface, (float(u), float(v))) for a in requested for u, v in a.spots]
        open_stations = [Station(id="", surface=surface, at=at) for surface, at in dict.fromkeys(own)]
    figures, places = _joint(survey, requested, open_stations)
    best, then, second = _two(figures, places, instrument.sigma_mm**2)
    now = np.diag(figures.own)
    return NextReading(
        station=open_stations[best].id,
        surface=open_stations[best].surface,
        at=open_stations[best].at,
        worst_sd_now_mm=_sd(now),
        worst_sd_then_mm=_sd(then),
        would_move_mm=LIKELY * float(np.sqrt(np.max(now - then))),
        two_would_move_mm=LIKELY * float(np.sqrt(np.max(now - second))),
        about="shims",
    )


@dataclass(frozen=True)
class _Figures:
    """Covariance of the figures, and between figures and open stations."""

    own: Floats
    cross: Floats


def _sd(variances: Floats) -> float:
    return float(np.sqrt(max(float(variances.max()), 0.0)))


def _joint(survey: Survey, requested: Sequence[Requested], stations: Sequence[Station]) -> tuple[_Figures, Floats]:
    """Return the figures' covariances and that of the open stations' readings."""
    queries = [(a.surface, a.spots) for a in requested]
    queries += [(s.surface, np.asarray([s.at], dtype=float)) for s in stations]
    covariance = survey.adjustment.at(*queries).covariance
    n_spots = sum(len(a.spots) for a in requested)
    rows = [np.zeros((0, len(covariance)))]
    readings = np.zeros((len(stations), len(covariance)))
    readings[:, n_spots:] = np.eye(len(stations))
    start = 0
    for a in requested:
        end = start + len(a.spots)
        block = np.zeros((len(a.weights), len(covariance)))
        block[:, start:end] = a.weights
        rows.append(block)
        # what all spots of a surface share, such as the place of its line, no decision rests on
        if float(np.sqrt(np.diag(covariance)[start:end].min())) > TIED_SD_MM:
            mine = [i for i, s in enumerate(stations) if s.surface == a.surface]
            readings[np.ix_(mine, range(start, end))] -= 1.0 / len(a.spots)
        start = end
    weights = np.vstack(rows)
    return (
        _Figures(weights @ covariance @ weights.T, weights @ covariance @ readings.T),
        np.asarray(readings @ covariance @ readings.T),
    )


def _two(figures: _Figures, places: Floats, noise: float) -> tuple[int, Floats, Floats]:
    """Return the best station, and the figures' variances after it, and after the best second one."""
    now, cross = np.diag(figures.own), figures.cross
    gain = cross**2 / (np.diag(places) + noise)
    best = int(np.argmax(gain.sum(axis=0)))
    then = now - gain[:, best]
    known = np.outer(places[:, best], places[best]) / (places[best, best] + noise)
    left = places - known
    after = cross - np.outer(cross[:, best], places[best]) / (places[best, best] + noise)
    more = after**2 / (np.maximum(np.diag(left), 0.0) + noise)
    second = then - more[:, int(np.argmax(more.sum(axis=0)))]
    return best, np.asarray(then), np.asarray(second)
