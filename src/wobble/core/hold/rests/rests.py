"""What a unit rests on or hooks over: a ledger, a bevelled split batten, the cleats of a shelf."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY, person_kg, row_kg_per_m
from wobble.core.facts import Behind
from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import packings_at
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.supports import Fixing
from wobble.core.fit.tops.boards import MATERIALS
from wobble.core.fit.tops.flat import FlatPart
from wobble.core.hold.screws import (
    LEDGER,
    RAIL_MM,
    SOLD_MM,
    Candidate,
    Context,
    Through,
    candidates,
    fewest,
    screwed,
)
from wobble.core.hold.services import kept_from
from wobble.core.job import Unit, Value
from wobble.core.job.unit import OnCleats
from wobble.core.part import Fastener

LEDGER_HIGH_MM = 60.0
LEDGER_ROWS_MM = (15.0, 45.0)
"""How far under a ledger's top its two rows of screws stand."""
BATTEN_HIGH_MM, BATTEN_UNDER_MM = 70.0, 60.0
BATTEN_ROWS_MM = (12.0, -12.0)
"""Where its two rows of screws stand over its middle."""
FLAT_MM = 3.0
"""The sharp tip of a bevel is taken off."""
LIFT_PLAY_MM = 3.0
FOOT_UP_MM = 40.0
PAST_MM = 700.0
"""How far past a unit's sides the next stud may be for a timber behind it."""
GROUND_STEP_MM, GROUND_LEAST_MM, GROUND_MOST_MM, GROUND_END_MM, GROUND_LEFT_MM = 5.0, 20.0, 90.0, 50.0, 5.0
CLEAT_SHARES: dict[str, float] = {"back": 0.6, "left": 0.35, "right": 0.35}
"""What each cleat of a shelf on three walls is planned for; together more than all, as no shelf lies evenly."""
CLEAT_ENDS_MM = 15.0
CLEAT_ROWS_MM = (10.0, -10.0)
"""Where two screws into one stud stand over the middle of a cleat."""
MASONRY_CLEAT_MM = 300.0
NO_PACKING = Figure(value_mm=0.0, sd_mm=0.0)


class Ledger(Value, frozen=True, kw_only=True):
    """A strip along the wall for units to rest on: its top at their undersides, two screws into every stud.

    Attributes:
        id: Its own. units: What rests on it, from the left.
        top_mm: Height of its top over the datum mark. under_line_mm: The same below a level line, where one is known.
        start_mm: Its left end, mm along. end_mm: Its right one. thick_mm: Its thickness. high_mm: Its height.
        places: Where it is fastened, mm along. screw_mm: Length of its longest screws, as sold.
        each_n: What its weakest screw carries. carries_n: All of them. use: Share of that which the units take.
    """

    id: str
    units: tuple[str, ...]
    top_mm: float
    under_line_mm: float | None
    start_mm: float
    end_mm: float
    thick_mm: float
    high_mm: float
    places: tuple[float, ...]
    screw_mm: float
    each_n: float
    carries_n: float
    use: float


class GroundRail(Value, frozen=True, kw_only=True):
    """A timber along the wall where the packing is deep: it is screwed to the studs, the unit's rail to it.

    Attributes:
        up_mm: Height of its middle over the datum mark. start_mm: Its left end, mm along. end_mm: Its right one.
        thick_mm: Its thickness, as much as fits behind the unit's back. studs: Where it is screwed, mm along.
        use: Share of the weakest screw's capacity. into_mm: Length of the screws from the unit's rail into it, as sold.
    """

    up_mm: float
    start_mm: float
    end_mm: float
    thick_mm: float
    studs: tuple[float, ...]
    use: float
    into_mm: float


class Spacer(Value, frozen=True, kw_only=True):
    """What stands behind the foot of a unit on a batten, so that it hangs plumb: at which side, how high, how thick."""

    side: str
    up_mm: float
    thick: Figure


class SplitBatten(Value, frozen=True, kw_only=True):
    """A bevelled split batten: one half on the wall, the other behind the unit's top, hooked over it.

    Attributes:
        top_mm: Height of the wall half's tip over the datum mark. under_line_mm: Below a level line, where known.
        thick_mm: Thickness of both halves. high_mm: Height of each before it is split. bevel_deg: Of the cut.
        engagement_mm: How far they hook over each other. lift_mm: How far the unit is lifted to hook it on.
        room_mm: What is free above it; None where nothing is known. lifts: Whether that is enough.
        spacers: Behind its foot.
    """

    top_mm: float
    under_line_mm: float | None
    thick_mm: float
    high_mm: float
    bevel_deg: float
    engagement_mm: float
    lift_mm: float
    room_mm: float | None
    lifts: bool
    spacers: tuple[Spacer, ...]


class ShelfCleat(Value, frozen=True, kw_only=True):
    """One cleat of a shelf and its screws.

    Attributes:
        unit: Of which shelf. wall: On which wall. long_mm: Its length. top_mm: Its top over the datum mark.
        under_line_mm: The same below a level line, where one is known. load_n: What it is planned for.
        fasteners: Its screws, by their ids. use: Share of their capacity. enough: Whether it holds.
        instead: What to do where it does not.
    """

    unit: str
    wall: Behind
    long_mm: float
    top_mm: float
    under_line_mm: float | None
    load_n: float
    fasteners: tuple[str, ...]
    use: float
    enough: bool
    instead: str


def under_line(context: Context, up_mm: float) -> float | None:
    """Return how far under the known level line a height is, mm."""
    return None if context.line_mm is None else context.line_mm - up_mm


def ledger(context: Context, units: tuple[Unit, ...], shear_n: float) -> tuple[Ledger, tuple[Candidate, ...]] | None:
    """Return one ledger under units that hang side by side, and its screws; None with fewer than two sure places."""
    found: list[Candidate] = []
    for unit in units:
        found += candidates(context, unit, tuple(-row for row in LEDGER_ROWS_MM), LEDGER).candidates
    sure = tuple(c for c in found if c.fastener.bites >= SURE_TO_BITE)
    spots = sorted({round(c.fastener.at[0], 1) for c in sure})
    if len(spots) < 2:
        return None
    low = context.plan.base.height.value_mm + units[0].over_base_mm
    each, carries = min(c.lateral_n for c in sure), sum(c.lateral_n for c in sure)
    made = Ledger(
        id=f"ledger-{units[0].id}",
        units=tuple(u.id for u in units),
        top_mm=low,
        under_line_mm=under_line(context, low),
        start_mm=units[0].x_mm,
        end_mm=max(u.right_mm for u in units),
        thick_mm=LEDGER.thick_mm,
        high_mm=LEDGER_HIGH_MM,
        places=tuple(spots),
        screw_mm=max(c.fastener.screw_mm for c in sure),
        each_n=each,
        carries_n=carries,
        use=shear_n / carries,
    )
    return made, sure


def ground_rail(
    context: Context, unit: Unit, height_mm: float, shear_n: float, pull_n: float
) -> tuple[GroundRail, list[Candidate]] | None:
    """Return a timber behind a unit's rail, from stud to stud past its sides, and its screws.

    None where it does not fit behind the back, or less than two sure studs are near.
    """
    up = context.plan.base.height.value_mm + unit.over_base_mm + height_mm
    sure = sorted(x for line in context.back.lines if context.back.bites(x := line.at(up), up) >= SURE_TO_BITE)
    below = [x for x in sure if x < unit.x_mm][-1:]
    inside = [x for x in sure if unit.x_mm <= x <= unit.right_mm]
    beyond = [x for x in sure if x > unit.right_mm][:1]
    studs = [x for x in (*below, *inside, *beyond) if unit.x_mm - PAST_MM <= x <= unit.right_mm + PAST_MM]
    if len(studs) < 2:
        return None
    fixings = tuple(
        Fixing(f"{unit.id}.ground.{x:.0f}", unit.id, "left", x, unit.over_base_mm + height_mm) for x in studs
    )
    packings = packings_at(context.ground, context.plan.base, context.kit, fixings)
    least = min((p.gap.value_mm - 2 * p.gap.sd_mm for p in packings), default=0.0)
    thick = min(math.floor(least / GROUND_STEP_MM) * GROUND_STEP_MM, GROUND_MOST_MM)
    if thick < GROUND_LEAST_MM:
        return None
    through = Through("timber", thick, "spruce-pine-fir", 6.0, 4.2, 40.0, 4.0)
    found = []
    for x, packing in zip(studs, packings, strict=True):
        step = Step(label="Thickness of the timber", sign=-1, value_mm=thick)
        gap = Figure(
            value_mm=packing.gap.value_mm - thick, sd_mm=packing.gap.sd_mm, working=(*packing.gap.working, step)
        )
        if kept_from(context.place, (x, up), context.backing):
            continue
        made = screwed(context, unit.id, (x, up), gap, through)
        if isinstance(made, Candidate):
            found.append(made)
    chosen, use, _ = fewest(found, shear_n, pull_n)
    if len(chosen) < 2 or use > 1:
        return None
    longest = RAIL_MM + thick - GROUND_LEFT_MM
    into = max((mm for mm in SOLD_MM if mm <= longest), default=SOLD_MM[0])
    places = sorted(c.fastener.at[0] for c in chosen)
    made_rail = GroundRail(
        up_mm=up,
        start_mm=min(unit.x_mm, places[0] - GROUND_END_MM),
        end_mm=max(unit.right_mm, places[-1] + GROUND_END_MM),
        thick_mm=thick,
        studs=tuple(places),
        use=use,
        into_mm=into,
    )
    return made_rail, chosen


def split_batten(context: Context, unit: Unit, thick_mm: float) -> SplitBatten:
    """Return the batten that a unit hooks over, with the spacers at its foot and the room that it needs above."""
    engagement = thick_mm - FLAT_MM
    lift = engagement + LIFT_PLAY_MM
    low = context.plan.base.height.value_mm + unit.over_base_mm
    top = low + unit.height_mm
    room = _room_above(context, unit, top)
    inset = min(unit.support_inset_mm, unit.width_mm / 2)
    sides = (("left", unit.x_mm + inset), ("right", unit.right_mm - inset))
    fixings = tuple(
        Fixing(f"{unit.id}.foot.{side}", unit.id, side, x, unit.over_base_mm + FOOT_UP_MM) for side, x in sides
    )
    spacers = []
    for (side, _), packing in zip(
        sides, packings_at(context.ground, context.plan.base, context.kit, fixings), strict=False
    ):
        step = Step(label="Thickness of the batten", value_mm=thick_mm)
        thick = Figure(
            value_mm=packing.gap.value_mm + thick_mm, sd_mm=packing.gap.sd_mm, working=(step, *packing.gap.working)
        )
        spacers.append(Spacer(side=side, up_mm=packing.at[1], thick=thick))
    tip = top - BATTEN_UNDER_MM + BATTEN_HIGH_MM / 2
    return SplitBatten(
        top_mm=tip,
        under_line_mm=under_line(context, tip),
        thick_mm=thick_mm,
        high_mm=BATTEN_HIGH_MM,
        bevel_deg=45.0,
        engagement_mm=engagement,
        lift_mm=lift,
        room_mm=room,
        lifts=room is None or room >= lift,
        spacers=tuple(spacers),
    )


def _room_above(context: Context, unit: Unit, top_mm: float) -> float | None:
    """Return what is free over a unit: to what stands over it, and to the ceiling at its lowest likely."""
    free = [
        u.over_base_mm - unit.over_base_mm - unit.height_mm
        for u in context.place.units
        if u.over_base_mm >= unit.over_base_mm + unit.height_mm - 1
        and u.x_mm < unit.right_mm
        and u.right_mm > unit.x_mm
    ]
    survey = context.ground.survey
    if "ceiling" in context.place.surfaces and survey.measured("ceiling"):
        spots = np.array([(x, unit.depth_mm / 2) for x in np.linspace(unit.x_mm, unit.right_mm, 5)])
        mean, sd = survey.adjustment.mean_and_sd(("ceiling", spots))
        free.append(float((mean - 2 * sd).min()) - top_mm)
    return min(free, default=None)


def shelf_cleats(
    context: Context, flats: tuple[FlatPart, ...], stand: Stand
) -> list[tuple[ShelfCleat, tuple[Fastener, ...]]]:
    """Return the cleats of every shelf that lies on some, with the studs that they are screwed to."""
    units = {u.id: u for u in context.place.units}
    out = []
    for part in flats:
        unit = units[part.unit]
        if not isinstance(unit.standing, OnCleats):
            continue
        through = Through("cleat", unit.standing.thick_mm, "spruce-pine-fir")
        total = _shelf_n(unit, part)
        walls = [c.wall for c in part.cleats]
        for cleat in part.cleats:
            share = CLEAT_SHARES[cleat.wall] if len(walls) == 3 else 0.6
            ends = _ends(unit, part, cleat.wall, cleat.long_mm, stand)
            up = cleat.top_mm - unit.standing.high_mm / 2
            out.append(
                _cleat(context, unit, cleat.wall, (cleat.long_mm, cleat.top_mm, up), ends, share * total, through)
            )
    return out


def _shelf_n(unit: Unit, part: FlatPart) -> float:
    """Return what a shelf and all that is on it weigh, N."""
    long = part.blank_mm[0] / 1000
    density = MATERIALS[unit.board.material].density if unit.board else MATERIALS["particleboard"].density
    own = unit.weight_kg or density * long * unit.depth_mm / 1000 * unit.height_mm / 1000
    return (own + row_kg_per_m(unit) * long + person_kg(unit)) * GRAVITY


def _ends(unit: Unit, part: FlatPart, on: str, long_mm: float, stand: Stand) -> tuple[float, float]:
    """Return from where to where a cleat reaches, along its wall."""
    if on == "back":
        start = part.corners[0][0] + (part.at_back.value_mm - long_mm) / 2
    else:
        start = stand.back_at(unit) + (unit.standing.thick_mm if isinstance(unit.standing, OnCleats) else 0.0)
    return start + CLEAT_ENDS_MM, start + long_mm - CLEAT_ENDS_MM


def _cleat(
    context: Context,
    unit: Unit,
    on: Behind,
    size: tuple[float, float, float],
    ends: tuple[float, float],
    load_n: float,
    through: Through,
) -> tuple[ShelfCleat, tuple[Fastener, ...]]:
    long_mm, top_mm, up = size
    found: list[Candidate] = []
    for at in _along(context, on, ends, up):
        if not kept_from(context.place, (at, up), context.backing, on):
            made = screwed(context, unit.id, (at, up), NO_PACKING, through, surface=on)
            if isinstance(made, Candidate):
                found.append(made)
    sure = [c for c in found if c.fastener.bites >= SURE_TO_BITE]
    carries = sum(c.lateral_n for c in sure)
    use = load_n / carries if carries else math.inf
    if use > 1 and sure:  # two screws over each other into every stud
        use /= 2
        sure = [_moved(c, off) for c in sure for off in CLEAT_ROWS_MM]
    enough = len(sure) >= 2 and use <= 1
    instead = ""
    if not enough:
        instead = (
            _find_first(context, on)
            if not found
            else "Too few screws, or too weak: a post under its front, a thicker cleat with larger screws, or blocking."
        )
    chosen = tuple(c.fastener for c in (sure or found))
    made_cleat = ShelfCleat(
        unit=unit.id,
        wall=on,
        long_mm=long_mm,
        top_mm=top_mm,
        under_line_mm=under_line(context, top_mm),
        load_n=load_n,
        fasteners=tuple(f.id for f in chosen),
        use=min(use, 99.0),
        enough=enough,
        instead=instead,
    )
    return made_cleat, chosen


def _find_first(context: Context, on: Behind) -> str:
    if context.into[on].backing.kind == "masonry":
        return "Say which anchor: its maker's loads, depth and hole for this wall decide where it may stand."
    return f"Find the studs of the {on} wall first: two methods, along the height of the cleat."


def _moved(candidate: Candidate, up_mm: float) -> Candidate:
    x, z = candidate.fastener.at
    return dataclasses.replace(
        candidate, fastener=replace(candidate.fastener, at=(x, z + up_mm), id=f"{candidate.fastener.id}{up_mm:+.0f}")
    )


def _along(context: Context, on: Behind, ends: tuple[float, float], up: float) -> list[float]:
    low, high = ends
    if context.backing.kind == "masonry":
        n = max(2, math.ceil((high - low) / MASONRY_CLEAT_MM) + 1)
        return [float(x) for x in np.linspace(low, high, n)]
    return [x for line in context.into[on].known.lines if low <= (x := line.at(up)) <= high]
