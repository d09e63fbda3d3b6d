"""One day's work as a paper: its sessions, each step with what to do, what to bring, cautions, and room for a tick."""

from __future__ import annotations

import io

from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from wobble.core.formats.paper.pages import Job, Pages, plain
from wobble.core.order.result import Planned, PlannedStep


def day_sheet(planned: Planned, job: Job, day: str) -> bytes:
    """Return the day sheet of one day, as PDF; the same bytes for the same answer.

    Args:
        planned: The job's order.
        job: What the paper says of it.
        day: Which, as YYYY-MM-DD; nothing planned on it is said on the paper.
    """
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(plain(f"{job.name}: {day}"))
    canvas.setViewerPreference("PrintScaling", "None")
    sheet = Pages(canvas, job, day)
    sessions = [s for s in planned.sessions if s.start[:10] == day]
    steps = {s.step.key: s for s in planned.steps}
    if not sessions:
        sheet.row([(0, "Nothing is planned for this day.")])
    every = [steps[k] for s in sessions for k in s.steps if k in steps]
    bring = tuple(dict.fromkeys(b for s in every for b in s.step.bring))
    if bring:
        sheet.heading("Bring")
        for i in range(0, len(bring), 3):
            sheet.row([(60.0 * k, what) for k, what in enumerate(bring[i : i + 3])], size=8.5)
    for session in sessions:
        sheet.heading(f"{session.name}, {session.start[11:]} to {session.end[11:]}: {', '.join(session.people)}")
        for key in session.steps:
            if key in steps:
                _step(sheet, steps[key], session.start, session.end)
    sheet.end()
    canvas.save()
    return out.getvalue()


def _step(sheet: Pages, s: PlannedStep, start: str, end: str) -> None:
    mine = [x for x in s.stretches if start <= x.start < end]
    hours = f"{mine[0].start[11:]} - {mine[-1].end[11:]}" if mine else ""
    whole = sum(1 for _ in s.stretches) == len(mine)
    sheet.row(
        [(0, hours), (26, s.step.name + ("" if whole else " (part of it)")), (150, s.step.why[:60])],
        bold=False,
        box=True,
    )
    if s.stand_in:
        sheet.row([(26, f"Alone: {s.stand_in}")], size=8)
    for line in s.step.how[:24]:
        sheet.row([(26, line)], size=8)
    if s.step.rests_h:
        sheet.row([(26, f"Then {s.step.rests_h:g} h until it is dry ({s.step.rests_why})")], size=8)
    if s.step.caution:
        sheet.row([(26, s.step.caution)], bold=True, size=8)
