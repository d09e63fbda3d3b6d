"""Order for a whole job: what the other stages say of its places, made into steps and put into sessions."""

from __future__ import annotations

import dataclasses
from datetime import UTC, datetime
from typing import Any, get_args

from msgspec.structs import replace

from wobble.core.facts import AsSet, Fact, Followed, Note, Photo, StepDone, active
from wobble.core.fit.result import stand_of
from wobble.core.job import Job, Place, Sessions, Value
from wobble.core.job.sessions import Finishing
from wobble.core.make.result import Made
from wobble.core.order.result import AskedTonight, Planned, Plot, asked_tonight, planned, plot
from wobble.core.order.step import Tie, WorkStep
from wobble.core.order.steps.work import PlaceWork
from wobble.core.stages.known import MB, floor_contact_of
from wobble.core.stages.making import solve_make
from wobble.core.stages.remember import Remembered
from wobble.core.stages.setting_out import set_out
from wobble.core.stages.solve import solve_fit, solve_hold

WORK_BYTES = 4 * MB
"""What a job's places weigh at most with all that is planned for them."""
_WORKS = Remembered[Job, tuple[tuple[PlaceWork, ...], Made]](lambda _found: WORK_BYTES, 3 * WORK_BYTES)
KEPT: tuple[Remembered[Any, Any], ...] = (_WORKS,)
"""All that is remembered here."""
WRITTEN_DOWN = (StepDone, Note, Photo, AsSet)
"""What tells how the work went, and not what is planned."""


def works_of(job: Job) -> tuple[PlaceWork, ...]:
    """Return every place of a job with what the other stages plan for it."""
    return _worked(job)[0]


def _worked(job: Job) -> tuple[tuple[PlaceWork, ...], Made]:
    """Return a job's places and what is made for it, remembered while it is only said when it is worked at and how."""
    places = tuple(
        place if _followed(place) else replace(place, facts=tuple(f for f in place.facts if not _written(f)))
        for place in job.places
    )
    bare = replace(job, sessions=Sessions(), places=places)
    works, made = _WORKS.get(bare, lambda: _anew(bare))
    facts = {p.id: p.facts for p in job.places}
    here = tuple(dataclasses.replace(w, job=job, place=replace(w.place, facts=facts[w.place.id])) for w in works)
    return here, made


def _followed(place: Place) -> bool:
    return any(isinstance(f, Followed) for f in place.facts)


def _written(fact: Fact) -> bool:
    return isinstance(fact, WRITTEN_DOWN)


def _anew(job: Job) -> tuple[tuple[PlaceWork, ...], Made]:
    made = solve_make(job)
    out = []
    laid = set_out(job)
    for place in laid.places:
        fit, hold = solve_fit(job, place.id), solve_hold(job, place.id)
        contact = floor_contact_of(laid, place.id)
        base = fit.plan.base.height.value_mm if fit.plan else 0.0
        back = stand_of(contact, base).back_mm if contact is not None else 0.0
        out.append(
            PlaceWork(
                job=job,
                place=replace(place, units=fit.units),
                base_mm=base if fit.plan and fit.plan.base.tied else 0.0,
                back_mm=back,
                plan=fit.plan,
                access=fit.access,
                hold=hold,
                parts=tuple(p for p in made.parts if p.place == place.id),
                scribes=fit.scribes,
                measured=fit.plan is not None and bool(active(place.readings)),
            )
        )
    return tuple(out), made


def _plot(job: Job, now: datetime) -> Plot:
    done = [f for place in job.places for f in active(place.facts) if isinstance(f, StepDone)]
    works, made = _worked(job)
    return plot(job, works, made, done, now)


ANY_DAY = datetime(2000, 1, 3, 8, 0, tzinfo=UTC)


def ordered_steps(job: Job) -> tuple[tuple[WorkStep, ...], tuple[Tie, ...]]:
    """Return a job's steps in an order that keeps all that ties them, and the ties: neither depends on the day."""
    ordered = _plot(job, ANY_DAY).ordered
    return ordered.steps, ordered.ties


def solve_order(job: Job, now: datetime) -> Planned:
    """Return the steps of a job in its sessions from a moment on, `now` with its zone."""
    return planned(job, _plot(job, now))


def solve_tonight(
    job: Job, now: datetime, minutes: int, people: tuple[str, ...] = (), machines: tuple[str, ...] = ()
) -> AskedTonight:
    """Return what fits into so many minutes from a moment on, with who and what is there."""
    return asked_tonight(job, _plot(job, now), minutes, people, machines)


class FinishingOutcome(Value, frozen=True, kw_only=True):
    """What one way of finishing comes to: when all is done, and working minutes."""

    finishing: Finishing
    ends: str
    working_minutes: int
    touched_up: int


def compare_finishing(job: Job, now: datetime) -> tuple[FinishingOutcome, ...]:
    """Return what a job's order comes to with its coats before assembly, before setting, and after."""
    out = []
    for finishing in get_args(Finishing):
        found = solve_order(replace(job, sessions=replace(job.sessions, finishing=finishing)), now)
        out.append(
            FinishingOutcome(
                finishing=finishing,
                ends=found.ends,
                working_minutes=found.working_minutes,
                touched_up=sum(s.step.kind == "touch up" for s in found.steps),
            )
        )
    return tuple(out)
