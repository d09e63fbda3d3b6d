"""Hold: dowel capacities against statics and the code's own closed forms; studs against made-up walls."""

from __future__ import annotations

import math
from collections.abc import Callable

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import box
from tests.studded import balanced, edges, found, held_of, restraint_of_hinge, restraint_of_rigid
from wobble.core.fit.cutouts.services import ELECTRIC
from wobble.core.hold.capacity.capacity import (
    CapacityError,
    Mode,
    Screw,
    bearing_psi,
    lateral,
    reduction,
    together,
    usual_yield_psi,
    withdrawal,
    yields,
)
from wobble.core.hold.loads import loads, weight_kg
from wobble.core.hold.structure.lines import structure
from wobble.core.job.unit import Hung, OnShims
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import solve_hold

CASE = st.tuples(
    st.floats(200, 3000), st.floats(200, 3000), st.floats(0.3, 1.5), st.floats(0.6, 3.0), st.floats(5, 150)
)


@given(CASE, st.sampled_from([0.0, 0.1, 0.5, 1.2]))
@settings(max_examples=60)
def test_the_six_modes_are_those_of_statics_with_and_without_a_gap(case, gap):
    q_s, q_m, side, main, moment = case
    found = yields(q_s, q_m, side, main, gap, moment, moment)
    assert found["Im"] == pytest.approx(q_m * main)
    assert found["Is"] == pytest.approx(q_s * side)
    straight_s = lambda p: restraint_of_rigid(p, q_s, side)  # noqa: E731
    straight_m = lambda p: restraint_of_rigid(p, q_m, main)  # noqa: E731
    bent_s = lambda p: restraint_of_hinge(p, q_s, moment)  # noqa: E731
    bent_m = lambda p: restraint_of_hinge(p, q_m, moment)  # noqa: E731
    solved: tuple[tuple[Mode, Callable[[float], float], Callable[[float], float]], ...] = (
        ("II", straight_s, straight_m),
        ("IIIm", bent_s, straight_m),
        ("IIIs", straight_s, bent_m),
        ("IV", bent_s, bent_m),
    )
    for mode, one, other in solved:
        # past what crushes a whole member another mode governs, and no dowel turns in it any more
        if found[mode] <= min(found["Im"], found["Is"]):
            assert found[mode] == pytest.approx(balanced(gap, one, other, 1e5), rel=0.01)


def test_without_a_gap_they_are_the_codes_closed_forms():
    """NDS 2018 table 12.3.1A, worked by hand: D = 0.152 in, rail 0.75, stud 1.5, G = 0.42 and 0.50, F_yb = 90 000 psi.

    F_es = 16600 · 0.42^1.84 = 3364, F_em = 16600 · 0.50^1.84 = 4637 psi; R_e = 1.378, R_t = 2.
    """
    d, ls, lm, fyb = 0.152, 0.75, 1.5, 90_000.0
    fes, fem = bearing_psi(0.42, d), bearing_psi(0.50, d)
    assert fes == pytest.approx(3364, abs=2)
    assert fem == pytest.approx(4637, abs=2)
    re, rt = fem / fes, lm / ls
    k1 = (math.sqrt(re + 2 * re**2 * (1 + rt + rt**2) + rt**2 * re**3) - re * (1 + rt)) / (1 + re)
    k2 = -1 + math.sqrt(2 * (1 + re) + 2 * fyb * (1 + 2 * re) * d**2 / (3 * fem * lm**2))
    k3 = -1 + math.sqrt(2 * (1 + re) / re + 2 * fyb * (2 + re) * d**2 / (3 * fem * ls**2))
    by_code = {
        "Im": d * lm * fem,
        "Is": d * ls * fes,
        "II": k1 * d * ls * fes,
        "IIIm": k2 * d * lm * fem / (1 + 2 * re),
        "IIIs": k3 * d * ls * fem / (2 + re),
        "IV": d**2 * math.sqrt(2 * fem * fyb / (3 * (1 + re))),
    }
    found = yields(fes * d, fem * d, ls, lm, 0.0, fyb * d**3 / 6, fyb * d**3 / 6)
    assert found == {mode: pytest.approx(load, rel=1e-6) for mode, load in by_code.items()}
    assert by_code["IV"] == pytest.approx(249.9, rel=0.01)


def test_a_screw_across_packing_carries_less():
    """A #8 (4.2 shank, 3.3 root) through 18 of plywood: half as much again of gap takes a good part off."""
    screw = Screw(shank_mm=4.2, root_mm=3.3, long_mm=80.0)
    loads = [
        lateral(screw, side_mm=18.0, gap_mm=gap, main_mm=38.0, side="plywood", main="spruce-pine-fir").capacity_n
        for gap in (0.0, 12.5, 25.0, 40.0)
    ]
    assert loads == sorted(loads, reverse=True)
    assert loads[2] < 0.6 * loads[0]
    # by hand without a gap, mode IV: 0.13 in, 3364 psi twice, 100 ksi: 0.13² √(2·3364·1e5/6) = 178.9 lb / 2.2 · 0.9
    first = lateral(screw, side_mm=18.0, gap_mm=0.0, main_mm=38.0, side="plywood", main="spruce-pine-fir")
    d = 3.3 / 25.4
    by_hand = d**2 * math.sqrt(2 * bearing_psi(0.42, d) * 100_000 / (3 * 2)) * 4.4482 / 2.2 * 0.9
    assert first.design_n["IV"] == pytest.approx(by_hand, rel=0.001)
    assert first.capacity_n == min(first.design_n.values())
    with pytest.raises(CapacityError):
        lateral(screw, side_mm=18.0, gap_mm=0.0, main_mm=15.0, side="plywood", main="spruce-pine-fir")


def test_tables_are_read_at_their_own_edges():
    assert [usual_yield_psi(d) for d in (0.14, 0.15, 0.2, 0.25)] == [100_000.0, 90_000.0, 80_000.0, 70_000.0]
    assert reduction(0.17, "IV") == 2.2
    assert reduction(0.2, "IV") == pytest.approx(2.5)
    assert (reduction(0.3, "Im"), reduction(0.3, "II"), reduction(0.3, "IV")) == (4.0, 3.6, 3.2)


def test_pulling_out_is_by_the_depth_of_thread():
    """2850 · 0.42² · 0.165 in = 82.95 lb/in; 1.5 in of thread, 0.9 for good: 498 N. A lag of 1/4: 173 lb/in."""
    screw = Screw(shank_mm=0.165 * 25.4, root_mm=3.3, thread_mm=1.5 * 25.4)
    assert withdrawal(screw, 60.0, "spruce-pine-fir") == pytest.approx(82.95 * 1.5 * 0.9 * 4.4482, rel=0.002)
    assert withdrawal(screw, 25.4, "spruce-pine-fir") == pytest.approx(82.95 * 0.9 * 4.4482, rel=0.002)
    lag = Screw(shank_mm=6.35, root_mm=4.4, thread_mm=25.4)
    assert withdrawal(lag, 30.0, "spruce-pine-fir", lag=True) == pytest.approx(173.2 * 0.9 * 4.4482, rel=0.003)


def test_shear_and_pull_use_a_screw_up_together():
    assert together(0.0, 300.0, 500.0, 600.0) == pytest.approx(0.5)
    assert together(250.0, 0.0, 500.0, 600.0) == pytest.approx(0.5)
    # at 45°: Zα = 500·600 / (500·½ + 600·½) = 545.5
    assert together(300.0, 300.0, 500.0, 600.0) == pytest.approx(math.hypot(300, 300) / 545.45, rel=1e-3)


def test_two_edges_make_a_middle_and_the_spacing_finds_the_stud_that_was_missed():
    """Studs of 45 at 200, 800, [1400], 2000 and 2600, all but one seen: 600 says that it is there."""
    seen = edges(200, 800, 2000, 2600)
    known_ = structure(seen, 3000.0, 45.0)
    assert known_.spacings[0].mm == 600.0
    assert known_.bites(200.0) > 0.9
    assert known_.bites(1400.0) > 0.8
    assert known_.bites(500.0) < 0.05
    assert [round(line.at_mm, -1) for line in known_.lines] == [200, 800, 1400, 2000, 2600]


def test_nothing_found_is_nothing_known():
    known_ = structure((), 3000.0, 45.0)
    assert (known_.lines, known_.spacings) == ((), ())
    assert known_.bites(1000.0) == 0.0


def test_one_soft_detection_asks_for_a_second_method():
    one = structure((found(1000.0, found_by="knock"),), 3000.0, 45.0)
    two = structure((found(1000.0, found_by="knock"), found(1002.0, "screw", "magnet")), 3000.0, 45.0)
    assert one.bites(1000.0) < two.bites(1000.0)
    assert two.lines[[abs(line.at_mm - 1000) < 30 for line in two.lines].index(True)].found_by == ("knock", "magnet")


def test_a_miss_moves_what_was_thought():
    seen = tuple(found(x) for x in (400.0, 1000.0, 1600.0))
    before = structure(seen, 3000.0, 45.0)
    after = structure((*seen, found(2200.0, "miss", "trial hole")), 3000.0, 45.0)
    assert before.bites(2200.0) > 0.7
    assert after.bites(2200.0) < 0.3 * before.bites(2200.0)


def test_what_fits_no_line_is_named():
    seen = tuple(
        found(x + off, sees)
        for x in (200, 800, 1400, 2000)
        for off, sees in ((-22.5, "left edge"), (22.5, "right edge"))
    )
    pipe = found(1130.0)
    assert (
        pipe.id in structure((*seen, pipe), 2600.0, 45.0).odd
        or structure((*seen, pipe), 2600.0, 45.0).bites(1130.0) < 0.5
    )


def test_a_unit_on_a_hollow_gets_longer_screws():
    """The wall 15 hollow at the right stud: rail 18, lining 12.5 and 35 of wood want 70 at the left, 90 there."""
    held = held_of(lambda x: -15.0 if x > 1200 else 0.0, studs=(400.0, 1600.0))[0]
    by_place = {round(p.at[0], -2): p for p in held.points}
    assert by_place[400.0].screw_mm == 70.0
    assert by_place[1600.0].screw_mm == 90.0
    assert by_place[1600.0].packing.value_mm == pytest.approx(15.0, abs=1.0)
    for p in held.points:
        assert sum(s.value_mm for s in p.long.working) == pytest.approx(p.long.value_mm)
        assert p.reach_mm >= 35.0
        assert p.screw_mm >= p.long.value_mm


def test_loads_are_those_of_the_lever():
    """20 kg of box, 0.3456 m³ of books at 350: 141 kg; it pulls its top row with half its depth over 600."""
    unit = box("W", x=300.0, width=1600.0, depth_mm=300.0, height_mm=720.0, over_base_mm=1400.0, standing=Hung())
    full = replace(unit, weight_kg=20.0, holds="books", fixing_heights_mm=(600.0,))
    assert weight_kg(full) == pytest.approx(20.0 + 350 * 0.3456)
    shear, pull = loads(full)
    assert shear == pytest.approx(9.81 * (20.0 + 350 * 0.3456))
    assert pull == pytest.approx(shear * 150 / 600)
    standing = replace(full, over_base_mm=0.0, standing=OnShims())
    assert loads(standing) == pytest.approx((0.0, 110.0 * 720 / 600))


def test_no_screw_stands_in_a_zone_of_the_demo_jobs():
    """Brute force over every mark: 50 all round, for what is electric also straight up, down and sideways.

    The wire of the galley is seen: it may go on the way it runs, which is along.
    """
    for job in (gable_workroom(), vestry_press(), narrowboat_galley()):
        place = job.places[0]
        for point in solve_hold(job, place.id).fasteners:
            for mark in place.obstacles:
                if point.surface != mark.surface:
                    continue
                (x, z), (w, h) = mark.at, mark.size
                off = (max(x - point.at[0], 0, point.at[0] - x - w), max(z - point.at[1], 0, point.at[1] - z - h))
                lines = {"wire": off[1] < 50}.get(mark.kind, mark.kind in ELECTRIC and min(off) < 50)
                near = math.hypot(*off) < 50 or (mark.surface == "back" and lines)
                assert not near, (job.name, point.at, mark.name)


def test_too_few_or_too_weak_asks_for_a_ledger_and_no_studs_for_finding_them():
    heavy = box("W", x=300.0, width=1600.0, depth_mm=330.0, height_mm=720.0, over_base_mm=700.0, standing=Hung())
    heavy = replace(heavy, holds="books", fixing_heights_mm=(680.0,))
    over = held_of(lambda x: 0.0, heavy)[0]
    assert over.instead == "", "it rests, and no advice is left"
    ledger = over.rests_on
    assert ledger is not None
    assert len(ledger.places) == 3
    assert ledger.carries_n == pytest.approx(6 * ledger.each_n, rel=0.01)
    assert sum(p.part == "ledger" for p in over.points) == 6
    assert ledger.use == pytest.approx(over.shear_n / ledger.carries_n)
    assert ledger.top_mm == pytest.approx(700.0, abs=1.0)
    assert over.caution
    narrow = replace(heavy, width_mm=300.0, x_mm=850.0)
    assert "Too few studs" in held_of(lambda x: 0.0, narrow)[0].instead
    blind = held_of(lambda x: 0.0, heavy, studs=())[0]
    assert blind.points == ()
    assert blind.instead.startswith("Find the studs first")


def test_as_few_screws_as_hold_are_taken():
    """A light unit that stands takes one row's two surest; nothing else is drilled."""
    held = held_of(lambda x: 0.0)[0]
    assert held.enough
    assert len(held.points) == 2
    assert held.use <= 1
    assert [p.order for p in held.points] == [1, 2]
