"""Scribing an edge to a surface: how far the compass is set, what must be there to cut, and the line itself.

The line is found in two ways at once: as a setting for the compass, which copies the wall without numbers, and as few
straight pieces that stay within half a millimetre of it, to be marked by hand or cut from a file.
"""

from __future__ import annotations

import math
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
    spend()
    a, b = np.asarray(edge.start), np.asarray(edge.end)
    long_mm = float(np.linalg.norm(b - a))
    n = min(max(math.ceil(long_mm / STEP_MM) + 1, 2), MOST_STEPS)
    share = np.arange(n) / (n - 1)
    spots = a + share[:, None] * (b - a)
    known = survey.adjustment.line(edge.surface, spots, edge.anchor)
    sd = known.sd
    reference = edge.reference_mm[0] + share * (edge.reference_mm[1] - edge.reference_mm[0])
    left = edge.sign * (reference - known.mean)
    least, most = int(np.argmin(left)), int(np.argmax(left))
    apart = TWO_SIDED_95 * known.apart(most, least)
    spread = float(left[most] - left[least])
    compass = math.ceil(spread + apart + MARGIN_MM)
    blank = math.ceil(max(float((left + TWO_SIDED_95 * sd).max()) + MARGIN_MM, float(left[least]) + compass))
    points = fewest_points(share * long_mm, left)
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
            LinePoint(along_mm=float(share[i] * long_mm), left_mm=float(left[i]), sd_mm=float(sd[i])) for i in points
        ),
        compass_mm=float(compass),
        needed_mm=float(compass),
        there_mm=edge.there_mm,
        blank_mm=0.0 if edge.own else float(blank),
        bevel_deg=_bevel(survey, edge, spots),
        hand=edge.hand,
        thick_mm=edge.thick_mm,
        flat=edge.flat,
    )


def _bevel(survey: Survey, edge: Edge, spots: Floats) -> float:
    """Return the undercut, degrees: the steepest turn of the surface into the piece behind its face, and the usual."""
    if edge.across == (0.0, 0.0):
        return USUAL_BEVEL_DEG
    spots = spots[::BEVEL_STEP]
    behind = spots + edge.thick_mm * np.asarray(edge.across)
    n = len(spots)
    mean = survey.adjustment.mean((edge.surface, np.vstack([spots, behind])))
    into = edge.sign * (mean[n:] - mean[:n])
    return USUAL_BEVEL_DEG + max(0.0, math.degrees(math.atan2(float(into.max()), edge.thick_mm)))


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
