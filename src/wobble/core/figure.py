"""Figures: a value with its uncertainty and the working that leads back to the readings."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share
from wobble.core.job import SurfaceName, Value


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


def mean_and_sd(values: Floats) -> tuple[float, float]:
    """Return the mean of draws, shape (n,), and their standard deviation, in a fifth of what numpy's own two take."""
    mean = float(np.add.reduce(values)) / len(values)
    off = values - mean
    return mean, math.sqrt(float(off @ off) / len(values))


def chance(hits: NDArray[np.bool_]) -> float:
    """Return in which share of the draws, shape (n,), something is so."""
    return int(np.count_nonzero(hits)) / len(hits)


def quantile(values: Floats, share: float) -> float:
    """Return what a share of the values, shape (n,), lies below, straight between two of them.

    As numpy's own, which looks for more than we ask and takes ten times as long.
    """
    ordered = np.sort(values)
    at = share * (len(ordered) - 1)
    low = min(int(at), len(ordered) - 2) if len(ordered) > 1 else 0
    high = min(low + 1, len(ordered) - 1)
    return float(ordered[low] + (at - low) * (ordered[high] - ordered[low]))
