"""What is said of rooms of several kinds comes true as often as is said, whatever kind they are said to be."""

from __future__ import annotations

import numpy as np
import pytest
from bench.alcoves import Verdicts
from bench.calibration import KINDS, deciles, promises, verdicts

from wobble.core.gauge.adjust import FREEDOM, Estimate, draws

OTHERS = 70_000
"""Rooms kept apart from those on which anything was chosen."""


@pytest.fixture(scope="module")
def kept():
    return {kind: promises(9, kind, OTHERS) for kind in KINDS}


def test_spots_lie_where_they_are_said_to_in_rooms_of_any_kind(kept):
    for kind, found in kept.items():
        assert np.mean(found.spots) >= 0.91, kind


def test_highest_and_lowest_spots_lie_where_they_are_said_to(kept):
    """Intervals of 95 %, of maxima and minima over areas as units have them: 270 in all."""
    for which in ("highest", "lowest"):
        inside = [hit for found in kept.values() for hit in getattr(found, which)]
        assert len(inside) == 270
        assert 0.9 <= np.mean(inside) <= 0.98, which


def test_boxes_that_are_said_to_go_in_do():
    found = Verdicts()
    for kind in KINDS:
        some = verdicts(20, kind, OTHERS)
        found.chances += some.chances
        found.goes += some.goes
    assert found.right_when_sure >= 0.93  # close calls all: of boxes picked blindly, see the bench
    assert found.stuck_when_sure <= 0.05
    off = sum((said - came) * many for said, came, many in deciles(found)) / len(found.chances)
    assert -0.12 <= off <= 0.05, "if anything, too careful"


def test_draws_are_of_the_stated_covariance_and_of_heavier_tails_than_normal_ones():
    """Student's t of five degrees, of unit variance: past three deviations 2 · P(T > 3 √(5/3)) = 1.17 %, not 0.27 %."""
    many = draws(Estimate(np.array([1.0, 2.0]), np.array([[4.0, 1.2], [1.2, 1.0]])), 40_000, 3)
    assert FREEDOM == 5.0
    assert many.mean(axis=0) == pytest.approx([1.0, 2.0], abs=0.03)
    assert np.cov(many.T) == pytest.approx(np.array([[4.0, 1.2], [1.2, 1.0]]), rel=0.08)
    assert np.mean(np.abs(many[:, 0] - 1.0) > 6.0) == pytest.approx(0.0117, abs=0.002)
