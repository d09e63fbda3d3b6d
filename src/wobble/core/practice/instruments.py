"""Simulated instruments: they read a true surface as a person would, with noise and to the nearest graduation."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Literal

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.job import TOWARDS_INSTALLER, Instrument, Offset, SetUp, Span, SurfaceName
from wobble.core.practice.rooms import TrueSurface

FIRST_READING = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)


def _as_read(exact: Floats, instrument: Instrument, graduation_mm: float, rng: np.random.Generator) -> Floats:
    """Return true lengths as they are read: with the instrument's noise, to the nearest graduation (0 for none)."""
    read = exact + rng.normal(0, instrument.sigma_mm, len(exact))
    return np.asarray(np.round(read / graduation_mm) * graduation_mm if graduation_mm else read)


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
    place = true_place_mm if true_place_mm is not None else set_up.at_mm or 0.0
    exact = TOWARDS_INSTALLER[surface] * (place - truth.at(spots))
    read = _as_read(exact, instrument, graduation_mm, rng)
    return tuple(
        Offset(
            id=f"{prefix or surface}-{i + 1}",
            instrument=instrument.id,
            taken_at=FIRST_READING + timedelta(seconds=40 * i),
            surface=surface,
            at=(float(spot[0]), float(spot[1])),
            set_up=set_up.id,
            value_mm=float(value),
        )
        for i, (spot, value) in enumerate(zip(spots, read, strict=True))
    )


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
    near, far = truths
    read = _as_read(far.at(spots) - near.at(spots), instrument, graduation_mm, rng)
    return tuple(
        Span(
            id=f"{between}-{i + 1}",
            instrument=instrument.id,
            taken_at=FIRST_READING + timedelta(seconds=40 * i),
            between=between,
            at=(float(spot[0]), float(spot[1])),
            value_mm=float(value),
        )
        for i, (spot, value) in enumerate(zip(spots, read, strict=True))
    )
