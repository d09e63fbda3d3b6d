"""What the rules that tell findings look at, and how they say lengths and places."""

from __future__ import annotations

from dataclasses import dataclass, field

from wobble.core.axes import SURFACE_AXES, SurfaceName
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.result import FitResult
from wobble.core.fit.run.contact import FloorContact
from wobble.core.gauge.survey import Survey
from wobble.core.job import FixedTop, Job, Place, ShimKit, Spot
from wobble.core.length import LengthUnit, format_length


@dataclass(frozen=True)
class Case:
    """What the rules look at."""

    job: Job
    survey: Survey
    place: Place
    kit: ShimKit
    contact: FloorContact | None = None
    plan: Plan | None = None
    fixed_top: FixedTop | None = None
    fitted: FitResult = field(default_factory=FitResult)

    @property
    def units(self) -> LengthUnit:
        """The units that the user reads."""
        return self.job.units


def say(case: Case, value_mm: float) -> str:
    """Return a length as the user reads it; whole millimetres without a decimal."""
    whole = abs(value_mm - round(value_mm)) < 1e-6
    return format_length(value_mm, case.units, decimals=0 if whole else 1)


def place_of(case: Case, spot: Spot, surface: SurfaceName) -> str:
    """Return where a spot is: whole millimetres are enough to find it again, and a corner is at 0 from either side."""
    words = {"x": "along", "y": "out", "z": "up"}
    said = zip(spot, SURFACE_AXES[surface], strict=False)
    return ", ".join(f"{format_length(max(value, 0.0), case.units, decimals=0)} {words[axis]}" for value, axis in said)


def unit_name(case: Case, unit_id: str) -> str:
    """Return what a unit is called."""
    return next((u.name for u in case.place.units if u.id == unit_id), unit_id)
