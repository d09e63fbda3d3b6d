"""Mouldings as they are cut: how long each length is, how its ends are joined, and whether it lies against the wall."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from typing import Literal

import numpy as np

from wobble.core.figure import Figure, Step, mean_and_sd
from wobble.core.fit.mouldings.corners import CornerAngle, End, Joint, MouldingEnd, inside_corner, sawn
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.sides.methods import BEND_STRAIN, bow_taken
from wobble.core.fit.surfaces.walls import Drawn, Walls
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share, shares
from wobble.core.gauge.survey import Survey
from wobble.core.job import Moulding, Place, SurfaceName, Unit, Value

NOT_READ_SD_MM = 10.0
"""How far a wall stands from where it is drawn that nobody read."""
SKIN_MM = 3.0
"""What is left under a kerf, so that the face stays whole and bends."""
SPOTS = 25
ENDS: tuple[End, ...] = ("left", "right")
UNDER_CEILING_MM = 60.0
"""What ends so near under a ceiling is seen against it."""
BOXES_CORNER = CornerAngle(deg=90.0, sd_deg=0.2, measured=True)
"""Of boxes, which are built square."""


class MouldingLength(Value, frozen=True, kw_only=True):
    """One length: along which wall, its length where it is longest at its back, its ends, and of how many pieces.

    `long_point_mm` is what its face is longer than its back at outside corners.
    """

    id: str
    along: SurfaceName
    long: Figure
    left: MouldingEnd
    right: MouldingEnd
    pieces: int = 1
    long_point_mm: float = 0.0


class MouldingCurve(Value, frozen=True, kw_only=True):
    """A moulding bent to a curve: its arc, how far it rises over its chord, and what bends it.

    Attributes:
        arc_mm: Along its back. rise_mm: Over the chord. least_radius_mm: To which it bends cold without breaking.
        bends: Whether it does. kerfs: How many cuts in its back would let it, `kerf_every_mm` apart and
            `kerf_deep_mm` deep.
    """

    arc_mm: float
    rise_mm: float
    least_radius_mm: float
    bends: bool
    kerfs: int = 0
    kerf_every_mm: float = 0.0
    kerf_deep_mm: float = 0.0


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
    survey: Survey | None, place: Place, walls: Walls | None, stand: Stand | None, kerf_mm: float
) -> tuple[MouldingFit, ...]:
    """Return every moulding of a place; as it is set out, with square corners, where nothing is measured yet."""
    return tuple(
        _fit(survey, place, unit, unit.body, walls, stand, kerf_mm)
        for unit in place.units
        if isinstance(unit.body, Moulding)
    )


def _fit(
    survey: Survey | None,
    place: Place,
    unit: Unit,
    body: Moulding,
    walls: Walls | None,
    stand: Stand | None,
    kerf_mm: float,
) -> MouldingFit:
    base = stand.base_mm if stand is not None else 0.0
    up = base + unit.over_base_mm + unit.height_mm / 2
    if body.round_mm > 0:
        return MouldingFit(unit=unit.id, curve=_curve(unit, body, kerf_mm), lengths=tuple(_bent(unit, body)))
    out = stand.back_at(unit) if stand is not None and unit.out_mm > 0 else unit.out_mm
    ends = {end: _end(survey, unit, body, end, up, out) for end in ENDS}
    long = _along_back(place, unit, body, walls, base, out)
    lengths = [
        MouldingLength(
            id=f"moulding-{unit.id}-back",
            along="back",
            long=long,
            left=ends["left"],
            right=ends["right"],
            pieces=pieces_of(body, long.value_mm),
            long_point_mm=sum(_long_point(end, unit, body) for end in ends.values()),
        ),
        *_returns(unit, body, ends),
    ]
    on_wall = unit.out_mm <= 0
    return MouldingFit(
        unit=unit.id,
        lengths=tuple(lengths),
        hollow=_hollow(survey, unit, up) if on_wall else None,
        takes_mm=bow_taken(body.thick_mm, unit.width_mm),
        under=_under_ceiling(survey, place, unit, base, out + out_of_wall_mm(unit, body)),
    )


def pieces_of(body: Moulding, long_mm: float) -> int:
    """Return in how many like pieces a length is made, so that none is longer than is sold."""
    return max(math.ceil(long_mm / body.stock_mm - 1e-9), 1)


def _end(survey: Survey | None, unit: Unit, body: Moulding, end: End, up: float, out: float) -> MouldingEnd:
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
        joint: Joint = "coped" if met.joint == "square" else met.joint
        cut = met
        if joint == "coped":
            cut = sawn("coped", met.corner or CornerAngle(), body.spring_deg, out_of_wall_mm(unit, body))
        free = MouldingEnd()
        step = Step(label="As said, from the corner on", value_mm=long)
        # seen from its face, a return at the left runs away from the corner to the left where that is inside
        corner_right = (end == "left") == (end in unit.meets)
        yield MouldingLength(
            id=f"moulding-{unit.id}-{end}",
            along=end,
            long=Figure(value_mm=long, sd_mm=0.0, working=(step,)),
            left=free if corner_right else cut,
            right=cut if corner_right else free,
            pieces=pieces_of(body, long),
            long_point_mm=_long_point(cut, unit, body),
        )


def _long_point(end: MouldingEnd, unit: Unit, body: Moulding) -> float:
    """Return how much longer its face is than its back at an end, mm: at outside mitres by what it reaches out."""
    if end.joint != "outside mitre":
        return 0.0
    return out_of_wall_mm(unit, body) * math.tan(math.radians(end.standing_deg))


def _along_back(place: Place, unit: Unit, body: Moulding, walls: Walls | None, base: float, out: float) -> Figure:
    """Return the length along the back: between the walls that it meets, else as it is set out."""
    low = base + unit.over_base_mm
    reach = (max(out, 0.0), max(out, 0.0) + out_of_wall_mm(unit, body))
    steps: list[Step] = []
    value, draws = 0.0, None
    sd_set_out = 0.0
    both: tuple[tuple[End, Literal[1, -1], float], ...] = (("right", 1, unit.right_mm), ("left", -1, unit.x_mm))
    for end, sign, drawn_at in both:
        drawn = getattr(walls, end) if walls is not None and end in unit.meets else None
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


def _hollow(survey: Survey | None, unit: Unit, up: float) -> Figure | None:
    """Return the largest gap behind a straight moulding that touches its wall where that is proudest."""
    if survey is None or "back" not in survey.place.surfaces or not survey.measured("back"):
        return None
    x = np.linspace(unit.x_mm, unit.right_mm, SPOTS)
    spots = np.column_stack([x, np.full(SPOTS, min(max(up, 0.0), survey.place.height_mm))])
    joint = survey.adjustment.at(("back", spots))
    left, middle, right, share = _deepest(x, joint.mean)
    weights = np.zeros(SPOTS)
    weights[left] += 1 - share
    weights[right] += share
    weights[middle] -= 1.0
    sd = math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    at = (float(x[middle]), float(spots[middle, 1]))
    value = max(float(weights @ joint.mean), 0.0)
    rests = shares(survey, "back", spots[[middle]])[0]
    step = Step(label="The wall behind it", surface="back", at=at, value_mm=value, sd_mm=sd, rests_on=rests)
    return Figure(value_mm=value, sd_mm=sd, working=(step,))


def _deepest(x: Floats, y: Floats) -> tuple[int, int, int, float]:
    """Return where a line over the highest points stands highest over what lies between: both points, and where."""
    hull: list[int] = []
    for i in range(len(x)):
        while len(hull) > 1 and (y[hull[-1]] - y[hull[-2]]) * (x[i] - x[hull[-2]]) <= (y[i] - y[hull[-2]]) * (
            x[hull[-1]] - x[hull[-2]]
        ):
            hull.pop()
        hull.append(i)
    best = (-1.0, 0, 0, 0, 0.0)
    for a, b in itertools.pairwise(hull):
        for i in range(a, b + 1):
            share = float((x[i] - x[a]) / (x[b] - x[a]))
            gap = float((1 - share) * y[a] + share * y[b] - y[i])
            if gap > best[0]:
                best = (gap, a, i, b, share)
    return best[1:]


def _under_ceiling(survey: Survey | None, place: Place, unit: Unit, base: float, out: float) -> Figure | None:
    if survey is None or "ceiling" not in place.surfaces or not survey.measured("ceiling"):
        return None
    x = np.linspace(unit.x_mm, unit.right_mm, SPOTS)
    spots = np.column_stack([x, np.full(SPOTS, min(out, place.depth_mm))])
    joint = survey.adjustment.at(("ceiling", spots))
    low, high = int(np.argmin(joint.mean)), int(np.argmax(joint.mean))
    top = base + unit.over_base_mm + unit.height_mm
    if not -UNDER_CEILING_MM < float(joint.mean[low]) - top < UNDER_CEILING_MM:
        return None
    weights = np.zeros(SPOTS)
    weights[high] += 1.0
    weights[low] -= 1.0
    value, sd = float(weights @ joint.mean), math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))
    rests = shares(survey, "ceiling", spots[[high, low]])

    def step(label: str, i: int, sign: Literal[1, -1], rest: tuple[Share, ...]) -> Step:
        at = (float(x[i]), float(spots[i, 1]))
        mean, own = float(joint.mean[i]), float(joint.sd[i])
        return Step(label=label, surface="ceiling", at=at, sign=sign, value_mm=mean, sd_mm=own, rests_on=rest)

    steps = (step("Ceiling where it is highest", high, 1, rests[0]), step("and lowest", low, -1, rests[1]))
    return Figure(value_mm=value, sd_mm=sd, working=steps)


def _curve(unit: Unit, body: Moulding, kerf_mm: float) -> MouldingCurve:
    """Return a moulding bent to its radius: a strip of thickness t bent to a radius R is strained by t / (2R).

    Kerfs in its back close when each takes up kerf / depth of the turn, in radians.
    """
    radius = max(body.round_mm, unit.width_mm / 2)
    half = math.asin(min(unit.width_mm / 2 / radius, 1.0))
    arc, rise = 2 * radius * half, radius * (1 - math.cos(half))
    least = body.thick_mm / (2 * BEND_STRAIN)
    bends = body.round_mm >= least
    deep = body.thick_mm - SKIN_MM
    if bends or deep <= 0 or kerf_mm <= 0:
        return MouldingCurve(arc_mm=arc, rise_mm=rise, least_radius_mm=least, bends=bends)
    every = radius * kerf_mm / deep
    return MouldingCurve(
        arc_mm=arc,
        rise_mm=rise,
        least_radius_mm=least,
        bends=False,
        kerfs=math.ceil(arc / every),
        kerf_every_mm=every,
        kerf_deep_mm=deep,
    )


def _bent(unit: Unit, body: Moulding) -> Iterator[MouldingLength]:
    radius = max(body.round_mm, unit.width_mm / 2)
    arc = 2 * radius * math.asin(min(unit.width_mm / 2 / radius, 1.0))
    steps = (
        Step(label="Chord", value_mm=unit.width_mm),
        Step(label="The arc is longer than its chord", value_mm=arc - unit.width_mm),
    )
    yield MouldingLength(
        id=f"moulding-{unit.id}-back",
        along="back",
        long=Figure(value_mm=arc, sd_mm=0.0, working=steps),
        left=MouldingEnd(),
        right=MouldingEnd(),
        pieces=pieces_of(body, arc),
    )
