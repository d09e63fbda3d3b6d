"""What each unit asks of its fastening, and how it is answered."""

from __future__ import annotations

from dataclasses import dataclass, replace

from wobble.core.fit.overhead.hangers import back_on_wall
from wobble.core.hold.into import Context
from wobble.core.hold.loads import loads, rests, tips
from wobble.core.hold.rests.battens import BATTEN_ROWS_MM, BATTEN_UNDER_MM, SplitBatten
from wobble.core.hold.rests.blocking import blocks_for, needed, used, with_blocks
from wobble.core.hold.rests.ledgers import GroundRail, Ledger
from wobble.core.hold.rests.nailers import Nailer
from wobble.core.hold.screws import Candidate, Found, Through, candidates, fewest
from wobble.core.job import Unit, Value
from wobble.core.job.unit import LOOSE, ON_WALLS, Hung
from wobble.core.part import Fastener

STRAP_UNDER_MM = 40.0
"""How far under the top of a unit without a rail its straps are."""


class Held(Value, frozen=True, kw_only=True):
    """How one unit is held.

    Attributes:
        unit: Which. weight_kg: Full. shear_n: On all its screws together. pull_n: On its top row.
        fasteners: Its screws by their ids, the fewest that hold it, its ledger's first where it is the first on it.
        use: Share of the weakest screw's capacity that is used; 1 is all.
        lateral_n: What one screw carries sideways. withdrawal_n: What pulls it out. working: How they come about.
        enough: Whether it holds, every screw sure to bite. instead: What to do where it does not, or what to mind.
        avoided: What screws were kept clear of. ledger: Id of what it rests on; "" for none.
        batten: What it hooks over. ground: A timber behind its rail. overhead: Whether nothing below carries it.
        caution: The word that belongs beside it.
    """

    unit: str
    weight_kg: float
    shear_n: float
    pull_n: float
    fasteners: tuple[str, ...]
    use: float
    lateral_n: float
    withdrawal_n: float
    working: tuple[str, ...]
    enough: bool
    instead: str
    avoided: tuple[str, ...]
    ledger: str
    batten: SplitBatten | None
    ground: GroundRail | None
    overhead: bool
    caution: str


@dataclass(frozen=True)
class Holding:
    """How all units are held, the ledgers that they rest on, every screw, numbered, and blocking put in for them."""

    held: tuple[Held, ...] = ()
    ledgers: tuple[Ledger, ...] = ()
    fasteners: tuple[Fastener, ...] = ()
    blocks: tuple[Nailer, ...] = ()


@dataclass(frozen=True)
class Required:
    """A unit with its loads and where it could be fastened."""

    unit: Unit
    carried: bool
    through: Through
    heights: tuple[float, ...]
    shear: float
    pull: float
    found: Found
    chosen: tuple[Candidate, ...]
    use: float
    weakest: Candidate | None
    blocks: tuple[Nailer, ...] = ()


def fastened(unit: Unit) -> bool:
    """Return whether a unit is fastened to the back: as is said, else not what lies flat, is a frame, or hangs."""
    if unit.fastened_to and "back" not in unit.fastened_to:
        return False
    if unit.kind == "moulding" and unit.out_mm > 0:  # pinned and glued to what it runs before
        return False
    if unit.kind in ON_WALLS:
        return bool(fixing_heights(unit))
    if back_on_wall(unit):
        return bool(fixing_heights(unit))
    if unit.kind in LOOSE or unit.kind in ("rack", "base frame", "platform"):
        return False
    return bool(fixing_heights(unit)) or tips(unit)


def fixing_heights(unit: Unit) -> tuple[float, ...]:
    """Return the heights at which a unit is fixed: one said over its top holds nothing, and is told by Fit."""
    return tuple(h for h in unit.fixing_heights_mm if h <= unit.height_mm)


def required_of(context: Context, unit: Unit) -> Required:
    """Return what a unit asks of its fastening, and the fewest of its own screws that would do."""
    carried = rests(context.place, unit)
    through, heights = _through(unit)
    hooked = through.part == "batten"
    driving = context.backing.driving_g
    shear, pull = loads(unit, carried=carried, driving_g=driving, off_mm=through.thick_mm if hooked else 0.0)
    found = candidates(context, unit, heights, through)
    chosen, use, weakest = fewest(found.candidates, shear, pull)
    required = Required(unit, carried, through, heights, shear, pull, found, tuple(chosen), use, weakest)
    return required if use <= 1 and len(chosen) >= least_screws(carried=carried) else _blocked(context, required)


def least_screws(*, carried: bool) -> int:
    """Return how many screws hold a unit at least: two where nothing else carries it."""
    return 1 if carried else 2


def _blocked(context: Context, was: Required) -> Required:
    """Return what a unit comes to with blocking behind it, where there can be some and it then holds."""
    nailers = blocks_for(context, was.unit, was.heights)
    if not nailers:
        return was
    found = candidates(with_blocks(context, nailers), was.unit, was.heights, was.through)
    chosen, use, weakest = fewest(found.candidates, was.shear, was.pull)
    use = max(use, used(context, nailers, chosen, was.shear, was.pull))
    if use > 1 or len(chosen) < least_screws(carried=was.carried):
        return was
    put_in = needed(nailers, chosen, context.backing.stud_mm)
    return replace(was, found=found, chosen=tuple(chosen), use=use, weakest=weakest, blocks=put_in)


def _through(unit: Unit) -> tuple[Through, tuple[float, ...]]:
    """Return through what a unit is screwed, and at which heights over its underside."""
    if isinstance(unit.standing, Hung) and unit.standing.by == "split batten":
        batten = Through("batten", unit.standing.thick_mm, "plywood", 6.0, 4.2, 40.0, 4.0, all_top=True)
        return batten, tuple(unit.height_mm - BATTEN_UNDER_MM + off for off in BATTEN_ROWS_MM)
    if not fixing_heights(unit):
        return Through("strap", 3.0), (max(unit.height_mm - STRAP_UNDER_MM, unit.height_mm / 2),)
    return Through(), fixing_heights(unit)
