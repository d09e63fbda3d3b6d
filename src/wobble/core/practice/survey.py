"""A whole round read with simulated instruments: what the demo jobs are measured with."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta

import numpy as np
from msgspec.structs import replace

from wobble.core.gauge.stations import Station, stations
from wobble.core.job import Instrument, Place, Reading, SetUp, SurfaceName
from wobble.core.practice.instruments import read_offsets, read_spans
from wobble.core.practice.rooms import TrueSurface

Truths = Mapping[SurfaceName, TrueSurface]


def read_round(
    place: Place, truths: Truths, lines: Mapping[SurfaceName, SetUp], instrument: Instrument, seed: int
) -> tuple[Reading, ...]:
    """Return one reading for each station of a place's round, in walking order."""
    readings: list[Reading] = []
    by_surface: dict[SurfaceName, list[Station]] = {}
    for station in stations(place):
        by_surface.setdefault(station.surface, []).append(station)
    for i, (surface, there) in enumerate(by_surface.items()):
        spots = np.asarray([s.at for s in there], dtype=float)
        if there[0].takes == "span":
            pair = (truths["floor"], truths["ceiling"])
            readings += read_spans(pair, "floor-ceiling", spots, instrument, seed=seed + i)
        elif surface in lines:
            readings += read_offsets(truths[surface], surface, spots, lines[surface], instrument, seed=seed + i)
    return tuple(readings)


def numbered(
    readings: Sequence[Reading], prefix: str, by: str, begun: datetime, every_s: int = 45
) -> tuple[Reading, ...]:
    """Return readings with ids in order, as one person took them one after the other."""
    return tuple(
        replace(r, id=f"{prefix}-{i + 1:02d}", taken_by=by, taken_at=begun + timedelta(seconds=every_s * i))
        for i, r in enumerate(readings)
    )
