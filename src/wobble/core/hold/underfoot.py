"""Into the floor: frames and platforms that must not slide, and all that stands in a vehicle, which is thrown about.

Boards alone are thinner than the six diameters that the code asks of a screw: nothing is said of what they hold.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure
from wobble.core.fit.level.plan import Plan
from wobble.core.fit.run.stand import Stand
from wobble.core.hold.capacity.capacity import CapacityError, Screw, lateral, together, withdrawal
from wobble.core.hold.loads import HAND_PULL_N, weight_kg
from wobble.core.hold.screws import RAIL_MM, SOLD_MM, UNEVEN, WOODEN
from wobble.core.hold.services import kept_from, too_deep
from wobble.core.hold.structure.lines import Structure
from wobble.core.job import Place, Unit, Value
from wobble.core.job.backing import Backing, Runs

SHANK_MM, ROOT_MM, REACH_MM = 6.0, 4.2, 40.0
EDGE_IN_MM = 40.0
BELOW = "Pipes, cables and tanks lie under floors: look below, isolate, then drill."
CRASH = " In a vehicle follow its rules for what must stay put in a crash; this is no proof of that."
SLIDES: tuple[str, ...] = ("base frame", "platform")


class FloorFixed(Value, frozen=True, kw_only=True):
    """How a unit is fixed to the floor.

    Attributes:
        unit: Which. at: (along, out) of each screw. screw_mm: Length as sold, through its base and shims into a joist.
        shear_n: On all of them. pull_n: On the row that is lifted. use: Share of the weakest one's capacity.
        enough: Whether they hold. instead: What to do where they do not. caution: The word that belongs beside it.
    """

    unit: str
    at: tuple[tuple[float, float], ...]
    screw_mm: float
    shear_n: float
    pull_n: float
    use: float
    enough: bool
    instead: str
    caution: str


@dataclass(frozen=True)
class Floor:
    """What is known of a floor: what it is made of, its joists, and which way they run."""

    backing: Backing
    joists: Structure
    runs: Runs


def floor_fixed(place: Place, floor: Floor, plan: Plan, stand: Stand, driving_g: float) -> tuple[FloorFixed, ...]:
    """Return how each unit is fixed to the floor that has to be: what may slide, and what is thrown about."""
    wanted = [u for u in place.units if u.stands and (driving_g > 0 or u.kind in SLIDES)]
    return tuple(_fixed(place, floor, plan, stand, u, driving_g) for u in wanted)


def _fixed(place: Place, floor: Floor, plan: Plan, stand: Stand, unit: Unit, driving_g: float) -> FloorFixed:
    weight = weight_kg(unit) * GRAVITY
    shear = max(driving_g * weight, HAND_PULL_N if unit.kind in SLIDES else 0.0)
    lifted = max(0.0, (driving_g * weight * unit.height_mm / 2 - weight * unit.depth_mm / 2) / unit.depth_mm)
    spots = [at for at in _spots(unit, floor, stand) if not kept_from(place, at, floor.backing, "floor")]
    shims = [s.gap for s in plan.shims if s.unit == unit.id] or [Figure(value_mm=0.0, sd_mm=0.0)]
    packed = max(max(g.value_mm, 0.0) + 2 * g.sd_mm for g in shims)
    sold = next((mm for mm in SOLD_MM if mm >= RAIL_MM + packed + floor.backing.lining_mm + REACH_MM), None)
    deep = sold is not None and too_deep(sold - RAIL_MM - packed, floor.backing)
    rows = {at[1] for at in spots}
    use, instead = 0.0, ""
    if deep:
        instead = "A screw would go deeper than is allowed here: find out first what runs below."
        spots, sold = [], 0.0
    elif sold is None or floor.backing.kind not in WOODEN or len(spots) < 2:
        instead = (
            "Find the joists under it first. Boards alone are not counted on: bolt through them onto broad plates, "
            "where you have seen that nothing runs below."
        )
        spots, sold = [], 0.0
    else:
        screw = Screw(shank_mm=SHANK_MM, root_mm=ROOT_MM, long_mm=sold, thread_mm=0.6 * sold)
        reach = sold - RAIL_MM - packed
        wood = floor.backing.wood
        try:
            side = lateral(screw, side_mm=RAIL_MM, gap_mm=packed, main_mm=reach, side="plywood", main=wood).capacity_n
        except CapacityError:  # pragma: no cover - it reaches far deeper than six diameters
            side = 0.0
        out = withdrawal(screw, reach, wood, lag=True)
        in_row = max(1, min(sum(at[1] == y for at in spots) for y in rows))
        use = together(UNEVEN * lifted / in_row, UNEVEN * shear / len(spots), out, side) if side else 99.0
        if use > 1:
            instead = "More joists, or brackets with two screws at each; the wall's screws do not count here."
    return FloorFixed(
        unit=unit.id,
        at=tuple(spots),
        screw_mm=sold,
        shear_n=shear,
        pull_n=lifted,
        use=use,
        enough=not instead,
        instead=instead,
        caution="Pipes, cables and tanks lie under floors: look below, isolate, then drill."
        + (
            " In a vehicle follow its rules for what must stay put in a crash; this is no proof of that."
            if driving_g
            else ""
        ),
    )


def _spots(unit: Unit, floor: Floor, stand: Stand) -> list[tuple[float, float]]:
    """Return where a unit's base crosses sure joists: along its front and back, or at its sides."""
    back, front = stand.back_at(unit), stand.back_at(unit) + max(unit.depth_mm - unit.toe_recess_mm, unit.depth_mm / 2)
    sure = [line.at_mm for line in floor.joists.lines if floor.joists.bites(line.at_mm) >= SURE_TO_BITE]
    if floor.runs == "along":
        rows = [y for y in sure if back + EDGE_IN_MM / 2 <= y <= front - EDGE_IN_MM / 2]
        return list(itertools.product((unit.x_mm + EDGE_IN_MM, unit.right_mm - EDGE_IN_MM), rows))
    columns = [x for x in sure if unit.x_mm + EDGE_IN_MM / 2 <= x <= unit.right_mm - EDGE_IN_MM / 2]
    return list(itertools.product(columns, (back + EDGE_IN_MM, front - EDGE_IN_MM)))
