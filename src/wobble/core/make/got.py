"""Made, bought, kept or mended: what is decided of a part, and what each comes to beside making it."""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from wobble.core.job import Job, Value
from wobble.core.make.layout.laid import Layout
from wobble.core.make.marked import MarkedPart
from wobble.core.make.stock import material_of, sheets_for


class Spared(Value, frozen=True, kw_only=True):
    """A part that is not made: how it is got, what that costs, and what making it would, of what was laid out.

    `made` is None where no sheet or board of its material has a price; `saves` is then unknown too.
    """

    key: str
    mark: str
    how: str
    price: float
    made: float | None
    saves: float | None


def as_got(job: Job, parts: Sequence[MarkedPart]) -> list[MarkedPart]:
    """Return parts with those that are bought, kept or mended taken out of what is to be cut."""
    how = {g.part: g.how for g in job.workshop.got}
    return [replace(p, to_cut=0, state=how[p.key]) if p.key in how and p.to_cut else p for p in parts]


def spared(job: Job, parts: Sequence[MarkedPart], layout: Layout) -> tuple[Spared, ...]:
    """Return what each part that is not made costs beside making it: its share of the stock's price by area."""
    said = {g.part: g for g in job.workshop.got}
    found = []
    for one in parts:
        got = said.get(one.key)
        if got is None:
            continue
        made = making_costs(job, one, layout)
        saves = None if made is None else round(made - got.price, 2)
        found.append(Spared(key=one.key, mark=one.mark, how=got.how, price=got.price, made=made, saves=saves))
    return tuple(found)


def making_costs(job: Job, one: MarkedPart, layout: Layout) -> float | None:
    """Return what the stock for a part costs by its area, waste as the layout has it; None without a price."""
    priced = [s for s in sheets_for(job, material_of(one.part), one.part.thick_mm)[0] if s.price is not None]
    if not priced:
        return None
    sheet = min(priced, key=lambda s: (s.price or 0.0) / (s.long_mm * s.wide_mm))
    area = one.part.blank_mm[0] * one.part.blank_mm[1] * one.part.quantity
    return round((sheet.price or 0.0) * area / (sheet.long_mm * sheet.wide_mm) / _filled(layout), 2)


def _filled(layout: Layout) -> float:
    """Return how much of the sheets in use is parts, as a share; all of it where there are none."""
    whole = sum(s.long_mm * s.wide_mm for s in layout.sheets)
    parts = sum(p.long_mm * p.wide_mm for s in layout.sheets for p in s.parts)
    return parts / whole if whole and parts else 1.0
