"""The joint adjustment against answers worked out by hand or by another way of computing them."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import (
    EXACT,
    LINE,
    LOST_LINE,
    WHEN,
    floor_at,
    grid,
    job_of,
    offset,
    slope,
)
from wobble.core.gauge.adjust import MOST_ASKED, MOST_ASKED_BYTES, draws
from wobble.core.gauge.observe import rise_mm
from wobble.core.gauge.survey import Survey
from wobble.core.job import Aside, Job, Slope, Span, active_readings
from wobble.core.practice.gable import gable_workroom
from wobble.core.stages import survey_of

ROOM = grid(3000, 600, 7, 3)


def surveyed(job: Job) -> Survey:
    return survey_of(job, job.places[0].id)


def floor(found: Survey, *spots: tuple[float, float]):
    return found.adjustment.at(("floor", np.asarray(spots, dtype=float)))


def test_a_plane_floor_is_found_between_and_beyond_its_stations():
    def fall(x, y):
        return 4.0 - 12.0 * x / 3000 + 3.0 * y / 600

    found = floor(surveyed(job_of(*floor_at(ROOM, fall))), (250, 150), (2750, 450), (1500, 560))
    assert found.mean == pytest.approx([fall(250, 150), fall(2750, 450), fall(1500, 560)], abs=0.1)


def test_two_level_readings_and_no_height():
    """The difference along the level is known, the height is not, and the uncertainties say so."""
    job = job_of(slope("a", (300, 300), (1500, 300), -6.0), slope("b", (1500, 300), (2700, 300), -2.0))
    found = floor(surveyed(job), (300, 300), (1500, 300), (2700, 300))
    rise = found.mean - found.mean[0]
    assert rise == pytest.approx([0, -6, -8], abs=0.05)
    apart = np.sqrt(found.covariance[0, 0] + found.covariance[2, 2] - 2 * found.covariance[0, 2])
    assert apart < 0.05
    assert found.sd.min() > 400, "no reading says how high the floor stands"


def test_a_floor_reading_is_down_from_its_line_and_a_back_reading_out_from_its_plane():
    """Line at 1000, floor 1003 below it: 3 under the mark. Plane 500 out, wall 495 behind it: 5 proud."""
    job = job_of(
        offset("f", "floor", (500, 300), 1003.0),
        replace(offset("b", "back", (500, 300), 495.0), set_up="plumb"),
    )
    found = surveyed(job).adjustment
    assert found.mean(("floor", np.array([[500.0, 300.0]])))[0] == pytest.approx(-3.0, abs=0.02)
    assert found.mean(("back", np.array([[500.0, 300.0]])))[0] == pytest.approx(5.0, abs=0.02)


def test_a_span_is_the_far_surface_less_the_near_one():
    """Floor 2 under the mark and 2390 clear over it: the ceiling is at 2388."""
    span = Span(id="s", instrument=EXACT.id, taken_at=WHEN, between="floor-ceiling", at=(900, 300), value_mm=2390.0)
    job = job_of(offset("f", "floor", (900, 300), 1002.0), span, surfaces=("floor", "ceiling"))
    found = surveyed(job).adjustment
    assert found.mean(("ceiling", np.array([[900.0, 300.0]])))[0] == pytest.approx(2388.0, abs=0.03)


@pytest.mark.parametrize(("value", "unit", "rise"), [(3.0, "mm", 3.0), (5.0, "mm/m", 6.0), (0.5, "deg", 10.4718)])
def test_units_of_a_level_over_a_base_of_1200(value, unit, rise):
    """0.5° over 1200 mm rises 1200 · sin 0.5° = 10.47 mm."""
    reading = Slope(
        id="s", instrument="i", taken_at=WHEN, surface="floor", start=(0, 0), end=(1200, 0), value=value, unit=unit
    )
    assert rise_mm(reading) == pytest.approx(rise, abs=1e-3)


def test_a_moved_line_is_found_from_the_stations_read_from_both():
    """Nothing says where the second line stands; two shared stations tie it to the first."""

    def fall(x, y):
        return -0.004 * x

    first = floor_at(ROOM[:7], fall)
    second = floor_at([ROOM[0], ROOM[6], *ROOM[14:]], fall, line=LOST_LINE, line_at=1043.6, prefix="g")
    at, sd = surveyed(job_of(*first, *second)).adjustment.unknown("line:lost")
    assert sd < 0.1
    assert at == pytest.approx(1043.6, abs=max(3 * sd, 0.05))


@settings(max_examples=25)
@given(st.permutations(range(8)), st.lists(st.floats(-8, 8), min_size=8, max_size=8))
def test_the_order_of_readings_does_not_matter(order, heights):
    readings = [offset(f"r{i}", "floor", ROOM[2 * i], 1000 - h) for i, h in enumerate(heights)]
    one = floor(surveyed(job_of(*readings)), (700, 200), (2200, 500))
    other = floor(surveyed(job_of(*[readings[i] for i in order])), (700, 200), (2200, 500))
    assert one.mean == pytest.approx(other.mean, abs=1e-6)
    assert one.sd == pytest.approx(other.sd, abs=1e-6)


@settings(max_examples=25)
@given(st.floats(0, 3000), st.floats(0, 600))
def test_one_more_reading_never_makes_the_floor_less_known(x, y):
    before = job_of(*floor_at(ROOM[:7], lambda *_: 0.0))
    after = job_of(*floor_at(ROOM[:7], lambda *_: 0.0), offset("more", "floor", (x, y), 1000.0))
    spots = [(400, 300), (1600, 500), (x, y)]
    assert np.all(floor(surveyed(after), *spots).sd <= floor(surveyed(before), *spots).sd + 1e-6)


def test_dense_formula_gives_the_same_posterior():
    """Rasmussen & Williams equations 2.25 and 2.26 written out on one big covariance, without any shortcut."""
    readings = floor_at(ROOM, lambda x, y: 0.003 * x - 0.004 * y)
    found = surveyed(job_of(*readings, set_ups=(LINE,)))
    prior = found.adjustment.priors["floor"]
    at, wanted = np.asarray(ROOM), np.array([[333.0, 222.0], [2500.0, 17.0]])
    s = prior.covariance(at, at) + EXACT.sigma_mm**2 * np.eye(len(at))
    heights = np.array([1000.0 - r.value_mm for r in readings])
    cross = prior.covariance(wanted, at)
    mean = cross @ np.linalg.solve(s, heights)
    covariance = prior.covariance(wanted, wanted) - cross @ np.linalg.solve(s, cross.T)
    estimate = found.adjustment.at(("floor", wanted))
    assert estimate.mean == pytest.approx(mean, abs=1e-4)
    assert np.sqrt(np.diag(covariance)) == pytest.approx(estimate.sd, abs=1e-3)
    weights = found.adjustment.weights(("floor", wanted))
    assert weights @ (np.array([r.value_mm for r in readings]) - 1000) == pytest.approx(mean, abs=1e-4)


def test_difference_from_one_spot_has_the_joint_covariance():
    found = surveyed(job_of(*floor_at(ROOM[:9], lambda *_: 0.0)))
    spots = np.array([[100.0, 100.0], [1500.0, 500.0], [2900.0, 300.0]])
    joint = found.adjustment.at(("floor", spots)).covariance
    by_hand = np.sqrt(np.diag(joint) + joint[1, 1] - 2 * joint[:, 1])
    assert found.adjustment.sd_apart("floor", spots, spots[1]) == pytest.approx(by_hand, abs=1e-3)


def global_generator():
    return np.random.get_state(legacy=False)["state"]["key"].copy()


def test_draws_have_the_posterior_mean_and_spread_and_leave_the_global_generator_alone():
    estimate = floor(surveyed(job_of(*floor_at(ROOM[:5], lambda *_: 1.0))), (200, 100), (1800, 500))
    before = global_generator()
    sampled = draws(estimate, 4000, seed=7)
    assert np.array_equal(before, global_generator())
    assert sampled.mean(axis=0) == pytest.approx(estimate.mean, abs=5 * estimate.sd.max() / np.sqrt(4000))
    assert sampled.std(axis=0) == pytest.approx(estimate.sd, rel=0.06)
    assert np.array_equal(sampled, draws(estimate, 4000, seed=7))


def test_readings_set_aside_or_taken_again_do_not_count():
    wrong = offset("wrong", "floor", (1500, 300), 940.0)
    again = replace(offset("again", "floor", (1500, 300), 1000.0), supersedes="wrong")
    aside = replace(offset("aside", "floor", (500, 300), 900.0), aside=Aside(reason="on a clip", at=WHEN))
    plain = floor_at(ROOM, lambda *_: 0.0)
    found = floor(surveyed(job_of(*plain, wrong, again, aside)), (1500, 300), (500, 300))
    assert found.mean == pytest.approx([0, 0], abs=0.05)


def test_a_retake_that_is_set_aside_gives_the_earlier_reading_back():
    plain = floor_at(ROOM[:7], lambda *_: 0.0)
    first = offset("first", "floor", (1500, 300), 1002.0)
    again = replace(offset("again", "floor", (1500, 300), 1000.0), supersedes="first")
    undone = replace(again, aside=Aside(reason="taken back", at=WHEN))
    standing = [{r.id for r in active_readings(job_of(*plain, first, r).places[0])} for r in (again, undone)]
    assert [("first" in ids, "again" in ids) for ids in standing] == [(False, True), (True, False)]


def test_no_readings_leave_everything_unknown():
    found = floor(surveyed(job_of()), (100, 100))
    assert found.sd[0] > 400
    assert found.mean[0] == 0


@pytest.mark.parametrize("base_mm", [600.0, 1.0])
def test_readings_said_to_be_finer_than_anything_are_still_solved(base_mm):
    """An instrument said to read a millionth of a micrometre, one slope read ten times, a base of a millimetre."""
    job = gable_workroom()
    place = job.places[0]
    fine = tuple(replace(tool, sigma_mm=1e-9) for tool in job.instruments)
    again = tuple(
        Slope(
            id=f"again-{n}",
            taken_at=WHEN,
            instrument="level-600",
            surface="floor",
            start=(170.0, 60.0),
            end=(170.0 + base_mm, 60.0),
            value=0.0,
            unit="mm/m",
        )
        for n in range(10)
    )
    tried = replace(place, facts=(*place.facts, *again))
    found = survey_of(replace(job, instruments=fine, places=(tried,)), place.id)
    mean, sd = found.adjustment.mean_and_sd(("floor", np.array([[170.0, 60.0], [1600.0, 300.0]])))
    assert np.isfinite(mean).all()
    assert (sd < 20.0).all()


def test_what_was_asked_is_kept_within_bounds_and_answers_as_if_it_were_not():
    """Two hundred small questions and a large one: few are kept, and each, asked again, is what was answered first."""
    found = surveyed(gable_workroom()).adjustment
    anew = dataclasses.replace(found)
    questions = [np.array([[x, 80.0], [x, 400.0]]) for x in np.linspace(50, 3000, 200)]
    questions.append(np.stack([np.linspace(0, 3000, 500), np.full(500, 300.0)], axis=1))
    first = [found.mean_and_sd(("floor", spots)) for spots in questions]
    kept = found._asked.values()
    assert 0 < len(kept) <= MOST_ASKED
    assert all(cross.nbytes <= MOST_ASKED_BYTES for cross in kept)
    for spots, (mean, sd) in zip(questions, first, strict=True):
        again, fresh = found.at(("floor", spots)), anew.at(("floor", spots))
        assert again.mean == pytest.approx(mean, abs=1e-9)
        assert again.sd == pytest.approx(sd, abs=1e-6)
        assert again.mean == pytest.approx(fresh.mean, abs=1e-9)
