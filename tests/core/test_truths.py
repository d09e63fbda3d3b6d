"""What must hold of every answer, whatever it is: mirrored, shifted, in inches, asked twice, added up."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

import msgspec
import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.alcove import alcove_job
from tests.catalogue import LINE, box
from tests.core.plausible import plausible_job
from tests.rooms import WIDE, Room, flat_floor, sides, studs, wall
from wobble.core import solve
from wobble.core.facts import Detection, Offset
from wobble.core.job import BackLine, Closing, FixedTop, HighSpot, Job, Place, SetUp
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import PlaceResult, forget, solve_fit, solve_gauge, solve_hold, solve_traits
from wobble.core.stages.solve import solve_place

MIRRORED = {"left": "right", "right": "left", "back left": "back right", "back right": "back left"}
MIRRORED |= {"front left": "front right", "front right": "front left"}


def result_of(job: Job) -> PlaceResult:
    return solve_place(job, job.places[0].id)


def mirrored(job: Job) -> Job:
    """Return the same place seen in a mirror: what was x along is now as far from the other end."""
    place = job.places[0]
    facts = []
    for fact in place.facts:
        assert isinstance(fact, Offset | Detection)
        if fact.surface in ("left", "right"):
            facts.append(replace(fact, surface=MIRRORED[fact.surface]))
        else:
            facts.append(replace(fact, at=(WIDE - fact.at[0], fact.at[1])))
    set_ups = tuple(
        replace(s, at_mm=WIDE - s.at_mm) if s.across == "x" and s.at_mm is not None else s for s in place.set_ups
    )
    units = tuple(replace(u, x_mm=WIDE - u.right_mm) for u in place.units[::-1])
    return replace(job, places=(replace(place, facts=tuple(facts), set_ups=set_ups, units=units),))


@given(
    rise=st.floats(-8, 8), lean=st.floats(-8, 8), bow=st.floats(0, 10), left=st.floats(0, 12), right=st.floats(0, 12)
)
@settings(max_examples=8, suppress_health_check=list(HealthCheck))
def test_a_mirrored_place_mirrors_its_figures(rise, lean, bow, left, right):
    room = Room(
        floor=flat_floor(rise), back=wall(lean, bow), beside=sides(left, WIDE - right), found=studs(400.0, 1200.0)
    )
    ours, theirs = result_of(room.job), result_of(mirrored(room.job))
    assert ours.fit.plan is not None
    assert theirs.fit.plan is not None
    assert theirs.fit.plan.base.height.value_mm == pytest.approx(ours.fit.plan.base.height.value_mm, abs=0.3)
    shims = {(s.unit, s.corner): s.gap.value_mm for s in theirs.fit.plan.shims}
    for shim in ours.fit.plan.shims:
        assert shims[shim.unit, MIRRORED[shim.corner]] == pytest.approx(shim.gap.value_mm, abs=0.4)
    gaps: dict[str, float] = {f.side: f.least.value_mm for f in theirs.fit.sides[0].fillers}
    for filler in ours.fit.sides[0].fillers:
        assert gaps[MIRRORED[filler.side]] == pytest.approx(filler.least.value_mm, abs=0.4)
    driven = sorted((WIDE - f.at[0], f.at[1], f.screw_mm) for f in theirs.fasteners if f.surface == "back")
    ours_driven = sorted((f.at[0], f.at[1], f.screw_mm) for f in ours.fasteners if f.surface == "back")
    assert [x for x, *_ in driven] == pytest.approx([x for x, *_ in ours_driven], abs=6.0)
    assert {f.code for f in theirs.findings} == {f.code for f in ours.findings}


@given(st.floats(-400, 900), st.floats(-8, 8))
@settings(max_examples=8)
def test_a_datum_mark_elsewhere_moves_no_shim(up, rise):
    """All heights count from a mark `up` lower: the base moves by that much over it, and nothing else does."""
    job = Room(floor=flat_floor(rise), back=wall(lean=4.0)).job
    place = job.places[0]

    def raised(fact: Offset | Detection) -> Offset | Detection:
        return fact if fact.surface == "floor" else replace(fact, at=(fact.at[0], fact.at[1] + up))

    line = replace(LINE, at_mm=1000.0 + up)
    moved: Place = replace(
        place,
        height_mm=place.height_mm + max(up, 0.0),
        set_ups=(line, *(s for s in place.set_ups if s.id != line.id)),
        facts=tuple(raised(f) for f in place.facts),  # type: ignore[arg-type]
    )
    before, after = result_of(job).fit.plan, result_of(replace(job, places=(moved,))).fit.plan
    assert before is not None
    assert after is not None
    assert after.base.height.value_mm - before.base.height.value_mm == pytest.approx(up, abs=0.3)
    for one, other in zip(before.shims, after.shims, strict=True):
        assert other.gap.value_mm == pytest.approx(one.gap.value_mm, abs=0.3)


def sentences(value: object) -> Iterator[str]:
    """Yield every text that is for reading, however deep: more than one word."""
    if isinstance(value, str):
        if " " in value:
            yield value
    elif isinstance(value, dict):
        for item in value.values():
            yield from sentences(item)
    elif isinstance(value, list | tuple):
        for item in value:
            yield from sentences(item)


def in_inches() -> Iterator[Job]:
    """Yield the demo jobs and some made-up ones, read in inches."""
    for job in (
        gable_workroom(),
        narrowboat_galley(),
        vestry_press(),
        *(plausible_job(seed) for seed in range(9000, 9012)),
    ):
        yield replace(job, units="in")


def test_in_inches_no_sentence_says_millimetres():
    """But for the names of what is sold by them: a screw of 4.2 by 2 inches."""
    told = 0
    for job in in_inches():
        for text in sentences(msgspec.to_builtins(solve(job))):
            told += 1
            assert not re.search(r"\d ?mm\b|\bmillimet", text), text
    assert told > 500


TURNS: tuple[Callable[[Place], Place], ...] = (
    lambda p: replace(p, datum=HighSpot(over_mm=4.0)),
    lambda p: replace(p, datum=FixedTop(top_mm=905.0)),
    lambda p: replace(p, back_line=BackLine(off_mm=12.0, turn_mm_per_m=3.0)),
    lambda p: replace(p, closing=Closing(method="face frame first", split="equal")),
    lambda p: replace(p, units=tuple(replace(u, x_mm=u.x_mm + 3.0) for u in p.units)),
    lambda p: replace(p, units=p.units[:-1]),
    lambda p: replace(p, units=tuple(replace(u, holds="books") for u in p.units)),
    lambda p: replace(p, facts=p.facts[:-3]),
    lambda p: replace(p, facts=tuple(f for f in p.facts if not isinstance(f, Detection))),
    lambda p: replace(p, set_ups=tuple(turned(s) for s in p.set_ups)),
    lambda p: replace(p, backing=None),
    lambda p: replace(p, width_mm=p.width_mm + 40.0),
    lambda p: replace(p, character="rough"),
)


def turned(set_up: SetUp) -> SetUp:
    """Return a set-up that stands a little elsewhere."""
    return replace(set_up, at_mm=set_up.at_mm + 5.0) if set_up.at_mm is not None else set_up


@given(st.lists(st.sampled_from(range(len(TURNS))), min_size=2, max_size=4), st.booleans())
@settings(max_examples=4)
def test_what_is_remembered_answers_as_what_is_worked_out_anew(turns, inches):
    """Turn some decisions one after the other, each answered; the last answer is the one without any before."""
    job = replace(gable_workroom(), units="in" if inches else "mm")
    for turn in turns:
        job = replace(job, places=tuple(TURNS[turn](p) for p in job.places))
        warm = solve(job)
    forget()
    assert solve(job) == warm


@given(st.floats(-25, 25), st.floats(-25, 25), st.floats(-12, 12), st.floats(1700, 1900))
@settings(max_examples=12)
def test_fillers_and_run_make_the_opening_at_every_height(left, right, out, wide):
    """Two walls that lean by other amounts: at the front, at each height, gap, run and gap make the true width."""
    walls = (lambda y, z: left * z / 800 + out * y / 600, lambda y, z: 2000.0 + right * z / 800)
    sides_found = result_of(alcove_job(*walls, box("A", x=60.0, width=wide))).fit.sides[0]
    one, other = sides_found.fillers
    theirs = {z: gap for z, gap, _ in other.profile}
    both = [(z, gap + theirs[z]) for z, gap, _ in one.profile if z in theirs]
    assert len(both) >= 2
    for z, gaps in both:
        true = walls[1](one.front_mm, z) - walls[0](one.front_mm, z)
        assert gaps + wide == pytest.approx(true, abs=1.0)
    assert np.ptp([z for z, _ in both]) > 600


def test_a_job_of_many_places_is_worked_out_once():
    """What is remembered has room for thirty-two places: each is answered with what was made the first time."""
    one = alcove_job(lambda y, z: 0.0, lambda y, z: 2000.0, box("A", x=60.0, width=1880.0))
    places = tuple(replace(one.places[0], id=f"p{i}", width_mm=one.places[0].width_mm + i) for i in range(32))
    job = replace(one, places=places)
    asked = [(stage, p.id) for p in places for stage in (solve_gauge, solve_fit, solve_hold, solve_traits)]
    first = [stage(job, place) for stage, place in asked]
    assert all(stage(job, place) is made for (stage, place), made in zip(asked, first, strict=True))
