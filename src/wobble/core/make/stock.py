"""What parts are cut from: the user's own shelf, and usual trade sizes where it has nothing of a material.

The sizes are those that timber yards and builders' merchants sell in metric and in inch countries; no maker is named.
What is assumed is marked so, and told beside the layout.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal

from wobble.core.job import Defect, Job, LengthStock, SheetStock
from wobble.core.length import LengthUnit
from wobble.core.make.cutting.tables import Offered
from wobble.core.part import Part, Role

PANELS = ("particleboard", "mdf", "plywood")
"""Materials that come in sheets."""
SHEET_MM: dict[LengthUnit, tuple[float, float]] = {"mm": (2500.0, 1250.0), "in": (2438.4, 1219.2)}
LENGTHS_MM: dict[LengthUnit, tuple[float, ...]] = {"mm": (2400.0, 3000.0, 4200.0), "in": (2438.4, 3048.0, 3657.6)}
SAME_THICK_MM = 0.06
NOMINAL_MM = 1.0
"""A sheet sold as thick as a part is reckoned is taken for it, though it measures up to so much less."""
LEAST_OFFCUT_MM = 60.0
"""Clear pieces of a board that are shorter are no stock."""
CUT_FROM: dict[Role, Literal["sheet", "length"]] = {
    "member": "length",
    "cleat": "length",
    "ledger": "length",
    "timber": "length",
    "nailer": "length",
    "batten": "length",
    "trim": "length",
    "board": "length",
    "cap": "length",
    "edging": "length",
    "bridging member": "length",
    "cover moulding": "length",
    "peg": "length",
    "leg": "length",
    "stile": "length",
    "mullion": "length",
    "rail": "length",
}
"""What is cut from lengths though its material comes in sheets too; all else of such a material is cut from sheets."""
WORD = {"spruce-pine-fir": "pine", "": "plywood"}
"""What a material is sold as; what nobody said is plywood."""


def material_of(part: Part) -> str:
    """Return what a part is of, as it is sold."""
    return WORD.get(part.material, part.material)


def comes_in(part: Part) -> Literal["sheet", "length"]:
    """Return whether a part is cut from sheets or from lengths."""
    if part.role in CUT_FROM:
        return CUT_FROM[part.role]
    return "sheet" if material_of(part) in PANELS else "length"


def usual_sheet(material: str, thick_mm: float, units: LengthUnit) -> SheetStock:
    """Return the sheet that is taken where the shelf has none of a material and thickness."""
    long, wide = SHEET_MM[units]
    return SheetStock(
        id=f"usual-{material.replace(' ', '-')}-{thick_mm:g}".replace(".", "_"),
        name=f"{material} {thick_mm:g}",
        material=material,
        thick_mm=thick_mm,
        long_mm=long,
        wide_mm=wide,
        grain=material != "mdf",
    )


def usual_lengths(material: str, thick_mm: float, wide_mm: float, units: LengthUnit) -> tuple[LengthStock, ...]:
    """Return the lengths that are taken where the shelf has none of a section."""
    return tuple(
        LengthStock(
            id=f"usual-{material.replace(' ', '-')}-{thick_mm:g}x{wide_mm:g}-{long:g}".replace(".", "_"),
            name=f"{material} {thick_mm:g} × {wide_mm:g}",
            material=material,
            thick_mm=thick_mm,
            wide_mm=wide_mm,
            long_mm=long,
        )
        for long in LENGTHS_MM[units]
    )


def sheets_for(job: Job, material: str, thick_mm: float) -> tuple[tuple[SheetStock, ...], bool]:
    """Return the sheets that parts of a material and thickness are cut from, and whether they are only assumed."""
    own = [s for s in job.workshop.stock if isinstance(s, SheetStock) and s.material.casefold() == material.casefold()]
    exact = [s for s in own if abs(s.true_mm - thick_mm) < SAME_THICK_MM]
    near = exact or [s for s in own if abs(s.thick_mm - thick_mm) < SAME_THICK_MM and s.true_mm > thick_mm - NOMINAL_MM]
    if near:
        return tuple(near), False
    return (usual_sheet(material, thick_mm, job.units),), True


def lengths_for(job: Job, material: str, thick_mm: float, wide_mm: float) -> tuple[tuple[LengthStock, ...], bool]:
    """Return the lengths that parts of a section are cut from, ripped where they are wider; and whether assumed."""
    own = [
        s
        for s in job.workshop.stock
        if isinstance(s, LengthStock)
        and s.material.casefold() == material.casefold()
        and abs(s.thick_mm - thick_mm) < NOMINAL_MM
        and s.wide_mm >= wide_mm - SAME_THICK_MM
    ]
    if own:
        narrowest = min(s.wide_mm for s in own)
        return tuple(s for s in own if s.wide_mm < narrowest + NOMINAL_MM), False
    return usual_lengths(material, thick_mm, wide_mm, job.units), True


def offered_sheets(sheets: Iterable[SheetStock], taken: Mapping[str, int]) -> tuple[Offered, ...]:
    """Return sheets as the cutting reads them: what is at hand for nothing, and what can be bought without end.

    `taken` counts those that are spoken for, by their ids.
    """
    found: list[Offered] = []
    for s in sheets:
        at_hand = max(s.at_hand - taken.get(s.id, 0), 0)
        if at_hand:
            found.append(Offered(name=s.id, length_mm=s.long_mm, width_mm=s.wide_mm, quantity=at_hand, price=0.0))
        if s.price is not None or not s.at_hand:
            found.append(Offered(name=s.id, length_mm=s.long_mm, width_mm=s.wide_mm, price=_price(s.price, s)))
    return tuple(found)


def _price(price: float | None, s: SheetStock) -> float:
    # without a price a sheet counts by its area: fewer are better, and what is at hand comes first
    return price if price is not None else s.long_mm * s.wide_mm / 1e5


def offered_lengths(lengths: Iterable[LengthStock]) -> tuple[Offered, ...]:
    """Return boards as the cutting reads them: those with defects as the clear pieces between them."""
    found: list[Offered] = []
    for s in lengths:
        price = s.price if s.price is not None else s.long_mm / 1e3
        if s.defects:
            n = max(s.at_hand, 1)
            found += [
                Offered(name=f"{s.id}@{start:g}", length_mm=end - start, quantity=n, price=0.0)
                for start, end in clear(s.long_mm, s.defects)
                if end - start >= LEAST_OFFCUT_MM
            ]
            continue
        if s.at_hand:
            found.append(Offered(name=s.id, length_mm=s.long_mm, quantity=s.at_hand, price=0.0))
        if s.price is not None or not s.at_hand:
            found.append(Offered(name=s.id, length_mm=s.long_mm, price=price))
    return tuple(found)


def clear(long_mm: float, defects: Iterable[Defect]) -> list[tuple[float, float]]:
    """Return the clear pieces of a board: what lies between its defects."""
    at, found = 0.0, []
    for defect in sorted(defects, key=lambda d: d.from_mm):
        if defect.from_mm > at:
            found.append((at, defect.from_mm))
        at = max(at, defect.to_mm)
    if at < long_mm:
        found.append((at, long_mm))
    return found
