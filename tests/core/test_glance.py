"""A job at a glance: what is next is what is missing, then what is wrong, then the next step of the work."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from msgspec.structs import replace

from wobble.core.facts import StepDone
from wobble.core.job import READING_KINDS, Job, Place, with_facts
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.signal_cabin import signal_cabin
from wobble.core.stages import solve_fit, solve_glance, solve_planned, survey_of
from wobble.core.stages.ordering import ordered_steps

WHEN = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)
BARE = Place(id="p", name="Cellar", width_mm=2000.0, depth_mm=600.0, height_mm=2300.0)


def test_nothing_is_measured_before_there_is_a_place_nor_planned_before_it_is_measured():
    assert solve_glance(Job(name="x")).next.stage == "place"
    empty = solve_glance(Job(name="x", places=(BARE,)))
    assert (empty.next.stage, empty.next.place) == ("setout", "p")
    assert empty.places[0].floor_mm == ()
    units = gable_workroom().places[0].units
    unread = solve_glance(replace(gable_workroom(), places=(replace(BARE, units=units, width_mm=3240.0),)))
    assert unread.next.stage == "gauge"
    assert "first reading" in unread.next.text


def test_a_reading_that_disagrees_comes_before_any_work_and_work_that_began_goes_on():
    job = gable_workroom()
    wrong = survey_of(job, "north").suspects
    assert len(wrong) == 1
    first = solve_glance(job)
    assert first.next.stage == "gauge"
    assert "one reading" in first.next.text
    fit = next(s for s in first.places[0].stages if s.stage == "fit")
    assert fit.stops >= 1
    steps, _ = ordered_steps(job)
    begun = _done(job, steps[0].key)
    assert solve_glance(begun).next.stage == "order"
    assert solve_glance(begun).next.text == f"{steps[1].name}."


def test_a_piece_that_something_stops_is_mended_before_its_own_step_and_holds_up_no_other():
    """Half way through, a unit is made higher than the room: its steps wait for that, those of others go on."""
    job = signal_cabin()
    place = job.places[0]
    unit = place.units[-1]
    high = replace(place, units=(*place.units[:-1], replace(unit, height_mm=place.height_mm + 200.0)))
    job = replace(job, places=(high, *job.places[1:]))
    assert any(f.severity == "stop" and unit.id in f.about for f in solve_fit(job, place.id).findings)
    steps, _ = ordered_steps(job)
    own = next(i for i, s in enumerate(steps) if i and unit.id in s.of)
    other = next(i for i, s in enumerate(steps) if i and s.of and unit.id not in s.of)
    found = solve_glance(_done(job, *(s.key for i, s in enumerate(steps) if i != own))).next
    assert (found.stage, found.place) == ("fit", place.id)
    assert found.text.startswith("Mend: ")
    going = solve_glance(_done(job, *(s.key for i, s in enumerate(steps) if i != other))).next
    assert going.text == f"{steps[other].name}."


def test_what_is_missing_is_told_by_how_much():
    job = signal_cabin()
    place = job.places[0]
    few = replace(job, places=(with_facts(place, READING_KINDS, place.readings[:9]),))
    found = solve_glance(few)
    assert found.next.stage == "gauge"
    assert "stations are left" in found.next.text
    gauge = next(s for s in found.places[0].stages if s.stage == "gauge")
    assert 0 < gauge.done <= 9 < gauge.of


def test_the_last_step_done_leaves_the_record():
    job = signal_cabin()
    steps, _ = ordered_steps(job)
    done = _done(job, *(s.key for s in steps))
    found = solve_glance(done)
    assert found.next.stage == "record"
    assert [(s.done, s.of) for s in found.stages if s.stage == "order"] == [(len(steps), len(steps))]


def test_a_small_drawing_has_the_place_as_it_is():
    found = solve_glance(signal_cabin()).places[0]
    units = signal_cabin().places[0].units
    assert len(found.units) == len(units)
    assert max(u.x_mm + u.wide_mm for u in found.units) <= found.wide_mm + 50.0
    assert sorted(found.floor_mm)[len(found.floor_mm) // 2] == pytest.approx(0.0, abs=1e-9)


def _done(job: Job, *keys: str) -> Job:
    place = job.places[0]
    facts = tuple(StepDone(id=f"s{i}", taken_at=WHEN, step=key) for i, key in enumerate(keys))
    return replace(job, places=(replace(place, facts=(*place.facts, *facts)), *job.places[1:]))


def test_what_the_bar_of_stages_marks_is_what_the_job_tells():
    job = gable_workroom()
    told = {s.stage: s for s in solve_glance(job).places[0].stages}
    planned = {s.stage: s for s in solve_planned(job, "north")}
    assert set(planned) == {"setout", "gauge", "fit", "hold"}
    assert all(told[stage] == at for stage, at in planned.items())
    stops = sum(f.severity == "stop" for f in solve_fit(job, "north").findings)
    assert (planned["gauge"].stops, planned["fit"].stops) == (1, stops)
