"""Lists of parts laid out: what comes off the saw, how many sheets it takes, and how bad tables are told."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.make.sawing import cabinets, check, dissected
from wobble.cli import main
from wobble.core.make.cutting.lengths import Board, cut_lengths
from wobble.core.make.cutting.lists import CutList, Looking, Saw, cut_list, cut_lists
from wobble.core.make.cutting.sheets import Aim
from wobble.core.make.cutting.tables import ListError, Offered, Wanted, read_offered, read_wanted

SHEET = Offered(name="sheet", length_mm=2440.0, width_mm=1220.0)

sizes = st.integers(20, 2600).map(float) | st.floats(20, 1300).map(lambda x: round(x, 1))
any_wanted = st.builds(
    Wanted,
    name=st.just("?"),
    quantity=st.integers(1, 6),
    length_mm=sizes,
    width_mm=sizes,
    grain=st.sampled_from(("length", "")),
)
any_offered = st.builds(
    Offered,
    name=st.just("?"),
    length_mm=st.sampled_from((2440.0, 2500.0, 1250.5, 800.0)),
    width_mm=st.sampled_from((1220.0, 610.0, 333.3, None)),
    quantity=st.sampled_from((None, 1, 3)),
    price=st.sampled_from((0.0, 12.5, 60.0)),
)


@given(
    st.lists(any_wanted, min_size=1, max_size=10),
    st.lists(any_offered, min_size=1, max_size=4),
    st.sampled_from((0.0, 2.4, 3.0)),
    st.sampled_from((0.0, 1.0, 10.0)),
)
@settings(max_examples=60)
def test_whatever_is_laid_out_can_be_sawn(parts: list[Wanted], stock: list[Offered], kerf: float, trim: float) -> None:
    parts = [
        Wanted(name=f"p{i}", quantity=p.quantity, length_mm=p.length_mm, width_mm=p.width_mm, grain=p.grain)
        for i, p in enumerate(parts)
    ]
    stock = [
        Offered(name=f"s{i}", length_mm=s.length_mm, width_mm=s.width_mm, quantity=s.quantity, price=s.price)
        for i, s in enumerate(stock)
    ]
    check(cut_list(parts, stock, kerf_mm=kerf, trim_mm=trim, seconds=0.03), parts, stock, kerf, trim)


@pytest.mark.parametrize(("n", "parts", "grid"), [(1, 9, 1), (3, 7, 1), (5, 8, 1), (3, 8, 5), (6, 6, 10)])
def test_parts_of_whole_sheets_go_back_onto_them(n: int, parts: int, grid: int) -> None:
    over = 0
    for seed in range(3):
        wanted = dissected(n, (2440, 1220), 3.0, parts, seed, grid=grid)
        made = cut_list(wanted, [SHEET], kerf_mm=3.0, seconds=1.0)
        check(made, wanted, [SHEET], 3.0, 0.0)
        assert not made.missing
        assert len(made.sheets) <= n + 1
        over += len(made.sheets) > n
    assert over <= 1


def test_cabinets_take_hardly_more_sheets_than_any_layout_must() -> None:
    wanted = cabinets(24, seed=1)
    made = cut_list(wanted, [SHEET], kerf_mm=3.0, seconds=1.0)
    check(made, wanted, [SHEET], 3.0, 0.0)
    assert made.bound >= 17  # 16.5 sheets of area
    assert len(made.sheets) <= made.bound + 1


def fewest_boards(parts: tuple[int, ...], board: int) -> int:
    """Return the least number of boards by trying every way: the first part with every set of the others."""

    @cache
    def fewest(left: tuple[int, ...]) -> int:
        if not left:
            return 0
        first, others = left[0], left[1:]
        best = 99
        for chosen in range(1 << len(others)):
            with_it = [others[i] for i in range(len(others)) if chosen >> i & 1]
            if first + sum(with_it) <= board:
                best = min(best, 1 + fewest(tuple(others[i] for i in range(len(others)) if not chosen >> i & 1)))
        return best

    return fewest(tuple(sorted(parts, reverse=True)))


@given(st.lists(st.integers(100, 900), min_size=1, max_size=9))
@settings(max_examples=40)
def test_boards_are_as_few_as_trying_all_ways_finds(parts: list[int]) -> None:
    kinds = sorted(set(parts))
    made = cut_lengths(kinds, [parts.count(k) for k in kinds], [Board(1000, None, 1.0)], seconds=0.5)
    fewest = fewest_boards(tuple(parts), 1000)
    assert made.bound <= fewest
    assert len(made.used) == fewest


def test_what_is_at_hand_is_used_before_what_is_bought() -> None:
    made = cut_list(
        [Wanted(name="rail", quantity=3, length_mm=500.0, width_mm=0.0)],
        [
            Offered(name="new", length_mm=2400.0, price=9.0),
            Offered(name="offcut", length_mm=1010.0, quantity=1),
            Offered(name="stub", length_mm=505.0, quantity=1),
        ],
        kerf_mm=3.0,
    )
    # 2 × 500 and one kerf are 1003: the offcut gives two, the stub one, and nothing is bought
    assert sorted(b.stock for b in made.lengths) == ["offcut", "stub"]
    assert made.price == 0.0


def test_of_two_sizes_the_cheaper_for_the_list_is_taken() -> None:
    wanted = [Wanted(name="shelf", quantity=3, length_mm=1180.0, width_mm=390.0)]
    whole, half = (
        Offered(name=n, length_mm=a, width_mm=1220.0, price=p) for n, a, p in (("w", 2440.0, 60.0), ("h", 1220.0, 36.0))
    )
    assert [s.stock for s in cut_list(wanted, [whole, half], kerf_mm=3.0).sheets] == ["h"]  # 3 × 390 + 2 × 3 = 1176
    more = [Wanted(name="shelf", quantity=6, length_mm=1180.0, width_mm=390.0)]
    assert [s.stock for s in cut_list(more, [whole, half], kerf_mm=3.0).sheets] == ["w"]  # 60 is less than twice 36


@pytest.mark.parametrize("at_most_s", [0.0, 0.05, 6.0])
def test_aims_trade_settings_against_metres_at_one_number_of_sheets_however_slow_the_machine_is(
    at_most_s: float,
) -> None:
    wanted = cabinets(6, seed=2)
    made = cut_lists(wanted, [SHEET], Saw(3.0), Looking(get_args(Aim), 0.6, at_most_s, 1))

    def metres(one: CutList) -> float:
        return sum(c.size[1 if c.axis == "x" else 0] for s in one.sheets for c in s.cuts) / 1000

    def stops(one: CutList) -> int:
        return len({round(c.at_mm - c.at[0 if c.axis == "x" else 1], 1) for s in one.sheets for c in s.cuts})

    assert len({len(one.sheets) for one in made.values()}) == 1
    assert metres(made["fewest metres"]) <= metres(made["fewest sheets"])
    assert stops(made["fewest settings"]) <= stops(made["fewest sheets"])
    for one in made.values():
        check(one, wanted, [SHEET], 3.0, 0.0)


HEAD = "name,quantity,length_mm,width_mm,thickness_mm,material,grain\n"


@pytest.mark.parametrize(
    ("text", "where"),
    [
        ("", "is empty"),
        ("name,width_mm\nside,3\n", "line 1: there is no column length_mm"),
        (HEAD + "side,2,720,560,18,ply,length\nside,x,720,560,18,ply,\n", "line 3, column quantity: “x” is no number"),
        (HEAD + "side,1.5,720,560,18,ply,\n", "line 2, column quantity: 1.5 is no whole number"),
        (HEAD + "side,0,720,560,18,ply,\n", "line 2, column quantity: 0 is not between 1"),
        (HEAD + "side,1,,560,18,ply,\n", "line 2, column length_mm: there is nothing"),
        (HEAD + "side,1,-4,560,18,ply,\n", "line 2, column length_mm: -4 is not between"),
        (HEAD + "side,1,nan,560,18,ply,\n", "line 2, column length_mm: nan is not between"),
        (HEAD + "side,1,720,560,18,ply,up\n", "line 2, column grain: “up” is neither"),
        (HEAD + "side,1,720,560,18,ply,,9\n", "line 2: 8 cells under 7 columns"),
    ],
)
def test_bad_rows_are_told_by_line_and_column(text: str, where: str) -> None:
    with pytest.raises(ListError, match=where) as told:
        read_wanted(text)
    assert told.value.mend


def test_tables_as_they_come_from_spreadsheets_are_read() -> None:
    text = "\ufeffName;Quantity;Length_mm;Width_mm;Thickness_mm;Material;Grain\r\n\r\nside;2;720;560;18;Ply;\r\n"
    assert read_wanted(text) == (
        Wanted(name="side", quantity=2, length_mm=720.0, width_mm=560.0, thickness_mm=18.0, material="Ply"),
    )
    assert read_offered("name,length_mm,quantity\nboard,2400,\n")[0].quantity is None


def test_the_command_prints_what_is_laid_out_and_what_is_missing(
    tmp_path: Path, capsysbinary: pytest.CaptureFixture[bytes]
) -> None:
    parts, stock = tmp_path / "parts.csv", tmp_path / "stock.csv"
    parts.write_text(
        HEAD + "side,2,720,560,18,ply,length\nhuge,1,3000,100,18,ply,\nthin,1,300,200,6,ply,\ncleat,3,800,,20,pine,\n"
    )
    stock.write_text(
        "name,material,thickness_mm,length_mm,width_mm,quantity,price\n"
        "Ply 18,ply,18,2440,1220,,60\nPine,pine,20,2400,,,8\n"
    )
    assert main(["cut", str(parts), "--stock", str(stock), "--kerf", "3", "--trim", "5", "--json"]) == 0
    told = json.loads(capsysbinary.readouterr().out)
    assert [p["name"] for p in told["sheets"][0]["parts"]] == ["side", "side"]
    assert {p["x_mm"] for b in told["lengths"] for p in b["parts"]} == {5.0, 808.0}  # 5 of trim, 800, a kerf of 3
    assert {m["name"]: m["why"] for m in told["missing"]} == {
        "huge": "3000 × 100 mm is larger than any stock; the largest gives 2430 × 1210 mm",
        "thin": "there is ply of 18 mm, none of 6 mm",
    }
    assert told["bound"] == 3  # one sheet; 3 × 803 of 2390 + 3 are two boards
    assert main(["cut", str(parts), "--stock", str(stock)]) == 0
    assert b"Missing: 1 \xc3\x97 huge" in capsysbinary.readouterr().out
    assert main(["cut", str(parts), "--stock", str(tmp_path / "none.csv")]) == 1
    assert main(["cut", str(parts), "--stock", str(stock), "--kerf", "900"]) == 1
