"""Getting in, and what is done about things in the way."""

from __future__ import annotations

import math
from collections.abc import Iterator

import pytest
from msgspec.structs import replace

from tests.alcove import alcove_job, lean
from tests.catalogue import WHEN, box
from wobble.core.figure import Figure
from wobble.core.fit.access.access import Access
from wobble.core.fit.cutouts.boxes import Cutout
from wobble.core.fit.cutouts.treated import GRILLE_OPEN, TOE_GRILLE_MM
from wobble.core.job import (
    Alternative,
    Doorway,
    FixedTop,
    HighSpot,
    Job,
    Obstacle,
    Passage,
    Place,
    StandUp,
    Threshold,
    Turn,
    Value,
    with_facts,
)
from wobble.core.job.unit import Air, Front, ScrewFeet, ToeKickBox
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.narrowboat import narrowboat_galley
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import compare, solve_fit

TALL = box("A", x=300.0, width=900.0, height_mm=2200.0, depth_mm=560.0, kind="tall")
PLUMB = (lean(0.0), lean(0.0, 2000.0))


def going(unit: object, *way: Passage) -> Access:
    job = alcove_job(*PLUMB, unit)  # type: ignore[arg-type]
    return solve_fit(replace(job, way_in=way), "place").access[0]


def test_a_tall_unit_is_stood_up_where_it_is_said():
    """√(2200² + 560²) = 2270.2 under 2300 leaves 29.8; under 2260 it is 10.2 too much."""
    assert going(TALL, StandUp(name="Hall", height_mm=2300.0)).passes[0].spare_mm == pytest.approx(
        2300.0 - math.hypot(2200.0, 560.0), abs=0.01
    )
    stuck = going(TALL, StandUp(name="Hall", height_mm=2260.0))
    assert not stuck.goes_in
    assert stuck.passes[0].spare_mm == pytest.approx(-10.2, abs=0.1)
    assert any("no part taller than 2189" in words for words in stuck.instead)  # √(2260² − 560²) = 2189.5
    assert stuck.caution


def test_what_would_work_is_tried_and_only_that_is_said():
    feet = replace(TALL, standing=ScrewFeet(now_mm=(100.0,), least_mm=60.0))
    said = going(feet, StandUp(name="Hall", height_mm=2260.0)).instead
    assert any(words.startswith("Screw the feet in by 40.0 mm") for words in said)
    assert not any("feet" in w for w in going(TALL, StandUp(name="Hall", height_mm=2260.0)).instead)
    boxed = replace(TALL, standing=ToeKickBox(height_mm=100.0))
    assert any("base of 100.0 mm by itself" in w for w in going(boxed, StandUp(name="Hall", height_mm=2260.0)).instead)
    hopeless = going(TALL, Doorway(name="Hatch", width_mm=300.0, height_mm=400.0))
    assert hopeless.instead
    assert "build it in its place" in hopeless.instead[-1]


def test_the_order_traps_nothing():
    units = tuple(box(name, x=100.0 + 400.0 * i, width=400.0) for i, name in enumerate("ABCD"))
    fit = solve_fit(alcove_job(*PLUMB, *units), "place")
    assert [g.unit for g in fit.access] == ["A", "D", "B", "C"]
    assert "last" in fit.access[-1].why


def test_the_vestrys_press_passes_its_ceiling_step_and_corner():
    """Its truth: the ceiling's low point less the base, and 5 + 120 of lift over the step."""
    fit = solve_fit(vestry_press(), "alcove")
    (press,) = fit.access
    under = next(p for p in press.passes if p.where == "Under the ceiling")
    assert fit.plan is not None
    # ceiling 2448 at the back left, lower by 0.008 a mm to the front at 640: about 2442; less base 5.6, 2150 and 125
    assert under.spare_mm == pytest.approx(2442.0 - fit.plan.base.height.value_mm - 2150.0 - 125.0, abs=9.0)
    assert press.goes_in
    worse = replace(
        vestry_press(),
        way_in=(Turn(name="Corner", from_mm=600.0, into_mm=560.0), Threshold(name="Step", height_mm=420.0)),
    )
    stuck = solve_fit(worse, "alcove")
    assert {f.severity for f in stuck.findings if f.code.startswith("stuck")} == {"stop"}


def around(*obstacles: Obstacle, **more: object) -> dict[str, Cutout]:
    unit = box("A", x=100.0, width=900.0, **more)
    job = alcove_job(*PLUMB, unit, obstacles=obstacles)
    return {a.code: a for a in solve_fit(job, "place").cutouts}


def mark(kind: str, at: tuple[float, float], size: tuple[float, float], **more: object) -> Obstacle:
    return Obstacle(taken_at=WHEN, id="m", name=kind, kind=kind, surface="back", at=at, size=size, **more)  # type: ignore[arg-type]


def test_a_hole_is_marked_out_from_the_units_own_edges():
    """An outlet of 86 at 500 along, 300 up, in a unit that starts at 100 and stands at about 0: 5 of play."""
    hole = {
        s.label: s.mm
        for s in around(mark("outlet", (500.0, 300.0), (86.0, 86.0), treatment="access hole"))["access-hole"].sizes
    }
    assert hole["from its left edge"] == 395.0
    assert hole["from its underside"] == pytest.approx(295.0, abs=0.5)
    assert (hole["wide"], hole["high"]) == (96.0, 96.0)


def test_a_vent_keeps_its_free_area_to_the_front():
    """300 × 100 of duct through a grille 70 high and 60 % open: 714 long; through a unit of 500 it does not go."""
    assert around(mark("vent", (300.0, 10.0), (300.0, 100.0)))["vent-buried"].severity == "stop"
    found = around(mark("vent", (300.0, 10.0), (300.0, 100.0), treatment="duct"))["vent-ducted"]
    long = next(s.mm for s in found.sizes if s.label == "grille long")
    assert long * TOE_GRILLE_MM * GRILLE_OPEN == pytest.approx(300.0 * 100.0)
    assert found.severity == "fine"
    assert around(mark("vent", (300.0, 10.0), (600.0, 100.0), treatment="duct"))["vent-grille-long"].severity == "stop"


def test_skirting_is_held_back_from_notched_or_returned():
    board = mark("skirting", (0.0, 0.0), (2000.0, 95.0), proud_mm=18.0)
    assert around(board)["skirting-hold-back"].sizes[0].mm == 19.0
    notch = {s.label: s.mm for s in around(replace(board, treatment="notch"))["skirting-notch"].sizes}
    assert notch["notch deep"] == 20.0
    assert notch["notch high"] == pytest.approx(97.0, abs=0.5)
    out = {s.label: s.mm for s in around(replace(board, treatment="remove"))["taken-out"].sizes}
    assert out == {"cut out from, along": 100.0, "to": 1000.0}


def test_other_things_get_their_own_answer():
    assert around(mark("wire", (200.0, 300.0), (400.0, 10.0), proud_mm=8.0))["wire-bridged"].sizes[0].mm == 14.0
    valve = {s.label: s.mm for s in around(mark("valve", (500.0, 300.0), (60.0, 60.0)))["access-panel"].sizes}
    assert valve["wide"] == 180.0
    moved = around(mark("pipe", (500.0, 300.0), (60.0, 60.0), treatment="move by a licensed trade"))
    assert "moved-first" in moved
    hatch = replace(mark("pipe", (300.0, 200.0), (60.0, 60.0)), surface="floor")
    assert "hatch" in around(hatch, kind="platform")
    sill = around(mark("window board", (200.0, 721.0), (800.0, 30.0)))["under-board-tight"]
    assert sill.sizes[0].mm == pytest.approx(1.0, abs=0.5)
    assert "paint" in sill.text


def test_an_appliance_gets_its_makers_air_or_stops_the_job():
    lacking = around(air=Air(sides_mm=20.0, back_mm=50.0), out_mm=30.0)["air"]
    assert lacking.severity == "stop"
    assert lacking.sizes[0].mm == 20.0
    assert "air" not in around(air=Air(sides_mm=20.0, back_mm=50.0), out_mm=50.0)


def test_two_places_that_meet_stand_clear_in_their_corner():
    """Theirs is 560 deep: ours may come to 2000 − 560; with handles a filler goes in."""
    job = alcove_job(*PLUMB, box("A", x=900.0, width=600.0, front=Front(opens="drawers", handle_mm=30.0)))
    other = Place(
        id="east", name="East", width_mm=1500.0, depth_mm=600.0, height_mm=2400.0, units=(box("B", x=0.0, width=600.0),)
    )
    ours = replace(job.places[0], right_is_back_of="east")

    def codes(x: float, of: Place = other) -> set[str]:
        unit = replace(ours.units[0], x_mm=x)
        both = replace(job, places=(replace(ours, units=(unit,)), of))
        return {f.code for f in solve_fit(both, "place").findings if f.code.startswith("corner")}

    assert codes(900.0) == {"corner-overlap"}
    assert codes(838.0) == {"corner-handles"}
    assert codes(700.0) == set()
    assert codes(900.0, replace(other, units=(box("B", x=700.0, width=600.0),))) == set()


def test_units_that_stand_in_each_other_stop_the_job():
    job = alcove_job(*PLUMB, box("A", x=100.0), box("B", x=680.0), box("C", x=100.0, over_base_mm=1400.0))
    assert [f.code for f in solve_fit(job, "place").findings if f.code.startswith("overlap")] == ["overlap"]


def test_alternatives_stand_side_by_side():
    job: Job = alcove_job(*PLUMB, box("A", x=100.0))
    place = job.places[0]
    sets = (
        Alternative(name="higher", datum=HighSpot(over_mm=4.0), back_line=place.back_line),
        Alternative(name="table", datum=FixedTop(top_mm=715.0), back_line=place.back_line),
    )
    now, higher, table = compare(replace(job, places=(replace(place, alternatives=sets),)), "place")
    assert (now.name, higher.name, table.name) == ("", "higher", "table")
    assert higher.largest_mm - now.largest_mm == pytest.approx(4.0, abs=0.01)
    assert table.cut_mm == pytest.approx(720.0 - 715.0, abs=0.5)
    assert table.top_mm == 715.0


@pytest.mark.parametrize("job", [gable_workroom(), vestry_press(), narrowboat_galley()], ids=lambda job: job.name)
def test_every_figure_of_the_demo_jobs_is_explained_and_its_working_adds_up(job):
    """Walk all that Fit says: each figure has its working, and the steps come to its value."""
    fit = solve_fit(job, job.places[0].id)
    figures = list(_figures(fit))
    assert len(figures) > 25
    for figure in figures:
        assert figure.working
        assert sum(s.sign * s.value_mm for s in figure.working) == pytest.approx(figure.value_mm, abs=0.01)
    assert fit.plan is not None
    assert fit.access
    assert fit.scribes
    assert all(g.goes_in for g in fit.access)


def _figures(value: object) -> Iterator[Figure]:
    if isinstance(value, Figure):
        yield value
    elif isinstance(value, tuple):
        for inner in value:
            yield from _figures(inner)
    elif isinstance(value, Value):
        for name in value.__struct_fields__:
            yield from _figures(getattr(value, name))


def test_what_stays_on_the_floor_is_lifted_over():
    """A wheel arch of 140 in the press's way takes 20 more than its own step of 120."""
    job = vestry_press()
    arch = Obstacle(
        taken_at=WHEN,
        id="a",
        name="Arch",
        kind="wheel arch",
        surface="floor",
        at=(600.0, 580.0),
        size=(300.0, 50.0),
        proud_mm=140.0,
    )
    with_arch = replace(job, places=(with_facts(job.places[0], (Obstacle,), (arch,)),))

    def left(of: Job) -> float:
        (press,) = solve_fit(of, "alcove").access
        return next(p.spare_mm for p in press.passes if p.where == "Under the ceiling")

    assert left(job) - left(with_arch) == pytest.approx(20.0, abs=1e-6)


def test_skirting_that_is_taken_out_is_returned_to_the_floor():
    """95 high, base at about 0: its return is 95 at the foot of a free end, and cut to the floor there.

    Nothing is returned along an end that is closed against a wall 100 away.
    """
    board = mark("skirting", (0.0, 0.0), (2000.0, 95.0), proud_mm=18.0, treatment="remove")
    free = solve_fit(alcove_job(*PLUMB, box("A", x=300.0, width=900.0), obstacles=(board,)), "place")
    (left, right) = (s for s in free.scribes if s.id.startswith("return"))
    closed = solve_fit(alcove_job(*PLUMB, box("A", x=100.0, width=900.0), obstacles=(board,)), "place")
    assert [s.id for s in closed.scribes if s.id.startswith("return")] == ["return-m-right"]
    assert left.line[0].left_mm == pytest.approx(95.0, abs=0.5)
    assert (left.along, right.along) == ("from the wall", "from its front")
    assert left.thick_mm == 18.0


def test_a_gap_between_neighbours_is_a_reveal_or_wants_a_strip():
    def obstacles(gap: float) -> list[str]:
        job = alcove_job(*PLUMB, box("A", x=100.0), box("B", x=700.0 + gap))
        return [f.severity for f in solve_fit(job, "place").findings if f.code == "gap-between"]

    assert (obstacles(0.0), obstacles(3.0), obstacles(20.0), obstacles(300.0)) == ([], ["fine"], ["mind"], [])
