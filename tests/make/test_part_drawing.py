"""Drawings of parts: which way round each face lies, checked in space; what prints, and what general readers read."""

from __future__ import annotations

import io
import re
from xml.etree import ElementTree as ET

import ezdxf
import pytest
from msgspec.structs import replace

from tests.rooms import SHELF, A, Room
from tests.setout.places import carcass, job_of, piece, place_of
from wobble.core.formats.paper.cutting import TILE_MM
from wobble.core.formats.paper.part_drawing import part_dxf, part_svg, part_tiles, part_words
from wobble.core.formats.paper.part_faces import Face, faces
from wobble.core.job import Angled, Cell, Curve, Door, Hole, Shelved
from wobble.core.job.board import Board
from wobble.core.make.construction.holes import with_holes
from wobble.core.make.construction.units import place_parts
from wobble.core.make.marked import MarkedPart
from wobble.core.part import Box, Drilling, Part
from wobble.core.stages.making import parts_of

SVG = "{http://www.w3.org/2000/svg}"
HIGH, DEEP, WIDE = 720.0, 500.0, 600.0


def board(role, hand="", face="inner face", at=(100.0, 40.0), size=(HIGH, DEEP), **more):
    """Return a part with one hole, 40 from its back or left edge and 100 from its lower or left end."""
    hole = Drilling(use="screw", face=face, diameter_mm=5.0, deep_mm=10.0, at=(at,), words="")
    given = {"id": "p", "role": role, "of": ("A",), "name": "part", "blank_mm": size, "hand": hand} | more
    return Part(drillings=(hole,), **given)


def seen(part: Part) -> Face:
    (face,) = faces(part)
    return face


@pytest.mark.parametrize(
    ("part", "at", "near"),
    [
        # a left side laid on its outer face, its lower end at the left: one stood inside it and turned it clockwise, so
        # that the wall, which was at the right hand, lies nearest
        (board("side", "left", "inner face"), (100.0, 40.0), "back edge"),
        (board("side", "right", "inner face"), (100.0, 460.0), "front edge"),
        (board("side", "left", "outer face of the left side"), (100.0, 460.0), "front edge"),
        (board("side", "right", "outer face of the right side"), (100.0, 40.0), "back edge"),
        (board("divider", "", "right face"), (100.0, 40.0), "back edge"),
        (board("divider", "", "left face"), (100.0, 460.0), "front edge"),
        # a door seen from behind, turned clockwise: its hinge edge, left as one faces it, lies nearest
        (board("door", "", "back face"), (100.0, 40.0), "left edge"),
        (board("door", "", "front face"), (100.0, 460.0), "right edge"),
        # a drawer front as it hangs, and a top with its front towards the reader
        (board("drawer front", "", "front face"), (100.0, 40.0), "lower edge"),
        (board("top", "", "the face that looks out"), (100.0, 460.0), "front edge"),
    ],
)
def test_a_face_is_drawn_as_it_lies_on_the_bench(part, at, near):
    face = seen(part)
    assert face.holes[0].at == at
    assert face.near == near


def test_pins_of_both_sides_are_mirror_images():
    place = place_of(carcass("A", WIDE, Cell(fill=Shelved(count=2)), ready_made=False))
    parts = place_parts(job_of(place), place, {})
    left, right = (next(p for p in parts if p.role == "side" and p.hand == hand) for hand in ("left", "right"))
    of = [next(f for f in faces(p) if f.name == "inner face") for p in (left, right)]
    wide = max(y for _, y in of[0].outline)
    pins = [sorted(h.at for h in f.holes if h.use == "shelf pin") for f in of]
    assert pins[0]
    assert sorted((x, wide - y) for x, y in pins[0]) == [pytest.approx(at) for at in pins[1]]


def test_an_angled_end_loses_its_corner_at_the_front_where_it_is():
    """A 600 bottom between sides of 18: 200 along and 300 deep at the right; 18 of the 200 lie in the side.

    Of a board 564 by 500 they leave 182 along its front and 182 · 1.5 = 273 back.
    """
    cut_back = Angled(end="right", along_mm=200.0, deep_mm=300.0)
    unit = carcass("A", WIDE, Cell(), ready_made=False, angled=cut_back)
    place = place_of(unit)
    bottom = next(p for p in place_parts(job_of(place), place, {}) if p.role == "bottom")
    outline = seen(bottom).outline
    assert bottom.corner is not None
    long, wide = bottom.boxes[0].wide_mm, bottom.boxes[0].deep_mm
    # the front lies nearest: at height 0
    assert (long, bottom.corner.deep_mm) == pytest.approx(max(p for p in outline if p[1] < wide))
    assert (long - bottom.corner.along_mm, 0.0) in [pytest.approx(p) for p in outline]
    assert (long, wide) in [pytest.approx(p) for p in outline]
    assert len(outline) == 5


def test_a_hole_in_a_top_is_as_wide_as_it_is_long():
    """120 along and 50 out, its corner 300 from the left and 80 from the back: its middle at 360 and 105."""
    top = piece("T", 0.0, 1800.0, kind="top", height_mm=30.0, depth_mm=600.0, ready_made=False)
    hole = Hole(id="h", name="Sink", kind="cut-out", inside="top", at=(300.0, 80.0), size=(120.0, 50.0))
    part = Part(
        id="t",
        role="top",
        of=("T",),
        name="top",
        blank_mm=(1800.0, 600.0),
        boxes=(Box(x_mm=0.0, y_mm=0.0, z_mm=0.0, wide_mm=1800.0, deep_mm=600.0, high_mm=30.0),),
    )
    (made,) = with_holes(replace(top, holes=(hole,)), (part,))
    (drilling,) = made.drillings
    assert drilling.at == ((360.0, 105.0),)
    assert drilling.size_mm == (120.0, 50.0)
    (drawn,) = seen(made).holes
    assert drawn.at == (360.0, 495.0)  # from the front, which lies nearest
    assert (drawn.size, drawn.round) == ((120.0, 50.0), False)


def test_a_top_that_fit_cuts_to_the_walls_has_its_cut_outs_in_the_parts_list():
    hole = Hole(id="h", name="Sink", kind="cut-out", inside="top", at=(300.0, 80.0), size=(120.0, 50.0))
    room = Room(units=(A, replace(SHELF, kind="top", holes=(hole,))))
    parts, _ = parts_of(room.job, room.job.places[0].id)
    (top,) = [p for p in parts if p.role == "top"]
    assert [d.words.split(":")[0] for d in top.drillings] == ["Sink"]
    assert "300 mm from the left end and 80 mm from the back edge" in top.drillings[0].words


def test_a_top_in_two_is_cut_out_and_curved_once_it_is_one():
    """Its hole is counted over the whole top: drawn on each half it would be cut twice, and once beside the wood."""
    hole = Hole(id="h", name="Sink", kind="cut-out", inside="top", at=(1000.0, 80.0), size=(120.0, 50.0))
    top = replace(
        SHELF, kind="top", board=Board(stock_mm=1000.0), holes=(hole,), curve=Curve(edge="front", rise_mm=60.0)
    )
    room = Room(units=(A, top))
    (part,) = [p for p in parts_of(room.job, room.job.places[0].id)[0] if p.role == "top"]
    assert part.quantity == 2
    assert part.drillings == ()
    assert part.curve is None
    assert part.joins.startswith("joined; Sink: ")
    assert "trammel" in part.joins


DOOR = carcass("A", WIDE, Cell(fill=Shelved(count=1), door=Door(hangs="left", hinge="cup")), ready_made=False)


def door() -> MarkedPart:
    place = place_of(DOOR)
    part = next(p for p in place_parts(job_of(place), place, {}) if p.role == "door")
    return MarkedPart(key="p/d", mark="A7", place="p", part=part, to_cut=1, state="now")


def test_the_files_hold_the_part_at_its_size_for_general_readers():
    one = door()
    long, wide = one.part.blank_mm
    cups = next(d for d in one.part.drillings if d.use == "hinge cup")
    drawn = ET.fromstring(part_svg(one))  # noqa: S314 - our own
    circles = [c for c in drawn.iter(f"{SVG}circle") if float(c.attrib["r"]) == cups.diameter_mm / 2]
    assert len(circles) == len(cups.at)
    outline = drawn.find(f"{SVG}path[@class='cut']")
    assert outline is not None
    xs = [float(x) for x, _ in re.findall(r"([\d.]+),([\d.]+)", outline.attrib["d"])]
    assert max(xs) - min(xs) == pytest.approx(long)
    document = ezdxf.filemanagement.read(io.StringIO(part_dxf(one)))
    assert document.units == 4  # millimetres
    holes = document.modelspace().query("CIRCLE[layer=='HOLES']")
    middles = sorted((round(c.dxf.center.x, 3), round(c.dxf.center.y, 3)) for c in holes if c.dxf.radius == 17.5)
    # seen from behind with the left edge nearest: as far from it as the cups say
    assert middles == sorted((round(x, 3), round(y, 3)) for x, y in cups.at)
    (outer,) = document.modelspace().query("LWPOLYLINE[layer=='OUTLINE']")
    corners = list(outer)  # type: ignore[call-overload]
    assert sorted({round(p[0], 3) for p in corners}) == [0.0, round(long, 3)]
    assert sorted({round(p[1], 3) for p in corners}) == [0.0, round(wide, 3)]


def test_every_hole_is_on_a_page_at_full_size_and_empty_pages_are_left_out():
    one = door()
    found = part_tiles(one)
    assert [t.name for t in found] == [f"{i + 1} of {len(found)}" for i in range(len(found))]
    cups = next(d for d in one.part.drillings if d.use == "hinge cup")
    whole = sum(-(-int(mm) // int(tile - 10)) for mm, tile in zip(one.part.blank_mm, TILE_MM, strict=True))
    assert 2 <= len(found) < whole  # two cups 520 apart, and nothing between or at the other edge
    shown = set()
    for tile in found:
        words = "".join(ET.fromstring(tile.svg).itertext())  # noqa: S314 - our own
        assert "This bar must measure 100 mm" in words
        x, y = (float(mm) for mm in re.search(r"from ([\d.]+) mm along, ([\d.]+) mm up", words).groups())  # type: ignore[union-attr]
        shown |= {at for at in cups.at if x <= at[0] <= x + TILE_MM[0] and y <= at[1] <= y + TILE_MM[1]}
    assert shown == set(cups.at)
    assert part_tiles(replace(one, part=replace(one.part, drillings=()))) == ()


def test_words_say_which_face_is_up_in_the_readers_units():
    one = door()
    (face,) = faces(one.part)
    words = part_words(one, face, "in")
    assert words[0].startswith("A7 · ")
    assert "back face up; its left edge lies nearest to you." in words
    assert not any("mm" in w for w in words)
