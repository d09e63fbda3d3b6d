"""What is in the way: holes that would land on it, and units that stand before it."""

from __future__ import annotations

import pytest
from msgspec.structs import replace

from tests.catalogue import PLUMB, WHEN, box, floor_at, grid, job_of, offset
from wobble.core.errors import DocumentError
from wobble.core.formats.document import read_job, write_job
from wobble.core.job import Job, Obstacle
from wobble.core.solve import solve_fit

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


def findings(*obstacles: Obstacle) -> dict[str, str]:
    """Return the worst obstacle of each finding about the obstacles."""
    found = [f for f in solve_fit(job(*obstacles), "place").findings if f.code.startswith(("drills-into", "around"))]
    return {"behind" if f.code.startswith("around") else f.code: f.severity for f in reversed(found)}


@pytest.mark.parametrize(
    ("made", "expected"),
    [
        (obstacle(), {}),
        (obstacle(at=(120.0, 600.0)), {"drills-into": "stop", "behind": "mind"}),
        (
            obstacle(at=(120.0, 200.0)),
            {"drills-into": "mind", "behind": "mind"},
        ),  # straight below the left fixing: its wires
        (obstacle(at=(120.0, 200.0), kind="vent"), {"behind": "mind"}),
        (obstacle(at=(900.0, 620.0)), {"drills-into": "mind"}),  # sideways of both
        (obstacle(at=(900.0, 620.0), kind="casing"), {}),
        # an outlet that is taken away leaves its wires in the wall; a casing leaves nothing
        (obstacle(at=(120.0, 600.0), treatment="remove"), {"drills-into": "mind", "behind": "mind"}),
        (obstacle(at=(120.0, 600.0), treatment="remove", kind="casing"), {"behind": "mind"}),
        (obstacle(surface="floor", at=(300.0, 100.0), kind="pipe"), {"behind": "mind"}),
    ],
)
def test_where_a_mark_stands_decides(made, expected):
    assert findings(made) == expected


def test_the_caution_of_each_kind_stands_beside_it():
    valve = obstacle(id="v", name="Valve", kind="valve", at=(400.0, 300.0))
    made = solve_fit(job(obstacle(at=(120.0, 600.0)), valve), "place").findings
    cautions = {f.title.split(" at ")[0]: f.caution for f in made if f.code.startswith("around")}
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
