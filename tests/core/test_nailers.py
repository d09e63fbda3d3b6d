"""What boards over a wall are nailed to where no stud is, by hand: studs of 45 at 400, 1000, 1600 in a wall of 2000."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

import pytest
from msgspec.structs import replace

from tests.catalogue import WHEN, box
from tests.studded import found, job_before
from wobble.core.facts import Obstacle
from wobble.core.hold.result import PlaceHold
from wobble.core.job import Boarding, Job, WallOpening
from wobble.core.job.backing import Backing
from wobble.core.stages import solve_hold, solve_order

OPEN = Backing(lining_mm=0.0)
OUTLET = Obstacle(
    id="o", taken_at=WHEN, name="Outlet", kind="outlet", surface="back", at=(1250.0, 300.0), size=(80.0, 80.0)
)


def boarded(body: Boarding, backing: Backing = OPEN, facts: tuple[Any, ...] = (), **place: Any) -> Job:
    """Return a wall that is boarded from end to end, 1000 high, on a floor that is level."""
    said = {"kind": "boarding", "depth_mm": 15.0, "height_mm": 1000.0, "fixing_heights_mm": (50.0, 950.0)}
    unit = box("B", x=0.0, width=2000.0, body=body, **said)
    job = job_before(lambda x: 0.0, unit, backing=backing, **place)
    held = replace(job.places[0], facts=(*job.places[0].facts, *facts))
    return replace(job, places=(held,))


def put_in(hold: PlaceHold) -> dict[str, tuple[float, tuple[float, ...]]]:
    """Return how long each piece is and at which heights, in whole mm: the floor is known to 0.3."""
    return {
        n.id.removeprefix("nailer-B-"): (n.long.value_mm, tuple(float(round(z)) for z in n.rows))
        for n in hold.nailing.nailers
    }


def test_boards_along_get_nailers_at_ends_that_no_stud_holds():
    """Left: 400 − 22.5 past; right: 2000 − 1622.5. Both are over 50: an upright each, as high as the boards."""
    hold = solve_hold(boarded(Boarding(runs="along")), "place")
    assert put_in(hold) == {"end-left": (1000.0, (0.0,)), "end-right": (1000.0, (0.0,))}
    right = next(n for n in hold.nailing.nailers if n.id.endswith("right"))
    assert right.low == pytest.approx((1955.0, 0.0), abs=0.5)
    assert right.high == pytest.approx((2000.0, 1000.0), abs=0.5)
    assert (right.narrow_mm, right.wide_mm) == (45.0, 90.0)


def test_a_stud_near_enough_to_the_end_is_enough():
    """At 60 the last stud ends 60 + 22.5 from the left corner's, its near face 37.5 in: under 50."""
    hold = solve_hold(boarded(Boarding(runs="along"), detections=_studs(60.0, 1000.0, 1940.0)), "place")
    assert put_in(hold) == {}


def test_boards_up_are_nailed_at_rows_between_all_that_stands():
    """1000 high: rows from 0 to 955, two spaces of 477.5. Gaps: 332.5 beside the end nailers, then 555."""
    rows = (0.0, 478.0, 955.0)
    found_ = put_in(solve_hold(boarded(Boarding(runs="up")), "place"))
    assert found_.pop("end-left")
    assert found_.pop("end-right")
    assert {k: v[1] for k, v in found_.items()} == {f"row-{k}": rows for k in (1, 2, 3, 4)}
    assert [found_[f"row-{k}"][0] for k in (1, 2, 3, 4)] == pytest.approx([332.5, 555.0, 555.0, 332.5], abs=1.5)


def test_round_an_outlet_there_is_blocking_under_over_and_beside_it():
    """Outlet 1250 to 1330 by 300 to 380 between studs at 1000 and 1600: 5 free, so from 250 and from 385 on.

    Beside it boards end 227.5 past the stud on its left and 247.5 before that on its right: uprights of 80 + 2 · 5.
    """
    found_ = put_in(solve_hold(boarded(Boarding(runs="along"), facts=(OUTLET,)), "place"))
    assert found_["round-o"][0] == pytest.approx(555.0, abs=1.5)
    assert found_["round-o"][1] == (250.0, 385.0)
    assert found_["beside-o-left"] == found_["beside-o-right"] == (90.0, (295.0,))


def test_on_a_closed_wall_loose_ends_are_told_and_nothing_is_put_in():
    hold = solve_hold(boarded(Boarding(runs="along"), Backing()), "place")
    assert not hold.nailing.nailers
    assert [e.end for e in hold.nailing.loose] == ["left", "right"]
    assert [e.past_mm for e in hold.nailing.loose] == pytest.approx([377.5, 377.5], abs=1.5)
    assert {f.code for f in hold.findings} >= {"ends-loose"}


def test_nailers_are_cut_screwed_and_in_before_the_boards():
    job = boarded(Boarding(runs="along"), facts=(OUTLET,))
    hold = solve_hold(job, "place")
    pieces = sum(len(n.rows) for n in hold.nailing.nailers)
    assert pieces == 2 + 2 + 2
    assert sum(f.part == "nailer" for f in hold.fasteners) == 4 * pieces
    assert sum(p.quantity for p in hold.parts if p.role == "nailer") == pieces
    planned = solve_order(job, datetime(2026, 11, 2, 8, tzinfo=UTC))
    turn = {s.step.kind: n for n, s in enumerate(planned.steps)}
    assert turn["cut"] < turn["hang on"] < turn["line"]
    step = next(s.step for s in planned.steps if s.step.kind == "hang on")
    assert step.name == "Put in what Unit B is nailed to"


def _studs(*middles: float) -> tuple[Any, ...]:
    return tuple(
        found(x + off, sees) for x in middles for off, sees in ((-22.5, "left edge"), (22.5, "right edge"))
    ) + tuple(found(x, "screw", "magnet") for x in middles)


def test_past_where_the_wall_ends_nothing_is_put_in():
    """Boards to 2000 and a wall to 1500: its last stud at 1000 leaves 477.5 of it loose, so a nailer ends at 1500."""
    ends = WallOpening(id="e", name="End", kind="no wall", x_mm=1500.0, width_mm=500.0, height_mm=2400.0)
    hold = solve_hold(boarded(Boarding(runs="along"), openings=(ends,)), "place")
    assert sorted(put_in(hold)) == ["end-left", "end-right"]
    assert max(n.high[0] for n in hold.nailing.nailers) == pytest.approx(1500.0)
