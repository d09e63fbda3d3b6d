"""Whether each unit gets to its place, in the order in which they go, and what would work where one does not."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from msgspec.structs import replace

from wobble.core.budget import spend
from wobble.core.confidence import SURE
from wobble.core.figure import chance, mean_and_sd, quantile
from wobble.core.fit.access.passage import Box, corner, doorway, stair, stand_up, tallest_to_stand
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import LAID_ON, Tier, carriers, tiers
from wobble.core.fit.sides.closing import Sides
from wobble.core.fit.surfaces.walls import TAKEN_AWAY, Walls
from wobble.core.fit.tops.flat import FlatPart
from wobble.core.gauge.prior import Floats
from wobble.core.job import Doorway, Passage, Place, Stair, StandUp, Threshold, Turn, Unit, Value
from wobble.core.job.unit import TALL_FROM_MM, BaseFrame, OnCleats, ScrewFeet, ToeKickBox
from wobble.core.length import LengthUnit, format_length

LIFT_MM = 5.0
"""How far a unit is lifted to be walked into its place."""
TWO_PEOPLE_KG = 25.0
BACK_MM = 8.0
"""What leaving the back panel off makes a box shallower by, where it is let in."""


class Pass(Value, frozen=True, kw_only=True):
    """One place that a unit has to pass.

    Attributes:
        key: Its stable name. where: Its name. goes: Whether it passes there, taken as likely from one chance in two on.
        chance: Of passing, 0 to 1; 1 or 0 where the place's size is taken as said.
        spare_mm: What is left over at the tightest; below zero what is missing. sd_mm: Its standard uncertainty.
        how: How to carry it, or what catches.
    """

    key: str
    where: str
    goes: bool
    chance: float
    spare_mm: float
    sd_mm: float = 0.0
    how: str = ""


class Access(Value, frozen=True, kw_only=True):
    """How one unit gets to its place.

    Attributes:
        unit: Which. order: Its turn, from 1. why: Why then. passes: What it passes, in order.
        goes_in: Whether it passes all. chance: Of all, 0 to 1. instead: What would work where it does not.
        caution: Where lifting it can hurt somebody.
    """

    unit: str
    order: int
    why: str
    passes: tuple[Pass, ...]
    goes_in: bool
    chance: float
    instead: tuple[str, ...]
    caution: str = ""


@dataclass(frozen=True)
class Way:
    """What the units pass: the way to the place, its own surfaces, and how it is said."""

    place: Place
    way_in: tuple[Passage, ...]
    walls: Walls
    stand: Stand
    sides: tuple[Sides, ...]
    units: LengthUnit
    flats: tuple[FlatPart, ...] = ()


def access(way: Way) -> tuple[Access, ...]:
    """Return how every unit gets in, in the order of installing: ends first, the one between last; then what hangs."""
    out: list[Access] = []
    waiting = [u for u in way.place.units if u.flat or u.kind == "face frame"]
    for tier in tiers(way.place):
        if tier.name == "hung":  # a top comes down with one end up: before anything hangs over it
            lowest = min(u.over_base_mm for u in tier.units)
            for unit in [u for u in waiting if u.flat and u.over_base_mm < lowest and not _on(way, u, tier.units)]:
                out.append(
                    _access(way, None, unit, len(out) + 1, "on what stands below it, before anything hangs over")
                )
                waiting.remove(unit)
        for unit, why in _order(tier):
            out.append(_access(way, tier, unit, len(out) + 1, why))
    for unit in sorted(waiting, key=lambda u: (u.kind == "face frame", u.over_base_mm)):
        frame = unit.kind == "face frame"
        why = "before what stands behind it is filled" if frame else _carried_words(way, unit)
        out.append(_access(way, None, unit, len(out) + 1, why))
    return tuple(out)


def _on(way: Way, unit: Unit, units: tuple[Unit, ...]) -> bool:
    return any(u in units for u in carriers(way.place.units, unit))


def _carried_words(way: Way, unit: Unit) -> str:
    if isinstance(unit.standing, OnCleats):
        return "on its cleats"
    return "on what stands below it" if carriers(way.place.units, unit) else "where it is fixed"


def _order(tier: Tier) -> Iterator[tuple[Unit, str]]:
    """Yield units in the order in which none traps another: both ends have room to be walked sideways."""
    first = [u for u in tier.units if u.kind in LAID_ON]
    for unit in first:
        yield unit, "first: the rest stands on it or against it"
    units = [u for u in tier.units if u not in first]
    if not units:
        return
    if len(units) == 1:
        yield units[0], "alone"
        return
    yield units[0], "at an end: it can still be walked sideways past the front corner"
    yield units[-1], "at the other end, for the same reason"
    middle = units[1:-1]
    for i, unit in enumerate(middle):
        last = i == len(middle) - 1
        yield unit, "last, straight in between its neighbours" if last else "inwards from the left end"


def _access(way: Way, tier: Tier | None, unit: Unit, order: int, why: str) -> Access:
    spend()
    passes = (*_outside(way, unit), *_inside(way, tier, unit))
    chance = min((p.chance for p in passes), default=1.0)
    goes = all(p.goes for p in passes)
    heavy = unit.weight_kg > TWO_PEOPLE_KG or unit.height_mm >= TALL_FROM_MM
    return Access(
        unit=unit.id,
        order=order,
        why=why,
        passes=passes,
        goes_in=goes,
        chance=chance,
        instead=() if goes and chance >= SURE else tuple(_instead(way, tier, unit, passes)),
        caution="Two people carry it and stand it up; keep it tied until it is fixed, as it can tip." if heavy else "",
    )


def _box(unit: Unit) -> Box:
    """Return what is carried: of a part that is longer than its stock, one piece."""
    long = unit.width_mm
    if unit.flat and unit.board is not None:
        long /= math.ceil(long / unit.board.stock_mm)
    return long, unit.depth_mm, unit.height_mm


def _outside(way: Way, unit: Unit) -> Iterator[Pass]:
    """Yield what lies on the way to the place."""
    box = _box(unit)
    for i, passage in enumerate(way.way_in):
        match passage:
            case Doorway():
                spare = doorway(box, passage.width_mm, passage.height_mm)
                how = "one side ahead, the other two through the opening"
            case Turn():
                spare = corner(box, passage.from_mm, passage.into_mm, passage.height_mm)
                how = "its long side turned about the inner corner, one end raised where that helps"
            case Stair():
                spare = stair(box, passage.width_mm, passage.headroom_mm, passage.slope_deg)
                how = "carried along the slope"
            case StandUp():
                spare = stand_up(box, passage.height_mm) if _stood_up(unit) else passage.height_mm - unit.height_mm
                how = "stood up about the lower edge of its smaller side"
            case Threshold():
                continue  # it tells under the ceiling of the place
        yield Pass(
            key=f"way-{i + 1}", where=passage.name, goes=spare >= 0, chance=float(spare >= 0), spare_mm=spare, how=how
        )


def _stood_up(unit: Unit) -> bool:
    return unit.height_mm >= TALL_FROM_MM


def _inside(way: Way, tier: Tier | None, unit: Unit) -> Iterator[Pass]:
    """Yield what the place's own surfaces ask for."""
    stood_elsewhere = any(isinstance(p, StandUp) for p in way.way_in)
    low, how_known = ceiling_over(way, unit, to_front=True), ""
    steps = tuple(_steps(way, unit))
    if low is None and steps:  # what is lifted over something needs a ceiling, if only the one that was said
        low, how_known = (
            np.full(1, way.place.height_mm - way.stand.base_mm),
            ", under a ceiling as high as the place is said",
        )
    if low is not None:
        if _stood_up(unit) and not stood_elsewhere and not how_known:
            box = _box(unit)
            left = low + stand_up(box, 0.0)
            yield _pass("stand-up", "Standing it up here", left, "about the lower edge of its smaller side")
        lift = max((0.0, *steps)) + LIFT_MM
        over = unit.over_base_mm + unit.height_mm
        lifted = f"lifted by {format_length(lift, way.units)}{how_known}"
        yield _pass("ceiling", "Under the ceiling", low - over - lift, lifted)
    yield from _one_end_up(way, unit, low)
    mine = next((s for s in way.sides if tier is not None and s.tier == tier.name), None)
    if mine is None or tier is None or mine.opening is None:
        return
    if unit.id not in (tier.units[0].id, tier.last.id):
        return
    open_ = mine.opening
    yield Pass(
        key="walls",
        where="Between the walls",
        goes=open_.chance >= 0.5,
        chance=open_.chance,
        spare_mm=open_.least.value_mm - open_.wanted_mm,
        sd_mm=open_.least.sd_mm,
        how="straight in, shifted sideways as the walls ask" if open_.shifted else "all of them side by side",
    )


def _one_end_up(way: Way, unit: Unit, low: Floats | None) -> Iterator[Pass]:
    """Yield whether the raised end of a top that goes in tilted stays under the ceiling."""
    part = next((p for p in way.flats if p.unit == unit.id), None)
    if part is None or part.tilt is None or part.tilt.straight >= SURE or part.tilt.tilted < SURE:
        return
    if low is None:
        low = np.full(1, way.place.height_mm - way.stand.base_mm)
    left = low - (unit.over_base_mm + unit.height_mm + part.tilt.room_mm)
    yield _pass("raised-end", "Its raised end", left, f"one end up by {format_length(part.tilt.room_mm, way.units)}")


def _steps(way: Way, unit: Unit) -> Iterator[float]:
    """Yield how high a unit is lifted: over thresholds, and over what stays on the floor where it goes in.

    What hangs is carried past them low and is lifted to its place afterwards.
    """
    if not unit.stands:
        return
    for passage in way.way_in:
        if isinstance(passage, Threshold):
            yield passage.height_mm
    for obstacle in way.place.obstacles:
        on_floor = obstacle.surface == "floor" and obstacle.treatment not in TAKEN_AWAY
        if on_floor and obstacle.at[0] < unit.right_mm and obstacle.at[0] + obstacle.size[0] > unit.x_mm:
            yield obstacle.proud_mm


def _pass(key: str, where: str, left: Floats, how: str) -> Pass:
    likely = chance(left >= 0)
    spare, sd = mean_and_sd(left)
    return Pass(
        key=key,
        where=where,
        goes=likely >= 0.5,
        chance=likely,
        spare_mm=spare,
        sd_mm=sd,
        how=how,
    )


def ceiling_over(way: Way, unit: Unit, *, to_front: bool) -> Floats | None:
    """Return draws of the least height from the base to the ceiling over a unit, and on its way in to the front."""
    ceiling = way.walls.ceiling
    if ceiling is None:
        return None
    back = way.stand.back_at(unit)
    far = way.place.depth_mm if to_front else back + unit.depth_mm
    rows, columns = ceiling.rows(unit.x_mm, unit.right_mm), ceiling.columns(back, max(far, back + 1.0))
    over = ceiling.sampled[:, rows, columns]
    return np.asarray(over.reshape(len(over), -1).min(axis=1) - way.stand.base_mm)


def _instead(way: Way, tier: Tier | None, unit: Unit, passes: tuple[Pass, ...]) -> Iterator[str]:
    """Yield what would work: each is tried on the same passages, and only what passes them all is said."""
    said = False
    for words, smaller in _variants(way, unit):
        if all(p.goes and p.chance >= SURE for p in (*_outside(way, smaller), *_inside(way, tier, smaller))):
            yield words
            said = True
    for p in passes:
        if p.goes and p.chance >= SURE:
            continue
        if p.key == "walls":
            mine = next(s for s in way.sides if tier is not None and s.tier == tier.name)
            yield (
                f"Make the box {format_length(mine.box_mm or 0.0, way.units, decimals=0)} wide at most, "
                "and fit the face frame by itself."
            )
            said = True
    if not said:
        missing = max(-min(p.spare_mm for p in passes), 0.0)
        yield f"It is {format_length(missing, way.units)} too large: build it in its place, or in smaller boxes."


def _variants(way: Way, unit: Unit) -> Iterator[tuple[str, Unit]]:
    """Yield smaller forms of a unit, with the words for each."""
    feet = unit.feet_in_mm
    if isinstance(unit.standing, ScrewFeet):
        feet = max(feet, min(unit.standing.now_mm) - unit.standing.least_mm)
    if feet > 0:
        yield (
            f"Screw the feet in by {format_length(feet, way.units)} first, and out again in its place.",
            replace(unit, height_mm=unit.height_mm - feet),
        )
    if isinstance(unit.standing, ToeKickBox | BaseFrame):
        under = unit.standing.height_mm
        yield (
            f"Set its base of {format_length(under, way.units)} by itself first.",
            replace(unit, height_mm=unit.height_mm - under),
        )
    if unit.depth_mm > 2 * BACK_MM:
        yield (
            "Leave the back off until it is inside.",
            replace(unit, depth_mm=unit.depth_mm - BACK_MM),
        )
    if unit.height_mm > unit.depth_mm:
        heights = [p.height_mm for p in way.way_in if isinstance(p, StandUp)]
        low = ceiling_over(way, unit, to_front=True)
        if low is not None and not heights:
            heights = [quantile(low, 1 - SURE)]
        whole = tallest_to_stand(_box(unit), heights[0]) if heights else unit.height_mm / 2
        if 0 < whole < unit.height_mm:
            lower = float(math.floor(whole))
            yield (
                f"Split it across: no part taller than {format_length(lower, way.units, decimals=0)}.",
                replace(unit, height_mm=lower),
            )
        half = unit.height_mm / 2
        yield "Split it in two across its height.", replace(unit, height_mm=half)
    yield "Split it in two side by side.", replace(unit, width_mm=unit.width_mm / 2)
