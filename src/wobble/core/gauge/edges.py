"""Where a surface steps: what lies on each side of an edge, and how well its place and height are known.

A step is one more unknown, its height, at a place that is known to some millimetres. Both sides share the plane and a
part of the bows (a weak tie), each has a lean of its own, and filler may be built up against the edge. Where the place
is uncertain, the step has happened before a spot with probability F, so that the covariance between two spots is
height² · F(lower) · (1 − F(upper)): the bridge of an indicator. A surface there stands on one side or on the other, and
never beyond either, as draws of a normal with that spread would: a quarter of it is taken, with which both sides lie
two standard deviations off the middle. Lengths mm.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Band = tuple[float, float]
"""A place and how well it is known, mm."""

SHARED = 0.5
"""How much of its bows one side shares with the other."""
OWN_LEAN_SD = 0.004
"""How much the far side may lean or turn against the near one, mm per mm."""
OUTER_BUILD_UP_MM = 2.5
OUTER_REACH_MM = 60.0
"""Filler at an outer corner: how much, mm, and how far from the edge it falls to a third."""
KEPT_BETWEEN = 0.25
PLACED_AT_MOST_MM = 60.0
"""A height that nobody said is taken as at most this, for what an uncertain place may come to."""


@dataclass(frozen=True)
class Edge:
    """Between two places of one axis a surface stands further on; beyond its extent there is no edge.

    Attributes:
        extent: Low and high of the surface's axes. axis: 0 or 1. low: Where it begins. high: Where it ends.
        by_mm: How far further on, in the surface's coordinate. sd_mm: How well that is known beforehand.
        placed_mm: How high it is taken to be where its place is not known; None for what `by_mm` and `sd_mm` say.
    """

    extent: tuple[tuple[float, float], tuple[float, float]]
    axis: int
    low: Band
    high: Band
    by_mm: float
    sd_mm: float
    placed_mm: float | None = None

    def beyond(self, spots: Floats) -> Floats:
        """Return the chance that each spot lies on the step, shape (n,)."""
        u = spots[:, self.axis]
        return np.asarray(sum((sign * _passed(u, band) for sign, band in self._bands), np.zeros(len(u))))

    @cached_property
    def _bands(self) -> tuple[tuple[float, Band], ...]:
        start, end = self.extent[self.axis]
        low = (-math.inf, 0.0) if self.low[0] <= start else self.low
        high = (math.inf, 0.0) if self.high[0] >= end else self.high
        return ((1.0, low), (-1.0, high))

    @cached_property
    def _inside(self) -> tuple[Band, ...]:
        return tuple(band for _, band in self._bands if math.isfinite(band[0]))

    def trend(self, spots: Floats) -> Floats:
        """Return what the step may do as a whole, each column in its standard deviation: shape (n, n_terms)."""
        on = self.beyond(spots)
        (low_u, high_u), (low_v, high_v) = self.extent
        middle = np.array([(low_u + high_u) / 2, (low_v + high_v) / 2])
        middle[self.axis] = (
            max(self.low[0], self.extent[self.axis][0]) + min(self.high[0], self.extent[self.axis][1])
        ) / 2
        off = spots - middle
        columns = [self.sd_mm * on, OWN_LEAN_SD * off[:, 0] * on, OWN_LEAN_SD * off[:, 1] * on]
        for at, _ in self._inside:
            near = OUTER_BUILD_UP_MM * np.exp(np.abs(spots[:, self.axis] - at) / -OUTER_REACH_MM)
            columns += [near * on, near * (1 - on)]
        return np.stack(columns, axis=1)

    def shared(self, first: Floats, second: Floats) -> Floats:
        """Return how much of their bows spots share, for the sides that they lie on: shape (n_first, n_second)."""
        a, b = self.beyond(first), self.beyond(second)
        same = np.outer(a, b) + np.outer(1 - a, 1 - b)
        return np.asarray(SHARED + (1 - SHARED) * same)

    def shared_with_itself(self, spots: Floats) -> Floats:
        """Return the diagonal of `shared`."""
        on = self.beyond(spots)
        return np.asarray(SHARED + (1 - SHARED) * (on**2 + (1 - on) ** 2))

    def placed(self, first: Floats, second: Floats) -> Floats:
        """Return the covariance, mm², that comes from not knowing just where the edges are."""
        u, v = first[:, self.axis][:, None], second[:, self.axis][None, :]
        out = np.zeros((len(first), len(second)))
        for band in self._inside:
            if band[1] > 0:
                out += self._spread2 * _passed(np.minimum(u, v), band) * (1 - _passed(np.maximum(u, v), band))
        return out

    def placed_variance(self, spots: Floats) -> Floats:
        """Return the diagonal of `placed`."""
        passed = [_passed(spots[:, self.axis], band) for band in self._inside if band[1] > 0]
        return np.asarray(sum((self._spread2 * f * (1 - f) for f in passed), np.zeros(len(spots))))

    @cached_property
    def _spread2(self) -> float:
        high = self.placed_mm if self.placed_mm is not None else math.hypot(self.by_mm, self.sd_mm)
        return min(high, PLACED_AT_MOST_MM) ** 2 * KEPT_BETWEEN


def _passed(u: Floats, band: Band) -> Floats:
    """Return the chance that an edge lies before `u`: even over a range of the band's standard deviation."""
    at, sd = band
    if math.isinf(at):
        return np.full(np.shape(u), 1.0 if at < 0 else 0.0)
    if sd <= 0:
        return np.asarray((u >= at).astype(float))
    half = math.sqrt(3.0) * sd
    return np.asarray(np.clip((u - at + half) / (2 * half), 0.0, 1.0))
