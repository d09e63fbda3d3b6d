"""A simulated installer: sets units on a true floor with small errors, reads checks, and does what Set says.

What stands is told by plain geometry: a stiff body rests on what lies under its corners as the plane nearest to them.
Nothing of how Set works it out is used here.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta

import numpy as np
from msgspec.structs import replace as changed

from wobble.core.facts import AsSet, Fact, Followed, Stands
from wobble.core.job import Job, Place
from wobble.core.set.advice import Move
from wobble.core.set.check import Check
from wobble.core.set.result import PlaceSet

PACKED_SD_MM, READ_SD_MM, PLACED_SD_MM = 0.3, 0.3, 1.0
"""How well shims are laid, a level with a feeler is read, and a unit is put to its line."""
TURNS = 4
"""So often a unit is put right before an installer lets it be."""
Height = Callable[[float, float], float]


@dataclass
class Body:
    """A unit as it truly stands, against where it was to stand: right, up at its middle, rises along and out."""

    stands: Stands
    dx: float
    dz: float
    ry: float
    rx: float

    def up_at(self, x: float, y: float) -> float:
        """Return how far its underside is over its plan at a spot, mm."""
        middle = (self.stands.x_mm + self.stands.wide_mm / 2, self.stands.out_mm + self.stands.deep_mm / 2)
        return self.dz + self.ry * (x - middle[0]) + self.rx * (y - middle[1])

    def top_at(self, x: float, *, front: bool = False) -> float:
        """Return the true height of its top in the middle of its depth, or at its front, mm."""
        s = self.stands
        return s.under_mm + s.high_mm + self.up_at(x, s.out_mm + s.deep_mm * (1.0 if front else 0.5))


def _plane(spots: Sequence[tuple[float, float]], ups: Sequence[float], stands: Stands) -> tuple[float, float, float]:
    """Return the plane nearest to some heights: up at the unit's middle, rise along, rise out."""
    middle = (stands.x_mm + stands.wide_mm / 2, stands.out_mm + stands.deep_mm / 2)
    rows = np.array([[1.0, x - middle[0], y - middle[1]] for x, y in spots])
    found, *_ = np.linalg.lstsq(rows, np.asarray(ups), rcond=None)
    return float(found[0]), float(found[1]), float(found[2])


def stood_on(floor: Height, stands: Stands, rng: np.random.Generator) -> Body:
    """Return how a unit stands that is put on what the plan lays under it, over a true floor."""
    spots = [p.at for p in stands.on]
    ups = [floor(*p.at) + p.mm + float(rng.normal(0, PACKED_SD_MM)) - stands.under_mm for p in stands.on]
    dz, ry, rx = _plane(spots, ups, stands) if len(spots) >= 3 else (float(rng.normal(0, 1.0)), 0.0, 0.0)
    return Body(stands, float(rng.normal(0, PLACED_SD_MM)), dz, ry, rx)


def put_right(body: Body, moves: Sequence[Move], rng: np.random.Generator) -> Body:
    """Return a unit after its corners were moved as was said, to the half millimetre that shims come in."""
    if not moves:
        return body
    by = {m.at: round(m.up_mm * 2) / 2 + float(rng.normal(0, PACKED_SD_MM / 2)) for m in moves}
    spots = [p.at for p in body.stands.on] or list(by)
    ups = [body.up_at(*s) + by.get(s, 0.0) for s in spots]
    dz, ry, rx = _plane(spots, ups, body.stands) if len(spots) >= 3 else (body.dz, 0.0, 0.0)
    return replace(body, dz=dz, ry=ry, rx=rx)


def reads(
    check: Check, body: Body | None, rng: np.random.Generator, beside: Mapping[str, Body] | None = None
) -> float | None:
    """Return what an instrument reads of a check; None where there is nothing to read, but yes or no."""
    if check.expected_mm is None:
        return None
    noise = float(rng.normal(0, READ_SD_MM))
    if body is None:
        missed = abs(noise) * 0.3 if check.only == "more" else noise * 0.5
        return round(check.expected_mm + missed, 2)
    s = body.stands
    if check.kind.startswith("step-"):
        return _step(check, body, beside, noise)
    off = {
        "level-along": body.ry * s.wide_mm,
        "level-out": body.rx * s.deep_mm,
        "height": body.dz + body.rx * s.deep_mm / 2,
        "plumb-side": -body.ry * s.high_mm,
        "plumb-front": -body.rx * s.high_mm,
        "beside-left-foot": body.dx,
        "beside-right-foot": -body.dx,
        "beside-left-head": body.dx - body.ry * s.high_mm,
        "beside-right-head": -body.dx + body.ry * s.high_mm,
    }.get(check.kind)
    if off is None:
        return reads(check, None, rng)
    # what was planned may have followed since the unit was put there
    now = check.stands or s
    moved = {"height": s.under_mm - now.under_mm}.get(check.kind, 0.0)
    if check.kind.startswith("beside"):
        moved = (s.x_mm - now.x_mm) * (1 if "left" in check.kind else -1)
    return round(check.expected_mm + off + moved + noise, 2)


def _step(check: Check, body: Body, beside: Mapping[str, Body] | None, noise: float) -> float | None:
    """Return the step between the tops of two units at the front, the right one's over the left one's."""
    other = (beside or {}).get(check.key.rsplit("/", 1)[-1])
    if other is None:
        return round(noise, 2)
    x = max(body.stands.x_mm, other.stands.x_mm)
    left, right = (body, other) if body.stands.x_mm < other.stands.x_mm else (other, body)
    return round(right.top_at(x, front=True) - left.top_at(x, front=True) + noise / 2, 2)


@dataclass
class Installer:
    """Somebody who sets a place unit by unit, and what truly stands then.

    `solve` answers a job's checks; `floor` is the true one, over the datum mark. `follows` says whether the plan is
    let follow what stands; `checks` whether anything is checked at all.
    """

    job: Job
    place: str
    floor: Height
    solve: Callable[[Job, str], PlaceSet]
    rng: np.random.Generator
    clock: datetime
    checks: bool = True
    follows: bool = True
    stood: dict[str, Body] = field(default_factory=dict)
    count: int = 0

    def add(self, *facts: Fact) -> None:
        """Write facts down."""
        places = tuple(changed(p, facts=(*p.facts, *facts)) if p.id == self.place else p for p in self.job.places)
        self.job = changed(self.job, places=places)

    @property
    def own(self) -> Place:
        """The place as it is written down."""
        return next(p for p in self.job.places if p.id == self.place)

    def moment(self) -> datetime:
        """Return the next minute."""
        self.count += 1
        return self.clock + timedelta(minutes=self.count)

    def set_unit(self, unit: str) -> None:
        """Set one unit: on what is planned under it, checked and put right where that is done, and followed."""
        found = self.solve(self.job, self.place)
        mine = [c for c in found.checks if c.of == unit and "/set/" in f"/{c.step}"]
        stands = next((c.stands for c in mine if c.stands is not None), None)
        if stands is None:
            return
        self.stood[unit] = stood_on(self.floor, stands, self.rng)
        if not self.checks:
            return
        for _ in range(TURNS):
            self.read(mine)
            found = self.solve(self.job, self.place)
            moves = next((a.moves for a in found.advice if a.of == unit), ())
            if not moves:
                break
            self.stood[unit] = put_right(self.stood[unit], moves, self.rng)
        if self.follows and unit in found.pending:
            readings = next(s.readings for s in found.stands if s.unit == unit)
            self.add(Followed(id=f"follow-{self.count}", taken_at=self.moment(), readings=readings))

    def read(self, checks: Sequence[Check]) -> None:
        """Read some checks and write down what they come to."""
        facts = []
        for check in checks:
            value = reads(check, self.stood.get(check.of), self.rng, self.stood)
            facts.append(
                AsSet(
                    id=f"as-{self.count}",
                    taken_at=self.moment(),
                    check=check.key,
                    value_mm=value,
                    came="right" if value is None else None,
                    expected_mm=check.expected_mm,
                    of=check.of,
                    stands=check.stands,
                )
            )
        self.add(*facts)
