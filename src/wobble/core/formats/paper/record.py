"""The record of a job as a paper: what was agreed, what went wrong, hours, before and after, each day as it went."""

from __future__ import annotations

import io
from collections.abc import Callable

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from wobble.core.formats.paper.pages import MARGIN_MM, Job, Pages, plain
from wobble.core.set.record import Entry, Record

PICTURE_MM = (86.0, 62.0)
MOST_PICTURES = 60
"""More make a paper that no mail takes; all of them are in the ZIP."""


def record_paper(found: Record, job: Job, picture: Callable[[str], bytes | None]) -> bytes:
    """Return the record as PDF.

    Args:
        found: The job as it went.
        job: What the paper says of it.
        picture: Gives a picture's file by its digest, JPEG; None where it is not kept.
    """
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(plain(f"{job.name}: record"))
    sheet = Pages(canvas, job, "record")
    if not found.entries:
        sheet.row([(0, "Nothing is written down of this job yet.")])
    for name, some in (
        ("Agreed", found.agreed),
        ("Went wrong, and why", found.wrong),
        ("Open for the next job", found.left),
    ):
        if some:
            sheet.heading(name)
            for e in some:
                sheet.row([(0, e.at[:10]), (24, e.text), (160, e.by)], size=8.5)
    if found.hours:
        sheet.heading("Hours")
        for h in found.hours:
            sheet.row([(0, h.by or "-"), (60, f"{h.minutes / 60:.1f} h logged"), (110, f"{h.steps} steps")], size=8.5)
    shown = 0
    for pair in found.pairs:
        sheet.heading(pair.name)
        shown += _pictures(sheet, [("before", pair.before), ("after", pair.after)], picture)
    day = ""
    for e in found.entries:
        if e.at[:10] != day:
            day = e.at[:10]
            sheet.heading(day)
        _entry(sheet, e)
        if e.photo and shown < MOST_PICTURES:
            shown += _pictures(sheet, [(e.moment, e.photo)], picture)
    sheet.end()
    canvas.save()
    return out.getvalue()


def _entry(sheet: Pages, e: Entry) -> None:
    sort = e.note if e.note and e.note != "seen" else e.kind
    minutes = f" ({e.minutes:.0f} min)" if e.minutes else ""
    sheet.row([(0, e.at[11:16]), (14, sort), (40, f"{e.text}{minutes}"), (160, e.by)], size=8.5)


def _pictures(sheet: Pages, some: list[tuple[str, str]], picture: Callable[[str], bytes | None]) -> int:
    """Draw pictures side by side; return how many."""
    wide, high = PICTURE_MM
    if sheet.at - high - 6 < MARGIN_MM:
        sheet.turn()
    drawn = 0
    for k, (word, digest) in enumerate(some):
        found = picture(digest)
        x, y = MARGIN_MM + k * (wide + 6), sheet.at - high + 2
        if found is None:
            sheet.text(x, y + high / 2, "the picture is not kept here", size=8)
            continue
        sheet.canvas.drawImage(
            ImageReader(io.BytesIO(found)), x * mm, y * mm, wide * mm, high * mm, preserveAspectRatio=True, anchor="sw"
        )
        sheet.text(x, y - 4, word, size=8)
        drawn += 1
    sheet.at -= high + 8
    return drawn
