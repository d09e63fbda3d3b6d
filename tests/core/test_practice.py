"""A practice: simulated instruments, a truth that is kept, an apprentice who slips once, and how near one came."""

from __future__ import annotations

from datetime import UTC, datetime

import numpy as np
import pytest
from msgspec.structs import replace

from wobble.core.errors import SurveyError
from wobble.core.gauge.stations import ROUND_MARK_MM, stations
from wobble.core.job import READING_KINDS, Job, Offset, Place, with_facts
from wobble.core.practice.corner import APPRENTICE, crooked, practice_job, read, true_place
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.rooms import made_up_room
from wobble.core.stages import solve_fit, solve_practice, survey_of

LINES = {"floor": "level", "back": "back", "left": "side"}
WHEN = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)


def asked(job: Job, by: str = APPRENTICE) -> list[Offset]:
    return [
        Offset(
            id=f"r-{s.id}",
            instrument="laser",
            taken_at=WHEN,
            taken_by=by,
            surface=s.surface,
            at=s.at,
            set_up=LINES[s.surface],
            value_mm=0.0,
        )
        for s in stations(job.places[0], job.units)
    ]


def with_readings(job: Job, readings: tuple[Offset, ...]) -> Job:
    return replace(job, places=(with_facts(job.places[0], READING_KINDS, readings),))


@pytest.mark.parametrize("units", ["mm", "in"])
def test_the_apprentice_slips_once_and_it_is_found(units):
    found = 0
    for seed in (3, 40, 500, 6000, 70000, 11):
        job = practice_job(crooked(seed), units)
        slipped = read(job, job.places[0], asked(job), apprentice=True)
        clean = read(job, job.places[0], asked(job), apprentice=False)
        wrong = [a.id for a, b in zip(slipped, clean, strict=True) if a.value_mm != b.value_mm]
        assert len(wrong) == 1
        off = abs(next(a.value_mm - b.value_mm for a, b in zip(slipped, clean, strict=True) if a.id == wrong[0]))
        assert off == pytest.approx(10.0 if units == "mm" else 12.7)
        stands = with_readings(job, slipped)
        suspects = [d.reading_id for d in survey_of(stands, "corner").suspects]
        found += suspects == wrong
        assert wrong[0] in suspects
        later = read(stands, stands.places[0], asked(job), apprentice=True)
        assert [r.value_mm for r in later] == [r.value_mm for r in clean], "he has slipped already"
    assert found >= 5, "others are accused rarely"


def test_the_way_goes_from_three_by_hand_to_the_truth():
    job = practice_job(crooked(3), "mm")
    all_ = read(job, job.places[0], asked(job), apprentice=True)
    clean = read(job, job.places[0], asked(job), apprentice=False)
    assert solve_practice(job, "corner").next == "read"
    assert solve_practice(with_readings(job, all_[:2]), "corner").next == "read"
    assert solve_practice(with_readings(job, all_[:3]), "corner").next == "rest"
    assert solve_practice(with_readings(job, all_[:3]), "corner").nearness is None
    assert solve_practice(with_readings(job, all_), "corner").next == "again"
    done = solve_practice(with_readings(job, clean), "corner")
    assert (done.next, done.read, done.again) == ("fit", done.of, 0)
    assert done.nearness is not None


def test_how_near_one_came_is_told_against_the_room_itself():
    seed = crooked(40)
    job = practice_job(seed, "mm")
    job = with_readings(job, read(job, job.places[0], asked(job), apprentice=False))
    told = solve_practice(job, "corner").nearness
    plan = solve_fit(job, "corner").plan
    assert told is not None
    assert plan is not None
    floor = made_up_room(seed).surfaces["floor"]
    for stood in told.units:
        mine = [s for s in plan.shims if s.unit == stood.unit]
        bare = [float(floor.at(np.asarray([s.at]))[0]) for s in mine]
        packed = [b + s.gap.value_mm for b, s in zip(bare, mine, strict=True)]
        assert stood.bare_mm == pytest.approx(max(bare) - min(bare))
        assert stood.packed_mm == pytest.approx(max(packed) - min(packed))
    assert told.shims_of == len(plan.shims)
    held = sum(s.held for s in told.surfaces)
    assert held >= 0.85 * sum(s.of for s in told.surfaces)
    assert all(s.usual_mm < 1.5 for s in told.surfaces)


def test_of_a_real_place_nobody_knows_the_truth():
    job = gable_workroom()
    with pytest.raises(SurveyError, match="real place"):
        true_place(job.places[0])
    with pytest.raises(SurveyError, match="real place"):
        solve_practice(job, "north")


def test_an_instrument_that_is_not_there_is_named():
    job = practice_job(3, "mm")
    odd = [replace(asked(job)[0], instrument="theodolite")]
    with pytest.raises(SurveyError, match="theodolite"):
        read(job, job.places[0], odd, apprentice=False)


@pytest.mark.parametrize("units", ["mm", "in"])
def test_stations_stand_on_marks_of_the_rule_and_inside_their_surface(units):
    place = replace(gable_workroom().places[0], width_mm=3241.3, depth_mm=601.7)
    for station in stations(place, units):
        for value in station.at:
            assert value / ROUND_MARK_MM[units] == pytest.approx(round(value / ROUND_MARK_MM[units]), abs=1e-9)
        size = {"floor": (place.width_mm, place.depth_mm), "back": (place.width_mm, place.height_mm)}
        most = size.get(station.surface, (place.depth_mm, place.height_mm))
        assert all(0 <= v <= m for v, m in zip(station.at, most, strict=True))


def test_a_place_that_is_smaller_than_a_mark_still_has_stations():
    tiny = Place(id="p", name="Nook", width_mm=4.0, depth_mm=3.0, height_mm=3.0)
    assert all(v == 0.0 for s in stations(tiny, "in") for v in s.at)
