"""Frames, boards, trim and walls that things hang on: by hand, and beside a beam that is bent step by step."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from tests.setout.places import codes, laid, laid_unit, piece, place_of
from wobble.core.job import Boarding, Framing, Hanging, HangingWall, Place, TrimSet, Unit
from wobble.core.setout.framing import BoardsLaid, boards_laid, frame_laid, hanging_laid

FRAME = Framing(narrow_mm=45.0, wide_mm=70.0, most_apart_mm=400.0, deck_mm=18.0, load_kg_per_m2=200.0)


def body_of(unit: Unit) -> Any:
    return unit.body


def platform(wide: float = 2000.0, deep: float = 1000.0, **body: Any) -> Unit:
    given = {f: getattr(FRAME, f) for f in FRAME.__struct_fields__} | body
    return piece("P", 0.0, wide, kind="platform", depth_mm=deep, height_mm=88.0, body=Framing(**given))


def bent(load_n_per_mm: float, span: float, rigid: float, n: int = 2000) -> float:
    """Return how far the middle of a beam goes down, by integrating its curvature twice."""
    x = np.linspace(0.0, span, n + 1)
    curvature = load_n_per_mm * x * (span - x) / 2 / rigid
    step = span / n
    slope = np.concatenate([[0.0], np.cumsum((curvature[1:] + curvature[:-1]) / 2) * step])
    down = np.concatenate([[0.0], np.cumsum((slope[1:] + slope[:-1]) / 2) * step])
    return float(np.max(np.abs(down - down[-1] * x / span)))


def test_members_stand_at_both_ends_and_none_too_far_apart():
    """2000 over all, members of 45: middles from 22.5 to 1977.5; ceil((1955 − 45) / 400) = 5 gaps of 391."""
    found = frame_laid(platform(), FRAME, place_of(platform()))
    assert [m.at_mm for m in found.members] == pytest.approx([0, 391, 782, 1173, 1564, 1955])
    assert found.deck_span_mm == pytest.approx(346.0)
    # from front to back between the long members: 1000 − 2 × 45
    assert found.members[0].long_mm == pytest.approx(910.0)


@pytest.mark.parametrize(("stands", "high", "thick"), [("on edge", 70.0, 45.0), ("on the flat", 45.0, 70.0)])
def test_a_member_bends_as_a_beam_that_is_bent_step_by_step(stands, high, thick):
    unit = platform(stands=stands)
    found = frame_laid(unit, body_of(unit), place_of(unit))
    apart = max(b.at_mm - a.at_mm for a, b in zip(found.members, found.members[1:], strict=False))
    load = 200.0 * 9.81 / 1e6 * apart
    assert found.bends.value_mm == pytest.approx(bent(load, 1000.0, 8500.0 * thick * high**3 / 12), rel=1e-4)
    assert found.bent_mpa == pytest.approx(load * 1000.0**2 / 8 / (thick * high**2 / 6))


def test_on_its_weak_side_the_same_member_bends_as_the_squares_of_its_sides():
    """(70 / 45)² = 2.42 times; over 1900 from front to back that is too much lying and enough standing."""
    lying, standing = platform(deep=1900.0, stands="on the flat"), platform(deep=1900.0)
    found = frame_laid(lying, body_of(lying), place_of(lying))
    assert 1 / found.other_way == pytest.approx((70 / 45) ** 2)
    high = {"height_mm": 2000.0, "depth_mm": 2000.0}
    assert "weak-side" in codes(laid(place_of(lying, **high)))
    assert "weak-side" not in codes(laid(place_of(standing, **high)))


def test_a_member_stands_under_the_middle_of_each_unit_that_the_frame_carries():
    frame = platform(1800.0, most_apart_mm=900.0)
    on = [piece(i, x, 600.0, over_base_mm=88.0) for i, x in zip("ABC", (0.0, 600.0, 1200.0), strict=True)]
    found = frame_laid(frame, body_of(frame), place_of(frame, *on))
    middles = [m.at_mm + 22.5 for m in found.members if m.under in "ABC" and m.under]
    assert middles == pytest.approx([300.0, 900.0, 1500.0])


def test_setbacks_and_a_fascia_are_taken_off_a_frames_depth():
    """500 − 60 toe recess − 12 clear of the skirting − 18 fascia = 410."""
    unit = platform(deep=500.0, front_back_mm=60.0, rear_off_mm=12.0, fascia_mm=18.0)
    assert frame_laid(unit, body_of(unit), place_of(unit)).deep_mm == pytest.approx(410.0)


def boards(high: float = 1100.0, wide: float = 3000.0, **body: Any) -> BoardsLaid:
    unit = piece("B", 0.0, wide, kind="boarding", height_mm=high, depth_mm=15.0, body=Boarding(**body))
    return boards_laid(unit, body_of(unit), "mm")


def test_boards_begin_whole_at_the_first_and_the_last_is_ripped():
    """1100 less a cap of 20: 1080. Of 120 with gaps of 3: eight take 8 × 123 = 984; 96 are left."""
    found = boards(board_mm=120.0, gap_mm=3.0, cap_mm=20.0)
    assert found.at == pytest.approx([k * 123.0 for k in range(9)])
    assert found.last_mm == pytest.approx(96.0)


def test_upright_boards_go_along_the_wall():
    """3000 of boards of 146 with gaps of 4: twenty take 20 × 150 = 3000 less the last gap: none is ripped."""
    found = boards(runs="up", board_mm=146.0, gap_mm=4.0)
    assert (len(found.at), found.last_mm) == (20, None)


def test_trim_is_spaced_evenly_with_a_piece_over_each_seam():
    """2000, pieces of 60 at most 450 apart: 5 need (2000 − 300) / 4 = 425 between; the middle piece covers 1000."""
    unit = piece("T", 0.0, 2000.0, kind="trim", height_mm=1000.0, body=TrimSet(seams_mm=(1000.0,)))
    found = boards_laid(unit, body_of(unit), "mm")
    assert found.at == pytest.approx([30, 515, 1000, 1485, 1970])


def test_a_wall_of_pegs_says_what_hangs_between_rows_and_what_is_too_heavy():
    """Rows at 0, 150, 300, …; 6 kg at 120 out and 2 at 50: (6 × 0.12 + 2 × 0.05) × 9.81 = 8.04 N·m."""
    body = HangingWall(
        by="pegs",
        pitch_mm=150.0,
        member_mm=20.0,
        hangs=(
            Hanging(id="a", name="A", at=(100.0, 155.0), weight_kg=6.0, out_mm=120.0),
            Hanging(id="b", name="B", at=(100.0, 220.0), weight_kg=2.0, out_mm=50.0),
        ),
    )
    unit = piece("W", 0.0, 900.0, kind="peg wall", height_mm=620.0, body=body)
    found = hanging_laid(unit, body)
    assert found.at == pytest.approx([0, 150, 300, 450, 600])
    assert found.off_line == ("b",)
    assert found.moment_nm == pytest.approx(8.04, abs=0.01)
    assert laid_unit(laid(place_of(unit)), "W").hanging == found


def test_no_frame_asks_for_more_members_than_a_wall_has_room_for():
    wide: Place = place_of(platform(90_000.0, most_apart_mm=0.001), width_mm=100_000.0)
    assert len(frame_laid(wide.units[0], body_of(wide.units[0]), wide).members) <= 202
