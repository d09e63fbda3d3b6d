"""The run as tiers: what stands on the floor, and what hangs over it; each is closed against the walls by itself."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from wobble.core.job import Place, Unit
from wobble.core.job.unit import LOOSE

TierName = Literal["standing", "hung"]


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
    standing = tuple(u for u in boxes if u.stands)
    hung = tuple(u for u in boxes if not u.stands)
    out = []
    if standing:
        out.append(Tier("standing", standing))
    if hung:
        out.append(Tier("hung", hung))
    return tuple(out)


def upright(unit: Unit, base_mm: float) -> tuple[float, float]:
    """Return the heights from which and to which a unit reaches, mm, over a base."""
    low = base_mm + unit.over_base_mm
    return low, low + unit.height_mm
