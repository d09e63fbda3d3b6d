"""A back that is no wall everywhere: nothing is read, packed or screwed in a window or past where the wall ends."""

from __future__ import annotations

from msgspec.structs import replace

from tests.catalogue import box
from tests.studded import job_before
from wobble.core.gauge.stations import stations
from wobble.core.job import WallOpening
from wobble.core.stages import solve_fit, solve_gauge, solve_hold

ENDS = WallOpening(id="e", name="End of the wall", kind="no wall", x_mm=1200.0, width_mm=800.0, height_mm=2400.0)
WINDOW = WallOpening(id="w", name="Window", x_mm=600.0, width_mm=500.0, height_mm=800.0, sill_mm=500.0)


def bulging(x: float) -> float:
    """A wall that would come forward by 20 past 1400, if it were there."""
    return 20.0 if x > 1400.0 else 0.0


def test_no_station_is_asked_for_where_there_is_no_wall():
    place = replace(job_before(bulging).places[0], openings=(ENDS, WINDOW))
    back = [s.at for s in stations(place) if s.surface == "back"]
    assert back
    assert all(x <= 1200.0 for x, _ in back)
    assert not [at for at in back if 600 < at[0] < 1100 and 500 < at[1] < 1300]
    assert len(back) < len([s for s in stations(replace(place, openings=())) if s.surface == "back"])


def test_backs_stand_off_the_wall_and_not_off_what_is_past_its_end():
    """The proudest wall behind a run from 300 to 1700 is 20 with what bulges past 1400, and 0 without it."""
    job = job_before(bulging)
    with_it = solve_fit(job, "place").plan
    ended = replace(job, places=(replace(job.places[0], openings=(ENDS,)),))
    without = solve_fit(ended, "place").plan
    assert with_it is not None
    assert without is not None
    assert max(p.gap.value_mm for p in with_it.packings) > 15.0
    assert max(abs(p.gap.value_mm) for p in without.packings) < 2.0
    assert {p.fixing.split("-")[-1] for p in without.packings} == {"left"}


def test_nothing_is_screwed_past_the_end_and_a_unit_wholly_past_it_is_told():
    job = job_before(lambda x: 0.0)
    ended = replace(job.places[0], openings=(ENDS,))
    driven = solve_hold(replace(job, places=(ended,)), "place").fasteners
    assert driven
    assert all(f.at[0] < 1200.0 for f in driven if f.surface == "back")
    past = replace(ended, units=(box("A", x=1300.0, width=600.0, fixing_heights_mm=(650.0,)),))
    held = solve_hold(replace(job, places=(past,)), "place")
    assert not [f for f in held.fasteners if f.surface == "back"]
    assert {f.code for f in held.findings} & {"not-held", "not-enough"}
    assert solve_gauge(replace(job, places=(past,)), "place").stations
