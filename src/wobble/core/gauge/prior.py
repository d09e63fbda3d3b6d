"""What a surface is like before anything is measured: a plane with wide priors, a smooth part and a short-range part.

Gaussian-process prior after Rasmussen & Williams 2006: explicit plane terms (section 2.7), Matérn 5/2 and 3/2
covariances (equation 4.17). Distances and amplitudes are millimetres.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.distance import cdist

from wobble.core.job import Bay, SurfaceName, surface_extent

Floats = NDArray[np.float64]

LEVEL_SD_MM = 500.0
"""How far a surface may lie from its nominal place before anything ties it down."""
SLOPE_SD = {"floor": 0.02, "ceiling": 0.05, "back": 0.03, "left": 0.03, "right": 0.03}
"""Standard deviation of fall, lean or skew, mm per mm."""
SMOOTH_LENGTH_MM = 700.0
ROUGH_LENGTH_MM = 150.0


@dataclass(frozen=True, slots=True)
class Amplitudes:
    """Standard deviations, mm, of the smooth part (bows, settling) and the short-range part (boards, filler)."""

    smooth_mm: float
    rough_mm: float


CHARACTERS: dict[Literal["true", "typical", "rough"], Amplitudes] = {
    "true": Amplitudes(2.0, 0.3),
    "typical": Amplitudes(4.0, 0.5),
    "rough": Amplitudes(8.0, 1.2),
}


@dataclass(frozen=True, slots=True)
class SurfacePrior:
    """The prior of one surface: mean level, where its plane terms are centred, and its amplitudes."""

    surface: SurfaceName
    level_mm: float
    centre: tuple[float, float]
    amplitudes: Amplitudes

    def plane(self, first: Floats, second: Floats) -> Floats:
        """Return the covariance of the plane part, mm², shape (n_first, n_second)."""
        offset = np.asarray(self.centre)
        slope = SLOPE_SD[self.surface] ** 2
        return np.asarray(LEVEL_SD_MM**2 + slope * ((first - offset) @ (second - offset).T))

    def covariance(self, first: Floats, second: Floats) -> Floats:
        """Return the covariance of surface values, mm², between spots of shape (n_first, 2) and (n_second, 2)."""
        distance = cdist(first, second)
        a = self.amplitudes
        return self.plane(first, second) + a.smooth_mm**2 * matern52(distance) + a.rough_mm**2 * matern32(distance)

    def variance(self, spots: Floats) -> Floats:
        """Return the variance of surface values, mm², at spots of shape (n, 2)."""
        offset = spots - np.asarray(self.centre)
        a = self.amplitudes
        plane = LEVEL_SD_MM**2 + SLOPE_SD[self.surface] ** 2 * np.einsum("ij,ij->i", offset, offset)
        return np.asarray(plane + a.smooth_mm**2 + a.rough_mm**2)


def matern52(distance_mm: Floats) -> Floats:
    """Matérn 5/2 correlation at the smooth length scale; Rasmussen & Williams 2006, equation 4.17."""
    r = np.sqrt(5.0) * distance_mm / SMOOTH_LENGTH_MM
    return np.asarray((1.0 + r + r**2 / 3.0) * np.exp(-r))


def matern32(distance_mm: Floats) -> Floats:
    """Matérn 3/2 correlation at the short length scale; Rasmussen & Williams 2006, equation 4.17."""
    r = np.sqrt(3.0) * distance_mm / ROUGH_LENGTH_MM
    return np.asarray((1.0 + r) * np.exp(-r))


def surface_prior(bay: Bay, surface: SurfaceName, amplitudes: Amplitudes | None = None) -> SurfacePrior:
    """Return the prior of one surface of a bay; amplitudes default to the bay's house character."""
    (low_u, high_u), (low_v, high_v) = surface_extent(bay, surface)
    level = {"ceiling": bay.height_mm, "right": bay.width_mm}.get(surface, 0.0)
    centre = ((low_u + high_u) / 2, (low_v + high_v) / 2)
    return SurfacePrior(surface, level, centre, amplitudes or CHARACTERS[bay.character])
