"""Tops, shelves, boards and divided lengths, against hand calculations."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import box
from wobble.core.fit.tops.flat import FlatPart
from wobble.core.job import Job, Unit
from wobble.core.job.board import Board, FrontEdge
from wobble.core.job.unit import Hung, OnCleats
from wobble.core.setout.boards import movement, sag, stiffness
from wobble.core.setout.divide import DivideError, equal_openings, equal_trim, true_boards
from wobble.core.stages import solve_fit


def shelf(**more: object) -> Unit:
    plain = {
        "kind": "shelf",
        "over_base_mm": 400.0,
        "depth_mm": 500.0,
        "height_mm": 18.0,
        "standing": OnCleats(thick_mm=20.0),
        "meets": ("left", "right", "back"),
        "fixing_heights_mm": (),
        "board": Board(material="plywood", load_kg_per_m=20.0),
    }
    return box("S", x=0.0, width=2000.0, **(plain | more))


def flat(job: Job) -> FlatPart:
    return solve_fit(job, "place").flats[0]


def test_a_shelf_is_the_trapezoid_between_its_walls():
    """Left wall in by 12 over 600, right by 6: 2000 at the back, 2000 − 15 at the front 500 out."""
    job = alcove_job(lean(12.0), lean(-6.0, 2000.0), box("A", x=100.0), shelf())
    part = flat(job)
    assert part.at_back.value_mm == pytest.approx(2000.0, abs=0.6)
    assert part.at_front.value_mm == pytest.approx(2000.0 - 18.0 * 500 / 600, abs=0.6)
    assert part.left_deg == pytest.approx(90.0 - math.degrees(math.atan(12 / 600)), abs=0.1)
    assert part.right_deg == pytest.approx(90.0 - math.degrees(math.atan(6 / 600)), abs=0.1)
    assert 2000.0 < part.blank_mm[0] < 2012.0
    cleats = {c.wall: c.long_mm for c in part.cleats}
    assert cleats["back"] == pytest.approx(2000.0 - 6.0, abs=4.0)
    assert cleats["left"] == pytest.approx(500.0 - 20.0 - 6.0, abs=4.0)
    assert {s.id for s in solve_fit(job, "place").scribes} >= {"S-left", "S-right", "S-back"}


def test_a_top_that_is_longest_at_the_back_goes_in_with_one_end_up():
    """√(2000² + 40²) − 2000 = 0.4; past front corners narrower than it lies it cannot slide in level."""
    part = flat(alcove_job(lean(12.0), lean(-6.0, 2000.0), box("A", x=100.0), shelf(kind="top", height_mm=40.0)))
    assert part.tilt is not None
    assert part.tilt.swing_mm == pytest.approx(math.hypot(2000.0, 40.0) - 2000.0, abs=0.01)
    assert part.tilt.straight < 0.05
    assert part.tilt.tilted > 0.95
    # raised until it measures 1982 across the front corners: cos θ ≈ 0.991 less what its thickness adds
    assert 200.0 < part.tilt.room_mm < 360.0
    wider = alcove_job(lean(-12.0), lean(6.0, 2000.0), box("A", x=100.0), shelf(kind="top", height_mm=40.0))
    assert flat(wider).tilt.straight > 0.9  # type: ignore[union-attr]


def test_sag_is_that_of_the_beam_formula():
    """Plywood 1000 × 300 × 18 with 20 kg/m: I = 300·18³/12 = 145 800 mm⁴, EI = 7000 I; its own weight is 3.24 kg/m.

    w = 23.24 · 9.81 / 1000 = 0.228 N/mm; 5 w l⁴ / 384 EI = 2.909 mm, and half as much again after years.
    """
    found = sag(Board(material="plywood", load_kg_per_m=20.0), 1000.0, 300.0, 18.0)
    assert found.at_first.value_mm == pytest.approx(2.909, rel=2e-3)
    assert found.later.value_mm == pytest.approx(1.5 * 2.909, rel=2e-3)
    assert found.limit_mm == pytest.approx(3.333, abs=0.001)
    assert found.supports == 1
    assert found.spacing_mm == pytest.approx(1000.0 * (3.3333 / 4.3635) ** (1 / 3), rel=2e-3)
    assert sum(s.value_mm for s in found.later.working) == pytest.approx(found.later.value_mm)


def test_a_front_edge_stiffens_by_parallel_axes():
    """300 × 18 with a 20 × 50 edge, tops flush: axis 13.31 down; I = 145 800 + 5400·2.5² … summed by hand below."""
    area, edge = 300 * 18.0, 20 * 50.0
    axis = (area * 9.0 + edge * 25.0) / (area + edge)
    by_hand = 300 * 18**3 / 12 + area * (9 - axis) ** 2 + 20 * 50**3 / 12 + edge * (25 - axis) ** 2
    board = Board(material="pine", edge=FrontEdge(thick_mm=20.0, high_mm=50.0))
    assert stiffness(board, 300.0, 18.0) == pytest.approx(8500.0 * by_hand)
    assert stiffness(board, 300.0, 18.0) > 3 * stiffness(replace(board, edge=None), 300.0, 18.0)


@given(st.floats(300, 3000), st.floats(5, 80))
def test_with_its_supports_no_span_sags_past_the_limit(long, load):
    board = Board(material="particleboard", load_kg_per_m=load)
    found = sag(board, long, 280.0, 18.0)
    if found.supports < 20:
        span = long / (found.supports + 1)
        assert sag(board, span, 280.0, 18.0).later.value_mm <= span / 300 + 1e-6


def test_solid_wood_moves_by_its_coefficient_and_panels_do_not():
    """Beech 600 across, 4 %: 600 · 0.00431 · 4 = 10.3 mm."""
    moves = movement(Board(material="beech", moisture_range_percent=4.0), 600.0)
    assert moves is not None
    assert moves.value_mm == pytest.approx(10.344)
    assert movement(Board(material="mdf"), 600.0) is None


def test_a_top_rests_on_the_units_under_it():
    """Units of 700 and 900 side by side: nothing carries it for 900 at most."""
    units = (box("A", x=200.0, width=700.0), box("B", x=900.0, width=900.0))
    top = shelf(kind="top", over_base_mm=720.0, standing=Hung(), meets=("left", "right", "back"))
    assert flat(alcove_job(lean(0.0), lean(0.0, 2000.0), *units, top)).span_mm == 900.0


def test_a_top_that_ends_with_its_units_spans_the_widest_of_them():
    """Its ends stand over the ends of a unit of 700 and one of 900; meeting no wall it is as deep as decided."""
    units = (box("A", x=200.0, width=700.0), box("B", x=900.0, width=900.0))
    top = replace(shelf(kind="top", over_base_mm=720.0, meets=()), x_mm=200.0, width_mm=1600.0)
    part = flat(alcove_job(lean(0.0), lean(0.0, 2000.0), *units, top))
    assert part.span_mm == 900.0
    assert part.at_left.value_mm == part.at_left.working[0].value_mm == 500.0
    alone = replace(top, x_mm=850.0, width_mm=100.0)
    assert flat(alcove_job(lean(0.0), lean(0.0, 2000.0), *units, alone)).span_mm == pytest.approx(100.0)


def test_a_top_goes_with_the_run_that_the_split_moves():
    top = replace(shelf(kind="top", over_base_mm=720.0, meets=("back",)), x_mm=30.0, width_mm=1900.0)
    run = (box("A", x=30.0, width=950.0), box("B", x=980.0, width=950.0))
    moved = solve_fit(alcove_job(lean(0.0), lean(0.0, 2000.0), *run, top, split="equal"), "place").units
    assert [u.x_mm for u in moved] == pytest.approx([50.0, 1000.0, 50.0], abs=0.6)


def test_a_part_longer_than_its_stock_is_made_in_equal_pieces():
    part = flat(alcove_job(lean(0.0), lean(0.0, 2000.0), box("A"), shelf(board=Board(material="pine", stock_mm=900.0))))
    assert part.seams_at == pytest.approx((2000 / 3, 4000 / 3), abs=0.5)


def test_openings_have_the_boards_taken_off():
    """1200 into three with boards of 19: (1200 − 38) / 3 = 387.33; edges at 387.33 and 793.67."""
    found = equal_openings(1200.0, 3, 19.0)
    assert found.opening_mm == pytest.approx(1162 / 3)
    assert found.at == pytest.approx((1162 / 3, 2 * 1162 / 3 + 19.0))
    assert "387.3" in found.working
    with pytest.raises(DivideError):
        equal_openings(100.0, 8, 19.0)


@given(st.floats(300, 4000), st.integers(1, 9), st.floats(3, 30), st.floats(0, 5))
def test_boards_openings_and_reveals_make_up_the_length(long, n, board, reveal):
    try:
        found = equal_openings(long, n, board, reveal)
    except DivideError:
        assert (n - 1) * board + 2 * n * reveal >= long
        return
    assert n * (found.opening_mm + 2 * reveal) + (n - 1) * board == pytest.approx(long)


def test_trim_is_even_and_covers_every_seam():
    """2440 with a seam at 1220: pieces of 64 at most 400 apart; seven, the fourth over the seam."""
    found = equal_trim(2440.0, 400.0, 64.0, (1220.0,))
    steps = {round(b - a, 6) for a, b in zip(found.at, found.at[1:], strict=False)}
    assert len(steps) == 1
    assert min(abs(m - 1220.0) for m in found.at) <= 16.0
    assert found.opening_mm <= 400.0
    assert found.at[0] == 32.0
    assert found.at[-1] == pytest.approx(2408.0)
    with pytest.raises(DivideError):
        equal_trim(1000.0, 400.0, 60.0, (100.0, 131.0, 163.0))


@pytest.mark.parametrize(
    ("long", "board", "last", "n"), [(1000.0, 140.0, None, 8), (1060.0, 140.0, 80.0, 8), (980.0, 140.0, None, 7)]
)
def test_boards_of_their_true_width_cover_the_length(long, board, last, n):
    found = true_boards(long, board)
    assert len(found.at) == n
    if long == 1000.0:  # 20 would be left: both edges are ripped to 80 instead
        assert found.last_mm == pytest.approx(80.0)
    else:
        assert found.last_mm == last
