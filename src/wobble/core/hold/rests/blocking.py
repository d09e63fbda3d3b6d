"""Blocking for units: wood put in between the studs of an open frame, where too few stand behind a unit.

Before the lining is on, a piece of the studs' own stock goes in at the height of each row of screws. It holds what is
screwed into it, and is held itself by screws driven slantwise through its ends: both are counted.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from msgspec.structs import replace as struct_replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.hold.capacity.capacity import CapacityError, Screw, lateral
from wobble.core.hold.into import Block, Context
from wobble.core.hold.rests.nailers import (
    LEAST_IN_MM,
    LEAST_LONG_MM,
    SHANK_MM,
    TOED_MM,
    Nailer,
    Upright,
    across,
    in_way,
    upright_of,
)
from wobble.core.hold.screws import THINNER, UNEVEN, Candidate
from wobble.core.job import Unit

TOED = 0.83
"""What a fastener driven slantwise through an end carries sideways, of one driven square: NDS 12.5.4, as for nails."""
END_SCREWS = 4


def blocks_for(context: Context, unit: Unit, heights: tuple[float, ...]) -> tuple[Nailer, ...]:
    """Return what is put in behind a unit at its rows of screws; nothing where the wall is closed or not of wood."""
    backing = context.backing
    if backing.kind != "wood studs" or backing.lining_mm > 0:
        return ()
    base = context.plan.base.height.value_mm + unit.over_base_mm
    rows = tuple(base + h - backing.stud_mm / 2 for h in sorted(set(heights)))
    return tuple(_between(context, unit, rows))


def _between(context: Context, unit: Unit, rows: tuple[float, ...]) -> Iterator[Nailer]:
    stud = context.backing.stud_mm
    sure = [s for s in context.back.lines if context.back.bites(s.at_mm) >= SURE_TO_BITE]
    uprights: list[Upright] = sorted((upright_of(s, context.backing) for s in sure), key=lambda u: u.left)
    there = [o for o in context.place.obstacles if o.surface == "back"]
    for k, (a, b) in enumerate(itertools.pairwise(uprights)):
        shared = min(unit.right_mm, b.left) - max(unit.x_mm, a.right)
        free = tuple(z for z in rows if not any(in_way(o, a, b, z, stud) for o in there))
        if free and b.left - a.right >= LEAST_LONG_MM and shared >= LEAST_LONG_MM:
            yield across(context, unit, f"block-{k + 1}", a, b, free, f"{unit.name}, behind which too few studs stand")


def with_blocks(context: Context, nailers: Sequence[Nailer]) -> Context:
    """Return what a unit is fastened to once these are in."""
    stud = context.backing.stud_mm
    put_in = tuple(Block((n.low[0], z), (n.high[0], z + stud)) for n in nailers for z in n.rows)
    back = context.into["back"]
    return replace(context, into=context.into | {"back": replace(back, blocks=(*back.blocks, *put_in))})


def used(context: Context, nailers: Sequence[Nailer], chosen: Sequence[Candidate], shear: float, pull: float) -> float:
    """Return how much of what a piece's end screws carry is used by the unit's screws in it, at the hardest used."""
    wood = context.backing.wood
    screw = Screw(shank_mm=SHANK_MM, root_mm=THINNER[SHANK_MM][0], long_mm=TOED_MM + LEAST_IN_MM, thread_mm=LEAST_IN_MM)
    try:
        one = lateral(screw, side_mm=TOED_MM, gap_mm=0.0, main_mm=LEAST_IN_MM, side=wood, main=wood).capacity_n
    except CapacityError:
        return math.inf
    carries = END_SCREWS * TOED * one
    tops = sum(c.top for c in chosen)
    most = 0.0
    for block in with_blocks(context, nailers).into["back"].blocks:
        mine = [c for c in chosen if block.holds(c.fastener.at)]
        if mine:
            down = shear * len(mine) / len(chosen)
            out = UNEVEN * pull * sum(c.top for c in mine) / max(tops, 1)
            most = max(most, math.hypot(down, out) / carries)
    return most


def needed(nailers: Sequence[Nailer], chosen: Sequence[Candidate], stud_mm: float) -> tuple[Nailer, ...]:
    """Return the pieces, and of each the rows, that screws were chosen in."""
    out = []
    for n in nailers:
        blocks = {z: Block((n.low[0], z), (n.high[0], z + stud_mm)) for z in n.rows}
        rows = tuple(z for z, block in blocks.items() if any(block.holds(c.fastener.at) for c in chosen))
        if rows:
            low, high = (n.low[0], min(rows)), (n.high[0], min(rows) + stud_mm)
            out.append(struct_replace(n, rows=rows, low=low, high=high))
    return tuple(out)
