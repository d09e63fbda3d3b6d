"""Openings, fillers and scribes: by hand on plain walls, and against made-up walls that the estimator does not know."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from bench.alcoves import (
    ACROSS,
    BOX,
    DEPTH_MM,
    TOOL,
    alcoves,
    made_up_alcove,
    surveyed,
    true_opening_mm,
    verdict,
)
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import EXACT, WHEN, box, offset
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import tiers
from wobble.core.fit.scribe.line import Edge, fewest_points, scribe
from wobble.core.fit.sides.closing import Sides
from wobble.core.fit.sides.methods import Filler, bow_taken
from wobble.core.job import READING_KINDS, Job, Obstacle, with_facts
from wobble.core.job.unit import Front, ScribeAllowance
from wobble.core.practice.instruments import read_offsets
from wobble.core.stages import solve_fit, survey_of


def sides_of(job: Job) -> Sides:
    return solve_fit(job, "place").sides[0]


def filler(job: Job, side: str) -> Filler:
    return next(f for f in sides_of(job).fillers if f.side == side)


def test_the_front_corners_decide_for_a_box_alone():
    """Walls that come in by 12 and 8 to the front at 600: 1980 there; where the box ends, at 560, 1981.3."""
    box_ = box("A", x=10.0, width=1978.0)
    found = sides_of(alcove_job(lean(12.0), lean(-8.0, 2000.0), box_))
    assert found.opening is not None
    assert found.opening.least.value_mm == pytest.approx(1980.0, abs=0.7)
    assert found.opening.inside_mm == pytest.approx(2000.0 - 20.0 * 560 / 600, abs=0.7)
    assert found.opening.at_left[0] == pytest.approx(600.0, abs=1)
    assert found.opening.chance > 0.95
    assert sides_of(alcove_job(lean(12.0), lean(-8.0, 2000.0), replace(box_, width_mm=1981.5))).opening.chance < 0.1  # type: ignore[union-attr]


def test_of_three_boxes_only_their_place_counts():
    """With both ends walked sideways into place, the 1981.3 where they stand is what they have."""
    row = tuple(box(name, x=9.0 + 660.3 * i, width=660.3) for i, name in enumerate("ABC"))
    found = sides_of(alcove_job(lean(12.0), lean(-8.0, 2000.0), *row))
    assert found.opening is not None
    assert found.opening.least.value_mm == pytest.approx(2000.0 - 20.0 * 560 / 600, abs=0.7)
    two = (box("A", x=9.0, width=990.0), box("B", x=999.0, width=990.0))
    pair = sides_of(alcove_job(lean(12.0), lean(-8.0, 2000.0), *two)).opening
    assert pair is not None
    # the second passes its own front corner straight: the better order saves the wall that comes in more, at the left
    assert pair.least.value_mm == pytest.approx(2000.0 - 12.0 * 560 / 600 - 8.0, abs=0.7)


@pytest.mark.parametrize(
    ("split", "left", "right"),
    [
        ("as drawn", 30.0, 70.0),
        ("equal", 50.0, 50.0),
        ("none at the left", 0.5, 99.5),
        ("none at the right", 99.5, 0.5),
        ("centred", 150.0, -50.0),
    ],
)
def test_the_spare_is_shared_as_asked(split, left, right):
    """Plumb walls 2000 apart, a box of 1900 drawn at 30; "centred" on 1100 stands it at 150."""
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A", x=30.0, width=1900.0), split=split, centre_mm=1100.0)
    assert filler(job, "left").least.value_mm == pytest.approx(left, abs=0.8)
    assert filler(job, "right").least.value_mm == pytest.approx(right, abs=0.8)


def test_a_filler_tapers_with_its_wall_and_tells_its_blank():
    """The left wall comes in by 9 from foot (z = 0) to 720: gap 50 at the foot, 41 at the head."""
    job = alcove_job(lambda y, z: z / 80.0, lean(0.0, 2000.0), box("A", x=50.0, width=1900.0))
    gap = filler(job, "left")
    assert gap.bottom.value_mm == pytest.approx(50.0, abs=0.6)
    assert gap.top.value_mm == pytest.approx(41.0, abs=0.6)
    assert gap.taper_mm == pytest.approx(-9.0, abs=0.6)
    assert 52.0 <= gap.blank_mm <= 54.0
    assert gap.bottom.working
    steps = sum(s.sign * s.value_mm for s in gap.bottom.working)
    assert steps == pytest.approx(gap.bottom.value_mm, abs=1e-6)


def test_doors_and_drawers_ask_for_their_room():
    walls = (lean(0.0), lean(0.0, 2000.0))
    door = box("A", x=30.0, width=1900.0, front=Front(opens="door hinged left", handle_mm=40.0))
    tight = filler(alcove_job(*walls, door), "left")
    assert tight.needs is not None
    assert (tight.needs.value_mm, tight.enough) == (45.0, 0.0)
    assert filler(alcove_job(*walls, replace(door, x_mm=60.0)), "left").enough == 1.0
    drawers = box("A", x=1.0, width=1900.0, front=Front(opens="drawers"))
    # the wall comes in by 4 more before the front at 560: what passes there scrapes
    assert filler(alcove_job(lean(60.0), walls[1], replace(drawers, x_mm=57.0)), "left").enough < 0.05


def test_what_stands_proud_of_a_wall_and_stays_narrows_the_opening():
    rail = Obstacle(
        taken_at=WHEN,
        id="m",
        name="Rail",
        kind="trim",
        surface="left",
        at=(0.0, 300.0),
        size=(600.0, 80.0),
        proud_mm=15.0,
    )
    made = box("A", x=30.0, width=1900.0)
    open_ = sides_of(alcove_job(lean(0.0), lean(0.0, 2000.0), made, obstacles=(rail,))).opening
    gone = sides_of(
        alcove_job(lean(0.0), lean(0.0, 2000.0), made, obstacles=(replace(rail, treatment="remove"),))
    ).opening
    assert open_ is not None
    assert gone is not None
    assert gone.least.value_mm - open_.least.value_mm == pytest.approx(15.0, abs=0.3)


def test_each_method_suits_its_own_gap():
    def proposed(x: float, width: float, **more: object) -> str:
        job = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A", x=x, width=width, **more))
        return next(s.method for s in sides_of(job).methods if s.proposed)

    assert proposed(3.0, 1994.0) == "flexible filler"
    assert proposed(50.0, 1900.0) == "fillers"
    assert proposed(10.0, 1980.0, scribe_allowance=ScribeAllowance(left_mm=15.0, right_mm=15.0)) == "end panel"
    assert proposed(10.0, 1980.0) == "cover moulding"
    # no box of 2010 goes in, so only the frame does, with a smaller box behind
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A", x=0.0, width=2010.0))
    assert [s.method for s in sides_of(job).methods if s.proposed] == ["face frame first"]
    assert sides_of(job).box_mm == pytest.approx(1996.0, abs=1.0)


def test_a_moulding_bends_as_far_as_its_thickness_lets_it():
    """2 m of 8 mm at a strain of 0.25 %: b = 0.0025 · 2000² / (4 · 8) = 312 mm; 0.72 m of 20 mm: 16 mm."""
    assert bow_taken(8.0, 2000.0) == pytest.approx(312.5)
    assert bow_taken(20.0, 720.0) == pytest.approx(16.2)


def test_made_units_share_what_goes_in_for_sure():
    """2000 less 3 to slide in, two fillers of 20 and a fixed box of 600, for two: 678 each, a little less for doubt."""
    units = (
        box("A", x=20.0, width=600.0),
        box("B", x=620.0, width=500.0, ready_made=False),
        box("C", x=1120.0, width=500.0, ready_made=False),
    )
    found = sides_of(alcove_job(lean(0.0), lean(0.0, 2000.0), *units))
    assert found.made_mm in (677.0, 678.0)


def test_a_verdict_is_right_when_it_is_sure():
    """Property over made-up alcoves with boxes that just go in or just do not, against a dense search of the truth."""
    found = alcoves(60, first_seed=70_000)
    assert 0.3 < np.mean(found.goes) < 0.7, "the boxes are close calls"
    assert found.right >= 0.85
    assert found.sure >= 0.6
    assert found.right_when_sure >= 0.95
    assert found.stuck_when_sure <= 0.05, "no more of them stick than the stated chance allows"


def test_what_surely_goes_in_touches_nothing():
    """Of boxes made to the width that is called sure, at least 93 of 100 pass the true walls (95 less sampling)."""
    goes = []
    for seed in range(80_000, 80_040):
        alcove = made_up_alcove(seed)
        sure = verdict(surveyed(alcove, seed)).sure_mm
        goes.append(sure <= true_opening_mm(alcove.left, alcove.right))
    assert np.mean(goes) >= 0.93


def test_a_scribed_edge_follows_the_true_wall_within_its_interval():
    """Property: the cut line, with its 95 % interval and the half millimetre of its few points, holds the wall."""
    inside, n_points = [], []
    for seed in range(90_000, 90_030):
        alcove = made_up_alcove(seed)
        spots = np.array([(y, z) for y in (310.0, 532.0, 600.0) for z in np.linspace(60, 1940, 9)])
        readings = read_offsets(alcove.left, "left", spots, ACROSS, TOOL, seed=seed)
        job = surveyed(alcove, seed)
        job = replace(job, places=(with_facts(job.places[0], READING_KINDS, tuple(readings)),))
        found = survey_of(job, job.places[0].id)
        cut = scribe(found, left_edge(reference=60.0))
        z = np.linspace(0, BOX[1], 201)
        line = np.interp(z, [p.along_mm for p in cut.line], [p.left_mm for p in cut.line])
        sd = np.interp(z, [p.along_mm for p in cut.line], [p.sd_mm for p in cut.line])
        truth = 60.0 - alcove.left.at(np.column_stack([np.full(201, 532.0), z]))
        inside.append(np.abs(line - truth) <= 1.96 * sd + 0.5)
        n_points.append(len(cut.line))
        assert cut.compass_mm >= np.ptp(line)
        assert cut.blank_mm >= truth.max() - 0.5
    assert np.concatenate(inside).mean() >= 0.93
    assert np.mean(n_points) < 8


def left_edge(reference: float) -> Edge:
    return Edge(
        id="e",
        piece="Filler",
        edge="left edge",
        surface="left",
        start=(532.0, 0.0),
        end=(532.0, BOX[1]),
        reference_mm=(reference, reference),
        sign=1.0,
        along="up from its foot",
        hand="left",
        thick_mm=19.0,
        across=(-1.0, 0.0),
    )


def test_a_wall_that_comes_in_behind_the_face_asks_for_a_bevel():
    """Behind a face at y = 532 the wall comes in by 1 in 10: atan(0.1) = 5.7°, and the usual 3°."""
    spots = np.array([(y, z) for y in np.linspace(0, DEPTH_MM, 6) for z in (0.0, 700.0, 1400.0, 2000.0)])
    readings = [
        replace(offset(f"l{i}", "left", (float(y), float(z)), 700.0 - (62.0 - 0.1 * y)), set_up=ACROSS.id)
        for i, (y, z) in enumerate(spots)
    ]
    job = replace(surveyed(made_up_alcove(1), 1), instruments=(EXACT,))
    job = replace(job, places=(with_facts(job.places[0], READING_KINDS, tuple(readings)),))
    assert scribe(survey_of(job, job.places[0].id), left_edge(60.0)).bevel_deg == pytest.approx(8.7, abs=0.3)


@given(st.lists(st.floats(-4, 4), min_size=3, max_size=9))
@settings(max_examples=150)
def test_no_fewer_points_would_do(values):
    """Against every subset of the points that keeps both ends."""
    along = np.asarray([25.0 * i for i in range(len(values))])
    value = np.asarray(values)

    def within(kept: tuple[int, ...]) -> bool:
        return bool(np.abs(np.interp(along, along[list(kept)], value[list(kept)]) - value).max() <= 0.5 + 1e-9)

    found = fewest_points(along, value)
    assert within(tuple(found))
    inner = range(1, len(values) - 1)
    for n in range(len(found) - 2):
        assert not any(within((0, *middle, len(values) - 1)) for middle in itertools.combinations(inner, n))


def test_tiers_are_what_stands_and_what_hangs():
    place = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A"), box("B", over_base_mm=1400.0)).places[0]
    assert [(t.name, [u.id for u in t.units]) for t in tiers(place)] == [("standing", ["A"]), ("hung", ["B"])]
    assert Stand(0.0, 10.0, 0.01, hung_mm=2.0).back_at(place.units[1]) == 2.0
