"""Every kind of reading by a number worked out by hand, and by a survey that gives its truth back."""

from __future__ import annotations

import math
from dataclasses import replace as replace_fields

import numpy as np
import pytest
from bench.five import SURFACES, diagonal, five, measured, place_of_five, true_angle_deg
from bench.next_best import races
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, LOST_LINE, RULE, WHEN, floor_at, grid, job_of, offset
from wobble.core.errors import SurveyError
from wobble.core.gauge.adjust import adjust
from wobble.core.gauge.observe import square_defect
from wobble.core.gauge.stations import stations
from wobble.core.gauge.surveyed import surveyed
from wobble.core.gauge.traits import traits
from wobble.core.job import (
    READING_KINDS,
    Corner,
    Gap,
    Instrument,
    Job,
    Offset,
    Profile,
    Reading,
    Scan,
    SetUp,
    Slope,
    Span,
    with_facts,
)
from wobble.core.practice.narrowboat import narrowboat_galley, side_mm
from wobble.core.practice.rooms import made_up_room
from wobble.core.practice.vestry import TRUTHS, vestry_press
from wobble.core.stages import solve_fit, survey_of

COMMON = {"instrument": EXACT.id, "taken_at": WHEN}


def gap(id_: str, start, end, at, value: float) -> Gap:
    return Gap(id=id_, surface="floor", start=start, end=end, at=at, value_mm=value, **COMMON)  # type: ignore[arg-type]


def corner(**more: object) -> Corner:
    plain = {"id": "c", "corner": "back-left", "height_mm": 900.0, "along_mm": 600.0, "out_mm": 600.0}
    return Corner(**(plain | COMMON | more))  # type: ignore[arg-type]


def test_a_gap_under_a_straightedge_is_the_hollow():
    """A straightedge from 0 to 3 stands at 1 after a third of its length; a gap of 4 there: the floor is at −3."""
    ends = floor_at([(0, 300), (3000, 300)], lambda x, y: 3.0 * x / 3000)
    job = job_of(*ends, gap("g", (0, 300), (3000, 300), (1000, 300), 4.0))
    found = survey_of(job, job.places[0].id).adjustment.mean(("floor", np.array([[1000.0, 300.0]])))
    assert found[0] == pytest.approx(1.0 - 4.0, abs=0.05)


def test_a_gap_on_a_ceiling_opens_upwards():
    top = SetUp(id="top", name="Line under the ceiling", across="z", at_mm=2000.0)
    ends = [
        Offset(id=f"c{x}", surface="ceiling", at=(x, 300.0), set_up="top", value_mm=400.0, **COMMON)  # type: ignore[arg-type]
        for x in (0.0, 2000.0)
    ]
    under = replace(gap("g", (0, 300), (2000, 300), (1000, 300), 5.0), surface="ceiling")
    job = job_of(*ends, under, surfaces=("floor", "ceiling"), set_ups=(LINE, top))
    found = survey_of(job, job.places[0].id).adjustment.mean(("ceiling", np.array([[1000.0, 300.0]])))
    assert found[0] == pytest.approx(2405.0, abs=0.05)


@pytest.mark.parametrize(
    ("reading", "degrees"),
    [
        (corner(along_mm=600.0, out_mm=800.0, value_mm=1000.0), 90.0),
        # 600 and 800 with 1010: cos θ = (360000 + 640000 − 1020100) / 960000 = −0.0209375
        (corner(along_mm=600.0, out_mm=800.0, value_mm=1010.0), 91.1997),
        (corner(along_mm=300.0, out_mm=400.0, value_mm=490.0), 92.3648 - 4.6818),  # cos θ = 9900/240000
        (corner(how="square", out_mm=400.0, value_mm=3.5), 90.5013),  # atan(3.5/400) = 0.5013°
        (corner(how="square", out_mm=400.0, value_mm=-3.5), 89.4987),
    ],
)
def test_corner_angles_by_the_law_of_cosines_and_by_the_square(reading, degrees):
    lacks, _ = square_defect(reading, 1.0)
    assert 90 - math.degrees(lacks) == pytest.approx(degrees, abs=0.05)


def test_the_uncertainty_of_a_diagonal_is_what_repeating_it_scatters_by():
    rng = np.random.default_rng(5)
    true = np.array([700.0, 560.0, math.hypot(700, 560) + 4])
    read = true + rng.normal(0, 1.0, (20_000, 3))
    scatter = np.std([math.asin((a * a + b * b - c * c) / (2 * a * b)) for a, b, c in read])
    _, sigma = square_defect(corner(along_mm=true[0], out_mm=true[1], value_mm=true[2]), 1.0)
    assert sigma == pytest.approx(scatter, rel=0.02)


def test_no_corner_has_a_diagonal_longer_than_both_legs():
    with pytest.raises(SurveyError):
        square_defect(corner(value_mm=1300.0), 1.0)


def test_a_corner_reading_turns_the_side_wall():
    """A back along x and a corner 2° too wide: over 500 out the left wall goes 500·tan 2° = 17.5 away from the room."""
    back = [
        replace(offset(f"b{x}", "back", (x, 900.0), 500.0), set_up="plumb") for x in (0.0, 300.0, 600.0, 1500.0, 3000.0)
    ]
    wide = corner(how="square", along_mm=600.0, out_mm=500.0, value_mm=500.0 * math.tan(math.radians(2)))
    job = job_of(*back, wide, surfaces=("floor", "back", "left", "right"))
    joint = survey_of(job, job.places[0].id).adjustment.at(("left", np.array([[0.0, 900.0], [500.0, 900.0]])))
    assert joint.mean[1] - joint.mean[0] == pytest.approx(-17.46, abs=0.6)
    mirrored = replace(wide, corner="back-right")
    job = job_of(*back, mirrored, surfaces=("floor", "back", "left", "right"))
    joint = survey_of(job, job.places[0].id).adjustment.at(("right", np.array([[0.0, 900.0], [500.0, 900.0]])))
    assert joint.mean[1] - joint.mean[0] == pytest.approx(17.46, abs=0.6)


def flip_tested(bias: float, true_slope: float, seed: int, n_pairs: int = 2) -> Job:
    level = Instrument(id="level", name="Level, 600", kind="level", sigma_mm=0.1)
    rng = np.random.default_rng(seed)
    readings: list[Reading] = []
    for i in range(n_pairs):
        for turned in (False, True):
            shown = true_slope + (-bias if turned else bias)
            rise = shown * 0.6 + rng.normal(0, 0.1)
            readings.append(
                Slope(
                    id=f"l{i}{turned}",
                    instrument="level",
                    taken_at=WHEN,
                    surface="floor",
                    start=(300.0 + 500 * i, 300.0),
                    end=(900.0 + 500 * i, 300.0),
                    value=rise,
                    turned=turned,
                )
            )
    job = job_of(*readings)
    return replace(job, instruments=(*job.instruments, level))


@settings(max_examples=25)
@given(st.floats(-2, 2), st.floats(-8, 8), st.integers(0, 1000))
def test_a_flip_test_finds_the_bias_of_a_level(bias, slope, seed):
    job = flip_tested(bias, slope, seed, n_pairs=3)
    found, sd = survey_of(job, job.places[0].id).adjustment.unknown("bias:level")
    assert sd < 0.2
    assert abs(found - bias) < max(0.2, 5 * sd)


def test_a_bias_of_one_is_found_to_a_fifth_and_taken_off_later_readings():
    job = flip_tested(1.0, 2.0, seed=3, n_pairs=4)
    later = Slope(
        id="later",
        instrument="level",
        taken_at=WHEN,
        surface="floor",
        start=(2000.0, 500.0),
        end=(2600.0, 500.0),
        value=1.8,
    )
    job = replace(job, places=(with_facts(job.places[0], READING_KINDS, (*job.places[0].readings, later)),))
    found = survey_of(job, job.places[0].id).adjustment
    bias, _ = found.unknown("bias:level")
    assert bias == pytest.approx(1.0, abs=0.2)
    (told,) = surveyed(survey_of(job, job.places[0].id), job.places[0]).biases
    assert told.instrument == "level"
    assert told.mm_per_m == pytest.approx(bias)
    joint = found.at(("floor", np.array([[2000.0, 500.0], [2600.0, 500.0]])))
    # 1.8 read over 600 with a bias of 1 in 1000: 1.2 in truth
    assert joint.mean[1] - joint.mean[0] == pytest.approx(1.2, abs=0.2)


def test_a_level_that_was_never_turned_is_trusted_less():
    plain = flip_tested(0.0, 2.0, seed=1, n_pairs=1)
    once = replace(plain, places=(with_facts(plain.places[0], READING_KINDS, plain.places[0].readings[:1]),))

    def sd(job):
        joint = (
            survey_of(job, job.places[0].id)
            .adjustment.at(("floor", np.array([[300.0, 300.0], [900.0, 300.0]])))
            .covariance
        )
        return math.sqrt(joint[0, 0] + joint[1, 1] - 2 * joint[0, 1])

    assert sd(once) > 3 * sd(plain)
    assert sd(once) == pytest.approx(math.hypot(0.1, 0.8 * 0.6), rel=0.05), "0.8 mm per m over 600, and the reading"


def test_a_profile_of_a_curved_side_is_one_stick_of_unknown_place():
    """A boat's side: out by 40·(z/600)² towards its foot; read from a stick that stands anywhere."""

    def side(z):
        return 90.0 - 40.0 * (z / 600.0) ** 2

    stick = SetUp(id="stick", name="Stick", across="y")
    readings = [
        Profile(
            id=f"p{x:.0f}",
            surface="back",
            along_mm=x,
            set_up="stick",
            points=tuple((z, 640.0 - side(z)) for z in np.arange(50.0, 1151.0, 100.0)),
            instrument=RULE.id,
            taken_at=WHEN,
        )
        for x in (300.0, 1500.0, 2700.0)
    ]
    job = job_of(*readings, frame="body", set_ups=(LINE, stick), surfaces=("floor", "back"))
    found = survey_of(job, job.places[0].id)
    assert not found.suspects
    heights = np.array([(900.0, z) for z in (100.0, 420.0, 760.0, 1100.0)])
    mean = found.adjustment.mean(("back", heights))
    true = np.array([side(z) for _, z in heights])
    assert mean - mean[0] == pytest.approx(true - true[0], abs=1.0)


def test_a_scan_is_many_offsets_and_a_few_bad_points_do_not_damn_it():
    rng = np.random.default_rng(2)
    spots = rng.uniform((0, 0), (3000, 600), (60, 2))
    down = 1000.0 + 4.0 * spots[:, 0] / 1000 + rng.normal(0, 0.5, 60)
    down[7] -= 60.0  # a foot in the picture
    points = tuple((float(x), float(y), float(d)) for (x, y), d in zip(spots, down, strict=True))
    scan = Scan(id="s", surface="floor", set_up="line", points=points, n_read=9000, instrument=RULE.id, taken_at=WHEN)
    job = job_of(scan)
    found = survey_of(job, job.places[0].id)
    assert len(found.disagreements) == 1
    assert not found.suspects
    assert len(found.adjustment.observations) == 59
    assert found.adjustment.mean(("floor", np.array([[1500.0, 300.0]])))[0] == pytest.approx(-6.0, abs=0.6)


def test_a_knocked_line_counts_as_two():
    """A laser kicked down by 7 after the first row: what is read since is corrected, and nothing is accused."""
    spots = grid(3000, 600, 8, 3)
    truth = lambda x, y: -0.002 * x + 0.003 * y  # noqa: E731
    before = floor_at(spots[:8], truth, instrument=RULE)
    after = floor_at(spots[8:], truth, line_at=993.0, instrument=RULE, prefix="g")
    in_order = [replace(r, taken_at=WHEN.replace(minute=i)) for i, r in enumerate((*before, *after))]
    again = [
        replace(
            offset(f"again{i}", "floor", spots[i], 993.0 - truth(*spots[i]), instrument=RULE),
            taken_at=WHEN.replace(minute=50 + i),
        )
        for i in (0, 4, 7)
    ]
    job = job_of(*in_order, *again)
    found = survey_of(job, job.places[0].id)
    assert found.knock is not None
    assert (found.knock.set_up, found.knock.since) == ("line", "g0")
    assert found.knock.by_mm == pytest.approx(-7.0, abs=3 * found.knock.sd_mm)
    assert not found.suspects
    assert found.adjustment.mean(("floor", np.array([[1500.0, 600.0]])))[0] == pytest.approx(truth(1500, 600), abs=0.8)


@pytest.mark.parametrize(
    ("at", "wrong", "cause"),
    [
        ((1500.0, 300.0), lambda d: d + 10.0, "a slip of one centimetre"),
        ((1500.0, 300.0), lambda d: d - 25.4, "a slip of one inch"),
        ((1500.0, 300.0), lambda d: 1100.5, "two digits swapped"),  # 1010.5 in truth
        ((1500.0, 300.0), lambda d: -d, "a reading from the wrong side of its line"),
        ((500.0, 0.0), lambda d: 1000.0 + 0.007 * 2500, "left and right swapped"),
        ((1500.0, 300.0), lambda d: d + 16.0, ""),
    ],
)
def test_likely_causes(at, wrong, cause):
    readings = {r.at: r for r in floor_at(grid(3000, 600, 13, 3), lambda x, y: -0.007 * x, instrument=RULE)}
    spoilt = readings[at]
    readings[at] = replace(spoilt, value_mm=wrong(spoilt.value_mm))
    job = job_of(*readings.values())
    found = survey_of(job, job.places[0].id)
    (suspect,) = found.suspects
    assert suspect.reading_id == spoilt.id
    assert found.cause(suspect) == cause


def test_a_place_is_described_by_what_was_put_into_it():
    """A floor that falls 4 in 1000 and bows up 6; a left wall 1° off square; 2990 to 3010 between the sides."""
    spots = grid(3000, 600, 9, 3)
    floor = floor_at(spots, lambda x, y: -0.004 * x + 6 * (1 - ((x - 1500) / 1500) ** 2))
    back = [
        replace(offset(f"b{x}{z}", "back", (x, z), 500.0), set_up="plumb")
        for x in (0.0, 300.0, 600.0, 1500.0, 3000.0)
        for z in (100.0, 1200.0, 2300.0)
    ]
    turn = math.tan(math.radians(1))
    plane = SetUp(id="side", name="Plane", across="x", at_mm=1000.0)
    left = [
        replace(offset(f"l{y}{z}", "left", (y, z), 1000.0 + turn * y), set_up="side")
        for y in (0.0, 300.0, 600.0)
        for z in (100.0, 1200.0, 2300.0)
    ]
    widths = [
        Span(id=f"w{y}{z}", between="left-right", at=(y, z), value_mm=3000.0 + z / 120 - 10 + turn * y, **COMMON)  # type: ignore[arg-type]
        for y in (0.0, 300.0, 600.0)
        for z in (0.0, 1200.0, 2400.0)
    ]
    job = job_of(
        *floor,
        *back,
        *left,
        *widths,
        surfaces=("floor", "back", "left", "right"),
        set_ups=(LINE, LOST_LINE, job_of().places[0].set_ups[2], plane),
    )
    by = {(t.surface, t.kind, t.along): t for t in traits(survey_of(job, job.places[0].id))}
    assert by["floor", "tilt", "x"].value == pytest.approx(-4.0, abs=0.1)
    assert by["floor", "bow", "x"].value == pytest.approx(6.0, abs=0.3)
    assert by["floor", "wobble", None].value == pytest.approx(6.0, abs=0.9)
    assert by["left", "angle", None].value == pytest.approx(91.0, abs=0.1)
    narrowest = by["right", "narrowest", None]
    assert narrowest.value == pytest.approx(2990.0, abs=1.0)
    assert narrowest.at is not None
    assert narrowest.at[1] < 200
    assert all(t.sd >= 0 for t in by.values())


def test_stations_of_five_surfaces_are_those_of_the_round():
    counts: dict[str, int] = {}
    for station in stations(place_of_five()):
        counts[station.surface] = counts.get(station.surface, 0) + 1
        assert station.takes == ("span" if station.surface == "ceiling" else "offset")
    assert counts == {"floor": 24, "back": 24, "left": 9, "right": 9, "ceiling": 4}


def test_five_surfaces_meet_what_the_bench_promises():
    """Forty rooms of the bench: errors, honest intervals, misreads, angles."""
    found = five(40)
    assert found.rms_mm("floor") < 0.8
    assert found.rms_mm("back") < 0.8
    assert max(found.rms_mm("left"), found.rms_mm("right")) < 1.1
    assert found.rms_mm("ceiling") < 1.6
    assert 0.93 <= found.coverage <= 0.99
    assert found.share_found("floor") >= 0.95
    assert found.share_found("any") >= 0.8
    assert found.accused <= 2
    assert found.angle_rms_deg < 0.15


def test_chosen_stations_need_a_quarter_fewer_readings_than_a_grid():
    for race in races(6):
        assert race.saved >= 0.25


def test_true_angles_are_those_of_the_law_of_cosines():
    """The bench's truth by vectors, against a diagonal computed from points."""
    room = made_up_room(5)
    back, left = room.surfaces["back"], room.surfaces["left"]
    a = np.array([600.0, back.at(np.array([[600.0, 900.0]]))[0] - back.at(np.array([[0.0, 900.0]]))[0]])
    b = np.array([left.at(np.array([[600.0, 900.0]]))[0] - left.at(np.array([[0.0, 900.0]]))[0], 600.0])
    c = float(np.linalg.norm(a - b))
    reading = diagonal("c", "back-left", 900.0, (float(np.linalg.norm(a)), float(np.linalg.norm(b))), c)
    lacks, _ = square_defect(reading, 1.0)
    assert 90 - math.degrees(lacks) == pytest.approx(true_angle_deg(room, "back-left", 900.0, 600.0, 600.0), abs=1e-6)


def test_a_whole_survey_gives_its_room_back_within_its_uncertainty():
    """Property over rooms: of all spots on all surfaces, 90 to 100 of 100 lie within two standard deviations."""
    hits = []
    for seed in range(6):
        room = made_up_room(700 + seed)
        job = measured(room, place_of_five(), seed)
        found = survey_of(job, job.places[0].id)
        for surface in SURFACES:
            at = np.asarray([s.at for s in stations(job.places[0]) if s.surface == surface])
            mean, sd = found.adjustment.mean_and_sd((surface, at))
            hits.append(np.abs(mean - room.surfaces[surface].at(at)) <= 2 * sd)
    assert 0.9 <= np.concatenate(hits).mean() <= 1.0


def test_the_vestry_is_narrowest_at_its_front_corners():
    """The demo's truth: the sides lean in by 0.016 and 0.012 a mm, so the front is some 18 narrower than the back."""
    job = vestry_press()
    found = survey_of(job, job.places[0].id)
    (suspect,) = found.suspects
    assert found.cause(suspect) == "two digits swapped"
    by = {t.kind: t for t in traits(found) if t.kind in ("narrowest", "widest")}
    spots = np.array([(y, z) for y in np.linspace(0, 640, 33) for z in np.linspace(0, 2460, 60)])
    widths = TRUTHS["right"].at(spots) - TRUTHS["left"].at(spots)
    assert by["narrowest"].value == pytest.approx(widths.min(), abs=3 * by["narrowest"].sd)
    assert by["narrowest"].at is not None
    assert by["narrowest"].at[0] > 500
    assert by["widest"].value == pytest.approx(widths.max(), abs=3 * by["widest"].sd)


def test_the_galleys_side_is_packed_to_its_curve():
    """The boat's side as made up, against the packing behind every fixing: the stick's own place drops out."""
    job = narrowboat_galley()
    plan = solve_fit(job, "galley").plan
    assert plan is not None
    side = side_mm(np.array([p.at for p in plan.packings]))
    gaps = np.array([p.gap.value_mm for p in plan.packings])
    assert np.ptp(gaps + side) < 3.0, "gap and wall add up to one line"


def test_every_trait_tells_its_working_and_moves_with_the_readings_that_it_names():
    """Move what a named reading says by a hair and adjust again: the figure moves by the weight that it states."""
    job = vestry_press()
    found = survey_of(job, job.places[0].id)
    before = {(t.surface, t.kind, t.along): t for t in traits(found)}
    assert all(t.working and t.rests_on for t in before.values())
    whole, hair = found.adjustment, 0.01
    for key in (("floor", "tilt", "x"), ("back", "bow", "z"), ("left", "angle", None)):
        share = before[key].rests_on[0]
        said = [
            replace_fields(o, value_mm=o.value_mm + hair * (o.reading_id == share.reading)) for o in whole.observations
        ]
        again = replace_fields(found, adjustment=adjust(said, whole.priors, whole.unknowns))
        after = {(t.surface, t.kind, t.along): t for t in traits(again)}
        assert (after[key].value - before[key].value) / hair == pytest.approx(share.weight, rel=1e-6)
