"""A practice: what to try next in a made-up place, and in the end how near one came to how it really is."""

from __future__ import annotations

from typing import Literal

import numpy as np

from wobble.core.gauge.stations import stations, with_readings
from wobble.core.gauge.survey import Survey
from wobble.core.job import Job, SurfaceName, Value
from wobble.core.practice.corner import true_place
from wobble.core.practice.simulated import TruePlace
from wobble.core.stages.known import find_place, survey_of
from wobble.core.stages.solve import solve_fit

BY_HAND = 3
"""So many spots one reads oneself before the apprentice goes on."""
NEAR_SD = 1.96
Lesson = Literal["read", "rest", "again", "fit", "list", "truth"]


class Surfaced(Value, frozen=True, kw_only=True):
    """How near one came on a surface: the usual error, mm, the worst, and how many spots lay inside twice their ±."""

    surface: SurfaceName
    usual_mm: float
    worst_mm: float
    held: int
    of: int


class Stood(Value, frozen=True, kw_only=True):
    """How far the corners of a unit truly differ in height, mm: put down as it is, and packed by the plan."""

    unit: str
    bare_mm: float
    packed_mm: float


class Nearness(Value, frozen=True, kw_only=True):
    """What the survey came to, against how the place really is."""

    surfaces: tuple[Surfaced, ...]
    units: tuple[Stood, ...]
    shims_held: int
    shims_of: int


class Practised(Value, frozen=True, kw_only=True):
    """How far a practice is: what is learned next, and what is read of what.

    `next` is the first lesson that the readings do not show as done; from "fit" on it is the user who has seen enough.
    The nearness is told once the round is done.
    """

    next: Lesson
    read: int
    of: int
    again: int
    nearness: Nearness | None = None


def solve_practice(job: Job, place_id: str) -> Practised:
    """Return how far a practice is.

    Raises:
        SurveyError: The place is real.
    """
    place = find_place(job, place_id)
    truth = true_place(place)
    survey = survey_of(job, place_id)
    round_ = with_readings(stations(place, job.units), survey)
    read, again = sum(s.read_by is not None for s in round_), len(survey.suspects)
    lesson: Lesson = "fit"
    if read < min(BY_HAND, len(round_)):
        lesson = "read"
    elif read < len(round_):
        lesson = "rest"
    elif again:
        lesson = "again"
    done = lesson in ("again", "fit") and len(round_) > 0
    return Practised(
        next=lesson,
        read=read,
        of=len(round_),
        again=again,
        nearness=_nearness(job, place_id, survey, truth) if done else None,
    )


def _nearness(job: Job, place_id: str, survey: Survey, truth: TruePlace) -> Nearness:
    place = find_place(job, place_id)
    surfaces = []
    for surface in place.surfaces:
        spots = np.asarray([s.at for s in stations(place, job.units) if s.surface == surface], dtype=float).reshape(
            -1, 2
        )
        between = (spots[:-1] + spots[1:]) / 2
        if not len(between) or not survey.measured(surface):
            continue
        mean, sd = survey.adjustment.mean_and_sd((surface, between))
        off = np.abs(mean - truth.surfaces[surface].at(between))
        surfaces.append(
            Surfaced(
                surface=surface,
                usual_mm=float(np.sqrt(np.mean(off**2))),
                worst_mm=float(off.max()),
                held=int((off <= NEAR_SD * sd).sum()),
                of=len(off),
            )
        )
    plan = solve_fit(job, place_id).plan
    shims = plan.shims if plan is not None else ()
    base = plan.base.height.value_mm if plan is not None else 0.0
    units, held = [], 0
    for unit in dict.fromkeys(s.unit for s in shims):
        under = [s for s in shims if s.unit == unit]
        floor = truth.surfaces["floor"].at(np.asarray([s.at for s in under], dtype=float))
        top = floor + np.asarray([s.gap.value_mm for s in under])
        held += sum(abs(t - base) <= NEAR_SD * s.gap.sd_mm for t, s in zip(top, under, strict=True))
        units.append(Stood(unit=unit, bare_mm=float(np.ptp(floor)), packed_mm=float(np.ptp(top))))
    return Nearness(surfaces=tuple(surfaces), units=tuple(units), shims_held=int(held), shims_of=len(shims))
