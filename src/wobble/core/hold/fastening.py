"""Where each unit is fastened: points on what lies behind, screws long enough, as few as hold, clear of services."""

from __future__ import annotations

import math

from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.fit.run.tiers import tiers
from wobble.core.hold.capacity.capacity import SHEET_SAFETY, WITHDRAWAL_SAFETY
from wobble.core.hold.loads import loads, rests, tips, weight_kg
from wobble.core.hold.rests.rests import (
    BATTEN_ROWS_MM,
    BATTEN_UNDER_MM,
    GroundRail,
    Ledger,
    SplitBatten,
    ground_rail,
    ledger,
    split_batten,
)
from wobble.core.hold.screws import (
    SIDE_KEPT_MM,
    WOODEN,
    Candidate,
    Point,
    Through,
    Wall,
    candidates,
    fewest,
)
from wobble.core.job import Unit, Value
from wobble.core.job.unit import LOOSE, Hung
from wobble.core.length import format_length

STRAP_UNDER_MM = 40.0
"""How far under the top of a unit without a rail its straps are."""
NOTHING_HOLDS = 99.0
"""The share of nothing that a load takes."""
SAME_PLACE_MM = 30.0
MOST_MOVED_MM, MOVE_STEP_MM = 300.0, 5.0
LOCKING = (
    "In a vehicle: locking nuts or thread lock, washers that cannot turn, and a look at all of them after a drive."
)


class Held(Value, frozen=True, kw_only=True):
    """How one unit is held.

    Attributes:
        unit: Which. weight_kg: Full. shear_n: On all its screws together. pull_n: On its top row.
        points: Its screws, the fewest that hold it, its ledger's first.
        use: Share of the weakest screw's capacity that is used; 1 is all.
        lateral_n: What one screw carries sideways. withdrawal_n: What pulls it out. working: How they come about.
        enough: Whether it holds, every screw sure to bite. instead: What to do where it does not.
        avoided: What screws were kept clear of. ledger: What it rests on. batten: What it hooks over.
        ground: A timber behind its rail. caution: The word that belongs beside it.
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
    avoided: tuple[str, ...]
    ledger: Ledger | None
    batten: SplitBatten | None
    ground: GroundRail | None
    caution: str


def fastened(unit: Unit) -> bool:
    """Return whether a unit is fastened to the wall: not what lies flat, is a frame, or hangs from the ceiling."""
    if unit.kind in LOOSE or unit.kind in ("rack", "base frame", "platform"):
        return False
    return bool(unit.fixing_heights_mm) or tips(unit)


def hold(wall: Wall, order: tuple[str, ...] = ()) -> tuple[Held, ...]:
    """Return how every unit is held, its screws numbered in the order in which the units are set.

    Args:
        wall: What they are fastened to.
        order: Ids of the units in the order of work; others follow from left to right.
    """
    place = {id_: i for i, id_ in enumerate(order)}
    units = sorted((u for u in wall.place.units if fastened(u)), key=lambda u: (place.get(u.id, len(place)), u.x_mm))
    out: list[Held] = []
    drilled = 0
    for unit in units:
        held = _shared(_held(wall, unit), out)
        points = tuple(replace(p, order=drilled + i + 1) for i, p in enumerate(held.points))
        drilled += len(points)
        out.append(replace(held, points=points))
    return tuple(out)


def _shared(held: Held, before: list[Held]) -> Held:
    """Return how a unit is held with what its timber shares with a neighbour's: screwed once, loaded by both."""
    if held.ground is None:
        return held
    out = held
    for other in before:
        taken = [q.at for q in other.points if q.part == "timber"]
        mine = tuple(p for p in out.points if all(math.dist(p.at, at) > SAME_PLACE_MM for at in taken))
        if other.ground is not None and len(mine) < len(out.points):
            start = max(held.ground.start_mm, other.ground.end_mm) if other.ground.end_mm < held.ground.end_mm else None
            ground = replace(held.ground, start_mm=held.ground.start_mm if start is None else start)
            use = out.use + other.use
            out = replace(out, points=mine, ground=ground, use=use, enough=out.enough and use <= 1.0)
    return out


def _through(unit: Unit) -> tuple[Through, tuple[float, ...]]:
    """Return through what a unit is screwed, and at which heights over its underside."""
    if isinstance(unit.standing, Hung) and unit.standing.by == "split batten":
        batten = Through("batten", unit.standing.thick_mm, "plywood", 6.0, 4.2, 40.0, 4.0, all_top=True)
        return batten, tuple(unit.height_mm - BATTEN_UNDER_MM + off for off in BATTEN_ROWS_MM)
    if not unit.fixing_heights_mm:
        return Through("strap", 3.0), (unit.height_mm - STRAP_UNDER_MM,)
    return Through(), unit.fixing_heights_mm


def _held(wall: Wall, unit: Unit) -> Held:
    carried = rests(wall.place, unit)
    through, heights = _through(unit)
    hooked = through.part == "batten"
    driving = wall.backing.driving_g
    shear, pull = loads(unit, carried=carried, driving_g=driving, off_mm=through.thick_mm if hooked else 0.0)
    found, avoided = candidates(wall, unit, heights, through)
    chosen, use, weakest = fewest(found, shear, pull)
    on_ledger = isinstance(unit.standing, Hung) and unit.standing.by == "ledger"
    rest = ledger(wall, unit, shear) if (use > 1 or on_ledger) and not carried and not hooked else None
    under: list[Candidate] = []
    if rest is not None and rest[0].use <= 1:
        chosen, use, weakest = fewest(found, 0.0, pull)
        under = rest[1]
    ground = ground_rail(wall, unit, max(heights), shear, pull) if carried and (use > 1 or not chosen) else None
    if ground is not None:
        chosen, use = ground[1], ground[0].use
        weakest = min(chosen, key=lambda c: c.lateral_n)
    points = tuple(c.point for c in (*_in_order(under), *_in_order(chosen)))
    sure = all(p.bites >= SURE_TO_BITE for p in points)
    batten = split_batten(wall, unit, through.thick_mm) if hooked else None
    holds = len(chosen) >= (1 if carried else 2) and use <= 1.0 and (batten is None or batten.lifts)
    return Held(
        unit=unit.id,
        weight_kg=weight_kg(unit),
        shear_n=shear,
        pull_n=pull,
        points=points,
        use=min(use, NOTHING_HOLDS),
        lateral_n=weakest.lateral_n if weakest else 0.0,
        withdrawal_n=weakest.withdrawal_n if weakest else 0.0,
        working=_working(wall, unit, shear, pull, weakest, carried=carried),
        enough=holds and sure,
        instead=_instead(wall, unit, len(chosen), batten, holds=holds and rest is None, sure=sure, carried=carried),
        avoided=avoided,
        ledger=rest[0] if rest is not None else None,
        batten=batten,
        ground=ground[0] if ground is not None else None,
        caution=_caution(unit, driving, carried=carried),
    )


def _in_order(found: list[Candidate]) -> list[Candidate]:
    return sorted(found, key=lambda c: (c.point.at[1], c.point.at[0]))


def _working(
    wall: Wall, unit: Unit, shear: float, pull: float, weakest: Candidate | None, *, carried: bool
) -> tuple[str, ...]:
    said = [f"{weight_kg(unit):.0f} kg with what it holds ({unit.holds})."]
    thrown = wall.backing.driving_g
    if carried:
        said.append(f"It is carried from below; a hand at its top pulls the top row with {pull:.0f} N.")
    else:
        said.append(f"Shear {shear:.0f} N; half its depth over the top row's height pulls with {pull:.0f} N.")
    if thrown:
        said.append(f"Driving, {thrown:g} of its weight throws it about: that is in both.")
    if weakest is not None:
        p = weakest.point
        packed = format_length(max(p.packing.value_mm, 0.0), wall.units)
        said.append(
            f"One {p.shank_mm:g} × {p.screw_mm:.0f} screw across {packed} of packing and the lining: "
            f"{weakest.lateral_n:.0f} N sideways (dowel equations with the gap), {weakest.withdrawal_n:.0f} N out."
        )
        said.append(_safety(wall))
    return tuple(said)


def _safety(wall: Wall) -> str:
    match wall.backing.kind:
        case "metal studs":
            return f"For good, with a safety of {SHEET_SAFETY:g} on the sheet (AISI S100)."
        case "masonry":
            return "What its maker recommends for the anchor, and no more than the screw bends at across the gap."
        case _:
            return (
                f"For good, with a safety of 2.2 or more on yielding and {WITHDRAWAL_SAFETY:g} on pulling out, "
                "as the code's values hold."
            )


def _instead(
    wall: Wall, unit: Unit, n: int, batten: SplitBatten | None, *, holds: bool, sure: bool, carried: bool
) -> str:
    kind = wall.backing.kind
    if kind == "masonry" and wall.backing.anchor is None:
        return "Say which anchor: its maker's loads, depth and hole for this wall decide where it may stand."
    if kind != "masonry" and not wall.back.lines:
        return "Find the studs first: scanner and magnet along the height of the rail."
    if batten is not None and not batten.lifts:
        lift = format_length(batten.lift_mm, wall.units)
        return f"It cannot be lifted over its batten: it wants {lift} free above. Screw it through its rail instead."
    if n == 1 and carried and holds:
        return "One stud only behind it: screw it to its neighbours too, so that it cannot turn."
    if n < 2:
        moved = _moved(wall, unit)
        return (
            f"Too few studs behind it: {moved}a rail or ledger over all studs of the run, screwed into each, carries "
            "it; or put blocking in."
        )
    if not holds and batten is not None:
        return "More than the batten's screws hold: more studs, or let it rest on a ledger instead."
    if not holds and kind not in WOODEN:
        return "More than these hold: more rows of screws, a stronger anchor, or something to stand on."
    if not holds:
        return "Rest it on a ledger along the wall, screwed into every stud, and let these screws only hold it back."
    if not sure:
        return "Find the doubtful studs by a second method before anything hangs."
    return ""


def _moved(wall: Wall, unit: Unit) -> str:
    """Return by how little the unit is moved so that two sure studs lie behind it, in words; "" where none is near."""
    up = unit.over_base_mm + max(unit.fixing_heights_mm, default=unit.height_mm)
    studs = [x for line in wall.back.lines if wall.back.bites(x := line.at(up)) >= SURE_TO_BITE]
    others = [u for tier in tiers(wall.place) for u in tier.units if u.id != unit.id and unit in tier.units]
    steps = int(MOST_MOVED_MM / MOVE_STEP_MM)
    for by in sorted((k * MOVE_STEP_MM for k in range(-steps, steps + 1)), key=abs):
        low, high = unit.x_mm + by, unit.right_mm + by
        free = low >= 0 and high <= wall.place.width_mm and all(high <= o.x_mm or low >= o.right_mm for o in others)
        if free and sum(low + SIDE_KEPT_MM <= x <= high - SIDE_KEPT_MM for x in studs) >= 2:
            side = "right" if by > 0 else "left"
            return f"moved {format_length(abs(by), wall.units, decimals=0)} to the {side} it has two; else "
    return ""


def _caution(unit: Unit, driving_g: float, *, carried: bool) -> str:
    said = []
    if not carried:
        said.append(
            "A load overhead: a planning figure. Follow the screws' maker and the local code; never hang on a doubt."
        )
    elif tips(unit):
        said.append("It can tip: fix it before anything is put in, and keep children off open drawers.")
    if driving_g:
        said.append(LOCKING)
    return " ".join(said)
