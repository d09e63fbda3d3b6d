"""Scribing an edge to a surface: how far the compass is set, what must be there to cut, and the line itself.

The line is found in two ways at once: as a setting for the compass, which copies the wall without numbers, and as few
straight pieces that stay within half a millimetre of it, to be marked by hand or cut from a file.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from wobble.core.budget import spend
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import SurfaceName, Value

LINE_TOLERANCE_MM = 0.5
STEP_MM = 25.0
"""Step along the edge on which the wall is looked at: it turns over some hundred millimetres."""
MOST_STEPS = 61
BEVEL_STEP = 4
MOST_TOGETHER = 16
"""So many edges of one surface are looked at together: more take memory, and save nothing."""
MARGIN_MM = 2.0
"""What is left over the proudest spot, so that the first pass of the saw has wood to take."""
TWO_SIDED_95 = 1.96
USUAL_BEVEL_DEG = 3.0
"""Any scribed edge is undercut by this much, so that the face closes first."""


EdgeName = Literal["left edge", "right edge", "back edge", "bottom edge", "top edge"]
Hand = Literal["left", "right", "far", "near"]


class LinePoint(Value, frozen=True, kw_only=True):
    """A corner of a cut line: how far along the edge, how much of the piece is left there, and its uncertainty, mm."""

    along_mm: float
    left_mm: float
    sd_mm: float


class Scribe(Value, frozen=True, kw_only=True):
    """One edge that is cut to a surface.

    Attributes:
        id: Its name in addresses. piece: What is cut, in words. edge: Which of its edges.
        surface: Against what. start: Where the edge begins on the surface, and `end` where it ends.
        along: What `along_mm` counts from, in words.
        long_mm: Length of the edge. line: The cut line in the fewest points within half a millimetre.
        compass_mm: Set the compass to this, with the piece held plumb (or level) and touching at the proudest spot.
        needed_mm: How much material past the finished edge the piece must carry there. there_mm: How much it carries.
        blank_mm: Width to cut the piece to before scribing; 0 where its own spare material is scribed.
        bevel_deg: Undercut from the face, so that the face closes.
        hand: At which side the cut edge lies when the face is up and the start is at the bottom (or the left).
        thick_mm: Thickness of the piece. flat: Whether it lies flat, and is seen from above.
    """

    id: str
    piece: str
    edge: EdgeName
    surface: SurfaceName
    start: tuple[float, float]
    end: tuple[float, float]
    along: str
    long_mm: float
    line: tuple[LinePoint, ...]
    compass_mm: float
    needed_mm: float
    there_mm: float
    blank_mm: float
    bevel_deg: float
    hand: Hand
    thick_mm: float
    flat: bool


@dataclass(frozen=True, kw_only=True)
class Edge:
    """An edge to scribe.

    What is left of the piece at a spot is `sign` · (reference − surface), the reference running straight from the first
    to the second of `reference_mm`: the inner edge of a filler, the underside of a base, the front of a top.

    Attributes:
        id: The scribe's name. piece: What is cut. edge: Which of its edges. along: From where lengths count.
        surface: Against what. start: Spot on the surface where the edge starts. end: Where it ends.
        reference_mm: Coordinate of the piece's straight edge at both ends.
        sign: +1 where the piece lies at the larger coordinate of the surface, −1 where at the smaller.
        hand: Where the cut edge lies with the face up. thick_mm: Thickness of the piece. flat: Whether it lies flat.
        there_mm: Material that the piece carries past its finished edge, where it is not cut from a blank (`own`).
        own: Whether the piece's own spare material is scribed, and no blank is cut.
        across: Direction on the surface from the face of the piece to its back, as a unit vector; (0, 0) for none.
        anchor: Spot of the surface that the reference counts from, where the surface itself is not tied to the corner.
    """

    id: str
    piece: str
    edge: EdgeName
    surface: SurfaceName
    start: tuple[float, float]
    end: tuple[float, float]
    reference_mm: tuple[float, float]
    sign: float
    along: str
    hand: Hand
    thick_mm: float
    flat: bool = False
    there_mm: float = 0.0
    own: bool = False
    across: tuple[float, float] = (0.0, 0.0)
    anchor: tuple[float, float] | None = None


def scribe(survey: Survey, edge: Edge) -> Scribe:
    """Return the cut of one edge against a surface."""
    return scribes(survey, (edge,))[0]


def scribes(survey: Survey, edges: Sequence[Edge]) -> tuple[Scribe, ...]:
    """Return the cuts of edges, each against its surface; those of one surface together, which is quicker."""
    alike: dict[tuple[SurfaceName, tuple[float, float] | None], list[int]] = {}
    for i, edge in enumerate(edges):
        alike.setdefault((edge.surface, edge.anchor), []).append(i)
    out: dict[int, Scribe] = {}
    for which in alike.values():
        for first in range(0, len(which), MOST_TOGETHER):
            some = which[first : first + MOST_TOGETHER]
            out |= zip(some, _together(survey, [edges[i] for i in some]), strict=True)
    return tuple(out[i] for i in range(len(edges)))


def _together(survey: Survey, edges: list[Edge]) -> Iterator[Scribe]:
    """Yield the cuts of edges against one surface, all counted from the same anchor or from none."""
    spend()
    surface = edges[0].surface
    lies = [_lie(edge) for edge in edges]
    known = survey.adjustment.line(surface, np.vstack([spots for _, _, spots in lies]), edges[0].anchor)
    backs = [
        spots[::BEVEL_STEP] + e.thick_mm * np.asarray(e.across) for e, (_, _, spots) in zip(edges, lies, strict=True)
    ]
    behind = survey.adjustment.mean((surface, np.vstack(backs)))
    at = back_at = 0
    for edge, (share, long_mm, spots), back in zip(edges, lies, backs, strict=True):
        own = slice(at, at + len(spots))
        reference = edge.reference_mm[0] + share * (edge.reference_mm[1] - edge.reference_mm[0])
        left = edge.sign * (reference - known.mean[own])
        least, most = int(np.argmin(left)), int(np.argmax(left))
        apart = TWO_SIDED_95 * known.apart(at + most, at + least)
        into = edge.sign * (behind[back_at : back_at + len(back)] - known.values[own][::BEVEL_STEP])
        yield _cut(edge, long_mm, share * long_mm, left, known.sd[own], apart, into)
        at, back_at = at + len(spots), back_at + len(back)


def _lie(edge: Edge) -> tuple[Floats, float, Floats]:
    """Return how far along an edge its spots lie, as shares of its length; that length, mm; and the spots."""
    a, b = np.asarray(edge.start), np.asarray(edge.end)
    long_mm = float(np.linalg.norm(b - a))
    n = min(max(math.ceil(long_mm / STEP_MM) + 1, 2), MOST_STEPS)
    share = np.arange(n) / (n - 1)
    return share, long_mm, a + share[:, None] * (b - a)


def _cut(edge: Edge, long_mm: float, along: Floats, left: Floats, sd: Floats, apart: float, into: Floats) -> Scribe:
    """Return the cut of an edge of which so much is left at each place, its ends of the spread known to `apart` mm.

    `into` is how far the surface comes into the piece behind its face, mm.
    """
    least = float(left.min())
    compass = math.ceil(float(left.max()) - least + apart + MARGIN_MM)
    blank = math.ceil(max(float((left + TWO_SIDED_95 * sd).max()) + MARGIN_MM, least + compass))
    turned = 0.0 if edge.across == (0.0, 0.0) else math.degrees(math.atan2(float(into.max()), edge.thick_mm))
    return Scribe(
        id=edge.id,
        piece=edge.piece,
        edge=edge.edge,
        surface=edge.surface,
        start=edge.start,
        end=edge.end,
        along=edge.along,
        long_mm=long_mm,
        line=tuple(
            LinePoint(along_mm=float(along[i]), left_mm=float(left[i]), sd_mm=float(sd[i]))
            for i in fewest_points(along, left)
        ),
        compass_mm=float(compass),
        needed_mm=float(compass),
        there_mm=edge.there_mm,
        blank_mm=0.0 if edge.own else float(blank),
        # the undercut: the steepest turn of the surface into the piece behind its face, and the usual
        bevel_deg=USUAL_BEVEL_DEG + max(0.0, turned),
        hand=edge.hand,
        thick_mm=edge.thick_mm,
        flat=edge.flat,
    )


def fewest_points(along: Floats, value: Floats, tolerance: float = LINE_TOLERANCE_MM) -> list[int]:
    """Return indices of the fewest of the given points whose straight pieces stay within a tolerance of all others.

    The shortest path over all admissible pieces (Imai and Iri 1988); both ends are kept. A piece from i to j is
    admissible where its slope lies in the cone that every point between leaves open.
    """
    last = len(along) - 1
    admissible = _admissible(along, value, tolerance)
    came = np.full(len(along), -1)
    frontier = np.zeros(1, dtype=np.intp)
    while came[last] < 0:  # by the number of pieces: whoever is reached first is reached with the fewest
        onward = admissible[frontier]
        fresh = (onward.any(axis=0) & (came < 0)).nonzero()[0]
        came[fresh] = frontier[onward[:, fresh].argmax(axis=0)]
        frontier = fresh[::-1]
    path = [last]
    while path[-1] != 0:
        path.append(int(came[path[-1]]))
    return path[::-1]


def _admissible(along: Floats, value: Floats, tolerance: float) -> NDArray[np.bool_]:
    """Return for every two points, shape (n, n), whether the piece from the first to the second may be cut."""
    run = along[None, :] - along[:, None]
    after = run > 0
    run = np.where(after, run, 1.0)
    rise = value[None, :] - value[:, None]
    low = np.maximum.accumulate(np.where(after, (rise - tolerance) / run, -np.inf), axis=1)
    high = np.minimum.accumulate(np.where(after, (rise + tolerance) / run, np.inf), axis=1)
    slope = rise / run
    out = after.copy()
    out[:, 1:] &= (slope[:, 1:] >= low[:, :-1] - 1e-12) & (slope[:, 1:] <= high[:, :-1] + 1e-12)
    return np.asarray(out)
