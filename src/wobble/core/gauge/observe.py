"""Readings as linear sums: every kind becomes `constant + Σ weight · surface value + Σ weight · unknown + noise`.

One least-squares system can then take them all (design of the adjustment). The unknowns beside the surfaces are the
places of set-ups (`line:` and their id, mm) and how far they lean (`lean:`, mm per m), instruments' own errors (`bias:`
and the instrument's id; mm per m for a level or a square, mm for a tape) and the tilt of a scan's own axes (`tilt:`, mm
per m). How an upright plane is turned in plan is what the back line is, and no error of it. All lengths mm.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace

from wobble.core.errors import SurveyError
from wobble.core.gauge.checks import BUBBLES, OwnError, error_at, lean_sd, own_errors
from wobble.core.job import (
    SIDE_OF,
    SURFACE_AXES,
    TOWARDS_INSTALLER,
    Corner,
    Gap,
    Instrument,
    Measured,
    Offset,
    Profile,
    Reading,
    Scan,
    SetUp,
    Slope,
    Span,
    Spot,
    SurfaceName,
    reading_spots,
)

UNKNOWN_SET_UP_SD_MM = 1500.0
"""A set-up of unknown place may stand anywhere in reach of a person."""

Term = tuple[SurfaceName, Spot, float]


@dataclass(frozen=True, slots=True)
class Observation:
    """One measured number as a linear sum.

    Attributes:
        reading_id: Whose number this is; a profile or a scan has several.
        value_mm: What was measured.
        sigma_mm: Its standard uncertainty.
        surface_terms: (surface, spot, weight) of every surface value in the sum.
        unknown_terms: (name, weight) of every other unknown in the sum.
    """

    reading_id: str
    value_mm: float
    sigma_mm: float
    surface_terms: tuple[Term, ...]
    unknown_terms: tuple[tuple[str, float], ...] = ()


def line_name(set_up: str) -> str:
    """Return the name of the unknown that is a set-up's place."""
    return f"line:{set_up}"


def observe(reading: Reading, instrument: Instrument, place: Measured) -> tuple[Observation, ...]:
    """Return a reading as linear sums of what is unknown, one for each number that it holds.

    An offset is d = s·(place of the plane − surface) with s = +1 where proud is the larger coordinate, so that a floor
    is read *down from* its line and a ceiling *up from* it.
    """
    match reading:
        case Offset():
            return (_offset(reading, reading.at, reading.value_mm, instrument, place),)
        case Profile():
            spots = [((reading.along_mm, second), d) for second, d in reading.points]
            return tuple(_offset(reading, at, d, instrument, place) for at, d in spots)
        case Scan():
            return _scan(reading, instrument, place)
        case Slope():
            return (_slope(reading, instrument),)
        case Gap():
            return (_gap(reading, instrument),)
        case Corner():
            return (_corner(reading, instrument, place),)
        case Span():
            (low, at, *_), (high, *_) = reading_spots(reading)
            terms = ((high, at, 1.0), (low, at, -1.0))
            return (Observation(reading.id, reading.value_mm, instrument.sigma_mm, terms, _hook(reading, instrument)),)


def _hook(reading: Reading, instrument: Instrument) -> tuple[tuple[str, float], ...]:
    """Return the share of a tape's hook in a length, where a check found how much it reads too long."""
    if instrument.kind != "tape" or not instrument.checks:
        return ()
    error = error_at(instrument, reading.taken_at)
    return ((error.name, 1.0),) if error.since is not None else ()


def _scan(reading: Scan, instrument: Instrument, place: Measured) -> tuple[Observation, ...]:
    """Return a scan's points; its own axes may be out of true, about their middle."""
    middle = [sum(p[k] for p in reading.points) / len(reading.points) for k in (0, 1)]
    out = []
    for u, v, d in reading.points:
        one = _offset(reading, (u, v), d, instrument, place)
        if reading.tilt_mm_per_m:
            levers = zip(tilt_names(reading), ((u - middle[0]) / 1000, (v - middle[1]) / 1000), strict=True)
            one = replace(one, unknown_terms=(*one.unknown_terms, *levers))
        out.append(one)
    return tuple(out)


def tilt_names(reading: Scan) -> tuple[str, str]:
    """Return the names of the two unknowns that are the tilt of a scan along its surface's axes."""
    return f"tilt:{reading.id}:first", f"tilt:{reading.id}:second"


def _offset(
    reading: Offset | Profile | Scan, at: Spot, value_mm: float, instrument: Instrument, place: Measured
) -> Observation:
    sign = float(TOWARDS_INSTALLER[reading.surface])
    terms = ((reading.surface, at, -sign),)
    leans = tuple((name, sign * lever) for name, lever in _levers(reading, at, place))
    others = ((line_name(reading.set_up), sign), *leans, *_hook(reading, instrument))
    return Observation(reading.id, value_mm, instrument.sigma_mm, terms, others)


def lean_name(set_up: str, axis: str) -> str:
    """Return the name of the unknown that is how far a set-up leans along an axis."""
    return f"lean:{set_up}:{axis}"


def leans_along(set_up: SetUp) -> tuple[str, ...]:
    """Return along which axes a plane may lean: a level one both ways, an upright one out of plumb."""
    return ("x", "y") if set_up.across == "z" else ("z",)


def _levers(reading: Offset | Profile | Scan, at: Spot, place: Measured) -> Iterator[tuple[str, float]]:
    """Yield how far a spot lies from the middle of the place along each axis that its plane may lean along, m."""
    set_up = next((s for s in place.set_ups if s.id == reading.set_up), None)
    if set_up is None:
        return
    size = {"x": place.width_mm, "y": place.depth_mm, "z": place.height_mm}
    for axis, mm in zip(SURFACE_AXES[reading.surface], at, strict=False):
        if axis in leans_along(set_up):
            yield lean_name(set_up.id, axis), (mm - size[axis] / 2) / 1000


def _slope(reading: Slope, instrument: Instrument) -> Observation:
    terms = ((reading.surface, reading.end, 1.0), (reading.surface, reading.start, -1.0))
    bias: tuple[tuple[str, float], ...] = ()
    if instrument.kind in BUBBLES:
        base_m = math.dist(reading.start, reading.end) / 1000.0
        bias = ((error_at(instrument, reading.taken_at).name, -base_m if reading.turned else base_m),)
    return Observation(reading.id, rise_mm(reading), instrument.sigma_mm, terms, bias)


def rise_mm(reading: Slope) -> float:
    """Return a slope reading as the rise over its own base length, mm."""
    base = math.dist(reading.start, reading.end)
    match reading.unit:
        case "mm/m":
            return reading.value * base / 1000.0
        case "deg":
            return math.sin(math.radians(reading.value)) * base
        case _:
            return reading.value


def _gap(reading: Gap, instrument: Instrument) -> Observation:
    """Return the straightedge's height over the surface: it lies on the proud side and touches at both ends."""
    sign = float(TOWARDS_INSTALLER[reading.surface])
    share = math.dist(reading.start, reading.at) / math.dist(reading.start, reading.end)
    terms = (
        (reading.surface, reading.start, sign * (1.0 - share)),
        (reading.surface, reading.end, sign * share),
        (reading.surface, reading.at, -sign),
    )
    return Observation(reading.id, reading.value_mm, instrument.sigma_mm, terms)


def _corner(reading: Corner, instrument: Instrument, place: Measured) -> Observation:
    """Return what the angle lacks of square, over the leg that runs out, mm.

    From the corner the back runs as (1, m) and a left wall as (n, 1), with m and n their gradients, so that the angle
    lacks m + n of square to first order; at the right it has that much more.
    """
    lacks, sigma = square_defect(reading, instrument.sigma_mm)
    z, a, b = reading.height_mm, reading.along_mm, reading.out_mm
    left = reading.corner == "back-left"
    sign = 1.0 if left else -1.0
    near, far = ((0.0, z), (a, z)) if left else ((place.width_mm - a, z), (place.width_mm, z))
    side = SIDE_OF[reading.corner]
    back = sign * b / a
    terms: tuple[Term, ...] = (
        ("back", far, back),
        ("back", near, -back),
        (side, (b, z), sign),
        (side, (0.0, z), -sign),
    )
    return Observation(reading.id, lacks * b, sigma * b, terms, _corner_error(reading, instrument))


def _corner_error(reading: Corner, instrument: Instrument) -> tuple[tuple[str, float], ...]:
    """Return the share of a square's own angle, or of a tape's hook in the diagonal, in what the angle lacks.

    Against a square that is wider by ε the gap is smaller by ε·b, so that the angle seems to lack that much more; a
    diagonal c that is read too long makes the angle seem wider by c/(ab·sin θ) for each millimetre.
    """
    error = error_at(instrument, reading.taken_at)
    if error.since is None:
        return ()
    a, b, c = reading.along_mm, reading.out_mm, reading.value_mm
    if reading.how == "square" and instrument.kind == "square":
        return ((error.name, b / 1000),)
    if reading.how == "diagonal" and instrument.kind == "tape":
        cosine = (a * a + b * b - c * c) / (2 * a * b)
        return ((error.name, -c / (a * math.sqrt(1 - cosine * cosine))),)
    return ()


def square_defect(reading: Corner, sigma_mm: float) -> tuple[float, float]:
    """Return by how much a corner is narrower than square, radians, and the standard uncertainty of that.

    By the diagonal c over legs a and b: cos θ = (a² + b² − c²)/2ab (law of cosines), all three read with the same
    instrument; by a square with a gap g at the tip of its leg b: θ = 90° + atan(g/b).

    Raises:
        SurveyError: No triangle has these sides.
    """
    a, b, c = reading.along_mm, reading.out_mm, reading.value_mm
    if reading.how == "square":
        return -math.atan2(c, b), sigma_mm / b
    cosine = (a * a + b * b - c * c) / (2 * a * b)
    if not -0.9 < cosine < 0.9:
        sides = f"legs of {a:g} and {b:g} mm and a diagonal of {c:g} mm"
        raise SurveyError(f"No corner has {sides}.", mend="Measure again.")
    sine = math.sqrt(1 - cosine * cosine)
    spread = math.hypot(c, a - b * cosine, b - a * cosine) / (a * b * sine)
    return math.asin(cosine), sigma_mm * spread


def observations(
    place: Measured, readings: Iterable[Reading], instruments: Mapping[str, Instrument]
) -> list[Observation]:
    """Return readings as linear sums, in their order.

    Raises:
        SurveyError: A reading names an instrument that is not there.
    """
    out: list[Observation] = []
    for reading in readings:
        instrument = instruments.get(reading.instrument)
        if instrument is None:
            named = f"“{reading.instrument}”"
            raise SurveyError(f"Place {place.name} has readings of an unknown instrument {named}.", mend="Add it.")
        out += observe(reading, instrument, place)
    return out


def unknowns(
    place: Measured, readings: Iterable[Reading], instruments: Iterable[Instrument]
) -> dict[str, tuple[float, float]]:
    """Return mean and standard deviation of every unknown beside the surfaces, before the readings."""
    lines = {line_name(s.id): set_up_prior(s, place) for s in place.set_ups}
    made_with = {i.id: i for i in instruments}
    leans = {
        lean_name(s.id, axis): (0.0, lean_sd(made_with.get(s.made_with)))
        for s in place.set_ups
        for axis in leans_along(s)
    }
    tilts = {name: (0.0, r.tilt_mm_per_m) for r in readings if isinstance(r, Scan) for name in tilt_names(r)}
    errors: list[OwnError] = [e for i in made_with.values() for e in own_errors(i)]
    return lines | leans | tilts | {e.name: (e.mean, e.sd) for e in errors}


def set_up_prior(set_up: SetUp, place: Measured) -> tuple[float, float]:
    """Return the mean and standard deviation of a set-up's place before the readings, mm."""
    if set_up.at_mm is not None:
        return set_up.at_mm, set_up.sigma_mm
    size = {"x": place.width_mm, "y": place.depth_mm, "z": place.height_mm}[set_up.across]
    return size / 2, UNKNOWN_SET_UP_SD_MM
