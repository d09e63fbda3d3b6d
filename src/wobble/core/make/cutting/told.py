"""A list that was laid out, in words: for the command line."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from wobble.core.make.cutting.lists import CutList


def as_words(made: CutList) -> str:
    """Return what to cut out of what, one sheet or board after the other."""
    return "\n".join(_lines(made)) + "\n"


def _lines(made: CutList) -> Iterator[str]:
    for n, sheet in enumerate(made.sheets, 1):
        yield f"Sheet {n}: {sheet.stock}, {sheet.length_mm:g} × {sheet.width_mm:g} mm, {len(sheet.cuts)} cuts"
        for part in sheet.parts:
            lies = ", turned" if part.turned else ""
            yield f"  {part.name}  {part.length_mm:g} × {part.width_mm:g}  at {part.x_mm:.1f}, {part.y_mm:.1f}{lies}"
    for n, board in enumerate(made.lengths, 1):
        pieces = ", ".join(f"{p.name} {p.length_mm:g}" for p in board.parts)
        yield f"Length {n}: {board.stock}, {board.length_mm:g} mm: {pieces}; {board.rest_mm:.0f} left"
    used = Counter([s.stock for s in made.sheets] + [b.stock for b in made.lengths])
    yield "Used: " + (", ".join(f"{n} × {name}" for name, n in used.items()) or "nothing")
    for bound in made.bounds:
        of = bound.material or "unnamed material"
        yield f"{of} {bound.thickness_mm:g} mm: {bound.used} used; no layout takes fewer than {bound.least}"
    for lack in made.missing:
        yield f"Missing: {lack.quantity} × {lack.name}: {lack.why}"
