"""Layouts that stay as they are: sheets whose parts are still wanted in the same sizes keep their places."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence

from wobble.core.job import Job, PinnedSheet, SheetStock
from wobble.core.make.cutting.tree import Cut, Rest
from wobble.core.make.layout.laid import LaidSheet, PartOnStock, weight_kg
from wobble.core.make.marked import MarkedPart

NEAR_MM = 0.05
Rect = tuple[float, float, float, float]


def kept_sheets(job: Job, parts: Sequence[MarkedPart]) -> Iterator[tuple[PinnedSheet, SheetStock]]:
    """Yield the pinned sheets that still hold, with their stock.

    A sheet holds while every part on it is still in the list in the size in which it lies there, cut already or not.
    One that does not is let go, and its parts are laid out again.
    """
    by_key = {p.key: p for p in parts}
    stock = {s.id: s for s in job.workshop.stock if isinstance(s, SheetStock)}
    on = Counter[str]()
    for sheet in job.workshop.pinned:
        here = Counter(p.part for p in sheet.parts)
        fits = sheet.stock in stock and all(
            p.part in by_key
            and abs(by_key[p.part].part.blank_mm[0] - p.size[0]) < NEAR_MM
            and abs(by_key[p.part].part.blank_mm[1] - p.size[1]) < NEAR_MM
            for p in sheet.parts
        )
        if fits and all(on[k] + n <= by_key[k].part.quantity for k, n in here.items()):
            on += here
            yield sheet, stock[sheet.stock]


def cuts_of(rects: Sequence[Rect], whole: Rect, kerf: float) -> tuple[tuple[Cut, ...], tuple[Rest, ...]] | None:
    """Return the cuts from edge to edge that part a sheet into rectangles (x, y, along, across), in their order.

    None where there is no such order of cuts; kerfs lie between the rectangles.
    """
    cuts: list[Cut] = []
    rests: list[Rest] = []
    if not _parted(list(rects), whole, kerf, cuts, rests):
        return None
    return tuple(cuts), tuple(rests)


def _parted(rects: list[Rect], whole: Rect, kerf: float, cuts: list[Cut], rests: list[Rest]) -> bool:
    x, y, w, h = whole
    if not rects:
        if min(w, h) > NEAR_MM:
            rests.append(Rest(at=(x, y), size=(w, h)))
        return True
    if len(rects) == 1 and all(abs(a - b) < NEAR_MM for a, b in zip(rects[0], whole, strict=True)):
        return True
    for axis in (0, 1):
        low, size = whole[axis], whole[axis + 2]
        ends = sorted({r[axis] + r[axis + 2] for r in rects} | {r[axis] - kerf for r in rects})
        for end in ends:
            if not low - kerf + NEAR_MM < end < low + size - NEAR_MM:
                continue
            first = [r for r in rects if r[axis] + r[axis + 2] <= end + NEAR_MM]
            second = [r for r in rects if r[axis] >= end + kerf - NEAR_MM]
            if len(first) + len(second) != len(rects):
                continue
            cuts.append(Cut(at=(x, y), size=(w, h), axis="x" if axis == 0 else "y", at_mm=end))
            a: Rect = (x, y, end - x, h) if axis == 0 else (x, y, w, end - y)
            start = end + kerf
            b: Rect = (start, y, x + w - start, h) if axis == 0 else (x, start, w, y + h - start)
            # a cut that goes through harms no other: where there is an order of cuts, any such one can be its first
            return _parted(first, a, kerf, cuts, rests) and _parted(second, b, kerf, cuts, rests)
    return False


def pinned_sheets(job: Job, parts: Sequence[MarkedPart]) -> list[LaidSheet]:
    """Return the sheets that stay, with their cuts found again."""
    by_key = {p.key: p for p in parts}
    made = []
    for sheet, stock in kept_sheets(job, parts):
        rects = [(*p.at, *(p.size[::-1] if p.turned else p.size)) for p in sheet.parts]
        found = cuts_of(rects, (0.0, 0.0, stock.long_mm, stock.wide_mm), job.workshop.kerf_mm)
        if found is None:  # its kerf was another: it is laid out again
            continue
        made.append(
            LaidSheet(
                stock=stock.id,
                name=stock.name,
                material=stock.material,
                thick_mm=stock.true_mm,
                long_mm=stock.long_mm,
                wide_mm=stock.wide_mm,
                weight_kg=weight_kg(stock.material, stock.long_mm, stock.wide_mm, stock.true_mm),
                assumed=False,
                parts=tuple(
                    PartOnStock(
                        key=p.part,
                        mark=by_key[p.part].mark,
                        x_mm=p.at[0],
                        y_mm=p.at[1],
                        long_mm=p.size[0],
                        wide_mm=p.size[1],
                        turned=p.turned,
                        ready=by_key[p.part].state == "now",
                    )
                    for p in sheet.parts
                ),
                cuts=found[0],
                rests=found[1],
                pinned=True,
            )
        )
    return made
