"""Answers that were once wrong, silent or contrary, each against a number worked out by hand."""

from __future__ import annotations

import re

import pytest
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import box, floor_at, grid
from tests.core.plausible import plausible_job
from tests.rooms import HANGS, RACK, SHELF, WIDE, A, B, Room, ceiling, sides, studs, thing
from wobble.core.finding import Finding
from wobble.core.job import FixedTop, HighSpot, Threshold
from wobble.core.job.backing import Anchor, Backing
from wobble.core.job.board import Board
from wobble.core.job.unit import Air, Hung
from wobble.core.stages import PlaceResult
from wobble.core.stages.solve import solve_place


def result(room: Room) -> PlaceResult:
    return solve_place(room.job, room.job.places[0].id)


def finding(room: Room, code: str) -> Finding:
    return next(f for f in result(room).findings if f.code == code)


def base_mm(room: Room) -> float:
    plan = result(room).fit.plan
    assert plan is not None
    return plan.base.height.value_mm


LOW = floor_at(grid(WIDE, 600.0, 5, 3), lambda x, y: -40.0)
ALONE = {
    "a shelf": SHELF,
    "a top": replace(SHELF, kind="top", over_base_mm=870.0, depth_mm=580.0),
    "a wall unit": HANGS,
    "a rack": RACK,
    "a panel": replace(HANGS, kind="panel", depth_mm=18.0),
    "a face frame": replace(HANGS, kind="face frame", depth_mm=20.0),
}


@pytest.mark.parametrize("unit", ALONE.values(), ids=ALONE)
@pytest.mark.parametrize("floor", [(), LOW], ids=["no floor", "floor 40 below the mark"])
def test_what_stands_on_no_floor_is_set_out_from_the_mark_or_the_floor_that_is_read(unit, floor):
    """The floor is 40 below the mark: a height over the floor is 40 less over the mark; unread, they are the same."""
    got = result(Room(units=(unit,), floor=floor, over=ceiling()))
    assert got.fit.plan is not None
    assert got.fit.plan.base.height.value_mm == pytest.approx(-40.0 if floor else 0.0, abs=0.6)
    assert not got.fit.plan.base.stands
    assert "no-floor" not in {f.code for f in got.findings}
    assert ("heights-from-mark" in {f.code for f in got.findings}) == (not floor)


@pytest.mark.parametrize("floor", [(), LOW], ids=["no floor", "floor 40 below the mark"])
def test_a_line_under_the_high_spot_cuts_nothing_where_nothing_stands(floor):
    got = result(Room(units=(HANGS,), floor=floor, datum=HighSpot(over_mm=-8.0)))
    assert got.fit.plan is not None
    assert got.fit.plan.base.deepest_cut_mm == 0.0
    assert {t.deepest_cut_mm for t in got.fit.plan.trades} == {0.0}
    assert not {f.code for f in got.findings} & {"cut-down", "top-too-low"}


def test_a_wall_unit_is_screwed_at_its_own_height_over_the_mark():
    """Its underside at 1400, its fixing 650 up: 2050 over the mark without a floor, 2010 over one 40 lower."""
    for floor, up in (((), 2050.0), (LOW, 2010.0)):
        rail = [f for f in result(Room(units=(HANGS,), floor=floor)).fasteners if f.part == "rail"]
        assert [f.at[1] for f in rail] == pytest.approx([up] * len(rail), abs=1.0)
        assert rail


def test_a_rack_hangs_by_what_is_left_to_the_ceiling():
    """Underside at 1600, 400 high, the ceiling at 2400: 400 of hanger at each corner."""
    hangers = result(Room(units=(RACK,), floor=(), over=ceiling(2400.0))).fit.hangers
    assert [h.long.value_mm for h in hangers] == pytest.approx([400.0] * 4, abs=0.6)


TOPPED = (A, B, replace(SHELF, kind="top", over_base_mm=720.0, depth_mm=580.0))
BENCH = replace(A, kind="bench", height_mm=390.0, fixing_heights_mm=(300.0,))
SEAT = replace(SHELF, kind="top", over_base_mm=390.0, height_mm=18.0, depth_mm=500.0)
DESK = replace(SHELF, kind="top", over_base_mm=0.0, height_mm=28.0, depth_mm=580.0)


@pytest.mark.parametrize(
    ("units", "datum", "base"),
    [
        ((A, B), FixedTop(top_mm=900.0), 900.0 - 720.0),
        (TOPPED, FixedTop(top_mm=900.0), 900.0 - 720.0 - 30.0),
        ((BENCH, SEAT), FixedTop(top_mm=450.0, to="a seat", cushion_mm=40.0), 450.0 - 390.0 - 18.0 - 40.0),
        ((DESK,), FixedTop(top_mm=748.0, to="a table"), 748.0 - 28.0),
        ((replace(DESK, over_base_mm=720.0),), FixedTop(top_mm=748.0, to="a table"), 748.0 - 28.0 - 720.0),
    ],
    ids=[
        "boxes",
        "boxes under a top",
        "a seat with its board and cushion",
        "a desk on cleats",
        "a desk drawn up there",
    ],
)
def test_a_fixed_top_holds_for_the_finished_face(units, datum, base):
    assert base_mm(Room(units=units, datum=datum)) == pytest.approx(base, abs=0.05)


def test_the_cleats_of_a_desk_carry_it_at_the_height_that_was_asked():
    """Requested at 748 with 28 of board: the cleats' tops stand at 720 over the mark, 280 below the line at 1000."""
    desk = result(Room(units=(DESK,), datum=FixedTop(top_mm=748.0, to="a table"))).hold.cleats
    assert [c.top_mm for c in desk] == pytest.approx([720.0] * 3, abs=0.1)
    assert [c.under_line_mm for c in desk] == pytest.approx([280.0] * 3, abs=0.1)


def test_a_top_asked_below_what_stands_is_a_stop_and_says_by_how_much():
    """Units of 720 on a floor at 0, asked at 690: 30 too high, and no base is cut so far; at 710 it is cut by 10."""
    low = finding(Room(datum=FixedTop(top_mm=690.0)), "top-too-low")
    assert low.severity == "stop"
    assert low.figure is not None
    assert low.figure.value_mm == pytest.approx(30.0, abs=0.6)
    assert finding(Room(datum=FixedTop(top_mm=710.0)), "cut-down").severity == "mind"


def opening_mm(deep: float, casing_at: float) -> float:
    """Return how wide it is where a case so deep stands, with a casing of 60 that starts so far out at the right."""
    casing = thing("casing", (casing_at, 0.0), surface="right", size=(90.0, 800.0), proud_mm=60.0)
    case = box("A", x=30.0, width=1900.0)
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), replace(case, depth_mm=deep), obstacles=(casing,))
    opening = solve_place(job, job.places[0].id).fit.sides[0].opening
    assert opening is not None
    return opening.inside_mm


@pytest.mark.parametrize(
    ("deep", "casing_at", "opening"),
    [(300.0, 310.0, 2000.0), (300.0, 280.0, 1940.0), (560.0, 400.0, 1940.0), (380.0, 390.0, 2000.0)],
)
def test_what_stands_proud_concerns_what_reaches_it_and_nothing_else(deep, casing_at, opening):
    assert opening_mm(deep, casing_at) == pytest.approx(opening, abs=0.8)


@pytest.mark.parametrize(("apart", "code"), [(24.0, "beside-tight"), (26.0, "beside-clear")])
def test_a_spout_over_a_platform_is_told_its_clearance(apart, code):
    """A platform of 200 on a level floor, and a spout so far over it: told to the millimetre, minded under 25."""
    platform = replace(A, kind="platform", height_mm=200.0, fixing_heights_mm=())
    spout = thing("spout", (300.0, 200.0 + apart), proud_mm=120.0)
    got = result(Room(units=(platform,), also=(spout,), datum=FixedTop(top_mm=200.0)))
    (told,) = (c for c in got.fit.cutouts if c.obstacle == "o")
    assert told.code == code
    assert told.sizes[0].mm == pytest.approx(apart, abs=0.3)


def test_one_ledger_carries_a_whole_row():
    """Two wall units that touch, from 50 to 1550: one ledger from end to end, told once."""
    row = tuple(
        replace(u, kind="wall", over_base_mm=1400.0, standing=Hung(by="ledger"), depth_mm=330.0) for u in (A, B)
    )
    ledgers = result(Room(units=row)).hold.ledgers
    assert [(led.units, led.start_mm, led.end_mm) for led in ledgers] == [(("A", "B"), 50.0, 1550.0)]


def texts(got: PlaceResult) -> str:
    said = [f"{f.title} {f.text} {f.caution}" for f in got.findings]
    return " ".join([*said, *(f" {h.instead} {' '.join(h.working)} {' '.join(h.avoided)}" for h in got.hold.held)])


@pytest.mark.parametrize("anchor", [None, Anchor()])
def test_no_stud_is_spoken_of_in_masonry(anchor):
    rooms = [
        Room(units=units, backing=Backing(kind="masonry", anchor=anchor), found=()) for units in ((A, B), (HANGS,))
    ]
    for room in rooms:
        assert not re.search(r"\bstuds?\b", texts(result(room)))


@pytest.mark.parametrize("seed", range(300, 312))
def test_nothing_is_moved_by_nothing_and_nothing_that_holds_is_to_be_strengthened(seed):
    job = plausible_job(seed)
    for got in (solve_place(job, place.id) for place in job.places):
        assert not re.search(r"moved? 0(\.0)? ?(mm|″|in)", texts(got))
        for held in got.hold.held:
            assert not (held.enough and re.search(r"more studs|blocking|More than|Rest it on a ledger", held.instead))


def test_too_few_screws_say_why():
    """Where nothing may go deeper than 20, depth is the reason; where wires run over every stud, they are."""
    shallow = finding(Room(units=(HANGS,), backing=Backing(deepest_mm=20.0)), "not-held")
    assert "deep" in shallow.text
    assert "Too few studs" not in shallow.text


def test_what_was_found_says_which_way_joists_run():
    """Said to run along, found at 200, 600, 1000 and 1400 along, at three depths each: they run out, all is moved."""
    joists = (200.0, 600.0, 1000.0, 1400.0)
    found = studs(*joists, surface="ceiling", heights=(50.0, 250.0, 500.0))
    room = Room(units=(RACK,), over=ceiling(), overhead=Backing(runs="along"), found=found)
    assert finding(room, "joists-other-way").severity == "stop"
    over = result(room).hold.overhead[0]
    assert over.runs == "out"
    for hanger in over.hangers:
        assert min(abs(hanger.at[0] - x) for x in joists) < 12.0 or hanger.bridge is not None


def test_eye_bolts_in_empty_lining_never_hold():
    room = Room(units=(RACK,), over=ceiling(), overhead=Backing(runs="out"), found=())
    assert finding(room, "rack-not-held").severity == "stop"


def test_one_side_wall_and_a_unit_inside_it():
    """The left wall stands at 54, the unit's edge at 50: 4 inside it."""
    told = finding(Room(beside=sides(left=54.0)[:9]), "into-wall")
    assert told.severity == "stop"
    assert told.figure is not None
    assert told.figure.value_mm == pytest.approx(-4.0, abs=1.0)


def test_a_box_inside_a_wall_that_closes_in():
    """The right wall comes in by 33.9 to the front of a box at 560: 36.3 · 560 / 600; at 1981 it is 15 inside."""
    job = alcove_job(lean(0.0), lean(-36.3, 2000.0), box("A", x=81.0, width=1900.0))
    told = [f for f in solve_place(job, job.places[0].id).findings if f.code in ("into-wall", "too-wide")]
    assert told
    assert any(f.figure and abs(f.figure.value_mm) > 10 for f in told)
    front = 2000.0 - 36.3 * 560 / 600
    got = next(f for f in told if f.code == "into-wall").figure
    assert got is not None
    assert got.value_mm == pytest.approx(front - 1981.0, abs=1.0)


def test_an_appliance_that_has_the_gap_it_wants_is_left_alone():
    fridge = replace(B, x_mm=780.0, width_mm=700.0, air=Air(sides_mm=30.0))
    assert finding(Room(units=(A, fridge)), "gap-between").severity == "fine"


def test_a_door_step_does_not_raise_a_hung_unit():
    """What is carried over a step of 180 is lifted over it by hand; it hangs no higher for it."""
    way_in = (Threshold(name="Step", height_mm=180.0),)
    plain, over_step = (result(Room(units=(HANGS,), way_in=w)) for w in ((), way_in))
    assert [f.at for f in plain.fasteners] == [f.at for f in over_step.fasteners]
    assert not [f for f in over_step.findings if f.code == "stuck"]


def test_what_is_carried_goes_in_after_what_carries_it():
    order = [a.unit for a in result(Room(units=(SEAT, BENCH, HANGS_TOO))).fit.access]
    assert order.index("A") < order.index("S")


HANGS_TOO = replace(HANGS, id="W", name="Unit W", x_mm=800.0)


@pytest.mark.parametrize("kind", ["outlet", "vent"])
def test_what_must_be_reached_is_a_stop_until_the_plan_has_it(kind):
    way = {"outlet": "access hole", "vent": "duct"}[kind]
    buried = result(Room(also=(thing(kind, (300.0, 300.0)),))).findings
    planned = result(Room(also=(thing(kind, (300.0, 300.0), treatment=way),))).findings
    assert [f.severity for f in buried if "o" in f.about] == ["stop"]
    assert [f.severity for f in planned if "o" in f.about] == ["fine"]


def test_two_screws_into_a_stud_keep_clear_of_what_is_near_each_of_them():
    """A shelf that takes two a stud, 10 over and under its cleat's middle: 45 is too near the lower one, 65 is not."""
    heavy = replace(SHELF, board=Board(load_kg_per_m=100.0))
    alone = result(Room(units=(heavy,), found=studs(200.0, 1400.0))).hold.cleats[0]
    assert alone.wall == "back"
    driven = [f for f in result(Room(units=(heavy,), found=studs(200.0, 1400.0))).fasteners if f.part == "cleat"]
    at_first = sorted(f.at[1] for f in driven if abs(f.at[0] - 200.0) < 15.0)
    assert len(at_first) == 2
    assert at_first[1] - at_first[0] == pytest.approx(20.0)
    middle = sum(at_first) / 2
    for under, kept in ((55.0, True), (65.0, False)):
        outlet = thing("outlet", (160.0, middle - under - 80.0), size=(80.0, 80.0))
        room = Room(units=(heavy,), found=studs(200.0, 1400.0), also=(outlet,), backing=Backing(rule="all round"))
        near = [f for f in result(room).fasteners if f.part == "cleat" and abs(f.at[0] - 200.0) < 15.0]
        assert (near == []) is kept
