"""A box in a cavity, screwed through its sides into the walls beside it, with packing in the gap."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
from msgspec.structs import replace

from wobble.core.confidence import SURE_TO_BITE
from wobble.core.contents import GRAVITY
from wobble.core.figure import Figure, Step
from wobble.core.fit.run.stand import Stand
from wobble.core.hold.into import Context
from wobble.core.hold.loads import HAND_PULL_N, rests, weight_kg
from wobble.core.hold.screws import Candidate, Through, screwed
from wobble.core.hold.services import kept_from
from wobble.core.job import Unit, Value
from wobble.core.part import Fastener

WallName = Literal["left", "right"]
REACHES_MM = 150.0
"""A box further from a wall than this is not fastened to it, whatever is said of its row."""
PACKED_MM = 60.0
"""A gap wider than this is no gap to pack: a screw through it bends."""
IN_MM = 37.0
"""How far in from the front and the back of a side screws stand: clear of hinges and of a back's groove."""
SHARE = 0.6
"""What each of two walls is planned for of what hangs between them."""
NOMINAL_SD_MM = 10.0
"""How far a wall that nobody measured is taken to stand from where the place is said to end."""
MASONRY_ROWS = 2


class SideHeld(Value, frozen=True, kw_only=True):
    """How a box is fastened through one of its sides, or through its top.

    Attributes:
        unit: Which. wall: Into which wall. gap: Between them where the screws are, at its widest.
        load_n: What the screws are planned for: sideways, or down where it hangs from them.
        fasteners: By their ids. use: Share of what they carry.
        enough: Whether they hold. instead: What to do where they do not.
    """

    unit: str
    wall: WallName | Literal["ceiling"]
    gap: Figure
    load_n: float
    fasteners: tuple[str, ...]
    use: float
    enough: bool
    instead: str


def side_held(context: Context, stand: Stand) -> list[tuple[SideHeld, tuple[Fastener, ...]]]:
    """Return how boxes are fastened to the side walls that they are said to be fastened to, and reach."""
    out = []
    walls: tuple[WallName, ...] = ("left", "right")
    for unit in context.place.units:
        for wall in walls:
            far = unit.x_mm if wall == "left" else context.place.width_mm - unit.right_mm
            if wall in unit.fastened_to and not unit.flat and far <= REACHES_MM:
                out.append(_held(context, stand, unit, wall))
    return out


def _held(context: Context, stand: Stand, unit: Unit, wall: WallName) -> tuple[SideHeld, tuple[Fastener, ...]]:
    base = context.plan.base.height.value_mm if context.plan.base.tied else 0.0
    ups = [base + unit.over_base_mm + h for h in unit.fixing_heights_mm if h <= unit.height_mm]
    ups = ups or [base + unit.over_base_mm + unit.height_mm / 2]
    low = stand.back_at(unit) + IN_MM
    high = stand.back_at(unit) + unit.depth_mm - IN_MM
    through = Through("side", context.place.closing.board_mm)
    weight = weight_kg(unit) * GRAVITY
    load = HAND_PULL_N if rests(context.place, unit) else SHARE * weight
    found, gaps = [], []
    for up in ups:
        for at in _outs(context, wall, low, high, up):
            gap = _gap(context, unit, wall, (at, up))
            gaps.append(gap)
            if gap.value_mm > PACKED_MM or kept_from(context.place, (at, up), context.backing, wall):
                continue
            made = screwed(context, unit.id, (at, up), gap, through, surface=wall)
            if isinstance(made, Candidate):
                found.append(made)
    gap = max(gaps or [_gap(context, unit, wall, ((low + high) / 2, ups[-1]))], key=lambda g: g.value_mm)
    sure = [c for c in found if c.fastener.bites >= SURE_TO_BITE]
    carries = sum(c.lateral_n for c in sure)
    use = load / carries if carries else math.inf
    enough = len(sure) >= 2 and use <= 1
    chosen = tuple(c.fastener for c in (sure or found))
    made_side = SideHeld(
        unit=unit.id,
        wall=wall,
        gap=gap,
        load_n=load,
        fasteners=tuple(f.id for f in chosen),
        use=min(use, 99.0),
        enough=enough,
        instead="" if enough else _instead(context, wall, gap, found=bool(found)),
    )
    return made_side, chosen


def _outs(context: Context, wall: WallName, low: float, high: float, up: float) -> list[float]:
    if low >= high:
        return []
    if context.backing.kind == "masonry":
        return [float(y) for y in np.linspace(low, high, MASONRY_ROWS)]
    return [y for line in context.into[wall].known.lines if low <= (y := line.at(up)) <= high]


def _gap(context: Context, unit: Unit, wall: WallName, at: tuple[float, float]) -> Figure:
    """Return the gap between a box's side and the wall at (out, up); never less than nothing."""
    edge = unit.x_mm if wall == "left" else unit.right_mm
    survey = context.contact.survey
    if survey.measured(wall):
        mean, sd = survey.adjustment.mean_and_sd((wall, np.array([at])))
        wall_mm, wall_sd = float(mean[0]), float(sd[0])
        label = "Wall, as measured"
    else:
        wall_mm, wall_sd = (0.0 if wall == "left" else context.place.width_mm), NOMINAL_SD_MM
        label = "Wall, as said: it is not measured"
    sign: Literal[1, -1] = 1 if wall == "right" else -1
    other: Literal[1, -1] = -1 if wall == "right" else 1
    steps = (
        Step(label=label, sign=sign, value_mm=wall_mm, sd_mm=wall_sd),
        Step(label=f"Side of {unit.name}", sign=other, value_mm=edge),
    )
    return no_less(Figure(value_mm=sign * (wall_mm - edge), sd_mm=wall_sd, working=steps))


def no_less(gap: Figure) -> Figure:
    """Return a gap, none where one stands into the other: that is told elsewhere, and nothing is packed there."""
    if gap.value_mm >= 0:
        return gap
    into = Step(label="One stands so far into the other: no gap", value_mm=-gap.value_mm)
    return replace(gap, value_mm=0.0, working=(*gap.working, into))


def _instead(context: Context, wall: WallName, gap: Figure, *, found: bool) -> str:
    if gap.value_mm > PACKED_MM:
        return "The gap is too wide to pack: fix a timber to the wall first, and the box to that."
    if context.into[wall].backing.kind == "masonry" and context.into[wall].backing.anchor is None:
        return "Say which anchor: its maker's loads, depth and hole for this wall decide."
    if not found:
        return f"Find the studs of the {wall} wall first: two methods, along the height of the screws."
    return "Too few screws, or too weak: fasten it to the back or to its neighbours too, or put blocking in."
