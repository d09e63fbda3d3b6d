"""A job at a glance: how far every stage is, what its places look like, and the one thing to do next."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

import numpy as np

from wobble.core.facts import StepDone, active
from wobble.core.finding import Finding
from wobble.core.gauge.stations import stations, with_readings
from wobble.core.gauge.survey import Survey
from wobble.core.job import Job, Place, Value
from wobble.core.order.step import WorkStep
from wobble.core.stages.known import find_place, survey_of
from wobble.core.stages.making import solve_make
from wobble.core.stages.ordering import ordered_steps
from wobble.core.stages.setting import solve_set
from wobble.core.stages.setting_out import set_out
from wobble.core.stages.solve import solve_fit, solve_hold

Stage = Literal["place", "setout", "gauge", "fit", "hold", "make", "order", "set", "record"]
RIBBON_SPOTS = 25


class Outline(Value, frozen=True, kw_only=True):
    """A unit as it is seen from the room: from `x_mm` along and `up_mm` over the base, so wide and so high."""

    x_mm: float
    up_mm: float
    wide_mm: float
    high_mm: float


class StageAt(Value, frozen=True, kw_only=True):
    """How far a stage is: so many done of so many, and how many things stop it or are to be done again."""

    stage: Stage
    done: int
    of: int
    stops: int = 0


class PlaceGlance(Value, frozen=True, kw_only=True):
    """A place, small: its size, what stands in it, its floor under the run, and how far its stages are.

    `floor_mm` is how much higher or lower the floor is than its own middle at equal steps along, none where unread.
    """

    place: str
    name: str
    wide_mm: float
    high_mm: float
    units: tuple[Outline, ...]
    floor_mm: tuple[float, ...]
    stages: tuple[StageAt, ...]


class Next(Value, frozen=True, kw_only=True):
    """The one thing to do next, in words, and the stage and place where it is done."""

    stage: Stage
    place: str
    text: str


class Glance(Value, frozen=True, kw_only=True):
    """A job at a glance; `stages` are those of the whole job."""

    places: tuple[PlaceGlance, ...]
    stages: tuple[StageAt, ...]
    next: Next


def solve_glance(job: Job) -> Glance:
    """Return a job at a glance."""
    steps, _ = ordered_steps(job) if job.places else ((), ())
    done = {f.step for place in job.places for f in active(place.facts) if isinstance(f, StepDone)}
    parts = solve_make(job).parts if job.places else ()
    wanted, to_cut = sum(p.part.quantity for p in parts), sum(p.to_cut for p in parts)
    laid = set_out(job)
    return Glance(
        places=tuple(_place(job, place) for place in laid.places),
        stages=(
            StageAt(stage="make", done=wanted - to_cut, of=wanted),
            StageAt(stage="order", done=sum(s.key in done for s in steps), of=len(steps)),
        ),
        next=_next(job, steps, done),
    )


def solve_planned(job: Job, place_id: str) -> tuple[StageAt, ...]:
    """Return how far a place is from Set out to Hold: what costs nothing where those were just made."""
    place = find_place(set_out(job), place_id)
    survey = survey_of(job, place_id)
    round_ = with_readings(stations(place, job.units), survey)
    fit, hold = solve_fit(job, place_id), solve_hold(job, place_id)
    return (
        StageAt(stage="setout", done=len(place.units), of=len(place.units)),
        StageAt(
            stage="gauge",
            done=sum(s.read_by is not None for s in round_),
            of=len(round_),
            stops=len(survey.suspects),
        ),
        StageAt(stage="fit", done=int(fit.plan is not None), of=1, stops=_stops(fit.findings)),
        StageAt(stage="hold", done=sum(h.enough for h in hold.held), of=len(hold.held), stops=_stops(hold.findings)),
    )


def _place(job: Job, place: Place) -> PlaceGlance:
    checks = solve_set(job, place.id).checks
    return PlaceGlance(
        place=place.id,
        name=place.name,
        wide_mm=place.width_mm,
        high_mm=place.height_mm,
        units=tuple(
            Outline(x_mm=u.x_mm, up_mm=u.over_base_mm, wide_mm=u.width_mm, high_mm=u.height_mm)
            for u in solve_fit(job, place.id).units
        ),
        floor_mm=_floor(survey_of(job, place.id), place),
        stages=(
            *solve_planned(job, place.id),
            StageAt(
                stage="set",
                done=sum(c.state == "right" for c in checks),
                of=len(checks),
                stops=sum(c.state == "out" for c in checks),
            ),
        ),
    )


def _floor(survey: Survey, place: Place) -> tuple[float, ...]:
    if "floor" not in place.surfaces or not survey.measured("floor"):
        return ()
    at = np.linspace(0.0, place.width_mm, RIBBON_SPOTS)
    mean = survey.adjustment.mean(("floor", np.stack([at, np.full(len(at), place.depth_mm / 2)], axis=1)))
    return tuple(float(mm) for mm in mean - np.median(mean))


def _stops(findings: tuple[Finding, ...]) -> int:
    return sum(f.severity == "stop" for f in findings)


def _next(job: Job, steps: tuple[WorkStep, ...], done: set[str]) -> Next:
    """Return the one thing to do next: what is missing before what is wrong, and that before the next step."""
    if not job.places:
        return Next(stage="place", place="", text="Add a place: one run of units against a wall.")
    step = next((s for s in steps if s.key not in done), None)
    # once work has begun it goes on, but not with a piece that something stops
    found = next(_missing(job) if not done else _in_the_way(job, step), None)
    if found is not None:
        return found
    if step is not None:
        return Next(stage="order", place=step.place, text=f"{step.name}.")
    return Next(stage="record", place="", text="All is done: keep the record of the job as it went.")


def _missing(job: Job) -> Iterator[Next]:
    """Yield what is missing or wrong before work begins, in the order in which it is mended."""
    for place in job.places:
        if not place.units:
            yield Next(stage="setout", place=place.id, text=f"Say what you build at {place.name}.")
        if not active(place.readings):
            yield Next(stage="gauge", place=place.id, text=f"Take the first reading of {place.name}.")
            continue
        survey = survey_of(job, place.id)
        again = len(survey.suspects)
        if again:
            readings = "one reading" if again == 1 else f"{again} readings"
            yield Next(stage="gauge", place=place.id, text=f"Take {readings} of {place.name} once more.")
        round_ = with_readings(stations(place, job.units), survey)
        if 2 * len(active(place.readings)) < len(round_):
            left = sum(s.read_by is None for s in round_)
            yield Next(
                stage="gauge", place=place.id, text=f"Go on with the round of {place.name}: {left} stations are left."
            )
        yield from _stopped(job, place.id)


def _in_the_way(job: Job, step: WorkStep | None) -> Iterator[Next]:
    """Yield what stops the pieces that a step is for."""
    if step is not None and step.place and step.of:
        yield from _stopped(job, step.place, set(step.of))


def _stopped(job: Job, place: str, of: set[str] | None = None) -> Iterator[Next]:
    """Yield what stops a place, or some of its pieces, by stages."""
    told: tuple[tuple[Stage, tuple[Finding, ...]], ...] = (
        ("fit", solve_fit(job, place).findings),
        ("hold", solve_hold(job, place).findings),
    )
    for stage, findings in told:
        for stop in (f for f in findings if f.severity == "stop" and (of is None or of & set(f.about))):
            yield Next(stage=stage, place=place, text=f"Mend: {stop.title}.")
