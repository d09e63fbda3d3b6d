"""What is in the way: holes that would land on it, and units that stand before it."""

from __future__ import annotations

import pytest
from msgspec.structs import replace

from tests.catalogue import PLUMB, WHEN, box, floor_at, grid, job_of, offset
from wobble.core.errors import DocumentError
from wobble.core.formats.document import read_job, write_job
from wobble.core.job import Job, Obstacle
from wobble.core.stages import solve_fit

WALL = [
    replace(offset(f"w{x}{z}", "back", (x, z), 500.0), set_up=PLUMB.id)
    for x in (0.0, 800.0, 1600.0)
    for z in (50.0, 400.0, 700.0)
]
FLOOR = floor_at(grid(1600, 560, 5, 3), lambda x, y: 0.0)
UNIT = box("A", x=100.0, width=600.0, support_inset_mm=50.0, fixing_heights_mm=(650.0,))  # fixings at x = 150 and 650


def obstacle(**more: object) -> Obstacle:
    plain = {
        "id": "m",
        "name": "Outlet",
        "kind": "outlet",
        "surface": "back",
        "at": (900.0, 200.0),
        "size": (86.0, 86.0),
    }
    return Obstacle(taken_at=WHEN, **(plain | more))  # type: ignore[arg-type]


def job(*obstacles: Obstacle) -> Job:
    return job_of(*FLOOR, *WALL, units=(UNIT,), width=1600.0, obstacles=obstacles)


def told(*obstacles: Obstacle, **unit: object) -> dict[str, str]:
    """Return the severity of each answer to the obstacles, by its code."""
    found = job(*obstacles)
    found = replace(found, places=(replace(found.places[0], units=(replace(UNIT, **unit),)),))
    return {c.code: c.severity for c in solve_fit(found, "place").cutouts}


@pytest.mark.parametrize(
    ("made", "expected"),
    [
        (obstacle(), {}),
        (obstacle(at=(120.0, 600.0)), {"outlet-buried": "stop"}),
        (obstacle(at=(120.0, 600.0), treatment="access hole"), {"access-hole": "fine"}),
        (obstacle(at=(120.0, 600.0), treatment="remove"), {"taken-out": "mind"}),
        (obstacle(at=(120.0, 200.0), kind="vent"), {"vent-buried": "stop"}),
        (obstacle(at=(120.0, 200.0), kind="vent", treatment="duct"), {"vent-ducted": "fine"}),
        (obstacle(at=(120.0, 200.0), kind="radiator"), {"radiator-covered": "stop"}),
        (obstacle(surface="floor", at=(300.0, 100.0), kind="pipe"), {"access-panel": "mind"}),
        # 24 beside its end is too little for a hand, 30 is told, 300 is nobody's business
        (obstacle(at=(724.0, 300.0), kind="spout"), {"beside-tight": "mind"}),
        (obstacle(at=(730.0, 300.0), kind="spout"), {"beside-clear": "fine"}),
        (obstacle(at=(1000.0, 300.0), kind="spout"), {}),
    ],
)
def test_where_an_obstacle_stands_decides(made, expected):
    assert told(made) == expected


def test_what_the_wall_has_concerns_only_what_stands_before_it_closely():
    """A frame 560 out is met by no outlet of the back wall; backs held 20 off pass a skirting of 18."""
    outlet, board = (
        obstacle(at=(120.0, 600.0)),
        obstacle(kind="skirting", at=(0.0, 0.0), size=(1600.0, 95.0), proud_mm=18.0),
    )
    assert told(outlet, out_mm=560.0, depth_mm=19.0, kind="face frame") == {}
    assert told(board) == {"skirting-hold-back": "mind"}
    assert told(board, out_mm=20.0) == {"skirting-clear": "fine"}


def test_what_is_marked_out_stays_on_the_unit():
    """A column 2000 long and higher than the unit is notched out of the 600 × 720 that there are."""
    column = obstacle(kind="column", at=(0.0, -1106.0), size=(2000.0, 3000.0), proud_mm=50.0)
    sizes = {s.label: s.mm for s in solve_fit(job(column), "place").cutouts[0].sizes}
    assert sizes["from its left edge"] == 0.0
    assert sizes["from its underside"] == 0.0
    assert (sizes["wide"], sizes["high"]) == (600.0, 720.0)
    assert sizes["deep into it"] == 55.0


def test_the_caution_of_each_kind_stands_beside_it():
    valve = obstacle(id="v", name="Valve", kind="valve", at=(400.0, 300.0))
    made = solve_fit(job(obstacle(at=(120.0, 600.0)), valve), "place").findings
    cautions = {f.title.split(" at ")[0]: f.caution for f in made if f.code in ("outlet-buried", "access-panel")}
    assert "licensed electrician" in cautions["Outlet"]
    assert "bumped open" in cautions["Valve"]


def test_marks_are_part_of_the_document_and_checked():
    whole = job(
        obstacle(at=(120.0, 600.0)),
        obstacle(id="n", kind="skirting", at=(0.0, 0.0), size=(1600.0, 95.0), proud_mm=18.0),
    )
    assert read_job(write_job(whole)) == whole
    for bad, path in (
        (obstacle(at=(5000.0, 100.0)), "$.places[0].facts[24].at"),
        (obstacle(surface="left"), "$.places[0].facts[24].surface"),
    ):
        with pytest.raises(DocumentError) as fault:
            read_job(write_job(job(bad)))
        assert fault.value.path == path
