"""Figures: a value with its uncertainty and the working that leads back to the readings."""

from __future__ import annotations

from typing import Literal

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import SurfaceName, Value

MOST_READINGS_NAMED = 4


class Share(Value, frozen=True, kw_only=True):
    """How much a figure moves with one reading, mm per mm."""

    reading: str
    weight: float


class Step(Value, frozen=True, kw_only=True):
    """One line of a working: what is added (or taken away), mm, where it is, and the readings that it rests on."""

    label: str
    surface: SurfaceName | None = None
    at: tuple[float, float] | None = None
    sign: Literal[1, -1] = 1
    value_mm: float
    sd_mm: float = 0.0
    rests_on: tuple[Share, ...] = ()


class Figure(Value, frozen=True, kw_only=True):
    """A length to act on: value and standard uncertainty, mm, and its working."""

    value_mm: float
    sd_mm: float
    working: tuple[Step, ...] = ()


def shares(survey: Survey, surface: SurfaceName, spots: Floats) -> tuple[tuple[Share, ...], ...]:
    """Return for each spot of shape (n, 2) the readings that its surface value rests on most."""
    if not len(spots):
        return ()
    weights = survey.adjustment.weights((surface, spots))
    ids = [o.reading_id for o in survey.adjustment.observations]
    out = []
    for row in weights:
        heaviest = np.argsort(-np.abs(row), kind="stable")[:MOST_READINGS_NAMED]
        out.append(tuple(Share(reading=ids[i], weight=float(row[i])) for i in heaviest if abs(row[i]) > 0.02))
    return tuple(out)
