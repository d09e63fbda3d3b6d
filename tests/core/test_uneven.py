"""Surfaces that step, lines that were knocked or lean: what is told of them, and whether the figures hold."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

import numpy as np
import pytest
from bench.uneven import leaning, proposed_rounds, steps
from msgspec.structs import replace

from tests.catalogue import EXACT, LINE, PLUMB, RULE, WHEN, job_of, offset
from wobble.core.gauge.adjust import adjust
from wobble.core.gauge.checks import lean_sd
from wobble.core.gauge.doubts.doubt import FALSE_ALARM, limit_z
from wobble.core.gauge.edges import Edge
from wobble.core.gauge.observe import observations, unknowns
from wobble.core.gauge.prior import surface_prior
from wobble.core.gauge.survey import Survey
from wobble.core.gauge.surveyed import surveyed
from wobble.core.job import FlipCheck, Instrument, Offset, SetUp, Slope, SurfaceName, WallStep
from wobble.core.stages import survey_of

COLUMNS = (100.0, 500.0, 900.0, 1300.0, 1700.0, 2100.0, 2500.0, 2900.0)
ROWS = (100.0, 1000.0, 2000.0)
PLANES: dict[SurfaceName, SetUp] = {"back": PLUMB, "left": SetUp(id="side", name="Side", across="x", at_mm=500.0)}


def wall(beyond_mm: float, by_mm: float, *, order: str = "columns") -> tuple[Offset, ...]:
    """Return a plumb wall that stands `by_mm` nearer from a place on, read one reading a minute."""
    spots = [(x, z) for x in COLUMNS for z in ROWS] if order == "columns" else [(x, z) for z in ROWS for x in COLUMNS]
    return tuple(
        replace(
            offset(f"w{i}", "back", at, 500.0 - by_mm * (at[0] > beyond_mm), instrument=RULE),
            set_up=PLUMB.id,
            taken_at=WHEN + timedelta(minutes=i),
        )
        for i, at in enumerate(spots)
    )


def found(*readings: Offset | Slope, **place: object) -> Survey:
    job = job_of(*readings, **{"set_ups": (LINE, *PLANES.values()), **place})  # type: ignore[arg-type]
    return survey_of(job, job.places[0].id)


def at(survey: Survey, x: float, z: float = 800.0) -> tuple[float, float]:
    """Return how far the wall stands out there, and twice its standard deviation, mm."""
    mean, sd = survey.adjustment.mean_and_sd(("back", np.array([[x, z]])))
    return float(mean[0]), 2 * float(sd[0])


def test_a_step_that_nobody_declared_is_seen_between_the_readings_that_show_it():
    seen = found(*wall(1100.0, 20.0, order="rows"))
    (edge,) = seen.edges
    assert (edge.surface, edge.axis) == ("back", 0)
    assert edge.between("low") == pytest.approx((900.0, 1300.0))
    assert edge.by_mm == pytest.approx(20.0, abs=2.0)
    assert seen.knock is None
    assert not seen.suspects
    for x, true in ((600.0, 0.0), (1700.0, 20.0), (2500.0, 20.0)):
        mean, margin = at(seen, x)
        assert abs(mean - true) < max(margin, 0.5)
    middle, margin = at(seen, 1100.0)
    assert margin > 9.0, "between the readings nobody knows on which side a spot lies"
    assert abs(middle - 10.0) < 1.0


def test_what_is_read_column_by_column_may_be_a_step_or_a_knock_and_one_more_reading_decides():
    """Time and place are one: both are carried, the figures say that they know it no better, nothing is accused."""
    read = wall(1100.0, 20.0)
    both = found(*read)
    assert both.rivals is not None
    assert (both.knock, both.edges, both.suspects) == (None, (), ())
    assert both.rivals.again == "w0"
    far, margin = at(both, 2500.0)
    assert abs(far - 20.0) < margin, "true or not, the truth lies inside"
    assert abs(far - 0.0) < margin
    again = replace(read[0], id="again", taken_at=WHEN + timedelta(hours=1))
    stepped = found(*read, again)
    assert stepped.rivals is None
    assert [e.by_mm for e in stepped.edges] == pytest.approx([20.0], abs=2.0)
    knocked = found(*read, replace(again, value_mm=again.value_mm - 20.0))
    assert knocked.rivals is None
    assert knocked.knock is not None
    assert knocked.knock.since == "w9"
    assert at(knocked, 2500.0)[0] == pytest.approx(0.0, abs=1.5)


@pytest.mark.parametrize("backwards", [False, True])
def test_a_knock_between_two_rows_of_a_floor_is_never_told_from_a_step_between_them(backwards):
    """Three rows, too few to propose a step by themselves: 20 lower from the second on, or the line went up by 20.

    A ceiling read before, from the line as it stood then, does not tell.
    """
    rows = [(x, y) for y in (60.0, 300.0, 540.0) for x in COLUMNS]
    read = [
        replace(offset(f"f{i}", "floor", at, 1000.0 + 20.0 * (i >= 8)), taken_at=WHEN + timedelta(minutes=i))
        for i, at in enumerate(reversed(rows) if backwards else rows)
    ]
    over = [offset(f"c{x}", "ceiling", (x, 300.0), 1400.0) for x in COLUMNS] if backwards else []
    seen = found(*over, *read, surfaces=("floor", "ceiling"))
    assert (seen.knock, seen.edges, seen.suspects) == (None, (), ())
    assert seen.rivals is not None
    assert seen.rivals.edge.axis == 1
    assert seen.rivals.edge.between("low") == pytest.approx((300.0, 540.0) if backwards else (60.0, 300.0))
    assert seen.rivals.edge.by_mm == pytest.approx(20.0 if backwards else -20.0, abs=3.0)
    assert seen.rivals.again == "f0"
    told = surveyed(
        seen, job_of(*over, *read, surfaces=("floor", "ceiling"), set_ups=(LINE, *PLANES.values())).places[0]
    )
    assert told.next_reading is None, "no other reading decides"
    again = replace(read[0], id="again", value_mm=read[0].value_mm + 20.0, taken_at=WHEN + timedelta(hours=1))
    decided = found(*read, again)
    assert decided.knock is not None
    assert decided.rivals is None


def test_a_declared_edge_is_nobodys_fault():
    """Each side is as it was read, by how much it steps is found, and its place is as uncertain as it was said."""
    step = WallStep(id="e", name="Breast", from_mm=1100.0, to_mm=2300.0, by_mm=0.0, sigma_mm=50.0, at_sigma_mm=10.0)
    read = [r for r in wall(1100.0, 25.0) if r.at[0] < 2300.0]
    read += [r for r in wall(9000.0, 0.0) if r.at[0] > 2300.0]
    seen = found(*read, steps=(step,))
    assert (seen.edges, seen.rivals, seen.knock, seen.suspects) == ((), None, None, ())
    for x, true in ((700.0, 0.0), (1700.0, 25.0), (2700.0, 0.0)):
        assert at(seen, x)[0] == pytest.approx(true, abs=0.6)
    assert at(seen, 1100.0)[1] > 12.0 > 8.0 > at(seen, 1150.0)[1]


def built_up(at_mm: float, *corners: float) -> float:
    """Return 5 mm of filler that feathers out over the last 100 before an outer corner."""
    return 5.0 * max(0.0, 1.0 - min(abs(at_mm - c) for c in corners) / 100.0)


@pytest.mark.parametrize("said", [True, False])
def test_filler_at_outer_corners_is_no_misread(said):
    """A breast of 25 with filler at both corners, read close to them on both sides, whether its edges were told."""
    step = WallStep(id="e", name="Breast", from_mm=1100.0, to_mm=2300.0, by_mm=0.0, sigma_mm=50.0, at_sigma_mm=3.0)
    xs = (100.0, 500.0, 900.0, 1050.0, 1130.0, 1160.0, 1250.0, 1700.0, 2150.0, 2240.0, 2270.0, 2350.0, 2700.0, 2950.0)
    out = [25.0 + built_up(x, 1100.0, 2300.0) if 1100 < x < 2300 else 0.0 for x in xs]
    seen = found(*_read("back", xs, out), steps=(step,) if said else ())
    assert (seen.suspects, seen.knock, seen.rivals) == ((), None, None)
    for x in (1150.0, 1700.0, 2250.0):
        mean, margin = at(seen, x)
        assert abs(mean - 25.0 - built_up(x, 1100.0, 2300.0)) < margin


def test_filler_where_a_side_wall_ends_is_no_misread():
    depths = (60.0, 300.0, 450.0, 540.0, 590.0)
    seen = found(*_read("left", depths, [built_up(y, 620.0) for y in depths]), surfaces=("left",), depth=620.0)
    assert (seen.suspects, seen.edges, seen.knock) == ((), (), None)


def _read(surface: SurfaceName, places: Sequence[float], out: Sequence[float]) -> list[Offset]:
    """Return readings of a wall by a rule, at three heights, where it stands out so far at each place."""
    rng = np.random.default_rng(8)
    spots = [(a, z, o) for a, o in zip(places, out, strict=True) for z in ROWS]
    return [
        replace(
            offset(f"w{i}", surface, (a, z), 500.0 - o + rng.normal(0, 0.5), instrument=RULE, line=PLANES[surface]),
            taken_at=WHEN + timedelta(minutes=i),
        )
        for i, (a, z, o) in enumerate(spots)
    ]


def test_where_an_edge_lies_is_as_uncertain_as_draws_of_it_say():
    """Brute force: throw the edge's place, and take the covariance of what spots near it stand out."""
    edge = Edge(((0.0, 3000.0), (0.0, 2400.0)), 0, (1000.0, 40.0), (9000.0, 0.0), 20.0, 0.0)
    spots = np.array([(x, 500.0) for x in (900.0, 960.0, 1000.0, 1030.0, 1100.0)])
    half = np.sqrt(3.0) * 40.0
    places = np.random.default_rng(2).uniform(1000.0 - half, 1000.0 + half, 200_000)
    thrown = 20.0 * (spots[:, 0][None, :] >= places[:, None])
    assert 4 * edge.placed(spots, spots) == pytest.approx(np.cov(thrown.T), abs=1.0)
    middle = 2 * np.sqrt(edge.placed_variance(spots[2:3])[0])
    assert middle == pytest.approx(10.0), "both sides lie two deviations off the middle, no draw far beyond them"
    assert edge.placed_variance(spots) == pytest.approx(np.diag(edge.placed(spots, spots)))
    assert 20.0 * edge.beyond(spots) == pytest.approx(thrown.mean(axis=0), abs=0.1)
    shared = edge.shared(spots, spots)
    assert np.linalg.eigvalsh(shared).min() > -1e-12
    assert np.diag(shared) == pytest.approx(edge.shared_with_itself(spots))


def test_made_up_walls_that_step_keep_their_promise():
    """Of walls kept apart: declared costs a fifth at most, not declared is proposed, a knock is claimed of none."""
    out = steps(16, 20.0, "back", "column by column", rough=False)
    assert out["declared"].rms_mm < 1.2 * out["smooth"].rms_mm
    assert out["declared"].coverage > 0.93
    assert out["not declared"].coverage > 0.93
    assert out["not declared"].share("proposed") >= 0.9
    assert out["not declared"].share("knocked") <= 0.02
    assert out["not declared"].accused == 0
    assert out["smooth"].proposed == 0


def test_a_floor_read_where_wobble_proposes_is_known_as_well_with_an_edge_as_without():
    """Kept apart: a declared edge costs a fifth at most, as each side is read as a floor of its own."""
    edged, smooth = proposed_rounds(16)
    assert edged.rms_mm < 1.2 * smooth.rms_mm
    assert edged.coverage > 0.93
    assert edged.accused == 0


def test_a_line_that_leans_is_found_by_a_level_and_the_level_is_not_blamed():
    """Kept apart, 1 mm per metre: the floor is right within its interval, and the line is named in four of five."""
    out = leaning(15, 1.0, tied=True)
    assert out.steps.coverage > 0.93
    assert out.found >= 0.8 * 15
    assert out.blamed == 0
    straight = leaning(10, 0.0, tied=True)
    assert straight.found == 0
    assert straight.steps.coverage > 0.93


def test_a_laser_is_taken_for_as_true_as_its_turn_round_says():
    """10 m off, the line moved by 6 mm: 0.3 mm per m, as makers state; unchecked it may have been dropped."""
    laser = Instrument(id="l", name="Laser", kind="laser line", sigma_mm=0.5)
    assert lean_sd(None) == lean_sd(laser) == 0.4
    turned = replace(laser, checks=(FlipCheck(at=WHEN, length_mm=10_000.0, first_mm=16.0, turned_mm=4.0),))
    assert lean_sd(turned) == pytest.approx(np.hypot(0.6, 0.5 / np.sqrt(2) / 10.0))
    assert lean_sd(EXACT) == 0.0


def test_an_untied_line_leaves_the_floor_uncertain_by_what_it_may_lean():
    """From end to end of 2.8 m a plain laser's 0.4 mm per m are 1.12, beside what the rule leaves."""
    read = [
        replace(offset(f"f{x}{y}", "floor", (x, y), 1000.0), set_up="line")
        for x in COLUMNS
        for y in (50.0, 300.0, 550.0)
    ]
    sds = []
    for made_with in ("", EXACT.id):
        seen = found(*read, set_ups=(replace(LINE, made_with=made_with),), surfaces=("floor",))
        ends = np.array([(100.0, 300.0), (2900.0, 300.0)])
        joint = seen.adjustment.at(("floor", ends)).covariance
        sds.append(np.sqrt(joint[0, 0] + joint[1, 1] - 2 * joint[0, 1]))
    assert np.sqrt(sds[0] ** 2 - sds[1] ** 2) == pytest.approx(0.4 * 2.8, rel=0.02)


def test_the_limit_of_a_survey_is_past_in_as_many_surveys_as_it_says():
    """Draw whole surveys from the model and count those with any ratio past the limit, each against the others."""
    read = wall(9000.0, 0.0)
    place = job_of(*read).places[0]
    observed = observations(place, place.readings, {RULE.id: RULE, EXACT.id: EXACT})
    others = unknowns(place, place.readings, (RULE, EXACT))
    whole = adjust(observed, {s: surface_prior(place, s) for s in place.surfaces}, others)
    limit = limit_z(whole)
    inverse = np.linalg.inv(whole.covariance)
    draws = np.random.default_rng(11).multivariate_normal(np.zeros(len(observed)), whole.covariance, 4000)
    ratios = np.abs(draws @ inverse) / np.sqrt(np.diag(inverse))
    assert (ratios.max(axis=1) > limit).mean() == pytest.approx(FALSE_ALARM, abs=0.015)


def test_a_reading_that_nothing_bears_out_is_named():
    """One lone height on the left of a wall that is read on the right: a slip of a centimetre there would not show."""
    bowed = [replace(r, value_mm=r.value_mm + 6 * np.sin(r.at[0] / 500)) for r in wall(9000.0, 0.0)]
    read = [r for r in bowed if r.at[0] > 1500.0]
    lone = replace(offset("lone", "back", (100.0, 1000.0), 500.0, instrument=RULE), set_up=PLUMB.id)
    seen = found(*read, lone)
    assert seen.unseen[0].reading_id == "lone"
    twice = found(*read, lone, replace(lone, id="twice", taken_at=WHEN + timedelta(hours=2)))
    assert "lone" not in [d.reading_id for d in twice.unseen]


def test_a_mirrored_step_is_seen_as_its_mirror_image():
    read = wall(1100.0, 20.0, order="rows")
    seen = found(*(replace(r, at=(3000.0 - r.at[0], r.at[1])) for r in read))
    (edge,) = seen.edges
    assert abs(edge.by_mm) == pytest.approx(abs(found(*read).edges[0].by_mm), abs=1.0)
    assert at(seen, 600.0)[0] == pytest.approx(20.0, abs=1.0)
    assert at(seen, 2500.0)[0] == pytest.approx(0.0, abs=1.0)


def test_a_ceiling_that_bends_is_no_flight_of_steps():
    """Flat, then falling 7 in 10 from the middle on, and nobody said that it has a knee: no step is made of it."""
    read = [
        replace(
            offset(f"c{x}{y}", "ceiling", (x, y), 1200.0 - 0.7 * max(0.0, x - 1500.0), instrument=RULE),
            taken_at=WHEN + timedelta(seconds=x + y),
        )
        for x in np.linspace(50.0, 2950.0, 9).tolist()
        for y in np.linspace(50.0, 550.0, 5).tolist()
    ]
    seen = found(*read, surfaces=("floor", "ceiling"))
    assert (seen.edges, seen.rivals, seen.knock, seen.suspects) == ((), None, None, ())
    assert seen.bends == ("ceiling",)
    place = job_of(*read, surfaces=("floor", "ceiling"), set_ups=(LINE, *PLANES.values())).places[0]
    assert surveyed(seen, place).bends == ("ceiling",)
    mean = seen.adjustment.mean(("ceiling", np.array([(800.0, 300.0), (2200.0, 300.0)])))
    assert mean == pytest.approx([2200.0, 1710.0], abs=6.0)
