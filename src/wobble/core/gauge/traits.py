"""What a place is like: fall, lean, bow, wobble, high and low spots, corner angles, openings; each a figure.

Fall, lean and bow are linear in the surface, so their uncertainty is exact; wobble, openings and high spots are maxima
and minima, taken on joint draws.
"""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from wobble.core.budget import spend
from wobble.core.gauge.adjust import Estimate, draws
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.shares import Share, heaviest, shares_of_sum
from wobble.core.gauge.survey import Survey
from wobble.core.job import SIDE_OF, SURFACE_AXES, TOWARDS_INSTALLER, Measured, SurfaceName, Value, surface_extent
from wobble.core.length import LengthUnit, format_length

N_DRAWS = 300
SEED = 41_172
STEPS = (13, 5)
KNOWN_SD_MM = 6.0
"""Where a surface is known worse than this, it says nothing of what the place is like."""

TILT_WORKING = "Slope of the plane that fits the surface best over what was read."
BOW_WORKING = "The middle less the mean of both ends, meaned across."

Kind = Literal["tilt", "bow", "wobble", "high", "low", "angle", "narrowest", "widest", "lowest ceiling"]
Unit = Literal["mm", "mm/m", "deg"]


class Trait(Value, frozen=True, kw_only=True):
    """One thing that a place is like.

    Attributes:
        surface: The surface, or for an angle or an opening the wall that it is measured to. kind: What it is. along:
        For a tilt or a bow, the axis along which. value: How much, in `unit`. A tilt is positive where the surface
        rises, or comes into the room, along its axis; a bow
            where the middle stands proud of the ends.
        sd: Its standard uncertainty.
        working: How it comes from the surface, in words. rests_on: The readings that it moves with most.
        at: Where, for a spot: on the surface's own two axes.
    """

    surface: SurfaceName
    kind: Kind
    along: Literal["x", "y", "z"] | None = None
    value: float
    sd: float
    unit: Unit = "mm"
    at: tuple[float, float] | None = None
    working: str = ""
    rests_on: tuple[Share, ...] = ()


def traits(survey: Survey, units: LengthUnit = "mm") -> tuple[Trait, ...]:
    """Return what is known of a place, surface by surface, then its corners and openings; said in the user's unit."""
    place = survey.place
    measured = [s for s in place.surfaces if survey.measured(s) > 2]
    found: list[Trait] = []
    for surface in measured:
        spend()
        found += _of_surface(survey, surface)
    for corner, side in SIDE_OF.items():
        if "back" in measured and side in measured:
            found.append(_angle(survey, corner, side, units))
    for near, far in (("left", "right"), ("floor", "ceiling")):
        if near in place.surfaces and far in place.surfaces and _spans(survey, near, far):
            found += _openings(survey, near, far)
    return tuple(found)


def _grid(place: Measured, surface: SurfaceName) -> Floats:
    """Return spots over a whole surface, edges included: the smallest width is often at one."""
    (low_u, high_u), (low_v, high_v) = surface_extent(place, surface)
    u, v = np.linspace(low_u, high_u, STEPS[0]), np.linspace(low_v, high_v, STEPS[0])
    return np.stack(np.meshgrid(u, v), axis=-1).reshape(-1, 2)


def _of_surface(survey: Survey, surface: SurfaceName) -> list[Trait]:
    """Return the traits of one surface over the part of it that was read."""
    read = survey.adjustment.designs[surface].spots
    edges = np.asarray(surface_extent(survey.place, surface))
    # a neighbour's readings may lie past the end of this place
    (low_u, low_v), (high_u, high_v) = np.clip([read.min(axis=0), read.max(axis=0)], edges[:, 0], edges[:, 1])
    u, v = np.linspace(low_u, high_u, STEPS[0]), np.linspace(low_v, high_v, STEPS[1])
    spots = np.stack(np.meshgrid(u, v), axis=-1).reshape(-1, 2)
    joint = survey.adjustment.at((surface, spots))
    reading_weights = survey.adjustment.weights((surface, spots))
    proud = float(TOWARDS_INSTALLER[surface])
    found: list[Trait] = []
    columns = np.column_stack([np.ones(len(spots)), spots - spots.mean(axis=0)])
    plane = np.linalg.pinv(columns)
    for which, (name, size) in enumerate(zip(SURFACE_AXES[surface], (high_u - low_u, high_v - low_v), strict=False)):
        if size < 100:
            continue
        sign = 1.0 if SURFACE_AXES[surface][2] == "z" else proud
        for kind, weights, unit, working in (
            ("tilt", sign * 1000.0 * plane[1 + which], "mm/m", TILT_WORKING),
            ("bow", proud * _bow_weights(which), "mm", BOW_WORKING),
        ):
            value, sd = _linear(joint, weights)
            rests = heaviest(survey, weights @ reading_weights)
            plain = {"surface": surface, "kind": kind, "along": name, "unit": unit}
            found.append(Trait(**plain, value=value, sd=sd, working=working, rests_on=rests))  # type: ignore[arg-type]
    sampled = proud * draws(Estimate(joint.mean, joint.covariance), N_DRAWS, SEED)
    off_plane = sampled - (sampled @ plane.T) @ columns.T
    spread = np.ptp(off_plane, axis=1)
    ends = off_plane.mean(axis=0)
    apart = np.zeros(len(spots))
    apart[int(np.argmax(ends))], apart[int(np.argmin(ends))] = proud, -proud
    found.append(
        Trait(
            surface=surface,
            kind="wobble",
            value=float(spread.mean()),
            sd=float(spread.std()),
            working=f"Highest less lowest of the surface off its own plane, over {N_DRAWS} likely surfaces.",
            rests_on=heaviest(survey, apart @ reading_weights),
        )
    )
    likely = proud * joint.mean
    for kind, index in (("high", int(np.argmax(likely))), ("low", int(np.argmin(likely)))):
        from_mean = np.full(len(spots), -proud / len(spots))
        from_mean[index] += proud
        value, sd = _linear(joint, from_mean)
        at = (float(spots[index, 0]), float(spots[index, 1]))
        found.append(
            Trait(
                surface=surface,
                kind="high" if kind == "high" else "low",
                value=value,
                sd=sd,
                at=at,
                working="The surface there less its mean over what was read.",
                rests_on=heaviest(survey, from_mean @ reading_weights),
            )
        )
    return found


def _bow_weights(which: int) -> Floats:
    """Return middle less mean of both ends, meaned over the other axis."""
    weights = np.zeros((STEPS[1], STEPS[0]))
    if which == 0:
        weights[:, STEPS[0] // 2], weights[:, 0], weights[:, -1] = 1.0, -0.5, -0.5
        return np.asarray(weights.ravel() / STEPS[1])
    weights[STEPS[1] // 2], weights[0], weights[-1] = 1.0, -0.5, -0.5
    return np.asarray(weights.ravel() / STEPS[0])


def _linear(joint: Estimate, weights: Floats) -> tuple[float, float]:
    return float(weights @ joint.mean), math.sqrt(max(float(weights @ joint.covariance @ weights), 0.0))


def _angle(survey: Survey, corner: str, side: SurfaceName, units: LengthUnit) -> Trait:
    """Return the inside angle of a corner in plan, over 600 mm legs, meaned over the heights that were read."""
    place = survey.place
    heights = survey.adjustment.designs[side].spots[:, 1]
    z = np.linspace(heights.min(), heights.max(), 3)
    a, b = min(600.0, place.width_mm), min(600.0, place.depth_mm)
    left = corner == "back-left"
    near, far = (0.0, a) if left else (place.width_mm - a, place.width_mm)
    back = np.array([(x, h) for x in (near, far) for h in z])
    wall = np.array([(y, h) for y in (0.0, b) for h in z])
    joint = survey.adjustment.at(("back", back), (side, wall))
    n = len(z)
    weights = np.concatenate([np.full(n, -1 / a), np.full(n, 1 / a), np.full(n, -1 / b), np.full(n, 1 / b)]) / n
    weights = (1.0 if left else -1.0) * weights
    lacks, sd = _linear(joint, weights)
    return Trait(
        surface=side,
        kind="angle",
        value=90.0 - math.degrees(lacks),
        sd=math.degrees(sd),
        unit="deg",
        working=f"90° less the turn of back and wall towards each other, over {format_length(a, units, decimals=0)} "
        f"along and {format_length(b, units, decimals=0)} out, meaned over {n} heights.",
        rests_on=shares_of_sum(survey, np.degrees(-weights), ("back", back), (side, wall)),
    )


def _spans(survey: Survey, near: SurfaceName, far: SurfaceName) -> bool:
    """Return whether the distance between two surfaces is known at all."""
    middle = np.array([[sum(extent) / 2 for extent in surface_extent(survey.place, near)]])
    joint = survey.adjustment.at((near, middle), (far, middle)).covariance
    return bool(joint[0, 0] + joint[1, 1] - 2 * joint[0, 1] < KNOWN_SD_MM**2 * 4)


def _openings(survey: Survey, near: SurfaceName, far: SurfaceName) -> list[Trait]:
    """Return the smallest and the largest distance between opposite surfaces, and where."""
    spots = _grid(survey.place, near)
    joint = survey.adjustment.at((near, spots), (far, spots))
    n = len(spots)
    apart = np.hstack([-np.eye(n), np.eye(n)])
    width = Estimate(apart @ joint.mean, apart @ joint.covariance @ apart.T)
    known = width.sd < KNOWN_SD_MM
    if not known.any():
        return []
    sampled = draws(width, N_DRAWS, SEED)[:, known]
    places = spots[known]
    found = []
    least, most = sampled.min(axis=1), sampled.max(axis=1)
    kinds: tuple[tuple[Kind, Floats, int], ...] = (
        ("narrowest" if near == "left" else "lowest ceiling", least, int(np.argmin(width.mean[known]))),
        ("widest", most, int(np.argmax(width.mean[known]))),
    )
    for kind, values, index in kinds[: 2 if near == "left" else 1]:
        at = (float(places[index, 0]), float(places[index, 1]))
        extreme = "largest" if kind == "widest" else "smallest"
        found.append(
            Trait(
                surface=far,
                kind=kind,
                value=float(values.mean()),
                sd=float(values.std()),
                at=at,
                working=f"Far surface less near one, {extreme} over {len(places)} places on each of {N_DRAWS} likely "
                "pairs of surfaces.",
                rests_on=shares_of_sum(survey, np.array([-1.0, 1.0]), (near, np.array([at])), (far, np.array([at]))),
            )
        )
    return found
