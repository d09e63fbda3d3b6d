"""Where units touch the place: supports on the floor and fixings on the back."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.job import Unit

FOOTPRINT_STEP_MM = 75.0
"""Step of the grid on which high spots are sought: half the short-range length scale."""


@dataclass(frozen=True, slots=True)
class Support:
    """One support of a unit: which, and where it stands in plan, mm."""

    id: str
    unit: str
    corner: str
    at: tuple[float, float]


@dataclass(frozen=True, slots=True)
class Fixing:
    """One fixing through the back of a unit: x, mm, and its height over the unit's underside, mm."""

    id: str
    unit: str
    side: str
    x_mm: float
    over_base_mm: float


def supports(unit: Unit, back_mm: float) -> tuple[Support, ...]:
    """Return the four supports of a unit whose back stands at `back_mm` out."""
    inset = min(unit.support_inset_mm, unit.width_mm / 2)
    rows = (("back", back_mm + min(unit.support_inset_mm, unit.depth_mm / 2)), ("front", front_row(unit, back_mm)))
    sides = (("left", unit.x_mm + inset), ("right", unit.x_mm + unit.width_mm - inset))
    return tuple(
        Support(f"{unit.id}.{row}-{side}", unit.id, f"{row} {side}", (x, y)) for row, y in rows for side, x in sides
    )


def front_row(unit: Unit, back_mm: float) -> float:
    """Return how far out the front supports stand: behind the toe recess."""
    return back_mm + max(unit.depth_mm - unit.toe_recess_mm, unit.depth_mm / 2)


def fixings(unit: Unit) -> tuple[Fixing, ...]:
    """Return the fixings of a unit: at every fixing height, near both sides."""
    inset = min(unit.support_inset_mm, unit.width_mm / 2)
    sides = (("left", unit.x_mm + inset), ("right", unit.x_mm + unit.width_mm - inset))
    return tuple(
        Fixing(f"{unit.id}.fix-{i + 1}-{side}", unit.id, side, x, height)
        for i, height in enumerate(unit.fixing_heights_mm)
        for side, x in sides
    )


def footprint(unit: Unit, back_mm: float) -> Floats:
    """Return spots covering the floor that a unit stands over, edges included, shape (n, 2)."""
    return _cover((unit.x_mm, unit.x_mm + unit.width_mm), (back_mm, back_mm + unit.depth_mm))


def back_area(unit: Unit, base_mm: float) -> Floats:
    """Return spots covering the back wall behind a unit, edges included, shape (n, 2)."""
    return _cover((unit.x_mm, unit.x_mm + unit.width_mm), (base_mm, base_mm + unit.height_mm))


def _cover(first: tuple[float, float], second: tuple[float, float]) -> Floats:
    axes = [np.linspace(a, b, max(2, int(np.ceil((b - a) / FOOTPRINT_STEP_MM)) + 1)) for a, b in (first, second)]
    return np.stack(np.meshgrid(*axes), axis=-1).reshape(-1, 2)
