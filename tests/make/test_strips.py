"""Strips against a checker that tries every one, and what strips make of many cabinets."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.make.sawing import cabinets, check
from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.lists import cut_list
from wobble.core.make.cutting.patterns import Patterns
from wobble.core.make.cutting.rows import Kind, Lie
from wobble.core.make.cutting.strips import Direction
from wobble.core.make.cutting.tables import Offered

LONG, WIDE, PLENTY = 24, 12, 99
SHEET = Offered(name="sheet", length_mm=2440.0, width_mm=1220.0)


def _stack(lies: Sequence[Lie], worth: Sequence[float], width: int, high: int) -> float:
    """Return the most that parts stacked in a column are worth, trying every one at its foot."""
    fitting = [lie for lie in lies if lie.w <= width and lie.h <= high]
    return max((worth[lie.kind] + _stack(lies, worth, width, high - lie.h) for lie in fitting), default=0.0)


def _strip(lies: Sequence[Lie], worth: Sequence[float], long: int, high: int) -> float:
    """Return the most that columns beside each other are worth, trying every width at the near end."""
    widths = {lie.w for lie in lies if lie.w <= long}
    return max((_stack(lies, worth, w, high) + _strip(lies, worth, long - w, high) for w in widths), default=0.0)


sizes = st.tuples(st.integers(4, LONG), st.integers(3, WIDE))


@given(st.lists(sizes, min_size=1, max_size=4, unique=True), st.data())
@settings(max_examples=40)
def test_no_strip_is_worth_more_than_the_one_that_is_found(parts: list[tuple[int, int]], data: st.DataObject) -> None:
    worth = [data.draw(st.integers(1, 100)) / 400 for _ in parts]
    lies = [Lie(i, False, w, h) for i, (w, h) in enumerate(parts)]
    along = Direction(lies, [PLENTY] * len(parts), LONG, WIDE)
    found = {strip.height: strip for strip in along.best(worth, [0.0] * len(along.heights))}
    assert set(found) == {row for row, high in enumerate(along.heights) if _strip(lies, worth, LONG, high) > 0}
    for row, strip in found.items():
        high = along.heights[row]
        assert sum(max(lie.w for lie in column) for column in strip.columns) <= LONG
        assert all(sum(lie.h for lie in column) <= high for column in strip.columns)
        got = sum(worth[kind] * n for kind, n in strip.held.items())
        assert abs(got - _strip(lies, worth, LONG, high)) < 1e-4


def test_strips_on_a_sheet_are_worth_the_most_together() -> None:
    along = Direction([Lie(i, False, 10, h) for i, h in enumerate((3, 4, 5))], [9, 9, 9], LONG, WIDE)
    # 12 high: four of 3 at 0.30, three of 4 at 0.41, or 5 + 4 + 3 = 0.52 + 0.41 + 0.30
    assert along.heights == [3, 4, 5]
    value, chosen = along.sheet([0.30, 0.41, 0.52])
    assert abs(value - 1.23) < 1e-9
    assert dict(chosen) in ({0: 1, 1: 1, 2: 1}, {1: 3})


def test_sheets_that_are_taken_whole_come_within_one_of_what_the_program_asks_for() -> None:
    wanted = cabinets(24, seed=0)
    counts: Counter[Kind] = Counter()
    for w in wanted:
        counts[Kind(round(w.length_mm + 3), round(w.width_mm + 3), w.grain == "")] += w.quantity
    found = Patterns(list(counts), list(counts.values()), (2443, 1223), Effort(3.0, 30.0))
    assert found.grow(1.0)
    # 20.3 sheets of area, and no list is laid out on fewer than the program asks for by more than it is short of done
    assert 20.3 < found.asks() < 22.0
    made = cut_list(wanted, [SHEET], kerf_mm=3.0, seconds=2.0)
    assert len(made.sheets) <= math.ceil(found.asks())


def test_offcuts_stay_in_use_where_sheets_are_cut_alike() -> None:
    wanted = cabinets(24, seed=0)
    offcut = Offered(name="offcut", length_mm=1200.0, width_mm=800.0, quantity=2, price=0.0)
    sheet = Offered(name="sheet", length_mm=2440.0, width_mm=1220.0, price=60.0)
    made = cut_list(wanted, [offcut, sheet], kerf_mm=3.0, seconds=2.0)
    check(made, wanted, [offcut, sheet], 3.0, 0.0)
    used = [s.stock for s in made.sheets]
    # 20.3 sheets of area, 0.65 of a sheet on the offcuts
    assert used.count("offcut") == 2
    assert used.count("sheet") <= 22
