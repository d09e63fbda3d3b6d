"""Mouldings as they are cut: how long each length is, how its ends are joined, and whether it lies against the wall."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Literal

import numpy as np

from wobble.core.figure import Figure, Step, mean_and_sd
from wobble.core.fit.mouldings.against import hollow, under_ceiling
from wobble.core.fit.mouldings.bent import MouldingCurve, bent
from wobble.core.fit.mouldings.corners import CornerAngle, End, MouldingEnd, inside_corner, sawn
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.sides.methods import bow_taken
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import Moulding, Place, SurfaceName, Unit, Value

NOT_READ_SD_MM = 10.0
"""How far a wall stands from where it is drawn that nobody read."""
ENDS: tuple[End, ...] = ("left", "right")
SAW_OFF_MM = 30.0
"""What a length is longer than it ends up: for a first cut at each end."""
SURE_SD = 2.0
LEAST_MM = 50.0
"""A piece shorter than this nobody scarfs."""
BOXES_CORNER = CornerAngle(deg=90.0, sd_deg=0.2, measured=True)
"""Of boxes, which are built square."""


class MouldingLength(Value, frozen=True, kw_only=True):
    """One length: along which wall, its length at its back, its ends, of how many pieces, and each one's blank, mm."""

    id: str
    along: SurfaceName
    long: Figure
    left: MouldingEnd
    right: MouldingEnd
    pieces: int = 1
    blank_mm: float


class MouldingFit(Value, frozen=True, kw_only=True):
    """A moulding of a place.

    Attributes:
        unit: Which. lengths: What it is cut to. hollow: How far its wall falls back under it, held straight; None where
            it runs along no wall that was read. takes_mm: How far it can be bent into that.
        under: How far the ceiling rises and falls over it, held level; None where none is near or read.
        curve: It is bent.
    """

    unit: str
    lengths: tuple[MouldingLength, ...] = ()
    hollow: Figure | None = None
    takes_mm: float = 0.0
    under: Figure | None = None
    curve: MouldingCurve | None = None


def face_mm(unit: Unit, body: Moulding) -> float:
    """Return the width of a moulding's face, as it is bought, mm: leaning, more than it reaches down its wall."""
    spring = math.radians(body.spring_deg)
    return max((unit.height_mm - body.thick_mm * math.sin(spring)) / math.cos(spring), body.thick_mm)


def out_of_wall_mm(unit: Unit, body: Moulding) -> float:
    """Return how far a moulding reaches out of what it lies against, mm: leaning, by its face's width."""
    spring = math.radians(body.spring_deg)
    return face_mm(unit, body) * math.sin(spring) + body.thick_mm * math.cos(spring)


def mouldings(
    survey: Survey, place: Place, walls: Walls, stand: Stand | None, kerf_mm: float
) -> tuple[MouldingFit, ...]:
    """Return every moulding of a place; as it is set out, with square corners, where its walls are not measured yet."""
    return tuple(
        _fit(survey, place, unit, unit.body, walls, stand, kerf_mm)
        for unit in place.units
        if isinstance(unit.body, Moulding)
    )


def _fit(
    survey: Survey,
    place: Place,
    unit: Unit,
    body: Moulding,
    walls: Walls,
    stand: Stand | None,
    kerf_mm: float,
) -> MouldingFit:
    base = stand.base_mm if stand is not None else 0.0
    up = base + unit.over_base_mm + unit.height_mm / 2
    if body.round_mm > 0:
        curve = bent(unit, body, kerf_mm)
        return MouldingFit(unit=unit.id, curve=curve, lengths=(_bent_length(unit, body, curve.arc_mm),))
    out = stand.back_at(unit) if stand is not None and unit.out_mm > 0 else unit.out_mm
    ends = {end: _end(survey, unit, body, end, up, out) for end in ENDS}
    long = _along_back(place, unit, body, walls, base, out)
    lengths = [
        _length(unit, body, "back", long, ends["left"], ends["right"]),
        *_returns(unit, body, ends),
    ]
    on_wall = unit.out_mm <= 0
    return MouldingFit(
        unit=unit.id,
        lengths=tuple(lengths),
        hollow=hollow(survey, unit, up) if on_wall else None,
        takes_mm=bow_taken(body.thick_mm, unit.width_mm),
        under=under_ceiling(survey, unit, base, out + out_of_wall_mm(unit, body)),
    )


def _end(survey: Survey, unit: Unit, body: Moulding, end: End, up: float, out: float) -> MouldingEnd:
    """Return how the length along the back ends: square into a corner that the return is coped to, or mitred."""
    if body.goes_on(end) <= 0:
        return MouldingEnd()
    if end not in unit.meets:
        return sawn("outside mitre", BOXES_CORNER, body.spring_deg, out_of_wall_mm(unit, body))
    corner = inside_corner(
        survey, end, unit.x_mm if end == "left" else unit.right_mm, up, out if unit.out_mm > 0 else 0.0
    )
    if body.inside == "coped":
        return MouldingEnd(joint="square", corner=corner)
    return sawn("mitred", corner, body.spring_deg, out_of_wall_mm(unit, body))


def _returns(unit: Unit, body: Moulding, ends: dict[End, MouldingEnd]) -> Iterator[MouldingLength]:
    for end, met in ends.items():
        long = body.goes_on(end)
        if long <= 0:
            continue
        cut = met
        if met.corner is not None and met.joint == "square":  # it stands in the corner, and this is coped to it
            cut = sawn("coped", met.corner, body.spring_deg, out_of_wall_mm(unit, body))
        free = MouldingEnd()
        step = Step(label="As said, from the corner on", value_mm=long)
        # seen from its face, a return at the left runs away from the corner to the left where that is inside
        corner_right = (end == "left") == (end in unit.meets)
        said = Figure(value_mm=long, sd_mm=0.0, working=(step,))
        left, right = (free, cut) if corner_right else (cut, free)
        yield _length(unit, body, end, said, left, right)


def _length(
    unit: Unit, body: Moulding, along: SurfaceName, long: Figure, left: MouldingEnd, right: MouldingEnd
) -> MouldingLength:
    """Return a length with what it is cut from: no piece longer than is sold, its scarfs and first cuts included."""
    point = sum(_long_point(end, unit, body) for end in (left, right))
    longest = long.value_mm + point + SURE_SD * long.sd_mm
    pieces = max(math.ceil(longest / max(body.stock_mm - SAW_OFF_MM - body.thick_mm, LEAST_MM) - 1e-9), 1)
    scarfed = body.thick_mm if pieces > 1 else 0.0
    return MouldingLength(
        id=f"moulding-{unit.id}-{along}",
        along=along,
        long=long,
        left=left,
        right=right,
        pieces=pieces,
        blank_mm=longest / pieces + scarfed + SAW_OFF_MM,
    )


def _long_point(end: MouldingEnd, unit: Unit, body: Moulding) -> float:
    """Return how much longer its face is than its back at an end, mm: at outside mitres by what it reaches out."""
    if end.joint != "outside mitre":
        return 0.0
    return out_of_wall_mm(unit, body) * math.tan(math.radians(end.standing_deg))


def _along_back(place: Place, unit: Unit, body: Moulding, walls: Walls, base: float, out: float) -> Figure:
    """Return the length along the back: between the walls that it meets, else as it is set out."""
    low = base + unit.over_base_mm
    reach = (max(out, 0.0), max(out, 0.0) + out_of_wall_mm(unit, body))
    steps: list[Step] = []
    value, draws = 0.0, None
    sd_set_out = 0.0
    both: tuple[tuple[End, Literal[1, -1], float], ...] = (("right", 1, unit.right_mm), ("left", -1, unit.x_mm))
    for end, sign, drawn_at in both:
        drawn = getattr(walls, end) if end in unit.meets else None
        if isinstance(drawn, Drawn):
            at = _wall_at(drawn, reach, (low, low + unit.height_mm), 1.0 if end == "left" else -1.0)
            draws = sign * at if draws is None else draws + sign * at
            mean, sd = mean_and_sd(at)
            steps.append(Step(label=f"The {end} wall, where it is proudest", sign=sign, value_mm=mean, sd_mm=sd))
            continue
        sd = NOT_READ_SD_MM if end in unit.meets and end in place.surfaces else 0.0
        label = f"Its {end} end as set out" + ("; that wall is not read" if sd else "")
        steps.append(Step(label=label, sign=sign, value_mm=drawn_at, sd_mm=sd))
        value += sign * drawn_at
        sd_set_out = math.hypot(sd_set_out, sd)
    mean, sd = mean_and_sd(draws) if draws is not None else (0.0, 0.0)
    return Figure(value_mm=value + mean, sd_mm=math.hypot(sd, sd_set_out), working=tuple(steps))


def _wall_at(drawn: Drawn, out: tuple[float, float], up: tuple[float, float], sign: float) -> Floats:
    over = drawn.proudest(up[0], up[1], sign)[:, drawn.rows(*out)]
    return np.asarray(over.max(axis=1) if sign > 0 else over.min(axis=1))


def _bent_length(unit: Unit, body: Moulding, arc_mm: float) -> MouldingLength:
    steps = (
        Step(label="Chord", value_mm=unit.width_mm),
        Step(label="The arc is longer than its chord", value_mm=arc_mm - unit.width_mm),
    )
    long = Figure(value_mm=arc_mm, sd_mm=0.0, working=steps)
    return _length(unit, body, "back", long, MouldingEnd(), MouldingEnd())
