"""The methods of making level, and of the line that the backs stand on, each with what it costs here."""

from __future__ import annotations

from typing import Literal

import numpy as np
from msgspec.structs import replace

from wobble.core.fit.level.feet import Foot
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.run.contact import FloorContact
from wobble.core.fit.run.supports import FRAME_STEP_MM
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.job import ShimKit, Value
from wobble.core.job.unit import ScrewFeet
from wobble.core.length import LengthUnit, format_length

MOST_SCRIBED_MM = 25.0
"""What can be scribed off a base without its toe-kick looking crooked."""
LINE_SPREAD_MM = 0.5

LevelMethodName = Literal["shims", "base frame", "screw feet", "scribe the base down"]
LineMethodName = Literal["as it is", "parallel to the back", "square to the left wall", "square to the right wall"]


class LevelMethod(Value, frozen=True, kw_only=True):
    """One way of making the run level: how many places are set, the largest correction, and whether it works here."""

    method: LevelMethodName
    works: bool
    places: int
    largest_mm: float
    reason: str
    proposed: bool = False


class LineMethod(Value, frozen=True, kw_only=True):
    """One line for the backs: its turn, the deepest packing behind, and how much the gap grows from left to right."""

    method: LineMethodName
    turn_mm_per_m: float
    deepest_mm: float
    taper_mm: float
    reason: str
    proposed: bool = False


def level_methods(
    contact: FloorContact, plan: Plan, feet: tuple[Foot, ...], kit: ShimKit, units: LengthUnit
) -> tuple[LevelMethod, ...]:
    """Return the ways of making this run level under the datum that was decided."""
    gaps = np.asarray([s.gap.value_mm for s in plan.shims])
    if not len(gaps):
        return ()
    standing = [u for u in contact.units if u.stands]
    long = max(u.right_mm for u in standing) - min(u.x_mm for u in standing)
    frame_places = 2 * (int(np.ceil(long / FRAME_STEP_MM)) + 1)
    largest, n = float(gaps.max()), int((gaps > kit.tolerance_mm).sum())
    blocks = int((gaps > kit.max_stack_mm).sum())
    have_feet = bool(standing) and all(isinstance(u.standing, ScrewFeet) for u in standing)
    out_of_reach = sum(not f.reaches for f in feet)
    spread = float(np.ptp(gaps))
    found = (
        LevelMethod(
            method="screw feet",
            works=have_feet and not out_of_reach,
            places=len(feet),
            largest_mm=max((abs(f.long.value_mm - f.now_mm) for f in feet), default=0.0),
            reason="not all units have screw feet"
            if not have_feet
            else (f"{out_of_reach} past their thread" if out_of_reach else "set by count, each foot once"),
        ),
        LevelMethod(
            method="shims",
            works=blocks == 0,
            places=n,
            largest_mm=max(largest, 0.0),
            reason="each unit by itself, nothing to build" if not blocks else f"{blocks} gaps past the kit",
        ),
        LevelMethod(
            method="base frame",
            works=True,
            places=frame_places,
            largest_mm=max(largest, 0.0),
            reason=f"levelled once, all units set on it; costs {format_length(80.0, units)} of height and timber",
        ),
        LevelMethod(
            method="scribe the base down",
            works=spread <= MOST_SCRIBED_MM,
            places=2 * len(standing),
            largest_mm=spread,
            reason="no gap to cover at the foot, but each side is cut to the floor",
        ),
    )
    best = next(s.method for s in found if s.works)
    return tuple(replace(s, proposed=s.method == best) for s in found)


def line_methods(contact: FloorContact, walls: Walls, units: LengthUnit) -> tuple[LineMethod, ...]:
    """Return the lines on which the backs may stand; empty where the back is not measured."""
    if contact.back_area is None:
        return ()
    area, wall = contact.back_area, contact.back_mean
    now = contact.turn
    best = _fall(area[:, 0], wall)
    turns: list[tuple[LineMethodName, float]] = [("as it is", now), ("parallel to the back", best)]
    if walls.left is not None:
        turns.append(("square to the left wall", -_slope(walls.left)))
    if walls.right is not None:
        turns.append(("square to the right wall", -_slope(walls.right)))
    found = []
    for method, turn in turns:
        deepest, taper = _behind(area, wall, turn)
        found.append(
            LineMethod(
                method=method,
                turn_mm_per_m=round(turn * 1000.0, 1),
                deepest_mm=deepest,
                taper_mm=taper,
                reason=_why(method, deepest, taper, units),
            )
        )
    least = min(found, key=lambda s: s.deepest_mm)
    kept = found[0] if found[0].deepest_mm <= least.deepest_mm + LINE_SPREAD_MM else least
    return tuple(replace(s, proposed=s is kept) for s in found)


def _fall(x: Floats, y: Floats) -> float:
    """Return the slope of the straight line of least squares; 0 where all lies in one place."""
    off = x - x.mean()
    square = float(off @ off)
    return float(off @ y) / square if square > 0 else 0.0


def _slope(wall: Drawn) -> float:
    """Return how far a side wall runs along the back for each millimetre out, meaned over its height."""
    return _fall(wall.first, wall.mean.mean(axis=1))


def _behind(area: Floats, wall: Floats, turn: float) -> tuple[float, float]:
    """Return the deepest gap behind a line that touches the proudest spot, and how much it grows to the right."""
    off = wall - turn * area[:, 0]
    gap = off.max() - off
    return float(gap.max()), _fall(area[:, 0], gap) * float(np.ptp(area[:, 0]))


def _why(method: LineMethodName, deepest: float, taper: float, units: LengthUnit) -> str:
    deep, wide = format_length(deepest, units), format_length(abs(taper), units)
    match method:
        case "as it is":
            return f"to {deep} behind it, {wide} more at one end"
        case "parallel to the back":
            return f"follows the wall: to {deep} behind it"
        case _:
            return f"fronts square to that wall; to {deep} behind, {wide} more at one end"
