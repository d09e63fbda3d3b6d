"""Pages of a paper as PDF: heads and feet, rows that wrap and run over to the next; text can be searched."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from wobble.core.length import LengthUnit

PLAIN, BOLD = "Helvetica", "Helvetica-Bold"
MARGIN_MM, LINE_MM = 14.0, 5.0
WRITTEN_OUT = {"↑": "up", "↓": "down", "→": "to", "≤": "at most", "−": "-"}


@dataclass(frozen=True)
class Job:
    """What a paper says of its job: its name, its revision, when it is printed, its units, and where a part opens.

    `shops` has names by their ids; `address` gives the page of a part by its key, for the code on its label.
    """

    name: str
    revision: int
    date: str
    units: LengthUnit
    shops: Mapping[str, str] = field(default_factory=dict)
    address: Callable[[str], str] = str


def plain(text: str) -> str:
    """Return text in the signs that every reader has."""
    for sign, words in WRITTEN_OUT.items():
        text = text.replace(sign, words)
    return text.encode("cp1252", errors="replace").decode("cp1252")


class Pages:
    """Pages one after the other, each with its head and foot; lines run down and over to the next."""

    def __init__(self, canvas: Canvas, job: Job, what: str) -> None:
        self.canvas, self.job, self.what, self.number = canvas, job, what, 0
        self.wide, self.high = (
            (landscape(A4) if what == "sheets" else A4)[0] / mm,
            (landscape(A4) if what == "sheets" else A4)[1] / mm,
        )
        self.at = 0.0
        self.turn()

    def turn(self) -> None:
        """Begin a page."""
        if self.number:
            self.canvas.showPage()
        self.number += 1
        self.text(MARGIN_MM, self.high - MARGIN_MM, f"{self.job.name} · {self.what}", bold=True, size=12)
        foot = f"revision {self.job.revision} · {self.job.date} · page {self.number}"
        self.text(MARGIN_MM, MARGIN_MM - 5, foot, size=8)
        self.at = self.high - MARGIN_MM - 9

    def text(self, x: float, y: float, text: str, *, bold: bool = False, size: float = 9) -> None:
        """Write at a place, mm from the lower left corner."""
        self.canvas.setFont(BOLD if bold else PLAIN, size)
        self.canvas.drawString(x * mm, y * mm, plain(text))

    def row(
        self, cells: Sequence[tuple[float, str]], *, bold: bool = False, size: float = 9, box: bool = False
    ) -> None:
        """Write cells in a line, each from its distance from the margin and no further than the next; wrapped below."""
        columns: list[list[str]] = []
        for i, (x, text) in enumerate(cells):
            end = cells[i + 1][0] - 2 if i + 1 < len(cells) else self.wide - 2 * MARGIN_MM
            columns.append(wrapped(plain(text), (end - x) * mm, BOLD if bold else PLAIN, size))
        lines = max((len(c) for c in columns), default=1)
        if self.at - lines * LINE_MM < MARGIN_MM + 3:
            self.turn()
        if box:
            self.canvas.rect((MARGIN_MM - 5) * mm, (self.at - 0.6) * mm, 3 * mm, 3 * mm)
        for (x, _), column in zip(cells, columns, strict=True):
            for k, line in enumerate(column):
                self.text(MARGIN_MM + x, self.at - k * LINE_MM, line, bold=bold, size=size)
        self.at -= lines * LINE_MM
        self.rule()

    def rule(self) -> None:
        """Draw a thin line under what was written."""
        self.canvas.setLineWidth(0.2)
        y = (self.at + LINE_MM - 1.6) * mm
        self.canvas.line(MARGIN_MM * mm, y, (self.wide - MARGIN_MM) * mm, y)

    def heading(self, text: str) -> None:
        """Write a heading, with room for a line under it."""
        if self.at < MARGIN_MM + 25:
            self.turn()
        self.at -= 3
        self.text(MARGIN_MM, self.at, text, bold=True, size=10.5)
        self.at -= LINE_MM + 1

    def end(self) -> None:
        """End the last page."""
        self.canvas.showPage()


def wrapped(text: str, width: float, font: str, size: float) -> list[str]:
    """Return text in lines no wider than so many points."""
    lines, line = [], ""
    for word in text.split():
        longer = f"{line} {word}".strip()
        if line and stringWidth(longer, font, size) > width:
            lines.append(line)
            line = word
        else:
            line = longer
    return [*lines, line]
