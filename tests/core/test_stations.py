"""The round to walk, and which reading tells most."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import EXACT, LOST_LINE, RULE, box, floor_at, grid, job_of, offset
from wobble.core.gauge.stations import PITCH_MM, next_reading, stations, with_readings
from wobble.core.gauge.surveyed import surveyed
from wobble.core.job import WallStep
from wobble.core.stages import survey_of


@settings(max_examples=60)
@given(st.floats(300, 6000), st.floats(150, 900), st.booleans())
def test_stations_lie_in_the_place_close_enough_and_in_walking_order(width, depth, with_units):
    units = (box("A", width=min(600, width)),) if with_units else ()
    place = job_of(width=width, depth=depth, units=units).places[0]
    round_ = stations(place)
    assert len({s.id for s in round_}) == len(round_)
    for surface in ("floor", "back"):
        mine = [s.at for s in round_ if s.surface == surface]
        for (x, other), high in ((at, depth if surface == "floor" else 2400.0) for at in mine):
            assert 0 <= x <= width
            assert 0 <= other <= high
        steps = [math.dist(a, b) for a, b in pairwise(mine)]
        assert max(steps, default=0) <= max(PITCH_MM, depth) + 1, "no step of the walk is longer than the pitch"


def test_each_side_of_a_known_edge_is_read_as_a_surface_of_its_own():
    """Floor of 3000 by 2000 that drops from 1300 on: columns of either side begin and end 60 off the edge and corners.

    In six gaps of 480 they were at 60, 540, 1020, 1500, 1980, 2460, 2940; 1240 and 1360 come in beside the edge, less
    than 480 from the next on either side. A strip of 100 across the front is too narrow for rows that stand off both
    its edges: it has one in the middle.
    """
    drop = WallStep(id="s", name="Slab", surface="floor", from_mm=1300.0, to_mm=9000.0, by_mm=-12.0)
    strip = replace(drop, id="t", axis="second", from_mm=1000.0, to_mm=1100.0)
    place = job_of(width=3000.0, depth=2000.0, steps=(drop, strip)).places[0]
    floor = [s.at for s in stations(place) if s.surface == "floor"]
    columns, rows = (sorted({at[k] for at in floor}) for k in (0, 1))
    assert columns == [60.0, 540.0, 1020.0, 1240.0, 1360.0, 1500.0, 1980.0, 2460.0, 2940.0]
    assert 1050.0 in rows
    assert not [y for y in rows if 940.0 < y < 1160.0 and y != 1050.0]
    assert sum(y <= 940.0 for y in rows) >= 3 <= sum(y >= 1160.0 for y in rows)
    plain = job_of(width=3000.0, depth=2000.0).places[0]
    assert sorted({s.at[0] for s in stations(plain) if s.surface == "floor"}) == [60.0 + 480 * i for i in range(7)]


def test_a_reading_near_a_station_is_its_reading():
    job = job_of(width=1200.0)
    station = stations(job.places[0])[0]
    near = (station.at[0] + 20, station.at[1])
    job = job_of(offset("near", "floor", near, 1000.0), width=1200.0)
    round_ = with_readings(stations(job.places[0]), survey_of(job, job.places[0].id))
    assert [s.id for s in round_ if s.read_by == "near"] == [station.id]


def test_the_next_reading_is_the_one_that_helps_most_when_each_is_tried():
    """Take every open station's reading in turn, survey again, and compare what the floor under the round is then."""
    job = job_of(*floor_at([(60, 60), (1100, 500)], lambda x, y: 0.0, instrument=RULE), width=3000.0)
    place = job.places[0]
    found = survey_of(job, place.id)
    round_ = with_readings(stations(place), found)
    wanted = np.asarray([s.at for s in round_ if s.surface == "floor"])
    proposed = next_reading(found, round_, "floor", wanted, EXACT)
    assert proposed is not None

    def left_open(at):
        more = job_of(*place.readings, offset("more", "floor", at, 1000.0), width=3000.0)
        covariance = survey_of(more, more.places[0].id).adjustment.at(("floor", wanted)).covariance
        centring = np.eye(len(wanted)) - 1 / len(wanted)
        return float(np.trace(centring @ covariance @ centring.T))

    tried = {s.id: left_open(s.at) for s in round_ if s.surface == "floor" and s.read_by is None}
    assert tried[proposed.station] == pytest.approx(min(tried.values()), rel=0.02)
    assert proposed.worst_sd_then_mm <= proposed.worst_sd_now_mm


def test_a_place_without_readings_can_be_drawn():
    job = job_of()
    found = surveyed(survey_of(job, job.places[0].id), job.places[0])
    assert {s.surface: s.n_readings for s in found.surfaces} == {"floor": 0, "back": 0}
    assert found.next_reading is None
    assert found.verdicts == ()
    assert np.isfinite(found.surfaces[0].mean_mm).all()


def test_a_surface_whose_place_is_unknown_is_drawn_with_what_is_known_of_its_shape():
    lost = floor_at(grid(3000, 600, 7, 3), lambda x, y: -0.004 * x, line=LOST_LINE, line_at=1234.0)
    job = job_of(*lost)
    shape = next(s for s in surveyed(survey_of(job, job.places[0].id), job.places[0]).surfaces if s.surface == "floor")
    assert not shape.tied
    assert np.max(shape.sd_mm) < 2
    assert shape.mean_mm[0][0] - shape.mean_mm[0][-1] == pytest.approx(12.0, abs=0.1)


def test_the_drawn_grid_is_the_surface():
    job = job_of(*floor_at(grid(3000, 600, 7, 3), lambda x, y: -0.004 * x))
    shape = next(s for s in surveyed(survey_of(job, job.places[0].id), job.places[0]).surfaces if s.surface == "floor")
    mean = np.asarray(shape.mean_mm)
    assert mean.shape == (len(shape.second), len(shape.first))
    assert mean == pytest.approx(np.tile(-0.004 * np.asarray(shape.first), (len(shape.second), 1)), abs=0.1)
