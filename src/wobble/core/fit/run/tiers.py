"""The run as tiers: what stands on the floor, what stands on that, and what hangs; each meets the walls by itself."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from wobble.core.job import Place, Unit
from wobble.core.job.unit import LOOSE, Hung, OnCleats, OnPieces

TierName = Literal["standing", "stacked", "hung"]
RESTS_MM = 3.0
"""A thing rests on a unit whose own top is this near to its underside."""
LAID_ON: tuple[str, ...] = ("base frame", "platform")
"""Kinds that are set before whatever stands on them or beside."""


@dataclass(frozen=True)
class Tier:
    """Units of one tier from left to right."""

    name: TierName
    units: tuple[Unit, ...]

    @property
    def left_mm(self) -> float:
        """Left edge of the run, mm along."""
        return self.units[0].x_mm

    @property
    def right_mm(self) -> float:
        """Right edge of the run, mm along."""
        return max(u.right_mm for u in self.units)

    @property
    def width_mm(self) -> float:
        """Width of the run with the gaps in it, mm."""
        return self.right_mm - self.left_mm

    @property
    def last(self) -> Unit:
        """The unit at the right end."""
        return max(self.units, key=lambda u: u.right_mm)


def tiers(place: Place) -> tuple[Tier, ...]:
    """Return the place's tiers; flat parts and frames belong to none, as they are cut to the walls themselves."""
    boxes = sorted((u for u in place.units if u.kind not in LOOSE), key=lambda u: (u.x_mm, u.right_mm))
    found: dict[TierName, list[Unit]] = {"standing": [], "stacked": [], "hung": []}
    for unit in boxes:
        found[tier_of(place.units, unit)].append(unit)
    return tuple(Tier(name, tuple(units)) for name, units in found.items() if units)


def tier_of(units: tuple[Unit, ...], unit: Unit) -> TierName:
    """Return what carries a unit: the floor, another unit, or a wall or ceiling."""
    if unit.stands:
        return "standing"
    return "stacked" if carriers(units, unit) else "hung"


def on_floor(unit: Unit) -> bool:
    """Return whether a unit needs a floor: a face frame is fixed to what stands behind it."""
    return unit.stands and unit.kind != "face frame"


def carriers(units: tuple[Unit, ...], unit: Unit) -> tuple[Unit, ...]:
    """Return the units on whose tops a unit rests; none where it stands on the floor, hangs, or lies on cleats.

    What is said counts; where nothing is said, what it touches from above.
    """
    if isinstance(unit.standing, OnPieces):
        return tuple(u for u in units if u.id in unit.standing.pieces and u.id != unit.id)
    if isinstance(unit.standing, Hung | OnCleats) and not unit.flat:
        return ()
    return () if isinstance(unit.standing, OnCleats) else right_under(units, unit)


def right_under(units: tuple[Unit, ...], unit: Unit) -> tuple[Unit, ...]:
    """Return the units whose tops touch the underside of a unit, whatever carries it."""
    return tuple(
        u
        for u in units
        if u.id != unit.id
        and abs(u.over_base_mm + u.height_mm - unit.over_base_mm) <= RESTS_MM
        and u.x_mm < unit.right_mm
        and u.right_mm > unit.x_mm
    )


def upright(unit: Unit, base_mm: float) -> tuple[float, float]:
    """Return the heights from which and to which a unit reaches, mm, over a base."""
    low = base_mm + unit.over_base_mm
    return low, low + unit.height_mm
