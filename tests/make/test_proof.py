"""What no cutting goes under, against a checker that tries every cut, and lists of which the least is known."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from functools import cache

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.make.sawing import cabinets, check, dissected
from wobble.core.make.cutting.effort import Effort
from wobble.core.make.cutting.guillotine import Guillotine, raster
from wobble.core.make.cutting.lists import cut_list
from wobble.core.make.cutting.patterns import Patterns
from wobble.core.make.cutting.proof import MOST_HELD
from wobble.core.make.cutting.rows import Kind, lies
from wobble.core.make.cutting.tables import Offered, Wanted
from wobble.core.make.cutting.tree import extent, leaves

SHEET = Offered(name="sheet", length_mm=2440.0, width_mm=1220.0)
LONG, WIDE = 26, 15


def most_worth(kinds: Sequence[Kind], worth: Sequence[float]) -> float:
    """Return the most that a sheet is worth, cutting at every cell, whatever lies there."""

    @cache
    def most(w: int, h: int) -> float:
        here = [
            worth[i]
            for i, k in enumerate(kinds)
            if (k.long <= w and k.wide <= h) or (k.turns and k.wide <= w and k.long <= h)
        ]
        across = [most(x, h) + most(w - x, h) for x in range(1, w // 2 + 1)]
        up = [most(w, y) + most(w, h - y) for y in range(1, h // 2 + 1)]
        return max([0.0, *here, *across, *up])

    return most(LONG, WIDE)


parts = st.builds(Kind, st.integers(3, LONG), st.integers(2, WIDE), st.booleans())


@given(st.lists(parts, min_size=1, max_size=5, unique=True), st.data())
@settings(max_examples=60)
def test_no_way_to_cut_a_sheet_is_worth_more_than_the_one_that_is_found(kinds: list[Kind], data: st.DataObject) -> None:
    worth = [data.draw(st.integers(0, 100)) / 256 for _ in kinds]
    value, tree = Guillotine(lies(kinds, LONG, WIDE), (LONG, WIDE)).best(worth)
    assert value == pytest.approx(most_worth(kinds, worth), abs=1e-4)
    assert value >= sum(worth[leaf.kind] for leaf in leaves(tree)) == pytest.approx(value, abs=1e-4)
    long, wide = extent(tree, tuple((k.long, k.wide) for k in kinds))
    assert long <= LONG
    assert wide <= WIDE
    assert all(kinds[leaf.kind].turns for leaf in leaves(tree) if leaf.turned)


def test_cuts_are_made_where_sums_of_sides_reach_from_either_end() -> None:
    # sums of 7 and 9 up to 20: 0 7 9 14 16 18; from the far end 20, 13, 11, 6, 4, 2, or sums below
    assert raster({7, 9}, 20).tolist() == [0, 9, 18, 20]


def _proved(wanted: Sequence[Wanted]) -> Patterns:
    counts: Counter[Kind] = Counter()
    for w in wanted:
        counts[Kind(round(w.length_mm + 3), round(w.width_mm + 3), w.grain == "")] += w.quantity
    found = Patterns(list(counts), list(counts.values()), (2443, 1223), Effort(4.0, 60.0))
    assert found.grow(1.0)
    found.prove()
    return found


@pytest.mark.parametrize("seed", range(2))
def test_nothing_is_proved_that_a_known_layout_refutes(seed: int) -> None:
    sheets = 5
    found = _proved(dissected(sheets, (2440, 1220), 3.0, 4, seed, grid=20))
    # nothing was wasted, so that fewer cannot do, and these sheets do
    assert found.least == sheets


def test_parts_of_many_cabinets_lie_on_as_few_sheets_as_can_be() -> None:
    for units, seed, area in ((16, 4, 10.8), (24, 7, 16.9), (48, 1, 36.3)):
        wanted = cabinets(units, seed)
        # kerf and all, of sheets that are a kerf larger themselves
        whole = sum(w.quantity * (w.length_mm + 3) * (w.width_mm + 3) for w in wanted) / 2443 / 1223
        assert whole == pytest.approx(area, abs=0.1)
        made = cut_list(wanted, [SHEET], kerf_mm=3.0, seconds=3.0)
        check(made, wanted, [SHEET], 3.0, 0.0)
        assert area < made.bound == len(made.sheets)


def test_what_is_too_fine_to_be_proved_is_not_begun() -> None:
    """Thirty kinds to a hundredth of a millimetre: hundreds of millions of cuts, of which none is written down."""
    kinds = [Kind(20_000 + 997 * i, 10_000 + 691 * i, turns=True) for i in range(30)]
    size = (244_300, 122_300)
    assert Guillotine(lies(kinds, *size), size).held > MOST_HELD
    found = Patterns(kinds, [9] * 30, size, Effort(2.0, 20.0))
    assert not found.prove()
    assert found.least == 0


def test_prices_of_nothing_prove_nothing() -> None:
    kinds = [Kind(10, 5, turns=False), Kind(4, 4, turns=True)]
    value, tree = Guillotine(lies(kinds, LONG, WIDE), (LONG, WIDE)).best([0.0, 0.0])
    assert value == 0.0
    assert tree is None
    assert np.all(np.diff(raster({10, 4}, LONG)) > 0)
