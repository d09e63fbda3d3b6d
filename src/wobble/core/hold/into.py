"""What screws go into: surfaces with their linings, what is known behind them, and wood that is put in between."""

from __future__ import annotations

from dataclasses import dataclass

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Behind
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.run.contact import FloorContact
from wobble.core.hold.structure.lines import Structure
from wobble.core.job import Place, ShimKit
from wobble.core.job.backing import Backing
from wobble.core.length import LengthUnit


@dataclass(frozen=True)
class Block:
    """Wood that is put in between two studs: its corners on the surface, mm."""

    low: tuple[float, float]
    high: tuple[float, float]

    def holds(self, at: tuple[float, float]) -> bool:
        """Return whether a spot lies on it."""
        return all(a <= x <= b for a, x, b in zip(self.low, at, self.high, strict=True))


@dataclass(frozen=True)
class Into:
    """A surface that things are fastened to: what it is made of, its lines, and which coordinate counts across them.

    `blocks` are put in between its studs, where it is an open frame.
    """

    surface: Behind
    backing: Backing
    known: Structure
    axis: int = 0
    blocks: tuple[Block, ...] = ()

    def bites(self, at: tuple[float, float]) -> float:
        """Return the chance that a screw at a spot meets what holds."""
        if self.backing.kind == "masonry" or any(b.holds(at) for b in self.blocks):
            return 1.0
        if self.surface in ("ceiling", "floor"):
            return self.known.bites(at[self.axis])
        return self.known.bites(at[0], at[1])

    def doubt(self, at: tuple[float, float]) -> str:
        """Return why what holds should be found before it is drilled for, in words; "" where nothing is in doubt."""
        if self.backing.kind == "masonry" or any(b.holds(at) for b in self.blocks):
            return ""
        up = None if self.surface in ("ceiling", "floor") else at[1]
        place = at[self.axis]
        line = min(self.known.lines, key=lambda f: abs((f.at_mm if up is None else f.at(up)) - place), default=None)
        if line is None or not line.found_by:
            return "Only the spacing says that it is there: find it first."
        if len(line.found_by) < 2:
            return "One method found it: find it by a second first."
        return "Find its edges first." if self.bites(at) < SURE_TO_BITE else ""


@dataclass(frozen=True)
class Context:
    """What the units are fastened to, and what they stand on; `line_mm` is the height of a level line that is known."""

    place: Place
    into: dict[Behind, Into]
    contact: FloorContact
    plan: Plan
    kit: ShimKit
    units: LengthUnit
    line_mm: float | None = None

    @property
    def back(self) -> Structure:
        """What is known behind the back."""
        return self.into["back"].known

    @property
    def backing(self) -> Backing:
        """What the walls are made of."""
        return self.into["back"].backing

    @property
    def driving_g(self) -> float:
        """How hard what is fixed is thrown about, in weights: said of walls or ceiling, it is of the place."""
        return max(self.backing.driving_g, self.into["ceiling"].backing.driving_g)
