"""Into the floor: frames and platforms that must not slide, and all that stands in a vehicle, which is thrown about.

Boards alone are thinner than the six diameters that the code asks of a screw: nothing is said of what they hold.
"""

from __future__ import annotations

from wobble.core.contents import GRAVITY
from wobble.core.fit.run.stand import Stand
from wobble.core.hold.capacity.capacity import together
from wobble.core.hold.into import Context
from wobble.core.hold.loads import HAND_PULL_N, weight_kg
from wobble.core.hold.screws import NO_PACKING, RAIL_MM, REFUSED, UNEVEN, WOODEN, Candidate, Through, screwed
from wobble.core.hold.services import kept_from
from wobble.core.hold.structure.joists import Joists
from wobble.core.job import Unit, Value
from wobble.core.part import Fastener

BASE = Through("base", RAIL_MM, "plywood", 6.0, 4.2, 40.0, 4.0)
EDGE_IN_MM = 40.0
BELOW = "Pipes, cables and tanks lie under floors: look below, isolate, then drill."
CRASH = " In a vehicle follow its rules for what must stay put in a crash; this is no proof of that."
SLIDES: tuple[str, ...] = ("base frame", "platform")


class FloorFixed(Value, frozen=True, kw_only=True):
    """How a unit is fixed to the floor.

    Attributes:
        unit: Which. fasteners: Its screws by their ids, through its base and shims into joists.
        screw_mm: Their length as sold; 0 without any. shank_mm: Their thickness.
        shear_n: On all of them. pull_n: On the row that is lifted. use: Share of the weakest one's capacity.
        enough: Whether they hold. instead: What to do where they do not. caution: The word that belongs beside it.
    """

    unit: str
    fasteners: tuple[str, ...]
    screw_mm: float
    shank_mm: float
    shear_n: float
    pull_n: float
    use: float
    enough: bool
    instead: str
    caution: str


def floor_fixed(context: Context, joists: Joists, stand: Stand) -> list[tuple[FloorFixed, tuple[Fastener, ...]]]:
    """Return how each unit is fixed to the floor that has to be: what may slide, and what is thrown about."""
    driving = context.backing.driving_g
    wanted = [u for u in context.place.units if u.stands and (driving > 0 or to_floor(u))]
    return [_fixed(context, joists, stand, u, driving) for u in wanted]


def to_floor(unit: Unit) -> bool:
    """Return whether a unit is to be screwed to the floor: where it is said, else what slides underfoot."""
    return "floor" in unit.fastened_to if unit.fastened_to else unit.kind in SLIDES


def _fixed(
    context: Context, joists: Joists, stand: Stand, unit: Unit, driving_g: float
) -> tuple[FloorFixed, tuple[Fastener, ...]]:
    backing = context.into["floor"].backing
    weight = weight_kg(unit) * GRAVITY
    shear = max(driving_g * weight, HAND_PULL_N if to_floor(unit) else 0.0)
    lifted = max(0.0, (driving_g * weight * unit.height_mm / 2 - weight * unit.depth_mm / 2) / unit.depth_mm)
    shims = [s.gap for s in context.plan.shims if s.unit == unit.id] or [NO_PACKING]
    gap = max(shims, key=lambda g: g.value_mm + 2 * g.sd_mm)
    back = stand.back_at(unit)
    front = back + max(unit.depth_mm - unit.toe_recess_mm, unit.depth_mm / 2)
    crossed = joists.crossings((unit.x_mm, unit.right_mm), (back, front), EDGE_IN_MM)
    spots = [at for at in crossed if not kept_from(context.place, at, backing, "floor")]
    made = [screwed(context, unit.id, at, gap, BASE, surface="floor") for at in spots]
    found = [m for m in made if isinstance(m, Candidate)]
    refused = [m for m in made if not isinstance(m, Candidate)]
    use, instead = 0.0, ""
    if refused and len(found) < 2:
        instead = f"It cannot be screwed down: {REFUSED[refused[0]]}. Find out first what runs below."
        found = []
    elif backing.kind not in WOODEN or len(found) < 2:
        instead = (
            "Find the joists under it first. Boards alone are not counted on: bolt through them onto broad plates, "
            "where you have seen that nothing runs below."
        )
        found = []
    else:
        rows = {c.fastener.at[1] for c in found}
        in_row = max(1, min(sum(c.fastener.at[1] == y for c in found) for y in rows))
        pull, side = UNEVEN * lifted / in_row, UNEVEN * shear / len(found)
        use = max(together(pull, side, c.withdrawal_n, c.lateral_n) for c in found)
        if use > 1:
            instead = "More joists, or brackets with two screws at each; the wall's screws do not count here."
    fixed = FloorFixed(
        unit=unit.id,
        fasteners=tuple(c.fastener.id for c in found),
        screw_mm=max((c.fastener.screw_mm for c in found), default=0.0),
        shank_mm=max((c.fastener.shank_mm for c in found), default=0.0),
        shear_n=shear,
        pull_n=lifted,
        use=use,
        enough=not instead,
        instead=instead,
        caution=BELOW + (CRASH if driving_g else ""),
    )
    return fixed, tuple(c.fastener for c in found)
