"""How wobbly this place is: the house character's amplitudes, refined by the readings themselves.

For each surface the smooth and the short-range amplitude are scaled to the highest log marginal likelihood
(Rasmussen & Williams 2006, equation 5.8) under a log-normal prior on the scale, which keeps a small survey at its
house character.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from wobble.core.budget import spend
from wobble.core.gauge.adjust import Adjustment
from wobble.core.gauge.prior import Amplitudes, Floats, SurfacePrior
from wobble.core.job import SurfaceName

SCALES = (0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0, 2.8)
SCALE_LOG_SD = 1.0
LEAST_READINGS = 8
MOST_READINGS = 300
"""A larger survey is refined on an even choice of its readings: the amplitudes do not need them all."""


def refined(adjustment: Adjustment) -> dict[SurfaceName, Amplitudes]:
    """Return the amplitudes that explain the readings best; a surface with few readings keeps its own."""
    chosen = _choice(len(adjustment.observations))
    amplitudes = {s: adjustment.priors[s].amplitudes for s in adjustment.designs}
    known = _Inverse(adjustment, chosen)
    out = dict(amplitudes)
    for surface, own in amplitudes.items():
        spend()
        weights = adjustment.designs[surface].weights[chosen]
        rows = np.flatnonzero(np.any(weights != 0, axis=1))
        if len(rows) < LEAST_READINGS:
            continue
        smooth, rough = _parts(adjustment.priors[surface], adjustment.designs[surface].spots, weights[rows])
        scales = (known.scaled(rows, own.smooth_mm**2 * smooth), known.scaled(rows, own.rough_mm**2 * rough))
        out[surface] = Amplitudes(own.smooth_mm * scales[0], own.rough_mm * scales[1])
    return out


def _choice(n_readings: int) -> NDArray[np.intp]:
    return np.unique(np.linspace(0, n_readings - 1, min(n_readings, MOST_READINGS)).astype(np.intp))


def _parts(prior: SurfacePrior, spots: Floats, weights: Floats) -> tuple[Floats, Floats]:
    """Return the readings' covariance from a unit smooth and a unit short-range part of one surface."""
    used = np.any(weights != 0, axis=0)
    weights, spots = weights[:, used], spots[used]
    smooth, rough = prior.parts(spots, spots)
    return weights @ smooth @ weights.T, weights @ rough @ weights.T


class _Inverse:
    """The inverse of the readings' covariance while parts of it are scaled.

    A part touches only the readings of its surface, so that each scale is weighed by a matrix of their number
    (determinant lemma and Woodbury's identity; Rasmussen & Williams 2006, A.9 and A.10).
    """

    def __init__(self, adjustment: Adjustment, chosen: NDArray[np.intp]) -> None:
        few = adjustment if len(chosen) == len(adjustment.observations) else adjustment.only(chosen)
        self.residual = few.residual
        self.inverse = few.precision

    def scaled(self, rows: NDArray[np.intp], part: Floats) -> float:
        """Return the likeliest scale of a part that stands in the covariance once, and let it stand there scaled."""
        inner = part @ self.inverse[np.ix_(rows, rows)]
        pull = self.inverse[rows] @ self.residual
        best = max(SCALES, key=lambda scale: _evidence(scale, inner, part, pull))
        more = best**2 - 1.0
        if more:
            across = self.inverse[:, rows]
            self.inverse = self.inverse - across @ np.linalg.solve(
                np.eye(len(rows)) + more * inner, more * part @ across.T
            )
        return best


def _evidence(scale: float, inner: Floats, part: Floats, pull: Floats) -> float:
    """Return log marginal likelihood plus log prior of the scale, up to a constant."""
    more = scale**2 - 1.0
    scaled = np.eye(len(part)) + more * inner
    _, log_determinant = np.linalg.slogdet(scaled)
    explained = more * float(pull @ np.linalg.solve(scaled, part @ pull))
    return 0.5 * explained - 0.5 * float(log_determinant) - 0.5 * (math.log(scale) / SCALE_LOG_SD) ** 2


def scale_prior(own: Amplitudes, scaled: Amplitudes) -> float:
    """Return the log prior of amplitudes against those of the house character, up to a constant."""
    scales = (scaled.smooth_mm / own.smooth_mm, scaled.rough_mm / own.rough_mm)
    return -0.5 * sum((math.log(scale) / SCALE_LOG_SD) ** 2 for scale in scales)


def changed(before: Mapping[SurfaceName, Amplitudes], after: Mapping[SurfaceName, Amplitudes]) -> bool:
    """Return whether any amplitude differs."""
    return any(before[s] != a for s, a in after.items())
