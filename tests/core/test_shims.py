"""Shims for a gap, against trying everything."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import plain_kit
from wobble.core.job import ShimKit, ShimPiece, Taper
from wobble.core.packing import ROOM_ON_BLOCK_MM, best_stack, fill, taper_setting

PIECES = st.lists(st.tuples(st.sampled_from([0.5, 1.0, 1.6, 2.0, 3.0, 5.0]), st.integers(0, 3)), min_size=1, max_size=4)


def kit_of(pieces, **more) -> ShimKit:
    return ShimKit(pieces=tuple(ShimPiece(thickness_mm=t, count=n) for t, n in pieces), tapers=(), **more)


@settings(max_examples=200)
@given(PIECES, st.floats(0.6, 24))
def test_fewest_pieces_within_tolerance_by_trying_every_choice(pieces, gap):
    kit = kit_of(pieces)
    choices = itertools.product(*(range(n + 1) for _, n in pieces))
    sums = [(sum(c), sum(n * t for n, (t, _) in zip(c, pieces, strict=True))) for c in choices if sum(c)]
    sums = [(n, thickness) for n, thickness in sums if thickness <= kit.max_stack_mm + kit.tolerance_mm]
    stack = best_stack(gap, kit)
    if not sums:
        assert stack is None
        return
    assert stack is not None
    good = [(n, t) for n, t in sums if abs(t - gap) <= kit.tolerance_mm]
    if good:
        assert abs(stack.left_mm) <= kit.tolerance_mm + 1e-6
        assert len(stack.pieces_mm) == min(n for n, _ in good)
    else:
        assert abs(stack.left_mm) == pytest.approx(min(abs(t - gap) for _, t in sums), abs=0.006)
    assert sum(stack.pieces_mm) == pytest.approx(stack.thickness_mm)
    for thickness in set(stack.pieces_mm):
        assert stack.pieces_mm.count(thickness) <= sum(n for t, n in pieces if t == thickness)


@pytest.mark.parametrize(
    ("gap", "kind", "pieces"),
    [
        (0.4, "bare", None),
        (6.2, "stack", (5.0, 1.0)),
        (7.4, "stack", (5.0, 2.0)),
        (-0.4, "bare", None),
        (-3.0, "cut", None),
    ],
)
def test_what_goes_into_a_gap(gap, kind, pieces):
    filling = fill(gap, plain_kit())
    assert filling.kind == kind
    assert (filling.stack.pieces_mm if filling.stack else None) == pieces
    assert filling.cut_mm == (3.0 if kind == "cut" else None)


def test_past_the_stack_a_block_leaves_room_to_set():
    """41.3 with a limit of 25: a block of 39 and shims of 2 on it (within half a millimetre)."""
    filling = fill(41.3, plain_kit())
    assert (filling.kind, filling.block_mm) == ("block", 39.0)
    assert filling.stack is not None
    assert filling.block_mm is not None
    assert filling.block_mm + filling.stack.thickness_mm == pytest.approx(41.3, abs=0.5)


@given(st.floats(0.5, 20))
def test_a_tapered_pair_measures_the_gap_at_its_setting(gap):
    """Two wedges 150 long, 1 to 8 mm: at overlap centre their faces are parallel and the sum is the gap."""
    taper = Taper(length_mm=150, thin_mm=1, thick_mm=8)
    setting = taper_setting(gap, ShimKit(pieces=(), tapers=(taper,), least_overlap_mm=50))
    if setting is None:
        assert not 9 - 7 * 100 / 150 - 1e-9 <= gap <= 9 + 7 * 100 / 150 + 1e-9
        return
    # the lower wedge lies thin end at 0; the upper, turned end for end, is moved by the slide towards the thin end
    lower = lambda x: 1 + 7 * x / 150  # noqa: E731
    upper = lambda x: 8 - 7 * (x - setting.slide_mm) / 150  # noqa: E731
    middle = (max(0, setting.slide_mm) + min(150, 150 + setting.slide_mm)) / 2
    assert lower(middle) + upper(middle) == pytest.approx(gap, abs=1e-9)
    assert setting.overlap_mm == pytest.approx(150 - abs(setting.slide_mm))
    assert setting.overlap_mm >= 50


def test_one_wedge_is_no_pair():
    taper = Taper(length_mm=150, thin_mm=1, thick_mm=8, count=1)
    assert taper_setting(9.0, ShimKit(tapers=(taper,))) is None


def test_an_empty_kit_says_so():
    filling = fill(6.0, ShimKit(pieces=(), tapers=()))
    assert filling.stack is None
    assert not filling.within_tolerance
    assert math.isclose(fill(60.0, ShimKit(pieces=(), tapers=())).block_mm or 0, 58.0)


def test_a_kit_that_may_stack_without_end_is_held_to_what_people_stack():
    """A hundred metres were said by a slip: over 200 mm a block goes under first, with at most 40 pieces on it."""
    kit = ShimKit(
        pieces=tuple(ShimPiece(thickness_mm=t) for t in (1.0, 2.0, 3.0, 5.0)), tapers=(), max_stack_mm=99_999.0
    )
    low = fill(198.2, kit)
    assert low.stack is not None
    assert low.kind == "stack"
    assert low.stack.thickness_mm == pytest.approx(198.0)
    high = fill(730.0, kit)
    assert high.kind == "block"
    assert high.block_mm == pytest.approx(730.0 - ROOM_ON_BLOCK_MM, abs=1.0)
    fine = replace(kit, pieces=(ShimPiece(thickness_mm=0.1),))
    many = fill(180.0, fine).stack
    assert many is not None
    assert len(many.pieces_mm) <= 40
