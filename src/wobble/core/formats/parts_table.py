"""Parts as CSV, and sheets as SVG and DXF at full size: for whoever cuts elsewhere."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from html import escape

from wobble.core.length import LengthUnit, spoken
from wobble.core.make.layout.laid import LaidSheet
from wobble.core.make.marked import MarkedPart
from wobble.core.make.stock import material_of
from wobble.core.part import Groove

PART_COLUMNS = (
    "mark",
    "name",
    "quantity",
    "length_mm",
    "width_mm",
    "thickness_mm",
    "material",
    "grain",
    "state",
    "waits for",
    "banded",
    "holes",
    "grooves",
    "joined",
    "cut off",
)
RULE_COLUMNS = ("length", "width", "thickness")
"""In inches the sizes once more, on the marks of a rule."""


def _groove(g: Groove, units: LengthUnit) -> str:
    wide, deep, off = (spoken(mm, units) for mm in (g.wide_mm, g.deep_mm, g.from_mm))
    return f"{g.kind} {wide} × {deep}, {off} from {g.edge}"


def write_parts(parts: Sequence[MarkedPart], units: LengthUnit) -> str:
    """Return a parts list as CSV: its first columns are those that `wobble cut` reads, the last as the rule reads."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow((*PART_COLUMNS, *(RULE_COLUMNS if units == "in" else ())))
    for one in parts:
        part = one.part
        writer.writerow(
            (
                one.mark,
                part.name,
                part.quantity,
                f"{part.blank_mm[0]:.1f}",
                f"{part.blank_mm[1]:.1f}",
                f"{part.thick_mm:g}",
                material_of(part),
                part.grain,
                one.state,
                "; ".join(part.ready),
                ", ".join(part.banded),
                "; ".join(d.words for d in part.drillings),
                "; ".join(_groove(g, units) for g in part.grooves),
                part.joins,
                part.corner.words if part.corner is not None else "",
                *((spoken(mm, units) for mm in (*part.blank_mm, part.thick_mm)) if units == "in" else ()),
            )
        )
    return out.getvalue()


def sheet_svg(sheet: LaidSheet, number: int) -> str:
    """Return a sheet as SVG at full size, x along its length, with every part's mark."""
    w, h = sheet.long_mm, sheet.wide_mm
    lines = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{w:g}mm" height="{h:g}mm" viewBox="0 0 {w:g} {h:g}">',
        f"<title>Sheet {number}, {escape(sheet.name)}</title>",
        f'<rect width="{w:g}" height="{h:g}" fill="none" stroke="black"/>',
    ]
    for part in sheet.parts:
        a, b = (part.wide_mm, part.long_mm) if part.turned else (part.long_mm, part.wide_mm)
        y = h - part.y_mm - b  # paper counts from above
        lines.append(
            f'<rect x="{part.x_mm:.3f}" y="{y:.3f}" width="{a:.3f}" height="{b:.3f}" fill="none" stroke="black"/>'
        )
        lines.append(f'<text x="{part.x_mm + 8:.1f}" y="{y + 34:.1f}" font-size="28">{escape(part.mark)}</text>')
    return "\n".join((*lines, "</svg>", ""))


def sheet_dxf(sheet: LaidSheet) -> str:
    """Return a sheet as DXF in millimetres: outline and parts on layers of their own."""
    from ezdxf import units
    from ezdxf.filemanagement import new

    doc = new("R2010", setup=False)
    doc.units = units.MM
    doc.header["$MEASUREMENT"] = 1
    space = doc.modelspace()

    def rect(x: float, y: float, w: float, h: float, layer: str) -> None:
        points = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
        space.add_lwpolyline(points, close=True, dxfattribs={"layer": layer})

    rect(0, 0, sheet.long_mm, sheet.wide_mm, "SHEET")
    for part in sheet.parts:
        a, b = (part.wide_mm, part.long_mm) if part.turned else (part.long_mm, part.wide_mm)
        rect(part.x_mm, part.y_mm, a, b, "PARTS")
        space.add_text(part.mark, height=20, dxfattribs={"layer": "MARKS"}).set_placement(
            (part.x_mm + 8, part.y_mm + 8)
        )
    out = io.StringIO()
    doc.write(out)
    return out.getvalue()
