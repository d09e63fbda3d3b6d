"""Readings as linear sums: every kind becomes `constant + Σ weight · surface value + Σ weight · set-up place + noise`.

One least-squares system can then take them all (design of the adjustment). All lengths mm.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from wobble.core.errors import SurveyError
from wobble.core.job import (
    TOWARDS_INSTALLER,
    Bay,
    Instrument,
    Offset,
    Reading,
    SetUp,
    Slope,
    Span,
    Spot,
    SurfaceName,
    reading_spots,
)


@dataclass(frozen=True, slots=True)
class Observation:
    """One reading as a linear sum.

    Attributes:
        reading_id: Whose reading this is.
        value_mm: What was measured.
        sigma_mm: Its standard uncertainty.
        surface_terms: (surface, spot, weight) of every surface value in the sum.
        set_up_terms: (set-up id, weight) of every set-up place in the sum.
    """

    reading_id: str
    value_mm: float
    sigma_mm: float
    surface_terms: tuple[tuple[SurfaceName, Spot, float], ...]
    set_up_terms: tuple[tuple[str, float], ...] = ()


def observe(reading: Reading, instrument: Instrument) -> Observation:
    """Return a reading as a linear sum of what is unknown.

    An offset is d = s·(place of the plane − surface) with s = +1 where proud is the larger coordinate, so that a floor
    is read *down from* its line and a ceiling *up from* it.
    """
    match reading:
        case Offset():
            sign = float(TOWARDS_INSTALLER[reading.surface])
            terms = ((reading.surface, reading.at, -sign),)
            return Observation(reading.id, reading.value_mm, instrument.sigma_mm, terms, ((reading.set_up, sign),))
        case Slope():
            terms_2 = ((reading.surface, reading.end, 1.0), (reading.surface, reading.start, -1.0))
            return Observation(reading.id, rise_mm(reading), instrument.sigma_mm, terms_2)
        case Span():
            (low, at, *_), (high, *_) = reading_spots(reading)
            return Observation(reading.id, reading.value_mm, instrument.sigma_mm, ((high, at, 1.0), (low, at, -1.0)))


def rise_mm(reading: Slope) -> float:
    """Return a slope reading as the rise over its own base length, mm."""
    base = math.dist(reading.start, reading.end)
    match reading.unit:
        case "mm/m":
            return reading.value * base / 1000.0
        case "deg":
            return math.sin(math.radians(reading.value)) * base
        case _:
            return reading.value


def observations(bay: Bay, readings: tuple[Reading, ...], instruments: Mapping[str, Instrument]) -> list[Observation]:
    """Return readings as linear sums, in their order.

    Raises:
        SurveyError: A reading names an instrument that is not there.
    """
    missing = sorted({r.instrument for r in readings} - set(instruments))
    if missing:
        raise SurveyError(f"Bay {bay.name} has readings of an unknown instrument “{missing[0]}”.", mend="Add it.")
    return [observe(reading, instruments[reading.instrument]) for reading in readings]


def set_up_prior(set_up: SetUp, bay: Bay) -> tuple[float, float]:
    """Return the mean and standard deviation of a set-up's place before the readings, mm."""
    if set_up.at_mm is not None:
        return set_up.at_mm, set_up.sigma_mm
    size = {"x": bay.width_mm, "y": bay.depth_mm, "z": bay.height_mm}[set_up.across]
    return size / 2, UNKNOWN_SET_UP_SD_MM


UNKNOWN_SET_UP_SD_MM = 1500.0
"""A set-up of unknown place may stand anywhere in reach of a person."""
