"""Scans from files: the same points in every form, thinned to medians, with their faults named."""

from __future__ import annotations

import struct

import numpy as np
import pytest

from tests.catalogue import LINE, RULE, WHEN, floor_at, grid, job_of
from wobble.core.errors import DocumentError
from wobble.core.facts import Scan
from wobble.core.formats.scan import MOST_POINTS, read_points, thin
from wobble.core.stages import survey_of

POINTS = np.array([[100.0, 50.0, -2.5], [900.0, 550.0, 3.25], [2500.0, 300.0, 0.0]])
PLACE = job_of().places[0]


def ply(form: str, body: bytes, fields: str = "property float x\nproperty float y\nproperty float z\n") -> bytes:
    return f"ply\nformat {form} 1.0\ncomment made up\nelement vertex 3\n{fields}end_header\n".encode() + body


ROWS = "\n".join(" ".join(str(c) for c in p) for p in POINTS)
FORMS = {
    "xyz": ROWS.encode(),
    "csv": b"x,y,z,red\n" + "\n".join(",".join(str(c) for c in (*p, 200)) for p in POINTS).encode(),
    "csv with decimal commas": b"x;y;z\n"
    + "\n".join(";".join(str(c).replace(".", ",") for c in p) for p in POINTS).encode(),
    "ascii": ply("ascii", ROWS.encode()),
    "little": ply("binary_little_endian", b"".join(struct.pack("<fff", *p) for p in POINTS)),
    "big": ply("binary_big_endian", b"".join(struct.pack(">fff", *p) for p in POINTS)),
    "with colour": ply(
        "binary_little_endian",
        b"".join(struct.pack("<dBddH", p[0], 7, p[1], p[2], 9) for p in POINTS),
        "property double x\nproperty uchar red\nproperty double y\nproperty double z\nproperty ushort n\n",
    ),
}


@pytest.mark.parametrize("form", FORMS)
def test_every_form_gives_the_same_points(form):
    assert read_points(FORMS[form], "scan") == pytest.approx(POINTS, abs=1e-4)
    assert read_points(FORMS[form], "scan", mm_per_unit=25.4) == pytest.approx(POINTS * 25.4, abs=1e-2)


@pytest.mark.parametrize(
    ("data", "word"),
    [
        (b"", "no points"),
        (b"\xff\xfe\x00\x01\x02", "neither"),
        (b"1 2 3\n4 five 6\n", "three numbers"),
        (b"1 2\n3 4\n", "three numbers"),
        (b"ply\nformat ascii 1.0\n", "no end"),
        (ply("binary_little_endian", b"\0" * 20), "ends before"),
        (ply("binary_pdp", b"\0" * 36), "no PLY format"),
        (ply("ascii", b"1 2 3\n", "property float x\nproperty float y\n"), "no x, y and z"),
        (ply("ascii", b"1 2 oops\n" * 3), "does not hold"),
    ],
)
def test_a_fault_is_told_with_the_mend(data, word):
    with pytest.raises(DocumentError, match=word) as fault:
        read_points(data, "wall.xyz")
    assert fault.value.mend
    assert fault.value.path.startswith("wall.xyz")


def test_thinning_keeps_the_surface_and_drops_stray_points():
    """20 000 points on a floor at −0.004·x, one in fifty 300 too high: the medians lie on the floor all the same."""
    rng = np.random.default_rng(8)
    n = 20_000
    xy = rng.uniform((-200, 0), (3000, 600), (n, 2))
    z = -0.004 * xy[:, 0] + rng.normal(0, 1.0, n)
    z[rng.random(n) < 0.02] += 300.0
    found = thin(np.column_stack([xy, z]), PLACE, "floor")
    assert found.n_read == n
    assert found.n_outside == pytest.approx(n * 200 / 3200, rel=0.1)
    assert 100 < len(found.points) <= MOST_POINTS
    points = np.asarray(found.points)
    assert -points[:, 2] == pytest.approx(-0.004 * points[:, 0], abs=1.5)


def test_a_wall_is_thinned_on_its_own_axes():
    points = np.column_stack([np.full(50, 1000.0), np.full(50, 12.0), np.linspace(10, 2000, 50)])
    found = thin(points, PLACE, "back")
    assert {round(x) for x, _, _ in found.points} == {1000}
    assert all(d == pytest.approx(-12.0) for _, _, d in found.points)
    assert len(found.points) > 10


def test_scans_past_what_is_adjusted_together_are_thinned_and_said():
    """Five scans of 2000 points and 30 readings: all readings stay, at most 1200 numbers, the floor as it is."""
    rng = np.random.default_rng(5)
    spots = rng.uniform((0.0, 0.0), (3000.0, 600.0), (5, 2000, 2))
    scans = tuple(
        Scan(
            id=f"s{i}",
            instrument=RULE.id,
            taken_at=WHEN,
            surface="floor",
            set_up=LINE.id,
            points=tuple((float(x), float(y), 1000.0 - 0.002 * float(x)) for x, y in one),
        )
        for i, one in enumerate(spots)
    )
    job = job_of(*floor_at(grid(3000, 600, 10, 3), lambda x, y: 0.002 * x), *scans)
    found = survey_of(job, "place")
    assert len(found.adjustment.observations) <= 1200
    assert [(t.reading_id, t.of) for t in found.thinned] == [(f"s{i}", 2000) for i in range(5)]
    assert sum(t.used for t in found.thinned) + 30 == len(found.adjustment.observations)
    assert found.adjustment.mean(("floor", np.array([[1500.0, 300.0]])))[0] == pytest.approx(3.0, abs=0.2)
