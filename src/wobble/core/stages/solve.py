"""All stages of a job, one after the other: the job value in, the result value out."""

from __future__ import annotations

import math
from collections.abc import Hashable
from dataclasses import dataclass
from typing import Any

from msgspec.structs import replace

from wobble.core.finding import Finding, in_order
from wobble.core.fit.access.access import Access
from wobble.core.fit.compare import Outcome, outcome
from wobble.core.fit.cutouts.boxes import Cutout
from wobble.core.fit.findings.case import Case
from wobble.core.fit.findings.verdicts import verdicts
from wobble.core.fit.level.feet import Foot, Leg
from wobble.core.fit.level.methods import DatumMethod, methods
from wobble.core.fit.level.plan import Plan, plan, plan_base, run_height
from wobble.core.fit.level.ways import LevelMethod, LineMethod
from wobble.core.fit.mouldings.running import MouldingFit, mouldings
from wobble.core.fit.overhead.hangers import Hanger
from wobble.core.fit.parts import fit_parts
from wobble.core.fit.result import FitResult, fit_result, stand_of
from wobble.core.fit.run.requested import requested
from wobble.core.fit.run.tiers import TierName
from wobble.core.fit.scribe.line import Scribe
from wobble.core.fit.sides.closing import Sides, split_run
from wobble.core.fit.sides.swings import Swing
from wobble.core.fit.surfaces.walls import with_obstacles
from wobble.core.fit.tops.flat import FlatPart
from wobble.core.gauge.survey import Survey, SurveyInput, survey_input
from wobble.core.gauge.surveyed import Surveyed, surveyed
from wobble.core.gauge.traits import Trait, traits
from wobble.core.hold.rests.furring import Furring, furring
from wobble.core.hold.result import PlaceHold, hold_result
from wobble.core.hold.structure.behind import sure_middles
from wobble.core.job import (
    Backing,
    BackLine,
    Closing,
    Datum,
    FixedTop,
    Job,
    Moulding,
    Obstacle,
    Passage,
    Place,
    ShimKit,
    Unit,
    Value,
)
from wobble.core.length import LengthUnit
from wobble.core.part import Fastener, Part
from wobble.core.setout.laid import LaidOut
from wobble.core.stages.known import MB, bearing_on, find_place, floor_contact_of, survey_of, walls_of, which, which_of
from wobble.core.stages.remember import FEW, Remembered
from wobble.core.stages.setting_out import set_out, solve_setout


class PlaceFit(Value, frozen=True, kw_only=True):
    """Fit for one place: the plan, once it can be made, and what to tell the installer.

    Attributes:
        place: Which. datum: Where level starts. plan: Shims and packing. methods: Of the datum, compared.
        levelling: Ways of making level, compared. lines: Lines for the backs, compared.
        feet: Screw feet in the order in which to set them. legs: What is cut off each.
        sides: How each tier meets the side walls. flats: Tops and shelves. scribes: Every edge that is cut to a wall.
        access: How each unit gets in. cutouts: What is done about each obstacle.
        swings: How far each hinged door opens. hangers: Of racks under the ceiling.
        mouldings: Lengths of each with their ends, as the corners are.
        units: The units as they stand, moved as the split says.
        findings: What to tell, stops first. parts: What is made to fit.
        run_height_mm: Of the finished tops over the base; None without units.
    """

    place: str
    datum: Datum
    plan: Plan | None
    methods: tuple[DatumMethod, ...]
    levelling: tuple[LevelMethod, ...]
    lines: tuple[LineMethod, ...]
    feet: tuple[Foot, ...]
    legs: tuple[Leg, ...]
    sides: tuple[Sides, ...]
    flats: tuple[FlatPart, ...]
    scribes: tuple[Scribe, ...]
    access: tuple[Access, ...]
    cutouts: tuple[Cutout, ...]
    swings: tuple[Swing, ...]
    hangers: tuple[Hanger, ...]
    mouldings: tuple[MouldingFit, ...]
    units: tuple[Unit, ...]
    findings: tuple[Finding, ...]
    parts: tuple[Part, ...]
    run_height_mm: float | None


class PlaceResult(Value, frozen=True, kw_only=True):
    """All stages of one place."""

    place: str
    set_out: LaidOut
    gauge: Surveyed
    traits: tuple[Trait, ...]
    fit: PlaceFit
    hold: PlaceHold

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What every stage tells, stops first."""
        return in_order((*self.set_out.findings, *self.fit.findings, *self.hold.findings))

    @property
    def parts(self) -> tuple[Part, ...]:
        """All that is made."""
        return (*self.fit.parts, *self.hold.parts)

    @property
    def fasteners(self) -> tuple[Fastener, ...]:
        """All that is driven."""
        return self.hold.fasteners


def solve_gauge(job: Job, place_id: str) -> Surveyed:
    """Return what the readings say of a place."""
    return _GAUGED.get(bearing_on(job, place_id), lambda: _gauge(set_out(job), place_id))


def _gauge(job: Job, place_id: str) -> Surveyed:
    standing_on = floor_contact_of(job, place_id)
    asked = requested(standing_on) if standing_on else ()
    return surveyed(survey_of(job, place_id), find_place(job, place_id), asked, job.units)


def solve_traits(job: Job, place_id: str) -> tuple[Trait, ...]:
    """Return what a place is like."""
    given = survey_input(job, find_place(job, place_id))
    return _TRAITS.get((given, job.units), lambda: traits(survey_of(job, place_id), job.units))


def solve_fit(job: Job, place_id: str) -> PlaceFit:
    """Return the plan of a place under its decisions."""
    return _FITS.get(bearing_on(job, place_id), lambda: _fit(set_out(job), place_id))


def _fit(job: Job, place_id: str) -> PlaceFit:
    place = find_place(job, place_id)
    chosen = place.datum
    case = _remembered_case(job, place)
    fitted = case.fitted
    return PlaceFit(
        place=place_id,
        datum=chosen,
        plan=case.plan,
        methods=methods(case.contact, chosen, job.kit) if case.contact else (),
        levelling=fitted.levelling,
        lines=fitted.lines,
        feet=fitted.feet,
        legs=fitted.legs,
        sides=fitted.sides,
        flats=fitted.flats,
        scribes=fitted.scribes,
        access=fitted.access,
        cutouts=fitted.cutouts,
        swings=fitted.swings,
        hangers=fitted.hangers,
        mouldings=fitted.mouldings,
        units=case.place.units,
        findings=verdicts(case),
        parts=fit_parts(case.place, case.plan, fitted),
        run_height_mm=run_height(case.place.units) if case.place.units else None,
    )


def solve_hold(job: Job, place_id: str) -> PlaceHold:
    """Return what lies behind a place's surfaces and how its units are fastened to it."""
    return _HOLDS.get(bearing_on(job, place_id), lambda: _hold(set_out(job), place_id))


def _hold(job: Job, place_id: str) -> PlaceHold:
    place = find_place(job, place_id)
    case = _remembered_case(job, place)
    found = replace(place, units=case.place.units)
    return hold_result(job, found, case.contact, case.plan, case.fitted)


@dataclass(frozen=True)
class FitInput:
    """All that Fit rests on: what was measured and decided, not what lies behind linings."""

    survey: SurveyInput
    units: tuple[Unit, ...]
    obstacles: tuple[Obstacle, ...]
    datum: Datum
    back_line: BackLine
    closing: Closing
    beside: tuple[tuple[str, tuple[Unit, ...]], ...]
    kit: ShimKit
    way_in: tuple[Passage, ...]
    lengths: LengthUnit
    kerf_mm: float


def fit_input(job: Job, place: Place) -> FitInput:
    """Return what Fit rests on for a place of a job."""
    given = survey_input(job, place)
    beside = {p.id for p in given.neighbours}
    return FitInput(
        given,
        place.units,
        place.obstacles,
        place.datum,
        place.back_line,
        place.closing,
        tuple((p.id, p.units) for p in job.places if p.id in beside),
        job.kit,
        job.way_in,
        job.units,
        job.workshop.kerf_mm,
    )


def _which(asked: tuple[str, Job]) -> Hashable:
    return which(find_place(asked[1], asked[0]))


CASE_BYTES = 3 * MB
"""What a case weighs at most on the demo jobs, its figures with their workings."""
RESULT_BYTES, TRAITS_BYTES = 400_000, 40_000
"""What the result of a stage, and what a place is like, weigh at most there; a job of forty places is kept whole."""
_CASES = Remembered[FitInput, Case](lambda _case: CASE_BYTES, 4 * CASE_BYTES, lambda given: which_of(given.survey), FEW)
_FITS = Remembered[tuple[str, Job], PlaceFit](lambda _fit: RESULT_BYTES, 40 * RESULT_BYTES, _which)
_HOLDS = Remembered[tuple[str, Job], PlaceHold](lambda _hold: RESULT_BYTES, 40 * RESULT_BYTES, _which)
_GAUGED = Remembered[tuple[str, Job], Surveyed](lambda _gauged: RESULT_BYTES, 40 * RESULT_BYTES, _which)
_TRAITS = Remembered[tuple[SurveyInput, LengthUnit], tuple[Trait, ...]](lambda _traits: TRAITS_BYTES, 40 * TRAITS_BYTES)


def _remembered_case(job: Job, place: Place) -> Case:
    """Return Fit's part of Hold, remembered while only what lies behind is found out: a tap is answered at once."""
    return _CASES.get(fit_input(job, place), lambda: _case(job, place.id))


def solve_furring(
    job: Job, place_id: str, *, low_mm: float, high_mm: float, pitch_mm: float, strip_mm: float, plumb: bool
) -> Furring | None:
    """Return strips packed to one plane over a back; None where it is not measured or no two studs are known."""
    place = find_place(job, place_id)
    backing = place.backing or Backing()
    studs = sure_middles(place)
    if backing.kind == "masonry":
        n = max(2, math.ceil(place.width_mm / MASONRY_FURRING_MM) + 1)
        studs = tuple(40.0 + (place.width_mm - 80.0) * k / (n - 1) for k in range(n))
    return furring(
        survey_of(job, place_id),
        place.obstacles,
        studs,
        low_mm=low_mm,
        high_mm=high_mm,
        pitch_mm=pitch_mm,
        strip_mm=strip_mm,
        plumb=plumb,
    )


MASONRY_FURRING_MM = 600.0


def compare(job: Job, place_id: str) -> tuple[Outcome, ...]:
    """Return what a place's decisions come to, and each alternative that was kept, in the same few figures."""
    job = set_out(job)
    place = find_place(job, place_id)
    sets = [("", job)]
    sets += [(a.name, with_decisions(job, place_id, a.datum, a.back_line, a.closing)) for a in place.alternatives]
    cases = [(name, _case(decided, place_id)) for name, decided in sets]
    return tuple(outcome(name, case.plan, case.fitted, verdicts(case)) for name, case in cases)


def _case(job: Job, place_id: str) -> Case:
    """Return everything that the rules look at, under a place's decisions."""
    job, moved = _split(job, place_id)
    place = find_place(job, place_id)
    standing_on = floor_contact_of(job, place_id)
    fixed_top = place.datum if isinstance(place.datum, FixedTop) else None
    # a top asked for over the datum mark says nothing of a floor whose height over the mark is not known
    answerable = standing_on is not None and not (fixed_top and not standing_on.high_spot.tied)
    made = plan(standing_on, place.datum, job.kit) if standing_on and answerable else None
    surveyed = survey_of(job, place_id)
    if standing_on and made:
        over = with_obstacles(place, walls_of(job, place_id))
        fitted = fit_result(surveyed, place, over, standing_on, made, job, moved)
    else:  # mouldings are cut to walls, and want no floor
        fitted = FitResult(mouldings=_mouldings(job, place, surveyed))
    return Case(job, surveyed, place, job.kit, standing_on, made, fixed_top, fitted)


def _mouldings(job: Job, place: Place, surveyed: Survey) -> tuple[MouldingFit, ...]:
    if not any(isinstance(u.body, Moulding) for u in place.units):
        return ()
    return mouldings(surveyed, place, with_obstacles(place, walls_of(job, place.id)), None, job.workshop.kerf_mm)


def _split(job: Job, place_id: str) -> tuple[Job, dict[TierName, float]]:
    """Return the job with a place's run moved as its split says, and by how much each tier was."""
    place = find_place(job, place_id)
    drawn = floor_contact_of(job, place_id)
    if drawn is None or place.closing.split == "as drawn":
        return job, {}
    stand = stand_of(drawn, plan_base(drawn, place.datum).height.value_mm)
    placed, moved = split_run(place, with_obstacles(place, walls_of(job, place_id)), stand)
    return replace(job, places=tuple(placed if p.id == place_id else p for p in job.places)), moved


def with_decisions(job: Job, place_id: str, datum: Datum, back_line: BackLine, closing: Closing | None = None) -> Job:
    """Return the job with one place's decisions turned: to try them, or to keep them."""
    closing = closing or find_place(job, place_id).closing
    turned = tuple(
        replace(b, datum=datum, back_line=back_line, closing=closing) if b.id == place_id else b for b in job.places
    )
    return replace(job, places=turned)


def solve_place(job: Job, place_id: str) -> PlaceResult:
    """Return the results of one place."""
    return PlaceResult(
        place=place_id,
        set_out=solve_setout(job, place_id),
        gauge=solve_gauge(job, place_id),
        traits=solve_traits(job, place_id),
        fit=solve_fit(job, place_id),
        hold=solve_hold(job, place_id),
    )


KEPT_HERE: tuple[Remembered[Any, Any], ...] = (_CASES, _FITS, _HOLDS, _GAUGED, _TRAITS)
"""All that is remembered here."""
