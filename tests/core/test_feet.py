"""Feet, legs and the ways of making level."""

from __future__ import annotations

import numpy as np
import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, box, floor_at, grid, job_of
from wobble.core.job import FixedTop, HighSpot, Instrument, Job, Unit
from wobble.core.job.unit import BaseFrame, Legs, ScrewFeet
from wobble.core.practice.instruments import read_offsets
from wobble.core.practice.rooms import made_up_room
from wobble.core.stages import floor_contact_of, solve_fit

FEET = ScrewFeet(pitch_mm=1.5, least_mm=80.0, most_mm=120.0, now_mm=(95.0, 96.0, 97.0, 94.0))


def tilted(*units: Unit, over: float = 0.0) -> Job:
    """A floor that falls by 6 from left to right over 1200, and rises by 2 to the front."""
    readings = floor_at(grid(1200, 600, 5, 3), lambda x, y: 6.0 - x / 200.0 + y / 300.0)
    return job_of(*readings, width=1200.0, units=units, datum=HighSpot(over_mm=over), surfaces=("floor",))


def test_each_foot_is_turned_from_where_it_is_now():
    """High spot: front left, 6 + 2·560/600. Its foot stays at the longest of now, 97; back right stands 4.87 lower."""
    fit = solve_fit(tilted(box("A", x=0.0, width=600.0, standing=FEET)), "place")
    feet = {f.corner: f for f in fit.feet}
    high = 6.0 + 2.0 * 560 / 600
    assert feet["front left"].long.value_mm == pytest.approx(97.0, abs=0.1)
    assert feet["back right"].long.value_mm == pytest.approx(97.0 + high - 3.0, abs=0.1)
    assert feet["back right"].turns == pytest.approx((97.0 + high - 3.0 - 96.0) / 1.5, abs=0.07)
    assert feet["front left"].turns == pytest.approx((97.0 - 94.0) / 1.5, abs=0.07)
    assert feet["front left"].eighths == 16
    assert sorted(f.order for f in fit.feet) == [1, 2, 3, 4]
    assert {s.filling.kind for s in fit.plan.shims} == {"foot"}  # type: ignore[union-attr]
    assert next(s.method for s in fit.levelling if s.proposed) == "screw feet"


def test_feet_past_their_thread_stop_the_job():
    short = replace(FEET, most_mm=99.0)
    fit = solve_fit(tilted(box("A", x=0.0, width=1200.0, standing=short)), "place")
    assert any(f.code == "feet-past" and f.severity == "stop" for f in fit.findings)
    assert not next(s for s in fit.levelling if s.method == "screw feet").works


def test_units_are_set_from_the_high_spot_outwards_each_foot_once():
    units = tuple(box(name, x=300.0 * i, width=300.0, standing=FEET) for i, name in enumerate("ABCD"))
    job = job_of(
        *floor_at(grid(1200, 600, 9, 3), lambda x, y: -abs(x - 450.0) / 100.0),
        width=1200.0,
        units=units,
        surfaces=("floor",),
    )
    order = [f.unit for f in solve_fit(job, "place").feet]
    assert order == [u for u in ("B", "A", "C", "D") for _ in range(4)]


def test_turned_feet_level_the_unit():
    """Property: set by count in eighths on the true floor, a unit's four corners are level within half a millimetre.

    The floor is read well where the feet stand, with a rule of 0.2 mm; a foot's own eighth of a turn is 0.19 mm.
    """
    rule = Instrument(id="exact", name="Good rule", sigma_mm=0.2)
    for seed in range(12):
        floor = made_up_room(seed).surfaces["floor"]
        unit = box("A", x=900.0, width=600.0, standing=FEET)
        job = tilted(unit)
        run = floor_contact_of(job, "place")
        assert run is not None
        at = run.supports
        spots = np.array([s.at for s in at for _ in range(4)] + grid(1600, 560, 5, 3))
        line = job.places[0].set_ups[0]
        readings = read_offsets(floor, "floor", spots, line, rule, seed=seed, graduation_mm=0.1)
        measured = job_of(*readings, width=1600.0, units=(unit,), surfaces=("floor",))
        fit = solve_fit(replace(measured, instruments=(rule,)), "place")
        set_to = {f.corner: f.now_mm + f.eighths / 8 * FEET.pitch_mm for f in fit.feet}
        tops = np.array([floor.at(np.array([s.at]))[0] + set_to[s.corner] for s in at])
        plane = np.column_stack([np.ones(4), np.array([s.at for s in at])])
        level = plane @ np.linalg.lstsq(plane, tops, rcond=None)[0]
        assert np.ptp(tops) <= 1.0, "every corner within half a millimetre of the middle"
        assert np.abs(tops - level).max() <= 0.5


def test_legs_are_cut_to_the_floor():
    """Back right of a 600 wide bench stands 4.87 under the high spot: 680 + 4.87 long, cut off 720."""
    fit = solve_fit(tilted(box("A", x=0.0, width=600.0, standing=Legs(long_mm=720.0, finished_mm=680.0))), "place")
    leg = next(leg for leg in fit.legs if leg.corner == "back right")
    assert leg.long.value_mm == pytest.approx(680.0 + 3.0 + 2.0 * 560 / 600, abs=0.1)
    assert leg.cut_mm == pytest.approx(40.0 - 3.0 - 2.0 * 560 / 600, abs=0.1)
    short = box("A", x=0.0, width=600.0, standing=Legs(long_mm=682.0, finished_mm=680.0))
    assert any(f.code == "legs-short" for f in solve_fit(tilted(short), "place").findings)


def test_units_on_one_frame_share_its_shims():
    """Two of 600 on a frame of 1200: rails shimmed at both ends and the middle, six places instead of eight."""
    units = (box("A", x=0.0, width=600.0, standing=BaseFrame()), box("B", x=600.0, width=600.0, standing=BaseFrame()))
    fit = solve_fit(tilted(*units), "place")
    assert fit.plan is not None
    assert len(fit.plan.shims) == 6
    assert {s.at[0] for s in fit.plan.shims} == {0.0, 600.0, 1200.0}


def test_ways_of_making_level_tell_what_they_cost():
    """Gaps of the tilted floor run from 0 to 6 + 2·560/600: shims at three of four corners, or a scribe that deep."""
    fit = solve_fit(tilted(box("A", x=0.0, width=1200.0)), "place")
    ways = {w.method: w for w in fit.levelling}
    assert ways["shims"].places == 3
    assert ways["scribe the base down"].largest_mm == pytest.approx(6.0 + 2.0 * 560 / 600, abs=0.1)
    assert not ways["screw feet"].works
    assert ways["shims"].proposed


def test_a_height_to_meet_is_looked_at():
    """A seat of 520 with its cushion is no usual seat; the run under it stands lower by the cushion."""
    job = tilted(box("A", x=0.0, width=600.0, height_mm=400.0))
    asked = FixedTop(top_mm=520.0, to="a seat", cushion_mm=60.0)
    turned = replace(job, places=(replace(job.places[0], datum=asked),), instruments=(EXACT,))
    fit = solve_fit(turned, "place")
    assert fit.plan is not None
    assert fit.plan.base.height.value_mm == pytest.approx(520.0 - 60.0 - 400.0, abs=0.01)
    assert any(f.code == "unusual-height" for f in fit.findings)
