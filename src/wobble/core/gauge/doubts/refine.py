"""How wobbly this place is: the house character's amplitudes, refined by the readings themselves.

For each surface the smooth and the short-range amplitude are weighed together by their marginal likelihood (Rasmussen &
Williams 2006, equation 5.8) under log-normal priors on their scales, which keep a small survey near its house
character. The squares are meaned over all pairs, not taken at the likeliest: variances between readings go with them.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import solve_triangular

from wobble.core.budget import spend
from wobble.core.gauge.adjust import Adjustment
from wobble.core.gauge.prior import Amplitudes, Floats, SurfacePrior
from wobble.core.job import SurfaceName

SCALES = (0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0, 2.8)
SCALE_LOG_SD = 1.0
LEAST_READINGS = 8
ROUNDING = 1e-10
MOST_READINGS = 50
"""A surface with more is refined on an even choice of its readings: the amplitudes do not need them all."""


def refined(adjustment: Adjustment) -> dict[SurfaceName, Amplitudes]:
    """Return each surface's amplitudes as the readings have them; a surface with few readings keeps its own."""
    chosen = _choice(adjustment)
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
        scales = known.scaled(rows, own.smooth_mm**2 * smooth, own.rough_mm**2 * rough)
        out[surface] = Amplitudes(own.smooth_mm * scales[0], own.rough_mm * scales[1])
    return out


def _choice(adjustment: Adjustment) -> NDArray[np.intp]:
    """Return an even choice of the readings of each surface."""
    out = []
    for seen in adjustment.designs.values():
        rows = np.flatnonzero(np.any(seen.weights != 0, axis=1))
        out.append(rows[np.linspace(0, len(rows) - 1, min(len(rows), MOST_READINGS)).astype(np.intp)])
    return np.unique(np.concatenate(out)) if out else np.zeros(0, dtype=np.intp)


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

    def scaled(self, rows: NDArray[np.intp], smooth: Floats, rough: Floats) -> tuple[float, float]:
        """Return the scales of two parts that stand in the covariance once, and let them stand there scaled.

        The squares of the scales are meaned over all pairs, each as likely as it is.
        """
        own, pull = self.inverse[np.ix_(rows, rows)], self.inverse[rows] @ self.residual
        half = np.linalg.cholesky(own + ROUNDING * float(np.diag(own).max()) * np.eye(len(rows)))
        whitened = solve_triangular(half, pull, lower=True)
        one, other = half.T @ smooth @ half, half.T @ rough @ half
        try:
            logs = _evidence(one, other, whitened)
        except (
            np.linalg.LinAlgError
        ):  # readings far finer than what their surface may do: rounding left nothing to weigh
            return 1.0, 1.0
        weights = np.exp(logs - logs.max())
        weights /= weights.sum()
        squares = np.square(SCALES)
        scales = math.sqrt(weights.sum(axis=1) @ squares), math.sqrt(weights.sum(axis=0) @ squares)
        more = (scales[0] ** 2 - 1.0) * smooth + (scales[1] ** 2 - 1.0) * rough
        across = self.inverse[:, rows]
        self.inverse = self.inverse - across @ np.linalg.solve(np.eye(len(rows)) + more @ own, more @ across.T)
        return scales


def _evidence(smooth: Floats, rough: Floats, pull: Floats) -> Floats:
    """Return log marginal likelihood plus log prior, but for a constant, of smooth scales (rows) beside rough ones.

    Both parts and the pull are whitened by the readings' covariance without them scaled. The rough part is brought to
    its own axes, where scaling it is a division; what is left of the smooth part is brought to its own for each scale.
    """
    more = np.square(SCALES) - 1.0
    alone, axes = np.linalg.eigh(rough)
    left = np.maximum(1.0 + np.outer(more, alone), ROUNDING)
    root = 1.0 / np.sqrt(left)
    values, vectors = np.linalg.eigh((axes.T @ smooth @ axes) * root[:, :, None] * root[:, None, :])
    across = np.einsum("sji,sj->si", vectors, root * (axes.T @ pull)) ** 2
    scaled = np.maximum(1.0 + more[:, None, None] * values, ROUNDING)
    likely = -0.5 * ((across / scaled).sum(axis=2) + np.log(scaled).sum(axis=2) + np.log(left).sum(axis=1))
    logs = np.log(SCALES)
    return np.asarray(likely - 0.5 * (logs[:, None] ** 2 + logs**2) / SCALE_LOG_SD**2)


def scale_prior(own: Amplitudes, scaled: Amplitudes) -> float:
    """Return the log prior of amplitudes against those of the house character, up to a constant."""
    scales = (scaled.smooth_mm / own.smooth_mm, scaled.rough_mm / own.rough_mm)
    return -0.5 * sum((math.log(scale) / SCALE_LOG_SD) ** 2 for scale in scales)


def changed(before: Mapping[SurfaceName, Amplitudes], after: Mapping[SurfaceName, Amplitudes]) -> bool:
    """Return whether any amplitude differs."""
    return any(before[s] != a for s, a in after.items())
