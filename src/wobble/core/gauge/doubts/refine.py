"""How wobbly this place is: the house character's amplitudes, refined by the readings themselves.

For each surface the smooth and the short-range amplitude are weighed together by their marginal likelihood (Rasmussen &
Williams 2006, equation 5.8). Their scales are partly those of the whole place, partly the surface's own, each
log-normal: what one wall shows, the wall beside it is likelier to be (a hierarchy; Gelman et al. 2013, chapter 5), and
a small survey stays near its house character. The squares are meaned over all pairs, not taken at the likeliest:
variances between readings go with them.
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

SCALES = (0.25, 0.4, 0.63, 1.0, 1.6, 2.5)
LOGS = np.log(SCALES)
PLACE_LOG_SD, OWN_LOG_SD = 0.8, 0.6
"""How far the scale of a place may be from its house character's, and a surface's from its place's, in logs."""
SCALE_LOG_SD = math.hypot(PLACE_LOG_SD, OWN_LOG_SD)
NOTHING: Floats = np.ones((len(SCALES), len(SCALES)))
"""How likely scales are of which the readings tell nothing."""
LEAST_READINGS = 8
ROUNDING = 1e-10
MOST_READINGS = 50
"""A surface with more is refined on an even choice of its readings: the amplitudes do not need them all."""


def refined(adjustment: Adjustment) -> dict[SurfaceName, Amplitudes]:
    """Return each surface's amplitudes as the readings have them; one with few readings is as its place is."""
    chosen = _choice(adjustment)
    amplitudes = {s: adjustment.priors[s].amplitudes for s in adjustment.designs}
    known = _Inverse(adjustment, chosen)
    likely: dict[SurfaceName, Floats] = {}
    for surface, own in amplitudes.items():
        spend()
        weights = adjustment.designs[surface].weights[chosen]
        rows = np.flatnonzero(np.any(weights != 0, axis=1))
        if len(rows) < LEAST_READINGS:
            likely[surface] = NOTHING
            continue
        smooth, rough = _parts(adjustment.priors[surface], adjustment.designs[surface].spots, weights[rows])
        likely[surface] = known.scaled(rows, own.smooth_mm**2 * smooth, own.rough_mm**2 * rough)
    if all(told is NOTHING for told in likely.values()):
        return amplitudes
    scales = together(likely)
    return {s: Amplitudes(own.smooth_mm * scales[s][0], own.rough_mm * scales[s][1]) for s, own in amplitudes.items()}


def together(likely: Mapping[SurfaceName, Floats]) -> dict[SurfaceName, tuple[float, float]]:
    """Return the scales of each surface for what all of them show: those of the place are one more unknown.

    Each surface tells of the place what its own likelihood, spread by how far it may be from the place, comes to. Back
    at a surface, what the others tell stands before its own likelihood.
    """
    apart = _normal(LOGS[:, None] - LOGS, OWN_LOG_SD)
    apart /= apart.sum(axis=1, keepdims=True)
    of_place = -0.5 * (LOGS[:, None] ** 2 + LOGS**2) / PLACE_LOG_SD**2
    tells = {s: np.log(apart @ own @ apart.T) for s, own in likely.items()}
    all_tell = of_place + sum(tells.values())
    out = {}
    for surface, own in likely.items():
        others = all_tell - tells[surface]
        out[surface] = _meaned(own * (apart.T @ np.exp(others - others.max()) @ apart))
    return out


def _normal(logs: Floats, sd: float) -> Floats:
    return np.asarray(np.exp(-0.5 * (logs / sd) ** 2))


def _meaned(weights: Floats) -> tuple[float, float]:
    """Return the roots of the mean squares of both scales, each pair as likely as its weight."""
    squares, whole = np.square(SCALES), weights.sum()
    return math.sqrt(weights.sum(axis=1) @ squares / whole), math.sqrt(weights.sum(axis=0) @ squares / whole)


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

    def scaled(self, rows: NDArray[np.intp], smooth: Floats, rough: Floats) -> Floats:
        """Return how likely scales of two parts are that stand in the covariance once, and let them stand there scaled.

        The likeliest pair is 1: smooth scales are rows, rough ones columns.
        """
        own, pull = self.inverse[np.ix_(rows, rows)], self.inverse[rows] @ self.residual
        half = np.linalg.cholesky(own + ROUNDING * float(np.diag(own).max()) * np.eye(len(rows)))
        whitened = solve_triangular(half, pull, lower=True)
        one, other = half.T @ smooth @ half, half.T @ rough @ half
        try:
            logs = evidence(one, other, whitened)
        except (
            np.linalg.LinAlgError
        ):  # readings far finer than what their surface may do: rounding left nothing to weigh
            return NOTHING
        likely = np.exp(logs - logs.max())
        alone = _normal(LOGS, SCALE_LOG_SD)
        scales = _meaned(likely * np.outer(alone, alone))
        more = (scales[0] ** 2 - 1.0) * smooth + (scales[1] ** 2 - 1.0) * rough
        across = self.inverse[:, rows]
        self.inverse = self.inverse - across @ np.linalg.solve(np.eye(len(rows)) + more @ own, more @ across.T)
        return np.asarray(likely)


def evidence(smooth: Floats, rough: Floats, pull: Floats) -> Floats:
    """Return the log marginal likelihood, but for a constant, of smooth scales (rows) beside rough ones.

    Both parts and the pull are whitened by the readings' covariance without them scaled: what is left of it with every
    pair of scales is factored, bordered by the pull, so that the last pivot has its square in it.
    """
    n, more = len(pull), np.square(SCALES) - 1.0
    bordered = np.empty((len(SCALES), len(SCALES), n + 1, n + 1))
    inner = bordered[..., :n, :n]
    np.add((more[:, None, None] * smooth)[:, None], more[:, None, None] * rough, out=inner)
    inner += np.eye(n)
    bordered[..., n, :n] = bordered[..., :n, n] = pull
    # no scale takes more off than all of a part, so that no square is larger than this
    most = 2.0 * float(pull @ pull) / SCALES[0] ** 2 + 1.0
    bordered[..., n, n] = most
    pivots = np.diagonal(np.linalg.cholesky(bordered), axis1=-2, axis2=-1)
    return np.asarray(-0.5 * (most - pivots[..., n] ** 2) - np.log(pivots[..., :n]).sum(axis=-1))


def scale_prior(own: Amplitudes, scaled: Amplitudes) -> float:
    """Return the log prior of amplitudes against those of the house character, up to a constant."""
    scales = (scaled.smooth_mm / own.smooth_mm, scaled.rough_mm / own.rough_mm)
    return -0.5 * sum((math.log(scale) / SCALE_LOG_SD) ** 2 for scale in scales)


def changed(before: Mapping[SurfaceName, Amplitudes], after: Mapping[SurfaceName, Amplitudes]) -> bool:
    """Return whether any amplitude differs."""
    return any(before[s] != a for s, a in after.items())
