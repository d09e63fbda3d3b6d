"""Doors that swing, face frames, frames and racks: against dense searches and by hand."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import LINE, WHEN, box, floor_at, grid, job_of, offset
from wobble.core.errors import DocumentError
from wobble.core.fit.access.access import Access
from wobble.core.fit.sides.swings import HANDLE_IN_MM, HANDLE_MARGIN_MM, Beside, past_square
from wobble.core.formats.checks import check_job
from wobble.core.job import Alternative, BackLine, HighSpot, Job, Obstacle, with_facts
from wobble.core.job.unit import BaseFrame, Front, Hung, ScrewFeet
from wobble.core.stages import PlaceFit, solve_fit


def searched(door: float, handle: float, out: np.ndarray, gaps: np.ndarray) -> float:
    """Turn a door by a fiftieth of a degree at a time, and look at two hundred places along it."""
    along = np.concatenate([np.linspace(1.0, door, 200), [max(door - HANDLE_IN_MM, door / 2)]])
    off = np.concatenate([np.zeros(200), [handle + HANDLE_MARGIN_MM]])
    for turned in np.arange(-60.0, 20.0, 0.02):
        a = math.radians(turned)
        side, front = along * math.sin(a) + off * math.cos(a), along * math.cos(a) - off * math.sin(a)
        there = (front >= out[0]) & (front <= out[-1])
        if (there & (side > np.interp(front, out, gaps))).any():
            return float(turned)
    return 20.0


@given(
    door=st.floats(250, 700),
    handle=st.floats(10, 60),
    near=st.floats(2, 120),
    grows=st.floats(-0.1, 0.1),
    deep=st.floats(60, 900),
)
@settings(max_examples=40)
def test_a_door_opens_as_far_as_a_dense_search_finds(door, handle, near, grows, deep):
    """A wall that runs away or comes in, and ends somewhere: agreed to the step of a degree, to the safe side."""
    out = np.linspace(0.0, deep, 9)
    gaps = np.maximum(near + grows * out, 1.0)
    told = float(past_square(door, handle, Beside("wall", "wall", out, gaps[None, :]))[0])
    found = searched(door, handle, out, gaps)
    assert found - 2.1 <= told <= found + 0.3


def doors_of(job: Job, unit: str = "A") -> dict[str, float]:
    return {s.hinged: s.opens_deg for s in solve_fit(job, "place").swings if s.unit == unit}


def test_a_door_beside_a_wall_opens_until_its_handle_meets_it():
    """800 wide, a pair of 400: the handle sits 360 along and stands 35 + 5 off.

    At 40 from the wall it is just square; at 100, asin(100 / √(360² + 40²)) − atan(40 / 360) = 9.7° past.
    """
    pair = box("A", x=40.5, width=800.0, front=Front(opens="pair of doors", handle_mm=35.0))
    plumb = (lean(0.0), lean(0.0, 2000.0))
    near = doors_of(alcove_job(*plumb, pair))
    far = doors_of(alcove_job(*plumb, replace(pair, x_mm=100.0)))
    tight = doors_of(alcove_job(*plumb, replace(pair, x_mm=20.0)))
    past = math.degrees(math.asin(100 / math.hypot(360, 40)) - math.atan(40 / 360))
    assert near["left"] == pytest.approx(90.0, abs=1.5)
    assert far["left"] == pytest.approx(90.0 + past, abs=1.5)
    assert tight["left"] < 89
    assert near["right"] == 110.0  # nothing beside it but the room


def test_a_deeper_neighbour_stops_a_door_and_is_named():
    """It stands 200 further out and touches: the door's face meets its corner at once past square."""
    pair = box("A", x=100.0, width=800.0, front=Front(opens="door hinged right"))
    deeper = box("B", x=900.0, width=500.0, depth_mm=760.0)
    fit = solve_fit(alcove_job(lean(0.0), lean(0.0, 2000.0), pair, deeper), "place")
    swing = next(s for s in fit.swings if s.unit == "A")
    assert swing.by == "Unit B"
    assert swing.opens_deg == pytest.approx(90.0, abs=1.5)
    assert swing.door_mm == 800.0


def test_a_run_round_the_corner_stops_the_door_that_opens_towards_it():
    """Ours ends at 1400 of 2000, theirs is 560 deep from 600 out on: 40 are left beside the door, less its handle."""
    ours = box("A", x=800.0, width=600.0, front=Front(opens="door hinged right", handle_mm=20.0))
    theirs = box("C", x=600.0, width=600.0, front=Front(opens="drawers", handle_mm=20.0))
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), ours)
    other = replace(job.places[0], id="next", name="Next", units=(theirs,))
    met = replace(job, places=(replace(job.places[0], right_is_back_of="next"), other))
    swing = solve_fit(met, "place").swings[0]
    assert swing.by.startswith("Unit C")
    assert swing.opens_deg < 90.0
    assert [f.code for f in solve_fit(met, "place").findings if f.code == "door-swing"] == ["door-swing"]


def framed() -> PlaceFit:
    """Two boxes of 900 and 860 from 100 on, three openings in the first, between plumb walls of 2000."""
    first = box("A", x=100.0, width=900.0, front=Front(openings=3))
    second = box("B", x=1000.0, width=860.0)
    job = alcove_job(
        lean(0.0), lean(0.0, 2000.0), first, second, method="face frame first", board_mm=18.0, mullion_mm=40.0
    )
    return solve_fit(job, "place")


def test_a_face_frame_has_its_openings_flush_with_the_insides_of_the_boxes():
    """(900 − 36 − 80) / 3 = 261.33 for each of three; one of 860 − 36 = 824; stiles of 100 + 18 and 140 + 18."""
    frame = framed().sides[0].frame
    assert frame is not None
    assert [o.wide_mm for o in frame.openings] == pytest.approx([784 / 3] * 3 + [824.0])
    one = 784 / 3
    lefts = [118.0, 118 + one + 40, 118 + 2 * (one + 40), 1018.0]
    assert [o.left_mm for o in frame.openings] == pytest.approx(lefts)
    assert [d.from_left_mm for d in frame.dividers] == pytest.approx([18 + one, 18 + 2 * one + 40])
    assert [d.spacer_mm for d in frame.dividers] == [22.0, 22.0]
    assert [s.bottom.value_mm for s in frame.stiles] == pytest.approx([118.0, 158.0], abs=0.5)
    # openings, uprights and stiles make up the whole width
    whole = sum(o.wide_mm for o in frame.openings) + sum(w for _, w in frame.uprights)
    assert whole + sum(s.bottom.value_mm for s in frame.stiles) == pytest.approx(2000.0, abs=1.0)
    assert frame.too_wide_mm == 0.0


def test_a_frame_that_is_a_unit_is_cut_in_its_own_plane_and_holds_nobody_up():
    """Walls that come in by 12 over 600: at 579 out, the frame is 2000 − 2 · 11.58 wide."""
    frame = box("F", x=0.0, width=2000.0, depth_mm=19.0, out_mm=560.0, kind="face frame")
    boxed = box("A", x=100.0, width=1700.0)
    fit = solve_fit(alcove_job(lean(12.0), lean(-12.0, 2000.0), boxed, frame), "place")
    stiles = {s.hand: s for s in fit.scribes if s.id.startswith("stile-F")}
    half = 1000.0 - 12.0 * 579 / 600
    assert stiles["left"].line[0].left_mm == pytest.approx(half, abs=0.5)
    assert stiles["right"].line[0].left_mm == pytest.approx(half, abs=0.5)
    assert fit.sides[0].opening is not None
    assert fit.sides[0].opening.wanted_mm == 1700.0
    assert {s.unit for s in fit.plan.shims} == {"A"} if fit.plan else False
    assert fit.access[-1].unit == "F"


def test_a_panel_is_scribed_to_the_back_as_well():
    """The back stands plumb: from its front edge 560 are left, all the way up; the wall is at the left hand."""
    panel = box("P", x=0.0, width=19.0, kind="panel")
    fit = solve_fit(alcove_job(lean(0.0), lean(0.0, 2000.0), panel, box("A", x=19.0)), "place")
    back = next(s for s in fit.scribes if s.id == "back-P")
    assert (back.hand, back.surface) == ("left", "back")
    assert [p.left_mm for p in back.line] == pytest.approx([560.0] * len(back.line), abs=0.5)


def test_a_base_frame_by_itself_stands_on_its_rails_every_600():
    frame = box("F", x=0.0, width=1900.0, height_mm=90.0, kind="base frame")
    job = job_of(*floor_at(grid(3000, 600, 7, 3), lambda x, y: 0.0), units=(frame,))
    plan = solve_fit(job, "place").plan
    assert plan is not None
    assert sorted({s.at[0] for s in plan.shims}) == pytest.approx([0.0, 475.0, 950.0, 1425.0, 1900.0])
    assert len(plan.shims) == 10
    several = replace(frame, kind="base", standing=BaseFrame(height_mm=90.0))
    assert len(solve_fit(replace(job, places=(replace(job.places[0], units=(several,)),)), "place").plan.shims) == 10  # type: ignore[union-attr]


def test_a_rack_hangs_level_under_a_ceiling_that_falls():
    """The ceiling falls by 20 over 2000 along: hangers of 300 − 2 and 300 − 12, corner by corner."""
    rack = box("R", x=200.0, width=1000.0, height_mm=100.0, kind="rack", over_base_mm=2000.0, standing=Hung())
    over = [
        replace(offset(f"c{x}{y}", "ceiling", (float(x), float(y)), 1400.0 - 0.01 * x), set_up=LINE.id)
        for x in range(0, 2001, 250)
        for y in (0, 300, 600)
    ]
    job = job_of(
        *floor_at(grid(2000, 600, 5, 3), lambda x, y: 0.0),
        *over,
        width=2000.0,
        units=(rack,),
        surfaces=("floor", "back", "ceiling"),
    )
    fit = solve_fit(job, "place")
    found = {h.corner: h.long for h in fit.hangers}
    assert found["back left"].value_mm == pytest.approx(2400 - 2 - 2100, abs=0.5)
    assert found["front right"].value_mm == pytest.approx(2400 - 12 - 2100, abs=0.5)
    for figure in found.values():
        assert sum(s.sign * s.value_mm for s in figure.working) == pytest.approx(figure.value_mm)
    low = solve_fit(
        replace(job, places=(replace(job.places[0], units=(replace(rack, over_base_mm=2299.0),)),)), "place"
    )
    assert next(f for f in low.findings if f.code.startswith("rack")).severity == "stop"


def lifted(height: float, arch: float) -> Access:
    unit = box("A", x=300.0, width=900.0, height_mm=height)
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), unit)
    mark = Obstacle(
        taken_at=WHEN,
        id="w",
        name="Arch",
        kind="wheel arch",
        surface="floor",
        at=(400.0, 300.0),
        size=(300.0, 200.0),
        proud_mm=arch,
    )
    return solve_fit(replace(job, places=(with_facts(job.places[0], (Obstacle,), (mark,)),)), "place").access[0]


def test_a_wheel_arch_is_lifted_over_under_the_ceiling_that_was_said():
    """The place is said to be 2400 high: 2400 − 2000 − (250 + 5) = 145 to spare; 2200 and 250 are 55 too much."""
    fine, stuck = lifted(2000.0, 250.0), lifted(2200.0, 250.0)
    assert fine.passes[0].spare_mm == pytest.approx(145.0, abs=1.0)
    assert not stuck.goes_in
    assert "as high as the place is said" in stuck.passes[0].how


def test_a_top_goes_before_what_hangs_and_its_raised_end_needs_room():
    """Walls 12 nearer each in front: a top between them comes down with one end up, here under 2400."""
    top = box(
        "T",
        x=0.0,
        width=2000.0,
        kind="top",
        over_base_mm=720.0,
        height_mm=40.0,
        standing=Hung(),
        meets=("left", "right"),
    )
    over = box("W", x=500.0, width=800.0, height_mm=600.0, over_base_mm=1400.0, standing=Hung(), depth_mm=300.0)
    job = alcove_job(lean(12.0), lean(-12.0, 2000.0), box("A", x=300.0, width=900.0), over, top)
    found = solve_fit(job, "place").access
    assert [g.unit for g in found] == ["A", "T", "W"]
    part = solve_fit(job, "place").flats[0]
    assert part.tilt is not None
    raised = next(p for p in found[1].passes if p.where == "Its raised end")
    assert raised.spare_mm == pytest.approx(2400.0 - 760.0 - part.tilt.room_mm, abs=1.0)


def test_a_document_names_twins_and_feet_the_wrong_way_round():
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A"))
    kept = Alternative(name="Low", datum=HighSpot(), back_line=BackLine())
    twins = replace(job, places=(replace(job.places[0], alternatives=(kept, kept)),))
    feet = replace(job.places[0].units[0], standing=ScrewFeet(least_mm=120.0, most_mm=80.0))
    for wrong, path in (
        (twins, "$.places[0].alternatives[1]"),
        (replace(job, places=(replace(job.places[0], units=(feet,)),)), "$.places[0].units[0].standing.most_mm"),
    ):
        with pytest.raises(DocumentError) as fault:
            check_job(wrong)
        assert fault.value.path == path
