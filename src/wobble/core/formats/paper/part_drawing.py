"""A part as drawings to work from: SVG and DXF at full size, and tiles to print, each face with holes by itself."""

from __future__ import annotations

import io
from collections.abc import Iterator
from xml.sax.saxutils import escape

from wobble.core.formats.paper.cutting import KEPT_MM, TILE_MM, Point, Tile, bar, starts, tile_page, written
from wobble.core.formats.paper.part_faces import Face, cut_size, faces
from wobble.core.length import LengthUnit, format_length
from wobble.core.make.marked import MarkedPart


def part_words(one: MarkedPart, face: Face, units: LengthUnit) -> tuple[str, ...]:
    """Return what is written on a drawing so that nobody drills a mirror image."""
    up = f"{face.name} up" if face.name else "Seen from its face"
    size = " × ".join(format_length(mm, units) for mm in cut_size(one.part))
    words = [
        f"{one.mark} · {one.part.name}, {size}",
        f"{up}; its {face.near} lies nearest to you." if face.near else up,
    ]
    if one.part.curve is not None:
        words.append(f"{one.part.curve.words}.")
    for use in dict.fromkeys(h.use for h in face.holes):
        mine = [h for h in face.holes if h.use == use]
        through = "through" if mine[0].deep_mm <= 0 else f"{format_length(mine[0].deep_mm, units)} deep"
        sizes = " × ".join(format_length(mm, units) for mm in mine[0].size[: 1 if mine[0].round else 2])
        words.append(f"{use}: {len(mine)} of {sizes}, {through}.")
    return tuple(words)


def part_svg(one: MarkedPart, units: LengthUnit = "mm") -> str:
    """Return a part as SVG whose units are millimetres, its faces one under the other."""
    body: list[str] = []
    y, width = KEPT_MM, 0.0
    for face in faces(one.part):
        high = max(p[1] for p in face.outline)
        words = part_words(one, face, units)
        body += _drawn(face, KEPT_MM, y + high)
        body += written(words, KEPT_MM, y + high + 8.0)
        y += high + 8.0 * (len(words) + 2)
        width = max(width, max(p[0] for p in face.outline) + 2 * KEPT_MM)
    height = y + KEPT_MM
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width:.3f} {height:.3f}">'
    )
    title = f"<title>{escape(f'{one.mark} {one.part.name}')}</title>"
    return "\n".join([head, title, *body, *bar(KEPT_MM, height - 3.0), "</svg>", ""])


def _drawn(face: Face, left: float, foot: float) -> Iterator[str]:
    """Yield a face with its near edge at a height of the paper, which counts from above."""
    points = "L".join(f"{left + x:.3f},{foot - y:.3f}" for x, y in face.outline)
    yield f'<path class="cut" d="M{points}Z" fill="none" stroke="#000" stroke-width="0.3"/>'
    for hole in face.holes:
        x, y = left + hole.at[0], foot - hole.at[1]
        if hole.round:
            r = hole.size[0] / 2
            yield f'<circle cx="{x:.3f}" cy="{y:.3f}" r="{r:.3f}" fill="none" stroke="#000" stroke-width="0.2"/>'
        else:
            a, b = hole.size
            yield (
                f'<rect x="{x - a / 2:.3f}" y="{y - b / 2:.3f}" width="{a:.3f}" height="{b:.3f}" fill="none" '
                'stroke="#000" stroke-width="0.3"/>'
            )
        reach = max(hole.size) / 2 + 3.0
        d = f"M{x - reach:.3f},{y:.3f}h{2 * reach:.3f}M{x:.3f},{y - reach:.3f}v{2 * reach:.3f}"
        yield f'<path d="{d}" fill="none" stroke="#1a4fb8" stroke-width="0.15"/>'


def part_dxf(one: MarkedPart, units: LengthUnit = "mm") -> str:
    """Return a part as DXF in millimetres: layers OUTLINE, HOLES and NOTES, its faces one over the other."""
    # only here: it takes tens of megabytes that a server which draws no parts need not hold
    from ezdxf import units as dxf_units
    from ezdxf.filemanagement import new as new_drawing

    document = new_drawing("R2010", units=dxf_units.MM)
    for name, colour in (("OUTLINE", 7), ("HOLES", 1), ("NOTES", 8)):
        document.layers.add(name, color=colour)
    space = document.modelspace()
    up = 0.0
    for face in faces(one.part):
        space.add_lwpolyline([(x, y + up) for x, y in face.outline], close=True, dxfattribs={"layer": "OUTLINE"})
        for hole in face.holes:
            x, y = hole.at[0], hole.at[1] + up
            if hole.round:
                space.add_circle((x, y), hole.size[0] / 2, dxfattribs={"layer": "HOLES"})
            else:
                a, b = (side / 2 for side in hole.size)
                box = [(x - a, y - b), (x + a, y - b), (x + a, y + b), (x - a, y + b)]
                space.add_lwpolyline(box, close=True, dxfattribs={"layer": "HOLES"})
        words = part_words(one, face, units)
        for i, line in enumerate(words):
            space.add_text(line, height=5.0, dxfattribs={"layer": "NOTES"}).set_placement((0.0, up - 15.0 - 8.0 * i))
        up += max(y for _, y in face.outline) + 8.0 * (len(words) + 5)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def part_tiles(one: MarkedPart, units: LengthUnit = "mm") -> tuple[Tile, ...]:
    """Return the pages on which a part's holes and cut corners print at full size; pages with neither are left out.

    Each overlaps the next by ten millimetres, and says from where on the part it is.
    """
    every = [(face, x, y) for face in faces(one.part) for x, y in _pages(face)]
    pages = []
    for i, (face, x, y) in enumerate(every):
        name = f"{i + 1} of {len(every)}"
        words = part_words(one, face, units)
        left, foot = 10.0 - x, y + TILE_MM[1] + 10.0
        place = f"Page {name}: from {format_length(x, units)} along, {format_length(y, units)} up from its near edge."
        pages.append(
            Tile(name, tile_page("".join(_drawn(face, left, foot)), f"{one.mark}: {face.name}", (place, *words[:2])))
        )
    return tuple(pages)


def _pages(face: Face) -> Iterator[Point]:
    """Yield the near left corners of the tiles of a face that are worth printing."""
    xs, ys = zip(*face.outline, strict=True)
    marks = [*(h.at for h in face.holes), *face.cut]
    for y in starts(min(ys), max(ys), TILE_MM[1]):
        for x in starts(min(xs), max(xs), TILE_MM[0]):
            if any(x <= a <= x + TILE_MM[0] and y <= b <= y + TILE_MM[1] for a, b in marks):
                yield x, y
