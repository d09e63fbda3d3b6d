"""Checks, what to do now, and the plan that follows: by hand, and where the place is found otherwise."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import get_args

import pytest
from msgspec.structs import replace

from tests.catalogue import EXACT, floor_at, grid, job_of, offset
from tests.rooms import HANGS, A, B, Room
from wobble.core import codes
from wobble.core.facts import AsSet, Followed, LaidUnder, Otherwise, Slope, Span, Stands, StepDone
from wobble.core.job import Existing, Job, OnPieces, Unit
from wobble.core.job.insides import Cell, Columns, Door, Insides
from wobble.core.job.unit import Hung, ScrewFeet
from wobble.core.practice.drying_loft import drying_loft
from wobble.core.practice.gable import gable_workroom
from wobble.core.set.check import Check
from wobble.core.set.freedoms import freedoms
from wobble.core.set.learned import learned
from wobble.core.set.result import PlaceSet
from wobble.core.set.stands import as_found
from wobble.core.stages import following, set_out, solve_fit, solve_hold, solve_make, solve_proposal, solve_set

PLACE = "place"


def flat(*units: Unit, rise: float = 0.0) -> Job:
    """Return a place of 3000 whose floor is read exactly, with boxes on shims."""
    job = job_of(*floor_at(grid(3000, 600, 7, 3), lambda x, y: rise * x / 1000), width=3000.0)
    place = replace(job.places[0], units=units or (A, B))
    return replace(job, places=(place,), instruments=(EXACT,))


def check(found: PlaceSet, start: str) -> Check:
    return next(c for c in found.checks if c.key.startswith(start))


def read(job: Job, *readings: tuple[str, float], minute: int = 0) -> Job:
    """Return a job in which checks were read: their values off what is planned."""
    place = job.places[0]
    found = solve_set(job, place.id)
    facts = []
    for n, (start, off) in enumerate(readings):
        c = check(found, start)
        value = None if c.expected_mm is None else c.expected_mm + off
        facts.append(
            AsSet(
                id=f"r{minute}-{n}",
                taken_at=datetime(2026, 3, 8, 10, minute, n, tzinfo=UTC),
                check=c.key,
                value_mm=value,
                came=None if value is not None else ("right" if off == 0 else "wrong"),
                expected_mm=c.expected_mm,
                of=c.of,
                stands=c.stands,
            )
        )
    return replace(job, places=(replace(place, facts=(*place.facts, *facts)),))


def test_a_unit_out_of_level_is_told_corner_by_corner_as_the_sums_by_hand_say():
    # read exactly: right end 2.1 up over 700, no tilt outwards, middle of the front 0 over its plan.
    # Supports stand 40 in: at 40 and 660 of 700 the unit is -0.93 and +0.93 off; the prior draws both a little in
    job = read(flat(A), ("level-along", 2.1), ("level-out", 0.0), ("height", 0.0))
    found = solve_set(job, PLACE)
    (told,) = found.advice
    by = {m.corner: m for m in told.moves}
    assert by["back left"].up_mm == pytest.approx(0.93, abs=0.08)
    assert by["front right"].up_mm == pytest.approx(-0.93, abs=0.08)
    laid = next(p.mm for p in check(found, "level-along").stands.on if p.corner == "back left")  # type: ignore[union-attr]
    assert by["back left"].under_mm == pytest.approx(laid + by["back left"].up_mm)
    assert sum(by["back left"].pieces_mm) == pytest.approx(by["back left"].under_mm, abs=0.6)
    (stop,) = [f for f in found.findings if f.severity == "stop"]
    assert stop.code == "set-out-of-true"
    assert "2.1 mm more than it should be" in stop.text
    assert stop.figure is not None
    assert stop.figure.value_mm == pytest.approx(2.1)


def test_without_a_height_the_highest_corner_stays_and_the_others_come_up():
    found = solve_set(read(flat(A), ("level-along", 2.1), ("level-out", 0.0)), PLACE)
    moves = found.advice[0].moves
    assert all(m.up_mm > 0 for m in moves)
    assert {m.corner for m in moves} == {"back left", "front left"}


def test_screw_feet_are_turned_and_read_in_turns():
    feet = replace(A, standing=ScrewFeet(pitch_mm=1.5, now_mm=(100.0,)))
    found = solve_set(read(flat(feet), ("level-along", 2.1), ("level-out", 0.0), ("height", 0.0)), PLACE)
    left = next(m for m in found.advice[0].moves if m.corner == "back left")
    assert left.turns == pytest.approx(left.up_mm / 1.5)
    assert "turns out" in " ".join(found.advice[0].words)


def test_freedoms_are_the_normal_sums():
    stands = Stands(x_mm=0.0, out_mm=0.0, under_mm=0.0, wide_mm=800.0, deep_mm=500.0, high_mm=700.0)

    def fact(kind: str, value: float, minute: int = 0, at: Stands = stands) -> AsSet:
        when = datetime(2026, 3, 8, 10, minute, tzinfo=UTC)
        key = f"{kind}/p/U"
        return AsSet(id=f"{kind}{minute}", taken_at=when, check=key, value_mm=value, expected_mm=0.0, of="U", stands=at)

    # one level reading of 1.6 over 800: prior (0.003 · 800)² = 5.76, reading 0.4² = 0.16, so 1.6 · 5.76 / 5.92
    one = freedoms([fact("level-along", 1.6)])
    assert one is not None
    assert float(one.mean[2]) * 800 == pytest.approx(1.6 * 5.76 / 5.92)
    assert one.dz == 0.0
    # the newest of two readings of one check counts
    two = freedoms([fact("level-along", 1.6), fact("level-along", 0.0, 5)])
    assert two is not None
    assert float(two.mean[2]) == pytest.approx(0.0)
    # a height read when it was to stand 2 lower is one of 2 more now: what the plan followed is not counted twice
    later = replace(stands, under_mm=2.0)
    both = freedoms([fact("height", 2.0), fact("level-out", 0.0, 5, later)])
    assert both is not None
    assert both.dz == pytest.approx(0.0, abs=1e-9)


def test_what_stands_higher_is_followed_by_the_rest_only_when_the_user_says_so():
    job = read(flat(), ("level-along", 0.2), ("level-out", 0.1), ("height", 1.2))
    found = solve_set(job, PLACE)
    assert found.advice == ()
    assert found.pending == ("A",)
    before = solve_fit(job, PLACE)
    shim = {s.support: s.gap.value_mm for s in before.plan.shims}  # type: ignore[union-attr]
    offered = solve_proposal(job, PLACE)
    base = next(c for c in offered.changes if c.kind == "base")
    assert base.after_mm - base.before_mm == pytest.approx(1.2, abs=0.4)  # type: ignore[operator]
    assert {c.about.split(".")[0] for c in offered.changes if c.kind == "shim"} == {"B"}
    after = solve_fit(following(job, PLACE, offered.readings), PLACE)
    for s in after.plan.shims:  # type: ignore[union-attr]
        if s.unit == "B":
            assert s.gap.value_mm - shim[s.support] == pytest.approx(1.1, abs=0.4)
    kept = Followed(id="f", taken_at=datetime(2026, 3, 8, 11, tzinfo=UTC), readings=offered.readings)
    job = replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, kept)),))
    assert solve_set(job, PLACE).pending == ()
    assert set_out(set_out(job)) == set_out(job)


def test_what_stands_further_along_takes_its_neighbours_with_it():
    stands = Stands(x_mm=50.0, out_mm=0.0, under_mm=0.0, wide_mm=700.0, deep_mm=580.0, high_mm=720.0)
    gap = AsSet(
        id="g",
        taken_at=datetime(2026, 3, 8, 10, tzinfo=UTC),
        check=f"beside-left-foot/{PLACE}/A",
        value_mm=54.0,
        expected_mm=50.0,
        of="A",
        stands=stands,
    )
    kept = Followed(id="f", taken_at=gap.taken_at, readings=("g",))
    job = flat()
    job = replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, gap, kept)),))
    units = {u.id: u for u in set_out(job).places[0].units}
    # prior 3², reading 0.4² + 1²: 4 · 9 / 10.16
    assert units["A"].x_mm == pytest.approx(50 + 4 * 9 / 10.16)
    assert units["B"].x_mm - units["A"].right_mm == pytest.approx(0.0)


def test_the_floor_learns_from_where_a_unit_stood_on_shims_of_known_thickness():
    job = flat(rise=2.0)
    job = replace(job, places=(replace(job.places[0], facts=job.places[0].facts[:4]),))  # hardly anything is known
    found = solve_set(job, PLACE)
    stands = check(found, "height").stands
    assert stands is not None
    on = tuple(LaidUnder(at=p.at, corner=p.corner, mm=3.0) for p in stands.on)
    facts = [
        AsSet(
            id=f"l{n}",
            taken_at=datetime(2026, 3, 8, 10, n, tzinfo=UTC),
            check=f"{kind}/{PLACE}/A",
            value_mm=value,
            expected_mm=value,
            of="A",
            stands=replace(stands, on=on),
        )
        for n, (kind, value) in enumerate((("level-along", 0.0), ("level-out", 0.0), ("height", 720.0)))
    ]
    kept = Followed(id="f", taken_at=facts[-1].taken_at, readings=tuple(f.id for f in facts))
    place = replace(job.places[0], facts=(*job.places[0].facts, *facts, kept))
    known = set_out(replace(job, places=(place,))).places[0]
    told = [f for f in known.facts if f.id.startswith("as-set")]
    assert len(told) == 4
    line = next(s for s in known.set_ups if s.id == "as-set-A")
    # it stood level as planned on 3 mm everywhere: the floor is 3 under its underside
    assert all(f.value_mm == pytest.approx(3.0) for f in told)  # type: ignore[union-attr]
    assert line.at_mm == stands.under_mm


def test_walls_learn_from_the_gaps_beside_what_stands():
    """A run of 1400 from 50 on, level along by 1 of 700: its sides, 720 high, lean 1 · 720 / 700 = 1.029 to the left.

    Left: 52 at the foot and 58 at the head: the wall goes 1.029 + 6 to the left going up. Right: 49 at the foot, so
    that both walls are 52 + 1400 + 49 apart there; nothing was read at the head, and the right wall says no more.
    """
    stands = Stands(x_mm=50.0, out_mm=0.0, under_mm=0.0, tied=True, wide_mm=700.0, deep_mm=560.0, high_mm=720.0)

    def beside(n: int, unit: str, kind: str, value: float) -> AsSet:
        return AsSet(
            id=f"w{n}",
            taken_at=datetime(2026, 3, 8, 10, n, tzinfo=UTC),
            check=f"{kind}/{PLACE}/{unit}",
            value_mm=value,
            expected_mm=0.0 if kind == "level-along" else 50.0,
            of=unit,
            stands=replace(stands, x_mm=50.0 if unit == "A" else 750.0),
        )

    a, b = replace(A, x_mm=50.0, width_mm=700.0), replace(B, x_mm=750.0, width_mm=700.0)
    read = (
        beside(0, "A", "level-along", 1.0),
        beside(1, "A", "beside-left-foot", 52.0),
        beside(2, "A", "beside-left-head", 58.0),
        beside(3, "B", "beside-right-foot", 49.0),
    )
    place = replace(flat(a, b).places[0], width_mm=1500.0, surfaces=("floor", "back", "left", "right"))
    kept = Followed(id="f", taken_at=read[-1].taken_at, readings=tuple(f.id for f in read))
    assert learned(replace(place, facts=(*read, kept)))[1] == ()  # of walls that nobody read gaps say nothing yet
    walls = tuple(offset(side, side, (300.0, 300.0), 1000.0) for side in ("left", "right"))

    _, told = learned(replace(place, facts=(*walls, *read, kept)))
    by_kind = {type(f): f for f in told}
    wall, apart = by_kind[Slope], by_kind[Span]
    assert isinstance(wall, Slope)
    assert isinstance(apart, Span)
    # the level, read to 0.4 of 700, against 3 mm a metre before it was read
    ry = 1.0 * 700 / (700**2 + 0.4**2 / 0.003**2)
    assert wall.surface == "left"
    assert (wall.start, wall.end) == ((560.0, 0.0), (560.0, 720.0))
    assert wall.value == pytest.approx(-720 * ry - 6.0)
    assert (apart.value_mm, apart.at) == (52.0 + 1400.0 + 49.0, (560.0, 0.0))
    alone = replace(place, facts=(*walls, *read[:3], replace(kept, readings=("w0", "w1", "w2"))))
    assert [type(f) for f in learned(alone)[1]] == [Slope]
    assert len(set_out(replace(flat(a, b), places=(replace(place, facts=(*walls, *read, kept)),))).instruments) == 2


# --- found otherwise ---


def found_otherwise(job: Job, **said: object) -> Job:
    fact = Otherwise(id="o", taken_at=datetime(2026, 3, 8, 10, tzinfo=UTC), **said)  # type: ignore[arg-type]
    return replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, fact)),))


def test_no_stud_is_one_fact_and_the_screws_are_planned_again():
    job = gable_workroom()
    screw = next(f for f in solve_hold(job, "north").fasteners if f.surface == "back" and f.unit == "A")
    after = solve_hold(found_otherwise(job, what="no stud", surface="back", at=screw.at, of=screw.id), "north")
    near = [f for f in after.fasteners if f.surface == "back" and abs(f.at[0] - screw.at[0]) < 15]
    assert all(f.bites < screw.bites for f in near)
    wire = solve_hold(found_otherwise(job, what="wire or pipe", surface="back", at=screw.at), "north")
    assert all(
        abs(f.at[0] - screw.at[0]) + abs(f.at[1] - screw.at[1]) > 20 for f in wire.fasteners if f.surface == "back"
    )
    told = solve_set(found_otherwise(job, what="wire or pipe", surface="back", at=screw.at), "north").findings
    assert "licensed trade" in next(f.caution for f in told if f.code == "found-otherwise")


def test_joists_that_run_the_other_way_are_planned_for_and_saying_it_is_not_undone_by_asking_twice():
    job = drying_loft()
    other = found_otherwise(job, what="joists the other way")
    before, after = as_found(job).places[0].overhead, as_found(other).places[0].overhead
    assert before is not None
    assert after is not None
    assert {before.runs, after.runs} == {"along", "out"}
    assert as_found(as_found(other)) == as_found(other)


def test_three_openings_become_two_and_what_was_to_stay_is_gone():
    cells = Cell(fill=Columns(cells=(Cell(door=Door()), Cell(), Cell(door=Door(hangs="right")))))
    job = flat(replace(A, insides=Insides(cell=cells), ready_made=False))
    doors = [p for p in solve_make(job).parts if p.part.role in ("door", "divider")]
    fewer = found_otherwise(job, what="other openings", of="A", count=2)
    after = [p for p in solve_make(fewer).parts if p.part.role in ("door", "divider")]
    assert sum(p.part.quantity for p in after) < sum(p.part.quantity for p in doors)
    assert sum(p.part.quantity for p in after if p.part.role == "divider") == 1
    stays = Existing(id="old", name="Old box", x_mm=100.0, width_mm=300.0, height_mm=500.0, depth_mm=500.0)
    job = replace(job, places=(replace(job.places[0], existing=(stays,)),))
    assert as_found(found_otherwise(job, what="no box", of="old")).places[0].existing == ()


# --- what the work asks to be checked, line by line ---


@pytest.mark.parametrize(
    "kind",
    [
        "level-along",
        "level-out",
        "plumb-side",
        "plumb-front",
        "square",
        "flush",
        "step",
        "reveal",
        "beside-left-foot",
        "slides",
        "proud",
        "bites",
        "first-fit",
        "load",
        "gap-to-wall",
        "height",
    ],
)
def test_every_sort_of_check_is_there_unasked_in_a_whole_job_and_says_how_it_is_read(kind):
    found = [c for c in solve_set(gable_workroom(), "north").checks if c.kind.startswith(kind)]
    assert found
    assert all(c.how and c.step for c in found)
    assert all(c.tolerance_mm > 0 for c in found if c.expected_mm is not None)


def test_checks_come_in_the_order_of_setting_and_what_leans_is_named():
    lies = Unit(
        id="T",
        name="Top",
        kind="top",
        x_mm=50.0,
        width_mm=1500.0,
        depth_mm=600.0,
        height_mm=30.0,
        over_base_mm=720.0,
        standing=OnPieces(pieces=("A", "B")),
        meets=(),
    )
    job = read(flat(A, B, lies), ("level-along", 2.1), ("level-out", 0.0))
    found = solve_set(job, PLACE)
    order = [c.of for c in found.checks if c.kind == "level-along"]
    assert order.index("A") < order.index("T")
    assert "Before Top leans on it" in found.findings[0].text


@pytest.mark.parametrize(("start", "off"), [("square", 4.0), ("bites", 1.0), ("reveal", 2.0), ("first-fit", 1.0)])
def test_what_is_out_otherwise_says_what_to_do(start, off):
    job = read(gable_workroom(), (start, off))
    (told,) = solve_set(job, "north").advice
    assert told.words
    assert told.moves == ()


def all_right() -> Job:
    job = flat(A)
    facts = [
        AsSet(
            id=f"a{n}",
            taken_at=datetime(2026, 3, 8, 10, n, tzinfo=UTC),
            check=c.key,
            value_mm=c.expected_mm,
            came="right" if c.expected_mm is None else None,
            expected_mm=c.expected_mm,
            of=c.of,
            stands=c.stands,
        )
        for n, c in enumerate(solve_set(job, PLACE).checks)
    ]
    return replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, *facts)),))


def set_and_unread() -> Job:
    job = flat(A)
    step = StepDone(id="s", taken_at=datetime(2026, 3, 8, 10, tzinfo=UTC), step=f"set/{PLACE}/A")
    return replace(job, places=(replace(job.places[0], facts=(*job.places[0].facts, step)),))


JOBS = {
    "all-true": all_right(),
    "found-otherwise": found_otherwise(flat(A), what="wall opened"),
    "set-out-of-true": read(flat(A), ("level-along", 3.0)),
    "stands-otherwise": read(flat(A), ("height", 1.2)),
    "still-to-check": set_and_unread(),
}


def test_every_code_of_set_has_its_job():
    assert sorted(JOBS) == sorted(get_args(codes.SetCode))


@pytest.mark.parametrize("code", sorted(JOBS))
def test_a_finding_of_set_is_told_where_it_should_be(code):
    assert code in {f.code for f in solve_set(JOBS[code], PLACE).findings}


def test_what_hangs_on_a_strip_is_lifted_off_and_on_and_what_carries_is_stocked_once():
    """Trial fits and loads, after the screws and before anything is put there for good; an empty one is not stocked."""

    def asked(unit: Unit) -> list[str]:
        room = Room(units=(unit,))
        return [c.key for c in solve_set(room.job, PLACE).checks if c.key.endswith(("off-and-on", "stocked"))]

    strip = replace(HANGS, standing=Hung(by="split batten"), holds="books")
    assert [k.rsplit("/", 1)[-1] for k in asked(strip)] == ["off-and-on", "stocked"]
    assert asked(replace(HANGS, holds="nothing")) == []
    lifted = next(c for c in solve_set(Room(units=(strip,)).job, PLACE).checks if c.key.endswith("off-and-on"))
    assert (lifted.kind, lifted.expected_mm) == ("first-fit", None)
    assert "hang it again" in lifted.how
