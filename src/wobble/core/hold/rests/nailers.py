"""What boards over a wall are nailed to where no stud is: nailers in corners and beside outlets, blocking in rows.

On an open frame they are put between the studs before the lining hides them. Boards along are nailed at each stud and
at both ends; boards up at rows across the studs. On a wall that is closed nothing can be put in without opening it:
then only which ends are loose is said.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.figure import Figure, Step
from wobble.core.hold.into import Context
from wobble.core.hold.screws import SOLD_MM, penetration
from wobble.core.hold.structure.behind import behind
from wobble.core.hold.structure.lines import StructureLine
from wobble.core.job import Boarding, Obstacle, Place, Unit, Value
from wobble.core.job.backing import Backing
from wobble.core.part import Fastener

OVERHANG_MM = 50.0
"""A board that ends further past what it is nailed to than this has a loose end."""
ROWS_APART_MM = 600.0
"""Boards that run up are nailed at rows no further apart than this."""
CLEAR_MM = 5.0
"""What is left free round an outlet's box."""
LEAST_LONG_MM = 40.0
"""A gap between studs smaller than this needs nothing in it."""
CUT_ROUND = ("outlet", "switch", "vent", "valve", "spout")
"""What boards are cut round, so that short ends stay beside it."""
SHANK_MM, TOED_MM, LEAST_IN_MM = 5.0, 30.0, 40.0
"""Screws driven slantwise through the end of a piece: what they go through there, and how deep they then sit."""
STUD_SD_MM = 1.0
"""How true a stud's own width is."""


class Nailer(Value, frozen=True, kw_only=True):
    """One piece between or beside studs, or several alike one over the other, for boards to be nailed to.

    Attributes:
        id: Its own. unit: For which boarding. runs: Upright, or across. low, high: Its corners on the back, mm, where
            there are several those of the lowest. rows: Heights of their undersides, mm. long: As it is cut.
        narrow_mm, wide_mm: Its section: the same stock as the studs. why: What is nailed there.
    """

    id: str
    unit: str
    runs: Literal["up", "across"]
    low: tuple[float, float]
    high: tuple[float, float]
    rows: tuple[float, ...]
    long: Figure
    narrow_mm: float
    wide_mm: float
    why: str


class LooseEnd(Value, frozen=True, kw_only=True):
    """An end of boards that has nothing behind it, on a wall that is closed: how far it is past the last stud."""

    unit: str
    end: Literal["left", "right"]
    past_mm: float


class Nailing(Value, frozen=True, kw_only=True):
    """What the boards over a wall are nailed to beside its studs; `unknown` are boardings whose studs nobody found."""

    nailers: tuple[Nailer, ...] = ()
    loose: tuple[LooseEnd, ...] = ()
    unknown: tuple[str, ...] = ()


@dataclass(frozen=True)
class Upright:
    """Something upright that pieces are cut between: its two faces, mm along, and how well each is known."""

    left: float
    right: float
    sd: float


def nailing(context: Context) -> tuple[Nailing, tuple[Fastener, ...]]:
    """Return what is put in for every boarding over a frame of studs, with its screws."""
    backing = context.backing
    if backing.kind not in ("wood studs", "metal studs"):
        return Nailing(), ()
    known = behind(context.place)
    studs = [line for line in known.lines if known.bites(line.at_mm) >= SURE_TO_BITE]
    nailers: list[Nailer] = []
    loose: list[LooseEnd] = []
    unknown: list[str] = []
    boarded = ((u, u.body) for u in context.place.units if isinstance(u.body, Boarding))
    for unit, body in ((_on_the_wall(context.place, u), body) for u, body in boarded):
        mine = [upright_of(s, backing) for s in studs if unit.x_mm - backing.stud_mm < s.at_mm < unit.right_mm]
        if not mine:
            unknown.append(unit.id)
        elif backing.lining_mm > 0:
            loose += _loose(unit, mine)
        else:
            nailers += _between(context, unit, body, mine)
    return Nailing(nailers=tuple(nailers), loose=tuple(loose), unknown=tuple(unknown)), tuple(
        f for n in nailers for f in end_screws(n)
    )


def put_in(
    nailed: tuple[Nailing, tuple[Fastener, ...]], blocks: tuple[Nailer, ...]
) -> tuple[Nailing, tuple[Fastener, ...]]:
    """Return what is nailed to with blocking that units ask for, and the screws of both."""
    found, driven = nailed
    more = tuple(f for n in blocks for f in end_screws(n))
    return replace(found, nailers=(*found.nailers, *blocks)), (*driven, *more)


def _on_the_wall(place: Place, unit: Unit) -> Unit:
    """Return a boarding as far as there is a wall: past its end nothing is put in."""
    left, right = unit.x_mm, unit.right_mm
    for ends in (o for o in place.openings if o.kind == "no wall"):
        if ends.x_mm <= left < ends.right_mm:
            left = min(ends.right_mm, right)
        if ends.x_mm < right <= ends.right_mm:
            right = max(ends.x_mm, left)
    return replace(unit, x_mm=left, width_mm=right - left) if right > left else unit


def upright_of(line: StructureLine, backing: Backing) -> Upright:
    """Return a stud as something that pieces are cut between."""
    return Upright(line.at_mm - backing.stud_mm / 2, line.at_mm + backing.stud_mm / 2, line.sd_mm)


def _loose(unit: Unit, studs: list[Upright]) -> Iterator[LooseEnd]:
    left, right = studs[0].left - unit.x_mm, unit.right_mm - studs[-1].right
    if left > OVERHANG_MM:
        yield LooseEnd(unit=unit.id, end="left", past_mm=left)
    if right > OVERHANG_MM:
        yield LooseEnd(unit=unit.id, end="right", past_mm=right)


def _between(context: Context, unit: Unit, body: Boarding, studs: list[Upright]) -> Iterator[Nailer]:
    """Yield the pieces that one boarding asks for on an open frame: ends, then rows, then round what it is cut for."""
    stud = context.backing.stud_mm
    low = context.plan.base.height.value_mm + unit.over_base_mm
    high = low + unit.height_mm
    long = Figure(
        value_mm=unit.height_mm,
        sd_mm=0.0,
        working=(Step(label="Height of the boarding", value_mm=unit.height_mm),),
    )
    uprights = list(studs)
    for end in _loose(unit, studs):
        x = unit.x_mm if end.end == "left" else unit.right_mm - stud
        uprights.append(Upright(x, x + stud, STUD_SD_MM))
        yield _piece(context, unit, f"end-{end.end}", "up", (x, low), (low,), long, f"the boards' {end.end} ends")
    uprights.sort(key=lambda u: u.left)
    around = [o for o in context.place.obstacles if _cut_round(o, unit, low, high)]
    if body.runs == "up":
        n = max(2, math.ceil((unit.height_mm - stud) / ROWS_APART_MM) + 1)
        rows = [low + k * (unit.height_mm - stud) / (n - 1) for k in range(n)]
        for k, (a, b) in enumerate(itertools.pairwise(uprights)):
            free = tuple(z for z in rows if not any(in_way(o, a, b, z, stud) for o in around))
            if free and b.left - a.right >= LEAST_LONG_MM:
                yield across(context, unit, f"row-{k + 1}", a, b, free, "boards that run up, at rows")
    for o in around:
        yield from _round(context, unit, body, o, uprights)


def _round(context: Context, unit: Unit, body: Boarding, o: Obstacle, uprights: list[Upright]) -> Iterator[Nailer]:
    """Yield blocking under and over an outlet, and beside it where boards along end at it far from a stud."""
    stud = context.backing.stud_mm
    a = max((u for u in uprights if u.right <= o.at[0]), key=lambda u: u.right, default=None)
    b = min((u for u in uprights if u.left >= o.at[0] + o.size[0]), key=lambda u: u.left, default=None)
    if a is None or b is None or b.left - a.right < LEAST_LONG_MM:
        return
    under, over = o.at[1] - CLEAR_MM - stud, o.at[1] + o.size[1] + CLEAR_MM
    yield across(context, unit, f"round-{o.id}", a, b, (under, over), f"the boards cut round {o.name}")
    if body.runs != "along":
        return
    sides: tuple[tuple[str, float, float], ...] = (
        ("left", o.at[0] - a.right, o.at[0] - CLEAR_MM - stud),
        ("right", b.left - o.at[0] - o.size[0], o.at[0] + o.size[0] + CLEAR_MM),
    )
    tall = over - under - stud
    steps = (
        Step(label=f"Height of {o.name}", value_mm=o.size[1]),
        Step(label="Left free over and under it", value_mm=2 * CLEAR_MM),
    )
    for side, past, x in sides:
        if past > OVERHANG_MM + stud:
            long = Figure(value_mm=tall, sd_mm=0.0, working=steps)
            why = f"the ends of boards {side} of {o.name}"
            yield _piece(context, unit, f"beside-{o.id}-{side}", "up", (x, under + stud), (under + stud,), long, why)


def _cut_round(o: Obstacle, unit: Unit, low: float, high: float) -> bool:
    return (
        o.surface == "back"
        and o.kind in CUT_ROUND
        and o.treatment not in ("remove", "move by a licensed trade")
        and o.at[0] < unit.right_mm
        and o.at[0] + o.size[0] > unit.x_mm
        and o.at[1] < high
        and o.at[1] + o.size[1] > low
    )


def in_way(o: Obstacle, a: Upright, b: Upright, z: float, stud: float) -> bool:
    """Return whether something on the back is where a piece between two uprights would be."""
    beside = o.at[0] < b.left and o.at[0] + o.size[0] > a.right
    return beside and z < o.at[1] + o.size[1] + CLEAR_MM + stud and z + stud > o.at[1] - CLEAR_MM - stud


def across(
    context: Context, unit: Unit, name: str, a: Upright, b: Upright, rows: tuple[float, ...], why: str
) -> Nailer:
    """Return a piece that lies between two uprights, at one height or several, cut to the gap."""
    sd = math.hypot(a.sd, b.sd, STUD_SD_MM)
    steps = (
        Step(label="Right face of the one", sign=-1, value_mm=a.right, sd_mm=a.sd),
        Step(label="Left face of the next", value_mm=b.left, sd_mm=b.sd),
    )
    long = Figure(value_mm=b.left - a.right, sd_mm=sd, working=steps)
    return _piece(context, unit, name, "across", (a.right, min(rows)), rows, long, why)


def _piece(
    context: Context,
    unit: Unit,
    name: str,
    runs: Literal["up", "across"],
    low: tuple[float, float],
    rows: tuple[float, ...],
    long: Figure,
    why: str,
) -> Nailer:
    stud = context.backing.stud_mm
    wide, tall = (stud, long.value_mm) if runs == "up" else (long.value_mm, stud)
    return Nailer(
        id=f"nailer-{unit.id}-{name}",
        unit=unit.id,
        runs=runs,
        low=low,
        high=(low[0] + wide, low[1] + tall),
        rows=rows,
        long=long,
        narrow_mm=stud,
        wide_mm=context.backing.deep_mm,
        why=why,
    )


def end_screws(nailer: Nailer) -> Iterator[Fastener]:
    """Yield two screws slantwise through each end of each piece, into the stud, plate or blocking that it meets."""
    sold = next(mm for mm in SOLD_MM if mm >= TOED_MM + LEAST_IN_MM)
    steps = (
        Step(label="Slantwise through its end", value_mm=TOED_MM),
        Step(label="At least in what holds", value_mm=LEAST_IN_MM),
    )
    for row, z in enumerate(nailer.rows):
        for k in range(4):
            yield Fastener(
                id=f"{nailer.id}.{row + 1}.{k + 1}",
                unit=nailer.unit,
                part="nailer",
                joins=(nailer.id, "the frame behind"),
                surface=None,
                at=(z, 0.0),
                bites=1.0,
                packing=Figure(value_mm=0.0, sd_mm=0.0),
                shank_mm=SHANK_MM,
                screw_mm=sold,
                long=Figure(value_mm=TOED_MM + LEAST_IN_MM, sd_mm=0.0, working=steps),
                reach_mm=penetration(sold, through_mm=TOED_MM, packed_mm=0.0, lining_mm=0.0),
                through_mm=TOED_MM,
                pilot_mm=3.0,
                clearance_mm=0.0,
            )
