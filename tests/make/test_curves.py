"""Curved edges: the trammel by chord and rise, marks that lie on its circle, where they are drawn and told."""

from __future__ import annotations

import itertools
import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from tests.rooms import SHELF, A, Room
from tests.setout.places import job_of, laid, piece, place_of
from wobble.core import solve
from wobble.core.errors import DocumentError
from wobble.core.formats.document import read_job, write_job
from wobble.core.formats.paper.part_faces import faces
from wobble.core.job import Curve
from wobble.core.job.board import Board
from wobble.core.make.construction.units import place_parts
from wobble.core.setout.curves import cut_at, marks, radius_mm
from wobble.core.stages.making import parts_of

ARCH = Curve(edge="upper", rise_mm=100.0)
PANEL = piece("P", 0.0, 800.0, kind="panel", height_mm=1200.0, depth_mm=18.0, ready_made=False)


def test_a_chord_of_800_that_rises_100_is_struck_by_850():
    """R = (800² / 4 + 100²) / 200 = 170000 / 200; at a quarter √(850² − 200²) − 750 = 76.1 are left of the rise."""
    assert radius_mm(800.0, 100.0) == pytest.approx(850.0)
    assert cut_at(ARCH, 800.0, 400.0) == pytest.approx(0.0)
    assert cut_at(ARCH, 800.0, 0.0) == pytest.approx(100.0)
    assert cut_at(ARCH, 800.0, 200.0) == pytest.approx(100.0 - 76.14, abs=0.01)
    hollow = Curve(edge="lower", rise_mm=100.0, way="in")
    assert cut_at(hollow, 800.0, 200.0) == pytest.approx(76.14, abs=0.01)


@given(st.floats(200.0, 4000.0), st.floats(0.01, 0.5), st.sampled_from(("out", "in")))
def test_every_mark_lies_on_one_circle_and_both_halves_are_alike(chord, share, way):
    curve = Curve(edge="front", rise_mm=share * chord, way=way)
    found = marks(curve, chord)
    radius = radius_mm(chord, curve.rise_mm)
    for at, off in found:
        over = off if way == "in" else curve.rise_mm - off
        assert math.dist((at, over), (chord / 2, curve.rise_mm - radius)) == pytest.approx(radius, rel=1e-9)
    # where half a circle meets its chord it runs upright: the last digit of a place is worth a hundred thousandth there
    assert [off for _, off in found] == pytest.approx([off for _, off in reversed(found)], abs=1e-4)
    assert max(b[0] - a[0] for a, b in itertools.pairwise(found)) <= 100.0 + 1e-6


def test_an_arched_panel_is_told_marked_and_drawn():
    place = place_of(replace(PANEL, curve=ARCH))
    (told,) = [f for f in laid(place).findings if f.code == "curved"]
    assert told.figure is not None
    assert told.figure.value_mm == pytest.approx(850.0)
    (part,) = [p for p in place_parts(job_of(place), place, {}) if p.role == "panel"]
    assert part.curve is not None
    assert "trammel 850 mm" in part.curve.words
    assert part.blank_mm == (1200.0, 800.0)
    (face,) = faces(part)
    # it stands 1200 high and is drawn lying, its head at the right: the crown keeps its height, both corners lose 100
    assert max(x for x, _ in face.outline) == pytest.approx(1200.0, abs=0.01)
    ends = [x for x, y in face.outline if x > 600 and (y < 0.01 or y > 799.99)]
    assert ends == pytest.approx([1100.0, 1100.0])
    closed = (*face.outline, face.outline[0])
    area = abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in itertools.pairwise(closed))) / 2
    half = math.asin(400.0 / 850.0)
    segment = 850.0**2 * (half - math.sin(2 * half) / 2)
    assert area == pytest.approx(1100.0 * 800.0 + segment, rel=1e-5)


def test_an_end_panel_is_arched_over_its_depth():
    """18 along, 500 out and 860 up, its head rising 50: struck by 500² / 400 + 25 = 650."""
    end = piece(
        "E", 0.0, 18.0, kind="panel", height_mm=860.0, ready_made=False, curve=Curve(edge="upper", rise_mm=50.0)
    )
    place = place_of(end)
    (part,) = [p for p in place_parts(job_of(place), place, {}) if p.role == "panel"]
    assert part.curve is not None
    assert part.curve.radius_mm == pytest.approx(650.0)
    (face,) = faces(part)
    assert max(x for x, _ in face.outline) == pytest.approx(860.0, abs=0.01)
    assert max(y for _, y in face.outline) == pytest.approx(500.0)
    assert face.near == "back edge"  # its right face up, head at the right


def test_a_bowed_top_has_its_marks_in_the_parts_list_and_is_as_stiff_as_its_ends():
    plain = Room(units=(A, replace(SHELF, kind="top", board=Board(load_kg_per_m=60.0))))
    bowed = Room(
        units=(A, replace(SHELF, kind="top", board=Board(load_kg_per_m=60.0), curve=Curve(edge="front", rise_mm=90.0)))
    )
    parts, _ = parts_of(bowed.job, bowed.job.places[0].id)
    (top,) = [p for p in parts if p.role == "top"]
    assert top.curve is not None
    assert top.curve.curve.edge == "front"
    stiff, weak = (solve(r.job).places[0].fit.flats[0].sag for r in (plain, bowed))
    assert stiff is not None
    assert weak is not None
    # 300 deep, 210 at its ends; its own weight is less there too, and hardly counts beside the load
    assert weak.at_first.value_mm / stiff.at_first.value_mm == pytest.approx(300 / 210, rel=0.1)


def test_more_than_half_a_circle_is_a_stop_and_has_no_part_of_a_circle():
    place = place_of(replace(PANEL, curve=replace(ARCH, rise_mm=500.0)))
    assert {f.code for f in laid(place).findings if f.severity == "stop"} >= {"curve-too-round"}
    (part,) = [p for p in place_parts(job_of(place), place, {}) if p.role == "panel"]
    assert part.curve is None


def test_an_edge_that_a_kind_does_not_have_is_refused_with_its_path():
    bad = job_of(place_of(replace(PANEL, curve=Curve(edge="front", rise_mm=50.0))))
    with pytest.raises(DocumentError, match="front edge of a panel") as refused:
        read_job(write_job(bad))
    assert refused.value.path.endswith("units[0].curve.edge")
    assert "upper or lower" in refused.value.mend
    good = job_of(place_of(replace(PANEL, curve=ARCH)))
    assert msgspec.json.encode(read_job(write_job(good)).places) == msgspec.json.encode(good.places)
