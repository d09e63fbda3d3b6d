"""Papers for the workshop as PDF: parts list, cut diagrams, settings, labels, shopping list; text can be searched.

Each page names the job, what it is, its number and its revision. A cut diagram states its scale, and bears a bar of
100 mm that is checked with a rule. The fonts are those every reader has: a sign that they lack is written out.
"""

from __future__ import annotations

import io
import math
from collections.abc import Callable
from itertools import groupby
from typing import Literal, get_args

from reportlab.graphics.barcode.qrencoder import QRCode, QRErrorCorrectLevel
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from wobble.core.formats.paper.pages import BOLD, MARGIN_MM, PLAIN, Job, Pages, plain, wrapped
from wobble.core.length import LengthUnit, spoken
from wobble.core.make.layout.laid import LaidSheet
from wobble.core.make.marked import MarkedPart
from wobble.core.make.result import Made
from wobble.core.make.stock import material_of
from wobble.core.part import Part

Paper = Literal["parts", "sheets", "settings", "labels", "shopping", "order"]
PAPERS: tuple[Paper, ...] = get_args(Paper)
CHECK_MM = 100.0
CODE_MM = 18.0
LABEL_MM, LABELS_ACROSS, LABELS_DOWN = (70.0, 37.0), 3, 8
"""Labels as they are sold on sheets of 24: three across, eight down, from edge to edge."""


def paper(made: Made, job: Job, what: Paper) -> bytes:
    """Return a paper as PDF; the same bytes for the same answer."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=landscape(A4) if what == "sheets" else A4, invariant=1)
    canvas.setTitle(plain(f"{job.name}: {what}"))
    canvas.setViewerPreference("PrintScaling", "None")
    if what == "labels":  # from edge to edge: a head would lie on the first of them
        _labels(canvas, job, made)
    else:
        sheet = Pages(canvas, job, what)
        DRAWN[what](sheet, made)
        sheet.end()
    canvas.save()
    return out.getvalue()


def _size(one: MarkedPart, units: LengthUnit) -> str:
    sizes = [spoken(v, units) for v in one.part.blank_mm if v > 0]
    return " × ".join(sizes) + (f", {spoken(one.part.thick_mm, units)}" if one.part.thick_mm else "")


def _parts(sheet: Pages, made: Made) -> None:
    now = [p for p in made.parts if p.to_cut and not p.part.waits]
    later = [p for p in made.parts if p.to_cut and p.part.waits]
    for name, some in (("Now", now), ("Not yet", later)):
        sheet.heading(f"{name}: {sum(p.to_cut for p in some)}")
        for p in some:
            notes = [*(w.words for w in p.part.waits), p.part.joins, p.part.face_up and f"{p.part.face_up} up"]
            notes += [f"{', '.join(p.part.banded)} banded"] if p.part.banded else []
            notes += _worked(p.part)
            sheet.row(
                [
                    (0, p.mark),
                    (14, f"{p.to_cut} × {p.part.name}"),
                    (62, f"{_size(p, sheet.job.units)} {material_of(p.part)}"),
                    (112, "; ".join(n for n in notes if n)),
                ],
                size=8,
                box=True,
            )


def _sheets(sheet: Pages, made: Made) -> None:
    for n, one in enumerate(made.layout.sheets, 1):
        if n > 1:
            sheet.turn()
        _diagram(sheet, one, n)
    if made.layout.lengths:
        sheet.turn()
        sheet.heading("Boards and lengths")
        for n, board in enumerate(made.layout.lengths, 1):
            cut = ", ".join(f"{p.mark} {spoken(p.long_mm, sheet.job.units)}" for p in board.parts)
            left = spoken(board.rest_mm, sheet.job.units)
            sheet.row(
                [
                    (0, str(n)),
                    (10, f"{board.name}, {spoken(board.long_mm, sheet.job.units)}"),
                    (90, f"{cut}; {left} left"),
                ]
            )
    if not made.layout.sheets and not made.layout.lengths:
        sheet.row([(0, "Nothing is left to be cut from stock.")])


NUMBER_MM = 3.6
ROUND_SCALES = (5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50)


def _diagram(sheet: Pages, one: LaidSheet, n: int) -> None:
    canvas, units = sheet.canvas, sheet.job.units
    room = (sheet.wide - 2 * MARGIN_MM, sheet.high - 2 * MARGIN_MM - 26)
    scale = next(
        (s for s in ROUND_SCALES if one.long_mm / s <= room[0] and one.wide_mm / s <= room[1]), ROUND_SCALES[-1]
    )
    size = f"{spoken(one.long_mm, units)} × {spoken(one.wide_mm, units)}"
    sheet.text(MARGIN_MM, sheet.at, f"Sheet {n}: {one.name}, {size}. Scale 1 : {scale}", bold=True)
    x0, y0 = MARGIN_MM, sheet.at - 6 - one.wide_mm / scale
    canvas.setLineWidth(0.6)
    canvas.rect(x0 * mm, y0 * mm, one.long_mm / scale * mm, one.wide_mm / scale * mm)
    canvas.setLineWidth(0.3)
    for p in one.parts:
        a, b = (p.wide_mm, p.long_mm) if p.turned else (p.long_mm, p.wide_mm)
        x, y, w, h = x0 + p.x_mm / scale, y0 + p.y_mm / scale, a / scale, b / scale
        canvas.setDash(*(() if p.ready else (2, 1)))
        canvas.rect(x * mm, y * mm, w * mm, h * mm)
        canvas.setDash()
        if h > 4 and w > 8:
            sheet.text(x + 1.5, y + h - 4, p.mark, bold=True, size=8)
        if h > 8 and w > 24:
            sheet.text(x + 1.5, y + h - 7.5, f"{spoken(p.long_mm, units)} × {spoken(p.wide_mm, units)}", size=6.5)
    _numbers(sheet, one, (x0, y0), scale)
    y = MARGIN_MM + 4
    canvas.setLineWidth(0.8)
    canvas.line(x0 * mm, y * mm, (x0 + CHECK_MM) * mm, y * mm)
    for end in (x0, x0 + CHECK_MM):
        canvas.line(end * mm, (y - 1.5) * mm, end * mm, (y + 1.5) * mm)
    sheet.text(
        x0 + CHECK_MM + 4,
        y - 1,
        f"This bar is {spoken(CHECK_MM, units)} long: check it with a rule. Dashed: not yet.",
        size=8,
    )


def _numbers(sheet: Pages, one: LaidSheet, corner: tuple[float, float], scale: float) -> None:
    """Write the number of each cut where it begins, or a little further where another number stands."""
    placed: list[tuple[float, float]] = []
    for n, cut in enumerate(one.cuts, 1):
        across = cut.axis == "x"
        x = corner[0] + (cut.at_mm if across else cut.at[0]) / scale
        y = corner[1] + (cut.at[1] if across else cut.at_mm) / scale
        long = cut.size[1 if across else 0] / scale
        steps = [k * NUMBER_MM for k in range(max(1, int(long / NUMBER_MM)))]
        spots = [(x, y + s) if across else (x + s, y) for s in steps]
        apart = [p for p in spots if all(math.hypot(p[0] - a, p[1] - b) >= NUMBER_MM for a, b in placed)]
        if not apart:
            continue
        spot = apart[0]
        placed.append(spot)
        sheet.canvas.setFillGray(1)
        sheet.canvas.circle(spot[0] * mm, spot[1] * mm, NUMBER_MM / 2 * mm, fill=1)
        sheet.canvas.setFillGray(0)
        sheet.canvas.setFont(PLAIN, 6)
        sheet.canvas.drawCentredString(spot[0] * mm, (spot[1] - 0.75) * mm, str(n))


def _settings(sheet: Pages, made: Made) -> None:
    units = sheet.job.units
    for s in made.settings:
        number = f"{s.at_mm:g}°" if s.work == "bevel" else spoken(s.at_mm, units) if s.at_mm else ""
        marks = ", ".join(f"{p.mark} × {p.count}" if p.count > 1 else p.mark for p in s.pieces)
        sheet.row(
            [(0, s.work), (24, number), (52, f"{s.words}. {marks}"), (140, s.machine or s.instead)], size=8.5, box=True
        )
    sheet.heading("Mind")
    for caution in dict.fromkeys(s.caution for s in made.settings):
        sheet.row([(0, caution)], size=8.5)


def _labels(canvas: Canvas, job: Job, made: Made) -> None:
    """Draw a label for every piece: one that is made four times has four."""
    pieces = [p for p in made.parts for _ in range(p.part.quantity)]
    wide, high = LABEL_MM
    for i, one in enumerate(pieces):
        k = i % (LABELS_ACROSS * LABELS_DOWN)
        if i and not k:
            canvas.showPage()
        x, y = k % LABELS_ACROSS * wide, A4[1] / mm - (k // LABELS_ACROSS + 1) * high
        _label(canvas, job, one, x + 5, y + 4)
    canvas.showPage()


def _label(canvas: Canvas, job: Job, one: MarkedPart, x: float, y: float) -> None:
    part = one.part
    name = f"code-{one.mark}"  # pieces of one part have one code
    if not canvas.hasForm(name):
        canvas.beginForm(name, 0, 0, CODE_MM * mm, CODE_MM * mm)
        canvas.drawPath(_code(canvas, job.address(one.key)), stroke=0, fill=1)
        canvas.endForm()
    canvas.saveState()
    canvas.translate((x + 43) * mm, (y + 10) * mm)
    canvas.doForm(name)
    canvas.restoreState()
    canvas.setFont(BOLD, 18)
    canvas.drawString(x * mm, (y + 22) * mm, plain(one.mark))
    lines: list[str] = [part.name, _size(one, job.units), part.end or part.hand, part.face_up and f"{part.face_up} up"]
    canvas.setFont(PLAIN, 7)
    at = y + 18
    for line in (text for entry in lines if entry for text in wrapped(plain(entry), 41 * mm, PLAIN, 7)):
        canvas.drawString(x * mm, at * mm, line)
        at -= 3.1


def _code(canvas: Canvas, address: str) -> PDFPathObject:
    """Return a code that opens an address, as one path: a rectangle for each of its dark runs takes seconds a list."""
    code = QRCode(None, QRErrorCorrectLevel.M)
    code.addData(address)
    code.make()
    quiet, cells = 4, len(code.modules)
    cell = CODE_MM * mm / (cells + 2 * quiet)
    path = canvas.beginPath()
    for r, row in enumerate(code.modules):
        for dark, run in groupby(enumerate(row), key=lambda c: bool(c[1])):
            at = [c for c, _ in run]
            if dark:
                path.rect((quiet + at[0]) * cell, (quiet + cells - r - 1) * cell, len(at) * cell, cell)
    return path


def _shopping(sheet: Pages, made: Made) -> None:
    buying = made.buying
    best = buying.baskets[0] if buying.baskets else None
    where = {line.item: line.shop for line in best.lines} if best is not None else {}
    for shop in [*(best.shops if best is not None else ()), ""]:
        some = [b for b in buying.list if b.packs > b.bought and where.get(b.item, "") == shop]
        if not some:
            continue
        sheet.heading(sheet.job.shops.get(shop, "Anywhere"))
        for b in some:
            price = "" if b.price is None else f"{b.price:.2f}"
            count = str(b.packs - b.bought) if b.item else ""
            sheet.row([(0, count), (12, b.what), (120, f"{b.needs:g} {b.unit}"), (160, price)], box=True)
    sheet.row([(0, buying.why)])


def _worked(part: Part) -> list[str]:
    """Return what is drilled in a part and cut off it."""
    return [*(d.words for d in part.drillings), *([part.corner.words] if part.corner is not None else [])]


def _order(sheet: Pages, made: Made) -> None:
    """List what is ordered from a maker: sizes as finished, edges, hinges, which way up."""
    some = [p for p in made.parts if p.state == "bought"]
    for p in some:
        sizes = " × ".join(spoken(d.figure.value_mm, sheet.job.units) for d in p.part.finished)
        thick = f", {spoken(p.part.thick_mm, sheet.job.units)} thick" if p.part.thick_mm else ""
        notes = [p.part.end, *_worked(p.part)]
        waits = [w.words for w in p.part.waits]
        if waits:
            notes.append(f"not before {' and '.join(waits)}")
        sheet.row(
            [
                (0, p.mark),
                (14, f"{p.part.quantity} × {p.part.name}"),
                (66, f"{sizes}{thick}, finished"),
                (112, "; ".join(n for n in notes if n)),
            ],
            size=8,
            box=True,
        )
    if not some:
        sheet.row([(0, "Nothing is ordered: all parts are made, kept or mended.")])


DRAWN: dict[Paper, Callable[[Pages, Made], None]] = {
    "parts": _parts,
    "sheets": _sheets,
    "settings": _settings,
    "shopping": _shopping,
    "order": _order,
}
