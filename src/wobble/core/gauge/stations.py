"""Where to measure: a proposed round of stations in the order in which a person would walk.

The floor is walked along the back from left to right and along the front from right to left, under the supports of what
will stand there; the back wall column by column, up one and down the next, at foot, fixings and top; then the side
walls from the corner outwards, and last the ceiling, as distances up from the floor. Where a surface has a known edge,
each side of it is read as a surface of its own.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

import numpy as np

from wobble.core.gauge.prior import Floats
from wobble.core.gauge.survey import Survey
from wobble.core.job import Instrument, Offset, Place, Span, Spot, SurfaceName, Unit, Value, surface_extent
from wobble.core.length import MM_PER_INCH, LengthUnit

PITCH_MM = 480.0
"""Furthest apart that two stations of a row stand: under the smooth length scale, so that no bow slips between."""
EDGE_MM = 60.0
SAME_SPOT_MM = 30.0
ROUND_MARK_MM: dict[LengthUnit, float] = {"mm": 5.0, "in": MM_PER_INCH / 2}
"""Marks that are found on a rule at a glance; half of one is less than a finger covers."""
FEWEST_ROWS = 3
"""Either side of an edge is read in so many rows: with two, how it lies and how it bows is not told apart."""
SIDE_PITCH_MM = 1100.0
"""Side walls are met by the ends of a run only: three heights and three depths say how they lean, skew and bow."""


class Station(Value, frozen=True, kw_only=True):
    """A place to measure, what is taken there, and the standing reading of it, if any."""

    id: str
    surface: SurfaceName
    at: tuple[float, float]
    takes: Literal["offset", "span"] = "offset"
    read_by: str | None = None


class NextReading(Value, frozen=True, kw_only=True):
    """The station that would tell most, and what it would do to the least known spot: mm now and mm then.

    `would_move_mm` is by how much it may still move any figure of the decision (95 %), `two_would_move_mm` by how much
    it and the best one after it may; `about` is what is being decided: the shape of the place while nothing stands
    there, else its shims and packing. Where the round is done, `station` is empty and `at` a spot of what is decided.
    """

    station: str
    surface: SurfaceName
    at: tuple[float, float]
    worst_sd_now_mm: float
    worst_sd_then_mm: float
    would_move_mm: float
    two_would_move_mm: float | None = None
    about: Literal["shape", "shims"] = "shape"


def stations(place: Place, units: LengthUnit = "mm") -> tuple[Station, ...]:
    """Return the proposed round of a place, in walking order, on round marks of a rule in `units`."""
    places: list[tuple[SurfaceName, Spot]] = []
    if "floor" in place.surfaces:
        back, *middle, front = _floor_rows(place)
        columns = _beside_edges(place, "floor", "first", _columns(place))
        for i, y in enumerate(_beside_edges(place, "floor", "second", [back, *middle, front])):
            places += [("floor", (x, y)) for x in (columns if i % 2 == 0 else reversed(columns))]
    if "back" in place.surfaces:
        heights = _beside_edges(place, "back", "second", _back_heights(place))
        for i, x in enumerate(_beside_edges(place, "back", "first", _columns(place))):
            up = heights if i % 2 == 0 else reversed(heights)
            places += [("back", (x, z)) for z in up if place.walled(x, z)]
    for side in SIDES:
        if side in place.surfaces:
            heights = _beside_edges(place, side, "second", _side_heights(place))
            for i, y in enumerate(_beside_edges(place, side, "first", _side_depths(place))):
                places += [(side, (y, z)) for z in (heights if i % 2 == 0 else reversed(heights))]
    if "ceiling" in place.surfaces:
        left, *_, right = _columns(place)
        near, *_, far = _floor_rows(place)
        # in zigzag: four places tell fall, lean and the bow along the run
        along = [round(left + share * (right - left)) * 1.0 for share in (0.0, 1 / 3, 2 / 3, 1.0)]
        places += [("ceiling", (x, y)) for x, y in zip(along, (near, far, near, far), strict=True)]
    counts: dict[str, int] = {}
    round_: list[Station] = []
    for surface, at in places:
        counts[surface] = counts.get(surface, 0) + 1
        spanned = surface == "ceiling" and "floor" in place.surfaces
        takes: Literal["offset", "span"] = "span" if spanned else "offset"
        spot = _on_marks(place, surface, at, ROUND_MARK_MM[units])
        round_.append(Station(id=f"{surface}-{counts[surface]}", surface=surface, at=spot, takes=takes))
    return tuple(round_)


def _on_marks(place: Place, surface: SurfaceName, at: Spot, mark_mm: float) -> Spot:
    """Return a spot moved to the nearest marks, or to the last ones before where its surface ends."""
    (_, wide), (_, high) = surface_extent(place, surface)

    def marked(value: float, most: float) -> float:
        return max(0, min(round(value / mark_mm), math.floor(most / mark_mm))) * mark_mm

    return marked(at[0], wide), marked(at[1], high)


SIDES: tuple[SurfaceName, ...] = ("left", "right")


def with_readings(round_: Sequence[Station], survey: Survey) -> tuple[Station, ...]:
    """Return the stations with the standing reading nearest to each, within a hand's width of the spot."""
    taken: dict[tuple[str, str], list[tuple[Spot, str]]] = {}
    for r in survey.readings.values():
        if isinstance(r, Offset):
            taken.setdefault((r.surface, "offset"), []).append((r.at, r.id))
        elif isinstance(r, Span):
            surface = "ceiling" if r.between == "floor-ceiling" else "left"
            taken.setdefault((surface, "span"), []).append((r.at, r.id))
    return tuple(
        Station(id=s.id, surface=s.surface, at=s.at, takes=s.takes, read_by=_nearest(s, taken)) for s in round_
    )


def _nearest(station: Station, taken: dict[tuple[str, str], list[tuple[Spot, str]]]) -> str | None:
    there = taken.get((station.surface, station.takes), [])
    near = [(math.dist(at, station.at), id_) for at, id_ in there]
    near = [pair for pair in near if pair[0] <= SAME_SPOT_MM]
    return min(near)[1] if near else None


def _side_depths(place: Place) -> list[float]:
    near = min(EDGE_MM, place.depth_mm / 4)
    return [round(near + share * (place.depth_mm - 2 * near)) * 1.0 for share in (0.0, 0.5, 1.0)]


def _side_heights(place: Place) -> list[float]:
    tops = [u.over_base_mm + u.height_mm for u in place.units]
    top = min(place.height_mm - EDGE_MM, max(tops, default=place.height_mm - EDGE_MM))
    low = min(100.0, top / 4)
    n = max(2, math.ceil((top - low) / SIDE_PITCH_MM))
    return [round(low + (top - low) * i / n) * 1.0 for i in range(n + 1)]


def _boxes(place: Place) -> list[Unit]:
    """Return what the round is fitted to: all but what is cut to the walls when the rest stands."""
    return [u for u in place.units if not u.flat] or list(place.units)


def _beside_edges(
    place: Place, surface: SurfaceName, axis: Literal["first", "second"], rows: list[float]
) -> list[float]:
    """Return rows along an axis, or those that read each side of the surface's known edges as well as all of it.

    The last row before an edge and the first one beyond stand off it by as much as from a corner, out of its filler.
    """
    edges = [s for s in place.steps if s.surface == surface and s.axis == axis]
    low, high = min(rows, default=0.0), max(rows, default=0.0)
    cuts = sorted(at for s in edges for at in {s.from_mm, s.to_mm} if low < at < high)
    if not cuts:
        return rows
    pitch = max(PITCH_MM, *(b - a for a, b in pairwise(sorted(rows))))
    out: list[float] = []
    for near, far in pairwise((low - EDGE_MM, *cuts, high + EDGE_MM)):
        first, last = near + EDGE_MM, far - EDGE_MM
        if last < first:  # too narrow for rows that stand off both edges
            out.append(round((near + far) / 2) * 1.0)
            continue
        inside = [at for at in rows if first + EDGE_MM < at < last - EDGE_MM]
        part = [first, *inside, last]
        if len(part) < FEWEST_ROWS or max(b - a for a, b in pairwise(part)) > pitch:
            n_gaps = max(FEWEST_ROWS - 1, math.ceil((last - first) / pitch))
            part = [first + (last - first) * i / n_gaps for i in range(n_gaps + 1)]
        out += (round(at) * 1.0 for at in part)
    return list(dict.fromkeys(out))


def _columns(place: Place) -> list[float]:
    """Return x of the columns: near both ends of the run and evenly between, no further apart than the pitch."""
    boxes = _boxes(place)
    low = min((u.x_mm for u in boxes), default=0.0) + EDGE_MM
    high = max((u.right_mm for u in boxes), default=place.width_mm) - EDGE_MM
    low, high = max(low, 0.0), min(max(high, low), place.width_mm)
    return _even(low, high)


def _floor_rows(place: Place) -> list[float]:
    depth = max((u.depth_mm - u.toe_recess_mm for u in _boxes(place)), default=place.depth_mm - EDGE_MM)
    front = min(depth, place.depth_mm - min(EDGE_MM, place.depth_mm / 4))
    return _even(min(EDGE_MM, front / 2), front)


def _back_heights(place: Place) -> list[float]:
    boxes = _boxes(place)
    tops = [u.over_base_mm + u.height_mm for u in boxes]
    fixings = sorted({u.over_base_mm + h for u in boxes for h in u.fixing_heights_mm})
    wanted = [100.0, *fixings, max(tops, default=min(place.height_mm, 900.0)) - EDGE_MM]
    kept: list[float] = []
    for z in sorted(z for z in wanted if 0 <= z <= place.height_mm):
        if not kept or z - kept[-1] >= 100.0:
            kept.append(z)
    return [z for low, high in pairwise(kept) for z in _even(low, high)[:-1]] + kept[-1:]


def _even(low: float, high: float) -> list[float]:
    n_gaps = max(1, math.ceil((high - low) / PITCH_MM))
    return [round(low + (high - low) * i / n_gaps) * 1.0 for i in range(n_gaps + 1)]


def next_reading(
    survey: Survey,
    round_: Sequence[Station],
    surface: SurfaceName,
    wanted: Floats,
    instrument: Instrument,
    weights: Floats | None = None,
) -> NextReading | None:
    """Return the unread station whose reading most reduces the variance of what is wanted.

    One more reading at c with noise s² takes cov(i, c)² / (var(c) + s²) off the variance at i (the rank-one update of
    the posterior). What all spots share (an unknown height) is taken out first, as no decision rests on it.

    Args:
        survey: The survey so far.
        round_: The stations, with their readings.
        surface: The surface that is asked about.
        wanted: Spots that the decision rests on, shape (n, 2); none gives None.
        instrument: What would be read with.
        weights: Where the decision rests on one weighted mean of the spots (such as the chance of each to be the
            highest), their weights, shape (n,); else every spot counts for itself.
    """
    open_stations = [s for s in round_ if s.surface == surface and s.read_by is None]
    if not open_stations or len(wanted) == 0 or survey.measured(surface) == 0:
        return None
    spots = np.asarray([s.at for s in open_stations], dtype=float)
    covariance = survey.adjustment.at((surface, np.vstack([wanted, spots]))).covariance
    n = len(wanted)
    if weights is None:
        shared = np.eye(len(covariance)) - np.pad(np.full((len(covariance), n), 1.0 / n), ((0, 0), (0, len(spots))))
        covariance = shared @ covariance @ shared.T
        asked, own = covariance[:n, n:], np.diag(covariance)[:n]
    else:
        asked = weights[None, :] @ covariance[:n, n:]
        own = np.asarray([weights @ covariance[:n, :n] @ weights])
    gain = asked**2 / (np.diag(covariance)[n:] + instrument.sigma_mm**2)
    best = int(np.argmax(gain.sum(axis=0)))
    now = np.sqrt(np.maximum(own, 0.0))
    then = np.sqrt(np.maximum(now**2 - gain[:, best], 0.0))
    return NextReading(
        station=open_stations[best].id,
        surface=open_stations[best].surface,
        at=open_stations[best].at,
        worst_sd_now_mm=float(now.max()),
        worst_sd_then_mm=float(then.max()),
        would_move_mm=float(1.96 * np.sqrt(gain[:, best].max())),
    )
