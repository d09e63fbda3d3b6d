"""What the work asks of an order, line by line: each in a small job where it applies, by hand."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, WHEN, floor_at, grid, job_of
from tests.order.walker import NOW
from wobble.core.facts import Known, Obstacle, StepDone
from wobble.core.job import Board, Coats, Hole, Job, Machine, Unit, Workshop
from wobble.core.job.insides import Cell, Door, Drawers, Insides, Rows, Shelved
from wobble.core.job.sessions import Deadline, Habit, OwnStep, Person, Sessions, Turned, Visit
from wobble.core.job.unit import Hung, OnPieces
from wobble.core.order.result import Planned
from wobble.core.practice.drying_loft import drying_loft
from wobble.core.practice.gable import gable_workroom
from wobble.core.practice.signal_cabin import signal_cabin
from wobble.core.practice.vestry import vestry_press
from wobble.core.stages import compare_finishing, solve_order

DAILY = Sessions(
    people=(Person(id="a", name="A"),),
    habits=(Habit(id="h", name="H", days=("mon", "tue", "wed", "thu", "fri", "sat", "sun"), minutes=180),),
)


def box(key: str = "U", **more: object) -> Unit:
    said = {"x_mm": 300.0, "width_mm": 800.0, "depth_mm": 560.0, "height_mm": 720.0, "ready_made": False}
    return Unit(id=key, name=f"Box {key}", **said | more)  # type: ignore[arg-type]


def job_with(*units: Unit, facts: tuple[Obstacle, ...] = (), sessions: Sessions = DAILY, **more: object) -> Job:
    job = job_of(*floor_at(grid(3000, 600, 6, 3), lambda x, y: 0.001 * x), width=3000.0)
    place = replace(job.places[0], units=units, facts=(*job.places[0].facts, *facts))
    return replace(job, places=(place,), sessions=sessions, instruments=(EXACT,), **more)


def turn(planned: Planned, start: str) -> int:
    """Return the turn of the one step whose key begins so."""
    found = [n for n, s in enumerate(planned.steps) if s.step.key.startswith(start)]
    assert len(found) == 1, (start, [s.step.key for s in planned.steps])
    return found[0]


def comes(planned: Planned, *starts: str) -> bool:
    """Return whether steps come in that order."""
    turns = [turn(planned, s) for s in starts]
    return turns == sorted(turns)


def outlet(**more: object) -> Obstacle:
    said = {"id": "o", "taken_at": WHEN, "name": "Outlet", "kind": "outlet", "surface": "back", "at": (600.0, 300.0)}
    return Obstacle(**said | {"size": (80.0, 80.0)} | more)  # type: ignore[arg-type]


DRAWERS = Insides(cell=Cell(fill=Drawers(count=3)))
DOOR = Insides(cell=Cell(fill=Shelved(count=1, held="fixed"), door=Door(hinge="cup")))
TOP = {"kind": "top", "height_mm": 30.0, "over_base_mm": 720.0, "standing": OnPieces(pieces=("U",)), "board": Board()}


# --- what traps what ---


def test_cables_go_through_before_the_top_that_closes_them_in_and_before_drawers():
    hole = Hole(id="h", name="Lamp", inside="top", at=(300.0, 200.0))
    planned = solve_order(job_with(box(holes=(hole,), insides=DRAWERS), box("T", **TOP)), NOW)
    assert comes(planned, "set/", "cables/", "top/")
    behind = Hole(id="h", name="Lamp", inside="back", at=(300.0, 300.0))
    planned = solve_order(job_with(box(holes=(behind,), insides=DRAWERS)), NOW)
    assert comes(planned, "cables/", "drawers/")
    tie = next(t for s in planned.steps if s.step.kind == "drawers" for t in s.before if t.first.startswith("cables/"))
    assert tie.kind == "trap"
    assert "drawers of Box U fills the room for a hand at Lamp" in tie.why


def test_a_duct_comes_before_what_stands_before_it():
    vent = outlet(kind="vent", name="Vent", treatment="duct")
    planned = solve_order(job_with(box(), facts=(vent,)), NOW)
    assert comes(planned, "service/", "set/")
    apart = solve_order(job_with(box(x_mm=1800.0), facts=(vent,)), NOW)
    ties = [t for s in apart.steps if s.step.kind == "set" for t in s.before]
    assert not any(t.first.startswith("service/") for t in ties)  # nothing stands before it: it may come any time


def test_what_is_screwed_to_the_far_side_comes_before_the_wall_that_divides():
    job = drying_loft()
    place = job.places[0]
    wall = box("W", kind="panel", x_mm=150.0, width_mm=18.0, depth_mm=370.0, height_mm=215.0, over_base_mm=400.0)
    job = replace(job, places=(replace(place, units=(replace(wall, standing=Hung()), *place.units)),))
    planned = solve_order(job, NOW)
    assert comes(planned, f"hang-on/{place.id}/A", "set/north-end/W")
    tie = next(
        t
        for s in planned.steps
        if s.step.key == "set/north-end/W"
        for t in s.before
        if t.first == "hang-on/north-end/A"
    )
    assert (tie.kind, tie.why.startswith("Box W fills the room for the driver")) == ("trap", True)


def test_fixed_shelf_and_holes_before_glue_box_before_drawers_and_doors_last():
    insides = Insides(cell=Cell(fill=Rows(cells=(Cell(fill=Drawers(count=1)), DOOR.cell))))
    planned = solve_order(job_with(box(insides=insides)), NOW)
    shelf = next(s for s in planned.steps if s.step.key.startswith("assemble/") and "drawers" not in s.step.key)
    assert any("fixed-shelf" in p for p in shelf.step.parts)
    place = shelf.step.place
    order = (f"drill/{place}/U", f"assemble/{place}/U", "set/", "drawers/", "doors/")
    assert comes(planned, *order)
    assert "square" in " ".join(shelf.step.how)


def test_hinges_are_chosen_before_boxes_are_built():
    door = Insides(cell=Cell(door=Door(hinge="not chosen")))
    planned = solve_order(job_with(box(insides=door)), NOW)
    assert comes(planned, "buy", "measure/", "assemble/")


def test_two_that_trap_each_other_are_told_with_the_way_out():
    a = box("A", x_mm=500.0, depth_mm=300.0)
    b = box("B", x_mm=500.0, out_mm=320.0, depth_mm=240.0)
    job = job_with(a, b)
    place = job.places[0].id
    job = replace(job, sessions=replace(DAILY, turned=(Turned(first=f"set/{place}/B", then=f"set/{place}/A"),)))
    found = [f for f in solve_order(job, NOW).findings if f.code == "not-turned"]
    assert found
    assert "way in of Box A" in found[0].text
    crossed = job_with(box("A", x_mm=500.0), box("B", x_mm=600.0))  # they overlap: neither gets in past the other
    ring = next(f for f in solve_order(crossed, NOW).findings if f.code == "ring")
    assert ring.severity == "stop"
    assert "Leave one of them loose" in ring.text


# --- coats ---


def coated(*coats: Coats, finishing: str = "before setting", **more: object) -> Planned:
    shop = Workshop(coats=coats or (Coats(finish="primer", number=1), Coats(finish="paint", number=2)))
    job = job_with(box(insides=DOOR), workshop=shop, sessions=replace(DAILY, finishing=finishing, **more))
    job = replace(
        job, places=(replace(job.places[0], surfaces=("floor", "back", "left"), units=(box(x_mm=40.0, insides=DOOR),)),)
    )
    return solve_order(job, NOW)


def test_coats_dry_before_the_next_sanded_between_drilled_before_and_caulk_after_primer():
    planned = coated()
    coats = [s for s in planned.steps if s.step.kind == "coat"]
    names = [s.step.name for s in coats]
    assert [n.split(",")[0] for n in names[-4:]] == [
        "Primer",
        "Paint",
        "Sand lightly with 240 and take the dust off",
        "Paint",
    ]
    for s in coats[1:]:
        tie = next(t for t in s.before if t.first.startswith("coat/"))
        first = next(x for x in planned.steps if x.step.key == tie.first)
        gap = datetime.fromisoformat(s.stretches[0].start) - datetime.fromisoformat(first.stretches[-1].end)
        assert gap.total_seconds() >= first.step.rests_h * 3600
    assert any("Tape" in line for line in coats[0].step.how)
    place = coats[0].step.place
    assert comes(planned, f"drill/{place}/U", coats[0].step.key, "carry/")
    assert comes(planned, "fill/", f"coat/{place}/fitted-1", "caulk/", f"coat/{place}/fitted-2")


def test_each_way_of_finishing_is_a_plan_and_they_are_held_beside_each_other():
    place = coated().steps[0].step.place
    assert comes(coated(finishing="before assembly"), f"coat/{place}/1", f"assemble/{place}/U")
    assert comes(coated(finishing="before setting"), f"assemble/{place}/U", f"coat/{place}/1", "set/")
    assert comes(coated(finishing="after setting"), "set/", f"coat/{place}/1")
    inside = coated(Coats(faces="inside", finish="varnish", number=1), Coats(finish="paint", number=1))
    varnish = next(s.step.key for s in inside.steps if s.step.name.startswith("Varnish"))
    paint = next(s.step.key for s in inside.steps if s.step.name.startswith("Paint") and s.step.kind == "coat")
    assert comes(inside, varnish, f"assemble/{place}/U", paint)
    outcomes = compare_finishing(gable_workroom(), NOW)
    assert {o.finishing for o in outcomes} == {"before assembly", "before setting", "after setting"}
    assert all(o.ends and o.working_minutes > 0 for o in outcomes)
    assert len({o.ends for o in outcomes}) > 1


# --- gates ---


def test_a_dry_fit_releases_the_glue_and_what_is_planed_after_it_is_coated_later():
    planned = coated(Coats(finish="oil", number=1))
    assert comes(planned, "dry-fit/", "assemble/")
    glue = next(s for s in planned.steps if s.step.kind == "assemble")
    gate = next(t for t in glue.before if t.first.startswith("dry-fit/"))
    assert gate.kind == "gate"
    assert "releases the glue" in gate.why
    first_coat = min(turn(planned, s.step.key) for s in planned.steps if s.step.kind == "coat")
    assert turn(planned, "dry-fit/") < first_coat
    bolted = solve_order(job_with(box(ready_made=True)), NOW)
    assert not [s for s in bolted.steps if s.step.kind == "dry fit"]


def test_gates_hold_back_cuts_and_what_is_known_opens_them():
    job = signal_cabin()
    planned = solve_order(job, NOW)
    place = job.places[0].id
    assert comes(planned, f"fasten/{place}/A", f"template/{place}", f"cut/{place}/template-S", "top/")
    assert comes(planned, f"set/{place}/B", f"measure/{place}/width-A", f"cut/{place}/width-A", f"assemble/{place}/A")
    assert comes(planned, f"assemble/{place}/C", f"measure/{place}/dry-fit-C", f"cut/{place}/dry-fit-width-C")
    known = Known(id="k", taken_at=WHEN, what="template-flat-S")
    job = replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, known)),))
    assert not any(s.step.kind == "template" for s in solve_order(job, NOW).steps)


# --- people, sessions, others ---


def test_another_person_paints_and_nobody_else_does():
    people = (Person(id="a", name="A", never=("finishing",)), Person(id="p", name="P", never=("sawing", "fixing")))
    habits = (replace(DAILY.habits[0], people=("a", "p")),)
    planned = coated(people=people, habits=habits)
    for s in planned.steps:
        for x in s.stretches:
            assert s.step.skill != "finishing" or x.people == ("p",)
            assert s.step.skill not in ("sawing", "fixing") or x.people == ("a",)


def test_a_machine_that_is_there_only_then_keeps_its_steps_for_that_day():
    saw = Machine(id="saw", name="Saw", kind="table saw")
    sunday = Habit(id="s", name="Sunday", days=("sun",), starts="09:00", minutes=300, machines=("saw",))
    sessions = replace(DAILY, habits=(replace(DAILY.habits[0], days=("mon", "tue")), sunday), machines_away=("saw",))
    planned = solve_order(job_with(box(), workshop=Workshop(machines=(saw,)), sessions=sessions), NOW)
    cuts = [x for s in planned.steps if s.step.kind == "cut" for x in s.stretches]
    assert cuts
    assert all(datetime.fromisoformat(x.start).weekday() == 6 for x in cuts)
    never = replace(sessions, habits=sessions.habits[:1])
    lost = solve_order(job_with(box(), workshop=Workshop(machines=(saw,)), sessions=never), NOW)
    assert next(f for f in lost.findings if f.code == "no-session").severity == "stop"
    assert "wants a machine" in next(f.text for f in lost.findings if f.code == "no-session")


def test_a_deadline_a_visit_and_a_trade_without_a_date_are_told():
    pipe = outlet(kind="pipe", name="Pipe", treatment="move by a licensed trade")
    job = job_with(box(), facts=(pipe,))
    key = next(s.step.key for s in solve_order(job, NOW).steps if s.step.kind == "service")
    no_date = next(f for f in solve_order(job, NOW).findings if f.code == "trade-no-date")
    assert "7 days" in no_date.text
    dated = replace(DAILY, visits=(Visit(id="v", name="Plumber", on="2026-03-20", does=(key,)),))
    planned = solve_order(replace(job, sessions=dated), NOW)
    service = next(s for s in planned.steps if s.step.key == key)
    assert service.stretches[0].start == "2026-03-20T08:00"
    assert comes(planned, key, "set/")
    assert next(s for s in planned.steps if s.step.kind == "set").stretches[0].start >= "2026-03-20T10:00"
    early = replace(dated, visits=(Visit(id="v", name="Plumber", on="2026-03-01", does=(key,)),))
    assert "visit-early" in {f.code for f in solve_order(replace(job, sessions=early), NOW).findings}
    tight = replace(DAILY, deadlines=(Deadline(id="d", name="Lining", by="2026-03-07"),))
    late = next(f for f in solve_order(job_with(box(), sessions=tight), NOW).findings if f.code == "late")
    assert (late.severity, "hours more" in late.text) == ("stop", True)


def test_what_is_made_elsewhere_is_carried_over_once_and_set_after():
    planned = solve_order(vestry_press(), NOW)
    place = vestry_press().places[0].id
    assert comes(planned, f"assemble/{place}/P", "move", "carry/", "set/")
    lunch = [s for s in planned.steps if any("T12:" in x.start and s.step.where == "place" for x in s.stretches)]
    assert all(datetime.fromisoformat(x.start).weekday() == 6 for s in lunch for x in s.stretches)


def test_a_step_that_fits_no_session_is_told_with_the_minutes_that_it_wants():
    short = replace(DAILY, habits=(replace(DAILY.habits[0], minutes=15),))
    found = [f for f in solve_order(job_with(box(), sessions=short), NOW).findings if f.code == "no-session"]
    assert found
    assert "the longest session has 15" in found[0].text


# --- the user's own order ---


def test_own_steps_are_tied_dropped_ones_leave_what_they_held_and_unknown_ones_are_told():
    own = OwnStep(id="x", name="Wax", minutes=20, after=("set/{p}/U",), before=("check/{p}",), rests_h=24.0)
    job = job_with(box())
    place = job.places[0].id
    own = replace(own, after=(f"set/{place}/U",), before=(f"check/{place}",))
    said = replace(DAILY, own=(own,), dropped=(f"drill/{place}/U", "cut/nowhere"))
    planned = solve_order(replace(job, sessions=said), NOW)
    assert comes(planned, "set/", "own/x", "check/")
    assert not any(s.step.key == f"drill/{place}/U" for s in planned.steps)
    assert comes(planned, f"cut/{place}/now", f"assemble/{place}/U")  # what the drilling stood between still holds
    assert {"dropped", "step-unknown"} <= {f.code for f in planned.findings}


def test_an_order_that_is_only_preferred_gives_way_and_says_why_it_was_so():
    job = gable_workroom()
    place = job.places[0].id
    assert comes(solve_order(job, NOW), f"set/{place}/A", f"set/{place}/D", f"set/{place}/B")
    wish = replace(job.sessions, turned=(Turned(first=f"set/{place}/B", then=f"set/{place}/D"),))
    planned = solve_order(replace(job, sessions=wish), NOW)
    assert comes(planned, f"set/{place}/B", f"set/{place}/D")
    assert "inwards from the left end" in next(f.text for f in planned.findings if f.code == "turned")


# --- what is done ---


def test_lowest_first_and_what_is_done_moves_on_and_rests():
    job = signal_cabin()
    place = job.places[0].id
    assert comes(
        solve_order(job, NOW), f"level/{place}", f"set/{place}/B", f"set/{place}/A", f"top/{place}/S", f"set/{place}/D"
    )
    glue = StepDone(id="d", taken_at=datetime(2026, 3, 7, 7, 30, tzinfo=UTC), step=f"assemble/{place}/D", minutes=50.0)
    job = replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, glue)),))
    planned = solve_order(job, NOW)
    assert next(s for s in planned.steps if s.step.key == glue.step).state == "done"
    carry = next(s for s in planned.steps if s.step.key == f"carry/{place}/D")
    assert (carry.state, carry.free_from) == ("dries", "2026-03-07T19:30")
    assert planned.paces[0].pace.steps == 1
    everything = tuple(
        StepDone(id=f"e{n}", taken_at=WHEN, step=s.step.key) for n, s in enumerate(planned.steps) if s.state != "done"
    )
    job = replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, *everything)),))
    assert [f.code for f in solve_order(job, NOW).findings] == ["all-done"]


@pytest.mark.parametrize("kind", ["cut", "carry", "set", "fasten", "coat"])
def test_cautions_stand_where_the_step_is(kind):
    steps = [s.step for demo in (gable_workroom, vestry_press) for s in solve_order(demo(), NOW).steps]
    said = [s for s in steps if s.kind == kind]
    assert said
    assert any(s.caution for s in said)


def test_of_two_reasons_for_one_order_the_firm_one_counts():
    planned = solve_order(signal_cabin(), NOW)
    cushion = next(s for s in planned.steps if s.step.kind == "put in")
    ties = {t.first.split("/")[0]: t for t in cushion.before}
    assert ties["top"].firm  # the seat carries it
    assert not ties["fill"].firm  # dust alone would be let be


def test_handles_are_tried_while_the_top_over_them_lies_loose():
    def said(depth_mm: float, **front: object) -> bool:
        top = box("T", **{**TOP, "depth_mm": depth_mm})
        planned = solve_order(job_with(box("U", **front), top), NOW)
        step = planned.steps[turn(planned, "top/")].step
        return any("with its handle on" in line for line in step.how)

    assert said(600.0, insides=DRAWERS)
    assert not said(500.0, insides=DRAWERS), "a top that ends behind the fronts locks nothing in"
    assert not said(600.0), "nor does one over an open box"


@pytest.mark.parametrize(
    ("weight", "people", "stands_in"),
    [(10.0, 1, ""), (20.0, 2, "a block screwed to a stud"), (40.0, 2, "a hired lift")],
)
def test_what_hangs_is_held_by_a_second_hand_a_prop_or_a_hoist(weight, people, stands_in):
    hung = box("H", kind="wall", over_base_mm=1400.0, depth_mm=330.0, standing=Hung(), weight_kg=weight)
    planned = solve_order(job_with(hung), NOW)
    step = planned.steps[turn(planned, "set/")].step
    assert step.people == people
    assert (step.stand_in.what if step.stand_in else "").startswith(stands_in)
    assert "under it while it hangs" in step.caution
