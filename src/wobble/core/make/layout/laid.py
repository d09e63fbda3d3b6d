"""A layout as it comes out: sheets and boards with what lies on them, and how layouts are held beside each other."""

from __future__ import annotations

from wobble.core.job import Value
from wobble.core.make.cutting.tree import Cut, Rest
from wobble.core.setout.boards import MATERIALS

PANEL_DENSITY = 650.0
"""Of a sheet whose material nobody named, kg/m³: particleboard's."""


class PartOnStock(Value, frozen=True, kw_only=True):
    """A part where it lies on its sheet or board: by key and mark; and whether it may be cut yet."""

    key: str
    mark: str
    x_mm: float
    y_mm: float = 0.0
    long_mm: float
    wide_mm: float
    turned: bool = False
    ready: bool = True


class LaidSheet(Value, frozen=True, kw_only=True):
    """One sheet as on trestles: what it is, what is cut out of it and how, what is left, and what it weighs.

    A pinned one stays as it is. One that is not bought is at hand. `before` are the cuts, by their place in `cuts`,
    that are made where it is bought, or where it stands, so that each piece is lifted by one and goes into the car.
    """

    stock: str
    name: str
    material: str
    thick_mm: float
    long_mm: float
    wide_mm: float
    weight_kg: float
    assumed: bool
    parts: tuple[PartOnStock, ...]
    cuts: tuple[Cut, ...]
    rests: tuple[Rest, ...]
    pinned: bool = False
    bought: bool = True
    before: tuple[int, ...] = ()


class LaidLength(Value, frozen=True, kw_only=True):
    """One board: what is cut off it, where it is cut, and what is left; parts narrower than it are ripped first."""

    stock: str
    name: str
    material: str
    thick_mm: float
    wide_mm: float
    long_mm: float
    assumed: bool
    parts: tuple[PartOnStock, ...]
    cuts: tuple[float, ...]
    rest_mm: float


class NotLaid(Value, frozen=True, kw_only=True):
    """Parts that no stock gives: which, how many, and whether any is large enough; the largest there is, mm."""

    key: str
    mark: str
    quantity: int
    too_large: bool
    largest_mm: tuple[float, float]


class Group(Value, frozen=True, kw_only=True):
    """Of one material and thickness (or section): how many sheets or boards are used, and how few could do at least.

    Sheets that stay are counted as needed.
    """

    material: str
    thick_mm: float
    used: int
    least: int
    assumed: bool


class Layout(Value, frozen=True, kw_only=True):
    """All parts that are still to be cut, laid out: how many metres are sawn, at how many settings of the fence."""

    sheets: tuple[LaidSheet, ...]
    lengths: tuple[LaidLength, ...]
    missing: tuple[NotLaid, ...]
    groups: tuple[Group, ...]
    price: float
    sawn_m: float
    settings: int


EDGE_MM = 25.0
"""A cut nearer to the sheet's edge than this only trims it."""


def first_cut(sheet: LaidSheet) -> Cut | None:
    """Return the first cut of a sheet that makes two pieces of it."""
    for cut in sheet.cuts:
        whole = cut.size[0 if cut.axis == "x" else 1]
        if EDGE_MM < stop_mm(cut) < whole - EDGE_MM:
            return cut
    return None


def stop_mm(cut: Cut) -> float:
    """Return where a cut is from the edge of the piece that it cuts: what a fence or a stop is set to."""
    return cut.at_mm - cut.at[0 if cut.axis == "x" else 1]


def rank(layout: Layout) -> tuple[float, ...]:
    """Return what layouts are ordered by, the better first: what is missing, the price, how much is cut into."""
    return (
        float(sum(m.quantity for m in layout.missing)),
        layout.price,
        round(sum(s.long_mm * s.wide_mm for s in layout.sheets) + sum(b.long_mm for b in layout.lengths), 1),
        float(layout.settings),
    )


def weight_kg(material: str, long_mm: float, wide_mm: float, thick_mm: float) -> float:
    """Return what a sheet weighs."""
    density = next((m.density for name, m in MATERIALS.items() if name == material), PANEL_DENSITY)
    return long_mm * wide_mm * thick_mm / 1e9 * density
