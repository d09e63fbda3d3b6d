"""Tops and shelves that are cut to the walls: their lengths, depths, corners, cleats and cut lines."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
from msgspec.structs import replace

from wobble.core.contents import burdened
from wobble.core.figure import Figure, Step
from wobble.core.fit.run.stand import Stand
from wobble.core.fit.run.tiers import RESTS_MM
from wobble.core.fit.scribe.line import Edge, Scribe, scribes
from wobble.core.fit.surfaces.walls import Walls
from wobble.core.fit.tops.tilt import Tilt, tilt
from wobble.core.gauge.adjust import Query
from wobble.core.gauge.shares import heaviest
from wobble.core.gauge.survey import Survey
from wobble.core.job import Place, Unit, Value
from wobble.core.job.unit import OnCleats
from wobble.core.setout.boards import Sag, movement, sag, seams

LEAST_CLEAT_MM = 50.0
LEAST_MM = 10.0
"""What is shorter or less deep than this is no top and no shelf."""
CLEAT_SHORT_MM = 3.0
"""A cleat is cut this much short at each end: it never has to be fitted to a corner."""
WallName = Literal["left", "right", "back"]


class Cleat(Value, frozen=True, kw_only=True):
    """One cleat under a shelf: at which wall, how long, and how high its top stands over the datum mark."""

    wall: WallName
    long_mm: float
    top_mm: float


class FlatPart(Value, frozen=True, kw_only=True):
    """One top or shelf as it must be cut.

    Attributes:
        unit: Which. height_mm: Its underside over the datum mark.
        corners: (x, y) of its outline in plan, from back left round to front left, seen from above; straight between.
        at_back: Length at the back. at_front: At the front. at_left: Depth at the left end. at_right: At the right.
        left_deg: Inside angle at the back left corner. right_deg: At the back right one.
        diagonals: Back left to front right, and back right to front left: the check of a template.
        blank_mm: Length and depth to cut before scribing. seams_at: Where pieces of stock meet, mm from the left end.
        moves: How far solid wood moves across over a year; None for panels. gap_mm: What to leave for it at the back.
        span_mm: Longest length of it that nothing carries: between the sides of units under it, cleats or its ends.
        sag: How it bends over that; None without a board.
        tilt: How it gets between the walls; None where it does not reach both.
        cleats: What it lies on, where it lies on cleats.
    """

    unit: str
    height_mm: float
    corners: tuple[tuple[float, float], ...]
    at_back: Figure
    at_front: Figure
    at_left: Figure
    at_right: Figure
    left_deg: float
    right_deg: float
    diagonals: tuple[float, float]
    blank_mm: tuple[float, float]
    seams_at: tuple[float, ...]
    moves: Figure | None
    gap_mm: float
    span_mm: float
    sag: Sag | None
    tilt: Tilt | None
    cleats: tuple[Cleat, ...]


def flat_parts(
    survey: Survey, place: Place, walls: Walls, stand: Stand
) -> tuple[tuple[FlatPart, ...], tuple[Scribe, ...]]:
    """Return every top and shelf of a place, and the edges of them that are scribed."""
    parts, edges = [], []
    for unit in place.units:
        if not unit.flat:
            continue
        part = _part(survey, place, walls, unit, stand)
        if part is not None:  # walls that cross, or a wall past its other end, leave it nothing: that is told
            whole, cuts = _blanked(part, survey, walls, unit, stand)
            parts.append(whole)
            edges += cuts
    return tuple(parts), tuple(edges)


def _meets(walls: Walls, survey: Survey, unit: Unit) -> tuple[WallName, ...]:
    known = {"left": walls.left, "right": walls.right, "back": survey.measured("back") or None}
    return tuple(w for w in ("left", "right", "back") if w in unit.meets and known[w] is not None)


def _part(survey: Survey, place: Place, walls: Walls, unit: Unit, stand: Stand) -> FlatPart | None:
    z = stand.base_mm + unit.over_base_mm
    meets = _meets(walls, survey, unit)
    back, front = stand.back_at(unit), stand.back_at(unit) + unit.depth_mm
    lengths = dict(zip((back, front), _lengths(survey, unit, meets, (back, front), z), strict=True))
    (left_back, right_back), (left_front, right_front) = _ends(survey, unit, meets, (back, front), z)
    y_left, y_right = _backs(survey, unit, meets, z, stand)
    corners = ((left_back, y_left), (right_back, y_right), (right_front, front), (left_front, front))
    at_left, at_right = _depths(survey, unit, meets, (left_back, right_back), z, stand)
    least = min(f.value_mm for f in (*lengths.values(), at_left, at_right))
    if least < LEAST_MM:
        return None
    board = unit.board
    across = unit.depth_mm
    moves = None if board is None else movement(board, across)
    long_mm = max(lengths[back].value_mm, lengths[front].value_mm)
    span = _span(place, unit, meets, long_mm)
    both = "left" in meets and "right" in meets
    return FlatPart(
        unit=unit.id,
        height_mm=z,
        corners=corners,
        at_back=lengths[back],
        at_front=lengths[front],
        at_left=at_left,
        at_right=at_right,
        left_deg=_angle(corners[3], corners[0], corners[1]),
        right_deg=_angle(corners[0], corners[1], corners[2]),
        diagonals=(math.dist(corners[0], corners[2]), math.dist(corners[1], corners[3])),
        blank_mm=(long_mm, unit.depth_mm),
        seams_at=seams(board, long_mm),
        moves=moves,
        gap_mm=float(math.ceil(moves.value_mm + 2 * moves.sd_mm)) if moves else 0.0,
        span_mm=span,
        sag=sag(burdened(unit, board, span), span, _least_deep(unit), unit.height_mm) if board else None,
        tilt=tilt(walls, unit, stand, z, long_mm) if both else None,
        cleats=_cleats(unit, z, lengths, corners, meets) if isinstance(unit.standing, OnCleats) else (),
    )


def _least_deep(unit: Unit) -> float:
    """Return how deep a top is where a curved front leaves it the least."""
    return max(unit.depth_mm - (unit.curve.rise_mm if unit.curve is not None else 0.0), LEAST_MM)


def _span(place: Place, unit: Unit, meets: tuple[WallName, ...], long_mm: float) -> float:
    """Return the longest length between two supports: walls that it meets, and the sides of units right under it.

    Without two of them it is looked at as lying on its ends only.
    """
    under = unit.over_base_mm
    edges = [
        x
        for u in place.units
        if not u.flat and abs(u.over_base_mm + u.height_mm - under) <= RESTS_MM
        for x in (u.x_mm, u.right_mm)
        if unit.x_mm <= x <= unit.right_mm
    ]
    if "left" in meets:
        edges.append(unit.x_mm)
    if "right" in meets:
        edges.append(unit.x_mm + long_mm)
    spans = np.diff(np.sort(edges)) if edges else np.zeros(0)
    return float(spans.max()) if spans.size and spans.max() > 0 else long_mm


def _ends(
    survey: Survey, unit: Unit, meets: tuple[WallName, ...], depths: tuple[float, ...], z: float
) -> list[tuple[float, float]]:
    """Return where a part ends at the left and the right, mm along, at each of some depths."""
    at = np.array([(y, z) for y in depths])
    left = survey.adjustment.mean(("left", at)) if "left" in meets else np.full(len(at), unit.x_mm)
    right = survey.adjustment.mean(("right", at)) if "right" in meets else np.full(len(at), unit.right_mm)
    return [(float(x), float(end)) for x, end in zip(left, right, strict=True)]


def _lengths(
    survey: Survey, unit: Unit, meets: tuple[WallName, ...], depths: tuple[float, ...], z: float
) -> list[Figure]:
    """Return how long a part is at each of some depths."""
    at = np.array([(y, z) for y in depths])
    n = len(at)
    if "left" in meets and "right" in meets:
        queries: tuple[Query, Query] = (("left", at), ("right", at))
        joint, rests = survey.adjustment.at(*queries), survey.adjustment.weights(*queries)
        out = []
        for i, y in enumerate(depths):
            pair = np.array([i, n + i])
            (own, both), (_, other) = joint.covariance[np.ix_(pair, pair)]
            step = Step(
                label="Right wall less left wall",
                surface="right",
                at=(y, z),
                value_mm=float(joint.mean[n + i] - joint.mean[i]),
                sd_mm=math.sqrt(max(float(own + other - 2 * both), 0.0)),
                rests_on=heaviest(survey, rests[n + i] - rests[i]),
            )
            out.append(Figure(value_mm=step.value_mm, sd_mm=step.sd_mm, working=(step,)))
        return out
    sd = np.zeros(n)
    for wall in ("left", "right"):
        if wall in meets:
            sd = survey.adjustment.mean_and_sd((wall, at))[1]
    ends = _ends(survey, unit, meets, depths, z)
    return [
        Figure(value_mm=right - left, sd_mm=float(s), working=(Step(label="From end to end", value_mm=right - left),))
        for (left, right), s in zip(ends, sd, strict=True)
    ]


def _backs(survey: Survey, unit: Unit, meets: tuple[WallName, ...], z: float, stand: Stand) -> tuple[float, float]:
    if "back" not in meets:
        return stand.back_at(unit), stand.back_at(unit)
    ends = np.array([[unit.x_mm, z], [unit.right_mm, z]])
    wall = survey.adjustment.line("back", ends, stand.back_anchor).mean
    return float(wall[0]), float(wall[1])


def _depths(
    survey: Survey, unit: Unit, meets: tuple[WallName, ...], places: tuple[float, ...], z: float, stand: Stand
) -> list[Figure]:
    """Return how deep a part is at each of some places along it."""
    if "back" not in meets:
        decided = Step(label="As decided", value_mm=unit.depth_mm)
        return [Figure(value_mm=unit.depth_mm, sd_mm=0.0, working=(decided,)) for _ in places]
    front = stand.back_at(unit) + unit.depth_mm
    at = np.array([(x, z) for x in places])
    wall = survey.adjustment.line("back", at, stand.back_anchor)
    rests = survey.adjustment.weights(("back", at))
    out = []
    for i, x in enumerate(places):
        here = Step(
            label="Back wall here" if stand.back_anchor is None else "Back wall here, from its proudest spot",
            surface="back",
            at=(x, z),
            sign=-1,
            value_mm=float(wall.mean[i]),
            sd_mm=float(wall.sd[i]),
            rests_on=heaviest(survey, -rests[i]),
        )
        working = (Step(label="Front edge", value_mm=front), here)
        out.append(Figure(value_mm=front - here.value_mm, sd_mm=here.sd_mm, working=working))
    return out


def _angle(a: tuple[float, float], corner: tuple[float, float], b: tuple[float, float]) -> float:
    """Return the inside angle at a corner, degrees."""
    one = math.atan2(a[1] - corner[1], a[0] - corner[0])
    other = math.atan2(b[1] - corner[1], b[0] - corner[0])
    between = abs(math.degrees(one - other)) % 360
    return min(between, 360 - between)


def _blanked(part: FlatPart, survey: Survey, walls: Walls, unit: Unit, stand: Stand) -> tuple[FlatPart, list[Scribe]]:
    """Return a part with its blank, and its cut lines with what the blank carries for each.

    The ends count from the part's middle, so that the blank is both halves together.
    """
    cuts = {s.hand: s for s in _edges(survey, walls, unit, part, stand)}
    half = max(part.at_back.value_mm, part.at_front.value_mm) / 2
    halves = [cuts[hand].blank_mm if hand in cuts else half for hand in ("left", "right")]
    deep = cuts["far"].blank_mm if "far" in cuts else unit.depth_mm
    blank = (float(math.ceil(sum(halves))), float(math.ceil(deep)))
    carried = [replace(s, blank_mm=0.0, there_mm=s.blank_mm - min(p.left_mm for p in s.line)) for s in cuts.values()]
    return replace(part, blank_mm=blank), carried


def _cleats(
    unit: Unit,
    z: float,
    lengths: dict[float, Figure],
    corners: tuple[tuple[float, float], ...],
    meets: tuple[WallName, ...],
) -> tuple[Cleat, ...]:
    """Return the cleats of a shelf: the back one from end to end, the side ones between it and the front."""
    standing = unit.standing
    thick = standing.thick_mm if isinstance(standing, OnCleats) else 0.0
    back_long = min(lengths.values(), key=lambda f: f.value_mm)
    out = []
    if "back" in meets:
        out.append(Cleat(wall="back", long_mm=_short(lengths[min(lengths)].value_mm, back_long.sd_mm), top_mm=z))
    for wall, near, far in (("left", corners[0], corners[3]), ("right", corners[1], corners[2])):
        if wall in meets:
            long = math.dist(near, far) - (thick if "back" in meets else 0.0) - unit.toe_recess_mm
            out.append(Cleat(wall="left" if wall == "left" else "right", long_mm=_short(long, 1.0), top_mm=z))
    return tuple(c for c in out if c.long_mm >= LEAST_CLEAT_MM)


def _short(long_mm: float, sd_mm: float) -> float:
    return float(math.floor(long_mm - 2 * sd_mm - 2 * CLEAT_SHORT_MM))


def _edges(survey: Survey, walls: Walls, unit: Unit, part: FlatPart, stand: Stand) -> tuple[Scribe, ...]:
    """Return the cut lines of a top: each end against its wall, and the back against the back wall."""
    meets = _meets(walls, survey, unit)
    z, thick = part.height_mm + unit.height_mm, unit.height_mm
    (left_back, y_left), (right_back, y_right), (_, front), _ = part.corners
    back = min(y_left, y_right)
    middle = (left_back + right_back) / 2
    ends: tuple[Literal["left", "right"], ...] = ("left", "right")
    out = [
        Edge(
            id=f"{unit.id}-{wall}",
            piece=f"{unit.name}, {wall} end, from its middle",
            edge="left edge" if wall == "left" else "right edge",
            surface=wall,
            start=(back, z),
            end=(front, z),
            reference_mm=(middle, middle),
            sign=1.0 if wall == "left" else -1.0,
            along="out from the back",
            hand=wall,
            thick_mm=thick,
            flat=True,
            across=(0.0, -1.0),
        )
        for wall in ends
        if wall in meets
    ]
    if "back" in meets:
        out.append(
            Edge(
                id=f"{unit.id}-back",
                piece=f"{unit.name}, back, from its front edge",
                edge="back edge",
                surface="back",
                start=(left_back, z),
                end=(right_back, z),
                reference_mm=(front, front),
                sign=1.0,
                along="from the left end",
                hand="far",
                thick_mm=thick,
                flat=True,
                across=(0.0, -1.0),
                anchor=stand.back_anchor,
            )
        )
    return scribes(survey, out)
