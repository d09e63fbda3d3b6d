"""How crooked a place is, as its readings have it, against sums over every case and densities written out."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from scipy.stats import multivariate_normal

from tests.catalogue import EXACT, LINE, PLUMB, RULE, job_of, offset
from wobble.core.gauge.doubts.doubt import HUMPS, tails
from wobble.core.gauge.doubts.refine import LOGS, OWN_LOG_SD, PLACE_LOG_SD, SCALES, evidence, together
from wobble.core.gauge.prior import (
    LONG_LENGTH_MM,
    ROUGH_ALONG,
    ROUGH_LENGTH_MM,
    SMOOTH_ALONG,
    SMOOTH_LENGTH_MM,
    surface_prior,
)
from wobble.core.job import Offset
from wobble.core.stages import survey_of

N = len(SCALES)


def test_the_scales_of_surfaces_are_those_of_every_case_weighed_out():
    """Brute force: every scale of the place beside every scale of both surfaces, each as likely as it is."""
    rng = np.random.default_rng(4)
    likely = {"floor": rng.uniform(0.1, 1.0, (N, N)), "back": rng.uniform(0.0, 1.0, (N, N)) ** 3}
    towards = np.exp(-0.5 * ((LOGS[:, None] - LOGS) / OWN_LOG_SD) ** 2)
    towards /= towards.sum(axis=1, keepdims=True)
    weight, squares = 0.0, np.zeros((2, 2))
    for t, floor, back in itertools.product(itertools.product(range(N), repeat=2), repeat=3):
        place = math.exp(-0.5 * sum((LOGS[k] / PLACE_LOG_SD) ** 2 for k in t))
        one = place * likely["floor"][floor] * likely["back"][back]
        one *= math.prod(towards[t[k], own[k]] for k in (0, 1) for own in (floor, back))
        weight += one
        squares += one * np.square([[SCALES[k] for k in floor], [SCALES[k] for k in back]])
    found = together(likely)  # type: ignore[arg-type]
    assert [found["floor"], found["back"]] == pytest.approx(np.sqrt(squares / weight))


def test_how_likely_scales_are_is_the_density_of_the_readings_under_them():
    rng = np.random.default_rng(5)
    roots = rng.normal(0, 0.4, (2, 7, 7))
    smooth, rough = (root @ root.T / 3 for root in roots)
    whole = smooth + rough + 0.2 * np.eye(7)
    half = np.linalg.inv(np.linalg.cholesky(whole))
    read = rng.multivariate_normal(np.zeros(7), whole)
    told = evidence(half @ smooth @ half.T, half @ rough @ half.T, half @ read)
    density = [
        [multivariate_normal(cov=whole + (s * s - 1) * smooth + (r * r - 1) * rough).logpdf(read) for r in SCALES]
        for s in SCALES
    ]
    assert told - told[0, 0] == pytest.approx(np.asarray(density) - density[0][0])


def test_a_rough_wall_makes_the_floor_beside_it_likelier_to_be_rough():
    def floor_amplitudes(wall_mm: float) -> tuple[float, float]:
        spots = [(x, y) for x in np.linspace(60, 2940, 8).tolist() for y in (60.0, 300.0, 540.0)]
        rng = np.random.default_rng(6)
        read: list[Offset] = [
            offset(f"f{i}", "floor", at, 1000.0 + rng.normal(0, 0.5), instrument=RULE)
            for i, at in enumerate(spots[::2])
        ]
        for i, (x, z) in enumerate(spots):
            out = 500.0 + wall_mm * math.sin(x / 150 + z / 110)
            read.append(offset(f"b{i}", "back", (x, 3 * z), out, line=PLUMB, instrument=RULE))
        job = job_of(*read, set_ups=(LINE, PLUMB))
        amplitudes = survey_of(job, job.places[0].id).adjustment.priors["floor"].amplitudes
        return amplitudes.smooth_mm, amplitudes.rough_mm

    assert EXACT.sigma_mm < RULE.sigma_mm
    true, rough = floor_amplitudes(0.2), floor_amplitudes(4.0)
    assert rough[1] > 1.05 * true[1]


@pytest.mark.parametrize("n", [3, 60])
def test_what_falls_off_with_distance_is_the_sum_written_out(n):
    """Of few spots and of many on a grid, of which each place on an axis is worked out once."""
    prior = surface_prior(job_of().places[0], "back")
    axis = np.linspace(100.0, 2900.0, n)
    spots, others = np.stack([axis, axis[::-1] / 2], axis=1), np.stack([np.repeat(axis[::3], 3), axis], axis=1)[:n]

    def m52(d: float, length: float) -> float:
        r = math.sqrt(5) * d / length
        return (1 + r + r * r / 3) * math.exp(-r)

    def m32(d: float, length: float) -> float:
        r = math.sqrt(3) * d / length
        return (1 + r) * math.exp(-r)

    def value(p: np.ndarray, q: np.ndarray) -> float:
        far, along = math.dist(p, q), [abs(p[k] - q[k]) for k in (0, 1)]
        smooth = (1 - SMOOTH_ALONG) * m52(far, SMOOTH_LENGTH_MM)
        smooth += SMOOTH_ALONG / 2 * sum(m52(d, LONG_LENGTH_MM) for d in along)
        rough = (1 - ROUGH_ALONG) * m32(far, ROUGH_LENGTH_MM)
        rough += ROUGH_ALONG / 2 * sum(m32(d, ROUGH_LENGTH_MM) for d in along)
        return prior.amplitudes.smooth_mm**2 * smooth + prior.amplitudes.rough_mm**2 * rough

    by_hand = np.array([[value(p, q) for q in others] for p in spots])
    assert prior.local(spots, others) == pytest.approx(by_hand)
    assert np.diag(prior.local(spots, spots)) + (prior.trend(spots) ** 2).sum(axis=1) == pytest.approx(
        prior.variance(spots)
    )


def test_only_what_the_surface_leaves_open_has_heavy_tails():
    """All of the reading's own: as normal. None of it: 1.4. Half of the variance: √(½ + ½ · 1.4²) = 1.2166."""
    sigma = np.array([1.0, 0.0, 1.0])
    assert tails(np.array([1.0, 2.0, math.sqrt(2.0)]), sigma) == pytest.approx([1.0, HUMPS, 1.2166], abs=1e-4)
