"""A rack under a crooked ceiling: how long each of its hangers is, so that it hangs level."""

from __future__ import annotations

import numpy as np

from wobble.core.figure import Figure, Step
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import upright
from wobble.core.fit.surfaces.walls import Walls
from wobble.core.gauge.shares import shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Unit, Value
from wobble.core.job.unit import Hung


class Hanger(Value, frozen=True, kw_only=True):
    """One hanger: of which unit, at which corner, where it meets the ceiling (x, y), and its length, mm."""

    unit: str
    corner: str
    at: tuple[float, float]
    long: Figure


def hangs_from_ceiling(unit: Unit) -> bool:
    """Return whether a unit hangs from the ceiling: a rack that nothing carries from below."""
    return unit.kind == "rack" and isinstance(unit.standing, Hung)


def back_on_wall(unit: Unit) -> bool:
    """Return whether a rack's back rail is screwed to the wall, so that it hangs in front only."""
    return hangs_from_ceiling(unit) and "back" in unit.fastened_to


def places(unit: Unit, stand: Stand) -> tuple[tuple[str, tuple[float, float]], ...]:
    """Return the name and the (x, y) of each of a rack's hangers: at all four corners, or in front only."""
    back = stand.back_at(unit)
    inset = min(unit.support_inset_mm, unit.width_mm / 2, unit.depth_mm / 2)
    rows: tuple[tuple[str, float], ...] = (("back", back + inset), ("front", back + unit.depth_mm - inset))
    sides = (("left", unit.x_mm + inset), ("right", unit.right_mm - inset))
    rows = rows[1:] if back_on_wall(unit) else rows
    return tuple((f"{row} {side}", (x, y)) for row, y in rows for side, x in sides)


def hangers(survey: Survey, units: tuple[Unit, ...], walls: Walls, stand: Stand) -> tuple[Hanger, ...]:
    """Return the hangers of every rack, from the ceiling down to its top; none where no ceiling is measured."""
    if walls.ceiling is None:
        return ()
    out = []
    for unit in units:
        if not hangs_from_ceiling(unit):
            continue
        _, top = upright(unit, stand.base_mm)
        named = places(unit, stand)
        spots = np.array([at for _, at in named])
        mean, sd = survey.adjustment.mean_and_sd(("ceiling", spots))
        for (corner, at), z, s, rests in zip(named, mean, sd, shares(survey, "ceiling", spots), strict=True):
            steps = (
                Step(label="Ceiling", surface="ceiling", at=at, value_mm=float(z), sd_mm=float(s), rests_on=rests),
                Step(label="Top of the rack", sign=-1, value_mm=top),
            )
            long = Figure(value_mm=float(z) - top, sd_mm=float(s), working=steps)
            out.append(Hanger(unit=unit.id, corner=corner, at=at, long=long))
    return tuple(out)
