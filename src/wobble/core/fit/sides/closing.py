"""How a run is closed against its side walls: fillers with their taper and blank, and the methods compared."""

from __future__ import annotations

import math

import numpy as np
from msgspec.structs import replace

from wobble.core.figure import Figure, Step, chance, mean_and_sd, quantile
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import Tier, TierName, tiers, upright
from wobble.core.fit.sides.face_frame import FaceFrame, face_frame
from wobble.core.fit.sides.methods import Filler, SideMethod, SideName, side_methods
from wobble.core.fit.sides.openings import Opening, before_front, opening, profile, side_gaps
from wobble.core.fit.sides.swings import HANDLE_MARGIN_MM, Door
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share, shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Place, Unit, Value
from wobble.core.job.decided import Closing
from wobble.core.length import LengthUnit

PASS_MARGIN_MM = 2.0
SHIFT_STEP_MM = 0.5
OPEN_FROM_MM = 250.0
"""A gap that is nowhere narrower than this is no gap to close: that side is meant to stay open."""


class Sides(Value, frozen=True, kw_only=True):
    """How one tier meets its walls.

    Attributes:
        tier: Which. opening: The smallest opening; None where not both walls are known.
        moved_mm: How far the split moves the run from where it was drawn. fillers: At each wall that is known and near.
        open: Sides that stay open, their walls being far.
        methods: Compared. made_mm: The width that each made-to-measure unit of the tier may have; None without such.
        box_mm: Width of the undersized box behind a face frame; None where not both walls are known.
        frame_mm: Width of the face frame's blank; None likewise.
        frame: The face frame as it must be made, where that is how the sides are closed.
    """

    tier: TierName
    opening: Opening | None
    moved_mm: float
    fillers: tuple[Filler, ...]
    methods: tuple[SideMethod, ...]
    made_mm: float | None
    box_mm: float | None
    frame_mm: float | None
    frame: FaceFrame | None = None
    open: tuple[SideName, ...] = ()


def split_run(place: Place, walls: Walls, stand: Stand) -> tuple[Place, dict[TierName, float]]:
    """Return the place with each tier moved as the split says, and by how much.

    A run is moved in whole half millimetres; where it cannot stand as the split asks it is moved until it clears the
    proudest wall.
    """
    moved: dict[TierName, float] = {}
    units = {u.id: u for u in place.units}
    for tier in tiers(place):
        by = _shift(walls, tier, place.closing, stand)
        if by == 0.0:
            continue
        moved[tier.name] = by
        for unit in tier.units:
            units[unit.id] = replace(unit, x_mm=unit.x_mm + by)
        if tier.name == "standing":  # what lies on the run without being cut to a side wall goes with it
            for unit in place.units:
                if unit.flat and not {"left", "right"} & set(unit.meets):
                    units[unit.id] = replace(unit, x_mm=unit.x_mm + by)
    return replace(place, units=tuple(units.values())), moved


def _shift(walls: Walls, tier: Tier, closing: Closing, stand: Stand) -> float:
    if closing.split == "as drawn":
        return 0.0
    if closing.split == "centred":
        if closing.centre_mm is None:
            return 0.0
        return _rounded(closing.centre_mm - (tier.left_mm + tier.right_mm) / 2)
    gaps = {
        side: side_gaps(wall, unit, stand, edge, left=side == "left")[1].mean(axis=0)
        for side, wall, unit, edge in _sides_of(walls, tier)
    }
    left, right = gaps.get("left"), gaps.get("right")
    if closing.split == "none at the left" and left is not None:
        return _rounded(-float(left.min()), up=True)
    if closing.split == "none at the right" and right is not None:
        return _rounded(float(right.min()))
    if left is None or right is None:
        return 0.0
    return _rounded(float(right.mean() - left.mean()) / 2)


def _rounded(mm: float, *, up: bool = False) -> float:
    whole = math.ceil(mm / SHIFT_STEP_MM) if up else math.floor(mm / SHIFT_STEP_MM)
    return whole * SHIFT_STEP_MM


def _sides_of(walls: Walls, tier: Tier) -> list[tuple[SideName, Drawn, Unit, float]]:
    out: list[tuple[SideName, Drawn, Unit, float]] = []
    if walls.left is not None:
        out.append(("left", walls.left, tier.units[0], tier.left_mm))
    if walls.right is not None:
        out.append(("right", walls.right, tier.last, tier.right_mm))
    return out


def sides(
    survey: Survey,
    place: Place,
    walls: Walls,
    stand: Stand,
    moved: dict[TierName, float],
    by_walls: dict[Door, Floats],
    units: LengthUnit,
) -> tuple[Sides, ...]:
    """Return for each tier of the place, moved already, how it meets the walls that are known.

    `by_walls` is how far past square each door beside a wall opens.
    """
    out, closing = [], place.closing
    for tier in tiers(place):
        open_ = opening(survey, walls, tier, stand, closing.clearance_mm)
        met = _sides_of(walls, tier)
        gaps = [side_gaps(wall, unit, stand, edge, left=side == "left") for side, wall, unit, edge in met]
        far = tuple(own[0] for own, (_, gap) in zip(met, gaps, strict=True) if gap.mean(axis=0).min() > OPEN_FROM_MM)
        near = [(own, gap) for own, gap in zip(met, gaps, strict=True) if own[0] not in far]
        fillers = tuple(_filler(survey, *own, stand, gap, by_walls) for own, gap in near)
        if not met:
            continue
        box = None if open_ is None else float(math.floor(open_.sure_mm - closing.clearance_mm))
        box = None if box is None or box <= 0 else box
        frame = None if box is None or far else _frame(tier, [gap.max(axis=1) for _, gap in gaps])
        out.append(
            Sides(
                tier=tier.name,
                opening=open_,
                moved_mm=moved.get(tier.name, 0.0),
                fillers=fillers,
                methods=side_methods(tier, fillers, open_, closing, units) if fillers else (),
                open=far,
                made_mm=None if open_ is None else _made(tier, open_, closing),
                box_mm=box,
                frame_mm=frame,
                frame=_face_frame(tier, fillers, frame, box, closing),
            )
        )
    return tuple(out)


def _face_frame(
    tier: Tier, fillers: tuple[Filler, ...], frame: float | None, box: float | None, closing: Closing
) -> FaceFrame | None:
    if closing.method != "face frame first" or frame is None or box is None:
        return None
    if min(f.least.value_mm for f in fillers) + closing.board_mm <= 0:  # the run stands into a wall: that is told
        return None
    return face_frame(tier, tuple((f.side, f.bottom, f.top, f.blank_mm) for f in fillers), frame, box, closing)


def _frame(tier: Tier, widest: list[Floats]) -> float:
    """Return the blank of a face frame: the widest opening at the front over its height, with what is not known."""
    return float(math.ceil(tier.width_mm + quantile(np.sum(widest, axis=0), 0.975)))


def _made(tier: Tier, open_: Opening, closing: Closing) -> float | None:
    """Return the width that every made unit may have: what goes in for sure, less fixed widths, gaps and fillers."""
    made = [u for u in tier.units if not u.ready_made]
    if not made:
        return None
    used = tier.width_mm - sum(u.width_mm for u in made)
    fillers = 2 * closing.least_filler_mm if closing.method == "fillers" else 0.0
    if closing.method == "shadow gap":
        fillers = 2 * closing.shadow_mm
    wide = float(math.floor((open_.sure_mm - closing.clearance_mm - fillers - used) / len(made)))
    return wide if wide > 0 else None


def _filler(
    survey: Survey,
    side: SideName,
    wall: Drawn,
    unit: Unit,
    edge: float,
    stand: Stand,
    gap: tuple[Floats, Floats],
    by_walls: dict[Door, Floats],
) -> Filler:
    heights, gaps = gap
    front = stand.back_at(unit) + unit.deep_at(side)
    mean, sd = gaps.mean(axis=0), gaps.std(axis=0)
    least, largest = gaps.min(axis=1), gaps.max(axis=1)
    told = (0, len(heights) - 1, int(np.argmin(mean)), int(np.argmax(mean)))
    spots = np.array([(front, heights[i]) for i in told])
    rests = dict(zip(told, shares(survey, side, spots), strict=True))

    def width(index: int, values: Floats) -> Figure:
        value, spread = mean_and_sd(values)
        working = _working(side, edge, (front, float(heights[index])), value, spread, rests[index])
        return Figure(value_mm=value, sd_mm=spread, working=working)

    beside = profile(wall, unit, stand, 1.0 if side == "left" else -1.0).beside(0.0)
    tight = least if beside is None else (edge if side == "left" else -edge) - beside[0]
    closest, closest_sd = mean_and_sd(tight)
    at = beside[1] if beside else (front, heights[told[2]])
    needs, why, enough = _needs(wall, unit, edge, stand, side, gaps, by_walls.get((unit.id, side)))
    low, high = upright(unit, stand.base_mm)
    return Filler(
        side=side,
        unit=unit.id,
        edge_mm=edge,
        front_mm=front,
        bottom=width(told[0], gaps[:, 0]),
        top=width(told[1], gaps[:, -1]),
        least=width(told[2], least),
        largest=width(told[3], largest),
        taper_mm=float(mean[-1] - mean[0]),
        long_mm=high - low,
        blank_mm=float(math.ceil(quantile(largest, 0.975) + PASS_MARGIN_MM)),
        needs=needs,
        needs_why=why,
        enough=enough,
        tightest=Figure(
            value_mm=closest,
            sd_mm=closest_sd,
            working=_working(side, edge, (float(at[0]), float(at[1])), closest, closest_sd, ()),
        ),
        clears=chance(tight >= 0.0),
        profile=tuple((float(z), float(m), float(s)) for z, m, s in zip(heights, mean, sd, strict=True)),
    )


def _working(
    side: SideName, edge: float, at: tuple[float, float], value: float, sd: float, rests: tuple[Share, ...]
) -> tuple[Step, ...]:
    wall = edge - value if side == "left" else edge + value
    here = Step(
        label="Wall at the front, here",
        surface=side,
        at=at,
        sign=-1 if side == "left" else 1,
        value_mm=wall,
        sd_mm=sd,
        rests_on=rests,
    )
    own = Step(label="Edge of the unit", sign=1 if side == "left" else -1, value_mm=edge)
    return (own, here) if side == "left" else (here, own)


def _needs(
    wall: Drawn, unit: Unit, edge: float, stand: Stand, side: SideName, gaps: Floats, past: Floats | None
) -> tuple[Figure | None, str, float]:
    """Return the least width for what opens beside a wall, why, and the chance that it is there all the way up."""
    opens = unit.front.opens
    if past is not None:
        handle = unit.front.handle_mm
        steps = (
            Step(label="Handle stands off the door", value_mm=handle),
            Step(label="Kept free", value_mm=HANDLE_MARGIN_MM),
        )
        least = handle + HANDLE_MARGIN_MM
        why = "the door opens square before its handle meets the wall"
        square = chance((past >= 0.0) & (gaps.min(axis=1) >= 0.0))
        return Figure(value_mm=least, sd_mm=0.0, working=steps), why, square
    if opens == "nothing":
        return None, "", 1.0
    beside = before_front(wall, unit, stand, edge, left=side == "left")
    if beside is None:
        return None, "", 1.0
    # the wall may come in before the front: what passes there needs the difference, and a hand's play
    needed = gaps.min(axis=1) - beside + PASS_MARGIN_MM
    mean, sd = mean_and_sd(needed)
    steps = (
        Step(label="The wall comes in before the front by", value_mm=mean - PASS_MARGIN_MM),
        Step(label="Kept free", value_mm=PASS_MARGIN_MM),
    )
    figure = Figure(value_mm=max(mean, PASS_MARGIN_MM), sd_mm=sd, working=steps)
    what = "drawers pass" if opens == "drawers" else "the door passes"
    return figure, f"{what} the wall in front", chance(beside >= PASS_MARGIN_MM)
