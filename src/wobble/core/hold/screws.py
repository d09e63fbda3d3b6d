"""Screws through a rail into what lies behind it: where they can stand, how long they are, what each carries."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.facts import Behind
from wobble.core.figure import Figure, Step
from wobble.core.fit.level.plan import Plan, packings_at
from wobble.core.fit.run.ground import Ground
from wobble.core.fit.run.supports import Fixing
from wobble.core.hold.capacity.capacity import (
    CapacityError,
    OtherMain,
    Screw,
    lateral,
    sheet_pull,
    sheet_shear,
    together,
    withdrawal,
)
from wobble.core.hold.services import DETECT, kept_from, near, too_deep
from wobble.core.hold.structure.lines import Structure
from wobble.core.job import Place, ShimKit, Unit, Value
from wobble.core.job.backing import Backing, BackingKind, Species
from wobble.core.length import LengthUnit

WOODEN: tuple[BackingKind, ...] = ("wood studs", "lath and plaster", "ribs and battens")
"""Walls with wood to screw into."""
RAIL_MM = 18.0
REACH_MM = 35.0
"""How deep a screw is to reach into the stud: ten diameters of a 5 mm screw need not be had, six must."""
THROUGH_SHEET_MM = 12.0
"""How far a screw stands out behind the sheet of a metal stud: its point and three threads."""
SOLD_MM = (25.0, 30.0, 35.0, 40.0, 50.0, 60.0, 70.0, 80.0, 90.0, 100.0, 120.0, 140.0, 160.0, 180.0, 200.0)
SIDE_KEPT_MM = 25.0
BEHIND_KEPT_MM = 10.0
MASONRY_APART_MM = 500.0
"""How far apart anchors in masonry are set along a rail."""
UNEVEN = 1.25
"""The hardest pulled screw of a row carries this much more than its share."""


class Point(Value, frozen=True, kw_only=True):
    """One screw.

    Attributes:
        unit: Of which unit. part: Through what: its rail, a strap, a ledger, a batten, a cleat.
        surface: Into which surface. at: Where on it. order: Its turn in the drilling list, from 1.
        bites: Chance that it meets what holds, 0 to 1. packing: What is packed behind the rail there.
        shank_mm: Diameter of the screw. screw_mm: Its length, as sold. long: What it is built up from.
        reach_mm: How deep in what holds. through_mm: Thickness of what it goes through first.
        pilot_mm: Hole in what holds; 0 for none. clearance_mm: Hole through the rail.
        check: What to do before it is drilled; "" for nothing beyond the usual.
    """

    unit: str
    part: str = "rail"
    surface: Behind = "back"
    at: tuple[float, float]
    order: int = 0
    bites: float
    packing: Figure
    shank_mm: float
    screw_mm: float
    long: Figure
    reach_mm: float
    through_mm: float
    pilot_mm: float
    clearance_mm: float
    check: str


@dataclass(frozen=True)
class Wall:
    """What the units are fastened to, and what they stand on; `line_mm` is the height of a level line that is known."""

    place: Place
    backing: Backing
    known: dict[Behind, Structure]
    ground: Ground
    plan: Plan
    kit: ShimKit
    units: LengthUnit
    line_mm: float | None = None

    @property
    def back(self) -> Structure:
        """What is known behind the back."""
        return self.known["back"]


@dataclass(frozen=True)
class Candidate:
    """A screw that could be set, what it carries sideways and against being pulled out, N, and whether at the top."""

    point: Point
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


def candidates(
    wall: Wall, unit: Unit, heights: tuple[float, ...], through: Through
) -> tuple[list[Candidate], tuple[str, ...]]:
    """Return every screw that could hold a unit at some heights over its underside, and why others could not."""
    places = []
    for height in heights:
        up = wall.plan.base.height.value_mm + unit.over_base_mm + height
        for x in _places(wall, unit, up):
            name = f"{unit.id}.{height:g}.{x:.0f}"
            places.append((height, Fixing(name, unit.id, "left", x, unit.over_base_mm + height)))
    if not places:
        return [], ()
    packings = packings_at(wall.ground, wall.plan.base, wall.kit, tuple(f for _, f in places))
    out, avoided = [], []
    for (height, fixing), packing in zip(places, packings, strict=True):
        why = kept_from(wall.place, packing.at, wall.backing)
        if why:
            avoided.append(why)
            continue
        top = through.all_top or height == max(heights)
        made = screwed(wall, unit.id, (fixing.x_mm, packing.at[1]), packing.gap, through, top=top)
        if made is not None:
            out.append(made)
    return out, tuple(dict.fromkeys(avoided))


def _places(wall: Wall, unit: Unit, up: float) -> list[float]:
    low, high = unit.x_mm + SIDE_KEPT_MM, unit.right_mm - SIDE_KEPT_MM
    if wall.backing.kind == "masonry":
        edge = max(SIDE_KEPT_MM, unit.support_inset_mm)
        start, end = unit.x_mm + edge, unit.right_mm - edge
        n = max(2, math.ceil((end - start) / MASONRY_APART_MM) + 1)
        return [float(x) for x in np.linspace(start, end, n)]
    return [x for line in wall.back.lines if low <= (x := line.at(up)) <= high]


def screwed(
    wall: Wall,
    unit: str,
    at: tuple[float, float],
    gap: Figure,
    through: Through,
    *,
    top: bool = True,
    surface: Behind = "back",
) -> Candidate | None:
    """Return a screw at a place, the shortest sold that reaches deep enough; None where none may be counted on."""
    packed = max(gap.value_mm, 0.0) + 2 * gap.sd_mm
    lining = wall.backing.lining_mm
    reach_wanted = _reach(wall.backing, through)
    needed = through.thick_mm + packed + lining + reach_wanted
    sold = next((mm for mm in SOLD_MM if mm >= needed), None)
    if sold is None or too_deep(sold - through.thick_mm - packed, wall.backing):
        return None
    reach = sold - through.thick_mm - packed - lining
    screw = Screw(shank_mm=through.shank_mm, root_mm=through.root_mm, long_mm=sold, thread_mm=0.6 * sold)
    held = _carries(wall.backing, screw, through, packed + lining, reach)
    if held is None:
        return None
    steps = (
        Step(label=through.part.capitalize(), value_mm=through.thick_mm),
        Step(label="Packing, and what is not known of it", value_mm=packed, sd_mm=gap.sd_mm),
        Step(label="Lining", value_mm=lining),
        Step(label=_into(wall.backing), value_mm=reach_wanted),
    )
    bites, check = _sure(wall, at, surface)
    if wall.backing.kind in WOODEN and reach > wall.backing.deep_mm - BEHIND_KEPT_MM:
        check = f"{check} It comes near the back of the stud: {DETECT.lower()}".strip()
    beside = near(wall.place, at, surface)
    if beside:
        check = f"{check} {beside} is near: {DETECT.lower()}".strip()
    point = Point(
        unit=unit,
        part=through.part,
        surface=surface,
        at=at,
        bites=bites,
        packing=gap,
        shank_mm=through.shank_mm,
        screw_mm=sold,
        long=Figure(value_mm=needed, sd_mm=gap.sd_mm, working=steps),
        reach_mm=reach,
        through_mm=through.thick_mm,
        pilot_mm=_pilot(wall.backing, through),
        clearance_mm=through.shank_mm + 0.5,
        check=check,
    )
    return Candidate(point, held[0], held[1], top)


def _sure(wall: Wall, at: tuple[float, float], surface: Behind) -> tuple[float, str]:
    """Return the chance that a screw bites, and what to do first where that is not sure."""
    if wall.backing.kind == "masonry":
        return 1.0, ""
    known = wall.known[surface]
    bites = known.bites(at[0], at[1])
    line = min(known.lines, key=lambda found: abs(found.at(at[1]) - at[0]), default=None)
    unsure = line is None or bites < SURE_TO_BITE or len(line.methods) < 2
    return bites, "Find it by a second method first." if unsure else ""


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
            return side, withdrawal(screw, reach_mm, backing.wood, lag=through.shank_mm >= 6.0)


def fewest(found: list[Candidate], shear: float, pull: float) -> tuple[list[Candidate], float, Candidate | None]:
    """Return the fewest screws that hold, two at least in the top row; how much they are used.

    The surest come first, and of those the furthest apart.
    """
    middle = float(np.mean([c.point.at[0] for c in found])) if found else 0.0

    def first(candidate: Candidate) -> tuple[float, float]:
        return -round(candidate.point.bites, 2), -round(abs(candidate.point.at[0] - middle))

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
