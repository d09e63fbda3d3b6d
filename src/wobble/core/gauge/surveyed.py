"""What the place is like, as values to draw and tell: surfaces on grids, verdicts on readings, stations."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Literal

import numpy as np

from wobble.core.gauge.checks import BUBBLES, own_errors
from wobble.core.gauge.doubts.explain import FoundEdge
from wobble.core.gauge.next import Requested, next_for
from wobble.core.gauge.observe import line_name
from wobble.core.gauge.prior import Floats
from wobble.core.gauge.stations import NextReading, Station, next_reading, stations, with_readings
from wobble.core.gauge.survey import TIED_SD_MM, Survey
from wobble.core.job import Instrument, Measured, Place, SurfaceName, Value, surface_extent
from wobble.core.length import LengthUnit

GRID_STEP_MM = 80.0
MOST_STEPS = (48, 14)


class SurfaceShape(Value, frozen=True, kw_only=True):
    """A surface on a grid: mean and sd, mm, as rows along the second axis of columns along the first.

    `tied` says whether the surface's own place is known; where not, the sd is that of the difference to the spot
    read nearest the middle of all, since only its shape is known.
    """

    surface: SurfaceName
    n_readings: int
    tied: bool
    first: tuple[float, ...]
    second: tuple[float, ...]
    mean_mm: tuple[tuple[float, ...], ...]
    sd_mm: tuple[tuple[float, ...], ...]


class ReadingVerdict(Value, frozen=True, kw_only=True):
    """Whether a reading agrees with the others: it stands `by_mm` ± `sd_mm` from what they say.

    `looks_like` names the slip that explains it, if one does.
    """

    reading: str
    verdict: Literal["agrees", "take again"]
    by_mm: float
    sd_mm: float
    looks_like: str = ""


class FoundSetUp(Value, frozen=True, kw_only=True):
    """Where a set-up turned out to stand, mm."""

    set_up: str
    at_mm: float
    sd_mm: float


class KnockedLine(Value, frozen=True, kw_only=True):
    """A line that moved in the midst of its round: since which reading, and by how much, mm."""

    set_up: str
    since: str
    by_mm: float
    sd_mm: float


class SeenEdge(Value, frozen=True, kw_only=True):
    """Where a surface steps, as its readings show, though nobody said so; the figures count with it.

    `low` and `high` are between which readings it begins and ends, along the axis; `high` is None where it runs to the
    end of the surface, `end_mm`. `by_mm` counts towards the installer.
    """

    surface: SurfaceName
    axis: Literal["first", "second"]
    low: tuple[float, float]
    high: tuple[float, float] | None
    end_mm: float
    by_mm: float
    sd_mm: float


class EdgeOrKnock(Value, frozen=True, kw_only=True):
    """A surface that steps or a line that was knocked: which reading to take once more, to know."""

    edge: SeenEdge
    set_up: str
    since: str
    again: str


class LeaningLine(Value, frozen=True, kw_only=True):
    """A set-up that leans along an axis, mm per m, and how well that is known; what was read from it is corrected."""

    set_up: str
    axis: str
    mm_per_m: float
    sd: float


class LevelBias(Value, frozen=True, kw_only=True):
    """By how much a level reads too high, mm per m, and how well that is known; the readings are corrected for it.

    `since` is when the check was made that it rests on; None for what was read before any.
    """

    instrument: str
    mm_per_m: float
    sd: float
    since: datetime | None = None


class Surveyed(Value, frozen=True, kw_only=True):
    """The result of Gauge for one place; `bends` are surfaces that turn sharply, though nobody said so."""

    place: str
    surfaces: tuple[SurfaceShape, ...]
    verdicts: tuple[ReadingVerdict, ...]
    set_ups: tuple[FoundSetUp, ...]
    stations: tuple[Station, ...]
    next_reading: NextReading | None
    knock: KnockedLine | None = None
    biases: tuple[LevelBias, ...] = ()
    edges: tuple[SeenEdge, ...] = ()
    edge_or_knock: EdgeOrKnock | None = None
    leaning: tuple[LeaningLine, ...] = ()
    bends: tuple[SurfaceName, ...] = ()


def surveyed(survey: Survey, place: Place, requested: Sequence[Requested] = (), units: LengthUnit = "mm") -> Surveyed:
    """Return what a survey says of its place; the next reading is the best one for what is asked, if anything is."""
    round_ = with_readings(stations(place, units), survey)
    instrument = next((i for i in _instruments_used(survey)), Instrument(id="tape", name="Tape"))
    return Surveyed(
        place=place.id,
        surfaces=tuple(_shape(survey, s) for s in place.surfaces),
        verdicts=tuple(
            ReadingVerdict(
                reading=d.reading_id,
                verdict="take again" if d.suspect or d in survey.contradicting else "agrees",
                by_mm=d.by_mm,
                sd_mm=d.sd_mm,
                looks_like=survey.cause(d) if d.suspect else "",
            )
            for d in survey.disagreements
        ),
        set_ups=tuple(_found_set_up(survey, s.id) for s in place.set_ups),
        stations=round_,
        # a step or a knock: the one reading that tells which is named with it, and any other is read from that line too
        next_reading=None
        if survey.rivals is not None
        else next_for(survey, round_, requested, instrument) or _next(survey, round_, instrument),
        biases=_biases(survey),
        knock=KnockedLine(set_up=k.set_up, since=k.since, by_mm=k.by_mm, sd_mm=k.sd_mm)
        if (k := survey.knock)
        else None,
        edges=tuple(_edge(survey, e) for e in survey.edges),
        edge_or_knock=EdgeOrKnock(
            edge=_edge(survey, both.edge), set_up=both.knock.set_up, since=both.knock.since, again=both.again
        )
        if (both := survey.rivals)
        else None,
        leaning=tuple(LeaningLine(set_up=o.set_up, axis=o.axis, mm_per_m=o.by, sd=o.sd) for o in survey.leaning),
        bends=survey.bends,
    )


def _edge(survey: Survey, edge: FoundEdge) -> SeenEdge:
    end = surface_extent(survey.place, edge.surface)[edge.axis][1]
    return SeenEdge(
        surface=edge.surface,
        axis="first" if edge.axis == 0 else "second",
        low=edge.between("low"),
        high=edge.between("high") if edge.high[0] < end else None,
        end_mm=end,
        by_mm=edge.by_mm,
        sd_mm=edge.sd_mm,
    )


def _next(survey: Survey, round_: tuple[Station, ...], instrument: Instrument) -> NextReading | None:
    """Return the best next reading of the surface on which it would still move most."""
    found = []
    for surface in survey.place.surfaces:
        wanted = np.asarray([s.at for s in round_ if s.surface == surface], dtype=float)
        found.append(next_reading(survey, round_, surface, wanted, instrument))
    return max((n for n in found if n is not None), key=lambda n: n.would_move_mm, default=None)


def _biases(survey: Survey) -> tuple[LevelBias, ...]:
    """Return the biases of the levels that this place was read with."""
    used = {name for o in survey.adjustment.observations for name, _ in o.unknown_terms}
    found = []
    for instrument in survey.instruments:
        if instrument.kind not in BUBBLES:
            continue
        for error in own_errors(instrument):
            if error.name in used:
                bias, sd = survey.adjustment.unknown(error.name)
                found.append(LevelBias(instrument=instrument.id, mm_per_m=bias, sd=sd, since=error.since))
    return tuple(found)


def _instruments_used(survey: Survey) -> tuple[Instrument, ...]:
    sigmas = {o.sigma_mm for o in survey.adjustment.observations}
    return tuple(Instrument(id="used", name="As used", sigma_mm=s) for s in sorted(sigmas))


def _found_set_up(survey: Survey, set_up_id: str) -> FoundSetUp:
    at, sd = survey.adjustment.unknown(line_name(set_up_id))
    return FoundSetUp(set_up=set_up_id, at_mm=at, sd_mm=sd)


def grid(place: Measured, surface: SurfaceName) -> tuple[Floats, Floats]:
    """Return the coordinates along both axes at which a surface is drawn, mm."""
    steps = []
    for (low, high), most in zip(surface_extent(place, surface), MOST_STEPS, strict=True):
        steps.append(np.linspace(low, high, min(most, max(4, round((high - low) / GRID_STEP_MM))) + 1))
    return steps[0], steps[1]


def _shape(survey: Survey, surface: SurfaceName) -> SurfaceShape:
    first, second = grid(survey.place, surface)
    spots = np.stack(np.meshgrid(first, second), axis=-1).reshape(-1, 2)
    mean, sd = survey.adjustment.mean_and_sd((surface, spots))
    n_readings = survey.measured(surface)
    tied = bool(sd.min() < TIED_SD_MM)
    if n_readings and not tied:
        read = survey.adjustment.designs[surface].spots
        sd = survey.adjustment.sd_apart(
            surface, spots, read[np.argmin(np.linalg.norm(read - read.mean(axis=0), axis=1))]
        )
    return SurfaceShape(
        surface=surface,
        n_readings=n_readings,
        tied=tied,
        first=tuple(first.tolist()),
        second=tuple(second.tolist()),
        mean_mm=_rows(mean, len(first)),
        sd_mm=_rows(sd, len(first)),
    )


def _rows(values: Floats, width: int) -> tuple[tuple[float, ...], ...]:
    """Return values as rows; a thousandth of a millimetre is enough to draw."""
    return tuple(tuple(row) for row in np.round(values.reshape(-1, width), 3).tolist())
