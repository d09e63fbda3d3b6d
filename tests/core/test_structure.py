"""What lies behind a lining: leaning studs, double members, joists that run either way, and what contradicts what."""

from __future__ import annotations

import math
from datetime import UTC, datetime

import numpy as np
import pytest
from bench.walls import KINDS, Kind, Walls, walls
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Detection
from wobble.core.hold.services import kept_from, plates, too_deep
from wobble.core.hold.structure.joists import joists
from wobble.core.hold.structure.lines import structure
from wobble.core.hold.structure.members import LEAN_SD_MM_PER_M, SD_MM
from wobble.core.job import Obstacle, Place, WallOpening, with_facts
from wobble.core.job.backing import Backing, Runs

WHEN = datetime(2026, 3, 7, 9, 30, tzinfo=UTC)
EDGES = ((-22.5, "left edge"), (22.5, "right edge"))
PLACE = Place(id="b", name="B", width_mm=3000.0, depth_mm=600.0, height_mm=2400.0)


def seen(x: float, sees: str = "centre", found_by: str = "scanner", up: float = 1000.0) -> Detection:
    return Detection(
        id=f"{x:.1f}-{sees}-{up:.0f}-{found_by}",
        at=(x, up),
        found_by=found_by,  # type: ignore[arg-type]
        sees=sees,  # type: ignore[arg-type]
        taken_at=WHEN,
    )


def test_a_stud_seen_at_two_heights_leans_as_far_as_both_say():
    """Seen at 1000 and 1012, 2 m apart, twice each: weights 4/25 against a prior of 1/4: 6 · 0.16 / 0.41 = 2.34."""
    twice = tuple(seen(x + off, up=up) for x, up in ((1000.0, 200.0), (1012.0, 2200.0)) for off in (-0.5, 0.5))
    line = next(line for line in structure(twice, 3000.0, 45.0).lines if line.found_by)
    precision = 4 / SD_MM["scanner"] ** 2
    by_hand = 6.0 * precision / (precision + 1 / LEAN_SD_MM_PER_M**2)
    assert line.lean_mm_per_m == pytest.approx(by_hand, rel=0.02)
    assert line.up_mm == pytest.approx(1200.0)
    assert line.at(2200.0) - line.at(200.0) == pytest.approx(2 * by_hand, rel=0.02)


def test_far_above_where_a_stud_was_found_it_is_known_less():
    both = tuple(seen(x, sees) for x, sees in ((977.5, "left edge"), (1022.5, "right edge")))
    known = structure(both, 3000.0, 45.0)
    assert known.bites(1000.0, 1000.0) == pytest.approx(known.bites(1000.0), abs=0.02)
    assert known.bites(1000.0, 3500.0) < known.bites(1000.0, 1000.0) - 0.01


def test_two_edges_two_studs_apart_are_a_double_member_with_a_joint_between():
    """Edges at 1000 and 1090 of studs of 45: middles at 1022.5 and 1067.5, the joint at 1045."""
    known = structure((seen(1000.0, "left edge"), seen(1090.0, "right edge")), 3000.0, 45.0)
    doubles = [line for line in known.lines if line.double]
    assert [line.at_mm for line in doubles] == [1022.5, 1067.5]
    assert known.bites(1022.5) > 0.9
    assert known.bites(1067.5) > 0.9
    assert known.bites(1045.0) < 0.1


@pytest.fixture(scope="module")
def built() -> dict[Kind, Walls]:
    """Forty walls of each kind, kept apart from those looked at when the estimator was made."""
    return {kind: walls(40, 90_000, kind) for kind in KINDS}


def test_of_screws_said_to_bite_so_often_that_many_do(built):
    """Every bin of what was stated, over all kinds of walls, joints and lone detections among them."""
    bins = list(Walls(called=[c for of in built.values() for c in of.called]).bins())
    assert len(bins) == 6
    for said, came, n in bins:
        spread = 2 * math.sqrt(said * (1 - said) / n)
        assert came == pytest.approx(said, abs=0.05 + spread), (said, came, n)
    for kind, of in built.items():
        assert np.mean(of.sure()) >= 0.96, kind
        assert np.mean(of.n_called) >= 6, kind


def test_spacings_are_named_whatever_stands_beside_doors_and_corners(built):
    for kind, of in built.items():
        assert kind == "irregular" or np.mean(of.named) >= 0.95, kind


def test_nothing_is_said_to_bite_in_doorways_nor_in_joints(built):
    assert max(built["doorway declared"].in_hollow + built["window"].in_hollow) == 0.0
    assert np.mean(built["doorway"].in_hollow) < 0.3, "nobody told of it: the framing at its sides does"
    joints = [chance for of in built.values() for chance in of.at_joints]
    assert len(joints) > 200
    assert np.mean(np.array(joints) >= SURE_TO_BITE) < 0.01


WINDOW = WallOpening(id="w", name="North light", x_mm=1000.0, width_mm=800.0, height_mm=900.0, sill_mm=900.0)


def test_beside_a_window_there_is_framing_under_it_studs_and_in_it_nothing():
    """Framing begins 12 ± 12 beside it, 22.5 further is the first stud's middle: met in 0.9 · P(|z| < 14.5 / 12)."""
    studs = tuple(seen(x + off, sees) for x in (200.0, 2600.0) for off, sees in EDGES)
    under = tuple(seen(1400.0 + off, sees, up=500.0) for off, sees in EDGES)
    known = structure((*studs, *under), 3000.0, 45.0, openings=(WINDOW,))
    assert known.bites(1400.0, 500.0) > 0.9
    assert known.bites(1400.0, 1000.0) == 0.0
    assert known.bites(1400.0) == 0.0, "a line from floor to ceiling does not run through a window"
    blind = 0.9 * math.erf(14.5 / 12.0 / math.sqrt(2))
    assert known.bites(1000.0 - 12.0 - 22.5, 1000.0) == pytest.approx(blind, abs=0.02)
    assert known.bites(1800.0 + 12.0 + 22.5, 1000.0) == pytest.approx(blind, abs=0.02)
    place = replace(PLACE, openings=(WINDOW,))
    assert "North light" in kept_from(place, (1400.0, 1000.0), Backing())
    assert not kept_from(place, (1400.0, 500.0), Backing())


def test_a_stud_found_in_a_doorway_is_asked_about():
    door = replace(WINDOW, name="Way out", kind="door", sill_mm=0.0, height_mm=2050.0)
    inside = seen(1300.0)
    known = structure((seen(200.0), seen(600.0), inside), 3000.0, 45.0, openings=(door,))
    assert [c.detections for c in known.against] == [(inside.id,)]
    assert not [line for line in known.lines if door.x_mm < line.at_mm < door.right_mm]
    alone = structure((inside,), 3000.0, 45.0, openings=(door,))
    assert (alone.lines, len(alone.against)) == ((), 1)


def test_what_was_found_once_where_all_else_was_found_twice_is_doubted():
    """Five studs by both edges at 600: a centre that fits the spacing is one more, one that does not is none likely."""
    studs = tuple(seen(x + off, sees) for x in (200.0, 800.0, 1400.0, 2000.0, 2600.0) for off, sees in EDGES)
    fits, lone = (structure((*studs, seen(x)), 3800.0, 45.0) for x in (3200.0, 3000.0))
    assert fits.bites(3200.0) > 0.9
    assert lone.bites(3000.0) < 0.6
    both = (*(seen(3000.0 + off, sees) for off, sees in EDGES), seen(3000.0, "screw", "magnet"))
    assert structure((*studs, *both), 3800.0, 45.0).bites(3000.0) > 0.9


@given(st.sampled_from(["out", "along"]), st.integers(0, 50))
@settings(max_examples=20)
def test_which_way_joists_run_is_told_from_where_they_were_found(runs, seed):
    """Five joists at 400, found twice each at places anywhere along them."""
    rng = np.random.default_rng(seed)
    start = rng.uniform(0, 300)
    spots = [(start + 400.0 * k + rng.normal(0, 5), rng.uniform(0, 2000)) for k in range(4) for _ in range(2)]
    found = tuple(
        replace(seen(0.0), id=f"j{i}", surface="ceiling", at=(a, b) if runs == "out" else (b, a))
        for i, (a, b) in enumerate(spots)
    )
    known = joists(found, 2000.0, 2000.0, 45.0, "not known")
    assert known.runs == runs
    assert known.sure > 0.9
    assert len(known.lines.lines) >= 4
    other: Runs = "along" if runs == "out" else "out"
    against = joists(found, 2000.0, 2000.0, 45.0, other)
    assert (against.runs, against.against_what_was_said) == (runs, True), "what was found decides"
    assert not joists(found, 2000.0, 2000.0, 45.0, runs).against_what_was_said


def test_joists_that_nobody_looked_for_run_no_way():
    unknown, said = (joists((), 2000.0, 600.0, 45.0, s) for s in ("not known", "along"))
    assert (unknown.runs, unknown.sure) == ("not known", 0.0)
    assert (said.runs, said.lines.lines) == ("along", ())
    assert said.sure < 1.0, "somebody's word is no finding"


def test_contradictions_are_named():
    studs = tuple(
        seen(x + off, sees)
        for x in (200.0, 800.0, 1400.0, 2000.0)
        for off, sees in ((-22.5, "left edge"), (22.5, "right edge"))
    )
    miss, stray = seen(804.0, "miss", "trial hole"), seen(1100.0, "screw", "magnet")
    against = structure((*studs, miss, stray), 2600.0, 45.0).against
    assert {c.at_mm for c in against} >= {804.0}
    missed = next(c for c in against if c.at_mm == 804.0)
    assert miss.id in missed.detections
    assert len(missed.detections) == 3
    assert "scanner" in missed.text


def test_lath_and_plaster_is_seen_half_as_sharply():
    edges = (seen(977.5, "left edge"), seen(1022.5, "right edge"))
    sharp, soft = structure(edges, 3000.0, 45.0), structure(edges, 3000.0, 45.0, "lath and plaster")
    assert soft.bites(1000.0) < sharp.bites(1000.0)


def marked(kind: str, at: tuple[float, float], size: tuple[float, float] = (80.0, 80.0)) -> Place:
    mark = Obstacle(taken_at=WHEN, id="m", name="Thing", kind=kind, surface="back", at=at, size=size)  # type: ignore[arg-type]
    return with_facts(PLACE, (Obstacle,), (mark,))


@pytest.mark.parametrize(
    ("rule", "beside", "over"),
    [("all round", False, False), ("up and down", False, True), ("up, down and sideways", True, True)],
)
def test_the_lines_of_wires_follow_the_rule_of_the_region(rule, beside, over):
    """An outlet at 1000 to 1080 along, 300 to 380 up: a hole at its height far away, one over it, and one near it."""
    place, backing = marked("outlet", (1000.0, 300.0)), Backing(rule=rule)
    assert bool(kept_from(place, (2000.0, 340.0), backing)) == beside
    assert bool(kept_from(place, (1040.0, 1800.0), backing)) == over
    assert kept_from(place, (1100.0, 400.0), backing)
    assert not kept_from(place, (2000.0, 1800.0), backing)


def test_corners_ceilings_radiators_wires_and_what_was_met_keep_holes_away():
    strips = Backing(rule="also along corners and ceiling")
    assert "corner" in kept_from(PLACE, (140.0, 1000.0), strips)
    assert "corner" in kept_from(PLACE, (2860.0, 1000.0), strips)
    assert "ceiling" in kept_from(PLACE, (1500.0, 2260.0), strips)
    assert not kept_from(PLACE, (160.0, 2240.0), strips)
    warm = marked("radiator", (1000.0, 200.0), (800.0, 500.0))
    assert "pipes" in kept_from(warm, (1400.0, 60.0), Backing())
    assert not kept_from(warm, (1400.0, 800.0), Backing())
    wire = marked("wire", (1000.0, 500.0), (400.0, 12.0))
    assert kept_from(wire, (2000.0, 520.0), Backing())
    assert not kept_from(wire, (1200.0, 600.0), Backing())
    met = with_facts(PLACE, (Detection,), (seen(900.0, "something else", "trial hole", 700.0),))
    assert "no wood" in kept_from(met, (930.0, 720.0), Backing())
    assert not kept_from(met, (960.0, 720.0), Backing())


def test_a_depth_limit_and_nail_plates():
    assert too_deep(51.0, Backing(deepest_mm=50.0))
    assert not too_deep(50.0, Backing(deepest_mm=50.0))
    assert not too_deep(500.0, Backing())
    wire = marked("wire", (1000.0, 500.0), (400.0, 12.0))
    assert [p.at for p in plates(wire, (900.0, 1200.0, 1500.0), "mm")] == [(1200.0, 506.0)]


@pytest.mark.parametrize(
    ("at", "rule", "kept"),
    [
        ((310.0, 400.0), "up and down", True),  # 10 off its middle, straight below it
        ((500.0, 1010.0), "up and down", False),
        ((500.0, 1010.0), "up, down and sideways", True),
        ((500.0, 400.0), "up, down and sideways", False),
        ((100.0, 400.0), "also along corners and ceiling", True),  # within 150 of the corner with the back
    ],
)
def test_wires_are_kept_clear_of_on_side_walls_too(at, rule, kept):
    """An outlet of 80 at 260 out and 960 up on the left wall; 50 are kept beside the lines of its wires."""
    outlet = Obstacle(
        id="o", name="Outlet", kind="outlet", surface="left", at=(260.0, 960.0), size=(80.0, 80.0), taken_at=WHEN
    )
    place = Place(id="p", name="P", width_mm=2000.0, depth_mm=600.0, height_mm=2400.0, facts=(outlet,))
    assert bool(kept_from(place, at, Backing(rule=rule), "left")) is kept
    assert kept_from(place, (1900.0, 1000.0), Backing(rule="up, down and sideways"), "back") == ""
