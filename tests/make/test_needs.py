"""What people ask of making, a document with its own numbers for each line, and what a careful maker would answer.

Figures in the docstrings are worked out by hand from the document, not read off the program.
"""

from __future__ import annotations

import itertools
import math

import pytest
from msgspec.structs import replace

from tests.make.test_job import BOX, PLY, THIN, job, part
from wobble.core.job import (
    Cell,
    Coats,
    Columns,
    Construction,
    Door,
    Drawers,
    Finish,
    FramedFront,
    Got,
    HangingWall,
    Hung,
    Insides,
    LengthStock,
    Machine,
    Offer,
    OnCleats,
    Pack,
    SheetStock,
    Shelved,
    Shop,
    Unit,
    Workshop,
)
from wobble.core.job.board import Board
from wobble.core.make.layout.handling import Limits, broken_down
from wobble.core.make.layout.laid import LaidSheet, stop_mm
from wobble.core.make.result import Made
from wobble.core.make.settings import Setting
from wobble.core.stages import solve_make

SEAT = Unit(id="S", name="S Seat", kind="cushion", x_mm=1000.0, width_mm=900.0, depth_mm=450.0, height_mm=60.0)


def roles(made: Made) -> set[str]:
    return {p.part.role for p in made.parts}


def sizes(made: Made, id_: str) -> list[float]:
    return [round(d.figure.value_mm, 3) for d in part(made, id_).part.finished]


def setting(made: Made, work: str, at_mm: float) -> Setting:
    return next(s for s in made.settings if s.work == work and abs(s.at_mm - at_mm) < 0.05)


# --- every part, nothing left off ---


def test_a_chest_a_cushion_and_a_lipped_top_leave_nothing_off() -> None:
    chest = replace(BOX, insides=Insides(cell=Cell(fill=Drawers(count=2))))
    top = Unit(
        id="T", name="T Top", kind="top", x_mm=950.0, width_mm=700.0, depth_mm=600.0, height_mm=30.0,
        over_base_mm=720.0, board=Board(material="beech"),
    )  # fmt: skip
    made = solve_make(job(chest, top, SEAT))
    wanted = {"side", "bottom", "carcass top", "back", "drawer side", "drawer end", "drawer bottom", "drawer front"}
    assert roles(made) >= wanted | {"top", "cushion board"}
    counts = {r: sum(p.part.quantity for p in made.parts if p.part.role == r) for r in wanted}
    # two sides; per drawer two sides, two ends, a bottom and a front
    assert counts == {
        "side": 2, "bottom": 1, "carcass top": 1, "back": 1,
        "drawer side": 4, "drawer end": 4, "drawer bottom": 2, "drawer front": 2,
    }  # fmt: skip


def test_the_board_of_a_cushion_is_smaller_by_the_cloth() -> None:
    """The cloth is drawn round it: 5 less at each edge, 890 by 440 of 900 by 450."""
    assert sizes(solve_make(job(SEAT)), "cushion-board-S") == [890.0, 440.0]


def test_a_seen_face_is_named_and_a_hidden_one_is_not() -> None:
    """Between two others nothing of its sides is seen; at the end of the run its right one is."""
    row = [replace(BOX, id=i, name=i, x_mm=1000.0 + 600.0 * n) for n, i in enumerate("ABC")]
    made = solve_make(job(*row))
    assert part(made, "side-B-left").part.seen == ()
    assert part(made, "side-C-right").part.seen == ("outer face",)


def test_what_a_place_that_is_not_measured_will_want_is_roughed_out() -> None:
    """A top that meets the back, a box on a ledger, a shelf on three cleats: each waits, and none is left off."""
    top = Unit(id="T", name="T", kind="top", x_mm=0.0, width_mm=1400.0, depth_mm=600.0, height_mm=30.0, meets=("back",))
    hung = replace(BOX, id="H", name="H", kind="wall", over_base_mm=1400.0, standing=Hung(by="ledger"))
    shelf = Unit(
        id="C", name="C", kind="shelf", x_mm=0.0, width_mm=900.0, depth_mm=300.0, height_mm=20.0, over_base_mm=1800.0,
        meets=("left", "right", "back"), standing=OnCleats(thick_mm=22.0, high_mm=45.0),
    )  # fmt: skip
    made = solve_make(job(BOX, replace(top, over_base_mm=720.0), hung, shelf))
    rough = {p.part.id: (p.state, *p.part.blank_mm) for p in made.parts if p.part.waits or p.part.ready}
    assert rough["flat-T"] == ("after", 1400.0, 600.0)
    assert rough["ledger-H"][:2] == ("after", 600.0)
    cleats = {i: size for i, size in rough.items() if i.startswith("cleat-C")}
    assert cleats == {
        "cleat-C-left": ("after", 300.0, 45.0),
        "cleat-C-right": ("after", 300.0, 45.0),
        "cleat-C-back": ("after", 900.0, 45.0),
    }


# --- true sizes ---


def test_a_sheet_as_thick_as_it_measures_enters_every_sum() -> None:
    """Of 17.4: a bottom of 600 − 2 × 17.4 = 565.2; a back in grooves of 8 less half a millimetre of play each.

    600 − 34.8 + 2 × 8 − 2 × 0.5 = 580.2 wide; 720 − 34.8 + 16 − 1 = 700.2 high.
    """
    way = Construction(id="w", name="W", board="ply")
    made = solve_make(job(BOX, workshop=Workshop(stock=(replace(PLY, measured_mm=17.4), THIN)), constructions=(way,)))
    assert sizes(made, "bottom-B")[0] == 565.2
    assert sizes(made, "back-B") == [700.2, 580.2]


def test_a_face_frame_comes_off_the_depth_of_the_boards_behind_it() -> None:
    """560 deep with a frame of 20 before it: sides of 540; rails of 600 − 2 × 45 = 510 between stiles of 45."""
    way = Construction(id="w", name="W", face_frame=FramedFront(stile_mm=45.0, rail_mm=40.0, thick_mm=20.0))
    made = solve_make(job(BOX, constructions=(way,)))
    assert sizes(made, "side-B-left")[1] == 540.0
    assert sizes(made, "rail-B")[0] == 510.0


# --- at one setting ---


def test_strips_for_split_battens_are_ripped_double_and_parted_by_one_bevel() -> None:
    hung = replace(BOX, over_base_mm=1400.0, height_mm=600.0, kind="wall", standing=Hung(by="split batten"))
    made = solve_make(job(hung))
    battens = [p for p in made.parts if p.part.role == "split batten"]
    assert [(p.state, p.part.blank_mm[0]) for p in battens] == [("after", 600.0)]
    rip = setting(made, "rip", battens[0].part.blank_mm[1])
    assert "ripped double, then split by the bevel" in rip.words
    bevel = setting(made, "bevel", 45.0)
    assert {p.key for p in bevel.pieces} == {p.key for p in battens}


def test_one_edge_is_made_true_before_any_width_is_measured_from_it() -> None:
    way = Construction(id="w", name="W", face_frame=FramedFront())
    works = [s.work for s in solve_make(job(BOX, constructions=(way,))).settings]
    assert works.index("true edge") < works.index("rip") < works.index("cross-cut")


def test_like_lengths_of_all_units_share_a_stop() -> None:
    """Two boxes 600 and one 500 wide: the bottoms and tops of both wide ones, 564, at one stop; 464 at another."""
    row = (
        BOX,
        replace(BOX, id="C", name="C", x_mm=1600.0),
        replace(BOX, id="D", name="D", x_mm=2200.0, width_mm=500.0),
    )
    made = solve_make(job(*row))
    wide, narrow = setting(made, "cross-cut", 564.0), setting(made, "cross-cut", 464.0)
    assert sum(p.count for p in wide.pieces) == 4
    assert sum(p.count for p in narrow.pieces) == 2
    assert "two clamped and cut together" in wide.words


def test_a_groove_is_set_once_for_all_that_have_it() -> None:
    """Backs of 6 in grooves of 8, 12 in from the rear: both sides, bottom and top of both boxes at one setting."""
    made = solve_make(job(BOX, replace(BOX, id="C", name="C", x_mm=1600.0)))
    grooves = [s for s in made.settings if s.work == "groove"]
    assert [(s.at_mm, s.deep_mm, s.from_mm) for s in grooves] == [(6.0, 8.0, 12.0)]
    assert sum(p.count for p in grooves[0].pieces) == 8


# --- what is lifted, carried and sawn ---


def test_a_sheet_is_cut_where_it_is_bought_until_one_lifts_it_and_the_car_takes_it() -> None:
    """A sheet of plywood 2440 by 1220 by 18 weighs 2.44 × 1.22 × 0.018 × 650 = 34.8 kg.

    Half of it 17.4; a car takes 1300 by 1250. One cut across near the middle does for 25 kg and for the car; for
    10 kg each half must be cut once more at least.
    """
    big = replace(BOX, width_mm=1200.0, height_mm=1200.0, depth_mm=1100.0)
    shop = Workshop(stock=(PLY, THIN), lifts_kg=25.0, carries_mm=(1300.0, 1250.0))
    made = solve_make(job(big, workshop=shop))
    for sheet in (s for s in made.layout.sheets if s.thick_mm == 18.0):
        assert sheet.weight_kg == pytest.approx(2.44 * 1.22 * 0.018 * 650, rel=0.12)
        left = _left(sheet)
        assert all(max(p) <= 1300.0 + 1e-6 and min(p) <= 1250.0 for p in left), left
        heaviest = max(a * b for a, b in left) / 2440.0 / 1220.0 * sheet.weight_kg
        assert heaviest <= 25.0 + 1e-6
        # no cut too many: without its last one something would be too large
        fewer = replace(sheet, before=sheet.before[:-1])
        assert any(Limits(25.0, (1300.0, 1250.0)).over(sheet, p) for p in _left(fewer))


def test_what_is_at_hand_goes_into_no_car_and_a_part_too_large_by_itself_is_told() -> None:
    shop = Workshop(stock=(replace(PLY, at_hand=9), replace(THIN, at_hand=9)), carries_mm=(500.0, 400.0))
    made = solve_make(job(BOX, workshop=shop))
    assert all(not s.bought for s in made.layout.sheets)
    assert not [f for f in made.findings if f.code == "long-sheet"]
    bought = solve_make(job(BOX, workshop=Workshop(stock=(PLY, THIN), carries_mm=(500.0, 400.0))))
    assert all(s.bought for s in bought.layout.sheets)
    assert "a part is over that by itself" in next(f.text for f in bought.findings if f.code == "long-sheet")


def _left(sheet: LaidSheet) -> list[tuple[float, float]]:
    """Return the pieces that lie there after the cuts that are made before, sawn one by one as they come."""
    lying = [(0.0, 0.0, sheet.long_mm, sheet.wide_mm)]
    for n in sheet.before:
        cut = sheet.cuts[n]
        x0, y0 = cut.at
        x1, y1 = x0 + cut.size[0], y0 + cut.size[1]
        own = next(p for p in lying if p[0] <= x0 + 1 and p[1] <= y0 + 1 and p[2] >= x1 - 1 and p[3] >= y1 - 1)
        lying.remove(own)
        at = cut.at_mm
        if cut.axis == "x":
            lying += [(own[0], own[1], at, own[3]), (at + 3.0, own[1], own[2], own[3])]
        else:
            lying += [(own[0], own[1], own[2], at), (own[0], at + 3.0, own[2], own[3])]
    return [(c - a, d - b) for a, b, c, d in lying if min(c - a, d - b) > 6.0]  # not what is trimmed off


def test_edges_are_trimmed_before_as_stops_are_set_from_trimmed_edges() -> None:
    """Four trims, then whatever parts the sheet; a sheet that is light enough is not touched for its edges alone."""
    made = solve_make(job(BOX, workshop=Workshop(stock=(PLY, THIN), lifts_kg=20.0)))
    for sheet in made.layout.sheets:
        assert broken_down(sheet, Limits()).cuts == ()
        if sheet.weight_kg <= 20.0:
            assert sheet.before == ()
        else:
            assert sheet.before[:4] == (0, 1, 2, 3)
            assert any(stop_mm(sheet.cuts[n]) > 100.0 for n in sheet.before[4:])


# --- holes ---


def test_every_sort_of_hole_says_when_and_from_which_edge() -> None:
    """Cups 22.5 in, 100 from the ends; pins 37 in; screws through a hidden side before glue and paint."""
    way = Construction(id="w", name="W", handle_apart_mm=96.0)
    row = [replace(BOX, id=i, name=i, x_mm=1000.0 + 600.0 * n) for n, i in enumerate("ABC")]
    made = solve_make(job(*row, constructions=(way,)))
    door = part(made, "door-B-main").part
    cups = next(d for d in door.drillings if d.use == "hinge cup")
    assert cups.at[0] == (100.0, 22.5)
    assert "the hinge's own sheet counts" in cups.words
    assert "before paint" in next(d for d in door.drillings if d.use == "handle").words
    side = part(made, "side-B-left").part
    assert "before glue and paint" in next(d for d in side.drillings if d.use == "screw").words
    pins = next(d for d in side.drillings if d.use == "shelf pin")
    assert max(y for _, y in pins.at) == 560.0 - 37.0
    drills = [s for s in made.settings if s.work == "drill"]
    assert all(s.words for s in drills)
    assert {s.at_mm for s in drills} >= {35.0, 5.0, 4.5}


def test_holes_for_pegs_that_fall_over_a_strip_behind_are_counted() -> None:
    """A board 600 high, pegs of 20 on a pitch of 150: four rows, the first 75 up. Strips of 45 at foot and head.

    A hole is 10 round its middle: none of the rows at 75, 225, 375, 525 comes nearer than 20 to a strip. On a pitch of
    185 rows are at 22.5, 207.5, 392.5 and 577.5: the first and the last lie over strips, four holes each.
    """

    def words(pitch: float) -> str:
        body = HangingWall(by="pegs", member_mm=20.0, pitch_mm=pitch, behind_mm=20.0)
        wall = Unit(
            id="W", name="W", kind="peg wall", x_mm=500.0, width_mm=600.0, depth_mm=38.0, height_mm=600.0, body=body
        )
        return part(solve_make(job(wall)), "peg-board-W").part.drillings[0].words

    assert "over a strip" not in words(150.0)
    assert "8 of them lie over a strip behind" in words(185.0)


# --- joints by what will be seen ---


@pytest.mark.parametrize(
    ("joined", "hidden", "seen"),
    [
        ("screws", "screwed through the sides", "a seen end: not screwed through"),
        ("pocket screws", "pocket screws", "pocket screws"),
        ("dowels", "doweled and glued", "doweled and glued"),
    ],
)
def test_a_joint_follows_from_what_will_be_seen(joined: str, hidden: str, seen: str) -> None:
    way = Construction(id="w", name="W", joined=joined)  # type: ignore[arg-type]
    row = [replace(BOX, id=i, name=i, x_mm=1000.0 + 600.0 * n) for n, i in enumerate("ABC")]
    made = solve_make(job(*row, constructions=(way,)))
    assert hidden in part(made, "side-B-left").part.joins
    assert seen in part(made, "side-C-right").part.joins


def test_every_upright_board_says_which_unit_which_end_and_which_face_lies_up() -> None:
    made = solve_make(job(replace(BOX, insides=Insides(cell=Cell(fill=Columns(cells=(Cell(), Cell())))))))
    for id_, hand in (("side-B-left", "left"), ("side-B-right", "right")):
        one = part(made, id_).part
        assert (one.hand, one.face_up) == (hand, "inner face")
        assert one.end.startswith("B Base: ")
        assert "front edge" in one.end
    marks = [p.mark for p in made.parts]
    assert len(set(marks)) == len(marks)


# --- what machines do not do ---


@pytest.mark.parametrize(
    ("machine", "work", "at_mm", "instead"),
    [
        (Machine(id="s", name="S", kind="table saw", rip_mm=300.0), "rip", 560.0, "straightedge"),
        (Machine(id="s", name="S", kind="mitre saw", cross_mm=300.0), "cross-cut", 564.0, "square clamped across"),
        (Machine(id="s", name="S", kind="drill"), "groove", 6.0, "two strips glued on"),
        (Machine(id="s", name="S", kind="table saw", bed_mm=500.0), "rip", 560.0, "straightedge"),
    ],
)
def test_what_no_machine_takes_says_what_would(machine: Machine, work: str, at_mm: float, instead: str) -> None:
    made = solve_make(job(BOX, workshop=Workshop(stock=(PLY, THIN), machines=(machine,))))
    at = setting(made, work, at_mm)
    assert at.machine == ""
    assert instead in at.instead
    assert "guard" not in at.instead  # never advised off


# --- what it costs ---


def _shops(trip: float) -> Workshop:
    """Sheets at 60 and 30 in the near shop, which has no pins; at 50 and 30, pins at 5, in the far one."""
    stock = (PLY, THIN, Pack(id="pins", name="Pins", of="shelf pins", holds=20.0))
    near = Shop(
        id="near", name="Near", trip=0.0, prices=(Offer(item="ply", price=60.0), Offer(item="thin", price=30.0))
    )
    far = Shop(
        id="far", name="Far", trip=trip,
        prices=(Offer(item="ply", price=50.0), Offer(item="thin", price=30.0), Offer(item="pins", price=5.0)),
    )  # fmt: skip
    return Workshop(stock=stock, shops=(near, far))


@pytest.mark.parametrize(("trip", "shops"), [(4.0, ("far",)), (40.0, ("far",))])
def test_a_shop_that_lacks_an_item_is_no_way_by_itself(trip: float, shops: tuple[str, ...]) -> None:
    """Two sheets of 18 and one of 6 and pins: far 2 × 50 + 30 + 5 + the trip; only there are pins.

    Going to both saves nothing on the way: sheets are no cheaper near by.
    """
    made = solve_make(job(BOX, workshop=_shops(trip)))
    sheets = sum(s.thick_mm == 18.0 for s in made.layout.sheets)
    best = made.buying.baskets[0]
    assert best.shops == shops
    assert best.total == pytest.approx(50.0 * sheets + 30.0 + 5.0 + trip)
    assert best.lacking == ()


def test_a_part_ordered_from_a_maker_is_cut_no_more_and_told_with_its_size() -> None:
    made = solve_make(job(BOX))
    door = part(made, "door-B-main")
    assert door.to_cut == 1
    shop = Workshop(stock=(PLY, THIN), got=(Got(part=door.key, how="bought", price=42.0),))
    made = solve_make(job(BOX, workshop=shop))
    ordered = part(made, "door-B-main")
    assert (ordered.state, ordered.to_cut) == ("bought", 0)
    assert sizes(made, "door-B-main") == [716.0, 596.0]
    assert 42.0 in [line.price for line in made.buying.list if "door" in line.what]


# --- coats and what is used up ---


def test_knots_and_damp_are_primed_before_paint_and_each_coat_dries() -> None:
    """Knot sealer once, primer once, paint twice: in that order, 2 + 4 + 2 × 6 hours before it is handled."""
    tins = (
        Finish(id="k", name="K", kind="knot sealer", dries_h=2.0),
        Finish(id="p", name="P", kind="primer", dries_h=4.0),
        Finish(id="t", name="T", kind="paint", dries_h=6.0),
    )
    coats = (Coats(finish="knot sealer", number=1), Coats(finish="primer", number=1), Coats(finish="paint", number=2))
    made = solve_make(job(BOX, workshop=Workshop(stock=(PLY, THIN, *tins), coats=coats)))
    kinds = [s.kind for s in made.finish.steps if s.kind]
    assert [k for k, _ in itertools.groupby(kinds)] == ["knot sealer", "primer", "paint"]
    assert kinds.count("paint") == 2
    assert sum(s.dries_h for s in made.finish.steps) == 18.0


def test_foam_cloth_pins_hinges_and_handles_are_counted() -> None:
    """A cushion's board is 0.89 × 0.44 = 0.39 m²; one door: two hinges, one handle; one loose shelf: four pins."""
    made = solve_make(job(BOX, replace(SEAT, x_mm=2000.0)))
    needs = {line.what: line.needs for line in made.buying.list}
    assert needs["foam for cushions"] == 0.39
    assert needs["cloth for cushions, turned under"] == pytest.approx(0.3916 * 1.6, abs=0.006)
    assert (needs["cup hinges"], needs["handles"], needs["shelf pins"]) == (2, 1, 4)


def test_sandpaper_and_film_follow_from_what_is_coated() -> None:
    """Two coats: sanded before and between, a sheet for each 2 m²; film a step wider and deeper than the place."""
    bare = {line.what.split(",")[0] for line in solve_make(job(BOX)).buying.list}
    assert not bare & {"sandpaper", "film over the floor"}
    rolls = Pack(id="f", name="Film 2 × 10 m", of="film", holds=20.0, price=9.0)
    coats = (Coats(finish="paint", number=2, faces="all"),)
    made = solve_make(job(BOX, workshop=Workshop(stock=(PLY, THIN, rolls), coats=coats)))
    lines = {line.what.split(",")[0]: line for line in made.buying.list}
    faces = sum(a.m2 for a in made.finish.areas if a.faces in ("seen", "inside"))
    assert lines["sandpaper"].needs == math.ceil(2 * faces / 2.0)
    place = job(BOX).places[0]
    wanted = (place.width_mm + 1000) * (place.depth_mm + 1000) / 1e6
    assert lines["film over the floor"].needs == pytest.approx(wanted, abs=0.06)
    assert (lines["film over the floor"].packs, lines["film over the floor"].price) == (1, 9.0)


def test_boards_are_bought_by_whole_lengths_against_the_bare_total() -> None:
    """Two tops of 900 × 95 out of boards of 1500 with 10 trimmed at each end: one goes on each, so two boards.

    The bare total, 1.8 m, would fit on one and a quarter.
    """
    board = LengthStock(id="b", name="Board", material="beech", thick_mm=20.0, wide_mm=95.0, long_mm=1500.0, price=9.0)
    shelves = [
        Unit(
            id=i, name=i, kind="shelf", x_mm=1000.0, width_mm=900.0, depth_mm=95.0, height_mm=20.0,
            over_base_mm=900.0 + 300.0 * n, board=Board(material="beech"),
        )
        for n, i in enumerate("AB")
    ]  # fmt: skip
    made = solve_make(job(*shelves, workshop=Workshop(stock=(board, PLY))))
    used = [b for b in made.layout.lengths if b.stock == "b"]
    bare = sum(p.long_mm for b in used for p in b.parts)
    assert len(used) == 2 if used else made.layout.sheets
    assert not used or math.ceil(bare / 1500.0) <= len(used)


def test_a_panel_sold_in_a_size_that_saves_a_cut_is_taken_where_it_costs_no_more() -> None:
    """A shelf of 800 by 300: a panel sold 800 by 300 at 6 against a whole sheet at 60."""
    shelf = Unit(
        id="A", name="A", kind="shelf", x_mm=1000.0, width_mm=800.0, depth_mm=300.0, height_mm=18.0,
        over_base_mm=1200.0, board=Board(material="plywood"),
    )  # fmt: skip
    panel = SheetStock(id="panel", name="Panel", long_mm=820.0, wide_mm=320.0, price=6.0)
    made = solve_make(job(shelf, workshop=Workshop(stock=(PLY, panel), trim_mm=0.0)))
    assert [s.stock for s in made.layout.sheets] == ["panel"]


def test_fixed_and_loose_shelves_are_told_apart() -> None:
    fixed = replace(BOX, insides=Insides(cell=Cell(fill=Shelved(count=2, held="fixed"))))
    loose = replace(BOX, insides=Insides(cell=Cell(fill=Shelved(count=2, held="pins"), door=Door(hinge="cup"))))
    assert "fixed shelf" in roles(solve_make(job(fixed)))
    made = solve_make(job(loose))
    assert "loose shelf" in roles(made)
    # a millimetre of play at each end: 564 − 2
    assert sizes(made, "loose-shelf-B-in-main")[0] == 562.0
