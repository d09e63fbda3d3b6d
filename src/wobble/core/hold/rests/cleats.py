"""The cleats of a shelf along the walls that it meets."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY, person_kg, row_kg_per_m
from wobble.core.facts import Behind
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.tops.flat import FlatPart
from wobble.core.hold.into import Context
from wobble.core.hold.rests.ledgers import under_line
from wobble.core.hold.screws import NO_PACKING, Candidate, Through, screwed
from wobble.core.hold.services import kept_from
from wobble.core.job import Unit, Value
from wobble.core.job.unit import OnCleats
from wobble.core.part import Fastener
from wobble.core.setout.boards import MATERIALS

CLEAT_SHARES: dict[str, float] = {"back": 0.6, "left": 0.35, "right": 0.35}
"""What each cleat of a shelf on three walls is planned for; together more than all, as no shelf lies evenly."""
CLEAT_ENDS_MM = 15.0
CLEAT_ROWS_MM = (10.0, -10.0)
"""Where two screws into one stud stand over the middle of a cleat."""
MASONRY_CLEAT_MM = 300.0


class ShelfCleat(Value, frozen=True, kw_only=True):
    """One cleat of a shelf and its screws.

    Attributes:
        unit: Of which shelf. wall: On which wall. long_mm: Its length. top_mm: Its top over the datum mark.
        under_line_mm: The same below a level line, where one is known. load_n: What it is planned for.
        fasteners: Its screws, by their ids. use: Share of their capacity. enough: Whether it holds.
        instead: What to do where it does not.
    """

    unit: str
    wall: Behind
    long_mm: float
    top_mm: float
    under_line_mm: float | None
    load_n: float
    fasteners: tuple[str, ...]
    use: float
    enough: bool
    instead: str


def shelf_cleats(
    context: Context, flats: tuple[FlatPart, ...], stand: Stand
) -> list[tuple[ShelfCleat, tuple[Fastener, ...]]]:
    """Return the cleats of every shelf that lies on some, with the studs that they are screwed to."""
    units = {u.id: u for u in context.place.units}
    out = []
    for part in flats:
        unit = units[part.unit]
        if not isinstance(unit.standing, OnCleats):
            continue
        through = Through("cleat", unit.standing.thick_mm, "spruce-pine-fir")
        total = _shelf_n(unit, part)
        walls = [c.wall for c in part.cleats]
        for cleat in part.cleats:
            share = CLEAT_SHARES[cleat.wall] if len(walls) == 3 else 0.6
            ends = _ends(unit, part, cleat.wall, cleat.long_mm, stand)
            up = cleat.top_mm - unit.standing.high_mm / 2
            out.append(
                _cleat(context, unit, cleat.wall, (cleat.long_mm, cleat.top_mm, up), ends, share * total, through)
            )
    return out


def _shelf_n(unit: Unit, part: FlatPart) -> float:
    """Return what a shelf and all that is on it weigh, N."""
    long = part.blank_mm[0] / 1000
    density = MATERIALS[unit.board.material].density if unit.board else MATERIALS["particleboard"].density
    own = unit.weight_kg or density * long * unit.depth_mm / 1000 * unit.height_mm / 1000
    return (own + row_kg_per_m(unit) * long + person_kg(unit)) * GRAVITY


def _ends(unit: Unit, part: FlatPart, on: str, long_mm: float, stand: Stand) -> tuple[float, float]:
    """Return from where to where a cleat reaches, along its wall."""
    if on == "back":
        start = part.corners[0][0] + (part.at_back.value_mm - long_mm) / 2
    else:
        start = stand.back_at(unit) + (unit.standing.thick_mm if isinstance(unit.standing, OnCleats) else 0.0)
    return start + CLEAT_ENDS_MM, start + long_mm - CLEAT_ENDS_MM


def _cleat(
    context: Context,
    unit: Unit,
    on: Behind,
    size: tuple[float, float, float],
    ends: tuple[float, float],
    load_n: float,
    through: Through,
) -> tuple[ShelfCleat, tuple[Fastener, ...]]:
    long_mm, top_mm, up = size
    found: list[Candidate] = []
    for at in _along(context, on, ends, up):
        if not any(kept_from(context.place, (at, up + off), context.backing, on) for off in (0.0, *CLEAT_ROWS_MM)):
            made = screwed(context, unit.id, (at, up), NO_PACKING, through, surface=on)
            if isinstance(made, Candidate):
                found.append(made)
    sure = [c for c in found if c.fastener.bites >= SURE_TO_BITE]
    carries = sum(c.lateral_n for c in sure)
    use = load_n / carries if carries else math.inf
    if use > 1 and sure:  # two screws over each other into every stud
        use /= 2
        sure = [_moved(c, off) for c in sure for off in CLEAT_ROWS_MM]
    enough = len(sure) >= 2 and use <= 1
    instead = ""
    if not enough:
        instead = (
            _find_first(context, on)
            if not found
            else "Too few screws, or too weak: a post under its front, a thicker cleat with larger screws, or blocking."
        )
    chosen = tuple(c.fastener for c in (sure or found))
    made_cleat = ShelfCleat(
        unit=unit.id,
        wall=on,
        long_mm=long_mm,
        top_mm=top_mm,
        under_line_mm=under_line(context, top_mm),
        load_n=load_n,
        fasteners=tuple(f.id for f in chosen),
        use=min(use, 99.0),
        enough=enough,
        instead=instead,
    )
    return made_cleat, chosen


def _find_first(context: Context, on: Behind) -> str:
    if context.into[on].backing.kind == "masonry":
        return "Say which anchor: its maker's loads, depth and hole for this wall decide where it may stand."
    return f"Find the studs of the {on} wall first: two methods, along the height of the cleat."


def _along(context: Context, on: Behind, ends: tuple[float, float], up: float) -> list[float]:
    low, high = ends
    if context.backing.kind == "masonry":
        n = max(2, math.ceil((high - low) / MASONRY_CLEAT_MM) + 1)
        return [float(x) for x in np.linspace(low, high, n)]
    return [x for line in context.into[on].known.lines if low <= (x := line.at(up)) <= high]


def _moved(candidate: Candidate, up_mm: float) -> Candidate:
    """Return a screw at another height, all else as it is."""
    x, z = candidate.fastener.at
    return dataclasses.replace(
        candidate, fastener=replace(candidate.fastener, at=(x, z + up_mm), id=f"{candidate.fastener.id}{up_mm:+.0f}")
    )
