"""Mouldings that run along: saw settings from turned planes, corners as the walls run, lengths, walls and curves."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.rooms import WIDE, A, Room, rising_ceiling, sides, splayed, wall
from tests.setout.places import job_of, piece, place_of
from wobble.core.fit.mouldings.corners import saw_settings
from wobble.core.job import Moulding
from wobble.core.make.when.ready import readied
from wobble.core.stages.solve import solve_place

SHELFWARD = piece("M", 0.0, WIDE, kind="moulding", height_mm=70.0, depth_mm=18.0, over_base_mm=1000.0)
SKIRTING = replace(SHELFWARD, meets=("left", "right"), fixing_heights_mm=(35.0,))


def run(body: Moulding, unit=SKIRTING, **room):
    """Return a moulding of a room, and what the room's plan is."""
    job = Room(units=(A, replace(unit, body=body)), **room).job
    place = solve_place(job, job.places[0].id)
    return place.fit.mouldings[0], place


# --- settings of the saw


@pytest.mark.parametrize(
    ("corner", "spring", "mitre", "bevel"),
    [
        (90.0, 38.0, 31.62, 33.86),  # as tables for cornices have it
        (90.0, 45.0, 35.26, 30.0),  # acos(√(2/3)), and sin 30° = cos 45° · sin 45°
        (135.0, 0.0, 0.0, 22.5),
        (180.0, 38.0, 0.0, 0.0),
    ],
)
def test_settings_of_the_saw_are_those_that_tables_give(corner, spring, mitre, bevel):
    assert saw_settings(corner, spring) == pytest.approx((mitre, bevel), abs=0.006)


@given(st.floats(40.0, 175.0), st.floats(0.0, 75.0))
def test_the_cut_lies_in_the_plane_that_halves_the_corner(corner, spring):
    """The plane that halves the turn stands upright; seen by the moulding, it must be the one that the saw makes."""
    half, s = math.radians((180.0 - corner) / 2), math.radians(spring)
    halving = np.array([math.cos(half), math.sin(half), 0.0])  # its normal: along, out of the wall, up
    along, across, face = (
        np.eye(3)[0],
        np.array([0, math.sin(s), math.cos(s)]),
        np.array([0, math.cos(s), -math.sin(s)]),
    )
    mitre, bevel = (math.radians(a) for a in saw_settings(corner, spring))
    sawn = math.cos(bevel) * (math.cos(mitre) * along + math.sin(mitre) * across) + math.sin(bevel) * face
    assert sawn == pytest.approx(halving, abs=1e-9)


# --- corners and joints


@pytest.mark.parametrize("inside", ["coped", "mitred"])
def test_a_corner_is_as_open_as_its_walls_run(inside):
    """Both walls run 20 to the right on 600 out, atan(1/30) = 1.91°: 88.09° at the left and 91.91° at the right."""
    made, _ = run(Moulding(left_mm=400.0, right_mm=400.0, inside=inside, thick_mm=18.0), beside=splayed(20.0, 20.0))
    back, left, right = made.lengths
    assert [e.corner.deg for e in (back.left, back.right)] == pytest.approx([88.09, 91.91], abs=0.25)
    assert all(0 < e.corner.sd_deg < 0.3 and e.corner.measured for e in (back.left, back.right))
    # seen from its face, a length on the left wall has the corner at its right end
    assert (left.left.joint, right.right.joint) == ("square", "square")
    assert (left.right.joint, right.left.joint) == (inside, inside)
    assert back.left.joint == ("square" if inside == "coped" else "mitred")
    assert left.right.standing_deg == pytest.approx(45.96, abs=0.13)
    if inside == "mitred":  # its face is 18 · √2 = 25.46 long: 2 · 25.46 · sin(1.91° / 2)
        assert back.right.opens.value_mm == pytest.approx(0.85, abs=0.12)


def test_a_back_that_runs_in_closes_one_corner_and_opens_the_other():
    made, _ = run(Moulding(left_mm=300.0, right_mm=300.0), beside=sides())
    assert made.lengths[0].left.corner.deg == pytest.approx(90.0, abs=0.1)
    made, _ = run(Moulding(left_mm=300.0, right_mm=300.0), back=wall(turn=25.0))
    corners = [made.lengths[0].left.corner.deg, made.lengths[0].right.corner.deg]
    assert corners == pytest.approx([88.57, 91.43], abs=0.2)  # atan(0.025) = 1.43°


def test_a_corner_that_nobody_measured_is_square_give_or_take_and_said():
    made, place = run(Moulding(left_mm=400.0), beside=())
    corner = made.lengths[0].left.corner
    assert (corner.deg, corner.sd_deg, corner.measured) == (90.0, 1.0, False)
    assert any(f.code == "moulding-corner" and "two degrees" in f.text for f in place.findings)


def test_round_free_ends_it_goes_back_to_the_wall_mitred():
    """Before boxes 330 deep, 18 thick: both faces reach 18 past their backs; nothing is driven into a wall."""
    pelmet = replace(SKIRTING, x_mm=200.0, width_mm=900.0, out_mm=330.0, meets=())
    made, place = run(Moulding(left_mm=330.0, right_mm=330.0, thick_mm=18.0), pelmet)
    back, left, _ = made.lengths
    assert back.long.value_mm == 900.0
    assert back.blank_mm == pytest.approx(900.0 + 36.0 + 30.0)  # long points, and 30 for the saw
    assert (back.left.joint, left.left.joint, left.right.joint) == ("outside mitre", "outside mitre", "square")
    assert made.hollow is None
    assert not [f for f in place.fasteners if f.unit == "M"]


# --- lengths, and what they lie against


def test_its_length_is_between_the_walls_and_none_is_longer_than_is_sold():
    made, place = run(Moulding(stock_mm=900.0, thick_mm=18.0), beside=sides(left=4.0, right=WIDE - 7.0))
    back = made.lengths[0]
    assert back.long.value_mm == pytest.approx(WIDE - 11.0, abs=1.0)
    assert 0.1 < back.long.sd_mm < 1.5
    assert back.pieces == 2
    part = next(p for p in place.parts if p.id == "moulding-M-back")
    # half of it and what it may be longer, 18 for the scarf and 30 for the saw; 70 wide
    assert part.quantity == 2
    assert part.blank_mm[0] == pytest.approx((WIDE - 11.0) / 2 + 48.0, abs=3.0)
    assert part.blank_mm[1] == 70.0
    assert "scarfed at 45° over a stud" in part.joins


@pytest.mark.parametrize(("wide", "pieces"), [(2350.0, 1), (2400.0, 2), (4700.0, 2), (4720.0, 3)])
def test_what_a_length_is_cut_from_is_never_longer_than_is_sold(wide, pieces):
    """Of 2400 as sold, 30 go for the saw and 15 for a scarf: 2355 are left of each."""
    place = place_of(replace(SKIRTING, width_mm=wide, meets=(), body=Moulding()), width_mm=5000.0)
    (part,) = [p for p in solve_place(job_of(place), place.id).parts if p.role == "trim"]
    assert part.quantity == pieces
    assert part.blank_mm[0] <= 2400.0


def test_before_boxes_it_is_scarfed_over_them_as_no_stud_is_there():
    pelmet = replace(SKIRTING, out_mm=330.0, meets=())
    _, place = run(Moulding(stock_mm=900.0), pelmet)
    part = next(p for p in place.parts if p.id == "moulding-M-back")
    assert "over what it runs before" in part.joins
    assert "stud" not in part.joins


def test_walls_that_were_read_count_though_nobody_read_the_floor():
    made, place = run(Moulding(left_mm=300.0), floor=(), beside=sides(left=4.0, right=WIDE - 7.0))
    assert place.fit.plan is None
    assert made.lengths[0].long.value_mm == pytest.approx(WIDE - 11.0, abs=1.0)
    assert made.lengths[0].left.corner.measured
    assert not any("not read" in s.label for s in made.lengths[0].long.working)


def test_a_leaning_one_is_wider_than_it_reaches_down():
    """At 45° and 20 thick, 84.85 down the wall: (84.85 − 14.14) / 0.7071 = 100 wide, and 84.85 out."""
    _, place = run(Moulding(spring_deg=45.0, thick_mm=20.0), replace(SKIRTING, height_mm=60 * math.sqrt(2)))
    part = next(p for p in place.parts if p.id == "moulding-M-back")
    assert part.blank_mm[1] == pytest.approx(100.0)


def test_a_wall_that_falls_back_further_than_it_bends_is_told():
    """800 long and 60 thick bends 0.0025 · 800² / (4 · 60) = 6.7; the wall between 400 and 1200 falls back by 30."""
    short = replace(SKIRTING, x_mm=400.0, width_mm=800.0, meets=())
    made, place = run(Moulding(thick_mm=60.0), short, back=wall(bow=30.0))
    assert made.takes_mm == pytest.approx(6.67, abs=0.01)
    assert abs(made.hollow.value_mm - 30.0) < max(3 * made.hollow.sd_mm, 1.0)
    assert any(f.code == "moulding-springs" for f in place.findings)
    made, place = run(Moulding(thick_mm=12.0), short, back=wall(bow=30.0))
    assert made.takes_mm == pytest.approx(33.3, abs=0.1)
    assert not any(f.code == "moulding-springs" for f in place.findings)


def test_a_ceiling_that_rises_over_it_is_told_with_how_far():
    under = replace(SKIRTING, over_base_mm=2320.0)
    made, _ = run(Moulding(), under, over=rising_ceiling(10.0))
    assert made.under.value_mm == pytest.approx(16.0, abs=1.5)  # 10 a metre over 1600
    made, _ = run(Moulding(), over=rising_ceiling(10.0))
    assert made.under is None


def test_a_curve_says_its_arc_and_the_kerfs_that_let_it_round():
    """Chord 1000 at 800: asin(0.625) = 0.67513, arc 1080.2, rise 800 − √(800² − 500²) = 175.5.

    12 thick bends cold to 12 / 0.005 = 2400. Each kerf of 3, 9 deep, closes by 1/3 rad: 1.350 rad are 4.05 of them.
    """
    made, place = run(Moulding(round_mm=800.0, thick_mm=12.0), replace(SKIRTING, width_mm=1000.0))
    curve = made.curve
    assert (curve.arc_mm, curve.rise_mm) == pytest.approx((1080.2, 175.5), abs=0.05)
    assert (curve.least_radius_mm, curve.bends, curve.kerfs) == (pytest.approx(2400.0), False, 5)
    assert curve.kerf_every_mm == pytest.approx(266.7, abs=0.05)
    assert made.lengths[0].long.value_mm == pytest.approx(curve.arc_mm)
    assert not any(f.code == "moulding-curve" for f in place.findings)
    made, _ = run(Moulding(round_mm=2500.0, thick_mm=12.0), replace(SKIRTING, width_mm=1000.0))
    assert made.curve.bends
    assert made.curve.kerfs == 0


def test_before_anything_is_measured_it_is_in_the_list_and_waits():
    unit = replace(SKIRTING, width_mm=2400.0, body=Moulding(left_mm=500.0))
    job = job_of(place_of(unit))
    place = solve_place(job, job.places[0].id)
    parts = {p.id: p for p in place.parts}
    (waits,) = readied(tuple(parts.values()), {})[0].waits
    assert waits.measured
    assert "walls measured" in waits.words
    assert parts["moulding-M-back"].finished[0].figure.sd_mm > 5.0
    assert parts["moulding-M-left"].blank_mm[0] == pytest.approx(530.0)
