"""Hold beyond screws in studs: sheet and masonry, battens, cleats, racks, furring, grids; worked by hand."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import pytest
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import LINE, WHEN, Screwed, box, floor_at, grid, job_of, offset
from tests.studded import balanced, edges, found, held_of, job_before, restraint_of_hinge, restraint_of_rigid
from wobble.core.contents import burdened
from wobble.core.facts import Detection
from wobble.core.hold.capacity.capacity import (
    Screw,
    beam_use,
    bearing_psi,
    free_end,
    sheet_pull,
    sheet_shear,
    usual_yield_psi,
    withdrawal,
)
from wobble.core.hold.joins import joined
from wobble.core.hold.loads import loads, weight_kg
from wobble.core.hold.overhead import BOLT_MM, BOLT_ROOT_MM, BOLT_THREAD_MM, HangerHeld
from wobble.core.hold.rests.grids import GridError, hanging_wall, peg_grid
from wobble.core.job import Job, Obstacle, Place, Unit, with_facts
from wobble.core.job.backing import Anchor, Backing
from wobble.core.job.board import Board
from wobble.core.job.unit import Front, Hung, OnCleats
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import solve_furring, solve_hold

HUNG = box("W", x=300.0, width=1400.0, depth_mm=330.0, height_mm=720.0, over_base_mm=1400.0, standing=Hung())
HUNG = replace(HUNG, fixing_heights_mm=(660.0,), weight_kg=30.0)


def on(backing: Backing, unit: Unit = HUNG, wall: Callable[[float], float] = lambda x: 0.0, **place: Any) -> Screwed:
    """Return how a unit is held by a wall made of something; its studs stand at 400, 1000 and 1600."""
    return held_of(wall, unit, backing=backing, **place)[0]


def test_screws_in_sheet_are_those_of_the_steel_code():
    """0.6 of 310 MPa and a screw of 5: 4.2 √(0.216 · 5) · 310 / 3 = 451; 0.85 · 0.6 · 5 · 310 / 3 = 263.5."""
    screw = Screw(shank_mm=5.0)
    assert sheet_shear(screw, 0.6) == pytest.approx(451.0, abs=0.5)
    assert sheet_pull(screw, 0.6) == pytest.approx(263.5, abs=0.1)
    assert sheet_shear(screw, 3.0) == pytest.approx(2.7 * 3.0 * 5.0 * 310 / 3)


def test_an_eye_pulled_askew_is_held_as_statics_say():
    """Nothing holds its head: its moment about the face of the joist is the load by its arm, in both modes."""
    screw, arm = Screw(shank_mm=8.0, root_mm=5.9), 27.5
    d = 5.9 / 25.4
    q = bearing_psi(0.42, d) * d
    moment = usual_yield_psi(d) * d**3 / 6
    turned = balanced(arm / 25.4, lambda p: 0.0, lambda p: restraint_of_rigid(p, q, 60 / 25.4), 1e4)
    bent = balanced(arm / 25.4, lambda p: 0.0, lambda p: restraint_of_hinge(p, q, moment), 1e4)
    by_hand = min(turned, bent) / (10 * d + 0.5) * 0.9 * 4.4482216
    assert free_end(screw, arm_mm=arm, main_mm=60.0, main="spruce-pine-fir") == pytest.approx(by_hand, rel=0.01)


def test_a_member_across_two_joists_bends_by_hand():
    """500 N in the middle of 600: 75 N m over 38 · 89² / 6 = 50166 mm³ is 1.495 MPa of 5.4."""
    assert beam_use(500.0, 600.0, 300.0, 38.0, 89.0) == pytest.approx(1.495 / 5.4, rel=0.001)
    assert beam_use(500.0, 600.0, 100.0, 38.0, 89.0) == pytest.approx(1.495 / 5.4 * 5 / 9, rel=0.001)


def test_metal_studs_take_screws_through_their_sheet():
    """18 of rail, 12.5 of lining and 12 through the sheet want 50."""
    held = on(Backing(kind="metal studs"))
    assert {p.screw_mm for p in held.points if p.part == "rail"} == {50.0}
    assert {p.pilot_mm for p in held.points} == {0.0}
    assert held.lateral_n <= sheet_shear(Screw(), 0.6)
    assert held.withdrawal_n == pytest.approx(sheet_pull(Screw(), 0.6))


def test_a_wall_unit_on_a_bowed_wall_gets_longer_screws_where_it_is_packed_more():
    """Hollow by 16 at the stud in the middle, and by 16 (1 − 0.36) = 10.2 at those 600 beside it."""
    heavy = replace(HUNG, weight_kg=40.0)  # so that no two screws beside the hollow hold it
    bowed = on(Backing(), heavy, wall=lambda x: -16.0 * (1 - ((x - 1000.0) / 1000.0) ** 2))
    by_place = {round(p.at[0], -1): p for p in bowed.points if p.part == "ledger"}
    middle, side = by_place[1000.0], by_place[400.0]
    assert middle.packing.value_mm - side.packing.value_mm == pytest.approx(16.0 * 0.36, abs=0.5)
    assert middle.screw_mm > side.screw_mm


def test_masonry_wants_its_anchor_and_no_more_than_its_maker_lists():
    """Without one nothing is said to hold; with one it may stand anywhere, at most 500 apart, 50 deep."""
    blind = on(Backing(kind="masonry"), detections=())
    assert blind.points == ()
    assert "which anchor" in blind.instead
    anchor = Anchor(pull_n=300.0, shear_n=150.0)
    held = on(Backing(kind="masonry", lining_mm=10.0, anchor=anchor), detections=())
    assert held.enough
    assert held.lateral_n <= 150.0
    assert held.withdrawal_n == 300.0
    assert {p.screw_mm for p in held.points} == {80.0}  # 18 + 10 + 50
    assert {p.pilot_mm for p in held.points} == {8.0}


def test_a_limit_of_depth_takes_thinner_screws_and_then_none():
    """70 long less 18 of rail goes 52 behind the face.

    With 45 there, 32.5 are left behind a lining of 12.5: 60 long reaches some 29, six diameters of 4.5. With 30 there
    are 17.5, and the thinnest wants 21.
    """
    assert {p.shank_mm for p in on(Backing(deepest_mm=60.0)).points} == {5.0}
    thinner = on(Backing(deepest_mm=45.0)).points
    assert {(p.shank_mm, p.screw_mm) for p in thinner} == {(4.5, 60.0)}
    assert all(6 * 4.5 <= p.reach_mm <= 32.5 for p in thinner)
    assert on(Backing(deepest_mm=30.0)).points == ()


def test_no_screw_comes_out_behind_thin_wood():
    """Ribs of 30 under 6 of lining: 3 short of their back, and six diameters in. Ribs of 20 take none."""
    thin = Backing(kind="ribs and battens", lining_mm=6.0, deep_mm=30.0)
    found = on(thin).points
    assert found
    assert all(6 * p.shank_mm <= p.reach_mm <= 27.0 for p in found)
    assert {p.shank_mm for p in found} == {4.0}
    bare = on(replace(thin, deep_mm=20.0))
    assert bare.points == ()
    assert "come out behind" in bare.held.instead


def test_what_is_thrown_about_pulls_at_half_its_height():
    """40 kg, 0.5 of it: 196 N at 360 over the foot, the row at 660: 107 N more, and √(392² + 196²) sideways."""
    unit = replace(HUNG, weight_kg=40.0)
    still, driven = loads(unit), loads(unit, driving_g=0.5)
    assert driven[1] - still[1] == pytest.approx(0.5 * 40 * 9.81 * 360 / 660)
    assert driven[0] == pytest.approx(math.hypot(40 * 9.81, 0.5 * 40 * 9.81))
    assert "thread lock" in on(Backing(driving_g=0.5)).caution


def test_a_person_is_a_load_too():
    assert weight_kg(replace(HUNG, holds="a person sitting")) == pytest.approx(150.0)
    assert weight_kg(replace(HUNG, holds="a person standing")) == pytest.approx(210.0)


def test_what_stands_on_another_unit_is_carried_by_it():
    """The same box hangs, or stands on the one below: then nothing shears its screws."""
    below = box("B", x=300.0, width=1400.0, height_mm=720.0)
    upper = replace(HUNG, over_base_mm=720.0, standing=below.standing)
    both = held_of(lambda x: 0.0, upper, more=(below,))
    assert {h.unit: round(h.shear_n) for h in both} == {"B": 0, "W": 0}


def hooked(above: tuple[Unit, ...] = ()) -> Screwed:
    """A unit on a split batten before a wall that comes forward by 10 a metre up."""
    unit = replace(HUNG, standing=Hung(by="split batten", thick_mm=18.0))
    return held_of(lambda x: 0.0, unit, more=above, rise=0.01)[-1 if not above else 0]


def test_a_split_batten_hangs_plumb_by_spacers_at_its_foot():
    """Proudest at 2120; at 1440 the wall stands 6.8 behind that: 18 and 6.8 are behind the foot. It hooks by 15."""
    held = hooked()
    batten = held.batten
    assert batten is not None
    assert [s.thick.value_mm for s in batten.spacers] == pytest.approx([24.8, 24.8], abs=0.7)
    assert (batten.engagement_mm, batten.lift_mm, batten.bevel_deg) == (15.0, 18.0, 45.0)
    assert {p.part for p in held.points} == {"batten"}
    # W · (165 + 18) / 660: the batten holds it off the wall
    assert held.pull_n == pytest.approx(held.shear_n * (165 + 18) / 660)
    for spacer in batten.spacers:
        assert sum(s.sign * s.value_mm for s in spacer.thick.working) == pytest.approx(spacer.thick.value_mm)


def test_a_batten_without_room_to_lift_is_told():
    over = box("O", x=300.0, width=1400.0, height_mm=200.0, over_base_mm=2130.0, standing=Hung(), fixing_heights_mm=())
    held = next(h for h in [hooked((over,))] if h.unit == "W")
    assert held.batten is not None
    assert held.batten.room_mm == pytest.approx(10.0)
    assert not held.enough
    assert "cannot be lifted" in held.instead


def test_a_deep_hollow_gets_a_timber_from_stud_to_stud():
    """The wall steps back by 70 behind the unit's rail: a timber of 65 fills it, its screws go on into both studs."""
    unit = box("A", x=500.0, width=1000.0, fixing_heights_mm=(700.0,), front=Front(opens="drawers"), weight_kg=90.0)
    held = held_of(lambda x: 0.0, unit, hollow=(70.0, 450.0), backing=Backing(driving_g=0.5))[0]
    assert held.ground is not None
    assert held.ground.thick_mm in (60.0, 65.0, 70.0)
    assert len(held.ground.studs) >= 2
    assert held.enough
    for p in held.points:
        assert p.part == "timber"
        assert 0.0 <= p.packing.value_mm <= 6.0  # what the timber, in steps of 5, leaves of the hollow


def test_a_unit_beside_its_studs_is_moved_by_as_little_as_gives_it_two():
    """Studs at 400 and 1000; 25 kept at each side: from 632 a box of 700 must move by 257, in steps of 5 by 260."""
    unit = replace(HUNG, x_mm=632.0, width_mm=700.0)
    held = held_of(lambda x: 0.0, unit, studs=(400.0, 1000.0))[0]
    assert "moved 260 mm to the left" in held.instead


def shelf_job(*detections: Detection) -> Job:
    board = Board(material="plywood", load_kg_per_m=30.0)
    shelf = box("S", x=0.0, width=2000.0, kind="shelf", over_base_mm=500.0, height_mm=30.0, depth_mm=400.0, board=board)
    shelf = replace(shelf, standing=OnCleats(), meets=("left", "right", "back"), toe_recess_mm=0.0)
    job = alcove_job(lean(0.0), lean(0.0, 2000.0), box("A", x=400.0), shelf)
    return replace(job, places=(with_facts(job.places[0], (Detection,), detections),))


def test_a_shelf_on_cleats_has_its_studs_wall_by_wall():
    """2 m of 30 kg, and 600 · 2 · 0.4 · 0.03 = 14.4 kg of plywood: 730 N, of which the back takes 0.6, a side 0.35."""
    back = edges(400.0, 1000.0, 1600.0)
    side = tuple(replace(found(x, "centre", n=9), surface="left", id=f"l{x}") for x in (60.0, 360.0, 62.0, 358.0))
    hold = solve_hold(shelf_job(*back, *side), "place")
    cleats = {c.wall: c for c in hold.cleats}
    screws = {wall: [f for f in hold.fasteners if f.id in c.fasteners] for wall, c in cleats.items()}
    total = (60.0 + 14.4) * 9.81
    assert cleats["back"].load_n == pytest.approx(0.6 * total, rel=0.01)
    assert cleats["left"].load_n == pytest.approx(0.35 * total, rel=0.01)
    assert {round(p.at[0], -1) for p in screws["back"]} == {400.0, 1000.0, 1600.0}
    assert cleats["back"].enough
    assert {p.surface for p in screws["left"]} == {"left"}
    assert cleats["back"].under_line_mm == pytest.approx(1000.0 - 500.0, abs=0.5)
    assert not cleats["right"].enough
    assert "Find the studs of the right wall" in cleats["right"].instead
    orders = [p.order for found in screws.values() for p in found]
    assert orders == sorted(set(orders))


def racked(joists: tuple[float, ...], axis: int, overhead: Backing | None = None) -> dict[str, HangerHeld]:
    """A rack of 60 kg from 300 to 1300 along, 300 below a level ceiling, its hangers at its corners."""
    rack = box("R", x=300.0, width=1000.0, depth_mm=500.0, height_mm=100.0, kind="rack", over_base_mm=2000.0)
    rack = replace(rack, standing=Hung(), weight_kg=60.0)
    over = [
        replace(offset(f"c{x}{y}", "ceiling", (float(x), float(y)), 1400.0), set_up=LINE.id)
        for x in range(0, 2001, 250)
        for y in (0, 300, 600)
    ]
    seen = []
    for k, at in enumerate(joists):
        for i, off in enumerate((-22.5, 22.5)):
            for j, other in enumerate((80.0, 500.0)):
                spot = (at + off, other) if axis == 0 else (other, at + off)
                seen.append(
                    replace(
                        found(0.0), id=f"j{k}{i}{j}", surface="ceiling", at=spot, sees=("left edge", "right edge")[i]
                    )
                )
    job = job_of(
        *floor_at(grid(2000, 600, 5, 3), lambda x, y: 0.0),
        *over,
        width=2000.0,
        units=(rack,),
        surfaces=("floor", "back", "ceiling"),
        detections=tuple(seen),
        overhead=overhead or Backing(runs="out" if axis == 0 else "along"),
    )
    hung = solve_hold(job, "place").overhead[0]
    assert hung.caution
    return {h.corner: h for h in hung.hangers}


def test_hangers_under_joists_hang_from_eye_bolts_and_lean_as_little_as_they_can():
    """Each carries half: 294 N. At 300 the joist is right above; at 1340 it is 40 aside, 300 up: 7.6°."""
    held = racked((300.0, 740.0, 1340.0), 0)
    assert {h.how for h in held.values()} == {"eye bolt"}
    bolt = Screw(shank_mm=BOLT_MM, root_mm=BOLT_ROOT_MM, thread_mm=BOLT_THREAD_MM)
    out = withdrawal(bolt, BOLT_THREAD_MM, "spruce-pine-fir", lag=True)
    assert held["back left"].load_n == pytest.approx(294.3)
    assert held["back left"].use == pytest.approx(294.3 / out, rel=0.01)
    leaning = held["back right"]
    assert leaning.lean_deg == pytest.approx(math.degrees(math.atan(40 / 300)), abs=1.0)
    assert leaning.chain_n == pytest.approx(294.3 / math.cos(math.radians(leaning.lean_deg)))
    assert leaning.chain_mm == pytest.approx(math.hypot(300, 40), abs=2.0)
    assert leaning.use > held["back left"].use


def test_between_joists_a_member_bridges_two_of_them():
    """Joists along at 150 and 550 out: 150 aside at 300 of drop is 26.6°, still an eye bolt. At 1300, 400 aside is not.

    There is a joist at 1300 only by the spacing of 400: nothing hangs from that.
    """
    held = racked((150.0, 550.0), 1)
    assert held["back left"].how == "eye bolt"
    assert held["front left"].how == "eye bolt"
    far = racked((100.0, 900.0, 1700.0), 0)["back right"]
    assert far.how == "bridging member"
    assert far.bridge is not None
    assert far.bridge.joists == pytest.approx((900.0, 1700.0), abs=3.0)
    assert far.bridge.long_mm == pytest.approx(800.0 + 120.0, abs=6.0)
    assert far.use == pytest.approx(beam_use(294.3, 800.0, 400.0, 38.0, 89.0), rel=0.02)
    assert far.bridge.screws == 2


def test_a_ceiling_nobody_looked_into_holds_nothing():
    assert not any(h.enough for h in racked((), 0).values())
    shallow = racked((300.0, 1300.0), 0, Backing(runs="out", deepest_mm=60.0))  # a bolt goes 12.5 + 60 deep
    assert all(h.how == "nothing yet" and "deeper" in h.instead for h in shallow.values())
    thin = racked((300.0, 1300.0), 0, Backing(runs="out", deep_mm=60.0))  # 60 of thread would come out of joists of 60
    assert all(h.how == "nothing yet" and "plates above" in h.instead for h in thin.values())
    concrete = racked((300.0, 1300.0), 0, Backing(kind="masonry", runs="out"))
    assert all("anchors" in h.instead for h in concrete.values())


def furred(bow: float, obstacles: tuple[Obstacle, ...] = ()) -> Job:
    """A wall 2000 wide, hollow by `bow` in the middle, on studs at 200, 1000 and 1800."""
    hollow = lambda x: -bow * 4 * (x / 2000) * (1 - x / 2000)  # noqa: E731
    return job_before(hollow, box("A", x=300.0), (200.0, 1000.0, 1800.0), obstacles=obstacles)


def test_furring_makes_a_hollow_wall_flat():
    """Hollow by 12 · 4 · 0.09 = 4.3 at 200 and 1800, by 12 in the middle: 7.7 is packed there, nothing beside."""
    made = solve_furring(furred(12.0), "place", low_mm=200.0, high_mm=1400.0, pitch_mm=600.0, strip_mm=19.0, plumb=True)
    assert made is not None
    assert made.heights == (200.0, 800.0, 1400.0)
    middle = [p.thick.value_mm for p in made.packings if abs(p.at[0] - 1000) < 50]
    assert middle == pytest.approx([7.7] * 3, abs=0.6)
    assert min(p.thick.value_mm for p in made.packings) == pytest.approx(0.0, abs=0.1)
    for p in made.packings:
        assert sum(s.sign * s.value_mm for s in p.thick.working) == pytest.approx(p.thick.value_mm)


def test_furring_stands_clear_of_a_wire_that_it_bridges():
    """A wire 20 proud and 6 free before it, strips of 19: the plane stands 7 further off."""
    wire = Obstacle(
        taken_at=WHEN,
        id="w",
        name="Wire",
        kind="wire",
        surface="back",
        at=(400.0, 700.0),
        size=(900.0, 12.0),
        proud_mm=20.0,
    )
    ask = {"low_mm": 200.0, "high_mm": 1400.0, "pitch_mm": 600.0, "strip_mm": 19.0, "plumb": True}
    plain, clear = solve_furring(furred(12.0), "place", **ask), solve_furring(furred(12.0, (wire,)), "place", **ask)  # type: ignore[arg-type]
    assert plain is not None
    assert clear is not None
    assert clear.plane_mm == pytest.approx(7.0)
    assert clear.thickest_mm == pytest.approx(plain.thickest_mm + 7.0, abs=0.1)


def test_battens_at_a_pitch_and_pegs_in_a_grid_are_laid_out_evenly():
    """2000 high, 80 battens at 200: 10 of them, (1920 − 1800) / 2 = 60 left; two ripped from 160 − 18 + 3."""
    wall = hanging_wall(2000.0, 200.0, 80.0, 18.0, "mm")
    assert len(wall.rows) == 10
    assert wall.margin_mm == pytest.approx(60.0)
    assert wall.rows[0] == pytest.approx(140.0)
    assert wall.blank_mm == pytest.approx(145.0)
    with pytest.raises(GridError, match=r"98\.0 mm does"):
        hanging_wall(2000.0, 90.0, 80.0, 18.0, "mm")
    pegs = peg_grid(600.0, 900.0, 25.0, 20.0, "mm")
    assert (len(pegs.columns), len(pegs.rows)) == (23, 35)
    assert pegs.columns[0] == pytest.approx(600.0 - pegs.columns[-1])
    assert pegs.columns[0] >= 20.0
    with pytest.raises(GridError):
        peg_grid(30.0, 900.0, 25.0, 20.0, "mm")


def test_neighbours_are_screwed_together_by_four_that_do_not_come_through():
    """Two sides of 19 take 30: 38 less 4 allows 34. At 37 in from front and back, 80 from foot and head."""
    place = Place(id="b", name="B", width_mm=3000.0, depth_mm=600.0, height_mm=2400.0)
    pair = replace(place, units=(box("A", x=0.0), box("B", x=600.0), box("C", x=1300.0)))
    ((made, screws),) = joined(pair)
    assert made.units == ("A", "B")
    assert made.screw_mm == 30.0
    assert {f.reach_mm for f in screws} == {11.0}, "30 less the side of 19"
    assert {f.at for f in screws} == {(80.0, 523.0), (640.0, 523.0), (80.0, 37.0), (640.0, 37.0)}
    ((reveal, _),) = joined(replace(pair, units=(box("A", x=0.0), box("B", x=604.0))))
    assert "packing in the reveal" in reveal.text


def test_what_is_thrown_about_is_screwed_into_the_joists_under_it():
    """60 kg and half of that: 294 N on four screws at joists of 400 and 800. Tall and shallow it is lifted too.

    0.5 · 589 · 900 less 589 · 150, over 300: 589 N lift the row of two at the back.
    """
    unit = box("A", x=300.0, width=600.0, depth_mm=300.0, height_mm=1800.0, weight_kg=60.0, fixing_heights_mm=())
    seen = tuple(
        replace(found(x, "screw", "nail seen"), id=f"n{x:.0f}{y:.0f}", surface="floor", at=(x, y))
        for x in (0.0, 400.0, 800.0, 1200.0)
        for y in (50.0, 200.0, 400.0)
    )
    floor = floor_at(grid(2000, 600, 5, 3), lambda x, y: 0.0)
    boards = Backing(lining_mm=18.0, runs="out")
    job = job_of(*floor, units=(unit,), detections=seen, backing=Backing(driving_g=0.5), underfoot=boards)
    hold = solve_hold(job, "place")
    fixed, screws = hold.underfoot[0], [f for f in hold.fasteners if f.surface == "floor"]
    assert fixed.shear_n == pytest.approx(0.5 * 60 * 9.81)
    assert fixed.pull_n == pytest.approx(60 * 9.81 * (0.5 * 900 - 150) / 300)
    assert sorted({round(f.at[0], -1) for f in screws}) == [400.0, 800.0]
    assert len(fixed.fasteners) == len(screws) == 4
    assert [f.reach_mm for f in screws] == pytest.approx([44.0] * 4, abs=1.0), "80 less 18 of base and 18 of boards"
    assert fixed.screw_mm == 80.0  # 18 + shims of 0 + 18 + 40
    assert fixed.enough
    assert "crash" in fixed.caution
    blind = solve_hold(replace(job, places=(with_facts(job.places[0], (Detection,), ()),)), "place").underfoot[0]
    assert (blind.fasteners, blind.enough) == ((), False)
    assert "Boards alone" in blind.instead
    shallow = replace(job.places[0], underfoot=replace(boards, deepest_mm=35.0))  # 17 behind the boards: none counts
    kept = solve_hold(replace(job, places=(shallow,)), "place").underfoot[0]
    assert (kept.fasteners, kept.enough) == ((), False)
    assert "deeper" in kept.instead
    still = solve_hold(replace(job, places=(replace(job.places[0], backing=Backing()),)), "place")
    assert still.underfoot == ()


def test_a_shelf_sags_under_what_it_holds_and_who_sits_on_it():
    """400 deep, a row of 300 of books: 42 kg a metre; a person of 120 in the middle of 1.2 m as 160 more."""
    shelf = box("S", width=1200.0, kind="shelf", depth_mm=400.0, board=Board(material="pine", load_kg_per_m=30.0))
    assert burdened(replace(shelf, holds="books"), shelf.board or Board(), 1200.0).load_kg_per_m == pytest.approx(42.0)
    sat = burdened(replace(shelf, holds="a person sitting"), shelf.board or Board(), 1200.0)
    assert sat.load_kg_per_m == pytest.approx(30.0 + 1.6 * 120 / 1.2)


def test_a_hole_near_something_live_says_detect_first():
    outlet = Obstacle(
        taken_at=WHEN, id="o", name="Outlet", kind="outlet", surface="back", at=(1040.0, 900.0), size=(86.0, 86.0)
    )
    held = held_of(lambda x: 0.0, obstacles=(outlet,), backing=Backing(rule="all round"), studs=(400.0, 1600.0))[0]
    far = [p for p in held.points if "Outlet is near" in p.check]
    near = held_of(lambda x: 0.0, obstacles=(replace(outlet, at=(480.0, 600.0)),), backing=Backing(rule="all round"))[0]
    assert far == []
    assert any("Outlet is near: detect, isolate, then drill." in p.check for p in near.points)


@pytest.mark.parametrize("made", [gable_workroom, vestry_press, narrowboat_galley])
def test_every_demo_job_has_a_complete_drilling_list(made):
    """Every unit that is fastened holds, its screws numbered through, long enough, in what is sure to hold."""
    job = made()
    hold = solve_hold(job, job.places[0].id)
    assert hold.held
    assert all(h.enough for h in hold.held)
    assert all(f.enough for f in hold.underfoot)
    points = [f for f in hold.fasteners if f.surface is not None]
    assert [f.order for f in hold.fasteners] == list(range(1, len(hold.fasteners) + 1))
    assert all(p.bites >= 0.9 for p in points)
    assert all(p.screw_mm >= p.long.value_mm for p in points)
