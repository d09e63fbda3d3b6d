"""Each thing that Order can tell, in a job where it is told: a new code has its job here, or this fails."""

from __future__ import annotations

from typing import get_args

import pytest
from msgspec.structs import replace

from tests.catalogue import WHEN
from tests.order.test_needs import DAILY, box, job_with, outlet
from tests.order.walker import NOW
from wobble.core import codes
from wobble.core.facts import StepDone
from wobble.core.job import Job, Unit
from wobble.core.job.sessions import Deadline, OneOff, Sessions, Turned, Visit
from wobble.core.practice.gable import gable_workroom
from wobble.core.stages import solve_order


def done(job: Job) -> Job:
    place = job.places[0]
    keys = [s.step.key for s in solve_order(job, NOW).steps]
    facts = tuple(StepDone(id=f"d{n}", taken_at=WHEN, step=k) for n, k in enumerate(keys))
    return replace(job, places=(replace(place, facts=(*place.facts, *facts)),))


HEAVY = box("U", weight_kg=40.0)
PIPE = outlet(kind="pipe", treatment="move by a licensed trade")
JOBS: dict[str, Job] = {
    "all-done": done(job_with(box())),
    "alone": job_with(HEAVY),
    "dropped": job_with(box(), sessions=replace(DAILY, dropped=("drill/place/U",))),
    "dries": job_with(box()),
    "ends": job_with(box()),
    "late": job_with(box(), sessions=replace(DAILY, deadlines=(Deadline(id="d", name="D", by="2026-03-07"),))),
    "no-session": job_with(box("U", weight_kg=90.0)),
    "not-turned": job_with(box(), sessions=replace(DAILY, turned=(Turned(first="set/place/U", then="cut/place/now"),))),
    "ring": job_with(box("A", x_mm=500.0), box("B", x_mm=600.0)),
    "sessions-assumed": job_with(box(), sessions=Sessions()),
    "step-unknown": job_with(box(), sessions=replace(DAILY, dropped=("cut/nowhere",))),
    "trade-no-date": job_with(box(), facts=(PIPE,)),
    "turned": replace(
        gable_workroom(),
        sessions=replace(gable_workroom().sessions, turned=(Turned(first="set/north/B", then="set/north/D"),)),
    ),
    "visit-early": job_with(
        box(),
        facts=(PIPE,),
        sessions=replace(DAILY, visits=(Visit(id="v", name="V", on="2026-03-01", does=("service/place/o",)),)),
    ),
}


def test_every_code_has_its_job():
    assert sorted(JOBS) == sorted(get_args(codes.OrderCode))


@pytest.mark.parametrize("code", sorted(JOBS))
def test_a_finding_is_told_where_it_should_be(code):
    found = [f for f in solve_order(JOBS[code], NOW).findings if f.code == code]
    assert found
    assert all(f.title and f.text for f in found)


@pytest.mark.parametrize(
    "job",
    [
        Job(name="Empty"),
        job_with(),
        job_with(box(), sessions=replace(DAILY, habits=(), one_offs=(OneOff(id="o", name="O", on="2020-01-01"),))),
        job_with(Unit(id="Q", name="Q", kind="cushion", x_mm=0.0, width_mm=500.0, depth_mm=400.0, height_mm=50.0)),
    ],
)
def test_whatever_is_there_gets_a_plan_or_a_sentence(job):
    found = solve_order(job, NOW)
    assert found.findings or not job.places
