"""Cut lines as files: at full size, the right way round, with a bar that measures."""

from __future__ import annotations

import io
import re
import xml.etree.ElementTree as ET

import ezdxf
import numpy as np
import pytest

from wobble.core.fit.scribe.line import Hand, LinePoint, Scribe
from wobble.core.formats.paper.cutting import (
    OVERLAP_MM,
    TILE_MM,
    cut_drawing,
    scribe_dxf,
    scribe_svg,
    scribe_words,
    tiles,
)

SVG = "{http://www.w3.org/2000/svg}"


def line(hand: Hand = "left", *, flat: bool = False, long: float = 2000.0) -> Scribe:
    """A piece 60 wide at its start and 75 at its end."""
    points = ((0.0, 60.0), (long / 2, 64.0), (long, 75.0))
    return Scribe(
        id="s",
        piece="left filler at A & B",
        edge="left edge",
        surface="left",
        start=(500.0, 0.0),
        end=(500.0, long),
        along="up from its foot",
        long_mm=long,
        line=tuple(LinePoint(along_mm=a, left_mm=m, sd_mm=0.5) for a, m in points),
        compass_mm=18.0,
        needed_mm=18.0,
        there_mm=0.0,
        blank_mm=80.0,
        bevel_deg=4.2,
        hand=hand,
        thick_mm=19.0,
        flat=flat,
    )


def path_points(svg: ET.Element, name: str) -> np.ndarray:
    path = next(p for p in svg.iter(f"{SVG}path") if p.get("class") == name)
    return np.array([[float(x) for x in pair.split(",")] for pair in re.split("[ML]", path.get("d", ""))[1:]])


@pytest.mark.parametrize(("hand", "sign"), [("left", -1.0), ("right", 1.0)])
def test_the_cut_lies_on_the_side_of_the_wall(hand, sign):
    """Seen from the face with its foot down, the wider end is at the top, and the wall's side is that of the cut."""
    drawing = cut_drawing(line(hand))
    (x0, y0), *_, (x1, y1) = drawing.line
    assert (y0, y1) == (0.0, 2000.0)
    assert sign * (x1 - x0) == pytest.approx(15.0)
    assert drawing.from_edge_mm == 50.0
    assert sign * x0 == pytest.approx(10.0)
    words = " ".join(scribe_words(line(hand), "mm"))
    assert f"FACE UP. The wall is at the {hand}" in words


def test_a_left_and_a_right_piece_are_mirror_images():
    left, right = np.array(cut_drawing(line("left")).line), np.array(cut_drawing(line("right")).line)
    assert np.allclose(left * [-1, 1], right)
    assert not np.allclose(left, right)
    flat = np.array(cut_drawing(line("left", flat=True)).line)
    assert np.allclose(flat * [1, -1], left), "a top is seen from above: its back, where lengths start, is far away"


def test_the_svg_is_in_millimetres_and_has_a_bar_of_a_hundred():
    svg = ET.fromstring(scribe_svg(line()))  # noqa: S314 - our own
    width, height = (float((svg.get(k) or "").removesuffix("mm")) for k in ("width", "height"))
    assert svg.get("viewBox") == f"0 0 {width:.3f} {height:.3f}"
    cut = path_points(svg, "cut")
    assert np.ptp(cut[:, 1]) == pytest.approx(2000.0)
    assert np.ptp(cut[:, 0]) == pytest.approx(15.0)
    assert np.abs(cut[:, 0].max() - path_points(svg, "reference")[0, 0]) == pytest.approx(10.0)
    bar = next(p for p in svg.iter(f"{SVG}path") if p.get("class") == "bar")
    assert "h100.0" in (bar.get("d") or "")
    assert "A & B" in "".join(t.text or "" for t in svg.iter(f"{SVG}text"))


def test_the_dxf_opens_and_holds_the_line_in_millimetres():
    document = ezdxf.read(io.StringIO(scribe_dxf(line("right")).decode()))  # type: ignore[attr-defined]
    assert document.units == 4  # millimetres
    (cut,) = document.modelspace().query('LWPOLYLINE[layer=="CUT"]')
    points = np.array([(x, y) for x, y, *_ in cut.get_points()])  # type: ignore[attr-defined]
    assert np.allclose(points, [(10.0, 0.0), (14.0, 1000.0), (25.0, 2000.0)])
    (reference,) = document.modelspace().query('LINE[layer=="REFERENCE"]')
    assert (reference.dxf.start.x, reference.dxf.end.y) == (0.0, 2000.0)


@pytest.mark.parametrize("scribe", [line(), line("far", long=900.0), line("right", flat=True)])
def test_the_tiles_show_the_whole_line_at_full_size(scribe):
    """Every page drawn back to where it lies: together their clipped pieces hold every spot of the line."""
    drawing, pages = cut_drawing(scribe), tiles(scribe)
    spots = [
        (x0 + (x1 - x0) * t, y0 + (y1 - y0) * t)
        for (x0, y0), (x1, y1) in zip(drawing.line, drawing.line[1:], strict=False)
        for t in np.linspace(0, 1, 60)
    ]
    covered = np.zeros(len(spots), dtype=bool)
    for page in pages:
        svg = ET.fromstring(page.svg)  # noqa: S314 - our own
        assert (svg.get("width"), svg.get("height")) == ("190.0mm", "258.0mm")
        shift = path_points(svg, "cut")[0] - np.array([drawing.line[0][0], -drawing.line[0][1]])
        on_page = np.array([(x, -y) for x, y in spots]) + shift
        inside = (on_page >= 10 - 1e-6) & (on_page <= np.array(TILE_MM) + 10 + 1e-6)
        covered |= inside.all(axis=1)
    assert covered.all()
    assert pages[0].name == f"1 of {len(pages)}"
    assert OVERLAP_MM > 0
