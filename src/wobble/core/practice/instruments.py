"""Whole series of one kind, read with a simulated instrument: a surface from its line, distances across."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Literal

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.job import Instrument, Offset, SetUp, Span, SurfaceName
from wobble.core.practice.rooms import TrueSurface
from wobble.core.practice.simulated import Simulated, TruePlace

FIRST_READING = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)


def read_offsets(
    truth: TrueSurface,
    surface: SurfaceName,
    spots: Floats,
    set_up: SetUp,
    instrument: Instrument,
    *,
    seed: int,
    true_place_mm: float | None = None,
    graduation_mm: float = 0.5,
    prefix: str | None = None,
) -> tuple[Offset, ...]:
    """Return offsets read from a plane at `true_place_mm` (the set-up's own place if None) at spots of shape (n, 2)."""
    rng = np.random.default_rng(seed)
    stands = true_place_mm if true_place_mm is not None else set_up.at_mm or 0.0
    place = TruePlace({surface: truth}, {set_up.id: stands})
    tool = Simulated(instrument, graduation_mm)
    asked = (
        Offset(
            id=f"{prefix or surface}-{i + 1}",
            instrument=instrument.id,
            taken_at=FIRST_READING + timedelta(seconds=40 * i),
            surface=surface,
            at=(float(spot[0]), float(spot[1])),
            set_up=set_up.id,
            value_mm=0.0,
        )
        for i, spot in enumerate(spots)
    )
    return tuple(tool.read(one, place, rng) for one in asked)


def read_spans(
    truths: tuple[TrueSurface, TrueSurface],
    between: Literal["left-right", "floor-ceiling"],
    spots: Floats,
    instrument: Instrument,
    *,
    seed: int,
    graduation_mm: float = 0.5,
) -> tuple[Span, ...]:
    """Return distances from the near (or lower) surface to the far one at spots of shape (n, 2)."""
    rng = np.random.default_rng(seed)
    names: tuple[SurfaceName, SurfaceName] = ("left", "right") if between == "left-right" else ("floor", "ceiling")
    place = TruePlace(dict(zip(names, truths, strict=True)))
    tool = Simulated(instrument, graduation_mm)
    asked = (
        Span(
            id=f"{between}-{i + 1}",
            instrument=instrument.id,
            taken_at=FIRST_READING + timedelta(seconds=40 * i),
            between=between,
            at=(float(spot[0]), float(spot[1])),
            value_mm=1.0,
        )
        for i, spot in enumerate(spots)
    )
    return tuple(tool.read(one, place, rng) for one in asked)
