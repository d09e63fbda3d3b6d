"""The upright rod: what gives in a stack, coverings and skirtings, and what rests on what; by hand."""

from __future__ import annotations

from typing import Any

import pytest

from tests.catalogue import WHEN
from tests.setout.places import codes, laid, piece, place_of, units_of
from wobble.core.facts import Obstacle
from wobble.core.job import BaseFrame, Existing, HeightStack, Member, OnPieces, ToeKickBox
from wobble.core.job.board import Board

SKIRTING = Obstacle(
    id="sk", taken_at=WHEN, name="Skirting", kind="skirting", surface="back", at=(0.0, 0.0), size=(2400.0, 64.0),
    proud_mm=12.0,
)  # fmt: skip


def members(**high: float) -> tuple[Member, ...]:
    return tuple(Member(name=name, high_mm=mm) for name, mm in high.items())  # type: ignore[arg-type]


def seat(**more: Any) -> HeightStack:
    given: dict[str, Any] = {
        "id": "seat",
        "units": ("A",),
        "tops": ("T", "Q"),
        "members": members(covering=8, base=80, box=300, board=18, cushion=54),
        "finished_mm": 455.0,
        "gives": "box",
        "base_as": "sk",
        "beside_mm": 735.0,
    }
    return HeightStack(**(given | more))


UNITS = (
    piece("A", kind="bench", standing=BaseFrame(height_mm=80.0)),
    piece("T", kind="top", standing=OnPieces(pieces=("A",)), height_mm=20.0, board=Board()),
    piece("Q", kind="cushion", standing=OnPieces(pieces=("T",)), height_mm=50.0),
)


def test_the_box_gives_under_a_covering_laid_later_and_a_base_as_high_as_its_skirting():
    """The base shows 64 over a covering of 8, so it is 72; 455 + 8 − 72 − 18 − 54 = 319 is left for the box.

    The unit is base and box, 391; the board lies on it, the cushion on that at 409; 409 + 54 = 463 over the bare floor.
    """
    place = place_of(*UNITS, heights=(seat(),), facts=(SKIRTING,))
    found = units_of(place)
    assert found["A"].height_mm == pytest.approx(391.0)
    assert found["A"].standing == BaseFrame(height_mm=72.0)
    assert (found["T"].over_base_mm, found["T"].height_mm) == pytest.approx((391.0, 18.0))
    assert found["Q"].over_base_mm + found["Q"].height_mm == pytest.approx(463.0)
    (stack,) = laid(place).stacks
    assert (stack.finished_mm, stack.covering_mm) == pytest.approx((455.0, 8.0))


def test_a_covering_laid_first_carries_the_base():
    """The base stands on it: 455 − 64 − 18 − 54 = 319 again, but everything counts from the covering, 8 up."""
    place = place_of(*UNITS, heights=(seat(covering_later=False),), facts=(SKIRTING,))
    (stack,) = laid(place).stacks
    layers = {layer.name: (layer.low_mm, layer.high_mm) for layer in stack.layers}
    assert layers["base"] == pytest.approx((8.0, 72.0))
    assert layers["box"] == pytest.approx((72.0, 391.0))
    assert stack.finished_mm == pytest.approx(455.0)
    assert units_of(place)["A"].height_mm == pytest.approx(383.0)


def test_without_a_layer_that_gives_a_sum_that_misses_is_a_stop():
    """80 + 300 + 18 + 54 = 452 on the bare floor, less the covering of 8: 444, 11 under what is asked."""
    out = laid(place_of(*UNITS, heights=(seat(gives=None, base_as=None),)))
    (finding,) = [f for f in out.findings if f.code == "stack-misses"]
    assert finding.figure is not None
    assert finding.figure.value_mm == pytest.approx(-11.0)


def test_a_seat_too_near_under_its_table_says_by_how_much():
    """735 − 500 = 235 between; 250 is the least: 15 lower. At 455 there are 280, which is good."""
    out = laid(place_of(*UNITS, heights=(seat(finished_mm=500.0),)))
    (finding,) = [f for f in out.findings if f.code == "beside-height"]
    assert "235" in finding.title
    assert "15 mm" in finding.text
    assert "beside-height" not in codes(laid(place_of(*UNITS, heights=(seat(),))))


def test_a_thing_on_a_thing_on_what_stays_stands_on_the_highest():
    counter = Existing(id="c", name="Counter", x_mm=0.0, width_mm=2400.0, height_mm=900.0, depth_mm=600.0)
    place = place_of(
        piece("A", height_mm=400.0, standing=OnPieces(pieces=("c",))),
        piece("B", height_mm=300.0, standing=OnPieces(pieces=("A",))),
        existing=(counter,),
    )
    found = units_of(place)
    assert (found["A"].over_base_mm, found["B"].over_base_mm) == pytest.approx((900.0, 1300.0))


def test_pieces_that_rest_on_each_other_in_a_ring_are_told_and_left():
    place = place_of(
        piece("A", standing=OnPieces(pieces=("B",)), over_base_mm=100.0),
        piece("B", standing=OnPieces(pieces=("A",)), over_base_mm=200.0),
    )
    assert "rests-in-ring" in codes(laid(place))
    assert units_of(place)["A"].over_base_mm == pytest.approx(100.0)


def test_a_toe_kick_follows_its_stack_and_screw_feet_stay():
    stack = HeightStack(
        id="s", units=("A",), members=members(base=100, box=720, board=40), finished_mm=900.0, gives="base"
    )
    found = units_of(place_of(piece("A", standing=ToeKickBox(height_mm=90.0)), heights=(stack,)))
    # 900 − 720 − 40 = 140
    assert found["A"].standing == ToeKickBox(height_mm=140.0)
    assert found["A"].height_mm == pytest.approx(860.0)
