"""What a surface is like before anything is measured: a plane with wide priors, a smooth part and a short-range part.

Each part is mostly of what runs along one axis alone: a wall bows over its height and along its length, boards and
courses lie side by side. The rest is local: a hump, a patch of filler. Walls may carry filler in their corners, and a
vehicle's side bends over its height. Gaussian-process prior after
Rasmussen & Williams 2006: explicit plane terms (section 2.7), Matérn 5/2 and 3/2 covariances (equation 4.17).
Distances and amplitudes are millimetres.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.distance import cdist

from wobble.core.gauge.edges import Edge
from wobble.core.job import TOWARDS_INSTALLER, Measured, SurfaceName, WallStep, surface_extent

Floats = NDArray[np.float64]

LEVEL_SD_MM = 500.0
"""How far a surface may lie from its nominal place before anything ties it down."""
SLOPE_SD = {"floor": 0.02, "ceiling": 0.05, "back": 0.03, "left": 0.03, "right": 0.03}
"""Standard deviation of fall, lean or skew, mm per mm."""
STAIR_SLOPE_SD = 0.8
"""Under a stair or a roof the ceiling may fall as steeply as people can climb."""
CURVED_SLOPE_SD = 0.3
CURVE_SD_MM = 150.0
"""A vehicle's side bends this far over its height, mm, and leans the more for it."""
BUILD_UP_MM = 1.5
BUILD_UP_REACH_MM = 90.0
"""Filler in a corner: how much, mm, and how far from it it falls to a third."""
SMOOTH_LENGTH_MM = 700.0
LONG_LENGTH_MM = 1400.0
"""Over what distances a hump goes, and over what a bow that runs along one axis alone."""
ROUGH_LENGTH_MM = 150.0
SMOOTH_ALONG, ROUGH_ALONG = 0.7, 0.8
"""The share of a part's variance that runs along either of the axes alone, half of it along each."""
LENGTHS_MM = np.array([SMOOTH_LENGTH_MM, LONG_LENGTH_MM, LONG_LENGTH_MM])[:, None, None]
FEW = 5_000
"""For so few pairs of spots, looking for places that they share costs more than it saves."""


@dataclass(frozen=True, slots=True)
class Amplitudes:
    """Standard deviations, mm, of the smooth part (bows, settling) and the short-range part (boards, filler)."""

    smooth_mm: float
    rough_mm: float


CHARACTERS: dict[Literal["true", "typical", "rough"], Amplitudes] = {
    "true": Amplitudes(2.0, 0.35),
    "typical": Amplitudes(4.0, 0.55),
    "rough": Amplitudes(8.0, 1.2),
}


@dataclass(frozen=True)
class SurfacePrior:
    """The prior of one surface: mean level, low and high of its axes, and its amplitudes.

    `corners` are where on its first axis it meets other walls; `half_height` is that of a curved wall, else None;
    `slope_sd` how steep it may be, mm per mm; `knee` the axis (0 or 1) and place where it turns into a slope.
    `edges` are where it steps: each side of one is a surface of its own that shares only a part of its bows.
    """

    surface: SurfaceName
    level_mm: float
    extent: tuple[tuple[float, float], tuple[float, float]]
    amplitudes: Amplitudes
    corners: tuple[float, ...] = ()
    half_height: float | None = None
    slope_sd: float = 0.03
    knee: tuple[int, float] | None = None
    edges: tuple[Edge, ...] = ()

    @cached_property
    def centre(self) -> tuple[float, float]:
        """Where its plane terms are centred."""
        (low_u, high_u), (low_v, high_v) = self.extent
        return ((low_u + high_u) / 2, (low_v + high_v) / 2)

    @cached_property
    def _centre(self) -> Floats:
        return np.asarray(self.centre)[:, None]

    @cached_property
    def _corners(self) -> Floats:
        return np.asarray(self.corners)[:, None]

    def mean(self, spots: Floats) -> Floats:
        """Return the expected surface values before anything is measured, mm, at spots of shape (n, 2)."""
        out = np.full(len(spots), self.level_mm)
        for edge in self.edges:
            out += edge.by_mm * edge.beyond(spots)
        return out

    def trend(self, spots: Floats) -> Floats:
        """Return what the surface may do as a whole, each column in its prior standard deviation: shape (n, n_terms).

        Level and two slopes; build-up in every corner that it meets; for a curved wall its bend over the height; for
        a ceiling with a knee the slope beyond it; for every edge how high it is and how its far side leans.
        """
        k = 3 + len(self.corners)
        n_terms = k + 3 * (self.half_height is not None) + (self.knee is not None)
        # a term is a row, and worked out in place: this is asked for a hundred times for each decision
        out = np.empty((n_terms, len(spots)))
        out[0] = LEVEL_SD_MM
        sloped = out[1:3]
        np.subtract(spots.T, self._centre, out=sloped)
        sloped *= self.slope_sd
        if self.corners:
            built = out[3:k]
            np.subtract(spots[:, 0], self._corners, out=built)
            np.abs(built, out=built)
            built *= -1.0 / BUILD_UP_REACH_MM
            np.exp(built, out=built)
            built *= BUILD_UP_MM
        y = spots[:, 1]
        if self.half_height is not None:
            up = (y - self.centre[1]) / self.half_height
            out[k : k + 3] = CURVE_SD_MM * up**2, CURVE_SD_MM / 2 * up**3, CURVE_SD_MM / 4 * up**4
            k += 3
        if self.knee is not None:
            axis, at = self.knee
            out[k] = STAIR_SLOPE_SD * np.maximum(spots[:, axis] - at, 0.0)
        return np.hstack([out.T, *(edge.trend(spots) for edge in self.edges)]) if self.edges else out.T

    def covariance(self, first: Floats, second: Floats) -> Floats:
        """Return the covariance of surface values, mm², between spots of shape (n_first, 2) and (n_second, 2)."""
        return np.asarray(self.trend(first) @ self.trend(second).T + self.local(first, second))

    def local(self, first: Floats, second: Floats) -> Floats:
        """Return the part of the covariance, mm², that falls off with distance."""
        a = self.amplitudes
        if not self.edges:
            return _blend(first, second, a.smooth_mm**2, a.rough_mm**2)
        smooth, rough = self.parts(first, second)
        smooth *= a.smooth_mm**2
        rough *= a.rough_mm**2
        smooth += rough
        for edge in self.edges:
            smooth += edge.placed(first, second)
        return smooth

    def parts(self, first: Floats, second: Floats) -> tuple[Floats, Floats]:
        """Return the covariance of a unit smooth and of a unit short-range part."""
        smooth, rough = _blend(first, second, 1.0, 0.0), _blend(first, second, 0.0, 1.0)
        for edge in self.edges:
            smooth *= edge.shared(first, second)
        return smooth, rough

    def variance(self, spots: Floats) -> Floats:
        """Return the variance of surface values, mm², at spots of shape (n, 2)."""
        a = self.amplitudes
        smooth = np.full(len(spots), a.smooth_mm**2)
        placed = np.zeros(len(spots))
        for edge in self.edges:
            smooth *= edge.shared_with_itself(spots)
            placed += edge.placed_variance(spots)
        return np.asarray((self.trend(spots) ** 2).sum(axis=1) + smooth + a.rough_mm**2 + placed)


def _blend(first: Floats, second: Floats, smooth_mm2: float, rough_mm2: float) -> Floats:
    """Return the covariance, mm², of a smooth and a short-range part of such variances."""
    if len(first) * len(second) <= FEW:
        return _at_once(first, second, smooth_mm2, rough_mm2)
    out = _mixed(cdist(first, second), SMOOTH_LENGTH_MM, smooth_mm2 * (1 - SMOOTH_ALONG), rough_mm2 * (1 - ROUGH_ALONG))
    for axis in (0, 1):
        # spots are rows and columns of a grid more often than not: each place on the axis is worked out once
        (places, one), (others, other) = (np.unique(of[:, axis], return_inverse=True) for of in (first, second))
        apart = np.abs(places[:, None] - others)
        along = _mixed(apart, LONG_LENGTH_MM, smooth_mm2 * SMOOTH_ALONG / 2, rough_mm2 * ROUGH_ALONG / 2)
        out += along[:, other][one]
    return out


def _at_once(first: Floats, second: Floats, smooth_mm2: float, rough_mm2: float) -> Floats:
    """Return the same for few spots, of which all distances are worked out together: calls cost more than numbers."""
    apart = np.empty((3, len(first), len(second)))
    np.abs(np.subtract(first.T[:, :, None], second.T[:, None, :], out=apart[1:]), out=apart[1:])
    np.hypot(apart[1], apart[2], out=apart[0])
    smooth, rough = _shares(smooth_mm2, SMOOTH_ALONG), _shares(rough_mm2, ROUGH_ALONG)
    out = matern52(apart, LENGTHS_MM)
    out *= smooth
    short = matern32(apart, ROUGH_LENGTH_MM)
    short *= rough
    out += short
    return np.asarray(out.sum(axis=0))


@lru_cache(maxsize=64)
def _shares(mm2: float, along: float) -> Floats:
    """Return what of a variance is local, and what runs along either axis."""
    return np.array([mm2 * (1 - along), mm2 * along / 2, mm2 * along / 2])[:, None, None]


def _mixed(distance_mm: Floats, long_mm: float, smooth_mm2: float, rough_mm2: float) -> Floats:
    """Return both parts' covariance at distances, the smooth one's over `long_mm`."""
    if not rough_mm2:
        return smooth_mm2 * matern52(distance_mm, long_mm)
    out = matern32(distance_mm, ROUGH_LENGTH_MM)
    out *= rough_mm2
    if smooth_mm2:
        smooth = matern52(distance_mm, long_mm)
        smooth *= smooth_mm2
        out += smooth
    return out


def matern52(distance_mm: Floats, length_mm: float | Floats) -> Floats:
    """Matérn 5/2 correlation; Rasmussen & Williams 2006, equation 4.17."""
    r = distance_mm * (math.sqrt(5.0) / length_mm)
    out = r * (1.0 / 3.0)
    out += 1.0
    out *= r
    out += 1.0
    np.negative(r, out=r)
    out *= np.exp(r, out=r)
    return out


def matern32(distance_mm: Floats, length_mm: float) -> Floats:
    """Matérn 3/2 correlation; Rasmussen & Williams 2006, equation 4.17."""
    r = distance_mm * (math.sqrt(3.0) / length_mm)
    out = r + 1.0
    np.negative(r, out=r)
    out *= np.exp(r, out=r)
    return out


def surface_prior(place: Measured, surface: SurfaceName, amplitudes: Amplitudes | None = None) -> SurfacePrior:
    """Return the prior of one surface of a place; amplitudes default to the place's house character."""
    extent = surface_extent(place, surface)
    level = {"ceiling": place.height_mm, "right": place.width_mm}.get(surface, 0.0)
    low_v, high_v = extent[1]
    curved = place.frame == "body" and surface in ("back", "left", "right")
    return SurfacePrior(
        surface,
        level,
        extent,
        amplitudes or CHARACTERS[place.character],
        _corners(place, surface),
        (high_v - low_v) / 2 if curved else None,
        _slope_sd(place, surface, curved=curved),
        (0 if place.knee.along == "x" else 1, place.knee.at_mm) if place.knee and surface == "ceiling" else None,
        tuple(_edge(place, step) for step in place.steps if step.surface == surface),
    )


def _edge(place: Measured, step: WallStep) -> Edge:
    """Return a step that was declared, in the surface's own coordinate."""
    axis = 0 if step.axis == "first" else 1
    return Edge(
        extent=surface_extent(place, step.surface),
        axis=axis,
        low=(step.from_mm, step.at_sigma_mm),
        high=(step.to_mm, step.at_sigma_mm),
        by_mm=TOWARDS_INSTALLER[step.surface] * step.by_mm,
        sd_mm=step.sigma_mm,
    )


def _slope_sd(place: Measured, surface: SurfaceName, *, curved: bool) -> float:
    if curved:
        return CURVED_SLOPE_SD
    # with a knee, the plane is the flat part's
    sloping = surface == "ceiling" and place.kind == "under a slope" and place.knee is None
    return STAIR_SLOPE_SD if sloping else SLOPE_SD[surface]


def _corners(place: Measured, surface: SurfaceName) -> tuple[float, ...]:
    if place.frame == "body":
        return ()
    match surface:
        case "back":
            return (0.0, place.width_mm)
        case "left" | "right":
            return (0.0,)
        case _:
            return ()
