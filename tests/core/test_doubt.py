"""Misreads are found, and only misreads."""

from __future__ import annotations

import numpy as np
import pytest
from bench.accuracy import accuracy, measured_room, with_misread
from msgspec.structs import replace

from tests.catalogue import RULE, floor_at, grid, job_of, offset
from wobble.core.gauge.doubts.causes import likely_slip
from wobble.core.gauge.doubts.doubt import critical_z
from wobble.core.job import Offset
from wobble.core.practice.gable import MISREAD_MM, gable_workroom
from wobble.core.practice.rooms import made_up_room
from wobble.core.stages import survey_of


def test_leave_one_out_is_what_leaving_one_out_gives():
    """Each verdict's figure, against the survey done again without that reading."""
    # seven readings: one fewer than refines the house character, which would otherwise differ with six
    readings = floor_at(grid(3000, 600, 4, 2)[:7], lambda x, y: 0.002 * x + 0.3 * np.sin(x + y), instrument=RULE)
    whole = job_of(*readings)
    found = survey_of(whole, whole.places[0].id)
    for i in (0, 3, 6):
        rest = job_of(*(r for k, r in enumerate(readings) if k != i))
        expected = survey_of(rest, rest.places[0].id).adjustment.at(("floor", np.array([readings[i].at])))
        verdict = found.disagreements[i]
        assert verdict.by_mm == pytest.approx(readings[i].value_mm - (1000.0 - expected.mean[0]), abs=2e-3)
        assert verdict.sd_mm == pytest.approx(np.hypot(expected.sd[0], RULE.sigma_mm), rel=1e-3)


def test_the_demo_has_one_misread_and_it_is_pointed_out_with_its_size():
    job = gable_workroom()
    found = survey_of(job, job.places[0].id)
    (suspect,) = found.suspects
    truth = next(r for r in job.places[0].readings if r.id == suspect.reading_id)
    assert isinstance(truth, Offset)
    assert truth.at == (2090.0, 60.0)
    assert suspect.by_mm == pytest.approx(MISREAD_MM, abs=2 * suspect.sd_mm)
    assert likely_slip(suspect.by_mm) == "a slip of one centimetre"


def test_two_misreads_are_both_found():
    readings = list(floor_at(grid(3000, 600, 8, 3), lambda x, y: -0.003 * x, instrument=RULE))
    for i, slip in ((5, 10.0), (17, -25.4)):
        readings[i] = replace(readings[i], value_mm=readings[i].value_mm + slip)
    job = job_of(*readings)
    assert {s.reading_id for s in survey_of(job, job.places[0].id).suspects} == {"f5", "f17"}


def test_one_or_two_readings_accuse_nobody():
    for readings in ([], [offset("a", "floor", (0, 0), 900.0)], list(floor_at([(0, 0), (3000, 0)], lambda x, y: x))):
        job = job_of(*readings)
        assert survey_of(job, job.places[0].id).suspects == ()


@pytest.mark.parametrize(
    ("by", "slip"),
    [
        (10.9, "a slip of one centimetre"),
        (-9.2, "a slip of one centimetre"),
        (24.5, "a slip of one inch"),
        (15.0, ""),
        (0.4, ""),
    ],
)
def test_slips_are_named(by, slip):
    assert likely_slip(by) == slip


def test_false_alarms_stay_under_their_rate():
    """Bonferroni: with z as computed, n independent normal residuals stay below it with 97 %."""
    z = critical_z(40)
    normal = np.random.default_rng(3).standard_normal((20_000, 40))
    assert (np.abs(normal).max(axis=1) > z).mean() == pytest.approx(0.03, abs=0.005)


def test_made_up_rooms_meet_what_the_bench_promises():
    """A part of the bench: better than both baselines, honest intervals, misreads found."""
    found = accuracy(40)
    assert found.rms_mm["survey"] < min(found.rms_mm["plane"], found.rms_mm["interpolation"])
    assert 0.93 <= found.coverage <= 0.99
    assert found.found >= 0.95
    assert found.accused <= 0.05


def test_a_misread_does_not_move_the_figures():
    """Ten millimetres on one reading, found and left out, moves the floor there by less than two."""
    clean = measured_room(made_up_room(4), 4)
    wrong, culprit = with_misread(clean, 4)
    before, after = (survey_of(job, job.places[0].id) for job in (clean, wrong))
    reading = before.readings[culprit]
    query = (reading.surface, np.array([reading.at]))  # type: ignore[union-attr]
    assert abs(before.adjustment.mean(query)[0] - after.adjustment.mean(query)[0]) < 2.0
