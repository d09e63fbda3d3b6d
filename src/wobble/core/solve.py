"""All stages of a job, one after the other: the job value in, the result value out."""

from __future__ import annotations

import dataclasses
from functools import lru_cache
from typing import Literal

from msgspec.structs import replace

from wobble.core.errors import SurveyError
from wobble.core.fit.asked import asked
from wobble.core.fit.ground import Ground, ground
from wobble.core.fit.plan import Plan, plan
from wobble.core.fit.schools import School, schools
from wobble.core.fit.verdicts import Case, Finding, verdicts
from wobble.core.gauge.place import Place, place
from wobble.core.gauge.share import neighbours
from wobble.core.gauge.survey import Survey, survey
from wobble.core.gauge.traits import Trait, traits
from wobble.core.job import BackLine, Bay, Datum, FixedTop, HighSpot, Job, Value


class BayFit(Value, frozen=True, kw_only=True):
    """Fit for one bay: the plan, once it can be made, and what to tell the installer."""

    bay: str
    datum: Datum
    plan: Plan | None
    schools: tuple[School, ...]
    findings: tuple[Finding, ...]


class BayResult(Value, frozen=True, kw_only=True):
    """All stages of one bay."""

    gauge: Place
    traits: tuple[Trait, ...]
    fit: BayFit


class Result(Value, frozen=True, kw_only=True):
    """The result document: what `wobble solve` prints."""

    format: Literal["wobble-result"] = "wobble-result"
    version: Literal[1] = 1
    job: str
    bays: tuple[BayResult, ...]


def find_bay(job: Job, bay_id: str) -> Bay:
    """Return a bay by its id.

    Raises:
        SurveyError: The job has no such bay.
    """
    for bay in job.bays:
        if bay.id == bay_id:
            return bay
    raise SurveyError(f"There is no bay “{bay_id}” in this job.", mend="Choose one of the job's bays.")


@lru_cache(maxsize=32)
def _survey(measured: Job) -> Survey:
    return survey(measured, measured.bays[0])


@lru_cache(maxsize=32)
def _ground(placed: Job) -> Ground:
    return ground(survey_of(placed, placed.bays[0].id))


def survey_of(job: Job, bay_id: str) -> Survey:
    """Return the survey of a bay; the last few are remembered by what was measured, whatever was decided since."""
    bay = find_bay(job, bay_id)
    return dataclasses.replace(_survey(_measured(job, bay)), bay=bay)


def _measured(job: Job, bay: Bay) -> Job:
    """Return only what a survey of a bay rests on: it, and the bays that share a corner with it, without decisions."""
    bays = tuple(
        replace(b, units=(), marks=(), notes=(), datum=HighSpot(), back_line=BackLine())
        for b in (bay, *neighbours(job, bay))
    )
    return Job(name="", instruments=job.instruments, bays=bays)


def ground_of(job: Job, bay_id: str) -> Ground | None:
    """Return what a bay's run stands on, or None while there are no units or no floor readings.

    Remembered whatever the datum and the kit: turning those needs no new survey.
    """
    surveyed = survey_of(job, bay_id)
    if not surveyed.bay.units or not surveyed.measured("floor"):
        return None
    placed = replace(surveyed.bay, marks=(), notes=(), datum=HighSpot())
    return _ground(replace(_measured(job, placed), bays=(placed, *_measured(job, placed).bays[1:])))


def solve_gauge(job: Job, bay_id: str) -> Place:
    """Return what the readings say of a bay."""
    standing_on = ground_of(job, bay_id)
    return place(survey_of(job, bay_id), asked(standing_on) if standing_on else ())


def solve_traits(job: Job, bay_id: str) -> tuple[Trait, ...]:
    """Return what a bay is like."""
    return traits(survey_of(job, bay_id))


def solve_fit(job: Job, bay_id: str) -> BayFit:
    """Return the plan of a bay under its decisions."""
    chosen = find_bay(job, bay_id).datum
    standing_on = ground_of(job, bay_id)
    asked = chosen if isinstance(chosen, FixedTop) else None
    # a top asked for over the datum mark says nothing of a floor whose height over the mark is not known
    answerable = standing_on is not None and not (asked and not standing_on.high_spot.tied)
    made = plan(standing_on, chosen, job.kit) if standing_on and answerable else None
    case = Case(job, survey_of(job, bay_id), job.kit, standing_on, made, asked)
    compared = schools(standing_on, chosen, job.kit) if standing_on else ()
    return BayFit(bay=bay_id, datum=chosen, plan=made, schools=compared, findings=verdicts(case))


def with_decisions(job: Job, bay_id: str, datum: Datum, back_line: BackLine) -> Job:
    """Return the job with one bay's decisions turned: to try them, or to keep them."""
    find_bay(job, bay_id)
    turned = tuple(replace(b, datum=datum, back_line=back_line) if b.id == bay_id else b for b in job.bays)
    return replace(job, bays=turned)


def solve(job: Job) -> Result:
    """Return the results of all bays of a job."""
    return Result(
        job=job.name,
        bays=tuple(
            BayResult(gauge=solve_gauge(job, b.id), traits=solve_traits(job, b.id), fit=solve_fit(job, b.id))
            for b in job.bays
        ),
    )
