"""Screws through a rail into what lies behind it: where they can stand, how long they are, what each carries."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from wobble.core.facts import Behind
from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import packings_at
from wobble.core.fit.run.supports import Fixing
from wobble.core.hold.capacity.capacity import (
    LEAST_PENETRATION_D,
    CapacityError,
    OtherMain,
    Screw,
    lateral,
    sheet_pull,
    sheet_shear,
    together,
    withdrawal,
)
from wobble.core.hold.into import Block, Context
from wobble.core.hold.services import DETECT, kept_from, near, too_deep
from wobble.core.job import Unit
from wobble.core.job.backing import Backing, BackingKind, Species
from wobble.core.part import Fastener

WOODEN: tuple[BackingKind, ...] = ("wood studs", "lath and plaster", "ribs and battens")
"""Walls with wood to screw into."""
RAIL_MM = 18.0
REACH_MM = 35.0
"""How deep a screw is to reach into the stud: ten diameters of a 5 mm screw need not be had, six must."""
THROUGH_SHEET_MM = 12.0
"""How far a screw stands out behind the sheet of a metal stud: its point and three threads."""
SOLD_MM = (25.0, 30.0, 35.0, 40.0, 50.0, 60.0, 70.0, 80.0, 90.0, 100.0, 120.0, 140.0, 160.0, 180.0, 200.0)
SIDE_KEPT_MM = 25.0
END_KEPT_MM, APART_MM = 40.0, 60.0
"""How far from a block's ends it is screwed into, and how far apart two screws in it are at least."""
BEHIND_KEPT_MM = 10.0
MASONRY_APART_MM = 500.0
"""How far apart anchors in masonry are set along a rail."""
POINT_MM = 3.0
"""A screw's point stays so far from the back of the wood: behind a boat's rib there is its skin."""
THINNER: dict[float, tuple[float, float]] = {
    8.0: (5.6, 5.0),
    6.0: (4.2, 4.0),
    5.0: (3.3, 3.0),
    4.5: (3.0, 2.5),
    4.0: (2.6, 2.5),
    3.5: (2.3, 2.0),
}
"""Screws by their shank: root and pilot hole, mm."""
LAG_MM = 6.0
"""A screw this thick is a lag screw in the code's tables."""
UNEVEN = 1.25
"""The hardest pulled screw of a row carries this much more than its share."""


Refusal = Literal["too long", "too deep", "no anchor", "too shallow", "too thin"]
REFUSED: dict[Refusal, str] = {
    "too long": "no screw that is sold reaches through all that",
    "too deep": "a screw would go deeper than is allowed there",
    "no anchor": "its anchor is not known",
    "too shallow": "a screw would not reach deep enough to count",
    "too thin": "a screw deep enough to count would come out behind it: bolt plates or battens across it first",
}


@dataclass(frozen=True)
class Candidate:
    """A screw that could be set, what it carries sideways and against being pulled out, N, and whether at the top."""

    fastener: Fastener
    lateral_n: float
    withdrawal_n: float
    top: bool


@dataclass(frozen=True)
class Through:
    """What screws go through: its name, thickness, mm, and wood; the screws' shank, root, reach and pilot hole, mm.

    `all_top` says that every row of them is pulled alike, as both rows of a batten are.
    """

    part: str = "rail"
    thick_mm: float = RAIL_MM
    wood: Species = "plywood"
    shank_mm: float = 5.0
    root_mm: float = 3.3
    reach_mm: float = REACH_MM
    pilot_mm: float = 3.0
    all_top: bool = False


LEDGER = Through("ledger", 38.0, "spruce-pine-fir", 8.0, 5.6, 45.0, 5.0)


@dataclass(frozen=True)
class Found:
    """Where something could be fastened, and why elsewhere it could not: what is kept clear of, and what is refused."""

    candidates: tuple[Candidate, ...]
    avoided: tuple[str, ...] = ()
    refused: tuple[Refusal, ...] = ()


def candidates(context: Context, unit: Unit, heights: tuple[float, ...], through: Through) -> Found:
    """Return every screw that could hold a unit at some heights over its underside, and why others could not."""
    places = []
    for height in heights:
        up = context.plan.base.height.value_mm + unit.over_base_mm + height
        for x in _places(context, unit, up):
            name = f"{unit.id}.{height:g}.{x:.0f}"
            places.append((height, Fixing(name, unit.id, "left", x, unit.over_base_mm + height)))
    if not places:
        return Found(())
    packings = packings_at(context.contact, context.plan.base, context.kit, tuple(f for _, f in places))
    gaps = [p.gap for p in packings] or [NO_PACKING] * len(places)
    out, avoided, refused = [], [], []
    for (height, fixing), gap in zip(places, gaps, strict=True):
        at = (fixing.x_mm, context.plan.base.height.value_mm + fixing.over_base_mm)
        why = kept_from(context.place, at, context.backing)
        if why:
            avoided.append(why)
            continue
        top = through.all_top or height == max(heights)
        made = screwed(context, unit.id, at, gap, through, top=top)
        if isinstance(made, Candidate):
            out.append(made)
        else:
            refused.append(made)
    return Found(tuple(out), tuple(dict.fromkeys(avoided)), tuple(dict.fromkeys(refused)))


NO_PACKING = Figure(value_mm=0.0, sd_mm=0.0)
"""Where the back is not measured nothing is known of a gap behind it."""


def _places(context: Context, unit: Unit, up: float) -> list[float]:
    low, high = unit.x_mm + SIDE_KEPT_MM, unit.right_mm - SIDE_KEPT_MM
    if context.backing.kind == "masonry":
        edge = max(SIDE_KEPT_MM, min(unit.support_inset_mm, unit.width_mm / 2))
        start, end = unit.x_mm + edge, unit.right_mm - edge
        if end <= start:
            return [(start + end) / 2]
        n = max(2, math.ceil((end - start) / MASONRY_APART_MM) + 1)
        return [float(x) for x in np.linspace(start, end, n)]
    studs = [x for line in context.back.lines if low <= (x := line.at(up)) <= high]
    return studs + [x for block in context.into["back"].blocks for x in _on_block(block, low, high, up)]


def _on_block(block: Block, low: float, high: float, up: float) -> Iterator[float]:
    """Yield where a unit is screwed into a block: as far apart as it reaches, clear of the block's own end screws."""
    left, right = max(low, block.low[0] + END_KEPT_MM), min(high, block.high[0] - END_KEPT_MM)
    if not block.low[1] <= up <= block.high[1] or right < left:
        return
    yield left
    if right - left >= APART_MM:
        yield right


def penetration(long_mm: float, *, through_mm: float, packed_mm: float, lining_mm: float) -> float:
    """Return how deep a fastener reaches in what holds: its length less the part, the packing and the lining, mm."""
    return long_mm - through_mm - packed_mm - lining_mm


def sold_length(needed_mm: float) -> float | None:
    """Return the shortest length sold that is long enough, mm; None where none is."""
    return next((mm for mm in SOLD_MM if mm >= needed_mm), None)


def screwed(
    context: Context,
    unit: str,
    at: tuple[float, float],
    gap: Figure,
    through: Through,
    *,
    top: bool = True,
    surface: Behind = "back",
) -> Candidate | Refusal:
    """Return a screw at a spot, the shortest sold that reaches deep enough, or why none may be counted on.

    The one routine for whatever is screwed to a wall, a floor or a ceiling.
    """
    into = context.into[surface]
    backing = into.backing
    packed = max(gap.value_mm, 0.0) + 2 * gap.sd_mm
    lining = backing.lining_mm
    sized = _sized(backing, through, through.thick_mm + packed + lining)
    if not isinstance(sized, tuple):
        return sized
    through, reach_wanted, sold = sized
    needed = through.thick_mm + packed + lining + reach_wanted
    if backing.kind == "masonry" and backing.anchor is None:
        return "no anchor"
    reach = penetration(sold, through_mm=through.thick_mm, packed_mm=packed, lining_mm=lining)
    screw = Screw(shank_mm=through.shank_mm, root_mm=through.root_mm, long_mm=sold, thread_mm=0.6 * sold)
    held = _carries(backing, screw, through, packed + lining, reach)
    if held is None:
        return "too shallow"
    steps = (
        Step(label=through.part.capitalize(), value_mm=through.thick_mm),
        Step(label="Packing, and what is not known of it", value_mm=packed, sd_mm=gap.sd_mm),
        Step(label="Lining", value_mm=lining),
        Step(label=_into(backing), value_mm=reach_wanted),
    )
    check = into.doubt(at)
    if backing.kind in WOODEN and reach > backing.deep_mm - BEHIND_KEPT_MM:
        check = f"{check} It comes near the back of the wood: {DETECT.lower()}".strip()
    beside = near(context.place, at, surface)
    if beside:
        check = f"{check} {beside} is near: {DETECT.lower()}".strip()
    fastener = Fastener(
        id=f"{unit}.{through.part}.{surface}.{at[0]:.0f}.{at[1]:.0f}",
        kind="anchor" if backing.kind == "masonry" else "lag screw" if through.shank_mm >= LAG_MM else "screw",
        unit=unit,
        part=through.part,
        joins=(unit, surface),
        surface=surface,
        at=at,
        bites=into.bites(at),
        packing=gap,
        shank_mm=through.shank_mm,
        screw_mm=sold,
        long=Figure(value_mm=needed, sd_mm=gap.sd_mm, working=steps),
        reach_mm=reach,
        through_mm=through.thick_mm,
        pilot_mm=_pilot(backing, through),
        clearance_mm=through.shank_mm + 0.5,
        check=check,
    )
    return Candidate(fastener, held[0], held[1], top)


def _sized(backing: Backing, through: Through, before_mm: float) -> tuple[Through, float, float] | Refusal:
    """Return what is screwed with, how deep it is to reach and the length sold, for what it goes through before.

    Where the wood is shallower than that, or no hole may go so deep, a shorter screw is taken, and a thinner one, as
    six diameters must be had in the wood (NDS 12.1.5.6).
    """
    reach = _reach(backing, through)
    sold = sold_length(before_mm + reach)
    if sold is None:
        return "too long"
    limited = too_deep(backing.lining_mm + sold - before_mm, backing)
    if backing.kind not in WOODEN:
        return "too deep" if limited else (through, reach, sold)
    room = backing.deep_mm - POINT_MM
    if sold - before_mm <= room and not limited:
        return through, reach, sold
    room = min(room, math.inf if backing.deepest_mm is None else backing.deepest_mm - backing.lining_mm)
    for shank, (root, pilot) in THINNER.items():
        least = LEAST_PENETRATION_D * shank
        lengths = [mm for mm in SOLD_MM if least <= mm - before_mm <= room]
        if shank <= through.shank_mm and lengths:
            thinner = replace(through, shank_mm=shank, root_mm=root, pilot_mm=pilot)
            return thinner, min(reach, lengths[-1] - before_mm), lengths[-1]
    return "too deep" if limited else "too thin"


def _reach(backing: Backing, through: Through) -> float:
    match backing.kind:
        case "metal studs":
            return THROUGH_SHEET_MM
        case "masonry":
            return backing.anchor.embed_mm if backing.anchor else through.reach_mm
        case _:
            return through.reach_mm


def _into(backing: Backing) -> str:
    match backing.kind:
        case "metal studs":
            return "Through the sheet of the stud"
        case "masonry":
            return "Into the wall, as its anchor wants"
        case _:
            return "Into the wood"


def _pilot(backing: Backing, through: Through) -> float:
    match backing.kind:
        case "metal studs":
            return 0.0
        case "masonry":
            return backing.anchor.drill_mm if backing.anchor else 0.0
        case _:
            return through.pilot_mm


def _carries(
    backing: Backing, screw: Screw, through: Through, gap_mm: float, reach_mm: float
) -> tuple[float, float] | None:
    """Return what a screw carries sideways and against being pulled out, N; None where no value may be stated."""
    main: Species | OtherMain = backing.wood
    deep = reach_mm
    if backing.kind == "metal studs":
        main, deep = "steel", backing.steel_mm
    elif backing.kind == "masonry":
        if backing.anchor is None:
            return None
        main, deep = "masonry", backing.anchor.embed_mm
    try:
        side = lateral(
            screw, side_mm=through.thick_mm, gap_mm=gap_mm, main_mm=deep, side=through.wood, main=main
        ).capacity_n
    except CapacityError:
        return None
    match backing.kind:
        case "metal studs":
            return min(side, sheet_shear(screw, backing.steel_mm)), sheet_pull(screw, backing.steel_mm)
        case "masonry":
            assert backing.anchor is not None  # noqa: S101 - looked at above
            return min(side, backing.anchor.shear_n), backing.anchor.pull_n
        case _:
            return side, withdrawal(screw, reach_mm, backing.wood, lag=through.shank_mm >= LAG_MM)


def fewest(found: Sequence[Candidate], shear: float, pull: float) -> tuple[list[Candidate], float, Candidate | None]:
    """Return the fewest screws that hold, two at least in the top row; how much they are used.

    The surest come first, and of those the furthest apart.
    """
    middle = float(np.mean([c.fastener.at[0] for c in found])) if found else 0.0

    def first(candidate: Candidate) -> tuple[float, float]:
        return -round(candidate.fastener.bites, 2), -round(abs(candidate.fastener.at[0] - middle))

    top = sorted((c for c in found if c.top), key=first)
    low = sorted((c for c in found if not c.top), key=first)
    best: tuple[list[Candidate], float, Candidate | None] = ([], math.inf, None)
    for n_top in range(min(2, len(top)), len(top) + 1):
        for n_low in range(len(low) + 1):
            chosen = [*top[:n_top], *low[:n_low]]
            if not chosen or not n_top:
                continue
            each_shear, each_pull = shear / len(chosen), UNEVEN * pull / n_top
            used = [(together(each_pull, each_shear, c.withdrawal_n, c.lateral_n), c) for c in top[:n_top]]
            used += [(together(0.0, each_shear, c.withdrawal_n, c.lateral_n), c) for c in low[:n_low]]
            use, weakest = max(used, key=lambda pair: pair[0])
            better = use < best[1] if best[1] > 1 else len(chosen) < len(best[0]) and use <= 1
            if better:
                best = (chosen, use, weakest)
    return best
