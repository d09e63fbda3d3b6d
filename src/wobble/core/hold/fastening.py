"""How each unit is held: by as few screws as hold, clear of services, in what lies behind; resting on ledgers."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import contents_words
from wobble.core.hold.capacity.capacity import SHEET_SAFETY, WITHDRAWAL_SAFETY
from wobble.core.hold.loads import loads, rests, tips, weight_kg
from wobble.core.hold.rests.battens import BATTEN_ROWS_MM, BATTEN_UNDER_MM, SplitBatten, split_batten
from wobble.core.hold.rests.ledgers import GroundRail, Ledger, ground_rail, ledger
from wobble.core.hold.screws import (
    REFUSED,
    SIDE_KEPT_MM,
    WOODEN,
    Candidate,
    Context,
    Found,
    Through,
    candidates,
    fewest,
)
from wobble.core.job import Unit, Value
from wobble.core.job.unit import LOOSE, Hung
from wobble.core.length import format_length
from wobble.core.part import Fastener

STRAP_UNDER_MM = 40.0
"""How far under the top of a unit without a rail its straps are."""
NOTHING_HOLDS = 99.0
"""The share of nothing that a load takes."""
SAME_PLACE_MM = 30.0
TOUCH_MM = 20.0
"""Units that hang this close to each other rest on one ledger."""
LEVEL_MM = 1.0
MOST_MOVED_MM, MOVE_STEP_MM = 300.0, 5.0
LOCKING = (
    "In a vehicle: locking nuts or thread lock, washers that cannot turn, and a look at all of them after a drive."
)


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
    """How all units of a place are held, with the ledgers that they rest on and every screw, numbered."""

    held: tuple[Held, ...] = ()
    ledgers: tuple[Ledger, ...] = ()
    fasteners: tuple[Fastener, ...] = ()


@dataclass(frozen=True)
class _Asked:
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


def fastened(unit: Unit) -> bool:
    """Return whether a unit is fastened to the wall: not what lies flat, is a frame, or hangs from the ceiling."""
    if unit.kind in LOOSE or unit.kind in ("rack", "base frame", "platform"):
        return False
    return bool(_heights(unit)) or tips(unit)


def _heights(unit: Unit) -> tuple[float, ...]:
    """Return the heights at which a unit is fixed: one said over its top holds nothing, and is told by Fit."""
    return tuple(h for h in unit.fixing_heights_mm if h <= unit.height_mm)


def hold(context: Context, order: tuple[str, ...] = ()) -> Holding:
    """Return how every unit is held, its screws numbered in the order in which the units are set.

    Args:
        context: What they are fastened to.
        order: Ids of the units in the order of work; others follow from left to right.
    """
    place = {id_: i for i, id_ in enumerate(order)}
    units = sorted((u for u in context.place.units if fastened(u)), key=lambda u: (place.get(u.id, len(place)), u.x_mm))
    asked = {unit.id: _asked(context, unit) for unit in units}
    on_ledgers = _ledgers(context, asked)
    out: list[Held] = []
    screws: list[Fastener] = []
    for unit in units:
        mine = on_ledgers.get(unit.id)
        held, driven = _held(context, asked[unit.id], mine[0] if mine is not None else None)
        if mine is not None and mine[0].units[0] == unit.id:
            driven = (*_in_order(mine[1]), *driven)
        held, driven = _shared(held, driven, out, screws)
        numbered = tuple(replace(f, order=len(screws) + i + 1) for i, f in enumerate(driven))
        screws += numbered
        out.append(replace(held, fasteners=tuple(f.id for f in numbered)))
    ledgers = {id(found): found for found, _ in on_ledgers.values()}
    return Holding(tuple(out), tuple(ledgers.values()), tuple(screws))


def _asked(context: Context, unit: Unit) -> _Asked:
    carried = rests(context.place, unit)
    through, heights = _through(unit)
    hooked = through.part == "batten"
    driving = context.backing.driving_g
    shear, pull = loads(unit, carried=carried, driving_g=driving, off_mm=through.thick_mm if hooked else 0.0)
    found = candidates(context, unit, heights, through)
    chosen, use, weakest = fewest(found.candidates, shear, pull)
    return _Asked(unit, carried, through, heights, shear, pull, found, tuple(chosen), use, weakest)


def _through(unit: Unit) -> tuple[Through, tuple[float, ...]]:
    """Return through what a unit is screwed, and at which heights over its underside."""
    if isinstance(unit.standing, Hung) and unit.standing.by == "split batten":
        batten = Through("batten", unit.standing.thick_mm, "plywood", 6.0, 4.2, 40.0, 4.0, all_top=True)
        return batten, tuple(unit.height_mm - BATTEN_UNDER_MM + off for off in BATTEN_ROWS_MM)
    if not _heights(unit):
        return Through("strap", 3.0), (max(unit.height_mm - STRAP_UNDER_MM, unit.height_mm / 2),)
    return Through(), _heights(unit)


def _ledgers(context: Context, asked: dict[str, _Asked]) -> dict[str, tuple[Ledger, tuple[Candidate, ...]]]:
    """Return one ledger for every row of units side by side of which one needs or wants it, by each unit's id."""
    out: dict[str, tuple[Ledger, tuple[Candidate, ...]]] = {}
    for row in _rows([a for a in asked.values() if not a.carried and a.through.part != "batten"]):
        wanted = any(isinstance(a.unit.standing, Hung) and a.unit.standing.by == "ledger" for a in row)
        if not wanted and all(a.use <= 1 for a in row):
            continue
        made = ledger(context, tuple(a.unit for a in row), sum(a.shear for a in row))
        if made is not None and made[0].use <= 1:
            out |= {a.unit.id: made for a in row}
    return out


def _rows(asked: list[_Asked]) -> Iterator[list[_Asked]]:
    """Yield units that hang side by side with their undersides level."""
    row: list[_Asked] = []
    for one in sorted(asked, key=lambda a: (round(a.unit.over_base_mm), a.unit.x_mm)):
        last = row[-1].unit if row else None
        level = last is not None and abs(last.over_base_mm - one.unit.over_base_mm) <= LEVEL_MM
        if last is not None and level and one.unit.x_mm - last.right_mm <= TOUCH_MM:
            row.append(one)
        else:
            if row:
                yield row
            row = [one]
    if row:
        yield row


def _held(context: Context, asked: _Asked, rest: Ledger | None) -> tuple[Held, tuple[Fastener, ...]]:
    unit, carried, hooked = asked.unit, asked.carried, asked.through.part == "batten"
    chosen, use, weakest = list(asked.chosen), asked.use, asked.weakest
    if rest is not None:  # it rests: its own screws only hold it back
        chosen, use, weakest = fewest(asked.found.candidates, 0.0, asked.pull)
    tall = max(asked.heights)
    wants_timber = carried and (use > 1 or not chosen)
    ground = ground_rail(context, unit, tall, asked.shear, asked.pull) if wants_timber else None
    if ground is not None:
        chosen, use = ground[1], ground[0].use
        weakest = min(chosen, key=lambda c: c.lateral_n)
    driven = _in_order(tuple(chosen))
    sure = all(f.bites >= SURE_TO_BITE for f in driven)
    batten = split_batten(context, unit, asked.through.thick_mm) if hooked else None
    least = 1 if carried or rest is not None else 2
    holds = len(chosen) >= least and use <= 1.0 and (batten is None or batten.lifts)
    said = _instead(context, asked, len(chosen), batten, holds=holds, sure=sure)
    held = Held(
        unit=unit.id,
        weight_kg=weight_kg(unit),
        shear_n=asked.shear,
        pull_n=asked.pull,
        fasteners=(),
        use=min(use, NOTHING_HOLDS),
        lateral_n=weakest.lateral_n if weakest else 0.0,
        withdrawal_n=weakest.withdrawal_n if weakest else 0.0,
        working=_working(context, asked, weakest),
        enough=holds and sure,
        instead=said,
        avoided=asked.found.avoided,
        ledger=rest.id if rest is not None else "",
        batten=batten,
        ground=ground[0] if ground is not None else None,
        overhead=not carried,
        caution=_caution(unit, context.backing.driving_g, carried=carried),
    )
    return held, driven


def _in_order(found: tuple[Candidate, ...]) -> tuple[Fastener, ...]:
    return tuple(sorted((c.fastener for c in found), key=lambda f: (f.at[1], f.at[0])))


def _shared(
    held: Held, driven: tuple[Fastener, ...], before: list[Held], screws: list[Fastener]
) -> tuple[Held, tuple[Fastener, ...]]:
    """Return how a unit is held with what its timber shares with a neighbour's: screwed once, loaded by both."""
    if held.ground is None:
        return held, driven
    for other in before:
        taken = [f.at for f in screws if f.unit == other.unit and f.part == "timber"]
        mine = tuple(f for f in driven if all(math.dist(f.at, at) > SAME_PLACE_MM for at in taken))
        if other.ground is not None and held.ground is not None and len(mine) < len(driven):
            start = max(held.ground.start_mm, other.ground.end_mm) if other.ground.end_mm < held.ground.end_mm else None
            ground = replace(held.ground, start_mm=held.ground.start_mm if start is None else start)
            use = held.use + other.use
            held, driven = replace(held, ground=ground, use=use, enough=held.enough and use <= 1.0), mine
    return held, driven


def _working(context: Context, asked: _Asked, weakest: Candidate | None) -> tuple[str, ...]:
    said = [f"{weight_kg(asked.unit):.0f} kg with what it holds ({contents_words(asked.unit)})."]
    thrown = context.backing.driving_g
    if asked.carried:
        said.append(f"It is carried from below; a hand at its top pulls the top row with {asked.pull:.0f} N.")
    else:
        said.append(
            f"Shear {asked.shear:.0f} N; half its depth over the top row's height pulls with {asked.pull:.0f} N."
        )
    if thrown:
        said.append(f"Driving, {thrown:g} of its weight throws it about: that is in both.")
    if weakest is not None:
        f = weakest.fastener
        packed = format_length(max(f.packing.value_mm, 0.0), context.units)
        long = format_length(f.screw_mm, context.units, decimals=0)
        said.append(
            f"One {f.shank_mm:g} × {long} {f.kind} across {packed} of packing and the lining: "
            f"{weakest.lateral_n:.0f} N sideways (dowel equations with the gap), {weakest.withdrawal_n:.0f} N out."
        )
        said.append(_safety(context))
    return tuple(said)


def _safety(context: Context) -> str:
    match context.backing.kind:
        case "metal studs":
            return f"For good, with a safety of {SHEET_SAFETY:g} on the sheet (AISI S100)."
        case "masonry":
            return "What its maker recommends for the anchor, and no more than the screw bends at across the gap."
        case _:
            return (
                f"For good, with a safety of 2.2 or more on yielding and {WITHDRAWAL_SAFETY:g} on pulling out, "
                "as the code's values hold."
            )


def _instead(context: Context, asked: _Asked, n: int, batten: SplitBatten | None, *, holds: bool, sure: bool) -> str:
    """Return what to do where a unit does not hold, or what to mind where it does; "" where nothing is to be said."""
    kind = context.backing.kind
    if kind == "masonry" and context.backing.anchor is None:
        return "Say which anchor: its maker's loads, depth and hole for this wall decide where it may stand."
    if kind != "masonry" and not context.back.lines:
        return "Find the studs first: scanner and magnet along the height of the rail."
    if batten is not None and not batten.lifts:
        lift = format_length(batten.lift_mm, context.units)
        return f"It cannot be lifted over its batten: it wants {lift} free above. Screw it through its rail instead."
    if holds:
        if not sure:
            return "Find the doubtful studs by a second method before anything hangs."
        if n == 1 and kind in WOODEN:
            return "One stud only behind it: screw it to its neighbours too, so that it cannot turn."
        return ""
    if n < 2:
        return _too_few(context, asked)
    if batten is not None:
        return "More than the batten's screws hold: more studs, or let it rest on a ledger instead."
    if asked.carried:
        return "More pulls at its top than these hold: fix it higher up too, to more studs, and to its neighbours."
    if kind not in WOODEN:
        return "More than these hold: more rows of screws, a stronger anchor, or something to stand on."
    return "Rest it on a ledger along the wall, screwed into every stud, and let these screws only hold it back."


def _too_few(context: Context, asked: _Asked) -> str:
    """Return why too few screws hold: what is kept clear of and what is refused, before any want of studs."""
    found = asked.found
    if found.avoided or found.refused:
        why = [f"kept clear of {w}" for w in found.avoided] + [REFUSED[r] for r in found.refused]
        return (
            f"There is something to screw into behind it, but {'; '.join(why)}. Move the unit or its fixing heights, "
            "or let it rest on a ledger elsewhere."
        )
    if context.backing.kind == "masonry":
        return "It is too narrow for two anchors with their distance to its edges: hold it by its neighbours too."
    moved = _moved(context, asked.unit)
    return (
        f"Too few studs behind it: {moved}a rail or ledger over all studs of the run, screwed into each, carries "
        "it; or put blocking in."
    )


def _moved(context: Context, unit: Unit) -> str:
    """Return by how little the unit is moved so that two sure studs lie behind it, in words; "" where none is near."""
    up = unit.over_base_mm + max(_heights(unit), default=unit.height_mm)
    studs = [x for line in context.back.lines if context.back.bites(x := line.at(up)) >= SURE_TO_BITE]
    beside = [
        u
        for u in context.place.units
        if u.id != unit.id
        and not u.flat
        and u.over_base_mm < unit.over_base_mm + unit.height_mm
        and u.over_base_mm + u.height_mm > unit.over_base_mm
    ]
    steps = int(MOST_MOVED_MM / MOVE_STEP_MM)
    for by in sorted((k * MOVE_STEP_MM for k in range(-steps, steps + 1) if k), key=abs):
        low, high = unit.x_mm + by, unit.right_mm + by
        free = low >= 0 and high <= context.place.width_mm and all(high <= o.x_mm or low >= o.right_mm for o in beside)
        if free and sum(low + SIDE_KEPT_MM <= x <= high - SIDE_KEPT_MM for x in studs) >= 2:
            side = "right" if by > 0 else "left"
            return f"moved {format_length(abs(by), context.units, decimals=0)} to the {side} it has two; else "
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
