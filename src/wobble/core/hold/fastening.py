"""Where each unit is fastened: points on the lines behind, screws long enough, as few as hold, clear of services.

Weights and loads are planning figures. A hung unit's weight shears all its screws and, as it stands out of the wall,
pulls at the top row: W · (half its depth) over the height of that row above the unit's foot, where it bears. A standing
one's is carried by the floor; its top row keeps it from tipping under a hand's pull at its top.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.behind import Backing, BackingKind
from wobble.core.fit.figures import Figure, Step
from wobble.core.fit.ground import Ground
from wobble.core.fit.plan import Plan, packings_at
from wobble.core.fit.supports import Fixing
from wobble.core.hold.capacity import CapacityError, Screw, lateral, together, withdrawal
from wobble.core.hold.lines import SURE, Structure
from wobble.core.hold.services import DETECT, near_services
from wobble.core.job import Bay, ShimKit, Unit, Value
from wobble.core.length import LengthUnit, format_length
from wobble.core.unit import TALL_FROM_MM, Contents

GRAVITY = 9.81
CONTENTS_KG_PER_M3: dict[Contents, float] = {
    "nothing": 0.0,
    "crockery": 200.0,
    "books": 350.0,
    "files": 350.0,
    "tools": 300.0,
    "bedding": 60.0,
    "clothes": 80.0,
    "tins": 350.0,
}
"""What a full cupboard of each holds, for every cubic metre of it: planning figures."""
BOX_KG_PER_M2 = 12.0
"""What the boards of a box weigh that nobody weighed, for each square metre of its six sides: 18 mm board."""
WOODEN: tuple[BackingKind, ...] = ("wood studs", "lath and plaster", "ribs and battens")
"""Walls with wood to screw into; for the others the anchor's maker says what holds."""
RAIL_MM = 18.0
REACH_MM = 35.0
"""How deep a screw is to reach into the stud: ten diameters of a 5 mm screw need not be had, six must."""
LEDGER_MM, LEDGER_HIGH_MM, LEDGER_REACH_MM = 38.0, 60.0, 45.0
LEDGER_SHANK_MM, LEDGER_ROOT_MM = 8.0, 5.6
SOLD_MM = (40.0, 50.0, 60.0, 70.0, 80.0, 90.0, 100.0, 120.0, 140.0, 160.0, 180.0)
SIDE_KEPT_MM = 25.0
BEHIND_KEPT_MM = 10.0
UNEVEN = 1.25
"""The hardest pulled screw of a row carries this much more than its share."""
HAND_PULL_N = 220.0
"""A hand's pull, or a child on an open drawer, at the top of what stands."""
SHANK_MM, ROOT_MM = 5.0, 3.3
PILOT_MM, CLEARANCE_MM = 3.0, 5.5


class Point(Value, frozen=True, kw_only=True):
    """One screw.

    Attributes:
        unit: Of which unit. at: (along, up) on the wall. order: Its turn in the drilling list, from 1.
        bites: Chance that it meets wood, 0 to 1. packing: What is packed behind the rail there.
        screw_mm: Length of the screw, as sold. long: What it is built up from. reach_mm: How deep in the wood.
        pilot_mm: Pilot hole in the wood. clearance_mm: Hole through the rail.
        check: What to do before it is drilled; "" for nothing beyond the usual.
    """

    unit: str
    at: tuple[float, float]
    order: int
    bites: float
    packing: Figure
    screw_mm: float
    long: Figure
    reach_mm: float
    pilot_mm: float
    clearance_mm: float
    check: str


class Ledger(Value, frozen=True, kw_only=True):
    """A strip along the wall for a unit to rest on: its top at the unit's underside, two screws into every stud.

    Attributes:
        top_mm: Height of its top over the datum mark. start_mm: Its left end, mm along. end_mm: Its right one.
        thick_mm: Its thickness. studs: Places of the studs that it is screwed to, mm along. screw_mm: Length, as sold.
        each_n: What one of its screws carries. carries_n: All of them. use: Share of that which the unit takes.
    """

    top_mm: float
    start_mm: float
    end_mm: float
    thick_mm: float
    studs: tuple[float, ...]
    screw_mm: float
    each_n: float
    carries_n: float
    use: float


class Held(Value, frozen=True, kw_only=True):
    """How one unit is held.

    Attributes:
        unit: Which. weight_kg: Full. shear_n: On all its screws together. pull_n: On its top row.
        points: Its screws, the fewest that hold it. use: Share of the weakest screw's capacity that is used; 1 is all.
        lateral_n: What one screw carries sideways. withdrawal_n: What pulls it out. working: How they come about.
        enough: Whether it holds, every screw sure to bite. instead: What to do where it does not.
        ledger: What it rests on, where its own screws cannot carry it; they then only hold it back.
        caution: The word that belongs beside it.
    """

    unit: str
    weight_kg: float
    shear_n: float
    pull_n: float
    points: tuple[Point, ...]
    use: float
    lateral_n: float
    withdrawal_n: float
    working: tuple[str, ...]
    enough: bool
    instead: str
    ledger: Ledger | None
    caution: str


@dataclass(frozen=True)
class Wall:
    """What the units are fastened to, and what they stand on."""

    bay: Bay
    backing: Backing
    known: Structure
    ground: Ground
    plan: Plan
    kit: ShimKit
    units: LengthUnit


def weight_kg(unit: Unit) -> float:
    """Return what a unit weighs when full."""
    w, d, h = (mm / 1000 for mm in (unit.width_mm, unit.depth_mm, unit.height_mm))
    own = unit.weight_kg or BOX_KG_PER_M2 * 2 * (w * d + d * h + h * w)
    return own + CONTENTS_KG_PER_M3[unit.holds] * w * d * h


def loads(unit: Unit) -> tuple[float, float]:
    """Return shear on all screws and pull on the top row, N."""
    top = max(unit.fixing_heights_mm)
    weight = weight_kg(unit) * GRAVITY
    if not unit.stands:
        return weight, weight * (unit.depth_mm / 2) / top
    pulled = HAND_PULL_N if unit.height_mm >= TALL_FROM_MM or unit.front.opens == "drawers" else HAND_PULL_N / 2
    return 0.0, pulled * unit.height_mm / top


def hold(wall: Wall) -> tuple[Held, ...]:
    """Return how every unit with fixings is held, in the order of drilling: from left to right, the lower row first."""
    out: list[Held] = []
    drilled = 0
    for unit in sorted((u for u in wall.bay.units if u.fixing_heights_mm and not u.flat), key=lambda u: u.x_mm):
        held = _held(wall, unit, drilled)
        drilled += len(held.points)
        out.append(held)
    return tuple(out)


def _held(wall: Wall, unit: Unit, drilled: int) -> Held:
    shear, pull = loads(unit)
    rows = _candidates(wall, unit)
    chosen, use, weakest = _fewest(rows, shear, pull)
    ledger = _ledger(wall, unit, shear, rows) if use > 1 and not unit.stands else None
    if ledger is not None and ledger.use <= 1:
        chosen, use, weakest = _fewest(rows, 0.0, pull)
    in_order = sorted((c.point for c in chosen), key=lambda p: (p.at[1], p.at[0]))
    points = tuple(replace(p, order=drilled + i + 1) for i, p in enumerate(in_order))
    sure = all(p.bites >= SURE for p in points)
    side, out = (weakest.lateral_n, weakest.withdrawal_n) if weakest else (0.0, 0.0)
    holds = len(points) >= (1 if unit.stands else 2) and use <= 1.0
    return Held(
        unit=unit.id,
        weight_kg=weight_kg(unit),
        shear_n=shear,
        pull_n=pull,
        points=points,
        use=use,
        lateral_n=side,
        withdrawal_n=out,
        working=_working(wall, unit, shear, pull, weakest),
        enough=holds and sure,
        instead=_instead(wall, unit, points, holds=holds and ledger is None, sure=sure),
        ledger=ledger,
        caution=_caution(unit),
    )


@dataclass(frozen=True)
class _Candidate:
    point: Point
    lateral_n: float
    withdrawal_n: float
    top: bool


def _candidates(wall: Wall, unit: Unit) -> list[_Candidate]:
    """Return every place where a rail of a unit crosses a line, clear of services, with its screw."""
    if wall.backing.kind not in WOODEN:
        return []
    places = []
    for height in unit.fixing_heights_mm:
        for line in wall.known.lines:
            if unit.x_mm + SIDE_KEPT_MM <= line.at_mm <= unit.right_mm - SIDE_KEPT_MM:
                name = f"{unit.id}.{height:g}.{line.at_mm:.0f}"
                places.append((height, Fixing(name, unit.id, "left", line.at_mm, unit.over_base_mm + height)))
    if not places:
        return []
    packings = packings_at(wall.ground, wall.plan.base, wall.kit, tuple(f for _, f in places))
    out = []
    for (height, fixing), packing in zip(places, packings, strict=True):
        if near_services(wall.bay, packing.at, wall.backing.clear_mm) is not None:
            continue
        made = _screwed(wall, unit, fixing.x_mm, packing.at, packing.gap, top=height == max(unit.fixing_heights_mm))
        if made is not None:
            out.append(made)
    return out


def _screwed(
    wall: Wall, unit: Unit, x_mm: float, at: tuple[float, float], gap: Figure, *, top: bool
) -> _Candidate | None:
    """Return a point with the shortest screw sold that reaches deep enough; None where none may be counted on."""
    packed = max(gap.value_mm, 0.0) + 2 * gap.sd_mm
    lining = wall.backing.lining_mm
    needed = RAIL_MM + packed + lining + REACH_MM
    sold = next((mm for mm in SOLD_MM if mm >= needed), None)
    if sold is None:
        return None
    reach = sold - RAIL_MM - packed - lining
    screw = Screw(shank_mm=SHANK_MM, root_mm=ROOT_MM, long_mm=sold, thread_mm=0.6 * sold)
    try:
        side = lateral(
            screw,
            side_mm=RAIL_MM,
            gap_mm=packed + lining,
            main_mm=reach,
            side="plywood",
            main=wall.backing.wood,
        ).capacity_n
    except CapacityError:
        return None
    steps = (
        Step(label="Rail", value_mm=RAIL_MM),
        Step(label="Packing, and what is not known of it", value_mm=packed, sd_mm=gap.sd_mm),
        Step(label="Lining", value_mm=lining),
        Step(label="Into the wood", value_mm=REACH_MM),
    )
    bites = wall.known.bites(x_mm)
    line = min(wall.known.lines, key=lambda found: abs(found.at_mm - x_mm))
    check = ""
    if bites < SURE or len(line.methods) < 2:
        check = "Find it by a second method first."
    if reach > wall.backing.deep_mm - BEHIND_KEPT_MM:
        check = f"{check} It comes near the back of the stud: {DETECT.lower()}".strip()
    point = Point(
        unit=unit.id,
        at=at,
        order=0,
        bites=bites,
        packing=gap,
        screw_mm=sold,
        long=Figure(value_mm=needed, sd_mm=gap.sd_mm, working=steps),
        reach_mm=reach,
        pilot_mm=PILOT_MM,
        clearance_mm=CLEARANCE_MM,
        check=check,
    )
    return _Candidate(point, side, withdrawal(screw, reach, wall.backing.wood), top)


def _fewest(found: list[_Candidate], shear: float, pull: float) -> tuple[list[_Candidate], float, _Candidate | None]:
    """Return the fewest screws that hold, two at least in the top row, the surest first; how much they are used."""
    top = sorted((c for c in found if c.top), key=lambda c: -c.point.bites)
    low = sorted((c for c in found if not c.top), key=lambda c: -c.point.bites)
    best: tuple[list[_Candidate], float, _Candidate | None] = ([], math.inf, None)
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


def _working(wall: Wall, unit: Unit, shear: float, pull: float, weakest: _Candidate | None) -> tuple[str, ...]:
    said = [f"{weight_kg(unit):.0f} kg with what it holds ({unit.holds})."]
    if shear:
        said.append(f"Shear {shear:.0f} N; half its depth over the top row's height pulls with {pull:.0f} N.")
    else:
        said.append(f"The floor carries it; a hand at its top pulls the top row with {pull:.0f} N.")
    if weakest is not None:
        p = weakest.point
        packed = format_length(max(p.packing.value_mm, 0.0), wall.units)
        said.append(
            f"One 5 × {p.screw_mm:.0f} screw across {packed} of packing and the lining: {weakest.lateral_n:.0f} N "
            f"sideways (dowel equations with the gap), {weakest.withdrawal_n:.0f} N out, for good, safety within."
        )
    return tuple(said)


def _ledger(wall: Wall, unit: Unit, shear: float, found: list[_Candidate]) -> Ledger | None:
    """Return a ledger under a hung unit over the studs behind it; None with fewer than two of them."""
    low = wall.plan.base.height.value_mm + unit.over_base_mm
    studs = [
        line.at_mm
        for line in wall.known.lines
        if unit.x_mm <= line.at_mm <= unit.right_mm
        and wall.known.bites(line.at_mm) >= SURE
        and near_services(wall.bay, (line.at_mm, low - LEDGER_HIGH_MM / 2), wall.backing.clear_mm) is None
    ]
    if len(studs) < 2 or not found:
        return None
    packed = max(max(c.point.packing.value_mm, 0.0) + 2 * c.point.packing.sd_mm for c in found)
    gap = packed + wall.backing.lining_mm
    sold = next((mm for mm in SOLD_MM if mm >= LEDGER_MM + gap + LEDGER_REACH_MM), None)
    if sold is None:
        return None
    each = lateral(
        Screw(shank_mm=LEDGER_SHANK_MM, root_mm=LEDGER_ROOT_MM, long_mm=sold, thread_mm=0.6 * sold),
        side_mm=LEDGER_MM,
        gap_mm=gap,
        main_mm=sold - LEDGER_MM - gap,
        side=wall.backing.wood,
        main=wall.backing.wood,
    ).capacity_n
    carries = 2 * len(studs) * each
    return Ledger(
        top_mm=low,
        start_mm=unit.x_mm,
        end_mm=unit.right_mm,
        thick_mm=LEDGER_MM,
        studs=tuple(studs),
        screw_mm=sold,
        each_n=each,
        carries_n=carries,
        use=shear / carries,
    )


def _instead(wall: Wall, unit: Unit, points: tuple[Point, ...], *, holds: bool, sure: bool) -> str:
    if wall.backing.kind not in WOODEN:
        return (
            f"Screws into {wall.backing.kind} hold by their plug or anchor: take one that its maker lists for this "
            "wall and for the loads that stand here."
        )
    if not wall.known.lines:
        return "Find the studs first: scanner and magnet along the height of the rail."
    if len(points) == 1 and unit.stands and holds:
        return "One stud only behind it: screw it to its neighbours too, so that it cannot turn."
    if len(points) < 2:
        return (
            "Too few studs behind it: a rail or ledger over all studs of the run, screwed into each, carries it; or "
            "move the unit, or put blocking in."
        )
    if not holds:
        return "Rest it on a ledger along the wall, screwed into every stud, and let these screws only hold it back."
    if not sure:
        return "Find the doubtful studs by a second method before anything hangs."
    return ""


def _caution(unit: Unit) -> str:
    if not unit.stands:
        return "A load overhead: a planning figure. Follow the screws' maker and the local code; never hang on a doubt."
    if unit.height_mm >= TALL_FROM_MM or unit.front.opens == "drawers":
        return "It can tip: fix it before anything is put in, and keep children off open drawers."
    return ""
