"""All of one place that steps are made from: what the stages before say of it."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

from wobble.core.facts import Obstacle
from wobble.core.fit.access.access import Access
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.run.tiers import carriers, tier_of
from wobble.core.fit.scribe.line import Scribe
from wobble.core.hold.result import PlaceHold
from wobble.core.job import Job, Place, Unit
from wobble.core.length import spoken
from wobble.core.make.construction.units import is_box
from wobble.core.make.marked import NOT_MADE, MarkedPart
from wobble.core.part import Fastener

HUNG_ON = ("cleat", "ledger", "batten", "timber", "nailer")
"""What is screwed to a wall before what hangs or lies on it."""
FROM_BELOW = "top board"
"""Through what a box is screwed to the top that lies on it."""


@dataclass(frozen=True)
class PlaceWork:
    """One place with all that is planned for it.

    Attributes:
        job: The whole job. place: As it is set out, its units as Fit has them. base_mm: Where the run's base is.
        back_mm: Where its back line is. plan: Shims and packing, once they can be told. access: How units go in.
        hold: How all is fastened. parts: All that is made of it. scribes: Edges that are cut to a wall.
        measured: Whether its readings are enough to plan by.
    """

    job: Job
    place: Place
    base_mm: float
    back_mm: float
    plan: Plan | None
    access: tuple[Access, ...]
    hold: PlaceHold
    parts: tuple[MarkedPart, ...]
    scribes: tuple[Scribe, ...]
    measured: bool

    def key(self, kind: str, what: str = "") -> str:
        """Return the key of a step of this place."""
        tail = re.sub(r"[^A-Za-z0-9._-]+", "-", what)
        return "/".join(filter(None, (kind.replace(" ", "-"), self.place.id, tail)))

    def say(self, mm: float) -> str:
        """Return a length as the user reads it."""
        return spoken(mm, self.job.units)

    @cached_property
    def units(self) -> tuple[Unit, ...]:
        """Units in the order in which they go to their place; what Fit names in no order comes last, lowest first."""
        turn = {a.unit: a.order for a in self.access}
        return tuple(sorted(self.place.units, key=lambda u: (turn.get(u.id, 10_000), u.over_base_mm, u.x_mm)))

    def unit(self, key: str) -> Unit | None:
        """Return a unit by its id."""
        return next((u for u in self.place.units if u.id == key), None)

    def parts_of(self, unit: Unit, *roles: str) -> tuple[MarkedPart, ...]:
        """Return the parts of a unit that are made here, of some roles or of all."""
        return tuple(
            p
            for p in self.parts
            if p.state not in NOT_MADE and unit.id in p.part.of[:1] and (not roles or p.part.role in roles)
        )

    def fasteners_of(self, unit: Unit) -> tuple[Fastener, ...]:
        """Return what a unit is fastened with; screws up into a top, out of the boxes under it, are the top's."""
        return tuple(f for f in self.hold.fasteners if fastens(f) == unit.id)

    def access_of(self, unit: Unit) -> Access | None:
        """Return how a unit gets in."""
        return next((a for a in self.access if a.unit == unit.id), None)

    def carried_by(self, unit: Unit) -> tuple[Unit, ...]:
        """Return the units that carry a unit."""
        return carriers(self.place.units, unit)

    def is_hung(self, unit: Unit) -> bool:
        """Return whether nothing below carries a unit."""
        return tier_of(self.place.units, unit) == "hung"

    @cached_property
    def obstacles(self) -> tuple[Obstacle, ...]:
        """What is in the way."""
        return self.place.obstacles

    def built(self, unit: Unit) -> bool:
        """Return whether a unit is put together here out of boards."""
        return not unit.ready_made and is_box(unit) and bool(self.parts_of(unit))


def fastens(f: Fastener) -> str:
    """Return the unit that a screw makes fast: the top that it goes up into, else the one that it goes through."""
    return f.joins[1] if f.part == FROM_BELOW else f.unit


def marks(parts: Iterable[MarkedPart]) -> tuple[str, ...]:
    """Return what to bring of parts: their marks, several alike counted."""
    return tuple(f"{p.mark}{f' ×{p.part.quantity}' if p.part.quantity > 1 else ''}" for p in parts)


def screws_to_bring(fasteners: Sequence[Fastener], work: PlaceWork) -> tuple[str, ...]:
    """Return screws to bring, counted by their size."""
    found: dict[tuple[str, float, float], int] = {}
    for f in fasteners:
        size = (f.kind, f.shank_mm, f.screw_mm)
        found[size] = found.get(size, 0) + 1
    return tuple(f"{n} × {kind} {shank:g} × {work.say(long)}" for (kind, shank, long), n in sorted(found.items()))
