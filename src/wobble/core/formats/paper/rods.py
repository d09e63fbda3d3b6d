"""A rod of a place as pages to print at full size: strips to cut out and tape end to end, each with its marks.

A strip stands upright on its page, its beginning at the foot; the last ten millimetres of one lie under the next.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from xml.sax.saxutils import escape

from wobble.core.formats.paper.cutting import OVERLAP_MM, PAGE_MM, Tile, bar, written
from wobble.core.length import MM_PER_INCH, LengthUnit, format_length
from wobble.core.stages import PlaceRod
from wobble.core.stages.rods import MarkKind, RodMark

STRIP_MM = 224.0
STRIPS = 3
"""Beside each other on a page."""
WIDE_MM = PAGE_MM[0] / STRIPS
TOP_MM = 8.0
STICK_MM = 13.0
LINE_MM = 4.2
"""How far the words of two marks stand apart at least."""
MOST_LETTERS = 26
COLOURS: dict[MarkKind, str] = {
    "place": "#000",
    "piece": "#1a4fb8",
    "behind": "#000",
    "in the way": "#a02a1c",
    "rest": "#8a5c00",
}
DASHES: dict[MarkKind, str] = {"behind": "3 1.5", "in the way": "1 1"}


def rod_words(rod: PlaceRod, place: str, units: LengthUnit) -> tuple[str, ...]:
    """Return what is said of a rod: whose it is, and how it is held."""
    hold = "Hold its zero in the corner and level" if rod.rod == "long" else "Hold its zero to the mark and plumb"
    return (
        f"{place}: the {rod.rod} rod",
        f"Counted from {rod.counts_from[0].lower()}{rod.counts_from[1:]}, "
        f"{format_length(rod.long_mm, units)} long. {hold}.",
    )


def rod_tiles(rod: PlaceRod, place: str, units: LengthUnit = "mm") -> tuple[Tile, ...]:
    """Return the pages on which a rod prints at full size."""
    step = STRIP_MM - OVERLAP_MM
    n = max(1, math.ceil((rod.long_mm - OVERLAP_MM) / step))
    starts = [rod.from_mm + i * step for i in range(n)]
    pages = [starts[i : i + STRIPS] for i in range(0, n, STRIPS)]
    words = rod_words(rod, place, units)
    return tuple(
        Tile(f"{k + 1} of {len(pages)}", _page(rod, page, (k * STRIPS, n), words, units))
        for k, page in enumerate(pages)
    )


def _page(rod: PlaceRod, starts: list[float], count: tuple[int, int], words: tuple[str, ...], units: LengthUnit) -> str:
    first, n = count
    width, height = PAGE_MM
    body = [
        part
        for i, start in enumerate(starts)
        for part in _strip(rod, start, i * WIDE_MM, f"strip {first + i + 1} of {n}", units)
    ]
    body += [*written((" · ".join(words),), 2.0, height - 14.0), *bar(2.0, height - 3.0)]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}">'
        + "".join(body)
        + "</svg>"
    )


def _strip(rod: PlaceRod, start: float, x: float, name: str, units: LengthUnit) -> Iterator[str]:
    foot, end = TOP_MM + STRIP_MM, min(start + STRIP_MM, rod.from_mm + rod.long_mm)
    long = end - start

    def y(mm: float) -> float:
        return foot - (mm - start)

    yield (
        f'<rect x="{x + 1:.2f}" y="{y(end):.3f}" width="{STICK_MM:.1f}" height="{long:.3f}" fill="none" '
        'stroke="#000" stroke-width="0.25"/>'
    )
    yield f'<path d="{_graduations(start, end, x + 1, y, units)}" fill="none" stroke="#777" stroke-width="0.15"/>'
    if start > rod.from_mm:
        yield (
            f'<path d="M{x + 1:.2f},{y(start + OVERLAP_MM):.3f}h{STICK_MM:.1f}" stroke="#777" '
            'stroke-width="0.2" stroke-dasharray="2 1"/>'
        )
    yield f'<text x="{x + 1:.2f}" y="{foot + 4:.1f}" font-size="2.8" font-family="sans-serif">{name}</text>'
    here = [m for m in rod.marks if start - 1e-6 <= m.at_mm <= end + 1e-6]
    for mark, at in zip(here, _apart([y(m.at_mm) for m in here]), strict=True):
        yield from _mark(mark, x, y(mark.at_mm), at, units)


def _graduations(start: float, end: float, x: float, y: Callable[[float], float], units: LengthUnit) -> str:
    step, every = (10.0, 10) if units == "mm" else (MM_PER_INCH / 4, 4)
    ticks = range(math.ceil(start / step - 1e-9), math.floor(end / step + 1e-9) + 1)
    return "".join(f"M{x:.2f},{y(k * step):.3f}h{5.0 if k % every == 0 else 2.0}" for k in ticks)


def _apart(wanted: list[float]) -> list[float]:
    """Return where words go, from the foot up: no two nearer than a line."""
    out: list[float] = []
    for at in wanted:
        out.append(min(at, out[-1] - LINE_MM) if out else at)
    return out


def _mark(mark: RodMark, x: float, at: float, words_at: float, units: LengthUnit) -> Iterator[str]:
    colour, dash = COLOURS[mark.kind], DASHES.get(mark.kind)
    dashes = f' stroke-dasharray="{dash}"' if dash else ""
    right = x + 1 + STICK_MM
    yield (
        f'<path class="mark" d="M{x + 1:.2f},{at:.3f}h{STICK_MM:.1f}l3,{words_at - at:.3f}h1.5" fill="none" '
        f'stroke="{colour}" stroke-width="0.35"{dashes}/>'
    )
    names = mark.names[0] + (f" +{len(mark.names) - 1}" if len(mark.names) > 1 else "")
    if len(names) > MOST_LETTERS:
        names = names[: MOST_LETTERS - 1] + "…"
    figure = format_length(mark.at_mm, units)
    yield (
        f'<text x="{right + 5:.2f}" y="{words_at + 1:.2f}" font-size="2.9" font-family="sans-serif" fill="{colour}">'
        f'<tspan font-weight="700">{escape(figure)}</tspan> {escape(names)}</text>'
    )
