"""What is said of rooms of several kinds comes true as often as is said, whatever kind they are said to be."""

from __future__ import annotations

import numpy as np
import pytest
from bench.alcoves import Verdicts
from bench.calibration import KINDS, deciles, promises, verdicts

from wobble.core.confidence import SURE, as_it_happens
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


@pytest.fixture(scope="module")
def boxes():
    found = Verdicts()
    for kind in KINDS:
        some = verdicts(80, kind, OTHERS)
        found.chances += some.chances
        found.goes += some.goes
    return found


def test_boxes_that_are_said_to_go_in_do(boxes):
    assert boxes.right_when_sure >= 0.95  # close calls all: of boxes picked blindly, see the bench
    assert boxes.stuck_when_sure <= 0.05
    off = sum((said - came) * many for said, came, many in deciles(boxes)) / len(boxes.chances)
    assert -0.08 <= off <= 0.05, "if anything, too careful"


def test_what_is_said_to_go_in_seldom_does_so_as_seldom(boxes):
    """Of a hundred boxes of less than an even chance: the share that goes in, within what chance alone does to it."""
    said, came = np.asarray(boxes.chances), np.asarray(boxes.goes)
    seldom = (said > 0.02) & (said < 0.5)
    assert seldom.sum() > 80
    allowed = 2 * np.sqrt(np.mean(said[seldom] * (1 - said[seldom])) / seldom.sum())
    assert abs(said[seldom].mean() - came[seldom].mean()) <= allowed


def test_a_chance_as_it_happens_keeps_its_order_and_makes_nobody_surer_that_a_box_goes_in():
    shares = np.linspace(0.0, 1.0, 401)
    happens = np.array([as_it_happens(float(s)) for s in shares])
    assert np.all(np.diff(happens) > 0)
    assert happens[0] == 0.0
    assert happens[shares >= 0.6] == pytest.approx(shares[shares >= 0.6])
    assert np.all(happens >= shares - 1e-12)
    # and what is surely said not to go is so in fewer cases
    assert as_it_happens(0.04) > 1 - SURE > as_it_happens(0.02)


def test_draws_are_of_the_stated_covariance_and_of_heavier_tails_than_normal_ones():
    """Student's t of five degrees, of unit variance: past three deviations 2 · P(T > 3 √(5/3)) = 1.17 %, not 0.27 %."""
    many = draws(Estimate(np.array([1.0, 2.0]), np.array([[4.0, 1.2], [1.2, 1.0]])), 40_000, 3)
    assert FREEDOM == 5.0
    assert many.mean(axis=0) == pytest.approx([1.0, 2.0], abs=0.03)
    assert np.cov(many.T) == pytest.approx(np.array([[4.0, 1.2], [1.2, 1.0]]), rel=0.08)
    assert np.mean(np.abs(many[:, 0] - 1.0) > 6.0) == pytest.approx(0.0117, abs=0.002)
