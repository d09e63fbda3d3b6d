"""Where units touch the place: supports on the floor and fixings on the back."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.job import Unit
from wobble.core.job.unit import BaseFrame

TOUCH_MM = 20.0
"""Units that stand this close to each other are of one frame."""
FRAME_STEP_MM = 600.0
"""A base frame is shimmed at least this often along each of its two rails."""
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
    sides = (("left", unit.x_mm + inset, 1.0), ("right", unit.right_mm - inset, -1.0))
    out = []
    for row, y in rows:
        for side, x, inwards in sides:
            cut = unit.angled if row == "front" and unit.angled is not None and unit.angled.end == side else None
            # on an end that is cut back the front support stands where the front still is
            at = (x + inwards * cut.along_mm, y) if cut is not None else (x, y)
            out.append(Support(f"{unit.id}.{row}-{side}", unit.id, f"{row} {side}", at))
    return tuple(out)


def run_supports(units: tuple[Unit, ...], back_at: Callable[[Unit], float]) -> tuple[Support, ...]:
    """Return the supports of all standing units; units side by side on one base frame share that frame's.

    A frame that is a unit by itself stands on its rails too; a face frame is fixed to what stands behind it.
    """
    out: list[Support] = []
    framed: list[Unit] = []
    for unit in sorted((u for u in units if u.stands and u.kind != "face frame"), key=lambda u: u.x_mm):
        if unit.kind == "base frame":
            out += _frame_supports([unit], back_at)
        elif isinstance(unit.standing, BaseFrame):
            if framed and unit.x_mm - framed[-1].right_mm > TOUCH_MM:
                out += _frame_supports(framed, back_at)
                framed = []
            framed.append(unit)
        else:
            out += supports(unit, back_at(unit))
    return tuple(out + _frame_supports(framed, back_at))


def _frame_supports(units: list[Unit], back_at: Callable[[Unit], float]) -> list[Support]:
    """Return where a frame under several units is shimmed: both rails, at its ends and at most every 600 mm."""
    if not units:
        return []
    first, last = units[0], units[-1]
    inset = first.support_inset_mm
    n = max(2, math.ceil((last.right_mm - first.x_mm - 2 * inset) / FRAME_STEP_MM) + 1)
    out = []
    for i, x in enumerate(np.linspace(first.x_mm + inset, last.right_mm - inset, n)):
        unit = next((u for u in units if u.x_mm <= x <= u.right_mm), last)
        back = back_at(unit)
        rows = (("back", back + min(inset, unit.depth_mm / 2)), ("front", front_row(unit, back)))
        side = "left" if i < n / 2 else "right"
        out += [Support(f"{first.id}.frame-{row}-{i + 1}", unit.id, f"{row} {side}", (float(x), y)) for row, y in rows]
    return out


def front_row(unit: Unit, back_mm: float) -> float:
    """Return how far out the front supports stand: behind the toe recess."""
    return back_mm + max(unit.depth_mm - unit.toe_recess_mm, unit.depth_mm / 2)


def fixings(unit: Unit) -> tuple[Fixing, ...]:
    """Return the fixings of a unit: at every fixing height, near both sides."""
    inset = min(unit.support_inset_mm, unit.width_mm / 2)
    sides = (("left", unit.x_mm + inset), ("right", unit.x_mm + unit.width_mm - inset))
    return tuple(
        Fixing(f"{unit.id}.fix-{i + 1}-{side}", unit.id, side, x, unit.over_base_mm + height)
        for i, height in enumerate(unit.fixing_heights_mm)
        for side, x in sides
    )


def footprint(unit: Unit, back_mm: float) -> Floats:
    """Return spots covering the floor that a unit stands over, edges included, shape (n, 2)."""
    return _cover((unit.x_mm, unit.right_mm), (back_mm, back_mm + unit.depth_mm))


def back_area(unit: Unit, base_mm: float) -> Floats:
    """Return spots covering the back wall behind a unit, edges included, shape (n, 2)."""
    low = base_mm + unit.over_base_mm
    return _cover((unit.x_mm, unit.right_mm), (low, low + unit.height_mm))


def _cover(first: tuple[float, float], second: tuple[float, float]) -> Floats:
    axes = [np.linspace(a, b, max(2, int(np.ceil((b - a) / FOOTPRINT_STEP_MM)) + 1)) for a, b in (first, second)]
    return np.stack(np.meshgrid(*axes), axis=-1).reshape(-1, 2)
