"""Which readings a figure rests on: the posterior mean is linear in the readings, so each has a weight in it."""

from __future__ import annotations

import numpy as np

from wobble.core.gauge.adjust import Query
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import SurfaceName, Value

MOST_READINGS_NAMED = 4
LEAST_WEIGHT = 0.02


class Share(Value, frozen=True, kw_only=True):
    """How much a figure moves with one reading, in the figure's unit for each millimetre."""

    reading: str
    weight: float


def shares(survey: Survey, surface: SurfaceName, spots: Floats) -> tuple[tuple[Share, ...], ...]:
    """Return for each spot of shape (n, 2) the readings that its surface value rests on most."""
    if not len(spots):
        return ()
    return _heaviest(survey, survey.adjustment.weights((surface, spots)))


def shares_of_sum(survey: Survey, weights: Floats, *queries: Query) -> tuple[Share, ...]:
    """Return the readings that a weighted sum of the queried surface values rests on most."""
    return heaviest(survey, weights @ survey.adjustment.weights(*queries))


def heaviest(survey: Survey, row: Floats) -> tuple[Share, ...]:
    """Return the heaviest of the readings' weights, each with its reading; readings of many numbers count once."""
    return _heaviest(survey, row[None, :])[0]


def _heaviest(survey: Survey, rows: Floats) -> tuple[tuple[Share, ...], ...]:
    ids, index = survey.adjustment.reading_index
    sums = rows  # where each reading is one number, and they stand in order
    if len(ids) < len(index):
        sums = np.stack([np.bincount(index, weights=row, minlength=len(ids)).astype(float) for row in rows])
    largest = np.argsort(-np.abs(sums), axis=1, kind="stable")[:, :MOST_READINGS_NAMED]
    weights = np.take_along_axis(sums, largest, axis=1).tolist()
    out = []
    for which, of in zip(largest.tolist(), weights, strict=True):
        least = min(LEAST_WEIGHT, abs(of[0]) / 5) if of else 0.0
        out.append(tuple(Share(reading=ids[i], weight=w) for i, w in zip(which, of, strict=True) if abs(w) > least))
    return tuple(out)
