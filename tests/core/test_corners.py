"""Places that share a corner, ceilings with a knee, and the next reading for the decision at hand."""

from __future__ import annotations

import math
from datetime import timedelta

import numpy as np
import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, LOST_LINE, PLUMB, RULE, WHEN, box, floor_at, grid, job_of, offset
from wobble.core.errors import DocumentError
from wobble.core.fit.run.requested import requested
from wobble.core.formats.checks import check_job
from wobble.core.gauge.next import next_for
from wobble.core.gauge.stations import stations, with_readings
from wobble.core.job import READING_KINDS, Job, Knee, Offset, Place, SetUp, Slope, with_facts
from wobble.core.stages import floor_contact_of, solve_gauge, survey_of

SIDE = SetUp(id="side", name="Plane across", across="x", at_mm=1000.0)
WIDTH = 2400.0
TURN = 0.01
"""The second place's axes really are turned by 10 mm per m against the first's."""


def wall(x: float) -> float:
    """The first place's back: how far out it stands, mm, along its own x."""
    return 3.0 * math.sin(x / 500.0)


def right_wall(y: float) -> float:
    """The first place's right wall, mm along its x: it leans away as it comes out, and bows."""
    return WIDTH + TURN * y + 5.0 * math.sin(y / 300.0)


def first_place(*readings: Offset, **more: object) -> Place:
    plain = {"id": "north", "name": "North", "surfaces": ("floor", "back", "right"), "set_ups": (LINE, PLUMB, SIDE)}
    sizes = {"width_mm": WIDTH, "depth_mm": 600.0, "height_mm": 2400.0}
    return Place(**(plain | sizes | {"facts": readings} | more))  # type: ignore[arg-type]


def second_place(*readings: Offset) -> Place:
    return Place(
        id="east",
        name="East",
        width_mm=1800.0,
        depth_mm=600.0,
        height_mm=2400.0,
        surfaces=("floor", "back", "left"),
        set_ups=(LINE, replace(PLUMB, id="plumb-e"), replace(SIDE, id="side-e", at_mm=500.0)),
        facts=readings,
    )


def east_readings() -> list[Offset]:
    """The second place's back and left wall, read in its own axes: its back is the first's right wall.

    A spot x along its back is y = x out of the first place; its own y axis is turned by TURN against the first's back.
    """
    back = [
        offset(f"b{x}-{z}", "back", (float(x), float(z)), 500.0 - (WIDTH - right_wall(x) + TURN * x), line=E_PLUMB)
        for x in range(50, 1750, 200)
        for z in (300, 900)
    ]
    left = [
        offset(f"l{y}", "left", (float(y), 600.0), 500.0 - (wall(WIDTH - y) - TURN * y), line=E_SIDE)
        for y in range(50, 600, 100)
    ]
    return [*back, *left]


E_PLUMB, E_SIDE = SetUp(id="plumb-e", name="P", across="y"), SetUp(id="side-e", name="S", across="x")


def test_a_neighbour_tells_the_shape_of_the_wall_they_share():
    """The right wall read only at two spots gets its bow and its place from the neighbour's back readings."""
    own = [offset(f"r{y}", "right", (y, 600.0), right_wall(y) - 1000.0, line=SIDE) for y in (50.0, 550.0)]
    own += [offset(f"a{x}", "back", (x, 600.0), 500.0 - wall(x), line=PLUMB) for x in np.linspace(100.0, 2300.0, 12)]
    spots = np.array([[y, 600.0] for y in np.linspace(50, 550, 11)])
    truth = np.array([right_wall(y) for y, _ in spots])
    alone = Job(name="", instruments=(EXACT,), places=(first_place(*own), second_place()))
    together = Job(
        name="",
        instruments=(EXACT,),
        places=(first_place(*own, right_is_back_of="east"), second_place(*east_readings())),
    )
    check_job(together)
    off_alone = np.abs(survey_of(alone, "north").adjustment.mean(("right", spots)) - truth).max()
    found = survey_of(together, "north")
    off = np.abs(found.adjustment.mean(("right", spots)) - truth).max()
    assert off < 0.5 < off_alone
    assert {d.reading_id for d in found.disagreements} == {r.id for r in own}, "the neighbour's are judged there"


def test_the_neighbour_learns_from_this_place_as_well():
    """Seen from the second place, its left wall is the first's back; its own readings of it are left out here."""
    back = [offset(f"a{x:.0f}", "back", (x, 600.0), 500.0 - wall(x), line=PLUMB) for x in np.linspace(1750, 2350, 9)]
    right = [
        offset(f"r{y:.0f}", "right", (y, 600.0), right_wall(y) - 1000.0, line=SIDE) for y in np.linspace(50, 550, 6)
    ]
    east = [r for r in east_readings() if r.surface == "back"]
    far = [offset("l1", "left", (50.0, 600.0), 500.0 - wall(WIDTH - 50) + TURN * 50, line=E_SIDE)]
    job = Job(
        name="",
        instruments=(EXACT,),
        places=(first_place(*back, *right, right_is_back_of="east"), second_place(*east, *far)),
    )
    spots = np.array([[y, 600.0] for y in np.linspace(50, 550, 11)])
    truth = np.array([wall(WIDTH - y) - TURN * y for y, _ in spots])
    mean = survey_of(job, "east").adjustment.mean(("left", spots))
    assert np.abs(mean - truth).max() < 0.6


def test_a_corner_is_shared_with_a_place_that_is_there_and_once_only():
    places = (first_place(right_is_back_of="west"), second_place())
    with pytest.raises(DocumentError, match=r"\$\.places\[0\]\.right_is_back_of"):
        check_job(Job(name="", instruments=(EXACT,), places=places))
    twice = (
        first_place(right_is_back_of="east"),
        replace(first_place(right_is_back_of="east"), id="south"),
        second_place(),
    )
    with pytest.raises(DocumentError, match="already another place's right wall"):
        check_job(Job(name="", instruments=(EXACT,), places=twice))


def stair(x: float) -> float:
    """A ceiling at 2300 that falls by 40 degrees from x = 1200 on."""
    return 2300.0 - max(0.0, x - 1200.0) * 0.839


@pytest.mark.parametrize(
    ("knee", "furthest"), [(Knee(along="x", at_mm=1200.0), 1.5), (None, 1e9)], ids=["with its knee", "without"]
)
def test_a_ceiling_that_turns_into_a_slope(knee, furthest):
    """Five heights give the flat part and the slope back where the knee is told; a plane alone cannot."""
    up = [offset(f"c{x}", "ceiling", (float(x), 300.0), stair(x) - 1000.0) for x in (100, 700, 1150, 1500, 2300)]
    job = job_of(*up, width=2400.0, surfaces=("floor", "ceiling"), kind="under a slope", knee=knee)
    found = survey_of(job, job.places[0].id)
    at = np.array([[x, 300.0] for x in (400.0, 900.0, 1300.0, 1700.0, 2000.0)])
    off = np.abs(found.adjustment.mean(("ceiling", at)) - [stair(x) for x, _ in at]).max()
    assert off < furthest
    if knee is None:
        assert off > 5


def test_a_steep_ceiling_is_no_surprise_under_a_stair():
    up = [offset(f"c{x}", "ceiling", (float(x), 300.0), 1200.0 - 0.8 * x) for x in (100, 700, 1500, 2300)]
    job = job_of(*up, width=2400.0, surfaces=("floor", "ceiling"), kind="under a slope")
    assert not survey_of(job, job.places[0].id).suspects


def half_read(depths: tuple[float, ...] = (60.0, 500.0)):
    """A floor read at four spots, with two units to stand on it."""
    spots = [(x, y) for x in (100.0, 2400.0) for y in depths]
    units = (box("A", 100.0), box("B", 1600.0))
    return job_of(*floor_at(spots, lambda x, y: -0.002 * x, instrument=RULE), units=units)


def test_the_next_reading_is_the_one_that_moves_the_shims_most_when_each_is_tried():
    """Take each open station's reading in turn, survey again, and compare what is left open of all shims."""
    job = half_read()
    proposed = solve_gauge(job, "place").next_reading
    assert proposed is not None
    assert proposed.about == "shims"
    contact = floor_contact_of(job, "place")
    assert contact is not None
    (floor,) = requested(contact)

    def left_open(at):
        more = with_facts(job.places[0], READING_KINDS, (*job.places[0].readings, offset("more", "floor", at, 1000.0)))
        covariance = survey_of(replace(job, places=(more,)), "place").adjustment.at(("floor", floor.spots)).covariance
        return float(np.trace(floor.weights @ covariance @ floor.weights.T))

    round_ = with_readings(stations(job.places[0]), survey_of(job, "place"))
    tried = {s.id: left_open(s.at) for s in round_ if s.surface == "floor" and s.read_by is None}
    assert proposed.station in tried
    assert tried[proposed.station] == pytest.approx(min(tried.values()), rel=0.06)


def test_two_more_readings_move_at_least_as_much_as_one_and_less_and_less_as_the_round_goes_on():
    sparse, dense = half_read(), None
    units = sparse.places[0].units
    dense = job_of(*floor_at(grid(3000, 600, 13, 5), lambda x, y: -0.002 * x), units=units)
    moves = []
    for job in (sparse, dense):
        proposed = solve_gauge(job, "place").next_reading
        assert proposed is not None
        assert proposed.two_would_move_mm is not None
        assert proposed.two_would_move_mm >= proposed.would_move_mm - 1e-9
        moves.append(proposed.two_would_move_mm)
    assert moves[0] > 1 > moves[1], "enough is enough once the floor is read every 250 mm to a hundredth"


def test_a_line_of_unknown_place_is_no_reason_to_read_anywhere():
    """With the floor read from a lost line only, the shims are known all the same, and so is the best next station."""
    spots = grid(3000, 600, 7, 3)
    lost = floor_at(spots, lambda x, y: -0.002 * x, line=LOST_LINE, line_at=1234.0, instrument=RULE)
    job = job_of(*lost, units=(box("A", 100.0),))
    contact = floor_contact_of(job, "place")
    assert contact is not None
    found = survey_of(job, "place")
    proposed = next_for(found, with_readings(stations(job.places[0]), found), requested(contact), RULE)
    assert proposed is not None
    assert proposed.worst_sd_now_mm < 2
    assert proposed.would_move_mm < 2


def test_levels_that_were_read_before_and_after_a_check_have_two_biases():
    from wobble.core.job import FlipCheck, Instrument

    flip = FlipCheck(at=WHEN + timedelta(hours=1), length_mm=1000, first_mm=3.0, turned_mm=1.0)
    level = Instrument(id="level", name="Level", kind="level", sigma_mm=0.05, checks=(flip,))
    readings = [
        Slope(
            id=f"s{h}",
            instrument="level",
            taken_at=WHEN + timedelta(hours=h),
            surface="floor",
            start=(500.0, 300.0),
            end=(1500.0, 300.0),
            value=2.0,
        )
        for h in (0, 2)
    ]
    place = job_of(*readings).places[0]
    found = survey_of(Job(name="", instruments=(level,), places=(place,)), place.id)
    ends = found.adjustment.mean(("floor", np.array([[500.0, 300.0], [1500.0, 300.0]])))
    assert ends[1] - ends[0] == pytest.approx(1.0, abs=0.15), "the flip found 1 mm/m, which comes off the later reading"
    before, _ = found.adjustment.unknown("bias:level")
    assert before == pytest.approx(1.0, abs=0.15), "and so tells of the earlier one as well"
