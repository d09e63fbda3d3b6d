"""Insides: openings with the boards taken off, drawers, doors, shelves and what goes in; by hand."""

from __future__ import annotations

import pytest

from tests.setout.places import carcass, codes, laid, laid_unit, place_of
from wobble.core.job import (
    Cell,
    Columns,
    Construction,
    Content,
    Door,
    Drawers,
    FramedFront,
    Insides,
    PullOut,
    Rows,
    Shelved,
    Slides,
    ToeKickBox,
)
from wobble.core.setout.cells import front_of, inside

FRAMED = Construction(id="f", name="Framed", face_frame=FramedFront(), back="none")


def cells(unit, *ways):
    return {c.path: c for c in laid_unit(laid(place_of(unit), *ways), unit.id).cells}


def test_columns_share_what_the_boards_leave():
    """780 wide, sides of 18: 744 inside; a divider of 18: 726; one is 282, the other 444."""
    found = cells(carcass("C", 780.0, Cell(fill=Columns(cells=(Cell(), Cell(size_mm=282.0))))))
    assert found["0"].rect.wide_mm == pytest.approx(444.0)
    assert found["1"].rect.x_mm == pytest.approx(18 + 444 + 18)
    assert found["1"].rect.x_mm + found["1"].rect.wide_mm == pytest.approx(780 - 18)


def test_thirds_with_the_base_and_the_back_taken_off():
    """720 with a base of 100: 720 − 100 − 36 = 584 inside, two boards between: (584 − 36) / 3 = 182.67.

    500 deep with a back of 6 in a groove 12 from the rear: 482 are free.
    """
    thirds = Cell(fill=Rows(cells=(Cell(), Cell(), Cell())))
    found = cells(carcass("A", 600.0, thirds, standing=ToeKickBox(height_mm=100.0)))
    assert [found[p].rect.high_mm for p in "012"] == pytest.approx([548 / 3] * 3)
    assert found["0"].rect.z_mm == pytest.approx(118.0)
    assert found["0"].deep_mm == pytest.approx(482.0)


@pytest.mark.parametrize(
    ("back", "deep"), [("none", 500.0), ("applied", 500.0), ("rebated", 494.0), ("grooved", 482.0)]
)
def test_how_the_back_is_made_says_how_deep_it_is(back, deep):
    way = Construction(id="w", name="W", back=back)
    assert inside(carcass("A", 600.0, Cell()), way)[1] == pytest.approx(deep)


def test_drawers_are_narrower_by_their_slides_and_lower_by_their_clearance():
    """600: 564 inside, less 2 × 12.7 = 538.6. 684 high for three: 228 each, less 15 and 10: 203."""
    found = cells(carcass("A", 600.0, Cell(fill=Drawers(count=3))))[""]
    assert [d.wide_mm for d in found.drawers] == pytest.approx([538.6] * 3)
    assert [d.high_mm for d in found.drawers] == pytest.approx([203.0] * 3)
    # each box lies 10 over its opening: at 18 + 10, + 228, + 456
    assert [d.z_mm for d in found.drawers] == pytest.approx([28.0, 256.0, 484.0])


def test_a_drawer_said_too_tall_is_a_stop_with_what_fits():
    """684 free, three of 220 want 3 × 245 = 735: 51 too much; (684 − 75) / 3 = 203 all alike fit."""
    out = laid(place_of(carcass("A", 600.0, Cell(fill=Drawers(count=3, heights_mm=(220.0, 220.0, 220.0))))))
    (finding,) = [f for f in out.findings if f.code == "drawer-too-tall"]
    assert finding.figure is not None
    assert finding.figure.value_mm == pytest.approx(-51.0)
    assert "203 mm" in finding.text


def test_slides_behind_a_face_frame_are_spaced_out_at_both_sides():
    """A stile of 40 on a board of 18 stands 22 past it: 564 − 44 = 520 seen, boxes of 520 − 25.4 = 494.6.

    Rails of 40 take 22 at the bottom and the top: 684 − 44 = 640 for two: 320 each, less 25: 295.
    """
    out = laid(place_of(carcass("A", 600.0, Cell(fill=Drawers(count=2)))), FRAMED)
    found = laid_unit(out, "A").cells[0]
    assert found.spacers_mm == pytest.approx((22.0, 22.0))
    assert found.drawers[0].wide_mm == pytest.approx(494.6)
    assert found.drawers[0].high_mm == pytest.approx(295.0)
    assert found.drawers[0].z_mm == pytest.approx(18 + 22 + 10)
    assert "behind-lip" in codes(out)
    assert "behind-lip" not in codes(laid(place_of(carcass("A", 600.0, Cell(fill=Drawers(count=2))))))


def test_between_two_columns_the_mullion_stands_past_the_divider_on_both_sides():
    """(40 − 18) / 2 = 11 on each side of the divider; 22 at the outer stile; an open end has none."""
    way = Construction(id="o", name="Open at the right", face_frame=FramedFront(open_end="right"))
    two = Cell(fill=Columns(cells=(Cell(fill=Drawers(count=1)), Cell(fill=PullOut()))))
    found = cells(carcass("A", 900.0, two), way)
    assert found["0"].spacers_mm == pytest.approx((22.0, 11.0))
    assert found["1"].spacers_mm == pytest.approx((11.0, 0.0))


@pytest.mark.parametrize(
    ("lies", "wide", "high"),
    [("inset", 560.0, 680.0), ("half overlay", 578.0, 698.0), ("full overlay", 596.0, 716.0)],
)
def test_doors_by_how_they_lie(lies, wide, high):
    """564 by 684 free, gap 2: inset 4 less; half over each board of 18: 9 − 2 more at every edge; full: 18 − 2."""
    (leaf,) = cells(carcass("A", 600.0, Cell(door=Door(lies=lies, hinge="cup"))))[""].door
    assert (leaf.at.wide_mm, leaf.at.high_mm) == pytest.approx((wide, high))


def test_a_pair_shares_what_one_leaf_would_have_less_a_gap():
    """(596 − 2) / 2 = 297 each, the second 2 after the first."""
    left, right = cells(carcass("A", 600.0, Cell(door=Door(hangs="pair", hinge="cup"))))[""].door
    assert (left.at.wide_mm, right.at.wide_mm) == pytest.approx((297.0, 297.0))
    assert right.at.x_mm - (left.at.x_mm + left.at.wide_mm) == pytest.approx(2.0)
    assert (left.hangs, right.hangs) == ("left", "right")


def test_by_what_goes_in_a_cell_is_as_high_as_its_things_with_a_hands_room():
    """Two trays of 90 on each other and 25 over them: 205; the other cell has the rest: 684 − 18 − 205 = 461."""
    tray = Content(name="Tray", width_mm=300.0, depth_mm=200.0, height_mm=90.0, stacked=2, count=2, room_mm=25.0)
    found = cells(carcass("A", 600.0, Cell(fill=Rows(cells=(Cell(by_contents=True, holds=(tray,)), Cell())))))
    assert (found["0"].rect.high_mm, found["1"].rect.high_mm) == pytest.approx((205.0, 461.0))


def test_shelves_share_the_height_with_their_own_thickness_off():
    """684 with two shelves of 18: (684 − 36) / 3 = 216: undersides at 18 + 216 and 18 + 216 + 18 + 216."""
    found = cells(carcass("A", 600.0, Cell(fill=Shelved(count=2))))[""]
    assert found.shelves_at == pytest.approx((234.0, 468.0))
    assert found.shelf_mm == pytest.approx((564.0, 482.0))


@pytest.mark.parametrize(
    ("thing", "what"),
    [
        (Content(name="X", width_mm=570.0, depth_mm=100.0, height_mm=100.0), "Width"),
        (Content(name="X", width_mm=100.0, depth_mm=490.0, height_mm=100.0), "Depth"),
        (Content(name="X", width_mm=100.0, depth_mm=100.0, height_mm=670.0), "Height"),
        (Content(name="X", width_mm=300.0, depth_mm=250.0, height_mm=100.0, count=2), "2 wanted, room for 1"),
    ],
)
def test_what_does_not_go_in_says_what_lacks(thing, what):
    """564 by 482 by 684 are free; 670 and 20 of a hand's room is too high; of 300 by 250 one stands there."""
    out = laid(place_of(carcass("A", 600.0, Cell(holds=(thing,)))))
    (finding,) = [f for f in out.findings if f.code == "does-not-go-in"]
    assert what in finding.text


def test_a_flap_that_lifts_into_what_stands_out_over_it_is_a_stop():
    box = carcass("A", 600.0, Cell(door=Door(hangs="up", hinge="cup")), over_base_mm=900.0, height_mm=400.0)
    over = carcass("B", 600.0, Cell(), over_base_mm=1320.0, height_mm=400.0, depth_mm=560.0)
    assert "lid-room" in codes(laid(place_of(box, over)))
    behind = carcass("B", 600.0, Cell(), over_base_mm=1320.0, height_mm=400.0, depth_mm=400.0)
    assert "lid-room" not in codes(laid(place_of(box, behind)))


def test_a_wide_shelf_of_books_sags_and_a_divided_one_does_not():
    """964 of 18 mm particleboard under 350 kg/m³ × 0.482 × 0.3 = 50.6 kg/m and its own 5.6.

    w = 56.3 × 9.81 / 1000 = 0.552 N/mm, I = 482 × 18³ / 12 = 234 252 mm⁴, E = 1800:
    5 × 0.552 × 964⁴ / (384 × 1800 × 234 252) = 14.7 at first, twice that after years; 964 / 300 = 3.2.
    """
    wide = laid(place_of(carcass("A", 1000.0, Cell(fill=Shelved(count=1)), holds="books", height_mm=1000.0)))
    (finding,) = [f for f in wide.findings if f.code == "shelf-sags"]
    assert finding.figure is not None
    assert finding.figure.value_mm == pytest.approx(2 * 14.7, rel=0.01)
    two = Cell(fill=Columns(cells=(Cell(fill=Shelved(count=1)), Cell(fill=Shelved(count=1)))))
    assert "shelf-sags" not in codes(laid(place_of(carcass("A", 800.0, two, holds="clothes"))))


def test_fit_takes_doors_and_drawers_from_the_cells():
    two = Columns(cells=(Cell(door=Door(hangs="left")), Cell(door=Door(hangs="right"))))
    assert front_of(carcass("A", 900.0, Cell(fill=two))).opens == "pair of doors"
    assert front_of(carcass("A", 900.0, Cell(fill=two))).openings == 2
    assert front_of(carcass("A", 900.0, Cell(fill=Drawers()))).opens == "drawers"
    assert front_of(carcass("A", 900.0, Cell(door=Door(hangs="up")))).opens == "nothing"


def test_slides_under_the_box_and_wooden_runners_take_less():
    under = Slides(kind="under", side_mm=5.0)
    found = cells(carcass("A", 600.0, Cell(fill=Drawers(count=1, slides=under))))[""]
    assert found.drawers[0].wide_mm == pytest.approx(554.0)


def test_each_unit_is_built_as_it_says_or_as_the_job_does():
    """The job's first way has boards of 15: 600 − 30 = 570; the one that the unit names has 22: 556."""
    ways = (Construction(id="a", name="A", board_mm=15.0), Construction(id="b", name="B", board_mm=22.0))
    assert cells(carcass("A", 600.0, Cell()), *ways)[""].rect.wide_mm == pytest.approx(570.0)
    named = carcass("A", 600.0, Cell())
    named = type(named)(**{f: getattr(named, f) for f in named.__struct_fields__} | {"insides": Insides(built="b")})
    assert cells(named, *ways)[""].rect.wide_mm == pytest.approx(556.0)
