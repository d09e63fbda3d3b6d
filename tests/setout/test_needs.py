"""What people ask of setting out and of holding, a document with its own numbers for each, and what the plan says.

Each test is one line of what the work asks for. Numbers are worked out in the docstrings.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest
from msgspec.structs import replace

from tests.rooms import A as ROOM_A
from tests.rooms import Room, ceiling, sides, studs, thing
from tests.setout.places import carcass, codes, job_of, laid, laid_unit, piece, place_of, to_wall, units_of
from tests.setout.test_framing import platform
from wobble.core import solve
from wobble.core.face import survey
from wobble.core.hold.capacity.capacity import Screw, lateral
from wobble.core.hold.rests.ceiling import pulled
from wobble.core.job import (
    BaseFrame,
    Cell,
    Columns,
    Content,
    Door,
    Equal,
    Existing,
    Framing,
    Hanging,
    HangingWall,
    HeightStack,
    Hung,
    Legs,
    LinedUp,
    Member,
    OnCleats,
    OnPieces,
    Rows,
    Shelved,
    WallStep,
)
from wobble.core.job.backing import Backing
from wobble.core.job.board import Board
from wobble.core.job.rules import Edge
from wobble.core.practice.narrowboat import narrowboat_galley, side_mm
from wobble.core.setout.long_rod import things


def solved(room: Room):
    found = solve(room.job).places[0]
    assert msgspec.json.encode(found)
    return found


def told(result) -> set[str]:
    return {f.code for f in result.findings}


# --- setting out


def test_heights_without_a_floor_count_from_a_level_line_down_from_a_ceiling():
    """A rack's top is 450 under a ceiling at 2400: it hangs at 1950 less its 70, and nothing asks for a floor."""
    rack = piece("R", 200.0, 1200.0, kind="rack", height_mm=70.0, over_base_mm=1880.0, standing=Hung())
    result = solved(Room(units=(rack,), floor=(), over=ceiling(), overhead=Backing(runs="out")))
    assert "no-floor" not in told(result)
    assert [h.long.value_mm for h in result.fit.hangers] == pytest.approx([450.0] * 4, abs=2.0)


def test_a_stack_of_heights_gives_where_it_is_told_to():
    """A desk finished at 730 with a top of 28 on boxes with a base of 60: 730 − 28 − 60 = 642 are the box's."""
    stack = HeightStack(
        id="s",
        units=("A",),
        tops=("T",),
        members=(
            Member(name="base", high_mm=60.0),
            Member(name="box", high_mm=1.0),
            Member(name="board", high_mm=28.0),
        ),
        finished_mm=730.0,
        gives="box",
    )
    place = place_of(
        piece("A", standing=BaseFrame(height_mm=60.0)),
        piece("T", kind="top", standing=OnPieces(pieces=("A",)), board=Board()),
        heights=(stack,),
    )
    assert units_of(place)["A"].height_mm == pytest.approx(702.0)
    assert units_of(place)["T"].over_base_mm == pytest.approx(702.0)


def test_what_carries_what_is_said_and_not_guessed():
    """A box stands on the platform though another's top is as high beside it: only the platform carries it."""
    place = place_of(
        replace(platform(1000.0), depth_mm=500.0),
        piece("N", 1000.0, 600.0, height_mm=88.0),
        piece("B", 700.0, 500.0, standing=OnPieces(pieces=("P",))),
    )
    assert units_of(place)["B"].over_base_mm == pytest.approx(88.0)
    assert "rests-on-nothing" not in codes(laid(place))


def test_what_stays_is_a_neighbour_to_be_flush_with():
    """A cupboard reaches the bench that stays at 1310; its right edge is flush with it, whatever its width was."""
    bench = Existing(id="b", name="Bench", x_mm=1310.0, width_mm=600.0, height_mm=850.0, depth_mm=560.0)
    rules = (
        to_wall("r1", "A", "left", 15.0),
        LinedUp(id="r2", edge=Edge(of="A", edge="right"), to=Edge(of="b", edge="left")),
    )
    found = units_of(place_of(piece("A"), existing=(bench,), rules=rules))["A"]
    assert (found.x_mm, found.right_mm) == pytest.approx((15.0, 1310.0))


def test_things_with_size_and_weight_load_what_they_stand_on():
    """Eight cans of 5.5 kg weigh 44: that is what the unit holds, and what its two shelves of 0.864 m carry."""
    cans = Content(name="Can", width_mm=190.0, depth_mm=190.0, height_mm=200.0, weight_kg=5.5, count=8)
    unit = carcass("A", 900.0, Cell(fill=Shelved(count=1), holds=(cans,)))
    from wobble.core.contents import full_kg

    assert full_kg(unit) == pytest.approx(44.0)
    assert "does-not-go-in" not in codes(laid(place_of(unit)))
    # a nineteenth does not: 4 across, 2 deep, 2 shelves are sixteen
    many = carcass("A", 900.0, Cell(fill=Shelved(count=1), holds=(replace(cans, count=17),)))
    assert "does-not-go-in" in codes(laid(place_of(many)))


def test_a_frame_between_walls_is_laid_with_its_setbacks():
    """500 deep, a toe recess of 70 in front and 15 clear of a skirting behind: 415; five members under 1500."""
    frame = piece(
        "F",
        0.0,
        1500.0,
        kind="base frame",
        height_mm=70.0,
        body=Framing(deck_mm=0.0, most_apart_mm=400.0, front_back_mm=70.0, rear_off_mm=15.0),
    )
    found = laid_unit(laid(place_of(frame)), "F").frame
    assert found is not None
    assert found.deep_mm == pytest.approx(415.0)
    assert len(found.members) == 5


def test_a_wall_that_steps_is_known_as_two_and_not_smoothed_into_one():
    """A breast stands 120 out from 600 to 1000; the wall beside it is read at 0 and the breast at 118.

    At 500 the wall is near 0 and at 700 the breast near 118; without the step both are smoothed into each other.
    """
    from tests.catalogue import offset
    from wobble.core.job import SetUp

    plane = SetUp(id="plane", name="Plane", across="y", at_mm=500.0)
    at = {x: 118.0 if 600 <= x <= 1000 else 0.0 for x in (50.0, 250.0, 450.0, 650.0, 800.0, 950.0, 1150.0, 1400.0)}
    facts = tuple(
        offset(f"b{x:.0f}-{z:.0f}", "back", (x, z), 500.0 - y, line=plane)
        for x, y in at.items()
        for z in (200.0, 1200.0)
    )
    breast = WallStep(id="s", name="Breast", from_mm=600.0, to_mm=1000.0, by_mm=120.0)
    given = {"width_mm": 1600.0, "surfaces": ("back",), "set_ups": (plane,), "facts": facts}
    known = survey(job_of(place_of(steps=(breast,), **given)), "p")
    beside, on = known.at("back", [(570.0, 700.0)])[0], known.at("back", [(640.0, 700.0)])[0]
    assert float(beside[0]) == pytest.approx(0.0, abs=4.0)
    assert float(on[0]) == pytest.approx(118.0, abs=4.0)
    blurred = survey(job_of(place_of(**given)), "p")
    assert abs(float(blurred.at("back", [(570.0, 700.0)])[0][0])) > 20.0


def test_only_steps_that_one_meets_going_along_have_edges_to_line_up_with():
    breast = WallStep(id="breast", name="Breast", from_mm=800.0, to_mm=1500.0, by_mm=120.0)
    ledge = WallStep(id="ledge", name="Ledge", axis="second", from_mm=0.0, to_mm=910.0, by_mm=40.0)
    plinth = WallStep(id="plinth", name="Plinth", surface="floor", axis="second", from_mm=0.0, to_mm=150.0, by_mm=60.0)
    a = piece("A", 100.0, 600.0)
    rules = (
        LinedUp(id="r", edge=Edge(of="A", edge="right"), to=Edge(of="breast", edge="left")),
        LinedUp(id="s", edge=Edge(of="A", edge="left"), to=Edge(of="ledge", edge="left")),
    )
    place = place_of(a, steps=(breast, ledge, plinth), rules=rules[:1])
    assert laid_unit(laid(place), "A").unit.right_mm == pytest.approx(800.0)
    assert set(things(place)) == {"breast"}
    # a rule that names a ledge's edge along is told, and not followed to its height
    odd = laid(replace(place, rules=rules))
    assert [f.about for f in odd.findings if f.code == "rule-lost"] == [("s",)]
    assert laid_unit(odd, "A").unit.right_mm == pytest.approx(800.0)


def test_shelves_on_cleats_are_each_their_own_trapezoid_and_lined_up():
    """Two shelves from the left wall to where a locker begins at 900: each ends there, cut to its own wall."""
    shelves = [
        piece(i, 0.0, 400.0, kind="shelf", height_mm=20.0, over_base_mm=z, standing=OnCleats(), meets=("left",),
              ready_made=False, board=Board(), fixing_heights_mm=())
        for i, z in (("S1", 700.0), ("S2", 1100.0))
    ]  # fmt: skip
    locker = piece("L", 900.0, 600.0)
    rules = tuple(
        LinedUp(id=f"r{i}", edge=Edge(of=s.id, edge="right"), to=Edge(of="L", edge="left"))
        for i, s in enumerate(shelves)
    )
    found = units_of(place_of(*shelves, locker, rules=rules))
    assert [found[s].right_mm for s in ("S1", "S2")] == pytest.approx([900.0, 900.0])


def test_a_deep_place_split_in_two_shares_what_its_wall_leaves():
    """2400 with a wall of 18 in it: 2382 are left, 1191 for each side, whatever was drawn."""
    wall = piece("W", 900.0, 18.0, kind="panel", ready_made=False)
    a, b = (piece(i, x, 700.0, kind="shelf", height_mm=22.0) for i, x in (("A", 0.0), ("B", 1500.0)))
    rules = (
        to_wall("r1", "A", "left"),
        LinedUp(id="r2", edge=Edge(of="A", edge="right"), to=Edge(of="W", edge="left")),
        LinedUp(id="r3", edge=Edge(of="B", edge="left"), to=Edge(of="W", edge="right")),
        to_wall("r4", "B", "right"),
        Equal(id="r5", units=("A", "B")),
    )
    out = laid(place_of(a, wall, b, rules=rules))
    assert [laid_unit(out, u).unit.width_mm for u in ("A", "W", "B")] == pytest.approx([1191.0, 18.0, 1191.0])
    assert laid_unit(out, "W").unit.x_mm == pytest.approx(1191.0)


def test_an_upright_board_follows_the_curve_of_a_boats_side():
    """What is left of a panel from its front edge varies as the true side does, which nobody told the plan."""
    job = narrowboat_galley()
    panel = piece("P", 1440.0, 18.0, kind="panel", height_mm=1500.0, depth_mm=560.0, ready_made=False)
    place = job.places[0]
    found = solve(replace(job, places=(replace(place, units=(*place.units, panel)),))).places[0]
    (line,) = [s.line for s in found.fit.scribes if s.id == "back-P"]
    assert found.fit.plan is not None
    heights = [p.along_mm for p in line]
    true = -side_mm(np.array([[1449.0, found.fit.plan.base.height.value_mm + up] for up in heights]))
    left = np.array([p.left_mm for p in line])
    off = (left - left.mean()) - (true - true.mean())
    assert true.max() - true.min() > 30.0  # it is no straight side
    assert np.abs(off).max() < 3 * max(p.sd_mm for p in line) + 0.5


def test_a_lining_is_cut_out_round_the_window_in_it():
    from wobble.core.job import Boarding, WallOpening

    window = WallOpening(id="w", name="Window", x_mm=700.0, width_mm=800.0, height_mm=900.0, sill_mm=600.0)
    unit = piece("B", 100.0, 2000.0, kind="boarding", height_mm=1000.0, body=Boarding())
    (finding,) = [f for f in laid(place_of(unit, openings=(window,))).findings if f.code == "cut-round"]
    # 700 − 100 = 600 to 1500 − 100 = 1400 along it, 600 up
    assert all(mm in finding.text for mm in ("600 mm", "1400 mm"))


def test_the_same_a_little_deeper_keeps_its_division():
    from wobble.core.setout.laid import said_of
    from wobble.core.setout.moves import Copy
    from wobble.core.stages import try_setout

    columns = Columns(cells=(Cell(size_mm=200.0), Cell(fill=Rows(cells=(Cell(), Cell())))))
    place = place_of(carcass("A", 800.0, Cell(fill=columns, door=Door(hangs="pair"))))
    tried = try_setout(job_of(place), "p", said_of(place), Copy(unit="A", deeper_mm=40.0))
    one, other = tried.said.units
    assert other.insides == one.insides
    assert other.depth_mm == one.depth_mm + 40.0


# --- holding


def test_a_rack_with_its_back_on_studs_hangs_by_chains_in_front_only():
    """Two hangers, in front; its ledger carries half: of 40 kg 40 × 9.81 / 2 = 196 N."""
    rack = replace(
        ROOM_A, kind="rack", height_mm=70.0, width_mm=1000.0, x_mm=260.0, over_base_mm=1800.0,
        standing=Hung(by="ledger"), fastened_to=("back", "ceiling"), fixing_heights_mm=(35.0,),
        weight_kg=40.0, holds="nothing",
    )  # fmt: skip
    result = solved(Room(units=(rack,), over=ceiling(), overhead=Backing(runs="out")))
    assert {h.corner for h in result.fit.hangers} == {"front left", "front right"}
    (ledger,) = result.hold.ledgers
    assert ledger.use * ledger.carries_n == pytest.approx(40 * 9.81 / 2, rel=0.01)


def test_no_two_bolts_of_a_rack_stand_in_one_spot():
    """60 wide with its supports 40 in from each side: both are at its middle, and one bolt there is all there is."""
    rack = replace(
        ROOM_A, kind="rack", height_mm=70.0, width_mm=60.0, x_mm=170.0, over_base_mm=1800.0, standing=Hung(),
        fastened_to=(), fixing_heights_mm=(), support_inset_mm=40.0, weight_kg=10.0, holds="nothing",
    )  # fmt: skip
    result = solved(Room(units=(rack,), found=JOISTS, over=ceiling(), overhead=Backing(runs="out")))
    (over,) = result.hold.overhead
    assert [h.how for h in over.hangers].count("eye bolt") == 2, "one at the back, one in front"
    assert {h.instead.split(":")[0] for h in over.hangers if not h.enough} == {"Two bolts would stand in one spot"}
    assert len({f.id for f in result.fasteners}) == len(result.fasteners)


def test_nothing_fastened_at_all_is_not_screwed_anywhere():
    loose = replace(ROOM_A, fastened_to=("nothing",))
    result = solved(Room(units=(loose,)))
    assert not result.fasteners
    assert "not-enough" not in told(result)


def test_what_hangs_on_battens_pulls_at_their_screws():
    """Twice the weight on the hooks pulls twice as hard: the same screws are used for more."""

    def wall(kg: float):
        body = HangingWall(hangs=(Hanging(id="x", name="X", at=(300.0, 0.0), weight_kg=kg, out_mm=200.0),))
        return piece(
            "W", 200.0, 1000.0, kind="batten wall", depth_mm=18.0, height_mm=500.0, over_base_mm=900.0,
            fixing_heights_mm=(60.0, 440.0), body=body,
        )  # fmt: skip

    used = []
    for kg in (10.0, 20.0):
        result = solved(Room(units=(wall(kg),)))
        (held,) = result.hold.held
        used.append(held.pull_n)
    # the boards alone: 550 × 1.0 × 0.5 × 0.018 = 5 kg, 9 mm out
    own = 550 * 1.0 * 0.5 * 0.018 * 9.81 * 9
    assert (used[1] * 440 - own) / (used[0] * 440 - own) == pytest.approx(2.0, rel=0.01)


def test_a_platform_fastened_to_its_neighbours_asks_for_no_screws_into_the_floor():
    unit = piece(
        "P", 0.0, 800.0, kind="platform", height_mm=300.0, fixing_heights_mm=(), standing=Legs(finished_mm=212.0),
        body=Framing(), fastened_to=("neighbours",),
    )  # fmt: skip
    assert "floor-not-held" not in told(solved(Room(units=(unit,), found=())))
    assert "floor-not-held" in told(solved(Room(units=(replace(unit, fastened_to=()),), found=())))


def test_a_top_is_screwed_to_its_boxes_from_below():
    """Through a board of 19 into a top of 40, 4 under its face: 55 at most, so screws of 50; four for each box."""
    boxes = [replace(ROOM_A, id=i, name=i, x_mm=x, width_mm=600.0) for i, x in (("A", 100.0), ("B", 700.0))]
    top = piece(
        "T", 100.0, 1200.0, kind="top", height_mm=40.0, depth_mm=580.0, over_base_mm=ROOM_A.height_mm,
        standing=OnPieces(pieces=("A", "B")), fastened_to=("under it",), fixing_heights_mm=(), ready_made=False,
        board=Board(material="beech"),
    )  # fmt: skip
    result = solved(Room(units=(*boxes, top)))
    screws = [f for f in result.fasteners if "T" in f.joins]
    assert {f.screw_mm for f in screws} == {50.0}
    assert len(screws) == 8
    assert all("slots" in j.text for j in result.hold.joined if j.units[1] == "T")


def test_the_bottom_of_what_hangs_bends_as_its_shelves_do():
    """1164 of 18 mm under crockery, 200 × 0.312 × 0.3 = 19 kg/m, goes down 17 at first: far over 1164 / 300."""
    hung = carcass("A", 1200.0, Cell(), kind="wall", over_base_mm=1400.0, standing=Hung(), depth_mm=330.0)
    assert any("its bottom sags" in f.title for f in laid(place_of(hung)).findings)
    stands = carcass("A", 1200.0, Cell(), depth_mm=330.0)
    assert "shelf-sags" not in codes(laid(place_of(stands)))


def test_a_box_in_a_cavity_is_screwed_through_its_side_with_packing_in_the_gap():
    """The wall stands 4 off the box: 19 of side, 4 of packing and the lining before the stud; none into the back."""
    box = replace(ROOM_A, x_mm=10.0, fastened_to=("left",))
    left = (*studs(), *studs(100.0, 500.0, surface="left", heights=(300.0, 500.0, 650.0, 800.0, 1700.0)))
    result = solved(Room(units=(box,), found=left, beside=sides(left=6.0)))
    (side,) = result.hold.sides
    assert side.enough
    assert side.gap.value_mm == pytest.approx(4.0, abs=0.5)
    assert {f.surface for f in result.fasteners} == {"left"}
    assert all(min(abs(f.at[0] - 100), abs(f.at[0] - 500)) < 2 for f in result.fasteners)


JOISTS = studs(200.0, 600.0, 1000.0, 1400.0, surface="ceiling", heights=(100.0, 300.0, 500.0))
"""Found at three places out along each: they run out from the back."""
UNDER = replace(
    ROOM_A, kind="wall", depth_mm=400.0, height_mm=400.0, over_base_mm=1990.0, standing=Hung(), fixing_heights_mm=(),
    fastened_to=("ceiling",), weight_kg=30.0, holds="nothing",
)  # fmt: skip


def hung_under(unit, *, found=JOISTS, up=2400.0):
    result = solved(Room(units=(unit,), found=found, over=ceiling(up), overhead=Backing(runs="out")))
    return result, result.hold.sides[0]


def test_a_box_hangs_from_the_joists_over_it_by_screws_through_its_top():
    """30 kg are 294 N; of four screws each is planned for half, 147 N, and a top of plywood lets 902 N through.

    A washer of 20 mm on 19 mm: 690 π · 0.787 · 0.42² · 0.748 = 225 lb, for good 0.9 of it; the thread holds more.
    The box's top is at 2390, so that 10 mm are packed under a ceiling at 2400.
    """
    result, held = hung_under(UNDER)
    assert (held.wall, held.enough, len(held.fasteners)) == ("ceiling", True, 4)
    assert held.load_n == pytest.approx(30 * 9.81, rel=1e-3)
    assert held.use == pytest.approx(147.1 / 902, rel=0.01)
    assert held.gap.value_mm == pytest.approx(10.0, abs=0.5)
    assert sorted(f.at[0] for f in result.fasteners) == pytest.approx([200.0, 200.0, 600.0, 600.0], abs=3.0)
    assert {f.surface for f in result.fasteners} == {"ceiling"}
    (finding,) = [f for f in result.findings if f.code == "side-held"]
    assert "heads" in finding.caution
    assert "not-held" not in told(result)


@pytest.mark.parametrize(
    ("changed", "found", "up", "says"),
    [
        ({}, (), 2400.0, "Find the joists"),
        ({}, JOISTS, 2470.0, "too wide to pack"),
        ({"width_mm": 300.0}, JOISTS, 2400.0, "without tipping"),
        ({"weight_kg": 400.0}, JOISTS, 2400.0, "without tipping"),
    ],
)
def test_a_box_that_its_ceiling_does_not_carry_is_a_stop_that_says_what_would(changed, found, up, says):
    """No joist found; 80 mm to pack; a box of 300 under one joist only; 3924 N where half on each is past 902."""
    result, held = hung_under(replace(UNDER, **changed), found=found, up=up)
    assert not held.enough
    assert says in held.instead
    assert [f.severity for f in result.findings if f.code == "side-not-held"] == ["stop"]


def test_a_tall_cupboard_is_kept_from_tipping_by_the_ceiling():
    """A hand's pull of 220 N, sideways on four screws: what it holds does not count, the floor carries that."""
    tall = replace(UNDER, kind="tall", height_mm=2380.0, over_base_mm=0.0, standing=ROOM_A.standing, weight_kg=90.0)
    result, held = hung_under(tall)
    assert (held.load_n, held.enough) == (220.0, True)
    assert "not-held" not in told(result)


def test_one_joist_is_enough_for_a_box_that_its_wall_holds_too():
    """A box of 300 under the joist at 200: 0.6 of its 294 N, 1.25 of half of that on each of two; alone it tips."""
    narrow = replace(UNDER, width_mm=300.0, fastened_to=("back", "ceiling"), fixing_heights_mm=(350.0,))
    result, held = hung_under(narrow, found=(*studs(), *JOISTS))
    assert held.load_n == pytest.approx(0.6 * 30 * 9.81, rel=1e-3)
    assert (held.enough, len(held.fasteners)) == (True, 2)
    assert held.use == pytest.approx(0.625 * held.load_n / 902, rel=0.01)
    assert "side-not-held" not in told(result)


def test_what_is_thrown_about_pulls_harder_at_the_ceiling_whichever_backing_says_so():
    """Thrown by half of its weight: 294 N are 441 down, and 147 sideways on four screws."""
    calm = hung_under(UNDER)[1]
    for walls, over in ((Backing(driving_g=0.5), Backing(runs="out")), (Backing(), Backing(runs="out", driving_g=0.5))):
        room = Room(units=(UNDER,), found=JOISTS, over=ceiling(), backing=walls, overhead=over)
        held = solved(room).hold.sides[0]
        assert held.load_n == pytest.approx(1.5 * 30 * 9.81, rel=1e-3)
        assert held.use > 1.5 * calm.use
        rack = replace(UNDER, kind="rack", height_mm=70.0, over_base_mm=1800.0, fastened_to=(), width_mm=600.0)
        (racked,) = solved(replace(room, units=(rack,))).hold.overhead
        assert [h.load_n for h in racked.hangers] == pytest.approx([0.5 * 1.5 * 30 * 9.81] * 4, rel=1e-3)


def test_screws_share_a_weight_so_that_force_and_moments_balance():
    """Eight of them in two rows, one missing, the weight off their middle: forces that a plate on springs shows."""
    spots = np.array([(x, y) for x in (0.0, 200.0, 500.0, 900.0) for y in (40.0, 360.0)][:-1])
    middle = np.array([400.0, 180.0])
    plate = np.column_stack([np.ones(7), spots - middle])
    sinks = np.linalg.solve(plate.T @ plate, np.array([1.0, 0.0, 0.0]))
    shares = pulled(spots, middle)
    assert shares == pytest.approx(1.25 * np.abs(plate @ sinks))
    assert pulled(spots[::2][:2], middle) is None
    assert pulled(np.array([(200.0, 40.0), (200.0, 200.0), (200.0, 360.0)]), middle) is None


NARROW = piece("N", 230.0, 340.0, kind="wall", over_base_mm=1400.0, depth_mm=330.0, standing=Hung(), holds="crockery")


def between_studs(lining: float, **more):
    """Return a box 230 to 570 along, between studs at 200 and 600, 45 wide: none stands behind it."""
    unit = replace(NARROW, fixing_heights_mm=(650.0,), **more)
    room = Room(units=(unit,), found=studs(200.0, 600.0, 1000.0, 1400.0), backing=Backing(lining_mm=lining))
    return solved(room), unit


def test_on_an_open_frame_blocking_goes_in_where_no_stud_stands_behind_a_box():
    """Between 222.5 and 577.5 it is 355 long; screws stand 40 in from its ends: at 262.5 and 537.5."""
    result, _ = between_studs(0.0)
    (held,) = result.hold.held
    assert held.enough
    (block,) = result.hold.nailing.nailers
    assert block.long.value_mm == pytest.approx(355.0, abs=2 * block.long.sd_mm)
    assert block.long.sd_mm < 12.0  # the studs were found by single holes
    mine = [f for f in result.fasteners if f.unit == "N" and f.part == "rail"]
    assert sorted(f.at[0] for f in mine) == pytest.approx([262.5, 537.5], abs=2.0)
    assert all(f.bites == 1.0 and block.rows[0] < f.at[1] < block.rows[0] + 45.0 for f in mine)
    # it is cut, screwed through its ends, and told to go in before the lining
    (part,) = [p for p in result.parts if p.role == "nailer"]
    assert part.blank_mm == pytest.approx((block.long.value_mm, 90.0))
    assert sum(f.part == "nailer" for f in result.fasteners) == 4
    assert any(f.code == "nailers" and "before the lining" in f.text for f in result.findings)


def test_what_blocking_is_held_by_counts_as_what_is_screwed_into_it():
    """Four 5 mm screws through its ends, 30 slantwise and 40 in: 0.83 of what each carries square, against both loads.

    The box's two screws take all: down its shear, out 1.25 of its pull.
    """
    result, _ = between_studs(0.0)
    (held,) = result.hold.held
    end = lateral(
        Screw(shank_mm=5.0, root_mm=3.3, long_mm=70.0, thread_mm=40.0),
        side_mm=30.0,
        gap_mm=0.0,
        main_mm=40.0,
        side="spruce-pine-fir",
        main="spruce-pine-fir",
    ).capacity_n
    ends = math.hypot(held.shear_n, 1.25 * held.pull_n) / (4 * 0.83 * end)
    assert held.use >= ends - 1e-9
    # what its ends do not carry is not hung on it, however strong the screws in its middle are
    heavy, _ = between_studs(0.0, weight_kg=1.2 * held.weight_kg / ends)
    assert not heavy.hold.held[0].enough
    assert not heavy.hold.nailing.nailers


def test_on_a_closed_wall_blocking_is_advised_and_not_planned():
    result, _ = between_studs(12.5)
    assert not result.hold.held[0].enough
    assert "blocking" in result.hold.held[0].instead
    assert not result.hold.nailing.nailers
    pipe = thing("pipe", (350.0, 2000.0), size=(30.0, 200.0), proud_mm=0.0)
    room = Room(
        units=(replace(NARROW, fixing_heights_mm=(650.0,)),),
        found=studs(200.0, 600.0, 1000.0, 1400.0),
        backing=Backing(lining_mm=0.0),
        also=(pipe,),
    )
    assert not solved(room).hold.nailing.nailers  # a pipe runs where it would be


def test_what_hangs_and_is_fastened_to_nothing_is_a_stop():
    hung = replace(ROOM_A, over_base_mm=1400.0, standing=Hung(), fastened_to=("nothing",), height_mm=640.0)
    (finding,) = [f for f in solved(Room(units=(hung,))).findings if f.code == "not-held"]
    assert (finding.severity, "hangs from nothing" in finding.title) == ("stop", True)
    tall = replace(ROOM_A, height_mm=2100.0, fastened_to=("nothing",))
    (finding,) = [f for f in solved(Room(units=(tall,))).findings if f.code == "not-held"]
    assert (finding.severity, "stands free" in finding.title) == ("mind", True)
