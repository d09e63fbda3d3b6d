"""What is told to the installer: one sentence with its severity and figure, and what the rules that tell it look at."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from wobble.core.figure import Figure
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.result import Whole
from wobble.core.fit.run.ground import Ground
from wobble.core.gauge.survey import Survey
from wobble.core.job import FixedTop, Job, Place, ShimKit, Spot, Value
from wobble.core.length import LengthUnit, format_length

Severity = Literal["stop", "mind", "fine"]
ORDER: dict[Severity, int] = {"stop": 0, "mind": 1, "fine": 2}


class Finding(Value, frozen=True, kw_only=True):
    """One sentence to the installer.

    Attributes:
        code: Stable name of the rule.
        severity: stop, mind or fine.
        title: The finding in a few words.
        text: What it means and what to do.
        figure: The length it is about, if any.
        caution: The safety word that belongs beside it, if any.
        concerns: Ids of readings, supports or fixings to light up.
    """

    code: str
    severity: Severity
    title: str
    text: str
    figure: Figure | None = None
    caution: str = ""
    concerns: tuple[str, ...] = ()


@dataclass(frozen=True)
class Case:
    """What the rules look at."""

    job: Job
    survey: Survey
    place: Place
    kit: ShimKit
    ground: Ground | None = None
    plan: Plan | None = None
    asked: FixedTop | None = None
    whole: Whole = field(default_factory=Whole)

    @property
    def units(self) -> LengthUnit:
        """The units that the user reads."""
        return self.job.units


def say(case: Case, value_mm: float) -> str:
    """Return a length as the user reads it; whole millimetres without a decimal."""
    whole = abs(value_mm - round(value_mm)) < 1e-6
    return format_length(value_mm, case.units, decimals=0 if whole else 1)


def place_of(case: Case, spot: Spot, second: str) -> str:
    """Return where a spot is: whole millimetres are enough to find it again."""
    along, other = (format_length(value, case.units, decimals=0) for value in spot)
    return f"{along} along, {other} {second}"


def unit_name(case: Case, unit_id: str) -> str:
    """Return what a unit is called."""
    return next((u.name for u in case.place.units if u.id == unit_id), unit_id)
