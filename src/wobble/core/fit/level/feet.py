"""Screw feet and legs: how far each foot is turned from where it is set now, in an order that visits each once.

With the turns known beforehand nobody has to try until it is level: a unit is laid on its back, its feet are set by
count, and it stands level where it was measured. Feet are set unit by unit from the high spot outwards, each unit's
round its corners.
"""

from __future__ import annotations

from dataclasses import dataclass

from wobble.core.figure import Figure, Step
from wobble.core.fit.run.contact import FloorContact
from wobble.core.fit.run.supports import Support
from wobble.core.job import Unit, Value
from wobble.core.job.unit import Legs, ScrewFeet

CORNERS = ("back left", "back right", "front right", "front left")
EIGHTHS = 8


class Foot(Value, frozen=True, kw_only=True):
    """One screw foot.

    Attributes:
        support: Which. unit: Of which unit. corner: Where. order: Its turn, from 1.
        now_mm: How long it is now. long: How long it must be, with its working.
        turns: Full turns from now; above zero out, which makes it longer.
        eighths: The same in eighths of a turn, rounded to the nearest.
        reaches: Whether its thread reaches there.
    """

    support: str
    unit: str
    corner: str
    order: int
    now_mm: float
    long: Figure
    turns: float
    eighths: int
    reaches: bool


class Leg(Value, frozen=True, kw_only=True):
    """One leg: how long it must be, and what is cut off it; below zero where it is too short."""

    support: str
    unit: str
    corner: str
    long: Figure
    cut_mm: float


@dataclass(frozen=True)
class Carried:
    """A support with the gap that is left between the run's base line and the floor there."""

    support: Support
    gap: Figure


def feet(contact: FloorContact, carried: tuple[Carried, ...]) -> tuple[Foot, ...]:
    """Return every screw foot of a run in the order in which to set them."""
    units = {u.id: u for u in contact.units}
    mine = [c for c in carried if isinstance(units[c.support.unit].standing, ScrewFeet)]
    x_high = contact.high_spot.at[0]
    order = {u: i for i, u in enumerate(_outwards(list(units.values()), x_high))}
    mine.sort(key=lambda c: (order[c.support.unit], CORNERS.index(c.support.corner)))
    return tuple(_foot(units[c.support.unit], c, i + 1) for i, c in enumerate(mine))


def _outwards(units: list[Unit], x_mm: float) -> list[str]:
    """Return unit ids from the one over a place to its nearer end of the run, then the rest to the other end."""
    units = sorted(units, key=lambda u: u.x_mm)
    start = min(range(len(units)), key=lambda i: max(units[i].x_mm - x_mm, x_mm - units[i].right_mm, 0.0))
    left, right = units[:start][::-1], units[start + 1 :]
    first, second = (left, right) if len(left) <= len(right) else (right, left)
    return [u.id for u in (units[start], *first, *second)]


def _foot(unit: Unit, carried: Carried, order: int) -> Foot:
    standing = unit.standing
    if not isinstance(standing, ScrewFeet):
        raise TypeError(unit.id)
    at = CORNERS.index(carried.support.corner)
    now = standing.now_mm[at] if len(standing.now_mm) > at else standing.now_mm[0]
    shortest = max(standing.now_mm)
    long = Figure(
        value_mm=shortest + carried.gap.value_mm,
        sd_mm=carried.gap.sd_mm,
        working=(
            Step(label="Foot at the run's base line", value_mm=shortest),
            Step(label="Gap down to the floor", value_mm=carried.gap.value_mm, sd_mm=carried.gap.sd_mm),
        ),
    )
    turns = (long.value_mm - now) / standing.pitch_mm
    return Foot(
        support=carried.support.id,
        unit=unit.id,
        corner=carried.support.corner,
        order=order,
        now_mm=now,
        long=long,
        turns=turns,
        eighths=round(turns * EIGHTHS),
        reaches=standing.least_mm <= long.value_mm <= standing.most_mm,
    )


def legs(contact: FloorContact, carried: tuple[Carried, ...]) -> tuple[Leg, ...]:
    """Return every leg of a run that is cut to length."""
    units = {u.id: u for u in contact.units}
    out = []
    for c in carried:
        standing = units[c.support.unit].standing
        if not isinstance(standing, Legs):
            continue
        steps = (
            Step(label="Leg at the run's base line", value_mm=standing.finished_mm),
            Step(label="Gap down to the floor", value_mm=c.gap.value_mm, sd_mm=c.gap.sd_mm),
        )
        long = Figure(value_mm=standing.finished_mm + c.gap.value_mm, sd_mm=c.gap.sd_mm, working=steps)
        out.append(
            Leg(
                support=c.support.id,
                unit=c.support.unit,
                corner=c.support.corner,
                long=long,
                cut_mm=standing.long_mm - long.value_mm,
            )
        )
    return tuple(out)
