"""What a unit rests on: a ledger under a row of units, and a timber behind a unit where studs are too few."""

from __future__ import annotations

import math

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import packings_at
from wobble.core.fit.run.supports import Fixing
from wobble.core.hold.into import Context
from wobble.core.hold.screws import LEDGER, RAIL_MM, SOLD_MM, Candidate, Through, candidates, fewest, screwed
from wobble.core.hold.services import kept_from
from wobble.core.job import Unit, Value

LEDGER_HIGH_MM = 60.0
LEDGER_ROWS_MM = (15.0, 45.0)
"""How far under a ledger's top its two rows of screws stand."""
FOOT_UP_MM = 40.0
PAST_MM = 700.0
"""How far past a unit's sides the next stud may be for a timber behind it."""
GROUND_STEP_MM, GROUND_LEAST_MM, GROUND_MOST_MM, GROUND_END_MM, GROUND_LEFT_MM = 5.0, 20.0, 90.0, 50.0, 5.0


class Ledger(Value, frozen=True, kw_only=True):
    """A strip along the wall for units to rest on: its top at their undersides, two screws into every stud.

    Attributes:
        id: Its own. units: What rests on it, from the left.
        top_mm: Height of its top over the datum mark. under_line_mm: The same below a level line, where one is known.
        start_mm: Its left end, mm along. end_mm: Its right one. thick_mm: Its thickness. high_mm: Its height.
        places: Where it is fastened, mm along.
        screw_mm: Length of its longest screws, as sold. shank_mm: Their thickness.
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
    shank_mm: float
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
        shank_mm=max(c.fastener.shank_mm for c in sure),
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
    packings = packings_at(context.contact, context.plan.base, context.kit, fixings)
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
