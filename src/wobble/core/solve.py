"""All stages of a job, one after the other: the job value in, the result value out."""

from __future__ import annotations

import dataclasses
import math
from functools import lru_cache
from typing import Any, Literal

from msgspec.structs import replace

from wobble.core.errors import SurveyError
from wobble.core.fit.around import Around
from wobble.core.fit.asked import asked
from wobble.core.fit.compare import Outcome, outcome
from wobble.core.fit.feet import Foot, Leg
from wobble.core.fit.findings import Case, Finding
from wobble.core.fit.flat import FlatPart
from wobble.core.fit.going import Going
from wobble.core.fit.ground import Ground, ground
from wobble.core.fit.hangers import Hanger
from wobble.core.fit.levelling import LevelSchool, LineSchool
from wobble.core.fit.plan import Plan, plan, plan_base
from wobble.core.fit.run import TierName
from wobble.core.fit.schools import School, schools
from wobble.core.fit.scribe import Scribe
from wobble.core.fit.sides import Sides, split_run
from wobble.core.fit.swings import Swing
from wobble.core.fit.verdicts import verdicts
from wobble.core.fit.walls import Walls, walls, with_marks
from wobble.core.fit.whole import Whole, fit_whole, stand_of
from wobble.core.gauge.place import Place, place
from wobble.core.gauge.share import neighbours
from wobble.core.gauge.survey import Survey, survey
from wobble.core.gauge.traits import Trait, traits
from wobble.core.hold.furring import Furring, furring
from wobble.core.hold.lines import SURE, structure
from wobble.core.hold.whole import BayHold, found_on, hold_whole
from wobble.core.job import Backing, BackLine, Bay, Closing, Datum, FixedTop, HighSpot, Job, Unit, Value


class BayFit(Value, frozen=True, kw_only=True):
    """Fit for one bay: the plan, once it can be made, and what to tell the installer.

    Attributes:
        bay: Which. datum: Where level starts. plan: Shims and packing. schools: Of the datum, compared.
        levelling: Ways of making level, compared. lines: Lines for the backs, compared.
        feet: Screw feet in the order in which to set them. legs: What is cut off each.
        sides: How each tier meets the side walls. flats: Tops and shelves. scribes: Every edge that is cut to a wall.
        going: How each unit gets in. around: What is done about each thing in the way.
        swings: How far each hinged door opens. hangers: Of racks under the ceiling.
        units: The units as they stand, moved as the split says.
        findings: What to tell, stops first.
    """

    bay: str
    datum: Datum
    plan: Plan | None
    schools: tuple[School, ...]
    levelling: tuple[LevelSchool, ...]
    lines: tuple[LineSchool, ...]
    feet: tuple[Foot, ...]
    legs: tuple[Leg, ...]
    sides: tuple[Sides, ...]
    flats: tuple[FlatPart, ...]
    scribes: tuple[Scribe, ...]
    going: tuple[Going, ...]
    around: tuple[Around, ...]
    swings: tuple[Swing, ...]
    hangers: tuple[Hanger, ...]
    units: tuple[Unit, ...]
    findings: tuple[Finding, ...]


class BayResult(Value, frozen=True, kw_only=True):
    """All stages of one bay."""

    gauge: Place
    traits: tuple[Trait, ...]
    fit: BayFit
    hold: BayHold


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


LINED: dict[str, Any] = {"backing": None, "overhead": None, "underfoot": None, "detections": ()}
"""A bay with nothing known behind its linings: what neither a survey nor Fit rests on."""


def _measured(job: Job, bay: Bay) -> Job:
    """Return only what a survey of a bay rests on: it, and the bays that share a corner with it, without decisions."""
    bays = tuple(
        replace(
            b,
            units=(),
            marks=(),
            notes=(),
            datum=HighSpot(),
            back_line=BackLine(),
            closing=Closing(),
            alternatives=(),
            **LINED,
        )
        for b in (bay, *neighbours(job, bay))
    )
    return Job(name="", instruments=job.instruments, bays=bays)


@lru_cache(maxsize=12)
def _walls(measured: Job) -> Walls:
    return walls(survey_of(measured, measured.bays[0].id))


def walls_of(job: Job, bay_id: str) -> Walls:
    """Return a bay's side walls and ceiling as draws, remembered by what was measured."""
    return _walls(_measured(job, find_bay(job, bay_id)))


def ground_of(job: Job, bay_id: str) -> Ground | None:
    """Return what a bay's run stands on, or None while there are no units or no floor readings.

    Remembered whatever the datum and the kit: turning those needs no new survey.
    """
    surveyed = survey_of(job, bay_id)
    if not surveyed.bay.units or not surveyed.measured("floor"):
        return None
    placed = replace(
        surveyed.bay,
        marks=(),
        notes=(),
        datum=HighSpot(),
        closing=Closing(),
        alternatives=(),
        **LINED,
    )
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
    case = _case(job, bay_id)
    whole = case.whole
    return BayFit(
        bay=bay_id,
        datum=chosen,
        plan=case.plan,
        schools=schools(case.ground, chosen, job.kit) if case.ground else (),
        levelling=whole.levelling,
        lines=whole.lines,
        feet=whole.feet,
        legs=whole.legs,
        sides=whole.sides,
        flats=whole.flats,
        scribes=whole.scribes,
        going=whole.going,
        around=whole.around,
        swings=whole.swings,
        hangers=whole.hangers,
        units=case.survey.bay.units,
        findings=verdicts(case),
    )


def solve_hold(job: Job, bay_id: str) -> BayHold:
    """Return what lies behind a bay's surfaces and how its units are fastened to it."""
    bay = find_bay(job, bay_id)
    lined = tuple(replace(b, notes=(), alternatives=(), **LINED) for b in job.bays)
    case = _placed(replace(job, bays=lined), bay_id)
    behind = {name: getattr(bay, name) for name in LINED}
    return hold_whole(job, replace(case.survey.bay, **behind), case.ground, case.plan, case.whole)


@lru_cache(maxsize=4)
def _placed(lined: Job, bay_id: str) -> Case:
    """Return Fit's part of Hold, remembered while only what lies behind is found out: a tap is answered at once."""
    return _case(lined, bay_id)


def solve_furring(
    job: Job, bay_id: str, *, low_mm: float, high_mm: float, pitch_mm: float, strip_mm: float, plumb: bool
) -> Furring | None:
    """Return strips packed to one plane over a bay's back; None where it is not measured or no two studs are known."""
    bay = find_bay(job, bay_id)
    backing = bay.backing or Backing()
    known = structure(found_on(bay, "back"), bay.width_mm, backing.stud_mm, backing.kind)
    studs = tuple(line.at_mm for line in known.lines if known.bites(line.at_mm) >= SURE)
    if backing.kind == "masonry":
        n = max(2, math.ceil(bay.width_mm / MASONRY_FURRING_MM) + 1)
        studs = tuple(40.0 + (bay.width_mm - 80.0) * k / (n - 1) for k in range(n))
    return furring(
        survey_of(job, bay_id), studs, low_mm=low_mm, high_mm=high_mm, pitch_mm=pitch_mm, strip_mm=strip_mm, plumb=plumb
    )


MASONRY_FURRING_MM = 600.0


def compare(job: Job, bay_id: str) -> tuple[Outcome, ...]:
    """Return what a bay's decisions come to, and each alternative that was kept, in the same few figures."""
    bay = find_bay(job, bay_id)
    sets = [("", job)]
    sets += [(a.name, with_decisions(job, bay_id, a.datum, a.back_line, a.closing)) for a in bay.alternatives]
    cases = [(name, _case(decided, bay_id)) for name, decided in sets]
    return tuple(outcome(name, case.plan, case.whole, verdicts(case)) for name, case in cases)


def _case(job: Job, bay_id: str) -> Case:
    """Return everything that the rules look at, under a bay's decisions."""
    chosen = find_bay(job, bay_id).datum
    job, moved = _split(job, bay_id)
    standing_on = ground_of(job, bay_id)
    asked = chosen if isinstance(chosen, FixedTop) else None
    # a top asked for over the datum mark says nothing of a floor whose height over the mark is not known
    answerable = standing_on is not None and not (asked and not standing_on.high_spot.tied)
    made = plan(standing_on, chosen, job.kit) if standing_on and answerable else None
    surveyed = survey_of(job, bay_id)
    whole = Whole()
    if standing_on and made:
        over = with_marks(surveyed.bay, walls_of(job, bay_id))
        whole = fit_whole(surveyed, over, standing_on, made, job, moved)
    return Case(job, surveyed, job.kit, standing_on, made, asked, whole)


def _split(job: Job, bay_id: str) -> tuple[Job, dict[TierName, float]]:
    """Return the job with a bay's run moved as its split says, and by how much each tier was."""
    bay = find_bay(job, bay_id)
    drawn = ground_of(job, bay_id)
    if drawn is None or bay.closing.split == "as drawn":
        return job, {}
    surveyed = survey_of(job, bay_id)
    base = plan_base(drawn, bay.datum).height.value_mm
    stand = stand_of(drawn, base)
    placed, moved = split_run(surveyed, with_marks(bay, walls_of(job, bay_id)), bay.closing, stand)
    return replace(job, bays=tuple(placed if b.id == bay_id else b for b in job.bays)), moved


def with_decisions(job: Job, bay_id: str, datum: Datum, back_line: BackLine, closing: Closing | None = None) -> Job:
    """Return the job with one bay's decisions turned: to try them, or to keep them."""
    closing = closing or find_bay(job, bay_id).closing
    turned = tuple(
        replace(b, datum=datum, back_line=back_line, closing=closing) if b.id == bay_id else b for b in job.bays
    )
    return replace(job, bays=turned)


def solve(job: Job) -> Result:
    """Return the results of all bays of a job."""
    return Result(
        job=job.name,
        bays=tuple(
            BayResult(
                gauge=solve_gauge(job, b.id),
                traits=solve_traits(job, b.id),
                fit=solve_fit(job, b.id),
                hold=solve_hold(job, b.id),
            )
            for b in job.bays
        ),
    )
