"""From surfaces to what goes under and behind the units, against numbers worked out by hand."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import LOST_LINE, PLUMB, box, floor_at, grid, job_of, offset, plain_kit, slope
from wobble.core.fit.level.plan import Plan
from wobble.core.job import BackLine, FixedTop, HighSpot, Job
from wobble.core.length import format_length, parse_length
from wobble.core.practice.gable import gable_workroom
from wobble.core.stages import PlaceFit, floor_contact_of, forget, solve, solve_fit, with_decisions

ROOM = grid(3000, 600, 13, 4)
RUN = tuple(box(name, x=i * 750.0, width=750.0) for i, name in enumerate("ABCD"))


def fit(job: Job) -> PlaceFit:
    return solve_fit(job, "place")


def planned(job: Job) -> Plan:
    found = fit(job).plan
    assert found is not None
    return found


def gaps(job: Job) -> dict[str, float]:
    return {s.support: s.gap.value_mm for s in planned(job).shims}


def falling(x: float, _y: float) -> float:
    return -12.0 * x / 3000


def codes(job: Job) -> list[str]:
    return [f.code for f in fit(job).findings]


def test_a_plane_floor_falling_twelve_over_three_metres():
    """Level starts at the left end, at 0; under x the floor lies 12·x/3000 lower: the shims are the plane."""
    job = job_of(*floor_at(ROOM, falling), units=RUN)
    plan = planned(job)
    assert plan.base.height.value_mm == pytest.approx(0, abs=0.1)
    assert gaps(job) == pytest.approx({s.support: 12 * s.at[0] / 3000 for s in plan.shims}, abs=0.1)
    assert plan.shims[1].filling.stack is not None
    assert sorted(plan.shims[1].filling.stack.pieces_mm) == [1.0, 2.0], "3 under x = 750"
    assert max(s.gap.sd_mm for s in plan.shims) < 0.3


def test_a_hump_between_the_stations_raises_the_datum():
    """A flat floor read 1500 apart: the highest of what may lie between stands above all that was read."""
    corners = [(0, 0), (1500, 0), (3000, 0), (0, 600), (1500, 600), (3000, 600)]
    coarse = job_of(*floor_at(corners, lambda x, y: 0.0), units=RUN)
    fine = job_of(*floor_at(ROOM, lambda x, y: 0.0), units=RUN)
    contact = floor_contact_of(coarse, "place")
    assert contact is not None
    assert contact.high_spot.value_mm > 2.0, "a maximum is taken on draws, not on the mean surface, which is 0 here"
    assert planned(fine).base.height.value_mm < 0.5, "read every 250 mm, the same floor leaves no room for a hump"


def test_a_measured_hump_is_the_datum():
    """A hump of 5 at (1125, 300), read there: the base stands at 5, and the supports around it get about 5."""

    def hump(x, y):
        return 5.0 * math.exp(-((x - 1125) ** 2 + (y - 300) ** 2) / (2 * 300**2))

    spots = [*ROOM, (1125, 300)]
    job = job_of(*floor_at(spots, hump), units=RUN, character="rough")
    assert "take-again" not in codes(job)
    plan = planned(job)
    assert plan.base.height.value_mm == pytest.approx(5.0, abs=0.4)
    assert plan.base.high_spot_at == pytest.approx((1125, 300), abs=80)
    assert plan.shims[0].gap.value_mm == pytest.approx(5.0 - hump(0, 0), abs=0.5)


def test_a_fixed_top_below_the_high_spot_cuts_the_base_down():
    """Top 714 for units of 720: underside at −6. Where the floor stands at 0 6 come off; no shim is negative."""
    job = job_of(*floor_at(ROOM, falling), units=RUN, datum=FixedTop(top_mm=714))
    plan = planned(job)
    assert plan.base.height.value_mm == -6
    assert plan.base.deepest_cut_mm == pytest.approx(6.0, abs=0.1)
    first = next(s for s in plan.shims if s.at[0] == 0)
    assert first.filling.kind == "cut"
    assert first.filling.cut_mm == pytest.approx(6.0, abs=0.1)
    assert all(s.filling.stack is None or s.filling.stack.thickness_mm > 0 for s in plan.shims)
    last = next(s for s in plan.shims if s.at[0] == 3000)
    assert last.gap.value_mm == pytest.approx(6.0, abs=0.1)
    finding = next(f for f in fit(job).findings if f.code == "cut-down")
    assert finding.severity == "mind"
    assert "6 of 16 supports" in finding.text, "those at x = 0 and 750: at 1500 the plane passes the underside"


@pytest.mark.parametrize("top", [714.0, 735.0])
def test_an_unknown_height_answers_no_fixed_top(top):
    """Read from a line whose height nobody knows: shims from the high spot hold, a fixed top means nothing."""
    lost = floor_at(ROOM, falling, line=LOST_LINE, line_at=1234.5)
    job = job_of(*lost, units=RUN)
    assert gaps(job) == pytest.approx({s.support: 12 * s.at[0] / 3000 for s in planned(job).shims}, abs=0.1)
    assert "height-from-high-spot" in codes(job)
    asked = job_of(*lost, units=RUN, datum=FixedTop(top_mm=top))
    assert fit(asked).plan is None
    assert codes(asked)[0] == "height-unknown"
    assert fit(asked).findings[0].severity == "stop"


def test_levels_alone_give_shims():
    """A chain of level readings every 500 on two rows, 2 down each: 12 over 3 m, and no line at all."""
    chain = [
        slope(f"s{y}{x}", (x, y), (x + 500.0, y), -2.0) for y in (0.0, 560.0) for x in np.arange(0.0, 3000.0, 500.0)
    ]
    cross = [slope(f"c{x}", (x, 0.0), (x, 560.0), 0.0) for x in (0.0, 1500.0, 3000.0)]
    job = job_of(*chain, *cross, units=RUN)
    found = gaps(job)
    assert found["D.back-right"] - found["A.back-left"] == pytest.approx(12.0, abs=0.1)


def test_inches_and_millimetres_give_the_same_shims():
    """The same sizes and readings, typed as inches to 1/64 and as millimetres."""
    typed = ["39 3/8", "39 13/32", "39 7/16", "39 15/32", '39 1/2"', "39 17/32"]
    spots = [(0, 0), (600, 0), (1200, 0), (0, 560), (600, 560), (1200, 560)]
    inches = [parse_length(text, "in") for text in typed]
    millimetres = [parse_length(f"{value:.4f}") for value in inches]

    def job(values, units):
        readings = [offset(f"r{i}", "floor", at, v) for i, (at, v) in enumerate(zip(spots, values, strict=True))]
        return replace(job_of(*readings, units=(box("A"), box("B", x=600.0)), width=1200.0), units=units)

    one, other = planned(job(inches, "in")), planned(job(millimetres, "mm"))
    pieces = [[s.filling.stack and s.filling.stack.pieces_mm for s in plan.shims] for plan in (one, other)]
    assert pieces[0] == pieces[1]
    assert any(pieces[0])
    assert [s.gap.value_mm for s in one.shims] == pytest.approx([s.gap.value_mm for s in other.shims], abs=1e-3)
    texts = " ".join(f.text for f in fit(job(inches, "in")).findings)
    assert '"' in texts
    assert "mm" not in texts


def test_packing_fills_up_to_the_line_of_the_proudest_spot():
    """A wall leaning 6 out over the 600 to its proud foot: behind a fixing 400 up, 4 more than at the foot."""
    wall = [
        replace(offset(f"w{x}-{z}", "back", (x, z), 500 - (6 - z / 100)), set_up=PLUMB.id)
        for x in np.arange(0.0, 3001.0, 250.0)
        for z in (0.0, 200.0, 400.0, 600.0, 720.0)
    ]
    units = tuple(replace(u, fixing_heights_mm=(400.0,)) for u in RUN)
    plan = planned(job_of(*floor_at(ROOM, lambda x, y: 0.0), *wall, units=units))
    assert plan.back_line is not None
    assert plan.back_line.value_mm == pytest.approx(6.0, abs=0.3)
    assert [p.gap.value_mm for p in plan.packings] == pytest.approx([4.0] * 8, abs=0.3)
    clear = planned(job_of(*floor_at(ROOM, lambda x, y: 0.0), *wall, units=units, back_line=BackLine(off_mm=5)))
    assert [p.gap.value_mm for p in clear.packings] == pytest.approx([9.0] * 8, abs=0.3)


def test_a_run_turned_in_plan_opens_a_wedge_behind_it():
    """A flat wall and a run turned 4 per metre: it touches at the left end, and 3 m on there are 12 behind it."""
    wall = [
        replace(offset(f"w{x}-{z}", "back", (x, z), 500.0), set_up=PLUMB.id)
        for x in np.arange(0.0, 3001.0, 250.0)
        for z in (0.0, 250.0, 500.0, 720.0)
    ]
    job = job_of(*floor_at(ROOM, lambda x, y: 0.0), *wall, units=RUN, back_line=BackLine(turn_mm_per_m=4.0))
    packings = planned(job).packings
    for packing in packings:
        assert packing.gap.value_mm == pytest.approx(4.0 * packing.at[0] / 1000, abs=0.35)
    assert min(p.gap.value_mm for p in packings) >= -0.35


@settings(max_examples=20)
@given(st.floats(-10, 18))
def test_raising_the_line_raises_every_gap_by_as_much(over):
    job = gable_workroom()
    start, turned = (
        solve_fit(with_decisions(job, "north", HighSpot(over_mm=o), BackLine()), "north").plan for o in (0.0, over)
    )
    assert start is not None
    assert turned is not None
    for before, after in zip(start.shims, turned.shims, strict=True):
        assert after.gap.value_mm - before.gap.value_mm == pytest.approx(over, abs=1e-6)
        assert (after.filling.kind == "cut") == (after.gap.value_mm < -job.kit.tolerance_mm)
    assert turned.base.deepest_cut_mm == pytest.approx(max(0.0, -over), abs=1e-6)


def test_every_working_adds_up_and_leads_to_readings():
    plan = solve_fit(gable_workroom(), "north").plan
    assert plan is not None
    known = {r.id for r in gable_workroom().places[0].readings}
    assert plan.back_line is not None
    figures = [plan.base.height, plan.base.over_high_spot, plan.back_line]
    figures += [s.gap for s in plan.shims] + [p.gap for p in plan.packings]
    for figure in figures:
        assert sum(step.sign * step.value_mm for step in figure.working) == pytest.approx(figure.value_mm, abs=1e-9)
        rests = [share.reading for step in figure.working for share in step.rests_on]
        assert rests
        assert set(rests) <= known
        assert figure.sd_mm == pytest.approx(np.sqrt(sum(s.sd_mm**2 for s in figure.working)), abs=1e-9) or (
            figure is plan.base.height  # the line is set there: what is not known is the floor, not the line
        )


def test_the_chance_that_the_floor_stands_over_the_line_is_told():
    """On draws of the demo's floor: one millimetre up is safer, and the safe height is safe with 95 %."""
    job = gable_workroom()

    def base_at(over):
        plan = solve_fit(with_decisions(job, "north", HighSpot(over_mm=over), BackLine()), "north").plan
        assert plan is not None
        return plan.base

    low = base_at(0.0)
    assert 0.2 < low.clear_share < 0.8
    assert base_at(low.sure_over_mm + 1e-6).clear_share == pytest.approx(0.95, abs=0.01)


def test_what_is_missing_is_said_first():
    assert codes(job_of())[:2] == ["no-units", "no-floor"]
    assert "no-floor" in codes(job_of(units=RUN))
    few = job_of(*floor_at(ROOM[:2], lambda x, y: 0.0), units=RUN)
    assert "few-readings" in codes(few)
    assert [f.severity for f in fit(few).findings] == sorted(
        (f.severity for f in fit(few).findings), key=["stop", "mind", "fine"].index
    )


def test_the_safety_word_stands_beside_what_is_drilled():
    finding = next(f for f in solve_fit(gable_workroom(), "north").findings if f.code == "packing")
    assert "detect, isolate, then drill" in finding.caution


def test_a_deep_gap_asks_for_a_base_frame():
    """A floor 40 down everywhere but at the left end: most supports are past the kit."""
    step = [(x, y) for x, y in ROOM]
    job = job_of(*floor_at(step, lambda x, y: 0.0 if x < 10 else -40.0), units=RUN, character="rough")
    finding = next(f for f in fit(job).findings if f.code == "too-tall")
    assert "base frame" in finding.text


def test_a_kit_that_runs_short_says_what_to_buy():
    kit = plain_kit()
    kit = replace(kit, pieces=tuple(replace(p, count=1) for p in kit.pieces))
    job = job_of(*floor_at(ROOM, falling), units=RUN, kit=kit)
    short = next(f for f in fit(job).findings if f.code in ("kit-short", "kit-misses"))
    assert short.severity == "mind"


def test_methods_are_compared_and_one_is_proposed_with_its_reason():
    job = job_of(*floor_at(ROOM, falling), units=RUN)
    by = {s.method: s for s in fit(job).methods}
    assert set(by) == {"high spot", "fixed top"}
    assert by["high spot"].proposed
    asked = {s.method: s for s in fit(job_of(*floor_at(ROOM, falling), units=RUN, datum=FixedTop(top_mm=725))).methods}
    assert asked["fixed top"].proposed, "a height to meet, and nothing cut for it"
    low = {s.method: s for s in fit(job_of(*floor_at(ROOM, falling), units=RUN, datum=FixedTop(top_mm=700))).methods}
    assert low["high spot"].proposed, "20 off the base is too much to propose"
    assert all(s.reason for s in (*by.values(), *asked.values(), *low.values()))
    assert sum(s.proposed for s in by.values()) == 1
    under = fit(job_of(*floor_at(ROOM, falling), units=RUN, datum=HighSpot(over_mm=-6.0))).methods
    assert [s.datum for s in under if s.proposed] == [HighSpot()], "what cuts is not proposed"


def test_solving_twice_is_the_same_to_the_last_digit():
    first = solve(gable_workroom())
    forget()
    assert solve(gable_workroom()) == first


def test_places_in_sentences_are_whole_and_in_the_users_unit():
    job = replace(gable_workroom(), units="in")
    finding = next(f for f in solve_fit(job, "north").findings if f.code == "take-again")
    assert format_length(2090.0, "in") in finding.text
