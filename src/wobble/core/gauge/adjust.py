"""The joint adjustment: all surfaces and other unknowns of a place from all readings at once.

Linear-Gaussian estimation with linear functionals as observations. With the unknowns f ~ N(m, K), readings
d = A f + e and S = A K Aᵀ + N: posterior mean m + K Aᵀ S⁻¹ (d − A m) and covariance K − K Aᵀ S⁻¹ A K
(Rasmussen & Williams 2006, equations 2.25-2.26 with A in place of the identity; universal kriging in Cressie
1993, ch. 3).
"""

from __future__ import annotations

import math
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import LinAlgError, cho_factor, cho_solve
from scipy.linalg.blas import dtrmm, dtrsm
from scipy.linalg.lapack import dpotri
from scipy.sparse import csr_array

from wobble.core.gauge.observe import Observation
from wobble.core.gauge.prior import Floats, SurfacePrior
from wobble.core.job import Spot, SurfaceName

NORMALS_STEP = 128
JITTER_MM2 = 1e-8
"""Added to a covariance before it is factored: a ten-thousandth of a millimetre, far under any reading."""

ROUNDING = 1e-10
"""What sums of so many squares may be out by, of the largest."""

FREEDOM = 5.0
"""Degrees of freedom of what is drawn: a logarithm of the scale known to 1 / sqrt(2 · 5), a third."""

MOST_ASKED, MOST_ASKED_BYTES = 12, 32_000
"""So many of the answers asked for last are kept beside an adjustment, and none that is larger."""

Query = tuple[SurfaceName, Floats]
"""A surface and spots on it, shape (n, 2)."""


@dataclass(frozen=True)
class SurfaceDesign:
    """How the readings see one surface: its distinct spots, shape (n_spots, 2), and weights (n_readings, n_spots)."""

    spots: Floats
    weights: Floats


@dataclass(frozen=True)
class Estimate:
    """Values at queried spots: mean of shape (n,), mm, and covariance of shape (n, n), mm²."""

    mean: Floats
    covariance: Floats

    @property
    def sd(self) -> Floats:
        """Standard deviations, mm, shape (n,)."""
        return np.sqrt(np.maximum(np.diag(self.covariance), 0.0))


@dataclass(frozen=True)
class Adjustment:
    """The solved system. Queries may mix surfaces; their errors are joint."""

    observations: tuple[Observation, ...]
    priors: Mapping[SurfaceName, SurfacePrior]
    designs: Mapping[SurfaceName, SurfaceDesign]
    unknowns: Mapping[str, tuple[float, float]]
    unknown_weights: Floats
    covariance: Floats
    residual: Floats

    @cached_property
    def factor(self) -> Floats:
        """Lower Cholesky factor of the readings' covariance."""
        try:
            return np.asfortranarray(cho_factor(self.covariance, lower=True)[0])
        except LinAlgError:
            # readings far finer than what their surfaces may do: rounding left no room between them
            least = ROUNDING * float(np.diag(self.covariance).max())
            return np.asfortranarray(cho_factor(self.covariance + least * np.eye(len(self.covariance)), lower=True)[0])

    @cached_property
    def solution(self) -> Floats:
        """S⁻¹ (d − A m), shape (n_readings,)."""
        return np.asarray(cho_solve((self.factor, True), self.residual))

    @cached_property
    def precision(self) -> Floats:
        """S⁻¹, shape (n_readings, n_readings)."""
        if not self.factor.size:
            return self.factor
        lower = np.tril(dpotri(self.factor, lower=1)[0])
        return np.asarray(lower + np.tril(lower, -1).T)

    def whitened(self, cross: Floats) -> Floats:
        """Return L⁻¹ of covariances with the readings, shape (n_readings, n)."""
        if not cross.size:
            return cross
        # the library's general routine spends more on looking at its arguments than on so few rows
        return np.asarray(dtrsm(1.0, self.factor, cross, lower=1))

    def only(self, kept: NDArray[np.intp]) -> Adjustment:
        """Return the adjustment of some of the observations: what all share need not be put together again."""
        designs = {}
        for surface, seen in self.designs.items():
            weights = seen.weights[kept]
            used = np.any(weights != 0, axis=0)
            if used.any():
                designs[surface] = SurfaceDesign(seen.spots[used], weights[:, used])
        return Adjustment(
            tuple(self.observations[i] for i in kept),
            self.priors,
            designs,
            self.unknowns,
            self.unknown_weights[kept],
            self.covariance[np.ix_(kept, kept)],
            self.residual[kept],
        )

    def under(self, priors: Mapping[SurfaceName, SurfacePrior]) -> Adjustment:
        """Return the adjustment of the same readings where their surfaces are otherwise than was thought."""
        return _solved(self.observations, priors, self.designs, self.unknowns, self.unknown_weights)

    @cached_property
    def reading_index(self) -> tuple[tuple[str, ...], NDArray[np.intp]]:
        """The readings' ids, each once, and for every observation which of them it is of."""
        ids = {o.reading_id: None for o in self.observations}
        place = {id_: i for i, id_ in enumerate(ids)}
        return tuple(ids), np.asarray([place[o.reading_id] for o in self.observations], dtype=np.intp)

    @cached_property
    def _trends(self) -> Mapping[SurfaceName, Floats]:
        """What each reading sees of a surface's trend, shape (n_terms, n_readings): asked for at every query."""
        return {s: self.priors[s].trend(design.spots).T @ design.weights.T for s, design in self.designs.items()}

    @cached_property
    def _asked(self) -> OrderedDict[tuple[SurfaceName, bytes], Floats]:
        """What was asked for last: a value, its deviation and what it rests on are asked for one after the other."""
        return OrderedDict()

    def _cross(self, queries: Sequence[Query]) -> Floats:
        """Return the covariance of queried values with readings, (n_queried, n_readings); kept: not to be changed."""
        blocks = [self._cross_of(surface, spots) for surface, spots in queries]
        return blocks[0] if len(blocks) == 1 else np.vstack(blocks)

    def _cross_of(self, surface: SurfaceName, spots: Floats) -> Floats:
        design = self.designs.get(surface)
        if design is None:
            return np.zeros((len(spots), len(self.observations)))
        name = (surface, spots.tobytes())
        found = self._asked.get(name)
        if found is None:
            prior = self.priors[surface]
            found = prior.trend(spots) @ self._trends[surface]
            found += prior.local(spots, design.spots) @ design.weights.T
            if found.nbytes <= MOST_ASKED_BYTES:
                self._asked[name] = found
                with suppress(KeyError):  # another thread may be at it
                    while len(self._asked) > MOST_ASKED:
                        self._asked.popitem(last=False)
        return found

    def _prior_mean(self, queries: Sequence[Query]) -> Floats:
        return np.concatenate([self.priors[surface].mean(spots) for surface, spots in queries])

    def mean(self, *queries: Query) -> Floats:
        """Return the expected surface values, mm, shape (n,)."""
        return np.asarray(self._prior_mean(queries) + self._cross(queries) @ self.solution)

    def mean_and_sd(self, *queries: Query) -> tuple[Floats, Floats]:
        """Return mean and standard deviation, mm, each of shape (n,); cheaper than `at` for many spots."""
        cross = self._cross(queries)
        half = self.whitened(cross.T)
        prior = np.concatenate([self.priors[s].variance(spots) for s, spots in queries])
        variance = prior - np.einsum("ij,ij->j", half, half)
        return np.asarray(self._prior_mean(queries) + cross @ self.solution), np.sqrt(np.maximum(variance, 0.0))

    def line(self, surface: SurfaceName, spots: Floats, anchor: Spot | None = None) -> Line:
        """Return what is known along a line of spots, counted from the value at `anchor` where one is given."""
        both = spots if anchor is None else np.vstack([spots, [anchor]])
        cross = self._cross([(surface, both)])
        half = self.whitened(cross.T)
        mean = self._prior_mean([(surface, both)]) + cross @ self.solution
        return Line(self.priors[surface], both, np.asarray(mean), np.asarray(half), anchored=anchor is not None)

    def sd_apart(self, surface: SurfaceName, spots: Floats, origin: Floats) -> Floats:
        """Return the standard deviation, mm, shape (n,), of the difference between each spot and one other."""
        return self.line(surface, np.vstack([spots, origin[None, :]])).all_apart(-1)[:-1]

    def at(self, *queries: Query) -> Estimate:
        """Return the joint estimate of the surface values at all queried spots."""
        cross = self._cross(queries)
        half = self.whitened(cross.T)
        covariance = _prior_covariance(self.priors, queries) - half.T @ half
        return Estimate(np.asarray(self._prior_mean(queries) + cross @ self.solution), covariance)

    def unknown(self, name: str) -> tuple[float, float]:
        """Return an unknown beside the surfaces (a set-up's place, mm; a level's bias, mm per m) and its deviation.

        Raises:
            KeyError: There is no such unknown.
        """
        mean, sd = self.unknowns[name]
        cross = sd**2 * self.unknown_weights[:, list(self.unknowns).index(name)]
        half = self.whitened(cross[:, None])[:, 0]
        return mean + float(cross @ self.solution), math.sqrt(max(sd**2 - float(half @ half), 0.0))

    def weights(self, *queries: Query) -> Floats:
        """Return how much each reading moves each queried value, mm per mm, shape (n_queried, n_readings)."""
        return np.asarray(self._cross(queries) @ self.precision)


@dataclass(frozen=True)
class Line:
    """What is known along a line of spots of one surface; if anchored, the last spot is what the others count from.

    Attributes:
        prior: The surface's prior. spots: The spots, the anchor last.
        values: Expected values, mm. half: L⁻¹ of their covariance with the readings.
    """

    prior: SurfacePrior
    spots: Floats
    values: Floats
    half: Floats
    anchored: bool

    @cached_property
    def mean(self) -> Floats:
        """Expected values, mm, from the anchor if there is one."""
        return np.asarray(self.values[:-1] - self.values[-1]) if self.anchored else self.values

    @cached_property
    def sd(self) -> Floats:
        """Standard deviation of each, mm."""
        variance = self._variance
        if self.anchored:
            column = self.prior.covariance(self.spots, self.spots[-1:])[:, 0] - self.half.T @ self.half[:, -1]
            variance = (variance - 2 * column + variance[-1])[:-1]
        return np.asarray(np.sqrt(np.maximum(variance, 0.0)))

    @cached_property
    def _variance(self) -> Floats:
        return np.asarray(self.prior.variance(self.spots) - np.einsum("ij,ij->j", self.half, self.half))

    def all_apart(self, i: int) -> Floats:
        """Return the standard deviation, mm, shape (n,), of the difference between each spot and one of them."""
        column = self.prior.covariance(self.spots, self.spots[[i]])[:, 0] - self.half.T @ self.half[:, i]
        return np.asarray(np.sqrt(np.maximum(self._variance - 2 * column + self._variance[i], 0.0)))

    def joint(self, kept: NDArray[np.intp]) -> Estimate:
        """Return the joint estimate of some of the spots, not counted from an anchor."""
        half = self.half[:, kept]
        covariance = self.prior.covariance(self.spots[kept], self.spots[kept]) - half.T @ half
        return Estimate(self.values[kept], np.asarray(covariance))

    def apart(self, i: int, j: int) -> float:
        """Return the standard deviation of the difference between two spots, mm."""
        between = float(
            self.prior.covariance(self.spots[[i]], self.spots[[j]])[0, 0] - self.half[:, i] @ self.half[:, j]
        )
        return math.sqrt(max(float(self._variance[i] + self._variance[j]) - 2 * between, 0.0))


def draws(estimate: Estimate, n_draws: int, seed: int) -> Floats:
    """Return joint draws of the queried values, mm, shape (n_draws, n).

    How much a surface may do between its readings is itself known to about a third: integrated over that, its values
    are Student's t together, of the same covariance (Gelman et al. 2013, appendix A). Highest and lowest spots, and
    what goes in between walls, then vary as much as they do in places of any kind.

    In memory the draws of one value lie together, as they are what maxima and means run over.
    """
    root, triangular = _square_root(estimate.covariance)
    n = root.shape[1]
    normals = _normals(-(-n // NORMALS_STEP) * NORMALS_STEP, n_draws, seed)[:n]
    if not triangular or not n:
        return np.asarray((estimate.mean[:, None] + root @ normals).T)
    # half of a triangle is nothing: the library's own product for it takes half the time, and lies as we want it
    out = np.asarray(dtrmm(1.0, root.T, normals.T, side=1))
    out += estimate.mean
    return out


@lru_cache(maxsize=8)
def _normals(n: int, n_draws: int, seed: int) -> Floats:
    """Return numbers of unit variance, shape (n, n_draws), normal but for a scale of each draw.

    The first rows are the same whatever n is: two decisions are compared on the same draws, and the numbers are not
    thrown again for each.
    """
    normals = np.random.default_rng(seed).standard_normal((n, n_draws))
    normals *= np.sqrt((FREEDOM - 2) / np.random.default_rng((seed, 1)).chisquare(FREEDOM, n_draws))
    normals.flags.writeable = False
    return normals


def _square_root(covariance: Floats) -> tuple[Floats, bool]:
    """Return a root of a covariance, and whether it is a lower triangle."""
    try:
        return np.asarray(np.linalg.cholesky(covariance + JITTER_MM2 * np.eye(len(covariance)))), True
    except np.linalg.LinAlgError:  # cancellation left a slightly negative eigenvalue: cut it off at zero
        values, vectors = np.linalg.eigh(covariance)
        return np.asarray(vectors * np.sqrt(np.maximum(values, 0.0))), False


def _prior_covariance(priors: Mapping[SurfaceName, SurfacePrior], queries: Sequence[Query]) -> Floats:
    sizes = np.cumsum([0, *(len(spots) for _, spots in queries)])
    out = np.zeros((sizes[-1], sizes[-1]))
    for i, (surface, spots) in enumerate(queries):
        for j, (other, others) in enumerate(queries):
            if surface == other:
                out[sizes[i] : sizes[i + 1], sizes[j] : sizes[j + 1]] = priors[surface].covariance(spots, others)
    return out


def design(observations: Sequence[Observation]) -> dict[SurfaceName, SurfaceDesign]:
    """Return how the readings see each surface; spots named twice are one unknown."""
    places: dict[SurfaceName, dict[tuple[float, float], int]] = {}
    for observation in observations:
        for surface, spot, _ in observation.surface_terms:
            spots = places.setdefault(surface, {})
            spots.setdefault(spot, len(spots))
    weights = {surface: np.zeros((len(observations), len(spots))) for surface, spots in places.items()}
    for row, observation in enumerate(observations):
        for surface, spot, weight in observation.surface_terms:
            weights[surface][row, places[surface][spot]] += weight
    return {s: SurfaceDesign(np.asarray(list(spots), dtype=float), weights[s]) for s, spots in places.items()}


def adjust(
    observations: Sequence[Observation],
    priors: Mapping[SurfaceName, SurfacePrior],
    unknowns: Mapping[str, tuple[float, float]],
) -> Adjustment:
    """Solve all surfaces and all other unknowns from all readings.

    Args:
        observations: The readings as linear sums; none is allowed, and leaves the prior.
        priors: Prior of every surface that the place has.
        unknowns: Mean and standard deviation of every other unknown before the readings.
    """
    designs = design(observations)
    column = {name: i for i, name in enumerate(unknowns)}
    unknown_weights = np.zeros((len(observations), len(column)))
    for row, observation in enumerate(observations):
        for name, weight in observation.unknown_terms:
            unknown_weights[row, column[name]] += weight
    return _solved(tuple(observations), priors, designs, dict(unknowns), unknown_weights)


def _solved(
    observations: tuple[Observation, ...],
    priors: Mapping[SurfaceName, SurfacePrior],
    designs: Mapping[SurfaceName, SurfaceDesign],
    unknowns: Mapping[str, tuple[float, float]],
    unknown_weights: Floats,
) -> Adjustment:
    """Put together the covariance of readings and how far they are from what is expected."""
    covariance = np.diag([o.sigma_mm**2 for o in observations]) if observations else np.zeros((0, 0))
    expected = unknown_weights @ np.asarray([mean for mean, _ in unknowns.values()]) if unknowns else 0.0
    covariance = covariance + (unknown_weights * np.asarray([sd**2 for _, sd in unknowns.values()])) @ unknown_weights.T
    for surface, seen in designs.items():
        prior = priors[surface]
        # a reading sees one to three spots of thousands: most of the weights are zero
        sparse = csr_array(seen.weights)
        half = sparse @ prior.covariance(seen.spots, seen.spots)
        covariance += sparse @ np.ascontiguousarray(half.T)
        expected = expected + seen.weights @ prior.mean(seen.spots)
    residual = np.asarray([o.value_mm for o in observations]) - expected
    return Adjustment(
        observations, priors, designs, unknowns, unknown_weights, covariance, np.asarray(residual, dtype=float)
    )
