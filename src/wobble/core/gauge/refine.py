"""How wobbly this place is: the house character's amplitudes, refined by the readings themselves.

For each surface the smooth and the short-range amplitude are scaled to the highest log marginal likelihood
(Rasmussen & Williams 2006, equation 5.8) under a log-normal prior on the scale, which keeps a small survey at its
house character.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np
from scipy.linalg import cholesky, solve_triangular
from scipy.spatial.distance import cdist

from wobble.core.budget import spend
from wobble.core.gauge.adjust import Adjustment
from wobble.core.gauge.prior import Amplitudes, Floats, matern32, matern52
from wobble.core.job import SurfaceName

SCALES = (0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0, 2.8)
SCALE_LOG_SD = 1.0
LEAST_READINGS = 8
MOST_READINGS = 300
"""A larger survey is refined on an even choice of its readings: the amplitudes do not need them all."""


def refined(adjustment: Adjustment) -> dict[SurfaceName, Amplitudes]:
    """Return the amplitudes that explain the readings best; a surface with few readings keeps its own."""
    chosen = _choice(len(adjustment.observations))
    residual = adjustment.residual[chosen]
    parts = {s: _parts(adjustment, s, chosen) for s in adjustment.designs}
    amplitudes = {s: adjustment.priors[s].amplitudes for s in parts}
    scales: dict[SurfaceName, list[float]] = {s: [1.0, 1.0] for s in parts}
    covariance = adjustment.covariance[np.ix_(chosen, chosen)]
    for surface, unit_parts in parts.items():
        spend()
        if int(np.any(adjustment.designs[surface].weights[chosen] != 0, axis=1).sum()) < LEAST_READINGS:
            continue
        own = (amplitudes[surface].smooth_mm, amplitudes[surface].rough_mm)
        for which in (0, 1):
            part = own[which] ** 2 * unit_parts[which]
            rest = covariance - scales[surface][which] ** 2 * part
            best = max(SCALES, key=lambda scale: _evidence(rest + scale**2 * part, residual, scale))
            covariance = rest + best**2 * part
            scales[surface][which] = best
    return {s: Amplitudes(amplitudes[s].smooth_mm * scales[s][0], amplitudes[s].rough_mm * scales[s][1]) for s in parts}


def _choice(n_readings: int) -> Floats:
    return np.unique(np.linspace(0, n_readings - 1, min(n_readings, MOST_READINGS)).astype(int))


def _parts(adjustment: Adjustment, surface: SurfaceName, chosen: Floats) -> tuple[Floats, Floats]:
    """Return the readings' covariance from a unit smooth and a unit short-range part of one surface."""
    seen = adjustment.designs[surface]
    weights = seen.weights[chosen]
    used = np.any(weights != 0, axis=0)
    weights, spots = weights[:, used], seen.spots[used]
    distance = cdist(spots, spots)
    return weights @ matern52(distance) @ weights.T, weights @ matern32(distance) @ weights.T


def _evidence(covariance: Floats, residual: Floats, scale: float) -> float:
    """Return log marginal likelihood plus log prior of the scale, up to a constant."""
    factor = cholesky(covariance, lower=True, check_finite=False)
    white = solve_triangular(factor, residual, lower=True, check_finite=False)
    prior = -0.5 * (math.log(scale) / SCALE_LOG_SD) ** 2
    return float(-0.5 * white @ white - np.log(np.diag(factor)).sum() + prior)


def changed(before: Mapping[SurfaceName, Amplitudes], after: Mapping[SurfaceName, Amplitudes]) -> bool:
    """Return whether any amplitude differs."""
    return any(before[s] != a for s, a in after.items())
